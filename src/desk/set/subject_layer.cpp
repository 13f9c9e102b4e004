// The subject, the depth of it that one frame holds, and the frames of a stack.
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/set/bench_sheet.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

/// The frames of a stack as a comb above the slice.
void drawComb(BenchSheet& sheet, QPointF centre, double top) {
    const auto& travel = *sheet.report().capture.travel;
    const double scale = sheet.layout.scale;
    const double first = centre.x() + travel.first * scale, last = centre.x() + travel.last * scale;
    const double teeth = std::min(sheet.report().capture.frames, std::max(2.0, std::floor((last - first) / 3) + 1));
    sheet.painter.setPen(QPen(theme().focus, 1));
    sheet.painter.drawLine(QPointF(first, top - 3), QPointF(last, top - 3));
    for (int i = 0; i < static_cast<int>(teeth); ++i) {
        const double x = first + (last - first) * i / (teeth - 1);
        sheet.painter.drawLine(QPointF(x, top - 8), QPointF(x, top - 3));
    }
}

void letterSubject(BenchSheet& sheet, const QRectF& covered) {
    const auto& report = sheet.report();
    const auto& depth = report.sharpness.depth_of_field;
    const QString holds =
        depth ? QObject::tr("one frame holds %1").arg(lengthText(*depth)) : QObject::tr("one frame holds all");
    const QString of =
        report.capture.frames > 1
            ? QObject::tr("%1 frames over %2")
                  .arg(toQt(text::number_text(report.capture.frames, 9)),
                       lengthText(report.extent.depth + sheet.shot().capture.lead + sheet.shot().capture.tail))
            : QObject::tr("of the subject's %1").arg(lengthText(report.extent.depth));
    sheet.labels.add({.lines = {heavyLine(holds, theme().focus), plainLine(of, theme().focus)},
                      .names = covered,
                      .sides = {LabelSide::right, LabelSide::below, LabelSide::above, LabelSide::left}});
}

}  // namespace

void drawSubject(BenchSheet& sheet) {
    auto& p = sheet.painter;
    const Theme& t = theme();
    const auto& layout = sheet.layout;
    const auto& sharp = sheet.report().sharpness;
    const double half = subjectHalf(sheet.report().extent, sheet.elevation);
    const QPointF centre = layout.place(layout.focus, 0);
    QPolygonF outline = subjectProfile(sheet.shot().subject, sheet.elevation);
    for (QPointF& point : outline) point = layout.place(layout.subject + point.x(), point.y());
    p.setBrush(t.panel);
    p.setPen(QPen(t.ink, 1.3));
    p.drawPolygon(outline);

    const double reach = std::max(half * layout.scale + 12, 26.0);
    const double near = sharp.near.value_or(layout.focus) * layout.scale;
    const double far = sharp.far.value_or(1e6) * layout.scale;
    const QRectF slice(QPointF(centre.x() - near, centre.y() - reach),
                       QPointF(std::min(centre.x() + far, sheet.bounds.right() - 4), centre.y() + reach));
    QColor wash = t.focus;
    wash.setAlphaF(0.28f);
    p.fillRect(slice, wash);
    p.setPen(QPen(t.focus, 2));
    p.drawLine(QPointF(centre.x(), slice.top()), QPointF(centre.x(), slice.bottom()));
    const auto& capture = sheet.report().capture;
    if (capture.travel && capture.frames > 1) drawComb(sheet, centre, slice.top());

    const QRectF covered = outline.boundingRect().united(QRectF(centre - QPointF(3, reach), QSizeF(6, 2 * reach)));
    sheet.labels.keepClear(covered.adjusted(0, capture.frames > 1 ? -8 : 0, 0, 0), 4);
    // A slice that fills the sheet is no place to keep away from.
    letterSubject(sheet, covered.united(slice.width() < 60 ? slice : covered));
}

}  // namespace poquito::desk
