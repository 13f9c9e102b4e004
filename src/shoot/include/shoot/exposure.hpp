#pragma once

#include <optional>
#include <string>

/// Stop, time and sensitivity of a shot.
namespace poquito::shoot {

/// What corrects an exposure.
enum class Lever { power, distance, stop, iso };

struct Exposure {
    double f_number = 8;  // marked
    double shutter = 1.0 / 125;
    double iso = 100;
    bool high_speed_sync = false;  // of the flashes that have it, past sync
    std::optional<double> kelvin;  // white that the camera is set to; empty: as the strongest light
    Lever lever = Lever::power;    // what this photographer reaches for first when a frame is too bright or too dark
    std::string unknown;

    bool operator==(const Exposure&) const = default;
};

/// Settings prepared for when the light changes, sun to cloud or back: one key takes them and keeps those of before.
struct OtherLight {
    double ev100 = 12;
    Exposure exposure;
    std::string unknown;

    bool operator==(const OtherLight&) const = default;
};

}  // namespace poquito::shoot
