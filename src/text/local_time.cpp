#include "text/local_time.hpp"

#include <charconv>
#include <system_error>

namespace poquito::text {

std::optional<double> seconds_of(std::string_view time) {
    // Not by sscanf: what it takes for a decimal point hangs on the locale.
    const char *at = time.data(), *const end = time.data() + time.size();
    const auto number = [&](auto& value, char before) {
        if (before != 0 && (at == end || *at++ != before)) return false;
        const auto [stopped, error] = std::from_chars(at, end, value);
        at = stopped;
        return error == std::errc();
    };
    int year = 0, month = 0, day = 0, hour = 0, minute = 0;
    double second = 0;
    if (!number(year, 0) || !number(month, '-') || !number(day, '-') || !number(hour, 'T') || !number(minute, ':') ||
        !number(second, ':'))
        return std::nullopt;
    const auto within = [](int value, int least, int most) { return value >= least && value <= most; };
    if (!within(year, 0, 9999) || !within(month, 1, 12) || !within(day, 1, 31) || !within(hour, 0, 23) ||
        !within(minute, 0, 59) || !(second >= 0 && second <= 60))
        return std::nullopt;
    // Days from the civil calendar, after the usual shift of the year to begin in March.
    const int shifted = month <= 2 ? year - 1 : year, era = shifted / 400, of_era = shifted - era * 400;
    const int of_year = (153 * (month > 2 ? month - 3 : month + 9) + 2) / 5 + day - 1;
    const long days = era * 146097L + of_era * 365L + of_era / 4 - of_era / 100 + of_year;
    return static_cast<double>(days * 86400 + hour * 3600L + minute * 60L) + second;
}

}  // namespace poquito::text
