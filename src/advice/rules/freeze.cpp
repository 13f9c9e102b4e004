#include "plan/motion/freeze.hpp"
#include "advice/rules/rules.hpp"
#include "plan/motion/trajectory.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

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

/// Of a throw: the beam belongs earlier on its path.
Found throw_late(const plan::Plan& plan, const plan::Report& report) {
    const auto& freeze = *plan.shot.freeze;
    const auto path = plan::trajectory_of(freeze);
    const double latest = path->wanted_after - freeze.lag;
    if (latest <= 0)
        return Finding{
            "Camera and trigger are slower than the whole path: throw it higher, or have the shutter open in the dark "
            "and let the beam fire the flash alone."};
    const double rise = std::floor(report.freeze->least_beam);
    const bool coming_down = latest > light::top_time(path->toss) && rise > 0;
    return Finding{fmt::format("The light comes {} late: the beam must cross its path {} over the hand or earlier.",
                               text::shutter_text(-*report.freeze->delay), text::length_text(rise)),
                   remedy(plan, fmt::format("Beam {} over the hand", text::length_text(rise)), [&](shoot::Shot& shot) {
                       shot.freeze->beam_rise = rise;
                       shot.freeze->beam_coming_down = coming_down;
                       shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
                   })};
}

/// What is thrown has to come to the place, and to the beam.
Found throw_short(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || plan.shot.freeze->act != shoot::Act::thrown) return {};
    const auto& freeze = *plan.shot.freeze;
    const auto path = plan::trajectory_of(freeze);
    const auto rises = [&](double height, const char* what) {
        const auto speed = light::speed_to_rise(height * 1.05, shoot::angle_of(freeze));  // and a little over it
        Finding found{
            fmt::format("Thrown so it never comes to {}, {} over the hand.", what, text::length_text(height))};
        if (speed)
            found.remedy = remedy(plan, fmt::format("Throw at {} m/s", text::number_text(*speed / 1000, 2)),
                                  [&](shoot::Shot& shot) {
                                      shot.freeze->speed = std::ceil(*speed);
                                      shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
                                  });
        return found;
    };
    if (!path) return rises(-freeze.drop, "the place");
    if (freeze.trigger == shoot::Trigger::beam && !path->beam_after)
        return rises(plan::beam_rise_of(freeze), "the beam");
    return {};
}

/// The light comes, and it is somewhere else.
Found out_of_frame(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || !report.freeze->path) return {};
    const auto& path = *report.freeze->path;
    const double half_width = *report.optics.field_width / 2, half_height = *report.optics.field_height / 2;
    if (std::abs(path.off_x) <= half_width && std::abs(path.off_y) <= half_height) return {};
    if (report.freeze->delay.value_or(0) < 0) return {};  // which says it
    return Finding{fmt::format("As the light comes it is {} from where the camera looks: out of the frame.",
                               text::length_text(std::hypot(path.off_x, path.off_y))),
                   remedy(plan, "Delay it to the place", [](shoot::Shot& shot) {
                       shot.freeze->undelayed = false;
                       shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
                   })};
}

/// Without a delay, and near enough: why that can do.
Found no_delay_serves(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || !report.freeze->path || !plan.shot.freeze->undelayed) return {};
    if (plan.shot.freeze->trigger != shoot::Trigger::beam) return {};
    const auto& path = *report.freeze->path;
    const double half_width = *report.optics.field_width / 2, half_height = *report.optics.field_height / 2;
    if (std::abs(path.off_x) > half_width || std::abs(path.off_y) > half_height) return {};
    const double off = std::hypot(path.off_x, path.off_y);
    return Finding{fmt::format(
        "Without a delay the light comes {} {} the place, {} from it and in the frame: that can do. "
        "What is between beam and light is lag alone, so that no two throws need another setting.",
        text::shutter_text(std::abs(path.lit_after - path.wanted_after)),
        path.lit_after < path.wanted_after ? "before it is at" : "after it was at", text::length_text(off))};
}

/// It is in the frame, but not all of it.
Found no_headroom(const plan::Plan& plan, const plan::Report& report) {
    if (!report.freeze || !report.freeze->path || plan.shot.freeze->act != shoot::Act::thrown) return {};
    const auto& path = *report.freeze->path;
    const double half_height = *report.optics.field_height / 2;
    if (path.headroom >= 0 || std::abs(path.off_y) > half_height) return {};
    const double m = report.optics.magnification;
    const double needed = half_height - path.headroom;
    const double smaller = m * half_height / needed;
    return Finding{
        fmt::format("It is cut by the upper edge of the frame by {}.", text::length_text(-path.headroom)),
        remedy(plan, fmt::format("Smaller in the frame: {}", text::magnification_text(smaller)),
               [&](shoot::Shot& shot) { shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = smaller}; })};
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
    if (freeze.act == shoot::Act::thrown) return throw_late(plan, report);
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

/// What is held for a session was changed.
Found held_changed(const plan::Plan& plan, const plan::Report&) {
    if (!plan.shot.held) return {};
    const auto now = shoot::settings_of(plan.shot);
    const auto& held = *plan.shot.held;
    std::vector<std::string> changed;
    const auto was = [&](const char* name, const std::string& before, const std::string& after) {
        if (before != after) changed.push_back(fmt::format("{} {} in place of {}", name, after, before));
    };
    was("the stop is", text::f_number_text(held.exposure.f_number), text::f_number_text(now.exposure.f_number));
    was("the time is", text::shutter_text(held.exposure.shutter), text::shutter_text(now.exposure.shutter));
    was("ISO is", text::number_text(held.exposure.iso, 5), text::number_text(now.exposure.iso, 5));
    if (held.focus != now.focus) changed.emplace_back("the size or focus is another");
    if (held.lights != now.lights) changed.emplace_back("the lights are others");
    if (changed.empty()) return {};
    return Finding{fmt::format("Held for this session, and changed: {}. Frames before and after will not match.",
                               fmt::join(changed, "; ")),
                   remedy(plan, "Back to what is held", [](shoot::Shot& shot) { shoot::put_back(shot); })};
}

constexpr Rule freeze_rows[] = {
    {"held-changed", Station::run, Level::caution, Concern::plan, held_changed},
    {"burst-cut-off", Station::light, Level::stop, Concern::plan, burst_cut_off},
    {"throw-short", Station::light, Level::stop, Concern::plan, throw_short},
    {"out-of-frame", Station::light, Level::caution, Concern::plan, out_of_frame},
    {"no-delay-serves", Station::light, Level::info, Concern::plan, no_delay_serves},
    {"no-headroom", Station::light, Level::caution, Concern::plan, no_headroom},
    {"trigger-late", Station::light, Level::caution, Concern::plan, trigger_late},
    {"freeze-speed", Station::light, Level::caution, Concern::statement, freeze_speed},
    {"landing-out-of-focus", Station::light, Level::caution, Concern::plan, landing_out_of_focus},
};

}  // namespace

std::span<const Rule> freeze_rules() { return freeze_rows; }

}  // namespace poquito::advice
