#include "desk/depth/depth_chart.hpp"
#include "desk/depth/judgement_strip.hpp"
#include "desk/depth/ladder_view.hpp"
#include "desk/drawing/card_swatches.hpp"
#include "desk/finder/finder_panel.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/finder/loupe_view.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/subject/subject_page.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "render/scene.hpp"
#include "storage/atomic_file.hpp"
#include "storage/picture_plan.hpp"
#include "support/matchers.hpp"
#include "support/person.hpp"

using namespace poquito;
using test::Person;
using test::WithinAbs;
using test::WithinRel;

namespace {

/// The demo at the Depth station, its pictures rendered.
struct AtDepth : Person {
    explicit AtDepth(int shot = 1, QSize size = {1280, 800}) : Person(size) {
        window().openDemo();
        document().select(shot);
        goTo(3);
        finder = find<desk::FinderView>(QStringLiteral("finder"));
        waitForPictures();
    }
    void waitForPictures() {
        auto* loupe = find<desk::LoupeView>(QStringLiteral("loupe"));
        auto* ladder = find<desk::LadderView>(QStringLiteral("ladder"));
        REQUIRE(QTest::qWaitFor([&] { return finder->isSettled() && loupe->isSettled() && ladder->isSettled(); },
                                test::patience));
    }
    void clickFinder(imaging::Place place) {
        QTest::mouseClick(finder, Qt::LeftButton, {}, finder->pointOf(place).toPoint());
        settle();
        waitForPictures();
    }
    void undo() { trigger(QStringLiteral("undoAction")); }
    desk::FinderView* finder = nullptr;
};

}  // namespace

TEST_CASE("a click in the finder focuses on what is seen there", "[desk][finder]") {
    AtDepth person;  // the brooch, a ball: its middle is nearest
    const double half = person.report().extent.depth / 2;
    person.clickFinder({0, 0});
    CHECK_THAT(person.shot().sharpness.focus_offset, WithinAbs(-half, 0.05));
    CHECK_THAT(person.finder->depthAt(person.finder->pointOf({0, 0})).value(), WithinAbs(0, 0.03));
    person.undo();
    CHECK(person.shot().sharpness.focus_offset == 0);
    // Beside the subject there is nothing to focus on.
    const auto before = person.document().shoot();
    person.clickFinder({-10, 6});
    CHECK(person.document().shoot() == before);
}

TEST_CASE("a drag takes the loupe along and leaves the focus", "[desk][finder]") {
    AtDepth person;
    const auto before = person.document().shoot();
    const QImage first = person.find<desk::LoupeView>(QStringLiteral("loupe"))->image();
    REQUIRE_FALSE(first.isNull());
    const QPoint from = person.finder->pointOf({0, 0}).toPoint(), to = person.finder->pointOf({4, 2}).toPoint();
    QTest::mousePress(person.finder, Qt::LeftButton, {}, from);
    QTest::mouseMove(person.finder, (from + to) / 2);
    QTest::mouseMove(person.finder, to);
    QTest::mouseRelease(person.finder, Qt::LeftButton, {}, to);
    person.waitForPictures();
    CHECK_THAT(person.finder->loupe().x, WithinAbs(4, 0.1));
    CHECK_THAT(person.finder->loupe().y, WithinAbs(2, 0.1));
    CHECK(person.document().shoot() == before);
    CHECK(person.find<desk::LoupeView>(QStringLiteral("loupe"))->image() != first);
    // By keys as well.
    person.finder->setFocus();
    person.key(Qt::Key_Right);
    CHECK(person.finder->loupe().x > 4.2);
    person.key(Qt::Key_Return);
    CHECK(person.shot().sharpness.focus_offset != 0);
}

