#include "optics/unit_roots.hpp"

#include <boost/math/tools/toms748_solve.hpp>

#include <cstdint>

namespace poquito::optics {
namespace {

double root_between(const Quartic& p, double low, double high) {
    std::uintmax_t iterations = 200;
    const auto bracket = boost::math::tools::toms748_solve([&](double x) { return value_of(p, x); }, low, high,
                                                           boost::math::tools::eps_tolerance<double>(), iterations);
    return (bracket.first + bracket.second) / 2;
}

/// Between two neighbouring roots of the derivative a polynomial is monotonic and has at most one root.
UnitRoots isolate(const Quartic& p, int degree) {
    UnitRoots roots;
    if (degree == 0 || has_one_sign(p)) return roots;
    const UnitRoots turns = isolate(derivative(p), degree - 1);
    double low = 0, at_low = value_of(p, 0);
    for (std::size_t i = 0; i <= turns.count; ++i) {
        const double high = i < turns.count ? turns.at[i] : 1;
        const double at_high = value_of(p, high);
        if (at_low * at_high < 0) roots.at[roots.count++] = root_between(p, low, high);
        low = high;
        at_low = at_high;
    }
    return roots;
}

}  // namespace

Quartic product(const Quartic& a, const Quartic& b) {
    Quartic p{};
    for (std::size_t i = 0; i < a.size(); ++i)
        for (std::size_t j = 0; i + j < p.size(); ++j) p[i + j] += a[i] * b[j];
    return p;
}

Quartic derivative(const Quartic& p) { return {p[1], 2 * p[2], 3 * p[3], 4 * p[4], 0}; }

bool has_one_sign(const Quartic& p) {
    // Coefficients over the Bernstein basis of degree 4; the polynomial lies in their hull.
    const double b[] = {p[0], p[0] + p[1] / 4, p[0] + p[1] / 2 + p[2] / 6, p[0] + p[1] * 0.75 + p[2] / 2 + p[3] / 4,
                        p[0] + p[1] + p[2] + p[3] + p[4]};
    bool above = true, below = true;
    for (const double coefficient : b) {
        above &= coefficient > 0;
        below &= coefficient < 0;
    }
    return above || below;
}

UnitRoots unit_roots(const Quartic& p) { return isolate(p, 4); }

}  // namespace poquito::optics
