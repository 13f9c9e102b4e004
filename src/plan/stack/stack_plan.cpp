#include "plan/stack/stack_plan.hpp"

#include "optics/aperture.hpp"
#include "optics/depth.hpp"
#include "plan/plan.hpp"
#include "plan/stack/step_sizes.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace poquito::plan {
namespace {

constexpr double as_good_as_whole = 1e-9;  // what MODEL 2 lets a count of frames be off by
constexpr double infinite = std::numeric_limits<double>::infinity();

/// From the planned plane of focus to the nearest point.
double nearest_from_focus(const Plan& plan) { return -plan.extent.depth / 2 - plan.shot.sharpness.focus_offset; }

double plane_at(const Plan& plan, const optics::FocusedTrain& at) {
    return *at.subject_to_sensor - *plan.at.subject_to_sensor - nearest_from_focus(plan);
}

std::optional<double> ring_at(const Plan& plan, double plane) {
    return optics::ring_for_distance(plan.train, *plan.at.subject_to_sensor + plane + nearest_from_focus(plan),
                                     plan.at.ring);
}

double frames_for(double length, double frame_depth, double step) {
    return std::max(1.0, std::ceil((length - frame_depth) / step - as_good_as_whole) + 1);
}

}  // namespace

StackSpan span_of(const Plan& plan) {
    const auto& capture = plan.shot.capture;
    StackSpan span{.from = 0, .to = plan.extent.depth};
    if (capture.slice) {
        span.from = std::min(capture.slice->from, plan.extent.depth);
        span.to = std::clamp(capture.slice->to, span.from, plan.extent.depth);
    }
    span.from -= capture.lead;
    span.to += capture.tail;
    return span;
}

double least_step(const gear::Rail& rail) {
    if (!rail.pitch || !rail.steps_per_turn) return rail.step;
    // A motor stops at its own steps only; the least that can be set is so many of them.
    const double motor = *rail.pitch / *rail.steps_per_turn;
    return std::max(1.0, std::ceil(rail.step / motor - as_good_as_whole)) * motor;
}

double default_settle(shoot::Mover mover) {
    switch (mover) {
        case shoot::Mover::rail:
            return 1;
        case shoot::Mover::ring:
            return 0.2;
        case shoot::Mover::hand:
            return 0;
    }
    return 0;
}

double exposures_of(const CaptureReport& report) {
    if (!report.stack || !report.stack->hand || report.frames < 2) return report.frames;
    const auto& hand = *report.stack->hand;
    return std::isfinite(hand.bursts) ? hand.bursts * hand.burst_frames : report.frames;
}

