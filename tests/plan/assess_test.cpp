#include "plan/assess.hpp"
#include "plan/set/picture_shape.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

Report report_of(const Shoot& shoot) { return assess(shoot.kit, shoot.shots.front(), {}); }

}  // namespace

TEST_CASE("a symmetric 100 mm lens at half life size, by head", "[shoot][evaluate]") {
    const auto report = report_of(test::plain_shoot());
    CHECK_THAT(report.optics.magnification, same(0.5));
    CHECK_THAT(report.optics.field_width.value(), same(48));
    CHECK_THAT(report.optics.field_height.value(), same(32));
    CHECK_THAT(report.optics.working_f_number, same(12));
    CHECK_THAT(report.optics.exposure_loss, WithinAbs(1.17, 0.005));  // Langford, Basic Photography
    CHECK(report.optics.reaches_infinity);
    CHECK_THAT(report.optics.fill.value(), same(40.0 / 48));
    // f(2 + m + 1/m) + h, h = 410 - 400.
    CHECK_THAT(report.optics.subject_to_sensor.value(), same(460));
    CHECK_THAT(report.sharpness.blur_limit, same(0.008));
    // c N_w/m^2 = 0.384 to either side, thin limit.
    CHECK_THAT(report.sharpness.depth_of_field.value(), WithinRel(0.768, 1e-3));
    CHECK(report.capture.frames == 1);
    CHECK_FALSE(report.capture.step.has_value());
    CHECK_THAT(report.capture.by_rule.duration, same(0.125));
    CHECK_THAT(report.capture.data_mb, same(30));
}

TEST_CASE("the best single stop is a marked one", "[shoot][evaluate]") {
    const auto report = report_of(test::plain_shoot());
    // N_w = m sqrt(d/(2 2.44 lambda)) = 0.5 sqrt(2/(4.88 550e-6)) = 13.65; over 1.5 for the marked one.
    CHECK_THAT(report.sharpness.best_single_f_number.value(), WithinRel(13.649 / 1.5, 1e-4));
    auto flat = test::plain_shoot();
    flat.shots[0].subject.depth = 0;
    CHECK_FALSE(report_of(flat).sharpness.best_single_f_number.has_value());
}

TEST_CASE("at infinity what has no size does not exist", "[shoot][evaluate]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].rig.focus = {.by = FocusBy::ring, .value = 0};
    shoot.shots[0].background = Background{};
    shoot.shots[0].capture.mode = CaptureMode::stack;
    const auto report = report_of(shoot);
    CHECK(report.optics.magnification == 0);
    for (const auto& value : {report.optics.field_width, report.optics.working_distance,
                              report.optics.subject_to_sensor, report.sharpness.near, report.sharpness.far,
                              report.sharpness.depth_of_field, report.sharpness.best_single_f_number,
                              report.sharpness.background_disc, report.capture.frame_depth, report.capture.step})
        CHECK_FALSE(value.has_value());
    CHECK(report.capture.frames == 1);
}

TEST_CASE("a stack covers subject, lead and tail and waits for the flash", "[shoot][evaluate]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture = {.mode = CaptureMode::stack, .overlap = 0.25, .lead = 0.5, .tail = 0.5};
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.25;
    const auto report = report_of(shoot);
    const double frame = report.capture.frame_depth.value();
    CHECK_THAT(report.capture.step.value(), same(frame * 0.75));
    CHECK(report.capture.frames == std::ceil((3 - frame) / (frame * 0.75)) + 1);
    CHECK_THAT(report.capture.by_rule.duration,
               same(report.capture.frames * 0.125 + (report.capture.frames - 1) * 4 * 0.25));
    CHECK_THAT(report.capture.travel->last - report.capture.travel->first,
               same((report.capture.frames - 1) * *report.capture.step));
}

TEST_CASE("a subject that one frame holds to infinity needs no stack", "[shoot][evaluate]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = CaptureMode::stack;
    shot.rig.focus = {.by = FocusBy::magnification, .value = 0.004};
    shot.exposure.f_number = 32;
    shot.sharpness = {.rule = BlurRule::stated, .stated = 0.05};
    const auto report = report_of(shoot);
    CHECK(report.sharpness.near.has_value());
    CHECK_FALSE(report.sharpness.far.has_value());
    CHECK_FALSE(report.capture.frame_depth.has_value());
    CHECK_FALSE(report.capture.step.has_value());
    CHECK(report.capture.frames == 1);
}

TEST_CASE("automatic flashes share what ambient and fixed flashes leave", "[shoot][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = Ambient{.ev100 = 6};
    shot.lights = {test::plain_light(), test::plain_light(), test::plain_light()};
    shot.lights[0].power = 1.0 / 64;
    shot.lights[2].modifier = "box";
    const auto report = report_of(shoot);
    const auto& sources = report.light.sources;
    CHECK_THAT(report.light.front_total.value(), WithinAbs(0, 1e-12));
    CHECK_THAT(*sources[1].front, same(*sources[2].front));
    const double rest = std::exp2(*report.light.ambient_front) + std::exp2(*sources[0].front);
    CHECK_THAT(std::exp2(*sources[1].front), same((1 - rest) / 2));
    CHECK(sources[2].power > sources[1].power);  // the box costs light
}

