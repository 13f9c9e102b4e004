#pragma once

#include "shoot/shoot.hpp"

namespace poquito::shoot {

struct WantedReach {
    double magnification = 1;
    double working_distance = 0;  // mm, at least
};

/// A rig from the kit that reaches what is wanted with the shot's camera, focus set to the wanted magnification, and
/// how to say it: "90 mm macro 1:1 + tube 12 mm". Prefers the shot's own lens, then few pieces. Looks at every lens
/// with up to three tubes, one close-up lens and one converter; empty where none of those reaches it.
struct FoundRig {
    Rig rig;
    std::string name;
};
std::optional<FoundRig> find_rig(const Kit& kit, const Rig& now, const WantedReach& wanted);

/// Gear of a rig in mounting order from the camera to the front: names.
std::vector<std::string> mounting_order(const Kit& kit, const Rig& rig);

}  // namespace poquito::shoot
