#include "plan/assess.hpp"
#include "light/angle.hpp"

#include "optics/aperture.hpp"
#include "optics/motion.hpp"
#include "plan/light/lighting.hpp"
#include "plan/light/reflections.hpp"
#include "plan/motion/freeze.hpp"
#include "stack/making.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace poquito::plan {
namespace {

OpticsReport report_optics(const Plan& plan);
SharpnessReport report_sharpness(const Plan& plan);
CaptureReport report_capture(const Plan& plan, const LightReport& light);
void count_whole_frames(const Plan& plan, Report& report);
MotionReport report_motion(const Plan& plan, const LightReport& light);
TankReport report_tank(const Plan& plan, const Report& report);

using light::degree;

}  // namespace

Report assess(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms) {
    return assess(plan_of(kit, shot, terms));
}

Report assess(const Plan& plan, const shoot::Attitude& attitude) {
    shoot::Shot turned = plan.shot;
    turned.subject = shoot::faced(turned.subject, attitude);
    return assess(plan.kit, turned, plan.terms);
}

std::optional<double> stack_frames_at(const Plan& plan, double marked_f_number) {
    if (!frame_depth(plan, marked_f_number).depth) return std::nullopt;
    shoot::Shot stack = plan.shot;
    stack.capture.mode = shoot::CaptureMode::stack;
    stack.exposure.f_number = marked_f_number;
    return assess(plan_of(plan, stack)).capture.frames;
}

namespace {

/// mm that it sits over what it stands on: what lives or sways outdoors, of which nobody said where it stands, is on a
/// stem or a leaf (common practice).
double raised(const shoot::Shot& shot) {
    constexpr double small = 100, stem = 150;  // mm
    const auto& subject = shot.subject;
    const bool on_a_stem = shoot::has_trait(subject, "living") || subject.sway_amplitude > 0;
    return !shot.table && shoot::has_trait(subject, "outdoors") && on_a_stem && subject.height < small ? stem : 0;
}

}  // namespace

Report assess(const Plan& plan) {
    Report report;
    report.id = plan.shot.id;
    report.extent = plan.extent;
    report.optics = report_optics(plan);
    report.sharpness = report_sharpness(plan);
    report.light = report_light(plan);
    report.capture = report_capture(plan, report.light);
    count_whole_frames(plan, report);
    if (plan.zone) report.sharpness.zone_covered = covered(plan, report);
    report.motion = report_motion(plan, report.light);
    report.optics.table_behind = shoot::table_distance(plan.shot);
    if (report.optics.subject_to_sensor)
        report.optics.camera_height = raised(plan.shot) + plan.shot.subject.height / 2 +
                                      *report.optics.subject_to_sensor * std::sin(plan.shot.rig.inclination * degree);
    if (plan.shot.subject.tank) report.optics.tank = report_tank(plan, report);
    report.reflections = report_reflections(plan, report.light);
    report.freeze = report_freeze(plan, report);
    report.staging = report_staging(plan, report);
    report.camera_position = report_camera_position(plan, report);
    report.chance = report_chance(plan, report);
    return report;
}

