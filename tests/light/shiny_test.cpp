// The family of angles against rays reflected by other means: mirror images, shortest paths and small-mirror formulas.
#include "light/shiny.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <Eigen/Geometry>

#include <cmath>

using namespace poquito;
using namespace poquito::light;
using poquito::test::Random;
using poquito::test::WithinAbs;
using poquito::test::WithinRel;

namespace {

Mirror tilted(double degrees) {
    const double t = degrees * 3.14159265358979323846 / 180;
    return {.right = {std::cos(t), 0, -std::sin(t)}, .half_width = 15, .half_height = 10};
}

}  // namespace

TEST_CASE("every ray from a flat face comes from the mirror image of the pupil", "[light][shiny]") {
    Random random(31);
    for (int i = 0; i < 200; ++i) {
        const Mirror mirror = tilted(random.between(-60, 60));
        const Point pupil(random.between(-20, 20), random.between(-20, 20), random.between(150, 600));
        const Point normal = mirror.right.cross(mirror.up);
        const Point image = pupil - 2 * (pupil - mirror.centre).dot(normal) * normal;
        const auto ray = reflect(mirror, pupil, random.between(-1, 1), random.between(-1, 1));
        REQUIRE(ray);
        // The image, the place and the direction lie on one line.
        CHECK((ray->at - image).normalized().isApprox(ray->direction, 1e-9));
    }
    CHECK_FALSE(reflect(tilted(0), {0, 0, -100}, 0, 0));  // from behind
}

TEST_CASE("on a ball a ray meets and leaves at equal angles, in one plane with the normal", "[light][shiny]") {
    const Mirror ball{.centre = {0, 0, 12}, .half_width = 12, .half_height = 12, .bulge = 12.0};
    Random random(32);
    for (int i = 0; i < 200; ++i) {
        const Point pupil(0, 0, random.between(100, 500));
        const auto ray = reflect(ball, pupil, random.between(-0.6, 0.6), random.between(-0.6, 0.6));
        REQUIRE(ray);
        const Point normal = ray->at.normalized();  // the ball's middle is the origin
        CHECK_THAT(ray->at.norm(), WithinAbs(12, 1e-9));
        const Point to_pupil = (pupil - ray->at).normalized();
        CHECK_THAT(ray->direction.dot(normal), WithinAbs(to_pupil.dot(normal), 1e-9));
        CHECK_THAT(ray->direction.dot(to_pupil.cross(normal)), WithinAbs(0, 1e-9));
    }
}

TEST_CASE("a diffuser of the filling size shows in the whole face, a smaller one does not", "[light][shiny]") {
    // By hand: a flat face 30 x 20 square to the lens, the pupil 300 away, the diffuser at the pupil's distance about
    // the axis: the mirror image lies 300 behind, so the face's half diagonal of 18.03 grows to twice that at 300.
    const Mirror flat = tilted(0);
    const auto filling = filling_diameter(flat, {0, 0, 300}, {0, 0, 300});
    CHECK_THAT(filling.value(), WithinAbs(4 * std::hypot(15.0, 10.0), 1e-6));
    Random random(33);
    for (int i = 0; i < 100; ++i) {
        const double angle = random.between(10, 50);
        const Mirror mirror = tilted(angle);
        const Point pupil(0, 0, random.between(150, 500));
        const auto place = shown_from(mirror, pupil, random.between(100, 500));
        REQUIRE(place);
        CHECK_THAT(std::abs(place->azimuth), WithinAbs(2 * angle, 1e-6));  // twice the tilt, by the law of reflection
        const Point centre = place_of(*place);
        const auto needed = filling_diameter(mirror, pupil, centre);
        REQUIRE(needed);
        CHECK(Reflections(mirror, pupil).share_of({.centre = centre, .diameter = *needed * 1.001}) == 1);
        const double half = Reflections(mirror, pupil).share_of({.centre = centre, .diameter = *needed * 0.5});
        CHECK(half > 0);
        CHECK(half < 0.6);
        CHECK(Reflections(mirror, pupil).share_of({.centre = -centre, .diameter = *needed}) == 0);
    }
}

TEST_CASE("the mark on a ball lies on the shortest way from lamp to lens", "[light][shiny]") {
    // Fermat: on a convex mirror the reflected way is the shortest of all that touch the ball on the lit side. Compared
    // with the shortest of a fine mesh.
    Random random(34);
    const Mirror ball{.centre = {0, 0, 10}, .half_width = 10, .half_height = 10, .bulge = 10.0};
    for (int i = 0; i < 20; ++i) {
        const Point pupil(0, 0, 250);
        const Point lamp = place_of({.distance = random.between(100, 400),
                                     .azimuth = random.between(-100, 100),
                                     .elevation = random.between(-60, 60)});
        const auto mark = glint(ball, pupil, {.centre = lamp, .diameter = 5});
        REQUIRE(mark);
        double shortest = 1e9;
        Point where = Point::Zero();
        for (double a = -1.55; a <= 1.55; a += 0.01)
            for (double b = -1.55; b <= 1.55; b += 0.01) {
                const Point at = 10 * Point(std::cos(b) * std::sin(a), std::sin(b), std::cos(b) * std::cos(a));
                const double way = (at - pupil).norm() + (at - lamp).norm();
                if (way < shortest) {
                    shortest = way;
                    where = at;
                }
            }
        CHECK((mark->at - where).norm() < 0.2);  // the mesh is 0.1 mm fine
        CHECK((mark->at - pupil).norm() + (mark->at - lamp).norm() <= shortest + 1e-9);
    }
}

