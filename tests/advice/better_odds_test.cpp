#include "advice/worth/better_odds.hpp"

#include "plan/assess.hpp"
#include "plan/motion/freeze.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;

namespace {

std::vector<advice::BetterOdds> ways(const shoot::Shoot& shoot) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], shoot.terms);
    return advice::better_odds(plan, plan::assess(plan));
}

const advice::BetterOdds* find(const std::vector<advice::BetterOdds>& all, const char* text) {
    const auto found = std::ranges::find_if(all, [&](const auto& one) { return one.text.starts_with(text); });
    return found == all.end() ? nullptr : &*found;
}

}  // namespace

TEST_CASE("ways to better odds are true of the shot they make, the likeliest first", "[advice][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1.5;
    shot.rig.support = shoot::Support::hand;
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 125, .iso = 200};
    shot.tries = shoot::Tries{.calm = 0.25, .kept = 1, .tried = 20};
    const auto all = ways(shoot);
    REQUIRE(all.size() > 5);
    CHECK(std::ranges::is_sorted(all, std::greater<>(), &advice::BetterOdds::chance));
    for (const auto& one : all) {
        CAPTURE(one.text, one.price);
        auto taken = shoot;
        taken.shots[0] = one.shot;
        const auto plan = plan::plan_of(taken.kit, taken.shots[0], taken.terms);
        const auto chance = plan::assess(plan).chance;
        CHECK((chance ? chance->chance : 1) == one.chance);
        CHECK(one.times >= 1.1);
        CHECK(one.shot.tries.value_or(shoot::Tries()).tried == 0);  // those were counted otherwise
    }
    for (const char* text :
         {"Expose", "Brace it", "Put it on a stand", "Shield it", "Hold or clamp", "Wait for the lulls"})
        CHECK(find(all, text));
    CHECK(find(all, "Hold or clamp")->chance > find(all, "Shield it")->chance);
    // As bright as before, whatever pays for the time.
    for (const auto& one : all)
        if (one.text.starts_with("Expose")) {
            const auto& e = one.shot.exposure;
            const auto light = [](const shoot::Exposure& of) {
                return of.shutter * of.iso / (of.f_number * of.f_number);
            };
            CHECK_THAT(light(e), test::WithinRel(light(shot.exposure), 0.06));  // nominal values
        }
}

TEST_CASE("no way passes the limits, and none is offered where nothing is left to chance", "[advice][chance]") {
    auto shoot = test::plain_shoot();
    CHECK(ways(shoot).empty());
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1.5;
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 125, .iso = 200};
    shoot.terms.limits.iso = 200;
    for (const auto& one : ways(shoot)) CHECK(one.shot.exposure.iso <= 200);
    shoot.terms.limits.iso = 400;
    CHECK(std::ranges::any_of(ways(shoot), [](const auto& one) { return one.shot.exposure.iso == 400; }));
    CHECK_FALSE(find(ways(shoot), "Brace it"));  // it stands on nothing that sways
}

TEST_CASE("no size is offered that the set-up does not reach", "[advice][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1.5;
    shot.exposure.shutter = 1.0 / 60;
    shot.rig.tubes = {"t20"};  // with which infinity is lost
    const auto sizes = [&](double m) {
        shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = m};
        return std::ranges::count_if(ways(shoot), [](const auto& one) { return one.text.starts_with("Smaller"); });
    };
    const auto range = plan::assess(shoot.kit, shot, {}).optics.range;
    REQUIRE(range.least > 0.1);
    CHECK(sizes(range.least * 1.01) == 0);
    CHECK(sizes(range.least / 0.6) == 1);  // seven tenths of it, not half
    CHECK(sizes(range.greatest * 0.99) == 2);
}

TEST_CASE("a throw lands surer from nearer, and a beam is surer than an eye", "[advice][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    shot.exposure.shutter = 0.005;
    shot.freeze = shoot::Freeze{.drop = 300, .wanted_blur = 60, .trigger = shoot::Trigger::hand, .scatter = 12};
    const auto all = ways(shoot);
    REQUIRE(find(all, "Throw from nearer"));
    CHECK(find(all, "Throw from nearer")->shot.freeze->scatter == 6);
    REQUIRE(find(all, "Let a beam"));
}

TEST_CASE("too slow a flash holds nothing, less power that does is offered, and what nothing else helps is not",
          "[advice][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    shot.exposure = {.f_number = 8, .shutter = 0.005, .iso = 100};
    shot.freeze = shoot::Freeze{.drop = 300, .wanted_blur = 3, .beam_above = 200, .lag = 0.05, .scatter = 1};
    shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
    // As much as its least power leaves is wanted; at full power it lights far longer.
    shot.lights[0].power = 1;
    constexpr double pitch = 0.004;
    shot.freeze->wanted_blur = plan::assess(shoot.kit, shot, {}).freeze->rows.back().blur / pitch * 1.1;
    const auto report = plan::assess(shoot.kit, shot, {});
    REQUIRE(report.freeze->brightest_that_freezes);
    REQUIRE(report.chance->hangs_on(plan::ChanceCause::flash));
    CHECK(report.chance->chance < 1e-3);
    shoot.terms.limits.iso = 25600;
    const auto all = ways(shoot);
    const auto* less = find(all, "Less power");
    REQUIRE(less);
    CHECK(less->chance > 0.1);
    const auto after = plan::assess(shoot.kit, less->shot, {});
    for (const auto& cause : after.chance->causes)
        if (cause.cause == plan::ChanceCause::flash) CHECK(cause.share > 0.85);
    CHECK_FALSE(find(all, "Throw from nearer"));  // which alone shows a streak all the same
}

TEST_CASE("what swings is held by a flash that makes the exposure", "[advice][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 2;
    shot.subject.sway_depth = 0;
    shot.ambient = shoot::Ambient{.ev100 = 11};
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 60, .iso = 400};
    const auto all = ways(shoot);
    const auto* lit = find(all, "Light it by flash");
    REQUIRE(lit);
    const auto report = plan::assess(plan::plan_of(shoot.kit, lit->shot, {}));
    CHECK(report.motion.frozen_by_flash);
    CHECK(lit->chance > 0.9);
    CHECK(lit->shot.exposure.iso <= 400);
}
