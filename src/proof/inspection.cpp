#include "proof/inspection.hpp"

#include "findings.hpp"
#include "imaging/inspect/detail_order.hpp"
#include "imaging/inspect/median.hpp"
#include "plan/assess.hpp"
#include "plan/set/picture_shape.hpp"
#include "plan/stack/stack_plan.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <memory>
#include <numbers>
#include <numeric>

namespace poquito::proof {
namespace {

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
    if (inspection.planes.size() == frames.size()) {
        std::ranges::stable_sort(ordered, {}, [&](std::size_t i) { return inspection.planes[i]; });
    } else if (const auto by_time = order_by_time(frames); !by_time.empty()) {
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

/// By the plan, whose frames these are, nearest first, but for those whose numbers are missing; empty where their count
/// is another.
std::vector<double> planned_planes(const Meant& meant, const Inspection& inspection) {
    const auto& stack = *inspection.stack;
    const auto planned = plan::stack_frames(meant.plan, meant.report);
    const std::size_t count = inspection.frames.size();
    if (planned.size() != count + stack.missing.size() || stack.frames.size() != count) return {};
    std::vector<double> planes(count);
    const auto numbers = file_numbers(inspection.frames);
    std::size_t place = 0;
    for (std::size_t f = 0; f < count; ++f, ++place) {
        // A frame of the plan that is not there comes before the next that is.
        if (f > 0 && !stack.missing.empty() && numbers.size() == count) {
            const long step = numbers[stack.frames[f]] - numbers[stack.frames[f - 1]];
            if (step > 1 && place + static_cast<std::size_t>(step) <= planned.size())
                place += static_cast<std::size_t>(step) - 1;
        }
        if (place >= planned.size()) return {};
        planes[stack.frames[f]] = planned[place].plane;
    }
    return planes;
}

/// The plan's own picture, seen small.
void see_plan(Meant& meant) {
    const auto scene = render::scene_of(meant.plan, meant.report);
    if (!scene) return;
    constexpr int width = 240;
    const int height = std::max(1, static_cast<int>(std::lround(width * scene->frame_height / scene->frame_width)));
    const auto frame = render::Finder().render(*scene, {.width = width, .height = height});
    if (!frame) return;
    meant.clipped = render::clipped(frame->light).white;
    meant.picture = imaging::CellMap(width, height);
    for (std::size_t i = 0; i < frame->light.pixels.size(); ++i) {
        const auto& pixel = frame->light.pixels[i];
        meant.picture.values[i] = 0.2126f * pixel[0] + 0.7152f * pixel[1] + 0.0722f * pixel[2];
        meant.subject.push_back(frame->depth[i] != render::FinderFrame::no_subject);
        meant.depth.push_back(frame->depth[i]);
    }
}

/// Where a subject stands in a frame of some cells.
struct Outline {
    int columns = 1, rows = 1;
    int left = 0, right = -1, top = 0, bottom = -1;  // cells
    double angle = 0;                                // degrees clockwise of its long axis
    double length = 1;                               // long over short, as its cells spread

    bool empty() const { return right < 0; }
    double fill() const {
        return empty() ? 0
                       : std::max(static_cast<double>(right - left + 1) / columns,
                                  static_cast<double>(bottom - top + 1) / rows);
    }
    double middle_x() const { return (left + right + 1) / 2.0 / columns; }
    double middle_y() const { return (top + bottom + 1) / 2.0 / columns; }  // both in widths
    /// How far it passes out of what is left of the frame, in widths; below 0 the margin it has.
    double past(const plan::PictureCut& cut) const {
        const double side = (1 - cut.width) / 2 * columns, above = (1 - cut.height) / 2 * rows;
        return std::max({side - left, right + 1 - (columns - side), above - top, bottom + 1 - (rows - above)}) /
               columns;
    }
};

template <typename Holds>
Outline outline_of(int columns, int rows, const Holds& holds) {
    Outline of{.columns = columns, .rows = rows, .left = columns, .top = rows};
    double count = 0, sx = 0, sy = 0, xx = 0, xy = 0, yy = 0;
    for (int y = 0; y < rows; ++y)
        for (int x = 0; x < columns; ++x)
            if (holds(x, y)) {
                of.left = std::min(of.left, x), of.right = std::max(of.right, x);
                of.top = std::min(of.top, y), of.bottom = std::max(of.bottom, y);
                ++count, sx += x, sy += y, xx += x * x, xy += x * y, yy += y * y;
            }
    if (count < 1) return of;
    xx = xx / count - sx * sx / count / count, yy = yy / count - sy * sy / count / count;
    xy = xy / count - sx * sy / count / count;
    const double half = (xx + yy) / 2, apart = std::hypot((xx - yy) / 2, xy);
    of.angle = std::atan2(2 * xy, xx - yy) / 2 * 180 / std::numbers::pi;
    of.length = std::sqrt((half + apart) / std::max(half - apart, 1e-9));
    return of;
}

/// Of what stands out before a ground without detail; empty: the ground has some.
std::optional<Outline> seen_outline(const imaging::FrameScan& scan) {
    const auto detail = imaging::spread_out(scan.coarse);
    constexpr float stands_out = 8;  // code values squared
    const int edge = std::max(2, detail.columns / 40);
    int border = 0, busy = 0;
    for (int y = 0; y < detail.rows; ++y)
        for (int x = 0; x < detail.columns; ++x) {
            if (x >= edge && y >= edge && x < detail.columns - edge && y < detail.rows - edge) continue;
            ++border;
            busy += detail.at(x, y) > stands_out;
        }
    constexpr double plain = 0.02;  // share
    if (busy > plain * border) return std::nullopt;
    auto outline = outline_of(detail.columns, detail.rows, [&](int x, int y) {
        // Not a speck by itself.
        if (detail.at(x, y) <= stands_out) return false;
        int beside = 0;
        for (int row = std::max(0, y - 2); row <= std::min(detail.rows - 1, y + 2); ++row)
            for (int column = std::max(0, x - 2); column <= std::min(detail.columns - 1, x + 2); ++column)
                beside += detail.at(column, row) > stands_out;
        constexpr int some = 8;
        return beside >= some;
    });
    if (outline.empty()) return std::nullopt;
    // Means spread an edge over as much.
    constexpr int spread = 3;
    if (outline.right - outline.left > 4 * spread) outline.left += spread, outline.right -= spread;
    if (outline.bottom - outline.top > 4 * spread) outline.top += spread, outline.bottom -= spread;
    return outline;
}

/// Where the plan has its subject.
void compare_with_plan(std::vector<FrameFacts>& frames, const Meant& meant) {
    const auto& plan = meant.picture;
    if (std::ranges::count(meant.subject, true) < 50) return;
    const auto stops = [](std::vector<double> values) {
        constexpr double mid_grey = 0.18, least = 1e-5;
        return std::log2(std::max(least, imaging::median(std::move(values))) / mid_grey);
    };
    std::vector<double> planned;
    for (std::size_t i = 0; i < plan.values.size(); ++i)
        if (meant.subject[i]) planned.push_back(std::min(1.0, static_cast<double>(plan.values[i])));
    const double wanted = stops(std::move(planned));
    const auto planned_outline = outline_of(plan.columns, plan.rows, [&](int x, int y) {
        return meant.subject[static_cast<std::size_t>(y) * static_cast<std::size_t>(plan.columns) +
                             static_cast<std::size_t>(x)];
    });
    const auto cut = plan::picture_cut(meant.plan, meant.report);
    for (auto& frame : frames) {
        if (!frame.scan) continue;
        const auto& light = frame.scan->light;
        std::vector<double> seen;
        for (int y = 0; y < light.rows; ++y)
            for (int x = 0; x < light.columns; ++x) {
                const int column = x * plan.columns / light.columns, row = y * plan.rows / light.rows;
                const auto at = static_cast<std::size_t>(row) * static_cast<std::size_t>(plan.columns) +
                                static_cast<std::size_t>(column);
                if (meant.subject[at]) seen.push_back(static_cast<double>(light.at(x, y)));
            }
        frame.over_plan = stops(std::move(seen)) - wanted;
        frame.planned_fill = planned_outline.fill();
        const auto outline = seen_outline(*frame.scan);
        if (!outline) continue;
        frame.fill = outline->fill();
        if (cut && planned_outline.past(*cut) <= 0) frame.past_picture = outline->past(*cut);
        frame.off_right = outline->middle_x() - planned_outline.middle_x();
        frame.off_down = outline->middle_y() - planned_outline.middle_y();
        constexpr double long_enough = 1.5;
        if (std::min(outline->length, planned_outline.length) < long_enough) continue;
        frame.turned = std::remainder(outline->angle - planned_outline.angle, 180);
    }
}

/// Of tries at what is left to chance some miss: told, and not taken again. That none has hit is told as well, and only
/// a fault where luck does not explain it.
void expect_misses(std::vector<FrameFacts>& frames, const plan::ChanceReport& chance) {
    const auto is_miss = [](const Finding& one) { return one.code == Code::blurred || one.code == Code::shaken; };
    const auto count = static_cast<double>(frames.size());
    const auto hits = std::ranges::count_if(
        frames, [&](const auto& frame) { return frame.scan && std::ranges::none_of(frame.findings, is_miss); });
    const double by_bad_luck = std::pow(1 - chance.chance, count);
    constexpr double hardly = 0.05;
    const bool luck = hits > 0 || by_bad_luck >= hardly;
    const auto of_100 = [](double share) { return fmt::format("{:.0f} of 100", share * 100); };
    for (auto& frame : frames)
        for (Finding& finding : frame.findings) {
            if (!is_miss(finding)) continue;
            const char* how = finding.code == Code::shaken ? "drawn out one way" : "nothing in it is really sharp";
            if (luck) finding.level = Level::info;
            if (hits > 0)
                finding.text =
                    fmt::format("Missed, {}. With a chance of {} that is to be expected.", how, of_100(chance.chance));
            else if (luck)
                finding.text = fmt::format("Missed, {}. With a chance of {} it takes more tries than {:.0f}: go on.",
                                           how, of_100(chance.chance), count);
            else
                finding.text = fmt::format(
                    "Missed, {}. With a chance of {} one should have hit by now: look at focus, support and shutter "
                    "before going on.",
                    how, of_100(chance.chance));
        }
}

/// What one frame is enough for: the middle one of a stack, each single one.
void judge_measures(Inspection& inspection, const Request& request, const Meant& meant) {
    std::vector<std::size_t> of;
    if (inspection.stack) {
        const auto& frames = inspection.stack->frames;
        if (!frames.empty()) of = {frames[frames.size() / 2]};
    } else {
        of = readable(inspection.frames);
    }
    for (const auto i : of) judge_rule(inspection.frames[i], meant);
    if (!request.laid_on || of.empty()) return;
    const auto first = look_at(request.laid_on->file);
    for (const auto i : of) judge_plate(inspection.frames[i], first, *request.laid_on);
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

std::optional<Inspection> inspect(const Request& request, const Progress& progress) {
    std::vector<FrameFacts> frames(request.files.size());
    std::size_t done = 0;
    bool ended = false;
    look_at_all(request.files, [&](std::size_t i, FrameFacts facts) {
        frames[i] = std::move(facts);
        ended = progress && !progress(++done, frames.size());
        return !ended;
    });
    if (ended) return std::nullopt;
    return judge(std::move(frames), request, [&] { return !progress || progress(done, request.files.size()); });
}

std::optional<Inspection> judge(std::vector<FrameFacts> frames, const Request& request,
                                const std::function<bool()>& go_on) {
    Inspection inspection{.frames = std::move(frames), .stack = {}, .planes = request.planes};
    std::optional<Meant> meant;
    if (request.kit && request.shot) {
        meant.emplace(Meant{.plan = plan::plan_of(*request.kit, *request.shot, request.terms), .report = {}});
        meant->report = plan::assess(meant->plan);
        see_plan(*meant);
    }
    const Meant* plan = meant ? &*meant : nullptr;
    const auto* lapse = request.shot && request.shot->lapse ? &*request.shot->lapse : nullptr;
    const bool stack = inspection.frames.size() > 1 && !request.singles && !lapse;
    if (meant) compare_with_plan(inspection.frames, *meant);
    judge_sizes(inspection.frames);
    if (!lapse || !lapse->follows) judge_settings(inspection.frames, plan);
    if (lapse && meant) {
        const double each = meant->report.capture.frames;
        judge_lapse(inspection.frames, static_cast<std::size_t>(std::max(1.0, each)), *lapse,
                    meant->plan.at.magnification > 0 ? meant->plan.sensor.width / meant->plan.at.magnification : 0);
    }
    judge_light(inspection.frames, plan);
    judge_sharpness(inspection.frames, stack);
    if (meant && !stack) judge_focus(inspection.frames, *meant);
    if (meant && !stack && request.tries && meant->report.chance && inspection.frames.size() > 1)
        expect_misses(inspection.frames, *meant->report.chance);
    if (stack) {
        auto& facts = inspection.stack.emplace();
        facts.frames = in_order(inspection, facts);
        judge_against_neighbours(inspection);
        std::vector<const imaging::FrameScan*> run;
        std::vector<bool> spoilt;
        for (const auto i : facts.frames) {
            run.push_back(inspection.frames[i].scan.get());
            spoilt.push_back(std::ranges::any_of(inspection.frames[i].findings, [](const Finding& one) {
                return one.code == Code::shaken || one.code == Code::blurred;
            }));
        }
        auto look = imaging::look_at_stack(run, spoilt, go_on);
        if (!look) return std::nullopt;
        facts.look = std::move(*look);
        judge_numbers(inspection.frames, plan, facts);
        if (inspection.planes.empty() && plan) inspection.planes = planned_planes(*plan, inspection);
        judge_stack(inspection);
        if (meant) measure_depth(inspection, *meant);
    }
    if (meant) judge_measures(inspection, request, *meant);
    inspection.verdict = verdict_of(inspection);
    return inspection;
}

}  // namespace poquito::proof
