#include "optics/stack.hpp"

#include "optics/diffraction.hpp"

#include <boost/math/constants/constants.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>

namespace poquito::optics {

double quarter_wave_depth(const Imaging& imaging, double wavelength) {
    const double ratio = imaging.working_f_number / imaging.magnification;
    return 4 * wavelength * ratio * ratio;
}

std::optional<double> contrast_depth(const Imaging& imaging, const ContrastRule& rule) {
    Defocus defocus{.frequency = 1 / (2 * rule.blur_limit),
                    .working_f_number = imaging.working_f_number,
                    .wavelength = rule.wavelength};
    const double in_focus = modulation_transfer(defocus);
    constexpr double nothing_to_keep = 0.1;  // MODEL 2
    if (in_focus < nothing_to_keep) return std::nullopt;

    // Up to its first zero the signed transfer is the modulation; it goes on below, so that however little is kept the
    // crossing is a change of sign and is not stepped over.
    const auto excess = [&](double image_defocus) {
        defocus.image_defocus = image_defocus;
        return optical_transfer(defocus) - rule.kept * in_focus;
    };
    // Steps well inside one swing of the integrand's cosine (half a turn over its whole range) pass no crossing. After
    // a whole turn the transfer is below 0 for any s: the integrand falls ever steeper, so of each swing the second
    // half weighs more. The search therefore ends within sixteen steps.
    const double s = defocus.frequency * rule.wavelength * imaging.working_f_number;
    const double n = imaging.working_f_number;
    const double half_turn = rule.wavelength * n * n / (s * (1 - s));
    constexpr int steps_of_half_turn = 8, most_steps = 2 * steps_of_half_turn;
    const double stride = half_turn / steps_of_half_turn;
    double low = 0;
    for (int i = 1; i < most_steps && excess(low + stride) > 0; ++i) low += stride;
    std::uintmax_t iterations = 100;
    const auto bracket = boost::math::tools::toms748_solve(excess, low, low + stride,
                                                           boost::math::tools::eps_tolerance<double>(44), iterations);
    return (bracket.first + bracket.second) / (imaging.magnification * imaging.magnification);
}

Steps plan_steps(const Span& span) {
    const double step = span.frame_depth * (1 - span.overlap);
    return {.step = step, .frames = std::max(1.0, std::ceil((span.depth - span.frame_depth) / step - 1e-9) + 1)};
}

std::optional<RingTravel> ring_travel(const Train& train, const FocusedTrain& at, const FocusTravel& travel) {
    if (!at.subject_to_sensor) return std::nullopt;
    const auto first = ring_for_distance(train, *at.subject_to_sensor + travel.first, at.ring);
    const auto last = ring_for_distance(train, *at.subject_to_sensor + travel.last, at.ring);
    if (!first || !last) return std::nullopt;
    const auto chief_ray_height = [&](double ring) {
        // The chief ray of unit slope: f (P + m_1)/P for a lens alone (MODEL 2).
        const auto focused = focus_at_ring(train, ring);
        return focused.whole.b - focused.whole.a * focused.stop.offset / focused.stop.scale;
    };
    const double scale = chief_ray_height(*last) / chief_ray_height(*first);
    return RingTravel{
        .first_ring = *first, .last_ring = *last, .scale_change = scale - 1, .crop = 1 - std::min(scale, 1 / scale)};
}

}  // namespace poquito::optics
