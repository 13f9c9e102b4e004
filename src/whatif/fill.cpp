#include "whatif/fill.hpp"
#include "light/angle.hpp"

#include "light/space.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/lighting.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be
namespace {

/// Of the shot as it is changed.
LightReport light_of(const Plan& plan, const shoot::Shot& changed) { return report_light(plan_of(plan, changed)); }

constexpr double dark = -20;  // stops: as good as none
double front_of(const Plan& plan, const shoot::Shot& changed) {
    return light_of(plan, changed).front_total.value_or(dark);
}

/// Stops that the front is to be exposed to.
double wanted_front(const Plan& plan) { return plan.terms.wishes.brighter.value_or(0); }

/// The camera's side of the set, across from where the light comes from.
light::Position across_from(const std::optional<double>& azimuth, double distance, double aside = 35) {
    constexpr double above = 20;  // degrees
    const double side = azimuth ? std::remainder(*azimuth, 360.0) : 1;
    return {.distance = std::round(distance), .azimuth = side >= 0 ? -aside : aside, .elevation = above};
}

/// Where most of the light comes from; empty: from all around.
std::optional<double> light_azimuth(const Plan& plan, const LightReport& light) {
    double strongest = light.ambient ? *light.ambient : dark;
    std::optional<double> azimuth;
    if (plan.shot.ambient)
        if (const auto source = ambient_source(*plan.shot.ambient)) azimuth = source->place.azimuth;
    for (const auto& source : light.sources)
        if (source.stops && *source.stops > strongest) {
            strongest = *source.stops;
            azimuth = source.place.azimuth;
        }
    return azimuth;
}

/// Degrees off the axis where a card stands: beside the lens's view of the subject.
constexpr double card_aside = 55;

/// As near as something that wide comes without standing in the frame.
double nearest_card(const Plan& plan, double diameter, double aside) {
    const double field = plan.at.magnification > 0 ? plan.sensor.width / plan.at.magnification : plan.extent.width;
    const double clear = field / 2 + 10;  // mm beside the axis
    return std::ceil(
        std::max(30.0, (diameter / 2 * std::cos(aside * light::degree) + clear) / std::sin(aside * light::degree)));
}

/// The greatest x of a falling measure at which it is still `wanted` or more, between `low` and `high`; `low` where it
/// never is.
double last_with(const std::function<double(double)>& measure, double wanted, double low, double high) {
    if (measure(low) < wanted) return low;
    if (measure(high) >= wanted) return high;
    for (int i = 0; i < 24; ++i) {
        const double middle = (low + high) / 2;
        (measure(middle) >= wanted ? low : high) = middle;
    }
    return low;
}

std::optional<FillWay> fill_by_card(const Plan& plan, const std::optional<double>& azimuth) {
    if (!plan.shot.ambient) return std::nullopt;
    shoot::Reflector card;
    std::string name = "white card";
    for (const auto& one : plan.kit.cards)
        if (one.reflectance && (name == "white card" || one.diameter > card.diameter)) {
            card = {.reflectance = *one.reflectance, .diameter = one.diameter};
            name = one.name;
        }
    shoot::Shot made = plan.shot;
    made.lights.push_back({.reflector = card});
    auto& place = made.lights.back().position;
    const auto at = [&](double distance) {
        place = across_from(azimuth, distance, card_aside);
        return front_of(plan, made);
    };
    const double nearest = nearest_card(plan, card.diameter, card_aside);
    const double distance = last_with(at, wanted_front(plan), nearest, std::max(2000.0, nearest));
    const double front = at(std::round(distance));
    return FillWay{.label = fmt::format("{}, {} wide, {} in front on the {}", name, text::length_text(card.diameter),
                                        text::length_text(place.distance), place.azimuth < 0 ? "left" : "right"),
                   .shot = std::move(made),
                   .front = front};
}

std::optional<FillWay> fill_by_flash(const Plan& plan, const std::optional<double>& azimuth) {
    const auto unit = std::ranges::find(plan.kit.flashes, gear::Heads::one, &gear::Flash::heads);
    if (unit == plan.kit.flashes.end() || unit->front_thread) return std::nullopt;
    if (plan.shot.exposure.shutter < plan.camera.sync * (1 - 1e-9)) return std::nullopt;
    shoot::Shot made = plan.shot;
    made.lights.push_back({.flash = unit->id});
    auto& fill = made.lights.back();
    if (!plan.kit.modifiers.empty()) fill.modifier = plan.kit.modifiers.front().id;
    fill.position = across_from(azimuth, std::max(250.0, nearest_card(plan, 150, 35)));
    const auto light = light_of(plan, made);
    const auto& own = light.sources.back();
    if (!own.fires || own.power > 1 || own.power < unit->scale.least) return std::nullopt;
    return FillWay{
        .label = fmt::format("Fill by {}, {} in front on the {}", unit->name, text::length_text(fill.position.distance),
                             fill.position.azimuth < 0 ? "left" : "right"),
        .shot = std::move(made),
        .front = light.front_total.value_or(dark)};
}

std::optional<FillWay> fill_by_lamp(const Plan& plan, const std::optional<double>& azimuth) {
    if (plan.kit.lamps.empty()) return std::nullopt;
    const auto& unit = plan.kit.lamps.front();
    shoot::Shot made = plan.shot;
    made.lights.push_back({.lamp = unit.id, .power = 1});
    auto& place = made.lights.back().position;
    const auto at = [&](double distance) {
        place = across_from(azimuth, distance);
        return front_of(plan, made);
    };
    const double nearest = nearest_card(plan, unit.face, 35);
    const double distance = last_with(at, wanted_front(plan), nearest, std::max(2000.0, nearest));
    const double front = at(std::round(distance));
    return FillWay{.label = fmt::format("{} {} in front on the {}", unit.name, text::length_text(place.distance),
                                        place.azimuth < 0 ? "left" : "right"),
                   .shot = std::move(made),
                   .front = front};
}

}  // namespace

