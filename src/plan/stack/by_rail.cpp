// Stacks by a rail that moves camera and lens together.
#include "making.hpp"
#include "optics/aperture.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

double least_step(const gear::Rail& rail) {
    if (!rail.pitch || !rail.steps_per_turn) return rail.step;
    // A motor stops at its own steps only; the least that can be set is so many of them.
    const double motor = *rail.pitch / *rail.steps_per_turn;
    return std::max(1.0, std::ceil(rail.step / motor - as_good_as_whole)) * motor;
}

namespace {

double frames_for(double length, double frame_depth, double step) {
    return std::max(1.0, std::ceil((length - frame_depth) / step - as_good_as_whole) + 1);
}

}  // namespace

MadeStack stack_by_rail(const Plan& plan, const StackWish& wish) {
    MadeStack made{.step = wish.step, .frames = wish.frames, .stack = {}, .ring_travel = {}, .viewpoint_change = {}};
    RailStack by_rail;
    if (const gear::Rail* rail = plan.rail) {
        by_rail.unit = least_step(*rail);
        by_rail.motor = rail->pitch && rail->steps_per_turn;
        // Too coarse a rail is said in a note; it cannot step less than it can.
        by_rail.units = std::max(1.0, std::floor(wish.step / by_rail.unit + as_good_as_whole));
        made.step = by_rail.units * by_rail.unit;
        if (rail->pitch) by_rail.turns = made.step / *rail->pitch;
        made.frames = frames_for(span_of(plan).length(), wish.frame_depth, made.step);
        // Twice what is lost, so that a worn screw does not matter (common practice).
        by_rail.take_up = 2 * rail->backlash;
    }
    const auto planes = evenly(plan, made.step, made.frames);
    made.stack.first = planes.first;
    made.stack.last = planes.last;
    by_rail.travel = by_rail.take_up + planes.last - planes.first;
    if (plan.rail) by_rail.spare = plan.rail->travel - by_rail.travel;
    if (plan.at.working_distance) {
        by_rail.clearance = *plan.at.working_distance - planes.last;
        if (const double to_pupil = *pupil_distance(plan); to_pupil > 0)
            made.viewpoint_change = (planes.last - planes.first) / to_pupil;
    }
    made.stack.way = by_rail;
    return made;
}

}  // namespace poquito::plan
