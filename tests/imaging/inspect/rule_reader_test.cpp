// Millimetre rules rendered at a known scale, turned, blurred and with noise; marked by a hand that misses by pixels.
#include "imaging/inspect/rule_reader.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>
#include <numbers>

using namespace poquito;
using imaging::GreyImage;
using imaging::Place;
using test::WithinRel;

namespace {

struct Rule {
    double pixels_per_mm = 40;
    double angle = 0;  // of the rule's long side, radians
    double blur = 1;   // standard deviation of the edge, pixels
    double noise = 0;  // standard deviation, of full brightness
    bool light_ticks = false;
    Place origin{60, 200};  // of tick 0

    Place tick(int mm) const {
        return {origin.x + mm * pixels_per_mm * std::cos(angle), origin.y + mm * pixels_per_mm * std::sin(angle)};
    }
};

/// Each tick is a bar 0.15 mm wide with edges blurred by a Gaussian: exact in the continuous picture, no resampling.
GreyImage render(const Rule& rule, unsigned seed) {
    std::mt19937 engine(seed);
    std::normal_distribution<double> noise(0, 1);
    GreyImage image{.width = 640, .height = 400, .pixels = std::vector<float>(640 * 400)};
    const double half = 0.075 * rule.pixels_per_mm;
    for (int y = 0; y < image.height; ++y)
        for (int x = 0; x < image.width; ++x) {
            const double dx = x - rule.origin.x, dy = y - rule.origin.y;
            const double along = dx * std::cos(rule.angle) + dy * std::sin(rule.angle);
            const double nearest = std::round(along / rule.pixels_per_mm) * rule.pixels_per_mm;
            const double off = along - nearest;
            const double s = rule.blur * std::numbers::sqrt2;
            const double ink = 0.5 * (std::erf((off + half) / s) - std::erf((off - half) / s));
            double value = rule.light_ticks ? 0.2 + 0.6 * ink : 0.85 - 0.7 * ink;
            value += rule.noise * noise(engine);
            image.pixels[static_cast<std::size_t>(y) * 640 + static_cast<std::size_t>(x)] = static_cast<float>(value);
        }
    return image;
}

Place near(Place at, test::Random& random, double along_tick, double angle) {
    const double slip = random.between(-along_tick, along_tick);
    return {at.x + random.between(-4, 4) - slip * std::sin(angle),
            at.y + random.between(-4, 4) + slip * std::cos(angle)};
}

}  // namespace

TEST_CASE("the magnification read off a rendered rule is right within half a per cent", "[imaging][rule]") {
    int read = 0;
    for (unsigned seed = 0; seed < 60; ++seed) {
        test::Random random(seed);
        Rule rule{.pixels_per_mm = random.between(25, 48),
                  .angle = random.between(-0.35, 0.35),
                  .blur = random.between(0.6, 3),
                  .noise = random.between(0, 0.06),
                  .light_ticks = random.coin(0.3)};
        const auto image = render(rule, seed);
        // Marks a few pixels off the ticks, and at different heights along them.
        imaging::RuleMarks marks{.distance = 10, .pixel_pitch = 0.004};
        const auto first = imaging::find_tick(image, near(rule.tick(1), random, 30, rule.angle), 14);
        const auto second = imaging::find_tick(image, near(rule.tick(11), random, 30, rule.angle), 14);
        INFO("seed " << seed);
        REQUIRE(first);
        REQUIRE(second);
        marks.first = first->place;
        marks.second = second->place;
        marks.first_tick = first;
        marks.second_tick = second;
        const auto reading = imaging::read_rule(marks);
        const double truth = rule.pixels_per_mm * 0.004;
        CHECK_THAT(reading.magnification, WithinRel(truth, 0.005));
        // Honest about it: not off by more than four of its own standard deviations, the rule itself being exact here.
        CHECK(std::abs(reading.magnification - truth) < 4 * reading.uncertainty);
        CHECK(std::abs(first->normal - rule.angle) < 0.03);
        ++read;
    }
    CHECK(read == 60);
}

TEST_CASE("a tick is found to a tenth of a pixel without noise", "[imaging][rule]") {
    const Rule rule{.pixels_per_mm = 43.7, .angle = 0.12, .blur = 1.2};
    const auto image = render(rule, 1);
    for (int mm = 1; mm < 10; ++mm) {
        const Place tick = rule.tick(mm);
        const auto found = imaging::find_tick(image, {tick.x + 3, tick.y - 2}, 12);
        REQUIRE(found);
        const double across =
            (found->place.x - tick.x) * std::cos(rule.angle) + (found->place.y - tick.y) * std::sin(rule.angle);
        CHECK(std::abs(across) < 0.1);
    }
}

TEST_CASE("where there is no tick none is found", "[imaging][rule]") {
    GreyImage plain{.width = 100, .height = 100, .pixels = std::vector<float>(10000, 0.5f)};
    CHECK_FALSE(imaging::find_tick(plain, {50, 50}, 12));
    std::mt19937 engine(3);
    std::normal_distribution<float> noise(0.5f, 0.02f);
    for (float& pixel : plain.pixels) pixel = noise(engine);
    CHECK_FALSE(imaging::find_tick(plain, {50, 50}, 12));
    CHECK_FALSE(imaging::find_tick({}, {0, 0}, 12));
    CHECK(imaging::ticks_between({}, {0, 0}, {50, 0}) == 0);
}

TEST_CASE("ticks between two marks are counted", "[imaging][rule]") {
    const Rule rule{.pixels_per_mm = 40, .angle = 0.1, .blur = 1.5, .noise = 0.02};
    const auto image = render(rule, 1);
    CHECK(imaging::ticks_between(image, rule.tick(1), rule.tick(11)) == 9);
    CHECK(imaging::ticks_between(image, rule.tick(2), rule.tick(3)) == 0);
    CHECK(imaging::ticks_between(image, rule.tick(2), rule.tick(7)) == 4);
}

TEST_CASE("marks set by hand are good to half a pixel each, the rule to a twentieth of a millimetre",
          "[imaging][rule]") {
    const auto reading =
        imaging::read_rule({.first = {0, 0}, .second = {300, 400}, .distance = 10, .pixel_pitch = 0.004});
    CHECK_THAT(reading.pixels, WithinRel(500, 1e-12));
    CHECK_THAT(reading.magnification, WithinRel(0.2, 1e-12));
    CHECK_THAT(reading.uncertainty, WithinRel(0.2 * std::sqrt(2 * 0.001 * 0.001 + 0.005 * 0.005), 1e-12));
}
