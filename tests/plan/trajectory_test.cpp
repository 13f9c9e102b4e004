// Where on its path the light meets what is thrown.
#include "plan/motion/trajectory.hpp"

#include "advice/advice.hpp"
#include "light/fall.hpp"
#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "plan/motion/frame_draws.hpp"
#include "plan/motion/freeze.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::plan;
using shoot::Act;
using shoot::Freeze;
using shoot::Moment;
using test::same;
using test::WithinAbs;

namespace {

Freeze tossed() { return {.act = Act::thrown, .drop = -100, .speed = 2000, .angle = 60, .beam_rise = 20, .lag = 0.02}; }

shoot::Shoot throwing(const Freeze& freeze) {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    shot.freeze = freeze;
    shot.subject.speed = std::round(speed_of(freeze));
    return shoot;
}

}  // namespace

TEST_CASE("set to the delay, the light meets it where it is wanted, a thrown thing passes it twice", "[plan][toss]") {
    test::Random random(41);
    for (int i = 0; i < 200; ++i) {
        auto freeze = tossed();
        freeze.angle = random.between(20, 160);
        freeze.drop = -random.between(0.2, 0.9) * light::top_height({.speed = 2000, .angle = *freeze.angle});
        freeze.beam_rise = -freeze.drop * random.between(0, 0.9);
        freeze.lag = 0;
        for (const auto moment : {Moment::place, Moment::top, Moment::coming_down}) {
            freeze.moment = moment;
            const auto path = trajectory_of(freeze);
            REQUIRE(path);
            const auto delay = trigger_delay(freeze);
            REQUIRE(delay);
            REQUIRE(*delay >= 0);
            // Followed by hand: from the beam on, as long as the delay says.
            const auto at = light::point_at(path->toss, *path->beam_after + *delay);
            CHECK_THAT(at.x, WithinAbs(path->place.x, 1e-6));
            CHECK_THAT(at.y, WithinAbs(path->place.y, 1e-6));
            if (moment == Moment::top)
                CHECK_THAT(path->place.up, WithinAbs(0, 1e-6));
            else
                CHECK_THAT(path->place.y, WithinAbs(-freeze.drop, 1e-6));
            if (moment == Moment::coming_down) CHECK(path->place.up < 0);
            if (moment == Moment::place) CHECK(path->place.up > 0);
            CHECK_THAT(speed_of(freeze), same(path->place.speed()));
        }
    }
}

TEST_CASE("without a delay the light comes a lag after the beam, and it is said where it is then", "[plan][toss]") {
    auto freeze = tossed();
    freeze.moment = Moment::top;
    freeze.undelayed = true;
    const auto path = *trajectory_of(freeze);
    CHECK_THAT(path.lit_after, same(*path.beam_after + 0.02));
    const auto shoot = throwing(freeze);
    const auto report = assess(shoot.kit, shoot.shots[0], {});
    REQUIRE(report.freeze->path);
    CHECK_THAT(report.freeze->path->off_y, WithinAbs(path.lit.y - light::top_height(path.toss), 1e-9));
    CHECK_THAT(report.freeze->path->top, WithinAbs(153.0, 0.05));
    CHECK(report.freeze->delay == 0);
}

TEST_CASE("a beam near the place does without a delay", "[plan][toss]") {
    auto freeze = tossed();
    freeze.moment = Moment::top;
    freeze.undelayed = true;
    freeze.lag = 0.02;
    freeze.beam_rise = light::top_height({.speed = 2000, .angle = 60}) - 2;
    const auto path = *trajectory_of(freeze);
    CHECK(std::hypot(path.lit.x - path.place.x, path.lit.y - path.place.y) < 5);
}

TEST_CASE("a beam that comes too late is said, and the remedy leaves time", "[plan][toss]") {
    auto freeze = tossed();
    freeze.beam_rise = 95;
    freeze.lag = 0.03;
    auto shoot = throwing(freeze);
    const auto notes = advice::advise(plan_of(shoot.kit, shoot.shots[0], {}), assess(shoot.kit, shoot.shots[0], {}));
    const auto late = std::ranges::find(notes.notes, "trigger-late", &advice::Note::code);
    REQUIRE(late != notes.notes.end());
    REQUIRE(late->remedy);
    CHECK(*trigger_delay(*late->remedy->shot.freeze) >= 0);
    CHECK(*trigger_delay(*late->remedy->shot.freeze) < 0.002);
}

TEST_CASE("thrown too slowly it never comes to the place, the remedy does", "[plan][toss]") {
    auto freeze = tossed();
    freeze.drop = -400;
    CHECK_FALSE(trajectory_of(freeze));
    auto shoot = throwing(freeze);
    const auto notes = advice::advise(plan_of(shoot.kit, shoot.shots[0], {}), assess(shoot.kit, shoot.shots[0], {}));
    const auto found = std::ranges::find(notes.notes, "throw-short", &advice::Note::code);
    REQUIRE(found != notes.notes.end());
    CHECK(found->level == advice::Level::stop);
    CHECK(trajectory_of(*found->remedy->shot.freeze));
}

