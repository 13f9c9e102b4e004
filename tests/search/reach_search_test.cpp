#include "search/reach_search.hpp"

#include "optics/aperture.hpp"
#include "optics/focus.hpp"
#include "shoot/change/fit.hpp"
#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

using namespace poquito;
using namespace poquito::text;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::search;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

/// All rigs of a kit, one after the other, written down the long way: subsets by recursion, ids instead of indices.
class AllRigs {
  public:
    explicit AllRigs(const Kit& kit) : kit_(kit) {}

    std::vector<Rig> list() {
        for (const auto& camera : kit_.cameras)
            for (const auto& lens : kit_.lenses) {
                std::vector<std::optional<double>> positions = {std::nullopt};
                if (!lens.zoom.empty()) positions.clear();
                for (const auto& z : lens.zoom) positions.push_back(z.focal_length);
                for (const auto& position : positions) {
                    Rig rig{.camera = camera.id, .lens = lens.id, .focal_length = position};
                    front(rig);
                }
            }
        return std::move(rigs_);
    }

  private:
    const Kit& kit_;
    std::vector<Rig> rigs_;

    void front(const Rig& rig) {
        converter(rig);
        for (std::size_t i = 0; i < kit_.closeup_lenses.size(); ++i) {
            Rig one = rig;
            one.closeup_lenses = {kit_.closeup_lenses[i].id};
            converter(one);
            for (std::size_t j = i + 1; j < kit_.closeup_lenses.size(); ++j) {
                Rig two = one;
                two.closeup_lenses.push_back(kit_.closeup_lenses[j].id);
                converter(two);
            }
        }
        for (const auto& ring : kit_.reversing_rings) {
            Rig reversed = rig;
            reversed.reversing_ring = ring.id;
            converter(reversed);
        }
        for (const auto& ring : kit_.coupling_rings)
            for (const auto& other : kit_.lenses) {
                if (other.id == rig.lens) continue;
                std::vector<std::optional<double>> positions = {std::nullopt};
                if (!other.zoom.empty()) positions.clear();
                for (const auto& z : other.zoom) positions.push_back(z.focal_length);
                for (const auto& position : positions) {
                    Rig coupled = rig;
                    coupled.front_lens = FrontLens{.lens = other.id,
                                                   .coupling_ring = ring.id,
                                                   .f_number = optics_of(other, position).max_aperture,
                                                   .focal_length = position};
                    converter(coupled);
                }
            }
    }
    void converter(const Rig& rig) {
        tubes(rig, 0);
        for (const auto& gear : kit_.teleconverters) {
            Rig with = rig;
            with.teleconverter = gear.id;
            tubes(with, 0);
        }
    }
    void tubes(const Rig& rig, std::size_t from) {
        if (from == kit_.tubes.size()) return bellows(rig);
        tubes(rig, from + 1);
        Rig with = rig;
        with.tubes.push_back(kit_.tubes[from].id);
        tubes(with, from + 1);
        if (!rig.teleconverter) return;
        Rig behind = rig;
        behind.tubes_behind_converter.push_back(kit_.tubes[from].id);
        tubes(behind, from + 1);
    }
    void bellows(const Rig& rig) {
        rigs_.push_back(rig);
        for (const auto& gear : kit_.bellows) {
            Rig with = rig;
            with.bellows = BellowsSetting{.bellows = gear.id, .extension = gear.least};
            rigs_.push_back(with);
        }
    }
};

bool same_pieces(const Rig& a, const Rig& b) {
    return a.camera == b.camera && a.lens == b.lens && a.focal_length == b.focal_length && a.tubes == b.tubes &&
           a.tubes_behind_converter == b.tubes_behind_converter && a.closeup_lenses == b.closeup_lenses &&
           a.teleconverter == b.teleconverter && a.reversing_ring == b.reversing_ring && a.front_lens == b.front_lens &&
           a.bellows.has_value() == b.bellows.has_value();
}

/// Whether the pieces reach it: bellows by small steps, with the ring at every setting.
bool reaches(const Kit& kit, Rig rig, double wanted) {
    if (!rig.bellows) return optics::find_focus(train_of(kit, rig), wanted).reached;
    double least = 1e300, greatest = -1e300;
    for (int i = 0; i <= 20; ++i) {
        rig.bellows->extension = std::lerp(40.0, 150.0, i / 20.0);
        const auto range = optics::magnification_range(train_of(kit, rig));
        least = std::min(least, range.least);
        greatest = std::max(greatest, range.greatest);
    }
    return wanted >= least && wanted <= greatest;
}

/// One with much to choose from.
Kit rich_bag() {
    for (unsigned seed = 0;; ++seed) {
        test::Random random(seed);
        Kit kit = test::random_bag(random);
        if (kit.lenses.size() == 3 && kit.tubes.size() == 3 && kit.closeup_lenses.size() > 1 && !kit.bellows.empty())
            return kit;
    }
}

}  // namespace

