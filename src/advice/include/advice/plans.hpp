#pragma once

#include "plan/report.hpp"
#include "shoot/limits.hpp"

#include <array>
#include <string>
#include <vector>

/// Whole plans: for each school of taking the picture the complete settings, in thirds of a stop, that keep every limit
/// and give up least in the person's order.
namespace poquito::advice {

/// One frame in the light that is there, one frame with flash, and stacks by rail, by the ring turned by hand, by the
/// camera's own bracket, and hand-held.
enum class School { single_ambient, single_flash, stack_rail, stack_ring, stack_camera, stack_hand };
inline constexpr std::array schools = {School::single_ambient, School::single_flash, School::stack_rail,
                                       School::stack_ring,     School::stack_camera, School::stack_hand};
const char* school_id(School school);    // stable, for files and scripts: "single-flash"
const char* school_name(School school);  // "One frame, flash"

/// What a plan loses of each, in the units a person reads; 0 where nothing is lost.
struct Losses {
    double depth = 0;   // mm of what has to be sharp that no frame holds
    double iso = 0;     // stops above ISO 100
    double motion = 0;  // px: movement and hands over the blur limit; of a stack also how far the subject wanders
    double background =
        0;            // stops that the light behind falls short of the subject's, after the first, which nobody misses
    double time = 0;  // min from the first frame to the end of the last, after half a minute
    double of(shoot::Loss loss) const;
};

/// How far a plan goes past each limit; 0 where it keeps it. Stops, but for frames and minutes.
struct Excess {
    double iso = 0;
    double shutter_by_hand = 0;
    double frames = 0;
    double minutes = 0;
    double f_number = 0;
    double of(shoot::Loss loss) const;  // those that spare this loss, in doublings
    bool any() const;
};

struct GivenUp {
    std::string what;  // "depth", "iso", "motion", "background", "time"; or a limit that is passed: "iso_max"
    double by = 0;
    std::string unit;  // "mm", "stops", "px", "min", "frames"
};

struct WholePlan {
    School school = School::single_ambient;
    shoot::Shot shot;  // as it would be
    plan::Report report;
    Losses losses;
    Excess excess;
    bool keeps_limits = true;
    bool stopped = false;  // a stop note stands against it
    std::vector<GivenUp> gives_up;
    std::string changes;   // of the rig, where the wanted size asks for another: "55 mm, 20 mm tube"; else empty
    std::string sentence;  // what it gives up, for people
    std::string why;       // of the first of the list: why it is the one for this subject and place
};

/// Best first: plans that keep every limit and have no stop note before the others, then by what the order of giving up
/// loses least. Schools that cannot be had here (no rail, no light) are missing; empty at infinity.
///
/// Exact over the grid: marked stops in thirds from the lens's widest to its smallest, or as far as the smallest
/// tolerated; times from 30 s to 1/8000 s and ISO from 100 in thirds. Flashes are set to the nearest power they have.
/// Stops at which the Airy disc passes twice the blur limit are no choice while a wider one is left; in a stack, which
/// has other ways to depth, those at which it passes the blur limit, unless nothing else takes the light. Of two plans
/// the one is better that passes its limits by less, then the one that loses less of what is given up last, then of
/// what is given up before it, and so on; a difference of a millionth is none. Of equals the quicker, then the simpler.
std::vector<WholePlan> whole_plans(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Limits& limits = {});

/// Settings for when the light changes: of the same school as the shot is set to now, in sun if it is cloudy, else in
/// cloud, three values apart (common practice: EV 14 and 11); the rig stays. Empty: the shot has no light that is
/// there, or no plan of that school.
std::optional<shoot::OtherLight> prepare_other_light(const gear::Kit& kit, const shoot::Shot& shot,
                                                     const shoot::Limits& limits = {});

/// Of a shot as it is, as the search weighs it: what tests and views compare.
struct Weighed {
    Losses losses;
    Excess excess;
};
Weighed weigh(const plan::Plan& plan, const plan::Report& report);

}  // namespace poquito::advice
