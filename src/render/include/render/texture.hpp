#pragma once

#include "shoot/form/texture.hpp"

namespace poquito::render {

/// A pattern with detail at every size between two, as stone, cloth and skin have it; the same for the same place.
struct Detail {
    double coarsest = 10;  // mm
    double finest = 0.01;  // at most `coarsest`
};
/// About -1 to 1, its mean near 0.
double texture(double x, double y, const Detail& detail);

/// Fine lines with sharp edges, of every size between the two: 0 beside them, 1 on one. What tells sharp from soft at a
/// glance.
double veins(double x, double y, const Detail& detail);

/// How much brighter or darker than its mean that kind of surface is at a place: about -1 to 1, and nothing smaller
/// than the finest detail. Of `ticks`, whole millimetres of x lie on one.
double pattern_of(shoot::Texture kind, double x, double y, const Detail& detail);

}  // namespace poquito::render
