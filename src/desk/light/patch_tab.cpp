#include "desk/light/patch_tab.hpp"

#include "desk/light/patch_view.hpp"
#include "desk/pages/options.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "plan/light/lighting.hpp"
#include "text/text.hpp"

#include <QComboBox>
#include <QDateTime>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

TestFrameTab::TestFrameTab(Document& document, ChosenLight& chosen, QWidget* parent)
    : StationPage(document, parent), chosen_(chosen) {
    patch_ = new PatchView(this);
    addDrawing(patch_, 5);
    auto* second = addColumn(5);
    second->setSpacing(4);
    addFrame(second);
    addFixes(second);
    second->addStretch();
    auto* third = addColumn(5);
    third->setSpacing(4);
    addLesson(third);
    third->addStretch();
    connect(patch_, &PatchView::marked, this, &TestFrameTab::measure);
    connect(&chosen_, &ChosenLight::chosen, this, &TestFrameTab::refresh);
}

void TestFrameTab::addFrame(QVBoxLayout* column) {
    addHeading(column, tr("The frame"));
    auto* group = addGroup(column, {});
    seen_ =
        addField(group, {"frameStopsField", tr("Is off by"), tr("Stops it was too bright (plus) or too dark (minus)")},
                 stopsQuantity());
    connect(seen_, &QuantityField::valueEdited, this, [this](double stops) {
        stops_ = stops;
        refresh();
    });
    patchReflectance_ = addField(group,
                                 {"patchReflectanceField", tr("Area shows"),
                                  tr("Reflectance of what is in the marked area; a grey card is 18 %")},
                                 shareQuantity({.least = 0.01, .greatest = 1}));
    connect(patchReflectance_, &QuantityField::valueEdited, this, [this](double reflectance) {
        reflectance_ = reflectance;
        measure();
    });
    patchReflectance_->setValue(reflectance_);
    reading_ = new Sentence(2, this);
    reading_->setObjectName(QStringLiteral("patchReading"));
    column->addWidget(reading_);
}

void TestFrameTab::addFixes(QVBoxLayout* column) {
    auto* group = addGroup(column, {});
    addChoice(
        group, {"leverChoice", tr("Mend by"), tr("What you reach for first; the other ways stay at hand")},
        enumerated({"power", "distance", "stop", "ISO"}), [](const Shot& s) { return idOf(s.exposure.lever); },
        [](Shot& s, const std::string& id) { s.exposure.lever = valueOf<Lever>(id); });
    constexpr int levers = 4;
    for (int i = 0; i < levers; ++i) {
        auto* fix = captionedButton({"", {}, tr("One change; Undo takes it back")}, this);
        fix->setObjectName(QStringLiteral("fixButton%1").arg(i + 1));
        column->addWidget(fix);
        fixes_.push_back(fix);
    }
}

void TestFrameTab::addLesson(QVBoxLayout* column) {
    addHeading(column, tr("Learn from it"));
    auto* group = addGroup(column, {});
    keptIn_ = new QComboBox(group->parentWidget());
    nameControl(keptIn_, {"keptInChoice", tr("Keep it in"), tr("What the difference is put down to")});
    keptIn_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    keptIn_->setFocusPolicy(Qt::StrongFocus);
    auto* label = new QLabel(tr("Keep it in"), group->parentWidget());
    label->setProperty("quiet", true);
    label->setBuddy(keptIn_);
    group->addWidget(label, 0, 0);
    group->addWidget(keptIn_, 0, 1);
    connect(keptIn_, &QComboBox::activated, this, &TestFrameTab::refresh);
    lessonText_ = new Sentence(6, this);
    lessonText_->setObjectName(QStringLiteral("lessonText"));
    column->addWidget(lessonText_);
    learn_ = captionedButton(
        {"learnButton", tr("Learn"), tr("Adds this frame to the unit's or the modifier's record, here and in the bag")},
        this);
    forget_ = captionedButton({"forgetButton", tr("Back to the record"), tr("Forgets all its test frames")}, this);
    connect(learn_, &QPushButton::clicked, this, &TestFrameTab::learn);
    connect(forget_, &QPushButton::clicked, this, &TestFrameTab::forget);
    column->addWidget(learn_);
    column->addWidget(forget_);
}

std::string TestFrameTab::nowText() const {
    return QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss")).toStdString();
}

void TestFrameTab::measure() {
    const auto reading = patch_->reading();
    if (!reading) return refresh();
    if (const auto stops = whatif::stops_from_correct(*reading, reflectance_)) stops_ = *stops;
    refresh();
}

whatif::Lesson TestFrameTab::lesson(const Shot& shot) const {
    return {.light = chosen_.index(shot),
            .kept_in = static_cast<whatif::KeptIn>(keptIn_->currentData().toInt()),
            .frame_stops = stops_,
            .time = nowText()};
}

void TestFrameTab::learn() {
    const auto& plan = document().assessment()->plan;
    document().learn({tr("Learn from a test frame")},
                     [&](Shoot& shoot) { shoot.kit = whatif::taught(plan, lesson(plan.shot)); });
}

void TestFrameTab::forget() {
    const Shot shot = *document().shot();
    document().learn({tr("Back to the record")},
                     [&](Shoot& shoot) { shoot.kit = whatif::untaught(shoot.kit, shot, lesson(shot)); });
}

