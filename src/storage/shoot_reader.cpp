#include "storage/json_reader.hpp"
#include "storage/shoot_file.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace poquito::storage {
namespace {

using namespace shoot;

constexpr NumberRule open_share{.greatest = 1, .without_least = true, .without_greatest = true};
constexpr NumberRule below_one{.greatest = 1, .without_greatest = true};
constexpr NumberRule above_zero_share{.greatest = 1, .without_least = true};
constexpr NumberRule full_turn{.least = -360, .greatest = 360};
constexpr NumberRule exposure_value{.least = -30, .greatest = 40};  // starlight is -8, the sun's own disc 33
constexpr NumberRule stop_range{.least = -30, .greatest = 30};

Kit read_kit(const Node& node);
Shot read_shot(const Node& node, const Kit& kit);
void check_ids_distinct(const Node& list);

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
    const Node shots = object.member("shots", "a list");
    for (const Node& shot : shots.items()) shoot.shots.push_back(read_shot(shot, shoot.kit));
    check_ids_distinct(shots);
    shoot.unknown = object.unknown();
    return shoot;
}

/// Items are objects with an id, read before.
void check_ids_distinct(const Node& list) {
    std::set<std::string> seen;
    for (const Node& item : list.items()) {
        const std::string id = item.value()["id"].get<std::string>();
        if (!seen.insert(id).second)
            Node(item, item.value()["id"], ".id")
                .fail(fmt::format("\"{}\" is taken, expected an id of its own", Node::shortened(id)));
    }
}

// ---- kit ---------------------------------------------------------------------------------------------------------

Camera read_camera(ObjectReader& object);
Lens read_lens(ObjectReader& object);
Tube read_tube(ObjectReader& object);
CloseupLens read_closeup_lens(ObjectReader& object);
Teleconverter read_teleconverter(ObjectReader& object);
Flash read_flash(ObjectReader& object);
Modifier read_modifier(ObjectReader& object);

template <typename Gear>
std::vector<Gear> read_gear(ObjectReader& kit, const char* key, Gear (*read)(ObjectReader&)) {
    const Node list = kit.member(key, "a list");
    std::vector<Gear> gear;
    for (const Node& item : list.items()) {
        ObjectReader object(item);
        const std::string id = object.text("id");
        if (id.empty()) object.member("id", "text").fail_expecting("an id that is not empty");
        std::string name = object.text("name");
        gear.push_back(read(object));
        gear.back().id = id;
        gear.back().name = std::move(name);
        gear.back().unknown = object.unknown();
    }
    check_ids_distinct(list);
    return gear;
}

Kit read_kit(const Node& node) {
    ObjectReader object(node);
    Kit kit;
    kit.cameras = read_gear(object, "cameras", read_camera);
    kit.lenses = read_gear(object, "lenses", read_lens);
    kit.tubes = read_gear(object, "tubes", read_tube);
    kit.closeup_lenses = read_gear(object, "closeup_lenses", read_closeup_lens);
    kit.teleconverters = read_gear(object, "teleconverters", read_teleconverter);
    kit.flashes = read_gear(object, "flashes", read_flash);
    kit.modifiers = read_gear(object, "modifiers", read_modifier);
    kit.unknown = object.unknown();
    return kit;
}

Bracket read_bracket(const Node& node) {
    ObjectReader object(node);
    Bracket bracket{
        .max_frames = object.member("max_frames", "a whole number").whole_number(0),
        .composite_max_frames = object.member("composite_max_frames", "a whole number").whole_number(0),
        .start = object.member("start", "\"nearest\" or \"centre\"")
                     .one_of<BracketStart>({{"nearest", BracketStart::nearest}, {"centre", BracketStart::centre}})};
    bracket.unknown = object.unknown();
    return bracket;
}

Camera read_camera(ObjectReader& object) {
    return {.sensor = {.width = object.number("sensor_width_mm", above_zero),
                       .height = object.number("sensor_height_mm", above_zero),
                       .width_px = object.member("image_width_px", "a whole number").whole_number(1),
                       .height_px = object.member("image_height_px", "a whole number").whole_number(1)},
            .flange = object.number("flange_mm", zero_or_more),
            .sync = object.number("sync_s", above_zero),
            .aperture_display = object.member("aperture_display", "\"marked\" or \"working\"")
                                    .one_of<ApertureDisplay>(
                                        {{"marked", ApertureDisplay::marked}, {"working", ApertureDisplay::working}}),
            .frame_mb = object.number("frame_mb", zero_or_more),
            .bracket = read_bracket(object.member("bracket", "an object"))};
}

