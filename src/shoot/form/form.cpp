#include "shoot/form/form.hpp"
#include "light/angle.hpp"

#include "shoot/shoot.hpp"
#include "shoot/values/lattice_hash.hpp"
#include "shoot/values/lru_cache.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

namespace poquito::shoot {
namespace {

using light::degree;

double square(double x) { return x * x; }

double smooth(double from, double to, double x) {
    const double t = std::clamp((x - from) / (to - from), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

using Relief = std::optional<double>;

/// As std::hypot, without its care for numbers that no form has: reliefs are asked for by the million.
double length(double u, double v) { return std::sqrt(u * u + v * v); }

Relief ball(double u, double v) {
    const double rest = 1 - u * u - v * v;
    if (rest < 0) return {};
    return std::sqrt(rest);
}

Relief dome(double u, double v) {
    const double rest = 1 - u * u - v * v;
    if (rest < 0) return {};
    return rest;
}

Relief ring(double u, double v) {
    constexpr double inner = 0.62, middle = (1 + inner) / 2, half = (1 - inner) / 2;
    const double across = (length(u, v) - middle) / half;
    if (std::abs(across) > 1) return {};
    return std::sqrt(1 - across * across);
}

/// Flat, nearer at the bottom: as a thing that lies down and is seen from above.
double lying(double v) { return (1 - v) / 2; }

Relief leaf(double u, double v) {
    const double half = std::sqrt(std::max(0.0, 1 - v * v)) * (1 - 0.25 * v);
    constexpr double widest = 1.02917;  // of `half`, so that the leaf takes the whole width
    if (std::abs(u) > half / widest) return {};
    return lying(v);
}

/// A corner towards the camera: two faces that fall away from an edge.
Relief box(double u, double) {
    constexpr double edge = -0.25;
    return u < edge ? (u + 1) / (edge + 1) : (1 - u) / (1 - edge);
}

Relief bowl(double u, double v) {
    constexpr double lip = 0.93;
    const double r = length(u, v);
    if (r > 1) return {};
    if (r > lip) return 1 - 0.2 * square((r - lip) / (1 - lip));
    return square(r / lip);
}

/// Half an ellipsoid on a floor, `top` its greatest height.
struct Lump {
    double u, v, half_u, half_v, top;
};
struct Leg {
    double u0, v0, u1, v1;
};

Relief insect(double u, double v) {
    constexpr Lump lumps[] = {{-0.72, 0, 0.28, 0.3, 0.62}, {-0.28, 0, 0.3, 0.36, 0.85}, {0.42, 0, 0.58, 0.44, 1.0}};
    constexpr Leg legs[] = {{-0.4, 0, -0.7, 1}, {-0.25, 0, -0.1, 1}, {-0.1, 0, 0.55, 1}};
    constexpr double thickness = 0.035, leg_top = 0.25;
    Relief top;
    for (const Lump& lump : lumps) {
        const double rest = 1 - square((u - lump.u) / lump.half_u) - square((v - lump.v) / lump.half_v);
        if (rest >= 0) top = std::max(top.value_or(0), lump.top * std::sqrt(rest));
    }
    for (const Leg& leg : legs) {
        const double du = leg.u1 - leg.u0, dv = leg.v1 - leg.v0;
        const double along =
            std::clamp(((u - leg.u0) * du + (std::abs(v) - leg.v0) * dv) / (du * du + dv * dv), 0.0, 1.0);
        const double off = length(u - leg.u0 - along * du, std::abs(v) - leg.v0 - along * dv) / thickness;
        if (off <= 1)  // out from the body and down to the floor
            top = std::max(top.value_or(0), (leg_top + 0.2) * (1 - along) * std::sqrt(1 - off * off) + 0.001);
    }
    return top;
}

Relief bottle(double u, double v) {
    constexpr double neck = 0.36;
    const double half = neck + (1 - neck) * (1 - smooth(0.25, 0.62, v));
    if (std::abs(u) > half) return {};
    return std::sqrt(half * half - u * u);
}

Relief folds(double u, double v) {
    const double sum = 0.55 * std::sin(5.2 * u + 1.1 * std::sin(1.7 * v)) + 0.3 * std::sin(3.1 * u - 2.4 * v + 0.7) +
                       0.15 * std::sin(9.7 * u + 3.3 * v);
    constexpr double least = -0.93793, greatest = 0.93010;  // of the sum over the box
    return std::clamp((sum - least) / (greatest - least), 0.0, 1.0);
}

}  // namespace

const std::vector<FormName>& forms() {
    static const std::vector<FormName> all = {
        {Form::ball, "ball"},
        {Form::dome, "dome"},
        {Form::ring, "ring"},
        {Form::leaf, "leaf, lying"},
        {Form::slab, "slab, lying"},
        {Form::box, "box, corner on"},
        {Form::grains, "heap of grains"},
        {Form::bowl, "bowl"},
        {Form::insect, "insect body"},
        {Form::bottle, "bottle"},
        {Form::folds, "cloth folds"},
        {Form::height_map, "height map"},
    };
    return all;
}

const char* form_name(Form form) { return std::ranges::find(forms(), form, &FormName::form)->name; }

Extent presented_extent(const Subject& subject) {
    if (subject.tilt == 0 && subject.turn == 0)
        return {.width = subject.width, .height = subject.height, .depth = subject.depth};
    // Measured point by point: kept, as a change of the kit asks for that of every shot.
    static LruCache<Subject, Extent, 256> kept;
    const auto shape = shape_of(subject);
    return *kept.of(shape, [&] { return std::make_shared<const Extent>(Surface(shape).extent()); });
}

Point3 facing_normal(const Subject& subject) {
    const double ct = std::cos(subject.tilt * degree), st = std::sin(subject.tilt * degree);
    const double cu = std::cos(subject.turn * degree), su = std::sin(subject.turn * degree);
    return {su * ct, st, -cu * ct};
}

Subject shape_of(const Subject& subject) {
    return {.width = subject.width,
            .height = subject.height,
            .depth = subject.depth,
            .form = subject.form,
            .tilt = subject.tilt,
            .turn = subject.turn,
            .height_map = subject.form == Form::height_map ? subject.height_map : std::nullopt};
}

// ---- the relief --------------------------------------------------------------------------------------------------

Surface::Surface(const Subject& subject)
    : form_(subject.form),
      half_width_(subject.width / 2),
      half_height_(subject.height / 2),
      depth_(subject.depth),
      rotated_(subject.tilt != 0 || subject.turn != 0) {
    if (form_ == Form::height_map && subject.height_map) {
        map_ = subject.height_map;
        const auto [low, high] = std::ranges::minmax((*map_)->heights);
        map_low_ = low;
        map_range_ = std::max(1, high - low);
    }
    if (form_ == Form::grains) {
        // The same heap for every subject, so it is made once.
        static const auto made = [this] {
            constexpr int across = 10;
            std::vector<Grain> grains;
            heap_.resize(std::size_t{heap_cells} * heap_cells);
            for (int i = 0; i < across * across; ++i) {
                const double u = (i % across + 0.5 + 0.7 * (lattice_hash(i, 0, 1) - 0.5)) / across * 2 - 1;
                const int row = i / across;
                const double v = (row + 0.5 + 0.7 * (lattice_hash(i, 0, 2) - 0.5)) / across * 2 - 1;
                const double radius = 0.14 + 0.1 * lattice_hash(i, 0, 3);
                const double r = std::hypot(u, v);
                if (r + radius > 1) continue;
                grains.push_back({.u = u, .v = v, .radius = radius, .base = 0.75 * (1 - r * r)});
            }
            for (const Grain& grain : grains)
                for (int cell = 0; cell < heap_cells * heap_cells; ++cell) {
                    const int column = cell % heap_cells, row = cell / heap_cells;
                    const double left = 2.0 * column / heap_cells - 1, bottom = 2.0 * row / heap_cells - 1;
                    const double du = grain.u - std::clamp(grain.u, left, left + 2.0 / heap_cells);
                    const double dv = grain.v - std::clamp(grain.v, bottom, bottom + 2.0 / heap_cells);
                    if (std::hypot(du, dv) <= grain.radius) heap_[static_cast<std::size_t>(cell)].push_back(grain);
                }
            // What shows of the heap reaches from the floor to the top, as the depth was measured.
            constexpr int samples = 200;
            double low = 1, high = 0;
            for (int i = 0; i <= samples; ++i)
                for (int j = 0; j <= samples; ++j)
                    if (const auto top = heap(2.0 * i / samples - 1, 2.0 * j / samples - 1)) {
                        low = std::min(low, *top);
                        high = std::max(high, *top);
                    }
            heap_low_ = low;
            heap_range_ = high - low;
            return std::tuple(heap_, heap_low_, heap_range_);
        }();
        std::tie(heap_, heap_low_, heap_range_) = made;
    }
    // Tilt about the horizontal: the top goes away; then turn about the upright: the right side goes away.
    const double ct = std::cos(subject.tilt * degree), st = std::sin(subject.tilt * degree);
    const double cu = std::cos(subject.turn * degree), su = std::sin(subject.turn * degree);
    const double rows[3][3] = {{cu, -su * st, -su * ct}, {0, ct, -st}, {su, cu * st, cu * ct}};
    std::copy(&rows[0][0], &rows[0][0] + 9, &rows_[0][0]);
    extent_ = {.width = subject.width, .height = subject.height, .depth = subject.depth};
    if (rotated_) measure();
}

std::optional<double> Surface::relief(double u, double v) const {
    if (std::abs(u) > 1 || std::abs(v) > 1) return {};
    switch (form_) {
        case Form::ball:
            return ball(u, v);
        case Form::dome:
            return dome(u, v);
        case Form::ring:
            return ring(u, v);
        case Form::leaf:
            return leaf(u, v);
        case Form::slab:
            return lying(v);
        case Form::box:
            return box(u, v);
        case Form::grains:
            return heap(u, v);
        case Form::bowl:
            return bowl(u, v);
        case Form::insect:
            return insect(u, v);
        case Form::bottle:
            return bottle(u, v);
        case Form::folds:
            return folds(u, v);
        case Form::height_map:
            return map_ ? mapped(u, v) : lying(v);
    }
    return {};
}

std::optional<double> Surface::heap(double u, double v) const {
    std::optional<double> top;
    const auto cell = [](double at) {
        return std::clamp(static_cast<int>((at + 1) / 2 * heap_cells), 0, heap_cells - 1);
    };
    for (const Grain& grain :
         heap_[static_cast<std::size_t>(cell(v)) * heap_cells + static_cast<std::size_t>(cell(u))]) {
        const double off = (square(u - grain.u) + square(v - grain.v)) / square(grain.radius);
        if (off > 1) continue;
        top = std::max(top.value_or(0), grain.base + 0.25 * std::sqrt(1 - off));
    }
    if (top) top = std::clamp((*top - heap_low_) / heap_range_, 0.0, 1.0);
    return top;
}

double Surface::mapped(double u, double v) const {
    const HeightMap& map = **map_;
    const double x = (u + 1) / 2 * (map.width - 1), y = (1 - v) / 2 * (map.height - 1);
    const int left = std::min(static_cast<int>(x), map.width - 2), top = std::min(static_cast<int>(y), map.height - 2);
    const double fx = x - left, fy = y - top;
    const auto at = [&](int column, int row) {
        return double(map.heights[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.width) +
                                  static_cast<std::size_t>(column)]);
    };
    const double upper = at(left, top) * (1 - fx) + at(left + 1, top) * fx;
    const double lower = at(left, top + 1) * (1 - fx) + at(left + 1, top + 1) * fx;
    return (upper * (1 - fy) + lower * fy - map_low_) / map_range_;
}

// ---- in front of the camera --------------------------------------------------------------------------------------

Point3 Surface::turned(const Point3& own) const {
    const auto row = [&](int i) { return rows_[i][0] * own.x + rows_[i][1] * own.y + rows_[i][2] * own.z; };
    return {row(0), row(1), row(2)};
}

Point3 Surface::own_direction(const Point3& seen) const {
    const auto column = [&](int i) { return rows_[0][i] * seen.x + rows_[1][i] * seen.y + rows_[2][i] * seen.z; };
    return {column(0), column(1), column(2)};
}

std::optional<Point3> Surface::point(double u, double v) const {
    const auto height = relief(u, v);
    if (!height) return {};
    Point3 seen = turned({u * half_width_, v * half_height_, depth_ * (0.5 - *height)});
    seen.x -= middle_.x;
    seen.y -= middle_.y;
    seen.z -= middle_.z;
    return seen;
}

/// The box about the turned surface, and its middle.
void Surface::measure() {
    constexpr int cells = 96;
    constexpr double none = std::numeric_limits<double>::infinity();
    Point3 low{none, none, none}, high{-none, -none, -none};
    for (int i = 0; i <= cells; ++i)
        for (int j = 0; j <= cells; ++j) {
            const auto seen = point(2.0 * i / cells - 1, 2.0 * j / cells - 1);
            if (!seen) continue;
            low = {std::min(low.x, seen->x), std::min(low.y, seen->y), std::min(low.z, seen->z)};
            high = {std::max(high.x, seen->x), std::max(high.y, seen->y), std::max(high.z, seen->z)};
        }
    middle_ = {(low.x + high.x) / 2, (low.y + high.y) / 2, (low.z + high.z) / 2};
    extent_ = {.width = high.x - low.x, .height = high.y - low.y, .depth = high.z - low.z};
}

Point3 Surface::normal_at(double u, double v) const {
    constexpr double delta = 1e-3;
    const double here = *relief(u, v);
    const auto slope = [&](double du, double dv, double half) {
        // Towards the side where there is still surface; beside an edge the form ends upright.
        const auto before = relief(u - du, v - dv), after = relief(u + du, v + dv);
        const double steps = (before ? 1 : 0) + (after ? 1 : 0);
        if (steps == 0) return 0.0;
        return -depth_ * (after.value_or(here) - before.value_or(here)) / (steps * delta * half);
    };
    Point3 normal = turned({slope(delta, 0, half_width_), slope(0, delta, half_height_), -1});
    const double length = std::sqrt(normal.x * normal.x + normal.y * normal.y + normal.z * normal.z);
    return {normal.x / length, normal.y / length, normal.z / length};
}

std::optional<SurfacePoint> Surface::hit(const ViewRay& ray) const {
    const auto met = meet(ray);
    if (!met) return {};
    return SurfacePoint{.z = met->z, .normal = normal_at(met->u, met->v), .u = met->u, .v = met->v};
}

std::optional<double> Surface::depth_on(const ViewRay& ray) const {
    const auto met = meet(ray);
    return met ? std::optional(met->z) : std::nullopt;
}

std::optional<Surface::Met> Surface::meet(const ViewRay& ray) const {
    if (!rotated_ && ray.dx == 0 && ray.dy == 0) {
        const double u = (ray.x + middle_.x) / half_width_, v = (ray.y + middle_.y) / half_height_;
        const auto height = relief(u, v);
        return height ? std::optional(Met{.z = depth_ * (0.5 - *height), .u = u, .v = v}) : std::nullopt;
    }
    // In the subject's own axes the ray is o + d z, z the depth the camera sees.
    const Point3 o = own_direction({ray.x + middle_.x, ray.y + middle_.y, middle_.z});
    const Point3 d = own_direction({ray.dx, ray.dy, 1});
    double from = -std::numeric_limits<double>::infinity(), to = -from;
    const auto within = [&](double origin, double slope, double half) {
        if (std::abs(slope) < 1e-12) {
            if (std::abs(origin) > half) to = -std::numeric_limits<double>::infinity();
            return;
        }
        const double a = (-half - origin) / slope, b = (half - origin) / slope;
        from = std::max(from, std::min(a, b));
        to = std::min(to, std::max(a, b));
    };
    const double floor = std::max(depth_ / 2, 1e-9);
    within(o.x, d.x, half_width_);
    within(o.y, d.y, half_height_);
    within(o.z, d.z, floor);
    if (!(from <= to)) return {};

    const auto place = [&](double z) { return Point3{o.x + d.x * z, o.y + d.y * z, o.z + d.z * z}; };
    const auto inside = [&](double z) {
        const Point3 at = place(z);
        const auto height =
            relief(std::clamp(at.x / half_width_, -1.0, 1.0), std::clamp(at.y / half_height_, -1.0, 1.0));
        return height && at.z >= depth_ * (0.5 - *height) - 1e-9 * depth_;
    };
    if (!rotated_) {
        // Nearly along the depth: the surface where the ray would be, again and again, settles at once on gentle
        // slopes.
        double z = 0;
        for (int i = 0; i < 4; ++i) {
            const double u = (o.x + d.x * z) / half_width_, v = (o.y + d.y * z) / half_height_;
            const auto height = relief(u, v);
            if (!height) break;
            const double next = depth_ * (0.5 - *height);
            if (std::abs(next - z) <= 1e-4 * depth_) return Met{.z = next, .u = u, .v = v};
            z = next;
        }
    }
    // The finer the farther the ray wanders across the relief while it crosses the box.
    const double wander = (to - from) * length(d.x / half_width_, d.y / half_height_);
    const int steps = std::clamp(static_cast<int>(std::ceil(wander * 48)), 1, 96);
    double outside = from, low = from;
    bool found = inside(from);
    for (int i = 1; !found && i <= steps; ++i) {
        low = i == steps ? to : from + (to - from) * i / steps;
        found = inside(low);
        if (!found) outside = low;
    }
    if (!found) return {};
    constexpr int halvings = 14;
    for (int i = 0; i < halvings && low > outside; ++i) {
        const double middle = (outside + low) / 2;
        (inside(middle) ? low : outside) = middle;
    }
    const Point3 at = place(low);
    const double u = std::clamp(at.x / half_width_, -1.0, 1.0), v = std::clamp(at.y / half_height_, -1.0, 1.0);
    return Met{.z = low, .u = u, .v = v};
}

}  // namespace poquito::shoot
