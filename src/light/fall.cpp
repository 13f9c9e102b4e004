#include "light/fall.hpp"

#include <cmath>

namespace poquito::light {

double fall_time(double height) { return std::sqrt(2 * height / gravity); }
double fall_speed(double height) { return std::sqrt(2 * gravity * height); }
double fallen(double time) { return gravity * time * time / 2; }

std::optional<double> thrown_speed(const Throw& thrown) {
    const double squared = thrown.speed * thrown.speed + 2 * gravity * thrown.drop;
    if (squared < 0) return std::nullopt;
    return std::sqrt(squared);
}

double trigger_delay(const Beam& beam) {
    return fall_time(beam.height) - fall_time(beam.height - beam.above) - beam.lag;
}

double least_beam_height(const Beam& beam) {
    const double left = fall_time(beam.height) - beam.lag;
    return left <= 0 ? beam.height : beam.height - fallen(left);
}

double second_drop_after(const TwoDrops& drops) {
    return fall_time(drops.height) + drops.rise - fall_time(drops.height - drops.column);
}

double burst_time(const Burst& burst) { return burst.flashes / burst.frequency; }

}  // namespace poquito::light
