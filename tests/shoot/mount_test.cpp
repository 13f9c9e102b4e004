#include "shoot/change/mount.hpp"

#include "storage/shoot_file.hpp"
#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using test::same;
using Ids = std::vector<std::string>;

namespace {

Ids row(const Kit& kit, const Rig& rig) {
    Ids ids;
    for (const auto& piece : mounted_pieces(kit, rig, 0)) ids.push_back(piece.id);
    return ids;
}

}  // namespace

TEST_CASE("pieces stand in a row from the camera to the front", "[shoot][mount]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    rig.tubes = {"t20"};
    rig.teleconverter = "x2";
    rig.tubes_behind_converter = {"plain"};
    rig.bellows = BellowsSetting{.bellows = "bellows", .extension = 60};
    rig.closeup_lenses = {"c4"};
    rig.front_lens = FrontLens{.lens = "macro", .coupling_ring = "pair"};
    CHECK(row(shoot.kit, rig) == Ids{"body", "plain", "x2", "t20", "bellows", "macro", "c4", "pair", "macro"});
    const auto pieces = mounted_pieces(shoot.kit, rig, 0.5);
    CHECK_THAT(pieces[4].length, same(60));
    CHECK_THAT(pieces[5].length, same(160));  // 110 and 100 * 0.5 of travel
    CHECK(pieces.back().reversed);
}

TEST_CASE("a tube goes to the side of the converter where it is dropped", "[shoot][mount]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    rig.teleconverter = "x2";
    CHECK_FALSE(put_on(shoot.kit, rig, "tubes", "t20", 1));
    CHECK(row(shoot.kit, rig) == Ids{"body", "t20", "x2", "macro"});
    CHECK_FALSE(put_on(shoot.kit, rig, "tubes", "plain", 3));
    CHECK(row(shoot.kit, rig) == Ids{"body", "t20", "x2", "plain", "macro"});
    CHECK(move_piece(shoot.kit, rig, 1, 4));  // behind to in front of the other tube
    CHECK(row(shoot.kit, rig) == Ids{"body", "x2", "plain", "t20", "macro"});
    CHECK(move_piece(shoot.kit, rig, 1, 3));  // the converter past one tube
    CHECK(row(shoot.kit, rig) == Ids{"body", "plain", "x2", "t20", "macro"});
    take_off(shoot.kit, rig, 2);  // without converter there is no behind
    CHECK(row(shoot.kit, rig) == Ids{"body", "plain", "t20", "macro"});
    take_off(shoot.kit, rig, 1);
    CHECK(row(shoot.kit, rig) == Ids{"body", "t20", "macro"});
    CHECK_FALSE(move_piece(shoot.kit, rig, 2, 0));  // the lens stays in front
}

TEST_CASE("a piece moved forwards stands before the piece it was dropped on", "[shoot][mount]") {
    auto shoot = test::plain_shoot();
    shoot.kit.tubes.push_back({.id = "third", .name = "Third"});
    auto& rig = shoot.shots[0].rig;
    rig.tubes = {"t20", "plain", "third"};
    CHECK(move_piece(shoot.kit, rig, 1, 3));
    CHECK(row(shoot.kit, rig) == Ids{"body", "plain", "t20", "third", "macro"});
    CHECK(move_piece(shoot.kit, rig, 3, 1));
    CHECK(row(shoot.kit, rig) == Ids{"body", "third", "plain", "t20", "macro"});
    CHECK_FALSE(move_piece(shoot.kit, rig, 1, 2));  // where it is
}

TEST_CASE("close-up lenses stand in front of the lens, in any order, and not on a reversed one", "[shoot][mount]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    CHECK_FALSE(put_on(shoot.kit, rig, "closeup_lenses", "c4", 0));
    CHECK_FALSE(put_on(shoot.kit, rig, "closeup_lenses", "c2", 9));
    CHECK_FALSE(put_on(shoot.kit, rig, "closeup_lenses", "c3", 2));
    CHECK(row(shoot.kit, rig) == Ids{"body", "macro", "c3", "c4", "c2"});
    CHECK(move_piece(shoot.kit, rig, 2, 5));
    CHECK(row(shoot.kit, rig) == Ids{"body", "macro", "c4", "c2", "c3"});
    take_off(shoot.kit, rig, 3);
    CHECK(row(shoot.kit, rig) == Ids{"body", "macro", "c4", "c3"});
    CHECK_FALSE(turn_lens(shoot.kit, rig));
    CHECK(row(shoot.kit, rig) == Ids{"body", "rev", "macro"});
    CHECK(put_on(shoot.kit, rig, "closeup_lenses", "c4", 3).has_value());
    CHECK(put_on(shoot.kit, rig, "lenses", "macro", 3).has_value());
    CHECK_FALSE(turn_lens(shoot.kit, rig));
    CHECK(row(shoot.kit, rig) == Ids{"body", "macro"});
}

