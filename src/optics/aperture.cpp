#include "optics/aperture.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::optics {
namespace {

/// Half the reciprocal of the marginal ray's slope at the sensor. That ray leaves the axis at the subject, is
/// diameter / 2 high in the pupil and 0 at the sensor; the determinants of the matrices being 1, no distance is needed.
double f_number_of(const FocusedTrain& at, const StopSight& stop) {
    return std::abs(stop.scale * at.whole.b - stop.offset * at.whole.a) / stop.diameter;
}

}  // namespace

double working_factor(const FocusedTrain& at) { return f_number_of(at, at.stop); }

double own_f_number(const Train& train, const FocusedTrain& at, double marked_f_number) {
    const Lens& lens = train.lens;
    if (lens.closest_working_f_number)
        return marked_f_number * (1 + at.ring * (*lens.closest_working_f_number / lens.max_aperture - 1));
    return marked_f_number * (1 + at.lens_magnification / lens.pupil_magnification);
}

double working_f_number(const FocusedTrain& at, double marked_f_number) {
    return std::max(marked_f_number * working_factor(at), front_working_f_number(at).value_or(0));
}

std::optional<double> front_working_f_number(const FocusedTrain& at) {
    return at.front_stop ? std::optional(f_number_of(at, *at.front_stop)) : std::nullopt;
}

double exposure_loss(const FocusedTrain& at, double marked_f_number) {
    return 2 * std::log2(working_f_number(at, marked_f_number) / marked_f_number);
}

EntrancePupil entrance_pupil(const FocusedTrain& at, double marked_f_number) {
    const bool front_limits =
        at.front_stop && f_number_of(at, *at.front_stop) > marked_f_number * f_number_of(at, at.stop);
    const StopSight& stop = front_limits ? *at.front_stop : at.stop;
    return {.diameter = front_limits ? stop.diameter : stop.diameter / marked_f_number,
            .scale = stop.scale,
            .behind_front = stop.offset / stop.scale};
}

}  // namespace poquito::optics
