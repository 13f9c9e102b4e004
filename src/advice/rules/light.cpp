#include "advice/rules/rules.hpp"
#include "light/store.hpp"
#include "plan/assess.hpp"
#include "plan/light/charges.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

/// A flash whose light counts at the subject.
bool fires(const plan::SourceReport& source) { return !source.continuous && source.stops; }
bool flash_fires(const plan::Report& report) { return std::ranges::any_of(report.light.sources, fires); }

Found past_sync(const plan::Plan& plan, const plan::Report&) {
    const double shutter = plan.shot.exposure.shutter;
    const auto bands = [&](const plan::Source& source) {
        return source.is_flash() && !source.set.off && !plan::in_high_speed(plan, source);
    };
    if (shutter >= plan.camera.sync * (1 - 1e-9) || std::ranges::none_of(plan.sources, bands)) return {};
    const bool all_could = std::ranges::all_of(
        plan.sources, [&](const plan::Source& source) { return !source.is_flash() || source.flash->high_speed_sync; });
    if (all_could && !plan.shot.exposure.high_speed_sync) {
        const auto first = std::ranges::find_if(plan.sources, bands);
        const double loss =
            light::high_speed_loss({.sync = plan.camera.sync, .at_sync = first->flash->high_speed_loss}, shutter);
        return Finding{
            fmt::format("{} is faster than the sync speed of {}: the flash leaves a dark band. High-speed "
                        "sync avoids it for about {} stops of light, and no longer freezes.",
                        text::shutter_text(shutter), text::shutter_text(plan.camera.sync), text::number_text(loss, 2)),
            remedy(plan, "High-speed sync", [&](shoot::Shot& shot) { shot.exposure.high_speed_sync = true; })};
    }
    return Finding{fmt::format("{} is faster than the sync speed of {}: the flash leaves a dark band. High-speed sync "
                               "avoids it and costs light.",
                               text::shutter_text(shutter), text::shutter_text(plan.camera.sync)),
                   remedy(plan, fmt::format("Slow to {}", text::shutter_text(plan.camera.sync)),
                          [&](shoot::Shot& shot) { shot.exposure.shutter = plan.camera.sync; })};
}

/// A third of a stop past either end of a flash's scale is within what exposures are off anyway.
constexpr double unnoticed = 1.26;

Found power_above_full(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const double power = report.light.sources[i].power;
        if (power <= unnoticed) continue;
        auto text = fmt::format("Light {} would need {} times its full power.", report.light.sources[i].label,
                                text::number_text(power, 2));
        if (plan.shot.lights[i].power)
            return Finding{std::move(text),
                           remedy(plan, fmt::format("Set light {} to full power", report.light.sources[i].label),
                                  [&](shoot::Shot& shot) { shot.lights[i].power = 1; })};
        const double iso = text::step_iso(plan.shot.exposure.iso * power * (1 - 1e-6), 1);
        return Finding{std::move(text), remedy(plan, fmt::format("Raise ISO to {}", text::number_text(iso, 6)),
                                               [&](shoot::Shot& shot) { shot.exposure.iso = iso; })};
    }
    return {};
}

Found power_below_least(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        const double least = plan::power_scale(plan.sources[i]).least;
        const auto& source = report.light.sources[i];
        if (!source.fires || source.reflector || source.power >= least / unnoticed) continue;
        auto text = fmt::format("Light {} would need {} of its full power; its least is {}.",
                                report.light.sources[i].label, text::power_text(source.power), text::power_text(least));
        if (light.power)
            return Finding{
                std::move(text),
                remedy(plan, fmt::format("Set light {} to {}", report.light.sources[i].label, text::power_text(least)),
                       [&](shoot::Shot& shot) { shot.lights[i].power = least; })};
        // The same light from further away: d^2 + (w/2)^2 grows by least/power.
        if (light.on_lens) return Finding{std::move(text)};
        const auto path = plan::flash_path(plan, plan.sources[i]);
        const double squared =
            std::pow(std::hypot(path.distance, path.modifier_diameter / 2), 2) * least / source.power;
        const double bounced = light.bounce ? light.bounce->from_lamp : 0;
        const double distance = std::ceil(std::sqrt(squared - std::pow(path.modifier_diameter / 2, 2)) - bounced);
        return Finding{
            std::move(text),
            remedy(plan, fmt::format("Move light {} to {}", report.light.sources[i].label, text::length_text(distance)),
                   [&](shoot::Shot& shot) { shot.lights[i].position.distance = distance; })};
    }
    return {};
}

