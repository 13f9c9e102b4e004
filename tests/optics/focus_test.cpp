#include "optics/focus.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

#include <algorithm>

using namespace poquito;
using test::same;
using test::WithinRel;

namespace {

constexpr int grid = 2000;

double magnification_at(const optics::Train& train, double ring) {
    return optics::focus_at_ring(train, ring).magnification;
}

/// The first ring position by brute force: the first interval of a fine grid that the wanted value falls into.
std::optional<double> first_by_grid(const optics::Train& train, double wanted) {
    for (int i = 0; i < grid; ++i) {
        const double low = magnification_at(train, static_cast<double>(i) / grid);
        const double high = magnification_at(train, static_cast<double>(i + 1) / grid);
        if ((low - wanted) * (high - wanted) <= 0) return static_cast<double>(i) / grid;
    }
    return std::nullopt;
}

}  // namespace

TEST_CASE("a wanted magnification within reach is found at the smallest ring position", "[optics][focus]") {
    for (unsigned seed = 0; seed < 1500; ++seed) {
        test::Random random(seed);
        const auto train = test::random_any_train(random);
        const double wanted = magnification_at(train, random.between(0, 1));
        const auto found = optics::find_focus(train, wanted);
        INFO("seed " << seed);
        REQUIRE(found.reached);
        CHECK_THAT(magnification_at(train, found.ring), same(wanted));
        const auto range = optics::magnification_range(train);
        if (range.greatest - range.least <
            1e-9) {  // a reversed lens that focuses as a whole: its ring moves the subject
            CHECK(found.ring == 0);
            continue;
        }
        const auto expected = first_by_grid(train, wanted);
        REQUIRE(expected);
        CHECK(std::abs(found.ring - *expected) <= 1.01 / grid);
    }
}

TEST_CASE("where close-up lenses bend the magnification back, the smaller of two rings is taken", "[optics][focus]") {
    int bent = 0;
    for (unsigned seed = 0; seed < 2000; ++seed) {
        test::Random random(seed);
        // A lens that shortens much and magnifies little, under a strong close-up lens: m rises, then falls again.
        auto train = test::random_train(random);
        auto& lens = train.lens;
        lens.focusing = optics::Focusing::internal;
        lens.max_magnification = random.between(0.05, 0.3);
        lens.closest_focus =
            random.between(0.4, 0.7) * lens.focal_length * (2 + lens.max_magnification + 1 / lens.max_magnification) +
            lens.hiatus;
        train.closeup_power = random.between(0.002, 0.03);
        const double at_ends = std::max(magnification_at(train, 0), magnification_at(train, 1));
        const auto range = optics::magnification_range(train);
        if (!(range.greatest > at_ends * 1.01) || at_ends <= 0) continue;  // no turning point inside
        ++bent;
        INFO("seed " << seed);
        const double wanted = (range.greatest + at_ends) / 2;  // given by two ring positions
        const auto found = optics::find_focus(train, wanted);
        REQUIRE(found.reached);
        CHECK(std::abs(found.ring - first_by_grid(train, wanted).value()) <= 1.01 / grid);
        // Above the turning point the ring stops there.
        const auto above = optics::find_focus(train, range.greatest * 1.1);
        CHECK_FALSE(above.reached);
        CHECK_THAT(magnification_at(train, above.ring), same(range.greatest));
    }
    CHECK(bent > 20);
}

TEST_CASE("out of reach, the ring stops where the magnification comes nearest", "[optics][focus]") {
    const optics::Train train{.lens = {.focal_length = 50, .closest_focus = 450, .max_magnification = 0.15},
                              .tubes = 12};
    const auto above = optics::find_focus(train, 1);
    CHECK_FALSE(above.reached);
    CHECK(above.ring == 1);
    const auto below = optics::find_focus(train, 0.1);
    CHECK_FALSE(below.reached);
    CHECK(below.ring == 0);
    const auto range = optics::magnification_range(train);
    CHECK_THAT(range.least, same(0.24));
    CHECK_THAT(range.greatest, same(0.39));
}

TEST_CASE("the ends of the ring count as reached in spite of rounding", "[optics][focus]") {
    const optics::Train train{.lens = {.focal_length = 50}, .tubes = 32};
    const auto found = optics::find_focus(train, 0.64);
    CHECK(found.reached);
    CHECK(found.ring == 0);
}

TEST_CASE("the ring finds the distance it stands at", "[optics][focus]") {
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        const auto train = test::random_train(random);
        const double ring = random.between(0.05, 0.95);
        const auto at = optics::focus_at_ring(train, ring);
        if (!at.subject_to_sensor || *at.working_distance < 1) continue;
        INFO("seed " << seed);
        // Where the distance turns (1:1), two rings share it; near the turn the nearer of both may be another one.
        const auto found = optics::ring_for_distance(train, *at.subject_to_sensor, ring);
        if (found)
            CHECK_THAT(optics::focus_at_ring(train, *found).subject_to_sensor.value(),
                       WithinRel(*at.subject_to_sensor, 1e-9));
        if (at.magnification < 0.7) REQUIRE(found);
    }
}

TEST_CASE("at 1:1 a unit-focusing lens has no ring position nearer than where it stands", "[optics][focus]") {
    // MODEL 2: sensor to subject is least at 1:1.
    const optics::Train train{.lens = {.focal_length = 50, .closest_focus = 225, .max_magnification = 2}};
    const auto at = optics::focus_at_ring(train, 0.5);
    CHECK_THAT(at.magnification, same(1));
    CHECK_FALSE(optics::ring_for_distance(train, *at.subject_to_sensor - 0.1, 0.5));
}
