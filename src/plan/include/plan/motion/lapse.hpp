#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>

/// What a slow thing asks that is taken again and again. Source: MODEL 10.
namespace poquito::plan {

struct LapseReport {
    double moments = 1;         // times that it is taken: one more than intervals in its length
    double exposures = 1;       // frames of all of them
    double shown = 0;           // s, as it is shown
    double least_interval = 0;  // s that one moment takes: exposures, writing, recycling, the way of a stack
    double data_mb = 0;
    double charges = 0;           // batteries of the camera
    double shift = 0;             // mm at the sensor from one moment to the next, as it grows across
    double shift_share = 0;       // of the frame's width
    double through = 0;           // mm that its nearest point comes nearer in all
    std::optional<double> holds;  // s until that leaves what one moment holds sharp; empty: it never does
    double drift_each = 0;        // stops from one moment to the next that the light that is there gets brighter
    double drift_all = 0;         // and in all
    double lamps_on = 0;          // h that lamps burn
};
/// The shot has a lapse.
LapseReport lapse_of(const Plan& plan, const Report& report);

/// What a shot leaves behind: all of its lapse, where it has one.
struct Yield {
    double frames = 1;  // exposures
    double data_mb = 0;
    std::optional<double> charge_share;  // of the camera's battery; empty: its record does not say
    double runs_on = 0;                  // s that it goes on by itself once it has begun; 0: it is no lapse
};
Yield yield_of(const Plan& plan, const Report& report);

/// The interval with which so many seconds are shown at its rate, and the length of so many at its interval.
double interval_for(const shoot::Lapse& lapse, double shown);
double length_for(const shoot::Lapse& lapse, double shown);

}  // namespace poquito::plan
