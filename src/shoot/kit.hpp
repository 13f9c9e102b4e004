#pragma once

#include "light/duration.hpp"
#include "light/power.hpp"
#include "optics/blur_limit.hpp"
#include "optics/train.hpp"

#include <string>
#include <vector>

/// The gear a shoot can choose from. Lengths in mm, times in s. `unknown` in each record holds the members of the file
/// that this version does not know, as JSON text, to be given back on save; empty where there are none.
namespace poquito::shoot {

/// Which f-number the camera shows when the lens is extended.
enum class ApertureDisplay { marked, working };

/// Where the camera's own focus bracketing begins.
enum class BracketStart { nearest, centre };

struct Bracket {
    int max_frames = 1;
    int composite_max_frames = 0;  // frames its own composite takes; 0: it makes none
    BracketStart start = BracketStart::nearest;
    std::string unknown;

    bool operator==(const Bracket&) const = default;
};

struct Camera {
    std::string id;
    std::string name;
    optics::Sensor sensor;
    double flange = 44;       // mount face to sensor
    double sync = 1.0 / 200;  // s, fastest shutter for flash
    ApertureDisplay aperture_display = ApertureDisplay::marked;
    double frame_mb = 30;  // data of one frame, megabytes
    Bracket bracket;
    std::string unknown;

    bool operator==(const Camera&) const = default;
};

struct Lens {
    std::string id;
    std::string name;
    optics::Lens optics;
    double filter_thread = 52;
    std::string unknown;

    bool operator==(const Lens&) const = default;
};

struct Tube {
    std::string id;
    std::string name;
    double length = 12;
    bool contacts = true;  // carries the signals of autofocus and aperture
    std::string unknown;

    bool operator==(const Tube&) const = default;
};

struct CloseupLens {
    std::string id;
    std::string name;
    double power_dpt = 2;  // dioptres, 1/m
    double thread = 52;
    std::string unknown;

    bool operator==(const CloseupLens&) const = default;
};

struct Teleconverter {
    std::string id;
    std::string name;
    optics::Converter optics;
    std::string unknown;

    bool operator==(const Teleconverter&) const = default;
};

struct Flash {
    std::string id;
    std::string name;
    double guide_number = 20;  // metres at ISO 100, full power
    light::PowerScale scale;
    light::Discharge discharge = light::Discharge::cut;
    std::vector<light::Duration> durations;
    double recycle_full = 2;  // s after full power
    std::string unknown;

    bool operator==(const Flash&) const = default;
};

struct Modifier {
    std::string id;
    std::string name;
    double loss = 1;        // stops
    double diameter = 150;  // of the luminous face
    std::string unknown;

    bool operator==(const Modifier&) const = default;
};

struct Kit {
    std::vector<Camera> cameras;
    std::vector<Lens> lenses;
    std::vector<Tube> tubes;
    std::vector<CloseupLens> closeup_lenses;
    std::vector<Teleconverter> teleconverters;
    std::vector<Flash> flashes;
    std::vector<Modifier> modifiers;
    std::string unknown;

    bool operator==(const Kit&) const = default;
};

/// The piece with that id; null where the list has none.
template <typename Gear>
const Gear* find_gear(const std::vector<Gear>& list, const std::string& id) {
    for (const Gear& gear : list)
        if (gear.id == id) return &gear;
    return nullptr;
}

}  // namespace poquito::shoot
