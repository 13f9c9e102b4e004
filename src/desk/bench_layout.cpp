#include "desk/bench_layout.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::desk {

using namespace bench;

BenchLayout benchLayout(const shoot::Kit& kit, const shoot::Shot& shot, const shoot::Report& report,
                        Elevation elevation, const QRectF& bounds) {
    BenchLayout layout;
    layout.sheet = bounds.adjusted(12, 30, -12, -ruler_height);
    layout.atInfinity = !report.optics.subject_to_sensor;
    layout.subject = report.optics.subject_to_sensor.value_or(report.optics.front * 2.2);
    const double subject_end = layout.subject + shot.subject.depth / 2;
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
    double up = std::max({body_half, lens_half, layout.atInfinity ? 0 : subjectHalf(shot.subject, elevation)}) * 1.15;
    double down = up;
    const double reach = layout.subject * 0.75;  // a light farther off the axis goes to the edge
    if (!layout.atInfinity)
        for (const auto& light : shot.lights) {
            const QPointF at = lightInPlane(light.position, elevation);
            if (std::abs(at.y()) > reach) continue;
            const auto* modifier = shoot::modifier_of(kit, light);
            const double half = (modifier ? modifier->diameter / 2 : 25) + 12;
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

double subjectHalf(const shoot::Subject& subject, Elevation elevation) {
    return (elevation == Elevation::side ? subject.height : subject.width) / 2;
}

}  // namespace poquito::desk
