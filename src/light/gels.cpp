#include "light/gels.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {

const std::vector<Gel>& gels() {
    static const std::vector<Gel> all = {
        {"full warming", 159},  {"half warming", 81},  {"quarter warming", 42},
        {"full cooling", -137}, {"half cooling", -68}, {"quarter cooling", -35},
    };
    return all;
}

std::optional<Gel> nearest_gel(double mired) {
    const auto best = std::ranges::min_element(gels(), {}, [&](const Gel& gel) { return std::abs(gel.mired - mired); });
    return std::abs(best->mired - mired) < std::abs(mired) ? std::optional(*best) : std::nullopt;
}

}  // namespace poquito::light