/// What moves is to be drawn, and not frozen.
bool is_drawn(const plan::Plan& plan) { return plan.terms.wishes.movement == shoot::WantedMovement::drawn; }

Found exposure_off(const plan::Plan& plan, const plan::Report& report) {
    constexpr double worth_saying = 0.5;  // stops
    const auto total = off_wanted(plan, report);
    if (!total || std::abs(*total) < worth_saying) return {};
    Finding finding{
        fmt::format("The exposure is {} stops too {}{}.", text::number_text(std::round(std::abs(*total) * 10) / 10, 3),
                    *total > 0 ? "bright" : "dark", plan.terms.wishes.brighter ? " for what you wish" : "")};
    const bool any_flash = std::ranges::any_of(plan.shot.lights, plan::is_flash);
    if (!any_flash) finding.ways = brighter(plan, -*total);
    return finding;
}

Found ambient_not_negligible(const plan::Plan& plan, const plan::Report& report) {
    const auto& subject = plan.shot.subject;
    if (!flash_fires(report) || report.motion.frozen_by_flash || !report.light.continuous) return {};
    if ((subject.speed == 0 && subject.sway_amplitude == 0) || is_drawn(plan)) return {};
    const double below = *report.light.front_total - *report.light.continuous;
    if (below >= plan::flash_makes_exposure) return {};
    Finding finding{
        fmt::format("Ambient light is only {} stops below the total: the movement shows beside the frozen "
                    "flash image, {} long with {} % of the light. It takes 4 stops.",
                    text::number_text(below, 2), text::length_text(report.motion.ghost_blur),
                    text::number_text(report.motion.ghost_share * 100, 2))};
    if (plan.shot.exposure.shutter > plan.camera.sync * (1 + 1e-9))
        finding.remedy = remedy(plan, fmt::format("Shorten to {}", text::shutter_text(plan.camera.sync)),
                                [&](shoot::Shot& shot) { shot.exposure.shutter = plan.camera.sync; });
    return finding;
}

/// The first ISO at which automatic flashes, then needing less power, are `shorter` times as long or less.
std::optional<double> iso_that_freezes(const plan::Plan& plan, const plan::Report& report, double shorter) {
    const double iso_now = plan.shot.exposure.iso;
    const double highest = highest_iso(plan);
    for (double iso = text::step_iso(iso_now, 1), before = iso_now; iso > before && iso <= highest;
         before = iso, iso = text::step_iso(iso, 1)) {
        const auto freezes = [&](std::size_t i) {
            if (!plan.sources[i].is_flash()) return true;
            const auto& flash = *plan.sources[i].flash;
            const double power = report.light.sources[i].power * iso_now / iso;
            if (plan.shot.lights[i].power || power < flash.scale.least) return false;
            const auto lasts = gear::flash_time(flash, power);
            return lasts && lasts->t01 <= report.motion.exposure_time * shorter;
        };
        bool all = true;
        for (std::size_t i = 0; all && i < plan.shot.lights.size(); ++i) all = freezes(i);
        if (all) return iso;
    }
    return std::nullopt;
}

/// Share of frames that a cause lets be sharp.
double share_of(const plan::Report& report, plan::ChanceCause cause) {
    if (!report.chance) return 1;
    const auto found = std::ranges::find(report.chance->causes, cause, &plan::CauseOdds::cause);
    return found == report.chance->causes.end() ? 1 : found->share;
}
/// From here on it is told of: of three frames one is lost.
constexpr double told_below = 2.0 / 3;

bool moves_too_fast(const plan::Report& report) {
    return share_of(report, plan::ChanceCause::moving) < told_below ||
           share_of(report, plan::ChanceCause::wind) < told_below ||
           share_of(report, plan::ChanceCause::flash) < told_below;
}

