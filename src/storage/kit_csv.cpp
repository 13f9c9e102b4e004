#include "gear/rows.hpp"
#include "storage/csv_rows.hpp"
#include "storage/json_reader.hpp"
#include "storage/kit_file.hpp"
#include "storage/kit_json.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <utility>

namespace poquito::storage {
namespace {

using namespace gear;
using Row = CsvRow;

// ---- reading -----------------------------------------------------------------------------------------------------

[[noreturn]] void fail(const Row& row, const std::string& column, const std::string& problem) {
    throw text::Error{fmt::format("line {}, {}", row.line, column), problem};
}

[[noreturn]] void fail_expecting(const Row& row, const std::string& column, const std::string& got,
                                 const std::string& expected) {
    fail(row, column, fmt::format("got \"{}\", expected {}", Node::shortened(got), expected));
}

/// 2,8 for 2.8: said in so many words, since a spreadsheet writes it unasked.
bool has_decimal_comma(std::string_view text) {
    const auto comma = text.find(',');
    return comma != std::string_view::npos && text.find(',', comma + 1) == std::string_view::npos &&
           text.find_first_not_of("0123456789,+-") == std::string_view::npos;
}

Cell read_number(const Row& row, const FieldSpec& spec, const std::string& column, const std::string& text) {
    double number = 0;
    const char* end = text.data() + text.size();
    const auto [stopped, error] = std::from_chars(text.data(), end, number);
    if (error == std::errc() && stopped == end) return number;
    if (has_decimal_comma(text)) {
        std::string with_point = text;
        std::ranges::replace(with_point, ',', '.');
        fail_expecting(row, column, text, "a decimal point, " + with_point);
    }
    fail_expecting(row, column, text, "a number, " + spec.rule.words());
}

Cell read_cell(const Row& row, const FieldSpec& spec, const std::string& column, const std::string& text) {
    Cell cell = text;
    if (text.empty() && spec.type != FieldType::text)
        cell = spec.optional ? spec.otherwise : Cell();
    else if (spec.type == FieldType::flag && (text == "true" || text == "false"))
        cell = text == "true";
    else if (spec.type == FieldType::number || spec.type == FieldType::whole_number)
        cell = read_number(row, spec, column, text);
    if (const auto expected = mismatch(spec, cell)) fail_expecting(row, column, text, *expected);
    return cell;
}

/// "a|b; c|d", a backslash before what does not divide.
std::vector<std::vector<std::string>> split_table(const std::string& text) {
    std::vector<std::vector<std::string>> rows;
    if (text.empty()) return rows;
    rows.emplace_back(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '\\' && i + 1 < text.size()) {
            rows.back().back() += text[++i];
        } else if (c == '|') {
            rows.back().emplace_back();
        } else if (c == ';') {
            rows.emplace_back(1);
            while (i + 1 < text.size() && text[i + 1] == ' ') ++i;
        } else {
            rows.back().back() += c;
        }
    }
    return rows;
}

Rows read_table(const Row& row, const GearTable& table, const std::string& text) {
    Rows rows;
    for (const auto& cells : split_table(text)) {
        if (cells.size() != table.columns.size())
            fail_expecting(row, table.key, text, fmt::format("{} values to a line", table.columns.size()));
        rows.emplace_back();
        for (std::size_t i = 0; i < cells.size(); ++i)
            rows.back().push_back(
                read_cell(row, table.columns[i], fmt::format("{}, {}", table.key, table.columns[i].key), cells[i]));
    }
    return rows;
}

/// The pieces' own columns by name, for one row.
class RowReader {
  public:
    RowReader(const std::vector<std::string>& header, const Row& row)
        : header_(header), row_(row), used_(header.size()) {}

    std::string text(const std::string& column) {
        const auto found = std::ranges::find(header_, column);
        const auto at = static_cast<std::size_t>(found - header_.begin());
        if (found == header_.end() || at >= row_.cells.size()) return {};
        used_[at] = true;
        return row_.cells[at];
    }

    void read(const GearKind& kind, Kit& kit, std::size_t index) {
        for (const GearField& field : kind.fields)
            field.set(kit, index, read_cell(row_, field, field.key, text(field.key)));
        for (const GearTable& table : kind.tables) table.set(kit, index, read_table(row_, table, text(table.key)));
        keep_the_rest(kind, kit, index);
        if (const auto problem = kind.check(kit, index)) fail(row_, problem->key, problem->text);
    }

