#include "light/fall.hpp"
#include "light/duration.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>

using namespace poquito;
using namespace poquito::light;
using poquito::test::Random;
using poquito::test::WithinAbs;
using poquito::test::WithinRel;

namespace {

/// The fall in small steps, speed and place only from acceleration.
struct Fall {
    double time = 0, place = 0, speed = 0;
};
Fall fall_through(double height) {
    Fall fall;
    constexpr double step = 1e-6;
    while (fall.place < height) {
        fall.speed += gravity * step;
        fall.place += (fall.speed - gravity * step / 2) * step;
        fall.time += step;
    }
    return fall;
}

}  // namespace

TEST_CASE("a metre of fall takes 0.452 s and ends at 4.43 m/s", "[light][freeze]") {
    // Any mechanics text: sqrt(2 h / g), sqrt(2 g h).
    CHECK_THAT(fall_time(1000), WithinAbs(0.4516, 1e-4));
    CHECK_THAT(fall_speed(1000), WithinAbs(4428.7, 0.1));
    CHECK_THAT(fallen(0.1), WithinAbs(49.03, 0.01));
    CHECK(fall_time(0) == 0);
}

TEST_CASE("falls agree with stepping through them", "[light][freeze]") {
    Random random(21);
    for (int i = 0; i < 20; ++i) {
        const double height = random.between(20, 1500);
        const Fall dropped = fall_through(height);
        CHECK_THAT(fall_time(height), WithinRel(dropped.time, 1e-4));
        CHECK_THAT(fall_speed(height), WithinRel(dropped.speed, 1e-4));
        CHECK_THAT(fallen(fall_time(height)), WithinRel(height, 1e-12));
    }
}

TEST_CASE("the second drop arrives at the column's top when it stands", "[light][freeze]") {
    const TwoDrops drops{.height = 400, .rise = 0.08, .column = 30};
    const double second = second_drop_after(drops);
    const double meets = second + fall_time(400 - 30);
    CHECK_THAT(meets, WithinAbs(fall_time(400) + 0.08, 1e-12));
    // Without rise and column the two fall together.
    CHECK_THAT(second_drop_after({.height = 400, .rise = 0, .column = 0}), WithinAbs(0, 1e-12));
}

TEST_CASE("seven flashes at 4 Hz need a shutter of 1.75 s", "[light][freeze]") {
    CHECK_THAT(burst_time({.flashes = 7, .frequency = 4}), WithinAbs(1.75, 1e-12));  // common practice, MODEL 4
}

TEST_CASE("a table that turns is found, one that only grows or shrinks is not", "[light][duration]") {
    CHECK_FALSE(turning_point({{1, 0.001}, {0.5, 0.0005}, {0.25, 0.0002}}));
    CHECK_FALSE(turning_point({{0.25, 0.003}, {1, 0.001}, {0.5, 0.002}}));  // a head whose flash grows as power falls
    CHECK(turning_point({{1, 0.001}, {0.5, 0.0002}, {0.25, 0.0005}}) == 0.5);
    CHECK_FALSE(turning_point({{1, 0.001}}));
    CHECK_FALSE(turning_point({}));
    CHECK_FALSE(turning_point({{1, 0.001}, {0.5, 0.001}, {0.25, 0.0005}}));  // level for a while
}
