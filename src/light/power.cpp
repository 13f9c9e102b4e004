#include "light/power.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {

double nearest_setting(const PowerScale& scale, double wanted) {
    constexpr double rounding = 1e-9;  // steps: a third of a stop is not exact in binary
    const double last = std::floor(-std::log2(scale.least) / scale.step + rounding);
    const double n = std::ceil(-std::log2(wanted) / scale.step - 0.5 - rounding);
    return std::exp2(-std::clamp(n, 0.0, last) * scale.step);
}

}  // namespace poquito::light
