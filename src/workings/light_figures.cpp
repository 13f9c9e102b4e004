#include "light/angle.hpp"
#include "light/direction.hpp"
#include "light/store.hpp"
#include "light/toss.hpp"
#include "optics/motion.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/trajectory.hpp"
#include "plan/plan.hpp"
#include "sheet.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::workings {

void Sheet::light() {
    station_ = advice::Station::light;
    const auto& light = report_.light;
    const auto settings = plan::settings_of(plan_);
    if (light.ambient) {
        auto& ambient = add("ambient_stops", "Ambient", text::stops_text(*light.ambient), "stops");
        const auto& panel = plan_.shot.ambient->panel;
        const double lost = settings.loss + (panel ? panel->loss : 0);  // filters and the panel before the window
        std::string formula = light::ambient_formula;
        Bindings bindings = {{"EV", plan_.shot.ambient->ev100},
                             {"ISO", settings.iso},
                             {"t", settings.shutter},
                             {"N_w", settings.working_f_number}};
        if (lost != 0) {
            formula += " - l";
            bindings.push_back({"l", lost});
        }
        ambient.working = working("ambient", formula, bindings, *light.ambient, "stops", exposure_source);
    }
    for (std::size_t i = 0; i < light.sources.size(); ++i) source_figures(i);
    if (light.front_total) {
        auto& total = add("front_total_stops", "Exposure", text::stops_text(*light.front_total), "stops");
        weigh(total, "exposure-off");
        const double ambient = light.ambient_front ? std::exp2(*light.ambient_front) : 0;
        total.working = working("exposure", light::flash_sum_formula,
                                {{"a", ambient}, {"f", std::exp2(*light.front_total) - ambient}}, *light.front_total,
                                "stops", "model 6: as the camera sees it; sources add as exposure ratios");
    }
    if (light.highlight) {
        auto& highlight = add("highlight_stops", "Highlights", text::stops_text(*light.highlight),
                              light.highlight_room < 0 ? "stops, clip" : "stops");
        weigh(highlight, "highlight-clips");
        const auto& subject = plan_.shot.subject;
        const double through = light.through ? std::exp2(*light.through) : 0;
        highlight.working = working("highlight", light::highlight_formula,
                                    {{"r_h", subject.highlight_reflectance.value_or(subject.reflectance)},
                                     {"f", std::exp2(*light.front_total) - through},
                                     {"r", subject.reflectance},
                                     {"h", through}},
                                    *light.highlight, "stops",
                                    "model 6: f on the front, h through it, as exposure ratios; clips from +2.47");
    }
    balance_figures();
    if (light.background) {
        constexpr const char* looks[] = {"black", "dark", "grey", "white"};
        add("background_stops", "Background", text::stops_text(*light.background),
            fmt::format("stops, {}", looks[static_cast<int>(*light.background_look)]))
            .working = working("background", light::background_formula,
                               {{"B", std::exp2(*light.background) * 0.18 / plan_.shot.background->reflectance},
                                {"r", plan_.shot.background->reflectance}},
                               *light.background, "stops", "model 3, B the light at the card over a correct exposure");
    }
    freeze();
    motion_figures();
}

void Sheet::in_pixels(Figure& blur, double mm) const {
    blur.unit += fmt::format(", {} px", text::number_text(mm / optics::pixel_pitch(plan_.sensor), 2));
}