Found motion_blur(const plan::Plan& plan, const plan::Report& report) {
    const double blur = std::max(report.motion.blur, report.motion.sway_blur);
    const double limit = report.sharpness.blur_limit;
    if (!moves_too_fast(report) || is_drawn(plan)) return {};
    const bool hands = report.motion.hand_blur > limit;
    Finding finding{
        fmt::format("Movement smears {} on the sensor in {}{}; the blur limit is {}.", text::length_text(blur),
                    text::shutter_text(report.motion.exposure_time),
                    hands ? fmt::format(", hands about {}", text::length_text(report.motion.hand_blur)) : "",
                    text::length_text(limit))};
    if (report.motion.frozen_by_flash) {
        if (const auto iso = iso_that_freezes(plan, report, limit / blur))
            finding.remedy = remedy(plan, fmt::format("Less flash power: ISO {}", text::number_text(*iso, 6)),
                                    [&](shoot::Shot& shot) { shot.exposure.iso = *iso; });
        return finding;
    }
    if (!plan.shot.lights.empty()) return finding;
    // Small swings blur in proportion to the time, large ones less: proportion is on the safe side.
    finding.ways = shorter_time(plan, std::log2(std::max({blur, report.motion.hand_blur, 2 * limit}) / limit));
    return finding;
}

/// The same light by as much less power as it takes, and more ISO; null where some unit has no power so low, or the ISO
/// would pass the highest.
std::optional<int> thirds_down(const plan::Plan& plan, const plan::Report& report) {
    const double frames = plan::frames_in_a_row(report);
    double before = plan.shot.exposure.iso;
    for (int thirds = 1;; ++thirds) {
        const double iso = text::step_iso(plan.shot.exposure.iso, thirds);
        if (iso > highest_iso(plan) || iso <= before) return std::nullopt;  // the scale's end
        before = iso;
        const double factor = plan.shot.exposure.iso / iso;  // by the marks that are set, not by exact thirds
        bool all_whole = true;
        for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
            const auto& source = report.light.sources[i];
            if (!source.fires || source.continuous) continue;
            auto burst = plan::rapid_fire_of(plan, report, i);
            burst.power *= factor;
            if (burst.power < plan::power_scale(plan.sources[i]).least * (1 - 1e-9)) return std::nullopt;
            const auto whole = light::whole_flashes(burst);
            all_whole = all_whole && (!whole || *whole >= frames);
        }
        if (all_whole) return thirds;
    }
}

shoot::Shot with_less_power(const plan::Plan& plan, int thirds) {
    shoot::Shot shot = plan.shot;
    shot.exposure.iso = text::step_iso(shot.exposure.iso, thirds);
    const double factor = shot.exposure.iso / plan.shot.exposure.iso;
    for (auto& light : shot.lights)
        if (plan::is_flash(light) && light.power) *light.power /= factor;
    return shot;
}

/// A repeating flash gives its burst out of what it holds, and what comes in meanwhile.
Found burst_starves(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.freeze || !plan.shot.freeze->repeating) return {};
    const auto& burst = plan.shot.freeze->repeating->burst;
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.fires || source.continuous || !(source.power > 0)) continue;
        const auto& flash = *plan.sources[i].flash;
        const double holds = flash.burst_store + light::burst_time(burst) / std::max(flash.recycle_full, 1e-3);
        const double whole = std::floor(holds / source.power);
        if (whole >= burst.flashes) continue;
        const double power =
            light::nearest_setting(flash.scale, holds / burst.flashes / std::exp2(flash.scale.step / 2));
        return Finding{
            fmt::format("At {} flash {} holds {} in a row and the burst has {}: the last are weak. {} lasts "
                        "for all of them.",
                        plan::setting_text(plan.sources[i], source.power), source.label,
                        text::count_text(whole, "whole flash", "whole flashes"), text::number_text(burst.flashes, 3),
                        plan::setting_text(plan.sources[i], power))};
    }
    return {};
}

