#include "whatif/glass_setups.hpp"
#include "light/angle.hpp"

#include "light/direction.hpp"
#include "light/exposure.hpp"
#include "light/position.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be
namespace {

using light::degree;

/// Far enough behind that what stands there is soft, near enough to stay small (common practice).
double behind(const shoot::Shot& shot) {
    return std::ceil(std::max(150.0, 2 * std::max(shot.subject.width, shot.subject.height)) / 10) * 10;
}

/// The field at the background, on which card and stop are cut.
struct FieldBehind {
    double width = 0, height = 0;
};
std::optional<FieldBehind> field_behind(const Plan& plan) {
    const auto optics = assess(plan).optics;
    if (!optics.field_behind_width || !optics.field_behind_height) return std::nullopt;
    return FieldBehind{.width = std::ceil(*optics.field_behind_width),
                       .height = std::ceil(*optics.field_behind_height)};
}

shoot::Shot lights_out(shoot::Shot shot) {
    for (auto& light : shot.lights) light.off = true;
    return shot;
}

GlassLit bright_field(const Plan& plan, shoot::Shot shot, const FieldBehind& field) {
    const gear::Kit& kit = plan.kit;
    // A screen or light table of the kit; else a card lit from behind (common practice).
    const auto screen =
        std::ranges::find_if(kit.lamps, [](const gear::Lamp& lamp) { return lamp.luminance.has_value(); });
    const double lit_card = screen != kit.lamps.end() ? light::ev100_of_luminance(*screen->luminance) : 11;
    constexpr double clean_white = 2.6;
    shot = lights_out(std::move(shot));
    shot.background->own_ev100 = lit_card;
    shot.background->reflectance = 0.9;
    shot.background->width = field.width, shot.background->height = field.height;
    const double now = light::ambient_stops(settings_of(plan_of(plan, shot)), lit_card);
    shot.exposure.shutter = text::nearest_shutter(shot.exposure.shutter * std::exp2(clean_white - now));
    auto label = fmt::format("Bright field: a lit card {} \u00d7 {}, {} behind, no larger than the field; {}",
                             text::length_text(field.width), text::length_text(field.height),
                             text::length_text(shot.background->distance), text::shutter_text(shot.exposure.shutter));
    return {.label = std::move(label), .shot = std::move(shot)};
}

std::optional<GlassLit> dark_field(const gear::Kit& kit, shoot::Shot shot, const FieldBehind& field) {
    if (kit.flashes.empty() && kit.lamps.empty()) return std::nullopt;
    constexpr double margin = 1.05, past = 12;  // the stop over the field; degrees that the light clears its edge
    auto& background = *shot.background;
    background.reflectance = 0.02;
    background.own_ev100.reset();
    background.width = std::ceil(field.width * margin), background.height = std::ceil(field.height * margin);
    const double edge = std::atan2(*background.width / 2, background.distance) / degree;
    const double off = std::min(80.0, std::ceil(edge + past));
    shot = lights_out(std::move(shot));
    if (!kit.flashes.empty())  // what is there stays off the stop
        shot.exposure.shutter = std::min(shot.exposure.shutter, shoot::camera_of(kit, shot).sync);
    for (const double side : {1.0, -1.0}) {
        shoot::Light light{.position = {.distance = background.distance + 100, .azimuth = side * (180 - off)}};
        if (!kit.modifiers.empty())
            light.modifier = std::ranges::max_element(kit.modifiers, {}, &gear::Modifier::diameter)->id;
        if (kit.flashes.empty()) {
            light.lamp = kit.lamps.front().id;
            light.power = 1;
        } else {
            light.flash = kit.flashes.front().id;
            light.own_stops = 1;  // what shines in glass is an edge
        }
        shot.lights.push_back(light);
    }
    auto label = fmt::format("Dark field: a black card {} \u00d7 {}, {} behind; lit from {:.0f}\u00b0 past its edges",
                             text::length_text(*shot.background->width), text::length_text(*shot.background->height),
                             text::length_text(shot.background->distance), 180 - off);
    return GlassLit{.label = std::move(label), .shot = std::move(shot)};
}

}  // namespace

std::optional<GlassLit> glass_lit(const Plan& plan, GlassSetup setup) {
    shoot::Shot made = plan.shot;
    if (!made.background) made.background = shoot::Background{};
    made.background->distance = behind(plan.shot);
    made.background->kind = shoot::BackgroundKind::card;
    const auto field = field_behind(plan_of(plan, made));
    if (!field) return std::nullopt;
    if (setup == GlassSetup::bright_field) return bright_field(plan, std::move(made), *field);
    return dark_field(plan.kit, std::move(made), *field);
}

}  // namespace poquito::whatif
