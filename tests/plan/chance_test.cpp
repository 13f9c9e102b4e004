// What is left to chance in a shot: each cause by itself, all together, against drawing frame after frame.
#include "plan/motion/chance.hpp"

#include "plan/assess.hpp"
#include "plan/stack/stack_plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>
#include <random>

using namespace poquito;
using plan::ChanceCause;
using test::same;
using test::WithinAbs;

namespace {

std::optional<plan::ChanceReport> chance_of(const shoot::Shoot& shoot) {
    return plan::assess(plan::plan_of(shoot.kit, shoot.shots[0], shoot.terms)).chance;
}

double share_of(const plan::ChanceReport& chance, ChanceCause cause) {
    const auto found = std::ranges::find(chance.causes, cause, &plan::CauseOdds::cause);
    return found == chance.causes.end() ? -1 : found->share;
}

}  // namespace

TEST_CASE("what stands still on a stand is left to no chance", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    CHECK_FALSE(chance_of(shoot));
    CHECK(plan::assess(shoot.kit, shoot.shots[0], {}).motion.sharp_share == 1);
}

TEST_CASE("wind and hands together let as many frames be sharp as drawing them one by one does", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1.2;
    shot.subject.sway_frequency = 1.3;
    shot.subject.sway_depth = 0.8;
    shot.rig.support = shoot::Support::hand;
    shot.exposure.shutter = 1.0 / 250;
    shot.tries =
        shoot::Tries{.calm = 0.3, .calm_swing = 0.15, .hands = shoot::Hands{.shift = 3, .turn = 0.02, .along = 0.6}};
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    REQUIRE(report.chance);
    REQUIRE(report.chance->causes.size() == 4);
    CHECK(std::ranges::is_sorted(report.chance->causes, {}, &plan::CauseOdds::share));

    std::mt19937 draw(11);
    std::uniform_real_distribution<double> unit;
    std::normal_distribution<double> gauss;
    const double m = plan.at.magnification, t = shot.exposure.shutter, limit = report.sharpness.blur_limit;
    const double half = *report.sharpness.depth_of_field / 2;
    constexpr int frames = 200000, steps = 16;
    int sharp = 0, across = 0;
    for (int i = 0; i < frames; ++i) {
        const double swing = unit(draw) < 0.3 ? 0.15 : 1;
        const double phase = unit(draw) * 2 * M_PI;
        double low = 1e9, high = -1e9;
        for (int k = 0; k <= steps; ++k) {
            const double x = 1.2 * swing * std::sin(phase + 2 * M_PI * 1.3 * t * k / steps);
            low = std::min(low, x), high = std::max(high, x);
        }
        const bool still = m * (high - low) <= limit;
        // The calm and the gusts are the same for both ways of the swing in nature; the law takes them as two.
        const double other = unit(draw) < 0.3 ? 0.15 : 1;
        const bool at_depth = std::abs(0.8 * other * std::sin(unit(draw) * 2 * M_PI)) <= half;
        const double rate = t * std::hypot(3 * m, 0.02 * plan.at.focal_length * (1 + m)) / std::sqrt(2.0);
        const bool steady = std::hypot(rate * gauss(draw), rate * gauss(draw)) <= limit;
        const bool placed = std::abs(0.6 * gauss(draw)) <= half;
        sharp += still && at_depth && steady && placed;
        across += still && steady;
    }
    CHECK_THAT(report.chance->reckoned, WithinAbs(sharp / static_cast<double>(frames), 0.005));
    CHECK_THAT(report.motion.sharp_share, WithinAbs(across / static_cast<double>(frames), 0.005));
    CHECK(report.chance->chance == report.chance->reckoned);
    CHECK(report.chance->tries == optics::tries_for(report.chance->chance));
}

