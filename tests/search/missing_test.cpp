// What the bag lacks is what reaches: each piece that is named is put into the bag and mounted, and the next smaller of
// its kind does not do.
#include "search/missing.hpp"

#include "advice/advice.hpp"
#include "plan/plan.hpp"
#include "storage/kit_file.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;

namespace {

gear::Kit catalogue() { return std::get<gear::Kit>(storage::load_kit(POQUITO_DATA "/catalogue.json")); }

/// A 50 mm lens that comes to 0.15 times, and nothing beside it.
shoot::Shoot bare_normal_lens(double magnification) {
    auto shoot = test::plain_shoot();
    auto& kit = shoot.kit;
    kit.tubes.clear(), kit.closeup_lenses.clear(), kit.bellows.clear(), kit.teleconverters.clear();
    kit.reversing_rings.clear(), kit.coupling_rings.clear();
    auto all = catalogue();
    kit.lenses = {*gear::find_gear(all.lenses, std::string("normal-50"))};
    auto& rig = shoot.shots[0].rig;
    rig = {.camera = rig.camera, .lens = kit.lenses[0].id};
    rig.focus = {.by = shoot::FocusBy::magnification, .value = magnification};
    return shoot;
}

bool reaches(const shoot::Shoot& shoot) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    return plan.found.reached && *plan.at.working_distance > 0;
}

std::vector<std::string> named(const shoot::Shoot& shoot) {
    const auto& shot = shoot.shots[0];
    return search::what_would_reach(plan::plan_of(shoot.kit, shot, {}), shot.rig.focus.value);
}

}  // namespace

TEST_CASE("the tube that is named reaches, and no shorter one of the catalogue does", "[search][missing]") {
    const auto all = catalogue();
    for (const double wanted : {0.25, 0.4, 0.6, 0.8}) {
        INFO(wanted);
        const auto shoot = bare_normal_lens(wanted);
        REQUIRE_FALSE(reaches(shoot));
        const auto names = named(shoot);
        REQUIRE_FALSE(names.empty());
        double least = 1e9;
        std::string shortest;
        for (const auto& tube : all.tubes) {
            auto with = shoot;
            with.kit.tubes = {tube};
            with.shots[0].rig.tubes = {tube.id};
            if (tube.contacts && reaches(with) && tube.length < least) least = tube.length, shortest = tube.name;
        }
        CHECK(names.front() == shortest);
    }
}

TEST_CASE("where one tube is too short two are named, and where none does a lens in front", "[search][missing]") {
    // 50 mm at 0.15 by itself: 1:1 takes 42.5 mm of tube, more than the longest with contacts.
    CHECK(named(bare_normal_lens(1)).front() == "Tube 20 mm + Tube 25 mm");
    CHECK(named(bare_normal_lens(9)).empty());
    auto reversed = bare_normal_lens(0.4);
    auto all = catalogue();
    CHECK(named(reversed).size() == 2);
    // A reversed lens has no thread in front.
    reversed.kit.reversing_rings = {all.reversing_rings[0]};
    reversed.shots[0].rig.reversing_ring = all.reversing_rings[0].id;
    for (const auto& name : named(reversed)) CHECK(name.find("Tube") != std::string::npos);
}

TEST_CASE("the note on a size out of reach names what would reach it", "[search][missing]") {
    const auto shoot = bare_normal_lens(0.6);
    const auto found = advice::advise(shoot.kit, shoot.shots[0], {});
    const auto note = std::ranges::find(found.notes, std::string("magnification-out-of-reach"), &advice::Note::code);
    REQUIRE(note != found.notes.end());
    for (const auto& name : named(shoot)) CHECK(note->text.find(name) != std::string::npos);
    CHECK_FALSE(note->remedy);  // it is not in the bag
}
