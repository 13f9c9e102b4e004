// What the bag lacks is what reaches: each piece that is named is put into the bag and mounted, and the next smaller of
// its kind does not do.
#include "search/missing.hpp"

#include "advice/advice.hpp"
#include "advice/worth/trouble.hpp"
#include "plan/plan.hpp"
#include "storage/kit_file.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;

namespace {

gear::Kit catalogue() { return storage::load_kit(POQUITO_DATA "/catalogue.json").value(); }

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
    std::vector<std::string> names;
    for (const auto& way : search::what_would_reach(plan::plan_of(shoot.kit, shot, {}), shot.rig.focus.value))
        names.push_back(way.name);
    return names;
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
    // At a click it is planned with, said not to be owned; nobody gets it by putting the plan right.
    REQUIRE(note->remedy);
    REQUIRE(note->remedy->kit);
    CHECK(std::ranges::any_of(named(shoot),
                              [&](const auto& name) { return note->remedy->label.find(name) != std::string::npos; }));
    const auto then = advice::plan_with(plan::plan_of(shoot.kit, shoot.shots[0], {}), *note->remedy);
    CHECK(then.found.reached);
    const auto& rig = note->remedy->shot.rig;
    REQUIRE(rig.tubes.size() + rig.closeup_lenses.size() == 1);
    const auto& got = *note->remedy->kit;
    const auto& name = rig.tubes.empty() ? gear::find_gear(got.closeup_lenses, rig.closeup_lenses[0])->name
                                         : gear::find_gear(got.tubes, rig.tubes[0])->name;
    CHECK(name.find("to get") != std::string::npos);
    // Each of the ways that are named is offered.
    CHECK(note->others.size() + 1 == named(shoot).size());
    CHECK(shoot.kit.tubes.empty());
    const auto righted = advice::put_right(shoot.kit, shoot.shots[0], {});
    CHECK(righted.rig.tubes.empty());
    CHECK(righted.rig.closeup_lenses.empty());
}

TEST_CASE("a piece to get takes the place of none in the bag", "[search][missing]") {
    auto shoot = bare_normal_lens(0.6);
    const auto sold = catalogue().tubes;
    for (const auto& tube : sold) {
        shoot.kit.tubes.push_back(tube);
        shoot.kit.tubes.back().length = 1;  // of the same id, and of no use
    }
    const auto& shot = shoot.shots[0];
    const auto ways = search::what_would_reach(plan::plan_of(shoot.kit, shot, {}), 0.6);
    REQUIRE_FALSE(ways.empty());
    const auto& way = ways.front();
    REQUIRE(way.kit.tubes.size() == sold.size() + 1);
    for (std::size_t i = 0; i < sold.size(); ++i) CHECK(way.kit.tubes[i] == shoot.kit.tubes[i]);
    CHECK(way.rig.tubes.back() == way.kit.tubes.back().id);
    CHECK_FALSE(gear::find_gear(shoot.kit.tubes, way.kit.tubes.back().id));
}
