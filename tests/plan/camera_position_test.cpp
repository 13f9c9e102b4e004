// Where the camera stands, against rays and levers written out here.
#include "plan/set/camera_position.hpp"

#include "light/angle.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <array>
#include <cmath>
#include <limits>
#include <numbers>

using namespace poquito;

namespace {

/// To the plane of focus, by the cone of a point far behind: it grows to m times the pupil.
double from_pupil(const plan::Plan& plan) {
    const auto imaging = plan::imaging_of(plan, plan.shot.exposure.f_number);
    return imaging.pupil_diameter * imaging.working_f_number / (imaging.magnification * imaging.pupil_scale);
}

/// The camera over the table, level and upwards; the subject's foot is the origin.
struct SideView {
    double x, y;  // of the entrance pupil
    double i, half;

    explicit SideView(const plan::Plan& plan, const plan::Report& report) {
        i = plan.shot.rig.inclination * light::degree;
        const double far = from_pupil(plan);
        half = std::atan(*report.optics.field_height / 2 / far);
        const double away = far - plan.focus;
        x = -away * std::cos(i);
        y = plan.shot.subject.height / 2 + away * std::sin(i);
    }
    /// Degrees that a place is seen below the axis, over the half angle of the frame, by its tangent: -1 the upper
    /// edge.
    double below_axis(double px, double py) const {
        const double angle = std::atan2(y - py, px - x);
        return std::tan(angle - i) / std::tan(half);
    }
};

}  // namespace

TEST_CASE("the table's far edge and the horizon lie in the frame where a ray puts them", "[plan][standing]") {
    for (unsigned seed = 0; seed < 60; ++seed) {
        test::Random random(seed);
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.rig.focus.value = random.between(0.05, 0.9);
        shot.rig.inclination = random.between(0, 30);
        shot.subject.height = random.between(5, 60);
        shot.sharpness.focus_offset = random.between(-3, 3);
        shot.background.reset();
        const bool horizon = random.coin();
        if (horizon)
            shot.subject.traits = {"outdoors"};
        else
            shot.table = shoot::Table{.height = 700, .before = {}, .behind = random.between(20, 900), .unknown = {}};
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto report = plan::assess(plan);
        const SideView side(plan, report);
        const double place =
            horizon ? std::tan(-side.i) / std::tan(side.half) : side.below_axis(*shot.table->behind, 0);
        CAPTURE(seed, horizon, shot.rig.inclination, place);
        const auto& edge = report.camera_position.edge;
        REQUIRE(edge.has_value() == (place >= -1 && place <= 1));
        if (!edge) continue;
        CHECK(edge->horizon == horizon);
        CHECK_THAT(edge->place, test::WithinAbs(0.5 + place / 2, horizon ? 1e-3 : 1e-9));
    }
    // A card that stands nearer hides it.
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.inclination = 5;
    shot.table = shoot::Table{.height = 700, .before = {}, .behind = 60, .unknown = {}};
    shot.background = shoot::Background{.distance = 50};
    CHECK_FALSE(plan::assess(shoot.kit, shot, {}).camera_position.edge);
    shot.background->distance = 70;
    CHECK(plan::assess(shoot.kit, shot, {}).camera_position.edge);
}

