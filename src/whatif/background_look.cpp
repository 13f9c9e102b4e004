#include "whatif/background_look.hpp"

#include "light/space.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be
namespace {

using light::BackgroundLook;

/// The middle of a look, or safely inside it where it is open to one side.
double aimed_at(BackgroundLook look) {
    const light::LookLimits limits;
    constexpr double safely = 0.3;  // stops
    switch (look) {
        case BackgroundLook::black:
            return limits.black_below - safely;
        case BackgroundLook::dark:
            return (limits.black_below + limits.dark_below) / 2;
        case BackgroundLook::white:
            return limits.white_from + safely;
        case BackgroundLook::grey:
            break;
    }
    return -1;  // a stop under mid grey: colour at its strongest (common practice)
}

struct Lit {
    std::optional<double> background, subject;
    std::optional<BackgroundLook> look;
};
Lit lit(const Plan& plan) {
    const LightReport light = report_light(plan);
    return {.background = light.background, .subject = light.front_total, .look = light.background_look};
}

/// What is asked of a shot, and how bright its subject is now.
struct Wanted {
    const Plan& plan;
    BackgroundLook look;
    std::optional<double> subject;
};
Wanted wanted_of(const Plan& plan, BackgroundLook look) { return {plan, look, lit(plan).subject}; }

/// A change counts where it reaches the look and the subject stays as it was.
std::optional<BackdropChange> checked(const Wanted& wanted, std::string label, shoot::Shot shot) {
    constexpr double unchanged = 1.0 / 3;  // stops
    const Lit now = lit(plan_of(wanted.plan, shot));
    if (!now.background || now.look != wanted.look || !now.subject || !wanted.subject) return std::nullopt;
    if (std::abs(*now.subject - *wanted.subject) > unchanged) return std::nullopt;
    return BackdropChange{.label = std::move(label), .shot = std::move(shot), .stops = *now.background};
}

std::optional<BackdropChange> by_distance(const Wanted& wanted);
std::optional<BackdropChange> by_card(const Wanted& wanted);
std::optional<BackdropChange> by_shutter(const Wanted& wanted);
std::optional<BackdropChange> by_own_light(const Wanted& wanted);
std::optional<BackdropChange> by_stop_and_power(const Wanted& wanted);
std::optional<BackdropChange> by_iso_and_power(const Wanted& wanted);
std::optional<BackdropChange> by_what_shines(const Wanted& wanted);

}  // namespace

std::vector<BackdropChange> ways_to(const Plan& plan, BackgroundLook look) {
    std::vector<BackdropChange> ways;
    if (!plan.shot.background) return ways;
    const Wanted wanted = wanted_of(plan, look);
    for (auto* way :
         {by_what_shines, by_distance, by_card, by_shutter, by_stop_and_power, by_iso_and_power, by_own_light})
        if (auto change = way(wanted)) ways.push_back(std::move(*change));
    return ways;
}

