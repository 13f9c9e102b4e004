#include "advice/rules.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

/// What can go wrong with something that falls, flies or splashes.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

Found freeze_speed(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze) return {};
    constexpr double same = 0.02;
    const double speed = report.freeze->speed, now = plan.shot.subject.speed;
    if (std::abs(now - speed) <= same * std::max(speed, 1.0)) return {};
    return Finding{fmt::format("The freeze plan makes it {} m/s at the wanted place, the subject is down for {} m/s.",
                               text::number_text(speed / 1000, 2), text::number_text(now / 1000, 2)),
                   remedy(plan, fmt::format("Use {} m/s", text::number_text(speed / 1000, 2)),
                          [&](shoot::Shot& shot) { shot.subject.speed = std::round(speed); })};
}

Found trigger_late(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || !report.freeze->delay || *report.freeze->delay >= 0) return {};
    const auto& freeze = *plan.shot.freeze;
    if (freeze.trigger == shoot::Trigger::sound)
        return Finding{
            fmt::format("By the sound of it the frame comes {} after the impact: with camera and trigger "
                        "that slow, have the shutter open in the dark and let the trigger fire the flash "
                        "alone.",
                        text::shutter_text(-*report.freeze->delay))};
    const double least = std::ceil(report.freeze->least_beam);
    if (least >= freeze.drop)
        return Finding{
            "Camera and trigger are slower than the whole fall: drop it from higher, or have the shutter "
            "open and let the beam fire the flash alone."};
    return Finding{fmt::format("The light comes {} late: the beam must stand {} or more above the place.",
                               text::shutter_text(-*report.freeze->delay), text::length_text(least)),
                   remedy(plan, fmt::format("Beam {} above", text::length_text(least)),
                          [&](shoot::Shot& shot) { shot.freeze->beam_above = least; })};
}

Found burst_cut_off(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || !report.freeze->burst_time) return {};
    const double needed = *report.freeze->burst_time;
    if (plan.shot.exposure.shutter >= needed * (1 - 1e-9)) return {};
    return Finding{
        fmt::format("{} flashes at {} Hz last {}: the shutter closes before.",
                    plan.shot.freeze->repeating->burst.flashes,
                    text::number_text(plan.shot.freeze->repeating->burst.frequency, 3), text::shutter_text(needed)),
        remedy(plan, fmt::format("Expose {}", text::shutter_text(needed)),
               [&](shoot::Shot& shot) { shot.exposure.shutter = needed; })};
}

Found landing_out_of_focus(const plan::Plan& plan, const plan::Report& report) {
    constexpr double nearly_all = 0.95;
    if (!report.freeze || !report.freeze->landing_inside || *report.freeze->landing_inside > nearly_all) return {};
    return Finding{fmt::format("It comes down about {} nearer or farther; the depth of field holds {} % of that.",
                               text::length_text(plan.shot.freeze->scatter),
                               text::number_text(*report.freeze->landing_inside * 100, 2))};
}

constexpr Rule freeze_rows[] = {
    {"burst-cut-off", Station::light, Level::stop, Concern::plan, burst_cut_off},
    {"trigger-late", Station::light, Level::caution, Concern::plan, trigger_late},
    {"freeze-speed", Station::light, Level::caution, Concern::statement, freeze_speed},
    {"landing-out-of-focus", Station::light, Level::caution, Concern::plan, landing_out_of_focus},
};

}  // namespace

std::span<const Rule> freeze_rules() { return freeze_rows; }

}  // namespace poquito::advice
