#pragma once

#include "shoot/shoot.hpp"

#include <string>

/// Powers of the groups A, B and C that are stored under a name and called up again.
namespace poquito::whatif {

/// The powers of the shot's groups, one a group, as set; groups whose flashes find their power or are lamps are left
/// out. Takes the place of the set of that name.
void store_powers(shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& name);

/// Sets every flash of the groups in the set. Returns how many lights changed.
int call_up(const shoot::PowerSet& set, shoot::Shot& shot);

void forget_powers(shoot::Shoot& shoot, const std::string& name);

}  // namespace poquito::whatif
