#include "advice/rules/rules.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

const plan::StackReport* stack_of(const plan::Report& report) {
    return report.capture.frames > 1 && report.capture.stack ? &*report.capture.stack : nullptr;
}

/// The first stop, stepping down, that keeps the stack within so many frames and its Airy disc within twice the limit.
std::optional<double> stop_within(const plan::Plan& plan, const plan::Report& report, double frames) {
    const double airy_per_f_number = report.sharpness.airy_diameter / plan.shot.exposure.f_number;
    for (double f = text::step_f_number(plan.shot.exposure.f_number, 1);; f = text::step_f_number(f, 1)) {
        if (f > plan.lens.optics.min_aperture || f * airy_per_f_number > 2 * report.sharpness.blur_limit)
            return std::nullopt;
        const auto taken = plan::stack_frames_at(plan, f);
        if (!taken || *taken <= frames) return f;
        if (text::step_f_number(f, 1) == f) return std::nullopt;
    }
}

bool stays_on(const plan::Plan& plan) {
    return !plan::finds_power(plan) && plan.shot.ambient &&
           std::ranges::none_of(plan.shot.lights,
                                [](const auto& light) { return plan::is_flash(light) && !light.off; });
}

std::optional<Remedy> stop_down_to(const plan::Plan& plan, const std::optional<double>& f) {
    if (!f) return std::nullopt;
    // The same light: a stack stands on a stand and has the time; flashes that find their power do so themselves.
    return remedy(plan, fmt::format("Stop down to {}", text::f_number_text(*f)), [&](shoot::Shot& shot) {
        const double stops = 2 * std::log2(*f / shot.exposure.f_number);
        shot.exposure.f_number = *f;
        if (stays_on(plan)) shot.exposure.shutter = text::nearest_shutter(shot.exposure.shutter * std::exp2(stops));
    });
}

Found frames_above_bracket(const plan::Plan& plan, const plan::Report& report) {
    const double frames = report.capture.frames;
    if (frames <= plan.camera.bracket.max_frames || plan.shot.capture.mover == shoot::Mover::hand) return {};
    if (plan.shot.capture.mover == shoot::Mover::rail && plan.rail) return {};  // it moves as often as it is told
    const double most = std::max(2, plan.camera.bracket.max_frames);
    const double passes = std::ceil((frames - 1) / (most - 1));  // each repeats the last frame of the one before it
    return Finding{
        fmt::format("{} frames pass the {} that this camera brackets: {} passes, or a controlled rail.",
                    text::number_text(frames, 9), plan.camera.bracket.max_frames, text::number_text(passes, 9)),
        stop_down_to(plan, stop_within(plan, report, plan.camera.bracket.max_frames))};
}

Found composite_too_many(const plan::Plan& plan, const plan::Report& report) {
    const double most = plan.camera.bracket.composite_max_frames;
    if (!plan.shot.capture.composite || report.capture.frames <= std::max(most, 1.0)) return {};
    if (most < 2)
        return Finding{"This camera combines nothing itself: its frames are combined afterwards.",
                       remedy(plan, "Combine them later", [](shoot::Shot& shot) { shot.capture.composite = false; })};
    Finding finding{fmt::format("{} frames; this camera combines {} at most.",
                                text::number_text(report.capture.frames, 9), text::number_text(most, 9)),
                    stop_down_to(plan, stop_within(plan, report, most))};
    finding.ways.push_back({shoot::Loss::time, remedy(plan, "Combine them later",
                                                      [](shoot::Shot& shot) { shot.capture.composite = false; })});
    return finding;
}

// ---- ring --------------------------------------------------------------------------------------------------------

/// The ring turned back until its nearest plane is where the stack begins; the camera moves away with it.
std::optional<Remedy> from_closest(const plan::Plan& plan, const plan::Report& report) {
    const auto closest = optics::focus_at_ring(plan.train, 1).subject_to_sensor;
    if (!closest || plan.train.closeup_power > 0) return std::nullopt;
    constexpr double room = 1.05;
    const double needed = *closest - report.capture.travel->first * room;
    const auto ring = optics::ring_for_distance(plan.train, needed, plan.at.ring);
    if (!ring || *ring >= plan.at.ring) return std::nullopt;
    return remedy(plan, "Start at closest focus and go back",
                  [&](shoot::Shot& shot) { shot.rig.focus = {.by = shoot::FocusBy::ring, .value = *ring}; });
}

Found ring_cannot_step(const plan::Plan& plan, const plan::Report& report) {
    const auto& capture = report.capture;
    if (plan.shot.capture.mover != shoot::Mover::ring || !capture.travel || capture.frames < 2 || capture.ring_travel)
        return {};
    const auto to_rail =
        remedy(plan, "Move the camera on a rail", [](shoot::Shot& shot) { shot.capture.mover = shoot::Mover::rail; });
    const bool near_unity = std::abs(report.optics.magnification - 1) < 0.1;
    if (near_unity)
        return Finding{"The focus ring cannot make this stack: near 1:1 it hardly moves the plane of focus.", to_rail};
    const auto* missing = capture.stack->out_of_reach();
    if (missing && missing->in_front > 0) {
        auto back = from_closest(plan, report);
        return Finding{fmt::format("The focus ring cannot make this stack: a lens at closest focus goes no nearer, and "
                                   "{} in front are missing. Set the nearest point at closest focus and go back.",
                                   text::length_text(missing->in_front)),
                       back ? std::move(back) : to_rail};
    }
    return Finding{"The focus ring cannot make this stack: its travel ends before the stack does.", to_rail};
}