TEST_CASE("the bench's depth slice and the finder agree to the pixel", "[desk][finder]") {
    AtDepth person;
    const auto& sharp = person.report().sharpness;
    const auto frame = person.finder->frame();
    REQUIRE(frame);
    // What the finder outlines as sharp is what lies between the two planes that the bench draws: its own scale times
    // the report's near and far.
    const render::Viewpoint view(person.document().assessment()->plan);
    const shoot::Surface surface(person.shot().subject);
    const int width = frame->light.width, height = frame->light.height;
    const double pitch = shoot::sensor_of(person.document().kit(), person.shot().rig).width / width;
    int wrong = 0;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const auto hit = surface.hit(view.ray({(x + 0.5 - width / 2.0) * pitch, (height / 2.0 - y - 0.5) * pitch}));
            const bool sharp_there = hit && hit->z >= -*sharp.near && hit->z <= *sharp.far;
            const double depth = frame->depth_at(x, y);
            const bool sharp_here = depth >= -*sharp.near && depth <= *sharp.far;
            wrong += sharp_there != sharp_here;
        }
    CHECK(wrong < 0.002 * width * height);  // pixels that the edge runs through
    person.click(QStringLiteral("benchButton"));
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    REQUIRE(bench->isVisible());
    const QImage drawn = bench->grab().toImage();
    CHECK_FALSE(drawn.isNull());
    person.click(QStringLiteral("trainButton"));
    CHECK(person.finder->isVisible());
}

TEST_CASE("dragging the stop on the chart and taking a rung change the plan, and the ladder shows it",
          "[desk][finder]") {
    AtDepth person;
    auto* chart = person.find<desk::DepthChart>(QStringLiteral("depthChart"));
    const auto at = [&](double f) { return QPoint(static_cast<int>(std::lround(chart->xOf(f))), chart->height() / 2); };
    QTest::mousePress(chart, Qt::LeftButton, {}, at(5.6));
    QTest::mouseMove(chart, at(8));
    QTest::mouseMove(chart, at(11));
    QTest::mouseRelease(chart, Qt::LeftButton, {}, at(11));
    person.settle();
    CHECK(person.shot().exposure.f_number == 11);
    person.undo();  // one drag, one step
    CHECK(person.shot().exposure.f_number == 5.6);

    person.click(QStringLiteral("ladderTab"));
    person.waitForPictures();
    auto* ladder = person.find<desk::LadderView>(QStringLiteral("ladder"));
    REQUIRE(ladder->rungs().size() >= 6);
    const auto sixteen = static_cast<std::size_t>(std::ranges::find(ladder->rungs(), 16.0, &advice::Rung::value) -
                                                  ladder->rungs().begin());
    QTest::mouseClick(ladder, Qt::LeftButton, {}, ladder->rungRect(sixteen).center().toPoint());
    person.settle();
    CHECK(person.shot().exposure.f_number == 16);
    CHECK(ladder->rungs()[sixteen].is_own);
    CHECK(ladder->rungs()[sixteen].report.sharpness.depth_of_field == person.report().sharpness.depth_of_field);
    ladder->setFocus();
    person.key(Qt::Key_Left);
    CHECK(person.shot().exposure.f_number == 11);
    person.choose(QStringLiteral("ladderChoice"), QStringLiteral("focus, near to far"));
    person.waitForPictures();
    QTest::mouseClick(ladder, Qt::LeftButton, {}, ladder->rungRect(0).center().toPoint());
    person.settle();
    CHECK_THAT(person.shot().sharpness.focus_offset, WithinRel(-person.report().extent.depth / 2, 1e-9));
    person.choose(QStringLiteral("ladderChoice"), QStringLiteral("background distance"));
    CHECK(ladder->rungs().size() == 7);
}

