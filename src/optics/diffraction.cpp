#include "optics/diffraction.hpp"

#include <boost/math/constants/constants.hpp>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>

#include <algorithm>
#include <cmath>

namespace poquito::optics {

using boost::math::double_constants::pi;

namespace {

/// The frequency as a share of the cut-off and the phase that defocus adds, as the header's integral has them.
struct Overlap {
    double s = 0;
    double a = 0;
    /// x + s = cos t takes the square root's steep end out of the integrand, which is then smooth.
    double operator()(double t) const {
        const double sine = std::sin(t);
        return sine * sine * std::cos(a * (std::cos(t) - s));
    }
};
Overlap overlap_of(const Defocus& defocus) {
    const double n = defocus.working_f_number;
    const double s = defocus.frequency * defocus.wavelength * n;
    const double w20 = std::abs(defocus.image_defocus) / (8 * n * n);
    return {.s = s, .a = 2 * pi / defocus.wavelength * w20 * 4 * s};
}

}  // namespace

double airy_diameter(double working_f_number, double wavelength) { return 2.44 * wavelength * working_f_number; }

double modulation_transfer(const Defocus& defocus) {
    const Overlap overlap = overlap_of(defocus);
    const double s = overlap.s;
    if (s >= 1) return 0;
    if (defocus.image_defocus == 0) return 2 / pi * (std::acos(s) - s * std::sqrt(1 - s * s));
    // Past so many half turns the halvings below run out; panels of half a turn each do not.
    constexpr double many_half_turns = 256;
    if (overlap.a * (1 - s) > many_half_turns * pi) return std::min(1.0, std::abs(optical_transfer(defocus)));
    using Quadrature = boost::math::quadrature::gauss_kronrod<double, 31>;
    constexpr unsigned halvings = 12;
    constexpr double tolerance = 1e-12;
    return std::min(1.0, std::abs(4 / pi * Quadrature::integrate(overlap, 0.0, std::acos(s), halvings, tolerance)));
}

double optical_transfer(const Defocus& defocus) {
    const Overlap overlap = overlap_of(defocus);
    if (overlap.s >= 1) return 0;
    // Ten nodes follow a cosine of one turn to 1e-9; the phase turns by at most a (1 - s) over the whole range.
    using Quadrature = boost::math::quadrature::gauss<double, 10>;
    const double end = std::acos(overlap.s);
    // So many half turns leave nothing that could be seen: the transfer falls off as their number to the power of 1.5.
    constexpr double most_half_turns = 4096;
    const double half_turns = overlap.a * (1 - overlap.s) / pi;
    if (!(half_turns < most_half_turns)) return 0;
    const int panels = 1 + static_cast<int>(half_turns);
    double sum = 0;
    for (int i = 0; i < panels; ++i) sum += Quadrature::integrate(overlap, end * i / panels, end * (i + 1) / panels);
    return 4 / pi * sum;
}

}  // namespace poquito::optics
