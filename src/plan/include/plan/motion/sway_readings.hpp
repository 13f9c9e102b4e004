#pragma once

#include "plan/fwd.hpp"
#include "shoot/tries.hpp"

#include <optional>
#include <string>
#include <vector>

/// How steady hands are and how far the wind moves a thing, from frames of a rule. mm; px of the file. Source: the
/// distribution of a standard deviation that was measured (chi squared; any handbook of statistics).
namespace poquito::plan {

/// A measured size, with the interval that holds the true one in nine of ten such measurements.
struct MeasuredSway {
    double value = 0;
    double least = 0;
    double greatest = 0;
    int frames = 0;
};
inline constexpr int least_readings = 3;  // below, nothing follows

/// One standard deviation of readings about their own mean. Empty: too few, or not one differs.
std::optional<MeasuredSway> deviation_of(const std::vector<double>& readings);

/// To and fro, by where each frame of a leaning rule is sharpest; `lean` degrees of the rule from the frame's plane.
std::optional<MeasuredSway> sway_along(const std::vector<double>& on_rule, double lean);

/// How many times the usual shake of hands the blur of a fine line in each frame makes, by its mean square; each frame
/// tells of two axes.
std::optional<MeasuredSway> shake_over_usual(const std::vector<double>& blur, const Plan& plan);

/// Middle to extreme of a swing, by where it stood before a rule at frames taken at any time: the square root of two
/// of their deviation.
std::optional<MeasuredSway> swing_amplitude(const std::vector<double>& places);

/// Numbers as they are typed: divided by spaces, commas or semicolons; a decimal comma where spaces divide. Empty where
/// one is no number.
std::optional<std::vector<double>> typed_readings(const std::string& text);

}  // namespace poquito::plan
