#include "plan/stack/stack_plan.hpp"

#include "making.hpp"
#include "plan/report.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

StackSpan span_of(const Plan& plan) {
    const auto& capture = plan.shot.capture;
    const Zone zone = wanted_sharp(plan);
    return {.from = zone.from - capture.lead, .to = zone.to + capture.tail};
}

const RingStack* StackReport::ring() const {
    const auto* turned = part<ByBracket>(&ByBracket::by_ring);
    if (!turned) turned = std::get_if<ByRing>(&way);
    return turned && turned->ring ? &*turned->ring : nullptr;
}

const RingShort* StackReport::out_of_reach() const {
    const auto* turned = part<ByBracket>(&ByBracket::by_ring);
    if (!turned) turned = std::get_if<ByRing>(&way);
    return turned && turned->out_of_reach ? &*turned->out_of_reach : nullptr;
}

namespace {

bool steps_by_camera(const Plan& plan) {
    return plan.camera.bracket.max_frames > 1 && plan.lens.autofocus && !plan.shot.rig.reversing_ring;
}

MadeStack made_by(const Plan& plan, const StackWish& wish) {
    switch (plan.shot.capture.mover) {
        case shoot::Mover::ring:
            return steps_by_camera(plan) ? stack_by_bracket(plan, wish) : stack_by_ring(plan, wish);
        case shoot::Mover::rail:
            return stack_by_rail(plan, wish);
        case shoot::Mover::hand:
            break;
    }
    return stack_by_hand(plan, wish);
}

}  // namespace

MadeStack make_stack(const Plan& plan, const StackWish& wish) {
    auto made = made_by(plan, wish);
    made.stack.span = span_of(plan);
    made.stack.hold_still = wish.frame_depth * plan.shot.capture.overlap / 2;
    return made;
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
        if (const auto* by_ring = stack.ring()) {
            const double sign = by_ring->last_ring < by_ring->first_ring ? -1 : 1;
            frame.ring = std::clamp(by_ring->first_ring + sign * by_ring->ring_step * static_cast<double>(i), 0.0, 1.0);
            const auto at = optics::focus_at_ring(plan.train, *frame.ring);
            frame.plane = at.subject_to_sensor ? plane_at(plan, at) : infinite;
        }
        if (stack.rail()) frame.rail = static_cast<double>(i) * capture.step.value_or(0);
    }
    return list;
}

double nearest_from_focus(const Plan& plan) { return -plan.extent.depth / 2 - plan.focus; }

double plane_at(const Plan& plan, const optics::FocusedTrain& at) {
    return *at.subject_to_sensor - *plan.at.subject_to_sensor - nearest_from_focus(plan);
}

std::optional<double> ring_at(const Plan& plan, double plane) {
    return optics::ring_for_distance(plan.train, *plan.at.subject_to_sensor + plane + nearest_from_focus(plan),
                                     plan.at.ring);
}

Planes evenly(const Plan& plan, double step, double frames) {
    const auto span = span_of(plan);
    const auto reach = frame_reach(plan, plan.at, plan.shot.exposure.f_number);
    const double covered = (frames - 1) * step + reach->depth();
    const double first = span.from - (covered - span.length()) / 2 + reach->near;
    return {.first = first, .last = first + (frames - 1) * step};
}

}  // namespace poquito::plan
