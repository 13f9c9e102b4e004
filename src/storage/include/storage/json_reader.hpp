#pragma once

#include "text/error.hpp"
#include "text/number_rule.hpp"

#include <nlohmann/json.hpp>

#include <functional>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

/// Reading JSON with a place in every error. Inside storage errors travel as exceptions of type text::Error; its public
/// functions catch them.
namespace poquito::storage {

using Json = nlohmann::ordered_json;

/// The text as JSON; throws text::Error with line and column, first line and first column being 1.
Json parse_json(std::string_view text);

using text::NumberRule;
namespace range = text::range;

/// One value in the document, knowing where it stands. The document and the parent outlive it.
class Node {
  public:
    explicit Node(const Json& root) : value_(&root) {}
    Node(const Node& parent, const Json& value, std::string step);

    double number(const NumberRule& rule) const;
    int whole_number(int least) const;
    bool truth() const;
    std::string text() const;
    std::vector<Node> items() const;
    std::string place() const;
    const Json& value() const { return *value_; }
    bool is_null() const { return value_->is_null(); }

    /// The value of the pair whose text this is; the error lists the texts.
    template <typename Value>
    Value one_of(const std::vector<std::pair<const char*, Value>>& choices) const {
        const std::string found = text();
        std::string expected;
        for (const auto& [name, value] : choices) {
            if (found == name) return value;
            expected += (expected.empty() ? "\"" : " or \"") + std::string(name) + "\"";
        }
        fail("got \"" + shortened(found) + "\", expected " + expected);
    }

    /// "got X, expected Y" with X as it stands in the file.
    [[noreturn]] void fail_expecting(const std::string& expected) const;
    [[noreturn]] void fail(const std::string& problem) const;

    /// At most 40 characters on one line, for messages.
    static std::string shortened(const std::string& text);

  private:
    const Json* value_;
    const Node* parent_ = nullptr;
    std::string step_;  // ".lens" or "[2]"
};

/// An object being read. Remembers which members were asked for; the rest is unknown to this version and kept.
class ObjectReader {
  public:
    explicit ObjectReader(const Node& node);

    Node member(const std::string& key, const char* expected);  // throws where it is missing
    std::optional<Node> find(const std::string& key);           // empty where missing or null
    double number(const std::string& key, const NumberRule& rule);
    double number_or(const std::string& key, const NumberRule& rule, double otherwise);
    std::optional<double> number_if_any(const std::string& key, const NumberRule& rule);
    bool flag_or(const std::string& key, bool otherwise);
    std::string text(const std::string& key);
    std::string text_or(const std::string& key, std::string otherwise);
    std::vector<std::string> texts(const std::string& key);

    /// What is left, as JSON text; empty where nothing is.
    std::string unknown() const;

    const Node& node() const { return node_; }

  private:
    const Node& node_;
    std::set<std::string, std::less<>> asked_;
};

}  // namespace poquito::storage