Found steps_unmeasured(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    if (!stack || !stack->bracket() || !stack->bracket()->unmeasured) return {};
    return Finding{
        fmt::format("{} numbers its steps 1 to {} and does not say how wide they are with this lens: "
                    "photograph a tilted rule and enter what it shows (Run, Step sizes).",
                    plan.camera.name, plan.camera.bracket.step_settings)};
}

Found steps_too_coarse(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    if (!stack || !stack->bracket() || !stack->bracket()->too_coarse) return {};
    return Finding{
        fmt::format("The narrowest step of {} is wider than the {} of the plan.", plan.camera.name,
                    text::length_text(*report.capture.by_rule.step)),
        remedy(plan, "Move the camera on a rail", [](shoot::Shot& shot) { shot.capture.mover = shoot::Mover::rail; })};
}

Found steps_of_other_stop(const plan::Plan&, const plan::Report& report) {
    const auto* stack = stack_of(report);
    if (!stack || !stack->bracket() || !stack->bracket()->choice || !stack->bracket()->choice->stop_unknown) return {};
    return Finding{
        "The steps were measured at another stop only; many cameras widen them as the lens is stopped down. "
        "Measure this stop too."};
}

// ---- rail --------------------------------------------------------------------------------------------------------

Found rail_too_short(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    const gear::Rail* rail = plan.rail;
    if (!stack || !stack->rail() || !rail || stack->rail()->spare >= 0) return {};
    return Finding{fmt::format("The stack travels {}; {} goes no further than {}.",
                               text::length_text(stack->rail()->travel), rail->name, text::length_text(rail->travel))};
}

Found rail_too_coarse(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    const gear::Rail* rail = plan.rail;
    if (!stack || !stack->rail() || !rail || *report.capture.by_rule.step >= stack->rail()->unit * (1 - 1e-9))
        return {};
    return Finding{
        fmt::format("The stack steps {}; the least that {} can be set to is {}: there will be gaps.",
                    text::length_text(*report.capture.by_rule.step), rail->name,
                    text::length_text(stack->rail()->unit)),
        stop_down_to(plan, stop_within(plan, report, std::floor(stack->span.length() / stack->rail()->unit)))};
}

Found lens_meets_subject(const plan::Plan&, const plan::Report& report) {
    const auto* stack = stack_of(report);
    if (!stack || !stack->rail() || !stack->rail()->clearance || *stack->rail()->clearance >= 0) return {};
    return Finding{
        fmt::format("On the way to the last frame the front of the lens runs {} into the nearest point: work "
                    "from further away, or only as deep as there is room.",
                    text::length_text(-*stack->rail()->clearance))};
}

Found lens_comes_near(const plan::Plan&, const plan::Report& report) {
    const auto* stack = stack_of(report);
    constexpr double near = 10;  // mm, within which lamps no longer reach and a slip touches (common practice)
    if (!stack || !stack->rail() || !stack->rail()->clearance) return {};
    const double clearance = *stack->rail()->clearance;
    if (clearance < 0 || clearance >= near) return {};
    return Finding{fmt::format("At the last frame the front of the lens is {} from the nearest point.",
                               text::length_text(clearance))};
}

// ---- hand --------------------------------------------------------------------------------------------------------

Found too_many_by_hand(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    if (!stack || !stack->hand() || report.capture.frames <= stack->hand()->largest) return {};
    const auto& braced = stack->hand()->braced;
    // Of those that are as good as each other the one that is least trouble, which stands first.
    constexpr double as_good = 1e-6;
    const double most = std::ranges::max(braced, {}, &plan::SwayOdds::chance).chance;
    const auto best =
        std::ranges::find_if(braced, [&](const plan::SwayOdds& odds) { return odds.chance >= most - as_good; }) -
        braced.begin();
    return Finding{
        fmt::format("{} frames by hand have little chance; {} are sensible. Brace ({}), or put it on a tripod.",
                    text::number_text(report.capture.frames, 9), text::number_text(stack->hand()->largest, 9),
                    plan::braces()[static_cast<std::size_t>(best)].name),
        remedy(plan, "Move the camera on a rail", [](shoot::Shot& shot) { shot.capture.mover = shoot::Mover::rail; })};
}

// ---- cost --------------------------------------------------------------------------------------------------------

