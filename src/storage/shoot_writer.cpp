#include "storage/json_number.hpp"
#include "storage/kit_json.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <cstddef>

namespace poquito::storage {
namespace {

using namespace text;
using namespace shoot;

template <typename Item>
Json write_list(const std::vector<Item>& items, Json (*write)(const Item&)) {
    Json list = Json::array();
    for (const Item& item : items) list.push_back(write(item));
    return list;
}

Json write_reference(const std::optional<std::string>& id) { return id ? Json(*id) : Json(nullptr); }

// ---- shots -------------------------------------------------------------------------------------------------------

Json write_height_map(const HeightMap& map) {
    Json rows = Json::array();
    for (int y = 0; y < map.height; ++y) {
        const auto row = map.heights.begin() + static_cast<std::ptrdiff_t>(y) * map.width;
        rows.push_back(fmt::format("{:02x}", fmt::join(row, row + map.width, "")));
    }
    return with_unknown({{"rows", std::move(rows)}}, map.unknown);
}

Json write_subject(const Subject& subject) {
    const Subject plain;
    Json json = {{"width_mm", json_number(subject.width)},
                 {"height_mm", json_number(subject.height)},
                 {"depth_mm", json_number(subject.depth)},
                 {"reflectance", json_number(subject.reflectance)},
                 {"speed_mm_s", json_number(subject.speed)}};
    if (subject.sway_amplitude != plain.sway_amplitude) json["sway_amplitude_mm"] = json_number(subject.sway_amplitude);
    if (subject.sway_frequency != plain.sway_frequency) json["sway_hz"] = json_number(subject.sway_frequency);
    if (subject.form != plain.form) json["form"] = form_id(subject.form);
    if (subject.tilt != 0) json["tilt_deg"] = json_number(subject.tilt);
    if (subject.turn != 0) json["turn_deg"] = json_number(subject.turn);
    if (subject.colour) json["colour"] = colour_text(*subject.colour);
    if (subject.height_map) json["height_map"] = write_height_map(**subject.height_map);
    if (!subject.traits.empty()) json["traits"] = subject.traits;
    return with_unknown(std::move(json), subject.unknown);
}

Json write_front_lens(const FrontLens& front) {
    Json json = {{"lens", front.lens},
                 {"coupling_ring", write_reference(front.coupling_ring)},
                 {"ring", json_number(front.ring)},
                 {"f_number", json_number(front.f_number)}};
    if (front.focal_length) json["focal_length_mm"] = json_number(*front.focal_length);
    return with_unknown(std::move(json), front.unknown);
}

Json write_rig(const Rig& rig) {
    constexpr const char* supports[] = {"", "hand", "small-head", "sturdy-head"};
    Json json = {{"camera", rig.camera},
                 {"lens", rig.lens},
                 {"tubes", rig.tubes},
                 {"closeup_lenses", rig.closeup_lenses},
                 {"teleconverter", write_reference(rig.teleconverter)}};
    if (rig.crop_mode) json["crop_mode"] = *rig.crop_mode;
    if (rig.focal_length) json["focal_length_mm"] = json_number(*rig.focal_length);
    if (!rig.tubes_behind_converter.empty()) json["tubes_behind_converter"] = rig.tubes_behind_converter;
    if (rig.bellows)
        json["bellows"] =
            with_unknown({{"id", rig.bellows->bellows}, {"extension_mm", json_number(rig.bellows->extension)}},
                         rig.bellows->unknown);
    if (rig.reversing_ring) json["reversing_ring"] = *rig.reversing_ring;
    if (rig.front_lens) json["front_lens"] = write_front_lens(*rig.front_lens);
    if (rig.rail) json["rail"] = *rig.rail;
    if (rig.support != Support::unstated) json["support"] = supports[static_cast<int>(rig.support)];
    json[rig.focus.by == FocusBy::ring ? "ring" : "magnification"] = json_number(rig.focus.value);
    return with_unknown(std::move(json), rig.unknown);
}

Json write_exposure(const Exposure& exposure) {
    constexpr const char* levers[] = {"power", "distance", "stop", "iso"};
    Json json = {{"f_number", json_number(exposure.f_number)},
                 {"shutter_s", json_number(exposure.shutter)},
                 {"iso", json_number(exposure.iso)}};
    if (exposure.high_speed_sync) json["high_speed_sync"] = true;
    if (exposure.lever != Lever::power) json["correct_by"] = levers[static_cast<int>(exposure.lever)];
    return with_unknown(std::move(json), exposure.unknown);
}

Json write_output(const Sharpness& sharpness) {
    return {{"kind", sharpness.output == OutputKind::print ? "print" : "delivery"},
            {"print_width_mm", json_number(sharpness.print.width)},
            {"viewing_distance_mm", json_number(sharpness.print.viewing_distance)},
            {"delivered_width_px", json_number(sharpness.delivery.width_px)},
            {"crop", json_number(sharpness.print.crop)}};
}

/// The number of nanometres that reads back as exactly this wavelength: dividing may miss it by the last bit.
double nanometres(double mm) {
    const double nm = mm * 1e6;
    for (const double candidate : {nm, std::round(nm), std::nextafter(nm, 0.0), std::nextafter(nm, 1e9)})
        if (candidate * 1e-6 == mm) return candidate;
    return nm;
}

Json write_sharpness(const Sharpness& sharpness) {
    constexpr const char* rules[] = {"pixel", "diagonal", "output", "stated"};
    const Sharpness plain;
    Json json = {{"rule", rules[static_cast<int>(sharpness.rule)]}};
    if (sharpness.rule == BlurRule::pixel || sharpness.pixels != plain.pixels)
        json["pixels"] = json_number(sharpness.pixels);
    if (sharpness.stated) json["blur_limit_mm"] = json_number(*sharpness.stated);
    if (sharpness.wavelength != plain.wavelength) json["wavelength_nm"] = json_number(nanometres(sharpness.wavelength));
    if (sharpness.focus_offset != 0) json["focus_offset_mm"] = json_number(sharpness.focus_offset);
    const bool output_changed =
        sharpness.output != plain.output || sharpness.print != plain.print || sharpness.delivery != plain.delivery;
    if (sharpness.rule == BlurRule::output || output_changed) json["output"] = write_output(sharpness);
    return with_unknown(std::move(json), sharpness.unknown);
}

Json write_capture(const Capture& capture) {
    constexpr const char* rules[] = {"blur", "quarter-wave", "contrast"};
    const Capture plain;
    Json json = {{"mode", capture.mode == CaptureMode::single ? "single" : "stack"},
                 {"depth_rule", rules[static_cast<int>(capture.depth_rule)]}};
    if (capture.contrast_kept != plain.contrast_kept) json["contrast_kept"] = json_number(capture.contrast_kept);
    json["overlap"] = json_number(capture.overlap);
    json["lead_mm"] = json_number(capture.lead);
    json["tail_mm"] = json_number(capture.tail);
    constexpr const char* movers[] = {"ring", "rail", "hand"};
    json["mover"] = movers[static_cast<int>(capture.mover)];
    if (capture.slice)
        json["slice"] =
            with_unknown({{"from_mm", json_number(capture.slice->from)}, {"to_mm", json_number(capture.slice->to)}},
                         capture.slice->unknown);
    if (capture.composite) json["composite"] = true;
    if (capture.settle) json["settle_s"] = json_number(*capture.settle);
    if (capture.mover == Mover::hand || capture.hand != plain.hand)
        json["hand"] = with_unknown({{"frames_per_second", json_number(capture.hand.frames_per_second)},
                                     {"burst_s", json_number(capture.hand.burst)},
                                     {"speed_mm_s", json_number(capture.hand.speed)},
                                     {"range_mm", json_number(capture.hand.range)}},
                                    capture.hand.unknown);
    if (capture.approach) json["approach"] = *capture.approach;
    if (capture.interval) json["interval_s"] = json_number(*capture.interval);
    return with_unknown(std::move(json), capture.unknown);
}

Json write_ambient(const Ambient& ambient) {
    constexpr const char* kinds[] = {"even", "window", "sky"};
    const Ambient plain;
    Json json = {{"ev100", json_number(ambient.ev100)}};
    if (ambient.kind != plain.kind) json["kind"] = kinds[static_cast<int>(ambient.kind)];
    const auto put = [&](const char* key, double value, double otherwise) {
        if (value != otherwise) json[key] = json_number(value);
    };
    put("azimuth_deg", ambient.position.azimuth, plain.position.azimuth);
    put("elevation_deg", ambient.position.elevation, plain.position.elevation);
    put("size_deg", ambient.size, plain.size);
    return with_unknown(std::move(json), ambient.unknown);
}

Json write_light(const Light& light) {
    Json json = {{"modifier", write_reference(light.modifier)},
                 {"distance_mm", json_number(light.position.distance)},
                 {"azimuth_deg", json_number(light.position.azimuth)},
                 {"elevation_deg", json_number(light.position.elevation)},
                 {"power", light.power ? json_number(*light.power) : Json("auto")}};
    if (light.lamp)
        json["lamp"] = *light.lamp;
    else
        json["flash"] = light.flash;
    if (light.aim.turn != 0) json["turn_deg"] = json_number(light.aim.turn);
    if (light.aim.tip != 0) json["tip_deg"] = json_number(light.aim.tip);
    if (light.on_lens) json["on_lens"] = true;
    if (light.ratio != 0) json["ratio_stops"] = json_number(light.ratio);
    if (light.second_layer) json["second_layer"] = true;
    if (light.bounce)
        json["bounce"] = with_unknown({{"from_lamp_mm", json_number(light.bounce->from_lamp)},
                                       {"reflectance", json_number(light.bounce->reflectance)},
                                       {"diameter_mm", json_number(light.bounce->diameter)}},
                                      light.bounce->unknown);
    if (light.metered) json["metered_compensation_stops"] = json_number(*light.metered);
    if (light.group) json["group"] = *light.group;
    return with_unknown(std::move(json), light.unknown);
}

Json write_freeze(const Freeze& freeze) {
    constexpr const char* acts[] = {"fall", "thrown", "splash"};
    constexpr const char* triggers[] = {"beam", "sound", "hand"};
    Json json = {{"act", acts[static_cast<int>(freeze.act)]},
                 {"drop_mm", json_number(freeze.drop)},
                 {"speed_mm_s", json_number(freeze.speed)},
                 {"wanted_blur_px", json_number(freeze.wanted_blur)},
                 {"trigger", triggers[static_cast<int>(freeze.trigger)]},
                 {"beam_above_mm", json_number(freeze.beam_above)},
                 {"sound_distance_mm", json_number(freeze.sound_distance)},
                 {"lag_s", json_number(freeze.lag)},
                 {"scatter_mm", json_number(freeze.scatter)}};
    if (freeze.second)
        json["second_drop"] = with_unknown(
            {{"rise_s", json_number(freeze.second->rise)}, {"column_mm", json_number(freeze.second->column)}},
            freeze.second->unknown);
    if (const auto& repeating = freeze.repeating)
        json["repeating"] = with_unknown(
            {{"flashes", repeating->burst.flashes}, {"frequency_hz", json_number(repeating->burst.frequency)}},
            repeating->unknown);
    return with_unknown(std::move(json), freeze.unknown);
}

Json write_power_set(const PowerSet& set) {
    Json powers = Json::object();
    for (const auto& [group, power] : set.powers) powers[group] = json_number(power);
    return with_unknown({{"name", set.name}, {"powers", std::move(powers)}}, set.unknown);
}

Json write_background(const Background& background) {
    Json json = {{"distance_mm", json_number(background.distance)},
                 {"reflectance", json_number(background.reflectance)}};
    if (background.detail != Background{}.detail) json["detail_mm"] = json_number(background.detail);
    if (background.kind == BackgroundKind::scene) json["kind"] = "scene";
    if (background.colour) json["colour"] = colour_text(*background.colour);
    return with_unknown(std::move(json), background.unknown);
}

Json write_proof_entry(const ProofEntry& entry) {
    Json json = {{"time", entry.time},
                 {"frames", entry.frames},
                 {"correction_stops", json_number(entry.correction)},
                 {"verdict", entry.verdict == Verdict::keep ? "keep" : "redo"}};
    if (!entry.remark.empty()) json["remark"] = entry.remark;
    return with_unknown(std::move(json), entry.unknown);
}

Json write_exposed_frame(const ExposedFrame& frame) {
    Json json = {{"index", frame.index},
                 {"file", frame.file},
                 {"plane_mm", json_number(frame.plane)},
                 {"f_number", json_number(frame.f_number)},
                 {"shutter_s", json_number(frame.shutter)},
                 {"iso", json_number(frame.iso)},
                 {"time", frame.time}};
    if (frame.flash != 1) json["flash_share"] = json_number(frame.flash);
    if (!frame.remark.empty()) json["remark"] = frame.remark;
    return with_unknown(std::move(json), frame.unknown);
}

Json write_run(const Shared<RunRecord>& shared) {
    const RunRecord& run = *shared;
    constexpr const char* ends[] = {"complete", "stopped", "broken"};
    Json json = {
        {"id", run.id}, {"time", run.time}, {"planned_frames", run.planned}, {"end", ends[static_cast<int>(run.end)]}};
    if (!run.folder.empty()) json["folder"] = run.folder;
    if (!run.remark.empty()) json["remark"] = run.remark;
    json["frames"] = write_list(run.frames, write_exposed_frame);
    return with_unknown(std::move(json), run.unknown);
}

Json write_timing(const Timing& timing) {
    Json json = Json::object();
    if (!timing.after.empty()) json["after"] = timing.after;
    if (timing.not_before) json["not_before_s"] = json_number(*timing.not_before);
    if (timing.done_by) json["done_by_s"] = json_number(*timing.done_by);
    if (timing.handling) json["handling_s"] = json_number(*timing.handling);
    return with_unknown(std::move(json), timing.unknown);
}

Json write_workday(const Workday& day) {
    const auto& prices = day.prices;
    return with_unknown({{"begin_s", json_number(day.begin)},
                         {"prices_s", with_unknown({{"camera", json_number(prices.camera)},
                                                    {"lens", json_number(prices.lens)},
                                                    {"tubes", json_number(prices.tubes)},
                                                    {"light", json_number(prices.light)},
                                                    {"background", json_number(prices.background)},
                                                    {"subject", json_number(prices.subject)}},
                                                   prices.unknown)},
                         {"sorting_s_per_frame", json_number(day.sorting)},
                         {"combining_s_per_frame", json_number(day.combining)},
                         {"waiting_counts", day.waiting_counts}},
                        day.unknown);
}

Json write_shot(const Shot& shot) {
    Json json = {{"id", shot.id},
                 {"name", shot.name},
                 {"subject", write_subject(shot.subject)},
                 {"rig", write_rig(shot.rig)},
                 {"exposure", write_exposure(shot.exposure)},
                 {"sharpness", write_sharpness(shot.sharpness)},
                 {"capture", write_capture(shot.capture)}};
    if (shot.ambient) json["ambient"] = write_ambient(*shot.ambient);
    json["lights"] = write_list(shot.lights, write_light);
    if (shot.background) json["background"] = write_background(*shot.background);
    if (shot.freeze) json["freeze"] = write_freeze(*shot.freeze);
    if (!shot.checked.empty()) json["checked"] = shot.checked;
    if (!shot.proof.empty()) json["proof"] = write_list(shot.proof, write_proof_entry);
    if (!shot.runs.empty()) json["runs"] = write_list(shot.runs, write_run);
    if (shot.timing != Timing{}) json["timing"] = write_timing(shot.timing);
    return with_unknown(std::move(json), shot.unknown);
}

}  // namespace

std::string write_shoot(const Shoot& shoot) {
    Json json = {{"format", "poquito-shoot"},
                 {"version", shoot_version},
                 {"title", shoot.title},
                 {"kit", write_kit(shoot.kit)},
                 {"shots", write_list(shoot.shots, write_shot)}};
    if (shoot.workday != Workday{}) json["workday"] = write_workday(shoot.workday);
    if (!shoot.power_sets.empty()) json["power_sets"] = write_list(shoot.power_sets, write_power_set);
    const Json document = with_unknown(std::move(json), shoot.unknown);
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace poquito::storage
