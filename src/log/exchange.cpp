#include "log/exchange.hpp"

#include "members.hpp"
#include "storage/csv_rows.hpp"
#include "storage/json_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <map>
#include <utility>

namespace poquito::log {

using storage::CsvRow;
using storage::Json;
using storage::Node;
using storage::ObjectReader;

namespace {

constexpr const char* alphabet = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";

/// RFC 4648.
std::string base64(const std::string& bytes) {
    std::string text;
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t group = 0;
        const std::size_t count = std::min<std::size_t>(3, bytes.size() - i);
        for (std::size_t k = 0; k < 3; ++k)
            group = (group << 8) | (k < count ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k) text += k <= count ? alphabet[(group >> (18 - 6 * k)) & 63U] : '=';
    }
    return text;
}

std::optional<std::string> from_base64(const std::string& text) {
    std::string bytes;
    std::uint32_t group = 0;
    int bits = 0;
    for (const char c : text) {
        if (c == '=') break;
        const auto place = std::string_view(alphabet).find(c);
        if (place == std::string_view::npos) return std::nullopt;
        group = (group << 6) | static_cast<std::uint32_t>(place);
        bits += 6;
        if (bits < 8) continue;
        bits -= 8;
        bytes += static_cast<char>((group >> bits) & 255U);
    }
    return bytes;
}

/// A member as a cell, and back; empty: it is not there.
std::string cell_of(const std::string& text) { return storage::csv_cell(text); }
std::string cell_of(Kind kind) { return kind_text(kind); }
template <typename Number>
std::string cell_of(const std::optional<Number>& number) {
    return number ? fmt::format("{}", *number) : std::string();
}

template <typename Number>
bool number_from(const std::string& text, std::optional<Number>& number) {
    if (text.empty()) return true;
    Number value{};
    const auto [stopped, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc() || stopped != text.data() + text.size()) return false;
    number = value;
    return true;
}
bool from_cell(const std::string& text, std::string& member) {
    member = storage::disarmed_text(text);
    return true;
}
bool from_cell(const std::string& text, Kind& member) {
    const auto kind = kind_of(text);
    if (kind) member = *kind;
    return kind.has_value();
}
template <typename Number>
bool from_cell(const std::string& text, std::optional<Number>& member) {
    return number_from(text, member);
}

const char* expected_of(const std::string&) { return "a text"; }
const char* expected_of(Kind) { return "run, proof, count, correction, calibration, change, note or inspection"; }
template <typename Number>
const char* expected_of(const std::optional<Number>&) {
    return "a number with a decimal point, or nothing";
}

void put(Json& json, const char* name, const std::string& text) {
    if (!text.empty()) json[name] = text;
}
void put(Json& json, const char* name, Kind kind) { json[name] = kind_text(kind); }
template <typename Number>
void put(Json& json, const char* name, const std::optional<Number>& number) {
    if (number) json[name] = *number;
}

void take(ObjectReader& object, const char* name, std::string& text) { text = object.text_or(name, {}); }
void take(ObjectReader& object, const char* name, Kind& kind) {
    const auto node = object.member(name, expected_of(kind));
    if (!from_cell(node.text(), kind)) node.fail_expecting(expected_of(kind));
}
void take(ObjectReader& object, const char* name, std::optional<double>& number) {
    number = object.number_if_any(name, {.least = -1e12, .greatest = 1e12});
}
void take(ObjectReader& object, const char* name, std::optional<int>& number) {
    if (const auto node = object.find(name)) number = node->whole_number(0);
}

Json json_of(const Entry& entry) {
    Json json;
    each_member(entry, [&](const char* name, const auto& member) { put(json, name, member); });
    for (const auto& frame : entry.exposed) {
        Json one = {{"index", frame.index}, {"file", frame.file.text()}};
        if (frame.plane) one["plane_mm"] = *frame.plane;
        one["f_number"] = frame.f_number;
        one["shutter_s"] = frame.shutter;
        one["iso"] = frame.iso;
        one["time"] = frame.time;
        if (!frame.picture.empty()) one["picture"] = base64(frame.picture);
        json["exposed"].push_back(std::move(one));
    }
    put(json, "plan", entry.plan);
    if (!entry.picture.empty()) json["picture"] = base64(entry.picture);
    return json;
}

void take_picture(ObjectReader& object, std::string& bytes) {
    const auto picture = object.find("picture");
    if (!picture) return;
    auto read = from_base64(picture->text());
    if (!read) picture->fail_expecting("a picture in base 64");
    bytes = std::move(*read);
}

Entry entry_from(const Node& node) {
    ObjectReader object(node);
    Entry entry;
    each_member(entry, [&](const char* name, auto& member) { take(object, name, member); });
    if (const auto exposed = object.find("exposed"))
        for (const Node& item : exposed->items()) {
            ObjectReader one(item);
            auto& frame = entry.exposed.emplace_back();
            frame.index = one.member("index", "a whole number").whole_number(0);
            frame.file = text::StoredPath::of_text(one.text("file"));
            frame.plane = one.number_if_any("plane_mm", storage::range::offset);
            frame.f_number = one.number("f_number", storage::range::f_number);
            frame.shutter = one.number("shutter_s", storage::range::shutter);
            frame.iso = one.number("iso", storage::range::iso);
            frame.time = one.text("time");
            take_picture(one, frame.picture);
        }
    entry.plan = object.text_or("plan", {});
    take_picture(object, entry.picture);
    give_uid(entry);
    return entry;
}

std::vector<Entry> entries_in(std::string_view text) {
    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
    const auto rows = storage::csv_rows(text);
    if (rows.empty()) throw text::Error{"line 1", "got nothing, expected a heading"};
    std::map<std::string, std::size_t> places;
    for (std::size_t i = 0; i < rows[0].cells.size(); ++i) places[rows[0].cells[i]] = i;
    if (!places.contains("kind") || !places.contains("time"))
        throw text::Error{"line 1", "got no column kind or time, expected both"};
    std::vector<Entry> entries;
    for (std::size_t r = 1; r < rows.size(); ++r) {
        const CsvRow& row = rows[r];
        Entry entry;
        each_member(entry, [&](const char* name, auto& member) {
            const auto place = places.find(name);
            if (place == places.end() || place->second >= row.cells.size()) return;
            const auto& cell = row.cells[place->second];
            if (!from_cell(cell, member))
                throw text::Error{fmt::format("line {}, {}", row.line, name),
                                  fmt::format("got \"{}\", expected {}", Node::shortened(cell), expected_of(member))};
        });
        give_uid(entry);
        entries.push_back(std::move(entry));
    }
    return entries;
}

}  // namespace

