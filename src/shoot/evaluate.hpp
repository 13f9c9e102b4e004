#pragma once

#include "shoot/report.hpp"

namespace poquito::shoot {

/// Everything a plan comes to. Pure: the same shoot gives the same report. `shot` must stand in `shoot`'s kit, that is,
/// name only gear that is there.
Report evaluate(const Kit& kit, const Shot& shot);

/// Time between two frames where none is set: brackets of today's cameras go no faster with settling and writing
/// (common practice).
inline constexpr double default_frame_interval = 0.5;  // s

/// Ambient this far below the total leaves the exposure to the flash (MODEL 2, motion).
inline constexpr double flash_makes_exposure = 4;  // stops

}  // namespace poquito::shoot
