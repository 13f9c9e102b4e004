#include "light/direction.hpp"

#include "light/gels.hpp"
#include "support/matchers.hpp"

#include <boost/math/constants/constants.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>

using namespace poquito::light;
using poquito::test::WithinAbs;

namespace {

using boost::math::double_constants::degree;
constexpr double circle = boost::math::double_constants::two_pi;

/// Mean of max(0, n.l) over the half of a ball that the camera sees, by projected area, over 2/3; written apart from
/// the closed form.
double ball_by_integral(double a) {
    using Rule = boost::math::quadrature::gauss_kronrod<double, 61>;
    const auto ring = [a](double r) {  // at a share r of the radius from the middle of the face
        const double z = std::sqrt(1 - r * r);
        return Rule::integrate(
            [&](double phi) { return std::max(0.0, z * std::cos(a) + r * std::cos(phi) * std::sin(a)); }, 0, circle,
            10);
    };
    return Rule::integrate([&](double r) { return r * ring(r); }, 0, 1, 10) / (circle / 2) / (2.0 / 3);
}

}  // namespace

TEST_CASE("a ball gets its share of light from every side", "[light][direction]") {
    // Lambert's sphere; MODEL 12.
    const std::pair<double, double> known[] = {{45, 0.7554}, {60, 0.6090}, {90, 0.3183}, {120, 0.1090}, {150, 0.0148}};
    for (const auto& [angle, share] : known) CHECK_THAT(ball_share(std::cos(angle * degree)), WithinAbs(share, 5e-5));
    for (double angle = 0; angle <= 180; angle += 7.5) {
        INFO(angle);
        CHECK_THAT(ball_share(std::cos(angle * degree)), WithinAbs(ball_by_integral(angle * degree), 2e-4));
    }
    CHECK_THAT(ball_share(1), WithinAbs(1, 1e-12));
    CHECK_THAT(ball_share(-1), WithinAbs(0, 1e-12));
}

TEST_CASE("a lens shades even light by the square of a sine, and a disc by what it hides", "[light][direction]") {
    CHECK_THAT(even_light_shaded(45), WithinAbs(-1, 1e-12));  // E = pi L sin^2; MODEL 12
    CHECK(covered_share({.off_axis = 60, .half_angle = 10}, 45) == 0);
    CHECK(covered_share({.off_axis = 20, .half_angle = 10}, 45) == 1);
    // Cut through its middle: nearly half of a small disc.
    CHECK_THAT(covered_share({.off_axis = 45, .half_angle = 1}, 45), WithinAbs(0.5, 0.01));
    // The cone about the axis within a disc about the axis: the ratio of their solid angles.
    const double inside = (1 - std::cos(20 * degree)) / (1 - std::cos(50 * degree));
    CHECK_THAT(covered_share({.off_axis = 0, .half_angle = 50}, 20), WithinAbs(inside, 2e-3));
    // By throwing points at the sphere, seeds of a fixed lattice.
    for (const double off : {10.0, 35.0, 70.0}) {
        constexpr int n = 200000;
        const double half = 40, cone = 30;
        int in_disc = 0, in_both = 0;
        for (int i = 0; i < n; ++i) {
            const double z = 1 - 2 * (i + 0.5) / n, phi = i * circle / 2 * (3 - std::sqrt(5.0));
            const double x = std::sqrt(1 - z * z) * std::cos(phi);
            if (x * std::sin(off * degree) + z * std::cos(off * degree) < std::cos(half * degree)) continue;
            ++in_disc;
            in_both += z >= std::cos(cone * degree);
        }
        CHECK_THAT(covered_share({.off_axis = off, .half_angle = half}, cone),
                   WithinAbs(static_cast<double>(in_both) / in_disc, 0.004));
    }
}

TEST_CASE("screens, cards, windows and gels have their numbers", "[light][direction]") {
    CHECK_THAT(ev100_of_luminance(100), WithinAbs(9.64, 0.005));  // ISO 2720, K = 12.5; MODEL 12
    CHECK_THAT(ev100_of_luminance(300), WithinAbs(11.23, 0.005));
    CHECK_THAT(warmer_by(3200, 5500), WithinAbs(130.7, 0.05));  // definition of the mired; MODEL 12
    CHECK_THAT(width_of(angle_of(600, 900), 900), WithinAbs(600, 1e-9));
    CHECK_THAT(reflected_stops(1, 2000, 1000), WithinAbs(-1, 1e-12));  // a card seen under a right angle
    CHECK_THAT(reflected_stops(0.5, 2000, 1000), WithinAbs(-2, 1e-12));
    CHECK(std::string(nearest_gel(140)->name) == "full warming");
    CHECK_FALSE(nearest_gel(10));
}
