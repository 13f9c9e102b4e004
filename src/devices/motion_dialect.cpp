#include "devices/motion_dialect.hpp"

#include "storage/json_reader.hpp"

#include <fmt/format.h>

namespace poquito::devices {
namespace {

using text::NumberRule;
namespace range = text::range;
using storage::Json;
using storage::Node;
using storage::ObjectReader;

std::string one_line(ObjectReader& object, const char* key, const std::string& otherwise) {
    auto text = object.text_or(key, otherwise);
    if (text.find_first_of("\r\n") != std::string::npos) object.member(key, "text").fail_expecting("one line");
    return text;
}

}  // namespace

std::string filled(std::string_view command, double position, double feed) {
    std::string text(command);
    const auto put = [&](std::string_view mark, double value) {
        const auto number = fmt::format("{:.4f}", value);
        for (auto at = text.find(mark); at != std::string::npos; at = text.find(mark, at + number.size()))
            text.replace(at, mark.size(), number);
    };
    put("{position}", position);
    put("{feed}", feed);
    return text;
}

text::Expected<MotionDialect> read_dialect(std::string_view text) {
    try {
        const Json document = storage::parse_json(text);
        const Node root(document);
        ObjectReader object(root);
        MotionDialect dialect;
        if (object.find("setup")) dialect.setup = object.texts("setup");
        dialect.move = one_line(object, "move", dialect.move);
        if (dialect.move.find("{position}") == std::string::npos)
            object.member("move", "text").fail_expecting("a command with {position} in it");
        dialect.finish = one_line(object, "finish", dialect.finish);
        dialect.home = one_line(object, "home", dialect.home);
        dialect.where = one_line(object, "where", dialect.where);
        dialect.position_after = one_line(object, "position_after", dialect.position_after);
        dialect.halt = one_line(object, "halt", dialect.halt);
        dialect.ok = one_line(object, "ok", dialect.ok);
        if (dialect.ok.empty()) object.member("ok", "text").fail_expecting("the word that ends an answer");
        dialect.error = one_line(object, "error", dialect.error);
        dialect.baud = static_cast<int>(object.number_or("baud", {.least = 50, .greatest = 4e6}, dialect.baud));
        dialect.timeout = object.number_or("timeout_s", NumberRule{.least = 0.01, .greatest = 3600}, dialect.timeout);
        dialect.speed = object.number_or("speed_mm_s", range::some_speed, dialect.speed);
        dialect.travel = object.number_or("travel_mm", range::size, dialect.travel);
        dialect.least_step = object.number_or("least_step_mm", range::size, dialect.least_step);
        dialect.backlash = object.number_or("backlash_mm", range::length, dialect.backlash);
        if (const auto strange = object.unknown(); !strange.empty())
            root.fail(fmt::format("got {}, which no dialect has", Node::shortened(strange)));
        return dialect;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

std::string write_dialect(const MotionDialect& dialect) {
    const Json json = {{"setup", dialect.setup},         {"move", dialect.move},
                       {"finish", dialect.finish},       {"home", dialect.home},
                       {"where", dialect.where},         {"position_after", dialect.position_after},
                       {"halt", dialect.halt},           {"ok", dialect.ok},
                       {"error", dialect.error},         {"baud", dialect.baud},
                       {"timeout_s", dialect.timeout},   {"speed_mm_s", dialect.speed},
                       {"travel_mm", dialect.travel},    {"least_step_mm", dialect.least_step},
                       {"backlash_mm", dialect.backlash}};
    return json.dump(1) + "\n";
}

}  // namespace poquito::devices
