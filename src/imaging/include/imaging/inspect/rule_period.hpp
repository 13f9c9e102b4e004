#pragma once

#include "imaging/inspect/grey_image.hpp"

#include <optional>

namespace poquito::imaging {

/// Pixels from one tick to the next of a rule that lies across a picture, near `expected`: the period, within a sixth
/// of that, at which rows of the picture repeat the most. Empty where none stands out. Source: the periodogram
/// (Schuster 1898), summed over rows.
std::optional<double> period_across(const GreyImage& picture, double expected);

}  // namespace poquito::imaging
