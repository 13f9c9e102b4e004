#include "storage/run_sheet.hpp"
#include "shoot/evaluate.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;

namespace {

std::string sheet_of(const shoot::Shoot& shoot) {
    std::vector<shoot::Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(shoot::evaluate(shoot.kit, shot));
    return storage::run_sheet_html(shoot, reports);
}

}  // namespace

TEST_CASE("the run sheet says what to mount, set, measure and mind", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.tubes = {"t20"};
    shot.capture.mode = shoot::CaptureMode::stack;
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 1.0 / 16;
    shot.exposure.shutter = 0.004;
    shot.checked = {"card"};
    const auto html = sheet_of(shoot);
    const auto body_at = html.find("</head>");
    const auto place = [&](const char* text) {
        INFO(text);
        const auto at = html.find(text, body_at);
        CHECK(at != std::string::npos);
        return at;
    };
    CHECK(place("APS-C body") < place("Tube 20 mm"));
    CHECK(place("Tube 20 mm") < place("100 mm macro 1:1"));
    place("f/8 (marked value)");
    place("1/250 s, ISO 100");
    place("Front of the lens to subject");
    place("Compact flash, bare: 1/16; 500 mm from the subject, 30\u00b0 to the left, 45\u00b0 above");
    CHECK(place("[x]</td><td>Card has room for") > 0);
    place("[&nbsp;&nbsp;]</td><td>Exposure compensation back to zero");
    place("faster than the sync speed");
}

TEST_CASE("the run sheet says how lamps, bounced and lens-mounted lights are set", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shoot.kit.flashes[0].energy = 400;
    shoot.kit.flashes[0].power_shown = shoot::PowerShown::watt_seconds;
    shot.lights = {
        {.lamp = "panel", .position = {.distance = 300}, .power = 0.5},
        {.flash = "flash",
         .position = {.distance = 400, .azimuth = 20},
         .power = 0.25,
         .aim = {.turn = 30, .tip = -5},
         .bounce = shoot::Bounce{}},
        {.flash = "twin", .position = {.distance = 400}, .power = 0.125, .on_lens = true, .group = "B"},
    };
    const auto html = sheet_of(shoot);
    CHECK(html.find("Panel, bare: 50 %; 300 mm from the subject") != std::string::npos);
    CHECK(html.find("Compact flash, bare: 100 Ws; bounced off a card 400 mm from the subject, 20\u00b0 to the right") !=
          std::string::npos);
    CHECK(html.find("turned 30\u00b0 and tipped -5\u00b0") != std::string::npos);
    CHECK(html.find("Twin light, bare: 1/8; on the front of the lens") != std::string::npos);
    CHECK(html.find(">B2<") != std::string::npos);
}

TEST_CASE("a camera that shows the working value gets it on the sheet", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    shoot.kit.cameras[0].aperture_display = shoot::ApertureDisplay::working;
    CHECK(sheet_of(shoot).find("f/12 (working value)") != std::string::npos);
}

TEST_CASE("names cannot break the page", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    shoot.title = "<script>alert(1)</script> & co";
    shoot.shots[0].name = "\"A\" < B";
    const auto html = sheet_of(shoot);
    CHECK(html.find("<script>") == std::string::npos);
    CHECK(html.find("&lt;script&gt;") != std::string::npos);
    CHECK(html.find("&quot;A&quot; &lt; B") != std::string::npos);
}
