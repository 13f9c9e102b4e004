#pragma once

#include <optional>
#include <vector>

/// The colour of light: kelvin, mired (10^6 / K) and gels, which add theirs. Source: MODEL 6.
namespace poquito::light {

inline double mired_of(double kelvin) { return 1e6 / kelvin; }

/// Mired that light of one colour is warmer than another; negative: cooler.
inline double warmer_by(double kelvin, double than_kelvin) { return mired_of(kelvin) - mired_of(than_kelvin); }

/// Sources further apart than this show as colour (common practice).
inline constexpr double seen_as_colour = 50;

/// What gels are sold as; values common practice, from memory.
struct Gel {
    const char* name;
    double mired;  // positive: warmer
};
const std::vector<Gel>& gels();

/// The gel that comes nearest to so many mired, none where that is nearest.
std::optional<Gel> nearest_gel(double mired);

}  // namespace poquito::light
