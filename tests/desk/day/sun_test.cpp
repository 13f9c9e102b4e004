// The sun on the day sheet, what is in season, and a time-lapse at Depth.
#include "support/person.hpp"

#include "desk/set/bench_view.hpp"
#include "desk/shell/status_bar.hpp"
#include "plan/motion/lapse.hpp"
#include "storage/shoot_file.hpp"

#include "desk/day/seasons_page.hpp"
#include "desk/day/sky_drawing.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/towns.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "sun/zone.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"

#include <QComboBox>

using namespace poquito;
using test::Person;
using test::WithinAbs;

namespace {

struct Outdoors : Person {
    Outdoors() {
        window().openDemo();
        selectShot(QStringLiteral("Flint lichen"));
        window().goTo(desk::Sheet::day);
        click(QStringLiteral("sunTab"));
    }
    desk::SkyDrawing* sky() { return find<desk::SkyDrawing>(QStringLiteral("skyDrawing")); }
    QString fact(const QString& name) {
        for (const auto& one : find<desk::FactsView>(QStringLiteral("sunFacts"))->facts())
            if (one.name == name) return one.value;
        return {};
    }
};

}  // namespace

TEST_CASE("every town of the list lies on the globe and has a clock that there is", "[desk][sun]") {
    CHECK(desk::towns().size() > 100);
    for (const auto& town : desk::towns()) {
        INFO(town.name);
        CHECK(std::abs(town.latitude) <= 90);
        CHECK(std::abs(town.longitude) <= 180);
        CHECK(sun::has_zone(town.zone));
        // The clock's noon is within three hours of the sun's.
        const auto day = sun::local_day(town.zone, "2026-01-15");
        const auto noon =
            sun::day_of({.latitude = town.latitude, .longitude = town.longitude}, day->begin, day->end).noon;
        REQUIRE(noon);
        CHECK(std::abs(sun::clock_at(town.zone, *noon) - 12 * 3600) < 3 * 3600);
    }
    CHECK(desk::findTown("dublin"));
    CHECK_FALSE(desk::findTown("Saltmarsh"));
}

TEST_CASE("a place is said, the sun is dragged, and a shot takes its light and its hours", "[desk][sun]") {
    Outdoors person;
    REQUIRE(person.sky()->day());
    CHECK(person.fact(QStringLiteral("Rises, sets")) == QStringLiteral("7:15, 16:07"));
    // Later, on the line below.
    auto* sky = person.sky();
    const auto strip = sky->stripArea();
    const double at13 = strip.left() + strip.width() * 13 / 24;
    QTest::mouseClick(sky, Qt::LeftButton, {}, QPointF(at13, strip.center().y()).toPoint());
    person.settle();
    CHECK_THAT(sun::clock_at("Europe/London", sky->day()->moment), WithinAbs(13 * 3600, 300));
    CHECK(person.fact(QStringLiteral("Comes")).startsWith(QStringLiteral("from the side")));
    sky->setFocus();
    person.key(Qt::Key_Right);
    CHECK_THAT(sun::clock_at("Europe/London", sky->day()->moment), WithinAbs(13 * 3600 + 300, 300));
    person.click(QStringLiteral("takeSunButton"));
    const auto& ambient = *person.shot().ambient;
    const auto position = sun::position_at(sky->day()->place, sky->day()->moment);
    CHECK_THAT(ambient.position.elevation, WithinAbs(position.elevation, 0.01));
    CHECK_THAT(ambient.position.azimuth, WithinAbs(sun::azimuth_of(position.bearing, 280), 0.01));
    CHECK_THAT(ambient.ev100, WithinAbs(14, 0.5));
    CHECK(ambient.size < 1);  // the sun itself, which draws shadows
    // On the bench: the disc as high as it stands, and the shadow as long as it is.
    const auto said = [&](desk::Elevation elevation) {
        auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
        bench->setElevation(elevation);
        QImage image(bench->size(), QImage::Format_RGB32);
        bench->render(&image);
        QString all;
        for (const auto& label : bench->labels())
            for (const auto& line : label.label.lines) all += line.text + QLatin1Char('\n');
        return all;
    };
    const auto height = person.shot().subject.height;
    const auto shadow = QStringLiteral("shadow %1")
                            .arg(QString::fromStdString(text::length_text(height * *sun::shadow_length(position))));
    person.window().goTo(desk::Sheet::shot);
    person.window().goTo(advice::Station::light);
    for (const auto elevation : {desk::Elevation::side, desk::Elevation::top}) {
        const auto words = said(elevation);
        INFO(words.toStdString());
        CHECK(words.contains(QStringLiteral("sun, %1\u00b0 high").arg(std::round(position.elevation))));
        CHECK(words.contains(shadow));
    }
    person.window().goTo(desk::Sheet::day);
    person.click(QStringLiteral("fenceSunButton"));
    const auto& timing = person.shot().timing;
    CHECK(*timing.not_before < 13 * 3600);
    CHECK(*timing.done_by > 13 * 3600);
    CHECK(*timing.done_by < 15 * 3600);
    // A town of the list brings where it lies.
    auto* place = person.find<QComboBox>(QStringLiteral("sitePlaceField"));
    const int row = place->findText(QStringLiteral("Reykjav\u00edk"));
    place->setCurrentIndex(row);
    Q_EMIT place->activated(row);
    person.settle();
    CHECK_THAT(*person.document().shoot().site.latitude, WithinAbs(64.15, 0.01));
    CHECK(person.document().shoot().site.zone == "Atlantic/Reykjavik");
    CHECK(person.fact(QStringLiteral("Rises, sets")) != QStringLiteral("7:15, 16:07"));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().shoot().site.name == "Saltmarsh");
}

