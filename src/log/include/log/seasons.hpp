#pragma once

#include "log/entry.hpp"
#include "text/error.hpp"

#include <array>
#include <string>
#include <string_view>
#include <vector>

/// What is there when, over a year of 52 weeks: the log's own first, then what is common.
namespace poquito::log {

inline constexpr int weeks = 52;

/// Something common of the temperate north, by months: 3 is the first of March, 3.5 its middle, 13 the end of the year.
/// Where it ends before it begins it goes over the turn of the year.
struct Season {
    std::string name;
    std::string kind;
    double from = 1;
    double to = 13;
    std::string note;  // what to mind
};
/// Of a file poquito-seasons.
text::Expected<std::vector<Season>> read_seasons(std::string_view text);

struct SeasonRow {
    std::string name;
    std::string note;
    std::array<bool, weeks> there = {};  // from the first of January
    bool own = false;                    // of the log
    int cases = 0;                       // entries of it
};

/// `south`: of the other half of the globe, where all that is common is half a year later. What was logged out of doors
/// counts for its week and those about it, by its words, else by its name. Own rows first, those that are next first.
std::vector<SeasonRow> season_rows(const std::vector<Season>& common, const std::vector<Entry>& logged, bool south,
                                   int this_week);

/// A week with much in it: what is there that one has been out for before counts three times, what just begins or is
/// about to end twice.
struct BestWeek {
    int week = 0;                     // 0 to 51
    std::vector<std::string> things;  // one's own first, then what begins or ends, then the rest
    double worth = 0;
};
/// The best of the next `ahead` weeks after this one, at least two apart, by date; weeks with nothing in them are none.
std::vector<BestWeek> best_weeks(const std::vector<SeasonRow>& rows, int this_week, int ahead = 16,
                                 std::size_t most = 3);

/// 0 to 51, of a day, ISO 8601; the last days of a year are of its last week.
int week_of(const std::string& day);

/// Weeks from this one until it is there, 0: now; 52: never.
int weeks_until(const SeasonRow& row, int this_week);

}  // namespace poquito::log
