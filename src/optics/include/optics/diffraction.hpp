#pragma once

/// Diffraction of a perfect circular pupil. Wavelengths and lengths in mm, frequencies in cycles per mm at the sensor.
namespace poquito::optics {

inline constexpr double default_wavelength = 550e-6;  // mm, green light; MODEL, first paragraph

/// Diameter of the first dark ring at the sensor. Source: Born and Wolf, Principles of Optics, 8.5.2.
double airy_diameter(double working_f_number, double wavelength);

struct Defocus {
    double frequency = 0;  // at least 0
    double working_f_number = 8;
    double wavelength = default_wavelength;
    double image_defocus = 0;  // sensor to best image, along the axis, mm; the sign does not matter
};

/// Contrast that remains at that frequency, in [0, 1]; 0 from the cut-off 1/(lambda N_w) on. The exact overlap integral
///   MTF(s) = |4/pi integral from 0 to 1-s of sqrt(1 - (x + s)^2) cos(a x) dx|,  s = nu lambda N_w,
///   a = (2 pi/lambda) W20 4 s,  W20 = dz/(8 N_w^2)
/// of H. H. Hopkins, Proc. R. Soc. A 231 (1955) 91; in focus it is (2/pi)(acos s - s sqrt(1 - s^2)). Absolute error
/// below 1e-9.
double modulation_transfer(const Defocus& defocus);

/// The same integral with its sign: past the first zero a pattern reappears with dark and bright exchanged, which a
/// picture has to show. In [-1, 1], absolute error below 1e-6; made for filling tables quickly.
double optical_transfer(const Defocus& defocus);

inline constexpr const char* airy_formula = "2.44 * lambda * N_w";

}  // namespace poquito::optics
