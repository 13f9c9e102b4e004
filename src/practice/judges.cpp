#include "judges.hpp"

#include "judging.hpp"

#include "imaging/inspect/frame_scan.hpp"
#include "imaging/inspect/sharp_band.hpp"
#include "imaging/inspect/stack_look.hpp"
#include "plan/assess.hpp"
#include "plan/stack/step_sizes.hpp"
#include "text/text.hpp"
#include "text/tone.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <set>
#include <span>
#include <utility>

namespace poquito::practice {

namespace {

/// Depth of field by what a file of so many pixels can show: two of its pixels blurred into one, as the rows in which
/// detail stands out are told by it.
std::optional<double> depth_for_file(const gear::Kit& kit, shoot::Shot shot, const imaging::FrameScan& scan) {
    const auto sensor = plan::plan_of(kit, shot, {}).sensor;
    constexpr double blurred = 2;
    shot.sharpness.rule = shoot::BlurRule::pixel;
    shot.sharpness.pixels =
        blurred * std::max(sensor.width_px, sensor.height_px) / static_cast<double>(std::max(scan.width, scan.height));
    return plan::assess(kit, shot, {}).sharpness.depth_of_field;
}

}  // namespace

Outcome judge_lean(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<Fact> facts;
    std::vector<double> depths, stops, times;
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
        const auto plan = plan::plan_of(kit, *one.shot, {});
        // Across the picture, and along the axis of what leans by its tilt.
        const double field = plan.sensor.height / plan.at.magnification;
        const double lean = std::tan(one.shot->subject.tilt * std::numbers::pi / 180);
        const double depth = (band->to - band->from) * field * lean;
        before = (band->to - 0.5) / (band->to - band->from);  // what is nearer lies lower in the picture
        depths.push_back(depth), stops.push_back(stop_of(frame, one));
        const auto reckoned = depth_for_file(kit, *one.shot, *frame.scan);
        if (reckoned) times.push_back(depth / *reckoned);
        facts.push_back({f_text(stops.back()),
                         fmt::format("{} sharp{}", text::length_text(depth),
                                     reckoned ? fmt::format(", {} reckoned", text::length_text(*reckoned)) : "")});
    }
    if (std::set<double>(stops.begin(), stops.end()).size() < stops.size())
        return failed(
            "Two frames were taken at the same stop: nothing is compared. Set the stop on the camera, by hand.", facts);
    for (std::size_t i = 1; i < depths.size(); ++i)
        if ((stops[i] > stops[i - 1]) != (depths[i] > depths[i - 1] * 1.15))
            return failed(
                fmt::format("{} shows no more of the rule sharp than {}: focus was moved between the frames, or the "
                            "rule does not lean far enough to become soft at both ends.",
                            f_text(std::max(stops[i], stops[i - 1])), f_text(std::min(stops[i], stops[i - 1]))),
                facts);
    facts.push_back({"in front of the focus", fmt::format("{:.0f} % of it", std::clamp(before, 0.0, 1.0) * 100)});
    auto words = fmt::format(
        "From {} to {} depth grew {} times. Close up about half of it lies in front of the place you "
        "focused on, not a third.",
        f_text(stops.front()), f_text(stops.back()), number(depths.back() / depths.front()));
    constexpr double far = 1.6;
    if (const double off = median(times); off > far || (off > 0 && off < 1 / far))
        words += fmt::format(
            " All of it is {} times as deep as reckoned: did the rule lean by 45 degrees, and was it as "
            "large in the frame as planned?",
            number(off));
    return passed(std::move(words), std::move(facts));
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
    }
    std::ranges::sort(rungs);
    const auto best = std::ranges::max_element(rungs, {}, [](const auto& rung) { return rung.second; });
    facts.reserve(rungs.size() + 1);
    for (const auto& [stop, fine] : rungs)
        facts.push_back({f_text(stop), fmt::format("{:.0f} % as sharp as the best", fine * 100 / best->second)});
    const auto [dark, bright] = std::ranges::minmax(light);
    constexpr double even = 1;  // stop: beyond it noise and white tell more than blur
    if (bright - dark > even)
        return failed(
            fmt::format("The frames are not equally bright, {} stops apart: each full stop closed takes twice "
                        "the time.",
                        number(bright - dark)),
            facts);
    const auto soft =
        std::ranges::find_if(best, rungs.end(), [&](const auto& rung) { return rung.second < best->second * 0.85; });
    if (best == rungs.end() - 1)
        return failed(
            "The smallest stop is the sharpest: the print leaned, and what grew was depth. Put it square to the "
            "lens: lay a small mirror on it, and turn until the lens sees itself in the middle.",
            facts);
    facts.push_back({"sharpest", f_text(best->first)});
    auto outcome = passed(
        soft == rungs.end()
            ? fmt::format("Sharpest at {}. No stop here is a sixth softer than that: what a smaller one would cost "
                          "does not show yet.",
                          f_text(best->first))
            : fmt::format("Sharpest at {}. From {} on all of it is a sixth softer or more: that is diffraction, at "
                          "this size and on this sensor. Where you need more depth than the stop before it "
                          "gives, take a stack.",
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
        const auto report = plan::assess(kit, *one.shot, {});
        sizes.push_back(frame.scale.value_or(frame.fill && frame.planned_fill && *frame.planned_fill > 0
                                                 ? *frame.fill / *frame.planned_fill
                                                 : 1) *
                        plan::plan_of(kit, *one.shot, {}).at.magnification);
        const auto& scan = *frame.scan;
        const double middle = fineness(scan, 0.4, 0.4, 0.6, 0.6);
        double corner = 0;
        for (const auto& [x, y] :
             {std::pair(0.02, 0.02), std::pair(0.83, 0.02), std::pair(0.02, 0.83), std::pair(0.83, 0.83)})
            corner += fineness(scan, x, y, x + 0.15, y + 0.15) / 4;
        corners.push_back(middle > 0 ? corner / middle : 0);
        facts.push_back(
            {one.shot->name, fmt::format("{}, corners {:.0f} % as sharp as the middle, {} stops of light lost",
                                         text::magnification_text(sizes.back()), corners.back() * 100,
                                         number(report.optics.exposure_loss))});
    }
    constexpr double alike = 1.06;
    if (sizes[0] / sizes[1] > alike || sizes[1] / sizes[0] > alike)
        return failed(
            "The two are not of one size, and what is larger looks softer for that alone. Fill the frame with the "
            "same lines both times.",
            facts);
    const double better = std::max(corners[0], corners[1]), worse = std::min(corners[0], corners[1]);
    return passed(
        better - worse < 0.1
            ? "At this stop the corners of both are alike: take what is lighter to carry, or "
              "leaves more room before the lens."
            : fmt::format("\u201c{}\u201d has the better corners here; the other one is for what lies in the middle.",
                          series[corners[0] >= corners[1] ? 0 : 1].shot->name),
        facts);
}

