// Free flight against stepping through it.
#include "light/toss.hpp"

#include "light/angle.hpp"
#include "light/fall.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>
#include <optional>

using namespace poquito::light;
using poquito::test::Random;
using poquito::test::WithinAbs;
using poquito::test::WithinRel;

namespace {

/// What one sees on the way, step by step; ends once it is `down` under the hand.
struct Flight {
    double top = 0, top_time = 0;
    std::optional<double> rising, falling;  // past `height`
    double x_falling = 0;
};
Flight fly(const Toss& toss, double height, double down) {
    constexpr double step = 2e-5;
    Flight flight;
    double x = 0, y = 0, across = toss.speed * std::cos(toss.angle * degree),
           up = toss.speed * std::sin(toss.angle * degree);
    for (double t = 0; y > -down; t += step) {
        const double before = y;
        x += across * step;
        y += (up - gravity * step / 2) * step;
        up -= gravity * step;
        if (y > flight.top) flight.top = y, flight.top_time = t + step;
        if (before < height && y >= height && !flight.rising) flight.rising = t + step;
        if (before > height && y <= height) flight.falling = t + step, flight.x_falling = x;
    }
    return flight;
}

}  // namespace

TEST_CASE("thrown at 2 m/s and 60 degrees it turns 153.0 mm up after 0.1766 s", "[light][toss]") {
    // ISO 80000-3 g; v^2 sin^2 u / (2 g), v sin u / g of any mechanics text.
    const Toss toss{.speed = 2000, .angle = 60};
    CHECK_THAT(top_height(toss), WithinAbs(153.0, 0.05));
    CHECK_THAT(top_time(toss), WithinAbs(0.1766, 5e-5));
    const auto top = point_at(toss, top_time(toss));
    CHECK_THAT(top.speed(), WithinAbs(1000, 1e-6));  // only what goes across is left
    CHECK_THAT(top.x, WithinAbs(1000 * top_time(toss), 1e-9));
}

TEST_CASE("tosses agree with stepping through them", "[light][toss]") {
    Random random(31);
    for (int i = 0; i < 40; ++i) {
        const Toss toss{.speed = random.between(300, 4000), .angle = random.between(-90, 180)};
        const double height = random.between(-400, 500);
        const auto flight = fly(toss, height, 500);
        CHECK_THAT(top_height(toss), WithinAbs(flight.top, 0.1));
        CHECK_THAT(top_time(toss), WithinAbs(flight.top_time, 1e-4));
        const auto passed = passes(toss, height);
        INFO("at " << toss.angle << " degrees, " << toss.speed << " mm/s, past " << height);
        REQUIRE(passed.rising.has_value() == flight.rising.has_value());
        REQUIRE(passed.falling.has_value() == flight.falling.has_value());
        if (passed.rising) CHECK_THAT(*passed.rising, WithinAbs(*flight.rising, 2e-4));
        if (passed.falling) {
            CHECK_THAT(*passed.falling, WithinAbs(*flight.falling, 2e-4));
            CHECK_THAT(point_at(toss, *passed.falling).x, WithinAbs(flight.x_falling, 0.5));
        }
        if (const auto speed = speed_to_rise(300, toss.angle))
            CHECK_THAT(top_height({.speed = *speed, .angle = toss.angle}), WithinRel(300.0, 1e-9));
    }
}

TEST_CASE("what falls is a toss without speed", "[light][toss]") {
    CHECK(top_height({}) == 0);
    CHECK_FALSE(passes({}, 10).falling);
    CHECK_THAT(*passes({}, -300).falling, WithinRel(fall_time(300), 1e-12));
    CHECK_FALSE(passes({}, -300).rising);
    CHECK_FALSE(speed_to_rise(100, -20));
}
