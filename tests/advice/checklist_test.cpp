#include "advice/checklist.hpp"

#include "advice/advice.hpp"
#include "plan/assess.hpp"
#include "search/reach_search.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::search;
using namespace poquito::advice;

namespace {

/// The text of an item; empty where the plan does not call for it.
std::string item(const Shoot& shoot, const std::string& id) {
    const auto advice = advise(shoot.kit, shoot.shots[0], {});
    const auto found = std::ranges::find(advice.checklist, id, &ChecklistItem::id);
    return found == advice.checklist.end() ? std::string() : found->text;
}

bool says(const std::string& text, const char* part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("the settings item names the stop on the lens and the one on the display", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    CHECK(item(shoot, "settings") == "f/8 on the lens, f/8 on the display; 1/8 s; ISO 100");
    shoot.kit.cameras[0].aperture_display = ApertureDisplay::working;
    CHECK(says(item(shoot, "settings"), "f/12 on the display"));
}

TEST_CASE("each light is checked by how it is set", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    auto& lights = shoot.shots[0].lights;
    lights = {{.flash = "flash", .position = {.distance = 500}, .power = 0.25}};
    CHECK(item(shoot, "flash-1") == "Light A: manual, 1/4, 500 mm from the subject");
    lights[0].power.reset();
    CHECK(says(item(shoot, "flash-1"), "automatic, about 1/"));
    lights[0].metered = -0.7;
    CHECK(says(item(shoot, "flash-1"), "metered by the camera, compensation \u22120.7"));
    CHECK(says(item(shoot, "compensation"), "flash compensation as planned"));
    lights = {{.lamp = "panel", .position = {.distance = 500}, .power = 0.5},
              {.flash = "twin", .position = {.distance = 500}, .power = 0.5, .on_lens = true}};
    CHECK(item(shoot, "flash-1") == "Light A: on, 50 %, 500 mm from the subject");
    CHECK(item(shoot, "flash-2") == "Light B: manual, 1/2, on the lens");
    CHECK(item(shoot, "compensation") == "Exposure compensation back to zero");
}

TEST_CASE("a stack is checked by who moves and where the camera begins", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    CHECK(item(shoot, "bracketing").empty());
    shoot.shots[0].capture.mode = CaptureMode::stack;
    CHECK(says(item(shoot, "bracketing"), "Rail: 4 frames"));
    CHECK(says(item(shoot, "bracketing"), "backlash"));
    shoot.shots[0].capture.mover = Mover::ring;
    CHECK(says(item(shoot, "bracketing"), "bracketing really on"));
    CHECK(says(item(shoot, "bracketing"), "begins at the nearest point"));
    shoot.kit.cameras[0].bracket.start = BracketStart::centre;
    CHECK(says(item(shoot, "bracketing"), "begins at the centre"));
    CHECK(says(item(shoot, "test-frame"), "both ends"));
}

TEST_CASE("every flash has an item of its own, with its power and distance", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].lights = {test::plain_light(), test::plain_light()};
    shoot.shots[0].lights[1].power = 1.0 / 128;
    shoot.shots[0].lights[1].position.distance = 400;
    CHECK(says(item(shoot, "flash-1"), "Light A: automatic, about 1/"));
    CHECK(item(shoot, "flash-2") == "Light B: manual, 1/128, 400 mm from the subject");
    CHECK(item(shoot, "flash-3").empty());
}

TEST_CASE("shake is checked where nothing freezes it, an interval where one is set", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    CHECK_FALSE(item(shoot, "shutter-shock").empty());
    shoot.shots[0].lights = {test::plain_light()};
    CHECK(item(shoot, "shutter-shock").empty());
    CHECK(item(shoot, "interval").empty());
    shoot.shots[0].capture.interval = 3;
    CHECK(item(shoot, "interval") == "A frame every 3 s");
    shoot.shots[0].rig.focus = {.by = FocusBy::magnification, .value = 0.05};
    shoot.shots[0].lights.clear();
    CHECK(item(shoot, "shutter-shock").empty());
}

TEST_CASE("ticks hold for what the plan still calls for", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    for (const auto& entry : advise(shoot.kit, shot, {}).checklist) shot.checked.push_back(entry.id);
    CHECK(all_ticked(shot, advise(shoot.kit, shot, {}).checklist));
    shot.lights = {test::plain_light()};  // a new item, not ticked
    CHECK_FALSE(all_ticked(shot, advise(shoot.kit, shot, {}).checklist));
    CHECK(is_ticked(shot, "card"));
}

TEST_CASE("gear that must be set by hand is on the list", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    const auto text = [&](const std::string& id) {
        for (const auto& item : advise(shoot.kit, shot, {}).checklist)
            if (item.id == id) return item.text;
        return std::string();
    };
    CHECK(text("stop-by-hand").empty());
    CHECK(text("crop-mode").empty());
    CHECK(text("step-rings").empty());
    shot.rig.tubes = {"plain"};
    CHECK(text("stop-by-hand").starts_with("f/8 set on the camera"));
    shot.exposure.f_number = 2.8;
    CHECK(text("stop-by-hand").starts_with("Lens wide open"));
    shoot.kit.lenses[0].aperture_ring = true;
    CHECK(text("stop-by-hand") == "f/2.8 set on the lens's own ring");
    shoot.kit.cameras[0].crop_modes = {{.name = "small", .sensor = {.width = 12, .height = 8}}};
    shot.rig.crop_mode = "small";
    CHECK(text("crop-mode").find("small") != std::string::npos);
    shot.rig.closeup_lenses = {"c2"};
    CHECK_FALSE(text("step-rings").empty());
}

TEST_CASE("the list of gear names crop modes and what was measured", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    shoot.kit.cameras[0].crop_modes = {{.name = "small", .sensor = {.width = 12, .height = 8}}};
    CHECK(mounting_order(shoot.kit, rig).front() == "APS-C body");
    rig.crop_mode = "small";
    CHECK(mounting_order(shoot.kit, rig).front() == "APS-C body, small");
}

TEST_CASE("every item says what goes wrong without it", "[shoot][checklist]") {
    for (unsigned seed = 0; seed < 200; ++seed) {
        const auto shoot = test::random_shoot(seed);
        for (const auto& shot : shoot.shots)
            for (const auto& one : advise(shoot.kit, shot, {}).checklist) {
                INFO("seed " << seed << ", " << one.id);
                CHECK(one.why.size() > 20);
                CHECK(one.why.back() == '.');
                CHECK(one.text.back() != '.');
            }
    }
}

TEST_CASE("what is checked before a run is what the plan calls for", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 12;
    CHECK(item(shoot, "backlash").empty());
    CHECK(item(shoot, "charge").empty());
    CHECK(says(item(shoot, "stabiliser"), "off"));
    CHECK(says(item(shoot, "release"), "hands off"));
    CHECK(says(item(shoot, "test-frame"), "exposure and focus"));
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::rail};
    shot.rig.rail = "rail";
    CHECK(says(item(shoot, "backlash"), "forwards again"));
    CHECK(says(item(shoot, "test-frame"), "both ends"));
    shot.lights = {test::plain_light()};
    const auto frames = assess(shoot.kit, shot, {}).capture.frames;
    CHECK(item(shoot, "charge") == "Flash charged for " + std::to_string(static_cast<int>(frames)) + " flashes");
    shoot.kit.cameras[0].card_space = frames * 30 * 4;
    CHECK(says(item(shoot, "card"), "25 % of what was free"));
    shot.capture.mover = Mover::hand;
    shot.rig.support = Support::hand;
    CHECK(item(shoot, "backlash").empty());
    CHECK(item(shoot, "stabiliser").empty());
    CHECK(says(item(shoot, "release"), "Continuous drive"));
    CHECK(says(item(shoot, "bracketing"), "Bursts of 15"));
    // A camera whose steps were measured: the setting is named.
    shot.capture.mover = Mover::ring;
    shoot.kit.cameras[0].bracket.step_settings = 10;
    shoot.kit.cameras[0].step_readings = {{.lens = "macro", .setting = 5, .f_number = 8, .ring_step = 0.0012}};
    CHECK(says(item(shoot, "bracketing"), "step setting "));
}

TEST_CASE("without contacts the camera has to be told to fire, and a limiter is set for where the subject is",
          "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    CHECK(item(shoot, "release-without-lens").empty());
    CHECK(item(shoot, "focus-limiter").empty());
    shoot.kit.lenses[0].limiter = 500;  // the subject is nearer than half a metre
    CHECK(says(item(shoot, "focus-limiter"), "near, up to 500 mm"));
    shoot.kit.lenses[0].limiter = 300;
    CHECK(says(item(shoot, "focus-limiter"), "far, from 300 mm"));
    shoot.shots[0].rig.closeup_lenses = {"c4"};  // its distances hold no more
    CHECK(says(item(shoot, "focus-limiter"), "off"));
    shoot.shots[0].rig.closeup_lenses.clear();
    shoot.shots[0].rig.tubes = {"plain"};
    CHECK(item(shoot, "focus-limiter").empty());  // nothing focuses by itself
    CHECK(says(item(shoot, "release-without-lens"), "without a lens"));
}
