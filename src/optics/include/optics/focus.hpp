#pragma once

#include "optics/train.hpp"

namespace poquito::optics {

/// Where the ring goes for a wanted magnification.
struct FoundFocus {
    double ring = 0;  // the smallest ring position that gives it; else the one that comes nearest
    bool reached = false;
};

/// `wanted` is the magnification of the whole train, at least 0. Exact: the magnification times the focal length is a
/// polynomial of at most the fourth degree in the ring position (between two readings of the lens), whose roots are
/// isolated between its turning points, so no crossing is missed even where close-up lenses make the magnification fall
/// and rise again.
FoundFocus find_focus(const Train& train, double wanted);

struct MagnificationRange {
    double least = 0;
    double greatest = 0;
};

/// Over the whole travel of the ring, turning points included.
MagnificationRange magnification_range(const Train& train);

/// The ring position nearest to `near_ring` at which the plane of focus lies `subject_to_sensor` from the sensor; empty
/// where the ring cannot bring it there. For a fixed sensor, as when a stack is focused by the ring. Searched on 512
/// intervals of the ring; two crossings inside one interval count as none.
std::optional<double> ring_for_distance(const Train& train, double subject_to_sensor, double near_ring);

}  // namespace poquito::optics
