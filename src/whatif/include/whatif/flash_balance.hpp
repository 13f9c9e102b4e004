#pragma once

#include "light/levers.hpp"
#include "plan/report.hpp"

#include <optional>
#include <string>

/// Settings for a wanted balance of light that stays on and flash.
namespace poquito::whatif {

struct BalanceProposal {
    shoot::Shot shot;
    std::string text;        // 1/60 s, f/11, ISO 200, flash 1/16
    light::Balance reached;  // with the nominal values that can be set
    bool at_wall = false;    // the shutter stopped at sync, aperture or ISO did the rest
};
/// Shutter first, at sync the aperture as far as the lens goes, then ISO; flashes by power. Both kinds of light must be
/// there. Shutter, aperture and ISO go to marks of their scales, powers are exact: what the marks miss they make up.
std::optional<BalanceProposal> propose_balance(const plan::Plan& plan, const light::Balance& wanted);

/// The balance of a shot as it is; empty where one of the two is missing.
std::optional<light::Balance> balance_of(const plan::LightReport& light);

}  // namespace poquito::whatif
