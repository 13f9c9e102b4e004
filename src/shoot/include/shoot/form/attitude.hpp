#pragma once

#include "shoot/shoot.hpp"

#include <array>
#include <optional>

/// How a subject faces the camera, and what turning the camera (or the subject) would save in depth.
namespace poquito::shoot {

/// Degrees, as Subject has them.
struct Attitude {
    double tilt = 0;
    double turn = 0;

    bool operator==(const Attitude&) const = default;
};
Subject faced(Subject subject, const Attitude& attitude);

/// The attitude at which the plane through three points of the subject, as shoot::Surface gives them, lies parallel to
/// the sensor. Empty where they lie on a line, or the plane would have to be seen from its side.
std::optional<Attitude> facing_plane(const Subject& subject, const std::array<Point3, 3>& points);

/// The attitude within 45 degrees of now that presents the least depth.
Attitude least_depth(const Subject& subject);

/// The angle between two attitudes' views, degrees: how far the camera has to go round.
double angle_between(const Attitude& one, const Attitude& other);

}  // namespace poquito::shoot
