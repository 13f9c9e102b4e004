#include "findings.hpp"

#include "finding_parts.hpp"

#include "imaging/inspect/median.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::proof {

using imaging::median;

namespace {

int number_of(const StackFacts& stack, std::size_t at) { return static_cast<int>(stack.frames[at]) + 1; }

void judge_gaps(Inspection& inspection) {
    auto& stack = *inspection.stack;
    if (!stack.look.planes) return;
    const auto& planes = *stack.look.planes;
    constexpr double wide = 1.45;  // of the run's median
    // Against those about it, itself left out: steps, and how much focusing changed the scale.
    const auto about = [&](std::size_t at, auto value_of) {
        std::vector<double> values;
        constexpr std::size_t reach = 3;
        for (std::size_t f = at > reach ? at - reach : 0; f <= std::min(at + reach, planes.frames.size() - 2); ++f)
            if (f != at && stack.look.neighbours[f].found) values.push_back(value_of(f));
        return median(std::move(values));
    };
    const auto scale_of = [&](std::size_t f) { return std::abs(std::log(stack.look.neighbours[f].scale)); };
    // One frame that is laid on its neighbours a little too large has too much before it and too little behind: what
    // the steps to both sides have less of is no gap.
    const auto scale_about = [&](std::size_t f) {
        const double usual = about(f, scale_of);
        double sum = scale_of(f);
        for (const std::size_t beside : {f - 1, f + 1})
            if (beside < stack.look.neighbours.size() && stack.look.neighbours[beside].found)
                sum += std::min(0.0, scale_of(beside) - usual);
        return sum;
    };
    // The wider detail stays visible against a step, the less a step can be told by it.
    constexpr double share_of_width = 0.35;
    const double tellable = 1 + share_of_width * planes.width;
    // The distance that the lens reports may be coarse, or not true: it can bear a gap out that the planes leave in
    // doubt, and no more.
    const auto distance_of = [&](std::size_t f) { return inspection.frames[stack.frames[f]].exif.subject_distance; };
    const auto trajectory_of = [&](std::size_t f) {
        const bool reported = distance_of(f) > 0 && distance_of(f + 1) > 0;
        return reported ? std::abs(distance_of(f + 1) - distance_of(f)) : 0;
    };
    for (std::size_t f = 0; f + 1 < planes.frames.size(); ++f) {
        const double steps = planes.free_steps[f];
        // Where focusing changes the scale enough to be told, it is a second witness: for a gap that the planes leave
        // in doubt, or against one.
        constexpr double told = 3e-4, as_usual = 1.2, much_more = 1.45, twice = 1.6;
        const double usual_scale = about(f, scale_of);
        const double unrest = about(f, [&](std::size_t at) { return std::abs(scale_of(at) - usual_scale); });
        const bool tells = usual_scale > told && stack.look.neighbours[f].found && !stack.look.moved(f);
        const double by_scale = tells ? std::min(scale_of(f), scale_about(f)) / usual_scale : 0;
        const double usual_way = about(f, trajectory_of);
        const double by_way = usual_way > 0 ? trajectory_of(f) / usual_way : 0;
        // Few or noisy tiles make steps of any width; what tells is how much better that width explains them.
        constexpr double clear = 0.07, hint = 0.03, from_those_about = 1.35;
        const double locally = steps / about(f, [&](std::size_t at) { return planes.free_steps[at]; });
        const bool by_planes = steps >= std::max(wide, tellable) && locally >= from_those_about &&
                               planes.gains[f] >= clear && !(tells && by_scale < as_usual);
        const bool by_both =
            steps >= as_usual && planes.gains[f] >= hint && (by_scale >= much_more || by_way >= much_more);
        const bool by_scales = steps > 1 && by_scale >= twice && scale_of(f) - usual_scale > 8 * unrest;
        if (!by_planes && !by_both && !by_scales) continue;
        if (std::max({steps, by_scale, by_way}) < planes.lost()) continue;
        const int after = number_of(stack, f);
        const double step = inspection.step();
        // How many, where the planes are known, is told by them: of files that are not there, or never were taken.
        double frames = std::max(1.0, std::round(steps) - 1);
        if (step > 0) {
            const double known = (inspection.planes[stack.frames[f + 1]] - inspection.planes[stack.frames[f]]) / step;
            constexpr double more_than_one = 1.5;
            if (known >= more_than_one) frames = std::round(known) - 1;
        }
        stack.gaps.push_back({.after_frame = after, .frames = frames});
        const auto& gap = stack.gaps.back();
        std::string where;
        if (step > 0) {
            const double from = inspection.planes[stack.frames[f]];
            where =
                fmt::format(", from {} to {}", text::length_text(from), text::length_text(from + (frames + 1) * step));
        }
        add(stack.findings, Code::gap, Level::stop,
            fmt::format("A gap: {:.0f} {} between {} and {}{} ({} steps at once). While the set still stands, take "
                        "them.",
                        gap.frames, gap.frames > 1 ? "frames are missing" : "frame is missing", after,
                        number_of(stack, f + 1), where, text::number_text(steps, 2)));
    }
}

void judge_ends(StackFacts& stack) {
    if (!stack.look.planes) return;
    const auto& planes = *stack.look.planes;
    constexpr double open = 0.025;  // of what has detail
    stack.first_end_open = planes.open_before() >= open;
    stack.last_end_open = planes.open_behind() >= open;
    const auto say = [&](bool is_open, const char* end, double share) {
        if (!is_open) return;
        add(stack.findings, Code::end_open, Level::stop,
            fmt::format("The {} end is open: {:.0f} % of the detail lies outside the run and is "
                        "sharp in no frame. Take frames beyond it.",
                        end, share * 100));
    };
    say(stack.first_end_open, "first", planes.open_before());
    say(stack.last_end_open, "last", planes.open_behind());
}

void judge_movement(StackFacts& stack) {
    for (std::size_t f = 0; f < stack.look.neighbours.size(); ++f) {
        if (!stack.look.moved(f)) continue;
        const auto& one = stack.look.neighbours[f];
        stack.moved.push_back({.frame = number_of(stack, f + 1), .shift = one.shift(), .turn = one.turn});
        add(stack.findings, Code::moved, Level::stop,
            fmt::format("From frame {} on camera or subject stand elsewhere, {} px: knocked, or something slipped. "
                        "Set it up again and take what follows anew.",
                        stack.moved.back().frame, text::number_text(one.shift(), 2)));
    }
}

void judge_own_motion(const Inspection& inspection, StackFacts& stack) {
    for (const auto& own : stack.look.own) {
        const auto& to_frame = stack.look.to_frame[own.last];
        const auto& scan = *inspection.frames[stack.frames[own.last]].scan;
        // From the middle frame to that in which it has come to rest.
        const double mid_x = scan.width / 2.0, mid_y = scan.height / 2.0;
        const auto there = to_frame({own.left + own.width / 2.0 - mid_x, own.top + own.height / 2.0 - mid_y});
        PictureArea place{.x = static_cast<int>(there.x + mid_x) - own.width / 2,
                          .y = static_cast<int>(there.y + mid_y) - own.height / 2,
                          .width = own.width,
                          .height = own.height};
        place.x = std::clamp(place.x, 0, std::max(0, scan.width - place.width));
        place.y = std::clamp(place.y, 0, std::max(0, scan.height - place.height));
        const int from = number_of(stack, own.first), to = number_of(stack, own.last);
        const auto frames = own.last == own.first + 1 ? fmt::format("between frames {} and {}", from, to)
                                                      : fmt::format("in frames {} to {}", from, to);
        add(stack.findings, Code::moved, Level::info,
            fmt::format("Something moves by itself {}: a leg, a hair, a drop. Put together it shows twice there; take "
                        "that place from one of them, or take them again once it rests.",
                        frames),
            place);
    }
}

void judge_evenness(Inspection& inspection) {
    auto& stack = *inspection.stack;
    const auto most = usual_exif(inspection.frames);
    for (std::size_t f = 0; f < stack.look.uneven.size(); ++f) {
        auto& frame = inspection.frames[stack.frames[f]];
        const double by_settings = brighter_by_settings(frame.exif, most);
        const double stops = stack.look.uneven[f];
        constexpr double worth_saying = 0.25, much = 1;
        if (std::abs(stops - by_settings) < worth_saying || std::abs(stops) < worth_saying) continue;
        stack.uneven.push_back({.frame = number_of(stack, f), .stops = stops});
        add(frame.findings, Code::uneven, std::abs(stops) >= much ? Level::stop : Level::caution,
            fmt::format("{} stops {} than the run: {}. Take it again.", text::number_text(std::abs(stops), 2),
                        stops < 0 ? "darker" : "brighter",
                        stops < 0 ? "a flash was not ready, or something stood in the light"
                                  : "a flash gave more, or light came in"));
    }
}

}  // namespace

void judge_stack(Inspection& inspection) {
    auto& stack = *inspection.stack;
    judge_gaps(inspection);
    judge_ends(stack);
    judge_movement(stack);
    judge_own_motion(inspection, stack);
    judge_evenness(inspection);
    if (!stack.order.empty())
        add(stack.findings, Code::order, Level::caution,
            "Not in the order in which they were taken or focused: " + list_text(stack.order) +
                " is. Put them together in that order.");
}

}  // namespace poquito::proof
