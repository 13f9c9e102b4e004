#include "plan/motion/trajectory.hpp"

#include "light/fall.hpp"
#include "optics/chance.hpp"
#include "optics/motion.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {
namespace {

light::Toss toss_of(const shoot::Freeze& freeze) {
    if (freeze.act != shoot::Act::thrown) return {};
    return {.speed = freeze.speed, .angle = shoot::angle_of(freeze)};
}

std::optional<double> wanted_after(const shoot::Freeze& freeze, const light::Toss& toss) {
    if (freeze.act == shoot::Act::sinks)
        return freeze.speed > 0 ? std::optional(freeze.drop / freeze.speed) : std::nullopt;
    if (freeze.act != shoot::Act::thrown) return light::fall_time(freeze.drop);
    switch (freeze.moment) {
        case shoot::Moment::top:
            return light::top_time(toss);
        case shoot::Moment::coming_down:
            return light::passes(toss, -freeze.drop).falling;
        case shoot::Moment::place:
            break;
    }
    return light::passes(toss, -freeze.drop).first();
}

std::optional<double> beam_after(const shoot::Freeze& freeze, const light::Toss& toss) {
    if (freeze.trigger != shoot::Trigger::beam) return std::nullopt;
    if (freeze.act == shoot::Act::sinks) return -beam_rise_of(freeze) / freeze.speed;
    const auto passes = light::passes(toss, beam_rise_of(freeze));
    return freeze.beam_coming_down ? passes.falling : passes.first();
}

/// Share of the time it is in the frame during which it is slow enough for the flash.
double frozen_share(const Plan& plan, const Report& report, const Trajectory& path, double wanted_blur) {
    constexpr int parts = 400;
    const double half_width = *report.optics.field_width / 2, half_height = *report.optics.field_height / 2;
    const double from = path.wanted_after, reach = half_width + half_height;
    // As long about the moment as the slowest thing could need to leave the frame.
    const double time = path.sinking ? 2 * reach / *path.sinking : std::min(light::fall_time(2 * reach), 1.0);
    int inside = 0, frozen = 0;
    for (int i = -parts; i <= parts; ++i) {
        const double t = from + time * i / parts;
        if (t < 0) continue;
        const auto at = path.point(t);
        if (std::abs(at.x - path.place.x) > half_width || std::abs(at.y - path.place.y) > half_height) continue;
        ++inside;
        frozen += optics::motion_blur({.magnification = std::max(0.0, plan.at.magnification),
                                       .speed = at.speed(),
                                       .exposure = report.motion.exposure_time}) <= wanted_blur * (1 + 1e-9);
    }
    return inside == 0 ? 0 : static_cast<double>(frozen) / inside;
}

}  // namespace

light::TrajectoryPoint Trajectory::point(double time) const {
    if (sinking) return {.x = 0, .y = -*sinking * time, .across = 0, .up = -*sinking};
    return light::point_at(toss, time);
}

double beam_rise_of(const shoot::Freeze& freeze) {
    if (freeze.act != shoot::Act::thrown) return std::min(freeze.beam_above, freeze.drop) - freeze.drop;
    if (freeze.beam_rise) return *freeze.beam_rise;
    const double place = freeze.moment == shoot::Moment::top ? light::top_height(toss_of(freeze)) : -freeze.drop;
    return place / 2;
}

std::optional<Trajectory> trajectory_of(const shoot::Freeze& freeze) {
    Trajectory path{.toss = toss_of(freeze)};
    const auto wanted = wanted_after(freeze, path.toss);
    if (!wanted) return std::nullopt;
    path.wanted_after = path.lit_after = *wanted;
    path.beam_after = beam_after(freeze, path.toss);
    if (freeze.trigger == shoot::Trigger::sound)
        path.lit_after += freeze.lag + freeze.sound_distance / light::speed_of_sound;
    if (path.beam_after) {
        const double soonest = *path.beam_after + freeze.lag;
        path.lit_after = freeze.undelayed ? soonest : std::max(soonest, *wanted);
    }
    if (freeze.act == shoot::Act::sinks) path.sinking = freeze.speed;
    path.place = path.point(path.wanted_after);
    // What falls and is heard lies where it fell.
    const bool lies = freeze.act != shoot::Act::thrown && freeze.trigger == shoot::Trigger::sound;
    path.lit = lies ? path.place : path.point(path.lit_after);
    return path;
}

std::optional<double> trigger_delay(const shoot::Freeze& freeze) {
    if (freeze.trigger == shoot::Trigger::sound) return -(freeze.lag + freeze.sound_distance / light::speed_of_sound);
    const auto path = trajectory_of(freeze);
    if (!path || !path->beam_after) return std::nullopt;
    if (freeze.undelayed) return 0;
    return path->wanted_after - *path->beam_after - freeze.lag;
}

double least_beam(const shoot::Freeze& freeze) {
    const auto path = trajectory_of(freeze);
    if (!path) return 0;
    const double latest = path->point(std::max(0.0, path->wanted_after - freeze.lag)).y;
    return freeze.act == shoot::Act::thrown ? latest : latest - path->place.y;
}

std::optional<TrajectoryReport> report_trajectory(const Plan& plan, const Report& report) {
    const auto& freeze = *plan.shot.freeze;
    const auto path = trajectory_of(freeze);
    const auto& optics = report.optics;
    if (!path || !optics.field_width || !optics.field_height) return std::nullopt;
    TrajectoryReport made{.top = light::top_height(path->toss),
                          .top_after = light::top_time(path->toss),
                          .beam_after = path->beam_after.value_or(0),
                          .wanted_after = path->wanted_after,
                          .lit_after = path->lit_after,
                          .x = path->place.x,
                          .y = path->place.y,
                          .off_x = path->lit.x - path->place.x,
                          .off_y = path->lit.y - path->place.y};
    const double half_height = *optics.field_height / 2, half_width = *optics.field_width / 2;
    constexpr double both_sides = 2;  // standard deviations that hold nineteen of twenty
    const double cloud = freeze.pieces > 1 ? both_sides * freeze.spread : 0;
    made.headroom = half_height - made.off_y - std::max(cloud, report.extent.height / 2);
    made.freezes = frozen_share(plan, report, *path, freeze.wanted_blur * optics::pixel_pitch(plan.sensor));
    const double aside = shoot::aside_of(plan.shot);
    const double spread = freeze.pieces > 1 ? freeze.spread : 0;
    made.inside = optics::scatter_between(spread, half_width - made.off_x, half_width + made.off_x) *
                  optics::scatter_between(spread, half_height - made.off_y, half_height + made.off_y);
    if (report.sharpness.near && report.sharpness.far)
        made.inside *=
            optics::scatter_between(std::hypot(spread, freeze.scatter), *report.sharpness.near, *report.sharpness.far);
    const double under = path->place.y - half_height;
    const auto down = path->sinking ? std::nullopt : light::passes(path->toss, under).falling;
    made.catcher_x = down ? path->point(*down).x : path->place.x;
    made.catcher_width = 2 * both_sides * std::hypot(aside, spread) + report.extent.width;
    made.catcher_depth = 2 * both_sides * std::hypot(freeze.scatter, spread) + report.extent.depth;
    return made;
}

}  // namespace poquito::plan
