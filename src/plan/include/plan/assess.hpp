#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

namespace poquito::plan {

/// Everything a plan comes to. Pure: the same shoot gives the same report.
Report assess(const Plan& plan);
/// Of a shot that names only gear of that kit.
Report assess(const gear::Kit& kit, const shoot::Shot& shot);

}  // namespace poquito::plan
