#include "shoot/change/kit_edit.hpp"

#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"
#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;

TEST_CASE("new gear and copies have ids of their own and stand as the file reader wants them", "[shoot][kit]") {
    auto shoot = test::plain_shoot();
    for (const GearKind& kind : gear_kinds()) {
        INFO(kind.list);
        const auto before = kind.count(shoot.kit);
        const auto added = add_gear(kind, shoot.kit);
        CHECK(added == before);
        CHECK_FALSE(kind.check(shoot.kit, added).has_value());
        const auto copy = duplicate_gear(kind, shoot.kit, added);
        CHECK(kind.id(shoot.kit, copy) != kind.id(shoot.kit, added));
        CHECK(kind.name(shoot.kit, copy) == kind.name(shoot.kit, added) + " copy");
        for (const GearField& field : kind.fields) {
            INFO(field.key);
            CHECK_FALSE(mismatch(field, field.get(shoot.kit, added)).has_value());
            CHECK(field.get(shoot.kit, copy) == field.get(shoot.kit, added));
        }
    }
    const auto back = storage::read_shoot(storage::write_shoot(shoot));
    REQUIRE(back.has_value());
    CHECK(back.value() == shoot);
}

TEST_CASE("whoever uses a piece is named", "[shoot][kit]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].rig.tubes = {"t20"};
    shoot.shots.push_back(shoot.shots[0]);
    shoot.shots[1].name = "Two";
    shoot.shots[1].rig.tubes = {};
    shoot.shots[1].rig.teleconverter = "x2";
    shoot.shots[1].rig.tubes_behind_converter = {"t20"};
    shoot.shots[1].rig.front_lens = FrontLens{.lens = "macro"};
    CHECK(users_of(shoot, gear_kind("tubes"), "t20") == std::vector<std::string>{"One", "Two"});
    CHECK(users_of(shoot, gear_kind("teleconverters"), "x2") == std::vector<std::string>{"Two"});
    CHECK(users_of(shoot, gear_kind("tubes"), "plain").empty());
    CHECK(users_of(shoot, gear_kind("lenses"), "macro").size() == 2);
}

TEST_CASE("removing any piece leaves a shoot that can be read and computed", "[shoot][kit]") {
    for (unsigned seed = 0; seed < 60; ++seed) {
        auto shoot = test::random_shoot(seed);
        shoot.kit.lenses.push_back(test::plain_shoot().kit.lenses[0]);
        shoot.kit.lenses.back().id = "other";
        shoot.kit.cameras.push_back(test::plain_shoot().kit.cameras[0]);
        shoot.kit.cameras.back().id = "other";
        test::Random random(seed);
        const auto kinds = gear_kinds();
        for (int i = 0; i < 4; ++i) {
            const GearKind& kind = kinds[static_cast<std::size_t>(random.whole(0, static_cast<int>(kinds.size()) - 1))];
            if (kind.count(shoot.kit) == 0 || (needs_replacement(kind) && kind.count(shoot.kit) == 1)) continue;
            const std::string id = kind.id(shoot.kit, 0);
            remove_gear(shoot, kind, 0, needs_replacement(kind) ? kind.id(shoot.kit, kind.count(shoot.kit) - 1) : "");
            CHECK(users_of(shoot, kind, id).empty());
        }
        INFO("seed " << seed);
        const auto back = storage::read_shoot(storage::write_shoot(shoot));
        INFO((back ? "" : text::message(back.error())));
        REQUIRE(back);
        for (const auto& shot : shoot.shots) CHECK(assess(shoot.kit, shot, {}).id == shot.id);
    }
}

TEST_CASE("shots follow gear that was changed under them", "[shoot][kit]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    rig.bellows = BellowsSetting{.bellows = "bellows", .extension = 130};
    rig.teleconverter = "x2";
    rig.tubes_behind_converter = {"t20"};
    CHECK(fit_shots_to_kit(shoot).empty());
    shoot.kit.bellows[0].greatest = 100;
    shoot.kit.teleconverters[0].optics.length = 0;
    CHECK(fit_shots_to_kit(shoot) == std::vector<std::string>{"One"});
    CHECK(rig.bellows->extension == 100);
    CHECK(rig.tubes_behind_converter.empty());
    CHECK(rig.tubes == std::vector<std::string>{"t20"});
}

TEST_CASE("merging adds what is new, keeps what is there and renames what clashes", "[shoot][kit]") {
    auto kit = test::plain_shoot().kit;
    auto other = kit;
    CHECK(merge_kit(kit, other).added == 0);
    CHECK(kit == other);
    other.tubes[0].length = 21;
    const auto merged = merge_kit(kit, other);
    CHECK(merged.added == 1);
    CHECK(merged.renamed == 1);
    CHECK(kit.tubes.size() == 3);
    CHECK(kit.tubes[0].length == 20);
    CHECK(kit.tubes[2].id == "t20-2");
    put_gear(gear_kind("tubes"), kit, other, 0);
    CHECK(kit.tubes.size() == 3);
    CHECK(kit.tubes[0].length == 21);
}

TEST_CASE("a bag hears of what was found out about the gear that it has, and of no other", "[shoot][kit]") {
    const auto before = test::plain_shoot().kit;
    auto after = before, bag = before, other = before;
    after.cameras[0].step_readings.push_back({.lens = "lens", .setting = 4, .ring_step = 0.01});
    after.flashes[0].corrections.push_back({.stops = -0.4});
    after.holds.push_back({.id = "fence", .name = "Against the fence", .along = 1});
    carry_learned(before, after, bag);
    CHECK(bag == after);
    carry_learned(after, before, bag);  // undone
    CHECK(bag == before);
    // Another body that happens to have its id, and what the bag knows better, stay.
    other.cameras[0].frame_mb += 1;
    other.flashes[0].corrections.push_back({.stops = 0.2});
    const auto own = other;
    carry_learned(before, after, other);
    CHECK(other.cameras == own.cameras);
    CHECK(other.flashes == own.flashes);
    CHECK(other.holds == after.holds);
    bag.cameras.clear();
    carry_learned(before, after, bag);
    CHECK(bag.cameras.empty());
}