TEST_CASE("a sweep holds all that the frame sees of table and wall", "[plan][standing]") {
    int walls = 0, grounds = 0;
    for (unsigned seed = 0; seed < 80; ++seed) {
        test::Random random(seed);
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.rig.focus.value = random.between(0.05, 0.5);
        shot.rig.inclination = random.between(0, 80);
        shot.background = shoot::Background{.distance = random.between(60, 1500)};
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto report = plan::assess(plan);
        const SideView side(plan, report);
        const double wall = shot.background->distance;
        // Where the lower and the upper edge of the frame end: on the table, else on the wall.
        const auto end_of = [&](double angle) {
            const double down = std::tan(angle);
            const double ground = angle > 0 && angle < std::numbers::pi / 2 ? side.x + side.y / down
                                  : angle > 0                               ? side.x
                                                                            : 1e12;
            return ground < wall ? std::pair(ground, 0.0) : std::pair(wall, side.y - (wall - side.x) * down);
        };
        const auto lower = end_of(side.i + side.half), upper = end_of(side.i - side.half);
        const auto& sweep = report.camera_position.sweep;
        CAPTURE(seed, shot.rig.inclination, wall, lower.first, upper.first, upper.second);
        if (side.i + side.half >= std::numbers::pi / 2) continue;
        REQUIRE(sweep.has_value() == (lower.first < wall));
        if (!sweep) continue;
        CHECK_THAT(sweep->before, test::WithinAbs(1.1 * std::max(0.0, -lower.first), 1e-6));
        if (upper.first < wall - 1e-9) {
            ++grounds;
            CHECK(sweep->up == 0);
            CHECK_THAT(sweep->length, test::WithinRel(1.1 * (upper.first - lower.first), 1e-6));
        } else {
            ++walls;
            CHECK_THAT(sweep->up, test::WithinAbs(1.1 * upper.second, 1e-6));
            // Shorter than flat and wall with a corner, longer than the straight way.
            CHECK(sweep->length <= sweep->before + wall + sweep->up + 1e-6);
            CHECK(sweep->length >= std::hypot(sweep->before + wall, sweep->up) - 1e-6);
            // The curve takes half the room behind the subject, unless the wall that is seen is lower than that.
            const double room = std::max(0.0, wall - plan.extent.depth / 2) / 2;
            CHECK_THAT(sweep->radius, test::WithinAbs(std::min(room, std::max(sweep->up, 1.0)), 1e-6));
        }
        // As wide as the frame where it sees farthest.
        const double far = std::max(upper.first, lower.first);
        const double away = (far - side.x) * std::cos(side.i) - (upper.second - side.y) * std::sin(side.i);
        CHECK(sweep->width >= *report.optics.field_width * away / from_pupil(plan) * 0.999);
    }
    CHECK(walls > 10);
    CHECK(grounds > 10);
}

TEST_CASE("a boom wants as much on its foot as keeps it over its feet", "[plan][standing]") {
    CHECK(plan::bag_for(1.9, 400, 450) == 0);
    for (unsigned seed = 0; seed < 40; ++seed) {
        test::Random random(seed);
        const double load = random.between(0.3, 4), feet = random.between(200, 700),
                     arm = feet + random.between(0, 900);
        const double bag = plan::bag_for(load, arm, feet);
        // Three feet, one under the arm: the line from that one to either of the others is where it tips. With the bag
        // on the middle, the common centre of both lies on it.
        const std::array<std::array<double, 2>, 3> at = {
            {{feet, 0},
             {feet * std::cos(120 * light::degree), feet * std::sin(120 * light::degree)},
             {-feet / 2, -feet * std::sin(120 * light::degree)}}};
        const double centre = load * arm / (load + bag);
        const double dx = at[1][0] - at[0][0], dy = at[1][1] - at[0][1];
        const double side = dx * (0 - at[0][1]) - dy * (centre - at[0][0]);  // of the centre, from the line
        CAPTURE(seed, load, feet, arm, bag);
        CHECK_THAT(side, test::WithinAbs(0, 1e-6));
    }
}

TEST_CASE("legs meet the table where they are wider than the camera stands off", "[plan][standing]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shoot.kit.stands = {{.id = "s", .name = "S", .least = 300, .greatest = 1500, .feet = 500}};
    shoot.kit.cameras[0].weight = 800;
    shoot.kit.lenses[0].weight = 400;
    shot.rig.stand = "s";
    shot.rig.inclination = 30;
    shot.table = shoot::Table{.height = 700, .before = 200, .behind = {}, .unknown = {}};
    const auto report = plan::assess(shoot.kit, shot, {});
    const auto& on = *report.camera_position.stand;
    const double away = *report.optics.subject_to_sensor;
    CHECK_THAT(*report.camera_position.over_floor, test::WithinAbs(700 + shot.subject.height / 2 + away / 2, 1e-9));
    CHECK_THAT(*report.camera_position.away, test::WithinAbs(away * std::cos(30 * light::degree), 1e-9));
    // A leg from under the camera to a foot half a metre out, cut at the table's height.
    const double out = 500 * (*report.camera_position.over_floor - 700) / *report.camera_position.over_floor;
    CHECK_THAT(*on.legs_free, test::WithinAbs(*report.camera_position.away - 200 - out, 1e-9));
    CHECK_THAT(*on.carried, test::WithinAbs(1.2, 1e-12));
    CHECK(on.too_high == 0);
    CHECK(on.too_low == 0);
    CHECK_FALSE(on.bag);
    shot.table->height = 1400;
    CHECK(plan::assess(shoot.kit, shot, {}).camera_position.stand->too_low > 0);
}
