#include "sun/shine.hpp"

#include "light/angle.hpp"
#include "light/continuous.hpp"
#include "light/space.hpp"

#include "sun/zone.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <utility>

namespace poquito::sun {
namespace {

constexpr double third = 1.0 / 3;  // stop

double turned(double degrees) {
    const double rest = std::fmod(degrees, 360);
    return rest < 0 ? rest + 360 : rest;
}

/// Clockwise from one bearing to the other; all around where they are the same.
bool in_arc(double bearing, double from, double to) {
    const double wide = turned(to - from);
    return wide == 0 || turned(bearing - from) <= wide;
}

/// EV by height under a clear sky (common practice, from memory): linear in between.
constexpr std::array<std::pair<double, double>, 13> clear_sky = {{{-18, -6},
                                                                  {-12, -4},
                                                                  {-8, 1},
                                                                  {-6, 3.5},
                                                                  {-4, 6},
                                                                  {-2, 8.5},
                                                                  {0, 10},
                                                                  {3, 12},
                                                                  {6, 13},
                                                                  {12, 14},
                                                                  {25, 14.7},
                                                                  {40, 15},
                                                                  {90, 15.2}}};

/// Stops that a sky takes of a clear one's light; once the sun is down the sky itself is the light.
double taken_by(shoot::Sky sky, double elevation) {
    constexpr double stops[] = {0, 1, 2, 3, 3};
    const double of_sun = stops[static_cast<int>(sky)];
    const double up = std::clamp(elevation / 6, 0.0, 1.0);
    constexpr double of_dusk[] = {0, 0.3, 0.8, 1.5, 1};
    return of_dusk[static_cast<int>(sky)] + (of_sun - of_dusk[static_cast<int>(sky)]) * up;
}

}  // namespace

std::optional<Place> place_of(const shoot::Site& site) {
    if (!site.latitude || !site.longitude) return std::nullopt;
    return Place{.latitude = *site.latitude, .longitude = *site.longitude};
}

bool reaches(const shoot::Site& site, const Position& position) {
    if (position.elevation <= 0) return false;
    for (const auto& obstacle : site.obstacles)
        if (position.elevation <= obstacle.height && in_arc(position.bearing, obstacle.from, obstacle.to)) return false;
    if (!site.window) return true;
    return position.elevation >= site.window->low && position.elevation <= site.window->high &&
           in_arc(position.bearing, site.window->from, site.window->to);
}

namespace {

/// Stretches of the moments that have something in common, to half a minute.
template <typename Has>
std::vector<Stretch> stretches_with(double begin, double end, const Has& has) {
    constexpr double step = 240, fine = 30;  // s
    std::vector<Stretch> found;
    const auto edge = [&](double from, double to, bool at_from) {
        while (to - from > fine) {
            const double middle = (from + to) / 2;
            (has(middle) == at_from ? from : to) = middle;
        }
        return (from + to) / 2;
    };
    bool before = has(begin);
    if (before) found.push_back({.from = begin, .to = end});
    for (double from = begin; from < end; from += step) {
        const double to = std::min(end, from + step);
        const bool now = has(to);
        if (now == before) continue;
        const double at = edge(from, to, before);
        if (now)
            found.push_back({.from = at, .to = end});
        else
            found.back().to = at;
        before = now;
    }
    return found;
}

}  // namespace

std::vector<Stretch> shining(const shoot::Site& site, double begin, double end) {
    const auto place = place_of(site);
    if (!place) return {};
    return stretches_with(begin, end, [&](double at) { return reaches(site, position_at(*place, at)); });
}

double azimuth_of(double sun_bearing, double camera_bearing) {
    return std::remainder(camera_bearing + 180 - sun_bearing, 360);
}
double bearing_of(double azimuth, double camera_bearing) { return turned(camera_bearing + 180 - azimuth); }

From from_of(double azimuth) {
    constexpr double front = 50, side = 115, rim = 155;
    const double off = std::abs(azimuth);
    return off <= front ? From::front : off <= side ? From::side : off <= rim ? From::rim : From::behind;
}

const char* from_text(From from) {
    constexpr const char* texts[] = {"from the front", "from the side", "as a rim", "from behind"};
    return texts[static_cast<int>(from)];
}

const char* from_use(From from) {
    constexpr const char* texts[] = {"flat and clear: colour, labels", "brings out relief: bark, lichen, cloth",
                                     "draws an edge: hairs, fur, glass", "shines through petals, leaves and wings"};
    return texts[static_cast<int>(from)];
}

std::vector<Hours> hours_of(const shoot::Site& site, double camera_bearing, double begin, double end) {
    std::vector<Hours> hours;
    const auto place = place_of(site);
    if (!place) return hours;
    for (const From from : {From::front, From::side, From::rim, From::behind})
        for (const auto& stretch : stretches_with(begin, end, [&](double at) {
                 const auto position = position_at(*place, at);
                 return reaches(site, position) && from_of(azimuth_of(position.bearing, camera_bearing)) == from;
             }))
            hours.push_back({.from = from, .stretch = stretch});
    std::ranges::sort(hours, {}, [](const Hours& one) { return one.stretch.from; });
    return hours;
}

double light_by_table(double true_elevation, shoot::Sky sky) {
    const auto above = std::ranges::find_if(clear_sky, [&](const auto& row) { return row.first >= true_elevation; });
    double clear = clear_sky.back().second;
    if (above == clear_sky.begin())
        clear = above->second;
    else if (above != clear_sky.end()) {
        const auto& low = *(above - 1);
        clear = low.second + (above->second - low.second) * (true_elevation - low.first) / (above->first - low.first);
    }
    return clear - taken_by(sky, true_elevation);
}

double light_at(const shoot::Site& site, const Place& place, double moment) {
    const double table = light_by_table(position_at(place, moment).true_elevation, site.sky);
    if (!site.reading) return table;
    const auto at = moment_of(site.zone, date_at(site.zone, moment), site.reading->clock);
    if (!at) return table;
    return table + site.reading->ev100 - light_by_table(position_at(place, *at).true_elevation, site.sky);
}

double reading_holds(const shoot::Site& site, const Place& place, double moment) {
    constexpr double step = 60, longest = longest_hold;
    const double now = light_at(site, place, moment);
    const bool shone = reaches(site, position_at(place, moment));
    for (double after = step; after < longest; after += step) {
        if (std::abs(light_at(site, place, moment + after) - now) > third) return after;
        // A wall takes the sun at once, and three stops with it.
        if (site.sky != shoot::Sky::shade && reaches(site, position_at(place, moment + after)) != shone) return after;
    }
    return longest;
}

std::optional<double> shadow_length(const Position& position) {
    if (position.elevation <= 0) return std::nullopt;
    return 1 / std::tan(position.elevation * std::numbers::pi / 180);
}

light::Position seen_from(const Looks& looks, const light::Position& over_ground) {
    const double down = looks.down * light::degree;
    const light::Point at = light::place_of(over_ground);
    return light::position_of(
        {at.x(), at.y() * std::cos(down) - at.z() * std::sin(down), at.y() * std::sin(down) + at.z() * std::cos(down)});
}

light::Position over_ground(double down, const light::Position& seen) { return seen_from({.down = -down}, seen); }

namespace {

/// Degrees that the light is wide: the sun's disc, what haze makes of it, a sky. In the order of shoot::Sky.
double width_of(shoot::Sky sky) { return light::skies()[static_cast<std::size_t>(sky)].size; }

}  // namespace

shoot::Ambient ambient_at(const shoot::Site& site, const Place& place, double moment, const Looks& looks) {
    const auto position = position_at(place, moment);
    shoot::Ambient ambient;
    ambient.kind = shoot::AmbientKind::sky;
    ambient.ev100 = light_at(site, place, moment);
    ambient.size = reaches(site, position) ? width_of(site.sky) : width_of(shoot::Sky::shade);
    light::Position above = ambient.position;
    constexpr double open_sky = 65;  // degrees up, of the middle of what lights where the sun does not
    above.azimuth = azimuth_of(position.bearing, looks.bearing);
    above.elevation = reaches(site, position) ? std::clamp(position.elevation, 0.0, 90.0) : open_sky;
    ambient.position = seen_from(looks, above);
    return ambient;
}

}  // namespace poquito::sun
