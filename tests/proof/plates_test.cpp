// Whether plates lie on one another, what a rule in the frame says, and pictures cut from files.
#include "proof/inspection.hpp"

#include "imaging/colour.hpp"
#include "plan/assess.hpp"
#include "proof/cut_picture.hpp"
#include "proof/delivery.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "shoot/staging.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "support/stacks.hpp"

#include <tiffio.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

using namespace poquito;
using namespace proof;
using test::Photographs;
using test::same;
using test::Stack;

namespace {

std::ptrdiff_t place(const storage::FramePicture& picture, int x, int y) {
    return 3 * (static_cast<std::ptrdiff_t>(y) * picture.width + x);
}

/// So many pixels to the right and down; what comes in from outside repeats the edge.
void shift(storage::FramePicture& picture, int right, int down) {
    const auto from = picture;
    for (int y = 0; y < picture.height; ++y)
        for (int x = 0; x < picture.width; ++x) {
            const int fx = std::clamp(x - right, 0, picture.width - 1),
                      fy = std::clamp(y - down, 0, picture.height - 1);
            std::copy_n(from.rgb.begin() + place(from, fx, fy), 3, picture.rgb.begin() + place(picture, x, y));
        }
}

std::vector<std::string> texts(const FrameFacts& frame, Code code) {
    std::vector<std::string> all;
    for (const auto& finding : frame.findings)
        if (finding.code == code) all.push_back(finding.text);
    return all;
}

/// A picture of that light in each half, left and right.
storage::FramePicture halves(int width, int height, unsigned char left, unsigned char right) {
    storage::FramePicture picture{.width = width, .height = height, .rgb = {}};
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            for (int c = 0; c < 3; ++c) picture.rgb.push_back(x < width / 2 ? left : right);
    return picture;
}

}  // namespace

TEST_CASE("a plate that does not lie on the first one is told, by how much, and whether its ground matches",
          "[proof][plates]") {
    const Photographs scene({.glints = 0});
    Stack frames(scene);
    frames.put({.focus = 6}, 1);
    frames.put({.focus = 6}, 2);
    frames.touch = [](storage::FramePicture& picture, int) { shift(picture, 14, -9); };
    frames.put({.focus = 6}, 3);
    frames.touch = nullptr;
    frames.put({.focus = 6, .stops = 0.5}, 4);
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure = {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 100};
    shoot.kit.lenses[0].optics.focal_length = 90;
    const auto told = [&](std::size_t frame, bool alike = true) {
        const auto inspection =
            *inspect({.files = {frames.files()[frame]},
                      .kit = &shoot.kit,
                      .shot = &shot,
                      .singles = true,
                      .laid_on = LaidOn{.file = frames.files()[0], .name = "Hero", .alike = alike}});
        return inspection.frames[0];
    };
    CHECK(texts(told(1), Code::moved).empty());
    CHECK(texts(told(1), Code::uneven).empty());
    const auto moved = texts(told(2), Code::moved);
    REQUIRE(moved.size() == 1);
    CHECK(moved[0].find("Hero") != std::string::npos);
    // By the pixel or two.
    int right = 0, up = 0;
    REQUIRE(std::sscanf(moved[0].c_str() + moved[0].find("moved by"), "moved by %d px to the right and %d px up",
                        &right, &up) == 2);
    CHECK(std::abs(right - 14) <= 2);
    CHECK(std::abs(up - 9) <= 2);
    CHECK(texts(told(3), Code::moved).empty());
    REQUIRE(texts(told(3), Code::uneven).size() == 1);
    CHECK(texts(told(3), Code::uneven)[0].find("0.5 stops lighter") != std::string::npos);
    CHECK(texts(told(3, false), Code::uneven).empty());  // a shadow plate is lit otherwise
}

TEST_CASE("a rule in the frame tells at what size the frame was really taken", "[proof][plates]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject = {.width = 20, .height = 12, .depth = 2, .reflectance = 0.3};
    shot.ambient = shoot::Ambient{};
    shot.background = shoot::Background{};
    shot.staging = {shoot::rule_of(20)};
    shot.staging[0].id = "rule";
    shot.staging[0].subject.height = 6;
    shot.staging[0].behind = -1;
    shot.staging[0].right = 0;
    shot.subject.height = 4;
    const test::Folder folder;
    /// As a camera takes it that stands for another magnification.
    const auto taken = [&](double m, const char* name) {
        auto other = shot;
        other.rig.focus.value = m;
        const auto plan = plan::plan_of(shoot.kit, other, {});
        const auto scene = *render::scene_of(plan, plan::assess(plan));
        const auto frame = *render::Finder().render(scene, {.width = 960, .height = 640});
        const auto developed = render::develop(frame.light, render::Clipping::as_is);
        storage::FramePicture picture{.width = 960, .height = 640, .rgb = developed.rgb};
        const auto path = folder / name;
        REQUIRE(storage::replace_file(path, storage::frame_file(picture, {}).value()));
        const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot, .singles = true});
        std::vector<std::string> all;
        for (const auto& text : texts(inspection.frames[0], Code::settings))
            if (text.find("rule") != std::string::npos || text.find("Rule") != std::string::npos) all.push_back(text);
        return all;
    };
    CHECK(taken(0.5, "as-planned.jpg").empty());
    const auto nearer = taken(0.53, "nearer.jpg");
    REQUIRE(nearer.size() == 1);
    CHECK(nearer[0].find("0.53") != std::string::npos);
    double larger = 0;
    REQUIRE(std::sscanf(nearer[0].c_str() + nearer[0].find(", "), ", %lf %% larger", &larger) == 1);
    CHECK(std::abs(larger - 6) < 0.5);
    shot.staging[0].subject.texture = shoot::Texture::stone;  // something else lies there
    const auto other = shot;
    shot.staging[0].subject.texture = shoot::Texture::ticks;
    const auto plan = plan::plan_of(shoot.kit, other, {});
    const auto frame =
        *render::Finder().render(*render::scene_of(plan, plan::assess(plan)), {.width = 960, .height = 640});
    const storage::FramePicture picture{
        .width = 960, .height = 640, .rgb = render::develop(frame.light, render::Clipping::as_is).rgb};
    const auto path = folder / "no-rule.jpg";
    REQUIRE(storage::replace_file(path, storage::frame_file(picture, {}).value()));
    const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot, .singles = true});
    const auto said = texts(inspection.frames[0], Code::settings);
    CHECK(
        std::ranges::any_of(said, [](const std::string& text) { return text.find("not seen") != std::string::npos; }));
}

