#include "plan/light/lighting.hpp"
#include "light/angle.hpp"

#include "light/direction.hpp"
#include "plan/light/ambient.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::plan {
namespace {

using light::degree;

double modifier_diameter(const Source& source) { return source.modifier ? source.modifier->diameter : 0; }

}  // namespace

shoot::Shot as_fired(const shoot::Shot& shot, const LightReport& light) {
    shoot::Shot fixed = shot;
    for (std::size_t i = 0; i < fixed.lights.size(); ++i) {
        if (!is_flash(fixed.lights[i]) || fixed.lights[i].power) continue;
        fixed.lights[i].off |= !light.sources[i].fires;
        if (light.sources[i].fires) fixed.lights[i].power = light.sources[i].power;
        fixed.lights[i].own_stops.reset(), fixed.lights[i].metered.reset();
    }
    return fixed;
}

double at_background(const Plan& plan, const Source& source, double power, double behind) {
    if (source.is_reflector()) return 0;  // MODEL 6: it looks at the subject
    const auto way = light::path_to_background(placed(plan, source), behind);
    return way ? light_at(plan, source, power, behind) * way->incidence : 0;
}

std::optional<double> distance_for(const Source& source, const SourceReport& report, double stops) {
    // A disc of radius r gives as 1 / (d^2 + r^2), MODEL 3; what lies beyond a bounce's card stays.
    const double radius = modifier_diameter(source) / 2;
    const double squared = (report.path * report.path + radius * radius) * std::exp2(-stops) - radius * radius;
    const double distance = std::sqrt(std::max(squared, 0.0)) - (report.path - report.place.distance);
    return distance > 0 ? std::optional(distance) : std::nullopt;
}

std::string group_of(const shoot::Shot& shot, std::size_t light) {
    return shot.lights[light].group.value_or(std::string(1, static_cast<char>('A' + light)));
}

std::string light_label(const shoot::Shot& shot, std::size_t light) {
    const std::string group = group_of(shot, light);
    int before = 0, all = 0;
    for (std::size_t i = 0; i < shot.lights.size(); ++i)
        if (group_of(shot, i) == group) {
            ++all;
            if (i < light) ++before;
        }
    return all == 1 ? group : fmt::format("{}{}", group, before + 1);
}

const std::string& unit_name(const Source& source) {
    static const std::string card = "card";
    if (source.is_reflector()) return card;
    return source.is_flash() ? source.flash->name : source.lamp->name;
}

const light::PowerScale& power_scale(const Source& source) {
    static const light::PowerScale none{.least = 1};
    if (source.is_reflector()) return none;
    return source.is_flash() ? source.flash->scale : source.lamp->scale;
}

light::Position placed(const Plan& plan, const Source& source) {
    if (!source.is_flash() || !source.set.on_lens) return source.set.position;
    const gear::Flash& flash = *source.flash;
    const double ahead = std::max(1.0, plan.at.working_distance.value_or(1000) - plan.focus);
    if (flash.heads == gear::Heads::one) return {.distance = ahead};
    const double spread = flash.spread.value_or(front_diameter(plan) + flash.face);
    return {.distance = std::hypot(ahead, spread / 2), .azimuth = std::atan2(spread / 2, ahead) / degree};
}

double shining_diameter(const Source& source) {
    if (source.is_reflector()) return source.set.reflector->diameter;
    if (source.set.bounce) return source.set.bounce->diameter;
    if (const double diameter = modifier_diameter(source); diameter > 0) return diameter;
    return source.is_flash() ? source.flash->face : source.lamp->face;
}

bool finds_power(const Plan& plan) {
    return std::ranges::any_of(
        plan.sources, [](const Source& source) { return source.is_flash() && !source.set.off && !source.set.power; });
}

bool in_high_speed(const Plan& plan, const Source& source) {
    const auto& exposure = plan.shot.exposure;
    return source.is_flash() && exposure.high_speed_sync && source.flash->high_speed_sync &&
           exposure.shutter < plan.camera.sync * (1 - 1e-9);
}

namespace {

/// Stops lost by looking past a point of the axis. A light that looks at the subject and has no grid lights everything
/// as MODEL 3 has it: what its face gives to the side is not counted. Empty: nothing gets there.
std::optional<double> aim_loss(const Plan& plan, const Source& source, double behind) {
    const auto grid = source.modifier ? source.modifier->grid : std::nullopt;
    if (source.set.on_lens || (source.set.aim == light::Aim{} && !grid)) return 0;
    const auto place = placed(plan, source);
    const auto loss = light::beam_loss(light::off_beam(place, source.set.aim, behind), grid);
    const auto straight = light::beam_loss(light::off_beam(place, {}, behind), std::nullopt);
    if (!loss) return std::nullopt;
    return *loss - straight.value_or(0);
}

/// All but what is lost by looking past the subject.
Losses losses_on_axis(const Plan& plan, const Source& source) {
    Losses all;
    if (source.modifier) {
        all.modifier = source.modifier->loss - light::calibrated(source.modifier->corrections).stops;
        if (source.set.second_layer) all.layer = source.modifier->layer_loss;
    }
    if (source.set.bounce) all.bounce = -std::log2(source.set.bounce->reflectance);
    if (in_high_speed(plan, source))
        all.high_speed = light::high_speed_loss({.sync = plan.camera.sync, .at_sync = source.flash->high_speed_loss},
                                                plan.shot.exposure.shutter);
    return all;
}

}  // namespace

