// What the optics layer says of generated trains of every kind, traced again with 2x2 matrices of Eigen, element by
// element from the subject to the sensor. Matrices: Gerrard and Burch, Introduction to Matrix Methods in Optics: rays
// as (height, angle).
#include "optics/depth.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

#include <Eigen/Core>

#include <algorithm>

using namespace poquito;
using test::same;
using test::WithinRel;

namespace {

using Matrix = Eigen::Matrix2d;

Matrix gap(double length) { return (Matrix() << 1, length, 0, 1).finished(); }
Matrix thin_lens(double power) { return (Matrix() << 1, 0, -power, 1).finished(); }

/// A lens as principal planes: H from the rim, H' from the mount, by the definitions of MODEL 1.
struct Planes {
    double f, rim_to_front, rear_to_mount, length, pupil_from_rim, exit_from_mount, pupil_diameter;

    Planes(const optics::Lens& lens, double ring, double flange, double marked) {
        const bool unit = lens.focusing == optics::Focusing::unit;
        const double m = optics::lens_magnification(lens, ring), M = optics::lens_magnification(lens, 1);
        const double P = lens.pupil_magnification;
        const double sum = 2 + M + 1 / M;
        const double h = unit ? lens.closest_focus - lens.focal_length * sum : lens.hiatus;
        f = unit ? lens.focal_length : lens.focal_length + ring * ((lens.closest_focus - h) / sum - lens.focal_length);
        length = lens.length + (unit ? f * m : 0);
        rear_to_mount = f * (1 + m) - flange;
        rim_to_front = length - rear_to_mount - h;
        pupil_from_rim = rim_to_front - f * (1 - 1 / P);
        exit_from_mount = rear_to_mount - f * (1 - P);
        const double own = lens.closest_working_f_number
                               ? marked * (1 + ring * (*lens.closest_working_f_number / lens.max_aperture - 1))
                               : marked * (1 + m / P);
        pupil_diameter = f * (1 + m / P) / own;
    }
    Matrix forward() const { return gap(rear_to_mount) * thin_lens(1 / f) * gap(rim_to_front); }
    Matrix reversed() const { return gap(rim_to_front) * thin_lens(1 / f) * gap(rear_to_mount); }
};

struct Case {
    optics::Train train;
    optics::FocusedTrain at;
    double marked = 4;

    Planes lens() const { return {train.lens, at.ring, train.lens.flange.value_or(train.flange), marked}; }

    /// From the front to the front face of the lens.
    Matrix to_lens() const {
        Matrix m = thin_lens(train.closeup_power);
        if (const auto& front = train.front_lens)
            m = m * gap(front->coupling) * Planes(front->lens, front->ring, front->own_flange, 1).reversed();
        return m;
    }
    /// From the front to the sensor. The converter is a thin lens of its own: `length` E behind the place where the
    /// image was, it magnifies factor times, so it stands E/(factor - 1) in front of that place.
    Matrix to_sensor() const {
        const bool forward = train.facing == optics::Facing::forward;
        const double flange = train.flange;
        const double mount =
            forward ? std::max(flange, train.lens.flange.value_or(flange)) : flange + train.reversing_ring;
        const Matrix to_mount = (forward ? lens().forward() : lens().reversed()) * to_lens();
        if (!train.converter) return gap(mount + train.tubes) * to_mount;
        const double k = train.converter->factor;
        const double before = train.converter->length / (k - 1);
        const double focal = -before * k / (k - 1);
        return gap(k * before + train.rear_tubes) * thin_lens(1 / focal) * gap(mount + train.tubes - before) * to_mount;
    }
    /// From the front to the pupil that limits, and its diameter.
    std::pair<Matrix, double> to_pupil() const {
        const auto own = lens();
        const bool forward = train.facing == optics::Facing::forward;
        const Matrix to_own = gap(forward ? own.pupil_from_rim : own.exit_from_mount) * to_lens();
        const double diameter = own.pupil_diameter * (forward ? 1 : train.lens.pupil_magnification);
        if (!train.front_lens) return {to_own, diameter};
        const auto& f = *train.front_lens;
        const Planes front(f.lens, f.ring, f.own_flange, f.f_number);
        const Matrix to_front = gap(front.exit_from_mount);
        const double front_diameter = front.pupil_diameter * f.lens.pupil_magnification;
        const double w = *at.working_distance;
        const auto slope = [&](const Matrix& to, double d) { return d / std::abs((to * gap(w))(0, 1)); };
        return slope(to_own, diameter) < slope(to_front, front_diameter) ? std::pair(to_own, diameter)
                                                                         : std::pair(to_front, front_diameter);
    }
};

/// Calls `check` for thousands of trains whose subject lies in front of the lens at a finite distance.
template <typename Check>
void over_random_trains(Check check) {
    int checked = 0, reversed = 0, coupled = 0, behind = 0;
    for (unsigned seed = 0; seed < 6000; ++seed) {
        test::Random random(seed);
        const auto train = test::random_any_train(random);
        const auto at = optics::focus_at_ring(train, random.between(0.02, 1));
        if (!at.working_distance || *at.working_distance < 1 || at.magnification < 0.01) continue;
        INFO("seed " << seed);
        check(Case{train, at});
        ++checked;
        reversed += train.facing == optics::Facing::reversed;
        coupled += train.front_lens.has_value();
        behind += train.rear_tubes > 0;
    }
    CHECK(checked > 2500);  // the generator makes mostly usable gear, of every kind
    CHECK(std::min({reversed, coupled, behind}) > 300);
}

}  // namespace

