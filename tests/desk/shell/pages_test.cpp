// Every control of every station changes what it says it changes.
#include "support/person.hpp"

#include "desk/depth/depth_chart.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using namespace poquito::text;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::advice;
using test::Person;
using test::WithinRel;

TEST_CASE("Subject edits size, movement, care and name", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.type(QStringLiteral("nameField"), QStringLiteral("Urchin, from above"));
    CHECK(person.shot().name == "Urchin, from above");
    CHECK(person.find<QListView>(QStringLiteral("shotCards"))->model()->index(0, 0).data().toString() ==
          QStringLiteral("Urchin, from above"));
    person.type(QStringLiteral("reflectanceField"), QStringLiteral("40 %"));
    CHECK_THAT(person.shot().subject.reflectance, WithinRel(0.4, 1e-9));
    person.type(QStringLiteral("speedField"), QStringLiteral("2 cm/s"));
    CHECK(person.shot().subject.speed == 20);
    CHECK_FALSE(person.find(QStringLiteral("swayFrequencyField"))->isVisible());
    person.type(QStringLiteral("swayField"), QStringLiteral("1"));
    person.type(QStringLiteral("swayFrequencyField"), QStringLiteral("2.5 Hz"));
    CHECK(person.shot().subject.sway_frequency == 2.5);
    person.click(QStringLiteral("mattersTab"));
    person.click(QStringLiteral("chip-food"));
    CHECK(has_trait(person.shot().subject, "food"));
    CHECK(person.hasNote("safety-food"));
    person.click(QStringLiteral("chip-food"));
    CHECK_FALSE(person.hasNote("safety-food"));
    person.click(QStringLiteral("subjectTab"));
    person.type(QStringLiteral("wantedMagnificationField"), QStringLiteral("1:4"));
    CHECK_THAT(person.report().optics.magnification, WithinRel(0.25, 1e-9));
}

TEST_CASE("Reach edits gear and ring", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(2);
    person.choose(QStringLiteral("cameraChoice"), QStringLiteral("Full-frame body, 45 MP"));
    CHECK(person.shot().rig.camera == "full-45");
    person.choose(QStringLiteral("lensChoice"), QStringLiteral("50 mm standard lens"));
    CHECK(person.shot().rig.lens == "normal-50");
    person.choose(QStringLiteral("converterChoice"), QStringLiteral("Converter 2x"));
    CHECK(person.shot().rig.teleconverter == "converter-2");
    person.choose(QStringLiteral("converterChoice"), QStringLiteral("none"));
    CHECK_FALSE(person.shot().rig.teleconverter.has_value());
    person.click(QStringLiteral("chip-closeup-2"));
    CHECK(person.shot().rig.closeup_lenses == std::vector<std::string>{"closeup-2"});
    person.clickLine(person.numbers().indexOf("usual-here"));
    CHECK(person.hasNote("infinity-lost"));
    person.click(QStringLiteral("chip-closeup-2"));
    CHECK(person.shot().rig.closeup_lenses.empty());
    auto* slider = person.find<QSlider>(QStringLiteral("ringSlider"));
    slider->setFocus();
    person.key(Qt::Key_Home);
    CHECK(person.report().optics.magnification == 0);
    CHECK(person.shot().rig.focus.by == FocusBy::ring);
    CHECK(person.ledger("working_distance_mm") == QStringLiteral("\u221e"));
    person.key(Qt::Key_End);
    CHECK(person.report().optics.ring == 1);
}