namespace {

/// Fine detail in the middle of the frame, above that noise.
double detail_left(const imaging::FrameScan& scan, const imaging::CellMap& noise) {
    double sum = 0;
    const auto& detail = scan.detail;
    for (int y = detail.rows / 4; y < detail.rows * 3 / 4; ++y)
        for (int x = detail.columns / 4; x < detail.columns * 3 / 4; ++x)
            sum += static_cast<double>(std::max(0.0f, detail.at(x, y) - noise.at(x, y)));
    return sum;
}

/// Of the best frame's: a smear of two pixels one way takes three quarters of what lies along it at 0.3 cycles a pixel,
/// (sin(2 pi f) / 2 pi f)^2, and nothing of what lies across.
constexpr double still_sharp = 0.6;

}  // namespace

Outcome judge_steady(const gear::Kit&, const std::vector<Series>& series) {
    constexpr std::size_t each = 6;
    if (auto more = lacking(series, each); !more.empty()) return missing(more);
    std::vector<const imaging::FrameScan*> all;
    for (const auto& one : series)
        for (const auto* frame : frames_of(one)) all.push_back(frame->scan.get());
    const auto& level = all.front()->level;
    if (std::ranges::any_of(all, [&](const auto* scan) {
            return scan->level.columns != level.columns || scan->level.rows != level.rows;
        }))
        return failed("The frames are not all of one size: take them with one camera, held one way up.", {});
    // By what is left of the finest detail: frames smeared to nothing have noise alone, and noise is fine.
    const auto noise = imaging::noise_of(all, level);
    std::vector<std::vector<double>> fine;
    double best = 0;
    for (const auto& one : series) {
        auto& row = fine.emplace_back();
        for (const auto* frame : frames_of(one)) row.push_back(detail_left(*frame->scan, noise));
        best = std::max(best, std::ranges::max(row));
    }
    std::vector<Fact> facts;
    struct Way {
        const shoot::Shot* shot;
        std::size_t sharp, of;
        double share() const { return static_cast<double>(sharp) / static_cast<double>(of); }
        std::string text() const { return fmt::format("{} of {}", sharp, of); }
    };
    std::vector<Way> ways;
    for (std::size_t i = 0; i < series.size(); ++i) {
        const auto sharp = std::ranges::count_if(fine[i], [&](double one) { return one > best * still_sharp; });
        ways.push_back({series[i].shot, static_cast<std::size_t>(sharp), fine[i].size()});
        facts.push_back({series[i].shot->name, ways.back().text() + " sharp"});
    }
    // The last lies on something: what hands can do is told by those before it.
    const auto lying = ways.back();
    const auto held = *std::ranges::max_element(ways.begin(), ways.end() - 1, {}, &Way::share);
    constexpr double hardly = 0.25, enough = 0.5;
    if (std::max(held.share(), lying.share()) < hardly)
        return failed(
            "Hardly one is sharp, whichever way you stood: shorten the time first. At this size begin with one over "
            "three times the focal length, 1/300 s with 100 mm.",
            facts);
    const double shutter = held.shot->exposure.shutter;
    const auto time = text::shutter_text(shutter);
    if (held.share() < hardly)
        return passed(fmt::format("At {} your hands alone are not enough, and on the bag of rice {} are sharp: lay the "
                                  "lens on something, or shorten the time.",
                                  time, lying.text()),
                      facts);
    std::vector<std::string> alike;
    for (const auto& way : std::span(ways).first(ways.size() - 1))
        if (way.share() == held.share()) alike.push_back(fmt::format("\u201c{}\u201d", way.shot->name));
    auto said = fmt::format("{} {} by hand: {} are sharp at {}; on the bag of rice {}.", fmt::join(alike, " and "),
                            alike.size() == 1 ? "is your way" : "are alike", held.text(), time, lying.text());
    if (held.share() == 1) said += " That is not yet where it ends: take them again at twice the time.";
    auto outcome = passed(std::move(said), facts);
    // A time at which every other frame is lost is too long: half of it.
    const double slowest = held.share() >= enough ? shutter : shutter / 2;
    outcome.limits = shoot::Limits{.shutter_by_hand = slowest};
    outcome.keep = fmt::format("Keep {} as your slowest time by hand", text::shutter_text(slowest));
    return outcome;
}

