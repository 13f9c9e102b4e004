#pragma once

#include "log/entry.hpp"
#include "shoot/shoot.hpp"

#include <functional>
#include <string>
#include <vector>

namespace poquito::log {

/// As the library of subjects calls what the shot is of; empty: not known.
using ClassOf = std::function<std::string(const shoot::Shot& shot)>;

/// What happened from one state of a shoot to the next: runs and verdicts that are new, tries that were counted,
/// corrections of units and steps that were measured. `shot`: the id of the one that is worked on, for what the kit
/// learned. `time`: now.
std::vector<Entry> entries_between(const shoot::Shoot& before, const shoot::Shoot& now, const std::string& shot,
                                   const std::string& time, const ClassOf& class_of);

}  // namespace poquito::log
