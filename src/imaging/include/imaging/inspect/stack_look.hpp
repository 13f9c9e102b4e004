#pragma once

#include "imaging/inspect/focus_planes.hpp"
#include "imaging/inspect/own_motion.hpp"
#include "imaging/inspect/registration.hpp"

#include <functional>
#include <optional>
#include <vector>

/// The frames of a stack beside one another. Source: MODEL 11.
namespace poquito::imaging {

/// How a frame lies against the one before it.
struct Neighbour {
    bool found = false;  // else nothing could be told
    double shift_x = 0;  // px of the file at its middle, without the run's smooth drift
    double shift_y = 0;
    double turn = 0;   // degrees
    double scale = 1;  // as focusing has it
    double shift() const;
};

struct StackLook {
    std::vector<Neighbour> neighbours;  // one fewer than frames
    double steady = 0;                  // px: median of what is left of the shifts, the run's own unrest
    std::vector<double> uneven;         // stops of each frame from the run's median, place by place
    std::optional<FocusPlanes> planes;  // empty: too little detail, or fewer than three frames
    int tile = 1;                       // px of the file across a tile of `planes`
    /// Takes a place of the middle frame, whose net of tiles `planes` has, to each frame's; in px of the file.
    std::vector<Similarity> to_frame;
    std::vector<OwnMotion> own;  // what moves by itself; px of the file, in the middle frame

    /// The first frame in a new place, from 1 on: the index of its neighbour plus 1.
    bool moved(std::size_t neighbour) const;
};

/// Frames of one size, in the order in which they were focused. `spoilt`: those whose detail says nothing of focus, as
/// shaken ones; empty: none. `go_on` false ends it: empty.
std::optional<StackLook> look_at_stack(const std::vector<const FrameScan*>& frames,
                                       const std::vector<bool>& spoilt = {}, const std::function<bool()>& go_on = {});

/// Means over squares as large as a tile about each cell, so that a tile is read at one place.
CellMap spread_out(const CellMap& map);

/// What noise alone makes of detail at each level: the quiet end of what a run or a frame shows there.
CellMap noise_of(const std::vector<const FrameScan*>& frames, const CellMap& level,
                 CellMap FrameScan::*of = &FrameScan::detail);

}  // namespace poquito::imaging
