#pragma once

#include "imaging/inspect/frame_scan.hpp"

#include <optional>
#include <vector>

namespace poquito::imaging {

/// Of each frame, in the order in which they were focused, how much middling detail it has against coarse, by the
/// logarithm of their squares, less what the two beside it have there in the mean: the median over the places where all
/// three show some. About 0 and above as focus goes through a stack, far below where a frame was shaken or not focused.
/// Empty: the first and the last, and where too little shows detail. Maps of one size.
std::vector<std::optional<double>> detail_against_neighbours(const std::vector<const FrameScan*>& frames);

}  // namespace poquito::imaging
