// Shadows, highlights and what an area of a picture holds.
#include "render/shadow.hpp"
#include "imaging/colour.hpp"
#include "imaging/inspect/patch.hpp"
#include "plan/assess.hpp"
#include "render/scene.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>
#include <numbers>

using namespace poquito;
using namespace imaging;
using namespace render;
using test::WithinAbs;

namespace {

/// A wall of 10 mm along the upright through the middle of a floor of 60 by 60.
std::shared_ptr<const Relief> wall() {
    auto relief = std::make_shared<Relief>();
    relief->half_width = relief->half_height = 30;
    relief->z.assign(Relief::cells * Relief::cells, 0);
    for (int j = 0; j < Relief::cells; ++j)
        for (int i = Relief::cells / 2 - 1; i <= Relief::cells / 2; ++i)
            relief->z[static_cast<std::size_t>(j * Relief::cells + i)] = -10;  // towards the camera
    return relief;
}

Rgba from_left(double height) {
    return {-static_cast<float>(std::cos(height)), 0, -static_cast<float>(std::sin(height)), 0};
}

shoot::Shoot lit(double azimuth, double elevation) {
    auto shoot = test::plain_shoot();
    shoot.shots[0].lights = {{.flash = "flash",
                              .position = {.distance = 500, .azimuth = azimuth, .elevation = elevation},
                              .power = std::nullopt}};
    return shoot;
}

Scene scene_for(const shoot::Shoot& shoot) {
    return *scene_of(shoot.kit, shoot.shots[0], plan::assess(shoot.kit, shoot.shots[0], {}));
}

float brightness(const Scene& scene, Place place) {
    const auto fragment = scene.subject(place, 0.5);  // coarse: without its fine texture
    REQUIRE(fragment);
    return render::lit(scene, *fragment)[1] / fragment->albedo[1];
}

}  // namespace

TEST_CASE("a wall's shadow is as long as its height over the light's tangent", "[imaging][shadow]") {
    for (const double degrees : {30.0, 45.0, 60.0}) {
        const double height = degrees * std::numbers::pi / 180;
        const auto shadows = cast_shadows(wall(), from_left(height), 0);
        const double cell = 60.0 / (Relief::cells - 1);
        const double edge = cell / 2 + 10 / std::tan(height);  // its top is two nodes wide
        CHECK(shadows->at(edge * 0.5 + 1, 0) < 0.1);
        CHECK(shadows->at(edge + 3, 0) > 0.9);
        CHECK(shadows->at(-15, 0) > 0.99f);  // the side of the light
        double half = edge - 5;
        while (shadows->at(half, 3) < 0.5f && half < 30) half += 0.05;
        CHECK_THAT(half, WithinAbs(edge, 1.5 * cell));
    }
}

TEST_CASE("a wider light makes a wider edge of the shadow, and a light from the camera none", "[imaging][shadow]") {
    const double height = std::numbers::pi / 4;
    const auto width = [&](double softness) {
        const auto shadows = cast_shadows(wall(), from_left(height), softness);
        double dark = 30, bright = 0;
        for (double x = 2; x < 29; x += 0.25) {
            if (shadows->at(x, 0) > 0.1) dark = std::min(dark, x);
            if (shadows->at(x, 0) < 0.9) bright = std::max(bright, x);
        }
        return bright - dark;
    };
    CHECK(width(0.3) > 2 * width(0.05));
    CHECK(width(0.5) > 1.3 * width(0.3));
    const auto frontal = cast_shadows(wall(), {0, 0, -1, 0}, 0.1);
    CHECK(frontal->horizons.empty());
    CHECK(frontal->at(0, 0) == 1);
}

TEST_CASE("shadows fall away from the light, to either side and below", "[imaging][shadow]") {
    auto shoot = lit(-60, 0);
    shoot.shots[0].subject.depth = 20;  // half a ball: its own far side lies in the dark
    const auto left = scene_for(shoot);
    CHECK(brightness(left, {.x = -6, .y = 0}) > 4 * brightness(left, {.x = 8, .y = 0}));
    const auto right = [&] {
        shoot.shots[0].lights[0].position.azimuth = 60;
        return scene_for(shoot);
    }();
    CHECK_THAT(brightness(right, {.x = 6, .y = 0}), WithinAbs(brightness(left, {.x = -6, .y = 0}), 0.02));
    shoot.shots[0].lights[0].position = {.distance = 500, .azimuth = 0, .elevation = 60};
    const auto above = scene_for(shoot);
    CHECK(brightness(above, {.x = 0, .y = 4}) > 2 * brightness(above, {.x = 0, .y = -5}));
}

TEST_CASE("a window lights from its side, a room from all round", "[imaging][shadow]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].subject.depth = 20;
    shoot.shots[0].ambient = shoot::Ambient{.ev100 = 9};
    const auto room = scene_for(shoot);
    shoot.shots[0].ambient->kind = shoot::AmbientKind::window;
    shoot.shots[0].ambient->position = {.azimuth = -80, .elevation = 10};
    shoot.shots[0].ambient->size = 40;
    const auto window = scene_for(shoot);
    const auto contrast = [](const Scene& scene) {
        return brightness(scene, {.x = -7, .y = 0}) / std::max(1e-3f, brightness(scene, {.x = 7, .y = 0}));
    };
    CHECK(contrast(room) < 1.3);
    CHECK(contrast(window) > 5);
}

