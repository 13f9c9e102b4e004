#include "optics/focus.hpp"

#include <boost/math/tools/polynomial.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <vector>

namespace poquito::optics {
namespace {

using Polynomial = boost::math::tools::polynomial<double>;

/// magnification(ring) = numerator(ring) / focal_length(ring), converter left out.
struct RationalMagnification {
    Polynomial numerator;
    Polynomial focal_length;
};

RationalMagnification as_rational(const Train& train);
std::vector<double> turning_points(const RationalMagnification& magnification);
std::vector<double> roots_in_unit_interval(const Polynomial& polynomial);

double magnification_at(const Train& train, double ring) { return focus_at_ring(train, ring).magnification; }

/// Roundings of the closed form stay far below this; a person's ring does not come near it.
bool same_magnification(double a, double b) { return std::abs(a - b) <= 1e-12 * std::max(1e-6, std::abs(b)); }

template <typename Function>
double root_between(const Function& function, double low, double high) {
    std::uintmax_t iterations = 200;
    const auto bracket =
        boost::math::tools::toms748_solve(function, low, high, boost::math::tools::eps_tolerance<double>(), iterations);
    return (bracket.first + bracket.second) / 2;
}

}  // namespace

FoundFocus find_focus(const Train& train, double wanted) {
    const auto magnification = as_rational(train);
    const double factor = train.converter ? train.converter->factor : 1;

    std::vector<double> stops = turning_points(magnification);
    stops.insert(stops.begin(), 0);
    stops.push_back(1);
    const auto excess = [&](double ring) {
        return magnification.numerator.evaluate(ring) / magnification.focal_length.evaluate(ring) - wanted / factor;
    };
    for (std::size_t i = 0; i < stops.size(); ++i) {
        if (same_magnification(magnification_at(train, stops[i]), wanted)) return {.ring = stops[i], .reached = true};
        if (i + 1 < stops.size() && !same_magnification(magnification_at(train, stops[i + 1]), wanted) &&
            excess(stops[i]) * excess(stops[i + 1]) < 0)
            return {.ring = root_between(excess, stops[i], stops[i + 1]), .reached = true};
    }
    const auto miss = [&](double ring) { return std::abs(magnification_at(train, ring) - wanted); };
    return {.ring = *std::ranges::min_element(stops, {}, miss), .reached = false};
}

MagnificationRange magnification_range(const Train& train) {
    const double at_infinity = magnification_at(train, 0);
    const double at_closest = magnification_at(train, 1);
    MagnificationRange range{.least = std::min(at_infinity, at_closest), .greatest = std::max(at_infinity, at_closest)};
    for (const double ring : turning_points(as_rational(train))) {
        range.least = std::min(range.least, magnification_at(train, ring));
        range.greatest = std::max(range.greatest, magnification_at(train, ring));
    }
    return range;
}

std::optional<double> ring_for_distance(const Train& train, double subject_to_sensor, double near_ring) {
    constexpr int intervals = 512;
    // Reciprocal distance, so that infinity is an ordinary end of the scale.
    const auto excess = [&](double ring) {
        const auto at = focus_at_ring(train, ring).subject_to_sensor;
        return (at ? 1 / *at : 0) - 1 / subject_to_sensor;
    };
    std::optional<double> best;
    const auto offer = [&](double ring) {
        if (!best || std::abs(ring - near_ring) < std::abs(*best - near_ring)) best = ring;
    };
    double low = 0;
    double at_low = excess(low);
    for (int i = 1; i <= intervals; ++i) {
        const double high = static_cast<double>(i) / intervals;
        const double at_high = excess(high);
        if (at_low == 0) offer(low);
        if (at_low * at_high < 0) offer(root_between(excess, low, high));
        low = high;
        at_low = at_high;
    }
    if (at_low == 0) offer(low);
    return best;
}

namespace {

RationalMagnification as_rational(const Train& train) {
    const auto infinity = focus_at_ring(train, 0);
    const auto closest = focus_at_ring(train, 1);
    const double power = train.closeup_power;
    const Polynomial ring{{0.0, 1.0}};
    const Polynomial focal{{infinity.focal_length, closest.focal_length - infinity.focal_length}};
    const Polynomial lens_magnification = train.lens.max_magnification * ring;
    const Polynomial extension = lens_magnification * focal + train.tubes;  // m_1 f_s
    // The front principal plane, e = S - v - h: the constant part from ring 0, v taken out, front travel put in.
    const Polynomial image_distance = focal + extension;
    const Polynomial front_travel =
        train.lens.focusing == Focusing::unit ? lens_magnification * focal : Polynomial{0.0};
    const Polynomial principal = front_travel - image_distance + (infinity.principal + infinity.image_distance);
    return {.numerator = extension - power * extension * principal + power * focal * image_distance,
            .focal_length = focal};
}

std::vector<double> turning_points(const RationalMagnification& m) {
    return roots_in_unit_interval(m.numerator.prime() * m.focal_length - m.numerator * m.focal_length.prime());
}

/// Between two neighbouring roots of the derivative a polynomial is monotonic and has at most one root.
std::vector<double> roots_in_unit_interval(const Polynomial& polynomial) {
    if (polynomial.size() < 2) return {};
    std::vector<double> stops = roots_in_unit_interval(polynomial.prime());
    stops.insert(stops.begin(), 0);
    stops.push_back(1);
    std::vector<double> roots;
    const auto value = [&](double ring) { return polynomial.evaluate(ring); };
    for (std::size_t i = 0; i + 1 < stops.size(); ++i)
        if (value(stops[i]) * value(stops[i + 1]) < 0) roots.push_back(root_between(value, stops[i], stops[i + 1]));
    return roots;
}

}  // namespace
}  // namespace poquito::optics
