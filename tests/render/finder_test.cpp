#include "render/finder.hpp"

#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "render/disc_blur.hpp"
#include "render/layers.hpp"
#include "support/matchers.hpp"
#include "support/scenes.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace imaging;
using namespace render;
using test::WithinAbs;
using test::WithinRel;

namespace {

double sum_of(const Raster& picture) {
    double sum = 0;
    for (const auto& pixel : picture.pixels) sum += pixel[1];
    return sum;
}

/// Along the middle row, between the places where the light falls to half of the middle's.
double width_of(const Raster& picture) {
    const int y = picture.height / 2, middle = picture.width / 2;
    const auto at = [&](int x) { return double(picture.at(x, y)[1]); };
    const double half = at(middle) / 2;
    const auto end = [&](int way) {
        int x = middle;
        while (at(x + way) > half) x += way;
        return x + way * (at(x) - half) / (at(x) - at(x + way));
    };
    return end(1) - end(-1);
}

}  // namespace

TEST_CASE("a disc has its width, its light and even brightness", "[imaging][blur]") {
    for (const double diameter : {0.3, 1.0, 2.5, 6.0, 12.3, 19.9, 33.0, 70.0, 150.0}) {
        Raster picture(301, 301);
        picture.at(150, 150) = Rgba(0, 1, 0, 0);
        blur_by_disc(picture, diameter);
        INFO("diameter " << diameter);
        CHECK_THAT(sum_of(picture), WithinRel(1.0, 1e-3));
        if (diameter < 4) continue;
        const double area = 3.14159265 * diameter * diameter / 4;
        if (diameter < 20) CHECK_THAT(double(picture.at(150, 150)[1]), WithinRel(1 / area, 0.02));
        CHECK_THAT(width_of(picture), WithinAbs(diameter, 1.0));
    }
}

TEST_CASE("discs of light keep their light and grow to the right width", "[imaging][blur]") {
    for (const double diameter : {0.2, 1.0, 7.0, 31.0, 77.0, 180.0}) {
        Raster picture(301, 301);
        add_disc(picture, {.x = 150.5, .y = 150.5, .diameter = diameter, .flux = {2, 2, 2, 0}});
        CHECK_THAT(sum_of(picture), WithinRel(2.0, 2e-3));
        if (diameter > 4) CHECK_THAT(width_of(picture), WithinAbs(diameter, 1.0));
    }
}

TEST_CASE("lines and bells keep the light, and have their width", "[imaging][blur]") {
    Raster line(201, 3);
    line.at(100, 1) = Rgba(0, 1, 0, 0);
    draw_out(line, 31);
    CHECK_THAT(sum_of(line), WithinRel(1.0, 1e-4));
    CHECK_THAT(width_of(line), WithinAbs(31.0, 0.6));
    CHECK(line.at(100, 0)[1] == 0);
    // Upright the same, turned.
    Raster column(3, 201);
    column.at(1, 100) = Rgba(0, 1, 0, 0);
    draw_out_upright(column, 31);
    for (int i = 0; i < 201; ++i) CHECK(column.at(1, i)[1] == line.at(i, 1)[1]);
    CHECK(column.at(0, 100)[1] == 0);

    Raster bell(41, 41);
    bell.at(20, 20) = Rgba(0, 1, 0, 0);
    blur_by_bell(bell, 1.5);
    double spread = 0;
    for (int y = 0; y < 41; ++y)
        for (int x = 0; x < 41; ++x) spread += double(bell.at(x, y)[1]) * (x - 20) * (x - 20);
    CHECK_THAT(sum_of(bell), WithinRel(1.0, 1e-4));
    CHECK_THAT(std::sqrt(spread), WithinRel(std::hypot(1.5, 1 / std::sqrt(12.0)), 0.01));  // with the pixel itself
}

