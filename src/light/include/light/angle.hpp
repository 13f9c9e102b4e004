#pragma once

#include <numbers>

namespace poquito::light {

inline constexpr double degree = std::numbers::pi / 180;  // rad

}  // namespace poquito::light
