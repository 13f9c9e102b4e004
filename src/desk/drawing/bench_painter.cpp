#include "desk/drawing/bench_painter.hpp"

#include "desk/drawing/bench_canvas.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace bench_sizes;

std::vector<PlacedLabel> paintBench(QPainter& painter, const BenchLayout& layout, const advice::Assessment& assessment,
                                    Elevation elevation, const QRectF& bounds, std::size_t chosen) {
    LabelPlacer labels(bounds.adjusted(4, 26, -4, -ruler_height));
    BenchCanvas canvas{.painter = painter,
                       .layout = layout,
                       .assessment = assessment,
                       .elevation = elevation,
                       .bounds = bounds,
                       .chosen = chosen,
                       .labels = labels};
    drawAxis(canvas);
    if (!layout.atInfinity) drawShade(canvas);
    drawBackground(canvas);
    drawTable(canvas);
    drawGear(canvas);
    if (layout.atInfinity) {
        const QPointF at = layout.place(layout.focus, 0);
        labels.add({.lines = {plainLine(QObject::tr("focused at infinity"), theme().quiet)},
                    .names = QRectF(at, QSizeF(1, 1)),
                    .sides = {LabelSide::left, LabelSide::above}});
    } else {
        drawFamily(canvas);
        drawAmbient(canvas);
        drawRings(canvas);
        drawLights(canvas);
        drawSubject(canvas);
        drawAim(canvas);
        letterLights(canvas);
        drawDimensions(canvas);
    }
    drawRuler(canvas);
    auto placed = labels.place();
    drawLabels(painter, placed);
    return placed;
}

LabelLine plainLine(const QString& text, const QColor& colour) { return {text, textFont(11), colour}; }
LabelLine heavyLine(const QString& text, const QColor& colour) { return {text, textFont(11, QFont::DemiBold), colour}; }

QLineF clippedTo(QLineF ray, const QRectF& room) {
    double share = 1;
    const auto limit = [&](double from, double to, double low, double high) {
        if (to > high && to > from) share = std::min(share, (high - from) / (to - from));
        if (to < low && to < from) share = std::min(share, (low - from) / (to - from));
    };
    limit(ray.x1(), ray.x2(), room.left(), room.right());
    limit(ray.y1(), ray.y2(), room.top(), room.bottom());
    ray.setP2(ray.pointAt(std::clamp(share, 0.0, 1.0)));
    return ray;
}

void drawAxis(BenchCanvas& canvas) {
    QPen pen(theme().quiet, 1);
    pen.setDashPattern({9, 3, 2, 3});
    canvas.painter.setPen(pen);
    const double y = canvas.layout.origin.y();
    canvas.painter.drawLine(QPointF(canvas.bounds.left() + 8, y), QPointF(canvas.bounds.right() - 8, y));
}

void drawDimensions(BenchCanvas& canvas) {
    auto& p = canvas.painter;
    const auto& layout = canvas.layout;
    const auto& optics = canvas.report().optics;
    const double y = canvas.bounds.bottom() - ruler_height + 12;
    const double subject = layout.place(layout.focus, 0).x(), front = layout.place(optics.front, 0).x();
    const double half = canvas.plan().lens.optics.front_diameter / 2;
    p.setPen(QPen(theme().hairline, 1));
    p.drawLine(QLineF(front, layout.place(0, -half).y(), front, y + 4));
    p.drawLine(QLineF(subject, layout.origin.y() + 26, subject, y + 22));
    p.drawLine(QLineF(layout.origin.x(), layout.place(0, -body_half).y(), layout.origin.x(), y + 22));
    if (*optics.working_distance > 0) {
        drawDimension(p, {front, y}, {subject, y},
                      QObject::tr("working distance %1").arg(lengthText(*optics.working_distance)));
    } else {
        p.setFont(textFont(11, QFont::DemiBold));
        drawLabel(p, {front, y}, Qt::AlignLeft | Qt::AlignVCenter,
                  QObject::tr("focus %1 inside the lens").arg(lengthText(-*optics.working_distance)), theme().stop);
    }
    drawDimension(p, {layout.origin.x(), y + 18}, {subject, y + 18},
                  QObject::tr("sensor to subject %1").arg(lengthText(*optics.subject_to_sensor)));
}

void drawRuler(BenchCanvas& canvas) {
    auto& p = canvas.painter;
    const double y = canvas.bounds.bottom() - 20, from = canvas.layout.origin.x(), scale = canvas.layout.scale;
    const double length = (canvas.bounds.right() - 14 - from) / scale;
    const double step = rulerStep(length, static_cast<int>(std::max(2.0, length * scale / 80)));
    p.setFont(textFont(11));
    for (int i = 0; i * step / 10 <= length; ++i) {
        const double x = from + i * step / 10 * scale;
        const bool whole = i % 10 == 0;
        p.setPen(QPen(whole ? theme().quiet : theme().hairline, 1));
        p.drawLine(QLineF(x, y, x, y + (whole ? 6 : i % 5 == 0 ? 4 : 2)));
        if (!whole) continue;
        p.setPen(theme().quiet);
        const QString text = toQt(text::number_text(i * step / 10, 4)) + (i == 0 ? QObject::tr(" mm") : QString());
        if (x + 3 + lineWidth(textFont(11), text) < canvas.bounds.right() - 2) p.drawText(QPointF(x + 3, y + 14), text);
    }
}

}  // namespace poquito::desk
