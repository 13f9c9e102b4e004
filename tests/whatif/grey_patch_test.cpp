// The loop of planning, a frame, one change and what is learned.
#include "whatif/grey_patch.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "whatif/background_look.hpp"
#include "whatif/flash_balance.hpp"

#include <cmath>

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;
using test::WithinAbs;

namespace {

Shoot lit_shoot() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure.shutter = 0.005;
    shot.lights = {test::plain_light()};
    shot.lights[0].modifier = "box";
    return shoot;
}

double total(const Kit& kit, const Shot& shot) { return *assess(kit, shot, {}).light.front_total; }

}  // namespace

TEST_CASE("a grey card at 18 % of full scale is correct, at 36 % a stop too bright", "[shoot][test-frame]") {
    CHECK_THAT(whatif::stops_from_correct({.mean = 0.18}, 0.18).value(), same(0));
    CHECK_THAT(whatif::stops_from_correct({.mean = 0.36}, 0.18).value(), same(1));
    CHECK_THAT(whatif::stops_from_correct({.mean = 0.45}, 0.9).value(), same(-1));
    CHECK_FALSE(whatif::stops_from_correct({.mean = 0}, 0.18));
}

TEST_CASE("each lever mends a frame that was off, as far as its marks go", "[shoot][test-frame]") {
    // The mend is checked by evaluating the changed shot: what it gives against the dialled plan makes up for the
    // frame.
    test::Random random(41);
    int mended = 0;
    for (int i = 0; i < 200; ++i) {
        auto shoot = lit_shoot();
        auto& shot = shoot.shots[0];
        if (random.coin()) shot.ambient = Ambient{.ev100 = random.between(2, 6)};
        shot.lights[0].position.distance = random.between(200, 900);
        const double off = random.between(-1.5, 1.5);
        const double before = *whatif::predicted_stops(plan::plan_of(shoot.kit, shot, {}));
        for (const whatif::Fix& fix : whatif::fixes(plan::plan_of(shoot.kit, shot, {}), off)) {
            if (!fix.left_over) continue;
            CHECK_THAT(*fix.left_over, WithinAbs(off + total(shoot.kit, fix.shot) - before, 1e-9));
            const auto source = assess(shoot.kit, fix.shot, {}).light.sources[0];
            const bool at_end = fix.lever == Lever::power && (source.power > 0.99 || source.power < 1 / 127.0);
            if (at_end) continue;
            CHECK(std::abs(*fix.left_over) < 0.26);  // half of a third, and what nominal marks lie beside theirs
            ++mended;
        }
    }
    CHECK(mended > 600);
}

TEST_CASE("the preferred lever comes first", "[shoot][test-frame]") {
    auto shoot = lit_shoot();
    for (const Lever lever : {Lever::power, Lever::distance, Lever::stop, Lever::iso}) {
        shoot.shots[0].exposure.lever = lever;
        const auto all = whatif::fixes(plan::plan_of(shoot.kit, shoot.shots[0], {}), 1);
        REQUIRE(all.size() == 4);
        CHECK(all[0].lever == lever);
    }
}

TEST_CASE("a lever that cannot do it says so", "[shoot][test-frame]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = Ambient{.ev100 = 9};
    for (const whatif::Fix& fix : whatif::fixes(plan::plan_of(shoot.kit, shot, {}), 1)) {
        const bool flash_lever = fix.lever == Lever::power || fix.lever == Lever::distance;
        CHECK(fix.left_over.has_value() == !flash_lever);
        CHECK_FALSE(fix.label.empty());
    }
}

TEST_CASE("the loop of frame and lesson brings plan and flash together", "[shoot][test-frame]") {
    // A flash that truly gives `truth` stops more than its record. Each frame is taken as the plan then says, the
    // difference learned; the plan ends on the truth whatever other light there is.
    test::Random random(42);
    for (int run = 0; run < 30; ++run) {
        auto shoot = lit_shoot();
        const double truth = random.between(-1.3, 1.3);
        if (random.coin()) shoot.shots[0].ambient = Ambient{.ev100 = random.between(2, 5)};
        const whatif::KeptIn kept_in = random.coin() ? whatif::KeptIn::unit : whatif::KeptIn::modifier;
        const double noise = 0.15;
        double sum = 0;
        constexpr int frames = 12;
        for (int i = 0; i < frames; ++i) {
            Shot dialled = shoot.shots[0];
            const auto plan = assess(shoot.kit, dialled, {}).light;
            dialled.lights[0].power = plan.sources[0].suggested_power;
            // What the world does: the record's own number and the truth.
            Kit real = shoot.kit;
            const double error = random.between(-noise, noise);
            real.flashes[0].corrections = {{.stops = truth + error}};
            real.modifiers[0].corrections.clear();
            sum += error;
            const whatif::Lesson lesson{.kept_in = kept_in, .frame_stops = total(real, dialled), .time = "t"};
            REQUIRE(whatif::learned(plan::plan_of(shoot.kit, shoot.shots[0], {}), lesson));
            shoot.kit = whatif::taught(plan::plan_of(shoot.kit, shoot.shots[0], {}), lesson);
        }
        const auto source = assess(shoot.kit, shoot.shots[0], {}).light.sources[0];
        const auto& learned_now = kept_in == whatif::KeptIn::unit ? source.calibration : source.modifier_calibration;
        CHECK(learned_now.count == frames);
        CHECK_THAT(learned_now.stops, WithinAbs(truth + sum / frames, 1e-9));
        CHECK(learned_now.spread);
        const Kit plain = whatif::untaught(shoot.kit, shoot.shots[0], {.kept_in = kept_in});
        CHECK(assess(plain, shoot.shots[0], {}).light.sources[0].calibration.count == 0);
    }
}

