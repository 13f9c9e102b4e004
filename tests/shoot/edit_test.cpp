#include "shoot/change/edit.hpp"
#include "plan/assess.hpp"
#include "search/reach_search.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::search;
using test::same;

TEST_CASE("shots are added, copied, moved and removed with ids of their own", "[shoot][edit]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].checked = {"card"};
    shoot.shots[0].proof = {{}};
    CHECK(duplicate_shot(shoot, 0) == 1);
    CHECK(shoot.shots[1].name == "One copy");
    CHECK(shoot.shots[1].id != shoot.shots[0].id);
    CHECK(shoot.shots[1].checked.empty());
    CHECK(shoot.shots[1].proof.empty());
    CHECK(add_shot(shoot, 0) == 1);
    CHECK(shoot.shots[1].name == "New shot");
    CHECK(assess(shoot.kit, shoot.shots[1], {}).optics.reached);
    // Nobody said anything of it yet: its exposure is right, to the third that a camera sets.
    CHECK(std::abs(assess(shoot.kit, shoot.shots[1], {}).light.total.value()) < 0.17);
    const auto id = shoot.shots[0].id;
    move_shot(shoot, 0, 2);
    CHECK(shoot.shots[2].id == id);
    move_shot(shoot, 2, 0);
    CHECK(shoot.shots[0].id == id);
    remove_shot(shoot, 1);
    CHECK(shoot.shots.size() == 2);
    CHECK(shoot.shots[1].name == "One copy");
}

TEST_CASE("ids come from names and never collide", "[shoot][edit]") {
    Shoot shoot;
    CHECK(unique_shot_id(shoot, "Tide brooch, front!") == "tide-brooch-front");
    shoot.shots.push_back({.id = "tide-brooch"});
    CHECK(unique_shot_id(shoot, "Tide brooch") == "tide-brooch-2");
    CHECK(unique_shot_id(shoot, "\u2026") == "shot");
}

TEST_CASE("filling the frame is set by the tighter direction", "[shoot][edit]") {
    const auto shoot = test::plain_shoot();
    CHECK_THAT(magnification_for_fill(shoot.kit.cameras[0].sensor, {.width = 24, .height = 8}, 0.5), same(0.5));
    CHECK_THAT(magnification_for_fill(shoot.kit.cameras[0].sensor, {.width = 8, .height = 16}, 0.5), same(0.5));
}

TEST_CASE("gear is listed from the camera forwards", "[shoot][gear]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    rig.tubes = {"t20"};
    rig.closeup_lenses = {"c4"};
    rig.teleconverter = "x2";
    CHECK(mounting_order(shoot.kit, rig) ==
          std::vector<std::string>{"APS-C body", "Converter 2x", "Tube 20 mm", "100 mm macro 1:1", "Achromat +4"});
}

TEST_CASE("what waits for a shot that is removed waits no longer", "[shoot][edit]") {
    auto shoot = test::plain_shoot();
    while (shoot.shots.size() < 3) shoot.shots.push_back(shoot.shots[0]);
    shoot.shots[1].id = "two";
    shoot.shots[2].id = "three";
    shoot.shots[2].timing.after = {"one", "two"};
    remove_shot(shoot, 0);
    CHECK(shoot.shots[1].timing.after == std::vector<std::string>{"two"});
    // A shot by itself names no others; taken over again it keeps what it waited for.
    const auto one = alone(shoot, 1);
    CHECK(one.shots[0].timing.after.empty());
    auto changed = one;
    changed.shots[0].name = "Changed";
    adopt(shoot, changed, 0);
    CHECK(shoot.shots[1].name == "Changed");
    CHECK(shoot.shots[1].timing.after == std::vector<std::string>{"two"});
    // A copy begins without a log.
    shoot.runs[shoot.shots[0].id] = {RunRecord{.id = "two-1"}};
    const auto copy = duplicate_shot(shoot, 0);
    CHECK(runs_of(shoot.runs, shoot.shots[copy].id).empty());
    CHECK(runs_of(shoot.runs, shoot.shots[0].id).size() == 1);
}

TEST_CASE("a shot that is taken in again brings its runs and leaves those that were logged here", "[shoot][edit]") {
    auto shoot = test::plain_shoot();
    const auto id = shoot.shots[0].id;
    log_run(shoot, id, RunRecord{.id = "first", .planned = 3});
    auto one = alone(shoot, 0);
    log_run(shoot, id, RunRecord{.id = "second"});
    log_run(one, id, RunRecord{.id = "first", .planned = 4});
    adopt(shoot, one, 0);
    const auto& runs = runs_of(shoot.runs, id);
    REQUIRE(runs.size() == 2);
    CHECK(runs[0]->planned == 4);
    CHECK(runs[1]->id == "second");
}
