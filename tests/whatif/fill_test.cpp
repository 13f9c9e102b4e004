// Shots as they would be lit otherwise: filled, a tone met, glass.
#include "whatif/fill.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "support/lit_shot.hpp"
#include "support/matchers.hpp"
#include "whatif/glass_setups.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::shoot;
using plan::assess;
using test::Lit;
using test::same;
using test::WithinAbs;

namespace {

constexpr double degree = 3.14159265358979323846 / 180;

}  // namespace

TEST_CASE("a dark front is filled from the camera's side, and a tone asked for is met", "[whatif][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.background = Background{.distance = 300};
    set.shot.exposure.shutter = 0.01;
    set.shot.ambient = Ambient{.ev100 = 3};
    set.shot.lights[0].position = {.distance = 300, .azimuth = 150, .elevation = 20};
    set.shot.lights[0].power = 1.0 / 32;
    const auto ways = whatif::ways_to_fill(plan::plan_of(set.shoot.kit, set.shot, {}));
    REQUIRE_FALSE(ways.empty());
    for (const auto& way : ways) {
        INFO(way.label);
        CHECK_THAT(*assess(set.shoot.kit, way.shot, {}).light.front_total, same(way.front));
        CHECK(way.front > *set.light().front_total + 0.3);
        CHECK(std::cos(way.shot.lights.back().position.azimuth * degree) > 0);  // in front
        CHECK(way.shot.lights.back().position.azimuth < 0);                     // across from the light
    }
    // Wanted a stop brighter, a card comes nearer or a flash gives more.
    shoot::Terms brighter;
    brighter.wishes.brighter = 1;
    for (const auto& way : whatif::ways_to_fill(plan::plan_of(set.shoot.kit, set.shot, brighter))) {
        INFO(way.label);
        CHECK(way.front < 1 + 1.0 / 3);
        const auto plain = std::ranges::find_if(ways, [&](const auto& one) {
            return one.shot.lights.back().flash == way.shot.lights.back().flash &&
                   one.shot.lights.back().lamp == way.shot.lights.back().lamp &&
                   one.shot.lights.back().reflector == way.shot.lights.back().reflector;
        });
        REQUIRE(plain != ways.end());
        CHECK(way.front >= plain->front);
        // The lamp stands as near as it can already.
        if (plan::is_flash(way.shot.lights.back())) CHECK_THAT(way.front - plain->front, test::WithinAbs(1, 0.15));
    }
    // Key and fill: the shadow side is brought to two stops under the lit one by what fills it.
    set.shot.lights = {test::plain_light(), test::plain_light()};
    set.shot.lights[0].position = {.distance = 400, .azimuth = 45};
    set.shot.lights[1].position = {.distance = 400, .azimuth = -45};
    for (auto& light : set.shot.lights) light.power = 0.25;
    set.shot.lights[1].power.reset();
    const auto asked = whatif::ask_for(plan::plan_of(set.shoot.kit, set.shot, {}), whatif::Tone::shadow, -1.5);
    REQUIRE(asked);
    CHECK_THAT(asked->stops, WithinAbs(-1.5, 0.1));
    CHECK_THAT(*assess(set.shoot.kit, asked->shot, {}).light.tones.shadow, same(asked->stops));
    CHECK(asked->shot.lights[1].own_stops);
    CHECK(asked->shot.lights[0] == set.shot.lights[0]);
}

