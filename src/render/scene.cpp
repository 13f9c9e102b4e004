#include "render/scene.hpp"

#include "imaging/colour.hpp"
#include "light/angle.hpp"
#include "light/space.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/face.hpp"
#include "plan/plan.hpp"
#include "render/texture.hpp"
#include "shoot/values/lattice_hash.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace poquito::render {
namespace {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;
using light::degree;

/// A surface of that reflectance in the hue of a colour.
imaging::Rgba albedo_of(const std::optional<imaging::Colour>& colour, double reflectance) {
    const auto grey = static_cast<float>(reflectance);
    if (!colour) return {grey, grey, grey, 0};
    const imaging::Light3 light = imaging::light_of(*colour);
    constexpr double black = 1e-3;  // below it a colour has no hue to speak of
    const double scale = reflectance / std::max(imaging::luminance(light), black);
    return imaging::Rgba(static_cast<float>(light.red), static_cast<float>(light.green), static_cast<float>(light.blue),
                         0) *
           static_cast<float>(scale);
}

imaging::Rgba towards(const light::Position& position) {
    const double e = position.elevation * degree, a = position.azimuth * degree;
    return {static_cast<float>(std::cos(e) * std::sin(a)), static_cast<float>(std::sin(e)),
            static_cast<float>(-std::cos(e) * std::cos(a)), 0};
}

imaging::Rgba tint_of(double kelvin, double white) {
    if (kelvin == white) return {1, 1, 1, 0};
    const imaging::Light3 light = imaging::black_body(kelvin, white);
    return {static_cast<float>(light.red), static_cast<float>(light.green), static_cast<float>(light.blue), 0};
}

/// The light that is there, so that the face has the mean that the meter's reading says: what comes from a window or
/// the sun, and what comes from all around.
void add_ambient(const Plan& plan, const Report& report, std::vector<SceneLight>& lights) {
    const auto& ambient = *plan.shot.ambient;
    if (!report.light.ambient_front) return;
    const double reading = std::exp2(*report.light.ambient_front);
    const imaging::Rgba tint = tint_of(kelvin_of(ambient), report.light.white);
    const Face face(plan.shot.subject);
    constexpr double least = 0.05;  // of a face that the light hardly reaches: it stays dark
    const auto add = [&](double share, const light::Position& place, double softness) {
        if (!(share > 0)) return;
        const double mean = std::max(least, face.softly_lit_from(place, softness));
        lights.push_back({.amount = static_cast<float>(reading * share / mean),
                          .tint = tint,
                          .towards = towards(place),
                          .softness = static_cast<float>(softness)});
    };
    const auto source = ambient_source(ambient);
    const double all_round = source ? room_share(ambient) : 1;
    add(all_round, {.elevation = 30}, 1);  // more of it from above and in front
    if (source) add(1 - all_round, source->place, std::sin(std::min(source->size, 180.0) / 2 * degree));
    // What glows, glows alike all over: as a face that a light so wide cannot be turned away from.
    constexpr float alike = 1e3f;
    if (report.light.ambient_through)
        lights.push_back({.amount = static_cast<float>(std::exp2(*report.light.ambient_through)),
                          .tint = tint,
                          .softness = alike,
                          .through = true});
}

/// What comes through the subject lights its face as the same light would from in front.
void add_through(const Plan& plan, const SourceReport& source, const SourceTube& tube, SceneLight light,
                 std::vector<SceneLight>& lights) {
    const auto& subject = plan.shot.subject;
    if (!source.through) return;
    light.amount *= static_cast<float>(subject.transmittance / subject.reflectance);
    light.softness = 0;
    light.distance = 0;
    light.through = true;
    if (subject.depth > 0)
        light.towards = towards({.azimuth = 180 - tube.place.azimuth, .elevation = tube.place.elevation});
    else
        light.towards = imaging::Rgba(-light.towards);
    if (light.towards.z() >= 0) return;
    lights.push_back(light);
}

std::vector<SceneLight> lights_of(const Plan& plan, const Report& report) {
    std::vector<SceneLight> lights;
    if (plan.shot.ambient) add_ambient(plan, report, lights);
    for (const auto& source : report.light.sources) {
        if (!source.stops) continue;
        for (const SourceTube& tube : source.tubes) {
            lights.push_back(
                {.amount = static_cast<float>(std::exp2(*source.stops) * tube.share),
                 .tint = tint_of(source.kelvin, report.light.white),
                 .towards = towards(tube.place),
                 .softness = static_cast<float>(tube.diameter / 2 / std::hypot(tube.place.distance, tube.diameter / 2)),
                 .distance = static_cast<float>(tube.place.distance)});
            const SceneLight own = lights.back();
            add_through(plan, source, tube, own, lights);
        }
    }
    const auto relief = relief_of(plan.shot.subject);
    for (SceneLight& light : lights)
        if (light.softness < 1) light.shadows = cast_shadows(relief, light.towards, light.softness);
    return lights;
}

/// Albedo varies by the texture, brighter and darker by about a third.
struct Skin {
    imaging::Rgba albedo;
    double coarsest;  // mm
    Texture texture;
};

/// A thing whose middle has the plane of focus `offset` mm behind it, `depth` mm deep as it is seen.
void place_thing(Scene& scene, const Plan& plan, const shoot::Subject& subject, double offset, double depth) {
    const auto surface = std::make_shared<const Surface>(subject);
    const Viewpoint view(plan, offset, depth);
    const double m = plan.at.magnification, half_width = subject.width / 2, half_height = subject.height / 2;
    const Skin skin{.albedo = albedo_of(subject.colour, subject.reflectance),
                    .coarsest = std::max(subject.width, subject.height) / 5,
                    .texture = texture_of(subject)};
    scene.nearest = -depth / 2 - offset;
    scene.farthest = depth / 2 - offset;
    scene.subject = [=](imaging::Place place, double detail) -> std::optional<Fragment> {
        const ViewRay ray = view.ray(place);
        const auto point = surface->hit(ray);
        if (!point) return std::nullopt;
        const double x = point->u * half_width, y = point->v * half_height;
        const Detail seen{.coarsest = skin.coarsest, .finest = std::max(detail / m, 1e-6)};
        const double pattern = pattern_of(skin.texture, x, y, seen);
        Fragment fragment;
        fragment.depth = static_cast<float>(point->z - offset);
        fragment.x = static_cast<float>(ray.x + ray.dx * point->z);
        fragment.y = static_cast<float>(ray.y + ray.dy * point->z);
        fragment.normal = {static_cast<float>(point->normal.x), static_cast<float>(point->normal.y),
                           static_cast<float>(point->normal.z), 0};
        fragment.albedo = skin.albedo * static_cast<float>(std::max(0.15, 1 + 0.45 * pattern));
        return fragment;
    };
    scene.subject_key = {static_cast<double>(subject.form),
                         subject.width,
                         subject.height,
                         subject.depth,
                         subject.tilt,
                         subject.turn,
                         subject.reflectance,
                         static_cast<double>(skin.texture),
                         offset,
                         m,
                         plan.sensor.width,
                         plan.sensor.height};
    const imaging::Place corner = view.place({1, 1, 1});
    scene.subject_key.insert(scene.subject_key.end(), {corner.x, corner.y});
    if (subject.colour)
        for (const int part : {subject.colour->red, subject.colour->green, subject.colour->blue})
            scene.subject_key.push_back(part);
    if (subject.height_map) {
        const auto& map = **subject.height_map;
        scene.subject_key.push_back(map.width);
        scene.subject_key.insert(scene.subject_key.end(), map.heights.begin(), map.heights.end());
    }
}

/// A place behind: blotches of the detail's size, and a highlight here and there.
void place_scenery(Scene& scene, const Background& background, const imaging::Rgba& light, double scale) {
    scene.background = [light, scale, detail = background.detail](imaging::Place place) -> imaging::Rgba {
        const double x = place.x / scale, y = place.y / scale;
        const double pattern = texture(x, y, {.coarsest = detail * 2, .finest = detail / 4});
        return light * static_cast<float>(std::max(0.1, 1 + 0.7 * pattern));
    };
    // One highlight to so many details, but never more than a frame can tell apart.
    constexpr int most_across = 9;
    const double field = scene.frame_width / scale * 1.3;
    const double cell = std::max(background.detail * 4, field / most_across);
    const int reach_x = static_cast<int>(std::ceil(field / 2 / cell));
    const int reach_y = static_cast<int>(std::ceil(scene.frame_height / scale * 1.3 / 2 / cell));
    // A wet leaf's glint: a fifth of the detail wide and a hundred times as bright as its surroundings (common
    // practice).
    const double width = background.detail / 5 * scale;
    const auto flux = static_cast<float>(100 * width * width);
    for (int j = -reach_y; j <= reach_y; ++j)
        for (int i = -reach_x; i <= reach_x; ++i) {
            if (lattice_hash(i, j, 7) > 0.45) continue;
            scene.highlights.push_back({.place = {.x = (i + lattice_hash(i, j, 8) - 0.5) * cell * scale,
                                                  .y = (j + lattice_hash(i, j, 9) - 0.5) * cell * scale},
                                        .flux = light * flux * static_cast<float>(0.4 + lattice_hash(i, j, 10))});
        }
}

/// The share of each source that the subject keeps from a place of the card, for a subject that is taken as the ellipse
/// of its extent.
class CardShadow {
  public:
    CardShadow(const Plan& plan, const Report& report) : behind_(shoot::background_distance(plan.shot)) {
        half_width_ = plan.extent.width / 2;
        half_height_ = plan.extent.height / 2;
        double all = report.light.ambient ? std::exp2(*report.light.ambient) * ambient_at_background(plan) : 0;
        for (const auto& source : report.light.sources) {
            if (!source.background) continue;
            const double ratio = std::exp2(*source.background);
            all += ratio;
            for (const SourceTube& tube : source.tubes) {
                const auto at = light::place_of(tube.place);
                if (at.z() <= 0) continue;  // beside or behind the subject: its shadow falls elsewhere
                // Seen from the card, the source is so wide in the subject's plane.
                const double nearer = behind_ / (at.z() + behind_);
                sources_.push_back({.x = at.x() * nearer,
                                    .y = at.y() * nearer,
                                    .scale = 1 - nearer,
                                    .softness = tube.diameter * nearer,
                                    .ratio = ratio * tube.share});
            }
        }
        if (all > 0)
            for (auto& source : sources_) source.ratio /= all;
    }

