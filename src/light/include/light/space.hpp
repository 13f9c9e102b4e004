#pragma once

#include "light/beam.hpp"
#include "light/position.hpp"

#include <Eigen/Core>

/// The set in three dimensions. mm from the subject's centre: x to the camera's right, y up, z towards the camera.
namespace poquito::light {

using Point = Eigen::Vector3d;

Point place_of(const Position& position);
Position position_of(const Point& place);

/// Where a light looks, of length 1.
Point looks_along(const Position& position, const Aim& aim);
/// The aim with which it looks at a point other than its own place.
Aim aimed_at(const Position& position, const Point& target);

}  // namespace poquito::light