TEST_CASE("the search finds what trying every rig one by one finds, in random bags", "[shoot][reach]") {
    std::size_t found_rigs = 0, compared = 0;
    for (unsigned seed = 0; seed < 100; ++seed) {
        test::Random random(seed);
        const Kit kit = test::random_bag(random);
        ReachWish wish{.magnification = random.log_between(0.1, 4), .f_number = 5.6};
        if (random.coin()) wish.least_working_distance = random.between(0, 150);
        if (random.coin(0.3)) wish.most_loss = random.between(1, 5);
        if (random.coin(0.2)) wish.autofocus = true;
        if (random.coin(0.2)) wish.no_glass_in_front = true;
        if (random.coin(0.1)) wish.infinity = true;
        const auto result = search_reach(kit, wish);
        const auto all = AllRigs(kit).list();
        INFO("seed " << seed);
        CHECK(result.tried == all.size());
        CHECK(combination_count(kit, wish) == static_cast<double>(all.size()));
        std::vector<Rig> rigs;
        for (const auto& found : result.found) rigs.push_back(rig_of(kit, found, {}));
        std::size_t expected = 0;
        for (const Rig& rig : all) {
            const auto match = std::ranges::find_if(rigs, [&](const Rig& other) { return same_pieces(rig, other); });
            const bool listed = match != rigs.end();
            ++compared;
            if (!reaches(kit, rig, wish.magnification)) {
                CHECK_FALSE(listed);
                continue;
            }
            // Where the bellows stand is the search's choice; what follows from it is not.
            Rig set = rig;
            if (set.bellows && !listed) continue;
            if (set.bellows) set.bellows = match->bellows;
            const auto train = train_of(kit, set);
            const double ring = listed ? match->focus.value : optics::find_focus(train, wish.magnification).ring;
            const auto at = optics::focus_at_ring(train, ring);
            const double distance = at.working_distance.value_or(1e300);
            Shot shot{.rig = set};
            const auto fit = fit_of(kit, shot, 0);
            const bool inside = distance > 0 && distance >= wish.least_working_distance &&
                                (!wish.most_loss || optics::exposure_loss(at, 5.6) <= *wish.most_loss) &&
                                (!wish.autofocus || fit.autofocus) && (!wish.infinity || optics::has_infinity(train)) &&
                                (!wish.no_glass_in_front || (rig.closeup_lenses.empty() && !rig.front_lens));
            CHECK(listed == inside);
            expected += inside;
            if (!listed) continue;
            CHECK_THAT(at.magnification, WithinRel(wish.magnification, set.bellows ? 1e-6 : 1e-9));
            const auto& found = result.found[static_cast<std::size_t>(match - rigs.begin())];
            if (distance < 1e6) CHECK_THAT(found.working_distance, WithinRel(distance, 1e-4));
            CHECK_THAT(found.loss, WithinAbs(optics::exposure_loss(at, 5.6), 1e-5));
            CHECK(found.autofocus == fit.autofocus);
            CHECK(found.infinity == optics::has_infinity(train));
        }
        CHECK(expected == result.found.size());
        found_rigs += result.found.size();
        const auto& out = result.left_out;
        CHECK(result.tried == result.found.size() + out.out_of_reach + out.inside + out.too_near + out.too_dark +
                                  out.without_autofocus + out.without_infinity + out.glass_in_front);
    }
    CHECK(found_rigs > 500);
    CHECK(compared > 20000);
}

TEST_CASE("the greatest magnification of a bag is that of its best rig", "[shoot][reach]") {
    for (unsigned seed = 100; seed < 120; ++seed) {
        test::Random random(seed);
        const Kit kit = test::random_bag(random);
        double best = 0;
        for (Rig rig : AllRigs(kit).list())
            for (double extension = 150; extension >= 40; extension -= rig.bellows ? 0.5 : 200) {
                if (rig.bellows) rig.bellows->extension = extension;
                const auto train = train_of(kit, rig);
                for (int i = 0; i <= 40; ++i) {
                    const auto at = optics::focus_at_ring(train, i / 40.0);
                    if (at.working_distance && *at.working_distance > 0) best = std::max(best, at.magnification);
                }
            }
        const auto found = greatest_reach(kit, {});
        INFO("seed " << seed);
        REQUIRE(found);
        CHECK(found->magnification >= best * (1 - 1e-8));
        CHECK(found->magnification <= best * 1.05);  // the grid of rings and extensions is coarse
        CHECK(found->working_distance > 0);
        // And the search reaches it.
        const auto result = search_reach(kit, {.magnification = found->magnification});
        CHECK_FALSE(result.found.empty());
    }
    CHECK_FALSE(greatest_reach({}, {}));
}

