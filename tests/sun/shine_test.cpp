// The sun at a set: over walls, through windows, from which side, how bright and for how long.
#include "sun/shine.hpp"
#include "light/continuous.hpp"

#include "sun/zone.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using sun::From;
using test::same;
using test::WithinAbs;

namespace {

shoot::Site site() {
    return {.name = "Saltmarsh", .latitude = 52.9, .longitude = 0.7, .zone = "Europe/London", .date = "2026-06-21"};
}

}  // namespace

TEST_CASE("directions of sky and model are the same thing, there and back", "[sun]") {
    // The camera looks north: what shines from the south stands behind it, from the east at its right.
    CHECK_THAT(sun::azimuth_of(180, 0), same(0));
    CHECK_THAT(sun::azimuth_of(90, 0), same(90));
    CHECK_THAT(sun::azimuth_of(270, 0), same(-90));
    CHECK_THAT(std::abs(sun::azimuth_of(0, 0)), same(180));
    test::Random random(7);
    for (int i = 0; i < 200; ++i) {
        const double sky = random.between(0, 360), camera = random.between(0, 360);
        CHECK_THAT(std::remainder(sun::bearing_of(sun::azimuth_of(sky, camera), camera) - sky, 360),
                   WithinAbs(0, 1e-9));
    }
    CHECK(sun::from_of(10) == From::front);
    CHECK(sun::from_of(-90) == From::side);
    CHECK(sun::from_of(140) == From::rim);
    CHECK(sun::from_of(-175) == From::behind);
}

TEST_CASE("a wall hides the sun below its edge, a window lets it in alone, whichever way they lie", "[sun]") {
    auto here = site();
    CHECK(sun::reaches(here, {.elevation = 1, .bearing = 10}));
    CHECK_FALSE(sun::reaches(here, {.elevation = -1, .bearing = 10}));
    here.obstacles = {{.from = 350, .to = 20, .height = 30}};  // over north
    CHECK_FALSE(sun::reaches(here, {.elevation = 29, .bearing = 5}));
    CHECK_FALSE(sun::reaches(here, {.elevation = 29, .bearing = 355}));
    CHECK(sun::reaches(here, {.elevation = 31, .bearing = 5}));
    CHECK(sun::reaches(here, {.elevation = 10, .bearing = 21}));
    here.window = shoot::SunWindow{.from = 90, .to = 180, .low = 5, .high = 60};
    CHECK(sun::reaches(here, {.elevation = 20, .bearing = 120}));
    CHECK_FALSE(sun::reaches(here, {.elevation = 61, .bearing = 120}));
    CHECK_FALSE(sun::reaches(here, {.elevation = 20, .bearing = 200}));
    // Minute by minute the stretches say the same.
    const auto day = *sun::local_day(here.zone, here.date);
    const auto place = *sun::place_of(here);
    const auto stretches = sun::shining(here, day.begin, day.end);
    REQUIRE_FALSE(stretches.empty());
    int wrong = 0;
    for (double at = day.begin; at < day.end; at += 60) {
        const bool said =
            std::ranges::any_of(stretches, [&](const auto& one) { return one.from <= at && at <= one.to; });
        wrong += said != sun::reaches(here, sun::position_at(place, at)) ? 1 : 0;
    }
    CHECK(wrong <= static_cast<int>(2 * stretches.size()));
    // All hours that it shines are from one side or another, and none twice.
    double sum = 0, all = 0;
    for (const auto& one : sun::hours_of(here, 40, day.begin, day.end)) sum += one.stretch.to - one.stretch.from;
    for (const auto& one : stretches) all += one.to - one.from;
    CHECK_THAT(sum, WithinAbs(all, 120));
    here.latitude.reset();
    CHECK(sun::shining(here, day.begin, day.end).empty());
}

