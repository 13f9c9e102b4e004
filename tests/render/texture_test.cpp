#include "render/texture.hpp"

#include "render/loupe.hpp"
#include "shoot/subject.hpp"
#include "support/matchers.hpp"
#include "support/scenes.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace imaging;
using namespace render;
using shoot::Texture;
using test::WithinAbs;

namespace {

constexpr Texture kinds[] = {Texture::stone, Texture::hairs,    Texture::pores,     Texture::weave,
                             Texture::veins, Texture::crystals, Texture::scratches, Texture::print};

/// How much neighbours differ in a loupe's window of that surface, of their mean.
double crispness(Texture kind, double magnification, double f_number, double depth) {
    const auto scene = test::chart(test::lens_at(f_number), depth, [&](Place place, double detail) {
        const Detail seen{.coarsest = 6, .finest = detail / magnification};
        return 0.3 *
               std::max(0.15, 1 + 0.45 * pattern_of(kind, place.x / magnification, place.y / magnification, seen));
    });
    const auto picture = Loupe().render(scene, {.width = 96, .height = 64}).value();
    double sum = 0, differences = 0;
    for (int y = 0; y < picture.height; ++y)
        for (int x = 1; x < picture.width; ++x) {
            sum += picture.at(x, y)[1];
            differences += std::abs(picture.at(x, y)[1] - picture.at(x - 1, y)[1]);
        }
    return differences / sum;
}

}  // namespace

TEST_CASE("every surface is as bright as its reflectance says, in the mean", "[imaging][texture]") {
    for (const Texture kind : kinds)
        for (const double finest : {0.0005, 0.01, 0.2}) {
            double sum = 0;
            constexpr int steps = 200;  // places far apart: no two in one blotch
            for (int j = 0; j < steps; ++j)
                for (int i = 0; i < steps; ++i)
                    sum += pattern_of(kind, i * 1.7320508, j * 1.6180340, {.coarsest = 6, .finest = finest});
            INFO(shoot::textures()[static_cast<std::size_t>(kind)].name << " to " << finest << " mm");
            CHECK_THAT(sum / (steps * steps), WithinAbs(0, 0.07));  // of 0.45 of the reflectance: 0.05 stop
        }
}

TEST_CASE("a surface has nothing finer than it is asked for, and jumps nowhere", "[imaging][texture]") {
    constexpr double finest = 0.05;  // mm
    for (const Texture kind : kinds) {
        double rough = 0, smooth = 0;
        for (int i = 0; i < 4000; ++i) {
            const double x = i * 0.317, y = i * 0.213, step = finest / 16;
            const auto at = [&](double along) {
                return pattern_of(kind, x + along, y, {.coarsest = 6, .finest = finest});
            };
            smooth += std::abs(at(step) - at(0));
            rough += std::abs(at(16 * step) - at(0));
        }
        INFO(shoot::textures()[static_cast<std::size_t>(kind)].name);
        CHECK(rough > 0.05 * 4000);
        CHECK(smooth < rough / 4);  // white noise would make it as rough
    }
}

TEST_CASE("sharp looks sharp: f/5.6, f/22, a held and a missed focus tell at a glance, at any magnification",
          "[imaging][loupe][texture]") {
    for (const Texture kind : kinds)
        for (const double magnification : {0.1, 0.5, 2.0, 8.0}) {
            INFO(shoot::textures()[static_cast<std::size_t>(kind)].name << " at " << magnification);
            const double held = crispness(kind, magnification, 5.6, 0);
            CHECK(held > 0.02);
            CHECK(held > 1.4 * crispness(kind, magnification, 22, 0));
            CHECK(held > 2.5 * crispness(kind, magnification, 5.6, 1.0));  // its disc is 8 pixels wide
        }
}
