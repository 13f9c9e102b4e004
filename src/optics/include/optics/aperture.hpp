#pragma once

#include "optics/train.hpp"

/// f-numbers. The marked f-number is the one engraved on the lens, always without converter; the working f-number is
/// the one that sets exposure and diffraction at this magnification. From the marginal ray through the ray matrix;
/// closed forms: MODEL 1; Ray, Applied Photographic Optics.
namespace poquito::optics {

/// Working over marked f-number where the lens's own stop limits the bundle: the same at every stop. At least 1 for a
/// forward lens and any converter of factor 1 or more.
double working_factor(const FocusedTrain& at);

/// As the lens alone sets it at this ring position, without tubes and converter.
double own_f_number(const Train& train, const FocusedTrain& at, double marked_f_number);

/// With a front lens the tighter of the two stops rules.
double working_f_number(const FocusedTrain& at, double marked_f_number);

/// The working f-number that the front lens's stop alone would give; empty without one.
std::optional<double> front_working_f_number(const FocusedTrain& at);

/// Stops of light lost against the marked f-number: 2 log2(N_w / N).
double exposure_loss(const FocusedTrain& at, double marked_f_number);

/// The pupil that limits the bundle. `diameter` and `behind_front`: of its own lens's pupil and as the subject sees it
/// through whatever stands in front of that lens.
struct EntrancePupil {
    double diameter = 0;      // before what stands in front of its lens bends the rays
    double scale = 1;         // diameter over the one the subject sees
    double behind_front = 0;  // as the subject sees it; negative: in front of the front
};
EntrancePupil entrance_pupil(const FocusedTrain& at, double marked_f_number);

inline constexpr const char* own_f_number_formula = "N * (1 + m_s / P)";
inline constexpr const char* measured_own_f_number_formula = "N * (1 + ring * (R / N_0 - 1))";
inline constexpr const char* working_f_number_formula = "N_own * (f_s * (P + m_s) + T) / (f_s * (P + m_s)) * k";
inline constexpr const char* any_working_f_number_formula = "m * (w + p) * g / A";
inline constexpr const char* exposure_loss_formula = "2 * log2(N_w / N)";

}  // namespace poquito::optics
