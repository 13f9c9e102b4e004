#pragma once

#include "imaging/fourier.hpp"
#include "imaging/raster.hpp"
#include "render/scene.hpp"

namespace poquito::render {

/// What a sheet at one depth goes through on its way to the sensor: the lens, and the subject's movement along a row.
struct Transfer {
    LensBlur lens;
    double disc = 0;       // diameter of the blur disc by defocus, mm at the sensor
    double motion = 0;     // mm along x
    double fall = 0;       // mm along y
    double pitch = 0.001;  // mm at the sensor a pixel of the raster
    /// The pixels are means over their squares and are gone between straight later (lay_over): made up for.
    bool coarse = false;
};

/// A raster taken apart into its frequencies: what stays of a sheet while only the lens changes. The four channels as
/// two complex pictures: a filter that is real and the same to all sides keeps real and imaginary parts apart.
struct Spectrum {
    int width = 0;
    int height = 0;
    imaging::Plane red_green, blue_cover;
};
void take_apart(const imaging::Raster& picture, Spectrum& spectrum);

/// The spectrum's raster, blurred by the exact transfer function (optics::optical_transfer). What leaves at one edge
/// comes in at the other: leave a margin of half the disc. All four channels alike.
void transfer(const Spectrum& spectrum, const Transfer& transfer, imaging::Raster& out);
void transfer(imaging::Raster& picture, const Transfer& transfer);

/// Not below `least`, and quickly transformed.
int good_size(int least);

}  // namespace poquito::render