namespace {

/// Which calibrations of the lens bear on this plan.
std::vector<gear::Measured> measured_parts(const Plan& plan) {
    std::vector<gear::Measured> parts;
    const auto position = gear::zoom_position(plan.lens, plan.shot.rig.focal_length);
    for (const gear::Calibration& calibration : plan.lens.calibrations)
        // A magnification holds where the zoom stood; the others are members of the record, whatever the zoom.
        if ((calibration.what != gear::Measured::magnification || calibration.focal_length == position) &&
            std::ranges::count(parts, calibration.what) == 0)
            parts.push_back(calibration.what);
    return parts;
}

/// The field at the background: from the entrance pupil as wide an angle as in the plane of focus (MODEL 9).
void report_field_behind(const Plan& plan, OpticsReport& report) {
    const auto& [m, n, a, g] = imaging_of(plan, plan.shot.exposure.f_number);
    if (!(g > 0)) return;
    const double pupil = a * n / (m * g), behind = background_behind_focus(plan);  // mm
    report.field_behind_width = *report.field_width * (1 + behind / pupil);
    report.field_behind_height = *report.field_height * (1 + behind / pupil);
}

OpticsReport report_optics(const Plan& plan) {
    const auto& at = plan.at;
    const double marked = plan.shot.exposure.f_number;
    OpticsReport report{.focal_length = at.focal_length,
                        .ring = at.ring,
                        .lens_magnification = at.lens_magnification,
                        .extended_magnification = at.extended_magnification,
                        .magnification = at.magnification,
                        .working_distance = at.working_distance,
                        .subject_to_sensor = at.subject_to_sensor,
                        .front = at.front + plan.hood,
                        .hood = plan.hood,
                        .working_f_number = working_f_number(plan, marked),
                        .exposure_loss = optics::exposure_loss(at, marked),
                        .reaches_infinity = optics::has_infinity(plan.train),
                        .reached = plan.found.reached,
                        .range = optics::magnification_range(plan.train)};
    report.displayed_f_number =
        plan.camera.aperture_display == gear::ApertureDisplay::working ? report.working_f_number : marked;
    if (at.magnification > 0) {
        report.field_width = plan.sensor.width / at.magnification;
        report.field_height = plan.sensor.height / at.magnification;
        if (plan.shot.background) report_field_behind(plan, report);
        report.fill = std::max(plan.extent.width / *report.field_width, plan.extent.height / *report.field_height);
    }
    if (at.working_distance && *at.working_distance > 0)
        report.shaded_half_angle = std::atan(front_diameter(plan) / 2 / *at.working_distance) / degree;
    const auto infinity = optics::focus_at_ring(plan.train, 0), closest = optics::focus_at_ring(plan.train, 1);
    report.at_infinity_ring = infinity.subject_to_sensor;
    report.at_infinity_magnification = infinity.magnification;
    report.at_closest_ring = closest.subject_to_sensor;
    report.at_closest_magnification = closest.magnification;
    report.measured = measured_parts(plan);
    report.fit = shoot::fit_of(plan.kit, plan.shot, at.front - plan.camera.flange);
    return report;
}

/// Of the subject outside its zone, where it lies farthest from the plane of focus.
double rest_blur(const Plan& plan, const optics::Imaging& imaging) {
    const double nearest = nearest_from_focus(plan);
    const auto disc = [&](double behind) { return optics::blur_disc(imaging, behind).value_or(0); };
    return std::max(plan.zone->from > 0 ? disc(nearest) : 0.0,
                    plan.zone->to < plan.extent.depth ? disc(nearest + plan.extent.depth) : 0.0);
}

SharpnessReport report_sharpness(const Plan& plan) {
    const auto& shot = plan.shot;
    const double wavelength = shot.sharpness.wavelength;
    SharpnessReport report;
    report.blur_limit = blur_limit(plan);
    report.focus = plan.focus;
    if (plan.zone) report.zone = plan.zone->length();
    report.airy_diameter = optics::airy_diameter(working_f_number(plan, shot.exposure.f_number), wavelength);
    const double m = plan.at.magnification;
    if (!(m > 0)) return report;

    const auto imaging = imaging_of(plan, shot.exposure.f_number);
    const auto depth = optics::depth_of_field(imaging, report.blur_limit);
    report.near = depth.near;
    report.far = depth.far;
    if (depth.near && depth.far) report.depth_of_field = *depth.near + *depth.far;
    const double wanted = wanted_sharp(plan).length();
    if (wanted > 0)
        report.best_single_f_number = optics::best_working_f_number(m, wanted, wavelength) / plan.working_factor;
    report.edge_blur = m * m * (wanted / 2 + std::abs(shot.sharpness.focus_offset)) / imaging.working_f_number;
    if (plan.zone) report.rest_blur = rest_blur(plan, imaging);
    if (shot.background) {
        const double behind = background_behind_focus(plan);
        report.background_disc = optics::blur_disc(imaging, behind);
        report.background_blur_over_detail = optics::blur_over_detail(imaging, behind, shot.background->detail);
    }
    if (report.background_disc) report.background_disc_share = *report.background_disc / plan.sensor.width;
    return report;
}

// ---- capture and motion ------------------------------------------------------------------------------------------

CaptureReport report_capture(const Plan& plan, const LightReport& light) {
    const auto& shot = plan.shot;
    const auto& capture = shot.capture;
    CaptureReport report;
    const auto depth = frame_depth(plan, shot.exposure.f_number);
    report.frame_depth = depth.depth;
    report.nothing_to_keep = depth.fell_back;
    auto& by_rule = report.by_rule;
    if (capture.mode == shoot::CaptureMode::stack && depth.depth) {
        const auto steps = optics::plan_steps(
            {.depth = span_of(plan).length(), .frame_depth = *depth.depth, .overlap = capture.overlap});
        by_rule.step = steps.step;
        by_rule.frames = steps.frames;
        auto made = make_stack(plan, {.step = steps.step, .frames = steps.frames, .frame_depth = *depth.depth});
        report.step = made.step;
        report.frames = made.frames;
        report.ring_travel = made.ring_travel;
        report.viewpoint_change = made.viewpoint_change;
        const double nearest = nearest_from_focus(plan);
        report.travel = optics::FocusTravel{.first = made.stack.first + nearest, .last = made.stack.last + nearest};
        report.stack = std::move(made.stack);
    }
    for (const auto& source : light.sources) report.recycle = std::max(report.recycle, source.recycle);
    const double shutter = shot.exposure.shutter;
    report.interval = std::max(capture.interval.value_or(cadence_of(plan).value_or(default_frame_interval)), shutter);
    // MODEL 5: frames wait for the slowest flash; an interval that was set and is longer rules instead.
    const double wait = std::max(report.recycle, capture.interval.value_or(0) - shutter);
    by_rule.duration = by_rule.frames * shutter + (by_rule.frames - 1) * wait;
    by_rule.data_mb = by_rule.frames * plan.camera.frame_mb;
    report.cost = cost_of(plan, report);
    report.data_mb = report.cost.exposures * plan.camera.frame_mb;
    report.paced_duration = report.cost.seconds;
    return report;
}

/// How long each flash lasts at the pace of a stack.
void count_whole_frames(const Plan& plan, Report& report) {
    const double frames = frames_in_a_row(report);
    if (frames < 2) return;
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        auto& source = report.light.sources[i];
        if (!source.fires || source.continuous) continue;
        const auto whole = light::whole_flashes(rapid_fire_of(plan, report, i));
        if (whole && *whole < frames) source.whole_frames = whole;
    }
}

