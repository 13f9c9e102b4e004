// Through a wall and water: against rays traced by Snell's law, surface by surface.
#include "optics/tank.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>

using poquito::optics::Tank;
using poquito::test::WithinAbs;

namespace {

/// Where a ray from the subject seems to come from, mm behind the wall's outer face on the axis: it leaves the subject
/// on the axis at that angle (rad) and is bent at the inner and at the outer face.
double seems_behind(const Tank& tank, double angle) {
    const double in_wall = std::asin(tank.water_index * std::sin(angle) / tank.wall_index);
    const double in_air = std::asin(tank.wall_index * std::sin(in_wall));
    const double off_axis = tank.water * std::tan(angle) + tank.wall * std::tan(in_wall);
    return off_axis / std::tan(in_air);
}

}  // namespace

TEST_CASE("things in water appear nearer by as much as traced rays say", "[optics][tank]") {
    poquito::test::Random random(8);
    for (int i = 0; i < 200; ++i) {
        const Tank tank{.water = random.between(1, 300),
                        .wall = random.between(1, 12),
                        .water_index = random.between(1.3, 1.5),
                        .wall_index = random.between(1.45, 1.6)};
        const double nearer = tank.water + tank.wall - seems_behind(tank, 1e-4);
        CHECK_THAT(poquito::optics::path_shortened(tank), WithinAbs(nearer, 1e-4));
    }
    // A quarter of the water, as divers are told (4/3).
    CHECK_THAT(poquito::optics::path_shortened({.water = 100, .wall = 0}), WithinAbs(25, 0.1));
    CHECK(poquito::optics::path_shortened({.water = 0, .wall = 0}) == 0);
}

TEST_CASE("two planes in water look nearer together by its index", "[optics][tank]") {
    const Tank near{.water = 100}, far{.water = 104};
    const double seen = seems_behind(far, 1e-4) - seems_behind(near, 1e-4);
    CHECK_THAT(poquito::optics::depth_in_water(near, seen), WithinAbs(4, 1e-4));
}
