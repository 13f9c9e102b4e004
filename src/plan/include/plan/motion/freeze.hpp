#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>

/// Things that fall, fly and splash, and the flash that stops them.
namespace poquito::plan {

/// mm/s at the wanted place, or where the light meets it without a delay. A splash leaves the surface about as fast as
/// what fell in arrives (common practice).
double speed_of(const shoot::Freeze& freeze);

/// What the shot's freeze plan comes to; empty where it has none. `report` is complete but for it and its notes.
std::optional<FreezeReport> report_freeze(const Plan& plan, const Report& report);

/// The shot with its flashes at that row's power, exposed alike by aperture or by ISO. The other flashes follow in
/// proportion.
enum class ExposedBy { aperture, iso };
shoot::Shot at_power(const shoot::Shot& shot, const FreezeReport& freeze, const FreezeRow& row, ExposedBy by);

}  // namespace poquito::plan