TEST_CASE("the stronger tube of a twin light lights its own side", "[imaging][shadow]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 20;
    shoot.kit.flashes[1].spread = 400;
    shot.lights = {{.flash = "twin", .power = std::nullopt, .on_lens = true}};
    const auto sides = [&](double ratio) {
        shot.lights[0].ratio = ratio;
        const auto scene = scene_for(shoot);
        return brightness(scene, {.x = 7, .y = 0}) / brightness(scene, {.x = -7, .y = 0});
    };
    CHECK_THAT(sides(0), WithinAbs(1, 1e-3));
    CHECK(sides(2) > 1.5);
    CHECK_THAT(sides(-2) * sides(2), WithinAbs(1, 1e-3));
}

TEST_CASE("the mark of a lamp in polish is where the mirror has it, and larger for a larger face",
          "[imaging][shadow]") {
    auto shoot = lit(-30, 20);
    auto& shot = shoot.shots[0];
    shot.subject.depth = 12;
    shot.subject.traits = {"polished"};
    const auto area = [&] {
        const auto scene = scene_for(shoot);
        int bright = 0;
        double x = 0, y = 0;
        for (int j = -40; j <= 40; ++j)
            for (int i = -60; i <= 60; ++i) {
                const Place place{.x = i * 0.15, .y = j * 0.15};
                const auto fragment = scene.subject(place, 0.5);
                if (!fragment || render::lit(scene, *fragment)[1] < 2) continue;
                ++bright;
                x += fragment->x;
                y += fragment->y;
            }
        return std::tuple(bright, x / bright, y / bright);
    };
    const auto [small, x, y] = area();
    REQUIRE(small > 0);
    const auto mark = plan::assess(shoot.kit, shot, {}).reflections[0].marks.at(0);
    CHECK_THAT(x, WithinAbs(mark.x, 2));
    CHECK_THAT(y, WithinAbs(mark.y, 2));
    shot.lights[0].modifier = "box";
    CHECK(std::get<0>(area()) > 2 * small);
}

TEST_CASE("the subject's shadow falls on a near card, away from the light", "[imaging][shadow]") {
    auto shoot = lit(-50, 0);
    shoot.shots[0].background = shoot::Background{.distance = 20, .reflectance = 0.5};
    const auto scene = scene_for(shoot);
    const auto at = [&](double x) { return scene.background({.x = x, .y = 0})[1]; };
    CHECK(at(6) < 0.3 * at(-11));
    CHECK_THAT(at(-11),
               WithinAbs(0.18 * std::exp2(*plan::assess(shoot.kit, shoot.shots[0], {}).light.background), 1e-3));
    // Far behind, the shadow falls beside the frame.
    shoot.shots[0].background->distance = 400;
    const auto far = scene_for(shoot);
    CHECK_THAT(far.background({.x = 0, .y = 0})[1] / far.background({.x = -11, .y = 0})[1], WithinAbs(1, 0.02));
}

TEST_CASE("an area's mean is of light, not of numbers, and its ends are counted", "[imaging][patch]") {
    // Half black, half white: half of the light, though a number of 128 would be 22 %.
    std::vector<std::uint8_t> bytes(8 * 4 * 3, 0);
    for (int y = 0; y < 4; ++y)
        for (int x = 4; x < 8; ++x)
            for (int c = 0; c < 3; ++c) bytes[static_cast<std::size_t>((y * 8 + x) * 3 + c)] = 255;
    const RgbPicture picture{.bytes = bytes.data(), .width = 8, .height = 4, .stride = 24};
    const auto whole = read_patch(picture, {0, 0, 8, 4});
    CHECK_THAT(whole.mean, WithinAbs(0.5, 1e-12));
    CHECK_THAT(whole.clipped, WithinAbs(0.5, 1e-12));
    CHECK_THAT(whole.black, WithinAbs(0.5, 1e-12));
    const auto right = read_patch(picture, {4, 1, 4, 2});
    CHECK(right.mean == 1);
    CHECK(right.clipped == 1);
    // sRGB 118 is 18 % grey (IEC 61966-2-1).
    for (auto& byte : bytes) byte = 118;
    CHECK_THAT(read_patch(picture, {1, 1, 3, 2}).mean, WithinAbs(0.1812, 1e-4));
    CHECK(read_patch(picture, {1, 1, 3, 2}).clipped == 0);
    for (auto& byte : bytes) byte = 254;  // bright, not clipped
    CHECK(read_patch(picture, {0, 0, 8, 4}).clipped == 0);
    // One channel at its end is a clipped pixel.
    bytes[0] = 255;
    CHECK_THAT(read_patch(picture, {0, 0, 2, 1}).clipped, WithinAbs(0.5, 1e-12));
}