TEST_CASE("light by the table is that of practice, and a reading replaces it", "[sun]") {
    // Common practice: 15 under a clear sun, 14 hazy, 13 cloudy, 12 overcast or in open shade; less as it sinks.
    CHECK_THAT(sun::light_by_table(50, shoot::Sky::clear), WithinAbs(15, 0.2));
    CHECK_THAT(sun::light_by_table(50, shoot::Sky::hazy), WithinAbs(14, 0.2));
    CHECK_THAT(sun::light_by_table(50, shoot::Sky::cloudy), WithinAbs(13, 0.2));
    CHECK_THAT(sun::light_by_table(50, shoot::Sky::overcast), WithinAbs(12, 0.2));
    for (int sky = 0; sky < 5; ++sky)
        for (double height = -25; height < 90; height += 0.5)
            CHECK(sun::light_by_table(height, static_cast<shoot::Sky>(sky)) <=
                  sun::light_by_table(height + 0.5, static_cast<shoot::Sky>(sky)) + 1e-9);
    auto here = site();
    const auto place = *sun::place_of(here);
    const auto noon = *sun::moment_of(here.zone, here.date, 13 * 3600), dusk = noon + 8 * 3600;
    const double before = sun::light_at(here, place, noon), later = sun::light_at(here, place, dusk);
    here.reading = shoot::LightReading{.ev100 = before - 2, .clock = 13 * 3600, .unknown = {}};
    CHECK_THAT(sun::light_at(here, place, noon), WithinAbs(before - 2, 1e-6));
    CHECK_THAT(sun::light_at(here, place, dusk), WithinAbs(later - 2, 1e-6));
    // It holds for hours at noon, for minutes at dusk, and ends where a wall takes the sun.
    CHECK(sun::reading_holds(here, place, noon) > 3600);
    CHECK(sun::reading_holds(here, place, dusk) < 1200);
    const auto position = sun::position_at(place, noon + 900);
    here.obstacles = {{.from = position.bearing, .to = position.bearing + 60, .height = 80}};
    CHECK_THAT(sun::reading_holds(here, place, noon), WithinAbs(900, 61));
    CHECK_THAT(*sun::shadow_length({.elevation = 45}), same(1));
    CHECK_FALSE(sun::shadow_length({.elevation = -1}));
    const auto ambient = sun::ambient_at(site(), place, noon, {});
    CHECK_THAT(ambient.position.elevation, WithinAbs(sun::position_at(place, noon).elevation, 1e-9));
    CHECK(ambient.kind == shoot::AmbientKind::sky);
    // A clear sun is a disc, haze widens it, behind a wall only the sky is left.
    auto weather = site();
    weather.sky = shoot::Sky::clear;
    CHECK(sun::ambient_at(weather, place, noon, {}).size < 1);
    weather.sky = shoot::Sky::hazy;
    CHECK(sun::ambient_at(weather, place, noon, {}).size == 10);
    // The kinds of sky are those that Light offers.
    for (const auto& [sky, id] : {std::pair(shoot::Sky::clear, "clear"),
                                  {shoot::Sky::hazy, "haze"},
                                  {shoot::Sky::cloudy, "bright"},
                                  {shoot::Sky::overcast, "overcast"},
                                  {shoot::Sky::shade, "shade"}})
        CHECK(light::skies()[static_cast<std::size_t>(sky)].id == std::string(id));
    weather.sky = shoot::Sky::overcast;
    CHECK(sun::ambient_at(weather, place, noon, {}).size > 90);
    weather.sky = shoot::Sky::clear;
    weather.obstacles = {{.from = 0, .to = 359, .height = 89}};
    CHECK(sun::ambient_at(weather, place, noon, {}).size > 90);
}

TEST_CASE("A camera that looks down has the sun elsewhere, and the ground stays level", "[sun]") {
    // Straight down: what stands before the camera at the horizon comes from above in the picture.
    const auto ahead = sun::seen_from({.down = 90}, {.distance = 1, .azimuth = 180, .elevation = 0});
    CHECK_THAT(ahead.elevation, WithinAbs(90, 1e-6));
    // A zenith sun lights a face that lies, from the camera's side.
    const auto above = sun::seen_from({.down = 90}, {.distance = 1, .azimuth = 30, .elevation = 90});
    CHECK_THAT(above.elevation, WithinAbs(0, 1e-6));
    CHECK_THAT(above.azimuth, WithinAbs(0, 1e-6));
    for (const double down : {0.0, 25.0, 70.0})
        for (const double azimuth : {-120.0, 10.0, 84.0})
            for (const double elevation : {3.0, 40.0}) {
                const light::Position over{.distance = 1, .azimuth = azimuth, .elevation = elevation};
                const auto back = sun::over_ground(down, sun::seen_from({.down = down}, over));
                CHECK_THAT(back.azimuth, WithinAbs(azimuth, 1e-6));
                CHECK_THAT(back.elevation, WithinAbs(elevation, 1e-6));
            }
}