TEST_CASE("a shoot that wants it a stop brighter is set, mended and learned from so", "[shoot][test-frame]") {
    auto shoot = lit_shoot();
    shoot::Terms brighter;
    brighter.wishes.brighter = 1;
    const auto plan = plan_of(shoot.kit, std::as_const(shoot).shots[0], brighter);
    const auto plain = plan_of(shoot.kit, std::as_const(shoot).shots[0], {});
    constexpr double marks = 0.2;  // stops that the dial of the flash is off by
    CHECK_THAT(*whatif::predicted_stops(plain), WithinAbs(0, marks));
    CHECK_THAT(*whatif::predicted_stops(plan), WithinAbs(1, marks));
    CHECK_THAT(*whatif::predicted_stops(plan) - *whatif::predicted_stops(plain), WithinAbs(1, marks));
    // A frame as bright as was asked for teaches nothing of the flash.
    CHECK_THAT(*whatif::learned(plan, {.frame_stops = *whatif::predicted_stops(plan)}), WithinAbs(0, 1e-9));
    CHECK_THAT(*whatif::learned(plain, {.frame_stops = *whatif::predicted_stops(plan)}), WithinAbs(1, 2 * marks));
}

TEST_CASE("what a metered frame or another light would explain is not learned", "[shoot][test-frame]") {
    auto shoot = lit_shoot();
    auto& shot = shoot.shots[0];
    CHECK_FALSE(whatif::learned(plan::plan_of(shoot.kit, shot, {}), {.light = 3}));
    shot.lights[0].modifier.reset();
    CHECK_FALSE(whatif::learned(plan::plan_of(shoot.kit, shot, {}), {.kept_in = whatif::KeptIn::modifier}));
    shot.lights[0].metered = 0;
    CHECK(whatif::learned(plan::plan_of(shoot.kit, shot, {}), {}));  // of the unit's meter
    CHECK_FALSE(whatif::learned(plan::plan_of(shoot.kit, shot, {}), {.kept_in = whatif::KeptIn::modifier}));
    shot.lights[0].metered.reset();
    shot.lights[0].power = 0.01;
    shot.ambient = Ambient{.ev100 = 13};
    CHECK_FALSE(whatif::learned(plan::plan_of(shoot.kit, shot, {}), {.frame_stops = -3}));  // the ambient alone is more
    CHECK(whatif::taught(plan::plan_of(shoot.kit, shot, {}), {.frame_stops = -3}) == shoot.kit);
}

TEST_CASE("a lamp is calibrated by what a meter reads of it", "[shoot][test-frame]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {{.lamp = "panel", .position = {.distance = 1000}, .power = 1}, test::plain_light()};
    CHECK_THAT(whatif::reading_of(plan::plan_of(shoot.kit, shot, {}), 0).value(), same(std::log2(2000 / 2.5)));
    CHECK_FALSE(whatif::reading_of(plan::plan_of(shoot.kit, shot, {}), 1));  // a flash
    shoot.kit = whatif::taught_by_reading(plan::plan_of(shoot.kit, shot, {}), 0, 9, "t");
    CHECK_THAT(whatif::reading_of(plan::plan_of(shoot.kit, shot, {}), 0).value(), same(9));
    shoot.kit = whatif::taught_by_reading(plan::plan_of(shoot.kit, shot, {}), 0, 10.5,
                                          "t");  // read anew: the last reading counts
    CHECK_THAT(whatif::reading_of(plan::plan_of(shoot.kit, shot, {}), 0).value(), same(10.5));
    CHECK(shoot.kit.lamps[0].corrections.size() == 1);
    shot.lights[0].power = 0.5;  // dimmed it is a stop darker still
    CHECK_THAT(whatif::reading_of(plan::plan_of(shoot.kit, shot, {}), 0).value(), same(9.5));
}

