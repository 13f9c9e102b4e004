#include "light/fall.hpp"

#include <cmath>

namespace poquito::light {

double fall_time(double height) { return std::sqrt(2 * height / gravity); }
double fall_speed(double height) { return std::sqrt(2 * gravity * height); }
double fallen(double time) { return gravity * time * time / 2; }

double second_drop_after(const TwoDrops& drops) {
    return fall_time(drops.height) + drops.rise - fall_time(drops.height - drops.column);
}

double burst_time(const Burst& burst) { return burst.flashes / burst.frequency; }

}  // namespace poquito::light
