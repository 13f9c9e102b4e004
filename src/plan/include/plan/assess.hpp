#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "shoot/attitude.hpp"

namespace poquito::plan {

/// Everything a plan comes to. Pure: the same shoot gives the same report.
Report assess(const Plan& plan);
/// Of a shot that names only gear of that kit.
Report assess(const gear::Kit& kit, const shoot::Shot& shot);
/// Of the plan once its subject, or the camera round it, is turned.
Report assess(const Plan& plan, const shoot::Attitude& attitude);

}  // namespace poquito::plan
