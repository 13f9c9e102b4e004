#include "shoot/form/form.hpp"

#include "plan/assess.hpp"
#include "shoot/form/attitude.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <array>

using namespace poquito;
using namespace shoot;
using namespace plan;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

Subject subject_of(Form form) {
    Subject subject{.width = 30, .height = 20, .depth = 8, .form = form};
    if (form == Form::height_map)
        subject.height_map = HeightMap{.width = 3, .height = 2, .heights = {10, 60, 200, 30, 120, 90}};
    return subject;
}

constexpr double pi = 3.14159265358979323846;

}  // namespace

TEST_CASE("every form fills its measured box and no more, from nearest to farthest", "[shoot][form]") {
    for (const auto& [form, name] : forms()) {
        const Surface surface(subject_of(form));
        INFO(name);
        Point3 low{1e9, 1e9, 1e9}, high{-1e9, -1e9, -1e9};
        constexpr int samples = 400;
        for (int i = 0; i <= samples; ++i)
            for (int j = 0; j <= samples; ++j)
                if (const auto at = surface.point(2.0 * i / samples - 1, 2.0 * j / samples - 1)) {
                    low = {std::min(low.x, at->x), std::min(low.y, at->y), std::min(low.z, at->z)};
                    high = {std::max(high.x, at->x), std::max(high.y, at->y), std::max(high.z, at->z)};
                }
        CHECK_THAT(low.z, WithinAbs(-4, 0.04));
        CHECK_THAT(high.z, WithinAbs(4, 0.04));
        CHECK(low.x >= -15 - 1e-9);
        CHECK(high.y <= 10 + 1e-9);
        const double slack = form == Form::grains ? 5 : 0.5;  // a heap's outermost grains leave some of the box free
        CHECK(high.x - low.x > 30 - slack);
        CHECK(high.y - low.y > 20 - slack);
    }
}

TEST_CASE("a ray meets the surface where the form has it, whatever the attitude", "[shoot][form]") {
    for (const auto& [form, name] : forms())
        for (const auto& [tilt, turn] : {std::pair(0.0, 0.0), std::pair(25.0, -40.0), std::pair(-60.0, 10.0)}) {
            Subject subject = subject_of(form);
            subject.tilt = tilt;
            subject.turn = turn;
            const Surface surface(subject);
            int met = 0, seen = 0;
            for (int i = -8; i <= 8; ++i)
                for (int j = -8; j <= 8; ++j) {
                    const auto point = surface.point(i / 9.0, j / 9.0);
                    if (!point) continue;
                    ++seen;
                    const auto hit = surface.hit({.x = point->x, .y = point->y});
                    INFO(name << " tilted " << tilt << ", turned " << turn << ", at " << i << " " << j);
                    // On a rim a ray may pass beside, and between two steps slip past the edge of a grain.
                    if (!hit || hit->z > point->z + 0.05) continue;
                    ++met;  // that point, or one in front of it
                    CHECK_THAT(std::hypot(hit->normal.x, hit->normal.y, hit->normal.z), WithinRel(1.0, 1e-9));
                }
            INFO(name);
            CHECK(met >= seen * 0.93);
        }
}

TEST_CASE("a flat subject at an angle presents W sin t", "[shoot][form]") {
    // MODEL 2; a slab of no depth of its own.
    for (const double angle : {5.0, 30.0, 60.0}) {
        Subject slab{.width = 30, .height = 20, .depth = 0, .form = Form::slab, .tilt = angle};
        CHECK_THAT(presented_extent(slab).depth, WithinRel(20 * std::sin(angle * pi / 180), 1e-6));
        CHECK_THAT(presented_extent(slab).height, WithinRel(20 * std::cos(angle * pi / 180), 1e-6));
        slab.tilt = 0;
        slab.turn = -angle;
        CHECK_THAT(presented_extent(slab).depth, WithinRel(30 * std::sin(angle * pi / 180), 1e-6));
        CHECK_THAT(presented_extent(slab).width, WithinRel(30 * std::cos(angle * pi / 180), 1e-6));
    }
}

TEST_CASE("tilted away, the top lies farther - turned away, the right side", "[shoot][form]") {
    Subject slab{.width = 30, .height = 20, .depth = 0, .form = Form::slab, .tilt = 30};
    CHECK(Surface(slab).hit({.y = 5})->z > Surface(slab).hit({.y = -5})->z);
    slab.tilt = 0;
    slab.turn = 30;
    CHECK(Surface(slab).hit({.x = 5})->z > Surface(slab).hit({.x = -5})->z);
}

TEST_CASE("the report follows the turned subject", "[shoot][form]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject = {.width = 20, .height = 10, .depth = 0, .form = Form::slab, .turn = 30};
    shot.capture.mode = CaptureMode::stack;
    const auto report = assess(shoot.kit, shot, {});
    CHECK_THAT(report.extent.depth, WithinRel(10.0, 1e-6));  // 20 sin 30
    auto flat = shot;
    flat.subject.turn = 0;
    flat.subject.depth = 10;
    CHECK(assess(shoot.kit, flat, {}).capture.frames == report.capture.frames);
    CHECK(report.capture.frames > 1);
}

