#include "optics/tank.hpp"

namespace poquito::optics {

double path_shortened(const Tank& tank) {
    return tank.water * (1 - 1 / tank.water_index) + tank.wall * (1 - 1 / tank.wall_index);
}

double depth_in_water(const Tank& tank, double depth) { return depth * tank.water_index; }

}  // namespace poquito::optics
