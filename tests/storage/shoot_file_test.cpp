#include "storage/shoot_file.hpp"
#include "advice/advice.hpp"
#include "plan/assess.hpp"
#include "storage/atomic_file.hpp"
#include "storage/report_json.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <nlohmann/json.hpp>

using namespace poquito;

namespace {

shoot::Shoot reread(const shoot::Shoot& shoot) {
    auto result = storage::read_shoot(storage::write_shoot(shoot));
    if (!result) FAIL(text::message(result.error()));
    return result.value();
}

std::string report_text(const shoot::Shoot& shoot) {
    std::vector<advice::Assessment> assessments;
    for (const auto& shot : shoot.shots) assessments.push_back(advice::assessment_of(shoot.kit, shot, {}));
    return storage::write_report(assessments);
}

}  // namespace

TEST_CASE("a shoot comes back from its file as it was, and reports the same", "[storage][long]") {
    for (unsigned seed = 0; seed < 300; ++seed) {
        const auto shoot = test::random_shoot(seed);
        INFO("seed " << seed);
        const auto again = reread(shoot);
        CHECK(again == shoot);
        CHECK(report_text(again) == report_text(shoot));
    }
}

TEST_CASE("members of a later version survive a load and a save, wherever they stand", "[storage]") {
    auto sown_in = test::random_shoot(1);
    sown_in.shots[0].rig.bellows = shoot::BellowsSetting{.bellows = "bellows", .extension = 50};
    sown_in.shots[0].rig.reversing_ring.reset();
    sown_in.shots[0].rig.front_lens = shoot::FrontLens{.lens = "macro"};
    auto& sown_shot = sown_in.shots[0];
    sown_shot.view = shoot::View{.thing = "Bag", .name = "front", .proves = {}, .unknown = {}};
    sown_shot.follows = shoot::Follows{.shot = sown_in.shots[1].id, .locks = {shoot::Lock::stop}, .unknown = {}};
    sown_shot.plate = shoot::Plate{.picture = "Bag", .role = shoot::PlateRole::clean, .unknown = {}};
    sown_shot.staging = {{.id = "jar", .name = "Jar", .subject = {}, .right = 5, .unknown = {}}};
    sown_in.kit.stands = {{.id = "boom", .name = "Boom"}};
    sown_shot.rig.stand = "boom";
    sown_shot.table = shoot::Table{.height = 700, .before = 200, .behind = {}, .unknown = {}};
    sown_in.outlets = {{.id = "shop",
                        .name = "Shop",
                        .shape = 1,
                        .least_short_px = {},
                        .most_long_px = {},
                        .first = {},
                        .unknown = {}}};
    sown_shot.deliveries = {{.outlet = "shop", .right = 0.1, .beside = {}, .unknown = {}}};
    sown_shot.lapse = shoot::Lapse{};
    sown_in.site = {.name = "Saltmarsh",
                    .latitude = 52,
                    .longitude = 1,
                    .zone = {},
                    .date = {},
                    .obstacles = {{.from = 80, .to = 100, .height = 20, .unknown = {}}},
                    .reading = shoot::LightReading{},
                    .window = shoot::SunWindow{},
                    .unknown = {}};
    sown_in.packing = {.own = {{.id = "slate", .text = "Slate", .container = {}, .unknown = {}}},
                       .places = {{.item = "own:slate", .container = "Crate", .unknown = {}}},
                       .going = {},
                       .home = {},
                       .unknown = {}};
    auto document = nlohmann::ordered_json::parse(storage::write_shoot(sown_in));
    // A new member in every object of the document.
    const std::function<int(nlohmann::ordered_json&)> sow = [&](nlohmann::ordered_json& json) {
        int sown = 0;
        for (auto& child : json)
            if (child.is_structured()) sown += sow(child);
        // Entries of tables and the output school are values, not records.
        const bool value = json.contains("t05_s") || json.contains("print_width_mm") || json.contains("stops") ||
                           json.contains("ring_step");
        if (json.is_object() && !value) {
            json["later"] = {{"deep", {1, 2.5, nullptr, "\u00e9"}}};
            ++sown;
        }
        return sown;
    };
    CHECK(sow(document) > 30);
    const auto shoot = storage::read_shoot(document.dump()).value();
    const auto saved = nlohmann::ordered_json::parse(storage::write_shoot(shoot));
    CHECK(nlohmann::json::diff(document, saved).dump() == "[]");
}

TEST_CASE("numbers are written in their shortest form and read back equal", "[storage]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].exposure.shutter = 1.0 / 3;
    shoot.shots[0].exposure.iso = 100;
    const auto text = storage::write_shoot(shoot);
    CHECK(text.find("0.3333333333333333,") != std::string::npos);
    CHECK(text.find("\"iso\": 100\n") != std::string::npos);
    CHECK(reread(shoot).shots[0].exposure.shutter == 1.0 / 3);
}

TEST_CASE("the demo shoot loads and exercises every way of getting closer", "[storage][demo]") {
    const auto result = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito");
    REQUIRE(result.has_value());
    const auto& shoot = result.value();
    CHECK(shoot.shots.size() >= 6);
    bool tubes = false, closeups = false, stacks = false, one_flash = false, two_flashes = false, ambient_only = false;
    for (const auto& shot : shoot.shots) {
        tubes |= !shot.rig.tubes.empty();
        closeups |= !shot.rig.closeup_lenses.empty();
        stacks |= shot.capture.mode == shoot::CaptureMode::stack;
        one_flash |= shot.lights.size() == 1;
        two_flashes |= shot.lights.size() == 2;
        ambient_only |= shot.lights.empty() && shot.ambient;
        CHECK(plan::assess(shoot.kit, shot, {}).optics.reached);
    }
    CHECK((tubes && closeups && stacks && one_flash && two_flashes && ambient_only));
}

TEST_CASE("the report keeps the keys of its contract", "[storage][report]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].lights = {test::plain_light()};
    const auto report = nlohmann::json::parse(report_text(shoot));
    CHECK(report.at("format") == "poquito-report");
    CHECK(report.at("version") == 1);
    const auto& shot = report.at("shots").at(0);
    const std::vector<std::pair<const char*, std::vector<const char*>>> contract = {
        {"optics",
         {"focal_length_mm", "ring", "lens_magnification", "magnification", "field_width_mm", "field_height_mm",
          "working_distance_mm", "subject_to_sensor_mm", "working_f_number", "exposure_loss_stops",
          "reaches_infinity"}},
        {"sharpness",
         {"blur_limit_mm", "near_mm", "far_mm", "depth_of_field_mm", "airy_diameter_mm", "best_single_f_number",
          "background_disc_mm"}},
        {"capture", {"frame_depth_mm", "step_mm", "frames", "duration_s", "data_mb"}},
        {"light", {"ambient_stops", "sources", "total_stops", "background_stops"}},
        {"motion", {"blur_mm"}}};
    for (const auto& [part, keys] : contract)
        for (const char* key : keys) {
            INFO(part << "." << key);
            CHECK(shot.at(part).contains(key));
        }
    for (const char* key : {"stops", "power", "suggested_power", "flash_duration_s"})
        CHECK(shot.at("light").at("sources").at(0).contains(key));
    for (const auto& note : shot.at("notes")) {
        for (const char* key : {"code", "level", "text", "remedy"}) CHECK(note.contains(key));
        CHECK((note["level"] == "info" || note["level"] == "caution" || note["level"] == "stop"));
    }
    CHECK(shot.at("sharpness").at("background_disc_mm").is_null());
    CHECK(shot.at("capture").at("frames").is_number_integer());
}
