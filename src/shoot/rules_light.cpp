#include "shoot/advice.hpp"
#include "shoot/evaluate.hpp"
#include "shoot/scales.hpp"
#include "shoot/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

using Found = std::optional<Finding>;

char letter(std::size_t light) { return static_cast<char>('A' + light); }

bool flash_fires(const Report& report) {
    return std::ranges::any_of(report.light.sources, [](const auto& source) { return source.stops.has_value(); });
}

Found past_sync(const Plan& plan, const Report&) {
    const double shutter = plan.shot.exposure.shutter;
    if (plan.shot.lights.empty() || shutter >= plan.camera.sync * (1 - 1e-9)) return {};
    return Finding{fmt::format("{} is faster than the sync speed of {}: the flash leaves a dark band. High-speed sync "
                               "avoids it and costs light.",
                               shutter_text(shutter), shutter_text(plan.camera.sync)),
                   remedy(plan, fmt::format("Slow to {}", shutter_text(plan.camera.sync)),
                          [&](Shot& shot) { shot.exposure.shutter = plan.camera.sync; })};
}

Found power_above_full(const Plan& plan, const Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const double power = report.light.sources[i].power;
        if (power <= 1 + 1e-9) continue;
        auto text = fmt::format("Light {} would need {} times its full power.", letter(i), number_text(power, 2));
        if (plan.shot.lights[i].power)
            return Finding{std::move(text), remedy(plan, fmt::format("Set light {} to full power", letter(i)),
                                                   [&](Shot& shot) { shot.lights[i].power = 1; })};
        const double iso = step_iso(plan.shot.exposure.iso * power * (1 - 1e-6), 1);
        return Finding{std::move(text), remedy(plan, fmt::format("Raise ISO to {}", number_text(iso, 6)),
                                               [&](Shot& shot) { shot.exposure.iso = iso; })};
    }
    return {};
}

Found power_below_least(const Plan& plan, const Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        const double least = flash_of(plan.kit, light).scale.least;
        const auto& source = report.light.sources[i];
        if (!source.stops || source.power >= least * (1 - 1e-9)) continue;
        auto text = fmt::format("Light {} would need {} of its full power; its least is {}.", letter(i),
                                power_text(source.power), power_text(least));
        if (light.power)
            return Finding{std::move(text),
                           remedy(plan, fmt::format("Set light {} to {}", letter(i), power_text(least)),
                                  [&](Shot& shot) { shot.lights[i].power = least; })};
        // The same light from further away: d^2 + (w/2)^2 grows by least/power.
        const auto path = flash_path(plan.kit, light);
        const double squared =
            std::pow(std::hypot(path.distance, path.modifier_diameter / 2), 2) * least / source.power;
        const double distance = std::ceil(std::sqrt(squared - std::pow(path.modifier_diameter / 2, 2)));
        return Finding{std::move(text),
                       remedy(plan, fmt::format("Move light {} to {}", letter(i), length_text(distance)),
                              [&](Shot& shot) { shot.lights[i].position.distance = distance; })};
    }
    return {};
}

Found exposure_off(const Plan& plan, const Report& report) {
    constexpr double worth_saying = 0.5;  // stops
    const auto& total = report.light.total;
    if (!total || std::abs(*total) < worth_saying) return {};
    const auto text = fmt::format("The exposure is {} stops from correct.", stops_text(*total));
    if (!plan.shot.lights.empty()) {
        const bool ambient_too_bright = report.light.ambient && *report.light.ambient >= 0;
        const bool automatic = std::ranges::any_of(plan.shot.lights, [](const auto& l) { return !l.power; });
        if (ambient_too_bright || automatic) return Finding{text};
        return Finding{text, remedy(plan, "Let the flashes find the power", [](Shot& shot) {
                           for (Light& light : shot.lights) light.power.reset();
                       })};
    }
    const double wanted = plan.shot.exposure.shutter * std::exp2(-*total);
    const double shutter = step_shutter(wanted * std::exp2(1.0 / 6), -1);
    if (shutter > 60) return Finding{text};
    return Finding{text, remedy(plan, fmt::format("Expose {}", shutter_text(shutter)),
                                [&](Shot& shot) { shot.exposure.shutter = shutter; })};
}

Found ambient_not_negligible(const Plan& plan, const Report& report) {
    const auto& subject = plan.shot.subject;
    if (!flash_fires(report) || report.motion.frozen_by_flash || !report.light.ambient) return {};
    if (subject.speed == 0 && subject.sway_amplitude == 0) return {};
    const double below = *report.light.total - *report.light.ambient;
    if (below >= flash_makes_exposure) return {};
    Finding finding{
        fmt::format("Ambient light is only {} stops below the total: the movement shows beside the frozen "
                    "flash image. It takes 4.",
                    number_text(below, 2))};
    if (plan.shot.exposure.shutter > plan.camera.sync * (1 + 1e-9))
        finding.remedy = remedy(plan, fmt::format("Shorten to {}", shutter_text(plan.camera.sync)),
                                [&](Shot& shot) { shot.exposure.shutter = plan.camera.sync; });
    return finding;
}

