// Stacks by the focus ring, turned by hand or by the camera's own bracket.
#include "making.hpp"
#include "plan/report.hpp"
#include "plan/stack/step_sizes.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {
namespace {

/// What a ring stack has to reach, sampled over its travel.
struct RingBounds {
    double first = 0;  // ring positions of the first and last plane
    double last = 0;
    double step = 0;  // greatest share of the ring's travel that leaves no gap anywhere
};

/// Planes whose depths reach both ends of the span. The reach of a frame is taken where it is least, which is at the
/// nearer end unless close-up lenses turn that round; so neither end is missed.
std::optional<RingBounds> ring_bounds(const Plan& plan, const StackSpan& span, double f_number) {
    const auto near_end = ring_at(plan, span.from), far_end = ring_at(plan, span.to);
    if (!near_end || !far_end) return std::nullopt;
    double near = infinite, far = infinite, step = infinite;
    constexpr int samples = 5;
    for (int i = 0; i < samples; ++i) {
        const double ring = *near_end + (*far_end - *near_end) * i / (samples - 1);
        const auto at = optics::focus_at_ring(plan.train, ring);
        const auto reach = frame_reach(plan, at, f_number);
        if (!reach || !at.subject_to_sensor) return std::nullopt;
        near = std::min(near, reach->near);
        far = std::min(far, reach->far);
        const double rate = std::abs(travel_per_ring(plan.train, ring));
        if (!std::isfinite(rate)) return std::nullopt;  // infinity
        step = std::min(step, reach->depth() * (1 - plan.shot.capture.overlap) / rate);
    }
    if (near + far >= span.length()) {
        // One frame holds it all: where it leaves as much at either end.
        const auto ring = ring_at(plan, span.from + near + (span.length() - near - far) / 2);
        if (!ring) return std::nullopt;
        return RingBounds{.first = *ring, .last = *ring, .step = step};
    }
    auto first = ring_at(plan, span.from + near), last = ring_at(plan, span.to - far);
    // Between two samples a frame may reach less far still.
    for (int i = 0; i < 3 && first && last; ++i) {
        const auto reach_first = frame_reach(plan, optics::focus_at_ring(plan.train, *first), f_number);
        const auto reach_last = frame_reach(plan, optics::focus_at_ring(plan.train, *last), f_number);
        if (!reach_first || !reach_last || (reach_first->near >= near && reach_last->far >= far)) break;
        near = std::min(near, reach_first->near);
        far = std::min(far, reach_last->far);
        first = ring_at(plan, span.from + near);
        last = ring_at(plan, span.to - far);
    }
    if (!first || !last) return std::nullopt;
    return RingBounds{.first = *first, .last = *last, .step = step};
}

/// How far the plane of focus can go on from a ring position, mm, either way; empty: to infinity. Towards closest focus
/// it comes nearer, but beyond 1:1 it goes away again: what counts is the way until it turns.
struct RingRoom {
    double in_front = 0;
    std::optional<double> behind = 0;
};
RingRoom room_from(const Plan& plan, double ring) {
    const double here = optics::focus_at_ring(plan.train, ring).subject_to_sensor.value_or(infinite);
    const bool nearer_up = travel_per_ring(plan.train, ring) < 0;
    RingRoom room;
    constexpr int samples = 32;
    for (const bool nearer : {true, false}) {
        const double end = nearer == nearer_up ? 1 : 0;
        double before = here;
        for (int i = 1; i <= samples; ++i) {
            const auto at = optics::focus_at_ring(plan.train, ring + (end - ring) * i / samples).subject_to_sensor;
            if (!at && !nearer) room.behind.reset();
            if (!at || (nearer ? *at > before : *at < before)) break;
            before = *at;
            if (nearer)
                room.in_front = here - *at;
            else
                room.behind = *at - here;
        }
    }
    return room;
}

/// What is out of the ring's reach.
RingShort ring_short(const Plan& plan, const Planes& planes) {
    const double planned = -nearest_from_focus(plan);
    const auto room = room_from(plan, plan.at.ring);
    RingShort missing{.in_front = std::max(0.0, planned - planes.first - room.in_front)};
    if (room.behind) missing.behind = std::max(0.0, planes.last - planned - *room.behind);
    return missing;
}

RingStack ring_stack(const Plan& plan, const RingBounds& bounds, double ring_step) {
    const auto first = optics::focus_at_ring(plan.train, bounds.first);
    const auto last = optics::focus_at_ring(plan.train, bounds.last);
    RingStack ring{.first_ring = bounds.first, .last_ring = bounds.last, .ring_step = ring_step};
    ring.least_step = std::abs(travel_per_ring(plan.train, bounds.first)) * ring_step;
    ring.greatest_step = std::abs(travel_per_ring(plan.train, bounds.last)) * ring_step;
    if (ring.least_step > ring.greatest_step) std::swap(ring.least_step, ring.greatest_step);
    ring.image_travel = std::abs(last.image_distance - first.image_distance);
    ring.room_in_front = room_from(plan, bounds.first).in_front;
    ring.room_behind = room_from(plan, bounds.last).behind;
    return ring;
}

std::optional<RingBounds> bounds_of(const Plan& plan) {
    if (!plan.at.subject_to_sensor) return std::nullopt;
    return ring_bounds(plan, span_of(plan), plan.shot.exposure.f_number);
}

MadeStack with_planes(const Planes& planes, double step, double frames, StackWay way) {
    return {.step = step,
            .frames = frames,
            .stack = {.first = planes.first, .last = planes.last, .way = std::move(way)},
            .ring_travel = {},
            .viewpoint_change = {}};
}

/// Where the ring does not reach both ends: the rule's frames, and what is missing.
MadeStack out_of_reach(const Plan& plan, const StackWish& wish) {
    const auto planes = evenly(plan, wish.step, wish.frames);
    ByRing ring;
    if (plan.at.subject_to_sensor) ring.out_of_reach = ring_short(plan, planes);
    return with_planes(planes, wish.step, wish.frames, ring);
}

/// A step of the ring, and the least of it that is sure: as many frames as it takes if the steps turn out short.
struct RingStep {
    double expected = 0;
    double sure = 0;
    bool even = true;  // the last plane where it has to be: the step follows from the frames
};
MadeStack turned(const Plan& plan, const RingBounds& bounds, const RingStep& step) {
    const double travel = std::abs(bounds.last - bounds.first);
    const double frames = travel > 0 ? std::ceil(travel / step.sure - as_good_as_whole) + 1 : 1;
    const double ring_step = frames < 2 || !step.even ? step.expected : travel / (frames - 1);
    const Planes planes{.first = plane_at(plan, optics::focus_at_ring(plan.train, bounds.first)),
                        .last = plane_at(plan, optics::focus_at_ring(plan.train, bounds.last))};
    auto made = with_planes(planes, std::abs(travel_per_ring(plan.train, plan.at.ring)) * ring_step, frames,
                            ByRing{.ring = ring_stack(plan, bounds, ring_step), .out_of_reach = {}});
    made.ring_travel = optics::ring_travel(
        plan.train, plan.at,
        {.first = planes.first + nearest_from_focus(plan), .last = planes.last + nearest_from_focus(plan)});
    return made;
}

std::vector<BracketPass> passes_of(const Plan& plan, double frames) {
    const auto most = static_cast<std::size_t>(std::max(1, plan.camera.bracket.max_frames));
    const auto all = static_cast<std::size_t>(std::min(frames, most_frames));
    std::vector<BracketPass> passes;
    // Each pass but the first repeats the last frame of the one before it, so that nothing falls in between.
    for (std::size_t first = 0;;) {
        const auto count = std::min(most, all - first);
        passes.push_back({.first = first, .frames = count});
        if (first + count >= all || most < 2) break;
        first += count - 1;
    }
    return passes;
}

/// Frames before and behind the one a bracket begins at, and where to focus for each of its passes.
void focus_passes(const Plan& plan, const MadeStack& made, const ByRing& by_ring, BracketStack& bracket) {
    bracket.passes = passes_of(plan, made.frames);
    const bool centre = starts_centred(plan);
    const auto frames = bracket.passes.front().frames;
    bracket.behind = centre ? frames / 2 : frames - 1;
    bracket.before = frames - 1 - bracket.behind;
    const auto& [first, last] = std::pair(made.stack.first, made.stack.last);
    const double per_frame = made.frames > 1 ? (last - first) / (made.frames - 1) : 0;
    for (auto& pass : bracket.passes) {
        const auto start = static_cast<double>(pass.first + (centre ? (pass.frames - 1) - pass.frames / 2 : 0));
        pass.focus = first + start * per_frame;
        if (!by_ring.ring || made.frames < 2) continue;
        const auto& ring = *by_ring.ring;
        const double at = ring.first_ring + (ring.last_ring - ring.first_ring) * (start / (made.frames - 1));
        pass.focus = plane_at(plan, optics::focus_at_ring(plan.train, at));
    }
}

}  // namespace

