// Where the sun stands, against a published worked example and a second algorithm; days of all latitudes and zones.
#include "sun/almanac.hpp"

#include "sun/zone.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

using namespace poquito;
using sun::Place;
using test::same;
using test::WithinAbs;

namespace {

constexpr double degree = std::numbers::pi / 180, hour = 3600;

/// The Astronomical Almanac's formula of low precision: 0.01 degrees from 1950 to 2050. True elevation and bearing.
sun::Position by_low_precision(const Place& place, double moment) {
    const double n = moment / 86400 + 2440587.5 - 2451545.0;
    const double mean = (280.460 + 0.9856474 * n) * degree, anomaly = (357.528 + 0.9856003 * n) * degree;
    const double ecliptic = mean + (1.915 * std::sin(anomaly) + 0.020 * std::sin(2 * anomaly)) * degree;
    const double slant = (23.439 - 0.0000004 * n) * degree;
    const double ascension = std::atan2(std::cos(slant) * std::sin(ecliptic), std::cos(ecliptic));
    const double declination = std::asin(std::sin(slant) * std::sin(ecliptic));
    const double sidereal = (18.697374558 + 24.06570982441908 * n) * 15 * degree;
    const double angle = sidereal + place.longitude * degree - ascension, north = place.latitude * degree;
    sun::Position position;
    position.true_elevation =
        std::asin(std::sin(north) * std::sin(declination) + std::cos(north) * std::cos(declination) * std::cos(angle)) /
        degree;
    position.bearing = std::atan2(-std::cos(declination) * std::sin(angle),
                                  std::sin(declination) * std::cos(north) -
                                      std::cos(declination) * std::sin(north) * std::cos(angle)) /
                       degree;
    return position;
}

double moment(const char* date, double clock, double offset_hours) {
    return sun::day_at_offset(offset_hours, date)->begin + clock;
}

}  // namespace

TEST_CASE("the sun stands where the published example has it", "[sun]") {
    // Reda and Andreas, Solar position algorithm, NREL/TP-560-34302: 2003-10-17 12:30:30 UTC-7.
    const Place place{.latitude = 39.742476, .longitude = -105.1786};
    const auto position = sun::position_at(place, moment("2003-10-17", 12 * hour + 30 * 60 + 30, -7));
    CHECK_THAT(position.true_elevation, WithinAbs(39.872046, 0.001));
    CHECK_THAT(position.bearing, WithinAbs(194.340241, 0.001));
    // Its zenith of 50.11162 is at 820 mbar and 11 degrees C: refraction goes by pressure over temperature.
    const double thin = 820.0 / 1010 * 283 / (273 + 11);
    CHECK_THAT(90 - (position.true_elevation + sun::refraction(position.true_elevation) * thin),
               WithinAbs(50.11162, 0.001));
    CHECK_THAT(position.elevation, WithinAbs(39.872046 + 0.0203, 0.001));
    const auto day = sun::day_at_offset(-7, "2003-10-17");
    const auto sun = sun::day_of(place, day->begin, day->end);
    // The rise and the transit of the same example, from memory: 6:12:43 and 11:46:05.
    CHECK_THAT(*sun.rise - day->begin, WithinAbs(6 * hour + 12 * 60 + 43, 3));
    CHECK_THAT(*sun.noon - day->begin, WithinAbs(11 * hour + 46 * 60 + 5, 1));
    // Declination sinks by 22' that day: the afternoon is shorter by about twice 17 s than the morning.
    CHECK_THAT((*sun.noon - *sun.rise) - (*sun.set - *sun.noon), WithinAbs(36, 5));
}

TEST_CASE("a second algorithm has it in the same place, over fifty years and all latitudes", "[sun]") {
    test::Random random(11);
    for (int i = 0; i < 4000; ++i) {
        const Place place{.latitude = random.between(-90, 90), .longitude = random.between(-180, 180)};
        const double at = random.between(0, 50 * 365.25 * 86400) + 0;  // from 1970
        const auto here = sun::position_at(place, at), other = by_low_precision(place, at);
        INFO("latitude " << place.latitude << ", longitude " << place.longitude << ", moment " << at);
        CHECK_THAT(here.true_elevation, WithinAbs(other.true_elevation, 0.02));
        // Bearings of what stands overhead say little: along the horizon, not by their angle.
        const double off = std::remainder(here.bearing - other.bearing, 360) * std::cos(here.true_elevation * degree);
        CHECK_THAT(off, WithinAbs(0, 0.025));
        CHECK(here.bearing >= 0);
        CHECK(here.bearing < 360.0001);
        CHECK(here.elevation >= here.true_elevation);
        CHECK(here.elevation - here.true_elevation < 0.7);
    }
    // Saemundsson's table: half a degree at the horizon, a minute at 45 degrees; none under the ground.
    CHECK_THAT(sun::refraction(0), WithinAbs(0.48, 0.01));
    CHECK_THAT(sun::refraction(45), WithinAbs(1.0 / 60, 0.001));
    CHECK(sun::refraction(-0.6) == 0);
    CHECK(sun::refraction(90) == 0);
}