/// The first ISO at which automatic flashes, then needing less power, are `shorter` times as long or less.
std::optional<double> iso_that_freezes(const Plan& plan, const Report& report, double shorter) {
    const double iso_now = plan.shot.exposure.iso;
    constexpr double highest = 6400;  // beyond it most frames are noisy (common practice)
    for (double iso = step_iso(iso_now, 1); iso <= highest; iso = step_iso(iso, 1)) {
        const auto freezes = [&](std::size_t i) {
            const auto& light = plan.shot.lights[i];
            const auto& flash = flash_of(plan.kit, light);
            const double power = report.light.sources[i].power * iso_now / iso;
            if (light.power || power < flash.scale.least) return false;
            const auto t05 = light::duration_at(flash.durations, power);
            return t05 && light::t01_from_t05(flash.discharge, *t05) <= report.motion.exposure_time * shorter;
        };
        bool all = true;
        for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) all = all && freezes(i);
        if (all) return iso;
    }
    return std::nullopt;
}

Found motion_blur(const Plan& plan, const Report& report) {
    const double blur = std::max(report.motion.blur, report.motion.sway_blur);
    const double limit = report.sharpness.blur_limit;
    if (blur <= limit) return {};
    Finding finding{fmt::format("Movement smears {} on the sensor in {}; the blur limit is {}.", length_text(blur),
                                shutter_text(report.motion.exposure_time), length_text(limit))};
    if (report.motion.frozen_by_flash) {
        if (const auto iso = iso_that_freezes(plan, report, limit / blur))
            finding.remedy = remedy(plan, fmt::format("Less flash power: ISO {}", number_text(*iso, 6)),
                                    [&](Shot& shot) { shot.exposure.iso = *iso; });
        return finding;
    }
    if (!plan.shot.lights.empty()) return finding;
    // Small swings blur in proportion to the time, large ones less: proportion is on the safe side.
    const double shutter = step_shutter(plan.shot.exposure.shutter * limit / blur * (1 + 1e-6), -1);
    const double iso = step_iso(plan.shot.exposure.iso * plan.shot.exposure.shutter / shutter * std::exp2(-1.0 / 6), 1);
    if (iso > 25600) return finding;  // past what most cameras can show (common practice)
    finding.remedy =
        remedy(plan, fmt::format("{} at ISO {}", shutter_text(shutter), number_text(iso, 6)), [&](Shot& shot) {
            shot.exposure.shutter = shutter;
            shot.exposure.iso = iso;
        });
    return finding;
}

Found recycle_slow(const Plan& plan, const Report& report) {
    const auto& capture = report.capture;
    if (capture.frames < 2 || capture.recycle <= capture.interval * (1 + 1e-9)) return {};
    const double interval = std::ceil(capture.recycle * 2) / 2;
    return Finding{fmt::format("The flash needs {} to recycle, the frames come every {}: it would miss some.",
                               time_text(capture.recycle), time_text(capture.interval)),
                   remedy(plan, fmt::format("A frame every {}", time_text(interval)),
                          [&](Shot& shot) { shot.capture.interval = interval; })};
}

Found no_light(const Plan&, const Report& report) {
    if (report.light.total) return {};
    return Finding{"No light is planned yet: give the ambient EV or add a flash."};
}

Found automatic_idle(const Plan& plan, const Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i)
        if (!plan.shot.lights[i].power && !report.light.sources[i].stops)
            return Finding{fmt::format("The other light is enough already: automatic light {} stays dark.", letter(i))};
    return {};
}

Found duration_unknown(const Plan& plan, const Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.stops || source.t05) continue;
        return Finding{fmt::format("The table of {} gives no duration at {}: whether light {} freezes is not known.",
                                   flash_of(plan.kit, plan.shot.lights[i]).name, power_text(source.power), letter(i))};
    }
    return {};
}

Found background_black(const Plan& plan, const Report& report) {
    using light::BackgroundLook;
    const auto& look = report.light.background_look;
    constexpr double black_card = 0.06;  // reflectance; darker was chosen to be black
    if (!look || *look > BackgroundLook::dark || plan.shot.background->reflectance <= black_card) return {};
    return Finding{
        fmt::format("The background falls to {} ({} stops): a slower shutter, a light on it or a nearer card "
                    "would keep its colour.",
                    *look == BackgroundLook::black ? "black" : "near black", stops_text(*report.light.background))};
}

constexpr Rule rules[] = {
    {"past-sync", Station::light, Level::stop, Concern::plan, past_sync},
    {"power-above-full", Station::light, Level::stop, Concern::plan, power_above_full},
    {"power-below-least", Station::light, Level::stop, Concern::plan, power_below_least},
    {"exposure-off", Station::light, Level::caution, Concern::plan, exposure_off},
    {"ambient-not-negligible", Station::light, Level::caution, Concern::plan, ambient_not_negligible},
    {"motion-blur", Station::light, Level::caution, Concern::plan, motion_blur},
    {"recycle-slow", Station::light, Level::caution, Concern::plan, recycle_slow},
    {"no-light", Station::light, Level::info, Concern::plan, no_light},
    {"automatic-idle", Station::light, Level::info, Concern::plan, automatic_idle},
    {"duration-unknown", Station::light, Level::info, Concern::plan, duration_unknown},
    {"background-black", Station::light, Level::info, Concern::plan, background_black},
};

}  // namespace

std::span<const Rule> light_rules() { return rules; }

}  // namespace poquito::shoot
