// The Light station as a person works at it: lamps on the bench, the balance chart, the leaves and the test frame.
#include "desk/finder/finder_view.hpp"
#include "desk/light/balance_chart.hpp"
#include "desk/light/freeze_table.hpp"
#include "desk/light/light_scale.hpp"
#include "desk/light/patch_view.hpp"
#include "desk/light/tone_strip.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/toolkit/tabs.hpp"
#include "light/toss.hpp"
#include "plan/light/lighting.hpp"
#include "storage/shoot_file.hpp"
#include "support/person.hpp"

#include <cmath>

using namespace poquito;
using Catch::WithinAbs;
using Catch::WithinRel;
using test::Person;

namespace {

void drag(QWidget* widget, QPointF from, QPointF to) {
    QTest::mousePress(widget, Qt::LeftButton, {}, from.toPoint());
    const QPointF half = (from + to) / 2;
    for (const QPointF at : {half, to}) {
        QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(widget, &move);
    }
    QTest::mouseRelease(widget, Qt::LeftButton, {}, to.toPoint());
    QCoreApplication::processEvents();
}

/// A picture of one grey, in a folder that goes away.
struct GreyFrame {
    explicit GreyFrame(int level) {
        QImage picture(120, 80, QImage::Format_RGB888);
        picture.fill(QColor(level, level, level));
        path = folder.filePath(QStringLiteral("frame.png"));
        picture.save(path);
    }
    QTemporaryDir folder;
    QString path;
};

struct AtLight : Person {
    explicit AtLight(const char* shot = "Fossil urchin", QSize size = {1280, 800}) : Person(size) {
        window().openDemo();
        selectShot(QString::fromLatin1(shot));
        goTo(4);
    }
    void tab(const char* tab) { click(QString::fromLatin1(tab)); }
    desk::BenchView* bench() { return find<desk::BenchView>(QStringLiteral("benchView")); }
};

}  // namespace

TEST_CASE("a lamp that is taken on the bench is the one the sheet shows, and its numbers follow the drag",
          "[desk][light]") {
    AtLight person("Salt on caramel");
    auto* bench = person.bench();
    const auto place = bench->lightPlace(1);
    REQUIRE(place);
    const double before = person.shot().lights[1].position.distance;
    drag(bench, *place, *place + QPointF(-25, -10));
    CHECK(person.shot().lights[1].position.distance > before);
    CHECK(person.find(QStringLiteral("lightDistanceField"))->isVisible());  // the sheet turned to the lights
    CHECK(person.find<QToolButton>(QStringLiteral("flashTabB"))->isChecked());
    const auto shown = person.text(QStringLiteral("lightDistanceField"));
    CHECK(shown == QString::fromStdString(text::length_text(person.shot().lights[1].position.distance)));
}

TEST_CASE("the handle turns a light on the bench - undo looks straight again", "[desk][light]") {
    AtLight person("Salt on caramel");
    auto* bench = person.bench();
    person.tab("lightsTab");
    const auto grip = bench->aimPlace();
    REQUIRE(grip);
    const double before = *person.report().light.sources[0].falloff;
    drag(bench, *grip, *grip + QPointF(0, -12));
    CHECK(person.shot().lights[0].aim.tip > 3);              // from the side: upwards
    CHECK(std::abs(person.shot().lights[0].aim.turn) <= 2);  // a pixel to the side
    CHECK(person.report().light.sources[0].losses.aim > 0);
    CHECK(person.text(QStringLiteral("tipField")) != QStringLiteral("0\u00b0"));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().lights[0].aim == light::Aim{});
    CHECK(*person.report().light.sources[0].falloff == before);
    bench->setElevation(desk::Elevation::top);
    drag(bench, *bench->aimPlace(), *bench->aimPlace() + QPointF(10, 0));
    // In the plane of the table; the tip changes as little as the distance to what it looks at.
    CHECK(std::abs(person.shot().lights[0].aim.turn) > 2 * std::abs(person.shot().lights[0].aim.tip));
}

