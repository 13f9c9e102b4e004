#pragma once

#include "sun/almanac.hpp"

#include <optional>
#include <string>
#include <vector>

/// Local time of a place by the IANA's list of zones, as the system has it, summer time and all. Moments as in almanac.
namespace poquito::sun {

/// Empty: that of this machine. A name that the list does not have is none: see `has_zone`.
bool has_zone(const std::string& zone);
/// By name.
std::vector<std::string> zones();

/// s east of UTC at that moment; 0 for a zone that there is not.
double offset_at(const std::string& zone, double moment);

/// The local day of that date, ISO 8601, which may have 23 or 25 hours; empty: it is no date.
struct LocalDay {
    double begin = 0;
    double end = 0;
};
std::optional<LocalDay> local_day(const std::string& zone, const std::string& date);
/// At so many hours from UTC all day.
std::optional<LocalDay> day_at_offset(double offset_hours, const std::string& date);

/// s after midnight as a clock there shows it; and the moment of a clock's time on that date. An hour that is skipped
/// in spring is the hour after, one that comes twice in autumn the first.
double clock_at(const std::string& zone, double moment);
std::optional<double> moment_of(const std::string& zone, const std::string& date, double clock);

/// Today there.
std::string date_at(const std::string& zone, double moment);

}  // namespace poquito::sun
