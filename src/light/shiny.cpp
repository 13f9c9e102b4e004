#include "light/shiny.hpp"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <vector>

namespace poquito::light {
namespace {

constexpr double pi = std::numbers::pi;

constexpr double rim = 0.999;  // of an ellipse: stands for what lies beside it, as the corners of its box do

double squared(double value) { return value * value; }

struct FacePoint {
    Point at;
    Point across;  // the surface's normal, of any length
};

Point outward(const Mirror& mirror) { return mirror.right.cross(mirror.up); }

FacePoint face_point(const Mirror& mirror, const Point& out, double u, double v) {
    if (!mirror.bulge)
        return {mirror.centre + u * mirror.half_width * mirror.right + v * mirror.half_height * mirror.up, out};
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

}  // namespace

std::optional<Reflection> reflect(const Mirror& mirror, const Point& pupil, double u, double v) {
    return reflected(mirror, outward(mirror), pupil, u, v);
}

bool shows(const Reflection& ray, const DiscSource& source) {
    return squared_miss(ray, source.centre, source.centre.normalized()) <= squared(source.diameter / 2);
}

/// As reflected(), for the places of one height at once.
Reflections::Reflections(const Mirror& mirror, const Point& pupil) {
    using Wide = Eigen::Array<double, across, 1>;
    using Which = Eigen::Array<bool, across, 1>;
    const Point out = outward(mirror);
    const double a = mirror.half_width, b = mirror.half_height, c = mirror.bulge.value_or(0);
    const Wide along = Wide::LinSpaced(1.0 / across - 1, 1 - 1.0 / across);
    for (int j = 0; j < across; ++j) {
        const Wide squares = along.square() + squared(along[j]);
        const Which fills = squares <= (mirror.bulge ? 1 : 2);  // an ellipse fills no box
        Wide inwards = Wide::Ones();
        if (mirror.bulge) inwards = (squares > squared(rim)).select(rim / squares.sqrt(), 1.0);
        const Wide u = along * inwards, v = along[j] * inwards, height = (1 - u.square() - v.square()).max(0).sqrt();
        std::array<Wide, 3> at, way, normal;
        Wide facing = Wide::Zero(), length = Wide::Zero(), distance = Wide::Zero();
        for (std::size_t axis = 0; axis < 3; ++axis) {
            const auto i = static_cast<Eigen::Index>(axis);
            const double right = mirror.right[i], up = mirror.up[i], forth = out[i];
            at[axis] = mirror.centre[i] + a * right * u + b * up * v;
            if (mirror.bulge) at[axis] += (height - 1) * c * forth;
            way[axis] = at[axis] - pupil[i];
            if (mirror.bulge)
                normal[axis] = right / a * u + up / b * v + forth / c * height;
            else
                normal[axis] = forth;
            facing -= way[axis] * normal[axis];
            length += normal[axis].square();
            distance += way[axis].square();
        }
        const Which seen = fills && facing > 0;
        seen_ += static_cast<int>(seen.count());
        Rays& row = rows_[static_cast<std::size_t>(j)];
        for (std::size_t axis = 0; axis < 3; ++axis) {
            const Wide away = (way[axis] + 2 * facing / length * normal[axis]) / distance.sqrt();
            row.at[axis] = at[axis].cast<float>();
            row.direction[axis] = seen.select(away, 0.0).template cast<float>();
        }
    }
}

double Reflections::share_of(const DiscSource& source) const {
    if (seen_ == 0) return 0;
    const Eigen::Vector3f facing = source.centre.normalized().cast<float>(), middle = source.centre.cast<float>();
    const auto radius = static_cast<float>(squared(source.diameter / 2));
    Eigen::Index showing = 0;
    for (const auto& [at, direction] : rows_) {
        const Row x = middle.x() - at[0], y = middle.y() - at[1], z = middle.z() - at[2];
        const Row towards = direction[0] * facing.x() + direction[1] * facing.y() + direction[2] * facing.z();
        const Row length = (x * facing.x() + y * facing.y() + z * facing.z()) / towards.max(1e-9F);
        const Row miss = (length * direction[0] - x).square() + (length * direction[1] - y).square() +
                         (length * direction[2] - z).square();
        showing += (towards > 1e-9F && length > 0 && miss <= radius).count();
    }
    return static_cast<double>(showing) / seen_;
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
/// two unknowns). By Fermat it is where the way from pupil over face to source is shortest; that length is convex and
/// the ellipsoid is the image of a unit ball, so Newton's steps along the ball, halved where one overshoots, find the
/// one shortest way from anywhere on the front.
class FermatPoint {
  public:
    FermatPoint(const Mirror& round, const Point& pupil)
        : out_(outward(round)), middle_(round.centre - *round.bulge * out_), pupil_(pupil) {
        axes_ << round.half_width * round.right, round.half_height * round.up, *round.bulge * out_;
    }

    /// Sought from `start`, a point of the unit ball, which then holds the one found.
    [[nodiscard]] std::optional<Point> towards(const Point& source, Point& start) const {
        Way way = way_over(start, source);
        constexpr int most = 60;
        constexpr double settled = 1e-7;  // Newton's last step: what it leaves is of the order of its square
        for (int i = 0; i < most; ++i) {
            const auto [step, size] = newton_step(way);
            double part = 1;
            Way next = way_over((way.ball + step).normalized(), source);
            while (next.length > way.length && part * size > settled) {
                part /= 2;
                next = way_over((way.ball + part * step).normalized(), source);
            }
            way = next;
            if (part * size <= settled) break;
        }
        const Point normal = -(way.from_pupil + way.from_source);
        const bool both_see =
            way.from_pupil.dot(normal) < 0 && way.from_source.dot(normal) < 0;  // false with no number
        if (!(normal.dot(out_) > 0) || !both_see) return std::nullopt;
        start = way.ball;
        return way.at;
    }

  private:
    struct Way {
        Point ball;                     // on the unit ball
        Point at;                       // on the ellipsoid
        Point from_pupil, from_source;  // towards `at`, of length 1
        double pupil_distance, source_distance, length;
    };
    struct Step {
        Point along;
        double size;
    };

    [[nodiscard]] Way way_over(const Point& ball, const Point& source) const {
        const Point at = middle_ + axes_ * ball;
        const Point p = at - pupil_, s = at - source;
        const double to_pupil = p.norm(), to_source = s.norm();
        return {ball, at, p / to_pupil, s / to_source, to_pupil, to_source, to_pupil + to_source};
    }
    /// In the plane that touches the ball: gradient and second derivatives of the way's length there, the ball's own
    /// curvature among them.
    [[nodiscard]] Step newton_step(const Way& way) const {
        const Point gradient = axes_.transpose() * (way.from_pupil + way.from_source);
        const Point& y = way.ball;
        const Point one = (std::abs(y.x()) < 0.7 ? Point::UnitX() : Point::UnitY()).cross(y).normalized();
        const Point two = y.cross(one);
        const double curvature = std::max(-gradient.dot(y), 1e-3 * gradient.norm());
        const Point e = axes_ * one, f = axes_ * two;
        const double ep = way.from_pupil.dot(e), fp = way.from_pupil.dot(f);
        const double es = way.from_source.dot(e), fs = way.from_source.dot(f);
        const double p = 1 / way.pupil_distance, s = 1 / way.source_distance;
        const double ee = e.squaredNorm(), ef = e.dot(f), ff = f.squaredNorm();
        const double a = (ee - ep * ep) * p + (ee - es * es) * s + curvature;
        const double b = (ef - ep * fp) * p + (ef - es * fs) * s;
        const double d = (ff - fp * fp) * p + (ff - fs * fs) * s + curvature;
        const double g = gradient.dot(one), h = gradient.dot(two), determinant = a * d - b * b;
        const double u = (b * h - d * g) / determinant, v = (b * g - a * h) / determinant;
        return {u * one + v * two, std::sqrt(u * u + v * v)};
    }

    Point out_, middle_, pupil_;
    Eigen::Matrix3d axes_;
};

}  // namespace

std::optional<Glint> glint(const Mirror& round, const Point& pupil, const DiscSource& source) {
    const FermatPoint mirror(round, pupil);
    Point near = Point::UnitZ();
    const auto middle = mirror.towards(source.centre, near);
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
    outline.reserve(corners);
    static const auto turns = [] {
        std::array<Eigen::Vector2d, corners> all;
        for (int i = 0; i < corners; ++i)
            all[static_cast<std::size_t>(i)] = {std::cos(2 * pi * i / corners), std::sin(2 * pi * i / corners)};
        return all;
    }();
    for (const auto& turn : turns) {
        const Point edge = source.centre + source.diameter / 2 * (turn.x() * side + turn.y() * upright);
        if (const auto at = mirror.towards(edge, near))
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
