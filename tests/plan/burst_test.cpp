// Bursts by hand: against following the hand in small steps.
#include "plan/motion/burst.hpp"

#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "plan/stack/stack_plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using plan::BurstLimit;
using test::same;
using test::WithinAbs;

namespace {

shoot::Shoot by_hand() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.support = shoot::Support::hand;
    shot.exposure.shutter = 1.0 / 1000;
    shot.capture.hand = {.frames_per_second = 10, .burst = 1, .speed = 8, .range = 8};
    shot.tries = shoot::Tries{.is = shoot::TryIs::rocking};
    return shoot;
}

plan::Burst burst_of(const shoot::Shoot& shoot) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    return *plan::burst_of(plan, plan::assess(plan));
}

}  // namespace

TEST_CASE("a bracket that is held finds its place as often as one followed by hand", "[plan][chance]") {
    test::Random random(12);
    for (int i = 0; i < 8; ++i) {
        const shoot::HandHeld sway{.speed = random.between(1, 12), .range = random.between(2, 14)};
        const plan::FrameRow bracket{
            .frames = random.whole(2, 30), .step = random.between(0.05, 0.6), .every = random.between(0.02, 0.3)};
        const double depth = random.between(0.2, 1.2);
        int hits = 0;
        constexpr int tries = 4000;
        for (int k = 0; k < tries; ++k) {
            // A hand that bounces between two ends, stepped.
            double at = random.between(-sway.range / 2, sway.range / 2), way = random.coin() ? 1 : -1;
            bool hit = false;
            for (int f = 0; f < bracket.frames && !hit; ++f) {
                hit = std::abs(at + bracket.step * (f - (bracket.frames - 1) / 2.0)) <= depth / 2;
                for (double left = sway.speed * bracket.every; left > 0;) {
                    const double room = way > 0 ? sway.range / 2 - at : at + sway.range / 2;
                    const double go = std::min(left, room);
                    at += way * go, left -= go;
                    if (go >= room) way = -way;
                }
            }
            hits += hit;
        }
        CHECK_THAT(plan::row_odds(sway, bracket, depth), WithinAbs(hits / double(tries), 0.03));
    }
    // It goes past: where it takes no time, its own reach counts.
    CHECK(plan::row_odds({.speed = 0.001, .range = 2}, {.frames = 11, .step = 0.3, .every = 0.1}, 0.4) == 1);
}

TEST_CASE("a burst is as long as its slowest part lets it be", "[plan][chance]") {
    auto shoot = by_hand();
    auto& shot = shoot.shots[0];
    auto burst = burst_of(shoot);
    CHECK(burst.row.frames == 10);
    CHECK(burst.limit == BurstLimit::drive);
    CHECK_THAT(
        burst.in_depth,
        same(plan::sway_odds(shot.capture.hand, *plan::assess(shoot.kit, shot, {}).sharpness.depth_of_field).chance));
    shot.exposure.shutter = 0.25;
    CHECK(burst_of(shoot).limit == BurstLimit::shutter);
    CHECK(burst_of(shoot).row.frames == 4);
    shot.exposure.shutter = 1.0 / 1000;
    // Two frames of buffer, and a card that takes half a second for each.
    shoot.kit.cameras[0].buffer_frames = 3;
    shoot.kit.cameras[0].write_speed = shoot.kit.cameras[0].frame_mb * 2;
    burst = burst_of(shoot);
    CHECK(burst.limit == BurstLimit::buffer);
    CHECK(burst.row.frames < 10);
    shoot.kit.cameras[0].buffer_frames.reset();
    // A flash that has a quarter and gives a sixteenth each: as MODEL 6 has it.
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 1.0 / 16;
    shot.exposure.shutter = 1.0 / 200;
    shoot.kit.flashes[0].recycle_full = 8;
    shoot.kit.flashes[0].burst_store = 0.25;
    burst = burst_of(shoot);
    CHECK(burst.limit == BurstLimit::flash);
    CHECK(burst.row.frames == std::floor((0.25 - 0.0625) / (0.0625 - 0.1 / 8) + 1e-9) + 1);
}

TEST_CASE("a burst is surer than a frame, and costs as many frames", "[plan][chance]") {
    auto shoot = by_hand();
    auto& shot = shoot.shots[0];
    shoot.kit.cameras[0].card_space = 1000;
    const auto with = *plan::assess(shoot.kit, shot, {}).chance;
    shot.tries->is = shoot::TryIs::frame;
    const auto without = *plan::assess(shoot.kit, shot, {}).chance;
    CHECK(with.chance > without.chance);
    CHECK_THAT(*with.card_share / with.tries, same(10 * *without.card_share / without.tries));
    CHECK_FALSE(without.burst);
    shot.rig.support = shoot::Support::sturdy_head;
    shot.tries->is = shoot::TryIs::rocking;
    CHECK_FALSE(plan::burst_of(plan::plan_of(shoot.kit, shot, {}), plan::assess(shoot.kit, shot, {})));
}