TEST_CASE("what is far behind a sharp subject blurs, and the subject hides it without a seam", "[imaging][finder]") {
    // The frame's right half is covered at the plane of focus; the background is white, and far.
    auto scene = test::chart(test::lens_at(4), 0, [](Place, double) { return 0.2; });
    const auto whole = scene.subject;
    scene.subject = [whole](Place place, double detail) { return place.x > 0 ? whole(place, detail) : std::nullopt; };
    scene.background_depth = 200;
    scene.background = [](Place) { return Rgba(1, 1, 1, 0); };
    const auto frame = Finder().render(scene, {.width = 240, .height = 160}).value();
    CHECK_THAT(double(frame.light.at(10, 80)[1]), WithinAbs(1.0, 1e-3));
    CHECK_THAT(double(frame.light.at(230, 80)[1]), WithinAbs(0.2, 1e-3));
    CHECK_THAT(double(frame.light.at(117, 80)[1]), WithinAbs(1.0, 0.02));  // sharp edge, no dark halo
    CHECK_THAT(double(frame.light.at(122, 80)[1]), WithinAbs(0.2, 0.02));
}

TEST_CASE("a blurred edge in front lets the sharp background show through by half at its middle", "[imaging][finder]") {
    auto scene = test::chart(test::lens_at(4), -40, [](Place, double) { return 0.0; });
    const auto whole = scene.subject;
    scene.subject = [whole](Place place, double detail) { return place.x > 0 ? whole(place, detail) : std::nullopt; };
    scene.background = [](Place) { return Rgba(1, 1, 1, 0); };
    const auto frame = Finder().render(scene, {.width = 240, .height = 160}).value();
    const double pitch = 0.1, disc = blur_disc(scene.lens, -40) / pitch;
    REQUIRE(disc > 20);
    CHECK_THAT((frame.light.at(119, 80)[1] + frame.light.at(120, 80)[1]) / 2.0, WithinAbs(0.5, 0.03));
    CHECK(frame.light.at(120 - static_cast<int>(disc / 2) - 2, 80)[1] > 0.98);
    CHECK(frame.light.at(120 + static_cast<int>(disc / 2) + 2, 80)[1] < 0.02);
}

TEST_CASE("an even subject deep out of focus on both sides stays even inside", "[imaging][finder]") {
    // A slope through the whole depth: layers must join without lines between them.
    auto scene = test::chart(test::lens_at(4), 0, [](Place, double) { return 0.4; });
    scene.nearest = -30;
    scene.farthest = 30;
    scene.subject = [](Place place, double) {
        Fragment fragment{.depth = static_cast<float>(place.x * 2.5)};
        fragment.albedo = Rgba::Constant(0.4f);
        return std::optional(fragment);
    };
    const auto frame = Finder().render(scene, {.width = 240, .height = 160}).value();
    for (int x = 0; x < 240; ++x) CHECK_THAT(double(frame.light.at(x, 80)[1]), WithinAbs(0.4, 2e-3));
}

TEST_CASE("layers hold every depth wholly between them and reach both ends", "[imaging][finder]") {
    const auto lens = test::lens_at(5.6);
    const auto layers = layers_of(lens, {.nearest = -12, .farthest = 25}, 0.02);
    REQUIRE(layers.size() > 4);
    CHECK(layers.front().depth == 25);
    CHECK(layers.back().depth == -12);
    for (std::size_t k = 1; k < layers.size(); ++k) {
        CHECK(layers[k].depth < layers[k - 1].depth);
        const double apart = std::abs(layers[k].diameter - layers[k - 1].diameter);
        const double narrower = std::min(layers[k].diameter, layers[k - 1].diameter);
        CHECK(apart <= std::max(0.02, 0.4 * narrower) + 1e-9);
        CHECK_THAT(layers[k].diameter, WithinAbs(optics::blur_disc(lens.imaging, layers[k].depth).value(), 1e-12));
        // Half way between two layers a point belongs to both by half.
        const auto middle = static_cast<float>((layers[k].depth + layers[k - 1].depth) / 2);
        CHECK_THAT(double(share_in(layers, k, middle)), WithinAbs(0.5, 1e-3));
        CHECK(share_in(layers, k - 1, middle) == 1);
    }
}

