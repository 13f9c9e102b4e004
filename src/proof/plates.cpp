#include "findings.hpp"
#include "imaging/inspect/grey_image.hpp"
#include "imaging/inspect/registration.hpp"
#include "imaging/inspect/rule_period.hpp"
#include "plan/set/staging.hpp"
#include "shoot/staging.hpp"
#include "storage/frame_reader.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

/// What is measured in a frame: whether it lies on another one, and how large a rule in it comes out.
namespace poquito::proof {
namespace {

double luminance(const std::array<double, 3>& colour) {
    return 0.2126 * colour[0] + 0.7152 * colour[1] + 0.0722 * colour[2];
}

std::string direction(double right, double down) {
    std::string text;
    const auto add = [&](double by, const char* one, const char* other) {
        if (std::abs(by) < 0.5) return;
        if (!text.empty()) text += " and ";
        text += fmt::format("{:.0f} px {}", std::abs(by), by > 0 ? one : other);
    };
    add(right, "to the right", "to the left");
    add(down, "down", "up");
    return text;
}

/// The part of a file that a box covers, in shares of it, as grey; empty where it cannot be read.
imaging::GreyImage part_of(const std::filesystem::path& file, double left, double top, double width, double height) {
    imaging::GreyImage part;
    int wide = 0, high = 0, y = 0, x0 = 0, y0 = 0;
    storage::RowSink sink;
    sink.begin = [&](int w, int h) {
        wide = w, high = h;
        x0 = std::clamp(static_cast<int>(std::floor(left * wide)), 0, wide - 1);
        y0 = std::clamp(static_cast<int>(std::floor(top * high)), 0, high - 1);
        part.width = std::clamp(static_cast<int>(std::ceil((left + width) * wide)), x0 + 1, wide) - x0;
        part.height = std::clamp(static_cast<int>(std::ceil((top + height) * high)), y0 + 1, high) - y0;
        part.pixels.reserve(static_cast<std::size_t>(part.width) * static_cast<std::size_t>(part.height));
        return true;
    };
    sink.row = [&](const std::uint8_t* rgb) {
        if (y >= y0 && y < y0 + part.height)
            for (int x = x0; x < x0 + part.width; ++x) {
                const auto* pixel = rgb + static_cast<std::ptrdiff_t>(x) * 3;
                part.pixels.push_back(static_cast<float>(0.299 * pixel[0] + 0.587 * pixel[1] + 0.114 * pixel[2]) / 255);
            }
        return ++y < y0 + part.height;
    };
    if (!storage::read_rows(file, sink)) return {};
    return part;
}

}  // namespace

void judge_plate(FrameFacts& frame, const FrameFacts& first, const LaidOn& on) {
    if (!frame.scan || !first.scan) return;
    const auto add = [&](Code code, Level level, std::string text) {
        frame.findings.push_back({.code = code, .level = level, .text = std::move(text), .place = {}});
    };
    if (frame.scan->width != first.scan->width || frame.scan->height != first.scan->height)
        return add(Code::size, Level::stop,
                   fmt::format("It has {} \u00d7 {} px, {} has {} \u00d7 {}: they do not lie on one another.",
                               frame.scan->width, frame.scan->height, on.name, first.scan->width, first.scan->height));
    const auto own = imaging::registrable(frame.scan->small), its = imaging::registrable(first.scan->small);
    const auto found = imaging::registered(its, own);
    constexpr double unlike = 0.25;  // below it the two show nothing in common
    if (!found || found->likeness < unlike) {
        add(Code::moved, Level::info,
            fmt::format("Nothing tells whether it lies on {}: too little is seen in both. A mark at the edge, cut away "
                        "later, would.",
                        on.name));
    } else {
        const double cell = frame.scan->cell;
        const double right = found->similarity.dx * cell, down = found->similarity.dy * cell;
        const double turn = found->similarity.turn * 180 / std::numbers::pi;
        // Means of cells tell places to a fifth of one; two pixels are seen where edges are laid on one another (common
        // practice).
        const double still = std::max(2.0, cell * 0.2);
        constexpr double straight = 0.1;  // degrees
        if (std::hypot(right, down) > still || std::abs(turn) > straight)
            add(Code::moved, Level::caution,
                fmt::format(
                    "It does not lie on {}: moved by {}{}. Camera or table was touched. Take it again from where "
                    "{} was taken, or that one too; else both have to be brought onto one another first.",
                    on.name, std::hypot(right, down) > 0.5 ? direction(right, down) : std::string("less than a pixel"),
                    std::abs(turn) > straight ? fmt::format(", turned by {:.1f}\u00b0", std::abs(turn)) : "", on.name));
    }
    if (!on.alike) return;
    const double stops =
        std::log2(std::max(1e-5, luminance(frame.scan->border)) / std::max(1e-5, luminance(first.scan->border)));
    constexpr double seen = 0.15;  // stops from one plate to the next that show at a seam (common practice)
    if (std::abs(stops) > seen)
        add(Code::uneven, Level::caution,
            fmt::format("Its ground is {} stops {} than in {}: where the two meet, a seam will show.",
                        text::number_text(std::abs(stops), 2), stops > 0 ? "lighter" : "darker", on.name));
}

void judge_rule(FrameFacts& frame, const Meant& meant) {
    const auto* rule = shoot::rule_in(meant.plan.shot.staging);
    if (!rule || !frame.scan) return;
    const auto found = std::ranges::find(meant.report.staging, rule->id, &plan::StagedReport::id);
    if (found == meant.report.staging.end()) return;
    const double wide = frame.scan->width;
    const double frame_mm = meant.plan.sensor.width / meant.plan.at.magnification;
    const double expected = wide / frame_mm * plan::scale_at(meant.plan, found->place.away);  // px a millimetre
    constexpr double least = 3;                                                               // px from tick to tick
    if (expected < least) return;
    // It may have been laid a little beside its place.
    const double loose_x = 0.02, loose_y = std::max(0.02, found->height / 2);
    const auto part = part_of(frame.file, found->left - loose_x, found->top - loose_y, found->width + 2 * loose_x,
                              found->height + 2 * loose_y);
    if (part.pixels.empty()) return;
    const auto period = imaging::period_across(part, expected);
    const auto add = [&](Level level, std::string text) {
        frame.findings.push_back({.code = Code::settings, .level = level, .text = std::move(text), .place = {}});
    };
    if (!period)
        return add(Level::caution, fmt::format("{} is not seen where it is planned, or cannot be read: look "
                                               "whether it lies there, sharp and straight.",
                                               rule->name));
    frame.scale = *period / expected;
    const double off = *frame.scale - 1;
    const double readable = std::max(0.015, 0.3 / rule->subject.width);
    if (std::abs(off) <= readable) return;
    add(Level::caution,
        fmt::format("By the rule in it the frame is taken at {}, {:.1f} % {} than planned ({}): the camera stands {} "
                    "than it should, or the rule lies out of the plane of focus.",
                    text::magnification_text(meant.plan.at.magnification * (1 + off)), std::abs(off) * 100,
                    off > 0 ? "larger" : "smaller", text::magnification_text(meant.plan.at.magnification),
                    off > 0 ? "nearer" : "further away"));
}

}  // namespace poquito::proof
