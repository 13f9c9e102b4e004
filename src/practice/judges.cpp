#include "judges.hpp"

#include "imaging/inspect/frame_scan.hpp"
#include "plan/assess.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <set>
#include <utility>

namespace poquito::practice {
namespace {

using proof::Code;
using proof::FrameFacts;

Outcome missing(const std::string& what) { return {.result = Result::open, .said = what, .facts = {}}; }
Outcome failed(std::string why, std::vector<Fact> facts) {
    return {.result = Result::failed, .said = std::move(why), .facts = std::move(facts)};
}
Outcome passed(std::string said, std::vector<Fact> facts) {
    return {.result = Result::passed, .said = std::move(said), .facts = std::move(facts)};
}

/// The frames of a series that can be read.
std::vector<const FrameFacts*> frames_of(const Series& series) {
    std::vector<const FrameFacts*> frames;
    if (series.inspection)
        for (const auto& frame : series.inspection->frames)
            if (frame.scan) frames.push_back(&frame);
    return frames;
}

/// What is missing: the first series with fewer frames; empty: none is.
std::string lacking(const std::vector<Series>& series, std::size_t each) {
    for (const auto& one : series) {
        const auto count = frames_of(one).size();
        if (count < each)
            return fmt::format("{} more of \u201c{}\u201d: take {}, and look at {} in Proof.",
                               text::count_text(static_cast<double>(each - count), "frame", "frames"), one.shot->name,
                               each - count == 1 ? "it" : "them", each - count == 1 ? "it" : "them");
    }
    return {};
}

double stop_of(const FrameFacts& frame, const Series& series) {
    return frame.exif.known && frame.exif.f_number > 0 ? frame.exif.f_number : series.shot->exposure.f_number;
}

std::string f_text(double stop) { return text::f_number_text(stop); }
std::string number(double value, int digits = 2) { return text::number_text(value, digits); }

double luminance(const std::array<double, 3>& rgb) { return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]; }
double border_stops(const FrameFacts& frame) { return std::log2(std::max(1e-5, luminance(frame.scan->border)) / 0.18); }

/// Fine detail over that twice as wide, in a part of the frame; shares of its sides.
double fineness(const imaging::FrameScan& scan, double left, double top, double right, double bottom) {
    double fine = 0, wider = 0;
    const auto& detail = scan.detail;
    for (int y = static_cast<int>(top * detail.rows); y < static_cast<int>(bottom * detail.rows); ++y)
        for (int x = static_cast<int>(left * detail.columns); x < static_cast<int>(right * detail.columns); ++x)
            fine += static_cast<double>(detail.at(x, y)), wider += static_cast<double>(scan.middling.at(x, y));
    return wider > 0 ? std::sqrt(fine / wider) : 0;
}

/// Rows in which detail stands out, by half of its best row: from and to, shares of the height; empty: nowhere.
struct Band {
    double from = 0, to = 0;
};
std::optional<Band> sharp_rows(const imaging::FrameScan& scan) {
    const auto& detail = scan.detail;
    std::vector<double> rows(static_cast<std::size_t>(detail.rows));
    for (int y = 0; y < detail.rows; ++y)
        for (int x = detail.columns / 4; x < detail.columns * 3 / 4; ++x)
            rows[static_cast<std::size_t>(y)] += static_cast<double>(detail.at(x, y));
    if (rows.size() < 8) return std::nullopt;
    // Means of three rows: a tick between two of them is no gap.
    auto smooth = rows;
    for (std::size_t y = 1; y + 1 < rows.size(); ++y) smooth[y] = (rows[y - 1] + rows[y] + rows[y + 1]) / 3;
    const auto best = std::ranges::max_element(smooth);
    auto sorted = smooth;
    std::ranges::nth_element(sorted, sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 10));
    const double ground = sorted[sorted.size() / 10], half = ground + (*best - ground) * 0.3;
    if (*best <= 0 || *best < 1.5 * ground) return std::nullopt;
    auto from = best, to = best;
    while (from != smooth.begin() && *(from - 1) > half) --from;
    while (to + 1 != smooth.end() && *(to + 1) > half) ++to;
    const auto all = static_cast<double>(smooth.size());
    return Band{.from = static_cast<double>(from - smooth.begin()) / all,
                .to = static_cast<double>(to - smooth.begin() + 1) / all};
}