MadeStack stack_by_ring(const Plan& plan, const StackWish& wish) {
    const auto bounds = bounds_of(plan);
    return bounds ? turned(plan, *bounds, {.expected = bounds->step, .sure = bounds->step}) : out_of_reach(plan, wish);
}

MadeStack stack_by_bracket(const Plan& plan, const StackWish& wish) {
    const auto bounds = bounds_of(plan);
    BracketStack bracket;
    if (bounds && plan.camera.bracket.step_settings > 0 && bounds->first != bounds->last) {
        const bool known = std::ranges::any_of(plan.camera.step_readings,
                                               [&](const auto& reading) { return reading.lens == plan.lens.id; });
        bracket.choice = choose_step(plan, plan.shot.exposure.f_number, bounds->step);
        bracket.unmeasured = !known;
        bracket.too_coarse = known && !bracket.choice;
    }
    const auto step =
        bracket.choice && bounds
            ? RingStep{.expected = bracket.choice->ring_step, .sure = bracket.choice->least_ring_step, .even = false}
        : bounds ? RingStep{.expected = bounds->step, .sure = bounds->step}
                 : RingStep{};
    auto made = bounds ? turned(plan, *bounds, step) : out_of_reach(plan, wish);
    auto by_ring = std::get<ByRing>(std::move(made.stack.way));
    focus_passes(plan, made, by_ring, bracket);
    made.stack.way = ByBracket{.by_ring = by_ring, .bracket = std::move(bracket)};
    return made;
}

bool starts_centred(const Plan& plan) {
    const auto& bracket = plan.camera.bracket;
    const auto start = plan.shot.capture.composite ? bracket.composite_start : bracket.start;
    return start == gear::BracketStart::centre;
}

std::optional<double> cadence_of(const Plan& plan) {
    const auto& capture = plan.shot.capture;
    const bool brackets = capture.mode == shoot::CaptureMode::stack && capture.mover == shoot::Mover::ring;
    return capture.cadence || !brackets ? capture.cadence : plan.camera.bracket.cadence;
}

double held_after(const Plan& plan, const CaptureReport& capture, double frames) {
    if (!capture.stack || frames < 1) return frames < 1 ? 0 : 1;
    const auto wanted = wanted_sharp(plan);
    const auto reach = frame_reach(plan, plan.at, plan.shot.exposure.f_number);
    if (!reach || !(wanted.length() > 0)) return 1;
    const auto& stack = *capture.stack;
    const double step = capture.frames > 1 ? (stack.last - stack.first) / (capture.frames - 1) : 0;
    const double held = stack.first + step * (std::min(frames, capture.frames) - 1) + reach->far;
    return std::clamp((held - wanted.from) / wanted.length(), 0.0, 1.0);
}

}  // namespace poquito::plan
