// A slow thing taken again and again: arithmetic of MODEL 10.
#include "plan/motion/lapse.hpp"

#include "plan/assess.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using test::same;

namespace {

plan::LapseReport lapse(const shoot::Shoot& shoot) {
    const auto& shot = shoot.shots[0];
    return plan::lapse_of(plan::plan_of(shoot.kit, shot, {}), plan::assess(shoot.kit, shot, {}));
}

}  // namespace

TEST_CASE("frames, seconds shown, data and batteries of a time-lapse are arithmetic", "[plan][lapse]") {
    auto shoot = test::plain_shoot();
    shoot.kit.cameras[0].charge = 500, shoot.kit.cameras[0].write_speed = 60;
    auto& shot = shoot.shots[0];
    shot.exposure.shutter = 0.5;
    // A bud over two days, a frame every two minutes.
    shot.lapse = shoot::Lapse{.length = 48 * 3600, .interval = 120, .frames_per_second = 24};
    auto report = lapse(shoot);
    CHECK_THAT(report.moments, same(1440));
    CHECK_THAT(report.shown, same(60));
    CHECK_THAT(report.data_mb, same(1440 * 30));
    CHECK_THAT(report.charges, same(2.88));
    CHECK_THAT(report.least_interval, same(0.5 + 30.0 / 60));  // exposure and writing
    CHECK_FALSE(report.holds);
    // Grows 0.6 mm an hour at half size before a sensor of 24 mm: 0.02 mm each time.
    shot.lapse->growth = 0.6;
    report = lapse(shoot);
    CHECK_THAT(report.shift, same(0.6 / 30 * 0.5));
    CHECK_THAT(report.shift_share, same(0.01 / 24));
    // Light by half a stop an hour: a sixtieth of a stop each time.
    shot.lapse->drift = 0.5;
    report = lapse(shoot);
    CHECK_THAT(report.drift_each, same(0.5 / 30));
    CHECK_THAT(report.drift_all, same(24));
    // Nearer by a millimetre an hour: out of focus when half of what a frame holds is through.
    shot.lapse->growth_depth = 1;
    report = lapse(shoot);
    REQUIRE(report.holds);
    const auto depth = *plan::assess(shoot.kit, std::as_const(shoot.shots)[0], {}).capture.frame_depth;
    CHECK_THAT(*report.holds, same(depth / 2 * 3600));
    CHECK_THAT(report.through, same(48));
    // A stack that begins that much before it holds it to the end.
    shot.capture.mode = shoot::CaptureMode::stack, shot.capture.lead = 48;
    CHECK_FALSE(lapse(shoot).holds);
    CHECK(lapse(shoot).exposures > 1440 * 2);
    // Flashes are charged before the next time.
    shot.capture = {};
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 1;
    CHECK_THAT(lapse(shoot).least_interval, same(0.5 + 0.5 + 4));
    // Lamps that rest burn while a frame is taken, else all the time.
    shot.lights = {{.lamp = "panel", .position = {.distance = 500}, .power = 1}};
    CHECK_THAT(lapse(shoot).lamps_on, same(1440 * 2.0 / 3600));
    shot.lapse->lamps_rest = false;
    CHECK_THAT(lapse(shoot).lamps_on, same(48));
}

TEST_CASE("the interval for seconds that are shown gives those seconds back", "[plan][lapse]") {
    test::Random random(2);
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    for (int i = 0; i < 200; ++i) {
        shot.lapse = shoot::Lapse{.length = random.log_between(600, 1e6), .frames_per_second = random.between(10, 60)};
        const double shown = random.between(1, 60);
        shot.lapse->interval = plan::interval_for(*shot.lapse, shown);
        // To the frame: one that is begun is none.
        CHECK_THAT(lapse(shoot).shown, test::WithinAbs(shown, 1 / shot.lapse->frames_per_second));
        CHECK_THAT(plan::length_for(*shot.lapse, shown), test::WithinRel(shot.lapse->length, 1e-9));
    }
}

TEST_CASE("what a shot leaves behind is all of its lapse, else its frames", "[plan][lapse]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    const auto yield = [&] {
        return plan::yield_of(plan::plan_of(shoot.kit, shot, {}), plan::assess(shoot.kit, shot, {}));
    };
    CHECK_THAT(yield().frames, same(1));
    CHECK_THAT(yield().data_mb, same(30));
    CHECK(yield().runs_on == 0);
    shoot.kit.cameras[0].charge = 500;
    shot.lapse = shoot::Lapse{.length = 48 * 3600, .interval = 600};
    CHECK_THAT(yield().frames, same(288));
    CHECK_THAT(yield().data_mb, same(288 * 30));
    CHECK_THAT(*yield().charge_share, same(288.0 / 500));
    CHECK_THAT(yield().runs_on, same(48 * 3600));
}