void TestFrameTab::showFixes() {
    const auto all = whatif::fixes(document().assessment()->plan, stops_);
    for (std::size_t i = 0; i < fixes_.size(); ++i) {
        const whatif::Fix& fix = all[i];
        fixes_[i]->disconnect(this);
        constexpr double worth_mending = 0.05;  // stops
        fixes_[i]->setEnabled(fix.left_over.has_value() && std::abs(stops_) >= worth_mending);
        QString label = toQt(fix.label);
        if (fix.left_over && std::abs(*fix.left_over) >= 0.05) label += tr(", %1 left").arg(stopsText(*fix.left_over));
        fixes_[i]->setText(label);
        fixes_[i]->setAccessibleName(label);
        connect(fixes_[i], &QPushButton::clicked, this, [this, fix] {
            stops_ = 0;  // said of the frame before
            document().editShot({tr("Mend the exposure")}, [&](Shot& now) { now = fix.shot; });
        });
    }
}

void TestFrameTab::showLesson(const Shot& shot, const Report& report) {
    const bool any = !shot.lights.empty();
    const std::size_t i = chosen_.index(shot);
    const QSignalBlocker quiet(keptIn_);
    const int kept = keptIn_->currentIndex();
    keptIn_->clear();
    const auto add = [this](const QString& name, whatif::KeptIn where) {
        keptIn_->addItem(name, static_cast<int>(where));
    };
    if (any) {
        const auto& source = document().assessment()->plan.sources[i];
        add(toQt(unit_name(source)), whatif::KeptIn::unit);
        if (source.modifier) add(toQt(source.modifier->name), whatif::KeptIn::modifier);
    }
    if (report.light.automatic) add(tr("the camera's automatic"), whatif::KeptIn::camera);
    keptIn_->setCurrentIndex(std::clamp(kept, 0, std::max(0, keptIn_->count() - 1)));
    const bool of_camera = keptIn_->count() > 0 && lesson(shot).kept_in == whatif::KeptIn::camera;
    const auto correction =
        any || of_camera ? whatif::learned(document().assessment()->plan, lesson(shot)) : std::nullopt;
    learn_->setEnabled(correction.has_value());
    const auto calibrated = of_camera ? report.light.automatic->learned
                            : !any    ? light::Calibrated{}
                            : lesson(shot).kept_in == whatif::KeptIn::modifier
                                ? report.light.sources[i].modifier_calibration
                                : report.light.sources[i].calibration;
    forget_->setEnabled(calibrated.count > 0);
    QString text;
    if (!any && !of_camera) {
        text = tr("No light to learn about.");
    } else if (of_camera) {
        text = tr("Taken in automatic at %1, the frame was %2 stops off. ")
                   .arg(stopsText(report.light.automatic->advised), stopsText(stops_));
        if (calibrated.count > 0)
            text += tr("Its meter has %1: %2 stops brighter than an average makes it.")
                        .arg(toQt(count_text(calibrated.count, "frame", "frames")), stopsText(calibrated.stops));
        else
            text += tr("So far it goes by practice or by the average.");
    } else {
        const auto predicted = whatif::predicted_stops(document().assessment()->plan);
        if (predicted)
            text = tr("The plan said %1, the frame showed %2 stops. ").arg(stopsText(*predicted), stopsText(stops_));
        if (correction)
            text += tr("Put down to light %1 alone, it gives %2 stops more than its record. ")
                        .arg(toQt(report.light.sources[i].label), stopsText(*correction));
        else if (shot.lights[i].metered)
            text += tr("The camera metered it: that tells of the meter, not of the flash. ");
        else
            text += tr("Light %1 alone cannot explain that. ").arg(toQt(report.light.sources[i].label));
        if (calibrated.count > 0)
            text += tr("Calibrated by %1: %2 stops%3.")
                        .arg(toQt(count_text(calibrated.count, "frame", "frames")), stopsText(calibrated.stops),
                             calibrated.spread ? tr(" \u00b1 %1").arg(toQt(number_text(*calibrated.spread, 2)))
                                               : QString());
        else
            text += tr("So far it goes by its record.");
    }
    lessonText_->setText(text);
}

void TestFrameTab::showShot(const Shot& shot, const Report& report) {
    if (shot.id != shotId_) {  // nothing was said of this one yet
        shotId_ = shot.id;
        stops_ = 0;
        patch_->clear();
    }
    seen_->setValue(stops_);
    patchReflectance_->setValue(reflectance_);
    const auto reading = patch_->reading();
    if (reading)
        reading_->setText(
            reading->clipped > 0.005
                ? tr("Mean %1 % of full scale; %2 % clipped, so it is at least that bright.")
                      .arg(toQt(number_text(reading->mean * 100, 2)), toQt(number_text(reading->clipped * 100, 2)))
                : tr("Mean %1 % of full scale, nothing clipped.").arg(toQt(number_text(reading->mean * 100, 2))));
    else
        reading_->setText(tr("Type it, or measure it in the picture: a grey card is surest."));
    showFixes();
    showLesson(shot, report);
}

}  // namespace poquito::desk

#include "desk/light/moc_patch_tab.moc"
