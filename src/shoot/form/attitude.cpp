#include "shoot/form/attitude.hpp"
#include "light/angle.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

/// The camera's line of sight in the subject's own axes: what Surface's last row of rotation is.
Point3 sight(const Attitude& attitude) {
    const double t = attitude.tilt * light::degree, u = attitude.turn * light::degree;
    return {std::sin(u), std::cos(u) * std::sin(t), std::cos(u) * std::cos(t)};
}

double dot(const Point3& a, const Point3& b) { return a.x * b.x + a.y * b.y + a.z * b.z; }

/// Out of the camera's axes into the subject's own.
Point3 own_axes(const Attitude& attitude, const Point3& seen) {
    const double t = attitude.tilt * light::degree, u = attitude.turn * light::degree;
    const Point3 turned{seen.x * std::cos(u) + seen.z * std::sin(u), seen.y,
                        -seen.x * std::sin(u) + seen.z * std::cos(u)};
    return {turned.x, turned.y * std::cos(t) + turned.z * std::sin(t),
            -turned.y * std::sin(t) + turned.z * std::cos(t)};
}

}  // namespace

Subject faced(Subject subject, const Attitude& attitude) {
    subject.tilt = attitude.tilt;
    subject.turn = attitude.turn;
    return subject;
}

std::optional<Attitude> facing_plane(const Subject& subject, const std::array<Point3, 3>& points) {
    const auto& [a, b, c] = points;
    const Point3 ab{b.x - a.x, b.y - a.y, b.z - a.z}, ac{c.x - a.x, c.y - a.y, c.z - a.z};
    Point3 normal{ab.y * ac.z - ab.z * ac.y, ab.z * ac.x - ab.x * ac.z, ab.x * ac.y - ab.y * ac.x};
    const double length = std::sqrt(dot(normal, normal));
    constexpr double thin = 1e-6;  // of the area that the sides could span
    if (length <= thin * std::sqrt(dot(ab, ab) * dot(ac, ac)) || length == 0) return std::nullopt;
    const double sign = normal.z < 0 ? -1 : 1;  // away from the camera, as the line of sight
    normal = {sign * normal.x / length, sign * normal.y / length, sign * normal.z / length};
    // The attitude whose line of sight is the plane's normal.
    const Point3 own = own_axes({subject.tilt, subject.turn}, normal);
    const Attitude found{.tilt = std::atan2(own.y, own.z) / light::degree,
                         .turn = std::asin(std::clamp(own.x, -1.0, 1.0)) / light::degree};
    if (std::abs(found.tilt) > greatest_view_angle || std::abs(found.turn) > greatest_view_angle) return std::nullopt;
    return found;
}

Attitude least_depth(const Subject& subject) {
    const Attitude now{subject.tilt, subject.turn};
    Attitude best = now;
    double least = presented_extent(subject).depth;
    // Coarse to fine about the best so far; the relief is smooth enough for that.
    for (const double step : {15.0, 5.0, 2.0, 0.5}) {
        const Attitude centre = best;
        const int reach = step == 15.0 ? 3 : 2;
        for (int i = -reach; i <= reach; ++i)
            for (int j = -reach; j <= reach; ++j) {
                const Attitude tried{.tilt = centre.tilt + i * step, .turn = centre.turn + j * step};
                constexpr double within = 45;
                if (std::abs(tried.tilt - now.tilt) > within || std::abs(tried.turn - now.turn) > within) continue;
                if (std::abs(tried.tilt) > greatest_view_angle || std::abs(tried.turn) > greatest_view_angle) continue;
                const double depth = presented_extent(faced(subject, tried)).depth;
                if (depth < least - 1e-9) {
                    least = depth;
                    best = tried;
                }
            }
    }
    return best;
}

double angle_between(const Attitude& one, const Attitude& other) {
    return std::acos(std::clamp(dot(sight(one), sight(other)), -1.0, 1.0)) / light::degree;
}

}  // namespace poquito::shoot
