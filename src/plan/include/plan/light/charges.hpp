#pragma once

#include "plan/report.hpp"

#include <optional>
#include <string>
#include <vector>

/// What a shoot asks of its flashes.
namespace poquito::plan {

struct ChargeUse {
    std::string flash;            // id
    double flashes = 0;           // how often it fires
    double full_flashes = 0;      // as many at full power would take as much
    std::optional<double> share;  // of a charge; empty: fed from the mains
};
/// One a flash that fires, in the order of the kit. `reports` one a shot.
std::vector<ChargeUse> charge_use(const shoot::Shoot& shoot, const std::vector<const Report*>& reports);

/// Flashes a minute at that power before the unit must cool; heat follows the energy. Empty: not known.
std::optional<double> flashes_a_minute(const gear::Flash& flash, double power);

}  // namespace poquito::plan
