#include "run/rehearsal.hpp"

#include "plan/assess.hpp"
#include "run/run_plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <random>

namespace poquito::run {
namespace {

using devices::Mishap;
using devices::MishapKind;

constexpr std::array<MishapWords, 9> words = {{
    {MishapKind::subject_moves, "subject-moves", "the subject moves",
     "Flip to and fro between the last two pictures of the strip: what jumps has moved.", false},
    {MishapKind::rig_slips, "rig-slips", "the rig slips",
     "The plane of focus jumps: the newest picture is sharp further in than its neighbour by more than a step.", false},
    {MishapKind::light_changes, "light-changes", "the light changes",
     "The newest pictures of the strip are darker than the first: compare them, not each with the one before.", false},
    {MishapKind::flash_not_ready, "flash-not-ready", "the flash misses a frame",
     "One picture of the strip is dark, and its cell says so; it is taken again behind the others.", false},
    {MishapKind::flash_dies, "flash-dies", "the flash dies",
     "It waits for the flash and holds: fresh cells, then go on.", true},
    {MishapKind::camera_drops, "camera-drops", "the camera drops its connection",
     "It holds: the cable, the camera's own sleep, a flat cell, in that order.", true},
    {MishapKind::rail_drops, "rail-drops", "the rail drops its connection",
     "It holds: cable and supply; the rail finds its place again.", true},
    {MishapKind::card_full, "card-full", "the card is full", "It holds: another card, then go on at the same frame.",
     true},
    {MishapKind::wrong_aperture, "wrong-aperture", "the stop is turned",
     "It holds and says what the camera has: set it back, then go on.", true},
}};

/// What part of the field a subject that is touched moves by: seen when one flips, not at a glance.
constexpr double touch = 0.03;
constexpr double slip_steps = 2.5;   // of the stack: a gap beyond any overlap
constexpr double slip_share = 0.12;  // of its whole way: what slips in a clamp does not slip by micrometres
constexpr double dimming = 0.35;     // stops: less than what counts as a missed flash

double step_of(const RunPlan& plan) {
    if (plan.frames.size() < 2) return 0;
    return (plan.frames.back().plane - plan.frames.front().plane) / static_cast<double>(plan.frames.size() - 1);
}

std::string frame_name(std::size_t frame) { return fmt::format("frame {}", frame + 1); }

std::string frames_text(std::size_t count) { return count == 1 ? "one frame" : fmt::format("{} frames", count); }

/// What it does to the frames, at `frame`.
std::string happened(const Mishap& mishap) {
    const auto at = frame_name(mishap.frame);
    switch (mishap.kind) {
        case MishapKind::subject_moves:
            return fmt::format(
                "The subject moved by {} before {}: what came before and after does not lie on one another.",
                text::length_text(std::abs(mishap.size)), at);
        case MishapKind::rig_slips:
            return fmt::format(
                "The rig slipped by {} towards the subject before {}: the slice between is sharp nowhere.",
                text::length_text(std::abs(mishap.size)), at);
        case MishapKind::light_changes:
            return fmt::format("From {} on there was {:.2g} of a stop less light.", at, mishap.size);
        case MishapKind::flash_not_ready:
            return fmt::format("At {} the flash said it was ready and gave a quarter of its light.", at);
        case MishapKind::flash_dies:
            return fmt::format("Before {} the flash died.", at);
        case MishapKind::camera_drops:
            return fmt::format("Before {} the camera dropped its connection.", at);
        case MishapKind::rail_drops:
            return fmt::format("Before {} the rail dropped its connection.", at);
        case MishapKind::card_full:
            return fmt::format("Before {} the card was full.", at);
        case MishapKind::wrong_aperture:
            return fmt::format("Before {} the stop was turned by {:.2g} stops.", at, std::abs(mishap.size));
    }
    return {};
}

}  // namespace

std::span<const MishapWords> mishap_words() { return words; }

const MishapWords& words_of(MishapKind kind) { return *std::ranges::find(words, kind, &MishapWords::kind); }

std::vector<MishapKind> possible_mishaps(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan,
                                         bool silent) {
    const bool stack = plan.frames.size() > 1;
    const bool flash = !plan.powers.empty();
    const bool light = flash || shot.ambient.has_value();
    const bool rail =
        stack && std::ranges::any_of(plan.frames, [](const RunFrame& frame) { return frame.rail.has_value(); });
    const bool contacts = shoot::lens_of(kit, shot).contacts;
    std::vector<MishapKind> possible;
    if (stack) possible = {MishapKind::subject_moves, MishapKind::rig_slips};
    if (stack && light) possible.push_back(MishapKind::light_changes);
    if (silent) return possible;
    if (flash) possible.insert(possible.end(), {MishapKind::flash_not_ready, MishapKind::flash_dies});
    possible.insert(possible.end(), {MishapKind::camera_drops, MishapKind::card_full});
    if (rail) possible.push_back(MishapKind::rail_drops);
    if (contacts) possible.push_back(MishapKind::wrong_aperture);
    return possible;
}

Mishap sized_mishap(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan, MishapKind kind,
                    std::size_t frame) {
    Mishap mishap{.kind = kind, .frame = frame};
    if (kind == MishapKind::subject_moves)
        mishap.size = plan::assess(kit, shot, {}).optics.field_width.value_or(shot.subject.width) * touch;
    if (kind == MishapKind::rig_slips)
        mishap.size =
            std::max(step_of(plan) * slip_steps, (plan.frames.back().plane - plan.frames.front().plane) * slip_share);
    if (kind == MishapKind::light_changes) mishap.size = dimming;
    return mishap;
}

Mishap draw_mishap(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan, std::uint64_t seed,
                   bool silent) {
    // The engine is the same everywhere; distributions of the library are not.
    std::mt19937_64 chance(seed);
    auto possible = possible_mishaps(kit, shot, plan, silent);
    if (possible.empty()) possible = {MishapKind::subject_moves};
    const auto kind = possible[chance() % possible.size()];
    // Not among the first few, which everyone looks at, nor when it is over.
    const auto count = plan.frames.size();
    const auto from = count / 4, room = std::max<std::size_t>(count / 2, 1);
    return sized_mishap(kit, shot, plan, kind, std::min(from + chance() % room, count > 0 ? count - 1 : 0));
}

RehearsalReport report_rehearsal(const RunState& state, const Mishap& mishap, const std::vector<Noticed>& notices,
                                 double setup) {
    const auto& plan = state.plan;
    const auto& how = words_of(mishap.kind);
    const auto count = plan.frames.size();
    RehearsalReport report{.happened = happened(mishap), .noticed = {}, .cost = {}, .next = how.shows};
    // What the bench tells comes before its frame, what it does not shows in it. What is exposed may not be saved yet.
    const auto exposed = static_cast<std::size_t>(std::ranges::count_if(
        state.frames, [](const JournalFrame& frame) { return frame.state >= FrameState::exposed; }));
    if (how.told ? exposed < mishap.frame : exposed <= mishap.frame) {
        report.happened = "Nothing went wrong yet: it was over before.";
        report.noticed = notices.empty() ? "" : "A false alarm; they are cheap.";
        report.cost = {};
        report.next = "Let it run: most of what goes wrong comes in the middle.";
        return report;
    }
    const auto noticed = std::ranges::find_if(notices, [&](const Noticed& one) { return one.frame >= mishap.frame; });
    const auto right = std::ranges::find_if(
        notices, [&](const Noticed& one) { return one.frame >= mishap.frame && one.taken_for == mishap.kind; });
    const bool seen = noticed != notices.end();
    report.named = right != notices.end();
    const auto missing = state.missing().size();
    const auto skipped = static_cast<std::size_t>(
        std::ranges::count(state.frames, FrameState::skipped, [](const JournalFrame& frame) { return frame.state; }));
    const double whole = static_cast<double>(count) * plan.frame_time;
    if (how.told) {
        report.in_time = missing == 0 && skipped == 0;
        report.noticed = "The bench held and said so.";
        report.spoilt = missing + skipped;
        report.seconds = static_cast<double>(report.spoilt) * plan.frame_time;
        report.seconds_at_home = setup + whole;
        report.cost = report.in_time ? "You put it right and went on: nothing is lost."
                      : skipped > 0
                          ? fmt::format("{} left out: a gap that no program closes. Take them while the set stands.",
                                        frames_text(skipped))
                          : fmt::format("{} still to be taken: Run goes on where it broke off, {}.",
                                        frames_text(missing), text::time_text(std::ceil(report.seconds)));
        return report;
    }
    if (mishap.kind == MishapKind::flash_not_ready) {
        report.in_time = true;
        report.noticed = seen ? "You saw it, and so did the bench: it took the frame again behind the others."
                              : "The bench saw that the frame is dark and took it again behind the others.";
        report.spoilt = 1;
        report.seconds = plan.frame_time;
        report.seconds_at_home = setup + whole;
        report.cost = "One frame. A camera alone would not have noticed: a dark slice in the middle of the stack.";
        return report;
    }
    // From where on, to the last one that was taken.
    const auto last = seen ? std::min(noticed->frame, count - 1) : count - 1;
    const auto behind = last - mishap.frame + 1;
    report.in_time = seen;
    if (seen) {
        const auto later = noticed->frame - mishap.frame;
        report.noticed =
            fmt::format("You noticed {}{}", later == 0 ? std::string("at once") : frames_text(later) + " later",
                        report.named ? std::string(", and said what it was.")
                        : noticed->taken_for
                            ? fmt::format(", but took it for something else: {}.", words_of(*noticed->taken_for).name)
                            : std::string("."));
    } else {
        report.noticed = "Nobody noticed while it ran.";
    }
    if (notices.begin() != noticed && !notices.empty())
        report.noticed += fmt::format(" Before it there was nothing; {} false.",
                                      noticed - notices.begin() == 1 ? "one alarm was" : "the alarms before were");
    const bool begins_anew = mishap.kind == MishapKind::subject_moves;
    report.spoilt = begins_anew ? last + 1 : behind;
    report.seconds = static_cast<double>(report.spoilt) * plan.frame_time;
    report.seconds_at_home = setup + whole;
    const auto time = text::time_text(std::ceil(report.seconds));
    const auto home = text::time_text(std::ceil(report.seconds_at_home));
    if (mishap.kind == MishapKind::light_changes)
        report.cost = fmt::format(
            "{} to be taken again, {}. Found at home they are lightened by hand, frame by frame, or the picture has a "
            "seam.",
            frames_text(report.spoilt), time);
    else if (begins_anew)
        report.cost =
            fmt::format("It begins anew: {} for nothing, {}. Found at home: laid out again and all of it taken, {}.",
                        frames_text(report.spoilt), time, home);
    else
        report.cost = fmt::format("Back to {}: {} again, {}. Found at home: laid out again and all of it taken, {}.",
                                  frame_name(mishap.frame), frames_text(report.spoilt), time, home);
    return report;
}

Found judge_answer(const Mishap& mishap, MishapKind said, std::size_t frame) {
    Found found{.kind = said == mishap.kind,
                .place = (frame > mishap.frame ? frame - mishap.frame : mishap.frame - frame) <= 1,
                .said = happened(mishap)};
    if (!found.kind || !found.place) found.said += fmt::format(" {}", words_of(mishap.kind).shows);
    return found;
}

}  // namespace poquito::run
