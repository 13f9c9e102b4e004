#pragma once

#include "plan/report.hpp"

#include <string>
#include <vector>

/// One frame or a stack: the schools side by side for one shot, what each costs, and which suits it.
namespace poquito::advice {

struct Approach {
    std::string id;    // kept in Capture::approach
    std::string name;  // "Stack at f/8"
    shoot::Shot shot;  // as it would be
    plan::Report report;
    double ends_blur = 0;              // mm at the sensor, worst at the subject's ends, with diffraction
    double middle_blur = 0;            // and in the middle of its depth
    double covered = 1;                // share of the span that the frames hold
    double seconds = 0;                // from the first frame to the end of the last
    double flash_energy = 0;           // flashes at full power that it takes
    double tolerance = 0;              // mm the subject may move at most while it lasts
    double lasts = 0;                  // s that it has to keep within the tolerance
    std::optional<double> background;  // disc as share of the frame's width
    std::string against;               // why it cannot be done here; empty: it can
};

struct Judgement {
    std::vector<Approach> approaches;
    std::size_t best = 0;
    std::string reason;  // two sentences
};

/// At magnification above 0; empty at infinity. Limits count as they do for whole plans: what passes one cannot be
/// done, and no stop is smaller than the smallest that is tolerated.
std::optional<Judgement> judge(const plan::Plan& plan);

/// What it means to take another one than the best, in a sentence.
std::string objection(const Judgement& judgement, std::size_t chosen);

/// The sharpest marked stop as practice has it: two stops down from the widest, but no further than the Airy disc stays
/// within twice the blur limit (common practice).
double sharpest_f_number(const plan::Plan& plan);

/// A stack that leaves no halos about bright edges: f/8, or the nearest the lens has (common practice).
inline constexpr double halo_safe_f_number = 8;

}  // namespace poquito::advice
