#pragma once

#include "imaging/raster.hpp"
#include "imaging/render/scene.hpp"

namespace poquito::imaging {

/// What a sheet at one depth goes through on its way to the sensor: the lens, and the subject's movement along a row.
struct Transfer {
    LensBlur lens;
    double disc = 0;       // diameter of the blur disc by defocus, mm at the sensor
    double motion = 0;     // mm
    double pitch = 0.001;  // mm at the sensor a pixel of the raster
    /// The pixels are means over their squares and are gone between straight later (lay_over): made up for.
    bool coarse = false;
};

/// The raster blurred by the exact transfer function (optics::optical_transfer). What leaves at one edge comes in at
/// the other: leave a margin of half the disc. All four channels alike.
void transfer(Raster& picture, const Transfer& transfer);

/// Not below `least`, and quickly transformed.
int good_size(int least);

}  // namespace poquito::imaging
