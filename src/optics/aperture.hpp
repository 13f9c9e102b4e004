#pragma once

#include "optics/train.hpp"

/// f-numbers. The marked f-number is the one engraved on the lens, always without converter; the working f-number is
/// the one that sets exposure and diffraction at this magnification. Formulas: MODEL 1; Ray, Applied Photographic
/// Optics.
namespace poquito::optics {

/// Working over marked f-number: the same at every stop. At least 1 for any converter of factor 1 or more.
double working_factor(const Train& train, const FocusedTrain& at);

/// As the lens alone sets it at this ring position, without tubes and converter.
double own_f_number(const Train& train, const FocusedTrain& at, double marked_f_number);
double working_f_number(const Train& train, const FocusedTrain& at, double marked_f_number);

/// Stops of light lost against the marked f-number: 2 log2(N_w / N).
double exposure_loss(const Train& train, const FocusedTrain& at);

/// Entrance pupil as the subject sees it through the bare lens.
struct EntrancePupil {
    double diameter = 0;
    double behind_rim = 0;  // negative: in front of the rim
};
EntrancePupil entrance_pupil(const Train& train, const FocusedTrain& at, double marked_f_number);

inline constexpr const char* own_f_number_formula = "N * (1 + m_s / P)";
inline constexpr const char* measured_own_f_number_formula = "N * (1 + ring * (R / N_0 - 1))";
inline constexpr const char* working_f_number_formula = "N_own * (f_s * (P + m_s) + T) / (f_s * (P + m_s)) * k";
inline constexpr const char* exposure_loss_formula = "2 * log2(N_w / N)";

}  // namespace poquito::optics
