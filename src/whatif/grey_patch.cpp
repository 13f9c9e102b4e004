#include "whatif/grey_patch.hpp"

#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be
namespace {

/// Every automatic flash at a setting of its unit.
shoot::Shot as_dialled(const Plan& plan) {
    shoot::Shot dialled = plan.shot;
    const LightReport light = report_light(plan);
    for (std::size_t i = 0; i < dialled.lights.size(); ++i)
        if (shares_exposure(dialled.lights[i]) && !dialled.lights[i].metered && light.sources[i].suggested_power)
            dialled.lights[i].power = *light.sources[i].suggested_power;
    return dialled;
}

Fix by_power(const Plan& plan, double stops);
Fix by_distance(const Plan& plan, double stops);
Fix by_stop(const Plan& plan, double stops);
Fix by_iso(const Plan& plan, double stops);

}  // namespace

std::optional<double> stops_from_correct(const PatchReading& reading, double reflectance) {
    if (!(reading.mean > 0)) return std::nullopt;
    return std::log2(reading.mean / reflectance);
}

std::optional<double> predicted_stops(const Plan& plan) {
    const shoot::Shot dialled = as_dialled(plan);
    return report_light(plan_of(plan, dialled)).front_total;
}

std::vector<Fix> fixes(const Plan& plan, double stops) {
    std::vector<Fix> all = {by_power(plan, stops), by_distance(plan, stops), by_stop(plan, stops), by_iso(plan, stops)};
    std::stable_partition(all.begin(), all.end(),
                          [&](const Fix& fix) { return fix.lever == plan.shot.exposure.lever; });
    return all;
}

namespace {

/// What the lights that a lever moves must change by, in stops, so that all light together changes by `wanted`; empty:
/// the others alone are too much.
std::optional<double> change_of_part(double part, double rest, double wanted) {
    const double needed = (part + rest) * std::exp2(wanted) - rest;
    if (!(part > 0) || !(needed > 0)) return std::nullopt;
    return std::log2(needed / part);
}

struct Parts {
    double flashes = 0, rest = 0;
};
Parts parts_of(const LightReport& light) {
    Parts parts;
    if (light.flash) parts.flashes = std::exp2(*light.flash);
    if (light.continuous) parts.rest = std::exp2(*light.continuous);
    return parts;
}

double total_of(const Plan& plan) { return report_light(plan).front_total.value_or(-100); }

/// What the changed shot still misses by, if the frame's difference from the plan stays.
double missed(const Plan& plan, const shoot::Shot& before, const shoot::Shot& after, double stops) {
    return stops + total_of(plan_of(plan, after)) - total_of(plan_of(plan, before));
}

Fix by_power(const Plan& plan, double stops) {
    const shoot::Shot before = as_dialled(plan);
    Fix fix{.lever = shoot::Lever::power, .label = "Power", .shot = before};
    const auto [flashes, rest] = parts_of(report_light(plan_of(plan, before)));
    const auto change = change_of_part(flashes, rest, -stops);
    if (!change) {
        fix.label = flashes > 0 ? "Power: the light that stays on is too much alone" : "Power: no flash fires";
        return fix;
    }
    std::string settings;
    for (shoot::Light& light : fix.shot.lights) {
        if (!is_flash(light) || !light.power) continue;
        const Source source = source_of(plan.kit, light);
        light.power = light::nearest_setting(source.flash->scale, *light.power * std::exp2(*change));
        const auto setting = setting_text(source, *light.power);
        if (settings.find(setting) == std::string::npos) settings += (settings.empty() ? "" : ", ") + setting;
    }
    if (settings.empty()) {  // metered by the camera: its compensation is the power's dial
        for (shoot::Light& light : fix.shot.lights)
            if (light.metered) {
                *light.metered += *change;
                settings = text::stops_text(*light.metered) + " compensation";
            }
    }
    fix.label = "Power to " + settings;
    fix.left_over = missed(plan, before, fix.shot, stops);
    return fix;
}

Fix by_distance(const Plan& plan, double stops) {
    const shoot::Shot before = as_dialled(plan);
    Fix fix{.lever = shoot::Lever::distance, .label = "Distance", .shot = before};
    const LightReport light = report_light(plan_of(plan, before));
    if (!light.key || before.lights[*light.key].on_lens) {
        fix.label = light.key ? "Distance: the light hangs on the lens" : "Distance: no light to move";
        return fix;
    }
    const std::size_t key = *light.key;
    const double own = *light.sources[key].share * std::exp2(*light.front_total), all = std::exp2(*light.front_total);
    const auto change = change_of_part(own, all - own, -stops);
    if (!change) {
        fix.label = "Distance: the other light is too much alone";
        return fix;
    }
    // d^2 + (w/2)^2 shrinks by 2^change, bounce and face counted.
    const Plan dialled = plan_of(plan, before);
    const shoot::Light& moved = before.lights[key];
    const Source& source = dialled.sources[key];
    const double face = source.is_reflector() ? source.set.reflector->diameter
                        : source.is_flash()   ? flash_path(dialled, source).modifier_diameter
                                              : lamp_path(dialled, source).source_diameter;
    const double bounced = moved.bounce ? moved.bounce->from_lamp : 0;
    const double squared =
        (std::pow(light.sources[key].path, 2) + face * face / 4) * std::exp2(-*change) - face * face / 4;
    const double least = 5 + bounced;
    const double distance = std::round(std::sqrt(std::max(squared, least * least)) - bounced);
    fix.shot.lights[key].position.distance = distance;
    fix.label = fmt::format("Light {} to {}", light.sources[key].label, text::length_text(distance));
    fix.left_over = missed(plan, before, fix.shot, stops);
    return fix;
}

Fix by_stop(const Plan& plan, double stops) {
    const shoot::Shot before = as_dialled(plan);
    Fix fix{.lever = shoot::Lever::stop, .label = "Stop", .shot = before};
    const auto& lens = plan.lens.optics;
    fix.shot.exposure.f_number = std::clamp(text::nearest_f_number(before.exposure.f_number * std::exp2(stops / 2)),
                                            lens.max_aperture, lens.min_aperture);
    fix.label = "Stop to " + text::f_number_text(fix.shot.exposure.f_number);
    fix.left_over = missed(plan, before, fix.shot, stops);
    return fix;
}

Fix by_iso(const Plan& plan, double stops) {
    const shoot::Shot before = as_dialled(plan);
    Fix fix{.lever = shoot::Lever::iso, .label = "ISO", .shot = before};
    fix.shot.exposure.iso = text::nearest_iso(before.exposure.iso * std::exp2(-stops));
    fix.label = fmt::format("ISO to {}", text::number_text(fix.shot.exposure.iso, 6));
    fix.left_over = missed(plan, before, fix.shot, stops);
    return fix;
}

std::vector<light::Correction>* corrections_of(gear::Kit& kit, const shoot::Shot& shot, const Lesson& lesson) {
    if (lesson.kept_in == KeptIn::camera) {
        const auto camera = std::ranges::find(kit.cameras, shot.rig.camera, &gear::Camera::id);
        return camera == kit.cameras.end() ? nullptr : &camera->metered_corrections;
    }
    if (lesson.light >= shot.lights.size()) return nullptr;
    const shoot::Light& light = shot.lights[lesson.light];
    const KeptIn kept_in = lesson.kept_in;
    if (is_flash(light) && light.metered && !light.power && kept_in == KeptIn::unit) {
        const auto unit = std::ranges::find(kit.flashes, light.flash, &gear::Flash::id);
        return unit == kit.flashes.end() ? nullptr : &unit->metered_corrections;
    }
    const auto in = [](auto& list, const std::string& id) -> std::vector<light::Correction>* {
        const auto found = std::ranges::find_if(list, [&](const auto& gear) { return gear.id == id; });
        return found == list.end() ? nullptr : &found->corrections;
    };
    if (kept_in == KeptIn::modifier) return light.modifier ? in(kit.modifiers, *light.modifier) : nullptr;
    if (is_reflector(light)) return nullptr;
    return is_flash(light) ? in(kit.flashes, light.flash) : in(kit.lamps, *light.lamp);
}

}  // namespace