TEST_CASE("finder and report agree on generated plans", "[imaging][finder]") {
    for (unsigned seed = 0; seed < 60; ++seed) {
        auto shoot = test::random_shoot(seed);
        auto& shot = shoot.shots.front();
        const auto report = plan::assess(shoot.kit, shot, {});
        const auto scene = scene_of(shoot.kit, shot, report);
        INFO("seed " << seed);
        REQUIRE(scene.has_value() == report.optics.field_width.has_value());
        if (!scene) continue;
        // Discs at the ends of the depth of field are the blur limit; the background's is the report's.
        const auto& sharp = report.sharpness;
        if (sharp.near) CHECK_THAT(blur_disc(scene->lens, -*sharp.near), WithinRel(sharp.blur_limit, 1e-9));
        if (sharp.far) CHECK_THAT(blur_disc(scene->lens, *sharp.far), WithinRel(sharp.blur_limit, 1e-9));
        if (sharp.background_disc && *sharp.background_disc < 1000)
            CHECK_THAT(blur_disc(scene->lens, scene->background_depth), WithinRel(*sharp.background_disc, 1e-9));
        for (const bool behind : {true, false})
            if (const auto depth = depth_of_disc(scene->lens, 0.05, behind); depth && std::abs(*depth) < 1e6)
                CHECK_THAT(blur_disc(scene->lens, *depth), WithinRel(0.05, 1e-9));
        CHECK_THAT(scene->farthest - scene->nearest, WithinRel(report.extent.depth, 1e-9));
        CHECK_THAT(scene->motion, WithinRel(report.motion.blur + report.motion.sway_blur, 1e-12));
        const auto frame = Finder().render(*scene, {.width = 96, .height = 64});
        REQUIRE(frame);
        for (const auto& pixel : frame->light.pixels) REQUIRE(std::isfinite(pixel[0]));
    }
}

TEST_CASE("the finder shows the subject as large as the report says", "[imaging][finder]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject = {.width = 30, .height = 20, .depth = 0.01, .form = shoot::Form::slab};
    shot.ambient = shoot::Ambient{.ev100 = 10};
    const auto report = plan::assess(shoot.kit, shot, {});
    const auto frame = Finder().render(*scene_of(shoot.kit, shot, report), {.width = 480, .height = 320}).value();
    int across = 0, down = 0;
    for (int x = 0; x < 480; ++x) across += frame.depth_at(x, 160) != FinderFrame::no_subject;
    for (int y = 0; y < 320; ++y) down += frame.depth_at(240, y) != FinderFrame::no_subject;
    CHECK_THAT(double(across), WithinAbs(480 * 30 / *report.optics.field_width, 1.5));
    CHECK_THAT(double(down), WithinAbs(320 * 20 / *report.optics.field_height, 1.5));
}

TEST_CASE("an edge that runs through a pixel covers its share of it", "[imaging][finder]") {
    auto scene = test::chart(test::lens_at(4), 0, [](Place, double) { return 0.0; });
    const auto whole = scene.subject;
    scene.subject = [whole](Place place, double detail) {
        return place.x > 0.03 ? whole(place, detail) : std::nullopt;
    };
    scene.background = [](Place) { return Rgba(1, 1, 1, 0); };
    const auto frame = Finder().render(scene, {.width = 240, .height = 160}).value();  // 0.1 mm a pixel
    CHECK_THAT(double(frame.light.at(120, 80)[1]), WithinAbs(0.3, 0.13));              // four by four rays
    CHECK(frame.light.at(119, 80)[1] > 0.98);
    CHECK(frame.light.at(121, 80)[1] < 0.02);
}