Outcome judge_automatic(const gear::Kit& kit, const std::vector<Series>& series) {
    constexpr std::size_t each = 3;
    if (auto more = lacking(series, each); !more.empty()) return missing(more);
    const double automatic = scatter(frames_of(series[0])), fixed = scatter(frames_of(series[1]));
    const std::vector<Fact> facts = {{"automatic", fmt::format("{:.1f} stops apart", automatic)},
                                     {"fixed", fmt::format("{:.1f} stops apart", fixed)}};
    constexpr double steady = 0.2;
    if (fixed > steady)
        return failed(
            "The series by fixed power is not steady: the flash was fired before it was ready, or it was still on "
            "automatic. Wait for its ready light and two seconds more.",
            facts);
    auto outcome =
        passed(automatic > fixed + 0.15
                   ? fmt::format("Automatic flash changed by {} stops with what was in the frame; fixed power repeats "
                                 "within {}. For a series, fix it.",
                                 number(automatic), number(fixed))
                   : "Both repeat, as nothing in the frame changed. Lay something white beside it and take the "
                     "automatic ones again: it gives less light then, though the thing is the same.",
               facts);
    teach_light(outcome, kit, series[1]);
    return outcome;
}

Outcome judge_distance(const gear::Kit& kit, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    std::vector<double> stops;
    for (const auto& one : series) {
        const auto report = plan::assess(kit, *one.shot, {});
        std::vector<double> over;
        for (const auto* frame : frames_of(one))
            over.push_back(frame->over_plan.value_or(0) + report.light.front_total.value_or(0));
        stops.push_back(median(std::move(over)));
    }
    const double more = stops[1] - stops[0];
    const std::vector<Fact> facts = {{"at 60 cm", fmt::format("{} stops against correct", text::stops_text(stops[0]))},
                                     {"at 30 cm", fmt::format("{} stops against correct", text::stops_text(stops[1]))},
                                     {"so much more", fmt::format("{:.1f} stops", more)}};
    constexpr double close = 0.4;
    if (std::abs(more - 2) <= close) {
        auto outcome = passed(
            "Half the distance gave two stops more, as it should. Nearer by a third of the way is one stop.", facts);
        teach_light(outcome, kit, series[0]);
        return outcome;
    }
    return failed(
        more < 1   ? "Hardly brighter: the flash was on automatic and took back what the distance gave, or the light "
                     "of the room made the picture. Fix its power, and darken the room."
        : more < 2 ? "Less than two stops: other light was in the picture, or the source is so large that "
                     "its far parts did not come nearer. Measure from its face."
                   : "More than two stops: the distance was more than halved, or the power was changed "
                     "as well.",
        facts);
}