std::optional<double> learned(const Plan& plan, const Lesson& lesson) {
    const shoot::Shot before = as_dialled(plan);
    if (lesson.kept_in != KeptIn::camera && lesson.light >= before.lights.size()) return std::nullopt;
    const LightReport light = report_light(plan_of(plan, before));
    if (lesson.kept_in == KeptIn::camera) {
        if (!light.automatic) return std::nullopt;
        return lesson.frame_stops - light.automatic->advised - light.automatic->error;
    }
    const auto& source = light.sources[lesson.light];
    const shoot::Light& own = before.lights[lesson.light];
    if (!source.share || !light.front_total || !(own.power || own.metered)) return std::nullopt;
    const bool metered = own.metered && source.metering;  // tells of the meter, not of the guide number
    if (metered && lesson.kept_in == KeptIn::modifier) return std::nullopt;
    if (lesson.kept_in == KeptIn::modifier && !own.modifier) return std::nullopt;
    return light::explains({.own = std::log2(*source.share) + *light.front_total,
                            .others = std::exp2(*light.front_total) * (1 - *source.share),
                            .already = metered ? source.metering->expected - source.metering->error
                                       : lesson.kept_in == KeptIn::unit ? source.calibration.stops
                                                                        : source.modifier_calibration.stops,
                            .frame_brighter = lesson.frame_stops - *light.front_total});
}

gear::Kit taught(const Plan& plan, const Lesson& lesson) {
    gear::Kit changed = plan.kit;
    const auto correction = learned(plan, lesson);
    auto* list = correction ? corrections_of(changed, plan.shot, lesson) : nullptr;
    if (list) list->push_back({.stops = *correction, .time = lesson.time});
    return changed;
}

std::optional<double> reading_of(const Plan& plan, std::size_t light) {
    const shoot::Shot& shot = plan.shot;
    if (light >= shot.lights.size() || !is_lamp(shot.lights[light])) return std::nullopt;
    const double ratio = light_at(plan, plan.sources[light], *shot.lights[light].power, 0);
    if (!(ratio > 0)) return std::nullopt;
    return std::log2(ratio) - light::ambient_stops(settings_of(plan), 0);
}

gear::Kit taught_by_reading(const Plan& plan, std::size_t light, double ev100, const std::string& time) {
    gear::Kit changed = plan.kit;
    auto* list = corrections_of(changed, plan.shot, {.light = light});
    const auto now = reading_of(plan, light);
    if (list && now) *list = {{.stops = light::calibrated(*list).stops + ev100 - *now, .time = time}};
    return changed;
}

gear::Kit untaught(const gear::Kit& kit, const shoot::Shot& shot, const Lesson& lesson) {
    gear::Kit changed = kit;
    if (auto* list = corrections_of(changed, shot, lesson)) list->clear();
    return changed;
}

}  // namespace poquito::whatif
