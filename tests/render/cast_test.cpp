// Shadows of things on one another against rays that are counted one by one.
#include "render/cast.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>
#include <numbers>

using namespace poquito;
using imaging::Rgba;
using render::Beam;
using render::Caster;

namespace {

Rgba vector(double x, double y, double z) {
    return {static_cast<float>(x), static_cast<float>(y), static_cast<float>(z), 0};
}
Rgba unit(const Rgba& v) { return v / std::sqrt((v * v).sum()); }
Rgba cross(const Rgba& a, const Rgba& b) {
    return {a.y() * b.z() - a.z() * b.y(), a.z() * b.x() - a.x() * b.z(), a.x() * b.y() - a.y() * b.x(), 0};
}

/// Share of rays to a round source that miss a ball about `middle`.
double counted(const Rgba& place, const Beam& beam, const Rgba& middle, double radius, test::Random& random) {
    const Rgba across = unit(cross(beam.towards, vector(0.3, 0.9, 0.2))), up = cross(beam.towards, across);
    constexpr int rays = 4000;
    int seen = 0;
    for (int i = 0; i < rays; ++i) {
        const double r = std::sqrt(random.between(0, 1)) * static_cast<double>(beam.spread);
        const double angle = random.between(0, 2 * std::numbers::pi);
        const Rgba way = unit(beam.towards + across * static_cast<float>(r * std::cos(angle)) +
                              up * static_cast<float>(r * std::sin(angle)));
        const Rgba to = middle - place;
        const float along = (to * way).sum();
        const Rgba miss = to - way * along;
        seen += along <= 0 || std::sqrt((miss * miss).sum()) > static_cast<float>(radius);
    }
    return static_cast<double>(seen) / rays;
}

}  // namespace

TEST_CASE("past a ball as much of a source is seen as rays say", "[imaging][cast]") {
    test::Random random(4);
    double worst = 0, sum = 0;
    constexpr int cases = 150;
    for (int i = 0; i < cases; ++i) {
        const double radius = random.between(5, 30);
        Caster ball;
        ball.radius = {static_cast<float>(radius), static_cast<float>(radius), static_cast<float>(radius)};
        ball.middle = {static_cast<float>(random.between(-20, 20)), static_cast<float>(random.between(-20, 20)), 0};
        const Beam beam{.towards = unit(vector(random.between(-1, 1), random.between(0.1, 1), random.between(-1, 1))),
                        .spread = static_cast<float>(random.between(0.02, 1))};
        const Rgba place = vector(random.between(-60, 60), -40, random.between(-60, 60));
        const auto middle = vector(static_cast<double>(ball.middle[0]), static_cast<double>(ball.middle[1]), 0);
        const double exact = counted(place, beam, middle, radius, random);
        const double off = std::abs(static_cast<double>(render::seen_past(ball, place, beam)) - exact);
        worst = std::max(worst, off), sum += off;
    }
    CAPTURE(worst, sum / cases);
    CHECK(worst < 0.1);  // a ball that is near is no disc any more
    CHECK(sum / cases < 0.01);
}

TEST_CASE("a shadow falls away from the light, turns with its thing, and none falls on itself or from what lies",
          "[imaging][cast]") {
    Caster upright;  // a post of 10 by 80 by 10
    upright.radius = {5, 40, 5};
    const Beam beam{.towards = unit(vector(1, 0.5, 0)), .spread = 0.05f};
    CHECK(render::seen_past(upright, vector(-60, -40, 0), beam) < 0.1f);
    CHECK(render::seen_past(upright, vector(60, -40, 0), beam) == 1);
    CHECK(render::seen_past(upright, vector(-60, -40, 30), beam) > 0.95f);
    Caster lying = upright;  // on its back: its top away
    lying.cosine = 0, lying.sine = 1;
    CHECK(render::seen_past(lying, vector(-60, -30, 0), beam) < 0.1f);
    CHECK(render::seen_past(lying, vector(-60, -30, 30), beam) < 0.1f);
    CHECK(render::seen_past(lying, vector(-60, 40, 0), beam) == 1);
    render::Casters casters{.things = {upright, lying}, .focus = 0};
    casters.things[1].casts = false;
    CHECK(render::seen_past(casters, 0, vector(-60, -40, 0), beam) == 1);
    CHECK(render::seen_past(casters, 1, vector(-60, -40, 0), beam) < 0.1f);
}