TEST_CASE("a tone is asked for of what makes it: a flash by hand, a card, a screen, and as near as its scale goes",
          "[whatif][light]") {
    Lit set;
    const auto& kit = set.shoot.kit;
    const auto now = [&](const Shot& shot) { return assess(kit, shot, {}).light; };
    set.shot.subject.depth = 20;
    // A flash at fixed power makes the ground: twice its power is a stop more, by its own steps.
    set.shot.background = Background{.distance = 300, .reflectance = 0.2};
    set.shot.lights[0].power = 1.0 / 64;
    const double ground = now(set.shot).background.value();
    auto asked = whatif::ask_for(plan::plan_of(kit, set.shot, {}), whatif::Tone::background, ground + 2);
    REQUIRE(asked);
    CHECK_THAT(*asked->shot.lights[0].power, same(1.0 / 16));
    CHECK_THAT(asked->stops, WithinAbs(ground + 2, 1e-6));
    CHECK_THAT(*now(asked->shot).background, same(asked->stops));
    CHECK(asked->label.find("1/16") != std::string::npos);
    // Beyond full power there is none: it is told what comes of it.
    asked = whatif::ask_for(plan::plan_of(kit, set.shot, {}), whatif::Tone::background, ground + 9);
    REQUIRE(asked);
    CHECK(*asked->shot.lights[0].power == 1);
    CHECK_THAT(asked->stops, WithinAbs(ground + 6, 1e-6));
    // A card sends a window's light into the shadow: nearer for more, whole millimetres.
    set.shot.ambient = Ambient{.ev100 = 9};
    set.shot.ambient->kind = AmbientKind::window;
    set.shot.ambient->position = {.azimuth = 70};
    Light card;
    card.reflector = Reflector{.reflectance = 0.8, .diameter = 200};
    card.position = {.distance = 300, .azimuth = -60};
    set.shot.lights = {card};
    const double shadow = now(set.shot).tones.shadow.value();
    asked = whatif::ask_for(plan::plan_of(kit, set.shot, {}), whatif::Tone::shadow, shadow + 0.5);
    REQUIRE(asked);
    const double distance = asked->shot.lights[0].position.distance;
    CHECK(distance < 300);
    CHECK(distance == std::round(distance));
    CHECK_THAT(asked->stops, WithinAbs(shadow + 0.5, 0.05));
    CHECK(asked->label.starts_with("Card "));
    set.shot.ambient.reset();
    // A screen behind that no light reaches is turned up itself.
    set.shot.lights.clear();
    set.shot.background = Background{.distance = 300, .reflectance = 0.05};
    set.shot.background->own_ev100 = 8;
    const double screen = now(set.shot).background.value();
    asked = whatif::ask_for(plan::plan_of(kit, set.shot, {}), whatif::Tone::background, screen + 1.5);
    REQUIRE(asked);
    CHECK_THAT(*asked->shot.background->own_ev100, WithinAbs(9.5, 1e-9));
    CHECK_THAT(asked->stops, WithinAbs(screen + 1.5, 1e-6));
    CHECK(asked->label == "Light behind to EV 9.5");
    // Nothing makes a rim here.
    CHECK_FALSE(whatif::ask_for(plan::plan_of(kit, set.shot, {}), whatif::Tone::rim, 1));
}

TEST_CASE("glass is lit before a card no larger than the field, or past the edges of a dark stop", "[whatif][light]") {
    Lit set;
    set.shot.subject = {.width = 30, .height = 30, .depth = 15};
    const auto bright = whatif::glass_lit(plan::plan_of(set.shoot.kit, set.shot, {}), whatif::GlassSetup::bright_field);
    REQUIRE(bright);
    const auto white = assess(set.shoot.kit, bright->shot, {});
    CHECK(white.light.background_look == light::BackgroundLook::white);
    CHECK(*white.light.background < 3);
    CHECK_THAT(*bright->shot.background->width, WithinAbs(*white.optics.field_behind_width, 1));
    CHECK_FALSE(white.light.flash);
    const auto dark = whatif::glass_lit(plan::plan_of(set.shoot.kit, set.shot, {}), whatif::GlassSetup::dark_field);
    REQUIRE(dark);
    const auto black = assess(set.shoot.kit, dark->shot, {});
    CHECK(*black.light.background_look <= light::BackgroundLook::dark);
    CHECK(*dark->shot.background->width > *black.optics.field_behind_width);
    // Both lights stand past the stop's edges, seen from the glass, and draw its edges.
    const double edge = std::atan2(*dark->shot.background->width / 2, dark->shot.background->distance) / degree;
    int edges = 0;
    for (const auto& source : black.light.sources)
        if (source.rim) {
            CHECK(180 - source.off_axis > edge);
            ++edges;
        }
    CHECK(edges == 2);
}