TEST_CASE("the judgement is taken or disagreed with by a click", "[desk][finder]") {
    AtDepth person;
    auto* strip = person.find<desk::JudgementStrip>(QStringLiteral("judgement"));
    REQUIRE(strip->isVisible());
    const auto judged = [&] { return strip->isSettled(); };
    REQUIRE(QTest::qWaitFor(judged, test::patience));
    REQUIRE(strip->judgement());
    const auto best = strip->judgement()->best;
    const auto other = best == 0 ? std::size_t{1} : std::size_t{0};
    QTest::mouseClick(strip, Qt::LeftButton, {}, strip->cardRect(other).center().toPoint());
    person.settle();
    REQUIRE(QTest::qWaitFor(judged, test::patience));
    const auto& approach = strip->judgement()->approaches[other];
    CHECK(person.shot().capture.approach == approach.id);
    CHECK(person.shot().exposure.f_number == approach.shot.exposure.f_number);
    CHECK(person.shot().capture.mode == approach.shot.capture.mode);
    CHECK(strip->reason().contains(QStringLiteral("Your choice")));
    strip->setFocus();
    for (std::size_t i = 0; i < strip->judgement()->approaches.size(); ++i) {
        person.key(Qt::Key_Right);
        person.key(Qt::Key_Return);
        REQUIRE(QTest::qWaitFor(judged, test::patience));
        if (!strip->reason().contains(QStringLiteral("Your choice"))) break;
    }
    CHECK(person.shot().capture.approach == strip->judgement()->approaches[strip->judgement()->best].id);
}

TEST_CASE("a saved picture brings the plan back when it is dropped on the window", "[desk][finder]") {
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("brooch.png")),
                  sheet = folder.filePath(QStringLiteral("ladder.png"));
    AtDepth person;
    const auto before = person.document().shoot();
    QSignalSpy saved(person.find<desk::FinderPanel>(QStringLiteral("finderPanel")), &desk::FinderPanel::saved);
    person.find<desk::FinderPanel>(QStringLiteral("finderPanel"))->savePicture(path);
    REQUIRE(saved.wait(test::patience));
    const QImage picture(path);
    CHECK(picture.width() == 1920);
    CHECK(qGray(picture.pixel(960, picture.height() / 2)) > 20);  // the brooch, not a black frame

    person.type(QStringLiteral("apertureField"), QStringLiteral("22"));
    person.key(Qt::Key_Return);
    REQUIRE(person.shot().exposure.f_number == 22);
    QMimeData mime;
    mime.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &mime, Qt::LeftButton, {});
    QApplication::sendEvent(&person.window(), &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(QPointF(300, 300), Qt::CopyAction, &mime, Qt::LeftButton, {});
    QApplication::sendEvent(&person.window(), &drop);
    person.settle();
    CHECK(person.document().shoot() == before);
    person.undo();
    CHECK(person.shot().exposure.f_number == 22);

    // Into another shoot it comes with its gear.
    person.document().open(desk::genericShoot(), {});
    CHECK(person.window().openFile(path));
    CHECK(person.document().count() == 1);
    CHECK(person.shot() == before.shots[1]);

    QImage plain(8, 8, QImage::Format_RGB32);
    plain.fill(Qt::white);
    plain.save(folder.filePath(QStringLiteral("plain.png")));
    CHECK_FALSE(person.window().openFile(folder.filePath(QStringLiteral("plain.png"))));
    CHECK(person.text(QStringLiteral("problemText")).contains(QStringLiteral("no plan in this picture")));
}

TEST_CASE("the contact sheet carries the plan and shows every rung", "[desk][finder]") {
    AtDepth person;
    person.click(QStringLiteral("ladderTab"));
    person.waitForPictures();
    auto* ladder = person.find<desk::LadderView>(QStringLiteral("ladder"));
    QImage sheet;
    ladder->makeSheet([&](const QImage& made) { sheet = made; });
    REQUIRE(QTest::qWaitFor([&] { return !sheet.isNull(); }, test::patience));
    CHECK(sheet.width() > 3 * 480);
    const auto rows = (ladder->rungs().size() + 2) / 3;
    CHECK(sheet.height() > static_cast<int>(rows) * 320);
    // The first and the sixth frame differ: one stop wide open, one closed.
    CHECK(sheet.copy(24, 68, 480, 320) != sheet.copy(24 + 2 * 504, 68, 480, 320));
}

