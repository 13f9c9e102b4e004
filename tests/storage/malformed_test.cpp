// Files that are not shoots, by the thousand: each gives one line with a place, and nothing else.
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <nlohmann/json.hpp>

using namespace poquito;
using Json = nlohmann::ordered_json;

namespace {

/// The error's message; fails the test where there is none or it is not one plain line.
std::string refusal_of(const std::string& text) {
    const auto result = storage::read_shoot(text);
    if (result) return {};
    const auto line = text::message(result.error());
    CHECK_FALSE(result.error().problem.empty());
    CHECK(line.find('\n') == std::string::npos);
    CHECK(line.size() < 300);
    return line;
}

Json good() {
    auto shoot = test::plain_shoot();
    shoot.shots[0].lights = {test::plain_light()};
    shoot.shots[0].capture.mode = shoot::CaptureMode::stack;
    shoot.shots[0].background = shoot::Background{};
    shoot.shots[0].ambient = shoot::Ambient{};
    return Json::parse(storage::write_shoot(shoot));
}

std::string broken(const std::string& pointer, const Json& value) {
    Json document = good();
    document[Json::json_pointer(pointer)] = value;
    return refusal_of(document.dump());
}

/// Every pointer into the document, leaves and structures.
void collect(const Json& json, const std::string& here, std::vector<std::string>& pointers) {
    if (!here.empty()) pointers.push_back(here);
    if (json.is_object())
        for (const auto& [key, value] : json.items()) collect(value, here + "/" + key, pointers);
    if (json.is_array())
        for (std::size_t i = 0; i < json.size(); ++i) collect(json[i], here + "/" + std::to_string(i), pointers);
}

}  // namespace

TEST_CASE("members this version does not know are kept in every record of a shot", "[storage]") {
    auto shoot = test::random_shoot(7);
    auto& shot = shoot.shots[0];
    shot.sharpness.rule = shoot::BlurRule::output;
    shot.capture.mover = shoot::Mover::hand;
    shot.background = shoot::Background{};
    shoot.runs[shot.id] = {shoot::RunRecord{.id = "run", .frames = {{.file = "one.jpg"}}}};
    Json document = Json::parse(storage::write_shoot(shoot));
    const std::vector<std::string> records = {"",
                                              "/shots/0",
                                              "/shots/0/subject",
                                              "/shots/0/rig",
                                              "/shots/0/exposure",
                                              "/shots/0/sharpness",
                                              "/shots/0/sharpness/output",
                                              "/shots/0/capture",
                                              "/shots/0/capture/hand",
                                              "/shots/0/background",
                                              "/shots/0/runs/0",
                                              "/shots/0/runs/0/frames/0"};
    for (const auto& record : records) document[Json::json_pointer(record)]["later"] = {{"of", record}};
    const auto read = storage::read_shoot(document.dump());
    REQUIRE(read.has_value());
    const Json back = Json::parse(storage::write_shoot(read.value()));
    for (const auto& record : records) {
        INFO(record);
        const auto& members = back[Json::json_pointer(record)];
        REQUIRE(members.contains("later"));
        CHECK(members["later"]["of"] == record);
    }
}

TEST_CASE("errors name the place and what was expected", "[storage][errors]") {
    CHECK(broken("/shots/0/exposure/iso", -100) == "shots[0].exposure.iso: got -100, expected 1 to 10000000");
    CHECK(broken("/shots/0/rig/lens", "macro-9") ==
          "shots[0].rig.lens: got \"macro-9\", expected the id of a lens in kit");
    CHECK(broken("/shots/0/lights/0/flash", "sun") ==
          "shots[0].lights[0].flash: got \"sun\", expected the id of a flash in kit");
    CHECK(broken("/kit/cameras/0/sync_s", "fast") ==
          "kit.cameras[0].sync_s: got \"fast\", expected a number, 1e-07 to 86400");
    CHECK(broken("/shots/0/capture/overlap", 1) == "shots[0].capture.overlap: got 1, expected 0 to 0.99");
    CHECK(broken("/shots/0/capture/mode", "burst") ==
          "shots[0].capture.mode: got \"burst\", expected \"single\" or \"stack\"");
    CHECK(broken("/version", 2) == "version: got 2, expected 1, the version this program reads");
    CHECK(broken("/format", "recipe") == "format: got \"recipe\", expected \"poquito-shoot\"");
    CHECK(broken("/kit", Json::array()) == "kit: got a list, expected an object");
    CHECK(broken("/kit/cameras/0/image_width_px", 6000.5) ==
          "kit.cameras[0].image_width_px: got 6000.5, expected a whole number");
    CHECK(broken("/shots/0/exposure/shutter_s", 1e300) ==
          "shots[0].exposure.shutter_s: got 1e+300, expected 1e-07 to 86400");
    Json both = good();
    both["shots"][0]["rig"]["ring"] = 0.5;
    CHECK(refusal_of(both.dump()) == "shots[0].rig.ring: both ring and magnification given, expected one of them");
    Json twice = good();
    twice["kit"]["tubes"][1]["id"] = "t20";
    CHECK(refusal_of(twice.dump()) == "kit.tubes[1].id: \"t20\" is taken, expected an id of its own");
    Json missing = good();
    missing["shots"][0]["rig"].erase("camera");
    CHECK(refusal_of(missing.dump()) == "shots[0].rig.camera: missing, expected the id of a camera");
}

