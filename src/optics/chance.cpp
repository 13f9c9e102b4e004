#include "optics/chance.hpp"

#include <boost/math/constants/constants.hpp>
#include <boost/math/special_functions/erf.hpp>

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::optics {
namespace {

using boost::math::double_constants::pi;

}  // namespace

double sharp_share(const SwingAcross& swing) {
    const double path = swing.magnification * swing.amplitude;
    if (!(path > 0) || !(swing.exposure > 0)) return 1;
    const double r = swing.limit / path, e = pi * swing.frequency * swing.exposure;
    if (r >= 2) return 1;
    // A path without a turn in it is longest in the middle; one about a turn is told from there.
    if (e < pi / 2 && r >= 2 * std::pow(std::sin(e), 2))
        return 2 / pi * std::asin(std::min(1.0, r / (2 * std::sin(e))));
    return 2 / pi * std::clamp(std::acos(1 - r) - e, 0.0, pi / 2);
}

double share_within(double amplitude, double half_depth) {
    if (!(amplitude > 0)) return 1;
    return 2 / pi * std::asin(std::clamp(half_depth / amplitude, 0.0, 1.0));
}

double steady_share(double blur, double limit) {
    if (!(blur > 0)) return 1;
    return -std::expm1(-std::pow(limit / blur, 2));
}

double scatter_within(double deviation, double half) { return scatter_between(deviation, half, half); }

double scatter_between(double deviation, double nearer, double farther) {
    if (!(deviation > 0)) return nearer >= 0 && farther >= 0 ? 1 : 0;
    const double scale = deviation * boost::math::double_constants::root_two;
    return std::max(0.0, (boost::math::erf(nearer / scale) + boost::math::erf(farther / scale)) / 2);
}

double kept_share(double measure, double felt, double spoilt) {
    if (!(measure > 0)) return 1;
    const double steep = 2 * std::log(9.0) / std::log(spoilt / felt);
    return 1 / (1 + std::pow(measure / std::sqrt(felt * spoilt), steep));
}

double tries_for(double chance, double wanted) {
    if (!(chance > 0)) return std::numeric_limits<double>::infinity();
    if (chance >= wanted) return 1;
    constexpr double as_good_as_whole = 1e-9;
    return std::max(1.0, std::ceil(std::log1p(-wanted) / std::log1p(-chance) - as_good_as_whole));
}

double chance_of_any(double chance, double tries) {
    if (chance >= 1) return tries > 0 ? 1 : 0;
    return -std::expm1(tries * std::log1p(-chance));
}

std::optional<CountedShare> counted_share(int kept, int tried) {
    if (tried <= 0) return std::nullopt;
    constexpr double z = 1.6448536269514722;  // of the normal law, 5 % to either side
    const double n = tried, p = std::clamp(kept / n, 0.0, 1.0);
    const double middle = (p + z * z / (2 * n)) / (1 + z * z / n);
    const double half = z / (1 + z * z / n) * std::sqrt(p * (1 - p) / n + z * z / (4 * n * n));
    return CountedShare{.share = p, .least = std::max(0.0, middle - half), .greatest = std::min(1.0, middle + half)};
}

}  // namespace poquito::optics