TEST_CASE("a place without a name is said by its numbers, its clock and its day", "[desk][sun]") {
    Outdoors person;
    person.document().edit({QStringLiteral("nowhere")}, [](shoot::Shoot& shoot) { shoot.site = {}; });
    person.settle();
    // Nothing is drawn or offered of a place that is not known.
    CHECK_FALSE(person.sky()->day());
    CHECK(person.find<desk::FactsView>(QStringLiteral("sunFacts"))->facts().empty());
    CHECK_FALSE(person.find(QStringLiteral("takeSunButton"))->isEnabled());
    QImage image(person.sky()->size(), QImage::Format_RGB32);
    person.sky()->render(&image);
    person.key(Qt::Key_Right);
    person.type(QStringLiteral("latitudeField"), QStringLiteral("-33.9"));
    REQUIRE(person.sky()->day());
    CHECK(*person.document().shoot().site.longitude == 0);
    person.type(QStringLiteral("longitudeField"), QStringLiteral("18.4"));
    person.type(QStringLiteral("siteDateField"), QStringLiteral("2026-12-21"));
    person.choose(QStringLiteral("zoneChoice"), QStringLiteral("Africa/Johannesburg"));
    const auto& site = person.document().shoot().site;
    CHECK(site.zone == "Africa/Johannesburg");
    CHECK(*site.latitude == -33.9);
    CHECK(*site.longitude == 18.4);
    // The longest day of Cape Town: 5:32 to 19:57, from an almanac in memory.
    const auto day = person.fact(QStringLiteral("Rises, sets"));
    INFO(day.toStdString());
    CHECK(day.startsWith(QStringLiteral("5:3")));
    CHECK(day.contains(QStringLiteral(", 19:5")));
    // What is no day is told at the field, and the day stays.
    auto* date = person.find<QLineEdit>(QStringLiteral("siteDateField"));
    const auto tip = date->toolTip();
    date->setFocus();
    date->selectAll();
    QTest::keyClicks(date, QStringLiteral("2026-02-30"));
    CHECK(date->property("wrong").toBool());
    CHECK(date->toolTip().contains(QStringLiteral("a day that there is")));
    CHECK(person.document().shoot().site.date == "2026-12-21");
    person.key(Qt::Key_Return);
    CHECK(date->text() == QStringLiteral("2026-12-21"));
    CHECK_FALSE(date->property("wrong").toBool());
    CHECK(date->toolTip() == tip);
    // Empty: today.
    date->selectAll();
    QTest::keyClick(date, Qt::Key_Delete);
    CHECK(person.document().shoot().site.date.empty());
    REQUIRE(person.sky()->day());
}

TEST_CASE("whoever aims near the sun is warned, by the shot's own bearing", "[desk][sun]") {
    Outdoors person;
    auto* sky = person.sky();
    const auto strip = sky->stripArea();
    QTest::mouseClick(sky, Qt::LeftButton, {},
                      QPointF(strip.left() + strip.width() * 13 / 24, strip.center().y()).toPoint());
    const auto warned = [&] {
        return person.text(QStringLiteral("sunAdvice")).contains(QStringLiteral("no eye at an optical finder"));
    };
    const double bearing = sun::position_at(sky->day()->place, sky->day()->moment).bearing;
    const auto looks = [&](double towards) {
        person.type(QStringLiteral("bearingField"), QString::number(std::fmod(std::round(towards) + 360, 360)));
    };
    looks(bearing);
    CHECK(warned());
    looks(bearing + 20);
    CHECK(warned());
    looks(bearing - 40);
    CHECK_FALSE(warned());
    looks(bearing + 180);  // in its back
    CHECK_FALSE(warned());
}