Losses losses(const Plan& plan, const Source& source) {
    Losses all = losses_on_axis(plan, source);
    all.aim = aim_loss(plan, source, 0).value_or(0);
    return all;
}

namespace {

light::FlashPath flash_path(const Source& source, double loss, double distance) {
    const gear::Flash& flash = *source.flash;
    return {.guide_number = flash.guide_number * std::exp2(light::calibrated(flash.corrections).stops / 2),
            .loss = loss,
            .distance = distance,
            .modifier_diameter = modifier_diameter(source)};
}

light::LampPath lamp_path(const Source& source, double loss, double distance) {
    const gear::Lamp& lamp = *source.lamp;
    const double modifier = modifier_diameter(source);
    light::LampPath path{.lux = lamp.lux.value_or(0) * std::exp2(light::calibrated(lamp.corrections).stops),
                         .at_distance = lamp.lux_distance,
                         .loss = loss,
                         .distance = distance,
                         .face_diameter = lamp.face,
                         .source_diameter = modifier > 0 ? modifier : lamp.face};
    if (lamp.luminance) {
        // As bright as it is in its own plane: E = pi L there, and the disc rule from there on.
        path.lux = light::illuminance(*lamp.luminance, {.diameter = lamp.face, .distance = lamp.lux_distance}) *
                   std::exp2(light::calibrated(lamp.corrections).stops);
    }
    return path;
}

/// mm that the light goes after its lamp, before its card or the subject.
double bounced(const Source& source) { return source.set.bounce ? source.set.bounce->from_lamp : 0; }

}  // namespace

light::FlashPath flash_path(const Plan& plan, const Source& source) {
    return flash_path(source, losses(plan, source).total(), placed(plan, source).distance + bounced(source));
}

light::LampPath lamp_path(const Plan& plan, const Source& source) {
    return lamp_path(source, losses(plan, source).total(), placed(plan, source).distance + bounced(source));
}

namespace {

/// What a card sends back at a point of the axis: the light that is there falls on it unshaded.
double reflected(const Plan& plan, const Source& source, double behind) {
    const auto ambient = ambient_at_subject(plan);
    if (!ambient || source.set.off) return 0;
    const auto& place = source.set.position;
    const double along = place.distance * light::towards_camera(place);
    const double distance =
        std::sqrt(std::max(0.0, place.distance * place.distance + behind * behind + 2 * behind * along));
    const auto& card = *source.set.reflector;
    return std::exp2(*ambient + light::reflected_stops(card.reflectance, card.diameter, distance));
}

}  // namespace

double light_at(const Plan& plan, const Source& source, double power, double behind) {
    if (source.is_reflector()) return reflected(plan, source, behind);
    const auto aim = aim_loss(plan, source, behind);
    if (!aim || !(power > 0)) return 0;
    const auto place = placed(plan, source);
    const double along = place.distance * light::towards_camera(place);
    const double distance =
        std::sqrt(std::max(0.0, place.distance * place.distance + behind * behind + 2 * behind * along)) +
        bounced(source);
    Losses in_the_way = losses_on_axis(plan, source);
    in_the_way.aim = *aim;
    if (source.is_flash()) {
        auto path = flash_path(source, in_the_way.total(), distance);
        path.power = power;
        return std::exp2(light::flash_stops(settings_of(plan), path));
    }
    auto path = lamp_path(source, in_the_way.total(), distance);
    path.power = power;
    return std::exp2(light::ambient_stops(settings_of(plan), light::ev100_of(light::illuminance(path))));
}

namespace {

/// The share of its box that a form covers, seen from the front: an ellipse for what is round.
double silhouette(shoot::Form form) {
    constexpr double ellipse = std::numbers::pi / 4;
    switch (form) {
        case shoot::Form::slab:
        case shoot::Form::box:
        case shoot::Form::folds:
        case shoot::Form::height_map:
            return 1;
        default:
            return ellipse;
    }
}

}  // namespace

