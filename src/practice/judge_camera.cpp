#include "judges.hpp"

#include "judging.hpp"

#include "imaging/inspect/frame_scan.hpp"
#include "imaging/inspect/sharp_band.hpp"
#include "imaging/inspect/stack_look.hpp"
#include "plan/assess.hpp"
#include "plan/stack/step_sizes.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

namespace poquito::practice {

namespace {

/// Rows of the picture that focus went from frame to frame on what leans through its middle, that share of it wide: by
/// the line through the depths of its tiles (Theil and Sen: the median of all slopes). Empty where they lie on none.
std::optional<double> rows_a_step(const proof::StackFacts& stack, int width, double wide) {
    if (!stack.look.planes) return std::nullopt;
    const auto& depth = stack.look.planes->depth;
    struct Place {
        double row, steps;
    };
    std::vector<Place> places;
    for (int x = 0; x < depth.columns; ++x) {
        if (std::abs((x + 0.5) * stack.look.tile / width - 0.5) > wide / 2) continue;
        for (int y = 0; y < depth.rows; ++y)
            if (const auto steps = static_cast<double>(depth.at(x, y)); !std::isnan(steps))
                places.push_back({(y + 0.5) * stack.look.tile, steps});
    }
    std::vector<double> slopes;
    slopes.reserve(places.size() * places.size() / 2);
    for (std::size_t i = 0; i < places.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            if (places[i].row != places[k].row)
                slopes.push_back((places[i].steps - places[k].steps) / (places[i].row - places[k].row));
    constexpr std::size_t enough = 60;  // of them: a dozen tiles
    if (slopes.size() < enough) return std::nullopt;
    const double slope = median(slopes);
    std::vector<double> feet, off;
    feet.reserve(places.size()), off.reserve(places.size());
    for (const auto& one : places) feet.push_back(one.steps - slope * one.row);
    const double foot = median(feet);
    for (const auto& one : feet) off.push_back(std::abs(one - foot));
    const auto [least, most] = std::ranges::minmax(places, {}, &Place::row);
    const double run = std::abs(slope) * (most.row - least.row);
    constexpr double leaning = 3, straight = 0.1;  // steps; of the run
    if (run < leaning || median(off) > straight * run) return std::nullopt;
    return 1 / std::abs(slope);
}

/// The reading as the camera's record takes it.
proof::Offer of_reading(const plan::Plan& plan, const plan::Report& report, double step, double frames) {
    proof::Offer offer{.teaches = proof::Teaches::steps, .text = {}, .action = {}, .reading = {}};
    const double travel = step * (frames - 1);
    const auto ring = plan::ring_step_of(plan.train, plan.at.ring, travel, frames);
    if (!ring || !(*ring > 0) || *ring > 1) return offer;
    const auto* bracket = report.capture.stack ? report.capture.stack->bracket() : nullptr;
    offer.reading = {.lens = plan.lens.id,
                     .setting = bracket && bracket->choice ? bracket->choice->setting : 0,
                     .f_number = plan.shot.exposure.f_number,
                     .magnification = plan.at.magnification,
                     .frames = frames,
                     .travel = travel,
                     .ring_step = *ring,
                     .time = {}};
    offer.action = fmt::format("Remember it for {}", plan.camera.name);
    return offer;
}

}  // namespace

Outcome judge_bracket(const gear::Kit& kit, const std::vector<Series>& series) {
    constexpr std::size_t least = 5;
    if (auto more = lacking(series, least); !more.empty()) return missing(more);
    const auto& inspection = *series[0].inspection;
    if (!inspection.stack) return missing(no_stack);
    const auto& stack = *inspection.stack;
    std::vector<Fact> facts = {{"frames", number(static_cast<double>(inspection.frames.size()), 6)}};
    if (auto why = spoilt(stack); !why.empty()) return failed(std::move(why), std::move(facts));
    const auto plan = plan::plan_of(kit, *series[0].shot, {});
    const int width = inspection.frames[stack.frames.front()].scan->width;
    const double pitch = plan.sensor.width / width, m = plan.at.magnification;
    // Its edges left out, and the toy beside it.
    const double wide = 0.8 * plan.shot.subject.width * m / plan.sensor.width;
    const auto rows = rows_a_step(stack, width, wide);
    if (!rows)
        return failed(
            "The rule tells nothing: it has to lean back by 45 degrees through the middle of the frame, and focus has "
            "to go along it.",
            std::move(facts));
    constexpr double least_lean = 10, most_lean = 80;  // degrees: beyond them nothing is told, forwards or back
    const double tilt = std::abs(plan.shot.subject.tilt);
    if (tilt < least_lean || tilt > most_lean)
        return failed(
            fmt::format("The shot says that the rule leans by {:.0f}\u00b0. Put in how far it leaned, as its tilt.",
                        tilt),
            std::move(facts));
    const double step = imaging::travel_along_axis(*rows, pitch, m, tilt);
    facts.push_back({"a step, by the rule", text::length_text(step)});
    if (const double planned = inspection.step(); planned > 0) facts.push_back({"planned", text::length_text(planned)});
    const auto report = plan::assess(plan);
    auto offer = of_reading(plan, report, step, static_cast<double>(inspection.frames.size()));
    // From tan t: a degree more or less makes 2 / sin 2t of it.
    const double lean = tilt * std::numbers::pi / 180;
    const double a_degree = 2 / std::sin(2 * lean) * std::numbers::pi / 180;
    facts.push_back(
        {.name = "the rule leans",
         .value = fmt::format("{:.0f}\u00b0", tilt),
         .remark = fmt::format("As the shot says. A degree more or less makes {:.1f} % of the step.", a_degree * 100)});
    auto words = fmt::format("By the rule a step of the camera was {} here.", text::length_text(step));
    const auto held = report.capture.frame_depth;
    auto outcome =
        !stack.gaps.empty()
            ? failed(fmt::format("{} After frame {} there is a gap: set a smaller step, and take it again.", words,
                                 stack.gaps.front().after_frame),
                     std::move(facts))
        : held && step > *held
            ? failed(fmt::format("{} One frame is sharp over {}, so that there is a gap behind each: set a smaller "
                                 "step, and take it again.",
                                 words, text::length_text(*held)),
                     std::move(facts))
            : passed(words + " No gap, nothing moved.", std::move(facts));
    if (offer.action.empty()) return outcome;
    outcome.said += " Once it is remembered, the plan names the setting for every stack with this lens.";
    outcome.keep = offer.action;
    outcome.taught = Taught{.shot = series[0].shot->id, .offer = std::move(offer)};
    return outcome;
}

namespace {

/// Its detail is weakest up and down: it fell while the flash burned. A crease does so too, but less.
bool drawn_down(const FrameFacts& frame) {
    constexpr double upright = 60, told = 0.3;  // degrees from the row; share
    const auto& structure = frame.scan->structure;
    return std::abs(structure.least_along()) > upright && structure.directed() > told;
}

}  // namespace

Outcome judge_grain(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    const auto frames = frames_of(series[0]);
    const auto sharp = std::ranges::count_if(
        frames, [](const auto* frame) { return !missed(*frame) && frame->has_detail && !drawn_down(*frame); });
    const auto report = plan::assess(kit, *series[0].shot, {});
    std::vector<Fact> facts = {{"frames", number(static_cast<double>(frames.size()), 6)},
                               {"frozen", number(static_cast<double>(sharp), 6)}};
    if (!report.light.sources.empty() && report.light.sources.front().t05)
        facts.push_back({"flash lasts (t0.5)", text::time_text(*report.light.sources.front().t05)});
    if (std::ranges::none_of(frames, [](const auto* frame) { return frame->has_detail; }))
        return failed(
            "It is in none of the frames: the flash came too early or too late. From 30 cm it falls for a quarter of a "
            "second. Let a light barrier or its sound fire the flash, or count aloud and change one thing at a time.",
            facts);
    if (sharp == 0)
        return failed(
            "None is frozen: set the flash to less power and the camera to more ISO, or drop it from less high. What "
            "draws it out is how long the flash burns, whatever the shutter time.",
            facts);
    return passed(fmt::format("{} of {} are frozen. Plan the tries of what falls by that share.", sharp, frames.size()),
                  facts);
}

}  // namespace poquito::practice