TEST_CASE("a day's rise, set, noon and golden hours are where the sun passes those heights, in all latitudes",
          "[sun]") {
    test::Random random(5);
    int without = 0, brief = 0;
    for (int i = 0; i < 250; ++i) {
        const Place place{.latitude = random.between(-90, 90), .longitude = random.between(-180, 180)};
        const double begin = std::floor(random.between(0, 50 * 365.0)) * 86400 + hour * random.whole(-12, 12);
        const auto day = sun::day_of(place, begin, begin + 86400);
        INFO("latitude " << place.latitude << ", longitude " << place.longitude << ", from " << begin);
        const auto height = [&](double at) { return sun::position_at(place, at).true_elevation; };
        if (day.rise) CHECK_THAT(height(*day.rise), WithinAbs(sun::horizon, 1e-3));
        if (day.set) CHECK_THAT(height(*day.set), WithinAbs(sun::horizon, 1e-3));
        if (!day.rise && !day.set) ++without;
        REQUIRE(day.noon);
        CHECK(height(*day.noon) >= height(*day.noon - 600) - 0.05);
        CHECK(height(*day.noon) >= height(*day.noon + 600) - 0.05);
        // Minute by minute: up or down, golden or not.
        int wrong = 0;
        for (double at = begin + 30; at < begin + 86400; at += 60) {
            const double now = height(at);
            const auto within = [&](const std::vector<sun::Stretch>& stretches) {
                return std::ranges::any_of(stretches, [&](const auto& s) { return s.from <= at && at <= s.to; });
            };
            const bool golden = now >= sun::golden_low && now <= sun::golden_high;
            const bool blue = now >= sun::blue_low && now <= sun::golden_low;
            wrong += within(day.golden) != golden ? 1 : 0;
            wrong += within(day.blue) != blue ? 1 : 0;
        }
        CHECK(wrong <= 4);  // the minute at an end
        for (const auto& stretch : day.golden) {
            brief += stretch.to - stretch.from < 1200 ? 1 : 0;
            CHECK(stretch.from < stretch.to);
            CHECK(stretch.from >= begin);
            CHECK(stretch.to <= begin + 86400);
        }
        CHECK(day.golden.size() <= 4);
    }
    CHECK(without > 10);  // polar days and nights were among them
    CHECK(brief > 0);
}

TEST_CASE("beyond the polar circle it does not set in summer and does not rise in winter", "[sun]") {
    const Place far_north{.latitude = 69.65, .longitude = 18.96};
    const auto summer = sun::local_day("Europe/Oslo", "2026-06-21"),
               winter = sun::local_day("Europe/Oslo", "2026-12-21");
    const auto light = sun::day_of(far_north, summer->begin, summer->end);
    CHECK_FALSE(light.rise);
    CHECK_FALSE(light.set);
    CHECK(sun::position_at(far_north, summer->begin).elevation > 0);
    const auto dark = sun::day_of(far_north, winter->begin, winter->end);
    CHECK_FALSE(dark.rise);
    CHECK(sun::position_at(far_north, *dark.noon).elevation < 0);
    REQUIRE(dark.golden.size() == 1);  // it comes to three degrees under the horizon and no more
    CHECK(dark.blue.size() == 2);
    // A sun that shows itself for minutes is not stepped over: the last day before the night.
    bool shown = false;
    for (int day = 1; day <= 30; ++day) {
        const auto one = sun::local_day(
            "Europe/Oslo", day < 10 ? "2026-11-0" + std::to_string(day) : "2026-11-" + std::to_string(day));
        const auto of = sun::day_of(far_north, one->begin, one->end);
        CHECK(of.rise.has_value() == of.set.has_value());
        if (of.rise && *of.set - *of.rise < 3600) shown = true;
    }
    CHECK(shown);
}

TEST_CASE("days of zones have their summer time, and clocks tell moments", "[sun][zone]") {
    const auto spring = sun::local_day("Europe/Dublin", "2026-03-29"),
               autumn = sun::local_day("Europe/Dublin", "2026-10-25");
    CHECK_THAT(spring->end - spring->begin, same(23 * hour));
    CHECK_THAT(autumn->end - autumn->begin, same(25 * hour));
    CHECK_THAT(sun::offset_at("Europe/Dublin", autumn->begin), same(hour));
    CHECK_THAT(sun::offset_at("Europe/Dublin", autumn->end), same(0));
    CHECK_THAT(sun::offset_at("Asia/Kolkata", 0), same(5.5 * hour));
    const auto at = sun::moment_of("America/New_York", "2026-07-01", 9.5 * hour);
    CHECK_THAT(sun::clock_at("America/New_York", *at), same(9.5 * hour));
    CHECK(sun::date_at("America/New_York", *at) == "2026-07-01");
    CHECK(sun::date_at("Pacific/Auckland", *at) == "2026-07-02");
    // The hour that is skipped is the one after; the hour that comes twice is the first.
    CHECK_THAT(sun::clock_at("Europe/Dublin", *sun::moment_of("Europe/Dublin", "2026-03-29", 1.5 * hour)),
               same(2 * hour));
    CHECK_THAT(*sun::moment_of("Europe/Dublin", "2026-10-25", 1.5 * hour) - autumn->begin, same(1.5 * hour));
    CHECK(sun::has_zone("Europe/Dublin"));
    CHECK_FALSE(sun::has_zone("Europe/Nowhere"));
    CHECK(sun::zones().size() > 300);
    for (const char* bad : {"", "2026-02-30", "2026-13-01", "28.11.2026", "2026-11-28x"})
        CHECK_FALSE(sun::local_day("Europe/Dublin", bad));
}