double median(std::vector<double> values) {
    if (values.empty()) return 0;
    const auto half = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, half);
    return *half;
}

/// From the lightest to the darkest frame, stops.
double scatter(const std::vector<const FrameFacts*>& frames) {
    std::vector<double> stops;
    stops.reserve(frames.size());
    for (const auto* frame : frames) stops.push_back(frame->scan->median_stops);
    const auto [low, high] = std::ranges::minmax(stops);
    return high - low;
}

bool missed(const FrameFacts& frame) {
    return std::ranges::any_of(frame.findings,
                               [](const auto& one) { return one.code == Code::blurred || one.code == Code::shaken; });
}

}  // namespace

Outcome judge_lean(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<Fact> facts;
    std::vector<double> depths, stops;
    double before = 0;
    for (const auto& one : series) {
        const auto& frame = *frames_of(one).back();
        const auto band = sharp_rows(*frame.scan);
        if (!band)
            return failed(
                fmt::format("In \u201c{}\u201d no part of the rule stands out as sharp: focus on its middle by "
                            "hand, and let it lean so that both ends are out of focus.",
                            one.shot->name),
                facts);
        const auto plan = plan::plan_of(kit, *one.shot);
        // Across the picture, and along the axis of what leans by its tilt.
        const double field = plan.sensor.height / plan.at.magnification;
        const double lean = std::tan(one.shot->subject.tilt * std::numbers::pi / 180);
        const double depth = (band->to - band->from) * field * lean;
        before = (band->to - 0.5) / (band->to - band->from);  // what is nearer lies lower in the picture
        depths.push_back(depth), stops.push_back(stop_of(frame, one));
        const auto report = plan::assess(kit, *one.shot);
        facts.push_back(
            {f_text(stops.back()),
             fmt::format("{} sharp{}", text::length_text(depth),
                         report.sharpness.depth_of_field
                             ? fmt::format(", planned {}", text::length_text(*report.sharpness.depth_of_field))
                             : std::string())});
    }
    if (std::set<double>(stops.begin(), stops.end()).size() < stops.size())
        return failed(
            "Two frames were taken at the same stop: nothing is compared. Set the stop on the camera, by hand.", facts);
    for (std::size_t i = 1; i < depths.size(); ++i)
        if ((stops[i] > stops[i - 1]) != (depths[i] > depths[i - 1] * 1.15))
            return failed(
                fmt::format("{} holds no more than {}: focus was moved between the frames, or the rule does "
                            "not lean far enough to leave the sharp zone.",
                            f_text(std::max(stops[i], stops[i - 1])), f_text(std::min(stops[i], stops[i - 1]))),
                facts);
    facts.push_back({"before the focus", fmt::format("{:.0f} % of it", std::clamp(before, 0.0, 1.0) * 100)});
    return passed(fmt::format("From {} to {} depth grew {} times. Close up about half of it lies before the place you "
                              "focused on, not a third.",
                              f_text(stops.front()), f_text(stops.back()), number(depths.back() / depths.front())),
                  facts);
}

