// Hands and wind from frames of a rule: against made-up hands, and the chi squared table.
#include "plan/motion/sway_readings.hpp"

#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>
#include <numbers>
#include <random>

using namespace poquito;
using test::same;
using test::WithinAbs;

TEST_CASE("a deviation comes with the interval that the chi squared table gives", "[plan][chance]") {
    // Ten readings: 3.325 and 16.919 at nine degrees of freedom (any handbook's table, 5 and 95 %).
    std::vector<double> readings;
    for (int i = 0; i < 10; ++i) readings.push_back(i);
    const auto sway = plan::deviation_of(readings);
    REQUIRE(sway);
    CHECK_THAT(sway->value, WithinAbs(3.02765, 1e-5));
    CHECK_THAT(sway->least, WithinAbs(3.02765 * std::sqrt(9 / 16.919), 1e-3));
    CHECK_THAT(sway->greatest, WithinAbs(3.02765 * std::sqrt(9 / 3.325), 1e-3));
    CHECK(sway->frames == 10);
    CHECK_FALSE(plan::deviation_of({1, 2}));
    CHECK_FALSE(plan::deviation_of({2, 2, 2, 2}));
}

TEST_CASE("nine of ten intervals hold what the hands truly do", "[plan][chance]") {
    std::mt19937 draw(3);
    std::normal_distribution<double> gauss(40, 0.8);
    int held = 0;
    constexpr int times = 2000;
    for (int i = 0; i < times; ++i) {
        std::vector<double> readings;
        for (int k = 0; k < 10; ++k) readings.push_back(gauss(draw));
        const auto sway = *plan::sway_along(readings, 45);
        const double truth = 0.8 / std::numbers::sqrt2;
        held += sway.least <= truth && truth <= sway.greatest;
    }
    CHECK_THAT(held / double(times), WithinAbs(0.9, 0.02));
}

TEST_CASE("a swing's reach follows from where it stood at any moments", "[plan][chance]") {
    std::mt19937 draw(4);
    std::uniform_real_distribution<double> phase(0, 2 * std::numbers::pi);
    std::vector<double> places;
    for (int i = 0; i < 20000; ++i) places.push_back(12 + 3 * std::sin(phase(draw)));
    CHECK_THAT(plan::swing_amplitude(places)->value, WithinAbs(3, 0.03));
}

TEST_CASE("blur that hands really make gives back how they shake", "[plan][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.support = shoot::Support::hand;
    shot.exposure.shutter = 1.0 / 60;
    shot.tries = shoot::Tries{.hands = shoot::Hands{.shift = 2 * 1.7, .turn = 0.03 * 1.7, .along = 1}};
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const double m = plan.at.magnification;
    const double b = 1.7 / 60 * std::hypot(2 * m, 0.03 * plan.at.focal_length * (1 + m));
    std::mt19937 draw(5);
    std::normal_distribution<double> gauss(0, b / std::numbers::sqrt2);
    std::vector<double> pixels;
    for (int i = 0; i < 20000; ++i)
        pixels.push_back(std::hypot(gauss(draw), gauss(draw)) / optics::pixel_pitch(plan.sensor));
    CHECK_THAT(plan::shake_over_usual(pixels, plan)->value, WithinAbs(1.7, 0.02));
}

TEST_CASE("readings are read as people type them", "[plan][chance]") {
    using List = std::vector<double>;
    CHECK(plan::typed_readings("1 2.5  3") == List{1, 2.5, 3});
    CHECK(plan::typed_readings("1,2 1,4 1,3") == List{1.2, 1.4, 1.3});
    CHECK(plan::typed_readings("1.2,1.4,1.3") == List{1.2, 1.4, 1.3});
    CHECK(plan::typed_readings("1, 2, 3") == List{1, 2, 3});
    CHECK(plan::typed_readings("1;2;3") == List{1, 2, 3});
    CHECK(plan::typed_readings("") == List{});
    CHECK_FALSE(plan::typed_readings("1 two"));
    CHECK_FALSE(plan::typed_readings("1 2mm"));
    CHECK_FALSE(plan::typed_readings("nan 1 2"));
}
