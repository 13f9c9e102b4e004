// The spacing of a rule's ticks, in pictures of known spacing.
#include "imaging/inspect/rule_period.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>

using namespace poquito;

namespace {

/// Ticks a period apart over the middle half of the picture, on uneven ground, with noise.
imaging::GreyImage rule(double period, double start, test::Random& random, double noise) {
    imaging::GreyImage picture{.width = 400, .height = 30, .pixels = {}};
    for (int y = 0; y < picture.height; ++y)
        for (int x = 0; x < picture.width; ++x) {
            double value = 0.6 + 0.2 * std::sin(x / 90.0) + noise * random.between(-1, 1);
            const double off = std::remainder(x - start, period);
            if (x > 60 && x < 340 && y > 8) value -= 0.4 * std::clamp(1.2 - std::abs(off), 0.0, 1.0);
            picture.pixels.push_back(static_cast<float>(value));
        }
    return picture;
}

}  // namespace

TEST_CASE("the period of a rule is found to a few thousandths, and none where there is no rule", "[imaging][rule]") {
    for (unsigned seed = 0; seed < 40; ++seed) {
        test::Random random(seed);
        const double period = random.between(4, 14), expected = period * random.between(0.9, 1.1);
        const auto found = imaging::period_across(rule(period, random.between(0, 10), random, 0.08), expected);
        CAPTURE(seed, period, expected);
        REQUIRE(found);
        CHECK_THAT(*found, test::WithinRel(period, 0.004));
    }
    test::Random random(1);
    imaging::GreyImage plain{.width = 400, .height = 30, .pixels = {}};
    for (int i = 0; i < 400 * 30; ++i) plain.pixels.push_back(static_cast<float>(0.5 + 0.05 * random.between(-1, 1)));
    CHECK_FALSE(imaging::period_across(plain, 8));
    CHECK_FALSE(imaging::period_across(plain, 1));
    CHECK_FALSE(imaging::period_across(plain, 200));
}
