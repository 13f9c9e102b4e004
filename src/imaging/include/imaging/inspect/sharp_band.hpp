#pragma once

#include "imaging/inspect/grey_image.hpp"

#include <optional>

namespace poquito::imaging {

/// Where a rule that leans away from the camera is sharp: the row, in pixels from the middle of the top one, about
/// which the differences between neighbours (their squares, smoothed over a twentieth of the height) are largest.
/// Empty where no row stands out from the others by half.
struct SharpBand {
    double row = 0;
    double uncertainty = 0;  // pixels: a twentieth of the band's own height
};
std::optional<SharpBand> sharp_band(const GreyImage& image);

/// mm that focus went along the axis between two pictures of a rule that leans back by `tilt` degrees, from the rows at
/// which each is sharp: a way d in the picture is d * pitch / m across the axis and that times tan(tilt) along it.
double travel_along_axis(double rows, double pixel_pitch, double magnification, double tilt);

}  // namespace poquito::imaging
