#include "optics/train.hpp"

#include <cmath>
#include <limits>

namespace poquito::optics {
namespace {

/// Sensor to subject over focal length of a thin lens at magnification M.
double conjugate_sum(double magnification) { return 2 + magnification + 1 / magnification; }

double principal_separation(const Lens& lens) {
    if (lens.focusing == Focusing::internal) return lens.hiatus;
    return lens.closest_focus - lens.focal_length * conjugate_sum(lens.max_magnification);
}

double focal_length_at(const Lens& lens, double ring) {
    if (lens.focusing == Focusing::unit) return lens.focal_length;
    const double closest = (lens.closest_focus - lens.hiatus) / conjugate_sum(lens.max_magnification);
    return lens.focal_length + ring * (closest - lens.focal_length);
}

std::optional<double> if_finite(double length) { return std::isfinite(length) ? std::optional(length) : std::nullopt; }

}  // namespace

FocusedTrain focus_at_ring(const Train& train, double ring) {
    const Lens& lens = train.lens;
    FocusedTrain at;
    at.ring = ring;
    at.focal_length = focal_length_at(lens, ring);
    at.lens_magnification = ring * lens.max_magnification;
    at.extended_magnification = at.lens_magnification + train.tubes / at.focal_length;
    at.image_distance = at.focal_length * (1 + at.lens_magnification) + train.tubes;

    const double travel = lens.focusing == Focusing::unit ? lens.focal_length * at.lens_magnification : 0;
    const double front = train.flange + train.tubes + lens.length + travel;
    at.principal = front - at.image_distance - principal_separation(lens);

    const double m1 = at.extended_magnification;
    const double power = train.closeup_power;
    const double factor = train.converter ? train.converter->factor : 1;
    at.magnification = factor * (m1 * (1 - power * at.principal) + power * at.focal_length * (1 + m1));
    at.front = front + (train.converter ? train.converter->length : 0);

    // At infinity 1/m1 is infinite: its reciprocal vanishes and leaves the close-up lens's own focal length.
    const double to_rim =
        m1 > 0 ? at.focal_length * (1 + 1 / m1) - at.principal : std::numeric_limits<double>::infinity();
    at.working_distance = if_finite(1 / (power + 1 / to_rim));
    if (at.working_distance) at.subject_to_sensor = at.front + *at.working_distance;
    return at;
}

}  // namespace poquito::optics