void give_uid(Entry& entry) {
    if (!entry.uid.empty()) return;
    if (!entry.shot.empty()) {
        entry.uid = fmt::format("{}:{}:{}:{}:{}:{}", kind_text(entry.kind), entry.shoot, entry.shot, entry.time,
                                entry.what, entry.remark);
        return;
    }
    // A list from elsewhere names no shot: only what says the same in every member is the same.
    std::string made;
    each_member(entry, [&](const char* name, const auto& member) {
        if (const auto cell = cell_of(member); !cell.empty())
            made += fmt::format("{}{}={}", made.empty() ? "" : ":", name, cell);
    });
    entry.uid = std::move(made);
}

std::string write_json(const std::vector<Entry>& entries) {
    Json list = Json::array();
    for (const auto& entry : entries) list.push_back(json_of(entry));
    const Json document = {{"format", "poquito-log"}, {"version", 1}, {"entries", std::move(list)}};
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

text::Expected<std::vector<Entry>> read_json(std::string_view text) {
    try {
        const Json document = storage::parse_json(text);
        const Node root(document);
        ObjectReader object(root);
        object.member("format", "\"poquito-log\"").one_of<int>({{"poquito-log", 0}});
        const Node version = object.member("version", "1");
        if (!version.value().is_number() || version.value() != 1)
            version.fail_expecting("1, the version this program reads");
        std::vector<Entry> entries;
        const auto list = object.member("entries", "a list");
        for (const Node& item : list.items()) entries.push_back(entry_from(item));
        return entries;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

std::string write_csv(const std::vector<Entry>& entries) {
    std::string text;
    const Entry heading;
    each_member(heading, [&](const char* name, const auto&) { text += (text.empty() ? "" : ",") + std::string(name); });
    text += "\r\n";
    for (const auto& entry : entries) {
        bool first = true;
        each_member(entry, [&](const char*, const auto& member) {
            if (!std::exchange(first, false)) text += ',';
            text += cell_of(member);
        });
        text += "\r\n";
    }
    return text;
}

text::Expected<std::vector<Entry>> read_csv(std::string_view text) {
    try {
        return entries_in(text);
    } catch (text::Error& error) {
        return std::move(error);
    }
}

}  // namespace poquito::log