    /// Of all light there, what is left at a place of the card, mm from the axis.
    float left(double x, double y) const {
        double kept = 0;
        for (const auto& source : sources_) {
            const double px = source.x + x * source.scale, py = source.y + y * source.scale;
            const double least = std::min(half_width_, half_height_);
            const double beside = (std::hypot(px / half_width_, py / half_height_) - 1) * least;
            const double soft = std::max(source.softness, least / 20);
            const double most = std::min(1.0, 4 * half_width_ * half_height_ / (soft * soft));
            kept += source.ratio * most * std::clamp(0.5 - beside / soft, 0.0, 1.0);
        }
        return static_cast<float>(1 - kept);
    }

  private:
    struct Source {
        double x = 0, y = 0, scale = 1, softness = 0, ratio = 0;
    };
    double behind_, half_width_ = 1, half_height_ = 1;
    std::vector<Source> sources_;
};

/// The table that is seen behind the subject, with the shadows of all that stands on it.
class TableShadow {
  public:
    TableShadow(const Scene& scene, const Plan& plan)
        : lights_(scene.lights), view_(plan), foot_(-plan.shot.subject.height / 2) {
        const double i = plan.shot.rig.inclination * degree;
        cosine_ = std::cos(i), sine_ = std::sin(i);
        normal_ = {0, static_cast<float>(cosine_), static_cast<float>(-sine_), 0};
    }