TEST_CASE("depths are told from the plane of focus, wherever that lies", "[imaging][finder]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject = {.width = 30, .height = 20, .depth = 8, .form = shoot::Form::ball};
    for (const double offset : {0.0, -4.0, 2.5}) {
        shot.sharpness.focus_offset = offset;
        const auto frame =
            Finder()
                .render(*scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {})), {.width = 96, .height = 64})
                .value();
        CHECK_THAT(double(frame.depth_at(48, 32)), WithinAbs(-4 - offset, 0.05));  // the middle of a ball is nearest
    }
}

TEST_CASE("exposure shows: mid grey at zero stops, twice the light at one, clipped beyond", "[imaging][finder]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject = {.width = 400, .height = 300, .depth = 0, .reflectance = 0.18, .form = shoot::Form::slab};
    shot.lights = {test::plain_light()};
    shot.lights.front().position = {.distance = 500};  // straight from the front
    shot.background.reset();
    const auto mean = [&](double power_stops) {
        auto lit_shot = shot;
        const auto automatic = plan::assess(shoot.kit, shot, {});
        lit_shot.lights.front().power = automatic.light.sources.front().power * std::exp2(power_stops);
        const auto report = plan::assess(shoot.kit, lit_shot, {});
        auto scene = *scene_of(shoot.kit, lit_shot, report);
        const auto plain = scene.subject;
        scene.subject = [plain](Place place, double detail) {
            auto fragment = plain(place, detail);
            if (fragment) fragment->albedo = Rgba::Constant(0.18f);  // without its texture
            return fragment;
        };
        const auto frame = Finder().render(scene, {.width = 48, .height = 32}).value();
        return std::pair(double(frame.light.at(24, 16)[0]), clipped(frame.light).white);
    };
    CHECK_THAT(mean(0).first, WithinRel(0.18, 1e-3));
    CHECK_THAT(mean(1).first, WithinRel(0.36, 1e-3));
    CHECK(mean(2.4).second == 0);  // log2(1 / 0.18) = 2.47
    CHECK(mean(2.6).second == 1);
}

TEST_CASE("development follows the sRGB curve and marks what is clipped", "[imaging][finder]") {
    Raster light(24, 8);
    for (auto& pixel : light.pixels) pixel = opaque({0.18f, 0.18f, 0.18f, 0});
    // IEC 61966-2-1: 0.18 is code 118 of 255.
    CHECK(develop(light).rgb.front() == 118);
    for (auto& pixel : light.pixels) pixel = opaque({1.5f, 0.2f, 0.2f, 0});
    const auto plain = develop(light), marked = develop(light, Clipping::marked);
    CHECK(plain.rgb.front() == 255);
    CHECK(plain.rgb != marked.rgb);
    CHECK(clipped(light).white == 1);
    for (auto& pixel : light.pixels) pixel = opaque(Rgba::Zero());
    CHECK(clipped(light).black == 1);
    CHECK(develop(light).rgb != develop(light, Clipping::marked).rgb);
}

TEST_CASE("a finder keeps nothing it should see anew", "[imaging][finder]") {
    auto shoot = test::plain_shoot();
    auto shot = shoot.shots.front();
    shot.ambient = shoot::Ambient{.ev100 = 8};
    Finder kept;
    const auto shows_the_same = [&] {
        const auto report = plan::assess(shoot.kit, shot, {});
        const auto scene = *scene_of(shoot.kit, shot, report);
        const auto one = kept.render(scene, {.width = 96, .height = 64}).value();
        const auto other = Finder().render(scene, {.width = 96, .height = 64}).value();
        return develop(one.light) == develop(other.light);
    };
    CHECK(shows_the_same());
    shot.exposure.f_number = 22;
    CHECK(shows_the_same());
    // Each source by itself, then where it stands and how wide it is.
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.5;
    CHECK(shows_the_same());
    shot.lights[0].power = 0.125;
    CHECK(shows_the_same());
    shot.ambient->ev100 = 10;
    CHECK(shows_the_same());
    shot.lights[0].position.azimuth += 40;
    CHECK(shows_the_same());
    shot.lights[0].modifier = shoot.kit.modifiers.at(0).id;
    CHECK(shows_the_same());
    shot.subject.traits = {"polished"};
    CHECK(shows_the_same());
    shot.subject.tilt = 30;
    CHECK(shows_the_same());
    shot.sharpness.focus_offset = 0.4;
    CHECK(shows_the_same());
    shot.subject.colour = text::Colour{200, 40, 40};
    CHECK(shows_the_same());
    shot.rig.focus.value = 0.3;
    CHECK(shows_the_same());
    shot.subject.form = shoot::Form::height_map;
    shot.subject.height_map = shoot::HeightMap{.width = 2, .height = 2, .heights = {0, 255, 128, 30}};
    CHECK(shows_the_same());
    shot.subject.height_map = shoot::HeightMap{.width = 2, .height = 2, .heights = {0, 10, 128, 30}};
    CHECK(shows_the_same());
}