TEST_CASE("a picture is cut, set beside another, made smaller by light, and set up as it was held", "[proof][cut]") {
    const test::Folder folder;
    const auto file = [&](const char* name, const storage::FramePicture& picture) {
        auto path = folder / name;
        REQUIRE(storage::replace_file(path, storage::frame_file(picture, {}).value()));
        return path;
    };
    const auto one = file("one.jpg", halves(120, 80, 30, 220)), other = file("other.jpg", halves(60, 40, 100, 100));
    const auto cut = [](const std::vector<PicturePart>& parts, std::optional<double> most = {}) {
        return cut_picture(parts, most).value();
    };
    const auto code = [](const storage::FramePicture& picture, int x, int y) {
        return static_cast<int>(picture.rgb[static_cast<std::size_t>(place(picture, x, y))]);
    };
    // The right half of it, whole pixels as they are.
    const auto half = cut({{.file = one, .left = 0.5, .width = 0.5}});
    CHECK(half.width == 60);
    CHECK(half.height == 80);
    CHECK(std::abs(code(half, 30, 40) - 220) <= 2);
    // Two beside one another are as high as the lower one.
    const auto both = cut({{.file = one}, {.file = other}});
    CHECK(both.height == 40);
    CHECK(both.width == 120);
    CHECK(std::abs(code(both, 10, 20) - 30) <= 3);
    CHECK(std::abs(code(both, 90, 20) - 100) <= 3);
    // Never larger; smaller where the outlet takes no more. A grey of black and white is of their light, not their
    // codes.
    CHECK(cut({{.file = other}}, 5000).width == 60);
    storage::FramePicture stripes{.width = 64, .height = 64, .rgb = {}};
    for (int i = 0; i < 64 * 64; ++i)
        for (int c = 0; c < 3; ++c) stripes.rgb.push_back((i / 64 / 8) % 2 == 0 ? 255 : 0);
    const auto grey = cut({{.file = file("stripes.jpg", stripes)}}, 4);
    CHECK(grey.width == 4);
    CHECK(std::abs(code(grey, 2, 2) - std::lround(imaging::to_encoded(0.5) * 255)) <= 3);
    // As it was held: the file's top lies at the left, below or at the right, by its EXIF (TIFF 6.0).
    const auto lying = [&](const char* name, int orientation) {
        auto path = folder / name;
        auto* tiff = TIFFOpen(path.c_str(), "w");
        TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, 40);
        TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, 20);
        TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
        TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 3);
        TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
        TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
        TIFFSetField(tiff, TIFFTAG_ORIENTATION, orientation);
        for (int y = 0; y < 20; ++y) {
            // Its quarters: 10 and 60 above, 120 and 200 below.
            std::vector<unsigned char> row;
            for (int x = 0; x < 40; ++x)
                row.insert(row.end(), 3,
                           static_cast<unsigned char>(y < 10 ? (x < 20 ? 10 : 60) : (x < 20 ? 120 : 200)));
            TIFFWriteScanline(tiff, row.data(), static_cast<std::uint32_t>(y));
        }
        TIFFClose(tiff);
        return path;
    };
    const auto quarters = [&](const char* name, int orientation, double left = 0, double width = 1) {
        const auto picture = cut({{.file = lying(name, orientation), .left = left, .width = width}});
        const int w = picture.width, h = picture.height;
        return std::vector<int>{
            w, h, code(picture, 0, 0), code(picture, w - 1, 0), code(picture, 0, h - 1), code(picture, w - 1, h - 1)};
    };
    CHECK(quarters("1.tif", 1) == std::vector<int>{40, 20, 10, 60, 120, 200});
    CHECK(quarters("3.tif", 3) == std::vector<int>{40, 20, 200, 120, 60, 10});
    CHECK(quarters("6.tif", 6) == std::vector<int>{20, 40, 120, 10, 200, 60});  // a quarter clockwise
    CHECK(quarters("8.tif", 8) == std::vector<int>{20, 40, 60, 200, 10, 120});
    // Its left half as one sees it.
    CHECK(quarters("6.tif", 6, 0, 0.5) == std::vector<int>{10, 40, 120, 120, 200, 200});
    CHECK(quarters("8.tif", 8, 0, 0.5) == std::vector<int>{10, 40, 60, 60, 10, 10});
    CHECK(!cut_picture({{.file = folder / "none.jpg"}}, {}));
    CHECK(!cut_picture({}, {}));
}