Lens read_lens(ObjectReader& object) {
    optics::Lens optics{.focal_length = object.number("focal_length_mm", above_zero),
                        .max_aperture = object.number("max_aperture", above_zero),
                        .min_aperture = object.number("min_aperture", above_zero),
                        .closest_focus = object.number("closest_focus_mm", above_zero),
                        .max_magnification = object.number("max_magnification", above_zero),
                        .focusing = object.member("focusing", "\"unit\" or \"internal\"")
                                        .one_of<optics::Focusing>({{"unit", optics::Focusing::unit},
                                                                   {"internal", optics::Focusing::internal}}),
                        .hiatus = object.number_or("hiatus_mm", any_number, 0),
                        .pupil_magnification = object.number("pupil_magnification", above_zero),
                        .length = object.number("length_mm", zero_or_more),
                        .front_diameter = object.number("front_diameter_mm", above_zero),
                        .closest_working_f_number = object.number_if_any("closest_working_f_number", above_zero)};
    if (optics.min_aperture < optics.max_aperture)
        object.member("min_aperture", "a number")
            .fail_expecting(fmt::format("{} or more, the largest f-number after max_aperture", optics.max_aperture));
    if (optics.focusing == optics::Focusing::internal && optics.hiatus >= optics.closest_focus)
        object.member("hiatus_mm", "a number").fail_expecting("less than closest_focus_mm");
    return {.optics = optics, .filter_thread = object.number("filter_thread_mm", zero_or_more)};
}

Tube read_tube(ObjectReader& object) {
    return {.length = object.number("length_mm", above_zero),
            .contacts = object.member("contacts", "true or false").truth()};
}

CloseupLens read_closeup_lens(ObjectReader& object) {
    return {.power_dpt = object.number("power_dpt", above_zero), .thread = object.number("thread_mm", zero_or_more)};
}

Teleconverter read_teleconverter(ObjectReader& object) {
    return {
        .optics = {.factor = object.number("factor", above_zero), .length = object.number("length_mm", zero_or_more)}};
}

std::vector<light::Duration> read_durations(const Node& list) {
    std::vector<light::Duration> table;
    for (const Node& item : list.items()) {
        ObjectReader object(item);
        const light::Duration entry{.power = object.number("power", above_zero),
                                    .t05 = object.number("t05_s", above_zero)};
        if (std::ranges::count(table, entry.power, &light::Duration::power) > 0)
            object.member("power", "a number").fail_expecting("every power once");
        table.push_back(entry);
    }
    return table;
}

Flash read_flash(ObjectReader& object) {
    return {.guide_number = object.number("guide_number_m", above_zero),
            .scale = {.least = object.number("min_power", above_zero_share),
                      .step = object.number_or("power_step_stops", above_zero, light::PowerScale{}.step)},
            .discharge =
                object.member("discharge", "\"cut\" or \"decay\"")
                    .one_of<light::Discharge>({{"cut", light::Discharge::cut}, {"decay", light::Discharge::decay}}),
            .durations = read_durations(object.member("durations", "a list")),
            .recycle_full = object.number("recycle_full_s", zero_or_more)};
}

