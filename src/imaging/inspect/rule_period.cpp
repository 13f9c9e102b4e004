#include "imaging/inspect/rule_period.hpp"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <vector>

namespace poquito::imaging {
namespace {

/// A row without its slow changes: against its mean over a period to either side.
std::vector<double> fine_of(const GreyImage& picture, int y, int reach) {
    const int width = picture.width;
    std::vector<double> sums(static_cast<std::size_t>(width) + 1, 0), fine(static_cast<std::size_t>(width));
    for (int x = 0; x < width; ++x)
        sums[static_cast<std::size_t>(x) + 1] =
            sums[static_cast<std::size_t>(x)] + static_cast<double>(picture.at(x, y));
    for (int x = 0; x < width; ++x) {
        const int from = std::max(0, x - reach), to = std::min(width, x + reach + 1);
        fine[static_cast<std::size_t>(x)] =
            static_cast<double>(picture.at(x, y)) -
            (sums[static_cast<std::size_t>(to)] - sums[static_cast<std::size_t>(from)]) / (to - from);
    }
    // Tapered (Hann): where the rule ends, the step to what is beside it says nothing of its period.
    for (int x = 0; x < width; ++x)
        fine[static_cast<std::size_t>(x)] *= 0.5 - 0.5 * std::cos(2 * std::numbers::pi * (x + 0.5) / width);
    return fine;
}

double power_at(const std::vector<std::vector<double>>& rows, double period) {
    double power = 0;
    const auto step = std::polar(1.0, -2 * std::numbers::pi / period);
    for (const auto& row : rows) {
        std::complex<double> sum = 0, turn = 1;
        for (const double value : row) sum += value * turn, turn *= step;
        power += std::norm(sum);
    }
    return power;
}

}  // namespace

std::optional<double> period_across(const GreyImage& picture, double expected) {
    constexpr double beside = 1.0 / 6;
    if (picture.width < 4 * expected || !(expected > 2)) return std::nullopt;
    constexpr int most_rows = 48;
    const int every = std::max(1, picture.height / most_rows);
    std::vector<std::vector<double>> rows;
    for (int y = 0; y < picture.height; y += every)
        rows.push_back(fine_of(picture, y, static_cast<int>(std::ceil(expected))));
    // A peak is as wide as one tick more or less over the whole of it; eight steps to that.
    const double ticks = picture.width / expected, step = expected / ticks / 8;
    std::vector<double> periods, powers;
    for (double period = expected * (1 - beside); period <= expected * (1 + beside); period += step)
        periods.push_back(period), powers.push_back(power_at(rows, period));
    const auto peak = static_cast<std::size_t>(std::ranges::max_element(powers) - powers.begin());
    auto sorted = powers;
    std::ranges::nth_element(sorted, sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2));
    constexpr double stands_out = 4;  // times the median
    if (peak == 0 || peak + 1 == powers.size() || powers[peak] < stands_out * sorted[sorted.size() / 2])
        return std::nullopt;
    // The vertex of the parabola through the highest three.
    const double before = powers[peak - 1], at = powers[peak], after = powers[peak + 1];
    const double bend = before - 2 * at + after;
    const double shift = bend < 0 ? 0.5 * (before - after) / bend : 0;
    return periods[peak] + shift * step;
}

}  // namespace poquito::imaging
