#pragma once

#include "gear/fwd.hpp"
#include "optics/stack.hpp"
#include "plan/fwd.hpp"
#include "shoot/fwd.hpp"

#include <cstddef>
#include <optional>
#include <string>
#include <variant>
#include <vector>

/// How the frames of a stack are taken: where each is focused, what moves, and what that costs. Planes are mm behind
/// the subject's nearest point, negative in front of it; steps mm at the subject; times s. Source: MODEL 2.
namespace poquito::plan {

/// What has to be sharp, lead and tail included.
struct StackSpan {
    double from = 0;
    double to = 0;
    double length() const { return to - from; }
};
StackSpan span_of(const Plan& plan);

/// By the focus ring, the sensor standing still. Equal shares of the ring's travel from frame to frame, so that a step
/// is longer where a frame is deeper.
struct RingStack {
    double first_ring = 0;
    double last_ring = 0;
    double ring_step = 0;               // share of the ring's travel; of one frame what a second could be apart
    double least_step = 0;              // mm at the subject, at the nearer end
    double greatest_step = 0;           // and at the farther
    double image_travel = 0;            // mm that lens and sensor part or approach over the stack
    double room_in_front = 0;           // mm that the ring can still focus in front of the first plane
    std::optional<double> room_behind;  // and behind the last; empty: to infinity
};

/// Where the ring cannot reach both ends: how much is missing, mm.
struct RingShort {
    double in_front = 0;
    double behind = 0;
};

/// By a rail that moves camera and lens together.
struct RailStack {
    double unit = 0;              // mm, least step of the rail; 0: no rail chosen, the step is exact
    double units = 0;             // least steps in one step, a whole number; 0: no rail chosen
    std::optional<double> turns;  // of the screw for one step
    bool motor = false;
    double take_up = 0;               // mm that it first goes too far back, so that it comes from one side
    double travel = 0;                // mm from there to the last frame
    double spare = 0;                 // mm of its travel that are left; negative: too short
    std::optional<double> clearance;  // mm from the front of the lens to the nearest point at the last frame
};

/// A burst through a plane by a camera that sways.
struct SwayOdds {
    double chance = 0;  // that one burst holds a frame with that plane in its depth, 0 to 1
    double bursts = 0;  // for a chance of 95 %; infinite where there is none
    bool operator==(const SwayOdds&) const = default;
};
struct Brace {
    const char* id;
    const char* name;
    double speed;  // mm/s
    double range;  // mm
};
struct HandStack {
    double burst_frames = 0;
    SwayOdds plane;                // one plane in the middle of the sway
    double bursts = 0;             // for 95 % that no plane of the stack is missing; infinite: hopeless
    double largest = 1;            // frames of the largest stack that is sensible by hand
    std::vector<SwayOdds> braced;  // one a brace of braces()
};

/// A bracket of the camera's own.
struct BracketPass {
    std::size_t first = 0;  // index of its first frame in the stack
    std::size_t frames = 1;
    double focus = 0;  // where to focus before it starts
};
struct StepChoice {
    double setting = 1;
    double ring_step = 0;        // share of the ring's travel that it is expected to take
    double least_ring_step = 0;  // likely to be taken at least
    double step = 0;             // mm at the subject, at the planned plane
    double least = 0;            // between these two in 19 of 20 cases
    double greatest = 0;
    std::size_t readings = 0;
    bool stop_unknown = false;  // measured at other stops only
};
struct BracketStack {
    std::vector<BracketPass> passes;
    std::size_t before = 0;  // frames nearer than where the camera starts; a bracket from the centre only
    std::size_t behind = 0;
    std::optional<StepChoice> choice;  // by what was measured; empty: nothing was, or none is fine enough
    bool unmeasured = false;           // it has a scale of steps and nobody knows what they are
    bool too_coarse = false;           // its narrowest step is wider than the plan's
};

/// Time between two frames where none is set: brackets of today's cameras go no faster with settling and writing
/// (common practice).
inline constexpr double default_frame_interval = 0.5;  // s

/// Where the time goes, one frame after the other.
struct Cadence {
    double move = 0;
    double settle = 0;
    double exposure = 0;
    double recycle = 0;  // beyond move and settle
    double write = 0;    // of one frame; 0: not known
    double frame = 0;    // from one frame to the next before the buffer is full
};

struct StackCost {
    Cadence cadence;
    double stalls = 0;                      // s that a full buffer makes it wait
    std::optional<double> frames_to_stall;  // after how many; empty: it never does
    double exposures = 1;                   // by hand many more than the stack's planes
    double combine = 0;                     // s that the camera combines after its own composite
    double seconds = 0;                     // from the first exposure to the end of the last, and of that
    std::optional<double> card_share;       // of the free space
    std::optional<double> charge_share;     // of the camera's battery
    double blur = 0;                        // mm at the sensor, worst between two planes: defocus and Airy disc
    double floor = 0;                       // the Airy disc: no step does better
    double enough_frames = 1;               // more of them sharpen by less than a twentieth
};
/// Worst blur at the sensor, mm, of `frames` frames spread evenly over `span` mm: halfway between two planes, defocus
/// and Airy disc together.
double blur_of_frames(const Plan& plan, double span, double frames);

/// By the ring: either how, or what is missing; at infinity neither can be said.
struct ByRing {
    std::optional<RingStack> ring;
    std::optional<RingShort> out_of_reach;
};
/// By the ring, turned by the camera itself.
struct ByBracket {
    ByRing by_ring;
    BracketStack bracket;
};
using StackWay = std::variant<ByRing, ByBracket, RailStack, HandStack>;

struct StackReport {
    StackSpan span;
    double first = 0;  // planes of the first and last frame
    double last = 0;
    double hold_still = 0;  // mm that the subject may move meanwhile: half a frame's overlap
    StackWay way;

