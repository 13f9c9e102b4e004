#include "storage/things_csv.hpp"

#include "storage/csv_rows.hpp"
#include "text/number_rule.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cstdint>
#include <optional>
#include <string>

namespace poquito::storage {
namespace {

using shoot::Flaw;
using shoot::Thing;

enum class Column { name, width, height, depth, number, flaws, colour, other };

std::string trimmed(std::string_view text) {
    const auto begin = text.find_first_not_of(" \t\r\n"), end = text.find_last_not_of(" \t\r\n");
    return begin == std::string_view::npos ? std::string() : std::string(text.substr(begin, end - begin + 1));
}

std::string lower(std::string text) {
    for (char& c : text) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

/// Of UTF-8 every byte above 127 belongs to a sequence that says how long it is.
bool is_utf8(std::string_view text) {
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto byte = static_cast<unsigned char>(text[i]);
        if (byte < 0x80) continue;
        const std::size_t more = byte >= 0xF0 && byte < 0xF5 ? 3 : byte >= 0xE0 ? 2 : byte >= 0xC2 ? 1 : 0;
        if (more == 0 || byte >= 0xF5 || i + more >= text.size()) return false;
        for (std::size_t k = 1; k <= more; ++k)
            if ((static_cast<unsigned char>(text[i + k]) & 0xC0) != 0x80) return false;
        i += more;
    }
    return true;
}

std::string in_utf8(std::string_view text) {
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    if (is_utf8(text)) return std::string(text);
    std::string made;
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if (byte < 0x80) {
            made += c;
        } else {
            made += static_cast<char>(0xC0 | (byte >> 6));
            made += static_cast<char>(0x80 | (byte & 0x3F));
        }
    }
    return made;
}

/// What the line of headings has most of, outside quotation marks.
char separator_of(std::string_view text) {
    constexpr std::array<char, 3> separators = {',', ';', '\t'};
    std::array<int, 3> counts{};
    bool quoted = false;
    for (const char c : text) {
        if (c == '"') quoted = !quoted;
        if (!quoted && (c == '\n' || c == '\r')) break;
        for (std::size_t i = 0; i < separators.size(); ++i) counts[i] += !quoted && c == separators[i];
    }
    return separators[static_cast<std::size_t>(std::ranges::max_element(counts) - counts.begin())];
}

struct Heading {
    Column column = Column::other;
    std::string unit;  // "cm"; empty: mm
    std::string words;
};

Heading heading_of(const std::string& cell) {
    Heading heading{.words = trimmed(cell)};
    std::string word;
    std::vector<std::string> words;
    for (const char c : lower(heading.words) + " ") {
        const bool part = std::isalnum(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) > 0x7F;
        if (part)
            word += c;
        else if (!word.empty())
            words.push_back(std::exchange(word, {}));
    }
    if (words.empty()) return heading;
    constexpr std::pair<const char*, Column> known[] = {
        {"name", Column::name},   {"thing", Column::name},   {"title", Column::name},      {"item", Column::name},
        {"width", Column::width}, {"wide", Column::width},   {"height", Column::height},   {"high", Column::height},
        {"depth", Column::depth}, {"deep", Column::depth},   {"thickness", Column::depth}, {"number", Column::number},
        {"no", Column::number},   {"id", Column::number},    {"sku", Column::number},      {"flaws", Column::flaws},
        {"flaw", Column::flaws},  {"faults", Column::flaws}, {"colour", Column::colour},   {"color", Column::colour}};
    for (const auto& [text, column] : known)
        if (words.front() == text) heading.column = column;
    if (words.size() > 1) heading.unit = words.back();
    return heading;
}

class ThingReader {
  public:
    explicit ThingReader(const std::vector<Heading>& headings) : headings_(headings) {}

    Thing read(const CsvRow& row) const {
        if (row.cells.size() > headings_.size() &&
            std::ranges::any_of(row.cells.begin() + static_cast<std::ptrdiff_t>(headings_.size()), row.cells.end(),
                                [](const std::string& cell) { return !trimmed(cell).empty(); }))
            throw text::Error{fmt::format("line {}", row.line),
                              fmt::format("{} cells where the headings are {}", row.cells.size(), headings_.size())};
        Thing thing{.name = {}, .number = {}, .colour = {}, .flaws = {}};
        bool sized[3] = {};
        for (std::size_t i = 0; i < std::min(row.cells.size(), headings_.size()); ++i) {
            const auto text = trimmed(row.cells[i]);
            const Heading& heading = headings_[i];
            switch (heading.column) {
                case Column::name:
                    thing.name = text;
                    break;
                case Column::number:
                    thing.number = text;
                    break;
                case Column::width:
                case Column::height:
                case Column::depth: {
                    const auto which =
                        static_cast<std::size_t>(heading.column) - static_cast<std::size_t>(Column::width);
                    double* to[] = {&thing.width, &thing.height, &thing.depth};
                    *to[which] = size(row, heading, text);
                    sized[which] = true;
                    break;
                }
                case Column::flaws:
                    thing.flaws = flaws(row, heading, text);
                    break;
                case Column::colour:
                    if (text.empty()) break;
                    thing.colour = text::parse_colour(text);
                    if (!thing.colour) fail(row, heading, text, "a colour, #8a5532");
                    break;
                case Column::other:
                    break;
            }
        }
        if (thing.name.empty()) throw text::Error{fmt::format("line {}", row.line), "it has no name"};
        // A thing that stands for itself is as deep as half of its shorter side until it is measured.
        if (!sized[2]) thing.depth = std::min(thing.width, thing.height) / 2;
        return thing;
    }