Modifier read_modifier(ObjectReader& object) {
    return {.loss = object.number("loss_stops", stop_range), .diameter = object.number("diameter_mm", zero_or_more)};
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

Subject read_subject(const Node& node) {
    ObjectReader object(node);
    Subject subject{.width = object.number("width_mm", above_zero),
                    .height = object.number("height_mm", above_zero),
                    .depth = object.number("depth_mm", zero_or_more),
                    .reflectance = object.number("reflectance", share),
                    .speed = object.number("speed_mm_s", zero_or_more),
                    .sway_amplitude = object.number_or("sway_amplitude_mm", zero_or_more, 0),
                    .sway_frequency = object.number_or("sway_hz", zero_or_more, 1)};
    if (object.find("traits")) subject.traits = object.texts("traits");
    subject.unknown = object.unknown();
    return subject;
}

Focus read_focus(ObjectReader& rig) {
    const auto ring = rig.find("ring");
    const auto magnification = rig.find("magnification");
    if (ring && magnification) ring->fail("both ring and magnification given, expected one of them");
    if (ring) return {.by = FocusBy::ring, .value = ring->number(share)};
    if (magnification) return {.by = FocusBy::magnification, .value = magnification->number(zero_or_more)};
    rig.node().fail("neither ring nor magnification given, expected one of them");
}

Rig read_rig(const Node& node, const Kit& kit) {
    ObjectReader object(node);
    Rig rig{.camera = read_reference(object.member("camera", "the id of a camera"), kit.cameras, "camera"),
            .lens = read_reference(object.member("lens", "the id of a lens"), kit.lenses, "lens"),
            .tubes = read_references(object, "tubes", kit.tubes, "tube"),
            .closeup_lenses = read_references(object, "closeup_lenses", kit.closeup_lenses, "close-up lens"),
            .teleconverter = read_optional_reference(object, "teleconverter", kit.teleconverters, "teleconverter"),
            .focus = read_focus(object)};
    rig.unknown = object.unknown();
    return rig;
}

Exposure read_exposure(const Node& node) {
    ObjectReader object(node);
    Exposure exposure{.f_number = object.number("f_number", above_zero),
                      .shutter = object.number("shutter_s", above_zero),
                      .iso = object.number("iso", above_zero)};
    exposure.unknown = object.unknown();
    return exposure;
}

void read_output(const Node& node, Sharpness& sharpness) {
    ObjectReader object(node);
    sharpness.output = object.member("kind", "\"print\" or \"delivery\"")
                           .one_of<OutputKind>({{"print", OutputKind::print}, {"delivery", OutputKind::delivery}});
    sharpness.print.width = object.number_or("print_width_mm", above_zero, sharpness.print.width);
    sharpness.print.viewing_distance =
        object.number_or("viewing_distance_mm", above_zero, sharpness.print.viewing_distance);
    sharpness.delivery.width_px = object.number_or("delivered_width_px", above_zero, sharpness.delivery.width_px);
    sharpness.print.crop = sharpness.delivery.crop = object.number_or("crop", above_zero_share, 1);
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
    sharpness.pixels = object.number_or("pixels", above_zero, sharpness.pixels);
    sharpness.stated = sharpness.rule == BlurRule::stated ? object.number("blur_limit_mm", above_zero)
                                                          : object.number_if_any("blur_limit_mm", above_zero);
    if (const auto wavelength = object.number_if_any("wavelength_nm", above_zero))
        sharpness.wavelength = *wavelength * mm_per_nm;
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
    capture.contrast_kept = object.number_or("contrast_kept", open_share, capture.contrast_kept);
    const bool stack = capture.mode == CaptureMode::stack;
    const auto needed = [&](const char* key, const NumberRule& rule, double otherwise) {
        return stack ? object.number(key, rule) : object.number_or(key, rule, otherwise);
    };
    capture.overlap = needed("overlap", below_one, capture.overlap);
    capture.lead = needed("lead_mm", zero_or_more, 0);
    capture.tail = needed("tail_mm", zero_or_more, 0);
    const auto mover = stack ? std::optional(object.member("mover", "\"ring\" or \"rail\"")) : object.find("mover");
    if (mover) capture.mover = mover->one_of<Mover>({{"ring", Mover::ring}, {"rail", Mover::rail}});
    capture.interval = object.number_if_any("interval_s", above_zero);
    capture.unknown = object.unknown();
    return capture;
}

Ambient read_ambient(const Node& node) {
    ObjectReader object(node);
    Ambient ambient{.ev100 = object.number("ev100", exposure_value)};
    ambient.unknown = object.unknown();
    return ambient;
}

std::optional<double> read_power(const Node& node) {
    if (!node.value().is_string()) return node.number(above_zero);
    node.one_of<int>({{"auto", 0}});
    return std::nullopt;
}

Light read_light(const Node& node, const Kit& kit) {
    ObjectReader object(node);
    Light light{.flash = read_reference(object.member("flash", "the id of a flash"), kit.flashes, "flash"),
                .modifier = read_optional_reference(object, "modifier", kit.modifiers, "modifier"),
                .position = {.distance = object.number("distance_mm", above_zero),
                             .azimuth = object.number("azimuth_deg", full_turn),
                             .elevation = object.number("elevation_deg", full_turn)},
                .power = read_power(object.member("power", "a fraction or \"auto\""))};
    light.unknown = object.unknown();
    return light;
}

Background read_background(const Node& node) {
    ObjectReader object(node);
    Background background{.distance = object.number("distance_mm", zero_or_more),
                          .reflectance = object.number("reflectance", share),
                          .detail = object.number_or("detail_mm", above_zero, Background{}.detail)};
    background.unknown = object.unknown();
    return background;
}

ProofEntry read_proof_entry(const Node& node) {
    ObjectReader object(node);
    ProofEntry entry{.time = object.text("time"),
                     .frames = object.member("frames", "a whole number").whole_number(0),
                     .correction = object.number("correction_stops", stop_range),
                     .verdict = object.member("verdict", "\"keep\" or \"redo\"")
                                    .one_of<Verdict>({{"keep", Verdict::keep}, {"redo", Verdict::redo}}),
                     .remark = object.text_or("remark", "")};
    entry.unknown = object.unknown();
    return entry;
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
    if (object.find("checked")) shot.checked = object.texts("checked");
    if (const auto proof = object.find("proof"))
        for (const Node& entry : proof->items()) shot.proof.push_back(read_proof_entry(entry));
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
