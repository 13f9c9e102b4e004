#include "light/continuous.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <boost/math/quadrature/gauss_kronrod.hpp>

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::light;
using poquito::test::Random;
using poquito::test::WithinAbs;
using poquito::test::WithinRel;

namespace {
constexpr double pi = 3.14159265358979323846;
}

TEST_CASE("EV 15 is 81 920 lux", "[light][continuous]") {
    // ISO 2720, incident light with C = 250: E = 2^EV C / S.
    CHECK_THAT(lux_of(15), WithinRel(81920, 1e-12));
    CHECK_THAT(ev100_of(81920), WithinAbs(15, 1e-12));
    CHECK_THAT(ev100_of(2.5), WithinAbs(0, 1e-12));
}

TEST_CASE("a lamp by its lux gives what a reading of that exposure value gives", "[light][continuous]") {
    const Settings settings{.working_f_number = 8, .shutter = 1 / 30.0, .iso = 400};
    const double lux = illuminance(LampPath{.lux = 640, .at_distance = 1000, .distance = 1000, .face_diameter = 0});
    CHECK_THAT(ambient_stops(settings, ev100_of(lux)), WithinAbs(ambient_stops(settings, 8), 1e-9));  // 2.5 * 2^8 = 640
}

TEST_CASE("a bare point lamp follows the inverse square", "[light][continuous]") {
    const double near = illuminance(LampPath{.lux = 1000, .at_distance = 1000, .distance = 250});
    CHECK_THAT(near, WithinRel(16000, 1e-12));
    CHECK_THAT(illuminance(LampPath{.lux = 1000, .at_distance = 1000, .power = 0.25, .loss = 1, .distance = 1000}),
               WithinRel(125, 1e-12));
}

TEST_CASE("an evenly shining disc lights its axis as the integral over its face says", "[light][continuous]") {
    // E = integral of L cos^2 / r^2 over the disc, both faces parallel (Lambert); rings of radius s.
    using boost::math::quadrature::gauss_kronrod;
    Random random(5);
    for (int i = 0; i < 200; ++i) {
        const double radius = random.between(1, 500), distance = random.between(5, 1500), luminance = 300;
        const auto ring = [&](double s) {
            const double squared = s * s + distance * distance;
            const double cosine = distance / std::sqrt(squared);
            return luminance * cosine * cosine / squared * 2 * pi * s;
        };
        const double integral = gauss_kronrod<double, 31>::integrate(ring, 0.0, radius, 10, 1e-12);
        CHECK_THAT(illuminance(luminance, {.diameter = 2 * radius, .distance = distance}), WithinRel(integral, 1e-9));
        // And the same rule carries a reading at one distance to another.
        const double there = distance * random.between(0.3, 3);
        CHECK_THAT(illuminance(LampPath{.lux = integral,
                                        .at_distance = distance,
                                        .distance = there,
                                        .face_diameter = 2 * radius,
                                        .source_diameter = 2 * radius}),
                   WithinRel(illuminance(luminance, {.diameter = 2 * radius, .distance = there}), 1e-9));
    }
}

TEST_CASE("flicker is the largest difference between two frames of a swinging light", "[light][continuous]") {
    // Against frames exposed at a thousand moments of the swing, integrated by hand.
    Random random(6);
    for (int i = 0; i < 100; ++i) {
        const Flicker flicker{.frequency = random.between(50, 300), .depth = random.between(0.05, 0.9)};
        const double shutter = random.between(1 / 4000.0, 1 / 8.0);
        double least = 1e9, most = 0;
        for (int k = 0; k < 1000; ++k) {
            const double start = k / (1000 * flicker.frequency), w = 2 * pi * flicker.frequency;
            const double light = shutter + flicker.depth / w * (std::cos(w * start) - std::cos(w * (start + shutter)));
            least = std::min(least, light);
            most = std::max(most, light);
        }
        CHECK_THAT(flicker_stops(flicker, shutter), WithinAbs(std::log2(most / least), 2e-4));
    }
    CHECK_THAT(flicker_stops({.frequency = 100, .depth = 0.5}, 0.02), WithinAbs(0, 1e-9));  // two whole swings
}

TEST_CASE("full sun is EV 15 and every sky has a width", "[light][continuous]") {
    CHECK(skies().front().ev100 == 15);
    for (std::size_t i = 0; i < skies().size(); ++i) {
        CHECK(skies()[i].size > 0);
        if (i > 0) CHECK(skies()[i].ev100 < skies()[i - 1].ev100);
    }
}

TEST_CASE("high-speed sync costs nothing at sync and a stop a stop from there", "[light][exposure]") {
    const HighSpeed unit{.sync = 1 / 200.0, .at_sync = 2};
    CHECK(high_speed_loss(unit, 1 / 200.0) == 0);
    CHECK(high_speed_loss(unit, 1 / 60.0) == 0);
    CHECK_THAT(high_speed_loss(unit, 1 / 800.0), WithinAbs(4, 1e-12));
    CHECK_THAT(high_speed_loss(unit, 1 / 201.0), WithinAbs(2.0072, 1e-4));
}
