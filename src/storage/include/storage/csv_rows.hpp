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
/// where they are quoted. Throws ReadError with the line.
std::vector<CsvRow> csv_rows(std::string_view text, char separator = ',');

}  // namespace poquito::storage
