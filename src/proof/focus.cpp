#include "findings.hpp"

#include "imaging/inspect/median.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace poquito::proof {
namespace {

using imaging::CellMap;
using imaging::FrameScan;

/// How fine detail is against that twice as wide, at depths of the planned subject.
struct ByDepth {
    static constexpr std::size_t bins = 9;
    double nearest = 0, farthest = 0;  // mm behind the planned plane of focus
    std::array<std::optional<double>, bins> fineness;
    std::array<std::vector<PictureArea>, bins> places;

    double width() const { return (farthest - nearest) / bins; }
    double depth(std::size_t bin) const { return nearest + (static_cast<double>(bin) + 0.5) * width(); }
    std::size_t bin(double depth) const {
        return static_cast<std::size_t>(std::clamp((depth - nearest) / width(), 0.0, bins - 1.0));
    }
};

/// Framed otherwise, a place of the frame is another of the subject.
bool framed_otherwise(const FrameFacts& frame) {
    constexpr double otherwise = 0.15;
    return frame.fill && frame.planned_fill && std::abs(*frame.fill / *frame.planned_fill - 1) > otherwise;
}

/// The cell of the plan's own picture that shows what a place of the frame does, in shares of its width and height,
/// moved with the subject where that stands aside; empty: no subject is there.
std::optional<std::size_t> subject_at(const Meant& meant, const FrameFacts& frame, double across, double down) {
    const auto& picture = meant.picture;
    const double column = (across - frame.off_right.value_or(0)) * picture.columns;
    const double row = down * picture.rows - frame.off_down.value_or(0) * picture.columns;
    if (column < 0 || row < 0 || column >= picture.columns || row >= picture.rows) return std::nullopt;
    const auto cell =
        static_cast<std::size_t>(row) * static_cast<std::size_t>(picture.columns) + static_cast<std::size_t>(column);
    return meant.subject[cell] ? std::optional(cell) : std::nullopt;
}

/// A cell of the subject with enough detail to tell sharp from soft by.
struct Told {
    double depth = 0;     // mm behind the planned plane of focus
    double fineness = 0;  // of detail against that twice as wide, by the logarithm of their squares
    PictureArea place;
};

std::vector<Told> told_by(const FrameFacts& frame, const Meant& meant) {
    const FrameScan& scan = *frame.scan;
    std::vector<Told> told;
    const CellMap fine = imaging::spread_out(scan.detail), wide = imaging::spread_out(scan.middling);
    const CellMap fine_noise = imaging::noise_of({&scan}, scan.level, &FrameScan::detail);
    const CellMap wide_noise = imaging::noise_of({&scan}, scan.level, &FrameScan::middling);
    constexpr int apart = 3;  // cells: means overlap
    for (int y = apart; y + apart < fine.rows; y += apart)
        for (int x = apart; x + apart < fine.columns; x += apart) {
            const auto cell =
                subject_at(meant, frame, static_cast<double>(x) / fine.columns, static_cast<double>(y) / fine.rows);
            if (!cell) continue;
            // What is coarse must stand out clearly, or noise tells the tale.
            constexpr double clear = 4, least = 1;
            const double coarse = wide.at(x, y), noise = std::max<double>(least, wide_noise.at(x, y));
            if (coarse < clear * noise) continue;
            const double own = std::max(0.02, static_cast<double>(fine.at(x, y) - fine_noise.at(x, y)));
            told.push_back({.depth = static_cast<double>(meant.depth[*cell]),
                            .fineness = std::log(own / (coarse - noise / clear)),
                            .place = {x * scan.cell, y * scan.cell, scan.cell, scan.cell}});
        }
    return told;
}

constexpr std::size_t enough_told = 6;  // cells

std::optional<ByDepth> by_depth(const std::vector<Told>& told, const Meant& meant) {
    ByDepth of;
    std::vector<double> depths;
    for (std::size_t i = 0; i < meant.depth.size(); ++i)
        if (meant.subject[i]) depths.push_back(static_cast<double>(meant.depth[i]));
    constexpr std::size_t enough_subject = 200;
    if (depths.size() < enough_subject) return std::nullopt;
    // Without the few at either end, where it turns away.
    const auto at = [&](double share) {
        const auto place = depths.begin() + static_cast<std::ptrdiff_t>(share * static_cast<double>(depths.size() - 1));
        std::ranges::nth_element(depths, place);
        return *place;
    };
    of.nearest = at(0.01), of.farthest = at(0.99);
    if (!(of.farthest > of.nearest)) return std::nullopt;

    std::array<std::vector<double>, ByDepth::bins> seen;
    for (const Told& one : told) {
        if (one.depth < of.nearest || one.depth > of.farthest) continue;
        const auto bin = of.bin(one.depth);
        seen[bin].push_back(one.fineness);
        of.places[bin].push_back(one.place);
    }
    for (std::size_t bin = 0; bin < ByDepth::bins; ++bin)
        if (seen[bin].size() >= enough_told) of.fineness[bin] = imaging::median(std::move(seen[bin]));
    return of;
}

/// Of what lies within the planned depth of field; the nearest to it where that is thinner than what can be told.
std::optional<double> fineness_at_focus(std::vector<Told> told, std::optional<double> depth_of_field) {
    if (told.size() < enough_told) return std::nullopt;
    const auto off = [](const Told& one) { return std::abs(one.depth); };
    std::ranges::sort(told, {}, off);
    // A tenth of the subject at least: a few cells are texture more than focus.
    auto count = std::max(enough_told, told.size() / 10);
    while (count < told.size() && depth_of_field && off(told[count]) <= *depth_of_field / 2) ++count;
    std::vector<double> fineness;
    for (std::size_t i = 0; i < count; ++i) fineness.push_back(told[i].fineness);
    return imaging::median(std::move(fineness));
}

}  // namespace

