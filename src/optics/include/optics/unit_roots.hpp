#pragma once

#include <array>
#include <cstddef>
#include <span>

/// Real roots in [0, 1] of polynomials of at most the fourth degree, without an allocation.
namespace poquito::optics {

/// By rising power; what is not used is 0.
using Quartic = std::array<double, 5>;

constexpr double value_of(const Quartic& p, double x) { return p[0] + x * (p[1] + x * (p[2] + x * (p[3] + x * p[4]))); }

Quartic product(const Quartic& a, const Quartic& b);  // terms past the fourth power must vanish
Quartic derivative(const Quartic& p);

/// True: certainly no root in [0, 1] (all Bernstein coefficients have one sign). False says nothing.
bool has_one_sign(const Quartic& p);

/// Places where the sign changes, by rising x; a touching root may be left out.
struct UnitRoots {
    std::array<double, 4> at{};
    std::size_t count = 0;

    const double* begin() const { return at.data(); }
    const double* end() const { return at.data() + count; }
};
UnitRoots unit_roots(const Quartic& p);

}  // namespace poquito::optics
