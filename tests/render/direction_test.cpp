// The finder shows what the report says of light with a direction (MODEL 6).
#include "imaging/colour.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "render/finder.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::shoot;
using namespace imaging;
using namespace render;
using test::WithinAbs;

namespace {

/// A matt subject of one form before black, sharp all through, with one small light far away.
Shoot set_of(Form form) {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    // From far away, as MODEL has it: from near a camera sees less of what is lit from behind.
    auto& lens = shoot.kit.lenses[0].optics;
    lens.focal_length *= 20, lens.closest_focus *= 20, lens.length *= 10;
    shot.subject = {.width = 30, .height = 24, .depth = 12, .reflectance = 0.18, .form = form};
    shot.exposure = {.f_number = 22, .shutter = 0.005, .iso = 100};
    shoot.kit.flashes[0].face = 1;  // a point: a wide one reaches round edges
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.25;
    return shoot;
}

/// Stops that the subject's face has in the finder, over its whole silhouette.
double finder_stops(const Shoot& shoot) {
    const auto& shot = shoot.shots[0];
    auto scene = scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
    REQUIRE(scene);
    scene->subject = [textured = scene->subject](Place place, double detail) {
        auto fragment = textured(place, detail);
        if (fragment) fragment->albedo = Rgba(0.18f, 0.18f, 0.18f, 0);  // its mean alone
        return fragment;
    };
    Finder finder;
    const auto frame = finder.render(*scene, {.width = 240, .height = 160});
    REQUIRE(frame);
    double sum = 0, count = 0;
    for (std::size_t i = 0; i < frame->depth.size(); ++i) {
        if (frame->depth[i] == FinderFrame::no_subject) continue;
        sum += static_cast<double>(frame->light.pixels[i][1]);
        ++count;
    }
    return std::log2(sum / count);
}

}  // namespace

TEST_CASE("the finder's face is as bright as the report says, for every form and twenty directions",
          "[imaging][direction]") {
    int compared = 0;
    for (const auto& form : forms()) {
        if (form.form == Form::height_map) continue;
        INFO(form.name);
        auto shoot = set_of(form.form);
        if (form.form == Form::ball) shoot.shots[0].subject.width = 24;  // round, as the law takes it
        auto& light = shoot.shots[0].lights[0];
        const auto report_front = [&] { return plan::assess(shoot.kit, shoot.shots[0], {}).light.sources[0].front; };
        light.position = {.distance = 3000};
        const double offset = finder_stops(shoot) - *report_front();
        for (int i = 0; i < 20; ++i) {
            light.position = {.distance = 3000, .azimuth = -150.0 + 17 * i, .elevation = -30.0 + 41 * i % 90};
            const auto front = report_front();
            // Edges of a pixel's width are all that is left of what stands almost behind.
            if (!front || *front < offset - 8 ||
                plan::assess(shoot.kit, shoot.shots[0], {}).light.sources[0].front_share < 0.05)
                continue;
            INFO("azimuth " << light.position.azimuth << ", elevation " << light.position.elevation);
            // The insect's legs are as thin as a cell of the nets: what they shade is rough in both.
            CHECK_THAT(finder_stops(shoot) - offset, WithinAbs(*front, form.form == Form::insect ? 0.35 : 0.1));
            ++compared;
        }
    }
    CHECK(compared > 120);
}

TEST_CASE("a window lights one side, and the room the other a little", "[imaging][direction]") {
    auto shoot = set_of(Form::ball);
    auto& shot = shoot.shots[0];
    shot.lights.clear();
    shot.subject.depth = 12;
    shot.ambient =
        Ambient{.ev100 = 8, .kind = AmbientKind::window, .position = {.azimuth = -80, .elevation = 10}, .size = 20};
    shot.exposure.shutter = 1;
    const double beside = finder_stops(shoot);
    // As bright on the whole as light from all around of the same reading.
    shot.ambient->kind = AmbientKind::even;
    CHECK_THAT(finder_stops(shoot), WithinAbs(beside, 0.15));
    // The shadow side is dark and not black, and darker in a black studio.
    const auto shadow = [&](double room) {
        shot.ambient->kind = AmbientKind::window;
        shot.ambient->room = room;
        const auto scene = scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
        const auto frame = Finder().render(*scene, {.width = 240, .height = 160});
        return static_cast<double>(frame->light.at(150, 80)[1]);
    };
    const double light_room = shadow(0.15), studio = shadow(0.02);
    CHECK(light_room > 4 * studio);
    CHECK(light_room < 0.18);
}

