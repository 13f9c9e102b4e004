// Frames of every small size: strips, dots and thumbnails are measured like any other.
#include "imaging/inspect/frame_scan.hpp"
#include "support/matchers.hpp"

#include <cmath>
#include <vector>

using namespace poquito;

TEST_CASE("a frame of any size is measured, the smallest and the narrowest too", "[imaging][scan]") {
    const auto measure = [](int width, int height) {
        INFO(width << " x " << height);
        imaging::FrameScanner colour(width, height), luma(width, height);
        std::vector<std::uint8_t> rgb(static_cast<std::size_t>(width) * 3), grey(static_cast<std::size_t>(width));
        const std::vector<std::uint8_t> half(static_cast<std::size_t>(width), 128);
        for (int y = 0; y < height; ++y) {
            for (int x = 0; x < width; ++x) {
                const auto value = static_cast<std::uint8_t>((x * 37 + y * 91) & 0xFF);
                grey[static_cast<std::size_t>(x)] = value;
                for (std::size_t c = 0; c < 3; ++c) rgb[static_cast<std::size_t>(x) * 3 + c] = value;
            }
            colour.row(rgb.data());
            luma.row(grey.data(), half.data(), half.data(), 1);
        }
        for (auto* scanner : {&colour, &luma}) {
            const auto scan = scanner->finish();
            CHECK(scan.width == width);
            CHECK(scan.height == height);
            CHECK(std::isfinite(scan.median_stops));
            CHECK(std::isfinite(scan.structure.directed()));
            for (const auto* map :
                 {&scan.light, &scan.level, &scan.clipped, &scan.detail, &scan.middling, &scan.coarse})
                for (const float value : map->values) CHECK(std::isfinite(value));
        }
    };
    for (int width = 1; width <= 26; ++width)
        for (int height = 1; height <= 26; ++height) measure(width, height);
    for (const int narrow : {1, 2, 3, 4, 5, 7}) {
        measure(narrow, 900);
        measure(900, narrow);
    }
}