TEST_CASE("a balance that is proposed is the one that was asked for", "[shoot][balance]") {
    test::Random random(43);
    int at_wall = 0, seen = 0;
    for (int i = 0; i < 300; ++i) {
        auto shoot = lit_shoot();
        auto& shot = shoot.shots[0];
        shot.exposure.shutter = random.log_between(0.005, 0.5);
        shot.ambient = Ambient{.ev100 = random.between(2, 9)};
        shot.lights[0].power = random.log_between(0.02, 0.5);
        const auto now = whatif::balance_of(assess(shoot.kit, shot, {}).light);
        REQUIRE(now);
        const light::Balance wanted{.ambient = now->ambient + random.between(-4, 2), .flash = random.between(-3, 1)};
        const auto proposal = whatif::propose_balance(plan::plan_of(shoot.kit, shot, {}), wanted);
        REQUIRE(proposal);
        ++seen;
        at_wall += proposal->at_wall;
        const auto there = whatif::balance_of(assess(shoot.kit, proposal->shot, {}).light);
        REQUIRE(there);
        CHECK_THAT(there->flash, WithinAbs(wanted.flash, 1e-6));     // power is exact
        CHECK_THAT(there->ambient, WithinAbs(wanted.ambient, 0.5));  // marks of three scales at most
        CHECK_THAT(there->ambient, WithinAbs(proposal->reached.ambient, 1e-9));
        CHECK(proposal->shot.exposure.shutter >= shoot.kit.cameras[0].sync * (1 - 1e-9));
        if (!proposal->at_wall) CHECK(proposal->shot.exposure.f_number == shot.exposure.f_number);
        CHECK_FALSE(proposal->text.empty());
    }
    CHECK(at_wall > 20);
    CHECK(at_wall < seen);
}

TEST_CASE("a sync speed between the marks of the scale is not passed", "[shoot][balance]") {
    auto shoot = lit_shoot();
    shoot.kit.cameras[0].sync = 1 / 180.0;
    shoot.shots[0].exposure.shutter = 0.1;
    shoot.shots[0].ambient = Ambient{.ev100 = 6};
    const auto proposal =
        whatif::propose_balance(plan::plan_of(shoot.kit, shoot.shots[0], {}), {.ambient = -9, .flash = -0.1});
    REQUIRE(proposal);
    CHECK(proposal->shot.exposure.shutter == 1 / 180.0);
}

TEST_CASE("there is no balance of one kind of light", "[shoot][balance]") {
    auto shoot = lit_shoot();
    CHECK_FALSE(whatif::propose_balance(plan::plan_of(shoot.kit, shoot.shots[0], {}), {}));
    shoot.shots[0].ambient = Ambient{};
    CHECK(whatif::propose_balance(plan::plan_of(shoot.kit, shoot.shots[0], {}), {.ambient = -5}));
    shoot.shots[0].lights.clear();
    CHECK_FALSE(whatif::propose_balance(plan::plan_of(shoot.kit, shoot.shots[0], {}), {}));
}

TEST_CASE("every way to a look gets there and leaves the subject as it was", "[shoot][background]") {
    using light::BackgroundLook;
    test::Random random(44);
    int found[4] = {};
    for (int i = 0; i < 60; ++i) {
        auto shoot = lit_shoot();
        auto& shot = shoot.shots[0];
        shot.ambient = Ambient{.ev100 = random.between(0, 7)};
        shot.lights[0].position = {.distance = random.between(150, 800), .azimuth = random.between(-70, 70)};
        shot.background = Background{.distance = random.between(50, 1500), .reflectance = random.between(0.02, 0.9)};
        if (random.coin())  // by hand: the shutter then changes the subject too
            shot.lights[0].power = assess(shoot.kit, shot, {}).light.sources[0].suggested_power;
        shot.ambient->ev100 += 2 * random.between(0, 1);
        for (const auto look :
             {BackgroundLook::black, BackgroundLook::dark, BackgroundLook::grey, BackgroundLook::white})
            for (const auto& way : whatif::ways_to(plan::plan_of(shoot.kit, shot, {}), look)) {
                const auto after = assess(shoot.kit, way.shot, {}).light;
                CHECK(after.background_look == look);
                CHECK_THAT(*after.background, same(way.stops));
                CHECK(std::abs(*after.front_total - total(shoot.kit, shot)) <= 1.0 / 3 + 1e-9);
                CHECK_FALSE(way.label.empty());
                ++found[static_cast<int>(look)];
            }
    }
    for (const int count : found) CHECK(count > 20);
}

TEST_CASE("recipes for black and white stand apart from the subject", "[shoot][background]") {
    using light::BackgroundLook;
    auto shoot = lit_shoot();
    auto& shot = shoot.shots[0];
    shot.lights[0].position = {.distance = 300, .azimuth = -40, .elevation = 40};
    for (const auto look : {BackgroundLook::black, BackgroundLook::white}) {
        const auto set = whatif::set_recipe(plan::plan_of(shoot.kit, shot, {}), look);
        REQUIRE_FALSE(set.label.empty());
        CHECK(assess(shoot.kit, set.shot, {}).light.background_look == look);
        CHECK(set.shot.background->distance >= 2 * shot.subject.width);
    }
    // The light that makes the white card white does not reach the subject.
    const auto white = whatif::set_recipe(plan::plan_of(shoot.kit, shot, {}), BackgroundLook::white);
    REQUIRE(white.shot.lights.size() == 2);
    CHECK_FALSE(assess(shoot.kit, white.shot, {}).light.sources[1].stops);
}
