#include "light/beam.hpp"
#include "light/angle.hpp"

#include "light/space.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::light {

namespace {}

double off_beam(const Position& position, const Aim& aim, double behind) {
    const Point place = place_of(position);
    const Point to = (Point(0, 0, -behind) - place).normalized();
    return std::acos(std::clamp(looks_along(position, aim).dot(to), -1.0, 1.0)) / degree;
}

std::optional<double> beam_loss(double off_beam, const std::optional<double>& grid) {
    constexpr double sidelong = 89.9;  // degrees
    if (off_beam >= sidelong) return std::nullopt;
    const double face = -std::log2(std::cos(off_beam * degree));
    return grid ? face + std::pow(2 * off_beam / *grid, 2) : face;
}

}  // namespace poquito::light
