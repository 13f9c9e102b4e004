#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <string>
#include <vector>

/// What would make a try of a shot succeed more often, and by how much.
namespace poquito::advice {

struct BetterOdds {
    std::string text;    // "Put it on a stand"
    std::string price;   // what it takes or gives up: "ISO 800"; empty: nothing of the picture
    double chance = 0;   // of one try as reckoned, 0 to 1
    double times = 1;    // as likely as it is reckoned now
    double tries = 1;    // for 95 %; infinite: never
    double seconds = 0;  // that those take
    shoot::Shot shot;    // with it
};

/// The likeliest first; what raises the chance by less than a tenth of itself is left out, and so is what the limits
/// of shot, shoot or person rule out. Empty: nothing is left to chance, or nothing helps.
std::vector<BetterOdds> better_odds(const plan::Plan& plan, const plan::Report& report);

}  // namespace poquito::advice
