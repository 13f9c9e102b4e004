#include "light/beam.hpp"
#include "light/correction.hpp"
#include "light/levers.hpp"
#include "light/metering.hpp"
#include "light/space.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cmath>

using namespace poquito;
using namespace poquito::light;
using poquito::test::Random;
using poquito::test::WithinAbs;
using poquito::test::WithinRel;

TEST_CASE("a place and its distance, azimuth and elevation are the same thing", "[light][space]") {
    const Point right = place_of({.distance = 100, .azimuth = 90, .elevation = 0});
    CHECK_THAT(right.x(), WithinAbs(100, 1e-9));
    CHECK_THAT(place_of({.distance = 100, .azimuth = 0, .elevation = 90}).y(), WithinAbs(100, 1e-9));
    CHECK_THAT(place_of({.distance = 100, .azimuth = 180, .elevation = 0}).z(), WithinAbs(-100, 1e-9));
    Random random(11);
    for (int i = 0; i < 200; ++i) {
        const Position position{.distance = random.between(5, 3000),
                                .azimuth = random.between(-179, 179),
                                .elevation = random.between(-89, 89)};
        const Position back = position_of(place_of(position));
        CHECK_THAT(back.distance, WithinRel(position.distance, 1e-9));
        CHECK_THAT(back.azimuth, WithinAbs(position.azimuth, 1e-9));
        CHECK_THAT(back.elevation, WithinAbs(position.elevation, 1e-9));
    }
}

TEST_CASE("a light turned to its right and one tipped up look past the subject by that angle", "[light][beam]") {
    const Position camera_side{.distance = 400, .azimuth = 0, .elevation = 0};
    CHECK_THAT(off_beam(camera_side, {}, 0), WithinAbs(0, 1e-5));
    CHECK_THAT(off_beam(camera_side, {.turn = 25}, 0), WithinAbs(25, 1e-9));
    CHECK_THAT(off_beam(camera_side, {.tip = -40}, 0), WithinAbs(40, 1e-9));
    // From the camera's right, at 90 degrees, its own right is away from the camera: 300 behind at 300 is 45 degrees.
    const Position side{.distance = 300, .azimuth = 90, .elevation = 0};
    CHECK_THAT(off_beam(side, {.turn = 45}, 300), WithinAbs(0, 1e-5));
    CHECK_THAT(off_beam(side, {.turn = -45}, 300), WithinAbs(90, 1e-9));
}

TEST_CASE("half of the light is left at the edge of a grid's angle", "[light][beam]") {
    const double face = -std::log2(std::cos(10 * 3.14159265358979323846 / 180));
    CHECK_THAT(beam_loss(10, 20.0).value(), WithinAbs(1 + face, 1e-9));
    CHECK_THAT(beam_loss(10, std::nullopt).value(), WithinAbs(face, 1e-9));
    CHECK_THAT(beam_loss(0, 20.0).value(), WithinAbs(0, 1e-12));
    CHECK_THAT(beam_loss(60, std::nullopt).value(), WithinAbs(1, 1e-9));  // cos 60 = 1/2
    CHECK_FALSE(beam_loss(90, std::nullopt));
    CHECK_FALSE(beam_loss(120, 20.0));
}

TEST_CASE("levers to a balance lead there, from anywhere, sync or not", "[light][balance]") {
    Random random(12);
    for (int i = 0; i < 1000; ++i) {
        const Balance from{.ambient = random.between(-10, 4), .flash = random.between(-6, 4)};
        const Balance to{.ambient = random.between(-10, 4), .flash = random.between(-6, 4)};
        const std::optional<double> room =
            random.between(0, 1) < 0.3 ? std::nullopt : std::optional(random.between(0, 6));
        const Levers levers = levers_to(from, to, room);
        const Balance there = moved(from, levers);
        CHECK_THAT(there.ambient, WithinAbs(to.ambient, 1e-12));
        CHECK_THAT(there.flash, WithinAbs(to.flash, 1e-12));
        if (room) CHECK(levers.shutter >= -*room - 1e-12);
        // The aperture is left alone as long as the shutter can do it.
        if (!room || to.ambient - from.ambient >= -*room) CHECK(levers.both == 0);
    }
}

