#pragma once

#include <optional>
#include <vector>

/// Where the sun stands, for a place and a moment. Degrees; bearings clockwise from north; moments in s since
/// 1970-01-01 UTC, without leap seconds. Source: MODEL 10.
namespace poquito::sun {

struct Place {
    double latitude = 0;   // north
    double longitude = 0;  // east
};

struct Position {
    double elevation = 0;       // of its middle over the horizon, as refraction lifts it (1010 mbar, 10 degrees C)
    double true_elevation = 0;  // without refraction
    double bearing = 0;         // 0 to 360
};
Position position_at(const Place& place, double moment);

/// What refraction adds to a true elevation; none below half a degree under the horizon.
/// Source: Saemundsson's formula, as in Meeus, Astronomical Algorithms, 16.4.
double refraction(double true_elevation);

/// From one moment to a later one.
struct Stretch {
    double from = 0;
    double to = 0;
};

/// Of true elevations: golden light from -4 to 6, blue from -6 to -4 (common practice).
inline constexpr double horizon = -0.833, golden_low = -4, golden_high = 6, blue_low = -6;

/// What the sun does from `begin` to `end`, a local day. What does not happen is empty; of two the first.
struct Day {
    double begin = 0;
    double end = 0;
    std::optional<double> rise;
    std::optional<double> set;
    std::optional<double> noon;  // it passes the meridian
    std::vector<Stretch> golden;
    std::vector<Stretch> blue;
};
Day day_of(const Place& place, double begin, double end);

/// The parts of `day` in which its true elevation lies within the two.
std::vector<Stretch> between(const Place& place, double begin, double end, double low, double high);

}  // namespace poquito::sun
