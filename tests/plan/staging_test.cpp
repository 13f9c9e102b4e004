// Where things on a table come to lie in the frame, against rays written out here; and what they do there.
#include "plan/set/staging.hpp"

#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <array>
#include <cmath>
#include <numbers>

using namespace poquito;
using test::same;

namespace {

using Vector = std::array<double, 3>;  // right, away along the table, upwards

double dot(const Vector& a, const Vector& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }

/// A pinhole at the entrance pupil, looking down by `i` at the subject's centre, `distance` from the plane of focus.
struct Pinhole {
    Vector axis, up;
    double distance, focus;

    Pinhole(double i, double to_focus, double focus_behind) : distance(to_focus), focus(focus_behind) {
        axis = {0, std::cos(i), -std::sin(i)};
        up = {0, std::sin(i), std::cos(i)};
    }
    /// Where a point, from the subject's centre, meets the plane of focus: mm right and up in it.
    std::pair<double, double> seen(const Vector& point) const {
        const double away = dot(point, axis) - focus + distance;  // from the pinhole
        return {point[0] * distance / away, dot(point, up) * distance / away};
    }
};

}  // namespace

TEST_CASE("things on a table lie in the frame where rays from the pupil put them", "[plan][staging]") {
    for (unsigned seed = 0; seed < 60; ++seed) {
        test::Random random(seed);
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.rig.focus.value = random.between(0.1, 0.9);
        shot.rig.inclination = random.coin(0.3) ? 0 : random.between(5, 80);
        shot.subject.height = random.between(5, 60);
        shot.sharpness.focus_offset = random.between(-3, 3);
        shoot::Staged thing{.id = "a", .name = "A", .subject = {.width = 12, .height = 18, .depth = 6}, .unknown = {}};
        thing.right = random.between(-40, 40);
        thing.behind = random.between(-20, 200);
        shot.staging = {thing};
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto report = plan::assess(plan);
        REQUIRE(report.staging.size() == 1);
        const auto& one = report.staging[0];
        // The distance of the pupil by its own cone: the disc of a point far behind grows to m times the pupil.
        const auto imaging = plan::imaging_of(plan, shot.exposure.f_number);
        const double distance =
            imaging.pupil_diameter * imaging.working_f_number / (imaging.magnification * imaging.pupil_scale);
        const Pinhole camera(shot.rig.inclination * std::numbers::pi / 180, distance, plan.focus);
        // Its foot is as high as the subject's.
        const Vector middle{thing.right, thing.behind, (thing.subject.height - shot.subject.height) / 2};
        const auto [x, y] = camera.seen(middle);
        CAPTURE(seed, shot.rig.inclination, thing.behind);
        CHECK_THAT(one.left + one.width / 2, test::WithinAbs(0.5 + x / *report.optics.field_width, 1e-9));
        CHECK_THAT(one.top + one.height / 2, test::WithinAbs(0.5 - y / *report.optics.field_height, 1e-9));
        CHECK_THAT(one.behind_focus, test::WithinAbs(dot(middle, camera.axis) - plan.focus, 1e-9));
        // As blurred as a point there: the cone of its rays, cut by the plane of focus.
        const double away = one.behind_focus;
        const double cone = imaging.pupil_diameter / imaging.pupil_scale * std::abs(away) / (distance + away);
        REQUIRE(one.blur);
        CHECK_THAT(*one.blur, test::WithinRel(cone * imaging.magnification, 1e-6));
    }
}

TEST_CASE("what stands before the subject hides it, what is bright and sharp draws the eye", "[plan][staging]") {
    auto shoot = test::plain_shoot();  // 40 x 25 mm at 0.5: the frame shows 48 x 32
    auto& shot = shoot.shots[0];
    shoot::Staged jar{.id = "jar", .name = "Jar", .subject = {.width = 10, .height = 25, .depth = 2}, .unknown = {}};
    const auto of = [&](const shoot::Staged& thing) {
        shot.staging = {thing};
        return plan::assess(shoot.kit, shot, {}).staging.at(0);
    };
    jar.behind = -5;
    CHECK(of(jar).hides > 0.2);
    CHECK(of(jar).hides < 0.35);
    jar.behind = 5;
    CHECK(of(jar).hides == 0);
    CHECK(of(jar).hidden > 0.9);
    jar.right = 26;
    CHECK(of(jar).hidden == 0);
    CHECK(of(jar).cut_off > 0.4);
    CHECK(of(jar).cut_off < 0.8);
    jar.right = -200;
    CHECK(of(jar).cut_off == 1);
    jar.right = 15;
    jar.subject.reflectance = 0.9;
    CHECK(of(jar).draws_the_eye);
    jar.behind = 400;
    CHECK_FALSE(of(jar).readable);
    CHECK_FALSE(of(jar).draws_the_eye);
    jar.behind = 5;
    jar.role = shoot::StagedRole::repeat;  // that is what it is for
    CHECK_FALSE(of(jar).draws_the_eye);
    // What lies is seen at the table's slant: at 30 degrees half as high as it is deep.
    shot.rig.inclination = 30;
    const shoot::Staged cloth{.id = "cloth",
                              .name = "Cloth",
                              .subject = {.width = 20, .height = 10, .depth = 0, .form = shoot::Form::leaf},
                              .lies = true,
                              .behind = 0,
                              .unknown = {}};
    const auto lying = of(cloth);
    const double scale = plan::scale_at(plan::plan_of(shoot.kit, shot, {}), lying.place.away);
    CHECK_THAT(lying.height * *plan::assess(shoot.kit, shot, {}).optics.field_height / scale, test::WithinAbs(5, 0.2));
    CHECK(lying.hides == 0);
}

TEST_CASE("what lies has its top where the subject stands, what lies on another its foot", "[plan][staging]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.height = 40;
    shot.rig.inclination = 0;
    const shoot::Staged slate{
        .id = "slate", .subject = {.width = 200, .height = 200, .depth = 12}, .lies = true, .unknown = {}};
    auto cloth = slate;
    cloth.id = "cloth", cloth.subject.depth = 2;
    shot.staging = {slate, cloth};
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    CHECK_THAT(plan::seen_place(plan, slate).up, same(-20 - 6));
    CHECK_THAT(plan::seen_place(plan, cloth).up, same(-20 + 1));
}
