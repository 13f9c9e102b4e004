#include "shoot/change/fit.hpp"
#include "plan/assess.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::text;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;

namespace {

Fit fit(const Shoot& shoot) { return assess(shoot.kit, shoot.shots[0], {}).optics.fit; }

}  // namespace

TEST_CASE("close-up lenses and a ring light are joined from the lens outwards", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.closeup_lenses = {"c2", "c3"};  // 77 and 49 mm on a 62 mm lens
    shoot.kit.flashes[0].front_thread = 49;
    shot.lights = {test::plain_light()};
    const auto joints = fit(shoot).joints;
    REQUIRE(joints.size() == 3);
    CHECK(joints[0].inner == "100 mm macro 1:1");
    CHECK(joints[0].outer == "Close-up +2");
    CHECK_FALSE(joints[0].fits());
    CHECK_FALSE(joints[0].narrows());
    CHECK(joints[0].step_ring == "Step ring 62 to 77");
    CHECK(joints[1].inner_thread == 77.0);
    CHECK(joints[1].outer_thread == 49);
    CHECK(joints[1].narrows());
    CHECK_FALSE(joints[1].step_ring.has_value());
    CHECK(joints[2].outer == "Compact flash");
    CHECK(joints[2].fits());
}

TEST_CASE("a reversing ring screws into the lens - the mount in front takes nothing", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.reversing_ring = "rev";
    shoot.kit.reversing_rings[0].thread = 58;
    shoot.kit.flashes[0].front_thread = 62;
    shot.lights = {test::plain_light()};
    const auto joints = fit(shoot).joints;
    REQUIRE(joints.size() == 2);
    CHECK(joints[0].inner == "Reversing ring");
    CHECK(joints[0].inner_thread == 58.0);
    CHECK(joints[0].outer_thread == 62);
    CHECK_FALSE(joints[1].inner_thread.has_value());
}

TEST_CASE("coupled lenses are joined by the two threads of the ring", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    shoot.kit.lenses.push_back(shoot.kit.lenses[0]);
    shoot.kit.lenses[1].id = "front";
    shoot.kit.lenses[1].filter_thread = 52;
    shoot.shots[0].rig.front_lens = FrontLens{.lens = "front", .coupling_ring = "pair"};
    const auto joints = fit(shoot).joints;
    REQUIRE(joints.size() == 2);
    CHECK(joints[0].fits());
    CHECK(joints[1].inner_thread == 52.0);
    CHECK(joints[1].fits());
}

TEST_CASE("one piece without contacts breaks the chain, and says so", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    CHECK(fit(shoot).contacts());
    CHECK(fit(shoot).autofocus);
    CHECK(fit(shoot).stop == StopControl::camera);
    rig.tubes = {"t20", "plain"};
    CHECK(fit(shoot).without_contacts == std::vector<std::string>{"Plain tube"});
    CHECK_FALSE(fit(shoot).autofocus);
    CHECK(fit(shoot).stop == StopControl::none);
    shoot.kit.lenses[0].aperture_ring = true;
    CHECK(fit(shoot).stop == StopControl::lens_ring);
    rig.tubes = {"t20"};
    shoot.kit.lenses[0].autofocus = false;
    CHECK(fit(shoot).contacts());
    CHECK_FALSE(fit(shoot).autofocus);
    rig.reversing_ring = "rev";
    CHECK_FALSE(fit(shoot).contacts());
    shoot.kit.reversing_rings[0].contacts = true;
    CHECK(fit(shoot).contacts());
    shoot.kit.teleconverters[0].contacts = false;
    rig.teleconverter = "x2";
    CHECK_FALSE(fit(shoot).contacts());
}

TEST_CASE("the rig's length is all that stands in front of the camera's mount", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    rig.focus = {.by = FocusBy::ring, .value = 0};
    CHECK_THAT(fit(shoot).length, same(110));
    rig.tubes = {"t20"};
    rig.teleconverter = "x2";
    rig.tubes_behind_converter = {"plain"};
    rig.bellows = BellowsSetting{.bellows = "bellows", .extension = 50};
    CHECK_THAT(fit(shoot).length, same(110 + 20 + 40 + 25 + 50));
}

TEST_CASE("the far limit is infinity only for the bare lens - tubes bring it near", "[shoot][fit]") {
    auto shoot = test::plain_shoot();
    const auto optics = [&] { return assess(shoot.kit, shoot.shots[0], {}).optics; };
    CHECK(optics().reaches_infinity);
    CHECK_FALSE(optics().at_infinity_ring.has_value());
    CHECK_THAT(optics().at_closest_ring.value(), same(410));
    shoot.shots[0].rig.tubes = {"t20"};
    CHECK_FALSE(optics().reaches_infinity);
    CHECK_THAT(optics().range.least, same(0.2));
    // f (2 + m + 1/m) + h, h = 410 - 400.
    CHECK_THAT(optics().at_infinity_ring.value(), same(100 * (2 + 0.2 + 5) + 10));
    CHECK(optics().at_infinity_ring.value() > optics().at_closest_ring.value());
}
