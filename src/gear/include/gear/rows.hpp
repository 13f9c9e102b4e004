#pragma once

#include "gear/kit.hpp"
#include "text/number_rule.hpp"

#include <cstddef>
#include <functional>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

/// What gear records are made of: one row a member, with its name in the file, its words, its unit and its rule. Files,
/// tables and forms are all driven by these rows; adding a member or a kind of gear touches rows.cpp only.
namespace poquito::gear {

/// Which quantity a number is: decides how a person reads and types it. Files hold core units.
enum class Measure {
    plain,
    length,
    f_number,
    magnification,
    dioptres,
    shutter,
    stops,
    power,
    pixels,
    megabytes,
    count
};

/// A member of a record, or one cell of a table in it. Empty: absent.
using Cell = std::variant<std::monostate, double, bool, std::string>;
using Rows = std::vector<std::vector<Cell>>;

enum class FieldType { number, whole_number, flag, choice, text };

struct FieldSpec {
    const char* key;    // in the file: filter_thread_mm; a dot stands for an object in between
    const char* label;  // for people: Filter thread
    const char* hint;   // what it is, for someone who holds the piece in the hand
    FieldType type = FieldType::number;
    Measure measure = Measure::plain;
    text::NumberRule rule = {};
    std::vector<const char*> choices = {};
    bool optional = false;  // may be absent from a file; then it is `otherwise`
    Cell otherwise = {};
};

struct GearField : FieldSpec {
    std::function<Cell(const Kit&, std::size_t)> get;
    std::function<void(Kit&, std::size_t, const Cell&)> set;  // a cell that fits the specification
};

/// What is wrong with a table or with members that each are right alone.
struct GearProblem {
    std::string key;                 // of the member
    std::optional<std::size_t> row;  // in a table
    std::string text;                // "got 3, expected 4 or more, ..."
};

struct GearTable {
    const char* key;
    const char* label;
    const char* hint;
    std::vector<FieldSpec> columns;
    bool optional = false;
    std::function<Rows(const Kit&, std::size_t)> get;
    std::function<void(Kit&, std::size_t, const Rows&)> set;
};

/// An object inside the record whose unknown members are kept for it.
struct GearPart {
    const char* key;
    std::function<std::string(const Kit&, std::size_t)> unknown;
    std::function<void(Kit&, std::size_t, const std::string&)> set_unknown;
};

/// One list of a kit. Indices must be valid.
struct GearKind {
    const char* list;  // in the file: closeup_lenses
    const char* one;   // close-up lens
    const char* many;  // Close-up lenses
    bool optional;     // the list may be absent from a file
    std::vector<GearField> fields = {};
    std::vector<GearTable> tables = {};
    std::vector<GearPart> parts = {};
    std::function<std::size_t(const Kit&)> count;
    std::function<std::string(const Kit&, std::size_t)> id;
    std::function<std::string(const Kit&, std::size_t)> name;
    std::function<std::string(const Kit&, std::size_t)> unknown;
    std::function<void(Kit&, std::size_t, const std::string&)> set_id;
    std::function<void(Kit&, std::size_t, const std::string&)> set_name;
    std::function<void(Kit&, std::size_t, const std::string&)> set_unknown;
    std::function<void(Kit&, std::size_t)> insert_new;                                       // before the index
    std::function<void(Kit&, std::size_t, const Kit& from, std::size_t index)> insert_copy;  // as it is, id and all
    std::function<void(Kit&, std::size_t, const Kit& from, std::size_t index)> replace;
    std::function<void(Kit&, std::size_t)> remove;
    std::function<bool(const Kit&, std::size_t, const Kit& other, std::size_t index)> equal;
    std::function<std::optional<GearProblem>(const Kit&, std::size_t)> check;  // members against each other
};

/// In the order of the kit's lists.
std::span<const GearKind> gear_kinds();
const GearKind& gear_kind(std::string_view list);  // must exist

std::optional<std::size_t> find_index(const GearKind& kind, const Kit& kit, const std::string& id);

/// Whether a cell fits its specification; else what is expected, "got X" left to the caller.
std::optional<std::string> mismatch(const FieldSpec& spec, const Cell& cell);

}  // namespace poquito::gear
