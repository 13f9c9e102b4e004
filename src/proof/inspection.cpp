#include "proof/inspection.hpp"

#include "findings.hpp"
#include "imaging/inspect/detail_order.hpp"
#include "plan/assess.hpp"
#include "storage/frame_reader.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <functional>
#include <numeric>

namespace poquito::proof {
namespace {

/// Fine detail over coarse where a frame is sharpest: a blur takes the fine first. Empty: too plain to tell.
std::optional<double> sharpness_of(const imaging::FrameScan& scan) {
    const auto noise = imaging::noise_of({&scan}, scan.level);
    const auto detail = imaging::spread_out(scan.detail), coarse = imaging::spread_out(scan.coarse);
    std::vector<double> shares;
    constexpr float textured = 4;  // of coarse differences, code values squared
    for (std::size_t i = 0; i < detail.values.size(); ++i) {
        if (coarse.values[i] < textured) continue;
        constexpr float stands_out = 2;  // times noise
        const double fine = detail.values[i] > stands_out * noise.values[i] ? detail.values[i] - noise.values[i] : 0;
        shares.push_back(fine / (fine + static_cast<double>(coarse.values[i])));
    }
    // So much of the frame is sharper: a few edges, as of the discs that glints make, are no sharp subject.
    const std::size_t sharper = scan.detail.values.size() / 25;
    if (shares.size() <= sharper) return std::nullopt;
    const auto at = shares.begin() + static_cast<std::ptrdiff_t>(sharper);
    std::ranges::nth_element(shares, at, std::greater<>());
    return std::sqrt(*at);
}

FrameFacts looked_at(const std::filesystem::path& file) {
    FrameFacts frame{.file = file, .exif = storage::exif_of_file(file)};
    std::optional<imaging::FrameScanner> scanner;
    const auto error = storage::read_rows(file, {.begin =
                                                     [&](int width, int height) {
                                                         scanner.emplace(width, height);
                                                         return true;
                                                     },
                                                 .row =
                                                     [&](const std::uint8_t* rgb) {
                                                         scanner->row(rgb);
                                                         return true;
                                                     }});
    if (error || !scanner) {
        frame.findings.push_back({.code = Code::unreadable,
                                  .level = Level::stop,
                                  .text = (error ? storage::message(*error) : file.filename().string() + ": empty") +
                                          ". Copy it from the card again, or take the frame again."});
        return frame;
    }
    frame.scan = scanner->finish();
    const auto sharpness = sharpness_of(*frame.scan);
    frame.has_detail = sharpness.has_value();
    frame.sharpness = sharpness.value_or(0);
    return frame;
}

std::vector<std::size_t> readable(const std::vector<FrameFacts>& frames) {
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < frames.size(); ++i)
        if (frames[i].scan) all.push_back(i);
    return all;
}

/// The frames of the size that most have, as they belong.
std::vector<std::size_t> in_order(const Inspection& inspection, StackFacts& stack) {
    const auto& frames = inspection.frames;
    auto all = readable(frames);
    std::erase_if(all, [&](std::size_t i) {
        return std::ranges::any_of(frames[i].findings, [](const Finding& one) { return one.code == Code::size; });
    });
    auto ordered = all;
    if (const auto by_time = order_by_time(frames); !by_time.empty()) {
        std::ranges::sort(ordered, {}, [&](std::size_t i) { return std::ranges::find(by_time, i) - by_time.begin(); });
    } else {
        std::vector<const imaging::CellMap*> maps;
        maps.reserve(all.size());
        for (const auto i : all) maps.push_back(&frames[i].scan->detail);
        std::ranges::transform(imaging::order_by_detail(maps), ordered.begin(), [&](std::size_t k) { return all[k]; });
    }
    if (ordered != all)
        for (const auto i : ordered) stack.order.push_back(static_cast<int>(i) + 1);
    return ordered;
}

Verdict verdict_of(const Inspection& inspection) {
    Verdict verdict = Verdict::keep;
    const auto weigh = [&](const std::vector<Finding>& findings) {
        for (const Finding& finding : findings) {
            if (finding.level == Level::stop) verdict = Verdict::redo;
            if (finding.level == Level::caution && verdict == Verdict::keep) verdict = Verdict::look;
        }
    };
    for (const auto& frame : inspection.frames) weigh(frame.findings);
    if (inspection.stack) weigh(inspection.stack->findings);
    return verdict;
}

}  // namespace

const char* code_text(Code code) {
    constexpr const char* codes[] = {"unreadable", "size",    "settings", "uneven",     "moved",   "gap",    "end-open",
                                     "order",      "missing", "clipped",  "background", "blurred", "colour", "shaken"};
    return codes[static_cast<int>(code)];
}

const char* verdict_text(Verdict verdict) {
    constexpr const char* verdicts[] = {"keep", "look", "redo"};
    return verdicts[static_cast<int>(verdict)];
}

bool Inspection::any_readable() const {
    return std::ranges::any_of(frames, [](const FrameFacts& frame) { return frame.scan.has_value(); });
}

std::optional<Inspection> inspect(const Request& request, const Progress& progress) {
    Inspection inspection;
    inspection.frames.resize(request.files.size());
    std::atomic<std::size_t> done = 0;
    std::atomic<bool> ended = false;
    tbb::parallel_for(std::size_t{0}, request.files.size(), [&](std::size_t i) {
        if (ended) return;
        inspection.frames[i] = looked_at(request.files[i]);
        if (progress && !progress(++done, request.files.size())) ended = true;
    });
    if (ended) return std::nullopt;
    std::optional<Meant> meant;
    if (request.kit && request.shot) {
        meant.emplace(Meant{.plan = plan::plan_of(*request.kit, *request.shot), .report = {}});
        meant->report = plan::assess(meant->plan);
    }
    const Meant* plan = meant ? &*meant : nullptr;
    const bool stack = inspection.frames.size() > 1 && !request.singles;
    judge_sizes(inspection.frames);
    judge_settings(inspection.frames, plan);
    judge_light(inspection.frames, plan);
    judge_sharpness(inspection.frames, stack);
    if (stack) {
        auto& facts = inspection.stack.emplace();
        facts.frames = in_order(inspection, facts);
        std::vector<const imaging::FrameScan*> run;
        std::vector<bool> spoilt;
        for (const auto i : facts.frames) {
            run.push_back(&*inspection.frames[i].scan);
            spoilt.push_back(std::ranges::any_of(inspection.frames[i].findings, [](const Finding& one) {
                return one.code == Code::shaken || one.code == Code::blurred;
            }));
        }
        auto look =
            imaging::look_at_stack(run, spoilt, [&] { return !progress || progress(done, request.files.size()); });
        if (!look) return std::nullopt;
        facts.look = std::move(*look);
        judge_numbers(inspection.frames, plan, facts);
        judge_stack(inspection, plan);
    }
    inspection.verdict = verdict_of(inspection);
    return inspection;
}

}  // namespace poquito::proof
