#pragma once

#include "light/store.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "shoot/form/attitude.hpp"

#include <algorithm>
#include <optional>

namespace poquito::plan {

/// Everything a plan comes to. Pure: the same shoot gives the same report.
Report assess(const Plan& plan);
/// Of a shot that names only gear of that kit.
Report assess(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms);
/// Of the plan once its subject, or the camera round it, is turned.
Report assess(const Plan& plan, const shoot::Attitude& attitude);

/// Share of what has to be sharp (the zone, else all of the depth) that a single frame holds within its depth of field,
/// or the frames of a stack from the first to the last; 0 to 1. Empty at infinity.
std::optional<double> covered(const Plan& plan, const Report& report);

/// Frames of the stack at another marked stop, as its gear really takes them, its ends included; 1 where one holds
/// everything, empty where nothing can be said of what one holds.
std::optional<double> stack_frames_at(const Plan& plan, double marked_f_number);

/// Frames that follow each other without a rest: the stack's, by hand one burst's.
double frames_in_a_row(const Report& report);

/// How a flash of the shot fires through them: at the camera's own cadence where that is known, else as frames come.
light::RapidFire rapid_fire_of(const Plan& plan, const Report& report, std::size_t light);

/// Blur at the sensor that movement makes in that time, mm: by steady movement, by swinging at worst, by hands (0 on a
/// stand).
struct Smear {
    double steady = 0;
    double sway = 0;
    double hands = 0;
    double worst() const { return std::max({steady, sway, hands}); }
};
Smear smear_over(const Plan& plan, double exposure_time);

/// How far the subject gets in that time at most, mm. An animal or a person of whom no movement is stated keeps no
/// stillness for longer than a frame: `restless` is assumed (common practice).
double wandering(const shoot::Subject& subject, double seconds);
inline constexpr double restless = 1;  // mm/s

}  // namespace poquito::plan
