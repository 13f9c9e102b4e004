#include "plan/motion/freeze.hpp"
#include "plan/assess.hpp"
#include "plan/light/reflections.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;
using test::WithinAbs;

namespace {

Shoot falling() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure.shutter = 0.005;
    shot.lights = {test::plain_light()};
    shot.freeze = Freeze{.drop = 300, .wanted_blur = 3, .beam_above = 200, .lag = 0.05};
    shot.subject.speed = std::round(speed_of(*shot.freeze));
    return shoot;
}

}  // namespace

TEST_CASE("salt that fell 300 mm is at 2.4 m/s and blurs by its speed, the flash and the magnification",
          "[shoot][freeze]") {
    auto shoot = falling();
    const auto report = assess(shoot.kit, shoot.shots[0], {});
    REQUIRE(report.freeze);
    CHECK_THAT(report.freeze->speed, WithinAbs(2425.7, 0.1));  // sqrt(2 g h), any mechanics text
    REQUIRE(report.freeze->light == 0);
    REQUIRE(report.freeze->rows.size() == 8);  // full power to 1/128
    for (const auto& row : report.freeze->rows)
        CHECK_THAT(row.blur, same(report.optics.magnification * report.freeze->speed * row.t01));
    // The slowest that still freezes: a flash just so long blurs by just what is wanted.
    CHECK_THAT(report.optics.magnification * report.freeze->speed * report.freeze->slowest, same(3 * 0.004));
}

TEST_CASE("a row that is taken exposes alike, freezes as it said, and by the lever it said", "[shoot][freeze]") {
    auto shoot = falling();
    auto& shot = shoot.shots[0];
    for (const bool automatic : {true, false}) {
        shot.lights[0].power = automatic ? std::nullopt : std::optional(0.02);
        const auto before = assess(shoot.kit, shot, {});
        for (const auto& row : before.freeze->rows)
            for (const auto by : {ExposedBy::aperture, ExposedBy::iso}) {
                if (by == ExposedBy::aperture && !row.f_number) continue;
                const auto after = assess(shoot.kit, at_power(shot, *before.freeze, row, by), {});
                CHECK_THAT(*after.light.front_total, WithinAbs(*before.light.front_total, 1e-9));
                CHECK_THAT(after.light.sources[0].power, same(row.power));
                CHECK_THAT(after.motion.blur, WithinAbs(row.blur, row.blur * 1e-3));  // the speed is rounded to mm/s
            }
    }
}

TEST_CASE("several flashes keep their proportion, and the table is of the slowest", "[shoot][freeze]") {
    auto shoot = falling();
    auto& shot = shoot.shots[0];
    shot.lights.push_back(test::plain_light());
    shot.lights[0].power = 0.02;
    shot.lights[1].power = 0.08;  // more power, longer flash
    const auto before = assess(shoot.kit, shot, {});
    REQUIRE(before.freeze->light == 1);
    const auto& row = before.freeze->rows.back();
    const auto after = at_power(shot, *before.freeze, row, ExposedBy::iso);
    CHECK_THAT(*after.lights[1].power, same(row.power));
    CHECK_THAT(*after.lights[0].power, same(row.power / 4));
    CHECK_THAT(*assess(shoot.kit, after, {}).light.front_total, WithinAbs(*before.light.front_total, 1e-9));
    std::swap(shot.lights[0].power, shot.lights[1].power);
    CHECK(assess(shoot.kit, shot, {}).freeze->light == 0);
}

TEST_CASE("the brightest power that freezes is the first within the wanted blur", "[shoot][freeze]") {
    auto shoot = falling();
    for (const double wanted : {1.0, 3.0, 10.0, 100.0}) {
        shoot.shots[0].freeze->wanted_blur = wanted;
        const auto freeze = *assess(shoot.kit, shoot.shots[0], {}).freeze;
        const double limit = wanted * 0.004 * (1 + 1e-9);
        if (!freeze.brightest_that_freezes) {
            for (const auto& row : freeze.rows) CHECK(row.blur > limit);
            continue;
        }
        const auto first = *freeze.brightest_that_freezes;
        CHECK(freeze.rows[first].blur <= limit);
        if (first > 0) CHECK(freeze.rows[first - 1].blur > limit);
    }
    // A head whose flash grows as its power falls: full power freezes best.
    shoot.kit.flashes[0].durations = {{.power = 1, .t05 = 0.00002}, {.power = 1.0 / 128, .t05 = 0.0008}};
    CHECK(assess(shoot.kit, shoot.shots[0], {}).freeze->brightest_that_freezes.value_or(0) == 0);
}