TEST_CASE("the nearer the top, the more of its path a flash holds", "[plan][toss]") {
    auto freeze = tossed();
    freeze.angle = 90;
    freeze.moment = Moment::top;
    auto shoot = throwing(freeze);
    auto& shot = shoot.shots[0];
    shot.lights[0].power = 1;
    const auto all = [&](double wanted) {
        shot.freeze->wanted_blur = wanted;
        return assess(shoot.kit, shot, {}).freeze->path->freezes;
    };
    CHECK(all(1000) == 1);
    const double some = all(5), more = all(10);
    CHECK(some > 0);
    CHECK(more > some);
    // At the top of a straight throw it stands: the speed that blurs by so much is reached after v / g.
    const auto report = assess(shoot.kit, shot, {});
    const double speed = 10 * 0.004 / (report.optics.magnification * report.motion.exposure_time);
    const double high = *report.optics.field_height / 2;
    CHECK_THAT(more, WithinAbs(speed / light::gravity / light::fall_time(high), 0.02));
}

TEST_CASE("what is thrown is in the frame as often as drawn throws are", "[plan][toss][chance]") {
    auto freeze = tossed();
    freeze.scatter = 12;
    freeze.pieces = 5;
    freeze.spread = 6;
    auto shoot = throwing(freeze);
    shoot.shots[0].tries = shoot::Tries{.trigger_fires = 0.9, .false_fires = 0.2, .lands_aside = 15};
    const auto report = assess(shoot.kit, shoot.shots[0], {});
    const auto& causes = report.chance->causes;
    const auto share = [&](ChanceCause cause) { return std::ranges::find(causes, cause, &CauseOdds::cause)->share; };
    CHECK_THAT(share(ChanceCause::trigger), same(0.9 * 0.8));
    CHECK_THAT(share(ChanceCause::pattern), same(1 / std::sqrt(5)));  // nobody steers how five fly together
    const double w = *report.optics.field_width / 2, h = *report.optics.field_height / 2;
    test::Random random(5);
    const auto gauss = [&] {
        double sum = -6;
        for (int k = 0; k < 12; ++k) sum += random.between(0, 1);
        return sum;  // of twelve, near enough to Gauss for a per cent
    };
    int inside = 0, pieces = 0;
    constexpr int throws = 40000;
    for (int i = 0; i < throws; ++i) {
        inside += std::abs(15 * gauss()) < w && std::abs(15 * gauss()) < h;
        const double z = std::hypot(6, 12) * gauss();
        pieces += std::abs(6 * gauss()) < w && std::abs(6 * gauss()) < h && z > -*report.sharpness.near &&
                  z < *report.sharpness.far;
    }
    CHECK_THAT(share(ChanceCause::landing_aside), WithinAbs(inside / double(throws), 0.01));
    CHECK_THAT(report.freeze->path->inside, WithinAbs(pieces / double(throws), 0.01));
    CHECK_THAT(report.freeze->path->catcher_width, same(4 * std::hypot(15, 6) + report.extent.width));
}

TEST_CASE("dye sinks evenly, and the beam leaves it its time", "[plan][toss]") {
    Freeze freeze{.act = Act::sinks, .drop = 90, .speed = 30, .beam_above = 45, .lag = 0.1};
    const auto path = trajectory_of(freeze);
    REQUIRE(path);
    CHECK_THAT(path->wanted_after, same(3.0));
    CHECK_THAT(*path->beam_after, same(1.5));
    CHECK_THAT(*trigger_delay(freeze), same(1.4));
    CHECK_THAT(path->place.y, same(-90.0));
    CHECK(speed_of(freeze) == 30);
    CHECK_THAT(least_beam(freeze), same(3.0));  // what it sinks in a tenth of a second
    freeze.beam_above = 2;
    CHECK(*trigger_delay(freeze) < 0);
    // It stands still: it never comes.
    freeze.speed = 0;
    CHECK_FALSE(trajectory_of(freeze));
    auto shoot = throwing(freeze);
    CHECK_FALSE(assess(shoot.kit, shoot.shots[0], {}).freeze->path);
}

TEST_CASE("the delay after the beam brings the light when the drop is there", "[plan][toss]") {
    test::Random random(22);
    for (int i = 0; i < 200; ++i) {
        Freeze freeze{
            .drop = random.between(100, 1200), .beam_above = random.between(1, 90), .lag = random.between(0, 0.05)};
        const double broken = light::fall_time(freeze.drop - freeze.beam_above);
        CHECK_THAT(light::fallen(broken + *trigger_delay(freeze) + freeze.lag), WithinAbs(freeze.drop, 1e-6));
        freeze.beam_above = least_beam(freeze);
        CHECK_THAT(*trigger_delay(freeze), WithinAbs(0, 1e-9));
    }
    CHECK(*trigger_delay({.drop = 300, .beam_above = 5, .lag = 0.06}) < 0);
    // Slower than the whole fall: not even from the start.
    CHECK_THAT(least_beam({.drop = 10, .beam_above = 5, .lag = 0.1}), same(10.0));
}

TEST_CASE("what never comes to the place, or to the beam, gives no frame", "[plan][toss][chance]") {
    auto freeze = tossed();
    freeze.drop = -400;
    auto shoot = throwing(freeze);
    auto& shot = shoot.shots[0];
    CHECK(assess(shoot.kit, shot, {}).chance->chance == 0);
    shot.freeze->drop = -100;
    CHECK(assess(shoot.kit, shot, {}).chance->reckoned > 0);
    shot.freeze->beam_rise = 300;
    CHECK(assess(shoot.kit, shot, {}).chance->chance == 0);
    FrameDraws draws(plan_of(shoot.kit, shot, {}), assess(shoot.kit, shot, {}), 3);
    for (int i = 0; i < 20; ++i) CHECK_FALSE(draws.draw().sharp);
}
