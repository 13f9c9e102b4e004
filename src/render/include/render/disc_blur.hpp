#pragma once

#include "imaging/raster.hpp"

/// Blur on a raster of pixels. The sum of the light stays the same except for what leaves at the edges, where the outer
/// pixels are taken to go on.
namespace poquito::render {

/// Each point becomes a uniform disc of that diameter, in pixels. Exact for the area each pixel row cuts from
/// the disc; large discs are worked out on a coarser raster, 5 or more of its pixels across the radius.
void blur_by_disc(imaging::Raster& picture, double diameter);

/// Each point becomes a line along its row; or along its column.
void draw_out(imaging::Raster& picture, double length);
void draw_out_upright(imaging::Raster& picture, double length);

/// Each point becomes a bell curve of standard deviation `sigma` pixels, at most 2.
void blur_by_bell(imaging::Raster& picture, double sigma);

/// Where a pixel of a grid `factor` times as fine lies between those of a coarse row or column of `last` + 1.
struct Between {
    int before = 0;
    int after = 0;
    float part = 0;  // of the way from the one to the other
};
Between between_pixels(int fine, int factor, int last);

/// Part of a raster as it is on a grid `factor` times as fine; the numbers are pixels of that.
struct FinePart {
    int factor = 1;
    int left = 0;
    int top = 0;
    int width = 0;
    int height = 0;
};
void enlarge(const imaging::Raster& coarse, const FinePart& part, imaging::Raster& out);
/// The same laid over what is there: `part` of it over as many pixels of `picture`, from its pixel `left`, `top` on;
/// its light so many times as bright.
void lay_over(imaging::Raster& picture, int left, int top, const imaging::Raster& coarse, const FinePart& part,
              float brighter = 1);

/// Adds a uniform disc of light, sharp-edged to parts of a pixel. `flux`: its light summed over all pixels.
struct LightDisc {
    double x = 0;  // pixels from the left edge of the raster
    double y = 0;  // and from its top
    double diameter = 1;
    imaging::Rgba flux = imaging::Rgba::Zero();
};
void add_disc(imaging::Raster& picture, const LightDisc& disc);

}  // namespace poquito::render
