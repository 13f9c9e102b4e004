#include "storage/run_sheet.hpp"
#include "advice/advice.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;

namespace {

std::string sheet_of(const shoot::Shoot& shoot) {
    std::vector<advice::Assessment> assessments;
    for (const auto& shot : shoot.shots) assessments.push_back(advice::assessment_of(shoot.kit, shot, {}));
    return storage::run_sheet_html(shoot, assessments);
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
    CHECK(html.rfind("APS-C body") < html.rfind("Tube 20 mm"));
    CHECK(html.rfind("Tube 20 mm") < html.rfind("100 mm macro 1:1"));  // as mounted; packed by kind
    place("f/8 (marked value)");
    place("f/8 \u00b7 1/250 s \u00b7 ISO 100");
    CHECK(place("To pack") < place("9:00 &nbsp; 1. One"));
    place("Lens front to subject");
    place("Compact flash, bare: 1/16; 500 mm from the subject, 30\u00b0 to the left, 45\u00b0 above");
    CHECK(place("[x]</td><td>Card has room for") > 0);
    place("[&nbsp;&nbsp;]</td><td>Exposure compensation back to zero");
    place("faster than the sync speed");
}

TEST_CASE("the run sheet says how lamps, bounced and lens-mounted lights are set", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shoot.kit.flashes[0].energy = 400;
    shoot.kit.flashes[0].power_shown = gear::PowerShown::watt_seconds;
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

TEST_CASE("a time-lapse is on the sheet with all of its frames", "[storage][sheet][lapse]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = shoot::Ambient{.ev100 = 8};
    shot.lapse = shoot::Lapse{.length = 48 * 3600, .interval = 600, .drift = 0.5, .follows = true};
    const auto html = sheet_of(shoot);
    const auto has = [&](const char* text) { return html.find(text) != std::string::npos; };
    CHECK(has("every 10 min for 48 h: 288 frames"));
    CHECK(has("\u22120.1 stops each time"));  // half a stop an hour, six times an hour
    CHECK(has("1 shot, 288 frames"));
    CHECK_FALSE(has("1 frame<"));
}

TEST_CASE("a camera that shows the working value gets it on the sheet", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    shoot.kit.cameras[0].aperture_display = gear::ApertureDisplay::working;
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

TEST_CASE("the run sheet follows the day: clock times, changes, the end", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    shoot.workday = {.begin = 9 * 3600,
                     .prices = {.camera = 0, .lens = 0, .tubes = 300, .light = 600, .background = 0, .subject = 60}};
    auto second = shoot.shots[0];
    second.id = "two";
    second.name = "Two";
    second.rig.tubes = {"t20"};
    second.timing.not_before = 9 * 3600 + 1200;
    auto third = second;
    third.id = "three";
    third.name = "Three";
    third.timing = {.handling = 240};
    third.lights = {test::plain_light()};
    shoot.shots.push_back(second);
    shoot.shots.push_back(third);
    const auto html = sheet_of(shoot);
    const auto overview = html.substr(0, html.find("<h2"));
    const auto has = [&](const char* text) {
        INFO(text);
        CHECK(overview.find(text) != std::string::npos);
    };
    has("<td>9:00</td><td>One</td>");
    has("<td>9:20</td><td>Two</td>");  // not before, whatever is ready
    has("change tubes");
    // 9:20, a minute and an eighth of a second, ten minutes of light: 9:31.
    has("<td>9:31</td><td>Three</td>");
    has("change light");
    has("changes 15 min, over at 9:35");
}

TEST_CASE("the run sheet says how a stack is moved", "[storage][sheet]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 12;
    shot.capture = {.mode = shoot::CaptureMode::stack, .mover = shoot::Mover::rail};
    shot.rig.rail = "rail";
    shoot.kit.rails[0] = {
        .id = "rail", .name = "Rail", .step = 0.005, .pitch = 1, .steps_per_turn = 200, .backlash = 0.04};
    const auto has = [&](const char* text) {
        const auto html = sheet_of(shoot);
        INFO(text);
        CHECK(html.find(text) != std::string::npos);
    };
    has("motor steps");
    has("go back 80 \u00b5m too far, then forwards only");
    has("behind the nearest point");
    shoot.kit.rails[0].steps_per_turn.reset();
    has("of rail, ");
    has(" turns");
    shot.capture.slice = shoot::Slice{.from = 2, .to = 7};
    has("from 2 mm to 7 mm behind the nearest point");
    shot.capture.mover = shoot::Mover::ring;
    shoot.kit.cameras[0].bracket.max_frames = 5;
    has("% of the ring's travel");
    has("Pass 2");
    shot.capture.mover = shoot::Mover::hand;
    has("bursts of 15 frames");
}