void Sheet::motion_figures() {
    const auto& light = report_.light;
    const auto& motion = report_.motion;
    if (motion.blur > 0) {
        auto& blur = add_length("blur_mm", "Blur from movement", motion.blur);
        in_pixels(blur, motion.blur);
        weigh(blur, "motion-blur");
        blur.working =
            working("blur", optics::motion_blur_formula,
                    {{"m", report_.optics.magnification}, {"w", plan_.shot.subject.speed}, {"t", motion.exposure_time}},
                    motion.blur, "mm",
                    motion.frozen_by_flash ? "model 2; t is the flash's t0.1" : "model 2; t is the shutter time");
    }
    if (motion.ghost_share > 0) {
        auto& ghost = add("ghost_share", "Ghost, of the light", text::number_text(motion.ghost_share * 100, 2), "%");
        weigh(ghost, "ambient-not-negligible");
        in_pixels(ghost, motion.ghost_blur);
        ghost.working = working(
            "share", "100 * a / (a + f)",
            {{"a", std::exp2(*light.continuous)}, {"f", std::exp2(*light.front_total) - std::exp2(*light.continuous)}},
            motion.ghost_share * 100, "%", "what stays on over all light, as exposure ratios");
    }
    if (motion.hand_blur > 0) {
        auto& blur = add_length("hand_blur_mm", "Blur from the hands", motion.hand_blur);
        in_pixels(blur, motion.hand_blur);
        weigh(blur, "hand-shake");
        blur.working = working("blur", plan::hand_blur_formula,
                               {{"w", plan::HandShake::turning},
                                {"f", report_.optics.focal_length},
                                {"m", std::max(report_.optics.magnification, 0.0)},
                                {"v", plan::HandShake::shifting},
                                {"t", motion.exposure_time}},
                               motion.hand_blur, "mm", "hands turn by w rad/s and shift by v mm/s: common practice");
    }
    if (motion.sway_blur > 0) {
        auto& blur = add_length("sway_blur_mm", "Blur from sway", motion.sway_blur);
        in_pixels(blur, motion.sway_blur);
        weigh(blur, "motion-blur");
        blur.working = working("blur", optics::oscillation_blur_formula,
                               {{"a", plan_.shot.subject.sway_amplitude},
                                {"m", report_.optics.magnification},
                                {"F", plan_.shot.subject.sway_frequency},
                                {"t", motion.exposure_time}},
                               motion.sway_blur, "mm", "model 2, at worst");
    }
}

namespace {

std::string calibrated_text(const light::Calibrated& calibrated) {
    if (calibrated.count == 0) return {};
    if (!calibrated.spread)
        return fmt::format(", calibrated by {}", text::count_text(calibrated.count, "frame", "frames"));
    return fmt::format(", calibrated by {} frames \u00b1 {}", calibrated.count,
                       text::number_text(*calibrated.spread, 2));
}

}  // namespace

void Sheet::source_figures(std::size_t i) {
    const auto& source = report_.light.sources[i];
    const auto& light = plan_.shot.lights[i];
    const auto name = fmt::format("{} {} at the subject",
                                  source.reflector    ? "Card"
                                  : source.continuous ? "Lamp"
                                                      : "Flash",
                                  source.label);
    if (!source.fires) {
        add("stops", name, "off");
        return;
    }
    if (source.stops) {
        auto& stops =
            add("stops", name, text::stops_text(*source.stops),
                "stops" + calibrated_text(source.calibration.count ? source.calibration : source.modifier_calibration));
        stops.working = source.reflector ? card_working(i) : source.continuous ? lamp_working(i) : flash_working(i);
        shown_figures(i);
    } else {
        add("stops", name, "none");
    }
    if (source.reflector) return;
    auto& power = add("suggested_power", fmt::format("\u2026 power to set"),
                      plan::setting_text(plan_.sources[i], *source.suggested_power),
                      fmt::format("{} left", text::stops_text(*source.left_over)));
    weigh(power, "power-above-full");
    weigh(power, "power-below-least");
    const double step = plan::power_scale(plan_.sources[i]).step;
    power.working = working("power", light::nearest_setting_formula,
                            {{"n", std::round(-std::log2(*source.suggested_power) / step)}, {"step", step}},
                            *source.suggested_power, "", "the unit's setting nearest to the power wanted");
    if (source.whole_frames) {
        const auto burst = plan::rapid_fire_of(plan_, report_, i);
        auto& whole = add("good_frames", "\u2026 whole in a row", text::number_text(*source.whole_frames, 6),
                          fmt::format("of {}", text::number_text(plan::frames_in_a_row(report_), 6)));
        weigh(whole, "recycle-slow");
        if (*source.whole_frames >= 1)
            whole.working =
                working("n", light::whole_flashes_formula,
                        {{"U", burst.store}, {"p", burst.power}, {"D", burst.every}, {"T", burst.recycle}},
                        *source.whole_frames, "", "model 6; stores U, recycles full power in T s, fires every D s");
    }
    if (!light.power && !light.own_stops) {
        const double full = std::log2(plan::light_at(plan_, plan_.sources[i], 1, 0));
        add("power", "\u2026 power wanted", text::power_text(source.power)).working =
            working("power", light::auto_power_formula, {{"g", *source.stops}, {"s_1", full}}, source.power, "",
                    "model 3, g wanted and s_1 at full power, in stops");
    }
    if (source.losses.high_speed > 0)
        add("high_speed_loss_stops", "\u2026 high-speed sync takes", text::number_text(source.losses.high_speed),
            "stops")
            .working = working("loss", light::high_speed_formula,
                               {{"h", plan_.sources[i].flash->high_speed_loss},
                                {"t_s", plan_.camera.sync},
                                {"t", plan_.shot.exposure.shutter}},
                               source.losses.high_speed, "stops",
                               "model 3; h at sync speed from the unit's record, 2 by common practice");
    if (source.t01) {
        const auto& flash = *plan_.sources[i].flash;
        const bool unknown = flash.durations_mean == gear::DurationMeans::unknown;
        const bool decays = unknown || flash.discharge == light::Discharge::decay;
        const char* meaning = unknown  ? "ISO 2827; its table may mean t0.5, and then t0.1 is so long"
                              : decays ? "ISO 2827; exponential decay"
                                       : "ISO 2827; cut off, so t0.1 is t0.5 of the record's table";
        auto& duration = add("flash_duration_s", "\u2026 freezes in, t0.1", text::shutter_text(*source.t01));
        if (unknown) duration.unit = fmt::format("or {}", text::shutter_text(*source.t05));
        duration.working = working("t0.1", decays ? light::t01_decay_formula : "t_05", {{"t_05", *source.t05}},
                                   *source.t01, "s", meaning);
    }
    if (source.metering && light.metered) metering_figures(*source.metering);
}

