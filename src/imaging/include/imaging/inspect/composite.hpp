#pragma once

#include "imaging/inspect/frame_scan.hpp"
#include "imaging/inspect/registration.hpp"
#include "imaging/inspect/rgb_picture.hpp"

#include <cstdint>
#include <functional>
#include <vector>

namespace poquito::imaging {

/// One frame of a stack as it goes into a composite.
struct CompositeFrame {
    RgbPicture picture;   // all of one size
    Similarity to_frame;  // from places of the composite to the frame's, pixels of `picture`
    double plane = 0;     // where it is focused, in the units of the depths; rising
};

/// A quick picture of what is sharp somewhere, to look at and not to deliver: each place as the two frames focused
/// nearest to its depth have it. `depths`: of a net of tiles over the composite, `tile` pixels of `picture` across, not
/// a number where nothing is known, which the tiles about it fill. Rows of red, green, blue from the top, of the size
/// of the pictures; empty: `go_on` ended it, or there is nothing to go by.
std::vector<std::uint8_t> composite(const std::vector<CompositeFrame>& frames, const CellMap& depths, double tile,
                                    const std::function<bool()>& go_on = {});

/// Unknown values as the mean of those about them, from the known ones outwards by so many tiles; as it is where none
/// is known.
CellMap filled(CellMap map, int tiles = 1 << 20);

}  // namespace poquito::imaging
