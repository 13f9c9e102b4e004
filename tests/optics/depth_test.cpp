#include "optics/depth.hpp"
#include "optics/blur_limit.hpp"
#include "optics/diffraction.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::same;
using test::WithinRel;

TEST_CASE("at 1:1, working f/16, a blur limit of 0.03 mm leaves 0.48 mm of depth to either side", "[optics][depth]") {
    const optics::Imaging imaging{.magnification = 1, .working_f_number = 16, .pupil_diameter = 12.5, .pupil_scale = 1};
    const auto depth = optics::depth_of_field(imaging, 0.03);
    const auto expected = WithinRel(0.48, 0.005);  // c N_w / m^2, the limit for small depths; 0.24 % off here
    CHECK_THAT(depth.near.value(), expected);
    CHECK_THAT(depth.far.value(), expected);
}

TEST_CASE("50 mm at f/8 with a limit of 0.03 mm is sharp to infinity from its hyperfocal distance on",
          "[optics][depth]") {
    // f^2/(N c) + f = 10.47 m, any depth-of-field handbook (MODEL 4); a thin lens in air, measured from the lens.
    const double hyperfocal = 10467;
    const auto limits_at = [](double distance) {
        const double m = 50 / (distance - 50);
        const optics::Train train{
            .lens = {.focal_length = 50, .closest_focus = 50 * (2 + m + 1 / m), .max_magnification = m}};
        return optics::depth_of_field(optics::imaging_at(optics::focus_at_ring(train, 1), 8), 0.03);
    };
    CHECK_FALSE(limits_at(hyperfocal * 1.001).far.has_value());
    CHECK(limits_at(hyperfocal * 0.999).far.has_value());
    // Near limit at the hyperfocal distance is half of it.
    CHECK_THAT(hyperfocal - limits_at(hyperfocal).near.value(), WithinRel(hyperfocal / 2, 0.005));
}

TEST_CASE("100 mm at infinity with +8 on the rim turns a point 300 mm behind into a disc of 11.05 mm",
          "[optics][depth]") {
    // Ray matrices (MODEL 4): P = 1, f/8, e = 64. Length and flange are chosen so that e is 64.
    const double hiatus = 10;
    const optics::Train train{.lens = {.focal_length = 100,
                                       .closest_focus = 1000,
                                       .max_magnification = 0.2,
                                       .focusing = optics::Focusing::internal,
                                       .hiatus = hiatus,
                                       .length = 64 + 100 + hiatus - 44},
                              .flange = 44,
                              .closeup_power = 0.008};
    const auto at = optics::focus_at_ring(train, 0);
    REQUIRE_THAT(at.principal, same(64));
    CHECK_THAT(optics::blur_disc(optics::imaging_at(at, 8), 300).value(), WithinRel(11.05, 0.0005));
}

TEST_CASE("the background disc grows with distance and never passes its limit at infinity", "[optics][depth]") {
    const optics::Imaging imaging{.magnification = 0.5, .working_f_number = 12, .pupil_diameter = 10};
    double last = 0;
    for (const double behind : {0.0, 1.0, 10.0, 100.0, 1e3, 1e6}) {
        const double disc = optics::blur_disc(imaging, behind).value();
        CHECK((disc > last || behind == 0));
        CHECK(disc < imaging.magnification * imaging.pupil_diameter);
        last = disc;
    }
}

TEST_CASE("a pupil seen from behind has no near limit and no disc past its image", "[optics][depth]") {
    const optics::Imaging behind{
        .magnification = 0.5, .working_f_number = 12, .pupil_diameter = 10, .pupil_scale = -600};
    CHECK_FALSE(optics::depth_of_field(behind, 0.01).near.has_value());
    CHECK(optics::depth_of_field(behind, 0.01).far.has_value());
    CHECK_FALSE(optics::blur_disc(behind, 300).has_value());
}

TEST_CASE("the best single stop has the least root-sum-square of both blurs", "[optics][depth]") {
    const double m = 0.8, depth = 5, wavelength = 550e-6;
    const auto blur = [&](double n) { return std::hypot(optics::airy_diameter(n, wavelength), m * m * depth / 2 / n); };
    const double best = optics::best_working_f_number(m, depth, wavelength);
    for (const double factor : {0.9, 0.99, 1.01, 1.1}) CHECK(blur(best * factor) > blur(best));
}

TEST_CASE("blur limits of the schools on an APS-C sensor", "[optics][depth]") {
    const optics::Sensor sensor{.width = 23.5, .height = 15.6, .width_px = 6000, .height_px = 4000};
    CHECK_THAT(optics::pixel_blur_limit(sensor, 2), same(2 * 23.5 / 6000));
    CHECK_THAT(optics::diagonal_blur_limit(sensor), WithinRel(28.207 / 1500, 1e-4));
    // 235 mm wide print: ten times enlarged; 0.2 mm at 250 mm is 0.02 mm on the sensor, half the crop halves it.
    CHECK_THAT(optics::print_blur_limit(sensor, {.width = 235, .viewing_distance = 250}), same(0.02));
    CHECK_THAT(optics::print_blur_limit(sensor, {.width = 235, .viewing_distance = 250, .crop = 0.5}), same(0.01));
    CHECK_THAT(optics::delivery_blur_limit(sensor, {.width_px = 2000}), same(2 * 23.5 / 2000));
    // A file that shows half of the frame's width has as many pixels for half of the sensor.
    CHECK_THAT(optics::delivery_blur_limit(sensor, {.width_px = 2000, .crop = 0.5}), same(23.5 / 2000));
}
