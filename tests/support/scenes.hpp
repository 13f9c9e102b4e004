#pragma once

#include "render/scene.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::test {

/// A lens of pupil scale 1 at 1:2, marked so that it works at `f_number`; the pupil far enough away for round numbers.
inline render::LensBlur lens_at(double f_number) {
    const double m = 0.5, distance = 300;
    return {.imaging = {.magnification = m,
                        .working_f_number = f_number,
                        .pupil_diameter = m * distance / f_number,
                        .pupil_scale = 1}};
}

/// A flat chart at one depth that fills the frame, lit to what `reflectance` says. Pixels of 5 um.
inline render::Scene chart(const render::LensBlur& lens, double depth,
                           std::function<double(imaging::Place, double detail)> reflectance) {
    render::Scene scene{.lens = lens, .frame_width = 24, .frame_height = 16, .pixel_pitch = 0.005};
    scene.nearest = scene.farthest = depth;
    scene.subject = [depth, reflectance](imaging::Place place, double detail) {
        render::Fragment fragment{.depth = static_cast<float>(depth)};
        fragment.albedo = imaging::Rgba::Constant(static_cast<float>(reflectance(place, detail)));
        return std::optional(fragment);
    };
    scene.lights = {{.amount = 1, .towards = {0, 0, -1, 0}}};
    scene.subject_key = {depth, lens.imaging.working_f_number};
    return scene;
}

/// Dark on the left of a line that leans by 5 degrees through the middle, bright on its right.
inline double slanted_edge(imaging::Place place, double detail) {
    const double across =
        place.x * std::cos(5 * 3.14159265358979 / 180) + place.y * std::sin(5 * 3.14159265358979 / 180);
    return 0.1 + 0.8 * std::clamp(across / (detail / 2) + 0.5, 0.0, 1.0);
}

}  // namespace poquito::test