TEST_CASE("nothing beats a best trade-off in both working distance and light, and the rest is beaten",
          "[shoot][reach]") {
    const Kit kit = rich_bag();
    const auto found = search_reach(kit, {.magnification = 0.8}).found;
    REQUIRE(found.size() > 10);
    for (const auto& one : found) {
        const bool beaten = std::ranges::any_of(found, [&](const ReachFound& other) {
            return other.working_distance >= one.working_distance && other.loss <= one.loss &&
                   (other.working_distance > one.working_distance || other.loss < one.loss);
        });
        CHECK(one.best_trade != beaten);
    }
}

TEST_CASE("the order of measures is the order of the list", "[shoot][reach]") {
    const Kit kit = rich_bag();
    auto found = search_reach(kit, {.magnification = 0.8}).found;
    rank(found, {ReachMeasure::pieces, ReachMeasure::optical_cost, ReachMeasure::loss});
    for (std::size_t i = 1; i < found.size(); ++i) {
        const auto key = [&](const ReachFound& one) { return std::tuple(one.pieces, one.optical_cost, one.loss); };
        CHECK(key(found[i - 1]) <= key(found[i]));
    }
    rank(found, {ReachMeasure::working_distance});
    CHECK(std::ranges::is_sorted(found, std::ranges::greater(), &ReachFound::working_distance));
}

TEST_CASE("single-element close-up lenses above +4 cost quality, achromats do not, converters do", "[shoot][reach]") {
    auto kit = test::plain_shoot().kit;
    kit.closeup_lenses = {{.id = "weak", .name = "+3", .power_dpt = 3, .thread = 62},
                          {.id = "strong", .name = "+6", .power_dpt = 6, .thread = 62},
                          {.id = "achromat", .name = "Achromat +6", .power_dpt = 6, .thread = 62, .achromat = true}};
    std::map<std::string, double> cost;
    for (const auto& one : search_reach(kit, {.magnification = 0.7}).found) {
        const Rig rig = rig_of(kit, one, {});
        CHECK((one.optical_cost > 0) != cost_text(kit, one).starts_with("Plain extension"));
        if (one.closeups[0] == 1 && one.pieces == 2)
            CHECK(cost_text(kit, one) == "+6 is of one element and softens the corners badly.");
        if (one.pieces == 2) cost[pieces_text(kit, rig)] = one.optical_cost;
        if (one.pieces == 1) cost["bare"] = one.optical_cost;
    }
    CHECK(cost.at("bare") == 0);
    CHECK(cost.at("Tube 20 mm + 100 mm macro 1:1") == 0);
    CHECK(cost.at("100 mm macro 1:1 + Achromat +6") == 0);
    CHECK(cost.at("100 mm macro 1:1 + +3") < cost.at("100 mm macro 1:1 + +6"));
    CHECK(cost.at("Converter 2x + 100 mm macro 1:1") > 0);
}

TEST_CASE("a wanted field width asks each camera for its own magnification", "[shoot][reach]") {
    auto kit = test::plain_shoot().kit;
    kit.cameras.push_back(kit.cameras[0]);
    kit.cameras[1].id = "large";
    kit.cameras[1].sensor.width = 36;
    kit.cameras[1].crop_modes = {{.name = "small", .sensor = {.width = 24, .height = 16}}};
    const auto widths = [&](const ReachWish& wish) {
        std::map<std::string, int> seen;
        for (const auto& one : search_reach(kit, wish).found) {
            const Rig rig = rig_of(kit, one, {});
            CHECK_THAT(sensor_of(kit, rig).width / one.magnification, WithinRel(30, 1e-6));
            ++seen[rig.camera + rig.crop_mode.value_or("")];
        }
        return seen;
    };
    CHECK(widths({.field_width = 30}).size() == 2);
    CHECK(widths({.field_width = 30, .crop_modes = true}).contains("largesmall"));
    CHECK(widths({.field_width = 30, .only_camera = "large"}).size() == 1);
}

TEST_CASE("the search can be stopped, and says what it does not try", "[shoot][reach]") {
    const auto kit = test::plain_shoot().kit;
    int asked = 0;
    const auto result = search_reach(kit, {}, [&](double) { return ++asked < 3; });
    CHECK(result.cancelled);
    CHECK(asked == 3);
    CHECK(space_text(kit, {}).find("crop modes") != std::string::npos);
    Kit bare = kit;
    bare.reversing_rings.clear();
    CHECK(space_text(bare, {}).find("no reversing ring in the kit") != std::string::npos);
    Kit endless = kit;
    for (int i = 0; i < 40; ++i) endless.tubes.push_back({.id = "t" + std::to_string(i), .name = "t", .length = 5});
    CHECK(search_reach(endless, {}).too_many);
    CHECK(left_out_text({}).empty());
    CHECK(left_out_text({.too_near = 3}) == "3 come too near.");
}