TEST_CASE("Depth edits stop, blur limit and stack, and shows only what the rule uses", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    CHECK(person.find(QStringLiteral("pixelsField"))->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("printWidthField"))->isVisible());
    person.choose(QStringLiteral("blurRuleChoice"), QStringLiteral("final output"));
    CHECK(person.find(QStringLiteral("printWidthField"))->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("pixelsField"))->isVisible());
    person.type(QStringLiteral("printWidthField"), QStringLiteral("30 cm"));
    person.type(QStringLiteral("viewingDistanceField"), QStringLiteral("250"));
    // 0.2 mm at 250 mm, on a print 300/23.5 times as large as the sensor.
    CHECK_THAT(person.report().sharpness.blur_limit, WithinRel(0.2 * 23.5 / 300, 1e-9));
    person.choose(QStringLiteral("outputChoice"), QStringLiteral("file"));
    person.type(QStringLiteral("deliveredWidthField"), QStringLiteral("2350"));
    person.type(QStringLiteral("cropField"), QStringLiteral("50 %"));
    CHECK_THAT(person.report().sharpness.blur_limit, WithinRel(0.01, 1e-9));
    const double kept = person.report().sharpness.blur_limit;
    person.choose(QStringLiteral("blurRuleChoice"), QStringLiteral("stated"));
    CHECK(person.report().sharpness.blur_limit == kept);
    person.type(QStringLiteral("statedField"), QStringLiteral("20 um"));
    CHECK_THAT(person.report().sharpness.blur_limit, WithinRel(0.02, 1e-9));

    person.click(QStringLiteral("settingsTab"));
    person.choose(QStringLiteral("depthRuleChoice"), QStringLiteral("kept contrast"));
    person.type(QStringLiteral("contrastField"), QStringLiteral("70 %"));
    CHECK_THAT(person.shot().capture.contrast_kept, WithinRel(0.7, 1e-9));
    person.choose(QStringLiteral("moverChoice"), QStringLiteral("rail"));
    CHECK(person.shot().capture.mover == Mover::rail);
    person.type(QStringLiteral("overlapField"), QStringLiteral("30"));
    person.type(QStringLiteral("leadField"), QStringLiteral("1"));
    person.type(QStringLiteral("tailField"), QStringLiteral("2"));
    person.type(QStringLiteral("intervalField"), QStringLiteral("2"));
    CHECK(person.shot().capture.interval == 2);
    CHECK(person.text(QStringLiteral("stackText"))
              .startsWith(QString::fromStdString(count_text(person.report().capture.frames, "frame", "frames"))));
    person.choose(QStringLiteral("modeChoice"), QStringLiteral("one frame"));
    CHECK(person.report().capture.frames == 1);
    CHECK_FALSE(person.find(QStringLiteral("overlapField"))->isEnabled());
    person.type(QStringLiteral("wavelengthField"), QStringLiteral("480 nm"));
    CHECK_THAT(person.shot().sharpness.wavelength, WithinRel(480e-6, 1e-9));
}

TEST_CASE("a click on the depth chart takes the nearest mark of the lens", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    auto* chart = person.find<desk::DepthChart>(QStringLiteral("depthChart"));
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(qRound(chart->xOf(11)), chart->height() / 2));
    CHECK(person.shot().exposure.f_number == 11);
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(chart->width() - 1, chart->height() / 2));
    CHECK(person.shot().exposure.f_number == 22);
    CHECK_THAT(chart->xAt(chart->xOf(5.6)), WithinRel(5.6, 1e-9));
}

