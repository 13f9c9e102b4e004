#pragma once

#include <optional>
#include <string>
#include <vector>

/// Where a shoot takes place and when, as the sun sees it. Degrees; bearings clockwise from north.
namespace poquito::shoot {

/// A wall, a roof, a row of trees: the sun stands behind it below that height.
struct Obstacle {
    double from = 90;  // bearing of its left end, seen from the set
    double to = 120;   // of its right end
    double height = 20;
    std::string unknown;

    bool operator==(const Obstacle&) const = default;
};

/// What alone the sun comes through to the set.
struct SunWindow {
    double from = 90;
    double to = 180;
    double low = 0;    // of its sill, seen from the set
    double high = 60;  // of its lintel
    std::string unknown;

    bool operator==(const SunWindow&) const = default;
};

/// What of the sun's light comes down.
enum class Sky { clear, hazy, cloudy, overcast, shade };

/// What a meter read of the light that is there, at that time of day: it replaces the table.
struct LightReading {
    double ev100 = 14;
    double clock = 12 * 3600;  // s after midnight
    std::string unknown;

    bool operator==(const LightReading&) const = default;
};

struct Site {
    std::string name;                 // "Saltmarsh"; empty: not said
    std::optional<double> latitude;   // north
    std::optional<double> longitude;  // east; both or none
    std::string zone;                 // of the IANA's list, "Europe/Dublin"; empty: that of this machine
    std::string date;                 // ISO 8601; empty: any day
    std::vector<Obstacle> obstacles;
    Sky sky = Sky::clear;
    std::optional<LightReading> reading;  // empty: by the table
    std::optional<SunWindow> window;      // empty: all of the sky
    std::string unknown;

    bool operator==(const Site&) const = default;
};

}  // namespace poquito::shoot

// Written out once, in shoot.cpp, not in every file that copies a shoot.
extern template class std::vector<poquito::shoot::Obstacle>;
