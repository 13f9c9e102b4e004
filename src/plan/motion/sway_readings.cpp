#include "plan/motion/sway_readings.hpp"

#include "optics/blur_limit.hpp"
#include "plan/motion/chance.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <boost/math/distributions/chi_squared.hpp>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>
#include <numeric>
#include <string>

namespace poquito::plan {
namespace {

/// Of a mean square with so many degrees of freedom.
MeasuredSway sway_of(double mean_square, double freedom, int frames) {
    constexpr double tail = 0.05;
    const boost::math::chi_squared distribution(freedom);
    const double sum = mean_square * freedom;
    return {.value = std::sqrt(mean_square),
            .least = std::sqrt(sum / boost::math::quantile(distribution, 1 - tail)),
            .greatest = std::sqrt(sum / boost::math::quantile(distribution, tail)),
            .frames = frames};
}

MeasuredSway times(MeasuredSway sway, double factor) {
    sway.value *= factor, sway.least *= factor, sway.greatest *= factor;
    return sway;
}

}  // namespace

std::optional<MeasuredSway> deviation_of(const std::vector<double>& readings) {
    const auto n = static_cast<double>(readings.size());
    if (n < least_readings) return std::nullopt;
    const double mean = std::accumulate(readings.begin(), readings.end(), 0.0) / n;
    double squares = 0;
    for (const double one : readings) squares += (one - mean) * (one - mean);
    if (!(squares > 0)) return std::nullopt;
    return sway_of(squares / (n - 1), n - 1, static_cast<int>(n));
}

std::optional<MeasuredSway> sway_along(const std::vector<double>& on_rule, double lean) {
    const auto sway = deviation_of(on_rule);
    if (!sway) return std::nullopt;
    return times(*sway, std::sin(lean * std::numbers::pi / 180));
}

std::optional<MeasuredSway> shake_over_usual(const std::vector<double>& blur, const Plan& plan) {
    const auto n = static_cast<double>(blur.size());
    const shoot::Hands usual_hands{.shift = HandShake::shifting, .turn = HandShake::turning, .unknown = {}};
    const double usual = shake_of(plan, usual_hands, plan.shot.exposure.shutter);
    if (n < least_readings || !(usual > 0)) return std::nullopt;
    double squares = 0;
    for (const double one : blur) squares += one * one;
    if (!(squares > 0)) return std::nullopt;
    return times(sway_of(squares / n, 2 * n, static_cast<int>(n)), optics::pixel_pitch(plan.sensor) / usual);
}

std::optional<MeasuredSway> swing_amplitude(const std::vector<double>& places) {
    const auto sway = deviation_of(places);
    if (!sway) return std::nullopt;
    return times(*sway, std::numbers::sqrt2);
}

std::optional<std::vector<double>> typed_readings(const std::string& text) {
    const bool spaced = text.find_first_of(" \t\n") != std::string::npos;
    std::string words = text;
    for (char& c : words) {
        if (c == ';' || c == '\t' || c == '\n') c = ' ';
        // "1,2 1,4" has decimal commas; "1, 2" and "1.2,1.4" do not.
        if (c == ',')
            c = spaced && text.find(", ") == std::string::npos && text.find('.') == std::string::npos ? '.' : ' ';
    }
    std::vector<double> readings;
    const char *at = words.data(), *end = at + words.size();
    while (at != end) {
        if (*at == ' ') {
            ++at;
            continue;
        }
        double number = 0;
        const auto read = std::from_chars(at, end, number);
        if (read.ec != std::errc() || !std::isfinite(number) || (read.ptr != end && *read.ptr != ' '))
            return std::nullopt;
        readings.push_back(number);
        at = read.ptr;
    }
    return readings;
}

}  // namespace poquito::plan
