// docs/shoot.schema.json says what the rows of gear/rows.hpp and of shoot/members.hpp say; docs/file-format.md names
// them all.
#include "gear/rows.hpp"
#include "shoot/members.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <nlohmann/json.hpp>

#include <catch2/catch.hpp>

#include <algorithm>
#include <cctype>
#include <cstdint>
#include <cstdlib>
#include <fstream>
#include <map>
#include <set>
#include <sstream>
#include <string_view>

using namespace poquito::gear;
using Json = nlohmann::ordered_json;

namespace {

Json number_schema(const poquito::text::NumberRule& rule, const char* type = "number") {
    Json json = {{"type", type}};
    json[rule.without_least ? "exclusiveMinimum" : "minimum"] = rule.least;
    json[rule.without_greatest ? "exclusiveMaximum" : "maximum"] = rule.greatest;
    return json;
}

Json schema_of(const FieldSpec& spec) {
    switch (spec.type) {
        case FieldType::flag:
            return {{"type", "boolean"}};
        case FieldType::text:
            return {{"type", "string"}};
        case FieldType::choice: {
            Json choices = Json::array();
            for (const char* choice : spec.choices) choices.push_back(choice);
            return {{"enum", choices}};
        }
        default:
            break;
    }
    return number_schema(spec.rule, spec.type == FieldType::number ? "number" : "integer");
}

Json object_schema(const Json& required, const Json& properties) {
    return {{"type", "object"}, {"required", required}, {"properties", properties}};
}

template <typename Specs>
Json record(Json required, Json properties, const Specs& specs) {
    std::map<std::string, std::pair<Json, Json>> parts;
    for (const auto& spec : specs) {
        const std::string key = spec.key;
        const auto dot = key.find('.');
        if (dot == std::string::npos) {
            properties[key] = schema_of(spec);
            if (!spec.optional) required.push_back(key);
        } else {
            auto& [needed, members] = parts[key.substr(0, dot)];
            members[key.substr(dot + 1)] = schema_of(spec);
            if (!spec.optional) needed.push_back(key.substr(dot + 1));
        }
    }
    for (const auto& [key, part] : parts) {
        properties[key] = object_schema(part.first, part.second);
        required.push_back(key);
    }
    return object_schema(required, properties);
}

Json kit_schema() {
    Json required = Json::array(), lists = Json::object();
    for (const GearKind& kind : gear_kinds()) {
        if (!kind.optional) required.push_back(kind.list);
        Json piece =
            record({"id", "name"}, {{"id", {{"type", "string"}, {"minLength", 1}}}, {"name", {{"type", "string"}}}},
                   kind.fields);
        for (const GearTable& table : kind.tables) {
            piece["properties"][table.key] = {{"type", "array"},
                                              {"items", record(Json::array(), Json::object(), table.columns)}};
            if (!table.optional) piece["required"].push_back(table.key);
        }
        lists[kind.list] = {{"type", "array"}, {"items", piece}};
    }
    return object_schema(required, lists);
}

template <typename Value>
struct Held {
    using type = Value;
    static constexpr bool may_be_null = false;
};
template <typename Value>
struct Held<std::optional<Value>> : Held<Value> {
    static constexpr bool may_be_null = true;
};
template <typename Value>
struct Held<poquito::shoot::CopyOnWrite<Value>> : Held<Value> {};

/// What the rows of one record say, as a schema.
template <typename Record>
class MemberSchema {
  public:
    using Presence = poquito::shoot::Presence;
    using NumberRule = poquito::text::NumberRule;

    Json made() {
        describe(*this, static_cast<const Record*>(nullptr));
        Json schema = object_schema(required_, properties_);
        if (!needed_else_.empty()) {  // what another member stands for
            for (auto& one : one_of_)
                for (const auto& key : needed_else_) one["required"].push_back(key);
            one_of_.push_back({{"required", {unless_}}});
        }
        if (!one_of_.empty()) schema["oneOf"] = one_of_;
        if (!then_.empty()) {
            then_.insert(then_.begin(), if_.first);
            schema["if"] = {{"properties", {{if_.first, {{"const", if_.second}}}}}, {"required", {if_.first}}};
            schema["then"] = {{"required", then_}};
        }
        return schema;
    }

