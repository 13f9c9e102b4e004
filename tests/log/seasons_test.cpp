// What is there when, by weeks.
#include "log/seasons.hpp"

#include "storage/atomic_file.hpp"
#include "support/matchers.hpp"

#include <algorithm>
#include <variant>

using namespace poquito;

TEST_CASE("weeks of the year, its turn and the other half of the globe", "[log][seasons]") {
    CHECK(log::week_of("2026-01-01") == 0);
    CHECK(log::week_of("2026-01-08") == 1);
    CHECK(log::week_of("2026-12-31") == 51);
    CHECK(log::week_of("nonsense") == 0);
    const std::vector<log::Season> common = {{.name = "Frost", .from = 11.5, .to = 3},
                                             {.name = "Dew", .from = 8.5, .to = 11},
                                             {.name = "Lichen", .from = 1, .to = 13}};
    const auto rows = log::season_rows(common, {}, false, 40);
    const auto row = [](const std::vector<log::SeasonRow>& all, const char* name) {
        return *std::ranges::find(all, name, &log::SeasonRow::name);
    };
    CHECK(row(rows, "Frost").there[50]);
    CHECK(row(rows, "Frost").there[2]);
    CHECK_FALSE(row(rows, "Frost").there[20]);
    CHECK(std::ranges::count(row(rows, "Lichen").there, true) == 52);
    CHECK(log::weeks_until(row(rows, "Frost"), 40) == 5);
    CHECK(log::weeks_until(row(rows, "Dew"), 40) == 0);
    CHECK(rows.back().name == "Frost");  // what is there now stands before it
    const auto south = log::season_rows(common, {}, true, 40);
    CHECK(row(south, "Frost").there[24]);
    CHECK_FALSE(row(south, "Frost").there[50]);
    log::Entry entry;
    entry.words = "Ivy bee", entry.light = "sky", entry.time = "2025-01-02T10:00:00";
    log::Entry indoors = entry;
    indoors.words = "Coin", indoors.light = "flash";
    const auto own = log::season_rows(common, {entry, entry, indoors}, false, 40);
    CHECK(own.front().name == "Ivy bee");
    CHECK(own.front().cases == 2);
    CHECK(own.front().there[51]);  // a week to each side, over the turn of the year
    CHECK(own.front().there[0]);
    CHECK(own.front().there[1]);
    CHECK(std::ranges::count(own.front().there, true) == 3);
    CHECK(own.size() == 4);
}

TEST_CASE("the seasons that ship can be read, and what cannot is told with its place", "[log][seasons]") {
    const auto text = storage::read_file(POQUITO_DATA "/seasons.json");
    const auto read = log::read_seasons(std::get<std::string>(text));
    REQUIRE(std::holds_alternative<std::vector<log::Season>>(read));
    const auto& all = std::get<std::vector<log::Season>>(read);
    CHECK(all.size() >= 40);
    for (const auto& one : all) CHECK_FALSE(one.note.empty());
    const auto bad = log::read_seasons(
        R"({"format": "poquito-seasons", "version": 1, "seasons": [{"name": "x", "from_month": 14, "to_month": 2}]})");
    REQUIRE(std::holds_alternative<storage::ReadError>(bad));
    CHECK(std::get<storage::ReadError>(bad).place == "seasons[0].from_month");
}