/// Ways out (MODEL 6): less power and more ISO, a slower pace, passes.
Found recycle_slow(const plan::Plan& plan, const plan::Report& report) {
    if (auto starved = burst_starves(plan, report)) return starved;
    const auto& sources = report.light.sources;
    const auto whole = [&](std::size_t i) { return sources[i].whole_frames.value_or(plan::frames_in_a_row(report)); };
    std::optional<std::size_t> weakest;
    for (std::size_t i = 0; i < sources.size(); ++i)
        if (sources[i].whole_frames && (!weakest || whole(i) < whole(*weakest))) weakest = i;
    if (!weakest) return {};
    const double frames = plan::frames_in_a_row(report), first = whole(*weakest);
    const auto burst = plan::rapid_fire_of(plan, report, *weakest);
    Finding finding{
        first < 1
            ? fmt::format("Flash {} gives more than it holds in a burst: no frame is whole.", sources[*weakest].label)
            : fmt::format("Flash {} starves: at a frame every {} the first {} of {} are whole, the next is weak.",
                          sources[*weakest].label, text::time_text(burst.every),
                          text::count_text(first, "frame", "frames"), text::number_text(frames, 5))};
    if (const auto thirds = thirds_down(plan, report)) {
        const double iso = text::step_iso(plan.shot.exposure.iso, *thirds);
        finding.ways.push_back(
            {shoot::Loss::iso, remedy(plan, fmt::format("Less power, ISO {}", text::number_text(iso, 6)),
                                      [&](shoot::Shot& shot) { shot = with_less_power(plan, *thirds); })});
    }
    double pace = 0;
    for (std::size_t i = 0; i < sources.size(); ++i)
        if (sources[i].whole_frames) {
            const auto every = light::pace_for(plan::rapid_fire_of(plan, report, i), frames);
            if (!every) return finding;
            pace = std::max(pace, *every);
        }
    const double tidy = pace < 1 ? std::ceil(pace * 20 - 1e-9) / 20 : std::ceil(pace * 2 - 1e-9) / 2;
    // A cadence of the camera's own is there to be lived with, while there is another way.
    if (!plan.shot.capture.cadence || finding.ways.empty())
        finding.ways.push_back({shoot::Loss::time, remedy(plan, fmt::format("A frame every {}", text::time_text(tidy)),
                                                          [&](shoot::Shot& shot) {
                                                              shot.capture.interval = tidy;
                                                              shot.capture.cadence.reset();
                                                          })});
    if (first >= 1)
        finding.text += fmt::format(" Else in {} with a rest between.",
                                    text::count_text(std::ceil(frames / first), "pass", "passes"));
    return finding;
}

Found no_light(const plan::Plan& plan, const plan::Report& report) {
    if (report.light.total || !plan.shot.lights.empty()) return {};
    if (plan.shot.background && plan.shot.background->own_ev100) return {};  // what shines behind is one
    return Finding{"No light is planned yet: say how bright it is there, or add a flash."};
}

Found automatic_idle(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i)
        if (plan::shares_exposure(plan.shot.lights[i]) && !report.light.sources[i].fires &&
            !report.light.sources[i].aimless)
            return Finding{fmt::format("The other light is enough already: automatic light {} stays dark.",
                                       report.light.sources[i].label)};
    return {};
}

Found duration_unknown(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!fires(source) || plan::in_high_speed(plan, plan.sources[i])) continue;
        const auto& flash = *plan.sources[i].flash;
        if (flash.durations.empty())
            return Finding{
                fmt::format("The record of {} has no durations: taken as 1/1000 s at full power and in "
                            "proportion below (common practice), {} here.",
                            flash.name, text::shutter_text(source.t01.value_or(0)))};
        if (source.t05) continue;
        return Finding{fmt::format("The table of {} gives no duration at {}: whether light {} freezes is not known.",
                                   plan.sources[i].flash->name, text::power_text(source.power),
                                   report.light.sources[i].label)};
    }
    return {};
}

Found background_black(const plan::Plan& plan, const plan::Report& report) {
    using light::BackgroundLook;
    const auto& look = report.light.background_look;
    if (plan.terms.wishes.ground != shoot::WantedGround::unsaid) return {};
    constexpr double black_card = 0.06;  // reflectance; darker was chosen to be black
    if (!look || *look > BackgroundLook::dark || plan.shot.background->reflectance <= black_card) return {};
    return Finding{fmt::format(
        "The background falls to {} ({} stops): a slower shutter, a light on it or a nearer card "
        "would keep its colour.",
        *look == BackgroundLook::black ? "black" : "near black", text::stops_text(*report.light.background))};
}