TEST_CASE("the sun is taken by the hand along its day, and a reading stands for the table", "[desk][sun]") {
    Outdoors person;
    auto* sky = person.sky();
    const auto at = [&](double hour) {
        const auto begin = sky->day()->day.begin;
        return sun::position_at(sky->day()->place, begin + hour * 3600);
    };
    const auto strip = sky->stripArea();
    QTest::mouseClick(sky, Qt::LeftButton, {},
                      QPointF(strip.left() + strip.width() * 11 / 24, strip.center().y()).toPoint());
    const auto from = at(11), to = at(14);
    QTest::mousePress(sky, Qt::LeftButton, {}, sky->placeOf(from.bearing, from.elevation).toPoint());
    QTest::mouseMove(sky, sky->placeOf(to.bearing, to.elevation).toPoint());
    QTest::mouseRelease(sky, Qt::LeftButton, {}, sky->placeOf(to.bearing, to.elevation).toPoint());
    CHECK_THAT(sun::clock_at("Europe/London", sky->day()->moment), WithinAbs(14 * 3600, 900));
    // A wall to the south: it hides the sun below its height.
    const auto open = person.fact(QStringLiteral("Reaches the set"));
    const auto walls = person.document().shoot().site.obstacles.size();
    person.click(QStringLiteral("addObstacleButton"));
    REQUIRE(person.document().shoot().site.obstacles.size() == walls + 1);
    person.type(QStringLiteral("obstacleFromField"), QStringLiteral("90"));
    person.type(QStringLiteral("obstacleToField"), QStringLiteral("270"));
    person.type(QStringLiteral("obstacleHeightField"), QStringLiteral("60"));
    CHECK(person.document().shoot().site.obstacles.back().height == 60);
    CHECK(person.fact(QStringLiteral("Reaches the set")) != open);
    person.click(QStringLiteral("removeObstacleButton"));
    CHECK(person.fact(QStringLiteral("Reaches the set")) == open);
    // Clouds take light; a meter knows better than the table.
    const auto site = [&]() -> const shoot::Site& { return person.document().shoot().site; };
    const auto light = [&] { return sun::light_at(site(), *sun::place_of(site()), sky->day()->moment); };
    const double clear = light();
    person.choose(QStringLiteral("skyChoice"), person.find<QComboBox>(QStringLiteral("skyChoice"))->itemText(3));
    CHECK(light() < clear - 1);
    person.click(QStringLiteral("siteReadCheck"));
    REQUIRE(site().reading);
    person.type(QStringLiteral("siteReadingField"), QStringLiteral("9.5"));
    CHECK(site().reading->ev100 == 9.5);
    CHECK_THAT(light(), WithinAbs(9.5, 0.1));
    person.type(QStringLiteral("siteReadAtField"), QStringLiteral("12:00"));
    CHECK(site().reading->clock == 12 * 3600);
    person.click(QStringLiteral("siteReadCheck"));
    CHECK_FALSE(site().reading);
}

TEST_CASE("a wall and a window decide when the sun comes", "[desk][sun]") {
    Outdoors person;
    const auto open = person.fact(QStringLiteral("Reaches the set"));
    person.click(QStringLiteral("removeObstacleButton"));
    CHECK(person.document().shoot().site.obstacles.empty());
    CHECK(person.fact(QStringLiteral("Reaches the set")) != open);
    person.click(QStringLiteral("siteWindowCheck"));
    REQUIRE(person.document().shoot().site.window);
    person.type(QStringLiteral("windowFromField"), QStringLiteral("190"));
    person.type(QStringLiteral("windowToField"), QStringLiteral("230"));
    CHECK(person.fact(QStringLiteral("Reaches the set")).startsWith(QStringLiteral("12:")));
    // The camera is dragged about the set.
    auto* sky = person.sky();
    const auto camera = sky->placeOf(280 + 180, 52), there = sky->placeOf(180, 52);
    QTest::mousePress(sky, Qt::LeftButton, {}, camera.toPoint());
    QTest::mouseMove(sky, there.toPoint());
    QTest::mouseRelease(sky, Qt::LeftButton, {}, there.toPoint());
    person.settle();
    CHECK_THAT(*person.shot().bearing, WithinAbs(0, 3));
    CHECK_FALSE(person.text(QStringLiteral("sunAdvice")).isEmpty());
}