TEST_CASE("a shorter time, a calmer air, a steadier hold each help, without a hand there is no hand's share",
          "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 2;
    shot.rig.support = shoot::Support::hand;
    shot.exposure.shutter = 1.0 / 60;
    const double before = chance_of(shoot)->chance;
    auto other = shoot;
    other.shots[0].exposure.shutter /= 4;
    CHECK(chance_of(other)->chance > before);
    other = shoot;
    other.shots[0].tries = shoot::Tries{.calm = 0.5};
    CHECK(chance_of(other)->chance > before);
    other = shoot;
    other.shots[0].tries = shoot::Tries{.hands = shoot::Hands{.shift = 0.5, .turn = 0.005, .along = 0.5}};
    CHECK(chance_of(other)->chance > before);
    other = shoot;
    other.shots[0].rig.support = shoot::Support::sturdy_head;
    CHECK(share_of(*chance_of(other), ChanceCause::hands) == -1);
    // Half of the swing goes through focus where nobody said.
    other.shots[0].subject.sway_depth = 1;
    const auto stated = chance_of(other);
    other.shots[0].subject.sway_depth.reset();
    CHECK(chance_of(other)->chance == stated->chance);
    other.shots[0].subject.sway_depth = 0;
    CHECK(share_of(*chance_of(other), ChanceCause::wind_through) == -1);
}

TEST_CASE("what moves is sharp while it holds still, and while it goes as often as its speed is spread",
          "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure.shutter = 1.0 / 60;
    shot.subject.speed = 200;
    CHECK(share_of(*chance_of(shoot), ChanceCause::moving) < 1e-4);
    shot.tries = shoot::Tries{.still = 0.4};
    CHECK_THAT(chance_of(shoot)->chance, WithinAbs(0.4, 1e-4));
    // At the limit the faster half of its movements shows: drawn, two ways across alike.
    const auto report = plan::assess(shoot.kit, shot, {});
    shot.subject.speed *= report.sharpness.blur_limit / report.motion.blur;
    std::mt19937 draw(5);
    std::normal_distribution<double> each(0, 1 / std::sqrt(2.0));
    std::bernoulli_distribution rests(0.4);
    int sharp = 0;
    constexpr int frames = 100000;
    for (int i = 0; i < frames; ++i) sharp += rests(draw) || std::hypot(each(draw), each(draw)) <= 1;
    CHECK_THAT(chance_of(shoot)->chance, WithinAbs(sharp / double(frames), 0.005));
    shot.subject.speed /= 100;
    CHECK_FALSE(chance_of(shoot));
    // Where nobody said an animal pauses, the less the faster it is (common practice); a drop never does.
    shot.tries.reset();
    shot.subject.speed = 5;
    CHECK(shoot::still_of(shot) == 0);
    shot.subject.traits = {"living"};
    CHECK_THAT(shoot::still_of(shot), same(0.15));
    shot.subject.speed = 0;
    CHECK_THAT(shoot::still_of(shot), same(0.3));
    shot.tries = shoot::Tries{.still = 0};
    CHECK(shoot::still_of(shot) == 0);
}

TEST_CASE("braced as usual hands shake as usual, and less where they sway less", "[plan][chance]") {
    const auto usual = shoot::HandHeld();
    const auto as_usual = plan::hands_braced({.id = "", .name = "", .speed = usual.speed, .range = usual.range});
    CHECK(as_usual.shift == plan::HandShake::shifting);
    CHECK(as_usual.turn == plan::HandShake::turning);
    const auto half = plan::hands_braced({.id = "", .name = "", .speed = usual.speed / 2, .range = usual.range / 4});
    CHECK_THAT(half.shift, same(plan::HandShake::shifting / 2));
    CHECK_THAT(half.along, same(as_usual.along / 4));
    // Who aims is off by a millimetre to and fro (common practice).
    CHECK_THAT(as_usual.along, same(1.0));
}