Found automatic_misses(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        const auto& metering = report.light.sources[i].metering;
        if (!light.metered || !metering) continue;
        const double off = metering->expected + *light.metered;
        constexpr double worth_saying = 1.0 / 3 + 1e-9;  // stops
        if (std::abs(metering->advised - *light.metered) < worth_saying) continue;
        using By = plan::MeteringReport::By;
        std::string why =
            metering->by == By::learned
                ? fmt::format("By {} of this unit it comes out {} stops {}",
                              text::count_text(metering->learned.count, "test frame", "test frames"),
                              text::number_text(std::abs(off), 2), off > 0 ? "too bright" : "too dark")
            : metering->by == By::practice
                ? fmt::format(
                      "Practice begins such a subject at {} (common practice), where an average over the frame "
                      "would ask for {}; cameras' meters differ",
                      text::stops_text(metering->advised), text::stops_text(-metering->error))
                : fmt::format(
                      "The camera's metering will come out {} stops {}: it takes {} % of the frame for the "
                      "subject and meters an average of {} %",
                      text::number_text(std::abs(off), 2), off > 0 ? "too bright" : "too dark",
                      text::number_text(metering->fill * 100, 2), text::number_text(metering->reflectance * 100, 2));
        why += ". Look at the highlight of the first frame.";
        return Finding{std::move(why), remedy(plan, fmt::format("Compensation {}", text::stops_text(metering->advised)),
                                              [&](shoot::Shot& shot) { shot.lights[i].metered = metering->advised; })};
    }
    return {};
}

Found automatic_hides_stop(const plan::Plan& plan, const plan::Report&) {
    if (std::ranges::none_of(plan.shot.lights, [](const shoot::Light& light) { return light.metered.has_value(); }))
        return {};
    return Finding{
        "Automatic flash hides a changed stop: the exposure looks right and the depth is another. Look at the f-number "
        "before each frame; a fixed power would show it."};
}

Found frames_flicker(const plan::Plan& plan, const plan::Report& report) {
    constexpr double visible = 0.15;  // stops between frames (common practice)
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.flicker || !source.share) continue;
        const double swing = *source.flicker * *source.share;  // small swings weigh by their share
        if (swing < visible) continue;
        const double frequency = *plan.sources[i].lamp->flicker;
        const double whole = std::ceil(plan.shot.exposure.shutter * frequency - 1e-9) / frequency;
        return Finding{
            fmt::format("Light {} follows the mains: frames of {} differ by up to {} stops, and rows of one "
                        "frame too.",
                        source.label, text::shutter_text(plan.shot.exposure.shutter), text::number_text(swing, 2)),
            remedy(plan, fmt::format("Expose {}", text::shutter_text(whole)), [&](shoot::Shot& shot) {
                shot.exposure.iso *= shot.exposure.shutter / whole;
                shot.exposure.shutter = whole;
            })};
    }
    return {};
}

/// How many flashes the unit of a light gives in this shot.
double flashes_of(const plan::Plan& plan, const plan::Report& report) {
    return report.capture.frames * plan::flashes_a_frame(plan.shot);
}

Found flash_overheats(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        if (report.light.sources[i].continuous || !report.light.sources[i].fires) continue;
        const gear::Flash& flash = *plan.sources[i].flash;
        const auto most = plan::flashes_a_minute(flash, report.light.sources[i].power);
        const double pace = 60 / std::max(report.capture.interval, report.capture.recycle);
        if (!most || flashes_of(plan, report) <= *most || pace <= *most * (1 + 1e-9)) continue;
        const double interval = std::ceil(60 / *most * 2) / 2;
        return Finding{fmt::format("{} stands {} flashes a minute at this power and would give {}: it cuts out or "
                                   "bakes its face.",
                                   flash.name, text::number_text(std::floor(*most), 3), text::number_text(pace, 2)),
                       remedy(plan, fmt::format("A frame every {}", text::time_text(interval)),
                              [&](shoot::Shot& shot) { shot.capture.interval = interval; })};
    }
    return {};
}

Found battery_short(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        if (report.light.sources[i].continuous || !report.light.sources[i].fires) continue;
        const gear::Flash& flash = *plan.sources[i].flash;
        const double taken = flashes_of(plan, report) * std::min(report.light.sources[i].power, 1.0);
        if (!flash.charge || taken <= *flash.charge) continue;
        return Finding{fmt::format("These frames take {} charges of {}: fresh batteries at hand, or less power.",
                                   text::number_text(taken / *flash.charge, 2), flash.name)};
    }
    return {};
}

/// Durations that go up and down are a slip; one alone says nothing beside itself.
Found duration_table(const plan::Plan& plan, const plan::Report&) {
    for (const plan::Source& source : plan.sources) {
        if (!source.is_flash()) continue;
        const gear::Flash& flash = *source.flash;
        if (flash.durations.size() == 1)
            return Finding{
                fmt::format("The duration table of {} has one row: it holds at {} alone. Two powers or more "
                            "let it be read in between.",
                            flash.name, text::power_text(flash.durations.front().power))};
        if (const auto turn = light::turning_point(flash.durations))
            return Finding{
                fmt::format("The duration table of {} turns at {}: durations grow or shrink with power, "
                            "they do not do both. Look at that row in the kit room.",
                            flash.name, text::power_text(*turn))};
    }
    return {};
}