TEST_CASE("the dot of the balance is dragged to settings, and the sync wall holds the shutter", "[desk][light]") {
    AtLight person;
    auto* chart = person.find<desk::BalanceChart>(QStringLiteral("balanceChart"));
    const auto now = *whatif::balance_of(person.report().light);
    // Two stops more of the room, the flash half a stop down.
    drag(chart, chart->placeOf(now), chart->placeOf({.ambient = now.ambient + 2, .flash = now.flash - 0.5}));
    auto there = *whatif::balance_of(person.report().light);
    CHECK_THAT(there.ambient, WithinAbs(now.ambient + 2, 0.25));
    CHECK_THAT(there.flash, WithinAbs(now.flash - 0.5, 0.1));
    CHECK(person.shot().exposure.f_number == 8);  // the shutter did it
    CHECK_THAT(person.shot().exposure.shutter, WithinRel(1 / 40.0, 0.05));
    // Far to the left: past the wall the aperture closes and the power makes up.
    drag(chart, chart->placeOf(there), chart->placeOf({.ambient = -8.8, .flash = there.flash}));
    there = *whatif::balance_of(person.report().light);
    CHECK(person.shot().exposure.shutter == 1 / 200.0);
    CHECK(person.shot().exposure.f_number > 8);
    CHECK_THAT(there.ambient, WithinAbs(-8.8, 0.3));
    CHECK_THAT(there.flash, WithinAbs(now.flash - 0.5, 0.1));
    person.trigger(QStringLiteral("undoAction"));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().exposure.shutter == 1 / 160.0);
    // By keys: a third of a stop.
    chart->setFocus();
    person.key(Qt::Key_Up);
    CHECK_THAT(whatif::balance_of(person.report().light)->flash, WithinAbs(now.flash + 1.0 / 3, 1e-6));
}

