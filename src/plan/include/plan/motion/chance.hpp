#pragma once

#include "optics/chance.hpp"
#include "plan/fwd.hpp"
#include "plan/motion/burst.hpp"
#include "shoot/tries.hpp"

#include <optional>
#include <vector>

/// Where chance decides whether a frame is sharp at the zone: by what, how often, and how many tries that makes. Shares
/// and chances 0 to 1, s. Source: MODEL 8.
///
/// A function a cause here; frame_draws.hpp draws the same causes one frame at a time, and a test compares the two.
namespace poquito::plan {

enum class ChanceCause {
    wind,           // across
    wind_through,   // focus
    hands,          // across
    hands_through,  // focus
    moving,         // the subject by itself, across
    moves_on,       // of a stack: it is elsewhere before the last frame
    gap,            // of a stack by hand: hands drift past a plane between two frames
    flash,          // too slow for what flies; of a stack: it starves on the way
    trigger,
    landing,        // nearer or farther than the depth of field
    landing_aside,  // out of the frame
    pattern         // of many pieces, that how they fly together pleases
};
const char* cause_name(ChanceCause cause);

struct CauseOdds {
    ChanceCause cause = ChanceCause::wind;
    double share = 1;  // of frames that it lets be sharp, alone
};

struct ChanceReport {
    std::vector<CauseOdds> causes;                // those there are, the worst first
    double reckoned = 1;                          // of one frame: all of them together
    std::optional<optics::CountedShare> counted;  // of tries; replaces what was reckoned, from ten on
    double frames = 1;                            // of one try: a stack's, all of which have to be sharp
    std::optional<Burst> burst;                   // that one try is, one of whose frames is enough
    double chance = 1;                            // of one try; of frames that drift together, see chance_of_all
    double tries = 1;                             // until one has succeeded with a chance of 95 %; infinite: never
    double seconds_a_try = 0;
    std::optional<double> tries_a_visit;       // of an animal that does not stay, on an average
    std::optional<double> visits;              // for as many tries
    std::optional<double> card_share;          // of the free space, for as many tries
    std::optional<double> charge_share;        // of the camera's battery
    std::optional<double> flash_charge_share;  // of a flash's, the one that is emptied most
    /// Tries, whole tens, that the minutes of the limits allow: the next ten would pass them. And the chance to have
    /// one by then. Empty: no such limit.
    std::optional<double> stop_after;
    double by_then = 0;

    bool hangs_on(ChanceCause cause) const;
};

/// What a count needs to stand for more than what was reckoned.
inline constexpr int enough_tried = 10;

/// How hands that aim usually hold a camera (common practice): across by HandShake, to and fro by a millimetre where
/// they sway as usual, and in proportion where they are braced or stand free.
shoot::Hands hands_of(const Plan& plan);

/// Root of the mean square of what they draw a frame out by, mm at the sensor.
double shake_of(const Plan& plan, const shoot::Hands& hands, double exposure_time);

/// mm of depth that one frame holds, which the place that has to be sharp must hit; empty: unbounded.
std::optional<double> depth_to_hit(const Report& report);

/// How they hold it so braced: they shake less by as much as they sway less (common practice).
shoot::Hands hands_braced(const Brace& brace);

/// That all of so many frames taken in one go are sharp, each with chance `one`: what makes one fail makes its
/// neighbours fail, so they count as the root of their number (common practice: MODEL 13).
double chance_of_all(double one, double frames);

/// The share of frames that swing and hands, across, let be sharp together.
double sharp_share(const Plan& plan, const MotionReport& motion);

/// Empty: nothing is left to chance.
std::optional<ChanceReport> report_chance(const Plan& plan, const Report& report);

}  // namespace poquito::plan
