#pragma once

#include "plan/report.hpp"

#include <QPointF>
#include <QPolygonF>
#include <QRectF>

#include <optional>

namespace poquito::desk {

/// Side: seen from the camera's right, up is up. Top: seen from above, the camera's right is down.
enum class Elevation { side, top };

/// The set in pixels. World: mm, x from the sensor towards the subject, y up (side) or to the camera's left (top).
struct BenchLayout {
    double scale = 1;    // pixels a millimetre
    QPointF origin;      // the sensor's middle
    QRectF sheet;        // where the drawing goes
    double focus = 0;    // mm from the sensor: the plane of focus
    double subject = 0;  // and the middle of the subject's depth, from which lights and background are measured
    bool atInfinity = false;
    bool backgroundToScale = true;

    QPointF place(double x, double y) const { return origin + QPointF(x * scale, -y * scale); }
    QRectF box(double x0, double x1, double half) const { return QRectF(place(x0, half), place(x1, -half)); }
};

/// `bounds`: the whole drawing, title and ruler included. What stands too far away to leave the rest readable is not
/// made room for.
BenchLayout benchLayout(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report, Elevation elevation,
                        const QRectF& bounds);

/// Where a light stands in the plane of the drawing, mm from the subject: x towards the camera, y up or to the left.
QPointF lightInPlane(const light::Position& position, Elevation elevation);

/// The handle that turns a light in the plane of the drawing, pixels; empty where it hangs on the lens or is not there.
/// It lies at `aim_grip_share` of the way from the light to what it looks at.
std::optional<QPointF> aimGrip(const BenchLayout& layout, const shoot::Shot& shot, const plan::Report& report,
                               Elevation elevation, std::size_t light);

/// Half of the subject's size across the axis in this elevation, mm.
double subjectHalf(const shoot::Extent& extent, Elevation elevation);

/// The subject's section as this elevation shows it, mm from its middle: x away from the camera, y as in BenchLayout.
QPolygonF subjectProfile(const shoot::Subject& subject, Elevation elevation);

namespace bench_sizes {
inline constexpr double aim_grip_share = 0.45;
inline constexpr double body_behind = 26, body_half = 38;  // a camera body about the sensor, mm, common practice
inline constexpr double ruler_height = 62;                 // for dimension lines and ruler, pixels
}  // namespace bench_sizes

}  // namespace poquito::desk