    /// Of the light there, what is left where a ray meets the table; 1 where it does not.
    float left(imaging::Place place) const {
        const ViewRay ray = view_.ray(place);
        const double fall = sine_ - ray.dy * cosine_;
        if (fall <= 0) return 1;
        const double z = (ray.y * cosine_ - foot_) / fall;
        const imaging::Rgba at(static_cast<float>(ray.x + ray.dx * z), static_cast<float>(ray.y + ray.dy * z),
                               static_cast<float>(z), 0);
        float all = 0, seen = 0;
        for (const SceneLight& light : lights_) {
            if (light.through) continue;
            const float facing =
                light.amount * std::max(0.0f, (normal_ * light.towards).sum() + light.softness) / (1 + light.softness);
            all += facing;
            seen += facing * reaching(light, nothing_, at);
        }
        return all > 0 ? seen / all : 1;
    }

  private:
    static constexpr std::size_t nothing_ = std::numeric_limits<std::size_t>::max();
    std::vector<SceneLight> lights_;
    Viewpoint view_;
    double foot_, cosine_ = 1, sine_ = 0;
    imaging::Rgba normal_ = imaging::Rgba::Zero();
};

/// Whether the table is what is seen behind, not the card.
bool table_first(const shoot::Shot& shot) {
    return shot.background && shoot::background_distance(shot) < shot.background->distance;
}

void place_background(Scene& scene, const Plan& plan, const Report& report) {
    const auto& background = *plan.shot.background;
    scene.background_depth = background_behind_focus(plan);
    const double own = report.light.background_own ? 0.18 * std::exp2(*report.light.background_own) : 0;
    const double level = report.light.background ? 0.18 * std::exp2(*report.light.background) - own : 0;
    imaging::Rgba light = albedo_of(background.colour, level);
    // What a millimetre of the background measures at the sensor, by perspective through the middle of the pupil.
    const Viewpoint view(plan);
    const double scale = view.place({1, 0, scene.background_depth + plan.focus}).x;
    if (background.kind == BackgroundKind::scene && level > 0 && scale > 0)
        place_scenery(scene, background, light, scale);
    else
        scene.background = [light](imaging::Place) -> imaging::Rgba { return light; };
    if (level > 0 && scale > 0 && table_first(plan.shot))
        scene.background = [plain = std::move(scene.background), shadow = TableShadow(scene, plan)](
                               imaging::Place place) -> imaging::Rgba { return plain(place) * shadow.left(place); };
    else if (level > 0 && scale > 0)
        scene.background = [plain = std::move(scene.background), shadow = CardShadow(plan, report),
                            scale](imaging::Place place) -> imaging::Rgba {
            return plain(place) * shadow.left(place.x / scale, place.y / scale);
        };
    if (!(own > 0)) return;
    // What shines by itself has no shadow of the subject on it.
    const imaging::Rgba shines = albedo_of(background.colour, own);
    scene.background = [lit = std::move(scene.background), shines, half = scene.frame_height / 2,
                        gradient = background.gradient](imaging::Place place) -> imaging::Rgba {
        const double towards_top = std::clamp(place.y / half, -1.0, 1.0);
        return lit(place) + shines * static_cast<float>(std::exp2(gradient / 2 * towards_top));
    };
}

}  // namespace

