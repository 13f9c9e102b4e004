#pragma once

#include "plan/fwd.hpp"

#include <string>
#include <vector>

namespace poquito::advice {

/// One thing to look at in the frames, at full size on the camera or a screen, before the set is taken down.
struct ProofPoint {
    std::string id;
    std::string name;       // short, as a log has it: "first frame"
    std::string seen;       // what a good frame shows there
    std::string otherwise;  // what to do where it does not
    double correction = 0;  // stops that the next exposure differs by then, as far as it can be told beforehand
};

/// What this plan makes worth looking at, what most often goes wrong first.
std::vector<ProofPoint> look_over(const plan::Plan& plan, const plan::Report& report);

}  // namespace poquito::advice