Found stack_of_moving_subject(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    const double seconds = report.capture.paced_duration;
    if (!stack || plan::wandering(plan.shot.subject, seconds) <= stack->hold_still) return {};
    Finding finding{fmt::format("{}; it would have to hold still for {}, to {}.",
                                moves(plan.shot.subject) ? "The subject moves" : "A live subject does not keep still",
                                text::time_text(seconds), text::length_text(stack->hold_still))};
    if (report.sharpness.best_single_f_number) {
        const double f = std::clamp(mark_below(*report.sharpness.best_single_f_number), plan.lens.optics.max_aperture,
                                    plan.lens.optics.min_aperture);
        finding.remedy = remedy(plan, fmt::format("One frame at {}", text::f_number_text(f)), [&](shoot::Shot& shot) {
            shot.capture.mode = shoot::CaptureMode::single;
            shot.exposure.f_number = f;
        });
    }
    return finding;
}

Found slice_outside(const plan::Plan& plan, const plan::Report&) {
    const auto& slice = plan.shot.capture.slice;
    if (plan.shot.capture.mode != shoot::CaptureMode::stack || !slice || slice->to <= plan.extent.depth * (1 + 1e-9))
        return {};
    return Finding{
        fmt::format("The chosen slice ends {} behind the nearest point; the subject is only {} deep as it is "
                    "turned now.",
                    text::length_text(slice->to), text::length_text(plan.extent.depth)),
        remedy(plan, "Stack all of it", [](shoot::Shot& shot) { shot.capture.slice.reset(); })};
}

Found card_too_small(const plan::Plan&, const plan::Report& report) {
    const auto& share = report.capture.cost.card_share;
    if (!share || *share <= 1) return {};
    return Finding{fmt::format("{} do not fit on the card: it has room for {}.",
                               text::data_text(report.capture.data_mb),
                               text::data_text(report.capture.data_mb / *share))};
}

Found battery_too_small(const plan::Plan&, const plan::Report& report) {
    const auto& share = report.capture.cost.charge_share;
    if (!share || *share <= 1) return {};
    return Finding{fmt::format("{} are more than the {} that a charge of the camera lasts.",
                               text::count_text(report.capture.cost.exposures, "frame", "frames"),
                               text::number_text(report.capture.cost.exposures / *share, 6))};
}

Found buffer_fills(const plan::Plan&, const plan::Report& report) {
    const auto& cost = report.capture.cost;
    if (!cost.frames_to_stall) return {};
    // No remedy: a slower pace from the start takes as long.
    return Finding{fmt::format("After {} the buffer is full and the camera waits for its card: {} more in all.",
                               text::count_text(*cost.frames_to_stall, "frame", "frames"),
                               text::time_text(cost.stalls))};
}

Found more_than_helps(const plan::Plan& plan, const plan::Report& report) {
    const auto* stack = stack_of(report);
    const auto& cost = report.capture.cost;
    constexpr double plenty = 1.5;
    if (!stack || report.capture.frames <= cost.enough_frames * plenty) return {};
    return Finding{
        fmt::format("Diffraction is all that is left after {}: the other {} sharpen by less than a "
                    "twentieth. Take fewer, or open up.",
                    text::count_text(cost.enough_frames, "frame", "frames"),
                    text::number_text(report.capture.frames - cost.enough_frames, 9)),
        plan.shot.capture.overlap > 0.2
            ? std::optional(remedy(plan, "Overlap of a tenth", [](shoot::Shot& shot) { shot.capture.overlap = 0.1; }))
            : std::nullopt};
}

constexpr Rule stack_rows[] = {
    {"lens-meets-subject", Station::depth, Level::stop, Concern::plan, lens_meets_subject},
    {"frames-above-bracket", Station::depth, Level::caution, Concern::plan, frames_above_bracket},
    {"ring-cannot-step", Station::depth, Level::caution, Concern::plan, ring_cannot_step},
    {"rail-too-short", Station::depth, Level::caution, Concern::plan, rail_too_short},
    {"rail-too-coarse", Station::depth, Level::caution, Concern::plan, rail_too_coarse},
    {"steps-too-coarse", Station::depth, Level::caution, Concern::plan, steps_too_coarse},
    {"stack-of-moving-subject", Station::depth, Level::caution, Concern::plan, stack_of_moving_subject, Quality::odds},
    {"slice-outside-subject", Station::depth, Level::caution, Concern::plan, slice_outside},
    {"too-many-by-hand", Station::run, Level::caution, Concern::plan, too_many_by_hand},
    {"composite-too-many", Station::run, Level::caution, Concern::plan, composite_too_many},
    {"card-too-small", Station::run, Level::caution, Concern::plan, card_too_small},
    {"camera-battery", Station::run, Level::caution, Concern::plan, battery_too_small},
    {"lens-comes-near", Station::depth, Level::info, Concern::plan, lens_comes_near},
    {"buffer-fills", Station::run, Level::info, Concern::plan, buffer_fills},
    {"steps-unmeasured", Station::run, Level::info, Concern::plan, steps_unmeasured},
    {"steps-of-other-stop", Station::run, Level::info, Concern::plan, steps_of_other_stop},
    {"more-frames-than-help", Station::depth, Level::info, Concern::plan, more_than_helps},
};

}  // namespace

std::span<const Rule> stack_rules() { return stack_rows; }

}  // namespace poquito::advice
