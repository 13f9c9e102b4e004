// The library of subjects as it ships: each can be photographed with common gear, and says what it assumes.
#include "advice/advice.hpp"
#include "advice/proposals/proposals.hpp"
#include "shoot/change/edit.hpp"
#include "storage/atomic_file.hpp"
#include "storage/kit_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"

#include <algorithm>
#include <set>

using namespace poquito;
using namespace poquito::shoot;

namespace {

std::vector<LibrarySubject> shipped() {
    const auto text = storage::read_file(POQUITO_DATA "/subjects.json").value();
    return storage::read_subjects(text).value();
}

/// What many own: an APS-C body, a macro lens, a tube and a close-up lens, a compact flash with a small diffuser.
Shoot common() {
    const auto all = storage::load_kit(POQUITO_DATA "/catalogue.json").value();
    Shoot shoot{.title = "Common"};
    const auto take = [](auto& to, const auto& from, std::initializer_list<const char*> ids) {
        for (const auto* id : ids) to.push_back(*gear::find_gear(from, id));
    };
    take(shoot.kit.cameras, all.cameras, {"apsc-24"});
    take(shoot.kit.lenses, all.lenses, {"macro-100-1.4", "macro-90", "kit-18-55"});
    take(shoot.kit.tubes, all.tubes, {"tube-12", "tube-20", "tube-36"});
    take(shoot.kit.closeup_lenses, all.closeup_lenses, {"achromat-5"});
    take(shoot.kit.flashes, all.flashes, {"compact"});
    take(shoot.kit.modifiers, all.modifiers, {"dome-8"});
    take(shoot.kit.rails, all.rails, {"rail-screw"});
    return shoot;
}

}  // namespace

TEST_CASE("the library has some forty subjects in classes, each with its own name", "[shoot][library]") {
    const auto library = shipped();
    CHECK(library.size() >= 40);
    std::set<std::string> classes, names;
    for (const auto& entry : library) {
        classes.insert(entry.kind);
        CHECK(names.insert(entry.name).second);
        CHECK(entry.subject.library == entry.id);
        CHECK(entry.unknown.empty());
        CHECK(entry.subject.unknown.empty());  // no slip in a key
        if (entry.zone) CHECK(entry.zone->to <= entry.subject.depth);
    }
    CHECK(classes.size() >= 8);
    // And back the same way.
    CHECK(storage::read_subjects(storage::write_subjects(library)).value() == library);
}

TEST_CASE("each subject of the library has a plan from common gear that nothing stops", "[shoot][library]") {
    for (const auto& entry : shipped()) {
        INFO(entry.name);
        auto shoot = common();
        add_shot(shoot, 0);
        auto& shot = shoot.shots.front();
        fill_from(shot, shoot.kit, entry);
        shot.ambient = Ambient{.ev100 = has_trait(shot.subject, "outdoors") ? 12.0 : 8.0};
        if (has_trait(shot.subject, "living")) shot.rig.support = Support::hand;
        const auto plans = advice::proposals_for(shoot.kit, shot, {usual_limits()});
        REQUIRE_FALSE(plans.empty());
        CHECK(std::ranges::any_of(plans, [](const auto& plan) { return !plan.stopped; }));
        CHECK_FALSE(plans.front().stopped);
    }
}

TEST_CASE("what was assumed is said until it is changed", "[shoot][library]") {
    const auto library = shipped();
    auto shoot = common();
    add_shot(shoot, 0);
    auto& shot = shoot.shots.front();
    CHECK(assumed(shot, library).empty());
    const auto bee = std::ranges::find(library, "bee", &LibrarySubject::id);
    REQUIRE(bee != library.end());
    fill_from(shot, shoot.kit, *bee);
    const auto all = assumed(shot, library).size();
    CHECK(all >= 4);
    shot.subject.speed = 3;
    CHECK(assumed(shot, library).size() == all - 1);
    shot.subject.library.reset();
    CHECK(assumed(shot, library).empty());
}