  private:
    const std::vector<std::string>& header_;
    const Row& row_;
    std::vector<bool> used_;

    /// A filled cell that is no member of this kind: of another kind it is a slip, of none it is kept; by name, for
    /// columns stand in another order once other pieces bring them first.
    void keep_the_rest(const GearKind& kind, Kit& kit, std::size_t index) {
        std::map<std::string, Json> unknown;
        std::map<std::string, std::map<std::string, Json>> parts;
        for (std::size_t i = 0; i < row_.cells.size(); ++i) {
            if (used_[i] || row_.cells[i].empty()) continue;
            if (is_member_of_any_kind(header_[i]))
                fail_expecting(row_, header_[i], row_.cells[i],
                               fmt::format("nothing: a {} has no such member", kind.one));
            const auto dot = header_[i].find('.');
            const std::string part = dot == std::string::npos ? "" : header_[i].substr(0, dot);
            const bool known_part = std::ranges::any_of(kind.parts, [&](const GearPart& p) { return p.key == part; });
            (known_part ? parts[part][header_[i].substr(dot + 1)] : unknown[header_[i]]) = value_of(row_.cells[i]);
        }
        if (!unknown.empty()) kind.set_unknown(kit, index, Json(unknown).dump());
        for (const GearPart& part : kind.parts)
            if (parts.contains(part.key)) part.set_unknown(kit, index, Json(parts[part.key]).dump());
    }

    static bool is_member_of_any_kind(const std::string& column) {
        return std::ranges::any_of(gear_kinds(), [&](const GearKind& kind) {
            return std::ranges::any_of(kind.fields, [&](const GearField& field) { return field.key == column; }) ||
                   std::ranges::any_of(kind.tables, [&](const GearTable& table) { return table.key == column; });
        });
    }

    static Json value_of(const std::string& text) {
        const Json parsed = Json::parse(text, nullptr, false);
        return parsed.is_discarded() ? Json(text) : parsed;
    }
};

void check_header(const Row& header) {
    for (const char* needed : {"kind", "id", "name"})
        if (std::ranges::count(header.cells, needed) == 0) {
            const bool semicolons = header.cells.size() == 1 && header.cells[0].find(';') != std::string::npos;
            throw text::Error{fmt::format("line {}", header.line),
                              semicolons
                                  ? "columns are divided by semicolons, expected commas"
                                  : fmt::format("no column \"{}\", expected kind, id, name and the members", needed)};
        }
    for (std::size_t i = 0; i < header.cells.size(); ++i)
        if (std::ranges::count(header.cells, header.cells[i]) > 1)
            throw text::Error{
                fmt::format("line {}", header.line),
                fmt::format("column \"{}\" stands twice, expected once", Node::shortened(header.cells[i]))};
}

const GearKind& kind_of(const Row& row, const std::string& list) {
    const auto kinds = gear_kinds();
    const auto found = std::ranges::find_if(kinds, [&](const GearKind& kind) { return kind.list == list; });
    if (found != kinds.end()) return *found;
    std::string expected;
    for (const GearKind& kind : kinds) expected += fmt::format("{}{}", expected.empty() ? "" : ", ", kind.list);
    fail_expecting(row, "kind", list, "one of " + expected);
}

Kit read_table_of_gear(std::string_view text) {
    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);  // the mark some spreadsheets put first
    try {
        (void)Json(std::string(text)).dump();
    } catch (const Json::exception&) {
        throw text::Error{"", "the letters are not UTF-8, expected a file saved as UTF-8"};
    }
    auto rows = csv_rows(text);
    for (Row& row : rows)
        for (std::string& cell : row.cells) cell = disarmed_text(cell);
    if (rows.empty()) throw text::Error{"line 1", "nothing there, expected a header with kind, id and name"};
    check_header(rows.front());
    const auto& header = rows.front().cells;
    Kit kit;
    for (std::size_t i = 1; i < rows.size(); ++i) {
        const Row& row = rows[i];
        if (std::ranges::all_of(row.cells, [](const std::string& cell) { return cell.empty(); })) continue;
        if (row.cells.size() > header.size())
            throw text::Error{
                fmt::format("line {}", row.line),
                fmt::format("got {} cells, expected {} as in the header", row.cells.size(), header.size())};
        RowReader reader(header, row);
        const GearKind& kind = kind_of(row, reader.text("kind"));
        const std::size_t index = kind.count(kit);
        const std::string id = reader.text("id");
        if (id.empty()) fail_expecting(row, "id", id, "an id that is not empty");
        if (find_index(kind, kit, id)) fail(row, "id", fmt::format("\"{}\" is taken, expected an id of its own", id));
        kind.insert_new(kit, index);
        kind.set_id(kit, index, id);
        kind.set_name(kit, index, reader.text("name"));
        reader.read(kind, kit, index);
    }
    return kit;
}

