#pragma once

#include "advice/worth/worth.hpp"
#include "plan/report.hpp"
#include "shoot/terms.hpp"

#include <array>
#include <string>
#include <vector>

/// Whole plans: for each way of taking the picture the complete settings, in thirds of a stop, that keep every limit
/// and are worth most.
namespace poquito::advice {

/// One frame in the light that is there, one frame with flash, a burst rocking through focus of which one frame has to
/// be sharp, and stacks by the camera's own bracket, by the ring turned by hand, by rail, and by swaying. Simplest
/// first.
enum class School { single_ambient, single_flash, burst_rocking, stack_camera, stack_ring, stack_rail, stack_hand };
inline constexpr std::array schools = {School::single_ambient, School::single_flash, School::burst_rocking,
                                       School::stack_camera,   School::stack_ring,   School::stack_rail,
                                       School::stack_hand};
const char* school_id(School school);    // stable, for files and scripts: "single-flash"
const char* school_name(School school);  // "One frame, flash"
bool is_stack(School school);

/// What makes the exposure: what is there, flash, flash that adds to what is there, lamps, the ground behind alone.
enum class Lit { ambient, flash, fill, lamp, ground };
const char* lit_id(Lit lit);

/// How far a plan goes past each limit; 0 where it keeps it. Stops, but for frames and minutes.
struct Excess {
    double iso = 0;
    double shutter_by_hand = 0;
    double frames = 0;
    double minutes = 0;
    double f_number = 0;
    bool any() const;
    double sum() const;  // for comparing two
};
Excess excess_of(const plan::Plan& plan, const plan::Report& report);

struct GivenUp {
    std::string what;  // id of a quality; or a limit that is passed: "iso_max"
    double by = 0;
    std::string unit;  // of the quality's measure; "stops", "frames", "min"
};

struct Proposal {
    School school = School::single_ambient;
    Lit lit = Lit::ambient;
    shoot::Shot shot;  // as it would be
    plan::Report report;
    shoot::Wishes wishes;  // that it is measured by
    Worth worth;           // with what it takes to get there from the shot as it is
    double change = 0;     // min of that
    Excess excess;
    bool keeps_limits = true;
    bool stopped = false;  // a stop note stands against it
    std::vector<GivenUp> gives_up;
    std::string changes;   // of the rig, where the wanted size asks for another: "55 mm, 20 mm tube"; else empty
    std::string sentence;  // what it gives up, for people
    std::string why;       // why it stands where it stands

    bool in_hand() const { return shot.rig.support == shoot::Support::hand; }
    bool fits() const { return keeps_limits && !stopped; }
};
/// "One frame, flash as fill, on the stand".
std::string plan_name(const Proposal& plan);

/// Best first: plans that keep every limit and have no stop note before the others, then by worth; of two within a tie
/// the quicker, then the simpler. Ways that the gear does not have are missing, and those worth less than a tenth of
/// the best, unless it is what the shot is now. Empty at infinity.
///
/// Settings are marked stops in thirds from the lens's widest to its smallest, or as far as the smallest tolerated;
/// times from 30 s to 1/8000 s and ISO from 100 in thirds; flashes at the nearest power they have. No setting beside
/// that of a plan, a third of a stop away in any one or two of them, is worth more.
std::vector<Proposal> proposals_for(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms);

/// Settings for when the light changes: of the same school as the shot is set to now, in sun if it is cloudy, else in
/// cloud, three values apart (common practice: EV 14 and 11); the rig stays. Empty: the shot has no light that is
/// there, or no plan of that school.
std::optional<shoot::OtherLight> prepare_other_light(const gear::Kit& kit, const shoot::Shot& shot,
                                                     const shoot::Terms& terms);

}  // namespace poquito::advice
