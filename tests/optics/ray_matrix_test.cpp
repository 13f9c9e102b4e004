// The closed forms of MODEL 1 and 2 against 2x2 ray-transfer matrices, traced over generated gear with Eigen.
// Matrices: Gerrard and Burch, Introduction to Matrix Methods in Optics: rays as (height, angle).
#include "optics/depth.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

#include <Eigen/Core>

using namespace poquito;
using test::same;
using test::WithinRel;

namespace {

using Matrix = Eigen::Matrix2d;

Matrix gap(double length) { return (Matrix() << 1, length, 0, 1).finished(); }
Matrix thin_lens(double power) { return (Matrix() << 1, 0, -power, 1).finished(); }

/// From the front rim to the sensor. The converter is a thin lens of its own: `length` E behind the place where the
/// image was, it magnifies factor times, so it stands E/(factor - 1) in front of that place.
Matrix rim_to_sensor(const optics::Train& train, const optics::FocusedTrain& at) {
    const Matrix front = thin_lens(1 / at.focal_length) * gap(at.principal) * thin_lens(train.closeup_power);
    if (!train.converter) return gap(at.image_distance) * front;
    const double k = train.converter->factor;
    const double before = train.converter->length / (k - 1);
    const double focal = -before * k / (k - 1);
    return gap(k * before) * thin_lens(1 / focal) * gap(at.image_distance - before) * front;
}

struct Case {
    optics::Train train;
    optics::FocusedTrain at;
};

/// Calls `check` for thousands of trains whose subject lies in front of the lens at a finite distance.
template <typename Check>
void over_random_trains(Check check) {
    int checked = 0;
    for (unsigned seed = 0; seed < 4000; ++seed) {
        test::Random random(seed);
        const auto train = test::random_train(random);
        const auto at = optics::focus_at_ring(train, random.between(0.02, 1));
        if (!at.working_distance || *at.working_distance < 1) continue;
        INFO("seed " << seed);
        check(Case{train, at});
        ++checked;
    }
    CHECK(checked > 2500);  // the generator makes mostly usable gear
}

}  // namespace

TEST_CASE("subject and sensor are conjugate, and the magnification is that of the ray matrix", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const Matrix whole = rim_to_sensor(c.train, c.at) * gap(*c.at.working_distance);
        // B = 0: all rays of a subject point meet in its image. In units of the working distance.
        CHECK(std::abs(whole(0, 1)) < 1e-8 * (1 + *c.at.working_distance));
        CHECK_THAT(-whole(0, 0), WithinRel(c.at.magnification, 1e-8));
    });
}

TEST_CASE("the working f-number is half the reciprocal slope of the marginal ray at the sensor", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const auto pupil = optics::entrance_pupil(c.train, c.at, 4);
        // From the axis point of the subject through the close-up lens to the edge of the entrance pupil.
        const Matrix to_pupil = gap(pupil.behind_rim) * thin_lens(c.train.closeup_power) * gap(*c.at.working_distance);
        const double angle = pupil.diameter / 2 / to_pupil(0, 1);
        const Eigen::Vector2d image =
            rim_to_sensor(c.train, c.at) * gap(*c.at.working_distance) * Eigen::Vector2d(0, angle);
        CHECK_THAT(1 / (2 * std::abs(image(1))), WithinRel(optics::working_f_number(c.train, c.at, 4), 1e-8));
    });
}

TEST_CASE("the entrance pupil is imaged to the exit pupil at the pupil magnification", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const double p = c.train.lens.pupil_magnification;
        const auto pupil = optics::entrance_pupil(c.train, c.at, 4);
        const double before_principal = c.at.principal - pupil.behind_rim;
        const double behind_principal = c.at.focal_length * (1 - p);  // exit pupil, f (1 - P) behind the rear plane
        const Matrix m = gap(behind_principal) * thin_lens(1 / c.at.focal_length) * gap(before_principal);
        CHECK(std::abs(m(0, 1)) < 1e-8 * c.at.focal_length);
        CHECK_THAT(m(0, 0), same(p));
    });
}

TEST_CASE("points at the limits of the depth of field and in the background make the discs the ray fan makes",
          "[optics][rays][depth]") {
    const double c_limit = 0.01;
    // Diameter at the sensor of the fan that leaves an axis point and fills the entrance pupil.
    const auto disc = [](const Case& c, double from_rim) {
        const auto pupil = optics::entrance_pupil(c.train, c.at, 4);
        const Matrix to_pupil = gap(pupil.behind_rim) * thin_lens(c.train.closeup_power) * gap(from_rim);
        const double angle = pupil.diameter / 2 / to_pupil(0, 1);
        const Eigen::Vector2d image = rim_to_sensor(c.train, c.at) * gap(from_rim) * Eigen::Vector2d(0, angle);
        return 2 * std::abs(image(0));
    };
    over_random_trains([&](const Case& c) {
        const auto imaging = optics::imaging_at(c.train, c.at, 4);
        const auto depth = optics::depth_of_field(imaging, c_limit);
        if (depth.near) CHECK_THAT(disc(c, *c.at.working_distance - *depth.near), WithinRel(c_limit, 1e-5));
        if (depth.far && *depth.far < 1e6)
            CHECK_THAT(disc(c, *c.at.working_distance + *depth.far), WithinRel(c_limit, 1e-5));
        if (const auto background = optics::background_disc(imaging, 300))
            CHECK_THAT(disc(c, *c.at.working_distance + 300), WithinRel(*background, 1e-6));
    });
}

TEST_CASE("a detail behind the subject is imaged at the scale that blur_over_detail takes", "[optics][rays][depth]") {
    over_random_trains([](const Case& c) {
        const auto imaging = optics::imaging_at(c.train, c.at, 4);
        const auto pupil = optics::entrance_pupil(c.train, c.at, 4);
        const auto background = optics::background_disc(imaging, 300);
        if (!background) return;
        // The chief ray of an off-axis point passes the middle of the pupil; 1 mm high at the background.
        const double from_rim = *c.at.working_distance + 300;
        const Matrix to_pupil = gap(pupil.behind_rim) * thin_lens(c.train.closeup_power) * gap(from_rim);
        const double angle = -to_pupil(0, 0) / to_pupil(0, 1);
        const Eigen::Vector2d image = rim_to_sensor(c.train, c.at) * gap(from_rim) * Eigen::Vector2d(1, angle);
        CHECK_THAT(optics::blur_over_detail(imaging, 300, 1), WithinRel(*background / std::abs(image(0)), 1e-6));
    });
}
