#include "light/duration.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {

std::optional<double> duration_at(const std::vector<Duration>& table, double power) {
    std::vector<Duration> sorted = table;
    std::ranges::sort(sorted, {}, &Duration::power);
    const auto same = [power](const Duration& entry) { return std::abs(entry.power - power) <= 1e-9 * power; };
    if (const auto exact = std::ranges::find_if(sorted, same); exact != sorted.end()) return exact->t05;
    const auto above = std::ranges::upper_bound(sorted, power, {}, &Duration::power);
    if (above == sorted.begin() || above == sorted.end()) return std::nullopt;
    const auto below = above - 1;
    const double share = std::log(power / below->power) / std::log(above->power / below->power);
    return below->t05 * std::pow(above->t05 / below->t05, share);
}

std::optional<double> turning_point(std::vector<Duration> table) {
    std::ranges::sort(table, {}, &Duration::power);
    for (std::size_t i = 2; i < table.size(); ++i)
        if ((table[i].t05 - table[i - 1].t05) * (table[i - 1].t05 - table[i - 2].t05) < 0) return table[i - 1].power;
    return std::nullopt;
}

double t01_from_t05(Discharge discharge, double t05) {
    return discharge == Discharge::decay ? std::log2(10.0) * t05 : t05;
}

}  // namespace poquito::light

template class std::vector<poquito::light::Duration>;
