#include "imaging/inspect/composite.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <limits>

using namespace poquito::imaging;

namespace {

constexpr float unknown = std::numeric_limits<float>::quiet_NaN();

struct Plain {
    std::vector<std::uint8_t> bytes;
    RgbPicture picture;

    Plain(int width, int height, std::uint8_t value)
        : bytes(std::size_t{3} * static_cast<std::size_t>(width) * static_cast<std::size_t>(height), value),
          picture{.bytes = bytes.data(),
                  .width = width,
                  .height = height,
                  .stride = std::size_t{3} * static_cast<std::size_t>(width)} {}
};

}  // namespace

TEST_CASE("holes in a map are filled from what is about them, so far and no further", "[inspect]") {
    CellMap map(5, 1);
    map.values = {2, unknown, unknown, unknown, 6};
    const auto all = filled(map);
    CHECK(all.values == std::vector<float>{2, 2, 4, 6, 6});
    const auto near = filled(map, 1);
    CHECK(near.at(1, 0) == 2);
    CHECK(std::isnan(near.at(2, 0)));
    map.values.assign(5, unknown);
    CHECK(std::isnan(filled(map).at(0, 0)));
}

TEST_CASE("a composite has each place from the frames focused about its depth", "[inspect]") {
    constexpr int side = 16;
    const Plain near(side, side, 40), far(side, side, 200);
    CellMap depths(2, 1);
    depths.values = {0, 1};
    const std::vector<CompositeFrame> frames = {{.picture = near.picture, .to_frame = {}, .plane = 0},
                                                {.picture = far.picture, .to_frame = {}, .plane = 1}};
    const auto made = composite(frames, depths, 8);
    REQUIRE(made.size() == std::size_t{3} * side * side);
    CHECK(made[0] == 40);                // the left tile
    CHECK(made[3 * (side - 1)] == 200);  // the right one
    CHECK(made[3 * (side / 2)] > 100);   // between them, both
    CHECK(made[3 * (side / 2)] < 140);
    CHECK(composite(frames, depths, 8, [] { return false; }).empty());
    CHECK(composite({}, depths, 8).empty());
    depths.values = {unknown, unknown};
    CHECK(composite(frames, depths, 8).empty());
}

TEST_CASE("a composite takes each frame from where it lies", "[inspect]") {
    constexpr int side = 12;
    Plain moved(side, side, 0);
    moved.bytes[3 * (5 * side + 8)] = 255;  // red, at 8, 5
    CellMap depths(1, 1);
    depths.values = {0};
    const auto made = composite({{.picture = moved.picture, .to_frame = {.dx = 3}, .plane = 0}}, depths, side);
    CHECK(made[3 * (5 * side + 5)] == 255);
    CHECK(made[3 * (5 * side + 8)] == 0);
}
