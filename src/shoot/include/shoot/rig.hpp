#pragma once

#include <optional>
#include <string>
#include <vector>

/// The gear of a shot as it is screwed together: ids of the kit, and how each piece is set. mm.
namespace poquito::shoot {

/// Focus is given one of two ways.
enum class FocusBy { ring, magnification };
struct Focus {
    FocusBy by = FocusBy::ring;
    double value = 0;  // ring position in [0, 1], or magnification of the whole train

    bool operator==(const Focus&) const = default;
};

struct BellowsSetting {
    std::string bellows;
    double extension = 35;  // mm, mount face to mount face
    std::string unknown;

    bool operator==(const BellowsSetting&) const = default;
};

/// A lens reversed on the front of the shot's lens.
struct FrontLens {
    std::string lens;
    std::optional<std::string> coupling_ring;  // empty: rim on rim, held by other means
    double ring = 0;
    double f_number = 2.8;               // marked, its own
    std::optional<double> focal_length;  // of a zoom
    std::string unknown;

    bool operator==(const FrontLens&) const = default;
};

/// What carries the rig; decides how much its length matters.
enum class Support { unstated, hand, small_head, sturdy_head };

/// How the camera is held: the sensor's long side level, or upright.
enum class Orientation { landscape, portrait };

/// Ids of kit. Pieces in mounting order, from the camera to the front.
struct Rig {
    std::string camera;
    std::optional<std::string> crop_mode;  // name of one of the camera's; empty: the whole sensor
    std::vector<std::string> tubes_behind_converter;
    std::optional<std::string> teleconverter;
    std::vector<std::string> tubes;
    std::optional<BellowsSetting> bellows;
    std::optional<std::string> reversing_ring;  // there: the lens is reversed
    std::string lens;
    std::optional<double> focal_length;  // of a zoom
    std::vector<std::string> closeup_lenses;
    std::optional<FrontLens> front_lens;
    std::vector<std::string> filters;  // from the lens outwards
    bool hood_off = false;             // of a lens whose record has one
    std::optional<std::string> rail;
    std::optional<std::string> stand;  // what the camera stands or hangs on
    Support support = Support::unstated;
    Orientation orientation = Orientation::landscape;
    double inclination = 0;  // degrees that it looks down: 0 level, 90 straight down, below 0 upwards
    Focus focus;
    std::string unknown;

    bool operator==(const Rig&) const = default;
};

}  // namespace poquito::shoot
