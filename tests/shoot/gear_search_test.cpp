#include "shoot/gear_search.hpp"

#include "optics/focus.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::shoot;
using test::WithinRel;

namespace {

double reached(const Kit& kit, const Rig& rig) {
    const auto train = train_of(kit, rig);
    return optics::focus_at_ring(train, optics::find_focus(train, rig.focus.value).ring).magnification;
}

}  // namespace

TEST_CASE("what is found reaches what was wanted, within the distance that was wanted", "[shoot][gear]") {
    const auto shoot = test::plain_shoot();
    int found_some = 0;
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        const WantedReach wanted{.magnification = random.log_between(0.05, 4),
                                 .working_distance = random.between(0, 200)};
        const auto found = find_rig(shoot.kit, shoot.shots[0].rig, wanted);
        if (!found) continue;
        ++found_some;
        INFO("seed " << seed << ": " << found->name);
        CHECK_THAT(reached(shoot.kit, found->rig), WithinRel(wanted.magnification, 1e-9));
        const auto train = train_of(shoot.kit, found->rig);
        const auto at = optics::focus_at_ring(train, optics::find_focus(train, wanted.magnification).ring);
        CHECK(at.working_distance.value_or(1e9) > wanted.working_distance);
    }
    CHECK(found_some > 50);
}

TEST_CASE("the bare lens comes before anything screwed to it, tubes before glass", "[shoot][gear]") {
    const auto shoot = test::plain_shoot();
    const auto& rig = shoot.shots[0].rig;
    CHECK(find_rig(shoot.kit, rig, {.magnification = 0.7})->name == "100 mm macro 1:1");
    const auto more = find_rig(shoot.kit, rig, {.magnification = 1.15});
    REQUIRE(more);
    CHECK(more->rig.tubes == std::vector<std::string>{"t20"});
    CHECK(more->rig.closeup_lenses.empty());
    CHECK_FALSE(more->rig.teleconverter.has_value());
}

TEST_CASE("another lens is taken where the shot's own does not reach", "[shoot][gear]") {
    auto shoot = test::plain_shoot();
    auto lens = shoot.kit.lenses[0];
    lens.id = "strong";
    lens.name = "40 mm macro 5:1";
    lens.optics.focal_length = 40;
    lens.optics.max_magnification = 5;
    lens.optics.closest_focus = 40 * 7.2 + 10;
    lens.optics.length = 40;
    shoot.kit.lenses.push_back(lens);
    const auto found = find_rig(shoot.kit, shoot.shots[0].rig, {.magnification = 4.5});
    REQUIRE(found);
    CHECK(found->rig.lens == "strong");
    CHECK_FALSE(find_rig(shoot.kit, shoot.shots[0].rig, {.magnification = 100}).has_value());
    CHECK_FALSE(find_rig(shoot.kit, shoot.shots[0].rig, {.magnification = 0.5, .working_distance = 5000}).has_value());
}
