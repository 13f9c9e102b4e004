#pragma once

#include "light/space.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

namespace poquito::plan {

/// Exposure ratio of all light on a small matt face of that normal, of length 1 (as light::place_of has directions).
double light_on_face(const Plan& plan, const LightReport& light, const light::Point& normal);

}  // namespace poquito::plan
