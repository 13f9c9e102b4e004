#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace poquito::storage {

struct CsvRow {
    std::size_t line = 1;  // it begins on
    std::vector<std::string> cells;
};

/// A table as RFC 4180 has it, empty lines left out; cells may hold separators, line ends and doubled quotation marks
/// where they are quoted. Throws text::Error with the line.
std::vector<CsvRow> csv_rows(std::string_view text, char separator = ',');

/// A cell as it is written: quoted where it has to be. A text that a spreadsheet would take for a formula (it begins
/// with = + - @, a tab or a return) stands behind an apostrophe; one that stands behind one already gets another, so
/// that `disarmed_text` gives back what was there.
std::string csv_cell(const std::string& text);
/// For numbers, which are never a formula: without the apostrophe.
std::string csv_number(const std::string& text);

/// What was given to `csv_cell`.
std::string disarmed_text(const std::string& cell);

}  // namespace poquito::storage
