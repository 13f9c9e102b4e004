#include "storage/json_reader.hpp"
#include "storage/kit_json.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <limits>

namespace poquito::storage {
namespace {

using namespace text;
using namespace gear;
using namespace shoot;

constexpr NumberRule view_angle{.least = -greatest_view_angle, .greatest = greatest_view_angle};

PowerSet read_power_set(const Node& node);
Shot read_shot(const Node& node, const Kit& kit);
Workday read_workday(const Node& node);
void check_relations(const Node& shots, const Shoot& shoot);

Shoot read_document(const Json& document) {
    const Node root(document);
    ObjectReader object(root);
    object.member("format", "\"poquito-shoot\"").one_of<int>({{"poquito-shoot", 0}});
    const Node version = object.member("version", "1");
    if (!version.value().is_number() || version.value() != shoot_version)
        version.fail_expecting("1, the version this program reads");
    Shoot shoot;
    shoot.title = object.text("title");
    shoot.kit = read_kit(object.member("kit", "an object"));
    if (const auto sets = object.find("power_sets"))
        for (const Node& set : sets->items()) shoot.power_sets.push_back(read_power_set(set));
    const Node shots = object.member("shots", "a list");
    for (const Node& shot : shots.items()) shoot.shots.push_back(read_shot(shot, shoot.kit));
    check_ids_distinct(shots);
    check_relations(shots, shoot);
    if (const auto day = object.find("workday")) shoot.workday = read_workday(*day);
    shoot.unknown = object.unknown();
    return shoot;
}

std::string read_group(const Node& node) {
    node.one_of<int>({{"A", 0}, {"B", 1}, {"C", 2}});
    return node.text();
}

PowerSet read_power_set(const Node& node) {
    ObjectReader object(node);
    PowerSet set{.name = object.text("name")};
    const Node powers = object.member("powers", "an object");
    ObjectReader groups(powers);
    for (const char* group : {"A", "B", "C"})
        if (const auto power = groups.find(group)) set.powers.emplace_back(group, power->number(range::part));
    if (const auto strange = groups.unknown(); !strange.empty())
        powers.fail(fmt::format("got {}, expected the groups A, B and C alone", Node::shortened(strange)));
    set.unknown = object.unknown();
    return set;
}

// ---- shots -------------------------------------------------------------------------------------------------------

/// A member that names a piece of gear.
template <typename Gear>
std::string read_reference(const Node& node, const std::vector<Gear>& list, const char* kind) {
    std::string id = node.text();
    if (!find_gear(list, id))
        node.fail(fmt::format("got \"{}\", expected the id of a {} in kit", Node::shortened(id), kind));
    return id;
}

template <typename Gear>
std::optional<std::string> read_optional_reference(ObjectReader& object, const char* key, const std::vector<Gear>& list,
                                                   const char* kind) {
    const Node node = object.member(key, "an id or null");
    if (node.is_null()) return std::nullopt;
    return read_reference(node, list, kind);
}

template <typename Gear>
std::vector<std::string> read_references(ObjectReader& object, const char* key, const std::vector<Gear>& list,
                                         const char* kind) {
    std::vector<std::string> ids;
    const Node node = object.member(key, "a list of ids");
    for (const Node& item : node.items()) ids.push_back(read_reference(item, list, kind));
    return ids;
}

Colour read_colour(const Node& node) {
    const auto colour = parse_colour(node.text());
    if (!colour) node.fail_expecting("a colour such as \"#7f9c8a\"");
    return *colour;
}

/// Rows from the top; two hexadecimal digits a height.
HeightMap read_height_map(const Node& node) {
    ObjectReader object(node);
    const Node list = object.member("rows", "a list of rows");
    const auto rows = list.items();
    if (rows.size() < 2 || rows.size() > greatest_height_map)
        node.fail(fmt::format("got {} rows, expected 2 to {}", rows.size(), greatest_height_map));
    HeightMap map{.height = static_cast<int>(rows.size())};
    for (const Node& row : rows) {
        const std::string digits = row.text();
        const auto columns = digits.size() / 2;
        if (digits.size() % 2 != 0 || columns < 2 || columns > greatest_height_map)
            row.fail(fmt::format("got {} digits, expected two for each of 2 to {} heights", digits.size(),
                                 greatest_height_map));
        if (map.width != 0 && static_cast<int>(columns) != map.width)
            row.fail(fmt::format("got {} heights, expected {} as in the first row", columns, map.width));
        map.width = static_cast<int>(columns);
        for (std::size_t i = 0; i < digits.size(); i += 2) {
            std::uint8_t height = 0;
            const char* end = digits.data() + i + 2;
            if (std::from_chars(digits.data() + i, end, height, 16).ptr != end)
                row.fail(fmt::format("got \"{}\", expected two hexadecimal digits", digits.substr(i, 2)));
            map.heights.push_back(height);
        }
    }
    map.unknown = object.unknown();
    return map;
}

Form read_form(const Node& node) {
    const std::string id = node.text();
    const auto found = std::ranges::find(forms(), id, &FormName::id);
    if (found != forms().end()) return found->form;
    std::string known;
    for (const auto& form : forms()) known += fmt::format("{}\"{}\"", known.empty() ? "" : ", ", form.id);
    node.fail(fmt::format("got \"{}\", expected one of {}", Node::shortened(id), known));
}

Subject read_subject(const Node& node) {
    ObjectReader object(node);
    Subject subject{.width = object.number("width_mm", range::size),
                    .height = object.number("height_mm", range::size),
                    .depth = object.number("depth_mm", range::length),
                    .reflectance = object.number("reflectance", range::share),
                    .speed = object.number("speed_mm_s", range::speed),
                    .sway_amplitude = object.number_or("sway_amplitude_mm", range::length, 0),
                    .sway_frequency = object.number_or("sway_hz", range::frequency, 1),
                    .tilt = object.number_or("tilt_deg", view_angle, 0),
                    .turn = object.number_or("turn_deg", view_angle, 0)};
    if (const auto form = object.find("form")) subject.form = read_form(*form);
    if (const auto colour = object.find("colour")) subject.colour = read_colour(*colour);
    if (const auto map = object.find("height_map")) subject.height_map.emplace(read_height_map(*map));
    if (subject.form == Form::height_map && !subject.height_map)
        object.member("height_map", "an object, as the form is a height map");
    if (object.find("traits")) subject.traits = object.texts("traits");
    subject.unknown = object.unknown();
    return subject;
}

Focus read_focus(ObjectReader& rig) {
    const auto ring = rig.find("ring");
    const auto magnification = rig.find("magnification");
    if (ring && magnification) ring->fail("both ring and magnification given, expected one of them");
    if (ring) return {.by = FocusBy::ring, .value = ring->number(range::share)};
    if (magnification) return {.by = FocusBy::magnification, .value = magnification->number(range::magnification)};
    rig.node().fail("neither ring nor magnification given, expected one of them");
}

std::optional<BellowsSetting> read_bellows_setting(ObjectReader& rig, const Kit& kit) {
    const auto node = rig.find("bellows");
    if (!node) return std::nullopt;
    ObjectReader object(*node);
    BellowsSetting setting{.bellows =
                               read_reference(object.member("id", "the id of a bellows"), kit.bellows, "bellows")};
    const Bellows& bellows = *find_gear(kit.bellows, setting.bellows);
    setting.extension = object.number("extension_mm", NumberRule{.least = bellows.least, .greatest = bellows.greatest});
    setting.unknown = object.unknown();
    return setting;
}

/// Of a zoom, inside its range; of another lens there is nothing to set.
std::optional<double> read_zoom_position(ObjectReader& object, const Lens& lens) {
    const auto node = object.find("focal_length_mm");
    if (!node) return std::nullopt;
    if (lens.zoom.empty()) node->fail(fmt::format("lens \"{}\" is no zoom, expected no focal length", lens.id));
    return node->number({.least = lens.zoom.front().focal_length, .greatest = lens.zoom.back().focal_length});
}

std::optional<FrontLens> read_front_lens(ObjectReader& rig, const Kit& kit) {
    const auto node = rig.find("front_lens");
    if (!node) return std::nullopt;
    ObjectReader object(*node);
    FrontLens front{.lens = read_reference(object.member("lens", "the id of a lens"), kit.lenses, "lens")};
    if (const auto ring = object.find("coupling_ring"))
        front.coupling_ring = read_reference(*ring, kit.coupling_rings, "coupling ring");
    front.ring = object.number_or("ring", range::share, 0);
    front.f_number = object.number("f_number", range::f_number);
    front.focal_length = read_zoom_position(object, *find_gear(kit.lenses, front.lens));
    front.unknown = object.unknown();
    return front;
}

template <typename Gear>
std::optional<std::string> read_reference_if_any(ObjectReader& object, const char* key, const std::vector<Gear>& list,
                                                 const char* kind) {
    const auto node = object.find(key);
    return node ? std::optional(read_reference(*node, list, kind)) : std::nullopt;
}

/// What cannot be screwed together.
void check_rig(ObjectReader& rig, const Rig& read, const Kit& kit) {
    if (read.reversing_ring && !read.closeup_lenses.empty())
        rig.member("closeup_lenses", "a list")
            .fail("got close-up lenses on a reversed lens, expected none: its mount has no thread");
    if (read.reversing_ring && read.front_lens)
        rig.member("front_lens", "an object").fail("got a front lens on a reversed lens, expected one of the two");
    if (read.tubes_behind_converter.empty()) return;
    const Node behind = rig.member("tubes_behind_converter", "a list");
    if (!read.teleconverter) behind.fail("got tubes behind no converter, expected them in tubes");
    if (!find_gear(kit.teleconverters, *read.teleconverter)->optics.has_length())
        behind.fail("got tubes behind a converter without length, expected a converter whose length_mm is 0.1 or more");
}

Rig read_rig(const Node& node, const Kit& kit) {
    ObjectReader object(node);
    Rig rig{.camera = read_reference(object.member("camera", "the id of a camera"), kit.cameras, "camera"),
            .teleconverter = read_optional_reference(object, "teleconverter", kit.teleconverters, "teleconverter"),
            .tubes = read_references(object, "tubes", kit.tubes, "tube"),
            .bellows = read_bellows_setting(object, kit),
            .reversing_ring = read_reference_if_any(object, "reversing_ring", kit.reversing_rings, "reversing ring"),
            .lens = read_reference(object.member("lens", "the id of a lens"), kit.lenses, "lens"),
            .closeup_lenses = read_references(object, "closeup_lenses", kit.closeup_lenses, "close-up lens"),
            .front_lens = read_front_lens(object, kit),
            .rail = read_reference_if_any(object, "rail", kit.rails, "rail"),
            .focus = read_focus(object)};
    if (const auto mode = object.find("crop_mode")) {
        rig.crop_mode = mode->text();
        if (std::ranges::count(find_gear(kit.cameras, rig.camera)->crop_modes, *rig.crop_mode, &CropMode::name) == 0)
            mode->fail(fmt::format("got \"{}\", expected the name of a crop mode of camera \"{}\"",
                                   Node::shortened(*rig.crop_mode), rig.camera));
    }
    if (object.find("tubes_behind_converter"))
        rig.tubes_behind_converter = read_references(object, "tubes_behind_converter", kit.tubes, "tube");
    rig.focal_length = read_zoom_position(object, *find_gear(kit.lenses, rig.lens));
    if (const auto support = object.find("support"))
        rig.support = support->one_of<Support>(
            {{"hand", Support::hand}, {"small-head", Support::small_head}, {"sturdy-head", Support::sturdy_head}});
    check_rig(object, rig, kit);
    rig.unknown = object.unknown();
    return rig;
}

Exposure read_exposure(const Node& node) {
    ObjectReader object(node);
    Exposure exposure{.f_number = object.number("f_number", range::f_number),
                      .shutter = object.number("shutter_s", range::shutter),
                      .iso = object.number("iso", range::iso),
                      .high_speed_sync = object.flag_or("high_speed_sync", false)};
    if (const auto lever = object.find("correct_by"))
        exposure.lever = lever->one_of<Lever>(
            {{"power", Lever::power}, {"distance", Lever::distance}, {"stop", Lever::stop}, {"iso", Lever::iso}});
    exposure.unknown = object.unknown();
    return exposure;
}

void read_output(const Node& node, Sharpness& sharpness) {
    ObjectReader object(node);
    sharpness.output = object.member("kind", "\"print\" or \"delivery\"")
                           .one_of<OutputKind>({{"print", OutputKind::print}, {"delivery", OutputKind::delivery}});
    sharpness.print.width = object.number_or("print_width_mm", range::size, sharpness.print.width);
    sharpness.print.viewing_distance =
        object.number_or("viewing_distance_mm", range::size, sharpness.print.viewing_distance);
    sharpness.delivery.width_px =
        object.number_or("delivered_width_px", range::sensor_pixels, sharpness.delivery.width_px);
    sharpness.print.crop = sharpness.delivery.crop = object.number_or("crop", range::crop, 1);
}

Sharpness read_sharpness(const Node& node) {
    constexpr double mm_per_nm = 1e-6;
    ObjectReader object(node);
    Sharpness sharpness;
    sharpness.rule = object.member("rule", "a rule")
                         .one_of<BlurRule>({{"pixel", BlurRule::pixel},
                                            {"diagonal", BlurRule::diagonal},
                                            {"output", BlurRule::output},
                                            {"stated", BlurRule::stated}});
    sharpness.pixels = object.number_or("pixels", range::pixels, sharpness.pixels);
    sharpness.stated = sharpness.rule == BlurRule::stated ? object.number("blur_limit_mm", range::disc)
                                                          : object.number_if_any("blur_limit_mm", range::disc);
    if (const auto wavelength = object.number_if_any("wavelength_nm", range::wavelength_nm))
        sharpness.wavelength = *wavelength * mm_per_nm;
    sharpness.focus_offset = object.number_or("focus_offset_mm", range::offset, 0);
    if (const auto output = object.find("output")) read_output(*output, sharpness);
    sharpness.unknown = object.unknown();
    return sharpness;
}

/// A stack's members must be there; a single frame does without them.
Capture read_capture(const Node& node) {
    ObjectReader object(node);
    Capture capture;
    capture.mode = object.member("mode", "\"single\" or \"stack\"")
                       .one_of<CaptureMode>({{"single", CaptureMode::single}, {"stack", CaptureMode::stack}});
    if (const auto rule = object.find("depth_rule"))
        capture.depth_rule = rule->one_of<DepthRule>(
            {{"blur", DepthRule::blur}, {"quarter-wave", DepthRule::quarter_wave}, {"contrast", DepthRule::contrast}});
    capture.contrast_kept = object.number_or("contrast_kept", range::kept, capture.contrast_kept);
    const bool stack = capture.mode == CaptureMode::stack;
    const auto needed = [&](const char* key, const NumberRule& rule, double otherwise) {
        return stack ? object.number(key, rule) : object.number_or(key, rule, otherwise);
    };
    capture.overlap = needed("overlap", range::overlap, capture.overlap);
    capture.lead = needed("lead_mm", range::length, 0);
    capture.tail = needed("tail_mm", range::length, 0);
    const auto mover =
        stack ? std::optional(object.member("mover", "\"ring\", \"rail\" or \"hand\"")) : object.find("mover");
    if (mover)
        capture.mover = mover->one_of<Mover>({{"ring", Mover::ring}, {"rail", Mover::rail}, {"hand", Mover::hand}});
    if (const auto slice = object.find("slice")) {
        ObjectReader ends(*slice);
        capture.slice = Slice{.from = ends.number("from_mm", range::length)};
        capture.slice->to =
            ends.number("to_mm", NumberRule{.least = capture.slice->from, .greatest = range::length.greatest});
        capture.slice->unknown = ends.unknown();
    }
    capture.composite = object.flag_or("composite", capture.composite);
    capture.settle = object.number_if_any("settle_s", range::seconds);
    if (const auto hand = object.find("hand")) {
        ObjectReader held(*hand);
        capture.hand = {.frames_per_second = held.number("frames_per_second", range::some_frequency),
                        .burst = held.number("burst_s", range::some_seconds),
                        .speed = held.number("speed_mm_s", range::some_speed),
                        .range = held.number("range_mm", range::size)};
        capture.hand.unknown = held.unknown();
    }
    if (const auto approach = object.find("approach")) capture.approach = approach->text();
    capture.interval = object.number_if_any("interval_s", range::some_seconds);
    capture.unknown = object.unknown();
    return capture;
}

Ambient read_ambient(const Node& node) {
    ObjectReader object(node);
    Ambient ambient{.ev100 = object.number("ev100", range::exposure_value)};
    if (const auto kind = object.find("kind"))
        ambient.kind = kind->one_of<AmbientKind>(
            {{"even", AmbientKind::even}, {"window", AmbientKind::window}, {"sky", AmbientKind::sky}});
    auto& position = ambient.position;
    position.azimuth = object.number_or("azimuth_deg", range::full_turn, position.azimuth);
    position.elevation = object.number_or("elevation_deg", range::full_turn, position.elevation);
    ambient.size = object.number_or("size_deg", range::source_angle, ambient.size);
    ambient.unknown = object.unknown();
    return ambient;
}

std::optional<double> read_power(const Node& node) {
    if (!node.value().is_string()) return node.number(range::power);
    node.one_of<int>({{"auto", 0}});
    return std::nullopt;
}

Bounce read_bounce(const Node& node) {
    ObjectReader object(node);
    Bounce bounce{.from_lamp = object.number("from_lamp_mm", range::size),
                  .reflectance = object.number("reflectance", range::reflecting),
                  .diameter = object.number("diameter_mm", range::size)};
    bounce.unknown = object.unknown();
    return bounce;
}

Light read_light(const Node& node, const Kit& kit) {
    ObjectReader object(node);
    Light light{.lamp = read_reference_if_any(object, "lamp", kit.lamps, "lamp"),
                .modifier = read_optional_reference(object, "modifier", kit.modifiers, "modifier"),
                .position = {.distance = object.number("distance_mm", range::size),
                             .azimuth = object.number("azimuth_deg", range::full_turn),
                             .elevation = object.number("elevation_deg", range::full_turn)},
                .aim = {.turn = object.number_or("turn_deg", range::full_turn, 0),
                        .tip = object.number_or("tip_deg", range::full_turn, 0)},
                .on_lens = object.flag_or("on_lens", false),
                .ratio = object.number_or("ratio_stops", range::stops, 0),
                .second_layer = object.flag_or("second_layer", false),
                .metered = object.number_if_any("metered_compensation_stops", range::stops)};
    const Node power = object.member("power", light.lamp ? "a fraction" : "a fraction or \"auto\"");
    if (light.lamp) {
        if (const auto flash = object.find("flash")) flash->fail("got a flash beside a lamp, expected one of the two");
        light.power = power.number(range::part);  // a lamp gives what it gives; it is not metered
    } else {
        light.flash = read_reference(object.member("flash", "the id of a flash"), kit.flashes, "flash");
        light.power = read_power(power);
    }
    if (light.metered && light.power)
        object.member("power", "a power").fail("got a power beside metered_compensation_stops, expected \"auto\"");
    if (const auto bounce = object.find("bounce")) light.bounce = read_bounce(*bounce);
    if (const auto group = object.find("group")) light.group = read_group(*group);
    light.unknown = object.unknown();
    return light;
}

Background read_background(const Node& node) {
    ObjectReader object(node);
    Background background{.distance = object.number("distance_mm", range::length),
                          .reflectance = object.number("reflectance", range::share),
                          .detail = object.number_or("detail_mm", range::size, Background{}.detail)};
    if (const auto kind = object.find("kind"))
        background.kind =
            kind->one_of<BackgroundKind>({{"card", BackgroundKind::card}, {"scene", BackgroundKind::scene}});
    if (const auto colour = object.find("colour")) background.colour = read_colour(*colour);
    background.unknown = object.unknown();
    return background;
}

Freeze read_freeze(const Node& node) {
    ObjectReader object(node);
    Freeze freeze{.act = object.member("act", "\"fall\", \"thrown\" or \"splash\"")
                             .one_of<Act>({{"fall", Act::fall}, {"thrown", Act::thrown}, {"splash", Act::splash}})};
    freeze.drop = object.number("drop_mm", freeze.act == Act::thrown ? range::offset : range::length);
    freeze.speed = object.number_or("speed_mm_s", range::speed, freeze.speed);
    freeze.wanted_blur = object.number_or("wanted_blur_px", range::pixels, freeze.wanted_blur);
    if (const auto trigger = object.find("trigger"))
        freeze.trigger =
            trigger->one_of<Trigger>({{"beam", Trigger::beam}, {"sound", Trigger::sound}, {"hand", Trigger::hand}});
    freeze.beam_above = object.number_or("beam_above_mm", range::length, freeze.beam_above);
    freeze.sound_distance = object.number_or("sound_distance_mm", range::length, freeze.sound_distance);
    freeze.lag = object.number_or("lag_s", range::seconds, freeze.lag);
    freeze.scatter = object.number_or("scatter_mm", range::length, freeze.scatter);
    if (const auto second = object.find("second_drop")) {
        ObjectReader drop(*second);
        freeze.second = TwoDrops{.rise = drop.number("rise_s", range::seconds),
                                 .column = drop.number("column_mm", NumberRule{.greatest = freeze.drop})};
        freeze.second->unknown = drop.unknown();
    }
    if (const auto burst = object.find("repeating")) {
        ObjectReader flashes(*burst);
        freeze.repeating =
            RepeatingFlash{.burst = {.flashes = flashes.member("flashes", "a whole number").whole_number(1),
                                     .frequency = flashes.number("frequency_hz", range::some_frequency)}};
        freeze.repeating->unknown = flashes.unknown();
    }
    freeze.unknown = object.unknown();
    return freeze;
}

ProofEntry read_proof_entry(const Node& node) {
    ObjectReader object(node);
    ProofEntry entry{.time = object.text("time"),
                     .frames = object.member("frames", "a whole number").whole_number(0),
                     .correction = object.number("correction_stops", range::stops),
                     .verdict = object.member("verdict", "\"keep\" or \"redo\"")
                                    .one_of<Verdict>({{"keep", Verdict::keep}, {"redo", Verdict::redo}}),
                     .remark = object.text_or("remark", "")};
    entry.unknown = object.unknown();
    return entry;
}

/// Null: at infinity.
double read_plane(const Node& node) {
    return node.is_null() ? std::numeric_limits<double>::infinity() : node.number(range::offset);
}

ExposedFrame read_exposed_frame(const Node& node) {
    ObjectReader object(node);
    ExposedFrame frame{.index = object.member("index", "a whole number").whole_number(0),
                       .file = object.text("file"),
                       .plane = read_plane(object.member("plane_mm", "a number or null")),
                       .f_number = object.number("f_number", range::f_number),
                       .shutter = object.number("shutter_s", range::shutter),
                       .iso = object.number("iso", range::iso),
                       .flash = object.number_or("flash_share", range::count, 1),
                       .time = object.text("time"),
                       .remark = object.text_or("remark", "")};
    frame.unknown = object.unknown();
    return frame;
}

RunRecord read_run(const Node& node) {
    ObjectReader object(node);
    RunRecord run{
        .id = object.text("id"),
        .time = object.text("time"),
        .folder = object.text_or("folder", ""),
        .planned = object.member("planned_frames", "a whole number").whole_number(0),
        .end = object.member("end", "\"complete\", \"stopped\" or \"broken\"")
                   .one_of<RunEnd>(
                       {{"complete", RunEnd::complete}, {"stopped", RunEnd::stopped}, {"broken", RunEnd::broken}}),
        .remark = object.text_or("remark", "")};
    const Node frames = object.member("frames", "a list");
    for (const Node& frame : frames.items()) run.frames.push_back(read_exposed_frame(frame));
    run.unknown = object.unknown();
    return run;
}

/// The shots it names are checked when all are read.
Timing read_timing(const Node& node) {
    ObjectReader object(node);
    Timing timing;
    if (object.find("after")) timing.after = object.texts("after");
    timing.not_before = object.number_if_any("not_before_s", range::seconds);
    timing.done_by = object.number_if_any("done_by_s", range::seconds);
    timing.handling = object.number_if_any("handling_s", range::seconds);
    timing.unknown = object.unknown();
    return timing;
}

Workday read_workday(const Node& node) {
    ObjectReader object(node);
    Workday day;
    day.begin = object.number_or("begin_s", range::seconds, day.begin);
    if (const auto node_of_prices = object.find("prices_s")) {
        ObjectReader prices(*node_of_prices);
        day.prices.camera = prices.number_or("camera", range::seconds, day.prices.camera);
        day.prices.lens = prices.number_or("lens", range::seconds, day.prices.lens);
        day.prices.tubes = prices.number_or("tubes", range::seconds, day.prices.tubes);
        day.prices.light = prices.number_or("light", range::seconds, day.prices.light);
        day.prices.background = prices.number_or("background", range::seconds, day.prices.background);
        day.prices.subject = prices.number_or("subject", range::seconds, day.prices.subject);
        day.prices.unknown = prices.unknown();
    }
    day.sorting = object.number_or("sorting_s_per_frame", range::seconds, day.sorting);
    day.combining = object.number_or("combining_s_per_frame", range::seconds, day.combining);
    day.waiting_counts = object.flag_or("waiting_counts", day.waiting_counts);
    day.unknown = object.unknown();
    return day;
}

/// "after" names other shots of the shoot.
void check_relations(const Node& shots, const Shoot& shoot) {
    const auto nodes = shots.items();
    for (std::size_t i = 0; i < nodes.size(); ++i)
        for (std::size_t j = 0; j < shoot.shots[i].timing.after.size(); ++j) {
            const auto& id = shoot.shots[i].timing.after[j];
            const bool known =
                std::any_of(shoot.shots.begin(), shoot.shots.end(), [&](const Shot& shot) { return shot.id == id; });
            if (known && id != shoot.shots[i].id) continue;
            throw ReadError{.place = fmt::format("{}.timing.after[{}]", nodes[i].place(), j),
                            .problem = fmt::format("got \"{}\", expected the id of another shot", Node::shortened(id))};
        }
}

Shot read_shot(const Node& node, const Kit& kit) {
    ObjectReader object(node);
    Shot shot;
    shot.id = object.text("id");
    if (shot.id.empty()) object.member("id", "text").fail_expecting("an id that is not empty");
    shot.name = object.text("name");
    shot.subject = read_subject(object.member("subject", "an object"));
    shot.rig = read_rig(object.member("rig", "an object"), kit);
    shot.exposure = read_exposure(object.member("exposure", "an object"));
    shot.sharpness = read_sharpness(object.member("sharpness", "an object"));
    shot.capture = read_capture(object.member("capture", "an object"));
    if (const auto ambient = object.find("ambient")) shot.ambient = read_ambient(*ambient);
    const Node lights = object.member("lights", "a list");
    for (const Node& light : lights.items()) shot.lights.push_back(read_light(light, kit));
    if (const auto background = object.find("background")) shot.background = read_background(*background);
    if (const auto freeze = object.find("freeze")) shot.freeze = read_freeze(*freeze);
    if (object.find("checked")) shot.checked = object.texts("checked");
    if (const auto proof = object.find("proof"))
        for (const Node& entry : proof->items()) shot.proof.push_back(read_proof_entry(entry));
    if (const auto runs = object.find("runs"))
        for (const Node& run : runs->items()) shot.runs.emplace_back(read_run(run));
    if (const auto timing = object.find("timing")) shot.timing = read_timing(*timing);
    shot.unknown = object.unknown();
    return shot;
}

}  // namespace

ReadResult<Shoot> read_shoot(std::string_view text) {
    try {
        return read_document(parse_json(text));
    } catch (ReadError& error) {
        return std::move(error);
    }
}

}  // namespace poquito::storage
