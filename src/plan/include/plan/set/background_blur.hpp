#pragma once

#include "plan/report.hpp"

#include <string>

/// What becomes of a detail in the background.
namespace poquito::plan {

/// How well a detail is recognised, by its blur disc over its image (common practice).
enum class Recognition { sharp, recognised, soft_shape, melted };
Recognition recognition(double blur_over_detail);
const char* recognition_text(Recognition recognition);  // "is recognised"

/// From this ratio on nothing is left of the detail but its colour.
inline constexpr double melts_from = 3;

/// The marked stop at which the background's detail just melts away; may lie beyond the lens. Empty where it never
/// does: no background, one at the plane of focus, focus at infinity.
std::optional<double> melting_f_number(const Plan& plan);
inline constexpr const char* melting_formula = "m * b / (3 * g) / (N_w / N)";

/// The distance behind the subject at which it melts at the stop that is set, mm.
std::optional<double> melting_distance(const Plan& plan);

/// Both in one sentence, with the disc and what becomes of the detail.
std::string background_sentence(const Plan& plan, const Report& report);

}  // namespace poquito::plan
