#include "optics/diffraction.hpp"
#include "support/matchers.hpp"

#include <boost/math/quadrature/tanh_sinh.hpp>

using namespace poquito;
using test::same;
using test::WithinAbs;

TEST_CASE("the Airy disc at 550 nm", "[optics][diffraction]") {
    // Born and Wolf, Principles of Optics, 8.5.2 (MODEL 4).
    CHECK_THAT(optics::airy_diameter(8, 550e-6), WithinAbs(0.01074, 0.000005));
    CHECK_THAT(optics::airy_diameter(16, 550e-6), WithinAbs(0.02147, 0.000005));
}

TEST_CASE("the contrast of a perfect lens in focus", "[optics][diffraction]") {
    // Goodman, Introduction to Fourier Optics; Born and Wolf (MODEL 4): at 0.1 ... 0.9 of the cut-off.
    const double table[] = {0.873, 0.747, 0.624, 0.505, 0.391, 0.285, 0.188, 0.104, 0.037};
    const double cut_off = 1 / (550e-6 * 8);
    for (int tenth = 1; tenth <= 9; ++tenth)
        CHECK_THAT(optics::modulation_transfer({.frequency = tenth * 0.1 * cut_off, .working_f_number = 8}),
                   WithinAbs(table[tenth - 1], 0.0006));
    CHECK(optics::modulation_transfer({.frequency = cut_off * 1.0001, .working_f_number = 8}) == 0);
    CHECK(optics::modulation_transfer({.frequency = 0, .working_f_number = 8}) == 1);
}

TEST_CASE("a quarter wave of defocus leaves 0.2875 at half the cut-off", "[optics][diffraction]") {
    // Hopkins 1955 (MODEL 4). W20 = lambda/4 is dz = 2 lambda N^2.
    const double n = 8, wavelength = 550e-6;
    CHECK_THAT(
        optics::modulation_transfer(
            {.frequency = 0.5 / (wavelength * n), .working_f_number = n, .image_defocus = 2 * wavelength * n * n}),
        WithinAbs(0.2875, 0.00005));
}

TEST_CASE("defocused contrast agrees with the integral as Hopkins wrote it, by another quadrature",
          "[optics][diffraction]") {
    // Boost.Math tanh-sinh, made for the square root's end, on the untransformed integrand.
    boost::math::quadrature::tanh_sinh<double> quadrature;
    const double n = 11, wavelength = 550e-6, pi = 3.14159265358979323846;
    for (const double s : {0.05, 0.3, 0.5, 0.77, 0.95})
        for (const double waves : {0.1, 0.25, 0.5, 1.0, 2.0}) {
            const double w20 = waves * wavelength;
            const double a = 2 * pi / wavelength * w20 * 4 * s;
            const auto integrand = [&](double x) {
                return std::sqrt(std::max(0.0, 1 - (x + s) * (x + s))) * std::cos(a * x);
            };
            const double expected = std::abs(4 / pi * quadrature.integrate(integrand, 0.0, 1 - s));
            INFO("s " << s << ", waves " << waves);
            CHECK_THAT(optics::modulation_transfer({.frequency = s / (wavelength * n),
                                                    .working_f_number = n,
                                                    .wavelength = wavelength,
                                                    .image_defocus = -8 * n * n * w20}),
                       WithinAbs(expected, 1e-7));
        }
}

TEST_CASE("the quick transfer function is the contrast with its sign", "[optics][diffraction]") {
    const double n = 5.6, wavelength = 550e-6;
    bool reversed = false;
    for (double s = 0; s < 1.05; s += 0.07)
        for (const double waves : {0.0, 0.2, 0.6, 1.5, 4.0, 12.0}) {
            const optics::Defocus defocus{.frequency = s / (wavelength * n),
                                          .working_f_number = n,
                                          .wavelength = wavelength,
                                          .image_defocus = 8 * n * n * waves * wavelength};
            INFO("s " << s << ", waves " << waves);
            const double transfer = optics::optical_transfer(defocus);
            CHECK_THAT(std::abs(transfer), WithinAbs(optics::modulation_transfer(defocus), 1e-6));
            reversed = reversed || transfer < -0.01;
        }
    CHECK(reversed);  // spurious resolution: past the first zero dark and bright change places
}

TEST_CASE("a defocus of metres leaves nothing and is reckoned at once", "[optics][diffraction]") {
    for (const double defocus : {1e3, 1e9, 1e300}) {
        const poquito::optics::Defocus at{.frequency = 60, .working_f_number = 2.8, .image_defocus = defocus};
        CHECK(poquito::optics::optical_transfer(at) == 0);
        CHECK(poquito::optics::modulation_transfer(at) < 1e-3);
    }
}