TEST_CASE("a far lamp's mark is its size times R over twice the distance", "[light][shiny]") {
    // A convex mirror's focal length is R/2 (any optics text); a lamp near the axis, far off against R.
    const Mirror ball{.centre = {0, 0, 8}, .half_width = 8, .half_height = 8, .bulge = 8.0};
    const auto mark = glint(ball, {0, 0, 4000}, {.centre = {0, 30, 4000}, .diameter = 400});
    CHECK_THAT(mark.value().width, WithinRel(400 * 8.0 / (2 * 4000), 0.01));
    // Twice as wide a lamp, twice as wide a mark.
    const auto wide = glint(ball, {0, 0, 4000}, {.centre = {0, 30, 4000}, .diameter = 800});
    CHECK_THAT(wide.value().width / mark.value().width, WithinRel(2, 0.01));
}

TEST_CASE("on an ellipsoid the mark lies where the normal halves the angle", "[light][shiny]") {
    // Of the surface's own equation: its gradient at the mark against the two directions.
    Random random(35);
    const Mirror egg{.centre = {0, 0, 9}, .half_width = 20, .half_height = 12, .bulge = 9.0};
    for (int i = 0; i < 100; ++i) {
        const Point pupil(0, 0, random.between(150, 400));
        const Point lamp = place_of({.distance = random.between(150, 600),
                                     .azimuth = random.between(-80, 80),
                                     .elevation = random.between(-60, 60)});
        const auto mark = glint(egg, pupil, {.centre = lamp, .diameter = 10});
        REQUIRE(mark);
        const Point at = mark->at;
        CHECK_THAT(std::pow(at.x() / 20, 2) + std::pow(at.y() / 12, 2) + std::pow(at.z() / 9, 2), WithinAbs(1, 1e-9));
        const Point gradient = Point(at.x() / 400, at.y() / 144, at.z() / 81).normalized();
        const Point half = ((pupil - at).normalized() + (lamp - at).normalized()).normalized();
        CHECK((gradient - half).norm() < 1e-6);
    }
}

TEST_CASE("a lamp straight behind a ball leaves no mark", "[light][shiny]") {
    const Mirror ball{.centre = {0, 0, 8}, .half_width = 8, .half_height = 8, .bulge = 8.0};
    CHECK_FALSE(glint(ball, {0, 0, 300}, {.centre = {0, 0, -300}, .diameter = 50}));
    CHECK(glint(ball, {0, 0, 300}, {.centre = {0, 0, 300}, .diameter = 50}));
}

TEST_CASE("on a shallow dish of a face the mark of a big near source is where and as wide as traced rays say",
          "[light][shiny]") {
    // A face much wider than it bulges, where the place moves far as the normal turns a little. Rays traced over the
    // whole face, which know nothing of the search: those that end in the source make up the mark, and its place is
    // where the way from lamp over face to lens is shortest.
    Random random(36);
    int seen = 0;
    for (int i = 0; i < 40; ++i) {
        const Mirror dish{
            .half_width = random.between(15, 40), .half_height = random.between(10, 30), .bulge = random.between(2, 8)};
        const Point pupil(0, 0, random.between(120, 400));
        const DiscSource source{.centre = place_of({.distance = random.between(120, 400),
                                                    .azimuth = random.between(-25, 25),
                                                    .elevation = random.between(-25, 25)}),
                                .diameter = random.between(20, 80)};
        const auto mark = glint(dish, pupil, source);
        if (!mark) continue;
        constexpr int across = 800;
        const Point sight = (mark->at - pupil).normalized();
        double area = 0, shortest = 1e9;
        bool on_the_rim = false;
        for (int k = 0; k < across; ++k)
            for (int j = 0; j < across; ++j) {
                const double u = (2 * k + 1.0) / across - 1, v = (2 * j + 1.0) / across - 1;
                const double inside = 1 - u * u - v * v;
                if (inside <= 0.003) continue;
                const auto ray = reflect(dish, pupil, u, v);
                if (!ray) continue;
                shortest = std::min(shortest, (ray->at - pupil).norm() + (ray->at - source.centre).norm());
                if (!shows(*ray, source)) continue;
                on_the_rim = on_the_rim || inside < 0.1;
                // Surface over this cell, seen along the line of sight.
                const Point normal(u / dish.half_width, v / dish.half_height, std::sqrt(inside) / *dish.bulge);
                const double cell = 4 * dish.half_width * dish.half_height / across / across;
                area += cell * std::abs(normal.dot(sight)) / normal.z();
            }
        CHECK((mark->at - pupil).norm() + (mark->at - source.centre).norm() <= shortest + 1e-9);
        if (on_the_rim) continue;
        ++seen;
        CHECK_THAT(mark->width, WithinRel(2 * std::sqrt(area / 3.14159265358979323846), 0.02));
    }
    CHECK(seen > 15);
}
