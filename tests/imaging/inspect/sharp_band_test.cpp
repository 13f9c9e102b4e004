// A rule that leans back: where it is sharp is found again in pictures made sharp there.
#include "imaging/inspect/sharp_band.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace poquito;
using imaging::GreyImage;
using test::WithinAbs;

namespace {

/// Ticks and grain, blurred along each row and column the more the further it is from the sharp row; noise on top.
GreyImage rule(double sharp, test::Random& random) {
    GreyImage image{.width = 240, .height = 320};
    std::vector<float> plain(static_cast<std::size_t>(image.width * image.height));
    for (int y = 0; y < image.height; ++y)
        for (int x = 0; x < image.width; ++x)
            plain[static_cast<std::size_t>(y * image.width + x)] =
                (y % 9 < 2 && x > 60 ? 0.1F : 0.85F) + static_cast<float>(random.between(-0.1, 0.1));
    image.pixels.resize(plain.size());
    for (int y = 0; y < image.height; ++y) {
        const int reach = static_cast<int>(std::abs(y - sharp) / 14);
        for (int x = 0; x < image.width; ++x) {
            float sum = 0;
            int count = 0;
            for (int dy = -reach; dy <= reach; ++dy)
                for (int dx = -reach; dx <= reach; ++dx) {
                    const int px = std::clamp(x + dx, 0, image.width - 1), py = std::clamp(y + dy, 0, image.height - 1);
                    sum += plain[static_cast<std::size_t>(py * image.width + px)];
                    ++count;
                }
            image.pixels[static_cast<std::size_t>(y * image.width + x)] =
                sum / static_cast<float>(count) + static_cast<float>(random.between(-0.01, 0.01));
        }
    }
    return image;
}

}  // namespace

TEST_CASE("the sharp row of a leaning rule is found", "[imaging][band]") {
    for (unsigned seed = 0; seed < 12; ++seed) {
        test::Random random(seed);
        const double sharp = random.between(50, 270);
        const auto band = imaging::sharp_band(rule(sharp, random));
        REQUIRE(band);
        INFO("seed " << seed);
        CHECK_THAT(band->row, WithinAbs(sharp, 6));
        CHECK(band->uncertainty < 6);
    }
}

TEST_CASE("a picture that is alike everywhere has no band", "[imaging][band]") {
    GreyImage flat{.width = 100, .height = 100, .pixels = std::vector<float>(10000, 0.5F)};
    CHECK_FALSE(imaging::sharp_band(flat));
    test::Random random(1);
    for (auto& pixel : flat.pixels) pixel = static_cast<float>(random.between(0, 1));
    CHECK_FALSE(imaging::sharp_band(flat));
    CHECK_FALSE(imaging::sharp_band({.width = 2, .height = 2, .pixels = {0, 1, 0, 1}}));
}

TEST_CASE("travel along the axis by hand", "[imaging][band]") {
    // 300 rows of 4 um at 0.5: 2.4 mm across the axis; at 45 degrees as much along it, at 30 degrees 1.3856 mm.
    CHECK_THAT(imaging::travel_along_axis(300, 0.004, 0.5, 45), WithinAbs(2.4, 1e-9));
    CHECK_THAT(imaging::travel_along_axis(300, 0.004, 0.5, 30), WithinAbs(2.4 / std::sqrt(3.0), 1e-9));
}
