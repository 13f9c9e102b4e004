#include "light/shiny.hpp"

#include <boost/math/constants/constants.hpp>
#include <boost/math/tools/roots.hpp>

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace poquito::light {
namespace {

constexpr double pi = boost::math::double_constants::pi;

struct FacePoint {
    Point at, normal;
};

FacePoint face_point(const Mirror& mirror, double u, double v) {
    const Point out = mirror.right.cross(mirror.up);
    double x = u * mirror.half_width, y = v * mirror.half_height;
    if (!mirror.radius) return {mirror.centre + x * mirror.right + y * mirror.up, out};
    // A box corner may lie beside the ball: its rim stands for it.
    constexpr double rim = 0.999;
    const double r = *mirror.radius, across = std::hypot(x, y);
    if (across > rim * r) {
        x *= rim * r / across;
        y *= rim * r / across;
    }
    const double height = std::sqrt(r * r - x * x - y * y);
    const Point from_middle = x * mirror.right + y * mirror.up + height * out;
    return {mirror.centre - r * out + from_middle, from_middle / r};
}

/// Where a ray passes the plane of a source that looks at the subject's centre, as a distance from the source's middle.
std::optional<double> miss(const Reflection& ray, const Point& source) {
    const Point facing = source.normalized();  // away from the subject
    const double towards = ray.direction.dot(facing);
    if (towards <= 1e-9) return std::nullopt;
    const double length = (source - ray.at).dot(facing) / towards;
    if (length <= 0) return std::nullopt;
    return (ray.at + length * ray.direction - source).norm();
}

}  // namespace

std::optional<Reflection> reflect(const Mirror& mirror, const Point& pupil, double u, double v) {
    const auto [at, normal] = face_point(mirror, u, v);
    const Point in = (at - pupil).normalized();
    const double facing = -in.dot(normal);
    if (facing <= 0) return std::nullopt;
    return Reflection{.at = at, .direction = in + 2 * facing * normal};
}

bool shows(const Reflection& ray, const DiscSource& source) {
    const auto past = miss(ray, source.centre);
    return past && *past <= source.diameter / 2;
}

double mirrored_share(const Mirror& mirror, const Point& pupil, const DiscSource& source) {
    constexpr int across = 24;
    int seen = 0, showing = 0;
    for (int j = 0; j < across; ++j)
        for (int i = 0; i < across; ++i) {
            const double u = (2 * i + 1.0) / across - 1, v = (2 * j + 1.0) / across - 1;
            // A ball fills no box: its corners are not face.
            if (mirror.radius &&
                std::hypot(u * mirror.half_width, v * mirror.half_height) > std::min(*mirror.radius, 1e9))
                continue;
            const auto ray = reflect(mirror, pupil, u, v);
            if (!ray) continue;
            ++seen;
            if (shows(*ray, source)) ++showing;
        }
    return seen == 0 ? 0 : static_cast<double>(showing) / seen;
}

std::optional<double> filling_diameter(const Mirror& mirror, const Point& pupil, const Point& source) {
    constexpr int along = 24;  // places on each edge; the widest miss of a convex face lies on its edge
    double widest = 0;
    for (int i = 0; i <= along; ++i) {
        const double s = 2.0 * i / along - 1;
        for (const auto& [u, v] : {std::pair(s, -1.0), {s, 1.0}, {-1.0, s}, {1.0, s}}) {
            const auto ray = reflect(mirror, pupil, u, v);
            const auto past = ray ? miss(*ray, source) : std::nullopt;
            if (!past) return std::nullopt;
            widest = std::max(widest, *past);
        }
    }
    return 2 * widest;
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

/// The point of a ball that mirrors `source` into `pupil`: in their common plane the two make equal angles with the
/// normal (Alhazen's problem; a root in one unknown).
std::optional<Point> mirror_point(const Mirror& ball, const Point& pupil, const Point& source) {
    const double r = *ball.radius;
    const Point middle = ball.centre - r * ball.right.cross(ball.up);
    const Point to_pupil = pupil - middle, to_source = source - middle;
    if (to_pupil.norm() <= r || to_source.norm() <= r) return std::nullopt;
    const Point e1 = to_pupil.normalized();
    const Point rest = to_source - to_source.dot(e1) * e1;
    if (rest.norm() < 1e-9 * to_source.norm()) {  // behind one another
        if (to_source.dot(e1) <= 0) return std::nullopt;
        return middle + r * e1;
    }
    const Point e2 = rest.normalized();
    const double apart = std::atan2(to_source.dot(e2), to_source.dot(e1));
    const auto place = [&](double angle) -> Point {
        return middle + r * (std::cos(angle) * e1 + std::sin(angle) * e2);
    };
    const auto bearing = [&](const Point& from, const Point& to) {
        const Point way = to - from;
        return std::atan2(way.dot(e2), way.dot(e1));
    };
    const auto unequal = [&](double angle) {
        const Point at = place(angle);
        return std::remainder(bearing(at, source) - angle, 2 * pi) + std::remainder(bearing(at, pupil) - angle, 2 * pi);
    };
    std::uintmax_t rounds = 60;
    const auto [low, high] =
        boost::math::tools::toms748_solve(unequal, 0.0, apart, boost::math::tools::eps_tolerance<double>(40), rounds);
    const double angle = (low + high) / 2;
    const Point at = place(angle), normal = (at - middle) / r;
    if ((pupil - at).dot(normal) <= 0 || (source - at).dot(normal) <= 0) return std::nullopt;
    return at;
}

}  // namespace

std::optional<Glint> glint(const Mirror& ball, const Point& pupil, const DiscSource& source) {
    const auto middle = mirror_point(ball, pupil, source.centre);
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
        if (const auto at = mirror_point(ball, pupil, edge))
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
