#include "whatif/power_sets.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;

TEST_CASE("stored powers come back to the groups they were of", "[whatif][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light(), test::plain_light(), test::plain_light()};
    shot.lights[0].power = 0.5;
    shot.lights[1].power = 0.125;
    shot.lights[1].group = "A";
    shot.lights[2].power.reset();  // finds its power: nothing to store
    whatif::store_powers(shoot, shot, "close");
    REQUIRE(shoot.power_sets.size() == 1);
    CHECK(shoot.power_sets[0].powers == std::vector<std::pair<std::string, double>>{{"A", 0.5}});
    shot.lights[0].power = 1;
    CHECK(whatif::call_up(shoot.power_sets[0], shot) == 2);  // both of the group
    CHECK(shot.lights[1].power == 0.5);
    CHECK_FALSE(shot.lights[2].power);
    shot.lights[0].power = 0.25;
    shoot.power_sets[0].unknown = "{\"later\":1}";
    whatif::store_powers(shoot, shot, "close");
    CHECK(shoot.power_sets[0].unknown == "{\"later\":1}");
    CHECK(shoot.power_sets.size() == 1);
    CHECK(shoot.power_sets[0].powers[0].second == 0.25);
    whatif::forget_powers(shoot, "close");
    CHECK(shoot.power_sets.empty());
}
