#pragma once

#include "shoot/report.hpp"

#include <string>
#include <vector>

namespace poquito::storage {

/// The run sheet as one HTML page that stands alone: per shot the gear in mounting order, settings as the camera shows
/// them, distances, lights, frames, checklist, cautions. Plain tables and few styles, so that a browser and a rich-text
/// printer set it alike. `reports[i]` belongs to `shoot.shots[i]`; `only` picks one shot.
std::string run_sheet_html(const shoot::Shoot& shoot, const std::vector<shoot::Report>& reports);
std::string run_sheet_html(const shoot::Shoot& shoot, const std::vector<shoot::Report>& reports, std::size_t only);

}  // namespace poquito::storage
