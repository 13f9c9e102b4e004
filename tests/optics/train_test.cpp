#include "optics/train.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::same;
using test::WithinRel;

TEST_CASE("a bare lens at ring 1 focuses at its closest distance, whichever way it focuses", "[optics][reach]") {
    // By definition of the record (MODEL 4).
    for (unsigned seed = 0; seed < 500; ++seed) {
        test::Random random(seed);
        const optics::Train train{.lens = test::random_lens(random), .flange = random.between(15, 47)};
        const auto at = optics::focus_at_ring(train, 1);
        INFO("seed " << seed);
        CHECK_THAT(at.subject_to_sensor.value(), same(train.lens.closest_focus));
        CHECK_THAT(at.magnification, same(train.lens.max_magnification));
    }
}

TEST_CASE("a bare lens at ring 0 is at infinity", "[optics][reach]") {
    const auto at = optics::focus_at_ring({}, 0);
    CHECK(at.magnification == 0);
    CHECK_FALSE(at.working_distance.has_value());
    CHECK_FALSE(at.subject_to_sensor.has_value());
}

TEST_CASE("12 + 20 mm of tube on a 50 mm lens at infinity give 0.64", "[optics][reach]") {
    // Common practice: extension over focal length (MODEL 4).
    CHECK_THAT(optics::focus_at_ring({.lens = {.focal_length = 50}, .tubes = 32}, 0).magnification, same(0.64));
}

TEST_CASE("a close-up lens on a lens at infinity works at its own focal length and gives f D", "[optics][reach]") {
    // Definition of the dioptre; Ray, Applied Photographic Optics (MODEL 4).
    const std::pair<double, double> handbook[] = {{1, 1000}, {2, 500}, {3, 333.3}, {4, 250}, {10, 100}};
    for (const auto& [dioptres, distance] : handbook) {
        const auto at = optics::focus_at_ring({.lens = {.focal_length = 80}, .closeup_power = dioptres / 1000}, 0);
        CHECK_THAT(at.working_distance.value(), WithinRel(distance, 2e-4));  // 333 is rounded
        CHECK_THAT(at.magnification, same(80 * dioptres / 1000));
    }
}

TEST_CASE("more tube gives more magnification, less working distance", "[optics][reach]") {
    for (unsigned seed = 0; seed < 500; ++seed) {
        test::Random random(seed);
        optics::Train train = test::random_train(random);
        train.closeup_power = 0;
        const double ring = random.between(0, 1);
        const auto before = optics::focus_at_ring(train, ring);
        train.tubes += 10;
        const auto after = optics::focus_at_ring(train, ring);
        INFO("seed " << seed);
        CHECK(after.magnification > before.magnification);
        if (before.working_distance) CHECK(after.working_distance.value() < *before.working_distance);
    }
}

TEST_CASE("a converter multiplies the magnification, keeps the working distance and lengthens the rig",
          "[optics][reach]") {
    for (unsigned seed = 0; seed < 500; ++seed) {
        test::Random random(seed);
        optics::Train train = test::random_train(random);
        train.converter.reset();
        const double ring = random.between(0.1, 1);
        const auto bare = optics::focus_at_ring(train, ring);
        train.converter = optics::Converter{.factor = 1.4, .length = 20};
        const auto with = optics::focus_at_ring(train, ring);
        INFO("seed " << seed);
        CHECK_THAT(with.magnification, same(1.4 * bare.magnification));
        CHECK_THAT(with.working_distance.value(), same(*bare.working_distance));
        CHECK_THAT(with.subject_to_sensor.value(), same(*bare.subject_to_sensor + 20));
    }
}

TEST_CASE("a converter as short as nothing counts as thin, and nothing runs out of numbers", "[optics][reach]") {
    optics::Train thin{.lens = {.focal_length = 100,
                                .max_aperture = 2.8,
                                .min_aperture = 32,
                                .closest_focus = 410,
                                .max_magnification = 1,
                                .length = 110,
                                .front_diameter = 60},
                       .tubes = 20,
                       .converter = optics::Converter{.factor = 2, .length = 0}};
    auto shortest = thin;
    shortest.converter->length = 5e-324;
    for (const double ring : {0.0, 0.4, 1.0}) {
        const auto a = optics::focus_at_ring(thin, ring), b = optics::focus_at_ring(shortest, ring);
        CHECK(std::isfinite(b.magnification));
        CHECK(b.magnification == a.magnification);
        CHECK(b.working_distance == a.working_distance);
    }
    CHECK_FALSE(shortest.converter->has_length());
    CHECK(optics::Converter{.factor = 2, .length = 20}.has_length());
}
