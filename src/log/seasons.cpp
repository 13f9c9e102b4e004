#include "log/seasons.hpp"

#include "storage/json_reader.hpp"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <functional>
#include <map>
#include <utility>

namespace poquito::log {
namespace {

using storage::Json;
using storage::Node;
using storage::ObjectReader;

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

text::Expected<std::vector<Season>> read_seasons(std::string_view text) {
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
    } catch (text::Error& error) {
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

std::vector<BestWeek> best_weeks(const std::vector<SeasonRow>& rows, int this_week, int ahead, std::size_t most) {
    constexpr double own_worth = 3, turning_worth = 2;
    std::vector<BestWeek> all;
    for (int k = 1; k <= ahead; ++k) {
        BestWeek one{.week = static_cast<int>(at(this_week + k))};
        std::vector<std::pair<int, const SeasonRow*>> there;
        for (const auto& row : rows) {
            if (!row.there[at(this_week + k)]) continue;
            // Of all year round nothing begins.
            const bool turns = !row.there[at(this_week + k - 1)] || !row.there[at(this_week + k + 1)];
            one.worth += row.own ? own_worth : turns ? turning_worth : 1;
            there.emplace_back(row.own ? 0 : turns ? 1 : 2, &row);
        }
        std::ranges::stable_sort(there, {}, [](const auto& pair) { return pair.first; });
        for (const auto& [rank, row] : there) one.things.push_back(row->name);
        if (!one.things.empty()) all.push_back(std::move(one));
    }
    std::ranges::stable_sort(all, std::greater{}, &BestWeek::worth);
    std::vector<BestWeek> best;
    const auto away = [&](int week) { return ((week - this_week) % weeks + weeks) % weeks; };
    for (auto& one : all) {
        constexpr int apart = 2;
        if (best.size() == most) break;
        if (std::ranges::none_of(
                best, [&](const BestWeek& had) { return std::abs(away(had.week) - away(one.week)) < apart; }))
            best.push_back(std::move(one));
    }
    std::ranges::sort(best, {}, [&](const BestWeek& one) { return away(one.week); });
    return best;
}

}  // namespace poquito::log