/// What the picture shows of a light: seen from the camera, through the subject, on its edge.
void Sheet::shown_figures(std::size_t i) {
    const auto& source = report_.light.sources[i];
    constexpr double plainly = 0.05;  // stops that a light in front loses without a word
    if (source.front && source.front_share < std::exp2(-plainly))
        add("front_stops", "\u2026 on the front", text::stops_text(*source.front), "stops").working =
            working("front", light::front_formula, {{"s", *source.stops}, {"k", source.front_share}}, *source.front,
                    "stops", "model 6: k the share of a frontal light that this form gets from there");
    if (source.through)
        add("through_stops", "\u2026 through it", text::stops_text(*source.through), "stops").working = working(
            "through", light::front_formula, {{"s", *source.stops}, {"k", source.through_share}}, *source.through,
            "stops", "model 6: k the transmittance over the reflectance, times the share from behind");
    if (source.rim)
        add("rim_over_front_stops", "\u2026 its edge over the front", text::stops_text(*source.rim),
            fmt::format("stops, {} % of the face", text::number_text(source.reaches * 100, 2)));
}

Working Sheet::card_working(std::size_t i) const {
    const auto& source = report_.light.sources[i];
    const auto& card = *plan_.shot.lights[i].reflector;
    return working(
        "stops", light::card_formula,
        {{"a", *report_.light.ambient}, {"r", card.reflectance}, {"w", card.diameter}, {"d", source.place.distance}},
        *source.stops, "stops", "model 6: a the light that is there, unshaded");
}

Working Sheet::flash_working(std::size_t i) const {
    const auto& source = report_.light.sources[i];
    const auto path = plan::flash_path(plan_, plan_.sources[i]);
    const auto settings = plan::settings_of(plan_);
    return working("stops", light::flash_formula,
                   {{"G", path.guide_number},
                    {"p", source.power},
                    {"ISO", settings.iso},
                    {"l", path.loss + settings.loss},
                    {"N_w", settings.working_f_number},
                    {"d", path.distance / 1000},
                    {"w", path.modifier_diameter / 1000}},
                   *source.stops, "stops", guide_source);
}

Working Sheet::lamp_working(std::size_t i) const {
    const auto& source = report_.light.sources[i];
    auto path = plan::lamp_path(plan_, plan_.sources[i]);
    path.power = source.power;
    const auto settings = plan::settings_of(plan_);
    path.loss += settings.loss;  // filters take from it as what stands before the lamp does
    return working("stops", light::lamp_formula,
                   {{"E", light::illuminance(path)},
                    {"ISO", settings.iso},
                    {"t", settings.shutter},
                    {"N_w", settings.working_f_number}},
                   *source.stops, "stops", "ISO 2720, C = 250; E in lux at the subject, disc source");
}

void Sheet::metering_figures(const plan::MeteringReport& metering) {
    add("metering_error_stops", "\u2026 camera's metering errs", text::stops_text(metering.error), "stops").working =
        working("error", light::automatic_formula, {{"r_m", metering.reflectance}}, metering.error, "stops",
                "model 3; r_m the average reflectance of the field as the flash lights it");
}