TankReport report_tank(const Plan& plan, const Report& report) {
    const auto& tank = plan.shot.subject.tank->tank;
    TankReport made{.nearer = optics::path_shortened(tank)};
    if (report.optics.working_distance) {
        made.real_distance = *report.optics.working_distance + made.nearer;
        made.front_to_wall = *made.real_distance - tank.water - tank.wall;
    }
    if (report.sharpness.depth_of_field)
        made.depth_of_field = optics::depth_in_water(tank, *report.sharpness.depth_of_field);
    return made;
}

double hand_blur(const Plan& plan, double time) {
    const double m = std::max(plan.at.magnification, 0.0);
    const double image_distance = plan.at.focal_length * (1 + m);
    return (HandShake::turning * image_distance + HandShake::shifting * m) * time;
}

}  // namespace

double frames_in_a_row(const Report& report) {
    const auto* hand = report.capture.stack ? report.capture.stack->hand() : nullptr;
    return hand && report.capture.frames > 1 ? hand->burst_frames : report.capture.frames;
}

light::RapidFire rapid_fire_of(const Plan& plan, const Report& report, std::size_t light) {
    const auto& capture = plan.shot.capture;
    const bool by_hand = report.capture.stack && report.capture.stack->hand();
    const double pace = by_hand ? 1 / capture.hand.frames_per_second : report.capture.interval;
    const auto& flash = *plan.sources[light].flash;
    return {.power = report.light.sources[light].power * flashes_a_frame(plan.shot),
            .every = std::max(cadence_of(plan).value_or(pace), plan.shot.exposure.shutter),
            .recycle = flash.recycle_full,
            .store = flash.burst_store};
}