TEST_CASE("beam, sound, second drop and repeating flash come with their times", "[shoot][freeze]") {
    auto shoot = falling();
    auto& plan = *shoot.shots[0].freeze;
    const auto report = [&] { return *assess(shoot.kit, shoot.shots[0], {}).freeze; };
    // 300 mm take 247.4 ms, 100 mm to the beam 142.8 ms.
    CHECK_THAT(report().delay.value(), WithinAbs(0.2474 - 0.1428 - 0.05, 2e-4));
    plan.trigger = Trigger::hand;
    CHECK_FALSE(report().delay);
    plan.trigger = Trigger::sound;
    plan.sound_distance = 343.2;
    CHECK_THAT(report().delay.value(), WithinAbs(-0.051, 1e-9));  // a foot of air is a millisecond
    plan.act = Act::splash;
    plan.second = TwoDrops{.rise = 0.08, .column = 30};
    CHECK_THAT(report().second_after.value(),
               WithinAbs(std::sqrt(0.6 / 9.80665) + 0.08 - std::sqrt(0.54 / 9.80665), 1e-9));
    plan.repeating = RepeatingFlash{.burst = {.flashes = 7, .frequency = 4}};
    CHECK_THAT(report().burst_time.value(), same(1.75));
    CHECK_THAT(report().burst_spacing.value(), WithinAbs(0.5 * 2425.7 / 4, 0.1));
    plan.act = Act::thrown;
    plan.drop = -100;
    plan.speed = 2000;
    CHECK_THAT(report().speed, WithinAbs(std::sqrt(4e6 - 2 * 9806.65 * 100), 1e-6));
}

TEST_CASE("where it may land is weighed against the depth of field", "[shoot][freeze]") {
    auto shoot = falling();
    const auto sharp = assess(shoot.kit, shoot.shots[0], {}).sharpness;
    auto& scatter = shoot.shots[0].freeze->scatter;
    for (const double deviation : {*sharp.near / 2, 10 * *sharp.far}) {
        scatter = deviation;
        const auto to_one_side = [&](double reach) { return std::erf(reach / deviation / std::sqrt(2.0)) / 2; };
        CHECK_THAT(assess(shoot.kit, shoot.shots[0], {}).freeze->landing_inside.value(),
                   same(to_one_side(*sharp.near) + to_one_side(*sharp.far)));
    }
    scatter = 0;
    CHECK_FALSE(assess(shoot.kit, shoot.shots[0], {}).freeze->landing_inside);
}

TEST_CASE("one lamp makes one mark on a round polished thing, a twin light two", "[shoot][shine]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    CHECK(assess(shoot.kit, shot, {}).reflections.empty());  // not polished
    shot.subject.traits = {"polished"};
    shot.subject.depth = 12;
    auto reflections = assess(shoot.kit, shot, {}).reflections;
    REQUIRE(reflections.size() == 1);
    CHECK(reflections[0].marks.size() == 1);
    const double bare = reflections[0].marks[0].width;
    CHECK(reflections[0].marks[0].x < 0);  // the lamp stands to the left and above
    CHECK(reflections[0].marks[0].y > 0);
    shot.lights[0].modifier = "box";  // 200 mm in place of 40
    CHECK_THAT(assess(shoot.kit, shot, {}).reflections[0].marks[0].width / bare, WithinAbs(5, 0.4));
    shot.lights = {{.flash = "twin", .power = 0.1, .on_lens = true}};
    reflections = assess(shoot.kit, shot, {}).reflections;
    REQUIRE(reflections[0].marks.size() == 2);
    CHECK_THAT(reflections[0].marks[0].x, WithinAbs(-reflections[0].marks[1].x, 1e-9));
}

TEST_CASE("a flat face shows a light brought to its place, and all of it with the named size", "[shoot][shine]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.form = Form::slab;
    shot.subject.tilt = 20;
    shot.subject.turn = -15;
    shot.subject.traits = {"polished"};
    shot.lights = {test::plain_light()};
    CHECK(assess(shoot.kit, shot, {}).reflections[0].mirrored == 0);
    const auto place = shown_place(plan_of(shoot.kit, shot, {}), 0);
    REQUIRE(place);
    shot.lights[0].position = *place;
    const auto shown = assess(shoot.kit, shot, {}).reflections[0];
    CHECK(shown.mirrored > 0);
    CHECK(shown.marks.empty());
    REQUIRE(shown.filling);
    shoot.kit.modifiers[0].diameter = *shown.filling * 1.01;
    shot.lights[0].modifier = "box";
    CHECK(assess(shoot.kit, shot, {}).reflections[0].mirrored == 1);
    // Its top and its left side are away from the lens: it looks up and to the left.
    CHECK(place->elevation > 0);
    CHECK(place->azimuth < 0);
}

TEST_CASE("the family of angles of a flat face leaves it as the law of reflection has it", "[plan][shine]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject = {.width = 30, .height = 20, .depth = 0, .form = Form::slab};
    CHECK_FALSE(family_of_angles(plan_of(shoot.kit, shot, {}), AxisPlane::level));  // not polished
    shot.subject.traits = {"polished"};
    const auto plan = plan_of(shoot.kit, shot, {});
    const auto pupil = pupil_point(plan);
    REQUIRE(pupil);
    // Square to the lens: what comes in at an edge goes out as far to that side again.
    for (const auto& [in, half, axis] :
         {std::tuple(AxisPlane::level, 15.0, 0), std::tuple(AxisPlane::upright, 10.0, 1)}) {
        const auto family = family_of_angles(plan, in);
        REQUIRE(family);
        CHECK_THAT(family->other.direction[axis] / family->other.direction.z(), WithinAbs(half / pupil->z(), 1e-9));
        CHECK_THAT(family->one.direction[axis] / family->one.direction.z(), WithinAbs(-half / pupil->z(), 1e-9));
    }
}
