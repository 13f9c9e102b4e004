#include "light/store.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {
namespace {

/// What each flash takes more than comes back until the next.
double drain(const RapidFire& fire) { return fire.power - fire.every / fire.recycle; }

}  // namespace

std::optional<double> whole_flashes(const RapidFire& fire) {
    if (fire.power > fire.store) return 0;
    const double taken = drain(fire);
    if (taken <= 0) return std::nullopt;
    return std::floor((fire.store - fire.power) / taken + 1e-9) + 1;
}

std::optional<double> pace_for(const RapidFire& fire, double count) {
    if (fire.power > fire.store) return std::nullopt;
    if (count <= 1) return 0;
    return std::max(0.0, fire.recycle * (fire.power - (fire.store - fire.power) / (count - 1)));
}

std::optional<StoreRange> observed_store(const RapidFire& fire, double count) {
    const double taken = drain(fire);
    if (taken <= 0) return std::nullopt;
    return StoreRange{.least = fire.power + (count - 1) * taken, .most = fire.power + count * taken};
}

}  // namespace poquito::light
