#include "light/space.hpp"
#include "light/angle.hpp"

#include <Eigen/Geometry>

#include <cmath>

namespace poquito::light {

namespace {}

Point place_of(const Position& position) {
    const double ground = position.distance * std::cos(position.elevation * degree);
    return {ground * std::sin(position.azimuth * degree), position.distance * std::sin(position.elevation * degree),
            ground * std::cos(position.azimuth * degree)};
}

Position position_of(const Point& place) {
    return {.distance = place.norm(),
            .azimuth = std::atan2(place.x(), place.z()) / degree,
            .elevation = std::atan2(place.y(), std::hypot(place.x(), place.z())) / degree};
}

Point looks_along(const Position& position, const Aim& aim) {
    const Point level = Eigen::AngleAxisd(-aim.turn * degree, Point::UnitY()) * -place_of(position).normalized();
    const Point side = level.cross(Point::UnitY());
    if (side.norm() < 1e-9) return level;  // straight up or down: nothing to tip about
    return Eigen::AngleAxisd(aim.tip * degree, side.normalized()) * level;
}

Aim aimed_at(const Position& position, const Point& target) {
    const Point to_subject = -place_of(position), to_target = target - place_of(position);
    const auto bearing = [](const Point& way) { return std::atan2(way.x(), way.z()); };
    const auto height = [](const Point& way) { return std::atan2(way.y(), std::hypot(way.x(), way.z())); };
    return {.turn = -std::remainder(bearing(to_target) - bearing(to_subject), 360 * degree) / degree,
            .tip = (height(to_target) - height(to_subject)) / degree};
}

}  // namespace poquito::light