TEST_CASE("text that is not JSON is refused with line and column", "[storage][errors]") {
    CHECK(refusal_of("") == "line 1, column 1: not JSON, unexpected end of input; expected '[', '{', or a literal");
    CHECK(refusal_of("{\n \"format\": nope}").starts_with("line 2, column 13: not JSON, "));
    CHECK(refusal_of("{\"a\": NaN}").starts_with("line 1, column "));
    CHECK(refusal_of("{\n\"a\": 1e999}") == "line 2, column 6: got 1e999, expected a number that a double can hold");
    CHECK_FALSE(refusal_of(std::string("\x00\xff\xfe garbage \x01", 13)).empty());
    CHECK_FALSE(refusal_of(std::string(100000, '[')).empty());
    CHECK(refusal_of("[]") == "got a list, expected an object");
    CHECK(refusal_of("null") == "got null, expected an object");
}

TEST_CASE("brackets without end and members without number are refused at the place where they go too far",
          "[storage][errors]") {
    for (const char* bracket : {"[", "{\"a\":"}) {
        std::string deep = "{\"format\": ";
        for (int i = 0; i < 200'000; ++i) deep += bracket;
        CHECK(refusal_of(deep).find("inside 200 others") != std::string::npos);
        CHECK(refusal_of(deep).starts_with("line 1, column "));
    }
    std::string wide = "{\"format\":\"poquito\"";
    for (int i = 0; i < 100'000; ++i) wide += ",\n\"m" + std::to_string(i) + "\":0";
    CHECK(refusal_of(wide + "}").find("more than 10000 members") != std::string::npos);
    // Brackets in texts are lettering, and a list may be long.
    auto shoot = test::plain_shoot();
    shoot.title = std::string(500, '[') + "\\\"{";
    CHECK(storage::read_shoot(storage::write_shoot(shoot)).has_value());
    std::string list = "{\"a\":[0";
    for (int i = 0; i < 20'000; ++i) list += ",0";
    CHECK(refusal_of(list + "]}").find("members") == std::string::npos);
}

TEST_CASE("a file cut anywhere is refused", "[storage][errors]") {
    const std::string whole = good().dump(1);
    for (std::size_t length = 0; length < whole.size(); length += 7) {
        INFO("cut at " << length);
        CHECK_FALSE(refusal_of(whole.substr(0, length)).empty());
    }
}

TEST_CASE("a wrong type anywhere is refused, at its place", "[storage][errors]") {
    std::vector<std::string> pointers;
    const Json document = good();
    collect(document, "", pointers);
    CHECK(pointers.size() > 120);
    int refused = 0;
    for (const auto& pointer : pointers)
        for (const Json& wrong : {Json(true), Json("x"), Json(-7), Json(1e300), Json::array({1}), Json::object()}) {
            Json changed = document;
            auto& target = changed[Json::json_pointer(pointer)];
            if (target.type() == wrong.type() || (target.is_number() && wrong.is_number())) continue;
            target = wrong;
            INFO(pointer << " = " << wrong.dump());
            const auto line = refusal_of(changed.dump());
            REQUIRE_FALSE(line.empty());
            ++refused;
            // Place: kit.lenses[0].name for /kit/lenses/0/name; a list says which of its items is wrong.
            std::string place;
            for (std::size_t i = 1; i < pointer.size();) {
                const auto end = std::min(pointer.find('/', i), pointer.size());
                const auto step = pointer.substr(i, end - i);
                if (std::isdigit(static_cast<unsigned char>(step[0])))
                    place += "[" + step + "]";
                else
                    place += (place.empty() ? "" : ".") + step;
                i = end + 1;
            }
            CHECK(line.starts_with(place));
        }
    CHECK(refused > 500);
}

TEST_CASE("negative and absurd numbers are refused wherever a size, time or power stands", "[storage][errors]") {
    std::vector<std::string> pointers;
    const Json document = good();
    collect(document, "", pointers);
    for (const auto& pointer : pointers) {
        const auto& value = document[Json::json_pointer(pointer)];
        if (!value.is_number()) continue;
        INFO(pointer);
        CHECK_FALSE(broken(pointer, 1e12).empty());
        const bool signed_quantity =
            pointer.ends_with("_deg") || pointer.ends_with("ev100") || pointer.ends_with("loss_stops");
        if (!signed_quantity) CHECK_FALSE(broken(pointer, -1).empty());
    }
}

TEST_CASE("zero is refused where a size, time or power divides", "[storage][errors]") {
    for (const char* pointer :
         {"/shots/0/exposure/f_number", "/shots/0/exposure/shutter_s", "/shots/0/exposure/iso",
          "/shots/0/subject/width_mm", "/shots/0/lights/0/distance_mm", "/kit/cameras/0/sensor_width_mm",
          "/kit/cameras/0/image_width_px", "/kit/lenses/0/focal_length_mm", "/kit/lenses/0/max_magnification",
          "/kit/lenses/0/pupil_magnification", "/kit/flashes/0/guide_number_m", "/kit/flashes/0/min_power",
          "/kit/teleconverters/0/factor"}) {
        INFO(pointer);
        CHECK(broken(pointer, 0).find("got 0, expected ") != std::string::npos);
    }
    for (const char* pointer :
         {"/shots/0/subject/depth_mm", "/shots/0/capture/overlap", "/shots/0/background/distance_mm"}) {
        INFO(pointer);
        CHECK(broken(pointer, 0).empty());
    }
}

TEST_CASE("a member that must be there is missed", "[storage][errors]") {
    std::vector<std::string> pointers;
    const Json document = good();
    collect(document, "", pointers);
    // May be absent by the contract, or belongs to this version's extensions.
    const std::vector<std::string> optional = {
        "/ambient",      "/background",      "/depth_rule",      "/pixels",          "/power_step_stops",
        "/bellows",      "/reversing_rings", "/coupling_rings",  "/step_rings",      "/rails",
        "/lamps",        "/heads",           "/face_mm",         "/front_thread_mm", "/grid_deg",
        "/min_power",    "/flicker_hz",      "/lux_distance_mm", "/backlash_mm",     "/speed_mm_s",
        "/step_settings"};
    for (const auto& pointer : pointers) {
        const auto slash = pointer.rfind('/');
        const auto key = pointer.substr(slash + 1);
        if (std::isdigit(static_cast<unsigned char>(key[0]))) continue;
        if (std::ranges::any_of(optional, [&](const auto& end) { return pointer.ends_with(end); })) continue;
        Json changed = document;
        auto& parent = slash == 0 ? changed : changed[Json::json_pointer(pointer.substr(0, slash))];
        parent.erase(key);
        INFO(pointer);
        CHECK_FALSE(refusal_of(changed.dump()).empty());
    }
}

TEST_CASE("bytes changed at random never crash and never load by halves", "[storage][errors]") {
    const std::string whole = good().dump();
    for (unsigned seed = 0; seed < 3000; ++seed) {
        test::Random random(seed);
        std::string changed = whole;
        for (int i = random.whole(1, 4); i > 0; --i)
            changed[static_cast<std::size_t>(random.whole(0, static_cast<int>(whole.size()) - 1))] =
                static_cast<char>(random.whole(0, 255));
        const auto result = storage::read_shoot(changed);
        if (result) CHECK(result->shots.size() == 1);
    }
}

TEST_CASE("runs, timing, slices and the day are refused at their place", "[storage][errors]") {
    const Json frame = {{"index", 0},
                        {"file", "a.jpg"},
                        {"plane_mm", -0.2},
                        {"f_number", 8},
                        {"shutter_s", 1},
                        {"iso", 100},
                        {"time", "2026-11-25T10:00:00"}};
    const Json run = {{"id", "one-1"},
                      {"time", "2026-11-25T10:00:00"},
                      {"planned_frames", 3},
                      {"end", "complete"},
                      {"frames", Json::array({frame})}};
    CHECK(broken("/shots/0/runs", Json::array({run})).empty());
    auto other = run;
    other["end"] = "lost";
    CHECK(broken("/shots/0/runs", Json::array({run, other})) ==
          "shots[0].runs[1].end: got \"lost\", expected \"complete\" or \"stopped\" or \"broken\"");
    other = run;
    other["frames"][0]["iso"] = 0;
    CHECK(broken("/shots/0/runs", Json::array({other})) ==
          "shots[0].runs[0].frames[0].iso: got 0, expected 1 to 10000000");
    CHECK(broken("/shots/0/tries", {{"kept", 3}, {"tried", 2}}) ==
          "shots[0].tries.kept: got 3 kept of 2 tried, expected no more kept than tried");
    CHECK(broken("/shots/0/tries", {{"calm_share", 1.5}}).starts_with("shots[0].tries.calm_share: got 1.5"));
    CHECK(broken("/shots/0/tries/hands", {{"shift_mm_s", 2}}).starts_with("shots[0].tries.hands.turn_rad_s"));
    CHECK(broken("/shots/0/capture/slice", {{"from_mm", 3}, {"to_mm", 2}}) ==
          "shots[0].capture.slice.to_mm: got 2, expected 3 to 1000000");
    CHECK(broken("/shots/0/capture/slice", {{"from_mm", -1}, {"to_mm", 2}})
              .starts_with("shots[0].capture.slice.from_mm: "));
    CHECK(broken("/shots/0/capture/hand", {{"frames_per_second", 0}})
              .starts_with("shots[0].capture.hand.frames_per_second: "));
    CHECK(broken("/shots/0/timing", {{"after", Json::array({"two"})}}) ==
          "shots[0].timing.after[0]: got \"two\", expected the id of another shot");
    CHECK(broken("/shots/0/timing", {{"after", Json::array({"one"})}}).starts_with("shots[0].timing.after[0]: "));
    CHECK(broken("/shots/0/timing", {{"done_by_s", -1}}).starts_with("shots[0].timing.done_by_s: "));
    CHECK(broken("/workday", {{"prices_s", {{"lens", -3}}}}).starts_with("workday.prices_s.lens: "));
    CHECK(broken("/workday", Json::array()).starts_with("workday: "));
}

TEST_CASE("rigs that cannot be screwed together are refused, at their place", "[storage][errors]") {
    const auto rig = [](const std::vector<std::pair<const char*, Json>>& members) {
        Json document = good();
        document["kit"]["cameras"][0]["crop_modes"] = {{{"name", "small"},
                                                        {"sensor_width_mm", 12},
                                                        {"sensor_height_mm", 8},
                                                        {"image_width_px", 3000},
                                                        {"image_height_px", 2000}}};
        for (const auto& [key, value] : members) document["shots"][0]["rig"][key] = value;
        return refusal_of(document.dump());
    };
    CHECK(rig({{"bellows", {{"id", "bellows"}, {"extension_mm", 80}}}, {"crop_mode", "small"}, {"support", "hand"}})
              .empty());
    CHECK(rig({{"bellows", {{"id", "bellows"}, {"extension_mm", 500}}}}) ==
          "shots[0].rig.bellows.extension_mm: got 500, expected 40 to 140");
    CHECK(rig({{"bellows", {{"id", "none"}, {"extension_mm", 80}}}}) ==
          "shots[0].rig.bellows.id: got \"none\", expected the id of a bellows in kit");
    CHECK(rig({{"tubes_behind_converter", {"t20"}}}) ==
          "shots[0].rig.tubes_behind_converter: got tubes behind no converter, expected them in tubes");
    CHECK(rig({{"tubes_behind_converter", {"t20"}}, {"teleconverter", "x2"}}).empty());
    CHECK(rig({{"reversing_ring", "rev"}, {"closeup_lenses", {"c4"}}})
              .starts_with("shots[0].rig.closeup_lenses: got close-up lenses on a reversed lens"));
    CHECK(rig({{"reversing_ring", "rev"}, {"front_lens", {{"lens", "macro"}, {"f_number", 2.8}}}})
              .starts_with("shots[0].rig.front_lens: got a front lens on a reversed lens"));
    CHECK(rig({{"front_lens", {{"lens", "macro"}}}}) ==
          "shots[0].rig.front_lens.f_number: missing, expected a number, 0.5 to 1000");
    CHECK(rig({{"focal_length_mm", 80}}) ==
          "shots[0].rig.focal_length_mm: lens \"macro\" is no zoom, expected no focal length");
    CHECK(rig({{"crop_mode", "tiny"}}) ==
          "shots[0].rig.crop_mode: got \"tiny\", expected the name of a crop mode of camera \"body\"");
    CHECK(rig({{"support", "string"}}) ==
          "shots[0].rig.support: got \"string\", expected \"hand\" or \"small-head\" or \"sturdy-head\"");
}

TEST_CASE("gear whose members contradict each other is refused, at its place", "[storage][errors]") {
    const Json zoom = {{{"focal_length_mm", 50},
                        {"max_aperture", 4},
                        {"closest_focus_mm", 400},
                        {"max_magnification", 0.2},
                        {"length_mm", 90}},
                       {{"focal_length_mm", 120},
                        {"max_aperture", 4},
                        {"closest_focus_mm", 400},
                        {"max_magnification", 0.3},
                        {"length_mm", 99}}};
    CHECK(broken("/kit/lenses/0/zoom", zoom).empty());
    Json one = Json::array({zoom[0]});
    CHECK(broken("/kit/lenses/0/zoom", one) == "kit.lenses[0].zoom[0]: got one focal length, expected two or more");
    Json falling = Json::array({zoom[1], zoom[0]});
    CHECK(broken("/kit/lenses/0/zoom", falling) ==
          "kit.lenses[0].zoom[1]: got 50, expected above 120, the focal length before it");
    Json elsewhere = zoom;
    elsewhere[0]["focal_length_mm"] = 110;
    CHECK(broken("/kit/lenses/0/zoom", elsewhere) ==
          "kit.lenses[0].focal_length_mm: got 100, expected 110 to 120, as in zoom");
    CHECK(broken("/kit/bellows/0/max_length_mm", 20) ==
          "kit.bellows[0].max_length_mm: got 20, expected 40 or more, min_length_mm");
    const Json reading = {{"what", "magnification"}, {"ring", 0.5}, {"value", 0.5}, {"uncertainty", 0}, {"time", ""}};
    CHECK(broken("/kit/lenses/0/calibrations", Json::array({reading})).empty());
    CHECK(broken("/kit/lenses/0/calibrations", Json::array({reading, reading})) ==
          "kit.lenses[0].calibrations[1]: got 0.5, expected every ring position once");
}

TEST_CASE("forms, attitudes, colours and height maps are checked at the door", "[storage][errors]") {
    CHECK(
        broken("/shots/0/subject/form", "blob").find("shots[0].subject.form: got \"blob\", expected one of \"ball\"") ==
        0);
    CHECK(broken("/shots/0/subject/form", "height-map").find("shots[0].subject.height_map") == 0);
    CHECK(broken("/shots/0/subject/tilt_deg", 90) == "shots[0].subject.tilt_deg: got 90, expected -85 to 85");
    CHECK(broken("/shots/0/subject/turn_deg", -86).find("shots[0].subject.turn_deg: got -86") == 0);
    for (const char* colour : {"red", "#12345", "#12345g", "123456", "#1234567"})
        CHECK(broken("/shots/0/subject/colour", colour).find("shots[0].subject.colour: ") == 0);
    CHECK(broken("/shots/0/background/kind", "wall") ==
          "shots[0].background.kind: got \"wall\", expected \"card\" or \"scene\"");
    CHECK(broken("/shots/0/sharpness/focus_offset_mm", "near").find("shots[0].sharpness.focus_offset_mm: ") == 0);
    const auto rows = [](const Json& list) { return broken("/shots/0/subject/height_map", {{"rows", list}}); };
    CHECK(rows({"00ff", "80"}) ==
          "shots[0].subject.height_map.rows[1]: got 2 digits, expected two for each of 2 to 256 heights");
    CHECK(rows({"00ff", "800000"}) ==
          "shots[0].subject.height_map.rows[1]: got 3 heights, expected 2 as in the first row");
    CHECK(rows({"00ff", "80xy"}) == "shots[0].subject.height_map.rows[1]: got \"xy\", expected two hexadecimal digits");
    CHECK(rows({"00ff"}) == "shots[0].subject.height_map: got 1 rows, expected 2 to 256");
    CHECK(rows(Json::array()).find("expected 2 to 256") != std::string::npos);
    CHECK(rows({"00f", "80"}).find("rows[0]: got 3 digits") != std::string::npos);
    CHECK(rows({"00ff", "8000"}).empty());
}

TEST_CASE("lights, lamps, freeze plans and stored powers are checked at the door", "[storage][errors]") {
    const auto light = [](const Json& changes) {
        Json document = good();
        document["shots"][0]["lights"][0].update(changes);
        return refusal_of(document.dump());
    };
    CHECK(light({{"lamp", "sun"}}) == "shots[0].lights[0].lamp: got \"sun\", expected the id of a lamp in kit");
    CHECK(light({{"lamp", "panel"}, {"power", 1}}) ==
          "shots[0].lights[0].flash: got a flash beside a lamp, expected one of the two");
    CHECK(light({{"power", 0.5}, {"metered_compensation_stops", 0}}) ==
          "shots[0].lights[0].power: got a power beside metered_compensation_stops, expected \"auto\"");
    CHECK(light({{"group", "D"}}) == "shots[0].lights[0].group: got \"D\", expected \"A\" or \"B\" or \"C\"");
    CHECK(light({{"bounce", {{"from_lamp_mm", 300}, {"reflectance", 0}, {"diameter_mm", 200}}}}) ==
          "shots[0].lights[0].bounce.reflectance: got 0, expected 0.01 to 1");
    CHECK(light({{"on_lens", 1}}).find("shots[0].lights[0].on_lens: ") == 0);
    CHECK(light({{"turn_deg", 30}, {"tip_deg", -10}, {"second_layer", true}, {"group", "B"}}).empty());

    CHECK(broken("/shots/0/freeze", {{"act", "explode"}, {"drop_mm", 10}}) ==
          "shots[0].freeze.act: got \"explode\", expected \"fall\" or \"thrown\" or \"splash\" or \"sinks\"");
    CHECK(broken("/shots/0/freeze", {{"act", "fall"}, {"drop_mm", -10}}) ==
          "shots[0].freeze.drop_mm: got -10, expected 0 to 1000000");
    CHECK(broken("/shots/0/freeze", {{"act", "thrown"}, {"drop_mm", -10}}).empty());
    CHECK(broken("/shots/0/freeze",
                 {{"act", "splash"}, {"drop_mm", 100}, {"second_drop", {{"rise_s", 0.1}, {"column_mm", 120}}}}) ==
          "shots[0].freeze.second_drop.column_mm: got 120, expected 0 to 100");
    CHECK(broken("/shots/0/freeze",
                 {{"act", "fall"}, {"drop_mm", 100}, {"repeating", {{"flashes", 0}, {"frequency_hz", 5}}}})
              .find("shots[0].freeze.repeating.flashes: got 0") == 0);
    CHECK(broken("/shots/0/ambient/kind", "moon") ==
          "shots[0].ambient.kind: got \"moon\", expected \"even\" or \"window\" or \"sky\"");
    CHECK(broken("/shots/0/ambient/size_deg", 0) == "shots[0].ambient.size_deg: got 0, expected 0.001 to 180");
    CHECK(broken("/shots/0/exposure/correct_by", "luck").find("shots[0].exposure.correct_by: got \"luck\"") == 0);
    CHECK(broken("/power_sets", Json::array({{{"name", "close"}, {"powers", {{"D", 1}}}}}))
              .find("power_sets[0].powers: got {\"D\":1}") == 0);
    CHECK(broken("/power_sets", Json::array({{{"name", "close"}, {"powers", {{"A", 2}}}}})) ==
          "power_sets[0].powers.A: got 2, expected 1e-06 to 1");
}

TEST_CASE("lamps and flashes whose members contradict each other are refused", "[storage][errors]") {
    CHECK(broken("/kit/lamps/0/luminance_cd_m2", 300) ==
          "kit.lamps[0].luminance_cd_m2: got lux as well, expected one of the two");
    Json dark = good();
    dark["kit"]["lamps"][0].erase("lux");
    CHECK(refusal_of(dark.dump()).find("kit.lamps[0].lux: ") == 0);
    CHECK(broken("/kit/flashes/0/power_shown", "watt-seconds") ==
          "kit.flashes[0].power_shown: got \"watt-seconds\", expected energy_ws beside it");
    CHECK(broken("/kit/flashes/0/durations/0/t05_s", 0) ==
          "kit.flashes[0].durations[0].t05_s: got 0, expected 1e-09 to 60");
    CHECK(broken("/kit/flashes/0/durations/0/power", 0) ==
          "kit.flashes[0].durations[0].power: got 0, expected 1e-06 to 100");
    CHECK(broken("/kit/modifiers/0/grid_deg", 0).find("kit.modifiers[0].grid_deg: got 0") == 0);
}
