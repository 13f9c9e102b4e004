#include "sun/almanac.hpp"

#include <libnova/dynamical_time.h>
#include <libnova/ln_types.h>
#include <libnova/nutation.h>
#include <libnova/sidereal_time.h>
#include <libnova/solar.h>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <functional>
#include <limits>
#include <numbers>

namespace poquito::sun {
namespace {

constexpr double day_length = 86400, epoch = 2440587.5;  // Julian day of 1970-01-01 0:00
constexpr double degree = std::numbers::pi / 180;

double julian_of(double moment) { return epoch + moment / day_length; }

/// Right ascension and declination of date, degrees; how far it is, astronomical units; by how much the true equinox is
/// before the mean one, degrees.
struct Equatorial {
    double ascension = 0, declination = 0, distance = 1, equinox = 0;
};

/// The library has the earth's way by VSOP87 in the ecliptic of 2000, in which the sun's latitude is what precession
/// makes of it. In that of date it lies on it: longitude with precession, light's own way (aberration) and nutation.
/// Source: Meeus, Astronomical Algorithms, 21.6 and 25.
Equatorial computed(double julian) {
    ln_helio_posn seen{};
    ln_get_solar_geom_coords(julian, &seen);
    ln_nutation nutation{};
    ln_get_nutation(julian, &nutation);
    const double centuries = (julian - 2451545.0) / 36525;
    const double precession = 1.396971278 * centuries + 0.0003086 * centuries * centuries;
    const double aberration = 20.4898 / 3600 / seen.R;
    const double longitude = (seen.L + precession - aberration + nutation.longitude) * degree;
    const double slant = (nutation.ecliptic + nutation.obliquity) * degree;
    return {.ascension = std::atan2(std::cos(slant) * std::sin(longitude), std::cos(longitude)) / degree,
            .declination = std::asin(std::sin(slant) * std::sin(longitude)) / degree,
            .distance = seen.R,
            .equinox = nutation.longitude * std::cos(slant)};
}

/// Days of terrestrial time that were computed last. The sun's way over four of them is a cubic to a thousandth of a
/// second of arc, and a drawing asks for hundreds of moments of one day.
struct Known {
    static constexpr int days = 4;
    long long first = std::numeric_limits<long long>::min();  // Julian day of the first
    std::array<Equatorial, days> at;
};

Equatorial equatorial_at(double moment) {
    thread_local std::array<Known, 2> both;  // a local day lies in two of Greenwich's
    const double julian = ln_get_jde(julian_of(moment)), whole = std::floor(julian);
    const auto first = static_cast<long long>(whole) - 1;
    Known& known = both[static_cast<std::size_t>(first & 1)];
    if (known.first != first) {
        known.first = first;
        for (int i = 0; i < Known::days; ++i) {
            auto& one = known.at[static_cast<std::size_t>(i)];
            one = computed(static_cast<double>(first + i));
            if (i > 0)  // without a jump of a whole turn
                one.ascension = known.at[0].ascension + std::remainder(one.ascension - known.at[0].ascension, 360);
        }
    }
    const double t = julian - whole;  // from the second of them
    const double weights[] = {-t * (t - 1) * (t - 2) / 6, (t + 1) * (t - 1) * (t - 2) / 2, -(t + 1) * t * (t - 2) / 2,
                              (t + 1) * t * (t - 1) / 6};
    Equatorial sun{.ascension = 0, .declination = 0, .distance = 0, .equinox = 0};
    for (std::size_t i = 0; i < known.at.size(); ++i) {
        sun.ascension += weights[i] * known.at[i].ascension;
        sun.declination += weights[i] * known.at[i].declination;
        sun.distance += weights[i] * known.at[i].distance;
        sun.equinox += weights[i] * known.at[i].equinox;
    }
    return sun;
}

/// -180 to 180.
double hour_angle(const Place& place, double moment, const Equatorial& sun) {
    const double sidereal = ln_get_mean_sidereal_time(julian_of(moment)) * 15 + sun.equinox;
    return std::remainder(sidereal + place.longitude - sun.ascension, 360);
}
double hour_angle(const Place& place, double moment) { return hour_angle(place, moment, equatorial_at(moment)); }

/// The moments in which a value passes 0 from one of those moments to the next, in their order.
std::vector<double> crossings(const std::vector<double>& moments, const std::function<double(double)>& value) {
    std::vector<double> found;
    double at_from = value(moments.front());
    for (std::size_t i = 1; i < moments.size(); ++i) {
        const double from = moments[i - 1], to = moments[i], at_to = value(to);
        if ((at_from < 0) != (at_to < 0)) {
            std::uintmax_t most = 60;
            const auto fine = [](double a, double b) { return b - a < 0.01; };  // s
            const auto [low, high] = boost::math::tools::toms748_solve(value, from, to, at_from, at_to, fine, most);
            found.push_back((low + high) / 2);
        }
        at_from = at_to;
    }
    return found;
}

std::vector<double> evenly(double begin, double end) {
    constexpr double step = 1200;  // s: the sun moves by five degrees at most
    std::vector<double> moments;
    moments.reserve(static_cast<std::size_t>((end - begin) / step) + 2);
    for (double at = begin; at < end; at += step) moments.push_back(at);
    moments.push_back(end);
    return moments;
}

/// The meridian, above or below the pole: where a day's heights turn, near enough.
std::vector<double> passages(const Place& place, double begin, double end, double angle) {
    auto found =
        crossings(evenly(begin, end), [&](double at) { return std::remainder(hour_angle(place, at) - angle, 360); });
    // The angle jumps back by a whole turn on the other side.
    std::erase_if(found, [&](double at) { return std::abs(std::remainder(hour_angle(place, at) - angle, 360)) > 90; });
    return found;
}

/// From turn to turn, so that what is short is not stepped over: a sun that shows itself for a minute.
std::vector<double> elevations_passed(const Place& place, double begin, double end, double elevation) {
    auto moments = evenly(begin, end);
    constexpr double lower = 180;
    for (const double angle : {0.0, lower})
        for (const double at : passages(place, begin, end, angle)) moments.push_back(at);
    std::ranges::sort(moments);
    return crossings(moments, [&](double at) { return position_at(place, at).true_elevation - elevation; });
}

}  // namespace

double refraction(double true_elevation) {
    constexpr double least = -0.5;
    if (true_elevation < least) return 0;
    return std::max(0.0, 1.02 / std::tan((true_elevation + 10.3 / (true_elevation + 5.11)) * degree)) / 60;
}

Position position_at(const Place& place, double moment) {
    const auto sun = equatorial_at(moment);
    const double hour = hour_angle(place, moment, sun) * degree, north = place.latitude * degree,
                 declination = sun.declination * degree;
    const double height = std::asin(std::clamp(
        std::sin(north) * std::sin(declination) + std::cos(north) * std::cos(declination) * std::cos(hour), -1.0, 1.0));
    // Seen from the earth's face, not from its middle: 8.794 seconds of arc at a unit of distance.
    const double parallax = 8.794 / 3600 / sun.distance * std::cos(height);
    Position position;
    position.true_elevation = height / degree - parallax;
    position.elevation = position.true_elevation + refraction(position.true_elevation);
    const double bearing =
        std::atan2(-std::cos(declination) * std::sin(hour),
                   std::sin(declination) * std::cos(north) - std::cos(declination) * std::sin(north) * std::cos(hour)) /
        degree;
    position.bearing = bearing < 0 ? bearing + 360 : bearing;
    return position;
}

std::vector<Stretch> between(const Place& place, double begin, double end, double low, double high) {
    auto moments = elevations_passed(place, begin, end, low);
    const auto others = elevations_passed(place, begin, end, high);
    moments.insert(moments.end(), others.begin(), others.end());
    moments.push_back(begin), moments.push_back(end);
    std::ranges::sort(moments);
    std::vector<Stretch> stretches;
    for (std::size_t i = 0; i + 1 < moments.size(); ++i) {
        const double from = moments[i], to = moments[i + 1];
        const double middle = position_at(place, (from + to) / 2).true_elevation;
        if (to <= from || middle < low || middle > high) continue;
        if (!stretches.empty() && stretches.back().to == from)
            stretches.back().to = to;
        else
            stretches.push_back({.from = from, .to = to});
    }
    return stretches;
}

Day day_of(const Place& place, double begin, double end) {
    Day day{.begin = begin, .end = end};
    for (const double moment : elevations_passed(place, begin, end, horizon)) {
        const bool rises =
            position_at(place, moment + 30).true_elevation > position_at(place, moment - 30).true_elevation;
        auto& which = rises ? day.rise : day.set;
        if (!which) which = moment;
    }
    if (const auto noons = passages(place, begin, end, 0); !noons.empty()) day.noon = noons.front();
    day.golden = between(place, begin, end, golden_low, golden_high);
    day.blue = between(place, begin, end, blue_low, golden_low);
    return day;
}

}  // namespace poquito::sun
