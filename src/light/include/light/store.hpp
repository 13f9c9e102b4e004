#pragma once

#include <optional>

/// A flash that fires faster than it recycles lives on what it has stored (MODEL 6).
namespace poquito::light {

struct RapidFire {
    double power = 1;    // of each flash, fraction of full
    double every = 0.1;  // s from one flash to the next
    double recycle = 2;  // s that full power takes to come back; above 0
    double store = 1;    // full-power flashes held when ready
};

/// Flashes that come whole from the first on; the next is weaker. Empty: all of them do, for ever.
std::optional<double> whole_flashes(const RapidFire& fire);
inline constexpr const char* whole_flashes_formula = "floor((U - p) / (p - D / T) + 1e-9) + 1";

/// The seconds between flashes with which `count` of them come whole; 0: at any pace. Empty: at none, for one alone is
/// more than is stored.
std::optional<double> pace_for(const RapidFire& fire, double count);

/// What a unit must have stored that gave `count` whole flashes (1 or more) and then a weaker one.
struct StoreRange {
    double least = 0;
    double most = 0;
    double middle() const { return (least + most) / 2; }
};
/// Empty where it would never starve at that pace: nothing can be learned from it.
std::optional<StoreRange> observed_store(const RapidFire& fire, double count);

}  // namespace poquito::light