double blur_disc(const LensBlur& lens, double depth) {
    constexpr double wide = 1000;  // mm: past any sensor
    return std::min(optics::blur_disc(lens.imaging, depth).value_or(wide), wide);
}

std::optional<double> depth_of_disc(const LensBlur& lens, double diameter, bool behind) {
    const auto& [m, n, a, g] = lens.imaging;
    const double slope = m * m * a - (behind ? 1 : -1) * diameter * m * g;
    if (slope <= 0) return std::nullopt;
    return (behind ? 1 : -1) * diameter * a * n / slope;
}

namespace {

/// Share of the light that its face mirrors. A polariser takes most glare off water and lacquer, none off metal (common
/// practice).
float gloss_of(const Plan& plan) {
    if (has_trait(plan.shot.subject, "polished")) return 0.6f;
    if (!has_trait(plan.shot.subject, "liquid")) return 0;
    const bool polarised = std::ranges::any_of(plan.shot.rig.filters, [&](const std::string& id) {
        const auto* filter = gear::find_gear(plan.kit.filters, id);
        return filter && filter->polariser;
    });
    return polarised ? 0.06f : 0.3f;
}

/// One more thing, where it stands: of what a ray meets, the nearest is seen.
void add_staged(Scene& scene, const Plan& plan, std::size_t index) {
    const auto& staged = plan.shot.staging[index];
    const auto subject = plan::seen_subject(plan, staged);
    const auto at = plan::seen_place(plan, staged);
    const auto extent = shoot::presented_extent(subject);
    const double offset = plan.focus - at.away;
    const double per_distance = plan::scale_at(plan, at.away);
    if (per_distance > 100) return;  // it stands against the lens
    Scene own{.lens = scene.lens};
    place_thing(own, plan, subject, offset, extent.depth);
    const double scale = plan.at.magnification * per_distance;
    const imaging::Place middle{.x = at.right * scale, .y = at.up * scale};
    const auto thing = static_cast<std::uint16_t>(index + 1);
    // What mirrors is the subject; the rest is matt, and gives back all that it does.
    const float matt = 1 / std::max(0.1f, 1 - scene.gloss);
    scene.subject = [before = scene.subject, see = own.subject, middle, thing, matt](
                        imaging::Place place, double detail) -> std::optional<Fragment> {
        auto nearest = before(place, detail);
        auto other = see({.x = place.x - middle.x, .y = place.y - middle.y}, detail);
        if (!other || (nearest && nearest->depth <= other->depth)) return nearest;
        other->thing = thing;
        other->albedo *= matt;
        return other;
    };
    scene.nearest = std::min(scene.nearest, own.nearest);
    scene.farthest = std::max(scene.farthest, own.farthest);
    scene.subject_key.insert(scene.subject_key.end(), own.subject_key.begin(), own.subject_key.end());
    scene.subject_key.insert(scene.subject_key.end(), {middle.x, middle.y, static_cast<double>(matt)});
    const auto relief = relief_of(subject);
    for (SceneLight& light : scene.lights)
        light.others.push_back(light.softness < 1 ? cast_shadows(relief, light.towards, light.softness) : nullptr);
}

Caster caster_of(const shoot::Subject& subject, const plan::SeenPlace& at) {
    const auto radius = [](double size) {
        constexpr double least = 0.1;  // mm: what lies flat is not without all thickness
        return static_cast<float>(std::max(size / 2, least));
    };
    const double tilt = subject.tilt * degree;
    Caster caster;
    caster.middle = {static_cast<float>(at.right), static_cast<float>(at.up), static_cast<float>(at.away)};
    caster.radius = {radius(subject.width), radius(subject.height), radius(subject.depth)};
    caster.cosine = static_cast<float>(std::cos(tilt)), caster.sine = static_cast<float>(std::sin(tilt));
    return caster;
}

/// What stands on the table throws its shadow on the rest of it.
void cast_on_one_another(Scene& scene, const Plan& plan) {
    const auto& shot = plan.shot;
    if (shot.staging.empty() && !table_first(shot)) return;
    auto casters = std::make_shared<Casters>();
    casters->focus = static_cast<float>(plan.focus);
    const bool gone = shot.plate && shot.plate->role == shoot::PlateRole::clean;
    casters->things.push_back(caster_of(shot.subject, {}));
    casters->things.front().casts = !gone;
    for (const auto& thing : shot.staging) {
        casters->things.push_back(caster_of(plan::seen_subject(plan, thing), plan::seen_place(plan, thing)));
        casters->things.back().casts = !thing.lies;
    }
    for (SceneLight& light : scene.lights) light.casters = casters;
}

/// The place without its subject: of a clean plate.
void take_away(Scene& scene) {
    scene.subject = [](imaging::Place, double) -> std::optional<Fragment> { return std::nullopt; };
    scene.subject_key = {-1};
}

}  // namespace

