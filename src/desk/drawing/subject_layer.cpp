// The subject, the depth of it that one frame holds, and the frames of a stack.
#include "desk/drawing/bench_canvas.hpp"
#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/light/lighting.hpp"
#include "plan/light/lit_face.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::desk {
namespace {

/// The frames of a stack as a comb above the slice.
void drawComb(BenchCanvas& canvas, QPointF centre, double top) {
    const auto& travel = *canvas.report().capture.travel;
    const double scale = canvas.layout.scale;
    const double first = centre.x() + travel.first * scale, last = centre.x() + travel.last * scale;
    const double teeth = std::min(canvas.report().capture.frames, std::max(2.0, std::floor((last - first) / 3) + 1));
    canvas.painter.setPen(QPen(theme().focus, 1));
    canvas.painter.drawLine(QPointF(first, top - 3), QPointF(last, top - 3));
    for (int i = 0; i < static_cast<int>(teeth); ++i) {
        const double x = first + (last - first) * i / (teeth - 1);
        canvas.painter.drawLine(QPointF(x, top - 8), QPointF(x, top - 3));
    }
}

void letterSubject(BenchCanvas& canvas, const QRectF& covered) {
    const auto& report = canvas.report();
    const auto& depth = report.sharpness.depth_of_field;
    const QString holds =
        depth ? QObject::tr("one frame holds %1").arg(lengthText(*depth)) : QObject::tr("one frame holds all");
    const QString of =
        report.capture.frames > 1
            ? QObject::tr("%1 frames over %2")
                  .arg(toQt(text::number_text(report.capture.frames, 9)),
                       lengthText(report.extent.depth + canvas.shot().capture.lead + canvas.shot().capture.tail))
            : QObject::tr("of the subject's %1").arg(lengthText(report.extent.depth));
    canvas.labels.add({.lines = {heavyLine(holds, theme().focus), plainLine(of, theme().focus)},
                       .names = covered,
                       .sides = {LabelSide::right, LabelSide::below, LabelSide::above, LabelSide::left}});
}

/// About the subject, what a mid grey face turned each way in this plane would show: which face gets what. What it
/// covers; empty: nothing to show.
QRectF drawFaces(BenchCanvas& canvas, double half) {
    const auto& light = canvas.report().light;
    if (!light.total || canvas.layout.atInfinity) return {};
    constexpr int faces = 36;
    constexpr double turn = 2 * std::numbers::pi / faces, middle_grey = 0.18, gap = 6, thick = 4;        // rad; pixels
    const double radius = std::max(half, canvas.report().extent.depth / 2) + gap / canvas.layout.scale;  // mm
    auto& p = canvas.painter;
    const auto at = [&](double angle) { return canvas.placeOf({radius * std::cos(angle), radius * std::sin(angle)}); };
    for (int i = 0; i < faces; ++i) {
        const double angle = i * turn;  // 0 looks at the camera
        const double across = std::sin(angle), along = std::cos(angle);
        const light::Point normal =
            canvas.elevation == Elevation::side ? light::Point(0, across, along) : light::Point(-across, 0, along);
        const double lit = plan::light_on_face(canvas.plan(), light, normal);
        p.setPen(QPen(theme().hairline, thick + 1.5, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(at(angle - turn / 2), at(angle + turn / 2));
        p.setPen(QPen(greyOf(middle_grey * lit), thick, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(at(angle - turn / 2), at(angle + turn / 2));
    }
    const double reach = radius * canvas.layout.scale + thick;
    return {canvas.subjectMiddle() - QPointF(reach, reach), QSizeF(2 * reach, 2 * reach)};
}

}  // namespace

void drawSubject(BenchCanvas& canvas) {
    auto& p = canvas.painter;
    const Theme& t = theme();
    const auto& layout = canvas.layout;
    const auto& sharp = canvas.report().sharpness;
    const double half = subjectHalf(canvas.report().extent, canvas.elevation);
    const QPointF centre = layout.place(layout.focus, 0);
    QPolygonF outline = subjectProfile(canvas.shot().subject, canvas.elevation);
    for (QPointF& point : outline) point = layout.place(layout.subject + point.x(), point.y());
    const QRectF ring = drawFaces(canvas, half);
    p.setBrush(t.panel);
    p.setPen(QPen(t.ink, 1.3));
    p.drawPolygon(outline);

    const double reach = std::max(half * layout.scale + 12, 26.0);
    const double near = sharp.near.value_or(layout.focus) * layout.scale;
    const double far = sharp.far.value_or(1e6) * layout.scale;
    const QRectF slice(QPointF(centre.x() - near, centre.y() - reach),
                       QPointF(std::min(centre.x() + far, canvas.bounds.right() - 4), centre.y() + reach));
    QColor wash = t.focus;
    wash.setAlphaF(0.28f);
    p.fillRect(slice, wash);
    p.setPen(QPen(t.focus, 2));
    p.drawLine(QPointF(centre.x(), slice.top()), QPointF(centre.x(), slice.bottom()));
    const auto& capture = canvas.report().capture;
    if (capture.travel && capture.frames > 1) drawComb(canvas, centre, slice.top());

    const QRectF covered =
        outline.boundingRect().united(ring).united(QRectF(centre - QPointF(3, reach), QSizeF(6, 2 * reach)));
    canvas.labels.keepClear(covered.adjusted(0, capture.frames > 1 ? -8 : 0, 0, 0), 4);
    // A slice that fills the sheet is no place to keep away from.
    letterSubject(canvas, covered.united(slice.width() < 60 ? slice : covered));
}

}  // namespace poquito::desk
