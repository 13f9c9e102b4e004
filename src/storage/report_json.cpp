#include "storage/report_json.hpp"

#include "storage/json_number.hpp"
#include "worth_json.hpp"

#include <nlohmann/json.hpp>

namespace poquito::storage {
namespace {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;
using namespace advice;
using Json = nlohmann::ordered_json;

Json write_joint(const Joint& joint) {
    return {{"inner", joint.inner},
            {"outer", joint.outer},
            {"inner_thread_mm", json_number(joint.inner_thread)},
            {"outer_thread_mm", json_number(joint.outer_thread)},
            {"step_ring", joint.step_ring ? Json(*joint.step_ring) : Json(nullptr)}};
}

Json write_fit(const Fit& fit) {
    constexpr const char* stops[] = {"camera", "lens", "none"};
    Json joints = Json::array();
    for (const Joint& joint : fit.joints) joints.push_back(write_joint(joint));
    return {{"length_mm", json_number(fit.length)},
            {"contacts", fit.contacts()},
            {"without_contacts", fit.without_contacts},
            {"autofocus", fit.autofocus},
            {"stop_set_by", stops[static_cast<int>(fit.stop)]},
            {"joints", std::move(joints)}};
}

Json write_measured(const std::vector<Measured>& measured) {
    constexpr const char* names[] = {"magnification", "displayed-aperture", "sharp-distances"};
    Json list = Json::array();
    for (const Measured part : measured) list.push_back(names[static_cast<int>(part)]);
    return list;
}

Json write_tank(const TankReport& tank) {
    return {{"nearer_mm", json_number(tank.nearer)},
            {"real_distance_mm", json_number(tank.real_distance)},
            {"front_to_wall_mm", json_number(tank.front_to_wall)},
            {"depth_of_field_mm", json_number(tank.depth_of_field)}};
}

Json write_optics(const OpticsReport& optics) {
    return {{"focal_length_mm", json_number(optics.focal_length)},
            {"ring", json_number(optics.ring)},
            {"lens_magnification", json_number(optics.lens_magnification)},
            {"magnification", json_number(optics.magnification)},
            {"field_width_mm", json_number(optics.field_width)},
            {"field_height_mm", json_number(optics.field_height)},
            {"field_behind_width_mm", json_number(optics.field_behind_width)},
            {"field_behind_height_mm", json_number(optics.field_behind_height)},
            {"working_distance_mm", json_number(optics.working_distance)},
            {"subject_to_sensor_mm", json_number(optics.subject_to_sensor)},
            {"working_f_number", json_number(optics.working_f_number)},
            {"exposure_loss_stops", json_number(optics.exposure_loss)},
            {"reaches_infinity", optics.reaches_infinity},
            {"displayed_f_number", json_number(optics.displayed_f_number)},
            {"magnification_reached", optics.reached},
            {"least_magnification", json_number(optics.range.least)},
            {"greatest_magnification", json_number(optics.range.greatest)},
            {"fill_share", json_number(optics.fill)},
            {"shaded_half_angle_deg", json_number(optics.shaded_half_angle)},
            {"subject_to_sensor_at_ring_0_mm", json_number(optics.at_infinity_ring)},
            {"subject_to_sensor_at_ring_1_mm", json_number(optics.at_closest_ring)},
            {"magnification_at_ring_0", json_number(optics.at_infinity_magnification)},
            {"magnification_at_ring_1", json_number(optics.at_closest_magnification)},
            {"table_behind_mm", json_number(optics.table_behind)},
            {"camera_height_mm", json_number(optics.camera_height)},
            {"tank", optics.tank ? write_tank(*optics.tank) : Json(nullptr)},
            {"measured", write_measured(optics.measured)},
            {"fit", write_fit(optics.fit)}};
}

Json write_extent(const Extent& extent) {
    return {{"presented_width_mm", json_number(extent.width)},
            {"presented_height_mm", json_number(extent.height)},
            {"presented_depth_mm", json_number(extent.depth)}};
}

Json write_sharpness(const SharpnessReport& sharpness) {
    return {{"blur_limit_mm", json_number(sharpness.blur_limit)},
            {"near_mm", json_number(sharpness.near)},
            {"far_mm", json_number(sharpness.far)},
            {"depth_of_field_mm", json_number(sharpness.depth_of_field)},
            {"airy_diameter_mm", json_number(sharpness.airy_diameter)},
            {"best_single_f_number", json_number(sharpness.best_single_f_number)},
            {"zone_mm", json_number(sharpness.zone)},
            {"zone_covered", json_number(sharpness.zone_covered)},
            {"background_disc_mm", json_number(sharpness.background_disc)},
            {"background_disc_share", json_number(sharpness.background_disc_share)},
            {"background_blur_over_detail", json_number(sharpness.background_blur_over_detail)},
            {"edge_blur_mm", json_number(sharpness.edge_blur)},
            {"rest_blur_mm", json_number(sharpness.rest_blur)}};
}

Json write_odds(const SwayOdds& odds) {
    return {{"chance", json_number(odds.chance)}, {"bursts", json_number(odds.bursts)}};
}

Json write_bracket(const BracketStack& bracket) {
    Json passes = Json::array();
    for (const auto& pass : bracket.passes)
        passes.push_back({{"first", pass.first}, {"frames", pass.frames}, {"focus_mm", json_number(pass.focus)}});
    Json json = {
        {"passes", std::move(passes)}, {"before", bracket.before}, {"behind", bracket.behind}, {"setting", nullptr}};
    if (const auto& choice = bracket.choice) {
        json["setting"] = json_number(choice->setting);
        json["step_mm"] = json_number(choice->step);
        json["least_step_mm"] = json_number(choice->least);
        json["greatest_step_mm"] = json_number(choice->greatest);
    }
    return json;
}

/// Planes are mm behind the subject's nearest point.
Json write_stack(const StackReport& stack) {
    Json json = {{"from_mm", json_number(stack.span.from)},
                 {"to_mm", json_number(stack.span.to)},
                 {"first_plane_mm", json_number(stack.first)},
                 {"last_plane_mm", json_number(stack.last)},
                 {"ring", nullptr},
                 {"rail", nullptr},
                 {"hand", nullptr},
                 {"bracket", nullptr}};
    if (const auto* ring = stack.ring())
        json["ring"] = {{"first", json_number(ring->first_ring)},
                        {"last", json_number(ring->last_ring)},
                        {"step", json_number(ring->ring_step)},
                        {"least_step_mm", json_number(ring->least_step)},
                        {"greatest_step_mm", json_number(ring->greatest_step)},
                        {"image_travel_mm", json_number(ring->image_travel)},
                        {"room_in_front_mm", json_number(ring->room_in_front)},
                        {"room_behind_mm", json_number(ring->room_behind)}};
    if (const auto* rail = stack.rail())
        json["rail"] = {{"unit_mm", json_number(rail->unit)},     {"units", json_number(rail->units)},
                        {"turns", json_number(rail->turns)},      {"take_up_mm", json_number(rail->take_up)},
                        {"travel_mm", json_number(rail->travel)}, {"clearance_mm", json_number(rail->clearance)}};
    if (const auto* hand = stack.hand())
        json["hand"] = {{"burst_frames", json_number(hand->burst_frames)},
                        {"plane", write_odds(hand->plane)},
                        {"bursts", json_number(hand->bursts)},
                        {"largest_frames", json_number(hand->largest)}};
    if (stack.bracket()) json["bracket"] = write_bracket(*stack.bracket());
    return json;
}

Json write_cost(const StackCost& cost) {
    return {{"exposures", json_number(cost.exposures)},
            {"frame_s", json_number(cost.cadence.frame)},
            {"stalls_s", json_number(cost.stalls)},
            {"seconds", json_number(cost.seconds)},
            {"card_share", json_number(cost.card_share)},
            {"charge_share", json_number(cost.charge_share)},
            {"blur_mm", json_number(cost.blur)},
            {"floor_mm", json_number(cost.floor)},
            {"enough_frames", json_number(cost.enough_frames)}};
}

Json write_capture(const CaptureReport& capture) {
    Json json = {{"frame_depth_mm", json_number(capture.frame_depth)},
                 {"step_mm", json_number(capture.by_rule.step)},
                 {"frames", json_number(capture.by_rule.frames)},
                 {"duration_s", json_number(capture.by_rule.duration)},
                 {"data_mb", json_number(capture.by_rule.data_mb)},
                 {"made_step_mm", json_number(capture.step)},
                 {"made_frames", json_number(capture.frames)},
                 {"made_data_mb", json_number(capture.data_mb)},
                 {"paced_duration_s", json_number(capture.paced_duration)},
                 {"recycle_s", json_number(capture.recycle)},
                 {"viewpoint_change_share", json_number(capture.viewpoint_change)},
                 {"ring_travel", nullptr}};
    if (const auto& travel = capture.ring_travel)
        json["ring_travel"] = {{"first_ring", json_number(travel->first_ring)},
                               {"last_ring", json_number(travel->last_ring)},
                               {"scale_change", json_number(travel->scale_change)},
                               {"crop_share", json_number(travel->crop)}};
    json["stack"] = capture.stack ? write_stack(*capture.stack) : Json(nullptr);
    json["cost"] = write_cost(capture.cost);
    return json;
}

Json write_source(const SourceReport& source) {
    return {
        {"stops", json_number(source.stops)},
        {"front_stops", json_number(source.front)},
        {"through_stops", json_number(source.through)},
        {"rim_over_front_stops", json_number(source.rim)},
        {"reaches", json_number(source.reaches)},
        {"kelvin", json_number(source.kelvin)},
        {"reflector", source.reflector},
        {"power", source.reflector || source.aimless ? Json(nullptr) : json_number(source.power)},
        {"suggested_power", json_number(source.suggested_power)},
        {"flash_duration_s", json_number(source.t05)},
        {"flash_duration_t01_s", json_number(source.t01)},
        {"left_over_stops", json_number(source.left_over)},
        {"facing_stops", json_number(source.facing)},
        {"recycle_s", json_number(source.recycle)},
        {"good_frames", json_number(source.whole_frames)},
        {"label", source.label},
        {"continuous", source.continuous},
        {"path_mm", json_number(source.path)},
        {"loss_stops", json_number(source.losses.total())},
        {"high_speed_loss_stops", json_number(source.losses.high_speed)},
        {"share", json_number(source.share)},
        {"falloff_stops", json_number(source.falloff)},
        {"background_stops", json_number(source.background)},
        {"flicker_stops", json_number(source.flicker)},
        {"metering_advised_stops",
         json_number(source.metering ? std::optional(source.metering->advised) : std::nullopt)},
        {"metering_error_stops", json_number(source.metering ? std::optional(source.metering->error) : std::nullopt)},
        {"calibrated_stops", json_number(source.calibration.stops)},
        {"calibrated_frames", source.calibration.count}};
}

Json write_black_frame(const BlackFrame& black) {
    return {{"over_stops", json_number(black.over)},
            {"shutter_s", json_number(black.shutter)},
            {"f_number", json_number(black.f_number)},
            {"iso", json_number(black.iso)}};
}

Json write_light(const LightReport& light) {
    Json sources = Json::array();
    for (const auto& source : light.sources) sources.push_back(write_source(source));
    Json json = {{"ambient_stops", json_number(light.ambient)},
                 {"ambient_front_stops", json_number(light.ambient_front)},
                 {"ambient_through_stops", json_number(light.ambient_through)},
                 {"sources", std::move(sources)},
                 {"total_stops", json_number(light.total)},
                 {"front_total_stops", json_number(light.front_total)},
                 {"through_stops", json_number(light.through)},
                 {"highlight_stops", json_number(light.highlight)},
                 {"lit_side_stops", json_number(light.tones.lit)},
                 {"shadow_side_stops", json_number(light.tones.shadow)},
                 {"rim_stops", json_number(light.tones.rim)},
                 {"white_kelvin", json_number(light.white)},
                 {"focusing_by_eye_stops", json_number(light.focusing.by_eye)},
                 {"focusing_by_autofocus_stops", json_number(light.focusing.by_autofocus)},
                 {"background_own_stops", json_number(light.background_own)},
                 {"background_stops", json_number(light.background)},
                 {"background_look", nullptr},
                 {"continuous_stops", json_number(light.continuous)},
                 {"flash_stops", json_number(light.flash)},
                 {"key_to_fill_stops", json_number(light.key_to_fill)},
                 {"nearest_stops", json_number(light.nearest)},
                 {"farthest_stops", json_number(light.farthest)},
                 {"recycling_iso", json_number(light.recycling_iso)},
                 {"black_frame", light.black_frame ? write_black_frame(*light.black_frame) : Json(nullptr)}};
    constexpr const char* looks[] = {"black", "dark", "grey", "white"};
    if (light.background_look) json["background_look"] = looks[static_cast<int>(*light.background_look)];
    return json;
}

Json write_motion(const MotionReport& motion) {
    return {{"blur_mm", json_number(motion.blur)},
            {"sway_blur_mm", json_number(motion.sway_blur)},
            {"exposure_s", json_number(motion.exposure_time)},
            {"frozen_by_flash", motion.frozen_by_flash},
            {"hand_blur_mm", json_number(motion.hand_blur)},
            {"sharp_share", json_number(motion.sharp_share)},
            {"ghost_blur_mm", json_number(motion.ghost_blur)},
            {"ghost_share", json_number(motion.ghost_share)}};
}

Json write_chance(const ChanceReport& chance) {
    constexpr const char* keys[] = {"wind", "wind-through", "hands",   "hands-through", "moving",        "moves-on",
                                    "gap",  "flash",        "trigger", "landing",       "landing-aside", "pattern"};
    static_assert(std::size(keys) == static_cast<std::size_t>(ChanceCause::pattern) + 1);
    Json causes = Json::array();
    for (const auto& one : chance.causes)
        causes.push_back({{"cause", keys[static_cast<int>(one.cause)]}, {"share", json_number(one.share)}});
    Json counted = nullptr;
    if (chance.counted)
        counted = {{"share", json_number(chance.counted->share)},
                   {"least", json_number(chance.counted->least)},
                   {"greatest", json_number(chance.counted->greatest)}};
    Json burst = nullptr;
    if (chance.burst)
        burst = {{"every_s", json_number(chance.burst->row.every)},
                 {"frames", chance.burst->row.frames},
                 {"limited_by", limit_name(chance.burst->limit)},
                 {"in_depth", json_number(chance.burst->in_depth)}};
    return {{"tries_a_visit", json_number(chance.tries_a_visit)},
            {"visits", json_number(chance.visits)},
            {"burst", std::move(burst)},
            {"causes", std::move(causes)},
            {"reckoned", json_number(chance.reckoned)},
            {"counted", std::move(counted)},
            {"frames_a_try", json_number(chance.frames)},
            {"chance", json_number(chance.chance)},
            {"tries", json_number(chance.tries)},
            {"seconds_a_try", json_number(chance.seconds_a_try)},
            {"card_share", json_number(chance.card_share)},
            {"charge_share", json_number(chance.charge_share)},
            {"flash_charge_share", json_number(chance.flash_charge_share)},
            {"stop_after", json_number(chance.stop_after)},
            {"by_then", chance.stop_after ? json_number(chance.by_then) : Json(nullptr)}};
}

Json write_reflections(const std::vector<ReflectionReport>& reflections) {
    Json list = Json::array();
    for (const auto& reflection : reflections) {
        Json marks = Json::array();
        for (const auto& mark : reflection.marks)
            marks.push_back(
                {{"x_mm", json_number(mark.x)}, {"y_mm", json_number(mark.y)}, {"width_mm", json_number(mark.width)}});
        list.push_back({{"mirrored_share", json_number(reflection.mirrored)},
                        {"filling_diameter_mm", json_number(reflection.filling)},
                        {"marks", std::move(marks)}});
    }
    return list;
}

Json write_trajectory(const TrajectoryReport& way) {
    return {{"top_mm", json_number(way.top)},
            {"top_after_s", json_number(way.top_after)},
            {"beam_after_s", json_number(way.beam_after)},
            {"wanted_after_s", json_number(way.wanted_after)},
            {"lit_after_s", json_number(way.lit_after)},
            {"place_x_mm", json_number(way.x)},
            {"place_y_mm", json_number(way.y)},
            {"off_x_mm", json_number(way.off_x)},
            {"off_y_mm", json_number(way.off_y)},
            {"headroom_mm", json_number(way.headroom)},
            {"freezes_share", json_number(way.freezes)},
            {"inside_share", json_number(way.inside)},
            {"catcher_x_mm", json_number(way.catcher_x)},
            {"catcher_width_mm", json_number(way.catcher_width)},
            {"catcher_depth_mm", json_number(way.catcher_depth)}};
}

Json write_freeze(const FreezeReport& freeze) {
    return {{"speed_mm_s", json_number(freeze.speed)},
            {"slowest_t01_s", json_number(freeze.slowest)},
            {"blur_mm", json_number(freeze.blur)},
            {"freezing_power", freeze.brightest_that_freezes
                                   ? json_number(freeze.rows[*freeze.brightest_that_freezes].power)
                                   : Json(nullptr)},
            {"trigger_delay_s", json_number(freeze.delay)},
            {"least_beam_mm", json_number(freeze.least_beam)},
            {"path", freeze.path ? write_trajectory(*freeze.path) : Json(nullptr)},
            {"second_drop_after_s", json_number(freeze.second_after)},
            {"burst_s", json_number(freeze.burst_time)},
            {"burst_spacing_mm", json_number(freeze.burst_spacing)},
            {"landing_inside_share", json_number(freeze.landing_inside)}};
}

Json write_notes(const std::vector<Note>& notes) {
    constexpr const char* levels[] = {"info", "caution", "stop"};
    Json list = Json::array();
    for (const Note& note : notes)
        list.push_back({{"code", note.code},
                        {"level", levels[static_cast<int>(note.level)]},
                        {"text", note.text},
                        {"remedy", note.remedy ? Json(note.remedy->label) : Json(nullptr)}});
    return list;
}

}  // namespace

std::string write_report(const std::vector<Assessment>& shots) {
    Json list = Json::array();
    for (const auto& [plan, shot, advice] : shots)
        list.push_back({{"id", shot.id},
                        {"subject", write_extent(shot.extent)},
                        {"optics", write_optics(shot.optics)},
                        {"sharpness", write_sharpness(shot.sharpness)},
                        {"capture", write_capture(shot.capture)},
                        {"light", write_light(shot.light)},
                        {"motion", write_motion(shot.motion)},
                        {"reflections", write_reflections(shot.reflections)},
                        {"freeze", shot.freeze ? write_freeze(*shot.freeze) : Json(nullptr)},
                        {"chance", shot.chance ? write_chance(*shot.chance) : Json(nullptr)},
                        {"worth", write_worth(worth_of(plan, shot))},
                        {"notes", write_notes(advice.notes)}});
    const Json document = {{"format", "poquito-report"}, {"version", 1}, {"shots", std::move(list)}};
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace poquito::storage
