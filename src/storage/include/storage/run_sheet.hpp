#pragma once

#include "advice/advice.hpp"

#include <string>
#include <vector>

namespace poquito::storage {

/// Ink on white paper unless told otherwise.
struct SheetStyle {
    std::string ink = "#1d2b30";  // colours as CSS writes them
    std::string part = "#0b716c";
    std::string quiet = "#5a676b";
    std::string stop = "#9e3522";
    std::string caution = "#9a5b00";
    std::string text_size = "10pt";
    std::string title_size = "13pt";
};

/// The run sheet as one HTML page that stands alone: per shot the gear in mounting order, settings as the camera shows
/// them, distances, lights, frames, checklist, cautions. Plain tables and few styles, so that a browser and a rich-text
/// printer set it alike. `assessments[i]` belongs to `shoot.shots[i]`.
std::string run_sheet_html(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                           const SheetStyle& style = {});
/// One shot alone.
std::string shot_sheet_html(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                            std::size_t only, const SheetStyle& style = {});

}  // namespace poquito::storage
