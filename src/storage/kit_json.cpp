#include "storage/kit_json.hpp"

#include "gear/rows.hpp"
#include "storage/json_number.hpp"

#include <fmt/format.h>

#include <map>
#include <memory>

namespace poquito::storage {
namespace {

using namespace gear;

/// Reads one record into its place, member by member.
class RecordReader {
  public:
    RecordReader(const Node& node, const GearKind& kind, Kit& kit, std::size_t index)
        : kind_(kind), kit_(kit), index_(index), object_(node) {}

    void read() {
        const std::string id = object_.text("id");
        if (id.empty()) object_.member("id", "text").fail_expecting("an id that is not empty");
        kind_.set_id(kit_, index_, id);
        kind_.set_name(kit_, index_, object_.text("name"));
        for (const GearPart& part : kind_.parts) open(part);
        for (const GearField& field : kind_.fields) field.set(kit_, index_, read_member(field));
        for (const GearTable& table : kind_.tables) read_table(table);
        for (const GearPart& part : kind_.parts) part.set_unknown(kit_, index_, parts_.at(part.key)->object.unknown());
        kind_.set_unknown(kit_, index_, object_.unknown());
        if (const auto problem = kind_.check(kit_, index_)) fail(*problem);
    }

  private:
    const GearKind& kind_;
    Kit& kit_;
    std::size_t index_;
    ObjectReader object_;
    struct Part {  // the reader refers to its node: neither moves
        explicit Part(Node at) : node(std::move(at)), object(node) {}
        Node node;
        ObjectReader object;
    };
    std::map<std::string, std::unique_ptr<Part>> parts_;

    void open(const GearPart& part) {
        parts_.emplace(part.key, std::make_unique<Part>(object_.member(part.key, "an object")));
    }

    Cell read_member(const FieldSpec& spec) {
        const std::string key = spec.key;
        const auto dot = key.find('.');
        if (dot == std::string::npos) return read_cell(object_, key, spec);
        return read_cell(parts_.at(key.substr(0, dot))->object, key.substr(dot + 1), spec);
    }

    void read_table(const GearTable& table) {
        Rows rows;
        const auto list = table.optional ? object_.find(table.key) : object_.member(table.key, "a list");
        if (list)
            for (const Node& item : list->items()) {
                ObjectReader row(item);
                rows.emplace_back();
                for (const FieldSpec& column : table.columns) rows.back().push_back(read_cell(row, column.key, column));
            }
        table.set(kit_, index_, rows);
    }

    static Cell read_cell(ObjectReader& object, const std::string& key, const FieldSpec& spec) {
        if (spec.optional) {
            const auto found = object.find(key);
            return found ? fitting(*found, spec) : spec.otherwise;
        }
        return fitting(object.member(key, mismatch(spec, wrong(spec)).value_or("a value").c_str()), spec);
    }

    /// Something that never fits: the mismatch then says what would.
    static Cell wrong(const FieldSpec& spec) { return spec.type == FieldType::text ? Cell(0.0) : Cell(std::string()); }

    static Cell fitting(const Node& node, const FieldSpec& spec) {
        const Json& value = node.value();
        Cell cell;
        if (value.is_number())
            cell = value.get<double>();
        else if (value.is_boolean())
            cell = value.get<bool>();
        else if (value.is_string())
            cell = value.get<std::string>();
        else
            cell = wrong(spec);
        if (const auto expected = mismatch(spec, cell)) {
            if (spec.type == FieldType::choice && value.is_string())
                node.fail("got \"" + Node::shortened(value.get<std::string>()) + "\", expected " + *expected);
            node.fail_expecting(*expected);
        }
        return cell;
    }

    [[noreturn]] void fail(const GearProblem& problem) {
        const Node member = object_.member(problem.key, "a value");
        if (!problem.row) member.fail(problem.text);
        member.items()[*problem.row].fail(problem.text);
    }
};

Json write_cell(const Cell& cell) {
    if (const auto* number = std::get_if<double>(&cell)) return json_number(*number);
    if (const auto* flag = std::get_if<bool>(&cell)) return *flag;
    if (const auto* text = std::get_if<std::string>(&cell)) return *text;
    return nullptr;
}

Json write_record(const GearKind& kind, const Kit& kit, std::size_t index) {
    Json json = {{"id", kind.id(kit, index)}, {"name", kind.name(kit, index)}};
    for (const GearField& field : kind.fields) {
        const Cell cell = field.get(kit, index);
        if (field.optional && cell == field.otherwise) continue;
        const std::string key = field.key;
        const auto dot = key.find('.');
        (dot == std::string::npos ? json[key] : json[key.substr(0, dot)][key.substr(dot + 1)]) = write_cell(cell);
    }
    for (const GearPart& part : kind.parts) json[part.key] = with_unknown(json[part.key], part.unknown(kit, index));
    for (const GearTable& table : kind.tables) {
        const Rows rows = table.get(kit, index);
        if (table.optional && rows.empty()) continue;
        Json list = Json::array();
        for (const auto& row : rows) {
            Json item = Json::object();
            for (std::size_t i = 0; i < row.size(); ++i)
                if (!table.columns[i].optional || row[i] != table.columns[i].otherwise)
                    item[table.columns[i].key] = write_cell(row[i]);
            list.push_back(std::move(item));
        }
        json[table.key] = std::move(list);
    }
    return with_unknown(std::move(json), kind.unknown(kit, index));
}

}  // namespace

void check_ids_distinct(const Node& list) {
    std::set<std::string> seen;
    for (const Node& item : list.items()) {
        const std::string id = item.value()["id"].get<std::string>();
        if (!seen.insert(id).second)
            Node(item, item.value()["id"], ".id")
                .fail(fmt::format("\"{}\" is taken, expected an id of its own", Node::shortened(id)));
    }
}

Json with_unknown(Json object, const std::string& unknown) {
    if (!unknown.empty()) object.update(Json::parse(unknown));
    return object;
}

Kit read_kit(const Node& node) {
    ObjectReader object(node);
    Kit kit;
    for (const GearKind& kind : gear_kinds()) {
        const auto list = kind.optional ? object.find(kind.list) : object.member(kind.list, "a list");
        if (!list) continue;
        std::size_t index = 0;
        for (const Node& item : list->items()) {
            kind.insert_new(kit, index);
            RecordReader(item, kind, kit, index++).read();
        }
        check_ids_distinct(*list);
    }
    kit.unknown = object.unknown();
    return kit;
}

Json write_kit(const Kit& kit) {
    Json json = Json::object();
    for (const GearKind& kind : gear_kinds()) {
        if (kind.optional && kind.count(kit) == 0) continue;
        Json list = Json::array();
        for (std::size_t i = 0; i < kind.count(kit); ++i) list.push_back(write_record(kind, kit, i));
        json[kind.list] = std::move(list);
    }
    return with_unknown(std::move(json), kit.unknown);
}

}  // namespace poquito::storage
