#include "text/scales.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <span>

namespace poquito::text {
namespace {

// ISO 517, thirds of a stop, as engraved.
constexpr std::array f_numbers = {0.7,  0.8,  0.9,  1.0,  1.1,  1.2,  1.4,  1.6,  1.8,  2.0,  2.2,
                                  2.5,  2.8,  3.2,  3.5,  4.0,  4.5,  5.0,  5.6,  6.3,  7.1,  8.0,
                                  9.0,  10.0, 11.0, 13.0, 14.0, 16.0, 18.0, 20.0, 22.0, 25.0, 29.0,
                                  32.0, 36.0, 40.0, 45.0, 51.0, 57.0, 64.0, 72.0, 81.0, 90.0};

// ISO 516, thirds of a stop, as engraved.
constexpr std::array shutters = {
    1.0 / 16000, 1.0 / 12800, 1.0 / 10000, 1.0 / 8000, 1.0 / 6400, 1.0 / 5000, 1.0 / 4000, 1.0 / 3200,
    1.0 / 2500,  1.0 / 2000,  1.0 / 1600,  1.0 / 1250, 1.0 / 1000, 1.0 / 800,  1.0 / 640,  1.0 / 500,
    1.0 / 400,   1.0 / 320,   1.0 / 250,   1.0 / 200,  1.0 / 160,  1.0 / 125,  1.0 / 100,  1.0 / 80,
    1.0 / 60,    1.0 / 50,    1.0 / 40,    1.0 / 30,   1.0 / 25,   1.0 / 20,   1.0 / 15,   1.0 / 13,
    1.0 / 10,    1.0 / 8,     1.0 / 6,     1.0 / 5,    1.0 / 4,    0.3,        0.4,        0.5,
    0.6,         0.8,         1.0,         1.3,        1.6,        2.0,        2.5,        3.2,
    4.0,         5.0,         6.0,         8.0,        10.0,       13.0,       15.0,       20.0,
    25.0,        30.0,        40.0,        50.0,       60.0,       80.0,       100.0,      120.0};

// ISO 5800, thirds of a stop.
constexpr std::array isos = {25.0,    32.0,    40.0,    50.0,    64.0,    80.0,    100.0,   125.0,   160.0,   200.0,
                             250.0,   320.0,   400.0,   500.0,   640.0,   800.0,   1000.0,  1250.0,  1600.0,  2000.0,
                             2500.0,  3200.0,  4000.0,  5000.0,  6400.0,  8000.0,  10000.0, 12800.0, 16000.0, 20000.0,
                             25600.0, 32000.0, 40000.0, 51200.0, 64000.0, 80000.0, 102400.0};

double step_along(std::span<const double> scale, double value, int steps) {
    constexpr double same = 1e-6;  // relative: a mark read back from a file is that mark
    const auto above = std::ranges::find_if(scale, [&](double mark) { return mark > value * (1 + same); });
    const auto at_or_above = std::ranges::find_if(scale, [&](double mark) { return mark >= value * (1 - same); });
    const auto from = steps > 0 ? above - scale.begin() - 1 : at_or_above - scale.begin();
    const auto to = std::clamp<std::ptrdiff_t>(from + steps, 0, std::ssize(scale) - 1);
    const double stepped = scale[static_cast<std::size_t>(to)];
    // Beyond the scale's end a step towards the end would go backwards.
    return (steps > 0) == (stepped > value) ? stepped : value;
}

double nearest(std::span<const double> scale, double value) {
    return *std::ranges::min_element(scale, {}, [&](double mark) { return std::abs(std::log(mark / value)); });
}

}  // namespace

double step_f_number(double f_number, int steps) { return step_along(f_numbers, f_number, steps); }
double nearest_f_number(double f_number) { return nearest(f_numbers, f_number); }
double nearest_shutter(double seconds) { return nearest(shutters, seconds); }
double nearest_iso(double iso) { return nearest(isos, iso); }

double step_shutter(double seconds, int steps) { return step_along(shutters, seconds, steps); }
double step_iso(double iso, int steps) { return step_along(isos, iso, steps); }

double step_power(double fraction, int steps) {
    constexpr double rounding = 1e-6;
    const double thirds = std::log2(fraction) * 3;
    const double from = steps > 0 ? std::floor(thirds + rounding) : std::ceil(thirds - rounding);
    return std::min(1.0, std::exp2((from + steps) / 3));
}

}  // namespace poquito::text
