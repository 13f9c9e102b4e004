// The rows of gear.cpp: every member can be read and set, and refuses what it should.
#include "gear/rows.hpp"

#include "search/reach_search.hpp"
#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>
#include <set>

using namespace poquito;
using namespace poquito::text;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::search;

namespace {

/// Another value that fits.
Cell other_value(const FieldSpec& spec, const Cell& now) {
    switch (spec.type) {
        case FieldType::flag:
            return !std::get<bool>(now);
        case FieldType::text:
            return std::string("other");
        case FieldType::choice:
            for (const char* choice : spec.choices)
                if (std::get<std::string>(now) != choice) return std::string(choice);
            return now;
        default: {
            const double value = std::holds_alternative<double>(now) ? std::get<double>(now) : 1;
            const double more = std::floor(value) + 1;
            return spec.rule.allows(more) ? more : std::max(spec.rule.least, 0.25);
        }
    }
}

Kit full_kit() {
    Kit kit = test::plain_shoot().kit;
    kit.cameras[0].step_readings = {{.lens = "macro", .setting = 3, .ring_step = 0.002, .time = "2026-11-25"}};
    kit.cameras[0].metered_corrections = {{.stops = -0.4, .time = "2026-11-28"}};
    kit.cameras[0].crop_modes = {{.name = "small", .sensor = {.width = 12, .height = 8}}};
    kit.lenses[0].zoom = {{.focal_length = 60}, {.focal_length = 110}};
    kit.lenses[0].calibrations = {{.ring = 0.5, .value = 0.4, .believed = 0.5}};
    kit.flashes[0].corrections = {{.stops = 0.5, .time = "2026-11-25"}};
    kit.flashes[0].metered_corrections = {{.stops = -0.3, .time = "2026-11-25"}};
    kit.flashes[0].energy = 400;
    kit.filters = {{.id = "nd", .name = "Neutral density"}};
    kit.cameras[0].bracket.cadence = 0.2;
    kit.cameras[0].bracket.combine = 12;
    kit.cameras[0].bracket.composite_start = gear::BracketStart::nearest;
    kit.stands = {{.id = "boom", .name = "Boom", .arm = 700, .carries = 4}};
    kit.cameras[0].weight = 720;
    kit.lenses[0].weight = 600, kit.lenses[0].limiter = 500;
    kit.holds = {{.id = "wall", .name = "Elbows on a wall", .shift = 1.2, .turn = 0.02, .along = 0.7, .frames = 10}};
    kit.cards = {{.id = "card", .name = "White card", .reflectance = 0.9, .loss = 1}};
    kit.lamps[0].corrections = {{.stops = -0.5}};
    kit.modifiers[0].corrections = {{.stops = 0.1}, {.stops = 0.2}};
    return kit;
}

}  // namespace

TEST_CASE("keys are distinct, and every member has words and a hint", "[shoot][gear]") {
    std::set<std::string> lists;
    for (const GearKind& kind : gear_kinds()) {
        CHECK(lists.insert(kind.list).second);
        std::set<std::string> keys;
        for (const GearField& field : kind.fields) {
            INFO(kind.list << "." << field.key);
            CHECK(keys.insert(field.key).second);
            CHECK_FALSE(std::string(field.label).empty());
            CHECK_FALSE(std::string(field.hint).empty());
            CHECK((field.type != FieldType::choice || field.choices.size() > 1));
        }
        for (const GearTable& table : kind.tables) {
            CHECK(keys.insert(table.key).second);
            std::set<std::string> columns;
            for (const FieldSpec& column : table.columns) CHECK(columns.insert(column.key).second);
        }
    }
    CHECK(lists.size() == 17);
}

TEST_CASE("each member sets itself and nothing else", "[shoot][gear]") {
    for (const GearKind& kind : gear_kinds())
        for (const GearField& field : kind.fields) {
            INFO(kind.list << "." << field.key);
            Kit kit = full_kit();
            const Kit before = kit;
            const Cell value = other_value(field, field.get(kit, 0));
            field.set(kit, 0, value);
            CHECK(field.get(kit, 0) == value);
            CHECK_FALSE(kit == before);
            for (const GearField& untouched : kind.fields)
                if (&untouched != &field) CHECK(untouched.get(kit, 0) == untouched.get(before, 0));
            for (const GearTable& table : kind.tables) CHECK(table.get(kit, 0) == table.get(before, 0));
            field.set(kit, 0, field.get(before, 0));
            CHECK(kit == before);
        }
}

