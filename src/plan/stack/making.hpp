#pragma once

#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"

#include <limits>
#include <optional>

/// What the ways to take a stack share; each makes one from the same wish.
namespace poquito::plan {

inline constexpr double as_good_as_whole = 1e-9;  // what MODEL 2 lets a count of frames be off by
inline constexpr double infinite = std::numeric_limits<double>::infinity();

/// From the planned plane of focus to the nearest point.
double nearest_from_focus(const Plan& plan);
double plane_at(const Plan& plan, const optics::FocusedTrain& at);
std::optional<double> ring_at(const Plan& plan, double plane);

struct Planes {
    double first = 0;
    double last = 0;
};
/// Equal steps whose depths leave as much over at either end of the span.
Planes evenly(const Plan& plan, double step, double frames);

MadeStack stack_by_ring(const Plan& plan, const StackWish& wish);
MadeStack stack_by_bracket(const Plan& plan, const StackWish& wish);
MadeStack stack_by_rail(const Plan& plan, const StackWish& wish);
MadeStack stack_by_hand(const Plan& plan, const StackWish& wish);

}  // namespace poquito::plan
