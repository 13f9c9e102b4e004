#include "storage/json_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::storage {
namespace {

/// "line 3, column 12" of the 1-based byte.
std::string line_and_column(std::string_view text, std::size_t byte) {
    const auto before = text.substr(0, std::min(byte == 0 ? 0 : byte - 1, text.size()));
    const auto line = std::ranges::count(before, '\n') + 1;
    const auto last_break = before.rfind('\n');
    const auto column = last_break == std::string_view::npos ? before.size() + 1 : before.size() - last_break;
    return fmt::format("line {}, column {}", line, column);
}

/// The library's own explanation without its code and position.
std::string explanation(const std::string& what) {
    const auto dash = what.find(" - ");
    std::string text = dash == std::string::npos ? what.substr(what.find("] ") + 2) : what.substr(dash + 3);
    for (char& c : text)
        if (static_cast<unsigned char>(c) < 0x20 || static_cast<unsigned char>(c) > 0x7e) c = '?';
    return text;
}

/// The library goes down one level of the stack a bracket, and looks through all members of an object for each that
/// comes: both are bounded before it begins, at the byte that goes too far.
void check_bounds(std::string_view text) {
    constexpr std::size_t deepest = 200, most_members = 10'000;
    std::vector<std::size_t> members;  // or items, of each bracket that is open
    std::vector<bool> is_object;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '"') {
            for (++i; i < text.size() && text[i] != '"'; ++i)
                if (text[i] == '\\') ++i;
        } else if (c == '{' || c == '[') {
            if (members.size() == deepest)
                throw text::Error{line_and_column(text, i + 1),
                                  fmt::format("got a bracket inside {} others, expected {} at most", deepest, deepest)};
            members.push_back(1);
            is_object.push_back(c == '{');
        } else if ((c == '}' || c == ']') && !members.empty()) {
            members.pop_back();
            is_object.pop_back();
        } else if (c == ',' && !members.empty() && ++members.back() > most_members && is_object.back()) {
            throw text::Error{line_and_column(text, i + 1),
                              fmt::format("got an object of more than {} members", most_members)};
        }
    }
}

}  // namespace

Json parse_json(std::string_view text) {
    check_bounds(text);
    try {
        return Json::parse(text);
    } catch (const Json::parse_error& error) {
        throw text::Error{line_and_column(text, error.byte), "not JSON, " + explanation(error.what())};
    } catch (const Json::exception& error) {  // a number that no double holds
        const std::string what = explanation(error.what());
        const auto quote = what.find('\'');
        const auto token = quote == std::string::npos ? "" : what.substr(quote + 1, what.rfind('\'') - quote - 1);
        const auto at = text.find(token);
        throw text::Error{line_and_column(text, at == std::string_view::npos ? 0 : at + 1),
                          "got " + Node::shortened(token) + ", expected a number that a double can hold"};
    }
}

// ---- Node --------------------------------------------------------------------------------------------------------

Node::Node(const Node& parent, const Json& value, std::string step)
    : value_(&value), parent_(&parent), step_(std::move(step)) {}

double Node::number(const NumberRule& rule) const {
    if (!value_->is_number()) fail_expecting("a number, " + rule.words());
    const double number = value_->get<double>();
    if (!rule.allows(number)) fail_expecting(rule.words());
    return number;
}

int Node::whole_number(int least) const {
    const double number = this->number({.least = static_cast<double>(least), .greatest = range::most});
    if (number != std::floor(number)) fail_expecting("a whole number");
    return static_cast<int>(number);
}

bool Node::truth() const {
    if (!value_->is_boolean()) fail_expecting("true or false");
    return value_->get<bool>();
}

std::string Node::text() const {
    if (!value_->is_string()) fail_expecting("text");
    return value_->get<std::string>();
}

std::vector<Node> Node::items() const {
    if (!value_->is_array()) fail_expecting("a list");
    std::vector<Node> nodes;
    nodes.reserve(value_->size());
    for (std::size_t i = 0; i < value_->size(); ++i) nodes.emplace_back(*this, (*value_)[i], fmt::format("[{}]", i));
    return nodes;
}

std::string Node::place() const {
    const std::string path = (parent_ ? parent_->place() : "") + step_;
    return path.starts_with('.') ? path.substr(1) : path;
}

std::string Node::shortened(const std::string& text) {
    constexpr std::size_t most = 40;
    std::string line;
    for (const char c : text) line += static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
    if (line.size() <= most) return line;
    std::size_t end = most;
    while (end > 0 && (static_cast<unsigned char>(line[end]) & 0xc0) == 0x80) --end;  // not inside a character
    return line.substr(0, end) + "...";
}

void Node::fail_expecting(const std::string& expected) const {
    const auto found = value_->is_object()  ? "an object"
                       : value_->is_array() ? "a list"
                                            : shortened(value_->dump(-1, ' ', false, Json::error_handler_t::replace));
    fail(fmt::format("got {}, expected {}", found, expected));
}

void Node::fail(const std::string& problem) const { throw text::Error{place(), problem}; }

// ---- ObjectReader ------------------------------------------------------------------------------------------------

ObjectReader::ObjectReader(const Node& node) : node_(node) {
    if (!node.value().is_object()) node.fail_expecting("an object");
}

Node ObjectReader::member(const std::string& key, const char* expected) {
    asked_.insert(key);
    const auto found = node_.value().find(key);
    if (found == node_.value().end())
        throw text::Error{(node_.place().empty() ? "" : node_.place() + ".") + key,
                          fmt::format("missing, expected {}", expected)};
    return {node_, *found, "." + key};
}

std::optional<Node> ObjectReader::find(const std::string& key) {
    asked_.insert(key);
    const auto found = node_.value().find(key);
    if (found == node_.value().end() || found->is_null()) return std::nullopt;
    return Node{node_, *found, "." + key};
}

double ObjectReader::number(const std::string& key, const NumberRule& rule) {
    return member(key, ("a number, " + rule.words()).c_str()).number(rule);
}

double ObjectReader::number_or(const std::string& key, const NumberRule& rule, double otherwise) {
    return number_if_any(key, rule).value_or(otherwise);
}

std::optional<double> ObjectReader::number_if_any(const std::string& key, const NumberRule& rule) {
    const auto found = find(key);
    return found ? std::optional(found->number(rule)) : std::nullopt;
}

bool ObjectReader::flag_or(const std::string& key, bool otherwise) {
    const auto node = find(key);
    return node ? node->truth() : otherwise;
}

std::string ObjectReader::text(const std::string& key) { return member(key, "text").text(); }

std::string ObjectReader::text_or(const std::string& key, std::string otherwise) {
    const auto found = find(key);
    return found ? found->text() : std::move(otherwise);
}

std::vector<std::string> ObjectReader::texts(const std::string& key) {
    const Node list = member(key, "a list");
    std::vector<std::string> found;
    for (const Node& item : list.items()) found.push_back(item.text());
    return found;
}

std::string ObjectReader::unknown() const {
    Json rest = Json::object();
    for (const auto& [key, value] : node_.value().items())
        if (!asked_.contains(key)) rest[key] = value;
    return rest.empty() ? std::string() : rest.dump();
}

}  // namespace poquito::storage