Outcome judge_ladder(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<Fact> facts;
    std::vector<std::pair<double, double>> rungs;  // stop and fineness
    std::vector<double> light;
    for (const auto& one : series) {
        const auto& frame = *frames_of(one).back();
        const double fine = fineness(*frame.scan, 0.3, 0.3, 0.7, 0.7);
        rungs.emplace_back(stop_of(frame, one), fine);
        light.push_back(frame.scan->median_stops);
        facts.push_back({f_text(rungs.back().first), fmt::format("detail {:.0f}", fine * 100)});
    }
    std::ranges::sort(rungs);
    const auto [dark, bright] = std::ranges::minmax(light);
    constexpr double even = 1;  // stop: beyond it noise and white tell more than blur
    if (bright - dark > even)
        return failed(fmt::format("The frames differ by {} stops of light: the time has to make up for the stop, twice "
                                  "as long for each.",
                                  number(bright - dark)),
                      facts);
    const auto best = std::ranges::max_element(rungs, {}, [](const auto& rung) { return rung.second; });
    const auto soft =
        std::ranges::find_if(best, rungs.end(), [&](const auto& rung) { return rung.second < best->second * 0.85; });
    if (best == rungs.end() - 1)
        return failed(
            "The smallest stop is the sharpest: the print was not flat to the sensor, so that this was depth. "
            "Put it square to the lens, with a mirror flat on it to see the lens in its own middle.",
            facts);
    facts.push_back({"sharpest", f_text(best->first)});
    auto outcome =
        passed(soft == rungs.end()
                   ? fmt::format("Sharpest at {}; nothing on this ladder is a sixth softer.", f_text(best->first))
                   : fmt::format("Sharpest at {}. From {} on it is a sixth softer or more: diffraction, at this size, "
                                 "on this sensor. Deeper than that is for a stack.",
                                 f_text(best->first), f_text(soft->first)),
               facts);
    if (soft != rungs.end()) {
        const double last = (soft - 1)->first;
        outcome.limits = shoot::Limits{.f_number = last};
        outcome.keep = fmt::format("Keep {} as your smallest stop", f_text(last));
    }
    return outcome;
}

Outcome judge_closer(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<Fact> facts;
    std::vector<double> sizes, corners;
    for (const auto& one : series) {
        const auto& frame = *frames_of(one).back();
        const auto report = plan::assess(kit, *one.shot);
        sizes.push_back(frame.scale.value_or(frame.fill && frame.planned_fill && *frame.planned_fill > 0
                                                 ? *frame.fill / *frame.planned_fill
                                                 : 1) *
                        plan::plan_of(kit, *one.shot).at.magnification);
        const auto& scan = *frame.scan;
        const double middle = fineness(scan, 0.4, 0.4, 0.6, 0.6);
        double corner = 0;
        for (const auto& [x, y] :
             {std::pair(0.02, 0.02), std::pair(0.83, 0.02), std::pair(0.02, 0.83), std::pair(0.83, 0.83)})
            corner += fineness(scan, x, y, x + 0.15, y + 0.15) / 4;
        corners.push_back(middle > 0 ? corner / middle : 0);
        facts.push_back({one.shot->name, fmt::format("{}, corners {:.0f} % of the middle, light {} stops lost",
                                                     text::magnification_text(sizes.back()), corners.back() * 100,
                                                     number(report.optics.exposure_loss))});
    }
    constexpr double alike = 1.06;
    if (sizes[0] / sizes[1] > alike || sizes[1] / sizes[0] > alike)
        return failed(
            "The two are not of one size: what is larger looks softer by itself. Fill the frame with the same "
            "lines both times.",
            facts);
    const double better = std::max(corners[0], corners[1]), worse = std::min(corners[0], corners[1]);
    return passed(
        better - worse < 0.1
            ? "At this stop the corners of both are alike: take what is lighter to carry, or "
              "leaves more air."
            : fmt::format("\u201c{}\u201d has the better corners here; the other one is for what lies in the middle.",
                          series[corners[0] >= corners[1] ? 0 : 1].shot->name),
        facts);
}

Outcome judge_steady(const gear::Kit&, const std::vector<Series>& series) {
    constexpr std::size_t each = 6;
    if (auto more = lacking(series, each); !more.empty()) return missing(more);
    // Against the best of all: what is half as fine was shaken.
    std::vector<std::vector<double>> fine;
    double best = 0;
    for (const auto& one : series) {
        auto& row = fine.emplace_back();
        for (const auto* frame : frames_of(one)) row.push_back(fineness(*frame->scan, 0.25, 0.25, 0.75, 0.75));
        best = std::max(best, std::ranges::max(row));
    }
    std::vector<Fact> facts;
    std::size_t winner = 0;
    double most = -1;
    for (std::size_t i = 0; i < series.size(); ++i) {
        const auto sharp = std::ranges::count_if(fine[i], [&](double one) { return one > best * 0.75; });
        const double share = static_cast<double>(sharp) / static_cast<double>(fine[i].size());
        facts.push_back({series[i].shot->name, fmt::format("{} of {} sharp", sharp, fine[i].size())});
        if (share > most) most = share, winner = i;
    }
    if (most < 0.25)
        return failed(
            "Hardly one is sharp, whichever way: a shorter time first. One over three times the focal length "
            "is a beginning at this size.",
            facts);
    const double shutter = series[winner].shot->exposure.shutter;
    auto outcome = passed(fmt::format("\u201c{}\u201d is your way: {:.0f} of 100 are sharp at {}.",
                                      series[winner].shot->name, most * 100, text::shutter_text(shutter)),
                          facts);
    // A time at which every other frame is lost is too long: half of it.
    constexpr double enough = 0.5;
    const double slowest = most >= enough ? shutter : shutter / 2;
    outcome.limits = shoot::Limits{.shutter_by_hand = slowest};
    outcome.keep = fmt::format("Keep {} as your slowest time by hand", text::shutter_text(slowest));
    return outcome;
}

