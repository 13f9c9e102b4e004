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