// ---- writing -----------------------------------------------------------------------------------------------------

std::string cell_text(const Cell& cell) {
    if (const auto* number = std::get_if<double>(&cell)) return fmt::format("{}", *number);
    if (const auto* flag = std::get_if<bool>(&cell)) return *flag ? "true" : "false";
    if (const auto* text = std::get_if<std::string>(&cell)) return *text;
    return {};
}

std::string table_text(const Rows& rows) {
    std::string text;
    for (const auto& row : rows) {
        if (!text.empty()) text += "; ";
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (i > 0) text += '|';
            const std::string cell = cell_text(row[i]);
            for (std::size_t c = 0; c < cell.size(); ++c) {
                if (cell[c] == '|' || cell[c] == ';' || cell[c] == '\\' || (i == 0 && c == 0 && cell[c] == ' '))
                    text += '\\';
                text += cell[c];
            }
        }
    }
    return text;
}

/// As it stands between commas.
std::string written(const Cell& cell) {
    return std::holds_alternative<double>(cell) ? csv_number(cell_text(cell)) : csv_cell(cell_text(cell));
}

/// Column name and cell, for one piece.
std::vector<std::pair<std::string, std::string>> cells_of(const GearKind& kind, const Kit& kit, std::size_t index) {
    std::vector<std::pair<std::string, std::string>> cells = {
        {"kind", kind.list}, {"id", csv_cell(kind.id(kit, index))}, {"name", csv_cell(kind.name(kit, index))}};
    for (const GearField& field : kind.fields) cells.emplace_back(field.key, written(field.get(kit, index)));
    for (const GearTable& table : kind.tables)
        cells.emplace_back(table.key, csv_cell(table_text(table.get(kit, index))));
    const auto add_unknown = [&](const std::string& prefix, const std::string& json) {
        if (json.empty()) return;
        const Json members = Json::parse(json);
        for (const auto& [key, value] : members.items()) cells.emplace_back(prefix + key, csv_cell(value.dump()));
    };
    add_unknown("", kind.unknown(kit, index));
    for (const GearPart& part : kind.parts) add_unknown(std::string(part.key) + ".", part.unknown(kit, index));
    return cells;
}

}  // namespace

text::Expected<Kit> read_kit_csv(std::string_view text) {
    try {
        return read_table_of_gear(text);
    } catch (text::Error& error) {
        return std::move(error);
    }
}

std::string write_kit_csv(const Kit& kit) {
    std::vector<std::vector<std::pair<std::string, std::string>>> pieces;
    std::vector<std::string> header = {"kind", "id", "name"};
    for (const GearKind& kind : gear_kinds())
        for (std::size_t i = 0; i < kind.count(kit); ++i) {
            pieces.push_back(cells_of(kind, kit, i));
            for (const auto& [column, text] : pieces.back())
                if (std::ranges::count(header, column) == 0) header.push_back(column);
        }
    std::string out;
    const auto write_row = [&](auto&& text_of) {
        for (std::size_t i = 0; i < header.size(); ++i) out += (i > 0 ? "," : "") + text_of(header[i]);
        out += "\r\n";
    };
    write_row([](const std::string& column) { return csv_cell(column); });
    for (const auto& piece : pieces)
        write_row([&](const std::string& column) {
            const auto found = std::ranges::find(piece, column, [](const auto& cell) { return cell.first; });
            return found == piece.end() ? std::string() : found->second;
        });
    return out;
}

}  // namespace poquito::storage