TEST_CASE("three clicks give a plane, and the subject can be turned to it", "[desk][finder]") {
    AtDepth person;
    person.document().editShot({QStringLiteral("slab")}, [](shoot::Shot& shot) {
        shot.subject.form = shoot::Form::slab;
        shot.subject.depth = 6;
    });
    person.waitForPictures();
    person.click(QStringLiteral("planeTab"));
    CHECK_FALSE(person.find(QStringLiteral("turnButton"))->isEnabled());
    person.click(QStringLiteral("planePointsButton"));
    REQUIRE(person.finder->takesPlane());
    const double focus = person.shot().sharpness.focus_offset;
    for (const imaging::Place place : {imaging::Place{-4, -3}, {4, -3}, {0, 4}}) person.clickFinder(place);
    CHECK_FALSE(person.finder->takesPlane());
    CHECK(person.shot().sharpness.focus_offset == focus);  // clicks gave points, not the focus
    CHECK(person.text(QStringLiteral("planeText")).contains(QStringLiteral("round it presents")));
    person.click(QStringLiteral("turnButton"));
    CHECK(person.report().extent.depth < 0.3);
    person.undo();
    CHECK_THAT(person.report().extent.depth, WithinAbs(6, 1e-9));
    person.click(QStringLiteral("leastDepthButton"));
    person.click(QStringLiteral("turnButton"));
    CHECK(person.report().extent.depth < 0.5);
}

TEST_CASE("overlays and crops are switched, and any crop shape can be typed", "[desk][finder]") {
    AtDepth person;
    const auto look = [&] {
        person.waitForPictures();
        return person.finder->grab().toImage();
    };
    for (const char* box : {"sliceCheck", "thirdsCheck", "marginCheck", "fillCheck"}) {
        const QImage before = look();
        person.click(QLatin1String(box));
        INFO(box);
        CHECK(look() != before);
    }
    person.find<QComboBox>(QStringLiteral("cropShapeChoice"))->setCurrentText("5:7");
    CHECK_THAT(person.finder->overlays().crop.value(), WithinRel(5.0 / 7, 1e-9));
    person.find<QComboBox>(QStringLiteral("cropShapeChoice"))->setCurrentText("nonsense");
    CHECK_FALSE(person.finder->overlays().crop.has_value());
    auto* typed = person.find<QComboBox>(QStringLiteral("cropShapeChoice"))->lineEdit();
    QTest::keyClick(typed, Qt::Key_Return);
    CHECK(typed->text() == QStringLiteral("no crop"));
    person.choose(QStringLiteral("cropShapeChoice"), QStringLiteral("1 : 1"));
    CHECK(person.finder->overlays().crop == 1.0);
    // It belongs to the shot, not to the view: undone, and gone with another one.
    CHECK(person.document().shot()->picture_shape == 1.0);
    person.document().undoStack().undo();
    CHECK_FALSE(person.finder->overlays().crop.has_value());
    CHECK(person.find<QComboBox>(QStringLiteral("cropShapeChoice"))->currentText() == QStringLiteral("no crop"));
    person.document().undoStack().redo();
    CHECK(person.find<QComboBox>(QStringLiteral("cropShapeChoice"))->currentText() == QStringLiteral("1 : 1"));
    // Three stops over, white is marked.
    person.document().editShot({QStringLiteral("over")}, [](shoot::Shot& shot) {
        shot.exposure.iso *= 16;
        shot.lights.front().power = 1.0;
    });
    const QImage plain = look();
    person.click(QStringLiteral("clippingCheck"));
    CHECK(look() != plain);
}

TEST_CASE("a card that sets the subject off is taken by a click", "[desk][finder]") {
    AtDepth person;
    person.click(QStringLiteral("backgroundTab"));
    auto* cards = person.find<desk::CardSwatches>(QStringLiteral("cardSwatches"));
    REQUIRE(cards->cards().size() == 6);
    const auto colour = cards->cards()[0].colour;
    QTest::mouseClick(cards, Qt::LeftButton, {}, cards->cardRect(0).center().toPoint());
    CHECK(person.shot().background->colour == colour);
    CHECK(person.shot().background->kind == shoot::BackgroundKind::card);
    person.type(QStringLiteral("backgroundColourField"), QStringLiteral("#112233"));
    CHECK(person.shot().background->colour == text::Colour{0x11, 0x22, 0x33});
    CHECK(person.text(QStringLiteral("backgroundText")).contains(QStringLiteral("of the frame's width")));
}