    template <typename Access>
    void number(const char* key, Access, const NumberRule& rule, const Presence& presence) {
        put(key, number_schema(rule), presence);
    }
    template <typename Access>
    void scaled(const char* key, Access, const NumberRule& rule, double) {
        put(key, number_schema(rule));
    }
    template <typename Access>
    void whole(const char* key, Access, int least, const Presence& presence) {
        put(key,
            number_schema({.least = static_cast<double>(least), .greatest = poquito::text::range::most}, "integer"),
            presence);
    }
    template <typename Access>
    void flag(const char* key, Access, const Presence& presence) {
        put(key, {{"type", "boolean"}}, presence);
    }
    template <typename Access>
    void text(const char* key, Access, const Presence& presence) {
        put(key, {{"type", "string"}}, presence);
    }
    template <typename Access>
    void path(const char* key, Access access, const Presence& presence) {
        text(key, access, presence);
    }
    template <typename Access>
    void id(const char* key, Access) {
        put(key, id_, poquito::shoot::needed);
    }
    template <typename Access>
    void texts(const char* key, Access) {
        put(key, list_of({{"type", "string"}}));
    }
    template <typename Access>
    void choice(const char* key, Access, const Presence& presence) {
        Json choices = Json::array();
        for (const char* name : poquito::shoot::names<Member<Access>>)
            if (*name) choices.push_back(name);
        put(key, {{"enum", choices}}, presence);
    }
    template <typename Access>
    void choices(const char* key, Access) {
        Json one = Json::array();
        for (const char* name : poquito::shoot::names<typename Member<Access>::value_type>) one.push_back(name);
        put(key, {{"type", "array"}, {"uniqueItems", true}, {"items", {{"enum", one}}}});
    }
    template <typename Access, typename List>
    void gear(const char* key, Access, List, const char*, const Presence& presence) {
        using Ids = Member<Access>;
        if constexpr (std::is_same_v<Ids, std::vector<std::string>>)
            put(key, list_of(id_), presence);
        else if constexpr (std::is_same_v<Ids, std::string>)
            put(key, id_, presence);
        else
            put(key, {{"type", {"string", "null"}}}, presence);
    }
    template <typename Access>
    void object(const char* key, Access, const Presence& presence = poquito::shoot::spare) {
        Json made = MemberSchema<typename Held<Member<Access>>::type>().made();
        if (Held<Member<Access>>::may_be_null) made = {{"oneOf", {{{"type", "null"}}, std::move(made)}}};
        put(key, std::move(made), presence);
    }
    template <typename Access>
    void list(const char* key, Access, const Presence& presence) {
        put(key, list_of(MemberSchema<typename Held<typename Member<Access>::value_type>::type>().made()), presence);
    }
    template <typename Access>
    void colour(const char* key, Access) {
        put(key, {{"type", "string"}, {"pattern", "^#[0-9a-fA-F]{6}$"}});
    }
    void heights(const char* key) {
        put(key,
            {{"type", "array"},
             {"minItems", 2},
             {"maxItems", poquito::shoot::greatest_height_map},
             {"items", {{"type", "string"}, {"pattern", "^([0-9a-fA-F]{2}){2,256}$"}}}},
            poquito::shoot::needed);
    }
    template <typename Access>
    void focus(Access, const NumberRule& ring, const NumberRule& magnification) {
        put("ring", number_schema(ring));
        put("magnification", number_schema(magnification));
        one_of({"ring", "magnification"});
    }
    template <typename Access>
    void power(const char* key, Access, const Presence& presence) {
        put(key, {{"oneOf", {number_schema(poquito::text::range::power), {{"const", "auto"}}}}}, presence);
    }
    template <typename Access>
    void group(const char* key, Access) {
        put(key, {{"enum", {"A", "B", "C"}}});
    }
    template <typename Access>
    void plane(const char* key, Access) {
        Json made = number_schema(poquito::text::range::offset);
        made["type"] = {"number", "null"};
        put(key, made, poquito::shoot::needed);
    }
    template <typename Access>
    void powers(const char* key, Access) {
        const Json part = number_schema(poquito::text::range::part);
        put(key,
            {{"type", "object"},
             {"properties", {{"A", part}, {"B", part}, {"C", part}}},
             {"additionalProperties", false}},
            poquito::shoot::needed);
    }

