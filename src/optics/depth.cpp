#include "optics/depth.hpp"

#include <cmath>

namespace poquito::optics {

Imaging imaging_at(const FocusedTrain& at, double marked_f_number) {
    const auto pupil = entrance_pupil(at, marked_f_number);
    return {.magnification = at.magnification,
            .working_f_number = working_f_number(at, marked_f_number),
            .pupil_diameter = pupil.diameter,
            .pupil_scale = pupil.scale};
}

DepthOfField depth_of_field(const Imaging& imaging, double blur_limit) {
    const double m = imaging.magnification;
    const double thin = blur_limit * imaging.working_f_number / (m * m);
    const double q = blur_limit * imaging.pupil_scale / (m * imaging.pupil_diameter);
    DepthOfField depth;
    if (q > -1) depth.near = thin / (1 + q);
    if (q < 1) depth.far = thin / (1 - q);  // q >= 1: even infinity blurs less than the limit
    return depth;
}

std::optional<double> blur_disc(const Imaging& imaging, double behind) {
    const double m = imaging.magnification;
    const double a = imaging.pupil_diameter;
    const double denominator = a * imaging.working_f_number + m * behind * imaging.pupil_scale;
    if (denominator <= 0) return std::nullopt;
    return m * m * a * std::abs(behind) / denominator;
}

double blur_over_detail(const Imaging& imaging, double behind, double detail) {
    // A detail at b is imaged through the middle of the pupil at m Z/(Z + b), Z the pupil's distance from the plane of
    // focus; disc = m A' b/(Z + b) with the pupil A' seen through the close-up lens, and A'/Z = m/N_w.
    return imaging.magnification * behind / (imaging.working_f_number * detail);
}

double best_working_f_number(double magnification, double depth, double wavelength) {
    return magnification * std::sqrt(depth / (2 * 2.44 * wavelength));
}

}  // namespace poquito::optics