Outcome judge_automatic(const gear::Kit&, const std::vector<Series>& series) {
    constexpr std::size_t each = 3;
    if (auto more = lacking(series, each); !more.empty()) return missing(more);
    const double automatic = scatter(frames_of(series[0])), fixed = scatter(frames_of(series[1]));
    const std::vector<Fact> facts = {{"automatic", fmt::format("{} stops apart", number(automatic))},
                                     {"fixed", fmt::format("{} stops apart", number(fixed))}};
    constexpr double steady = 0.2;
    if (fixed > steady)
        return failed(
            "The fixed series is not steady: the flash was fired before it was ready, or it stood on automatic "
            "still. Wait for its light and two seconds more.",
            facts);
    return passed(automatic > fixed + 0.15
                      ? fmt::format("Automatic flash answered to the frame by {} stops; fixed repeats within {}. For a "
                                    "series, fix it.",
                                    number(automatic), number(fixed))
                      : "Both repeat, as nothing in the frame changed. Lay something white beside it and take the "
                        "automatic ones again: that is what it answers to.",
                  facts);
}

Outcome judge_distance(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<double> stops;
    for (const auto& one : series) {
        const auto report = plan::assess(kit, *one.shot);
        std::vector<double> over;
        for (const auto* frame : frames_of(one))
            over.push_back(frame->over_plan.value_or(0) + report.light.front_total.value_or(0));
        stops.push_back(median(std::move(over)));
    }
    const double more = stops[1] - stops[0];
    const std::vector<Fact> facts = {{"at 60 cm", fmt::format("{} stops", text::stops_text(stops[0]))},
                                     {"at 30 cm", fmt::format("{} stops", text::stops_text(stops[1]))},
                                     {"more", fmt::format("{} stops", number(more))}};
    constexpr double close = 0.4;
    if (std::abs(more - 2) <= close)
        return passed("Half the distance gave two stops more, as it has to be. A step of a third of the way is a stop.",
                      facts);
    return failed(more < 1
                      ? "Hardly brighter: the flash was left on automatic and took the light away again, or the room "
                        "lit it. Fix its power, and darken the room."
                  : more < 2 ? "Less than two stops: other light was in it, or a large source stood so near that it "
                               "lights from all sides. Measure from its face."
                             : "More than two stops: the distance was more than halved, or the power was changed "
                               "as well.",
                  facts);
}

Outcome judge_grounds(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    const double black = border_stops(*frames_of(series[0]).back()), white = border_stops(*frames_of(series[1]).back());
    const std::vector<Fact> facts = {{"black ground", fmt::format("{} stops", text::stops_text(black))},
                                     {"white ground", fmt::format("{} stops", text::stops_text(white))}};
    constexpr double dark = -4.5, clean = 2.0;
    if (black > dark)
        return failed(
            fmt::format("The black ground is dark grey, at {} stops: further back, a shorter time against the "
                        "light of the room, or a smaller stop with more flash. -5 is black to the eye.",
                        text::stops_text(black)),
            facts);
    if (white < clean)
        return failed(
            fmt::format("The white ground is grey, at {} stops: bring it nearer, or turn more light on it than "
                        "on the subject. +2.2 is clean.",
                        text::stops_text(white)),
            facts);
    return passed("One flash, two grounds: distance made the one black, nearness the other white.", facts);
}

