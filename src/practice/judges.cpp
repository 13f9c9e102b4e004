#include "judges.hpp"

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

/// What frames by fixed power say of the unit that lit them, against its record; nothing where they agree.
void teach_light(Outcome& outcome, const gear::Kit& kit, const Series& series) {
    for (auto& offer : proof::offers_of(*series.inspection, plan::plan_of(kit, *series.shot, {}))) {
        if (offer.teaches != proof::Teaches::light) continue;
        outcome.said += " " + offer.text;
        outcome.keep = offer.action;
        outcome.taught = Taught{.shot = series.shot->id, .offer = std::move(offer)};
        return;
    }
}

bool missed(const FrameFacts& frame) {
    return std::ranges::any_of(frame.findings,
                               [](const auto& one) { return one.code == Code::blurred || one.code == Code::shaken; });
}

}  // namespace

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

namespace {

constexpr const char* no_stack = "These frames were not looked at as a stack: choose Stack at Depth, then judge again.";

/// What makes frames of a stack useless whatever they are focused on; empty: nothing does.
std::string spoilt(const proof::StackFacts& stack) {
    if (!stack.moved.empty())
        return fmt::format("From frame {} on everything lies elsewhere in the picture: something was touched.",
                           stack.moved.front().frame);
    if (!stack.uneven.empty())
        return fmt::format("Frame {} is {} than the others: the flash was not ready, or other light came and went.",
                           stack.uneven.front().frame, stack.uneven.front().stops < 0 ? "darker" : "lighter");
    return {};
}

}  // namespace

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
