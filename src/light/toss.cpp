#include "light/toss.hpp"

#include "light/angle.hpp"
#include "light/fall.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {
namespace {

double upwards(const Toss& toss) { return toss.speed * std::sin(toss.angle * degree); }

}  // namespace

double TrajectoryPoint::speed() const { return std::hypot(across, up); }

TrajectoryPoint point_at(const Toss& toss, double time) {
    const double across = toss.speed * std::cos(toss.angle * degree), up = upwards(toss);
    return {.x = across * time, .y = up * time - fallen(time), .across = across, .up = up - gravity * time};
}

double top_time(const Toss& toss) { return std::max(0.0, upwards(toss) / gravity); }

double top_height(const Toss& toss) {
    const double time = top_time(toss);
    return fallen(time);
}

Passes passes(const Toss& toss, double height) {
    constexpr double rounding = 1e-9;
    const double top = top_height(toss), turns = upwards(toss) / gravity;
    const double above_it =
        upwards(toss) * turns / 2 - height;  // of the vertex of its parabola, behind the hand or not
    if (height > top * (1 + rounding) + rounding) return {};
    const double half = fall_time(std::max(0.0, above_it));
    Passes found;
    if (turns - half >= 0 && turns > 0) found.rising = turns - half;
    if (turns + half >= 0) found.falling = turns + half;
    return found;
}

std::optional<double> speed_to_rise(double height, double angle) {
    const double sine = std::sin(angle * degree);
    if (!(sine > 0) || height < 0) return std::nullopt;
    return fall_speed(height) / sine;
}

}  // namespace poquito::light