  private:
    template <typename Access>
    using Member = std::decay_t<std::invoke_result_t<Access, const Record&>>;
    static Json list_of(Json items) { return {{"type", "array"}, {"items", std::move(items)}}; }
    static inline const Json id_ = {{"type", "string"}, {"minLength", 1}};

    void one_of(const std::vector<std::string>& keys) {
        for (const auto& key : keys) one_of_.push_back({{"required", Json::array({key})}});
    }
    void put(const char* key, Json schema, const Presence& presence = poquito::shoot::spare) {
        properties_[key] = std::move(schema);
        if (presence.unless) {
            unless_ = presence.unless;
            if (properties_[unless_].contains("oneOf"))
                properties_[unless_] = Json(properties_[unless_]["oneOf"][1]);  // then not null
        }
        if (presence.needed && presence.unless)
            needed_else_.emplace_back(key);
        else if (presence.needed)
            required_.push_back(key);
        if (!presence.needed_then) return;
        if (!presence.value) {  // one of the two, and then not null
            properties_[presence.member] = id_;
            one_of({presence.member, key});
            return;
        }
        if_ = {presence.member, presence.value};
        then_.push_back(key);
    }

    std::vector<std::string> needed_else_;
    std::string unless_;
    Json required_ = Json::array(), properties_ = Json::object(), then_ = Json::array(), one_of_ = Json::array();
    std::pair<std::string, std::string> if_;
};

Json schema_of_shoot(const Json& head) {
    Json schema = head;
    auto& properties = schema["properties"];
    const auto list_of = [](Json items) { return Json{{"type", "array"}, {"items", std::move(items)}}; };
    properties["kit"] = kit_schema();
    properties["shots"] = list_of(MemberSchema<poquito::shoot::ShotInFile>().made());
    properties["power_sets"] = list_of(MemberSchema<poquito::shoot::PowerSet>().made());
    properties["outlets"] = list_of(MemberSchema<poquito::shoot::Outlet>().made());
    properties["packing"] = MemberSchema<poquito::shoot::Packing>().made();
    properties["workday"] = MemberSchema<poquito::shoot::Workday>().made();
    properties["site"] = MemberSchema<poquito::shoot::Site>().made();
    properties["limits"] = MemberSchema<poquito::shoot::Limits>().made();
    properties["wishes"] = MemberSchema<poquito::shoot::Wishes>().made();
    properties["purpose"] = MemberSchema<poquito::shoot::Output>().made();
    return schema;
}

std::string read(const std::string& path) {
    std::ifstream file(path);
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
}

const std::string docs = POQUITO_DATA "/../docs/";

/// What the schema says of the value at that place; null where it says nothing.
const Json* rule_of(const Json& schema, const Json& value, const std::vector<std::string>& path, std::size_t step = 0) {
    if (schema.contains("oneOf")) {
        for (const Json& one : schema["oneOf"])
            if (const auto* found = rule_of(one, value, path, step)) return found;
    }
    if (step == path.size())
        return schema.contains("minimum") || schema.contains("exclusiveMinimum") ? &schema : nullptr;
    const bool index = std::isdigit(static_cast<unsigned char>(path[step][0]));
    if (index && schema.contains("items")) return rule_of(schema["items"], value, path, step + 1);
    if (!schema.contains("properties") || !schema["properties"].contains(path[step])) return nullptr;
    return rule_of(schema["properties"][path[step]], value, path, step + 1);
}

void collect_numbers(const Json& json, std::vector<std::string>& here, std::vector<std::vector<std::string>>& found) {
    if (json.is_number()) found.push_back(here);
    const auto into = [&](const std::string& step, const Json& value) {
        here.push_back(step);
        collect_numbers(value, here, found);
        here.pop_back();
    };
    if (json.is_object())
        for (const auto& [key, value] : json.items()) into(key, value);
    if (json.is_array())
        for (std::size_t i = 0; i < json.size(); ++i) into(std::to_string(i), json[i]);
}

std::string place_of(const std::vector<std::string>& path) {
    std::string place;
    for (const auto& step : path)
        place +=
            std::isdigit(static_cast<unsigned char>(step[0])) ? "[" + step + "]" : (place.empty() ? "" : ".") + step;
    return place;
}

/// The reader's complaint; empty: it took it.
std::string refusal(const Json& document) {
    const auto read = poquito::storage::read_shoot(document.dump());
    return read ? std::string() : poquito::text::message(read.error());
}

}  // namespace