TEST_CASE("what a note offers reaches what was wanted, within the distance that was wanted", "[shoot][reach]") {
    const auto shoot = test::plain_shoot();
    int found_some = 0;
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        const WantedReach wanted{.magnification = random.log_between(0.05, 4),
                                 .working_distance = random.between(0, 200)};
        const auto found = find_rig(shoot.kit, shoot.shots[0].rig, wanted);
        if (!found) continue;
        ++found_some;
        INFO("seed " << seed);
        const auto train = train_of(shoot.kit, *found);
        const auto at = optics::focus_at_ring(train, optics::find_focus(train, found->focus.value).ring);
        CHECK_THAT(at.magnification, WithinRel(wanted.magnification, 1e-6));
        CHECK(at.working_distance.value_or(1e9) > wanted.working_distance);
    }
    CHECK(found_some > 50);
}

TEST_CASE("a note offers the bare lens before anything screwed to it, tubes before glass", "[shoot][reach]") {
    const auto shoot = test::plain_shoot();
    const auto& rig = shoot.shots[0].rig;
    CHECK(pieces_text(shoot.kit, find_rig(shoot.kit, rig, {.magnification = 0.7}).value()) == "100 mm macro 1:1");
    const auto more = find_rig(shoot.kit, rig, {.magnification = 1.15}).value();
    CHECK(more.tubes == std::vector<std::string>{"t20"});
    CHECK(more.closeup_lenses.empty());
    CHECK_FALSE(more.teleconverter.has_value());
    CHECK_FALSE(find_rig(shoot.kit, rig, {.magnification = 100}).has_value());
    CHECK_FALSE(find_rig(shoot.kit, rig, {.magnification = 0.5, .working_distance = 5000}).has_value());
}

TEST_CASE("a note offers another lens where the shot's own does not reach", "[shoot][reach]") {
    auto shoot = test::plain_shoot();
    shoot.kit.bellows.clear();
    shoot.kit.reversing_rings.clear();
    shoot.kit.teleconverters.clear();
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
    CHECK(found->lens == "strong");
}

TEST_CASE("with many hits the first rows of every ranking and the trade-off front are the true ones",
          "[shoot][reach]") {
    Kit kit = rich_bag();
    for (int i = 0; i < 3; ++i)
        kit.tubes.push_back({.id = "x" + std::to_string(i), .name = "x", .length = 7.0 + 1.3 * i});
    const ReachWish wish{.magnification = 0.7};
    const auto all = search_reach(kit, wish, {}, {.all = 1000000, .best = 1000000});
    REQUIRE(all.found.size() > 4000);
    CHECK(all.reached == all.found.size());
    const ReachKept few{.all = 1500, .best = 40};
    const auto kept = search_reach(kit, wish, {}, few);
    CHECK(kept.reached == all.reached);
    CHECK(kept.tried == all.tried);
    CHECK(kept.found.size() < 1500);
    const auto pieces = [](const ReachFound& f) {
        return std::tuple(f.lens, f.zoom, f.reversing_ring, f.front_lens, f.converter, f.bellows, f.closeups[0],
                          f.closeups[1], f.tubes, f.tubes_behind, f.camera, f.coupling_ring, f.front_zoom);
    };
    std::vector<ReachMeasure> order = {ReachMeasure::working_distance, ReachMeasure::loss, ReachMeasure::pieces,
                                       ReachMeasure::optical_cost};
    do {
        auto one = all.found, other = kept.found;
        rank(one, order);
        rank(other, order);
        for (std::size_t i = 0; i < few.best; ++i) CHECK(pieces(one[i]) == pieces(other[i]));
    } while (std::ranges::next_permutation(order).found);
    const auto front = [&](const ReachResult& result) {
        std::vector<decltype(pieces(ReachFound{}))> list;
        for (const auto& one : result.found)
            if (one.best_trade) list.push_back(pieces(one));
        return list;
    };
    CHECK(front(all).size() > 3);
    CHECK(front(all) == front(kept));
}

TEST_CASE("the search asks whether to go on however few lenses there are", "[shoot][reach]") {
    Kit kit = test::plain_shoot().kit;
    kit.closeup_lenses.clear();
    kit.reversing_rings.clear();
    kit.teleconverters.clear();
    for (int i = 0; i < 20; ++i) kit.tubes.push_back({.id = "x" + std::to_string(i), .name = "x", .length = 3.0 + i});
    int asked = 0;
    const auto result = search_reach(kit, {}, [&](double) { return ++asked < 5; });
    CHECK(result.cancelled);
    CHECK(result.tried > 0);
    CHECK(result.tried < 1000);
    asked = 0;
    CHECK_FALSE(greatest_reach(kit, {}, [&](double) { return ++asked < 5; }));
    CHECK(asked == 5);
}
