#pragma once

#include "plan/fwd.hpp"
#include "shoot/capture.hpp"

#include <optional>

/// A try that is a burst by hand: frames one after the other while the camera rocks through focus, or the camera's own
/// bracket, held. mm, s; chances 0 to 1.
namespace poquito::plan {

/// What holds its pace back, or its number of frames.
enum class BurstLimit { drive, shutter, flash, buffer };
const char* limit_name(BurstLimit limit);

/// Frames one after the other, each focused `step` farther than the one before it (0 while one rocks) and `every` s
/// later; the middle one where focus is wanted.
struct FrameRow {
    int frames = 10;
    double step = 0;
    double every = 0.1;
};
/// Where the plane of focus of the frame is that comes nearest to the wanted place, mm behind it, begun at a moment of
/// an even sway to and fro: `start` mm along its way there and back.
double nearest_focus(const shoot::HandHeld& sway, const FrameRow& row, double start);
/// How likely a row has a frame with that place in its depth, begun at any moment.
double row_odds(const shoot::HandHeld& sway, const FrameRow& row, double depth);

struct Burst {
    shoot::HandHeld sway;
    FrameRow row;  // those that come whole
    BurstLimit limit = BurstLimit::drive;
    double in_depth = 0;  // that one of them at least has the planned place in its depth

    double seconds() const;  // from the first to the last
};
/// Empty: a try is one frame, or no hand holds it.
std::optional<Burst> burst_of(const Plan& plan, const Report& report);

}  // namespace poquito::plan