namespace {

/// What practice begins with for such a subject; empty: no word. Common practice: white glaze, teeth and near faces a
/// stop under, a small bright thing before black one and a half.
std::optional<double> practice_start(const Plan& plan, const MeteringReport& metering) {
    const auto& subject = plan.shot.subject;
    constexpr double white = 0.6, bright = 0.3, small = 0.35, black = 0.05;
    const bool before_black = !plan.shot.background || plan.shot.background->reflectance <= black;
    if (metering.fill < small && before_black && subject.reflectance >= bright) return -1.5;
    if (subject.highlight_reflectance.value_or(subject.reflectance) >= white) return -1;
    if (shoot::has_trait(subject, "person")) return -1;
    // Leaves and flowers that fill the frame, two under.
    constexpr double fills = 0.3;
    const std::string kind = subject.library.value_or("");
    const bool grows = kind.starts_with("flower") || kind.starts_with("leaf") ||
                       (subject.transmittance > 0 && shoot::has_trait(subject, "outdoors"));
    if (grows && metering.fill >= fills) return -2;
    return std::nullopt;
}

void advise_compensation(const Plan& plan, MeteringReport& metering) {
    using By = MeteringReport::By;
    const auto practice = practice_start(plan, metering);
    metering.by = metering.learned.count > 0 ? By::learned : practice ? By::practice : By::average;
    metering.expected = metering.by == By::practice ? -*practice : metering.error + metering.learned.stops;
    metering.advised = -metering.expected;
    // A correct front cannot clip what sends back no more than falls on it: no plus here does.
    metering.advised = std::round(metering.advised * 3) / 3;  // the dial's thirds
}

/// Without a background. The subject fills nothing where it has no size.
light::MeteredField metered_field(const Plan& plan) {
    const double m = plan.at.magnification;
    return {.fill = m > 0 ? std::min(1.0, plan.extent.width * m / plan.sensor.width) *
                                std::min(1.0, plan.extent.height * m / plan.sensor.height) *
                                silhouette(plan.shot.subject.form)
                          : 0,
            .reflectance = plan.shot.subject.reflectance,
            .background_reflectance = 0};
}

std::optional<MeteringReport> judged(const Plan& plan, const light::MeteredField& field, MeteringReport report,
                                     const std::vector<light::Correction>& corrections) {
    report.reflectance = light::metered_reflectance(field);
    if (!(report.reflectance > 0)) return std::nullopt;
    report.error = light::automatic_error(field);
    report.learned = light::calibrated(corrections);
    advise_compensation(plan, report);
    return report;
}

}  // namespace

std::optional<MeteringReport> metering_of(const Plan& plan, const Source& source) {
    light::MeteredField field = metered_field(plan);
    if (!(field.fill > 0)) return std::nullopt;
    MeteringReport report{.fill = field.fill};
    if (const auto& background = plan.shot.background) {
        const double at_subject = light_at(plan, source, 1, 0);
        const double behind = at_background(plan, source, 1, shoot::background_distance(plan.shot));
        if (behind > 0 && at_subject > 0) {
            field.background_reflectance = background->reflectance;
            field.background_stops = report.background = std::log2(behind / at_subject);
        }
    }
    return judged(plan, field, report, source.flash->metered_corrections);
}

std::optional<MeteringReport> automatic_exposure(const Plan& plan, const LightReport& light) {
    if (light.flash || !light.front_total) return std::nullopt;
    light::MeteredField field = metered_field(plan);
    if (!(field.fill > 0)) return std::nullopt;
    MeteringReport report{.fill = field.fill};
    if (light.background) {  // as it looks, its own light in it: in greys of the subject's light
        field.background_reflectance = 0.18;
        field.background_stops = report.background = *light.background - *light.front_total;
    }
    return judged(plan, field, report, plan.camera.metered_corrections);
}

std::string setting_text(const Source& source, double power) {
    if (source.is_reflector()) return "as it is";
    if (!source.is_flash()) return power >= 1 ? "full" : fmt::format("{} %", text::number_text(power * 100, 2));
    const gear::Flash& flash = *source.flash;
    if (flash.power_shown == gear::PowerShown::watt_seconds && flash.energy)
        return fmt::format("{} Ws", text::number_text(power * *flash.energy, 3));
    if (flash.power_shown == gear::PowerShown::stops)
        return fmt::format("{} stops", text::stops_text(std::log2(power)));
    return text::power_text(power);
}

std::optional<double> parse_setting(const Source& source, std::string_view text) {
    const auto ends_with = [&](std::string_view unit) {
        return text.size() > unit.size() && text.substr(text.size() - unit.size()) == unit;
    };
    if (source.is_flash()) {
        const gear::Flash& flash = *source.flash;
        const bool in_joules = ends_with("Ws") || ends_with("ws") || ends_with("J");
        if (in_joules && flash.energy) {
            const auto energy = text::parse_number(text.substr(0, text.find_last_of("0123456789") + 1));
            return energy ? std::optional(*energy / *flash.energy) : std::nullopt;
        }
        if (in_joules) return std::nullopt;
        if (flash.power_shown == gear::PowerShown::watt_seconds && flash.energy) {
            if (const auto energy = text::parse_number(text); energy && text.find('/') == std::string_view::npos)
                return *energy / *flash.energy;  // a bare number is what the unit shows
        }
        if (flash.power_shown == gear::PowerShown::stops)
            if (const auto stops = text::parse_stops(text); stops && *stops <= 0) return std::exp2(*stops);
    } else if (text == "full") {
        return 1;
    }
    return text::parse_power(text);
}

}  // namespace poquito::plan
