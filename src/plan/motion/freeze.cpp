#include "plan/motion/freeze.hpp"

#include "optics/chance.hpp"
#include "optics/motion.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/trajectory.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::plan {
namespace {

/// The flash that lights longest at its present power; empty: none fires.
std::optional<std::size_t> slowest_flash(const LightReport& light) {
    std::optional<std::size_t> slowest;
    double longest = 0;
    for (std::size_t i = 0; i < light.sources.size(); ++i) {
        const auto& source = light.sources[i];
        if (source.continuous || !source.stops) continue;
        const double time = source.t01.value_or(0);
        if (slowest && time <= longest) continue;
        slowest = i;
        longest = time;
    }
    return slowest;
}

std::vector<FreezeRow> rows_of(const Plan& plan, const SourceReport& source, const gear::Flash& flash, double speed) {
    std::vector<FreezeRow> rows;
    const double now = source.power, m = std::max(plan.at.magnification, 0.0);
    for (double power = 1; power >= flash.scale.least * (1 - 1e-9); power /= 2) {
        const auto lasts = gear::flash_time(flash, power);
        if (!lasts) continue;
        FreezeRow row{.power = power, .t05 = lasts->t05, .t01 = lasts->t01};
        row.blur = optics::motion_blur({.magnification = m, .speed = speed, .exposure = row.t01});
        const double f_number = plan.shot.exposure.f_number * std::sqrt(power / now);
        const auto& optics = plan.train.lens;
        if (f_number >= optics.max_aperture * (1 - 1e-9) && f_number <= optics.min_aperture * (1 + 1e-9))
            row.f_number = f_number;
        row.iso = plan.shot.exposure.iso * now / power;
        rows.push_back(row);
    }
    return rows;
}

/// Share of where it may come down that the depth of field holds.
std::optional<double> landing_share(const SharpnessReport& sharp, double scatter) {
    if (!sharp.near || !(scatter > 0)) return std::nullopt;
    return optics::scatter_between(scatter, *sharp.near, sharp.far.value_or(std::numeric_limits<double>::infinity()));
}

}  // namespace

double speed_of(const shoot::Freeze& freeze) {
    if (freeze.act == shoot::Act::sinks) return freeze.speed;
    if (freeze.act != shoot::Act::thrown) return light::fall_speed(freeze.drop);
    const auto way = trajectory_of(freeze);
    if (!way) return 0;
    constexpr double stands = 1e-6;  // mm/s: at the top of a straight throw, but for rounding
    const double speed = (freeze.undelayed ? way->lit : way->place).speed();
    return speed > stands ? speed : 0;
}

std::optional<FreezeReport> report_freeze(const Plan& plan, const Report& report) {
    if (!plan.shot.freeze) return std::nullopt;
    const shoot::Freeze& freeze = *plan.shot.freeze;
    const double m = std::max(plan.at.magnification, 0.0);
    FreezeReport result{.speed = speed_of(freeze)};
    result.light = slowest_flash(report.light);
    const double wanted = freeze.wanted_blur * optics::pixel_pitch(plan.sensor);
    if (result.speed > 0 && m > 0) result.slowest = wanted / (m * result.speed);
    if (result.light) {
        const auto& source = report.light.sources[*result.light];
        result.rows = rows_of(plan, source, *plan.sources[*result.light].flash, result.speed);
        const auto freezes =
            std::ranges::find_if(result.rows, [&](const FreezeRow& row) { return row.blur <= wanted * (1 + 1e-9); });
        if (freezes != result.rows.end())
            result.brightest_that_freezes = static_cast<std::size_t>(freezes - result.rows.begin());
    }
    result.blur =
        optics::motion_blur({.magnification = m, .speed = result.speed, .exposure = report.motion.exposure_time});
    if (freeze.trigger != shoot::Trigger::hand) result.delay = trigger_delay(freeze);
    if (freeze.trigger == shoot::Trigger::beam) result.least_beam = least_beam(freeze);
    result.path = report_trajectory(plan, report);
    if (freeze.second)
        result.second_after = light::second_drop_after(
            {.height = freeze.drop, .rise = freeze.second->rise, .column = freeze.second->column});
    if (freeze.repeating) {
        result.burst_time = light::burst_time(freeze.repeating->burst);
        result.burst_spacing = m * result.speed / freeze.repeating->burst.frequency;
    }
    result.landing_inside = landing_share(report.sharpness, freeze.scatter);
    return result;
}

shoot::Shot at_power(const shoot::Shot& shot, const FreezeReport& freeze, const FreezeRow& row, ExposedBy by) {
    shoot::Shot changed = shot;
    if (by == ExposedBy::aperture && row.f_number)
        changed.exposure.f_number = *row.f_number;
    else
        changed.exposure.iso = row.iso;
    const double factor = shot.exposure.iso / row.iso;  // row's power over the present one
    for (std::size_t i = 0; i < changed.lights.size(); ++i) {
        shoot::Light& light = changed.lights[i];
        if (!is_flash(light) || !light.power) continue;  // automatic ones find it themselves
        light.power = i == freeze.light ? row.power : *light.power * factor;
    }
    return changed;
}

}  // namespace poquito::plan