namespace {

std::optional<BackdropChange> by_distance(const Wanted& wanted) {
    const shoot::Shot& shot = wanted.plan.shot;
    const BackgroundLook look = wanted.look;
    // The nearest to where it stands of the distances that are a hundredth apart.
    const double nearest = std::max(1.0, shoot::presented_extent(shot.subject).depth / 2);
    constexpr double farthest = 5000;  // mm: a room
    constexpr double apart = 1.05;
    shoot::Shot moved = shot;
    const Plan plan = plan_of(wanted.plan, moved);
    LightReport light = report_light(plan);
    std::optional<double> best;
    for (double distance = nearest; distance < farthest; distance *= apart) {
        moved.background->distance = std::round(distance);
        report_background(plan, light);
        if (light.background_look != look) continue;
        const auto cost = [&](double to) {
            return std::abs(std::log((to + nearest) / (shot.background->distance + nearest)));
        };
        if (!best || cost(moved.background->distance) < cost(*best)) best = moved.background->distance;
    }
    if (!best || *best == shot.background->distance) return std::nullopt;
    moved.background->distance = *best;
    return checked(wanted, fmt::format("Card {} behind", text::length_text(*best)), moved);
}

struct Card {
    const char* name;
    double reflectance;
};
constexpr Card cards[] = {  // common practice
    {"velvet", 0.01},        {"black card", 0.04},      {"dark grey card", 0.09},
    {"mid grey card", 0.18}, {"light grey card", 0.45}, {"white card", 0.9}};

std::optional<BackdropChange> by_card(const Wanted& wanted) {
    const shoot::Shot& shot = wanted.plan.shot;
    std::optional<BackdropChange> best;
    for (const Card& card : cards) {
        shoot::Shot other = shot;
        other.background->reflectance = card.reflectance;
        auto change = checked(wanted, fmt::format("A {}", card.name), std::move(other));
        const auto apart = [&](const BackdropChange& one) {
            return std::abs(std::log(one.shot.background->reflectance / std::max(shot.background->reflectance, 1e-3)));
        };
        if (change && (!best || apart(*change) < apart(*best))) best = std::move(change);
    }
    return best;
}

std::optional<BackdropChange> by_shutter(const Wanted& wanted) {
    const shoot::Shot& shot = wanted.plan.shot;
    const bool any_flash = std::ranges::any_of(shot.lights, is_flash);
    if (!any_flash || !shot.ambient) return std::nullopt;
    const double sync = wanted.plan.camera.sync;
    for (int steps = 1; steps <= 24; ++steps)  // eight stops either way
        for (const int direction : {-1, 1}) {
            shoot::Shot other = shot;
            other.exposure.shutter = text::step_shutter(shot.exposure.shutter, direction * steps);
            if (other.exposure.shutter < sync * (1 - 1e-9)) continue;
            auto label = fmt::format("Expose {}", text::shutter_text(other.exposure.shutter));
            if (auto change = checked(wanted, std::move(label), std::move(other))) return change;
        }
    return std::nullopt;
}

/// Flashes turned so much down or up that the subject stays as it was; those that find their power do so themselves.
/// Empty: one has no such setting.
std::optional<shoot::Shot> with_power_by(const gear::Kit& kit, shoot::Shot shot, double stops) {
    for (shoot::Light& light : shot.lights) {
        if (!is_flash(light) || light.off || !light.power) continue;
        const auto& scale = shoot::flash_of(kit, light).scale;
        const double power = *light.power * std::exp2(stops);
        if (power > 1 + 1e-9 || power < scale.least * (1 - 1e-9)) return std::nullopt;
        light.power = light::nearest_setting(scale, power);
    }
    return shot;
}

/// Opened up or stopped down with the flash: what stays on at the card changes against it.
std::optional<BackdropChange> by_stop_and_power(const Wanted& wanted) {
    const gear::Kit& kit = wanted.plan.kit;
    const shoot::Shot& shot = wanted.plan.shot;
    if (std::ranges::none_of(shot.lights, is_flash) || !shot.ambient) return std::nullopt;
    const auto& lens = wanted.plan.lens.optics;
    for (int steps = 1; steps <= 15; ++steps)
        for (const int direction : {-1, 1}) {
            shoot::Shot other = shot;
            auto& f = other.exposure.f_number;
            f = text::step_f_number(f, direction * steps);
            if (f < lens.max_aperture * (1 - 1e-9) || f > lens.min_aperture * (1 + 1e-9)) continue;
            const auto dialled = with_power_by(kit, other, 2 * std::log2(f / shot.exposure.f_number));
            if (!dialled) continue;
            auto label = fmt::format("{} and the flash {}", text::f_number_text(f), direction < 0 ? "down" : "up");
            if (auto change = checked(wanted, std::move(label), *dialled)) return change;
        }
    return std::nullopt;
}

std::optional<BackdropChange> by_iso_and_power(const Wanted& wanted) {
    const gear::Kit& kit = wanted.plan.kit;
    const shoot::Shot& shot = wanted.plan.shot;
    if (std::ranges::none_of(shot.lights, is_flash) || !shot.ambient) return std::nullopt;
    constexpr double highest = 6400, lowest = 100;  // beyond it a picture pays more than a background is worth
    for (int steps = 1; steps <= 15; ++steps)
        for (const int direction : {1, -1}) {
            shoot::Shot other = shot;
            other.exposure.iso = text::step_iso(shot.exposure.iso, direction * steps);
            if (other.exposure.iso > highest || other.exposure.iso < lowest) continue;
            const auto dialled = with_power_by(kit, other, -std::log2(other.exposure.iso / shot.exposure.iso));
            if (!dialled) continue;
            auto label = fmt::format("ISO {} and the flash {}", text::number_text(other.exposure.iso, 6),
                                     direction > 0 ? "down" : "up");
            if (auto change = checked(wanted, std::move(label), *dialled)) return change;
        }
    return std::nullopt;
}

/// A screen or lamp behind turned up or down.
std::optional<BackdropChange> by_what_shines(const Wanted& wanted) {
    const shoot::Shot& shot = wanted.plan.shot;
    const BackgroundLook look = wanted.look;
    if (!shot.background->own_ev100) return std::nullopt;
    const auto now = lit(wanted.plan).background;
    if (!now) return std::nullopt;
    shoot::Shot other = shot;
    *other.background->own_ev100 = std::round((*shot.background->own_ev100 + aimed_at(look) - *now) * 10) / 10;
    auto label = fmt::format("Its own light to EV {}", text::number_text(*other.background->own_ev100, 3));
    return checked(wanted, std::move(label), other);
}

/// A flash of the kit half way to the card and out of the frame, turned to its middle: the subject is behind its back.
shoot::Light card_light(const gear::Kit& kit, const shoot::Shot& shot) {
    const double behind = shot.background->distance;
    const light::Point place(std::max(shot.subject.width, behind * 0.4), 0, -behind / 2);
    shoot::Light light{.flash = kit.flashes.front().id, .position = light::position_of(place)};
    light.position = {.distance = std::round(light.position.distance), .azimuth = std::round(light.position.azimuth)};
    light.aim.turn = std::round(light::aimed_at(light.position, {0, 0, -behind}).turn);
    return light;
}

std::optional<BackdropChange> by_own_light(const Wanted& wanted) {
    const gear::Kit& kit = wanted.plan.kit;
    const shoot::Shot& shot = wanted.plan.shot;
    const BackgroundLook look = wanted.look;
    const Lit now = lit(wanted.plan);
    if (kit.flashes.empty() || !(shot.background->reflectance > 0)) return std::nullopt;
    const double aim = std::exp2(aimed_at(look)), have = now.background ? std::exp2(*now.background) : 0;
    if (aim <= have) return std::nullopt;  // another light takes none away
    shoot::Shot other = shot;
    other.lights.push_back(card_light(kit, shot));
    shoot::Light& added = other.lights.back();
    added.power = 1;
    const Lit full = lit(plan_of(wanted.plan, other));
    if (!full.background) return std::nullopt;
    const double gives = std::exp2(*full.background) - have;
    if (!(gives > 0)) return std::nullopt;
    const auto& scale = kit.flashes.front().scale;
    const double power = (aim - have) / gives;
    if (power > 1 || power < scale.least) return std::nullopt;
    added.power = light::nearest_setting(scale, power);
    return checked(wanted, fmt::format("A light on the card, {}", setting_text(source_of(kit, added), *added.power)),
                   other);
}

}  // namespace

