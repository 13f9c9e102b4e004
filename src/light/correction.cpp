#include "light/correction.hpp"

#include <cmath>

namespace poquito::light {

Calibrated calibrated(const std::vector<Correction>& corrections) {
    Calibrated result{.count = static_cast<int>(corrections.size())};
    if (corrections.empty()) return result;
    const double count = result.count;
    for (const auto& correction : corrections) result.stops += correction.stops / count;
    if (corrections.size() < 2) return result;
    double squares = 0;
    for (const auto& correction : corrections) squares += std::pow(correction.stops - result.stops, 2);
    result.spread = std::sqrt(squares / (count - 1));
    return result;
}

std::optional<double> explains(const Tested& tested) {
    const double own = std::exp2(tested.own);
    const double seen = (own + tested.others) * std::exp2(tested.frame_brighter) - tested.others;
    if (!(seen > 0)) return std::nullopt;
    return tested.already + std::log2(seen / own);
}

}  // namespace poquito::light

template class std::vector<poquito::light::Correction>;