std::vector<FillWay> ways_to_fill(const Plan& plan) {
    const LightReport now = report_light(plan);
    const auto azimuth = light_azimuth(plan, now);
    constexpr double worth_it = 1.0 / 3, too_much = 1.0 / 3;  // stops
    std::vector<FillWay> ways;
    for (auto* way : {fill_by_card, fill_by_flash, fill_by_lamp})
        if (auto made = way(plan, azimuth))
            if (made->front >= now.front_total.value_or(dark) + worth_it && made->front < wanted_front(plan) + too_much)
                ways.push_back(std::move(*made));
    return ways;
}

// ---- a tone asked for --------------------------------------------------------------------------------------------

std::optional<double> tone_of(const LightReport& light, Tone tone) {
    switch (tone) {
        case Tone::shadow:
            return light.tones.shadow;
        case Tone::rim:
            return light.tones.rim;
        case Tone::background:
            break;
    }
    return light.background;
}

namespace {

/// Whether the exposure hangs on that light: the strongest on the front, unless what is there is stronger.
bool leads(const LightReport& light, std::size_t i) {
    return light.key == i && light.sources[i].front.value_or(dark) >= light.ambient_front.value_or(dark);
}

/// The light that makes most of a tone and is not what the exposure hangs on; empty: none.
std::optional<std::size_t> maker_of(const Plan& plan, Tone tone) {
    const shoot::Shot& shot = plan.shot;
    const LightReport all = report_light(plan);
    const auto now = tone_of(all, tone);
    if (!now) return std::nullopt;
    std::optional<std::size_t> maker;
    double most = 0.01;  // stops
    for (std::size_t i = 0; i < shot.lights.size(); ++i) {
        if (shot.lights[i].off || (tone == Tone::shadow && leads(all, i))) continue;
        shoot::Shot without = as_fired(shot, all);  // the others stay as they are
        double makes = 0;
        if (!all.sources[i].fires && shares_exposure(shot.lights[i])) {  // stays dark now: what it would make
            without.lights[i].off = false;
            without.lights[i].own_stops = 0;
            makes = tone_of(light_of(plan, without), tone).value_or(dark) - *now;
        } else {
            without.lights[i].off = true;
            makes = *now - tone_of(light_of(plan, without), tone).value_or(dark);
        }
        if (makes > most) most = makes, maker = i;
    }
    return maker;
}

/// The light gives so many stops more: power, stops of its own, or nearer.
shoot::Shot with_more(const Plan& plan, std::size_t i, Tone tone, double more) {
    const gear::Kit& kit = plan.kit;
    shoot::Shot made = plan.shot;
    shoot::Light& light = made.lights[i];
    const LightReport now = report_light(plan);
    const auto& source = now.sources[i];
    const double reads = tone == Tone::background ? source.background.value_or(0) : source.stops.value_or(0);
    if (is_reflector(light)) {
        light.position.distance = std::clamp(light.position.distance * std::exp2(-more / 2), 20.0, 1e5);
    } else if (light.power) {
        const auto& scale = is_flash(light) ? shoot::flash_of(kit, light).scale : shoot::lamp_of(kit, light).scale;
        light.power = std::clamp(*light.power * std::exp2(more), scale.least, 1.0);
    } else {
        light.metered.reset();
        light.own_stops = reads + more;
        light.own_at = tone == Tone::background ? shoot::OwnAt::background : shoot::OwnAt::subject;
    }
    return made;
}

std::string turned_text(const gear::Kit& kit, const shoot::Shot& shot, std::size_t i) {
    const auto& light = shot.lights[i];
    const auto label = light_label(shot, i);
    if (is_reflector(light)) return fmt::format("Card {} to {}", label, text::length_text(light.position.distance));
    if (light.own_stops)
        return fmt::format("Light {} to {} stops of its own", label, text::stops_text(*light.own_stops));
    return fmt::format("Light {} to {}", label, setting_text(source_of(kit, light), *light.power));
}

}  // namespace