TEST_CASE("what the chart proposes is said while one drags, and nothing changes before one lets go", "[desk][light]") {
    AtLight person;
    auto* chart = person.find<desk::BalanceChart>(QStringLiteral("balanceChart"));
    const auto before = person.shot();
    const auto at = chart->placeOf(*whatif::balance_of(person.report().light));
    QTest::mousePress(chart, Qt::LeftButton, {}, at.toPoint());
    QMouseEvent move(QEvent::MouseMove, at + QPointF(60, 20), chart->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(chart, &move);
    REQUIRE(chart->proposal());
    CHECK(chart->proposal()->text.find("ISO") != std::string::npos);
    CHECK(person.shot() == before);
    CHECK_FALSE(chart->grab().isNull());
    QTest::mouseRelease(chart, Qt::LeftButton, {}, (at + QPointF(60, 20)).toPoint());
    CHECK_FALSE(person.shot() == before);
}

TEST_CASE("a suggested power is applied with one click and exposes within half a step", "[desk][light]") {
    AtLight person("Tide brooch");
    person.tab("lightsTab");
    const double suggested = *person.report().light.sources[0].suggested_power;
    person.click(QStringLiteral("automaticCheck"));
    CHECK(person.shot().lights[0].power == suggested);
    CHECK(std::abs(*person.report().light.front_total) <= 1.0 / 6 + 1e-9);
    CHECK(person.find(QStringLiteral("powerField"))->isEnabled());
}

TEST_CASE("a light becomes a lamp, a card's bounce, a twin on the lens", "[desk][light]") {
    AtLight person("Tide brooch");
    person.tab("lightsTab");
    person.choose(QStringLiteral("flashChoice"), QStringLiteral("LED panel 30 cm"));
    CHECK(person.shot().lights[0].lamp == "led-panel");
    CHECK(person.shot().lights[0].power.has_value());
    CHECK_FALSE(person.find(QStringLiteral("automaticCheck"))->isVisible());
    person.type(QStringLiteral("powerField"), QStringLiteral("40 %"));
    CHECK_THAT(*person.shot().lights[0].power, WithinRel(0.4, 1e-9));
    // What the meter reads of it calibrates it, in the kit.
    person.type(QStringLiteral("lampReadingField"), QStringLiteral("9"));
    REQUIRE(person.document().kit().lamps[0].corrections.size() == 1);
    const auto n = person.report().optics.working_f_number;
    CHECK_THAT(
        *person.report().light.sources[0].stops,
        WithinAbs(9 + std::log2(person.shot().exposure.shutter * person.shot().exposure.iso / 100 / (n * n)), 1e-6));
    person.click(QStringLiteral("bounceCheck"));
    person.type(QStringLiteral("bounceReflectanceField"), QStringLiteral("50 %"));
    person.type(QStringLiteral("bounceDistanceField"), QStringLiteral("30 cm"));
    CHECK_THAT(person.report().light.sources[0].losses.bounce, WithinAbs(1, 1e-9));
    CHECK(person.report().light.sources[0].path == 180 + 300);
    person.choose(QStringLiteral("flashChoice"), QStringLiteral("Twin light"));
    CHECK_FALSE(person.shot().lights[0].lamp);
    person.click(QStringLiteral("onLensCheck"));
    CHECK_FALSE(person.find(QStringLiteral("lightDistanceField"))->isVisible());
    person.type(QStringLiteral("ratioField"), QStringLiteral("1"));
    CHECK(person.shot().lights[0].ratio == 1);
    CHECK(person.report().light.sources[0].tubes.size() == 2);
    CHECK(person.report().reflections[0].marks.size() == 2);
    CHECK_FALSE(person.bench()->grab().isNull());
}

TEST_CASE("lights of a group are set together, and powers are called up from their store", "[desk][light]") {
    AtLight person("Salt on caramel");
    person.tab("lightsTab");
    CHECK(person.text(QStringLiteral("flashTabA")) == QStringLiteral("A1"));
    person.click(QStringLiteral("automaticCheck"));
    person.type(QStringLiteral("powerField"), QStringLiteral("1/8"));
    CHECK(person.shot().lights[0].power == 0.125);
    CHECK(person.shot().lights[1].power == 0.125);
    auto* powers = person.find<QToolButton>(QStringLiteral("powersButton"));
    Q_EMIT powers->menu()->aboutToShow();
    REQUIRE(powers->menu()->actions().size() > 2);
    CHECK(powers->menu()->actions()[0]->text().startsWith(QStringLiteral("close")));
    powers->menu()->actions()[0]->trigger();
    CHECK(person.shot().lights[0].power == 1.0 / 32);
    CHECK(person.shot().lights[1].power == 1.0 / 32);
}

TEST_CASE("a power typed for a group ends the metering of its lights, and the shoot can still be read",
          "[desk][light]") {
    AtLight person("Salt on caramel");
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) {
        shot.lights[0].power = 0.5;
        shot.lights[1].metered = 0.7;
    });
    person.tab("lightsTab");
    person.type(QStringLiteral("powerField"), QStringLiteral("1/16"));
    CHECK(person.shot().lights[1].power == 0.0625);
    CHECK_FALSE(person.shot().lights[1].metered);
    const auto again = storage::read_shoot(storage::write_shoot(person.document().shoot()));
    REQUIRE(again.has_value());
    CHECK(again.value() == person.document().shoot());
}

TEST_CASE("automatic flash by the camera's meter warns of what it misses, and the note's remedy compensates",
          "[desk][light]") {
    AtLight person;
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) {
        shot.subject.reflectance = 0.5;
        shot.background->reflectance = 0.5;
    });
    person.tab("lightsTab");
    person.click(QStringLiteral("meteredCheck"));
    CHECK(person.shot().lights[0].metered == 0);
    CHECK_THAT(*person.report().light.front_total,
               WithinAbs(person.report().light.sources[0].metering->error, 0.02));  // and the room beside it
    CHECK(person.note("automatic-misses").contains(QStringLiteral("too dark")));
    const double error = person.report().light.sources[0].metering->error;
    person.type(QStringLiteral("compensationField"), QString::number(-error, 'f', 2));
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 0.02));
    // White glaze: where the average would dial plus, practice dials minus.
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) {
        shot.subject.reflectance = 0.8;
        shot.lights[0].metered = 0;
    });
    CHECK(person.note("automatic-misses").contains(QStringLiteral("Practice")));
    person.type(QStringLiteral("compensationField"), QStringLiteral("-1"));
    CHECK(person.note("automatic-misses").isEmpty());
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 0.02));
}

