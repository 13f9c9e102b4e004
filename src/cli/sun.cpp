#include "cli/commands.hpp"
#include "cli/common.hpp"
#include "storage/json_reader.hpp"
#include "sun/almanac.hpp"
#include "sun/zone.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <optional>

namespace poquito::cli {
namespace {

constexpr double hour = 3600;

/// s after midnight of "9:05", "09:05:30"; empty: it is no time of day.
std::optional<double> clock_of(const std::string& text) {
    int hours = 0, minutes = 0, seconds = 0, used = 0, all = 0;
    const auto size = static_cast<int>(text.size());
    if (std::sscanf(text.c_str(), "%2d:%2d%n:%2d%n", &hours, &minutes, &used, &seconds, &all) < 2 ||
        (all != size && used != size))
        return std::nullopt;
    if (hours < 0 || hours > 23 || minutes < 0 || minutes > 59 || seconds < 0 || seconds > 59) return std::nullopt;
    return hours * hour + minutes * 60 + seconds;
}

}  // namespace

int print_sun(const SunRequest& request) {
    const auto day = sun::day_at_offset(request.utc_offset, request.date);
    if (!day) return complain({"--date", fmt::format("got \"{}\", expected a day as 2026-11-28", request.date)});
    const auto clock = clock_of(request.time);
    if (!request.time.empty() && !clock)
        return complain({"--time", fmt::format("got \"{}\", expected a time as 12:30:30", request.time)});
    const sun::Place place{.latitude = request.latitude, .longitude = request.longitude};
    const auto text = [&](double moment) {
        constexpr double last = 86399;  // the day's last second: what goes on past it is cut there
        const auto whole = static_cast<long long>(std::clamp(std::round(moment - day->begin), 0.0, last));
        return fmt::format("{:02}:{:02}:{:02}", whole / 3600, whole / 60 % 60, whole % 60);
    };
    const auto time = [&](const std::optional<double>& moment) {
        return moment ? storage::Json(text(*moment)) : storage::Json();
    };
    const auto of_day = sun::day_of(place, day->begin, day->end);
    storage::Json json;
    json["elevation_deg"] = nullptr, json["azimuth_deg"] = nullptr;
    if (clock) {
        const auto position = sun::position_at(place, day->begin + *clock);
        json["elevation_deg"] = position.elevation, json["azimuth_deg"] = position.bearing;
    }
    json["rise"] = time(of_day.rise), json["set"] = time(of_day.set), json["noon"] = time(of_day.noon);
    json["golden"] = storage::Json::array();
    for (const auto& stretch : of_day.golden) json["golden"].push_back({text(stretch.from), text(stretch.to)});
    fmt::print("{}\n", json.dump(1));
    return done;
}

}  // namespace poquito::cli
