#include "render/scene.hpp"

#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/plan.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace poquito::render {

namespace {

/// What a polished face sends on of a source, for a camera at (0, 0, -1). A source that gives an exposure of one to a
/// white face is 1 / sin^2 of its half angle as bright as that face; polish smears its edge by a few degrees.
float mirrored(const imaging::Rgba& normal, const SceneLight& light) {
    constexpr float smear = 0.06f;  // sine; satin silver, about 3.5 degrees (common practice)
    const float facing = -normal.z();
    const imaging::Rgba direction(2 * facing * normal.x(), 2 * facing * normal.y(), 2 * facing * normal.z() + 1, 0);
    const float cosine = (direction * light.towards).sum();
    const float limit = light.softness;
    const float off = std::sqrt(std::max(0.0f, 1 - cosine * cosine));
    if (cosine <= 0 || off > limit + 2 * smear) return 0;
    const float edge = std::clamp((limit + smear - off) / (2 * smear), 0.0f, 1.0f);
    const float size = limit * limit + smear * smear;
    return edge * edge * (3 - 2 * edge) / size;
}

}  // namespace

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

imaging::Place place_in_focus(const Scene& scene, double width, double height) {
    constexpr int columns = 36, rows = 24;
    imaging::Place best;
    double least = std::numeric_limits<double>::infinity();
    const double detail = scene.frame_width / columns;
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const imaging::Place middle{.x = ((column + 0.5) / columns - 0.5) * (scene.frame_width - width),
                                        .y = ((row + 0.5) / rows - 0.5) * (scene.frame_height - height)};
            // Its middle and corners; off the subject nothing is to be seen.
            double worst = 0;
            for (const auto& [x, y] : {std::pair(0.0, 0.0), {-0.5, -0.5}, {0.5, -0.5}, {-0.5, 0.5}, {0.5, 0.5}}) {
                const auto seen = scene.subject({.x = middle.x + x * width, .y = middle.y + y * height}, detail);
                worst = std::max(
                    worst, seen ? std::abs(static_cast<double>(seen->depth)) : std::numeric_limits<double>::infinity());
            }
            // Of places alike, the one nearest to the middle of the frame.
            const double aside = 1e-3 * std::hypot(middle.x, middle.y) / scene.frame_width;
            if (worst + aside < least) least = worst + aside, best = middle;
        }
    return best;
}

std::optional<Scene> scene_of_try(const plan::Plan& plan, const plan::Report& report, const plan::FrameDraw& draw) {
    auto shot = plan.shot;
    shot.sharpness.focus_offset -= draw.through;
    if (!draw.fired) std::erase_if(shot.lights, [](const shoot::Light& light) { return plan::is_flash(light); });
    const auto there = plan::plan_of(plan, shot);
    auto scene = scene_of(there, draw.fired ? report : plan::assess(there));
    if (scene) scene->motion = plan::smear_of(draw, report);
    return scene;
}

void put_aside(Scene& scene, imaging::Place by) {
    if (by.x == 0 && by.y == 0) return;
    scene.subject = [see = scene.subject, by](imaging::Place place, double detail) {
        return see({.x = place.x - by.x, .y = place.y - by.y}, detail);
    };
    scene.subject_key.push_back(by.x);
    scene.subject_key.push_back(by.y);
}

float SceneLight::spread() const {
    constexpr float widest = 0.94f;  // sine of half of 140 degrees
    const float sine = std::min(softness, widest);
    return sine / std::sqrt(1 - sine * sine);
}

float reaching(const SceneLight& light, std::size_t own, const imaging::Rgba& place) {
    if (!light.casters) return 1;
    Beam beam{.towards = light.towards, .spread = light.spread()};
    float share = 1;
    if (light.distance > 0) {
        const imaging::Rgba way = light.towards * light.distance - place;
        const float whole = (way * way).sum();
        constexpr float nearest = 16;  // times the light at most: a face against the lamp is past any picture
        const float square = std::max(whole, light.distance * light.distance / nearest);
        if (whole > 0) beam.towards = way / std::sqrt(whole);
        // The subject's own fall-off is the report's; of the rest, what is nearer to the light gets more.
        if (own != 0) share = light.distance * light.distance / square;
    }
    return share * seen_past(*light.casters, own, place, beam);
}

Lit lit_by(const SceneLight& light, float gloss, const Fragment& fragment) {
    // A wide source reaches round the edge of a ball; a face towards it gets all of it, as a meter there would read.
    const float cosine = (fragment.normal * light.towards).sum();
    const Shadows* shadows = fragment.thing == 0                     ? light.shadows.get()
                             : fragment.thing <= light.others.size() ? light.others[fragment.thing - 1u].get()
                                                                     : nullptr;
    float seen = shadows ? shadows->at(fragment.x, fragment.y) : 1;
    if (light.casters && !light.through && fragment.thing < light.casters->things.size()) {
        const auto& own = light.casters->things[fragment.thing];
        const imaging::Rgba place(own.middle[0] + fragment.x, own.middle[1] + fragment.y,
                                  fragment.depth + light.casters->focus, 0);
        seen *= reaching(light, fragment.thing, place);
    }
    Lit lit{.diffuse = seen * std::max(0.0f, cosine + light.softness) / (1 + light.softness)};
    if (gloss > 0 && !light.through && fragment.thing == 0) lit.shine = seen * mirrored(fragment.normal, light);
    return lit;
}

imaging::Rgba lit(const Scene& scene, const Fragment& fragment) {
    LitInColour all;
    for (const SceneLight& light : scene.lights) all.add(light, lit_by(light, scene.gloss, fragment));
    return sent(scene.gloss, fragment.albedo, all);
}

Viewpoint::Viewpoint(const Plan& plan) : Viewpoint(plan, plan.focus, plan.extent.depth) {}

Viewpoint::Viewpoint(const Plan& plan, double focus, double depth) {
    const Shot& shot = plan.shot;
    if (!(plan.at.magnification > 0)) return;
    magnification_ = plan.at.magnification;
    focus_ = focus;
    // One over the distance from entrance pupil to plane of focus, as the pupil and the f-number have it.
    const auto& [m, n, a, g] = imaging_of(plan, shot.exposure.f_number);
    const double per_distance = m * g / (a * n);
    // Where the pupil lies within the subject, or behind it, no one viewpoint shows it: seen in parallel instead.
    if (std::abs(per_distance) * (depth / 2 + std::abs(focus_)) < 1) per_distance_ = per_distance;
}

ViewRay Viewpoint::ray(imaging::Place place) const {
    const double x = place.x / magnification_, y = place.y / magnification_;
    return {.x = x * (1 - focus_ * per_distance_),
            .y = y * (1 - focus_ * per_distance_),
            .dx = x * per_distance_,
            .dy = y * per_distance_};
}

imaging::Place Viewpoint::place(const Point3& point) const {
    const double scale = magnification_ / (1 + (point.z - focus_) * per_distance_);
    return {.x = point.x * scale, .y = point.y * scale};
}

}  // namespace poquito::render
