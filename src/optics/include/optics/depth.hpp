#pragma once

#include "optics/aperture.hpp"

/// Depth of field, background blur and the best single stop. All on the subject side unless said otherwise; formulas:
/// MODEL 2, exact for the pupil of the train (checked against ray matrices in tests/optics).
namespace poquito::optics {

/// A focused train at a marked stop: what depth and blur need. Make it with `imaging_at`; magnification is above 0.
struct Imaging {
    double magnification = 1;
    double working_f_number = 8;
    double pupil_diameter = 10;  // entrance pupil, mm
    double pupil_scale = 1;      // pupil over what the subject sees of it through the glass in front: 1 - p D with a
                                 // close-up lens; negative where it is seen from behind
};
Imaging imaging_at(const FocusedTrain& at, double marked_f_number);

/// mm from the plane of focus, both positive.
struct DepthOfField {
    std::optional<double> near;  // empty: sharp as far as the lens (only where the pupil is seen from behind, p D > 1)
    std::optional<double> far;   // empty: sharp to infinity
};
/// `blur_limit`: widest blur disc still called sharp, mm at the sensor, above 0.
DepthOfField depth_of_field(const Imaging& imaging, double blur_limit);

/// Diameter at the sensor, mm, of the disc made by a point `behind` mm behind the plane of focus, negative in front of
/// it. Empty where the point's rays never meet the sensor as a disc (a pupil seen from behind, a point inside the
/// lens).
std::optional<double> blur_disc(const Imaging& imaging, double behind);

/// Disc diameter over the image of a background detail of size `detail` mm, at `behind` mm behind the plane of focus.
double blur_over_detail(const Imaging& imaging, double behind, double detail);

/// The working f-number with the least root-sum-square of Airy disc and edge defocus over a subject `depth` mm deep,
/// focus at its middle. `wavelength` in mm.
double best_working_f_number(double magnification, double depth, double wavelength);

inline constexpr const char* near_formula = "(c * N_w / m^2) / (1 + c * g / (m * A))";
inline constexpr const char* far_formula = "(c * N_w / m^2) / (1 - c * g / (m * A))";
inline constexpr const char* blur_disc_formula = "m^2 * A * b / (A * N_w + m * b * g)";
inline constexpr const char* best_f_number_formula = "m * sqrt(d / (2 * 2.44 * lambda)) / (N_w / N)";
inline constexpr const char* depth_of_field_formula = "near + far";
inline constexpr const char* blur_over_detail_formula = "m * b / (N_w * g)";

}  // namespace poquito::optics
