#pragma once

#include <optional>

/// The balance of light that stays on and light that flashes. The shutter moves the first alone, aperture and ISO move
/// both, power and distance the second alone. Stops, relative to a correct exposure. Source: MODEL 3.
namespace poquito::light {

struct Balance {
    double ambient = 0;  // all light that stays on
    double flash = 0;
};

/// By how many stops each control changes; positive: more exposure.
struct Levers {
    double shutter = 0;
    double both = 0;   // aperture and ISO
    double power = 0;  // or distance
};
Balance moved(const Balance& from, const Levers& by);

/// What brings one balance to another: the shutter as far as sync lets it (`shutter_room`: stops that it can be
/// shortened, 0 or more; empty: no limit), then aperture and ISO, with the power making up for them. The inverse of
/// `moved`.
Levers levers_to(const Balance& from, const Balance& to, const std::optional<double>& shutter_room);

}  // namespace poquito::light