std::optional<ToneAsked> ask_for(const Plan& plan, Tone tone, double stops) {
    const gear::Kit& kit = plan.kit;
    const shoot::Shot& shot = plan.shot;
    if (tone == Tone::background && shot.background && shot.background->own_ev100 && !maker_of(plan, tone)) {
        // A screen or lamp behind is turned up or down itself.
        shoot::Shot made = shot;
        const auto now = report_light(plan).background;
        if (!now) return std::nullopt;
        *made.background->own_ev100 += stops - *now;
        return ToneAsked{
            .label = fmt::format("Light behind to EV {}", text::number_text(*made.background->own_ev100, 3)),
            .shot = made,
            .stops = light_of(plan, made).background.value_or(dark)};
    }
    const auto maker = maker_of(plan, tone);
    if (!maker) return std::nullopt;
    double low = -12, high = 12;  // stops
    const auto at = [&](double more) {
        return tone_of(light_of(plan, with_more(plan, *maker, tone, more)), tone).value_or(dark);
    };
    for (int i = 0; i < 18; ++i) {
        const double middle = (low + high) / 2;
        (at(middle) < stops ? low : high) = middle;
    }
    shoot::Shot made = with_more(plan, *maker, tone, (low + high) / 2);
    auto& light = made.lights[*maker];
    constexpr double tenths = 10;
    if (light.own_stops) light.own_stops = std::round(*light.own_stops * tenths) / tenths;
    if (is_reflector(light)) light.position.distance = std::round(light.position.distance);
    if (light.power) {
        const auto& scale = is_flash(light) ? shoot::flash_of(kit, light).scale : shoot::lamp_of(kit, light).scale;
        light.power = light::nearest_setting(scale, *light.power);
    }
    return ToneAsked{.label = turned_text(kit, made, *maker),
                     .shot = made,
                     .stops = tone_of(light_of(plan, made), tone).value_or(dark)};
}

}  // namespace poquito::whatif