/// Where the subject's own movement is too much, that note says both: one time causes them.
Found hand_shake(const plan::Plan& plan, const plan::Report& report) {
    const double blur = report.motion.hand_blur, limit = report.sharpness.blur_limit;
    if (share_of(report, plan::ChanceCause::hands) >= told_below || moves_too_fast(report)) return {};
    Finding finding{
        fmt::format("By hand the camera smears about {} in {}; the blur limit is {}. Brace, use a support "
                    "or let the flash make the exposure.",
                    text::length_text(blur), text::shutter_text(report.motion.exposure_time),
                    text::length_text(report.sharpness.blur_limit))};
    if (!report.motion.frozen_by_flash && !plan::finds_power(plan))
        finding.ways = shorter_time(plan, std::log2(blur / limit));
    if (plan::finds_power(plan) && !report.motion.frozen_by_flash && plan.shot.exposure.shutter > plan.camera.sync)
        finding.ways.push_back(
            {shoot::Loss::background, remedy(plan, fmt::format("Shorten to {}", text::shutter_text(plan.camera.sync)),
                                             [&](shoot::Shot& shot) { shot.exposure.shutter = plan.camera.sync; })});
    return finding;
}

Found reflection_bare(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.reflections.size(); ++i) {
        const auto& reflection = report.reflections[i];
        const auto& source = report.light.sources[i];
        if (!source.stops || plan.shot.lights[i].modifier || plan.shot.lights[i].bounce) continue;
        if (reflection.mirrored <= 0 && reflection.marks.empty()) continue;
        const auto marks = reflection.marks.size() > 1 ? std::string("two burnt points") : std::string("a burnt point");
        auto text =
            fmt::format("Light {} is bare and the polished face shows it: {}. A bigger, nearer source is softer.",
                        source.label, marks);
        if (plan.kit.modifiers.empty()) return Finding{std::move(text)};
        const auto largest = std::ranges::max_element(plan.kit.modifiers, {}, &gear::Modifier::diameter);
        return Finding{std::move(text), remedy(plan, fmt::format("{} on light {}", largest->name, source.label),
                                               [&](shoot::Shot& shot) { shot.lights[i].modifier = largest->id; })};
    }
    return {};
}

constexpr Rule light_rows[] = {
    {"past-sync", Station::light, Level::stop, Concern::plan, past_sync},
    {"power-above-full", Station::light, Level::stop, Concern::plan, power_above_full},
    {"power-below-least", Station::light, Level::stop, Concern::plan, power_below_least},
    {"exposure-off", Station::light, Level::caution, Concern::plan, exposure_off, Quality::exposure},
    {"ambient-not-negligible", Station::light, Level::caution, Concern::plan, ambient_not_negligible, Quality::ghost},
    {"motion-blur", Station::light, Level::caution, Concern::plan, motion_blur, Quality::odds},
    {"recycle-slow", Station::light, Level::caution, Concern::plan, recycle_slow},
    {"hand-shake", Station::light, Level::caution, Concern::plan, hand_shake, Quality::odds},
    {"flash-overheats", Station::light, Level::caution, Concern::plan, flash_overheats},
    {"battery-short", Station::light, Level::caution, Concern::plan, battery_short},
    {"frames-flicker", Station::light, Level::caution, Concern::plan, frames_flicker},
    {"duration-table", Station::light, Level::caution, Concern::plan, duration_table},
    {"automatic-misses", Station::light, Level::caution, Concern::plan, automatic_misses},
    {"reflection-bare", Station::light, Level::caution, Concern::plan, reflection_bare},
    {"automatic-hides-stop", Station::light, Level::info, Concern::plan, automatic_hides_stop},
    {"no-light", Station::light, Level::info, Concern::plan, no_light},
    {"automatic-idle", Station::light, Level::info, Concern::plan, automatic_idle},
    {"duration-unknown", Station::light, Level::info, Concern::plan, duration_unknown},
    {"background-black", Station::light, Level::info, Concern::plan, background_black},
};

}  // namespace

std::span<const Rule> light_rules() { return light_rows; }

}  // namespace poquito::advice