TEST_CASE("subject and sensor are conjugate, and the magnification is that of the ray matrix", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const Matrix whole = c.to_sensor() * gap(*c.at.working_distance);
        // B = 0: all rays of a subject point meet in its image. In units of the working distance.
        CHECK(std::abs(whole(0, 1)) < 1e-8 * (1 + *c.at.working_distance) * (1 + c.at.magnification));
        CHECK_THAT(-whole(0, 0), WithinRel(c.at.magnification, 1e-8));
        CHECK_THAT(c.at.subject_to_sensor.value(), same(c.at.front + *c.at.working_distance));
    });
}

TEST_CASE("the working f-number is half the reciprocal slope of the marginal ray at the sensor", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const auto [to_pupil, diameter] = c.to_pupil();
        const Matrix from_subject = gap(*c.at.working_distance);
        const double angle = diameter / 2 / (to_pupil * from_subject)(0, 1);
        const Eigen::Vector2d image = c.to_sensor() * from_subject * Eigen::Vector2d(0, angle);
        CHECK_THAT(1 / (2 * std::abs(image(1))), WithinRel(optics::working_f_number(c.at, c.marked), 1e-7));
    });
}

TEST_CASE("the entrance pupil is imaged to the exit pupil at the pupil magnification", "[optics][rays]") {
    over_random_trains([](const Case& c) {
        const auto own = c.lens();
        const double p = c.train.lens.pupil_magnification;
        const Matrix m = gap(own.rear_to_mount - own.exit_from_mount) * thin_lens(1 / own.f) *
                         gap(own.rim_to_front - own.pupil_from_rim);
        CHECK(std::abs(m(0, 1)) < 1e-8 * own.f);
        CHECK_THAT(m(0, 0), same(p));
    });
}

TEST_CASE("points at the limits of the depth of field and in the background make the discs the ray fan makes",
          "[optics][rays][depth]") {
    const double c_limit = 0.01;
    // Diameter at the sensor of the fan that leaves an axis point and fills the entrance pupil.
    const auto disc = [](const Case& c, double from_rim) {
        const auto [to_pupil, diameter] = c.to_pupil();
        const double angle = diameter / 2 / (to_pupil * gap(from_rim))(0, 1);
        const Eigen::Vector2d image = c.to_sensor() * gap(from_rim) * Eigen::Vector2d(0, angle);
        return 2 * std::abs(image(0));
    };
    over_random_trains([&](const Case& c) {
        const auto imaging = optics::imaging_at(c.at, c.marked);
        const auto depth = optics::depth_of_field(imaging, c_limit);
        if (depth.near) CHECK_THAT(disc(c, *c.at.working_distance - *depth.near), WithinRel(c_limit, 1e-5));
        if (depth.far && *depth.far < 1e6)
            CHECK_THAT(disc(c, *c.at.working_distance + *depth.far), WithinRel(c_limit, 1e-5));
        if (const auto background = optics::blur_disc(imaging, 300))
            CHECK_THAT(disc(c, *c.at.working_distance + 300), WithinRel(*background, 1e-6));
    });
}

TEST_CASE("a detail behind the subject is imaged at the scale that blur_over_detail takes", "[optics][rays][depth]") {
    over_random_trains([](const Case& c) {
        const auto imaging = optics::imaging_at(c.at, c.marked);
        const auto background = optics::blur_disc(imaging, 300);
        if (!background) return;
        // The chief ray of an off-axis point passes the middle of the pupil; 1 mm high at the background.
        const double from_rim = *c.at.working_distance + 300;
        const Matrix to_pupil = c.to_pupil().first * gap(from_rim);
        const double angle = -to_pupil(0, 0) / to_pupil(0, 1);
        const Eigen::Vector2d image = c.to_sensor() * gap(from_rim) * Eigen::Vector2d(1, angle);
        CHECK_THAT(optics::blur_over_detail(imaging, 300, 1), WithinRel(*background / std::abs(image(0)), 1e-6));
    });
}