TEST_CASE("what daylight sends through a subject glows in the finder as the report says", "[imaging][direction]") {
    for (const auto form : {Form::ball, Form::leaf, Form::bowl})
        for (const double azimuth : {30.0, 110.0, 170.0}) {
            INFO(static_cast<int>(form) << ", " << azimuth);
            auto shoot = set_of(form);
            auto& shot = shoot.shots[0];
            shot.lights.clear();
            shot.ambient = Ambient{.ev100 = 8,
                                   .kind = AmbientKind::sky,
                                   .position = {.distance = 1e6, .azimuth = azimuth, .elevation = 10},
                                   .size = 1};
            shot.exposure.shutter = 1;
            const auto front = [&] { return *plan::assess(shoot.kit, shot, {}).light.front_total; };
            const double dull = std::exp2(finder_stops(shoot)), dull_said = std::exp2(front());
            shot.subject.transmittance = 0.3;
            // What is added in the picture over what is added in the report: mid grey shows a correct exposure.
            const double glow = std::exp2(finder_stops(shoot)) - dull, said = std::exp2(front()) - dull_said;
            REQUIRE(said > 0.01);
            CHECK_THAT(std::log2(glow / (0.18 * said)), WithinAbs(0, 0.15));
        }
}

TEST_CASE("a petal lit from behind is bright in front, and a screen behind has no shadow on it",
          "[imaging][direction]") {
    auto shoot = set_of(Form::leaf);
    auto& shot = shoot.shots[0];
    shot.subject.transmittance = 0.3;
    shot.lights[0].position = {.distance = 400, .azimuth = 180};
    shot.lights[0].power.reset();
    CHECK_THAT(*plan::assess(shoot.kit, shot, {}).light.front_total, WithinAbs(0, 1e-9));
    auto from_front = shoot;
    from_front.shots[0].lights[0].position = {.distance = 400};
    CHECK_THAT(finder_stops(shoot), WithinAbs(finder_stops(from_front), 0.1));

    shot.lights.clear();
    shot.ambient.reset();
    shot.background = Background{.distance = 300, .reflectance = 0.5, .own_ev100 = 8, .gradient = 2};
    const auto report = plan::assess(shoot.kit, shot, {});
    const auto frame = Finder().render(*scene_of(shoot.kit, shot, report), {.width = 240, .height = 160});
    const auto at = [&](int x, int y) { return static_cast<double>(frame->light.at(x, y)[1]); };
    CHECK_THAT(std::log2(at(5, 80) / 0.18), WithinAbs(*report.light.background, 0.1));
    CHECK_THAT(std::log2(at(5, 2) / at(5, 157)), WithinAbs(2, 0.15));  // over its height, as far as blur leaves it
}

TEST_CASE("black bodies have their colours", "[imaging][colour]") {
    // Daylight of 6500 K is near the white of sRGB, 3200 K is orange, 10000 K blue (CIE 1931; Planck's locus).
    const auto day = black_body(6500);
    CHECK_THAT(day.red / day.blue, WithinAbs(1, 0.1));
    CHECK_THAT(luminance(day), WithinAbs(1, 0.01));
    const auto lamp = black_body(3200), sky = black_body(10000);
    CHECK(lamp.red > 2 * lamp.blue);
    CHECK(sky.blue > 1.2 * sky.red);
    // The locus at 3000 K: x 0.4369, y 0.4041 (tables of the CIE 1931 observer), as ratios of the primaries.
    const auto warm = black_body(3000);
    const double X = 0.4369 / 0.4041, Z = (1 - 0.4369 - 0.4041) / 0.4041;
    CHECK_THAT(warm.red, WithinAbs(3.2406 * X - 1.5372 - 0.4986 * Z, 0.03));
    CHECK_THAT(warm.blue, WithinAbs(0.0557 * X - 0.2040 + 1.0570 * Z, 0.03));
    const auto as_white = black_body(3200, 3200);
    CHECK_THAT(as_white.red, WithinAbs(1, 1e-9));
    CHECK_THAT(as_white.blue, WithinAbs(1, 1e-9));
}