std::optional<Scene> scene_of(const Kit& kit, const Shot& shot, const Report& report) {
    return scene_of(plan_of(kit, shot, {}), report);
}

std::optional<Scene> scene_of(const Plan& plan, const Report& report) {
    const Shot& shot = plan.shot;
    if (!(plan.at.magnification > 0)) return std::nullopt;
    Scene scene{.lens = {.imaging = imaging_of(plan, shot.exposure.f_number), .wavelength = shot.sharpness.wavelength},
                .frame_width = plan.sensor.width,
                .frame_height = plan.sensor.height,
                .pixel_pitch = optics::pixel_pitch(plan.sensor),
                .motion = report.motion.blur + report.motion.sway_blur,
                .fall = report.freeze ? report.freeze->blur : 0,
                .lights = lights_of(plan, report),
                .gloss = gloss_of(plan)};
    place_thing(scene, plan, shot.subject, plan.focus, plan.extent.depth);
    if (shot.plate && shot.plate->role == shoot::PlateRole::clean) take_away(scene);
    for (std::size_t i = 0; i < shot.staging.size(); ++i) add_staged(scene, plan, i);
    cast_on_one_another(scene, plan);
    if (shot.background) place_background(scene, plan, report);
    return scene;
}

}  // namespace poquito::render
