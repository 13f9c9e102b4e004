#include "plan/plan.hpp"

#include "optics/aperture.hpp"
#include "plan/stack/stack_plan.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

Source source_of(const gear::Kit& kit, const shoot::Light& light) {
    return {.set = light,
            .flash = light.lamp || light.reflector ? nullptr : &shoot::flash_of(kit, light),
            .lamp = light.lamp && !light.reflector ? &shoot::lamp_of(kit, light) : nullptr,
            .modifier = shoot::modifier_of(kit, light)};
}

Plan plan_of(const Plan& plan, const shoot::Shot& changed) { return plan_of(plan.kit, changed, plan.terms); }

Plan plan_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms) {
    Plan plan{.kit = kit,
              .shot = shot,
              .camera = shoot::camera_of(kit, shot),
              .lens = shoot::lens_of(kit, shot),
              .sensor = shoot::sensor_of(kit, shot.rig),
              .rail = shot.rig.rail ? gear::find_gear(kit.rails, *shot.rig.rail) : nullptr,
              .front_lens = shot.rig.front_lens ? gear::find_gear(kit.lenses, shot.rig.front_lens->lens) : nullptr,
              .train = shoot::train_of(kit, shot.rig),
              .found = {},
              .at = {},
              .extent = {}};
    const auto& focus = shot.rig.focus;
    plan.found = focus.by == shoot::FocusBy::magnification ? optics::find_focus(plan.train, focus.value)
                                                           : optics::FoundFocus{.ring = focus.value, .reached = true};
    plan.at = optics::focus_at_ring(plan.train, plan.found.ring);
    plan.extent = shoot::presented_extent(shot.subject);
    // Set no closer than a ring can be (common practice).
    constexpr double close_enough = 0.01;
    if (!plan.found.reached && std::abs(plan.at.magnification - focus.value) <= close_enough * focus.value)
        plan.found.reached = true;
    if (const auto& slice = shot.capture.slice) {
        const double from = std::min(slice->from, plan.extent.depth);
        plan.zone = Zone{.from = from, .to = std::clamp(slice->to, from, plan.extent.depth)};
        plan.focus = (from + plan.zone->to - plan.extent.depth) / 2;
    }
    plan.focus += shot.sharpness.focus_offset;
    plan.terms.limits = shot.limits ? shoot::overlaid(*shot.limits, terms.limits) : terms.limits;
    plan.terms.wishes = shoot::overlaid(shot.wishes, terms.wishes);
    if (const auto& ceiling = plan.camera.iso_max)
        plan.terms.limits.iso = std::min(*ceiling, plan.terms.limits.iso.value_or(*ceiling));
    plan.working_factor = optics::working_factor(plan.at);
    if (!shot.rig.hood_off && !shot.rig.reversing_ring && !shot.rig.front_lens) {
        plan.hood = plan.lens.hood_length.value_or(0);
        if (plan.at.working_distance) *plan.at.working_distance -= plan.hood;
    }
    for (const auto& id : shot.rig.filters)
        if (const auto* filter = gear::find_gear(kit.filters, id)) plan.filters += filter->loss;
    plan.sources.reserve(shot.lights.size());
    for (const auto& light : shot.lights) plan.sources.push_back(source_of(kit, light));
    return plan;
}

double working_f_number(const Plan& plan, double marked_f_number) {
    return optics::working_f_number(plan.at, marked_f_number);
}

std::optional<double> pupil_distance(const Plan& plan) {
    if (!plan.at.working_distance) return std::nullopt;
    return *plan.at.working_distance + optics::entrance_pupil(plan.at, plan.shot.exposure.f_number).behind_front;
}

optics::Imaging imaging_of(const Plan& plan, double marked_f_number) {
    return optics::imaging_at(plan.at, marked_f_number);
}

double front_diameter(const Plan& plan) {
    constexpr double mount = 60;  // mm, outer diameter of the mount end of an interchangeable lens (common practice)
    const auto& rig = plan.shot.rig;
    if (!rig.reversing_ring && !rig.front_lens) return plan.lens.optics.front_diameter;
    return std::min(mount, (plan.front_lens ? plan.front_lens : &plan.lens)->optics.front_diameter);
}

double blur_limit(const Plan& plan) { return blur_limit(plan.sensor, plan.shot.sharpness); }

double blur_limit(const optics::Sensor& sensor, const shoot::Sharpness& sharpness) {
    switch (sharpness.rule) {
        case shoot::BlurRule::diagonal:
            return optics::diagonal_blur_limit(sensor);
        case shoot::BlurRule::output:
            return sharpness.output.kind == shoot::OutputKind::print
                       ? optics::print_blur_limit(sensor, sharpness.output.print)
                       : optics::delivery_blur_limit(sensor, sharpness.output.delivery);
        case shoot::BlurRule::stated:
            if (sharpness.stated) return *sharpness.stated;
            [[fallthrough]];  // storage and edit ask for the value; a pixel pair is what everyone starts from
        case shoot::BlurRule::pixel:
            break;
    }
    return optics::pixel_blur_limit(sensor, sharpness.pixels);
}

Zone wanted_sharp(const Plan& plan) { return plan.zone.value_or(Zone{.from = 0, .to = plan.extent.depth}); }

double background_behind_focus(const Plan& plan) {
    return std::max(0.0, shoot::background_distance(plan.shot) - plan.focus);
}

std::optional<FrameReach> frame_reach(const Plan& plan, const optics::FocusedTrain& at, double marked_f_number) {
    if (!(at.magnification > 0)) return std::nullopt;
    const auto imaging = optics::imaging_at(at, marked_f_number);
    const auto& capture = plan.shot.capture;
    const double wavelength = plan.shot.sharpness.wavelength;
    if (capture.depth_rule == shoot::DepthRule::blur) {
        const auto depth = optics::depth_of_field(imaging, blur_limit(plan));
        if (!depth.near || !depth.far) return std::nullopt;
        return FrameReach{.near = *depth.near, .far = *depth.far};
    }
    std::optional<double> both;
    if (capture.depth_rule == shoot::DepthRule::contrast)
        both = optics::contrast_depth(
            imaging, {.blur_limit = blur_limit(plan), .kept = capture.contrast_kept, .wavelength = wavelength});
    const double half = both.value_or(optics::quarter_wave_depth(imaging, wavelength)) / 2;
    return FrameReach{
        .near = half, .far = half, .fell_back = capture.depth_rule == shoot::DepthRule::contrast && !both};
}

FrameDepth frame_depth(const Plan& plan, double marked_f_number) {
    const auto reach = frame_reach(plan, plan.at, marked_f_number);
    if (!reach) return {};
    return {.depth = reach->near + reach->far, .fell_back = reach->fell_back};
}

light::Settings settings_of(const Plan& plan) {
    const auto& exposure = plan.shot.exposure;
    return {.working_f_number = working_f_number(plan, exposure.f_number),
            .shutter = exposure.shutter,
            .iso = exposure.iso,
            .loss = plan.filters};
}

}  // namespace poquito::plan