TEST_CASE("a lens dropped in front of the lens is coupled by the ring that fits", "[shoot][mount]") {
    auto shoot = test::plain_shoot();
    shoot.kit.lenses.push_back(shoot.kit.lenses[0]);
    shoot.kit.lenses[1].id = "front";
    shoot.kit.lenses[1].filter_thread = 52;
    shoot.kit.coupling_rings.insert(shoot.kit.coupling_rings.begin(), {.id = "wrong", .name = "Wrong", .thread = 40});
    auto& rig = shoot.shots[0].rig;
    CHECK_FALSE(put_on(shoot.kit, rig, "lenses", "front", 2));
    REQUIRE(rig.front_lens);
    CHECK(rig.front_lens->coupling_ring == "pair");
    CHECK(rig.front_lens->f_number == 2.8);
    CHECK(can_take_off(mounted_pieces(shoot.kit, rig, 0).back()));
    take_off(shoot.kit, rig, 3);
    CHECK_FALSE(rig.front_lens.has_value());
    CHECK_FALSE(put_on(shoot.kit, rig, "lenses", "front", 1));  // behind it: takes the lens's place
    CHECK(rig.lens == "front");
    CHECK(put_on(shoot.kit, rig, "lenses", "front", 2).has_value());   // to itself
    CHECK_FALSE(put_on(shoot.kit, rig, "coupling_rings", "pair", 2));  // takes the other lens
    CHECK(rig.front_lens->lens == "macro");
    CHECK_FALSE(put_on(shoot.kit, rig, "lenses", "macro", 0));
    CHECK_FALSE(rig.front_lens.has_value());
}

TEST_CASE("whatever hands do, the rig can be saved, read and computed", "[shoot][mount]") {
    for (unsigned seed = 0; seed < 150; ++seed) {
        test::Random random(seed);
        Shoot shoot{.title = "bag", .kit = test::random_bag(random)};
        Shot shot{.id = "one", .name = "One"};
        shot.rig = {.camera = shoot.kit.cameras[0].id, .lens = shoot.kit.lenses[0].id};
        const char* lists[] = {"cameras", "lenses",          "tubes",          "teleconverters",
                               "bellows", "reversing_rings", "coupling_rings", "closeup_lenses"};
        for (int i = 0; i < 12; ++i) {
            const auto pieces = mounted_pieces(shoot.kit, shot.rig, 0);
            const auto any_place = [&] {
                return static_cast<std::size_t>(random.whole(0, static_cast<int>(pieces.size())));
            };
            const auto piece = std::min(any_place(), pieces.size() - 1);
            switch (random.whole(0, 3)) {
                case 0:
                    take_off(shoot.kit, shot.rig, piece);
                    break;
                case 1:
                    (void)move_piece(shoot.kit, shot.rig, piece, any_place());
                    break;
                case 2:
                    (void)turn_lens(shoot.kit, shot.rig);
                    break;
                default: {
                    const char* list = lists[random.whole(0, 7)];
                    const auto ids = [&]() -> Ids {
                        Ids all;
                        const auto take = [&](const auto& gear) {
                            for (const auto& one : gear) all.push_back(one.id);
                        };
                        const std::string name = list;
                        if (name == "cameras") take(shoot.kit.cameras);
                        if (name == "lenses") take(shoot.kit.lenses);
                        if (name == "tubes") take(shoot.kit.tubes);
                        if (name == "teleconverters") take(shoot.kit.teleconverters);
                        if (name == "bellows") take(shoot.kit.bellows);
                        if (name == "reversing_rings") take(shoot.kit.reversing_rings);
                        if (name == "coupling_rings") take(shoot.kit.coupling_rings);
                        if (name == "closeup_lenses") take(shoot.kit.closeup_lenses);
                        return all;
                    }();
                    if (!ids.empty())
                        (void)put_on(shoot.kit, shot.rig, list,
                                     ids[static_cast<std::size_t>(random.whole(0, static_cast<int>(ids.size()) - 1))],
                                     any_place());
                }
            }
        }
        shoot.shots = {shot};
        const auto back = storage::read_shoot(storage::write_shoot(shoot));
        INFO("seed " << seed << (back ? "" : text::message(back.error())));
        REQUIRE(back);
        CHECK(back.value() == shoot);
    }
}
