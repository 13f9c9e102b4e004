#include "plan/light/ambient.hpp"
#include "light/angle.hpp"

#include "light/direction.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {
namespace {

using light::degree;

/// A sky seen under more than this is no disc any more.
constexpr double widest_disc = 80;  // degrees

/// Degrees, half angle of the cone that lens and hood cover; empty: they stand behind the subject.
std::optional<double> covered_cone(const Plan& plan) {
    const auto& way = plan.at.working_distance;
    if (!way || !(*way > 0)) return std::nullopt;
    return std::atan(front_diameter(plan) / 2 / *way) / degree;
}

}  // namespace

std::optional<AmbientSource> ambient_source(const shoot::Ambient& ambient) {
    if (ambient.kind == shoot::AmbientKind::even) return std::nullopt;
    AmbientSource source{.place = ambient.position, .size = ambient.size};
    if (ambient.distance) source.place.distance = *ambient.distance;
    if (ambient.panel) {
        source.place.distance = ambient.panel->distance;
        source.size = light::angle_of(ambient.panel->width, ambient.panel->distance);
    }
    return source;
}

std::optional<double> ambient_at_subject(const Plan& plan) {
    const auto& ambient = plan.shot.ambient;
    if (!ambient) return std::nullopt;
    return light::ambient_stops(settings_of(plan), ambient->ev100) - (ambient->panel ? ambient->panel->loss : 0);
}

std::optional<double> shaded_by_lens(const Plan& plan) {
    const auto cone = covered_cone(plan);
    if (!cone || !plan.shot.ambient) return 0;
    const auto source = ambient_source(*plan.shot.ambient);
    const bool wide_sky = plan.shot.ambient->kind == shoot::AmbientKind::sky && !plan.shot.ambient->panel;
    if (!source || (wide_sky && source->size > widest_disc)) return light::even_light_shaded(*cone);
    const double off_axis = std::acos(std::clamp(light::towards_camera(source->place), -1.0, 1.0)) / degree;
    const double covered = light::covered_share({.off_axis = off_axis, .half_angle = source->size / 2}, *cone);
    // What is all round comes past them: three stops at most (common practice).
    constexpr double most = 1.0 / 8;
    return std::log2(std::max(1 - covered, most));
}

double ambient_falloff(const Plan& plan, double behind) {
    if (!plan.shot.ambient || !(plan.shot.ambient->distance || plan.shot.ambient->panel)) return 1;
    const auto source = ambient_source(*plan.shot.ambient);
    if (!source || source->size >= 180) return 1;
    const double d = source->place.distance, radius = light::width_of(source->size, d) / 2;
    const double along = d * light::towards_camera(source->place);
    const double squared = std::max(0.0, d * d + behind * behind + 2 * behind * along);
    return (d * d + radius * radius) / (squared + radius * radius);
}

double ambient_at_background(const Plan& plan) {
    const double distance = shoot::background_distance(plan.shot);
    const double near_it = ambient_falloff(plan, distance);
    const auto& ambient = plan.shot.ambient;
    if (!ambient || !ambient->panel) return near_it;
    // A sheet's shadow is as wide as it; half a width farther on it is left behind.
    const auto& panel = *ambient->panel;
    const double clear = std::clamp((distance - panel.width / 2) / (panel.width / 2), 0.0, 1.0);
    return (1 - clear) * near_it + clear * std::exp2(panel.loss);
}

const std::vector<Room>& rooms() {
    static const std::vector<Room> all = {
        {"small white room", 0.3}, {"light room", 0.15}, {"dark or large room", 0.06}, {"black studio", 0.02}};
    return all;
}

double room_share(const shoot::Ambient& ambient) {
    if (ambient.kind == shoot::AmbientKind::even) return ambient.room.value_or(1);
    // A light room by a window; in the open the ground and the rest of the sky (common practice).
    const double share = ambient.room.value_or(ambient.kind == shoot::AmbientKind::window ? 0.15 : 0.25);
    if (!ambient.panel) return share;
    // A panel takes from what shines through it, and of what is all round what it stands before.
    const auto& panel = *ambient.panel;
    const double radius = panel.width / 2;
    const double before = radius * radius / (radius * radius + panel.distance * panel.distance) / 2;
    return std::min(1.0, share * std::exp2(panel.loss) * (1 - before));
}

double kelvin_of(const shoot::Ambient& ambient) {
    if (ambient.kelvin) return *ambient.kelvin;
    switch (ambient.kind) {
        case shoot::AmbientKind::window:
            return 6000;
        case shoot::AmbientKind::sky:
            return ambient.size < 10 ? 5500 : 6500;  // sun, or a sky without it
        case shoot::AmbientKind::even:
            break;
    }
    return ambient.ev100 < 11 ? 3500 : 6000;  // lamps of a room, or daylight
}

}  // namespace poquito::plan