TEST_CASE("tables give back the rows they were given", "[shoot][gear]") {
    for (const GearKind& kind : gear_kinds())
        for (const GearTable& table : kind.tables) {
            INFO(kind.list << "." << table.key);
            Kit kit = full_kit();
            const Rows rows = table.get(kit, 0);
            REQUIRE_FALSE(rows.empty());
            for (const auto& row : rows) {
                REQUIRE(row.size() == table.columns.size());
                for (std::size_t i = 0; i < row.size(); ++i)
                    CHECK_FALSE(mismatch(table.columns[i], row[i]).has_value());
            }
            table.set(kit, 0, {});
            CHECK(table.get(kit, 0).empty());
            table.set(kit, 0, rows);
            CHECK(kit == full_kit());
        }
}

TEST_CASE("what does not fit a member is told from what does", "[shoot][gear]") {
    const FieldSpec length{.key = "length_mm", .label = "Length", .hint = "", .rule = range::size};
    CHECK_FALSE(mismatch(length, 12.0));
    CHECK(mismatch(length, 0.0) == "0.0001 to 1000000");
    CHECK(mismatch(length, 1e10) == "0.0001 to 1000000");
    CHECK(mismatch(length, std::string("long")) == "a number, 0.0001 to 1000000");
    CHECK(mismatch(length, Cell()) == "a value");
    FieldSpec count = length;
    count.type = FieldType::whole_number;
    CHECK(mismatch(count, 2.5) == "a whole number");
    CHECK_FALSE(mismatch(count, 2.0));
    FieldSpec known = length;
    known.optional = true;
    CHECK_FALSE(mismatch(known, Cell()));
    known.otherwise = 3.0;  // absent from a file it is 3; in a kit it is never absent
    CHECK(mismatch(known, Cell()) == "a value");
    const FieldSpec choice{.key = "", .label = "", .hint = "", .type = FieldType::choice, .choices = {"cut", "decay"}};
    CHECK_FALSE(mismatch(choice, std::string("cut")));
    CHECK(mismatch(choice, std::string("burn")) == "\"cut\" or \"decay\"");
    const FieldSpec flag{.key = "", .label = "", .hint = "", .type = FieldType::flag};
    CHECK_FALSE(mismatch(flag, true));
    CHECK(mismatch(flag, 1.0) == "true or false");
}

TEST_CASE("a number rule says what it checks", "[shoot][gear]") {
    constexpr NumberRule above_zero_share{.greatest = 1, .without_least = true};
    CHECK(range::share.words() == "0 to 1");
    CHECK(range::shutter.words() == "1e-07 to 86400");
    CHECK(above_zero_share.words() == "above 0 to 1");
    CHECK(NumberRule{.greatest = 1, .without_greatest = true}.words() == "0 to below 1");
    for (const double value : {-1.0, 0.0, 0.5, 1.0, 2.0}) {
        CHECK(above_zero_share.allows(value) == (value > 0 && value <= 1));
        CHECK(range::share.allows(value) == (value >= 0 && value <= 1));
        CHECK(range::length.allows(value) == (value >= 0));
        CHECK(range::offset.allows(value));
    }
}

TEST_CASE("a measured lens is named as such in the pieces of a rig", "[shoot][calibration]") {
    auto shoot = test::plain_shoot();
    auto& rig = shoot.shots[0].rig;
    CHECK(pieces_text(shoot.kit, rig) == "100 mm macro 1:1");
    shoot.kit.lenses[0].calibrations = {{.ring = 1, .value = 1.02, .believed = 1}};
    CHECK(pieces_text(shoot.kit, rig) == "100 mm macro 1:1 (measured)");
    rig.reversing_ring = "rev";
    rig.bellows = BellowsSetting{.bellows = "bellows", .extension = 60};
    CHECK(pieces_text(shoot.kit, rig) == "Bellows at 60 mm + Reversing ring + 100 mm macro 1:1 (measured) reversed");
}