TEST_CASE("a look of the background is asked for and one of its ways taken", "[desk][light]") {
    AtLight person;
    person.tab("backdropTab");
    CHECK(person.text(QStringLiteral("backdropText")).contains(QStringLiteral("keeps its colour")));
    person.click(QStringLiteral("lookDark"));
    auto* way = person.find<QPushButton>(QStringLiteral("backdropWay1"));
    REQUIRE(way->isVisible());
    person.click(way);
    CHECK(person.report().light.background_look == light::BackgroundLook::dark);
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 0.34));
    person.trigger(QStringLiteral("undoAction"));
    person.click(QStringLiteral("lookWhite"));
    person.click(QStringLiteral("backdropRecipe"));
    CHECK(person.report().light.background_look == light::BackgroundLook::white);
}

TEST_CASE("a freeze plan sets the subject's speed, and a power taken in the table freezes it", "[desk][light]") {
    AtLight person("Salt on caramel");
    person.tab("freezeTab");
    person.choose(QStringLiteral("actChoice"), QStringLiteral("falls"));
    person.type(QStringLiteral("dropField"), QStringLiteral("20 cm"));
    CHECK_THAT(person.shot().subject.speed, WithinAbs(std::sqrt(2 * 9806.65 * 200), 1));
    person.type(QStringLiteral("wantedBlurField"), QStringLiteral("40"));
    auto* table = person.find<desk::FreezeTable>(QStringLiteral("freezeTable"));
    const auto& freeze = *person.report().freeze;
    REQUIRE(freeze.brightest_that_freezes);
    const auto row = *freeze.brightest_that_freezes;
    const double power = freeze.rows[row].power, iso = freeze.rows[row].iso;
    REQUIRE(power > 2 * person.report().light.sources[*freeze.light].power);
    QTest::mouseClick(table, Qt::LeftButton, {}, table->cell(row, plan::ExposedBy::iso).center().toPoint());
    person.settle();
    const bool offered = iso >= 50;
    if (offered) CHECK_THAT(person.shot().exposure.iso, WithinRel(iso, 1e-9));
    table->setFocus();
    person.key(Qt::Key_F);
    CHECK_THAT(person.report().light.sources[*person.report().freeze->light].power,
               WithinRel(power, 0.01));  // the room takes its share by the aperture
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 1e-6));
    person.choose(QStringLiteral("triggerChoice"), QStringLiteral("hand"));
    CHECK_FALSE(person.find(QStringLiteral("beamField"))->isVisible());
    person.click(QStringLiteral("repeatingCheck"));
    person.type(QStringLiteral("burstCountField"), QStringLiteral("7"));
    person.type(QStringLiteral("burstFrequencyField"), QStringLiteral("4"));
    CHECK_THAT(person.report().freeze->burst_time.value(), WithinAbs(1.75, 1e-9));
    CHECK(person.hasNote("burst-cut-off"));
    CHECK(person.hasNote("safety-flashing"));
    person.click(QStringLiteral("freezeCheck"));
    CHECK_FALSE(person.shot().freeze);
    CHECK(person.shot().subject.speed == 0);
}

TEST_CASE("the bench draws what a polished face shows, and a window from its side", "[desk][light]") {
    AtLight person;
    auto* bench = person.bench();
    const auto pixels_that_differ = [&](auto change) {
        const QImage before = bench->grab().toImage();
        person.document().editShot({QStringLiteral("x")}, change);
        const QImage after = bench->grab().toImage();
        int count = 0;
        for (int y = 0; y < before.height(); ++y)
            for (int x = 0; x < before.width(); ++x) count += before.pixel(x, y) != after.pixel(x, y);
        return count;
    };
    CHECK(pixels_that_differ([](shoot::Shot& shot) { shot.subject.traits = {"polished"}; }) > 5000);
    CHECK(pixels_that_differ([](shoot::Shot& shot) { shot.ambient->kind = shoot::AmbientKind::window; }) > 200);
    CHECK(pixels_that_differ([](shoot::Shot& shot) { shot.ambient->position.elevation = 85; }) > 200);
}