TEST_CASE(
    "focus away from the middle: ends blur more, the background by its own distance, the stack stays on the subject",
    "[shoot][form]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 4;
    shot.background = Background{.distance = 100};
    shot.capture.mode = CaptureMode::stack;
    const auto middle = assess(shoot.kit, shot, {});
    shot.sharpness.focus_offset = 1;
    const auto behind = assess(shoot.kit, shot, {});
    CHECK_THAT(*behind.sharpness.edge_blur, same(*middle.sharpness.edge_blur * 3 / 2));
    CHECK(*behind.sharpness.background_disc < *middle.sharpness.background_disc);
    CHECK(behind.sharpness.best_single_f_number == middle.sharpness.best_single_f_number);
    CHECK_THAT(behind.capture.travel->first, same(middle.capture.travel->first - 1));
    CHECK(behind.capture.frames == middle.capture.frames);
}

TEST_CASE("the plane through three points is faced", "[shoot][attitude]") {
    // A slab with depth of its own is a plane: facing it leaves no depth.
    Subject slab{.width = 30, .height = 20, .depth = 8, .form = Form::slab};
    for (const auto& now : {Attitude{}, Attitude{20, -15}}) {
        const Subject turned = faced(slab, now);
        const Surface surface(turned);
        const auto attitude =
            facing_plane(turned, {*surface.point(-0.8, -0.7), *surface.point(0.9, -0.5), *surface.point(0.1, 0.8)});
        REQUIRE(attitude);
        CHECK_THAT(presented_extent(faced(slab, *attitude)).depth, WithinAbs(0, 1e-6));
        CHECK_THAT(attitude->tilt, WithinAbs(-std::atan2(8, 20) * 180 / pi, 1e-6));  // its top comes forward
    }
    // One face of a box that stands corner on: turned, all three points lie equally deep.
    const Subject box{.width = 30, .height = 20, .depth = 8, .form = Form::box};
    const double places[3][2] = {{0, -0.5}, {0.9, -0.5}, {0.5, 0.8}};
    const auto depths_of = [&](const Subject& one) {
        const Surface relief(one);
        std::array<Point3, 3> points;
        for (std::size_t i = 0; i < 3; ++i) points[i] = *relief.point(places[i][0], places[i][1]);
        return points;
    };
    const auto face = facing_plane(box, depths_of(box)).value();
    CHECK(std::abs(face.turn) > 10);
    const auto [p, q, r] = depths_of(faced(box, face));
    CHECK_THAT(p.z, WithinAbs(q.z, 1e-6));
    CHECK_THAT(p.z, WithinAbs(r.z, 1e-6));

    const Surface surface(slab);
    const auto a = *surface.point(0, -0.5), b = *surface.point(0, 0.5);
    CHECK_FALSE(facing_plane(slab, {a, b, {(a.x + b.x) / 2, (a.y + b.y) / 2, (a.z + b.z) / 2}}).has_value());
    CHECK_FALSE(facing_plane(slab, {a, a, b}).has_value());
}

TEST_CASE("the least depth is found, and never more than now", "[shoot][attitude]") {
    const Subject slab{.width = 30, .height = 20, .depth = 8, .form = Form::slab};
    CHECK(presented_extent(faced(slab, least_depth(slab))).depth < 0.2);  // to half a degree
    for (const auto& [form, name] : forms()) {
        const Subject subject = subject_of(form);
        INFO(name);
        CHECK(presented_extent(faced(subject, least_depth(subject))).depth <= 8 + 1e-9);
    }
    CHECK_THAT(angle_between({0, 0}, {0, 30}), WithinAbs(30, 1e-9));
    CHECK_THAT(angle_between({10, 0}, {-20, 0}), WithinAbs(30, 1e-9));
}

TEST_CASE("a surface is what the class of subject has, unless one says otherwise", "[shoot][form]") {
    const auto of = [](Form form, std::vector<std::string> traits) {
        return texture_of({.form = form, .traits = std::move(traits)});
    };
    CHECK(of(Form::insect, {"living", "outdoors"}) == Texture::hairs);
    CHECK(of(Form::slab, {"person"}) == Texture::pores);
    CHECK(of(Form::folds, {}) == Texture::weave);
    CHECK(of(Form::folds, {"polished"}) == Texture::scratches);
    CHECK(of(Form::leaf, {"living"}) == Texture::veins);
    CHECK(of(Form::leaf, {}) == Texture::pores);
    CHECK(of(Form::bowl, {"outdoors"}) == Texture::veins);
    CHECK(of(Form::dome, {"food"}) == Texture::crystals);
    CHECK(of(Form::box, {}) == Texture::print);
    CHECK(of(Form::ball, {}) == Texture::stone);
    CHECK(texture_of({.form = Form::insect, .texture = Texture::print}) == Texture::print);
}
