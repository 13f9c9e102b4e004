#include "storage/csv_rows.hpp"

#include "text/error.hpp"

#include <csv.h>
#include <fmt/format.h>

#include <algorithm>
#include <memory>
#include <utility>

namespace poquito::storage {
namespace {

/// What libcsv calls back into. Lines are counted here: the library does not.
struct Grid {
    std::vector<CsvRow> rows;
    CsvRow current;
    std::size_t line = 1;
    bool after_return = false;

    void cell(std::string text) {
        if (current.cells.empty()) current.line = line;
        line += static_cast<std::size_t>(std::ranges::count(text, '\n'));
        current.cells.push_back(std::move(text));
        after_return = false;
    }
    void row(int end) {
        const bool second_half = end == '\n' && after_return && current.cells.empty();
        after_return = end == '\r';
        if (second_half) return;
        if (!current.cells.empty()) rows.push_back(std::exchange(current, {}));
        ++line;
    }
};

/// Apostrophes, then what a spreadsheet takes for the beginning of a formula.
bool looks_like_formula(std::string_view text) {
    const auto first = text.find_first_not_of('\'');
    return first != std::string_view::npos && std::string_view("=+-@\t\r").find(text[first]) != std::string_view::npos;
}

}  // namespace

std::string csv_number(const std::string& text) {
    const bool plain =
        text.find_first_of(",\"\r\n") == std::string::npos && !text.starts_with(' ') && !text.ends_with(' ');
    if (plain) return text;
    std::string made(text.size() * 2 + 2, ' ');
    made.resize(csv_write(made.data(), made.size(), text.data(), text.size()));
    return made;
}

std::string csv_cell(const std::string& text) { return csv_number(looks_like_formula(text) ? "'" + text : text); }

std::string disarmed_text(const std::string& cell) {
    return cell.starts_with('\'') && looks_like_formula(cell) ? cell.substr(1) : cell;
}

std::vector<CsvRow> csv_rows(std::string_view text, char separator) {
    csv_parser parser;
    if (csv_init(&parser, CSV_STRICT | CSV_STRICT_FINI | CSV_REPALL_NL) != 0)
        throw text::Error{"", "no memory to read the table"};
    const std::unique_ptr<csv_parser, decltype(&csv_free)> guard(&parser, csv_free);
    csv_set_delim(&parser, static_cast<unsigned char>(separator));
    Grid grid;
    const auto on_cell = [](void* data, std::size_t size, void* to) {
        static_cast<Grid*>(to)->cell(std::string(static_cast<const char*>(data), size));
    };
    const auto on_row = [](int end, void* to) { static_cast<Grid*>(to)->row(end); };
    const bool whole = csv_parse(&parser, text.data(), text.size(), on_cell, on_row, &grid) == text.size();
    if (!whole || csv_fini(&parser, on_cell, on_row, &grid) != 0)
        throw text::Error{
            fmt::format("line {}", grid.line),
            "a quotation mark stands alone, expected cells quoted whole and quotation marks in them doubled"};
    return std::move(grid.rows);
}

}  // namespace poquito::storage