TEST_CASE("a layer of coarse cells is the mean of the fine one's pixels", "[imaging][finder]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.ambient = shoot::Ambient{.ev100 = 9};
    shot.exposure.f_number = 2.8;
    const auto scene = *scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
    Sight sight;
    look(scene, {.width = 97, .height = 63, .pitch = scene.frame_width / 97, .centre = {}}, sight);
    Lights lights;
    light_up(scene, sight, lights);
    const auto layers = layers_of(scene.lens, sight.range, 0.02);
    REQUIRE(layers.size() > 4);
    Cells fine, coarse;
    fine.gather(sight, lights, 1);
    coarse.gather(sight, lights, 4);
    for (std::size_t k = 0; k < layers.size(); ++k) {
        const auto share = [&](float depth) { return share_in(layers, k, depth); };
        Raster small, large;
        fine.fill_layer(large, {0, 0, 97, 63}, share);
        coarse.fill_layer(small, {0, 0, 97, 63}, share);
        REQUIRE(small.width == 25);
        double off = 0;
        for (int y = 0; y < small.height; ++y)
            for (int x = 0; x < small.width; ++x) {
                Rgba sum = Rgba::Zero();
                int count = 0;
                for (int j = 4 * y; j < std::min(4 * y + 4, 63); ++j)
                    for (int i = 4 * x; i < std::min(4 * x + 4, 97); ++i, ++count) sum += large.at(i, j);
                off = std::max(
                    off, static_cast<double>((small.at(x, y) - sum / static_cast<float>(count)).abs().maxCoeff()));
            }
        CHECK(off < 1e-5);
    }
}

TEST_CASE("extreme magnifications, sizes and stops still give a frame", "[imaging][finder]") {
    for (const double m : {0.02, 0.5, 3.0, 20.0})
        for (const double depth : {0.0, 0.001, 5.0, 300.0})
            for (const double f_number : {0.9, 8.0, 64.0}) {
                auto shoot = test::plain_shoot();
                auto& shot = shoot.shots.front();
                shoot.kit.bellows.front().greatest = 4000;
                shot.rig.bellows =
                    shoot::BellowsSetting{.bellows = "bellows", .extension = std::max(40.0, (m - 1) * 100)};
                if (m < 1) shot.rig.bellows.reset();
                shot.rig.focus.value = m;
                shot.subject.depth = depth;
                shot.subject.width = shot.subject.height = 20 / m;
                shot.exposure.f_number = f_number;
                shot.ambient = shoot::Ambient{.ev100 = 10};
                shot.background = shoot::Background{.distance = 1e5, .kind = shoot::BackgroundKind::scene};
                const auto report = plan::assess(shoot.kit, shot, {});
                const auto scene = scene_of(shoot.kit, shot, report);
                INFO("m " << report.optics.magnification << ", depth " << depth << ", f/" << f_number);
                REQUIRE(scene);
                const auto frame = Finder().render(*scene, {.width = 60, .height = 40});
                REQUIRE(frame);
                for (const auto& pixel : frame->light.pixels) REQUIRE(std::isfinite(pixel[1]));
            }
}
