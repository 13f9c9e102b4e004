// The kit's part of docs/shoot.schema.json says what the rows of shoot/gear.hpp say; so does docs/file-format.md.
#include "shoot/gear.hpp"

#include <nlohmann/json.hpp>

#include <catch2/catch.hpp>

#include <cstdlib>
#include <fstream>
#include <map>
#include <sstream>
#include <string_view>

using namespace poquito::shoot;
using Json = nlohmann::ordered_json;

namespace {

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
    Json json = {{"type", spec.type == FieldType::number ? "number" : "integer"}};
    json[spec.rule.without_least ? "exclusiveMinimum" : "minimum"] = spec.rule.least;
    json[spec.rule.without_greatest ? "exclusiveMaximum" : "maximum"] = spec.rule.greatest;
    return json;
}

Json object(const Json& required, const Json& properties) {
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
        properties[key] = object(part.first, part.second);
        required.push_back(key);
    }
    return object(required, properties);
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
    return object(required, lists);
}

std::string read(const std::string& path) {
    std::ifstream file(path);
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
}

const std::string docs = POQUITO_DATA "/../docs/";

}  // namespace

TEST_CASE("the schema's kit is that of the program", "[storage][schema]") {
    Json schema = Json::parse(read(docs + "shoot.schema.json"));
    if (std::getenv("POQUITO_WRITE_SCHEMA")) {  // after a change of gear.cpp: write it anew, look at the difference
        schema["properties"]["kit"] = kit_schema();
        std::ofstream(docs + "shoot.schema.json") << schema.dump(1) << '\n';
    }
    CHECK(schema["properties"]["kit"] == kit_schema());
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
