#include "findings.hpp"

#include "finding_parts.hpp"

#include "imaging/inspect/lost_detail.hpp"
#include "imaging/inspect/median.hpp"
#include "shoot/names.hpp"
#include "text/text.hpp"
#include "text/tone.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

namespace poquito::proof {
namespace {

using imaging::CellMap;
using imaging::median;

/// The box about the cells in which `share` is above a half.
std::optional<PictureArea> area_of(const CellMap& share, int cell) {
    int left = share.columns, top = share.rows, right = -1, bottom = -1;
    for (int y = 0; y < share.rows; ++y)
        for (int x = 0; x < share.columns; ++x)
            if (share.at(x, y) > 0.5f)
                left = std::min(left, x), right = std::max(right, x), top = std::min(top, y),
                bottom = std::max(bottom, y);
    if (right < 0) return std::nullopt;
    return PictureArea{left * cell, top * cell, (right - left + 1) * cell, (bottom - top + 1) * cell};
}

struct Setting {
    const char* name;
    double (*of)(const storage::FrameExif&);
    std::string (*text)(double);
    double near;   // stops, or for a focal length a share
    double power;  // stops of light for a doubling
};
constexpr double sixth = 1.0 / 6 + 1e-6;
const Setting light_settings[] = {
    {"stop", [](const storage::FrameExif& exif) { return exif.f_number; }, text::f_number_text, sixth, 2},
    {"shutter", [](const storage::FrameExif& exif) { return exif.shutter; }, text::shutter_text, sixth, 1},
    {"ISO", [](const storage::FrameExif& exif) { return exif.iso; },
     [](double iso) { return fmt::format("ISO {:g}", iso); }, sixth, 1},
    {"focal length", [](const storage::FrameExif& exif) { return exif.focal_length; },
     [](double mm) { return fmt::format("{} mm", text::number_text(mm, 3)); }, 0.04, 1}};

bool differs(const Setting& setting, double value, double wanted) {
    return value > 0 && wanted > 0 && setting.power * std::abs(std::log2(value / wanted)) > setting.near;
}

}  // namespace

void judge_sizes(std::vector<FrameFacts>& frames) {
    std::map<std::pair<int, int>, std::size_t> counts;
    for (const auto& frame : frames)
        if (frame.scan) ++counts[{frame.scan->width, frame.scan->height}];
    if (counts.size() < 2) return;
    const auto most = std::ranges::max_element(counts, {}, [](const auto& one) { return one.second; })->first;
    for (auto& frame : frames) {
        if (!frame.scan || std::pair(frame.scan->width, frame.scan->height) == most) continue;
        add(frame.findings, Code::size, Level::stop,
            fmt::format("{} \u00d7 {} pixels where the others have {} \u00d7 {}: another size, crop or way up. It "
                        "cannot be put together with them.",
                        frame.scan->width, frame.scan->height, most.first, most.second));
    }
}

void judge_settings(std::vector<FrameFacts>& frames, const Meant* meant) {
    std::vector<double> values;
    for (const Setting& setting : light_settings) {
        values.clear();
        for (const auto& frame : frames)
            if (setting.of(frame.exif) > 0) values.push_back(setting.of(frame.exif));
        std::optional<double> wanted = frames.size() > 1 ? usual(values) : std::nullopt;
        const char* by = "the others have";
        if (meant) {
            const auto& exposure = meant->plan.shot.exposure;
            const std::string_view name = setting.name;
            wanted = name == "stop"      ? meant->report.optics.displayed_f_number
                     : name == "shutter" ? exposure.shutter
                     : name == "ISO"     ? exposure.iso
                                         : meant->plan.lens.optics.focal_length;
            by = "the plan has";
        }
        if (!wanted) continue;
        for (auto& frame : frames) {
            const double value = setting.of(frame.exif);
            if (!differs(setting, value, *wanted)) continue;
            auto text = fmt::format("{} where {} {}", setting.text(value), by, setting.text(*wanted));
            const auto same = std::ranges::find(frame.findings, Code::settings, &Finding::code);
            if (same != frame.findings.end()) {  // one finding a frame
                same->text.insert(same->text.find(". Set it"), "; " + text);
                continue;
            }
            add(frame.findings, Code::settings, Level::caution,
                text + ". Set it back, lock the dial, and take it again.");
        }
    }
    if (frames.size() < 3) return;
    const auto odd_one = [&](auto value_of, const auto& text_of) {
        std::vector<double> all;
        for (const auto& frame : frames)
            if (frame.exif.known) all.push_back(value_of(frame.exif));
        const auto most = usual(all);
        if (!most) return;
        for (auto& frame : frames) {
            if (!frame.exif.known || value_of(frame.exif) == *most) continue;
            if (std::ranges::find(frame.findings, Code::settings, &Finding::code) != frame.findings.end()) continue;
            add(frame.findings, Code::settings, Level::caution, text_of(value_of(frame.exif)));
        }
    };
    odd_one([](const storage::FrameExif& exif) { return exif.flash ? 1.0 : 0.0; },
            [](double fired) {
                return fired > 0 ? "By the camera's own note a flash fired, and in the other frames none."
                                 : "By the camera's own note no flash fired, and in the other frames one did.";
            });
    odd_one([](const storage::FrameExif& exif) { return static_cast<double>(exif.orientation); },
            [](double) { return "The camera was held another way up than for the other frames, or thought so."; });
}

void judge_light(std::vector<FrameFacts>& frames, const Meant* meant) {
    using light::BackgroundLook;
    const auto look = meant ? meant->report.light.background_look : std::nullopt;
    const bool background = meant && meant->plan.shot.background.has_value();
    const bool white = look == BackgroundLook::white;
    // What is wished of the ground goes over what the plan makes of it.
    const auto ground_wish = meant ? meant->plan.terms.wishes.ground : shoot::WantedGround::unsaid;
    const auto wished = shoot::tones_of(ground_wish);
    for (auto& frame : frames) {
        if (!frame.scan) continue;
        const auto& scan = *frame.scan;
        constexpr double worth_saying = 0.01;
        if (scan.clipped_share >= worth_saying && !white) {
            // What the plan's picture has white as well was seen in the finder: the lamps in what is polished.
            constexpr double more = 1.3, rest = 0.005;
            const bool planned = meant && scan.clipped_share <= more * meant->clipped + rest;
            add(frame.findings, Code::clipped, planned ? Level::info : Level::caution,
                fmt::format("{} % of the frame is clipped to white{}.{}",
                            text::number_text(scan.clipped_share * 100, 2),
                            planned ? ", as in the plan's own picture" : "",
                            planned ? "" : " Less light, or a larger and softer source where it glares."),
                area_of(scan.clipped, scan.cell));
        }
        // The plain border of the frame is ground.
        if (!background || !(look == BackgroundLook::black || white || wished)) continue;
        std::vector<double> ground;
        const int edge = std::max(2, scan.light.columns / 16);
        for (int y = 0; y < scan.light.rows; ++y)
            for (int x = 0; x < scan.light.columns; ++x) {
                const bool border =
                    x < edge || y < edge || x >= scan.light.columns - edge || y >= scan.light.rows - edge;
                if (border && scan.coarse.at(x, y) < 8) ground.push_back(scan.light.at(x, y));
            }
        if (ground.size() < 30) continue;
        const double stops = std::log2(std::max(median(std::move(ground)), 1e-6) / 0.18);
        constexpr double black_to = -5, white_from = 2.2;
        if (wished) {
            constexpr double seen_apart = 0.5;  // stops past its range that one sees
            const bool dark = stops<wished->from - seen_apart, bright = stops> wished->to + seen_apart;
            if (dark || bright)
                add(frame.findings, Code::background, Level::caution,
                    fmt::format("A {} ground is wished; it came out {}. {}", shoot::name_of(ground_wish),
                                text::tone_text(stops),
                                dark ? "More light on it, or a longer time where it has its own."
                                     : "Move it back, or keep light off it."));
        }
        if (!wished && !white && stops > black_to)
            add(frame.findings, Code::background, Level::caution,
                fmt::format("The ground is not black: {}, black is {:g} below. Move it back, or keep light off it.",
                            text::tone_text(stops), -black_to));
        if (!wished && white && stops < white_from)
            add(frame.findings, Code::background, Level::caution,
                fmt::format("The ground is not clean white: {}, clean white is {:g} above. More light on it.",
                            text::tone_text(stops), white_from));
        // A ground that is planned white shows what colour the light is for the camera.
        const auto& planned_colour = meant->plan.shot.background->colour;
        constexpr int grey = 6;  // code values from one channel to another
        if (!white ||
            (planned_colour && std::max({planned_colour->red, planned_colour->green, planned_colour->blue}) -
                                       std::min({planned_colour->red, planned_colour->green, planned_colour->blue}) >
                                   grey))
            continue;
        const double red = std::log2(std::max(scan.border[0], 1e-6) / std::max(scan.border[1], 1e-6));
        const double blue = std::log2(std::max(scan.border[2], 1e-6) / std::max(scan.border[1], 1e-6));
        constexpr double seen = 0.15;  // stops
        if (std::max({std::abs(red), std::abs(blue), std::abs(red - blue)}) < seen) continue;
        const char* cast = red > blue + seen      ? "warm"
                           : blue > red + seen    ? "cold"
                           : (red + blue) / 2 < 0 ? "green"
                                                  : "magenta";
        add(frame.findings, Code::colour, Level::caution,
            fmt::format("The white ground came out {}: against green, red is {} and blue {} stops. Set the white "
                        "balance by it, and keep light of another colour off.",
                        cast, text::stops_text(red), text::stops_text(blue)));
    }
}

namespace {

/// Of a direction in the picture, degrees from its rows.
const char* way_text(double degrees) {
    const double from_row = std::abs(std::remainder(degrees, 180));
    constexpr double level = 25, upright = 65;
    return from_row < level ? "sideways" : from_row > upright ? "up and down" : "slantwise";
}

void add_shaken(FrameFacts& frame) {
    add(frame.findings, Code::shaken, Level::stop,
        fmt::format("Detail is drawn out {}: shaken, or the subject moved. A steadier support, a remote release, or a "
                    "shorter exposure.",
                    way_text(frame.scan->structure.least_along())));
}

constexpr const char* softer_than_others = "Softer everywhere than the other frames. Take this one again.";

}  // namespace

void judge_sharpness(std::vector<FrameFacts>& frames, bool stack) {
    std::vector<double> sharp, directed;
    for (const auto& frame : frames)
        if (frame.scan && frame.has_detail) {
            sharp.push_back(frame.sharpness);
            directed.push_back(frame.scan->structure.directed());
        }
    const double run_sharp = median(sharp), run_directed = median(directed);
    // Against those beside it: towards its ends a stack holds less and less that can be sharp. What noise drowns is no
    // softer than the softest that can be told.
    constexpr double least_told = 0.15;
    const auto beside = [&](std::size_t i) {
        std::vector<double> near;
        constexpr std::size_t reach = 3;
        for (std::size_t k = i > reach ? i - reach : 0; k < std::min(frames.size(), i + reach + 1); ++k)
            if (k != i && frames[k].scan && frames[k].has_detail) near.push_back(frames[k].sharpness);
        return near.empty() ? run_sharp : median(std::move(near));
    };
    for (std::size_t i = 0; i < frames.size(); ++i) {
        auto& frame = frames[i];
        if (!frame.scan || !frame.has_detail) continue;
        const double way = frame.scan->structure.directed();
        const bool one_way = stack || frames.size() > 2 ? way > run_directed + 0.25 : way > 0.6;
        constexpr double soft = 0.22, far_softer = 0.5;
        const bool blurred =
            stack ? std::max(frame.sharpness, least_told) < far_softer * beside(i) : frame.sharpness < soft;
        if (one_way && (blurred || frame.sharpness < 0.85 * run_sharp))
            add_shaken(frame);
        else if (blurred) {
            const char* words = stack
                                    ? softer_than_others
                                    : "Nothing in it is really sharp: out of focus, or shaken. Focus on what has to be "
                                      "sharp, and take it again.";
            add(frame.findings, Code::blurred, Level::stop, fmt::format("{}", words));
        }
    }
}

std::vector<long> file_numbers(const std::vector<FrameFacts>& frames) {
    std::set<std::string> beginnings;
    std::vector<long> numbers;
    for (const auto& frame : frames) {
        const std::string stem = frame.file.stem().string();
        std::size_t digits = stem.size();
        while (digits > 0 && std::isdigit(static_cast<unsigned char>(stem[digits - 1]))) --digits;
        if (digits == stem.size() || stem.size() - digits > 9) return {};
        beginnings.insert(stem.substr(0, digits));
        numbers.push_back(std::stol(stem.substr(digits)));
    }
    return beginnings.size() == 1 ? numbers : std::vector<long>();
}

void judge_numbers(const std::vector<FrameFacts>& frames, const Meant* meant, StackFacts& stack) {
    auto numbers = file_numbers(frames);
    if (numbers.size() > 1) {
        std::ranges::sort(numbers);
        // A counter that turns over: what lies behind the widest hole came first.
        constexpr long turn = 1000;
        for (std::size_t i = 0; i + 1 < numbers.size(); ++i)
            if (numbers[i + 1] - numbers[i] > turn) {
                std::rotate(numbers.begin(), numbers.begin() + static_cast<std::ptrdiff_t>(i) + 1, numbers.end());
                break;
            }
        for (std::size_t i = 0; i + 1 < numbers.size(); ++i) {
            if (numbers[i + 1] < numbers[i] || numbers[i + 1] - numbers[i] > turn) continue;
            for (long number = numbers[i] + 1; number < numbers[i + 1]; ++number)
                stack.missing.push_back(static_cast<int>(number));
        }
    }
    if (!stack.missing.empty())
        add(stack.findings, Code::missing, Level::caution,
            fmt::format("Not among the files: {} {}. Copy them from the card, or take them again.",
                        stack.missing.size() == 1 ? "number" : "numbers", list_text(stack.missing)));
    else if (meant && static_cast<double>(frames.size()) < meant->report.capture.frames)
        add(stack.findings, Code::missing, Level::caution,
            fmt::format("{} frames where the plan has {:.0f}.", frames.size(), meant->report.capture.frames));
}

namespace {

/// In what is much darker noise hides detail, and clipping does in what is much lighter: that is said of its light.
bool lit_otherwise(const imaging::FrameScan& frame, const imaging::FrameScan& before, const imaging::FrameScan& after) {
    constexpr float much = 0.4f, told = 0.004f;  // stops; luminance
    std::size_t seen = 0, other = 0;
    for (std::size_t i = 0; i < frame.light.values.size(); ++i) {
        const float own = frame.light.values[i], usual = std::sqrt(before.light.values[i] * after.light.values[i]);
        if (usual < told) continue;
        ++seen;
        other += std::abs(std::log2(std::max(own, told / 4) / usual)) > much;
    }
    constexpr std::size_t some = 10;  // a tenth of what is lit; where detail moves, less is
    return some * other > seen;
}

}  // namespace

void judge_against_neighbours(Inspection& inspection) {
    auto& frames = inspection.frames;
    const auto& order = inspection.stack->frames;
    std::vector<const imaging::FrameScan*> run;
    std::vector<double> directed;
    for (const auto i : order) {
        run.push_back(frames[i].scan.get());
        directed.push_back(frames[i].scan->structure.directed());
    }
    const double usual = median(directed);
    const auto against = imaging::detail_against_neighbours(run);
    for (std::size_t f = 0; f < order.size(); ++f) {
        auto& frame = frames[order[f]];
        const auto found = [&](Code code) {
            return std::ranges::find(frame.findings, code, &Finding::code) != frame.findings.end();
        };
        constexpr double lost = -0.2, one_way = 0.1;  // tried on made-up photographs
        if (against[f].value_or(0) > lost || found(Code::shaken)) continue;
        if (lit_otherwise(*run[f], *run[f - 1], *run[f + 1])) continue;
        if (directed[f] > usual + one_way) {
            std::erase_if(frame.findings, [](const Finding& one) { return one.code == Code::blurred; });
            add_shaken(frame);
        } else if (!found(Code::blurred)) {
            add(frame.findings, Code::blurred, Level::stop, softer_than_others);
        }
    }
}

std::vector<std::size_t> order_by_time(const std::vector<FrameFacts>& frames) {
    std::vector<std::size_t> order(frames.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::set<std::string> times;
    for (const auto& frame : frames) {
        if (frame.exif.time.size() < 19) return {};
        times.insert(frame.exif.time);
    }
    if (times.size() < 2) return {};
    // Equal times keep the order they have; whole seconds that several frames share tell little, but never the wrong.
    std::ranges::stable_sort(order, {}, [&](std::size_t i) -> const std::string& { return frames[i].exif.time; });
    return order;
}

}  // namespace poquito::proof
