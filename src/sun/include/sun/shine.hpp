#pragma once

#include "light/position.hpp"
#include "shoot/shoot.hpp"
#include "sun/almanac.hpp"

#include <optional>
#include <string>
#include <vector>

/// The sun at a set: when it comes over what stands there or through the window, from which side of the camera, and how
/// bright it is. Source: MODEL 10.
namespace poquito::sun {

/// Empty: the site has no place.
std::optional<Place> place_of(const shoot::Site& site);

/// Over the horizon, over each obstacle, and within the window where there is one.
bool reaches(const shoot::Site& site, const Position& position);
/// The stretches in which it does, to half a minute.
std::vector<Stretch> shining(const shoot::Site& site, double begin, double end);

/// Where it stands as the model has lights: degrees from the camera's side of the axis towards the camera's right, -180
/// to 180.
double azimuth_of(double sun_bearing, double camera_bearing);
double bearing_of(double azimuth, double camera_bearing);  // and back, 0 to 360

/// Which light that is, by how far it stands from the camera's side (common practice): to 50 degrees from the front, to
/// 115 from the side, to 155 a rim, beyond from behind: through what is thin.
enum class From { front, side, rim, behind };
From from_of(double azimuth);
const char* from_text(From from);  // for people: "from the side"
const char* from_use(From from);   // what it is good for

/// The hours in which the sun reaches the set from one side, for a camera that looks towards a bearing.
struct Hours {
    From from = From::front;
    Stretch stretch;
};
std::vector<Hours> hours_of(const shoot::Site& site, double camera_bearing, double begin, double end);

/// EV at ISO 100 of what the sky lights, a dome meter turned to it: tables of common practice (clear sun 15 high in the
/// sky, 14 hazy, 13 cloudy, 12 overcast and in open shade), less as it sinks, moonless night from -12 degrees.
double light_by_table(double true_elevation, shoot::Sky sky);
/// The same, brought to what a meter read, where one did: by the shift at that hour.
double light_at(const shoot::Site& site, const Place& place, double moment);

/// How long a reading holds from that moment on, s, within a third of a stop; at most 4 hours.
inline constexpr double longest_hold = 4 * 3600;
double reading_holds(const shoot::Site& site, const Place& place, double moment);

/// Length of the shadow of what stands upright, over its height. Empty: the sun is down.
std::optional<double> shadow_length(const Position& position);

/// Where the camera looks: towards a bearing, and so many degrees down.
struct Looks {
    double bearing = 0;
    double down = 0;
};
/// A direction over level ground as the camera has it, and back.
light::Position seen_from(const Looks& looks, const light::Position& over_ground);
light::Position over_ground(double down, const light::Position& seen);

/// The light that is there as the plan has it: direction, width and reading. Where the sun does not reach the set, the
/// open sky above it.
shoot::Ambient ambient_at(const shoot::Site& site, const Place& place, double moment, const Looks& looks);

}  // namespace poquito::sun