TEST_CASE("the finder can stand above the lights, and its picture follows them", "[desk][light]") {
    AtLight person;
    CHECK(person.bench()->isVisible());
    person.click(QStringLiteral("trainButton"));
    CHECK_FALSE(person.bench()->isVisible());
    auto* finder = person.find<desk::FinderView>(QStringLiteral("finder"));
    REQUIRE(finder->isVisible());
    const auto picture = [&] {
        REQUIRE(QTest::qWaitFor([&] { return finder->isSettled(); }, test::patience));
        return finder->grab().toImage();
    };
    // How much brighter the left of the subject is than its right.
    const auto left_over_right = [&] {
        const QImage image = picture();
        double left = 0, right = 0;
        for (int y = image.height() / 3; y < image.height() * 2 / 3; ++y)
            for (int x = image.width() / 3; x < image.width() * 2 / 3; ++x)
                (x < image.width() / 2 ? left : right) += qGray(image.pixel(x, y));
        return left / right;
    };
    const double from_left = left_over_right();
    person.tab("lightsTab");
    person.type(QStringLiteral("azimuthField"), QStringLiteral("60"));
    CHECK(left_over_right() < from_left);
    person.click(person.find(QStringLiteral("finderPanel"))->findChild<QToolButton*>(QStringLiteral("benchButton")));
    CHECK(person.bench()->isVisible());
    person.goTo(3);
    CHECK(finder->isVisible());  // Depth keeps its own
}

TEST_CASE("what is thrown may rise to its place, what falls may not", "[desk][light]") {
    AtLight person("Salt on caramel");
    person.tab("freezeTab");
    person.choose(QStringLiteral("actChoice"), QStringLiteral("is thrown"));
    person.type(QStringLiteral("throwField"), QStringLiteral("2 m/s"));
    person.type(QStringLiteral("dropField"), QStringLiteral("-10 cm"));
    CHECK(person.shot().freeze->drop == -100);
    CHECK_THAT(person.shot().subject.speed, WithinAbs(std::sqrt(4e6 - 2 * 9806.65 * 100), 1));
    auto* drawing = person.find(QStringLiteral("fallDrawing"));
    CHECK_FALSE(drawing->grab().isNull());
    // How high it goes is easier to know than how fast it leaves.
    person.type(QStringLiteral("angleField"), QStringLiteral("60"));
    person.type(QStringLiteral("risesField"), QStringLiteral("20 cm"));
    CHECK_THAT(light::top_height({.speed = person.shot().freeze->speed, .angle = 60}), WithinAbs(200, 1e-6));
    person.choose(QStringLiteral("momentChoice"), QStringLiteral("at its top"));
    CHECK_FALSE(person.find(QStringLiteral("dropField"))->isVisible());
    CHECK_THAT(person.report().freeze->path->y, WithinAbs(200, 1e-6));
    // The beam goes where its way is grabbed, by hand or by key, and is taken back in one step.
    const auto before = *person.shot().freeze;
    QTest::mouseClick(drawing, Qt::LeftButton, {}, drawing->rect().center());
    person.settle();
    CHECK(person.shot().freeze->beam_rise != before.beam_rise);
    drawing->setFocus();
    const double rise = *person.shot().freeze->beam_rise;
    person.key(Qt::Key_Left);
    CHECK(person.shot().freeze->beam_rise != rise);
    person.document().undoStack().undo();
    CHECK(*person.shot().freeze == before);
    person.click(QStringLiteral("undelayedCheck"));
    CHECK(person.report().freeze->path->lit_after < person.report().freeze->path->wanted_after);
    person.click(QStringLiteral("undelayedCheck"));
    person.choose(QStringLiteral("momentChoice"), QStringLiteral("coming down"));
    person.type(QStringLiteral("dropField"), QStringLiteral("-10 cm"));
    CHECK(person.report().freeze->path->wanted_after > person.report().freeze->path->top_after);
    person.choose(QStringLiteral("actChoice"), QStringLiteral("falls"));
    CHECK(person.shot().freeze->drop == 0);
    const auto again = storage::read_shoot(storage::write_shoot(person.document().shoot()));
    CHECK(again.has_value());
}