TEST_CASE("forms, attitude and height maps are given at the subject", "[desk][finder]") {
    QTemporaryDir folder;
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.choose(QStringLiteral("formChoice"), QStringLiteral("ring"));
    CHECK(person.shot().subject.form == shoot::Form::ring);
    person.type(QStringLiteral("tiltField"), QStringLiteral("20"));
    CHECK(person.shot().subject.tilt == 20);
    CHECK(person.report().extent.depth != person.shot().subject.depth);
    person.type(QStringLiteral("subjectColourField"), QStringLiteral("#808000"));
    CHECK(person.shot().subject.colour == text::Colour{0x80, 0x80, 0});

    auto* page = person.find<desk::SubjectPage>(QStringLiteral("SubjectPage"));
    QImage map(600, 300, QImage::Format_Grayscale8);
    for (int y = 0; y < 300; ++y)
        for (int x = 0; x < 600; ++x) map.scanLine(y)[x] = static_cast<uchar>(x * 255 / 599);
    map.save(folder.filePath(QStringLiteral("map.png")));
    CHECK(page->loadHeightMap(folder.filePath(QStringLiteral("map.png"))));
    CHECK(person.shot().subject.form == shoot::Form::height_map);
    CHECK((*person.shot().subject.height_map)->width == 256);
    CHECK((*person.shot().subject.height_map)->heights.front() < 3);

    const auto before = person.document().shoot();
    const auto refused = [&](const QString& path, const char* why) {
        CHECK_FALSE(page->loadHeightMap(path));
        person.settle();
        INFO(person.text(QStringLiteral("problemText")).toStdString());
        CHECK(person.text(QStringLiteral("problemText")).contains(QLatin1String(why)));
        CHECK(person.document().shoot() == before);
    };
    QImage even(20, 20, QImage::Format_Grayscale8);
    even.fill(90);
    even.save(folder.filePath(QStringLiteral("even.png")));
    refused(folder.filePath(QStringLiteral("even.png")), "the same grey everywhere");
    QImage line(1, 40, QImage::Format_Grayscale8);
    line.fill(3);
    line.save(folder.filePath(QStringLiteral("line.png")));
    refused(folder.filePath(QStringLiteral("line.png")), "2 or more each way");
    QFile text(folder.filePath(QStringLiteral("text.png")));
    REQUIRE(text.open(QIODevice::WriteOnly));
    text.write("no picture");
    text.close();
    refused(folder.filePath(QStringLiteral("text.png")), "expected a picture");
    refused(folder.filePath(QStringLiteral("missing.png")), "expected a picture");
}

TEST_CASE("the finder says what it cannot show, and never fails at extremes", "[desk][finder]") {
    AtDepth person;
    for (const double m : {0.02, 20.0, 0.0}) {
        person.document().editShot({QStringLiteral("m")}, [&](shoot::Shot& shot) {
            shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = m};
            shot.rig.tubes.clear();
        });
        person.waitForPictures();
        CHECK_FALSE(person.finder->grab().isNull());
    }
    CHECK_FALSE(person.report().optics.field_width.has_value());
    CHECK_FALSE(person.finder->frame());
    person.clickFinder({0, 0});  // nothing to focus on, nothing breaks
    const auto* strip = person.find<desk::JudgementStrip>(QStringLiteral("judgement"));
    REQUIRE(QTest::qWaitFor([&] { return strip->isSettled(); }, test::patience));
    CHECK(strip->reason().contains(QStringLiteral("infinity")));
    person.document().editShot({QStringLiteral("dark")}, [](shoot::Shot& shot) {
        shot.rig.focus.value = 0.5;
        shot.lights.clear();
        shot.ambient.reset();
    });
    person.waitForPictures();
    CHECK_FALSE(person.finder->grab().isNull());
}
