#include "log/seasons.hpp"

#include "storage/json_reader.hpp"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>
#include <utility>

namespace poquito::log {
namespace {

using storage::Json;
using storage::Node;
using storage::ObjectReader;
using storage::ReadError;

/// Of a month number as in Season.
int week_of_month(double month) {
    return std::clamp(static_cast<int>(std::floor((month - 1) / 12 * weeks)), 0, weeks - 1);
}

std::size_t at(int week) { return static_cast<std::size_t>(((week % weeks) + weeks) % weeks); }

SeasonRow row_of(const Season& season, bool south) {
    SeasonRow row{.name = season.name, .note = season.note};
    const int from = week_of_month(season.from), to = week_of_month(season.to - 0.01);
    const int long_for = ((to - from) % weeks + weeks) % weeks;
    const int later = south ? weeks / 2 : 0;
    for (int k = 0; k <= long_for; ++k) row.there[at(from + k + later)] = true;
    return row;
}

bool is_outdoors(const Entry& entry) { return entry.light.find("sky") != std::string::npos || !entry.wind.empty(); }

}  // namespace

storage::ReadResult<std::vector<Season>> read_seasons(std::string_view text) {
    try {
        const Json document = storage::parse_json(text);
        const Node root(document);
        ObjectReader object(root);
        object.member("format", "\"poquito-seasons\"").one_of<int>({{"poquito-seasons", 0}});
        std::vector<Season> seasons;
        const auto list = object.member("seasons", "a list");
        constexpr text::NumberRule month{.least = 1, .greatest = 13};
        for (const Node& item : list.items()) {
            ObjectReader one(item);
            seasons.push_back({.name = one.text("name"),
                               .kind = one.text_or("kind", {}),
                               .from = one.number("from_month", month),
                               .to = one.number("to_month", month),
                               .note = one.text_or("note", {})});
        }
        return seasons;
    } catch (ReadError& error) {
        return std::move(error);
    }
}

int week_of(const std::string& day) {
    int year = 0, month = 1, date = 1;
    if (std::sscanf(day.c_str(), "%4d-%2d-%2d", &year, &month, &date) != 3) return 0;
    constexpr int before[] = {0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334};
    const int days = before[static_cast<std::size_t>(std::clamp(month, 1, 12) - 1)] + date - 1;
    return std::clamp(days / 7, 0, weeks - 1);
}

int weeks_until(const SeasonRow& row, int this_week) {
    for (int k = 0; k < weeks; ++k)
        if (row.there[at(this_week + k)]) return k;
    return weeks;
}

std::vector<SeasonRow> season_rows(const std::vector<Season>& common, const std::vector<Entry>& logged, bool south,
                                   int this_week) {
    std::map<std::string, SeasonRow> own;
    for (const auto& entry : logged) {
        const auto& name = entry.words.empty() ? entry.name : entry.words;
        if (name.empty() || !is_outdoors(entry)) continue;
        auto& row = own[name];
        row.name = name, row.own = true;
        if (!entry.place.empty()) row.note = entry.place;
        ++row.cases;
        const int week = week_of(entry.time);
        for (int k = -1; k <= 1; ++k) row.there[at(week + k)] = true;
    }
    std::vector<SeasonRow> rows;
    rows.reserve(own.size() + common.size());
    for (auto& [name, row] : own) rows.push_back(std::move(row));
    for (const auto& one : common) rows.push_back(row_of(one, south));
    std::ranges::stable_sort(rows, {},
                             [&](const SeasonRow& row) { return std::pair(!row.own, weeks_until(row, this_week)); });
    return rows;
}

}  // namespace poquito::log