TEST_CASE("the shutter moves light that stays on, power the flash, the aperture both", "[light][balance]") {
    const Balance from{.ambient = -3, .flash = -0.2};
    CHECK(moved(from, {.shutter = 1}).ambient == -2);
    CHECK(moved(from, {.shutter = 1}).flash == -0.2);
    CHECK(moved(from, {.power = -1}).ambient == -3);
    CHECK_THAT(moved(from, {.power = -1}).flash, WithinAbs(-1.2, 1e-12));
    CHECK(moved(from, {.both = 2}).ambient == -1);
    CHECK_THAT(moved(from, {.both = 2}).flash, WithinAbs(1.8, 1e-12));
}

TEST_CASE("automatic flash turns a white wall grey and burns a small bright thing before black", "[light][metering]") {
    // All field white: log2(0.9 / 0.18) = 2.32 stops too dark.
    CHECK_THAT(automatic_error({.fill = 1, .reflectance = 0.9}), WithinAbs(-2.3219, 1e-4));
    // A quarter of the field mid grey before nothing: two stops too bright.
    CHECK_THAT(automatic_error({.fill = 0.25, .reflectance = 0.18, .background_reflectance = 0}), WithinAbs(2, 1e-12));
    // A grey card anywhere at the same light changes nothing.
    for (const double fill : {0.0, 0.3, 1.0})
        CHECK_THAT(automatic_error({.fill = fill, .reflectance = 0.18, .background_reflectance = 0.18}),
                   WithinAbs(0, 1e-12));
    CHECK_THAT(
        metered_reflectance({.fill = 0.5, .reflectance = 0.4, .background_reflectance = 0.8, .background_stops = -2}),
        WithinAbs(0.3, 1e-12));
}

TEST_CASE("test frames settle on what the light really gives", "[light][correction]") {
    // A flash that truly is `truth` stops brighter than its record, read with an error of a sixth of a stop or so,
    // among other light that is known.
    Random random(13);
    for (int run = 0; run < 100; ++run) {
        const double truth = random.between(-1.5, 1.5), record = random.between(-3, 0), others = random.between(0, 0.3);
        std::vector<Correction> corrections;
        constexpr int frames = 60;
        double noise_sum = 0;
        for (int i = 0; i < frames; ++i) {
            const double already = calibrated(corrections).stops;
            const double noise = random.between(-0.17, 0.17);
            noise_sum += noise;
            const double predicted = std::log2(std::exp2(record + already) + others);
            const double seen = std::log2(std::exp2(record + truth + noise) + others);
            const auto correction = explains(
                {.own = record + already, .others = others, .already = already, .frame_brighter = seen - predicted});
            REQUIRE(correction);
            corrections.push_back({.stops = *correction});
        }
        const auto learned = calibrated(corrections);
        CHECK(learned.count == frames);
        CHECK_THAT(learned.stops, WithinAbs(truth + noise_sum / frames, 1e-9));  // the mean of the readings, no more
        CHECK_THAT(learned.spread.value(), WithinAbs(0.17 / std::sqrt(3.0), 0.03));  // of an even spread
    }
}

TEST_CASE("one test frame without noise is enough, and darkness others would need is refused", "[light][correction]") {
    CHECK_THAT(explains({.own = -1, .others = 0, .already = 0, .frame_brighter = 0.7}).value(), WithinAbs(0.7, 1e-12));
    CHECK_THAT(explains({.own = -1, .others = 0, .already = 0.4, .frame_brighter = -0.7}).value(),
               WithinAbs(-0.3, 1e-12));
    CHECK_FALSE(explains({.own = -2, .others = 1, .already = 0, .frame_brighter = -1}));
    CHECK_FALSE(calibrated({{.stops = 1}}).spread);
    CHECK(calibrated({}).stops == 0);
}