Outcome judge_spoon(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    // How much of the frame is a glint, two stops over mid grey and more: a point, or a field.
    std::vector<double> glint;
    std::vector<Fact> facts;
    for (const auto& one : series) {
        const auto& scan = *frames_of(one).back()->scan;
        double share = 0;
        constexpr double bright = 2;
        for (std::size_t k = 0; k < scan.histogram.shares.size(); ++k)
            if (imaging::LightHistogram::from + static_cast<double>(k) * imaging::LightHistogram::step >= bright)
                share += static_cast<double>(scan.histogram.shares[k]);
        glint.push_back(share);
        facts.push_back({one.shot->name, fmt::format("glint {} % of the frame", number(share * 100))});
    }
    constexpr double larger = 2;
    if (glint[1] < larger * glint[0])
        return failed(
            "The glint is no larger: the source stood too far off, or is lit only in its middle. As wide as it "
            "is far, and lit to its edges.",
            facts);
    return passed(
        "The point of light became a field: what is polished shows how large the light is, seen from it. A "
        "field can be exposed for, a point burns.",
        facts);
}

Outcome judge_stack(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 3); !more.empty()) return missing(more);
    const auto& inspection = *series[0].inspection;
    if (!inspection.stack) return missing("Look at them as a stack: at Depth, the shot has to be one.");
    const auto& stack = *inspection.stack;
    std::vector<Fact> facts = {{"frames", number(static_cast<double>(inspection.frames.size()), 6)}};
    if (stack.seen_depth) facts.push_back({"depth", text::length_text(*stack.seen_depth)});
    if (stack.first_end_open || stack.last_end_open)
        return failed(stack.first_end_open ? "It begins behind the nearest point: one frame earlier, two are cheap."
                                           : "It ends before the farthest point: go on until nothing gets sharper.",
                      facts);
    if (!stack.gaps.empty())
        return failed(fmt::format("After frame {} there is a gap: the step was too wide there, or focus slipped.",
                                  stack.gaps.front().after_frame),
                      facts);
    if (!stack.moved.empty())
        return failed(
            fmt::format("From frame {} on it lies elsewhere: something was touched.", stack.moved.front().frame),
            facts);
    if (!stack.uneven.empty())
        return failed(fmt::format("Frame {} is lit otherwise than the others.", stack.uneven.front().frame), facts);
    for (const auto& finding : stack.findings)
        if (finding.level != proof::Level::info) return failed(finding.text, facts);
    if (inspection.verdict == proof::Verdict::redo)
        return failed("Proof has found what stops it: look at what it says, and take it again.", facts);
    return passed("It is whole: both ends closed, no gap, nothing moved.", facts);
}

Outcome judge_error(const gear::Kit&, const std::vector<Series>&) {
    return missing("There is more of a riddle in it on the bench: try it there, then say what happened, and where.");
}

Outcome judge_bracket(const gear::Kit& kit, const std::vector<Series>& series) {
    auto outcome = judge_stack(kit, series);
    if (outcome.result != Result::passed) return outcome;
    const double step = series[0].inspection->step();
    if (step > 0) outcome.facts.push_back({"step", text::length_text(step)});
    outcome.said = "It is whole. Run, Step sizes, reads from the rule what the camera's own steps are worth.";
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
    const auto report = plan::assess(kit, *series[0].shot);
    std::vector<Fact> facts = {{"frames", number(static_cast<double>(frames.size()), 6)},
                               {"frozen", number(static_cast<double>(sharp), 6)}};
    if (!report.light.sources.empty() && report.light.sources.front().t05)
        facts.push_back({"flash, t0.5", text::time_text(*report.light.sources.front().t05)});
    if (std::ranges::none_of(frames, [](const auto* frame) { return frame->has_detail; }))
        return failed(
            "It is in none of the frames: fired too early or too late. From 30 cm it falls for a quarter of a "
            "second; let go by sound or beam, or count aloud and change one thing at a time.",
            facts);
    if (sharp == 0)
        return failed(
            "None is frozen: less power on the flash and more ISO, or from less high. What draws it out is "
            "the length of the flash, whatever the shutter says.",
            facts);
    return passed(
        fmt::format("{} of {} are frozen. That is the share to plan a thrown thing with.", sharp, frames.size()),
        facts);
}

}  // namespace poquito::practice