TEST_CASE("automatic flashes stay dark where the rest is enough", "[shoot][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = Ambient{.ev100 = 15};
    shot.lights = {test::plain_light()};
    const auto report = report_of(shoot);
    const auto& source = report.light.sources.front();
    CHECK(source.power == 0);
    CHECK_FALSE(source.stops.has_value());
    CHECK_FALSE(source.suggested_power.has_value());
    CHECK_FALSE(source.t05.has_value());
    CHECK(report.light.front_total == report.light.ambient_front);
}

TEST_CASE("no light at all has no stops", "[shoot][light]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].background = Background{};
    const auto report = report_of(shoot);
    CHECK_FALSE(report.light.ambient.has_value());
    CHECK_FALSE(report.light.front_total.has_value());
    CHECK_FALSE(report.light.background.has_value());
}

TEST_CASE("the sum of lights is never less than the brightest", "[shoot][light][long]") {
    for (unsigned seed = 0; seed < 500; ++seed)
        for (const auto shoot = test::random_shoot(seed); const auto& shot : shoot.shots) {
            const auto report = assess(shoot.kit, shot, {});
            INFO("seed " << seed);
            double brightest = report.light.ambient.value_or(-1e9);
            for (const auto& source : report.light.sources)
                brightest = std::max(brightest, source.stops.value_or(-1e9));
            if (report.light.total) CHECK(*report.light.total >= brightest - 1e-12);
        }
}

TEST_CASE("a background as far away as nothing is the subject's own exposure times its reflectance", "[shoot][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = Ambient{.ev100 = 3};
    shot.lights = {test::plain_light()};
    shot.background = Background{.distance = 0, .reflectance = 0.72};
    const auto report = report_of(shoot);
    const double cosine = std::exp2(*report.light.sources[0].facing);
    const double expected = std::exp2(*report.light.ambient) + std::exp2(*report.light.sources[0].stops) * cosine;
    CHECK_THAT(report.light.background.value(), same(std::log2(expected * 0.72 / 0.18)));
}

TEST_CASE("the flash freezes only where ambient is four stops below the total", "[shoot][motion]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.speed = 100;
    shot.exposure.shutter = 0.005;
    shot.lights = {test::plain_light()};
    shot.ambient = Ambient{.ev100 = 0};
    auto report = report_of(shoot);
    CHECK(report.motion.frozen_by_flash);
    CHECK_THAT(report.motion.blur, same(0.5 * 100 * report.light.sources[0].t01.value()));
    shot.ambient->ev100 = 11;  // log2(2^11 * 0.005/144): 3.8 stops below
    report = report_of(shoot);
    CHECK_FALSE(report.motion.frozen_by_flash);
    CHECK_THAT(report.motion.blur, same(0.5 * 100 * 0.005));
}

TEST_CASE("a longer flash than the shutter counts as the shutter", "[shoot][motion]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shoot.kit.flashes[0].discharge = light::Discharge::decay;
    shoot.kit.flashes[0].durations = {{.power = 1e-4, .t05 = 0.004}, {.power = 1, .t05 = 0.004}};
    shot.subject.speed = 100;
    shot.exposure.shutter = 0.005;
    shot.lights = {test::plain_light()};
    CHECK_THAT(report_of(shoot).motion.exposure_time, same(0.005));
}

TEST_CASE("evaluation is pure and never makes a number that is none", "[shoot][evaluate][long]") {
    for (unsigned seed = 0; seed < 500; ++seed)
        for (const auto shoot = test::random_shoot(seed); const auto& shot : shoot.shots) {
            const auto once = assess(shoot.kit, shot, {});
            const auto twice = assess(shoot.kit, shot, {});
            INFO("seed " << seed);
            CHECK(once.optics.magnification == twice.optics.magnification);
            CHECK(once.light.sources.size() == twice.light.sources.size());
            for (const double value :
                 {once.optics.magnification, once.optics.working_f_number, once.optics.exposure_loss,
                  once.sharpness.airy_diameter, once.capture.frames, once.capture.by_rule.duration, once.motion.blur,
                  once.sharpness.depth_of_field.value_or(1), once.capture.step.value_or(1),
                  once.light.background.value_or(1)})
                CHECK(std::isfinite(value));
        }
}

TEST_CASE("a picture in a shape of its own keeps the largest of it about the frame's middle", "[plan]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    const auto cut = [&](std::optional<double> shape) {
        shot.picture_shape = shape;
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        return plan::picture_cut(plan, plan::assess(plan));
    };
    CHECK_FALSE(cut({}));
    // Of 6000 by 4000: arithmetic.
    const auto square = cut(1), upright = cut(0.8), wide = cut(16.0 / 9), all = cut(1.5);
    CHECK(square->width_px == 4000);
    CHECK(square->height_px == 4000);
    CHECK(upright->width_px == 3200);
    CHECK(upright->height_px == 4000);
    CHECK(wide->width_px == 6000);
    CHECK(wide->height_px == 3375);
    CHECK(all->width_px == 6000);
    CHECK(all->height_px == 4000);
    // A sheet that rounds the sensor's size leaves a square as square.
    shoot.kit.cameras[0].sensor.width = 24.1;
    CHECK(cut(1)->width_px == 4000);
    CHECK(cut(1)->height_px == 4000);
    shoot.kit.cameras[0].sensor.width = 24;
    shot.picture_shape.reset();
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    CHECK_THAT(*all->fill, WithinAbs(*report.optics.fill, 1e-12));
    CHECK_THAT(*square->fill, WithinAbs(std::max(plan.extent.width / (*report.optics.field_width / 1.5),
                                                 plan.extent.height / *report.optics.field_height),
                                        1e-12));
}
