// Frames drawn one by one come out as the chance that is said of them.
#include "plan/motion/frame_draws.hpp"

#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "plan/motion/freeze.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>
#include <set>

using namespace poquito;
using test::WithinAbs;

namespace {

struct Drawn {
    double sharp = 0, reckoned = 1, mean_smear = 0;
};
Drawn draw(const shoot::Shoot& shoot, int frames = 60000) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    const auto report = plan::assess(plan);
    plan::FrameDraws draws(plan, report, 7);
    Drawn drawn{.reckoned = report.chance ? report.chance->reckoned : 1};
    for (int i = 0; i < frames; ++i) {
        const auto draw = draws.draw();
        drawn.sharp += draw.sharp;
        drawn.mean_smear += draw.smear;
    }
    drawn.sharp /= frames, drawn.mean_smear /= frames;
    return drawn;
}

}  // namespace

TEST_CASE("what stands still on a stand is drawn sharp every time", "[plan][chance]") {
    const auto drawn = draw(test::plain_shoot(), 50);
    CHECK(drawn.sharp == 1);
    CHECK(drawn.mean_smear == 0);
}

TEST_CASE("drawn frames are sharp as often as is reckoned, whatever the cause", "[plan][chance]") {
    auto wind = test::plain_shoot();
    wind.shots[0].subject.sway_amplitude = 0.8;
    wind.shots[0].subject.sway_frequency = 1.4;
    wind.shots[0].exposure.shutter = 1.0 / 200;
    wind.shots[0].tries = shoot::Tries{.calm = 0.3};
    auto slow = wind;  // past half a swing, and back
    slow.shots[0].subject.sway_amplitude = 0.02;
    slow.shots[0].exposure.shutter = 0.25;
    auto hand = test::plain_shoot();
    hand.shots[0].rig.support = shoot::Support::hand;
    hand.shots[0].exposure.shutter = 1.0 / 400;
    hand.shots[0].tries = shoot::Tries{.hands = shoot::Hands{.shift = 2, .turn = 0.02, .along = 0.5}};
    auto animal = test::plain_shoot();
    animal.shots[0].subject.speed = 200;
    animal.shots[0].tries = shoot::Tries{.still = 0.35};
    auto thrown = test::plain_shoot();
    thrown.shots[0].lights = {test::plain_light()};
    thrown.shots[0].freeze = shoot::Freeze{.act = shoot::Act::thrown,
                                           .drop = -100,
                                           .speed = 2000,
                                           .angle = 60,
                                           .beam_rise = 20,
                                           .wanted_blur = 200,
                                           .lag = 0.02,
                                           .scatter = 6};
    thrown.shots[0].subject.speed = std::round(plan::speed_of(*thrown.shots[0].freeze));
    thrown.shots[0].tries = shoot::Tries{.trigger_fires = 0.8, .lands_aside = 14};
    for (const auto* shoot : {&wind, &slow, &hand, &animal, &thrown}) {
        const auto drawn = draw(*shoot);
        CHECK(drawn.reckoned < 0.99);
        CHECK(drawn.reckoned > 0.01);
        CHECK_THAT(drawn.sharp, WithinAbs(drawn.reckoned, 0.008));
    }
}

TEST_CASE("bursts are drawn as they are rocked, not by their odds alone", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.support = shoot::Support::hand;
    shot.exposure.shutter = 1.0 / 1000;
    shot.capture.hand = {.frames_per_second = 8, .burst = 0.8, .speed = 9, .range = 10};
    for (const auto is : {shoot::TryIs::rocking, shoot::TryIs::bracket}) {
        shot.tries = shoot::Tries{.is = is, .bracket_frames = 6};
        const auto drawn = draw(shoot);
        CHECK(drawn.reckoned < 0.95);
        CHECK_THAT(drawn.sharp, WithinAbs(drawn.reckoned, 0.012));
        // Those that miss, miss by different amounts.
        plan::FrameDraws draws(plan::plan_of(shoot.kit, shot, {}), plan::assess(shoot.kit, shot, {}), 4);
        std::set<double> missed;
        for (int i = 0; i < 200; ++i)
            if (const auto draw = draws.draw(); !draw.sharp) missed.insert(draw.through);
        CHECK(missed.size() > 20);
    }
}
