#include "shoot/checklist.hpp"

#include "shoot/evaluate.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::shoot;

namespace {

/// The text of an item; empty where the plan does not call for it.
std::string item(const Shoot& shoot, const std::string& id) {
    const auto report = evaluate(shoot.kit, shoot.shots[0]);
    const auto found = std::ranges::find(report.checklist, id, &ChecklistItem::id);
    return found == report.checklist.end() ? std::string() : found->text;
}

bool says(const std::string& text, const char* part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("the settings item names the stop on the lens and the one on the display", "[shoot][checklist]") {
    auto shoot = test::plain_shoot();
    CHECK(item(shoot, "settings") == "f/8 on the lens, f/8 on the display; 1/8 s; ISO 100");
    shoot.kit.cameras[0].aperture_display = ApertureDisplay::working;
    CHECK(says(item(shoot, "settings"), "f/12 on the display"));
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
    for (const auto& entry : evaluate(shoot.kit, shot).checklist) shot.checked.push_back(entry.id);
    CHECK(all_ticked(shot, evaluate(shoot.kit, shot)));
    shot.lights = {test::plain_light()};  // a new item, not ticked
    CHECK_FALSE(all_ticked(shot, evaluate(shoot.kit, shot)));
    CHECK(is_ticked(shot, "card"));
}