// ---- by ring -----------------------------------------------------------------------------------------------------

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
RingShort ring_short(const Plan& plan, const StackReport& stack) {
    const double planned = -nearest_from_focus(plan);
    const auto room = room_from(plan, plan.at.ring);
    RingShort missing{.in_front = std::max(0.0, planned - stack.first - room.in_front)};
    if (room.behind) missing.behind = std::max(0.0, stack.last - planned - *room.behind);
    return missing;
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

bool steps_by_camera(const Plan& plan) {
    return plan.camera.bracket.max_frames > 1 && plan.lens.autofocus && !plan.shot.rig.reversing_ring;
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

void plan_by_ring(const Plan& plan, CaptureReport& report) {
    auto& stack = *report.stack;
    const double f_number = plan.shot.exposure.f_number;
    std::optional<RingBounds> bounds;
    if (plan.at.subject_to_sensor) bounds = ring_bounds(plan, stack.span, f_number);
    const bool by_camera = steps_by_camera(plan);
    if (by_camera) stack.bracket = BracketStack{};
    if (bounds) {
        const double travel = std::abs(bounds->last - bounds->first);
        const bool known = std::ranges::any_of(plan.camera.step_readings,
                                               [&](const auto& reading) { return reading.lens == plan.lens.id; });
        double step = bounds->step, counted = bounds->step;
        if (by_camera && plan.camera.bracket.step_settings > 0 && travel > 0) {
            auto& bracket = *stack.bracket;
            bracket.choice = choose_step(plan, f_number, bounds->step);
            bracket.unmeasured = !known;
            bracket.too_coarse = known && !bracket.choice;
            if (bracket.choice) {
                step = bracket.choice->ring_step;
                counted = bracket.choice->least_ring_step;  // as many as it takes if the steps turn out short
            }
        }
        report.frames = travel > 0 ? std::ceil(travel / counted - as_good_as_whole) + 1 : 1;
        const double ring_step = report.frames < 2 ? step
                                 : stack.bracket && stack.bracket->choice
                                     ? step
                                     : travel / (report.frames - 1);  // the last plane where it has to be
        stack.ring = ring_stack(plan, *bounds, ring_step);
        stack.first = plane_at(plan, optics::focus_at_ring(plan.train, bounds->first));
        stack.last = plane_at(plan, optics::focus_at_ring(plan.train, bounds->last));
        report.step = std::abs(travel_per_ring(plan.train, plan.at.ring)) * ring_step;
        report.ring_travel = optics::ring_travel(
            plan.train, plan.at,
            {.first = stack.first + nearest_from_focus(plan), .last = stack.last + nearest_from_focus(plan)});
    } else if (plan.at.subject_to_sensor) {
        stack.ring_short = ring_short(plan, stack);
    }
    if (!by_camera) return;
    auto& bracket = *stack.bracket;
    bracket.passes = passes_of(plan, report.frames);
    const bool centre = plan.camera.bracket.start == gear::BracketStart::centre;
    const auto frames = bracket.passes.front().frames;
    bracket.behind = centre ? frames / 2 : frames - 1;
    bracket.before = frames - 1 - bracket.behind;
    const double per_frame = report.frames > 1 ? (stack.last - stack.first) / (report.frames - 1) : 0;
    for (auto& pass : bracket.passes) {
        const auto start = static_cast<double>(pass.first + (centre ? (pass.frames - 1) - pass.frames / 2 : 0));
        pass.focus = stack.first + start * per_frame;
        if (!stack.ring || report.frames < 2) continue;
        const double share = start / (report.frames - 1);
        const double ring = stack.ring->first_ring + (stack.ring->last_ring - stack.ring->first_ring) * share;
        pass.focus = plane_at(plan, optics::focus_at_ring(plan.train, ring));
    }
}

// ---- by rail and by hand -----------------------------------------------------------------------------------------

/// The planes of equal steps whose depths leave as much over at either end of the span.
void place_evenly(const Plan& plan, CaptureReport& report) {
    auto& stack = *report.stack;
    const auto reach = frame_reach(plan, plan.at, plan.shot.exposure.f_number);
    const double covered = (report.frames - 1) * *report.step + reach->depth();
    stack.first = stack.span.from - (covered - stack.span.length()) / 2 + reach->near;
    stack.last = stack.first + (report.frames - 1) * *report.step;
}

void plan_by_rail(const Plan& plan, CaptureReport& report) {
    auto& stack = *report.stack;
    RailStack made;
    const gear::Rail* rail = plan.shot.rig.rail ? gear::find_gear(plan.kit.rails, *plan.shot.rig.rail) : nullptr;
    if (rail) {
        made.unit = least_step(*rail);
        made.motor = rail->pitch && rail->steps_per_turn;
        made.units = std::floor(*report.step / made.unit + as_good_as_whole);
        // Too coarse a rail is said in a note; it cannot step less than it can.
        if (made.units < 1) made.units = 1;
        report.step = made.units * made.unit;
        if (rail->pitch) made.turns = *report.step / *rail->pitch;
        report.frames = frames_for(stack.span.length(), *report.frame_depth, *report.step);
        // Twice what is lost, so that a worn screw does not matter (common practice).
        made.take_up = 2 * rail->backlash;
    }
    place_evenly(plan, report);
    made.travel = made.take_up + stack.last - stack.first;
    if (rail) made.spare = rail->travel - made.travel;
    if (plan.at.working_distance) {
        made.clearance = *plan.at.working_distance - stack.last;
        const auto pupil = optics::entrance_pupil(plan.at, plan.shot.exposure.f_number);
        const double to_pupil = *plan.at.working_distance + pupil.behind_front;
        if (to_pupil > 0) report.viewpoint_change = (stack.last - stack.first) / to_pupil;
    }
    stack.rail = made;
}

HandStack hand_stack(const Plan& plan, const CaptureReport& report) {
    const auto& hand = plan.shot.capture.hand;
    const double depth = *report.frame_depth, step = *report.step;
    // Planes away from the middle are passed at uneven times, the outermost worst.
    const auto outermost = [&](double frames) { return sway_odds(hand, depth, (frames - 1) * step / 2); };
    HandStack made{.burst_frames = burst_frames(hand), .plane = sway_odds(hand, depth)};
    made.bursts = bursts_for_all(outermost(report.frames), report.frames);
    constexpr double most_told = 1000;  // more than anyone takes by hand
    while (made.largest < std::min(report.frames + 200, most_told) &&
           bursts_for_all(outermost(made.largest + 1), made.largest + 1) <= most_bursts)
        ++made.largest;
    for (const Brace& brace : braces()) {
        shoot::HandHeld other = hand;
        other.speed = brace.speed;
        other.range = brace.range;
        made.braced.push_back(sway_odds(other, depth));
    }
    return made;
}

}  // namespace

void report_stack(const Plan& plan, CaptureReport& report) {
    report.stack = StackReport{.span = span_of(plan)};
    report.step = report.by_rule.step;
    report.frames = report.by_rule.frames;
    place_evenly(plan, report);
    switch (plan.shot.capture.mover) {
        case shoot::Mover::ring:
            plan_by_ring(plan, report);
            break;
        case shoot::Mover::rail:
            plan_by_rail(plan, report);
            break;
        case shoot::Mover::hand:
            report.stack->hand = hand_stack(plan, report);
            break;
    }
    auto& stack = *report.stack;
    stack.hold_still = *report.frame_depth * plan.shot.capture.overlap / 2;
    report.travel = optics::FocusTravel{.first = stack.first + nearest_from_focus(plan),
                                        .last = stack.last + nearest_from_focus(plan)};
}

std::vector<StackFrame> stack_frames(const Plan& plan, const Report& report) {
    const auto& capture = report.capture;
    if (!capture.stack) return {{.plane = -nearest_from_focus(plan)}};
    const auto& stack = *capture.stack;
    const auto frames = static_cast<std::size_t>(std::min(capture.frames, most_frames));
    std::vector<StackFrame> list(frames);
    for (std::size_t i = 0; i < frames; ++i) {
        auto& frame = list[i];
        const double share = capture.frames > 1 ? static_cast<double>(i) / (capture.frames - 1) : 0;
        frame.plane = stack.first + (stack.last - stack.first) * share;
        if (stack.ring) {
            const double sign = stack.ring->last_ring < stack.ring->first_ring ? -1 : 1;
            frame.ring =
                std::clamp(stack.ring->first_ring + sign * stack.ring->ring_step * static_cast<double>(i), 0.0, 1.0);
            const auto at = optics::focus_at_ring(plan.train, *frame.ring);
            frame.plane = at.subject_to_sensor ? plane_at(plan, at) : infinite;
        }
        if (stack.rail) frame.rail = static_cast<double>(i) * capture.step.value_or(0);
    }
    return list;
}

// ---- hand --------------------------------------------------------------------------------------------------------

const std::vector<Brace>& braces() {
    static const std::vector<Brace> list = {
        {.id = "standing", .name = "standing free", .speed = 12, .range = 15},
        {.id = "kneeling", .name = "kneeling, elbow on the knee", .speed = 6, .range = 6},
        {.id = "stick", .name = "lens resting on a stick or on the hand that holds the stem", .speed = 3, .range = 3},
        {.id = "ground", .name = "elbows or a bean bag on the ground", .speed = 1.5, .range = 1.5},
    };
    return list;
}

double burst_frames(const shoot::HandHeld& sway) {
    return std::max(1.0, std::floor(sway.frames_per_second * sway.burst + as_good_as_whole));
}

namespace {

double bursts_until(double chance, double miss) {
    if (chance <= 0) return infinite;
    if (chance >= 1) return 1;
    return std::max(1.0, std::ceil(std::log(miss) / std::log1p(-chance) - as_good_as_whole));
}
constexpr double miss = 0.05;

}  // namespace

SwayOdds sway_odds(const shoot::HandHeld& sway, double depth, double offset) {
    constexpr double most_of_burst = 2000;  // frames: no buffer takes more
    const double half = sway.range / 2, circle = 2 * sway.range;
    // On the way there the depth is passed between `low` and `high`, on the way back the other way round.
    const double low = std::max(-half, offset - depth / 2), high = std::min(half, offset + depth / 2);
    if (low >= high) return {.chance = 0, .bursts = infinite};
    const double length = high - low;
    const std::array starts = {half + low, 3 * half - high};
    const auto frames = static_cast<std::size_t>(std::min(burst_frames(sway), most_of_burst));
    const double stride = sway.speed / sway.frames_per_second;
    // A beginning is a hit where some frame then falls into the depth: each frame's hits, moved back by its way.
    std::vector<double> arcs;
    arcs.reserve(2 * frames);
    for (std::size_t i = 0; i < frames; ++i)
        for (const double start : starts) {
            double at = std::fmod(start - static_cast<double>(i) * stride, circle);
            if (at < 0) at += circle;
            arcs.push_back(at);
        }
    std::ranges::sort(arcs);
    double hit = 0;
    for (std::size_t i = 0; i < arcs.size(); ++i) {
        const double next = i + 1 < arcs.size() ? arcs[i + 1] : arcs.front() + circle;
        hit += std::min(length, next - arcs[i]);
    }
    const double chance = std::min(1.0, hit / circle);
    return {.chance = chance, .bursts = bursts_until(chance, miss)};
}

double bursts_for_all(const SwayOdds& odds, double planes) { return bursts_until(odds.chance, miss / planes); }

// ---- what it costs -----------------------------------------------------------------------------------------------

double last_exposure(double frames, double interval, double write, double buffer) {
    const double last = frames - 1;
    if (write <= interval) return last * interval;
    // The card is busy from the first frame on: a frame waits until the one `buffer` before it is written.
    return std::max(last * interval, (last - buffer + 1) * write);
}

double blur_of_frames(const Plan& plan, double span, double frames) {
    const auto imaging = imaging_of(plan, plan.shot.exposure.f_number);
    const double defocus = optics::blur_disc(imaging, span / (2 * frames)).value_or(0);
    return std::hypot(optics::airy_diameter(imaging.working_f_number, plan.shot.sharpness.wavelength), defocus);
}

namespace {

/// Few enough that a twentieth is all that more of them could sharpen.
double enough_frames(const Plan& plan, double span, double airy) {
    const auto imaging = imaging_of(plan, plan.shot.exposure.f_number);
    constexpr double nearly = 1.05;
    const double disc = airy * std::sqrt(nearly * nearly - 1);
    // disc = m^2 A b / (A N_w + m b s), solved for b.
    const double m = imaging.magnification, a = imaging.pupil_diameter;
    const double per = m * m * a - disc * m * imaging.pupil_scale;
    if (per <= 0) return 1;
    const double behind = disc * a * imaging.working_f_number / per;
    return std::max(1.0, std::ceil(span / (2 * behind) - as_good_as_whole));
}

}  // namespace

void report_cost(const Plan& plan, CaptureReport& report) {
    const auto& shot = plan.shot;
    const auto& capture = shot.capture;
    auto& cost = report.cost;
    auto& cadence = cost.cadence;
    const bool stack = report.frames > 1;
    const bool by_hand = stack && capture.mover == shoot::Mover::hand;
    cadence.exposure = shot.exposure.shutter;
    cadence.recycle = report.recycle;
    if (stack && capture.mover == shoot::Mover::rail) {
        const gear::Rail* rail = shot.rig.rail ? gear::find_gear(plan.kit.rails, *shot.rig.rail) : nullptr;
        cadence.move = *report.step / (rail ? rail->speed : gear::Rail{}.speed);
    }
    if (stack) cadence.settle = capture.settle.value_or(default_settle(capture.mover));
    const double at_rest = std::max(cadence.move + cadence.settle, report.recycle);
    cadence.frame = std::max(report.interval, cadence.exposure + at_rest);
    if (by_hand) cadence.frame = std::max(1 / capture.hand.frames_per_second, cadence.exposure + report.recycle);
    cost.exposures = exposures_of(report);

    const auto& camera = plan.camera;
    if (camera.write_speed) cadence.write = camera.frame_mb / *camera.write_speed;
    double last = (cost.exposures - 1) * cadence.frame;
    if (camera.buffer_frames && camera.write_speed) {
        const double stalled = last_exposure(cost.exposures, cadence.frame, cadence.write, *camera.buffer_frames);
        cost.stalls = stalled - last;
        last = stalled;
        if (cadence.write > cadence.frame)
            cost.frames_to_stall =
                std::floor((*camera.buffer_frames - 1) * cadence.write / (cadence.write - cadence.frame)) + 1;
        if (cost.stalls <= 0) cost.frames_to_stall.reset();
    }
    cost.seconds = last + cadence.exposure;
    report.data_mb = cost.exposures * camera.frame_mb;
    if (camera.card_space) cost.card_share = report.data_mb / *camera.card_space;
    if (camera.charge) cost.charge_share = cost.exposures / *camera.charge;
    if (!(plan.at.magnification > 0)) return;
    cost.floor = optics::airy_diameter(working_f_number(plan, shot.exposure.f_number), shot.sharpness.wavelength);
    if (!report.stack) return;
    cost.blur = blur_of_frames(plan, report.stack->span.length(), report.frames);
    cost.enough_frames = enough_frames(plan, report.stack->span.length(), cost.floor);
}

}  // namespace poquito::plan
