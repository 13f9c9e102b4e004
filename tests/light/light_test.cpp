#include "light/duration.hpp"
#include "light/exposure.hpp"
#include "light/position.hpp"
#include "light/power.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>

using namespace poquito;
using test::same;
using test::WithinAbs;
using test::WithinRel;

TEST_CASE("EV 15 at ISO 100 is f/16 at 1/128 s", "[light][ambient]") {
    // ISO 2720 (MODEL 4); the camera's nominal 1/125 is 0.03 stops brighter.
    CHECK_THAT(light::ambient_stops({.working_f_number = 16, .shutter = 1.0 / 128, .iso = 100}, 15),
               WithinAbs(0, 1e-12));
    CHECK_THAT(light::ambient_stops({.working_f_number = 16, .shutter = 1.0 / 125, .iso = 100}, 15),
               WithinAbs(0.034, 0.001));
}

TEST_CASE("guide number is f-number times metres, and grows with the root of ISO", "[light][flash]") {
    // ISO 1230 (MODEL 4).
    CHECK_THAT(light::flash_stops({.working_f_number = 8, .iso = 100}, {.guide_number = 32, .distance = 4000}),
               WithinAbs(0, 1e-12));
    CHECK_THAT(light::flash_stops({.working_f_number = 16, .iso = 400}, {.guide_number = 32, .distance = 4000}),
               WithinAbs(0, 1e-12));
    CHECK_THAT(light::flash_stops({.working_f_number = 8, .iso = 100},
                                  {.guide_number = 32, .power = 0.25, .loss = 1, .distance = 2000}),
               WithinAbs(-1, 1e-12));
}

TEST_CASE("a disc source lights like the integral over its face", "[light][flash]") {
    // Lambertian disc on its axis: irradiance pi L r^2/(d^2 + r^2), summed here ring by ring (cos^2 over squared
    // distance), against the point formula at sqrt(d^2 + r^2); far away both are the same lamp.
    const double d = 150, r = 100;
    const auto irradiance = [&](double distance) {
        double sum = 0;
        constexpr int rings = 20000;
        for (int i = 0; i < rings; ++i) {
            const double rho = (i + 0.5) / rings * r;
            const double squared = distance * distance + rho * rho;
            sum += 2 * M_PI * rho * (r / rings) * (distance * distance / squared) / squared;
        }
        return sum;
    };
    const double far = 1e5;
    const double expected = std::log2(irradiance(d) / irradiance(far));
    const auto stops = [&](double distance) {
        return light::flash_stops({}, {.distance = distance, .modifier_diameter = 2 * r});
    };
    CHECK_THAT(stops(d) - stops(far), WithinAbs(expected, 1e-4));
}

TEST_CASE("required power gives the stops that were asked for", "[light][flash]") {
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        const light::Settings settings{.working_f_number = random.log_between(2, 60),
                                       .iso = random.log_between(50, 6400)};
        light::FlashPath path{.guide_number = random.log_between(5, 60),
                              .loss = random.between(0, 3),
                              .distance = random.log_between(30, 3000),
                              .modifier_diameter = random.between(0, 600)};
        const double wanted = random.between(-4, 2);
        path.power = light::power_for(settings, path, wanted);
        INFO("seed " << seed);
        CHECK_THAT(light::flash_stops(settings, path), WithinAbs(wanted, 1e-9));
    }
}

TEST_CASE("the suggested power is the nearest setting, ties to the brighter, within what the flash has",
          "[light][flash]") {
    const light::PowerScale thirds{.least = 1.0 / 128, .step = 1.0 / 3};
    CHECK_THAT(light::nearest_setting(thirds, 1.0 / 32), same(1.0 / 32));
    CHECK_THAT(light::nearest_setting(thirds, std::exp2(-5.2)), same(std::exp2(-16.0 / 3)));
    CHECK_THAT(light::nearest_setting(thirds, std::exp2(-5.15)), same(std::exp2(-5)));
    CHECK(light::nearest_setting(thirds, 3) == 1);
    CHECK_THAT(light::nearest_setting(thirds, 1e-9), same(1.0 / 128));
    const light::PowerScale full{.least = 1.0 / 50, .step = 1};
    CHECK_THAT(light::nearest_setting(full, std::exp2(-2.5)), same(0.25));  // a tie
    CHECK_THAT(light::nearest_setting(full, 1.0 / 60), same(1.0 / 32));     // 1/64 would be below the least, 1/50
}

TEST_CASE("flash durations are interpolated on log-log axes and never extrapolated", "[light][duration]") {
    const std::vector<light::Duration> table = {{1, 0.002}, {0.25, 0.0005}, {0.0625, 0.0001}};
    CHECK_THAT(light::duration_at(table, 0.25).value(), same(0.0005));
    // Half way in stops between 1 and 1/4 is the geometric mean of the times.
    CHECK_THAT(light::duration_at(table, 0.5).value(), same(0.001));
    CHECK_THAT(light::duration_at(table, 0.125).value(), same(std::sqrt(0.0005 * 0.0001)));
    CHECK_FALSE(light::duration_at(table, 0.06));
    CHECK_FALSE(light::duration_at(table, 1.01));
    CHECK_FALSE(light::duration_at({}, 0.5));
    CHECK_THAT(light::duration_at({{0.5, 0.001}}, 0.5).value(), same(0.001));
}

TEST_CASE("t0.1 of an exponential decay is 3.32 times t0.5", "[light][duration]") {
    // ISO 2827: the times above half and above a tenth of the peak, of exp(-t): ln 10 over ln 2.
    CHECK_THAT(light::t01_from_t05(light::Discharge::decay, 0.001), same(0.001 * std::log(10) / std::log(2)));
    CHECK(light::t01_from_t05(light::Discharge::cut, 0.001) == 0.001);
}

TEST_CASE("light on the background by plane geometry", "[light][background]") {
    // Light 300 mm in front of the subject on the camera's side, in coordinates: background point at (0, 0, 200).
    const light::Position front{.distance = 300, .azimuth = 40, .elevation = 30};
    const double degree = M_PI / 180;
    const double x = 300 * std::cos(30 * degree) * std::sin(40 * degree);
    const double y = 300 * std::sin(30 * degree);
    const double z = -300 * std::cos(30 * degree) * std::cos(40 * degree);
    const double distance = std::hypot(x, y, z - 200);
    const auto path = light::path_to_background(front, 200).value();
    CHECK_THAT(path.distance, same(distance));
    CHECK_THAT(path.incidence, same((200 - z) / distance));
    // Behind the background plane, and in it, nothing falls on its face.
    CHECK_FALSE(light::path_to_background({.distance = 300, .azimuth = 180}, 200));
    CHECK_FALSE(light::path_to_background({.distance = 300, .azimuth = 90}, 0));
    // Behind the subject but before the background it is lit.
    CHECK(light::path_to_background({.distance = 100, .azimuth = 180}, 200).has_value());
}

TEST_CASE("looks of the background at their limits", "[light][background]") {
    using light::BackgroundLook;
    CHECK(light::background_look(-6.01) == BackgroundLook::black);
    CHECK(light::background_look(-6) == BackgroundLook::dark);
    CHECK(light::background_look(-4) == BackgroundLook::grey);
    CHECK(light::background_look(2.47) == BackgroundLook::grey);
    CHECK(light::background_look(std::log2(1 / 0.18)) == BackgroundLook::white);
    CHECK_THAT(light::reflectance_stops(1), WithinRel(2.474, 1e-3));
}