BackdropChange set_recipe(const Plan& plan, BackgroundLook look) {
    const shoot::Shot& shot = plan.shot;
    const Wanted wanted = wanted_of(plan, look);
    const double width = std::max(shot.subject.width, shot.subject.height);
    const bool white = look == BackgroundLook::white;
    constexpr double margin = 10;  // mm
    double distance = std::ceil(2 * width + margin);
    constexpr double farthest = 1500;  // mm: a table
    for (; distance <= farthest; distance = std::ceil(distance * 1.15)) {
        for (const Card& card : {cards[white ? 5 : 1], cards[white ? 4 : 0]}) {
            shoot::Shot set = shot;
            set.background = shot.background.value_or(shoot::Background{});
            set.background->distance = distance;
            set.background->reflectance = card.reflectance;
            set.background->kind = shoot::BackgroundKind::card;
            const auto where = fmt::format("{} {} behind", card.name, text::length_text(distance));
            if (auto plain = checked(wanted, where, set)) return *plain;
            if (!white) continue;
            if (auto lit_apart = by_own_light(wanted_of(plan_of(plan, set), look))) {
                lit_apart->label = where + ", " + lit_apart->label;
                return *lit_apart;
            }
        }
    }
    return {.label = {}, .shot = shot};
}

const char* look_text(BackgroundLook look) {
    constexpr const char* looks[] = {"black", "dark", "keeps its colour", "clean white"};
    return looks[static_cast<int>(look)];
}

}  // namespace poquito::whatif
