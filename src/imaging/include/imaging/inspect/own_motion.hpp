#pragma once

#include "imaging/inspect/registration.hpp"

#include <cstddef>
#include <vector>

/// What moves by itself between the frames of a stack while camera and subject stand: a leg, a hair in the draught, a
/// drop that dries. Source: MODEL 11.
namespace poquito::imaging {

/// An area of the run's middle frame, in pixels of the pictures that were compared, from the top left.
struct OwnMotion {
    std::size_t first = 0, last = 0;  // frames: it changed after the one, and not any more after the other
    int left = 0, top = 0, width = 0, height = 0;
};

/// `pictures` in local contrast, `to_frame` takes a place of the middle one to each, both from their middles.
/// `left_out`: those that tell nothing, as dark or shaken ones. `tile`: pixels across what is told apart.
std::vector<OwnMotion> own_motions(const std::vector<const GreyImage*>& pictures,
                                   const std::vector<Similarity>& to_frame, const std::vector<bool>& left_out,
                                   int tile);

}  // namespace poquito::imaging