std::optional<double> covered(const Plan& plan, const Report& report) {
    if (!(plan.at.magnification > 0)) return std::nullopt;
    double first = -nearest_from_focus(plan), last = first;  // planes behind the nearest point
    double near = report.sharpness.near.value_or(0), far = 0;
    const auto& capture = report.capture;
    if (capture.stack) {
        const auto reach = frame_reach(plan, plan.at, plan.shot.exposure.f_number);
        first = capture.stack->first, last = capture.stack->last;
        if (!reach) return 1;
        near = reach->near, far = reach->far;
    } else {
        if (plan.shot.capture.mode == shoot::CaptureMode::stack && !capture.frame_depth) return 1;  // one holds it all
        if (!report.sharpness.near) return 1;
        far = report.sharpness.far.value_or(std::numeric_limits<double>::infinity());
    }
    const auto [from, to] = wanted_sharp(plan);
    const double begin = std::min(first, last) - near, end = std::max(first, last) + far;
    constexpr double rounding = 1e-9;  // mm
    if (to - from < rounding) return from >= begin - rounding && to <= end + rounding ? 1 : 0;
    return std::clamp((std::min(to, end) - std::max(from, begin)) / (to - from), 0.0, 1.0);
}

double wandering(const shoot::Subject& subject, double seconds) {
    const double swing =
        subject.sway_amplitude * 2 * std::sin(std::numbers::pi * std::min(subject.sway_frequency * seconds, 0.5));
    const bool stated = subject.speed > 0 || subject.sway_amplitude > 0;
    const bool alive = shoot::has_trait(subject, "living") || shoot::has_trait(subject, "person");
    return (!stated && alive ? restless : subject.speed) * seconds + swing;
}

Smear smear_over(const Plan& plan, double exposure_time) {
    const auto& subject = plan.shot.subject;
    const double m = std::max(plan.at.magnification, 0.0);
    return {.steady = optics::motion_blur({.magnification = m, .speed = subject.speed, .exposure = exposure_time}),
            .sway = optics::oscillation_blur({.magnification = m,
                                              .amplitude = subject.sway_amplitude,
                                              .frequency = subject.sway_frequency,
                                              .exposure = exposure_time}),
            .hands = plan.shot.rig.support == shoot::Support::hand ? hand_blur(plan, exposure_time) : 0};
}

namespace {

/// Of two pictures in one, that of the flash and that of what stays on, the brighter is the one that has to be sharp;
/// about as bright, both have (common practice).
double drawn_in_the_open(const LightReport& light) {
    if (!light.flash) return 1;
    if (!light.continuous) return 0;
    const double open = std::exp2(4 * (*light.continuous - *light.flash));
    return std::isfinite(open) ? open / (1 + open) : 1;
}

MotionReport report_motion(const Plan& plan, const LightReport& light) {
    const auto& subject = plan.shot.subject;
    MotionReport report{.exposure_time = plan.shot.exposure.shutter};
    const auto fires = [](const SourceReport& source) { return !source.continuous && source.stops; };
    const bool any_flash = std::ranges::any_of(light.sources, fires);
    const bool ambient_counts =
        light.continuous && light.front_total && *light.continuous > *light.front_total - flash_makes_exposure;
    const bool durations_known =
        std::ranges::all_of(light.sources, [&](const auto& source) { return !fires(source) || source.t01; });
    if (any_flash && durations_known) {
        double longest = 0;
        for (const auto& source : light.sources)
            if (fires(source)) longest = std::max(longest, *source.t01);
        report.flash_time = std::min(longest, report.exposure_time);
        report.open_share = drawn_in_the_open(light);
    }
    if (report.flash_time && !ambient_counts) {
        report.exposure_time = *report.flash_time;
        report.frozen_by_flash = true;
    }
    const double m = std::max(plan.at.magnification, 0.0);
    const auto smear = smear_over(plan, report.exposure_time);
    report.blur = smear.steady, report.sway_blur = smear.sway, report.hand_blur = smear.hands;
    report.sharp_share = sharp_share(plan, report);
    if (any_flash && light.continuous && light.front_total) {
        report.ghost_blur = std::max(
            optics::motion_blur({.magnification = m, .speed = subject.speed, .exposure = plan.shot.exposure.shutter}),
            optics::oscillation_blur({.magnification = m,
                                      .amplitude = subject.sway_amplitude,
                                      .frequency = subject.sway_frequency,
                                      .exposure = plan.shot.exposure.shutter}));
        if (report.ghost_blur > 0) report.ghost_share = std::exp2(*light.continuous - *light.front_total);
    }
    return report;
}

}  // namespace
}  // namespace poquito::plan
