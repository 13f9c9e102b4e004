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
    const auto read = log::read_seasons(text.value());
    REQUIRE(read.has_value());
    const auto& all = read.value();
    CHECK(all.size() >= 40);
    for (const auto& one : all) CHECK_FALSE(one.note.empty());
    const auto bad = log::read_seasons(
        R"({"format": "poquito-seasons", "version": 1, "seasons": [{"name": "x", "from_month": 14, "to_month": 2}]})");
    REQUIRE(!bad);
    CHECK(bad.error().place == "seasons[0].from_month");
}

TEST_CASE("The best weeks ahead are those with the most in them, one's own first, and apart", "[log][seasons]") {
    const auto row = [](const char* name, int from, int to, bool own = false) {
        log::SeasonRow made{.name = name, .own = own};
        for (int week = from; week <= to; ++week) made.there[static_cast<std::size_t>(week % log::weeks)] = true;
        return made;
    };
    const std::vector<log::SeasonRow> rows = {row("moss", 0, 51), row("snowdrop", 4, 8), row("catkin", 8, 12),
                                              row("my lichen", 8, 8, true), row("aurora", 45, 46)};
    const auto best = log::best_weeks(rows, 48);  // over the turn of the year
    REQUIRE(best.size() == 3);
    // The eighth week has moss, the last of one, the first of another, and one's own.
    const auto most = std::ranges::max(best, {}, &log::BestWeek::worth);
    CHECK(most.week == 8);
    CHECK(most.things == std::vector<std::string>{"my lichen", "snowdrop", "catkin", "moss"});
    CHECK(most.worth == Approx(3 + 2 + 2 + 1));
    for (std::size_t i = 1; i < best.size(); ++i) {
        const auto away = [](int week) { return (week - 48 + log::weeks) % log::weeks; };
        CHECK(away(best[i].week) - away(best[i - 1].week) >= 2);
    }
    for (const auto& one : best) CHECK(one.week != 48);
    CHECK(log::best_weeks({row("aurora", 45, 46)}, 48).empty());  // not within four months
    CHECK(log::best_weeks({}, 0).empty());
}
