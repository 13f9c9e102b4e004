#include "sun/zone.hpp"

#include <date/date.h>
#include <date/tz.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <sstream>
#include <stdexcept>

namespace poquito::sun {
namespace {

using std::chrono::seconds;

/// Null: there is none of that name, or the system has no list.
const date::time_zone* zone_of(const std::string& name) {
    try {
        return name.empty() ? date::current_zone() : date::locate_zone(name);
    } catch (const std::runtime_error&) {
        return nullptr;
    }
}

std::optional<date::local_days> day_in(const std::string& text) {
    std::istringstream stream(text);
    date::local_days day;
    stream >> date::parse("%F", day);
    if (stream.fail() || date::format("%F", day) != text) return std::nullopt;
    return day;
}

date::sys_seconds sys(double moment) { return date::sys_seconds(seconds(static_cast<long long>(std::floor(moment)))); }

double moment(const date::time_zone* zone, date::local_seconds local) {
    const auto found = zone ? zone->to_sys(local, date::choose::earliest) : date::sys_seconds(local.time_since_epoch());
    return static_cast<double>(found.time_since_epoch().count());
}

}  // namespace

bool has_zone(const std::string& zone) { return zone_of(zone) != nullptr; }

std::vector<std::string> zones() {
    std::vector<std::string> names;
    try {
        for (const auto& zone : date::get_tzdb().zones) names.push_back(zone.name());
    } catch (const std::runtime_error&) {
        names.clear();  // the system has no list
    }
    std::ranges::sort(names);
    return names;
}

double offset_at(const std::string& zone, double moment) {
    const auto* found = zone_of(zone);
    return found ? static_cast<double>(found->get_info(sys(moment)).offset.count()) : 0;
}

std::optional<LocalDay> local_day(const std::string& zone, const std::string& date) {
    const auto day = day_in(date);
    if (!day) return std::nullopt;
    const auto* found = zone_of(zone);
    return LocalDay{.begin = moment(found, date::local_seconds(*day)),
                    .end = moment(found, date::local_seconds(*day + date::days(1)))};
}

std::optional<LocalDay> day_at_offset(double offset_hours, const std::string& date) {
    const auto day = day_in(date);
    if (!day) return std::nullopt;
    constexpr double hour = 3600, whole = 86400;
    const double begin =
        static_cast<double>(date::local_seconds(*day).time_since_epoch().count()) - offset_hours * hour;
    return LocalDay{.begin = begin, .end = begin + whole};
}

double clock_at(const std::string& zone, double moment) {
    constexpr double whole = 86400;
    const double local = moment + offset_at(zone, moment);
    return local - std::floor(local / whole) * whole;
}

std::optional<double> moment_of(const std::string& zone, const std::string& date, double clock) {
    const auto day = day_in(date);
    if (!day) return std::nullopt;
    return moment(zone_of(zone), date::local_seconds(*day) + seconds(std::llround(clock)));
}

std::string date_at(const std::string& zone, double moment) {
    const auto local = sys(moment) + seconds(static_cast<long long>(offset_at(zone, moment)));
    return date::format("%F", date::floor<date::days>(local));
}

}  // namespace poquito::sun