    // Null where it goes another way.
    const RingStack* ring() const;
    const RingShort* out_of_reach() const;
    const BracketStack* bracket() const { return part<ByBracket>(&ByBracket::bracket); }
    const RailStack* rail() const { return std::get_if<RailStack>(&way); }
    const HandStack* hand() const { return std::get_if<HandStack>(&way); }

  private:
    template <typename Way, typename Part>
    const Part* part(Part Way::*member) const {
        const auto* taken = std::get_if<Way>(&way);
        return taken ? &(taken->*member) : nullptr;
    }
};

/// What step and frames come to as the gear of the plan really makes them.
struct MadeStack {
    double step = 0;    // mm at the planned plane
    double frames = 1;  // a whole number
    StackReport stack;
    std::optional<optics::RingTravel> ring_travel;  // by ring
    std::optional<double> viewpoint_change;         // by rail
};
/// The rule's wishes: its step and frames (MODEL 2), and the depth of one frame.
struct StackWish {
    double step = 0;
    double frames = 1;
    double frame_depth = 0;
};
MadeStack make_stack(const Plan& plan, const StackWish& wish);

/// One frame of a stack and where to put what moves.
struct StackFrame {
    double plane = 0;
    std::optional<double> ring;  // by ring
    std::optional<double> rail;  // mm from the first frame, towards the subject; by rail
};
/// Nearest first, as far apart as planned. The first `most_frames` alone: a longer stack is nothing anyone takes, and
/// no run is made of it (see run_refusal of run/run_plan.hpp).
std::vector<StackFrame> stack_frames(const Plan& plan, const Report& report);
inline constexpr double most_frames = 10000;

/// Frames as the camera counts them: by hand many more than planes. `stack` null: a single frame.
double exposures_of(const StackReport* stack, double frames);

/// The cadence of a stack or a single frame and what follows from it; `report` but for its cost.
StackCost cost_of(const Plan& plan, const CaptureReport& report);
/// All of it but how sharp that is: what changes with shutter and recycling.
StackCost pace_of(const Plan& plan, const CaptureReport& report);

/// Whether the camera's bracket lies about where it is focused, by what it is to make: a plain one, or its composite.
bool starts_centred(const Plan& plan);

/// s from frame to frame of the camera's own drive or bracket: of the shot, else of the camera's bracket where that
/// takes it. Empty: not known.
std::optional<double> cadence_of(const Plan& plan);

/// What is held of what has to be sharp, nearest first, when a bracket is stopped by hand after so many frames; 0 to 1.
double held_after(const Plan& plan, const CaptureReport& capture, double frames);

/// Ways to hold the camera, from the shakiest. Sways are common practice, not measurements: measure your own.
const std::vector<Brace>& braces();

/// A frame every 1/fps s while the camera sways evenly to and fro through `range`, begun at any moment. `depth` is a
/// frame's, `offset` the wanted plane's distance from the middle of the sway. Exact: the share of all beginnings that
/// put a frame into the depth, as the union of arcs on the circle of one sway.
SwayOdds sway_odds(const shoot::HandHeld& sway, double depth, double offset = 0);
double burst_frames(const shoot::HandHeld& sway);

/// Bursts until all of `planes` have a frame with a chance of 95 % at least (Boole's inequality); infinite: hopeless.
double bursts_for_all(const SwayOdds& odds, double planes);
inline constexpr double most_bursts = 10;  // that anyone takes of one subject by hand (common practice)

/// s that a camera is at rest after a move before it exposes (common practice).
double default_settle(shoot::Mover mover);

/// Waits for a full buffer: frames every `interval` s, each `write` s to the card, `buffer` frames of room. The time of
/// the last frame's exposure after the first one's.
double last_exposure(double frames, double interval, double write, double buffer);

/// The least step of a rail: of its motor where it has one, else as stated.
double least_step(const gear::Rail& rail);

inline constexpr const char* rail_step_formula = "floor(F * (1 - o) / u + 1e-9) * u";
inline constexpr const char* ring_frames_formula = "ceil(abs(r_1 - r_0) / d - 1e-9) + 1";

}  // namespace poquito::plan
