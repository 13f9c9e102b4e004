// What any shot can do: each move stays on its dials, keeps its limits, gains what it says; and a wrong exposure can be
// put right by each dial alone and by two together.
#include "advice/worth/moves.hpp"

#include "advice/rules/rules.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::Random;
using test::same;
using test::WithinAbs;

namespace {

Shoot by_day(double ev100) {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.support = Support::sturdy_head;
    shot.rig.focus = {.by = FocusBy::magnification, .value = 0.2};
    shot.subject.depth = 2;
    shot.sharpness.rule = BlurRule::diagonal;
    shot.lights.clear();
    shot.ambient = Ambient{.ev100 = ev100};
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 60, .iso = 400};
    return shoot;
}

std::vector<Move> moves(const Shoot& shoot) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    return moves_of(plan, plan::assess(plan));
}

double off(const Shoot& shoot, const Shot& shot) { return *plan::assess(shoot.kit, shot, {}).light.front_total; }

/// Stops more light than before.
double lighter(const Exposure& then, const Exposure& now) {
    return std::log2(then.shutter / now.shutter) + std::log2(then.iso / now.iso) -
           2 * std::log2(then.f_number / now.f_number);
}

}  // namespace

TEST_CASE("a wrong exposure is put right by each dial alone, and by time and ISO together", "[advice][moves]") {
    for (const double wrong : {-2.0, 2.0}) {
        INFO(wrong);
        auto shoot = by_day(9);
        auto& shot = shoot.shots[0];
        shot.ambient->ev100 += wrong - off(shoot, shot);
        const auto found = moves(shoot);
        const auto offered = [&](bool stop, bool time, bool iso) {
            return std::ranges::any_of(found, [&](const Move& move) {
                const auto &then = move.remedy.shot.exposure, &now = shot.exposure;
                return (then.f_number != now.f_number) == stop && (then.shutter != now.shutter) == time &&
                       (then.iso != now.iso) == iso && std::abs(off(shoot, move.remedy.shot)) < 0.2;
            });
        };
        CHECK(offered(true, false, false));
        CHECK(offered(false, true, false));
        CHECK(offered(false, false, true));
        CHECK(offered(false, true, true));
        CHECK(offered(true, true, false));
    }
}

TEST_CASE("too much flash is brought down by its power as far as that goes, and by the stop for the rest",
          "[advice][moves]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 0.5;
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 1;
    shot.exposure.f_number = shoot.kit.lenses[0].optics.max_aperture;
    // So near that the flash is too much by five stops, of which its power takes four.
    for (auto& distance = shot.lights[0].position.distance; off(shoot, shot) < 5; distance *= 0.9) {
    }
    for (auto& distance = shot.lights[0].position.distance; off(shoot, shot) > 5; distance *= 1.01) {
    }
    const auto found = moves(shoot);
    const auto both = std::ranges::find_if(found, [&](const Move& move) {
        return move.remedy.shot.exposure.f_number != shot.exposure.f_number &&
               move.remedy.shot.lights[0].power != shot.lights[0].power;
    });
    REQUIRE(both != found.end());
    INFO(both->remedy.label);
    CHECK(std::abs(off(shoot, both->remedy.shot)) < 0.2);
}

TEST_CASE("moves stay on the dials, gain what they say, and come best first", "[advice][moves][generated]") {
    for (unsigned number = 0; number < test::generated(200); ++number) {
        Random random(number);
        auto shoot = by_day(random.between(2, 16));
        auto& shot = shoot.shots[0];
        shot.exposure = {.f_number = random.coin() ? 2.8 : 32.0,
                         .shutter = random.coin() ? 30.0 : 1.0 / 8000,
                         .iso = random.coin() ? 100.0 : 102400.0};
        const auto& lens = shoot.kit.lenses[0].optics;
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const double now = worth_of(plan, plan::assess(plan)).worth;
        double last = 1;
        for (const auto& move : moves(shoot)) {
            INFO(number << " " << move.remedy.label);
            const auto& e = move.remedy.shot.exposure;
            CHECK(e.f_number >= lens.max_aperture * 0.999);
            CHECK(e.f_number <= lens.min_aperture * 1.001);
            CHECK(e.shutter <= 30.001);
            CHECK(e.shutter >= 1.0 / 8000 * 0.999);
            CHECK(e.iso >= 99.9);
            CHECK(e.iso <= 102500);
            const auto then = plan::plan_of(shoot.kit, move.remedy.shot, {});
            CHECK_THAT(worth_of(then, plan::assess(then)).worth, same(move.worth.worth));
            CHECK(move.worth.worth >= now + worth_offering - 1e-12);
            CHECK(move.worth.worth <= last);
            last = move.worth.worth;
        }
    }
}

