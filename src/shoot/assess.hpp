#pragma once

#include "shoot/plan.hpp"
#include "shoot/report.hpp"

namespace poquito::shoot {

/// Everything a plan comes to. Pure: the same shoot gives the same report.
Report assess(const Plan& plan);
/// Of a shot that names only gear of that kit.
Report assess(const Kit& kit, const Shot& shot);

}  // namespace poquito::shoot