TEST_CASE("a light is put where the polished face shows it", "[desk][light]") {
    AtLight person("Tide brooch");
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) {
        shot.subject.form = shoot::Form::slab;
        shot.subject.tilt = 20;
    });
    person.tab("shineTab");
    CHECK(person.text(QStringLiteral("shineText")).contains(QStringLiteral("does not show it")) !=
          (person.report().reflections[0].mirrored > 0));
    person.click(QStringLiteral("bringInButton"));
    CHECK(person.report().reflections[0].mirrored > 0.5);
    CHECK_THAT(person.shot().lights[0].position.elevation, WithinAbs(40, 2));  // twice the tilt
    CHECK_FALSE(person.find(QStringLiteral("shineDrawing"))->grab().isNull());
    person.selectShot(QStringLiteral("Fossil urchin"));
    person.click(QStringLiteral("polishedButton"));
    CHECK(shoot::has_trait(person.shot().subject, "polished"));
    CHECK(person.report().reflections.size() == 1);
}

TEST_CASE("the test frame is measured, mended by the preferred lever and learned from", "[desk][light]") {
    AtLight person("Tide brooch");
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.lights.resize(1); });
    person.tab("testFrameTab");
    // A grey card at sRGB 161 sends 36 % of full scale: a stop too bright.
    const GreyFrame frame(161);
    auto* patch = person.find<desk::PatchView>(QStringLiteral("patchView"));
    const QMimeData* dropped = [&] {
        auto* data = new QMimeData;
        data->setUrls({QUrl::fromLocalFile(frame.path)});
        return data;
    }();
    QDragEnterEvent enter({50, 50}, Qt::CopyAction, dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(patch, &enter);
    REQUIRE(enter.isAccepted());
    QDropEvent drop({50, 50}, Qt::CopyAction, dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(patch, &drop);
    delete dropped;
    person.settle();
    REQUIRE(patch->reading());
    CHECK_THAT(std::log2(patch->reading()->mean / 0.18), WithinAbs(1, 0.03));
    CHECK(person.text(QStringLiteral("patchReading")).contains(QStringLiteral("nothing clipped")));
    CHECK(person.text(QStringLiteral("frameStopsField")).startsWith(QStringLiteral("+1")));
    // Learn first: the flash gives a stop more than its record.
    const double predicted =
        std::log2(person.report().light.sources[0].power / *person.report().light.sources[0].suggested_power);
    person.click(QStringLiteral("learnButton"));
    const auto& learned = person.document().kit().flashes[0].corrections;
    REQUIRE(learned.size() == 1);
    CHECK_THAT(learned[0].stops, WithinAbs(1 + predicted, 0.05));
    CHECK(person.text(QStringLiteral("lessonText")).contains(QStringLiteral("Calibrated by 1 frame")));
    // The plan has followed: it asks for half the power.
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 1e-9));
    person.click(QStringLiteral("forgetButton"));
    CHECK(person.document().kit().flashes[0].corrections.empty());
    // And the one change, by the lever that is preferred.
    person.choose(QStringLiteral("leverChoice"), QStringLiteral("stop"));
    CHECK(person.shot().exposure.lever == shoot::Lever::stop);
    person.type(QStringLiteral("frameStopsField"), QStringLiteral("+1"));
    CHECK(person.text(QStringLiteral("fixButton1")).startsWith(QStringLiteral("Stop to f/8")));
    const double f_number = person.shot().exposure.f_number;
    person.click(QStringLiteral("fixButton1"));
    CHECK_THAT(person.shot().exposure.f_number, WithinRel(f_number * std::sqrt(2.0), 0.02));
    CHECK(person.text(QStringLiteral("frameStopsField")).contains(QStringLiteral("0.0")));
    CHECK_FALSE(person.find(QStringLiteral("fixButton1"))->isEnabled());
    person.selectShot(QStringLiteral("Fossil urchin"));  // nothing was said or shown of this one
    CHECK_FALSE(patch->reading());
}

TEST_CASE("a file that is no picture is told at the place where it was dropped", "[desk][light]") {
    AtLight person;
    person.tab("testFrameTab");
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("frame.jpg"));
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("no picture");
    file.close();
    auto* patch = person.find<desk::PatchView>(QStringLiteral("patchView"));
    patch->open(path);
    CHECK_FALSE(patch->reading());
    CHECK_FALSE(patch->grab().isNull());
    // An area is marked by dragging, and its reading follows.
    const GreyFrame frame(118);
    patch->open(frame.path);
    REQUIRE(patch->reading());
    const auto whole = patch->pictureRect();
    drag(patch, whole.center(), whole.bottomRight() - QPointF(2, 2));
    CHECK_THAT(patch->reading()->mean, WithinAbs(0.181, 0.005));
}