TEST_CASE("every number of a shoot has a range in the schema, and the reader keeps to the same", "[storage][schema]") {
    const Json schema = Json::parse(read(docs + "shoot.schema.json"));
    // Numbers that another member bounds more narrowly, within the schema's range.
    const std::set<std::string> related = {"slice",
                                           "second_drop",
                                           "bellows",
                                           "focal_length_mm",
                                           "power",  // of a lamp at most 1
                                           "reflectance",
                                           "transmittance",
                                           "highlight_reflectance",  // together at most 1; not below the rest
                                           "drop_mm"};               // below 0 only of what is thrown
    std::set<std::string> seen;
    for (unsigned seed = 0; seed < 60; ++seed) {
        Json document = Json::parse(poquito::storage::write_shoot(poquito::test::random_shoot(seed)));
        std::vector<std::string> here;
        std::vector<std::vector<std::string>> numbers;
        collect_numbers(document, here, numbers);
        for (const auto& path : numbers) {
            const auto place = place_of(path);
            if (place == "version" || !seen.insert(place).second) continue;
            INFO(place);
            std::string pointer;
            for (const auto& step : path) pointer += "/" + step;
            Json& value = document[Json::json_pointer(pointer)];
            const Json before = value;
            const auto* rule = rule_of(schema, value, path);
            REQUIRE(rule);
            const auto tried = [&](const Json& number) {
                value = number;
                auto line = refusal(document);
                value = before;
                return line;
            };
            const bool open = rule->contains("exclusiveMinimum");
            const double least = rule->at(open ? "exclusiveMinimum" : "minimum").get<double>();
            const double greatest = rule->at("maximum").get<double>();
            const bool whole = rule->at("type") == "integer";
            const double below = whole ? least - 1 : least - std::max(1e-12, std::abs(least) * 1e-9);
            const double above = whole ? greatest + 1 : greatest * (1 + 1e-9);
            const bool bounded =
                std::any_of(path.begin(), path.end(), [&](const auto& step) { return related.contains(step); });
            CHECK(tried(below).starts_with(place));
            CHECK(tried(above).starts_with(place));
            // At the bounds themselves only another member can be in the way, and then the error says which.
            for (const double number : {least, greatest}) {
                if (open && number == least) continue;
                const auto line = tried(whole ? Json(static_cast<std::int64_t>(number)) : Json(number));
                if (!bounded) CHECK((line.empty() || line.find("expected") != std::string::npos));
                if (!bounded && path[0] == "shots") CHECK(line.empty());
            }
        }
    }
    CHECK(seen.size() > 130);
}

TEST_CASE("the schema is what the rows of the program say", "[storage][schema]") {
    const Json schema = Json::parse(read(docs + "shoot.schema.json"));
    if (std::getenv("POQUITO_WRITE_SCHEMA"))  // after a change of rows: write it anew, look at the difference
        std::ofstream(docs + "shoot.schema.json") << schema_of_shoot(schema).dump(1) << '\n';
    for (const auto& [key, part] : schema_of_shoot(schema)["properties"].items()) {
        INFO(key);
        CHECK(part == schema["properties"][key]);
    }
}

TEST_CASE("the file format names every member of every kind of gear", "[storage][schema]") {
    const std::string text = read(docs + "file-format.md");
    for (const GearKind& kind : gear_kinds()) {
        INFO(kind.list);
        const auto quoted = [](std::string_view key) {
            const auto dot = key.find('.');
            std::string made("`");
            made.append(dot == std::string_view::npos ? key : key.substr(dot + 1));
            return made.append("`");
        };
        const auto begin = text.find(quoted(kind.list));
        REQUIRE(begin != std::string::npos);
        const std::string_view line = std::string_view(text).substr(begin).substr(0, text.find('\n', begin) - begin);
        const auto named = [&](std::string_view key) {
            INFO(std::string(key));
            CHECK(line.find(quoted(key)) != std::string_view::npos);
        };
        for (const GearField& field : kind.fields) named(field.key);
        for (const GearTable& table : kind.tables) {
            named(table.key);
            for (const FieldSpec& column : table.columns) named(column.key);
        }
    }
}