void Sheet::freeze() {
    if (!report_.freeze) return;
    const auto& freeze = *report_.freeze;
    const auto& plan = *plan_.shot.freeze;
    auto& speed = add("freeze_speed_mm_s", "Speed at the place", text::number_text(freeze.speed / 1000), "m/s");
    const bool falls = plan.act == shoot::Act::fall || plan.act == shoot::Act::splash;
    if (falls)
        speed.working = working("speed", light::fall_speed_formula, {{"g", light::gravity}, {"h", plan.drop}},
                                freeze.speed, "mm/s", "free fall, g by ISO 80000-3");
    if (freeze.path && plan.act == shoot::Act::thrown && freeze.path->top > 0) {
        constexpr double degree = light::degree;
        add("top_mm", "\u2026 rises over the hand", text::length_text(freeze.path->top)).working =
            working("h", light::top_height_formula,
                    {{"v", plan.speed}, {"u", shoot::angle_of(plan) * degree}, {"g", light::gravity}}, freeze.path->top,
                    "mm", "free flight, g by ISO 80000-3; u in rad");
        add("top_after_s", "\u2026 turns after", fmt::format("{} ms", text::number_text(freeze.path->top_after * 1000)))
            .working = working("t", light::top_time_formula,
                               {{"v", plan.speed}, {"u", shoot::angle_of(plan) * degree}, {"g", light::gravity}},
                               freeze.path->top_after, "s", "free flight, g by ISO 80000-3; u in rad");
    }
    if (freeze.slowest > 0)
        add("slowest_t01_s", "\u2026 freezes within", text::shutter_text(freeze.slowest)).working =
            working("t", "n * pitch / (m * w)",
                    {{"n", plan.wanted_blur},
                     {"pitch", optics::pixel_pitch(plan_.sensor)},
                     {"m", report_.optics.magnification},
                     {"w", freeze.speed}},
                    freeze.slowest, "s", "model 2, motion; n pixels of blur wanted");
    const bool delayed = freeze.delay && plan.trigger == shoot::Trigger::beam && !plan.undelayed;
    if (delayed && !falls && freeze.path)
        add("trigger_delay_s", "Trigger delay", fmt::format("{} ms", text::number_text(*freeze.delay * 1000))).working =
            working("delay", "w - b - l",
                    {{"w", freeze.path->wanted_after}, {"b", freeze.path->beam_after}, {"l", plan.lag}}, *freeze.delay,
                    "s", "w until it is where it is wanted, b until it breaks the beam");
    if (delayed && falls)
        add("trigger_delay_s", "Trigger delay", fmt::format("{} ms", text::number_text(*freeze.delay * 1000))).working =
            working(
                "delay", plan::fall_delay_formula,
                {{"h", plan.drop}, {"b", std::min(plan.beam_above, plan.drop)}, {"g", light::gravity}, {"l", plan.lag}},
                *freeze.delay, "s", "free fall from the beam to the place, less camera and trigger");
    if (freeze.burst_time)
        add("burst_s", "Repeating flash lasts", text::shutter_text(*freeze.burst_time)).working =
            working("t", light::burst_formula,
                    {{"n", static_cast<double>(plan.repeating->burst.flashes)}, {"F", plan.repeating->burst.frequency}},
                    *freeze.burst_time, "s", "model 3");
}

void Sheet::balance_figures() {
    const auto& light = report_.light;
    if (light.key_to_fill) {
        const double key = *light.sources[*light.key].share * std::exp2(*light.front_total);
        add("key_to_fill_stops", "Key over the rest", text::stops_text(*light.key_to_fill), "stops").working =
            working("ratio", "log2(k / r)", {{"k", key}, {"r", key * std::exp2(-*light.key_to_fill)}},
                    *light.key_to_fill, "stops", "k the strongest light, r all the rest, as exposure ratios");
    }
    if (light.nearest && light.farthest)
        add("falloff_stops", "Near end over far end", text::stops_text(*light.nearest - *light.farthest), "stops")
            .working = working("falloff", "front - back", {{"front", *light.nearest}, {"back", *light.farthest}},
                               *light.nearest - *light.farthest, "stops",
                               "model 3 at the nearest and the farthest point of the subject");
    if (light.black_frame && light.flash) {
        const double ambient = light.ambient_front ? std::exp2(*light.ambient_front) : 0;
        add("continuous_stops", "Without flash", text::stops_text(*light.continuous),
            light.black_frame->over <= 0 ? "black" : "stops")
            .working =
            working("frame", light::flash_sum_formula, {{"a", ambient}, {"f", std::exp2(*light.continuous) - ambient}},
                    *light.continuous, "stops", "model 3; black from 5 stops under, common practice");
    }
}

}  // namespace poquito::workings
