#pragma once

#include "shoot/change/view_set.hpp"
#include "text/error.hpp"

#include <string_view>
#include <vector>

namespace poquito::storage {

/// A list of things to be photographed, as a table with a line of headings: name, width, height, depth, number, flaws,
/// colour, in any order; others are left alone. Comma, semicolon or tab, whichever the headings have; UTF-8, else
/// Latin 1. A size is in mm, in the unit of its heading ("width (cm)", "width_cm"), or in its own ("38 cm"); 12,5 is
/// twelve and a half. Flaws: "scuff 25; torn lining 40 mm".
struct ThingsRead {
    std::vector<shoot::Thing> things;
    std::vector<text::Error> problems;  // of lines that are left out
    std::vector<std::string> unused;    // headings
};
text::Expected<ThingsRead> read_things_csv(std::string_view text);

}  // namespace poquito::storage