  private:
    [[noreturn]] static void fail(const CsvRow& row, const Heading& heading, const std::string& got,
                                  const std::string& expected) {
        throw text::Error{fmt::format("line {}, {}", row.line, heading.words),
                          fmt::format("got \"{}\", expected {}", got, expected)};
    }

    static std::optional<double> length(const std::string& text, const std::string& unit) {
        const bool bare = !text.empty() && text.find_first_not_of("0123456789., ") == std::string::npos;
        return text::parse_length(bare && !unit.empty() ? text + " " + unit : text);
    }

    static double size(const CsvRow& row, const Heading& heading, const std::string& text) {
        const auto mm = length(text, heading.unit);
        if (!mm || !(*mm > 0) || *mm > text::range::size.greatest) fail(row, heading, text, "a size, 38 cm");
        return *mm;
    }

    /// "scuff 25 mm; torn lining": what follows the last letter of the name is its size.
    static std::vector<Flaw> flaws(const CsvRow& row, const Heading& heading, const std::string& text) {
        std::vector<Flaw> all;
        std::string_view rest = text;
        while (!rest.empty()) {
            const auto end = rest.find_first_of(";|\n");
            const auto one = trimmed(rest.substr(0, end));
            rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + 1);
            if (one.empty()) continue;
            Flaw flaw{.name = one};
            if (const auto number = one.find_first_of("0123456789"); number != std::string::npos) {
                const auto mm = length(one.substr(number), {});
                if (!mm || !(*mm > 0)) fail(row, heading, one, "a flaw and its size, scuff 25 mm");
                flaw.name = trimmed(std::string_view(one).substr(0, number));
                flaw.size = *mm;
            }
            if (flaw.name.empty()) flaw.name = "flaw";
            // Two of a kind are two pictures.
            const auto same = std::ranges::count_if(all, [&](const Flaw& other) {
                return other.name == flaw.name || other.name.starts_with(flaw.name + " ");
            });
            if (same > 0) flaw.name += fmt::format(" {}", same + 1);
            all.push_back(std::move(flaw));
        }
        return all;
    }

    const std::vector<Heading>& headings_;
};

}  // namespace

text::Expected<ThingsRead> read_things_csv(std::string_view bytes) {
    const auto text = in_utf8(bytes);
    const char separator = separator_of(text);
    try {
        const auto rows = csv_rows(text, separator);
        if (rows.empty()) throw text::Error{"", "the table is empty, expected headings: name, width, height, depth"};
        std::vector<Heading> headings;
        ThingsRead read;
        for (const auto& cell : rows.front().cells) {
            headings.push_back(heading_of(cell));
            if (headings.back().column == Column::other && !headings.back().words.empty())
                read.unused.push_back(headings.back().words);
        }
        for (const auto& [column, word] : {std::pair(Column::name, "name"), std::pair(Column::width, "width"),
                                           std::pair(Column::height, "height")}) {
            const auto count = std::ranges::count(headings, column, &Heading::column);
            if (count == 0)
                throw text::Error{"line 1",
                                  fmt::format("no heading \"{}\", expected name, width, height, and where there "
                                              "are depth, number, flaws, colour",
                                              word)};
            if (count > 1) throw text::Error{"line 1", fmt::format("two headings for {}", word)};
        }
        const ThingReader reader(headings);
        for (std::size_t i = 1; i < rows.size(); ++i) {
            if (std::ranges::all_of(rows[i].cells, [](const std::string& cell) { return trimmed(cell).empty(); }))
                continue;
            try {
                Thing thing = reader.read(rows[i]);
                if (std::ranges::find(read.things, thing.name, &Thing::name) != read.things.end())
                    throw text::Error{fmt::format("line {}", rows[i].line),
                                      fmt::format("\"{}\" is there already", thing.name)};
                read.things.push_back(std::move(thing));
            } catch (const text::Error& problem) {
                read.problems.push_back(problem);
            }
        }
        return read;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

}  // namespace poquito::storage
