#include "advice/proposals/proposals.hpp"
#include "advice/rules/rules.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <cmath>

/// How far the person, the purpose or the shot goes.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;
using shoot::Loss;

Found iso_over_limit(const plan::Plan& plan, const plan::Report&) {
    const auto& limit = plan.terms.limits.iso;
    const double iso = plan.shot.exposure.iso;
    if (!limit || iso <= *limit * 1.000001) return {};
    Finding finding{fmt::format("ISO {} passes the {} you set as the most.", text::number_text(iso, 6),
                                text::number_text(*limit, 6))};
    shoot::Exposure held = plan.shot.exposure;
    held.iso = *limit;
    const double missing = std::log2(iso / *limit);
    if (plan::finds_power(plan))
        finding.remedy = remedy(plan, fmt::format("ISO {}, more flash", text::number_text(*limit, 6)),
                                [&](shoot::Shot& shot) { shot.exposure = held; });
    shoot::Exposure wider = held, longer = held;
    wider.f_number = text::nearest_f_number(held.f_number * std::exp2(-missing / 2));
    longer.shutter = text::nearest_shutter(held.shutter * std::exp2(missing));
    const auto way = [&](Loss loss, std::string label, const shoot::Exposure& exposure) {
        finding.ways.push_back(
            {loss, remedy(plan, std::move(label), [&](shoot::Shot& shot) { shot.exposure = exposure; })});
    };
    if (wider.f_number >= plan.lens.optics.max_aperture * 0.999)
        way(Loss::depth, fmt::format("ISO {} at {}", text::number_text(*limit, 6), text::f_number_text(wider.f_number)),
            wider);
    if (longer.shutter <= 60)
        way(Loss::motion, fmt::format("ISO {} at {}", text::number_text(*limit, 6), text::shutter_text(longer.shutter)),
            longer);
    return finding;
}

Found shutter_over_limit(const plan::Plan& plan, const plan::Report&) {
    const auto& limit = plan.terms.limits.shutter_by_hand;
    const double shutter = plan.shot.exposure.shutter;
    if (!limit || plan.shot.rig.support != shoot::Support::hand || shutter <= *limit * 1.000001) return {};
    Finding finding{fmt::format("{} by hand is slower than the {} you hold.", text::shutter_text(shutter),
                                text::shutter_text(*limit))};
    if (plan::finds_power(plan)) {
        finding.remedy = remedy(plan, fmt::format("Shorten to {}", text::shutter_text(*limit)),
                                [&](shoot::Shot& shot) { shot.exposure.shutter = *limit; });
        return finding;
    }
    finding.ways = shorter_time(plan, std::log2(shutter / *limit));
    finding.ways.push_back({Loss::time, remedy(plan, "Put it on a stand", [](shoot::Shot& shot) {
                                shot.rig.support = shoot::Support::sturdy_head;
                            })});
    return finding;
}

/// Marked, and what this camera makes of it where it displays the working value.
std::string stop_text(const plan::Plan& plan, double marked) {
    auto words = text::f_number_text(marked);
    if (plan.camera.aperture_display != gear::ApertureDisplay::working) return words;
    return fmt::format("{} ({} on the display)", words, text::f_number_text(marked * plan.working_factor));
}

Found stop_over_limit(const plan::Plan& plan, const plan::Report&) {
    const auto& limit = plan.terms.limits.f_number;
    const double f = plan.shot.exposure.f_number;
    if (!limit || f <= *limit * 1.000001) return {};
    return Finding{
        fmt::format("{} is a smaller stop than the {} you tolerate.", stop_text(plan, f), stop_text(plan, *limit)),
        remedy(plan, fmt::format("Open to {}", text::f_number_text(mark_below(*limit))), [&](shoot::Shot& shot) {
            // Light won by the stop is given back in time, or by the flash itself.
            shot.exposure.f_number = mark_below(*limit);
            if (!plan::finds_power(plan))
                shot.exposure.shutter =
                    text::nearest_shutter(shot.exposure.shutter * std::exp2(2 * std::log2(shot.exposure.f_number / f)));
        })};
}

Found frames_over_limit(const plan::Plan& plan, const plan::Report& report) {
    const auto& limit = plan.terms.limits.frames;
    const double frames = report.capture.cost.exposures;
    if (!limit || frames <= *limit) return {};
    return Finding{
        fmt::format("{} are more than the {} you would take of one picture. A smaller stop or a zone takes fewer.",
                    text::count_text(frames, "frame", "frames"), text::number_text(*limit, 9))};
}

Found minutes_over_limit(const plan::Plan& plan, const plan::Report& report) {
    const auto& limit = plan.terms.limits.minutes;
    const double minutes = report.capture.paced_duration / 60;
    if (!limit || minutes <= *limit) return {};
    return Finding{fmt::format("{} is more than the {} you would give one picture.", text::time_text(minutes * 60),
                               text::time_text(*limit * 60))};
}

constexpr Rule limit_rows[] = {
    {"iso-over-limit", Station::light, Level::caution, Concern::plan, iso_over_limit},
    {"shutter-over-limit", Station::light, Level::caution, Concern::plan, shutter_over_limit},
    {"stop-over-limit", Station::depth, Level::caution, Concern::plan, stop_over_limit},
    {"frames-over-limit", Station::run, Level::caution, Concern::plan, frames_over_limit},
    {"minutes-over-limit", Station::run, Level::caution, Concern::plan, minutes_over_limit},
};

}  // namespace

std::span<const Rule> limit_rules() { return limit_rows; }

}  // namespace poquito::advice