TEST_CASE("Light edits exposure, ambient, background and every flash by itself", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(4);
    person.click(QStringLiteral("lightsTab"));
    person.click(QStringLiteral("addFlashButton"));
    REQUIRE(person.shot().lights.size() == 2);
    CHECK(person.find<QToolButton>(QStringLiteral("flashTabB"))->isChecked());
    person.type(QStringLiteral("lightDistanceField"), QStringLiteral("25 cm"));
    person.type(QStringLiteral("azimuthField"), QStringLiteral("-20"));
    person.type(QStringLiteral("elevationField"), QStringLiteral("15"));
    person.choose(QStringLiteral("flashChoice"), QStringLiteral("Studio head 200 Ws"));
    person.choose(QStringLiteral("modifierChoice"), QStringLiteral("bare"));
    const auto& second = person.shot().lights[1];
    CHECK(second.position == light::Position{250, -20, 15});
    CHECK(second.flash == "studio-200");
    CHECK_FALSE(second.modifier.has_value());
    CHECK(person.shot().lights[0].position.distance == 700);
    person.click(QStringLiteral("flashTabA"));
    CHECK(person.text(QStringLiteral("lightDistanceField")) == QStringLiteral("700 mm"));
    person.click(QStringLiteral("removeFlashButton"));
    REQUIRE(person.shot().lights.size() == 1);
    CHECK(person.shot().lights[0].position.distance == 250);
    person.click(QStringLiteral("removeFlashButton"));
    CHECK_FALSE(person.find(QStringLiteral("lightDistanceField"))->isVisible());

    person.click(QStringLiteral("exposureTab"));
    person.type(QStringLiteral("ambientField"), QStringLiteral("9 1/3"));
    CHECK_THAT(person.shot().ambient->ev100, WithinRel(9 + 1.0 / 3, 1e-9));
    person.click(QStringLiteral("ambientCheck"));
    CHECK_FALSE(person.shot().ambient.has_value());
    CHECK(person.hasNote("no-light"));
    person.click(QStringLiteral("backdropTab"));
    person.type(QStringLiteral("backgroundDistanceField"), QStringLiteral("0.5 m"));
    CHECK(person.shot().background->distance == 500);
    person.type(QStringLiteral("backgroundReflectanceField"), QStringLiteral("4"));
    CHECK_THAT(person.shot().background->reflectance, WithinRel(0.04, 1e-9));
    person.click(QStringLiteral("backgroundCheck"));
    CHECK_FALSE(person.shot().background.has_value());
    CHECK(person.ledger("background_disc_mm").isEmpty());
}

TEST_CASE("Run ticks the checklist off, and the station settles", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(5);
    auto* list = person.find<QListView>(QStringLiteral("checklistView"));
    const int items = list->model()->rowCount();
    REQUIRE(items > 5);
    CHECK(person.text(QStringLiteral("checklistProgress")) == QStringLiteral("0 of %1").arg(items));
    list->setFocus();
    for (int row = 0; row < items; ++row) {
        list->setCurrentIndex(list->model()->index(row, 0));
        person.key(Qt::Key_Space);
    }
    CHECK(person.text(QStringLiteral("checklistProgress")) == QStringLiteral("%1 of %1").arg(items));
    CHECK(status_of(*person.document().assessment(), Station::run) == Status::settled);
    CHECK(person.find(QStringLiteral("station-Run"))->accessibleName() == QStringLiteral("Run, settled"));
    person.click(QStringLiteral("sheetTab"));
    auto* preview = person.find<QTextBrowser>(QStringLiteral("sheetPreview"));
    CHECK(QTest::qWaitFor([&] { return preview->toPlainText().contains(QStringLiteral("[x]")); }, test::patience));
    CHECK(preview->toPlainText().contains(QStringLiteral("90 mm macro 1:1")));
}

TEST_CASE("Proof notes what was shot and keeps it with the shot", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.goTo(6);
    CHECK(person.text(QStringLiteral("proofFramesField")) ==
          QString::fromStdString(number_text(person.report().capture.frames, 9)));
    person.type(QStringLiteral("proofFramesField"), QStringLiteral("23"));
    person.type(QStringLiteral("proofCorrectionField"), QStringLiteral("-2/3"));
    CHECK(person.text(QStringLiteral("proofAdvice")).contains(QStringLiteral("ISO 125")));
    person.click(QStringLiteral("redoChoice"));
    person.type(QStringLiteral("remarkField"), QStringLiteral("back end soft"));
    person.key(Qt::Key_Return);
    REQUIRE(person.shot().proof.size() == 1);
    const auto& entry = person.shot().proof.front();
    CHECK(entry.frames == 23);
    CHECK_THAT(entry.correction, WithinRel(-2.0 / 3, 1e-9));
    CHECK(entry.verdict == Verdict::redo);
    CHECK(entry.remark == "back end soft");
    CHECK(QDateTime::fromString(QString::fromStdString(entry.time), Qt::ISODate).isValid());
    CHECK(status_of(*person.document().assessment(), Station::proof) == Status::doubtful);
    person.click(QStringLiteral("proofLogTab"));
    auto* log = person.find<QListView>(QStringLiteral("proofLog"));
    CHECK(
        log->model()->index(0, 0).data().toString().endsWith(QStringLiteral("23 frames \u00b7 redo, \u22120.7 stops")));
    CHECK(log->model()->index(0, 0).data(Qt::ToolTipRole).toString() == QStringLiteral("back end soft"));
    person.clickRow(log, log->model()->index(0, 0));
    person.click(QStringLiteral("removeProofButton"));
    CHECK(person.shot().proof.empty());
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().proof.size() == 1);
}