void judge_focus(std::vector<FrameFacts>& frames, const Meant& meant) {
    const auto depth_of_field = meant.report.sharpness.depth_of_field;
    if (meant.picture.empty()) return;
    for (auto& frame : frames) {
        if (!frame.scan || !frame.has_detail || frame.scan->detail.empty()) continue;
        const auto told = told_by(frame, meant);
        frame.sharp_at_focus = fineness_at_focus(told, depth_of_field);
        if (!depth_of_field) continue;
        if (std::ranges::any_of(frame.findings, [](const Finding& one) { return one.code == Code::shaken; })) continue;
        if (framed_otherwise(frame)) continue;
        const auto of = by_depth(told, meant);
        if (!of || of->nearest > 0 || of->farthest < 0) continue;
        std::size_t best = ByDepth::bins;
        for (std::size_t bin = 0; bin < ByDepth::bins; ++bin)
            if (of->fineness[bin] && (best == ByDepth::bins || *of->fineness[bin] > *of->fineness[best])) best = bin;
        const auto planned = of->bin(0);
        if (best == ByDepth::bins || !of->fineness[planned] || best == planned) continue;
        const double lost = *of->fineness[best] - *of->fineness[planned];
        const double off = of->depth(best);
        constexpr double clear = 0.7;  // of a logarithm of squares: three tenths of the contrast
        if (lost < clear || std::abs(off) < std::max(*depth_of_field / 2, of->width())) continue;
        // Falls off to both sides, or lies at the end: else the subject is of other stuff there.
        const auto beside = [&](std::size_t bin) { return bin < ByDepth::bins ? of->fineness[bin] : std::nullopt; };
        const bool at_end = best == 0 || best + 1 == ByDepth::bins;
        const auto towards = beside(best < planned ? best + 1 : best - 1);
        if (!towards || *towards > *of->fineness[best] || (!at_end && !beside(best < planned ? best - 1 : best + 1)))
            continue;
        std::erase_if(frame.findings, [](const Finding& one) { return one.code == Code::blurred; });  // this says where
        auto& finding = frame.findings.emplace_back();
        finding.code = Code::blurred;
        finding.level = Level::stop;
        finding.text = fmt::format(
            "It is sharp {} {} where it has to be{}: {:.0f} % of the finest contrast is lost there. Focus {} and "
            "take it again.",
            at_end ? "at least " + text::length_text(std::abs(off)) : "about " + text::length_text(std::abs(off)),
            off > 0 ? "behind" : "in front of", at_end ? ", or beyond its end" : "", (1 - std::exp(-lost / 2)) * 100,
            off > 0 ? "nearer" : "further away");
        finding.place = of->places[planned][of->places[planned].size() / 2];
    }
}

void measure_depth(Inspection& inspection, const Meant& meant) {
    auto& stack = *inspection.stack;
    if (!stack.look.planes || meant.picture.empty() || inspection.planes.size() != inspection.frames.size()) return;
    const auto& planes = *stack.look.planes;
    const auto& frame = inspection.frames[stack.frames[stack.frames.size() / 2]];
    if (framed_otherwise(frame)) return;
    // From steps of the run to mm, between its frames and past them.
    const auto depth_at = [&](double steps) {
        const auto& at = planes.frames;
        std::size_t i = 0;
        while (i + 2 < at.size() && at[i + 1] < steps) ++i;
        const double from = inspection.planes[stack.frames[i]], to = inspection.planes[stack.frames[i + 1]];
        return from + (to - from) * (steps - at[i]) / std::max(at[i + 1] - at[i], 1e-6);
    };
    std::vector<double> seen, planned;
    for (int y = 0; y < planes.depth.rows; ++y)
        for (int x = 0; x < planes.depth.columns; ++x) {
            const auto steps = static_cast<double>(planes.depth.at(x, y));
            if (!std::isfinite(steps)) continue;
            // At its edge a tile shows what lies behind as well.
            const auto cell = [&](double right, double down) {
                return subject_at(meant, frame, (x + right) / planes.depth.columns, (y + down) / planes.depth.rows);
            };
            const auto middle = cell(0.5, 0.5);
            if (!middle || !cell(0, 0) || !cell(1, 0) || !cell(0, 1) || !cell(1, 1)) continue;
            seen.push_back(depth_at(steps));
            planned.push_back(static_cast<double>(meant.depth[*middle]));
        }
    constexpr std::size_t enough = 60;
    if (seen.size() < enough) return;
    // Without the few at either end, where edges and chance tell.
    const auto range = [](std::vector<double>& depths) {
        std::ranges::sort(depths);
        const std::size_t few = depths.size() / 20;
        return depths[depths.size() - 1 - few] - depths[few];
    };
    stack.seen_depth = range(seen);
    stack.planned_depth = range(planned);
}

}  // namespace poquito::proof
