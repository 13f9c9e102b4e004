// Daylight on a small thing: what shines through it, a panel that shades it and not the ground, a flash that adds to
// it.
#include "light/direction.hpp"
#include "plan/assess.hpp"
#include "plan/light/ambient.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>
#include <numbers>

using namespace poquito;
using namespace poquito::shoot;
using plan::assess;
using test::same;
using test::WithinAbs;

namespace {

/// A thin petal in a meadow, the sun at that azimuth: 0 behind the camera.
Shoot petal(double azimuth, double transmittance) {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.focus = {.by = FocusBy::magnification, .value = 0.3};
    shot.lights.clear();
    shot.subject.form = Form::leaf;
    shot.subject.depth = 0;
    shot.subject.reflectance = 0.4;
    shot.subject.transmittance = transmittance;
    shot.ambient = Ambient{.ev100 = 12,
                           .kind = AmbientKind::sky,
                           .position = {.distance = 1e6, .azimuth = azimuth, .elevation = 10},
                           .size = 1};
    shot.background = Background{.distance = 3000, .reflectance = 0.2, .kind = BackgroundKind::scene};
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 125, .iso = 200};
    return shoot;
}

plan::LightReport daylight_on(const Shoot& shoot) { return assess(shoot.kit, shoot.shots[0], {}).light; }

double ratio(const std::optional<double>& stops) { return stops ? std::exp2(*stops) : 0; }

}  // namespace

TEST_CASE("a flat face gets of a disc what its parts before the face give", "[light][plan]") {
    // Against the disc cut into small pieces, each a point of light.
    for (const double half_angle : {0.5, 10.0, 30.0, 60.0, 90.0})
        for (const double off : {0.0, 20.0, 45.0, 80.0, 100.0, 130.0, 170.0}) {
            INFO(half_angle << " " << off);
            constexpr int rings = 400, parts = 400;
            const double o = off * std::numbers::pi / 180, last = std::cos(half_angle * std::numbers::pi / 180);
            double sum = 0, turned = 0;
            for (int i = 0; i < rings; ++i) {
                const double c = 1 - (1 - last) * (i + 0.5) / rings, s = std::sqrt(1 - c * c);
                for (int k = 0; k < parts; ++k) {
                    const double phi = 2 * std::numbers::pi * (k + 0.5) / parts;
                    sum += std::max(0.0, std::cos(o) * c + std::sin(o) * s * std::cos(phi));
                    turned += c;
                }
            }
            CHECK_THAT(light::disc_share(std::cos(o), half_angle), WithinAbs(sum / turned, 1e-3));
        }
    // A disc that is nearly a point: Lambert's cosine. Half the sky, turned away: nothing; edge on: half.
    CHECK_THAT(light::disc_share(0.6, 0), same(0.6));
    CHECK_THAT(light::disc_share(0, 90), WithinAbs(0.5, 1e-3));
    CHECK_THAT(light::disc_share(-1, 90), WithinAbs(0, 1e-9));
}

TEST_CASE("light that is there shines through a petal: the sun from behind, and what is all round",
          "[plan][daylight]") {
    const auto behind = daylight_on(petal(170, 0.3)), before = daylight_on(petal(10, 0.3));
    REQUIRE(behind.ambient_through);
    REQUIRE(before.ambient_through);
    CHECK(ratio(behind.ambient_through) > 4 * ratio(before.ambient_through));
    CHECK_THAT(ratio(behind.through), same(ratio(behind.ambient_through)));
    CHECK_THAT(ratio(behind.front_total), same(ratio(behind.ambient_front) + ratio(behind.ambient_through)));
    // Twice as much comes through where twice as much is let through, and nothing through what lets none.
    CHECK_THAT(ratio(daylight_on(petal(170, 0.15)).ambient_through), same(ratio(behind.ambient_through) / 2));
    CHECK_FALSE(daylight_on(petal(170, 0)).ambient_through);
    // Before the sun only what is all round: the room's share of the reading, as bright as it lets through.
    CHECK_THAT(ratio(before.ambient_through),
               same(ratio(before.ambient) * plan::room_share(*petal(10, 0.3).shots[0].ambient) * 0.3 / 0.4));
    auto even = petal(0, 0.2);
    even.shots[0].ambient->kind = AmbientKind::even;
    CHECK_THAT(ratio(daylight_on(even).ambient_through), same(ratio(daylight_on(even).ambient) * 0.2 / 0.4));
}

TEST_CASE("a panel before the sun shades the flower and not the meadow, and opens its shadows", "[plan][daylight]") {
    auto bare = petal(20, 0);
    auto& sun = *bare.shots[0].ambient;
    sun.position.elevation = 60;
    auto shaded = bare;
    shaded.shots[0].ambient->panel = Panel{.loss = 1, .width = 500, .distance = 250};
    CHECK_THAT(*daylight_on(shaded).ambient, same(*daylight_on(bare).ambient - 1));
    CHECK_THAT(*daylight_on(shaded).background, WithinAbs(*daylight_on(bare).background, 1e-9));
    // Near enough to stand in its shadow, the ground gets what the flower gets.
    shaded.shots[0].background->distance = 100;
    CHECK(*daylight_on(shaded).background < *daylight_on(bare).background - 0.9);
    double last = 10;
    for (const double distance : {250.0, 260.0, 320.0, 400.0, 480.0, 600.0}) {
        shaded.shots[0].background->distance = distance;
        const double under = *daylight_on(bare).background - *daylight_on(shaded).background;
        CHECK(under <= last + 1e-9);  // out of its shadow by parts, never darker
        last = under;
    }
    shaded.shots[0].background->distance = 3000;
    const auto open = daylight_on(shaded).tones, hard = daylight_on(bare).tones;
    CHECK(*open.lit - *open.shadow < *hard.lit - *hard.shadow - 0.3);
}

TEST_CASE("a metered flash at -1 fills daylight by half of it, and gives all of it in the dark", "[plan][daylight]") {
    auto shoot = petal(60, 0);
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    shot.lights[0].power.reset();
    shot.lights[0].metered = -1;
    shot.ambient->ev100 -= *daylight_on(petal(60, 0)).front_total;  // the daylight alone is right
    const auto lit = daylight_on(shoot);
    REQUIRE(lit.sources[0].metering);
    const double by = -1 + lit.sources[0].metering->expected;
    CHECK_THAT(*lit.flash, WithinAbs(by, 0.01));
    // With as little light as nothing the same flash makes the exposure, less what it is told.
    shot.ambient->ev100 -= 12;
    CHECK_THAT(*daylight_on(shoot).flash, WithinAbs(by, 0.02));
    // One that finds its power by itself stays dark where the daylight is enough.
    shot.ambient->ev100 += 12.01;
    shot.lights[0].metered.reset();
    CHECK_FALSE(daylight_on(shoot).flash);
}
