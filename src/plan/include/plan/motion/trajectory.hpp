#pragma once

#include "light/toss.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>

/// The path of what falls or is thrown, and when the light meets it. mm, s, from where it leaves. Source: MODEL 8.
namespace poquito::plan {

struct Trajectory {
    light::Toss toss;
    std::optional<double> sinking;     // mm/s, evenly downwards in place of the toss
    std::optional<double> beam_after;  // s until it breaks the beam; empty: no beam, or it never does
    double wanted_after = 0;           // s until it is where it is wanted
    double lit_after = 0;              // s until the light comes, as all is set
    light::TrajectoryPoint place;      // where it is wanted: the frame looks there
    light::TrajectoryPoint lit;        // where it is as the light comes

    light::TrajectoryPoint point(double time) const;
};
/// Empty: it never gets to the wanted place.
std::optional<Trajectory> trajectory_of(const shoot::Freeze& freeze);

/// mm over the hand at which it breaks the beam.
double beam_rise_of(const shoot::Freeze& freeze);

/// Seconds that trigger and camera have too much time (the delay to set) or, below 0, too little; empty: by hand, or it
/// never breaks the beam.
std::optional<double> trigger_delay(const shoot::Freeze& freeze);

/// Where the beam must stand at the least to leave trigger and camera their time: mm above the place of a fall, over
/// the hand of a throw.
double least_beam(const shoot::Freeze& freeze);

/// Of a fall of h, b over the place, with a lag of l.
inline constexpr const char* fall_delay_formula = "sqrt(2 * h / g) - sqrt(2 * (h - b) / g) - l";

/// In the frame of a report whose extent, optics, sharpness and motion are there.
std::optional<TrajectoryReport> report_trajectory(const Plan& plan, const Report& report);

}  // namespace poquito::plan
