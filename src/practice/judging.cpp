#include "judging.hpp"

#include "imaging/inspect/frame_scan.hpp"
#include "imaging/inspect/stack_look.hpp"
#include "plan/assess.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace poquito::practice {

using proof::Code;

Outcome missing(const std::string& what) { return {.result = Result::open, .said = what, .facts = {}}; }

Outcome failed(std::string why, std::vector<Fact> facts) {
    return {.result = Result::failed, .said = std::move(why), .facts = std::move(facts)};
}

Outcome passed(std::string said, std::vector<Fact> facts) {
    return {.result = Result::passed, .said = std::move(said), .facts = std::move(facts)};
}

std::vector<const FrameFacts*> frames_of(const Series& series) {
    std::vector<const FrameFacts*> frames;
    if (series.inspection)
        for (const auto& frame : series.inspection->frames)
            if (frame.scan) frames.push_back(&frame);
    return frames;
}

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

std::string number(double value, int digits) { return text::number_text(value, digits); }

double luminance(const std::array<double, 3>& rgb) { return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]; }

double border_stops(const FrameFacts& frame) { return std::log2(std::max(1e-5, luminance(frame.scan->border)) / 0.18); }

double fineness(const imaging::FrameScan& scan, double left, double top, double right, double bottom) {
    double fine = 0, wider = 0;
    const auto& detail = scan.detail;
    for (int y = static_cast<int>(top * detail.rows); y < static_cast<int>(bottom * detail.rows); ++y)
        for (int x = static_cast<int>(left * detail.columns); x < static_cast<int>(right * detail.columns); ++x)
            fine += static_cast<double>(detail.at(x, y)), wider += static_cast<double>(scan.middling.at(x, y));
    return wider > 0 ? std::sqrt(fine / wider) : 0;
}

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

double scatter(const std::vector<const FrameFacts*>& frames) {
    std::vector<double> stops;
    stops.reserve(frames.size());
    for (const auto* frame : frames) stops.push_back(frame->scan->median_stops);
    const auto [low, high] = std::ranges::minmax(stops);
    return high - low;
}

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

std::string spoilt(const proof::StackFacts& stack) {
    if (!stack.moved.empty())
        return fmt::format("From frame {} on everything lies elsewhere in the picture: something was touched.",
                           stack.moved.front().frame);
    if (!stack.uneven.empty())
        return fmt::format("Frame {} is {} than the others: the flash was not ready, or other light came and went.",
                           stack.uneven.front().frame, stack.uneven.front().stops < 0 ? "darker" : "lighter");
    return {};
}

}  // namespace poquito::practice