TEST_CASE("places of the log stand before the towns, with where they lie and what stands there", "[desk][sun]") {
    Outdoors person;
    const test::Folder folder;
    person.window().log().setPath(QString::fromStdString((folder / "log.db").string()));
    auto been = person.document().shoot();
    been.site = {};
    been.site.name = "Gull cliff", been.site.latitude = 55.5, been.site.longitude = -6.5;
    been.site.zone = "Europe/London", been.site.obstacles = {{.from = 90, .to = 180, .height = 30}};
    log::Entry entry;
    entry.uid = "gull", entry.kind = log::Kind::run, entry.time = "2025-12-03T10:00:00";
    entry.place = "Gull cliff", entry.plan = storage::write_shoot(been);
    person.window().log().write({entry});
    person.click(QStringLiteral("hoursTab"));
    person.click(QStringLiteral("sunTab"));
    auto* place = person.find<QComboBox>(QStringLiteral("sitePlaceField"));
    REQUIRE(QTest::qWaitFor([&] { return place->itemText(0) == QStringLiteral("Gull cliff"); }, test::patience));
    CHECK(place->currentText() == QStringLiteral("Saltmarsh"));  // nothing is taken by itself
    place->setCurrentIndex(0);
    Q_EMIT place->activated(0);
    person.settle();
    const auto& site = person.document().shoot().site;
    CHECK(site.name == "Gull cliff");
    CHECK_THAT(*site.latitude, WithinAbs(55.5, 1e-9));
    CHECK(site.obstacles.size() == 1);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().shoot().site.name == "Saltmarsh");
}

TEST_CASE("what was logged out of doors stands before what is common, and the year turns over in the south",
          "[desk][sun]") {
    Outdoors person;
    const test::Folder folder;
    person.window().log().setPath(QString::fromStdString((folder / "log.db").string()));
    log::Entry entry;
    entry.uid = "bee", entry.kind = log::Kind::run, entry.time = "2025-12-03T10:00:00";
    entry.words = "Ivy bee", entry.light = "sky", entry.place = "Churchyard wall";
    person.window().log().write({entry});
    person.click(QStringLiteral("seasonsTab"));
    const auto* page = person.find<desk::SeasonsPage>(QStringLiteral("seasonsPage"));
    REQUIRE(QTest::qWaitFor([&] { return !page->rows().empty() && page->rows().front().own; }, test::patience));
    CHECK(page->rows().front().name == "Ivy bee");
    CHECK(page->rows().size() > 30);
    CHECK(
        person.text(QStringLiteral("seasonsAhead")).contains(QStringLiteral("26 November: Ivy bee")));  // in two weeks
    const auto row = [&](const char* name) {
        for (const auto& one : page->rows())
            if (one.name == name) return one;
        return log::SeasonRow{};
    };
    CHECK(row("Snowdrops").there[5]);
    CHECK_FALSE(row("Snowdrops").there[30]);
    person.document().edit({QStringLiteral("south")}, [](shoot::Shoot& shoot) { shoot.site.latitude = -37; });
    person.settle();
    CHECK(row("Snowdrops").there[31]);
    CHECK_FALSE(row("Snowdrops").there[5]);
    person.type(QStringLiteral("seasonWordsField"), QStringLiteral("fung"));
    CHECK(page->rows().size() == 1);
}

TEST_CASE("a time-lapse is planned at Depth: its length, its interval or the seconds it is shown in", "[desk][lapse]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    person.click(QStringLiteral("settingsTab"));
    CHECK_FALSE(person.find(QStringLiteral("lapseLengthField"))->isVisible());
    person.click(QStringLiteral("lapseCheck"));
    REQUIRE(person.shot().lapse);
    person.type(QStringLiteral("lapseLengthField"), QStringLiteral("48 h"));
    person.type(QStringLiteral("lapseShownField"), QStringLiteral("30 s"));
    CHECK_THAT(person.shot().lapse->length, WithinAbs(48 * 3600, 1));
    CHECK_THAT(person.shot().lapse->interval, WithinAbs(48 * 3600.0 / 750, 1));
    CHECK(
        person.find(QStringLiteral("lapseDrawing"))->accessibleDescription().contains(QStringLiteral("shown in 30 s")));
    person.click(QStringLiteral("lapseCheck"));
    CHECK_FALSE(person.shot().lapse);
}

TEST_CASE("the bud of the demo goes on by itself: foot line, day and cards say so", "[desk][lapse]") {
    Person person;
    person.window().openDemo();
    const auto& shots = person.document().shoot().shots;
    person.document().select(static_cast<int>(shots.size()) - 1);
    REQUIRE(person.shot().lapse);
    const auto* foot = person.find<desk::StatusBar>(QStringLiteral("footLine"));
    CHECK(foot->shotText().startsWith(QStringLiteral("This shot: 288 frames \u00b7 48 h")));
    double frames = 0;
    for (int i = 0; i < person.document().count(); ++i)
        frames += plan::yield_of(person.document().assessment(i).plan, person.document().report(i)).frames;
    CHECK(foot->shootText().contains(QStringLiteral("%1 frames").arg(frames)));
    CHECK(frames > 500);
    person.window().goTo(desk::Sheet::day);
    bool said = false;
    for (const auto& fact : person.find<desk::FactsView>(QStringLiteral("wholeDayFacts"))->facts())
        if (fact.name == QStringLiteral("Goes on by itself")) said = fact.value.contains(QStringLiteral("48 h"));
    CHECK(said);
}
