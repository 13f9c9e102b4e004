#pragma once

#include "plan/plan.hpp"

#include <string>
#include <vector>

/// What a bag lacks: pieces of the generic catalogue (data/catalogue.json) that would do what nothing in it does.
namespace poquito::search {

/// What one would have to get, and what comes of it: the bag with it, where its name says that it is not owned, and the
/// rig with it mounted.
struct Missing {
    std::string name;  // "Tube 20 mm + Tube 36 mm"
    gear::Kit kit;
    shoot::Rig rig;
};

/// Tubes and close-up lenses, each mounted on the rig as it is, that bring it to `magnification` with the subject in
/// front of the lens: of each kind the least that does, tubes that keep the contacts before plain ones, two where one
/// is too short. Empty where none does, and where what is asked for is smaller than what the rig gives.
std::vector<Missing> what_would_reach(const plan::Plan& plan, double magnification);

}  // namespace poquito::search