Outcome judge_grounds(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 1); !more.empty()) return missing(more);
    const double black = border_stops(*frames_of(series[0]).back()), white = border_stops(*frames_of(series[1]).back());
    const std::vector<Fact> facts = {{"black ground", text::tone_text(black)},
                                     {"white ground", text::tone_text(white)}};
    constexpr double dark = -4.5, clean = 2.0;
    if (black > dark)
        return failed(
            fmt::format("The black ground is dark grey, {}; 5 below is black to the eye. Move it further back, shorten "
                        "the time against the light of the room, or close the stop and give more flash.",
                        text::tone_text(black)),
            facts);
    if (white < clean)
        return failed(
            fmt::format("The white ground is grey, {}; 2.2 above is clean white. Bring it nearer, or turn more light "
                        "on it than on the subject.",
                        text::tone_text(white)),
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
        facts.push_back({one.shot->name, fmt::format("{} % of the frame shines", number(share * 100))});
    }
    constexpr double larger = 2;
    if (glint[1] < larger * glint[0])
        return failed(
            "What shines is no larger: the source stood too far off, or is lit only in its middle. Bring it as near "
            "as it is wide, and light it to its edges.",
            facts);
    return passed(
        "The point of light became a field: what is polished mirrors the light as large as it is, seen from there. "
        "A field can be exposed so that it keeps its tone; a point is always white.",
        facts);
}

Outcome judge_stack(const gear::Kit&, const std::vector<Series>& series) {
    if (auto more = lacking(series, 3); !more.empty()) return missing(more);
    const auto& inspection = *series[0].inspection;
    if (!inspection.stack) return missing(no_stack);
    const auto& stack = *inspection.stack;
    std::vector<Fact> facts = {{"frames", number(static_cast<double>(inspection.frames.size()), 6)}};
    if (stack.seen_depth) facts.push_back({"depth", text::length_text(*stack.seen_depth)});
    if (stack.first_end_open || stack.last_end_open)
        return failed(stack.first_end_open ? "It begins behind the nearest point: begin a frame or two earlier, they "
                                             "cost little."
                                           : "It ends before the farthest point: go on until nothing gets sharper.",
                      facts);
    if (!stack.gaps.empty())
        return failed(fmt::format("After frame {} there is a gap: the step was too wide there, or focus slipped.",
                                  stack.gaps.front().after_frame),
                      facts);
    if (auto why = spoilt(stack); !why.empty()) return failed(std::move(why), facts);
    for (const auto& finding : stack.findings)
        if (finding.level != proof::Level::info) return failed(finding.text, facts);
    if (inspection.verdict == proof::Verdict::redo)
        return failed("Proof has found what stops it: look at what it says, and take it again.", facts);
    return passed("It is whole: both ends closed, no gap, nothing moved.", facts);
}

Outcome judge_error(const gear::Kit&, const std::vector<Series>&) {
    return missing(
        "The bench hides the error, so it has to take the frames: try it there, then say what happened, and where.");
}

}  // namespace poquito::practice
