#include "desk/drawing/bench_layout.hpp"

#include "desk/drawing/form_lines.hpp"
#include "light/space.hpp"

#include <QCache>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>
#include <vector>

namespace poquito::desk {

using namespace bench_sizes;

namespace {
QPolygonF sampledProfile(const shoot::Subject& subject, Elevation elevation);
}

BenchLayout benchLayout(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report, Elevation elevation,
                        const QRectF& bounds) {
    BenchLayout layout;
    layout.sheet = bounds.adjusted(12, 30, -12, -ruler_height);
    layout.atInfinity = !report.optics.subject_to_sensor;
    layout.focus = report.optics.subject_to_sensor.value_or(report.optics.front * 2.2);
    layout.subject = layout.focus - report.sharpness.focus;
    const double subject_end = layout.subject + report.extent.depth / 2;
    const double lens_half = shoot::lens_of(kit, shot).optics.front_diameter / 2;

    double right = subject_end * 1.08 + 10;
    if (!shot.background) {
        constexpr double lettering = 165;  // pixels, what is written behind the subject
        right =
            subject_end + lettering * (subject_end + body_behind) / std::max(50.0, layout.sheet.width() - lettering);
    }
    layout.backgroundToScale = !shot.background || layout.subject + shot.background->distance < layout.subject * 2.4;
    if (shot.background)
        right = std::max(
            right, layout.backgroundToScale ? layout.subject + shot.background->distance + 12 : layout.subject * 1.5);
    double up = std::max({body_half, lens_half, layout.atInfinity ? 0 : subjectHalf(report.extent, elevation)}) * 1.15;
    double down = up;
    const double reach = layout.subject * 0.75;  // a light farther off the axis goes to the edge
    if (!layout.atInfinity)
        for (const auto& source : report.light.sources) {
            const QPointF at = lightInPlane(source.place, elevation);
            if (std::abs(at.y()) > reach) continue;
            const double half = source.tubes.front().diameter / 2 + 12;
            if (at.y() >= 0)
                up = std::max(up, at.y() + half * 0.8);
            else
                down = std::max(down, -at.y() + half * 0.8);
        }
    layout.scale = std::min(layout.sheet.width() / (right + body_behind), layout.sheet.height() / (up + down));
    const double spare = layout.sheet.width() - layout.scale * (right + body_behind);
    layout.origin = QPointF(layout.sheet.left() + spare * 0.25 + body_behind * layout.scale,
                            layout.sheet.top() + layout.sheet.height() * up / (up + down));
    return layout;
}

QPointF lightInPlane(const light::Position& position, Elevation elevation) {
    constexpr double degree = std::numbers::pi / 180;
    const double out = position.distance * std::cos(position.elevation * degree);
    const double along = out * std::cos(position.azimuth * degree);
    const double across = elevation == Elevation::side ? position.distance * std::sin(position.elevation * degree)
                                                       : -out * std::sin(position.azimuth * degree);
    return {along, across};
}

std::optional<QPointF> aimGrip(const BenchLayout& layout, const shoot::Shot& shot, const plan::Report& report,
                               Elevation elevation, std::size_t light) {
    if (light >= shot.lights.size() || shot.lights[light].on_lens || layout.atInfinity) return std::nullopt;
    const auto& place = report.light.sources[light].place;
    const light::Point at = light::place_of(place);
    const light::Point grip = at + aim_grip_share * place.distance * light::looks_along(place, shot.lights[light].aim);
    return layout.place(layout.subject - grip.z(), elevation == Elevation::side ? grip.y() : -grip.x());
}

double subjectHalf(const shoot::Extent& extent, Elevation elevation) {
    return (elevation == Elevation::side ? extent.height : extent.width) / 2;
}

QPolygonF subjectProfile(const shoot::Subject& subject, Elevation elevation) {
    static QCache<QByteArray, QPolygonF> known(100);
    const QByteArray key = formKey(subject) + (elevation == Elevation::side ? "side" : "top");
    if (const auto* profile = known.object(key)) return *profile;
    QPolygonF profile = sampledProfile(subject, elevation);
    known.insert(key, new QPolygonF(profile));
    return profile;
}

namespace {

QPolygonF sampledProfile(const shoot::Subject& subject, Elevation elevation) {
    constexpr int samples = 64;
    const shoot::Surface surface(subject);
    const double half = subjectHalf(surface.extent(), elevation);
    // The nearest point in each slice across the axis; the far side is a flat back.
    std::vector<std::optional<double>> nearest(samples);
    // Several points a slice, odd to their number: turned, a slice would else catch none but far ones.
    constexpr int finer = 3 * samples + 1;
    const bool side = elevation == Elevation::side;
    const int columns = side ? samples : finer, rows = side ? finer : samples;
    for (int i = 0; i <= columns; ++i)
        for (int j = 0; j <= rows; ++j) {
            const auto at = surface.point(2.0 * i / columns - 1, 2.0 * j / rows - 1);
            if (!at) continue;
            const double across = side ? at->y : -at->x;
            const auto slice = static_cast<std::size_t>(
                std::clamp((across / half + 1) / 2 * samples, 0.0, static_cast<double>(samples - 1)));
            nearest[slice] = std::min(nearest[slice].value_or(at->z), at->z);
        }
    QPolygonF outline;
    const double back = surface.extent().depth / 2;
    const auto across = [&](double slice) { return (slice / samples * 2 - 1) * half; };
    for (int i = 0; i < samples; ++i)
        if (const auto& z = nearest[static_cast<std::size_t>(i)]) {
            if (outline.isEmpty()) outline << QPointF(back, across(i)) << QPointF(*z, across(i));
            outline << QPointF(*z, across(i + 0.5));
        }
    if (!outline.isEmpty()) {
        const double end = half;
        outline << QPointF(outline.back().x(), end) << QPointF(back, end);
    }
    return outline;
}

}  // namespace

}  // namespace poquito::desk