TEST_CASE("the sky sets its usual reading and width, and a window its side", "[desk][light]") {
    AtLight person("Toffee tin");
    CHECK(person.text(QStringLiteral("ambientKindChoice")) == QStringLiteral("a window"));
    person.choose(QStringLiteral("ambientKindChoice"), QStringLiteral("the sky"));
    person.choose(QStringLiteral("skyChoice"), QStringLiteral("clear sun"));
    CHECK(person.shot().ambient->ev100 == 15);
    CHECK(person.shot().ambient->size == 0.53);
    person.type(QStringLiteral("ambientAzimuthField"), QStringLiteral("40"));
    CHECK(person.shot().ambient->position.azimuth == 40);
    person.choose(QStringLiteral("ambientKindChoice"), QStringLiteral("all round"));
    CHECK_FALSE(person.find(QStringLiteral("ambientAzimuthField"))->isVisible());
}

namespace {

/// Share of its pixels that are of another colour than most.
double inkOf(QWidget* widget) {
    const QImage image = widget->grab().toImage().convertToFormat(QImage::Format_RGB32);
    QHash<QRgb, int> colours;
    for (int y = 0; y < image.height(); ++y) {
        const auto* line = reinterpret_cast<const QRgb*>(image.constScanLine(y));
        for (int x = 0; x < image.width(); ++x) ++colours[line[x]];
    }
    const int most = *std::ranges::max_element(colours);
    return 1 - static_cast<double>(most) / (static_cast<double>(image.width()) * image.height());
}

}  // namespace

TEST_CASE("every leaf of Light draws every demo shot, at its least size too", "[desk][light][long]") {
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        AtLight person("Fossil urchin", size);
        auto* cards = person.find<QListView>(QStringLiteral("shotCards"));
        const auto tabOf = [&](const char* tab) {
            for (auto* tabs : person.window().findChildren<desk::Tabs*>())
                if (tabs->isVisible() && tabs->currentName() == QLatin1String(tab)) return tabs->currentTab();
            FAIL("no leaf " << tab);
            return static_cast<QWidget*>(nullptr);
        };
        for (const char* tab : {"exposureTab", "lightsTab", "backdropTab", "freezeTab", "shineTab", "testFrameTab"}) {
            person.tab(tab);
            // A drawing may have nothing to say of one shot; of all of them it has.
            QMap<QByteArray, double> most;
            for (int row = 0; row < cards->model()->rowCount(); ++row) {
                person.clickRow(cards, cards->model()->index(row, 0));
                INFO(tab << ", shot " << row);
                auto* page = tabOf(tab);
                CHECK(inkOf(page) > 0.01);
                for (auto* drawing : page->findChildren<QWidget*>()) {
                    const bool own = QByteArray(drawing->metaObject()->className()).startsWith("poquito::desk::");
                    if (!own || !drawing->isVisible() || drawing->width() * drawing->height() < 4000 ||
                        drawing->findChild<QWidget*>())
                        continue;
                    auto& ink = most[drawing->metaObject()->className()];
                    ink = std::max(ink, inkOf(drawing));
                }
            }
            for (auto drawing = most.cbegin(); drawing != most.cend(); ++drawing) {
                INFO(tab << ", " << drawing.key().toStdString());
                CHECK(drawing.value() > 0.002);
            }
        }
    }
}