TEST_CASE("a stack needs all of its frames", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = shoot::CaptureMode::stack;
    shot.subject.depth = 3;
    shot.subject.sway_amplitude = 0.02;
    shot.exposure.shutter = 1.0 / 100;
    const auto chance = chance_of(shoot);
    REQUIRE(chance);
    REQUIRE(chance->frames > 1);
    // What makes one frame fail makes its neighbours fail; and it must not have swung away by the last.
    const double stays = share_of(*chance, ChanceCause::moves_on);
    CHECK(stays > 0);
    CHECK(stays < 1);
    CHECK_THAT(chance->chance, same(std::pow(chance->reckoned, std::sqrt(chance->frames)) * stays));
    auto shorter = shoot;
    shorter.shots[0].subject.sway_amplitude = 0.005;
    CHECK(share_of(*chance_of(shorter), ChanceCause::moves_on) > stays);
}

TEST_CASE("an animal is still there for the last frame by its pauses, or by how far it walks meanwhile",
          "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = shoot::CaptureMode::stack;
    shot.subject.depth = 3;
    shot.subject.traits = {"living"};
    shot.subject.speed = 0.02;
    shot.tries = shoot::Tries{.still = 0.6};
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    REQUIRE(report.capture.frames > 1);
    const double run = report.capture.cost.cadence.frame * (report.capture.frames - 1);
    REQUIRE(run > 4);  // so long that a pause of 8 s counts
    // MODEL: q exp(-T/8 s) + (1 - q)/(1 + (w T/d)^2), d three limits at the subject.
    const double d = 3 * report.sharpness.blur_limit / plan.at.magnification;
    const double wanted = 0.6 * std::exp(-run / 8) + 0.4 / (1 + std::pow(0.02 * run / d, 2));
    CHECK_THAT(share_of(*report.chance, ChanceCause::moves_on), same(wanted));
}

TEST_CASE("from ten tries on the count stands for what was reckoned", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 2;
    shot.exposure.shutter = 1.0 / 60;
    shot.tries = shoot::Tries{.kept = 1, .tried = 9};
    auto chance = chance_of(shoot);
    CHECK(chance->counted);
    CHECK(chance->chance == chance->reckoned);
    shot.tries->tried = 10;
    chance = chance_of(shoot);
    CHECK(chance->chance == 0.1);
    CHECK(chance->tries == optics::tries_for(0.1));
    // Fifty tries in twenty minutes by night, then give up (common practice).
    shot.tries->seconds = 24;
    shoot.terms.limits.minutes = 20;
    chance = chance_of(shoot);
    CHECK(chance->stop_after == 50);
    CHECK_THAT(chance->by_then, same(1 - std::pow(0.9, 50)));
    // Counted alone is enough to be told of.
    shot.subject.sway_amplitude = 0;
    CHECK(chance_of(shoot));
}

TEST_CASE("throws: the trigger, the depth and the frame each take their share", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.freeze = shoot::Freeze{.drop = 200, .lag = 0.02, .scatter = 4};
    shot.tries = shoot::Tries{.trigger_fires = 0.8, .lands_aside = 9};
    const auto report = plan::assess(shoot.kit, shot, {});
    const auto& chance = *report.chance;
    CHECK(share_of(chance, ChanceCause::trigger) == 0.8);
    CHECK(share_of(chance, ChanceCause::landing) == *report.freeze->landing_inside);
    CHECK_THAT(share_of(chance, ChanceCause::landing_aside),
               same(std::erf(*report.optics.field_width / 2 / 9 / std::sqrt(2.0))));
    CHECK_THAT(chance.reckoned,
               same(0.8 * *report.freeze->landing_inside * share_of(chance, ChanceCause::landing_aside) *
                    share_of(chance, ChanceCause::flash)));
    // A beam that leaves trigger and camera no time shows an empty frame.
    shot.freeze->lag = 0.06;
    CHECK(share_of(*plan::assess(shoot.kit, shot, {}).chance, ChanceCause::landing_aside) == 0);
    shot.freeze->lag = 0.02;
    // By eye, what is fast is in the frame for less time than people are off by.
    shot.freeze->trigger = shoot::Trigger::hand;
    const double by_eye = share_of(*plan::assess(shoot.kit, shot, {}).chance, ChanceCause::trigger);
    // It passes half the height of the field in so long; people are off by 30 ms (common practice).
    constexpr double gravity = 9806.65, off_by = 0.03;  // mm/s2, s
    const double passes = *report.optics.field_height / 2 / std::sqrt(2 * gravity * shot.freeze->drop);
    CHECK_THAT(by_eye, WithinRel(0.8 * std::erf(passes / off_by / std::sqrt(2.0)), 1e-3));
    shot.freeze->drop = 20;
    CHECK(share_of(*plan::assess(shoot.kit, shot, {}).chance, ChanceCause::trigger) > by_eye);
}