TEST_CASE("what is not so when the frames are looked over makes verdict and remark", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.window().document().select(1);  // the brooch: metal, a stack
    person.goTo(6);
    const auto point = [&](const char* says) {
        for (auto* label : person.find<QWidget>(QStringLiteral("lookOverView"))->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(QLatin1String(says))) return true;
        return false;
    };
    CHECK(point("first frame is sharp"));
    CHECK_FALSE(point("Begin"));
    person.click(QStringLiteral("notSo-0"));
    CHECK(point("Begin"));  // what to do about it
    CHECK(person.find<QRadioButton>(QStringLiteral("redoChoice"))->isChecked());
    CHECK(person.text(QStringLiteral("lookedOver")).startsWith(QStringLiteral("1 of ")));
    person.click(QStringLiteral("good-0"));
    CHECK_FALSE(point("Begin"));
    CHECK(person.find<QRadioButton>(QStringLiteral("keepChoice"))->isChecked());
    // A verdict of one's own is not taken back by looking on.
    person.click(QStringLiteral("redoChoice"));
    person.click(QStringLiteral("good-1"));
    CHECK(person.find<QRadioButton>(QStringLiteral("redoChoice"))->isChecked());
    CHECK(person.text(QStringLiteral("proofAdvice")).isEmpty());
    person.click(QStringLiteral("notSo-0"));
    person.type(QStringLiteral("remarkField"), QStringLiteral("rim soft"));
    person.click(QStringLiteral("noteProofButton"));
    const auto& entry = person.shot().proof.back();
    CHECK(entry.verdict == Verdict::redo);
    CHECK(entry.remark == "rim soft; not so: first frame");
    CHECK_FALSE(point("Begin"));  // the next set is looked over anew
    CHECK(person.find<QToolButton>(QStringLiteral("notSo-0"))->isChecked() == false);
}

TEST_CASE("every control has a name and says it to a screen reader", "[desk][accessibility]") {
    Person person;
    person.window().openDemo();
    for (int station = 1; station <= 6; ++station) {
        person.goTo(station);
        for (auto* widget : person.window().findChildren<QWidget*>()) {
            const bool control = qobject_cast<QAbstractSpinBox*>(widget) || qobject_cast<QComboBox*>(widget) ||
                                 qobject_cast<QSlider*>(widget) || qobject_cast<QAbstractItemView*>(widget) ||
                                 qobject_cast<QAbstractButton*>(widget);
            const bool inner =
                widget->objectName().startsWith(QLatin1String("qt_")) ||
                qobject_cast<QComboBox*>(widget->parentWidget()) || widget->inherits("QTableCornerButton") ||
                widget->inherits("QComboBoxPrivateContainer") || widget->inherits("QHeaderView") ||
                (widget->parentWidget() && widget->parentWidget()->inherits("QComboBoxPrivateContainer"));
            if (!control || inner || !widget->isVisible()) continue;
            INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString());
            CHECK_FALSE(widget->objectName().isEmpty());
            auto* button = qobject_cast<QAbstractButton*>(widget);
            CHECK_FALSE((widget->accessibleName().isEmpty() && (!button || button->text().isEmpty())));
        }
    }
}