TEST_CASE("a tone is dragged, and the light that makes it follows", "[desk][light]") {
    AtLight person("Salt on caramel");
    auto* strip = person.find<desk::ToneStrip>(QStringLiteral("toneStrip"));
    person.tab("daylightTab");
    strip = person.find<desk::ToneStrip>(QStringLiteral("daylightTones"));
    const auto patches = strip->patches();
    const auto edge = std::ranges::find(patches, std::optional(whatif::Tone::rim), &desk::ToneStrip::Patch::tone);
    REQUIRE(edge != patches.end());
    const auto index = static_cast<std::size_t>(edge - patches.begin());
    const QPoint from = strip->patchRect(index).center().toPoint();
    const double before = *edge->stops;
    QTest::mousePress(strip, Qt::LeftButton, {}, from);
    for (int y = 4; y <= 24; y += 4) QTest::mouseMove(strip, from - QPoint(0, y));
    QTest::mouseRelease(strip, Qt::LeftButton, {}, from - QPoint(0, 24));
    person.settle();
    CHECK_THAT(*strip->patches()[index].stops, WithinAbs(before + 1, 0.15));  // 24 pixels are a stop
    CHECK(person.shot().lights[0].own_stops);
    CHECK_THAT(*person.report().light.front_total, WithinAbs(0, 0.05));  // the other finds its power anew
    // The whole drag is one step back; keys do the same.
    person.trigger(QStringLiteral("undoAction"));
    CHECK_THAT(*strip->patches()[index].stops, WithinAbs(before, 1e-6));
    strip->setFocus();
    person.key(Qt::Key_Up);
    person.settle();
    CHECK_THAT(*strip->patches()[index].stops, WithinAbs(before + 1.0 / 3, 0.1));
}

TEST_CASE("a card, a rim and a gel are set up at Lights", "[desk][light]") {
    AtLight person("Fossil urchin");
    person.tab("lightsTab");
    person.choose(QStringLiteral("ownStopsChoice"), QStringLiteral("its own, here"));
    CHECK(person.shot().lights[0].own_stops == 1);
    person.type(QStringLiteral("ownStopsField"), QStringLiteral("-0.5"));
    CHECK_THAT(*person.report().light.sources[0].stops, WithinAbs(-0.5, 1e-6));
    person.choose(QStringLiteral("ownStopsChoice"), QStringLiteral("what is needed"));
    CHECK_FALSE(person.shot().lights[0].own_stops);
    person.choose(QStringLiteral("gelChoice"), QStringLiteral("half warming, 81 mired"));
    CHECK_THAT(person.report().light.sources[0].kelvin, WithinAbs(1e6 / (1e6 / 5600 + 81), 1));
    person.choose(QStringLiteral("flashChoice"), QStringLiteral("White card 30 cm"));
    REQUIRE(person.shot().lights[0].reflector);
    CHECK(person.shot().lights[0].reflector->diameter == 300);
    CHECK_FALSE(person.find(QStringLiteral("powerField"))->isVisible());
    person.type(QStringLiteral("cardSizeField"), QStringLiteral("20 cm"));
    CHECK(person.shot().lights[0].reflector->diameter == 200);
    person.choose(QStringLiteral("flashChoice"), QStringLiteral("Compact flash"));
    CHECK_FALSE(person.shot().lights[0].reflector);
}

TEST_CASE("daylight is panelled, and glass gets its set by one click", "[desk][light]") {
    AtLight person("Toffee against the light");
    person.tab("daylightTab");
    const double before = *person.report().light.ambient_front;
    person.click(QStringLiteral("panelCheck"));
    CHECK_THAT(*person.report().light.ambient_front, WithinAbs(before - 1, 1e-6));  // the kit's panel takes a stop
    // Of the same reading a white room gives more, so the window behind the toffee gives less, and less shines through.
    const double through = *person.report().light.through;
    person.choose(QStringLiteral("roomChoice"), QStringLiteral("small white room"));
    CHECK(*person.report().light.through < through - 0.1);
    person.type(QStringLiteral("driftField"), QStringLiteral("-1"));
    CHECK(person.text(QStringLiteral("daylightSays")).contains(QStringLiteral("20 min")));
    person.tab("backdropTab");
    person.click(QStringLiteral("brightFieldButton"));
    CHECK(person.report().light.background_look == light::BackgroundLook::white);
    person.click(QStringLiteral("darkFieldButton"));
    CHECK(*person.report().light.background_look <= light::BackgroundLook::dark);
    person.type(QStringLiteral("backgroundWidthField"), QStringLiteral("30 mm"));
    const auto& notes = person.window().document().assessment()->advice.notes;
    CHECK(std::ranges::count(notes, std::string("background-small"), &advice::Note::code) == 1);
}
