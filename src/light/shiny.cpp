#include "light/shiny.hpp"

#include <boost/math/constants/constants.hpp>

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::light {
namespace {

constexpr double pi = boost::math::double_constants::pi;

struct FacePoint {
    Point at;
    Point across;  // the surface's normal, of any length
};

Point outward(const Mirror& mirror) { return mirror.right.cross(mirror.up); }

FacePoint face_point(const Mirror& mirror, const Point& out, double u, double v) {
    if (!mirror.bulge)
        return {mirror.centre + u * mirror.half_width * mirror.right + v * mirror.half_height * mirror.up, out};
    // A box corner lies beside the ellipse: its rim stands for it.
    constexpr double rim = 0.999;
    if (const double squared = u * u + v * v; squared > rim * rim) {
        const double inwards = rim / std::sqrt(squared);
        u *= inwards;
        v *= inwards;
    }
    const double height = std::sqrt(1 - u * u - v * v);
    const double a = mirror.half_width, b = mirror.half_height, c = *mirror.bulge;
    return {mirror.centre + u * a * mirror.right + v * b * mirror.up + (height - 1) * c * out,
            u / a * mirror.right + v / b * mirror.up + height / c * out};
}

/// Where a ray passes the plane of a source that looks at the subject's centre, as the square of its distance from the
/// source's middle; infinite where it never does. `facing`: the source's direction from the subject, of length 1.
double squared_miss(const Reflection& ray, const Point& source, const Point& facing) {
    const double towards = ray.direction.dot(facing);
    const double length = (source - ray.at).dot(facing) / towards;
    if (towards <= 1e-9 || length <= 0) return std::numeric_limits<double>::infinity();
    return (ray.at + length * ray.direction - source).squaredNorm();
}

std::optional<Reflection> reflected(const Mirror& mirror, const Point& out, const Point& pupil, double u, double v) {
    const auto [at, normal] = face_point(mirror, out, u, v);
    const Point way = at - pupil;
    const double facing = -way.dot(normal);
    if (facing <= 0) return std::nullopt;
    const Point away = way + 2 * facing / normal.squaredNorm() * normal;
    return Reflection{.at = at, .direction = away / std::sqrt(way.squaredNorm())};
}

double squared(double value) { return value * value; }

}  // namespace

std::optional<Reflection> reflect(const Mirror& mirror, const Point& pupil, double u, double v) {
    return reflected(mirror, outward(mirror), pupil, u, v);
}

bool shows(const Reflection& ray, const DiscSource& source) {
    return squared_miss(ray, source.centre, source.centre.normalized()) <= squared(source.diameter / 2);
}

std::vector<Reflection> reflections(const Mirror& mirror, const Point& pupil) {
    constexpr int across = 24;
    const Point out = outward(mirror);
    std::vector<Reflection> face;
    face.reserve(across * across);
    for (int j = 0; j < across; ++j)
        for (int i = 0; i < across; ++i) {
            const double u = (2 * i + 1.0) / across - 1, v = (2 * j + 1.0) / across - 1;
            if (mirror.bulge && u * u + v * v > 1) continue;  // an ellipse fills no box
            if (const auto ray = reflected(mirror, out, pupil, u, v)) face.push_back(*ray);
        }
    return face;
}

double mirrored_share(const std::vector<Reflection>& face, const DiscSource& source) {
    if (face.empty()) return 0;
    const Point facing = source.centre.normalized();
    const double radius = squared(source.diameter / 2);
    const auto showing = std::ranges::count_if(
        face, [&](const Reflection& ray) { return squared_miss(ray, source.centre, facing) <= radius; });
    return static_cast<double>(showing) / static_cast<double>(face.size());
}

std::optional<double> filling_diameter(const Mirror& mirror, const Point& pupil, const Point& source) {
    constexpr int along = 24;  // places on each edge; the widest miss of a convex face lies on its edge
    const Point facing = source.normalized(), out = outward(mirror);
    double widest = 0;
    for (int i = 0; i <= along; ++i) {
        const double s = 2.0 * i / along - 1;
        for (const auto& [u, v] : {std::pair(s, -1.0), {s, 1.0}, {-1.0, s}, {1.0, s}}) {
            const auto ray = reflected(mirror, out, pupil, u, v);
            if (!ray) return std::nullopt;
            widest = std::max(widest, squared_miss(*ray, source, facing));
        }
    }
    if (!std::isfinite(widest)) return std::nullopt;
    return 2 * std::sqrt(widest);
}

std::optional<Position> shown_from(const Mirror& mirror, const Point& pupil, double distance) {
    const auto ray = reflect(mirror, pupil, 0, 0);
    if (!ray) return std::nullopt;
    // The middle of the face is not always the subject's centre: |at + s direction| = distance.
    const double along = ray->at.dot(ray->direction);
    const double root = along * along - ray->at.squaredNorm() + distance * distance;
    if (root < 0) return std::nullopt;
    return position_of(ray->at + (std::sqrt(root) - along) * ray->direction);
}

namespace {

/// The point of an ellipsoid whose normal halves the angle between pupil and source (Alhazen's problem, for a ball in
/// two unknowns). The point with a wanted normal is known in closed form; the normal wanted changes little with the
/// point, so that putting one into the other settles quickly.
std::optional<Point> mirror_point(const Mirror& round, const Point& pupil, const Point& source) {
    const Point out = outward(round);
    const Point middle = round.centre - *round.bulge * out;
    const double a = round.half_width, b = round.half_height, c = *round.bulge;
    const auto point_with = [&](const Point& normal) -> Point {
        const double x = a * a * normal.dot(round.right), y = b * b * normal.dot(round.up), z = c * c * normal.dot(out);
        const double size = std::sqrt(x * x / (a * a) + y * y / (b * b) + z * z / (c * c));
        return middle + (x * round.right + y * round.up + z * out) / size;
    };
    Point at = round.centre, normal = out;
    constexpr int most = 200;
    for (int i = 0; i < most; ++i) {
        normal = ((pupil - at).normalized() + (source - at).normalized()).normalized();
        const Point next = point_with(normal);
        const bool settled = (next - at).norm() < 1e-9 * c;
        at = next;
        if (settled) break;
    }
    const bool in_front = normal.dot(out) > 0;
    if (!in_front || (pupil - at).dot(normal) <= 0 || (source - at).dot(normal) <= 0) return std::nullopt;
    return at;
}

}  // namespace

std::optional<Glint> glint(const Mirror& round, const Point& pupil, const DiscSource& source) {
    const auto middle = mirror_point(round, pupil, source.centre);
    if (!middle) return std::nullopt;
    Glint mark{.at = *middle};
    const Point facing = source.centre.normalized();
    const Point side = std::abs(facing.y()) < 0.9 ? facing.cross(Point::UnitY()).normalized()
                                                  : facing.cross(Point::UnitX()).normalized();
    const Point upright = side.cross(facing);
    const Point view = (*middle - pupil).normalized();
    // The mark's outline from that of the source; its area by the shoelace rule across the line of sight.
    constexpr int corners = 24;
    const Point x = view.cross(std::abs(view.y()) < 0.9 ? Point::UnitY() : Point::UnitX()).normalized();
    const Point y = view.cross(x);
    std::vector<Eigen::Vector2d> outline;
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * pi * i / corners;
        const Point edge = source.centre + source.diameter / 2 * (std::cos(angle) * side + std::sin(angle) * upright);
        if (const auto at = mirror_point(round, pupil, edge))
            outline.emplace_back((*at - *middle).dot(x), (*at - *middle).dot(y));
    }
    double twice = 0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const auto &a = outline[i], &b = outline[(i + 1) % outline.size()];
        twice += a.x() * b.y() - a.y() * b.x();
    }
    // A polygon of so many corners is that much smaller than its circle.
    const double circle = 2 * pi / (corners * std::sin(2 * pi / corners));
    mark.width = 2 * std::sqrt(std::abs(twice) / 2 * circle / pi);
    return mark;
}

}  // namespace poquito::light