TEST_CASE("an animal that does not stay is visited as often as it takes", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.speed = 300;
    shot.tries = shoot::Tries{.still = 0.25, .stays = 20, .seconds = 2};
    auto chance = *chance_of(shoot);
    CHECK(chance.tries_a_visit == 10);
    CHECK(*chance.visits == std::ceil(chance.tries / 10));
    // Each frame drives it off once of five: followed visit by visit.
    shot.tries->flees = 0.2;
    std::mt19937 draw(2);
    std::bernoulli_distribution off(0.2);
    double frames = 0;
    constexpr int visits = 40000;
    for (int i = 0; i < visits; ++i)
        for (int k = 0; k < 10; ++k) {
            ++frames;
            if (off(draw)) break;
        }
    CHECK_THAT(*chance_of(shoot)->tries_a_visit, WithinAbs(frames / visits, 0.05));
    shot.tries->stays.reset();
    CHECK_THAT(*chance_of(shoot)->tries_a_visit, same(5.0));
}

TEST_CASE("at a perch it settles about the place that is focused on", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.traits = {"living"};
    shot.tries = shoot::Tries{.perch = shoot::Perch{.scatter = 3, .aside = 12, .comes_every = 45}};
    const auto report = plan::assess(shoot.kit, shot, {});
    const auto& chance = *report.chance;
    std::mt19937 draw(6);
    std::normal_distribution<double> gauss;
    int inside = 0;
    constexpr int visits = 100000;
    for (int i = 0; i < visits; ++i) {
        const double z = 3 * gauss(draw), x = 12 * gauss(draw), y = 12 * gauss(draw);
        inside += z > -*report.sharpness.near && z < *report.sharpness.far &&
                  std::abs(x) < *report.optics.field_width / 2 && std::abs(y) < *report.optics.field_height / 2;
    }
    CHECK_THAT(chance.chance, WithinAbs(inside / double(visits), 0.005));
    CHECK(chance.seconds_a_try == 45);
    CHECK_FALSE(chance.visits);
}

TEST_CASE("clearing up counts to each try", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.freeze = shoot::Freeze{.act = shoot::Act::sinks, .drop = 60, .speed = 30, .lag = 0.1};
    shot.tries = shoot::Tries{.rinse = 240};
    const double with = chance_of(shoot)->seconds_a_try;
    shot.tries->rinse = 0;
    CHECK(with == chance_of(shoot)->seconds_a_try + 240);
}

TEST_CASE("tries empty the flash as well as the camera", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1;
    shot.exposure.shutter = 1.0 / 125;
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.25;
    shot.freeze = shoot::Freeze{.drop = 200, .wanted_blur = 900, .lag = 0.02, .scatter = 6};
    shoot.kit.flashes[0].charge.reset();
    CHECK_FALSE(chance_of(shoot)->flash_charge_share);
    shoot.kit.flashes[0].charge = 120;
    const auto chance = *chance_of(shoot);
    REQUIRE(chance.flash_charge_share);
    CHECK_THAT(*chance.flash_charge_share, same(chance.tries * 0.25 / 120));
}
