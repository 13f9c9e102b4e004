#pragma once

#include "advice/advice.hpp"

#include <functional>
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
    std::string setting_size = "17pt";  // stop, time and ISO: read at arm's length
    bool narrow_screens = false;        // rules for a phone, which a rich-text printer would take for the page
};

/// The drawings of a shot, to scale, as HTML (an image with its data); empty: none.
struct SheetDrawings {
    std::function<std::string(std::size_t shot)> bench, frame;
};

/// The run sheet as one HTML page that stands alone: the day with its clock and what to pack, then per shot drawings,
/// settings as the camera shows them, gear in mounting order, distances, lights, frames, each with the cautions that
/// belong to it, and the checklist. Plain tables and few styles, so that a browser and a rich-text printer set it
/// alike. `assessments[i]` belongs to `shoot.shots[i]`.
std::string run_sheet_html(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                           const SheetStyle& style = {}, const SheetDrawings& drawings = {});
/// The day and what to pack alone, and one shot alone.
std::string day_sheet_html(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                           const SheetStyle& style = {});
std::string shot_sheet_html(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                            std::size_t only, const SheetStyle& style = {}, const SheetDrawings& drawings = {});

}  // namespace poquito::storage