TEST_CASE("a flat thing that stands askew is gone round into its plane", "[advice][moves]") {
    auto shoot = by_day(9);
    auto& shot = shoot.shots[0];
    shot.rig.focus.value = 0.5;
    shot.subject = {.width = 40, .height = 30, .depth = 1, .reflectance = 0.3, .form = Form::slab};
    shot.subject.turn = 18;
    shot.exposure.f_number = 4;
    shot.ambient->ev100 -= off(shoot, shot);
    const auto round = [&] {
        const auto found = moves(shoot);
        return std::ranges::count_if(found, [](const Move& move) { return move.remedy.label.starts_with("Go "); });
    };
    CHECK(round() == 1);
    shot.subject.turn = 40;  // that would be another picture
    CHECK(round() == 0);
    shot.subject.turn = 18;
    shot.capture.slice = Slice{.from = 0, .to = 2};  // it would be another part of it
    CHECK(round() == 0);
}

TEST_CASE("a shorter time is paid for to a third of a stop, more light comes whole or not at all", "[advice][moves]") {
    auto shoot = by_day(9);
    const auto& now = shoot.shots[0].exposure;
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    for (const double stops : {0.34, 1.0, 2.0, 3.5, 5.0}) {
        INFO(stops);
        const auto shorter = shorter_time(plan, stops);
        CHECK_FALSE(shorter.empty());
        for (const auto& way : shorter) {
            const auto& then = way.remedy.shot.exposure;
            CHECK(then.shutter <= now.shutter * std::exp2(-stops) * 1.01);
            CHECK(then.shutter >= now.shutter * std::exp2(-stops - 0.7));
            CHECK_THAT(lighter(then, now), WithinAbs(0, 0.35));
        }
        for (const auto& way : brighter(plan, stops))
            CHECK_THAT(lighter(way.remedy.shot.exposure, now), WithinAbs(stops, 0.35));
    }
    CHECK(std::ranges::any_of(shorter_time(plan, 1), [](const Way& way) { return way.gives_up == Loss::iso; }));
    CHECK(std::ranges::any_of(shorter_time(plan, 1), [](const Way& way) { return way.gives_up == Loss::depth; }));
}

TEST_CASE("a light that gives too little is brought nearer, and so is what it is bounced off", "[advice][moves]") {
    auto shoot = by_day(-8);
    auto& shot = shoot.shots[0];
    shot.ambient.reset();
    shot.lights = {test::plain_light()};
    auto& light = shot.lights[0];
    light.power = 1;
    light.position.distance = 800;
    const auto nearer = [&](const char* words) {
        std::vector<Shot> found;
        for (const auto& move : moves(shoot))
            if (move.remedy.label.find(words) != std::string::npos) found.push_back(move.remedy.shot);
        return found;
    };
    // Two stops short: half the distance gives them.
    shot.exposure.iso *= std::exp2(-2 - off(shoot, shot));
    const auto straight = nearer("from it");
    REQUIRE_FALSE(straight.empty());
    const double gained = off(shoot, straight.front()) - off(shoot, shot);
    CHECK(straight.front().lights[0].position.distance == 400);
    CHECK_THAT(gained, WithinAbs(2, 0.1));
    // By way of a wall both ways are shortened.
    light.bounce = Bounce{.from_lamp = 1200, .reflectance = 0.8, .diameter = 400};
    shot.exposure.iso *= std::exp2(-2 - off(shoot, shot));
    const auto bounced = nearer("Bounce light");
    REQUIRE_FALSE(bounced.empty());
    CHECK(bounced.front().lights[0].bounce->from_lamp < 1200);
    CHECK(bounced.front().lights[0].position.distance < 800);
    CHECK(off(shoot, bounced.front()) > off(shoot, shot) + 0.5);
    // Where the light is another's, or hangs on the lens, it stays.
    light.bounce.reset();
    light.on_lens = true;
    CHECK(nearer("from it").empty());
    light.on_lens = false;
    shot.follows = Follows{.shot = "other", .locks = {Lock::light}};
    CHECK(nearer("from it").empty());
}

TEST_CASE("three stops shorter are paid for by the stop alone where the lens has them", "[advice][moves]") {
    auto shoot = by_day(9);
    auto& shot = shoot.shots[0];
    REQUIRE(shoot.kit.lenses[0].optics.max_aperture == 2.8);
    const auto by_stop_alone = [&](double stops) {
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        return std::ranges::any_of(shorter_time(plan, stops), [&](const Way& way) {
            const auto& then = way.remedy.shot.exposure;
            return then.f_number < shot.exposure.f_number && then.iso == shot.exposure.iso;
        });
    };
    CHECK(by_stop_alone(1));
    CHECK(by_stop_alone(2.9));
    CHECK_FALSE(by_stop_alone(4));
}
