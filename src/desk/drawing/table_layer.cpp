// The table as it lies to the axis, and what else stands on it.
#include "desk/drawing/bench_canvas.hpp"
#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/angle.hpp"
#include "plan/set/staging.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>

#include <cmath>

namespace poquito::desk {
namespace {

/// A place by its distance behind the subject's centre along the axis, and how far it is up or to the camera's left.
QPointF at(const BenchCanvas& canvas, double away, double across) {
    return canvas.layout.place(canvas.layout.subject + away, across);
}

void drawThing(BenchCanvas& canvas, const shoot::Staged& thing) {
    const auto subject = plan::seen_subject(canvas.plan(), thing);
    const auto place = plan::seen_place(canvas.plan(), thing);
    QPolygonF outline;
    if (canvas.elevation == Elevation::side) {
        const double tilt = subject.tilt * light::degree, sine = std::sin(tilt), cosine = std::cos(tilt);
        for (const auto& [up, back] : {std::pair(-1.0, -1.0), {1.0, -1.0}, {1.0, 1.0}, {-1.0, 1.0}}) {
            const double u = up * subject.height / 2, b = back * subject.depth / 2;
            outline << at(canvas, place.away + u * sine + b * cosine, place.up + u * cosine - b * sine);
        }
    } else {
        const auto extent = shoot::presented_extent(subject);
        for (const auto& [left, back] : {std::pair(-1.0, -1.0), {1.0, -1.0}, {1.0, 1.0}, {-1.0, 1.0}})
            outline << at(canvas, place.away + back * extent.depth / 2, left * extent.width / 2 - place.right);
    }
    QColor fill = thing.subject.colour
                      ? QColor(thing.subject.colour->red, thing.subject.colour->green, thing.subject.colour->blue)
                      : greyOf(thing.subject.reflectance);
    fill.setAlphaF(thing.lies ? 0.35F : 0.7F);
    canvas.painter.setBrush(fill);
    canvas.painter.setPen(QPen(theme().quiet, 1));
    canvas.painter.drawPolygon(outline);
    canvas.painter.setBrush(Qt::NoBrush);
    if (!thing.lies) canvas.labels.keepClear(outline.boundingRect());
}

}  // namespace

void drawTable(BenchCanvas& canvas) {
    const auto& shot = canvas.shot();
    if (canvas.layout.atInfinity || (shot.rig.inclination == 0 && shot.staging.empty() && !sunShines(canvas))) return;
    auto& p = canvas.painter;
    p.save();
    p.setClipRect(canvas.room());
    for (const bool lies : {true, false})
        for (const auto& thing : shot.staging)
            if (thing.lies == lies) drawThing(canvas, thing);
    p.restore();
    if (canvas.elevation == Elevation::top) return;
    const double i = shot.rig.inclination * light::degree, foot = -shot.subject.height / 2;
    // Through the subject's foot, as far as the sheet goes to either side.
    const QPointF middle = at(canvas, -foot * std::sin(i), foot * std::cos(i));
    const QPointF along(std::cos(i), -std::sin(i));
    const double far = canvas.bounds.width() + canvas.bounds.height();
    if (!canvas.room().contains(middle)) return;
    const QLineF back = clippedTo({middle, middle + along * far}, canvas.room()),
                 front = clippedTo({middle, middle - along * far}, canvas.room());
    p.setPen(QPen(theme().ink, 1.2));
    p.drawLine(front.p2(), back.p2());
    // Hatched below, so that it reads as what things stand on.
    p.setPen(QPen(theme().hairline, 1));
    const QPointF below(along.y(), -along.x());
    const QLineF whole(front.p2(), back.p2());
    constexpr double apart = 9, deep = 6;  // pixels
    for (double way = apart; way < whole.length(); way += apart) {
        const QPointF from = whole.pointAt(way / whole.length());
        p.drawLine(from, from - below * deep - along * deep * 0.7);
    }
    canvas.labels.keepClear(whole);
    const QString words =
        shot.rig.inclination == 0
            ? (shoot::has_trait(shot.subject, "outdoors") ? QObject::tr("ground") : QObject::tr("table"))
            : QObject::tr("table, %1\u00b0 down").arg(toQt(text::number_text(shot.rig.inclination, 3)));
    canvas.labels.add({.lines = {plainLine(words, theme().quiet)},
                       .names = QRectF(back.p2() - along * 70 - QPointF(4, 4), QSizeF(8, 8)),
                       .sides = {LabelSide::below, LabelSide::above, LabelSide::left},
                       .may_go = true});
}

}  // namespace poquito::desk
