#pragma once

#include <string>

/// A slow thing taken again and again, to be shown fast: a bud, ice, dye, mould.
namespace poquito::shoot {

struct Lapse {
    double length = 24 * 3600;      // s from the first frame to the last
    double interval = 120;          // s from one frame, or stack, to the next
    double frames_per_second = 25;  // as it is shown
    double drift = 0;               // stops an hour that the light that is there gets brighter
    bool follows = false;           // the exposure goes with it, so much a frame; else it stays
    double growth = 0;              // mm an hour across the frame
    double growth_depth = 0;        // mm an hour towards the camera
    bool lamps_rest = true;         // lamps go off between frames
    std::string unknown;

    bool operator==(const Lapse&) const = default;
};

}  // namespace poquito::shoot
