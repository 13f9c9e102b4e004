#pragma once

#include "shoot/change/subject_library.hpp"
#include "shoot/change/view_set.hpp"
#include "shoot/names.hpp"
#include "shoot/shoot.hpp"
#include "text/number_rule.hpp"

#include <type_traits>
#include <vector>

/// The members of a shoot as files have them, each once: its key, where it stands in the record, what it may be. From
/// these rows follow reading and writing (storage) and the schema (docs/shoot.schema.json). Each record has a
///
///     template <typename Rows> void describe(Rows& rows, const Record*)
///
/// that calls a method of `rows` for each member, in the order of the file. `rows` knows the record; a member is
/// reached by pointer to member or by a lambda that takes the record. The methods:
///
///     number, scaled (unit in the file), whole, flag, text, texts, choice and choices (of an enumeration), gear (ids
///     of a list of the kit), object, list (of records), and what has a form of its own: colour, heights, focus, power,
///     group, plane, powers
///
/// Members that this version does not know are kept by reader and writer in each record's `unknown`. What members mean
/// for each other (a zoom's range, a converter behind tubes) the reader checks.
namespace poquito::shoot {

/// When a member stands in the file. One that is not needed is as in a fresh record where it is missing or null.
struct Presence {
    bool needed = false;
    bool written = true;           // also where it is as in a fresh record
    const char* member = nullptr;  // of the same record, before this one: where it has `value` ...
    const char* value = nullptr;   // ... (null: where it is missing) ...
    bool needed_then = false;      // ... this one is needed,
    bool written_then = false;     // ... or is written
    const char* unless = nullptr;  // of the same record, before this one: where it stands, this one is neither
};
inline constexpr Presence needed{.needed = true};
inline constexpr Presence usual{};
inline constexpr Presence spare{.written = false};
constexpr Presence needed_where(const char* member, const char* value, Presence otherwise = usual) {
    otherwise.member = member, otherwise.value = value, otherwise.needed_then = true;
    return otherwise;
}
constexpr Presence written_where(const char* member, const char* value) {
    return {.written = false, .member = member, .value = value, .written_then = true};
}

constexpr Presence unless(const char* member, Presence otherwise) {
    otherwise.unless = member;
    return otherwise;
}

namespace range = text::range;

template <typename Rows>
void describe(Rows& rows, const HeightMap*) {
    rows.heights("rows");
}

template <typename Rows>
void describe(Rows& rows, const InTank*) {
    rows.number(
        "water_mm", [](auto& t) -> auto& { return t.tank.water; }, range::length, needed);
    rows.number(
        "wall_mm", [](auto& t) -> auto& { return t.tank.wall; }, range::length, usual);
    rows.number(
        "index", [](auto& t) -> auto& { return t.tank.water_index; }, range::refraction, spare);
    rows.number(
        "wall_index", [](auto& t) -> auto& { return t.tank.wall_index; }, range::refraction, spare);
}

template <typename Rows>
void describe(Rows& rows, const Lapse*) {
    rows.number("length_s", &Lapse::length, range::some_seconds, needed);
    rows.number("interval_s", &Lapse::interval, range::some_seconds, needed);
    rows.number("frames_per_second", &Lapse::frames_per_second, range::some_frequency, usual);
    rows.number("light_stops_per_hour", &Lapse::drift, range::stops, spare);
    rows.flag("exposure_follows", &Lapse::follows, spare);
    rows.number("growth_mm_per_hour", &Lapse::growth, range::length, spare);
    rows.number("growth_depth_mm_per_hour", &Lapse::growth_depth, range::offset, spare);
    rows.flag("lamps_rest", &Lapse::lamps_rest, spare);
}

template <typename Rows>
void describe(Rows& rows, const Perch*) {
    rows.number("scatter_mm", &Perch::scatter, range::length, needed);
    rows.number("aside_mm", &Perch::aside, range::length, needed);
    rows.number("comes_every_s", &Perch::comes_every, range::some_seconds, usual);
}

template <typename Rows>
void describe(Rows& rows, const Subject*) {
    constexpr text::NumberRule view_angle{.least = -greatest_view_angle, .greatest = greatest_view_angle};
    rows.number("width_mm", &Subject::width, range::size, needed);
    rows.number("height_mm", &Subject::height, range::size, needed);
    rows.number("depth_mm", &Subject::depth, range::length, needed);
    rows.number("reflectance", &Subject::reflectance, range::share, needed);
    rows.number("transmittance", &Subject::transmittance, range::share, spare);
    rows.number("highlight_reflectance", &Subject::highlight_reflectance, range::share, spare);
    rows.number("speed_mm_s", &Subject::speed, range::speed, needed);
    rows.number("sway_amplitude_mm", &Subject::sway_amplitude, range::length, spare);
    rows.number("sway_hz", &Subject::sway_frequency, range::frequency, spare);
    rows.number("sway_depth_mm", &Subject::sway_depth, range::length, spare);
    rows.choice("form", &Subject::form, spare);
    rows.choice("texture", &Subject::texture, spare);
    rows.number("tilt_deg", &Subject::tilt, view_angle, spare);
    rows.number("turn_deg", &Subject::turn, view_angle, spare);
    rows.colour("colour", &Subject::colour);
    rows.object("height_map", &Subject::height_map, needed_where("form", "height-map"));
    rows.texts("traits", &Subject::traits);
    rows.number("nearest_mm", &Subject::nearest, range::length, spare);
    rows.object("tank", &Subject::tank);
    rows.text("library", &Subject::library, spare);
}

template <typename Rows>
void describe(Rows& rows, const BellowsSetting*) {
    rows.gear("id", &BellowsSetting::bellows, &gear::Kit::bellows, "bellows", needed);
    rows.number("extension_mm", &BellowsSetting::extension, range::length, needed);
}

template <typename Rows>
void describe(Rows& rows, const FrontLens*) {
    rows.gear("lens", &FrontLens::lens, &gear::Kit::lenses, "lens", needed);
    rows.gear("coupling_ring", &FrontLens::coupling_ring, &gear::Kit::coupling_rings, "coupling ring", usual);
    rows.number("ring", &FrontLens::ring, range::share, usual);
    rows.number("f_number", &FrontLens::f_number, range::f_number, needed);
    rows.number("focal_length_mm", &FrontLens::focal_length, range::focal_length, spare);
}

template <typename Rows>
void describe(Rows& rows, const Rig*) {
    rows.gear("camera", &Rig::camera, &gear::Kit::cameras, "camera", needed);
    rows.gear("lens", &Rig::lens, &gear::Kit::lenses, "lens", needed);
    rows.gear("tubes", &Rig::tubes, &gear::Kit::tubes, "tube", needed);
    rows.gear("closeup_lenses", &Rig::closeup_lenses, &gear::Kit::closeup_lenses, "close-up lens", needed);
    rows.gear("teleconverter", &Rig::teleconverter, &gear::Kit::teleconverters, "teleconverter", needed);
    rows.text("crop_mode", &Rig::crop_mode, spare);
    rows.number("focal_length_mm", &Rig::focal_length, range::focal_length, spare);
    rows.gear("tubes_behind_converter", &Rig::tubes_behind_converter, &gear::Kit::tubes, "tube", spare);
    rows.object("bellows", &Rig::bellows);
    rows.gear("reversing_ring", &Rig::reversing_ring, &gear::Kit::reversing_rings, "reversing ring", spare);
    rows.object("front_lens", &Rig::front_lens);
    rows.gear("filters", &Rig::filters, &gear::Kit::filters, "filter", spare);
    rows.flag("hood_off", &Rig::hood_off, spare);
    rows.gear("rail", &Rig::rail, &gear::Kit::rails, "rail", spare);
    rows.gear("stand", &Rig::stand, &gear::Kit::stands, "stand", spare);
    rows.choice("support", &Rig::support, spare);
    rows.choice("orientation", &Rig::orientation, spare);
    rows.number("inclination_deg", &Rig::inclination, range::inclination, spare);
    rows.focus(&Rig::focus, range::share, range::magnification);
}

template <typename Rows>
void describe(Rows& rows, const Exposure*) {
    rows.number("f_number", &Exposure::f_number, range::f_number, needed);
    rows.number("shutter_s", &Exposure::shutter, range::shutter, needed);
    rows.number("iso", &Exposure::iso, range::iso, needed);
    rows.flag("high_speed_sync", &Exposure::high_speed_sync, spare);
    rows.choice("correct_by", &Exposure::lever, spare);
    rows.number("kelvin", &Exposure::kelvin, range::kelvin, spare);
}

template <typename Rows>
void describe(Rows& rows, const OtherLight*) {
    rows.number("ev100", &OtherLight::ev100, range::exposure_value, needed);
    rows.object("exposure", &OtherLight::exposure, needed);
}

template <typename Rows>
void describe(Rows& rows, const Output*) {
    rows.choice("kind", &Output::kind, needed);
    rows.number(
        "print_width_mm", [](auto& o) -> auto& { return o.print.width; }, range::size, usual);
    rows.number(
        "viewing_distance_mm", [](auto& o) -> auto& { return o.print.viewing_distance; }, range::size, usual);
    rows.number(
        "delivered_width_px", [](auto& o) -> auto& { return o.delivery.width_px; }, range::sensor_pixels, usual);
    rows.number(
        "crop", [](auto& o) -> auto& { return o.print.crop; }, range::crop, usual);
}

template <typename Rows>
void describe(Rows& rows, const Sharpness*) {
    constexpr double mm_per_nm = 1e-6;
    rows.choice("rule", &Sharpness::rule, needed);
    rows.number("pixels", &Sharpness::pixels, range::pixels, written_where("rule", "pixel"));
    rows.number("blur_limit_mm", &Sharpness::stated, range::disc, needed_where("rule", "stated"));
    rows.scaled("wavelength_nm", &Sharpness::wavelength, range::wavelength_nm, mm_per_nm);
    rows.number("focus_offset_mm", &Sharpness::focus_offset, range::offset, spare);
    rows.object("output", &Sharpness::output, written_where("rule", "output"));
    rows.number("headroom_stops", &Sharpness::headroom, range::lost_stops, spare);
}

template <typename Rows>
void describe(Rows& rows, const Slice*) {
    rows.number("from_mm", &Slice::from, range::length, needed);
    rows.number("to_mm", &Slice::to, range::length, needed);
    rows.number("rest_blur_share", &Slice::rest_blur, range::part, spare);
}

template <typename Rows>
void describe(Rows& rows, const LibrarySubject*) {
    rows.text("id", &LibrarySubject::id, needed);
    rows.text("class", &LibrarySubject::kind, needed);
    rows.text("name", &LibrarySubject::name, needed);
    rows.object("subject", &LibrarySubject::subject, needed);
    rows.object("zone", &LibrarySubject::zone);
    rows.number("still_share", &LibrarySubject::still, range::share, spare);
    rows.object("freeze", &LibrarySubject::freeze);
}

template <typename Rows>
void describe(Rows& rows, const HandHeld*) {
    rows.number("frames_per_second", &HandHeld::frames_per_second, range::some_frequency, needed);
    rows.number("burst_s", &HandHeld::burst, range::some_seconds, needed);
    rows.number("speed_mm_s", &HandHeld::speed, range::some_speed, needed);
    rows.number("range_mm", &HandHeld::range, range::size, needed);
}

/// A stack's members must be there; a single frame does without them.
template <typename Rows>
void describe(Rows& rows, const Capture*) {
    constexpr auto of_stack = needed_where("mode", "stack");
    rows.choice("mode", &Capture::mode, needed);
    rows.choice("depth_rule", &Capture::depth_rule, usual);
    rows.number("contrast_kept", &Capture::contrast_kept, range::kept, spare);
    rows.number("overlap", &Capture::overlap, range::overlap, of_stack);
    rows.number("lead_mm", &Capture::lead, range::length, of_stack);
    rows.number("tail_mm", &Capture::tail, range::length, of_stack);
    rows.choice("mover", &Capture::mover, of_stack);
    rows.object("slice", &Capture::slice);
    rows.flag("composite", &Capture::composite, spare);
    rows.number("settle_s", &Capture::settle, range::seconds, spare);
    rows.object("hand", &Capture::hand, written_where("mover", "hand"));
    rows.text("approach", &Capture::approach, spare);
    rows.number("interval_s", &Capture::interval, range::some_seconds, spare);
    rows.number("cadence_s", &Capture::cadence, range::some_seconds, spare);
}

template <typename Rows>
void describe(Rows& rows, const Panel*) {
    rows.number("loss_stops", &Panel::loss, range::lost_stops, needed);
    rows.number("width_mm", &Panel::width, range::size, needed);
    rows.number("distance_mm", &Panel::distance, range::size, needed);
}

template <typename Rows>
void describe(Rows& rows, const Ambient*) {
    rows.number("ev100", &Ambient::ev100, range::exposure_value, needed);
    rows.choice("kind", &Ambient::kind, spare);
    rows.number(
        "azimuth_deg", [](auto& a) -> auto& { return a.position.azimuth; }, range::full_turn, spare);
    rows.number(
        "elevation_deg", [](auto& a) -> auto& { return a.position.elevation; }, range::full_turn, spare);
    rows.number("size_deg", &Ambient::size, range::source_angle, spare);
    rows.number("distance_mm", &Ambient::distance, range::size, spare);
    rows.object("panel", &Ambient::panel);
    rows.number("room_share", &Ambient::room, range::share, spare);
    rows.number("kelvin", &Ambient::kelvin, range::kelvin, spare);
    rows.number("drift_stops_h", &Ambient::drift, range::stops, spare);
}

template <typename Rows>
void describe(Rows& rows, const Bounce*) {
    rows.number("from_lamp_mm", &Bounce::from_lamp, range::size, needed);
    rows.number("reflectance", &Bounce::reflectance, range::reflecting, needed);
    rows.number("diameter_mm", &Bounce::diameter, range::size, needed);
}

template <typename Rows>
void describe(Rows& rows, const Reflector*) {
    rows.number("reflectance", &Reflector::reflectance, range::reflecting, needed);
    rows.number("diameter_mm", &Reflector::diameter, range::size, needed);
}

template <typename Rows>
void describe(Rows& rows, const Light*) {
    rows.object("reflector", &Light::reflector);
    rows.gear("modifier", &Light::modifier, &gear::Kit::modifiers, "modifier", unless("reflector", needed));
    rows.number(
        "distance_mm", [](auto& l) -> auto& { return l.position.distance; }, range::size, needed);
    rows.number(
        "azimuth_deg", [](auto& l) -> auto& { return l.position.azimuth; }, range::full_turn, needed);
    rows.number(
        "elevation_deg", [](auto& l) -> auto& { return l.position.elevation; }, range::full_turn, needed);
    rows.power("power", &Light::power, unless("reflector", needed));
    rows.gear("lamp", &Light::lamp, &gear::Kit::lamps, "lamp", spare);
    rows.gear("flash", &Light::flash, &gear::Kit::flashes, "flash",
              unless("reflector", needed_where("lamp", nullptr, spare)));
    rows.number(
        "turn_deg", [](auto& l) -> auto& { return l.aim.turn; }, range::full_turn, spare);
    rows.number(
        "tip_deg", [](auto& l) -> auto& { return l.aim.tip; }, range::full_turn, spare);
    rows.flag("on_lens", &Light::on_lens, spare);
    rows.number("ratio_stops", &Light::ratio, range::stops, spare);
    rows.flag("second_layer", &Light::second_layer, spare);
    rows.object("bounce", &Light::bounce);
    rows.number("metered_compensation_stops", &Light::metered, range::stops, spare);
    rows.number("own_stops", &Light::own_stops, range::stops, spare);
    rows.choice("own_at", &Light::own_at, spare);
    rows.number("gel_mired", &Light::gel, range::mired, spare);
    rows.flag("off", &Light::off, spare);
    rows.group("group", &Light::group);
}

template <typename Rows>
void describe(Rows& rows, const Background*) {
    rows.number("distance_mm", &Background::distance, range::length, needed);
    rows.number("reflectance", &Background::reflectance, range::share, needed);
    rows.number("detail_mm", &Background::detail, range::size, spare);
    rows.choice("kind", &Background::kind, spare);
    rows.colour("colour", &Background::colour);
    rows.number("own_ev100", &Background::own_ev100, range::exposure_value, spare);
    rows.number("gradient_stops", &Background::gradient, range::stops, spare);
    rows.number("width_mm", &Background::width, range::size, spare);
    rows.number("height_mm", &Background::height, range::size, spare);
}

template <typename Rows>
void describe(Rows& rows, const Staged*) {
    rows.id("id", &Staged::id);
    rows.text("name", &Staged::name, needed);
    rows.choice("role", &Staged::role, spare);
    rows.object("subject", &Staged::subject, needed);
    rows.flag("lies", &Staged::lies, spare);
    rows.number("right_mm", &Staged::right, range::offset, spare);
    rows.number("behind_mm", &Staged::behind, range::offset, spare);
}

template <typename Rows>
void describe(Rows& rows, const Table*) {
    rows.number("height_mm", &Table::height, range::length, spare);
    rows.number("before_mm", &Table::before, range::length, spare);
    rows.number("behind_mm", &Table::behind, range::length, spare);
}

template <typename Rows>
void describe(Rows& rows, const TwoDrops*) {
    rows.number("rise_s", &TwoDrops::rise, range::seconds, needed);
    rows.number("column_mm", &TwoDrops::column, range::length, needed);
}

template <typename Rows>
void describe(Rows& rows, const RepeatingFlash*) {
    rows.whole(
        "flashes", [](auto& r) -> auto& { return r.burst.flashes; }, 1, needed);
    rows.number(
        "frequency_hz", [](auto& r) -> auto& { return r.burst.frequency; }, range::some_frequency, needed);
}

template <typename Rows>
void describe(Rows& rows, const Freeze*) {
    rows.choice("act", &Freeze::act, needed);
    rows.number("drop_mm", &Freeze::drop, range::offset, needed);
    rows.number("speed_mm_s", &Freeze::speed, range::speed, usual);
    rows.number("angle_deg", &Freeze::angle, range::half_turn, spare);
    rows.choice("moment", &Freeze::moment, spare);
    rows.flag("undelayed", &Freeze::undelayed, spare);
    rows.number("beam_rise_mm", &Freeze::beam_rise, range::offset, spare);
    rows.flag("beam_coming_down", &Freeze::beam_coming_down, spare);
    rows.whole("pieces", &Freeze::pieces, 1, spare);
    rows.number("spread_mm", &Freeze::spread, range::length, spare);
    rows.number("wanted_blur_px", &Freeze::wanted_blur, range::pixels, usual);
    rows.choice("trigger", &Freeze::trigger, usual);
    rows.number("beam_above_mm", &Freeze::beam_above, range::length, usual);
    rows.number("sound_distance_mm", &Freeze::sound_distance, range::length, usual);
    rows.number("lag_s", &Freeze::lag, range::seconds, usual);
    rows.number("scatter_mm", &Freeze::scatter, range::length, usual);
    rows.object("second_drop", &Freeze::second);
    rows.object("repeating", &Freeze::repeating);
}

template <typename Rows>
void describe(Rows& rows, const Hands*) {
    rows.number("shift_mm_s", &Hands::shift, range::speed, needed);
    rows.number("turn_rad_s", &Hands::turn, range::turning, needed);
    rows.number("along_mm", &Hands::along, range::length, needed);
}

/// Not more can be kept than were tried: the reader checks it.
template <typename Rows>
void describe(Rows& rows, const Tries*) {
    rows.number("calm_share", &Tries::calm, range::share, spare);
    rows.number("calm_swing", &Tries::calm_swing, range::share, spare);
    rows.number("still_share", &Tries::still, range::share, spare);
    rows.object("hands", &Tries::hands);
    rows.choice("try", &Tries::is, spare);
    rows.whole("bracket_frames", &Tries::bracket_frames, 1, spare);
    rows.number("bracket_step_mm", &Tries::bracket_step, range::size, spare);
    rows.number("trigger_share", &Tries::trigger_fires, range::share, spare);
    rows.number("false_share", &Tries::false_fires, range::share, spare);
    rows.number("lands_aside_mm", &Tries::lands_aside, range::length, spare);
    rows.number("stays_s", &Tries::stays, range::some_seconds, spare);
    rows.number("flees_share", &Tries::flees, range::share, spare);
    rows.object("perch", &Tries::perch);
    rows.number("rinse_s", &Tries::rinse, range::seconds, spare);
    rows.number("seconds", &Tries::seconds, range::some_seconds, spare);
    rows.whole("kept", &Tries::kept, 0, spare);
    rows.whole("tried", &Tries::tried, 0, spare);
    rows.text("counted_until", &Tries::counted_until, spare);
}

template <typename Rows>
void describe(Rows& rows, const ProofEntry*) {
    rows.text("time", &ProofEntry::time, needed);
    rows.whole("frames", &ProofEntry::frames, 0, needed);
    rows.number("correction_stops", &ProofEntry::correction, range::stops, needed);
    rows.choice("verdict", &ProofEntry::verdict, needed);
    rows.text("remark", &ProofEntry::remark, spare);
}

template <typename Rows>
void describe(Rows& rows, const ExposedFrame*) {
    rows.whole("index", &ExposedFrame::index, 0, needed);
    rows.text("file", &ExposedFrame::file, needed);
    rows.plane("plane_mm", &ExposedFrame::plane);
    rows.number("f_number", &ExposedFrame::f_number, range::f_number, needed);
    rows.number("shutter_s", &ExposedFrame::shutter, range::shutter, needed);
    rows.number("iso", &ExposedFrame::iso, range::iso, needed);
    rows.text("time", &ExposedFrame::time, needed);
    rows.number("flash_share", &ExposedFrame::flash, range::count, spare);
    rows.text("remark", &ExposedFrame::remark, spare);
}

template <typename Rows>
void describe(Rows& rows, const RunRecord*) {
    rows.text("id", &RunRecord::id, needed);
    rows.text("time", &RunRecord::time, needed);
    rows.whole("planned_frames", &RunRecord::planned, 0, needed);
    rows.choice("end", &RunRecord::end, needed);
    rows.path("folder", &RunRecord::folder, spare);
    rows.text("remark", &RunRecord::remark, spare);
    rows.list("frames", &RunRecord::frames, needed);
}

template <typename Rows>
void describe(Rows& rows, const Limits*) {
    rows.number("iso_max", &Limits::iso, range::iso, spare);
    rows.number("shutter_by_hand_max_s", &Limits::shutter_by_hand, range::shutter, spare);
    rows.number("f_number_max", &Limits::f_number, range::f_number, spare);
    rows.number("frames_max", &Limits::frames, range::some, spare);
    rows.number("minutes_max", &Limits::minutes, range::some, spare);
    rows.choices("give_up", &Limits::give_up);
}

template <typename Rows>
void describe(Rows& rows, const Wishes*) {
    rows.choice("ground", &Wishes::ground, spare);
    rows.number("softness", &Wishes::softness, range::part, spare);
    rows.choice("lit_by", &Wishes::lit_by, spare);
    rows.choice("movement", &Wishes::movement, spare);
    rows.choice("contrast", &Wishes::contrast, spare);
    rows.number("brighter_stops", &Wishes::brighter, range::stops, spare);
    rows.flag("coloured_light", &Wishes::coloured_light, spare);
    rows.flag("passes_frame", &Wishes::passes_frame, spare);
}

/// The shots that `after` names are checked when all are read.
template <typename Rows>
void describe(Rows& rows, const Timing*) {
    rows.texts("after", &Timing::after);
    rows.number("not_before_s", &Timing::not_before, range::seconds, spare);
    rows.number("done_by_s", &Timing::done_by, range::seconds, spare);
    rows.number("handling_s", &Timing::handling, range::seconds, spare);
}

template <typename Rows>
void describe(Rows& rows, const OwnCheck*) {
    rows.id("id", &OwnCheck::id);
    rows.text("text", &OwnCheck::text, needed);
}

template <typename Rows>
void describe(Rows& rows, const KindCheck*) {
    rows.text("kind", &KindCheck::kind, spare);
    rows.text("text", &KindCheck::text, needed);
}

template <typename Rows>
void describe(Rows& rows, const Held*) {
    rows.object("exposure", &Held::exposure, needed);
    rows.focus(&Held::focus, range::share, range::magnification);
    rows.list("lights", &Held::lights, needed);
}

template <typename Rows>
void describe(Rows& rows, const View*) {
    rows.text("thing", &View::thing, needed);
    rows.text("name", &View::name, needed);
    rows.text("proves", &View::proves, spare);
    rows.number("worth", &View::worth, range::count, spare);
    rows.flag("must", &View::must, spare);
    rows.flag("half", &View::half, spare);
    rows.texts("also", &View::also);
}

/// The shot that it names is checked when all are read.
template <typename Rows>
void describe(Rows& rows, const Follows*) {
    rows.text("shot", &Follows::shot, needed);
    rows.choices("locks", &Follows::locks);
}

template <typename Rows>
void describe(Rows& rows, const Plate*) {
    rows.text("picture", &Plate::picture, needed);
    rows.choice("role", &Plate::role, needed);
}

template <typename Rows>
void describe(Rows& rows, const Outlet*) {
    rows.id("id", &Outlet::id);
    rows.text("name", &Outlet::name, needed);
    rows.whole("most", &Outlet::most, 1, needed);
    rows.number("shape", &Outlet::shape, range::picture_shape, spare);
    rows.number("least_short_px", &Outlet::least_short_px, range::sensor_pixels, spare);
    rows.number("most_long_px", &Outlet::most_long_px, range::sensor_pixels, spare);
    rows.choice("ground", &Outlet::ground, spare);
    rows.number("margin", &Outlet::margin, range::margin, spare);
    rows.text("first", &Outlet::first, spare);
}

/// The outlet and the shot that it names are checked when all are read.
template <typename Rows>
void describe(Rows& rows, const Delivery*) {
    rows.text("outlet", &Delivery::outlet, needed);
    rows.number("right", &Delivery::right, range::aside, spare);
    rows.number("down", &Delivery::down, range::aside, spare);
    rows.text("beside", &Delivery::beside, spare);
}

template <typename Rows>
void describe(Rows& rows, const PackedItem*) {
    rows.id("id", &PackedItem::id);
    rows.text("text", &PackedItem::text, needed);
    rows.text("case", &PackedItem::container, spare);
}

template <typename Rows>
void describe(Rows& rows, const PackedIn*) {
    rows.text("item", &PackedIn::item, needed);
    rows.text("case", &PackedIn::container, needed);
}

template <typename Rows>
void describe(Rows& rows, const Packing*) {
    rows.list("own", &Packing::own, spare);
    rows.list("cases", &Packing::places, spare);
    rows.texts("going", &Packing::going);
    rows.texts("home", &Packing::home);
}

template <typename Rows>
void describe(Rows& rows, const SetView*) {
    constexpr text::NumberRule view_angle_of_set{.least = -greatest_view_angle, .greatest = greatest_view_angle};
    rows.text("name", &SetView::name, needed);
    rows.text("proves", &SetView::proves, spare);
    rows.number("worth", &SetView::worth, range::count, spare);
    rows.flag("must", &SetView::must, spare);
    rows.flag("half", &SetView::half, spare);
    rows.texts("also", &SetView::also);
    rows.choice("face", &SetView::face, spare);
    rows.number("turn_deg", &SetView::turn, view_angle_of_set, spare);
    rows.number("share", &SetView::share, range::part, spare);
    rows.number("fill", &SetView::fill, range::part, spare);
    rows.flag("stack", &SetView::stack, spare);
    rows.number("shape", &SetView::shape, range::picture_shape, spare);
    rows.flag("flaw", &SetView::flaw, spare);
    rows.flag("scale", &SetView::scale, spare);
    rows.choices("locks", &SetView::locks);
}

template <typename Rows>
void describe(Rows& rows, const ViewSet*) {
    rows.text("id", &ViewSet::id, needed);
    rows.text("name", &ViewSet::name, needed);
    rows.list("views", &ViewSet::views, needed);
}

/// A shot with its runs: they stand in the shot in the file, beside the shots in the document.
struct ShotInFile {
    Shot shot;
    std::vector<CopyOnWrite<RunRecord>> runs;
};

/// What this version does not know of a record.
template <typename Record>
auto& unknown_of(Record& record) {
    if constexpr (std::is_same_v<std::remove_const_t<Record>, ShotInFile>)
        return record.shot.unknown;
    else
        return record.unknown;
}

template <typename Rows>
void describe(Rows& rows, const ShotInFile*) {
    rows.id(
        "id", [](auto& s) -> auto& { return s.shot.id; });
    rows.text(
        "name", [](auto& s) -> auto& { return s.shot.name; }, needed);
    rows.text(
        "words", [](auto& s) -> auto& { return s.shot.words; }, spare);
    rows.object(
        "subject", [](auto& s) -> auto& { return s.shot.subject; }, needed);
    rows.object(
        "rig", [](auto& s) -> auto& { return s.shot.rig; }, needed);
    rows.object(
        "exposure", [](auto& s) -> auto& { return s.shot.exposure; }, needed);
    rows.object(
        "sharpness", [](auto& s) -> auto& { return s.shot.sharpness; }, needed);
    rows.object(
        "capture", [](auto& s) -> auto& { return s.shot.capture; }, needed);
    rows.object(
        "ambient", [](auto& s) -> auto& { return s.shot.ambient; });
    rows.object(
        "other_light", [](auto& s) -> auto& { return s.shot.other_light; });
    rows.list(
        "lights", [](auto& s) -> auto& { return s.shot.lights; }, needed);
    rows.object(
        "background", [](auto& s) -> auto& { return s.shot.background; });
    rows.object(
        "table", [](auto& s) -> auto& { return s.shot.table; });
    rows.list(
        "staging", [](auto& s) -> auto& { return s.shot.staging; }, spare);
    rows.object(
        "freeze", [](auto& s) -> auto& { return s.shot.freeze; });
    rows.object(
        "lapse", [](auto& s) -> auto& { return s.shot.lapse; });
    rows.object(
        "tries", [](auto& s) -> auto& { return s.shot.tries; });
    rows.object(
        "held", [](auto& s) -> auto& { return s.shot.held; });
    rows.number(
        "bearing_deg", [](auto& s) -> auto& { return s.shot.bearing; }, range::full_turn, spare);
    rows.number(
        "picture_shape", [](auto& s) -> auto& { return s.shot.picture_shape; }, range::picture_shape, spare);
    rows.object(
        "view", [](auto& s) -> auto& { return s.shot.view; });
    rows.object(
        "follows", [](auto& s) -> auto& { return s.shot.follows; });
    rows.object(
        "plate", [](auto& s) -> auto& { return s.shot.plate; });
    rows.list(
        "deliveries", [](auto& s) -> auto& { return s.shot.deliveries; }, spare);
    rows.list(
        "own_checks", [](auto& s) -> auto& { return s.shot.own_checks; }, spare);
    rows.texts(
        "checked", [](auto& s) -> auto& { return s.shot.checked; });
    rows.list(
        "proof", [](auto& s) -> auto& { return s.shot.proof; }, spare);
    rows.list("runs", &ShotInFile::runs, spare);
    rows.object(
        "timing", [](auto& s) -> auto& { return s.shot.timing; });
    rows.object(
        "limits", [](auto& s) -> auto& { return s.shot.limits; });
    rows.object(
        "wishes", [](auto& s) -> auto& { return s.shot.wishes; });
}

template <typename Rows>
void describe(Rows& rows, const PowerSet*) {
    rows.text("name", &PowerSet::name, needed);
    rows.powers("powers", &PowerSet::powers);
}

template <typename Rows>
void describe(Rows& rows, const Obstacle*) {
    rows.number("from_deg", &Obstacle::from, range::full_turn, needed);
    rows.number("to_deg", &Obstacle::to, range::full_turn, needed);
    rows.number("height_deg", &Obstacle::height, range::inclination, needed);
}

template <typename Rows>
void describe(Rows& rows, const SunWindow*) {
    rows.number("from_deg", &SunWindow::from, range::full_turn, needed);
    rows.number("to_deg", &SunWindow::to, range::full_turn, needed);
    rows.number("low_deg", &SunWindow::low, range::inclination, usual);
    rows.number("high_deg", &SunWindow::high, range::inclination, usual);
}

template <typename Rows>
void describe(Rows& rows, const LightReading*) {
    rows.number("ev100", &LightReading::ev100, range::exposure_value, needed);
    rows.number("clock_s", &LightReading::clock, range::seconds, needed);
}

template <typename Rows>
void describe(Rows& rows, const Site*) {
    rows.text("name", &Site::name, spare);
    rows.number("latitude_deg", &Site::latitude, range::inclination, spare);
    rows.number("longitude_deg", &Site::longitude, range::half_turn, spare);
    rows.text("zone", &Site::zone, spare);
    rows.text("date", &Site::date, spare);
    rows.list("obstacles", &Site::obstacles, spare);
    rows.choice("sky", &Site::sky, spare);
    rows.object("reading", &Site::reading);
    rows.object("window", &Site::window);
}

template <typename Rows>
void describe(Rows& rows, const ChangePrices*) {
    rows.number("camera", &ChangePrices::camera, range::seconds, usual);
    rows.number("lens", &ChangePrices::lens, range::seconds, usual);
    rows.number("tubes", &ChangePrices::tubes, range::seconds, usual);
    rows.number("light", &ChangePrices::light, range::seconds, usual);
    rows.number("background", &ChangePrices::background, range::seconds, usual);
    rows.number("subject", &ChangePrices::subject, range::seconds, usual);
    rows.number("turn", &ChangePrices::turn, range::seconds, usual);
}

template <typename Rows>
void describe(Rows& rows, const Workday*) {
    rows.number("begin_s", &Workday::begin, range::seconds, usual);
    rows.object("prices_s", &Workday::prices, usual);
    rows.number("sorting_s_per_frame", &Workday::sorting, range::seconds, usual);
    rows.number("combining_s_per_frame", &Workday::combining, range::seconds, usual);
    rows.flag("waiting_counts", &Workday::waiting_counts, usual);
}

}  // namespace poquito::shoot
