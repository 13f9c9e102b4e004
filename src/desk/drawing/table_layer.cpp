// The table as it lies to the axis, and what else stands on it.
#include "desk/drawing/bench_sheet.hpp"
#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/angle.hpp"
#include "plan/staging.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>

#include <cmath>

namespace poquito::desk {
namespace {

/// A place by its distance behind the subject's centre along the axis, and how far it is up or to the camera's left.
QPointF at(const BenchSheet& sheet, double away, double across) {
    return sheet.layout.place(sheet.layout.subject + away, across);
}

void drawThing(BenchSheet& sheet, const shoot::Staged& thing) {
    const auto subject = plan::seen_subject(sheet.plan(), thing);
    const auto place = plan::seen_place(sheet.plan(), thing);
    QPolygonF outline;
    if (sheet.elevation == Elevation::side) {
        const double tilt = subject.tilt * light::degree, sine = std::sin(tilt), cosine = std::cos(tilt);
        for (const auto& [up, back] : {std::pair(-1.0, -1.0), {1.0, -1.0}, {1.0, 1.0}, {-1.0, 1.0}}) {
            const double u = up * subject.height / 2, b = back * subject.depth / 2;
            outline << at(sheet, place.away + u * sine + b * cosine, place.up + u * cosine - b * sine);
        }
    } else {
        const auto extent = shoot::presented_extent(subject);
        for (const auto& [left, back] : {std::pair(-1.0, -1.0), {1.0, -1.0}, {1.0, 1.0}, {-1.0, 1.0}})
            outline << at(sheet, place.away + back * extent.depth / 2, left * extent.width / 2 - place.right);
    }
    QColor fill = thing.subject.colour
                      ? QColor(thing.subject.colour->red, thing.subject.colour->green, thing.subject.colour->blue)
                      : greyOf(thing.subject.reflectance);
    fill.setAlphaF(thing.lies ? 0.35F : 0.7F);
    sheet.painter.setBrush(fill);
    sheet.painter.setPen(QPen(theme().quiet, 1));
    sheet.painter.drawPolygon(outline);
    sheet.painter.setBrush(Qt::NoBrush);
    if (!thing.lies) sheet.labels.keepClear(outline.boundingRect());
}

}  // namespace

void drawTable(BenchSheet& sheet) {
    const auto& shot = sheet.shot();
    if (sheet.layout.atInfinity || (shot.rig.inclination == 0 && shot.staging.empty() && !sunShines(sheet))) return;
    auto& p = sheet.painter;
    p.save();
    p.setClipRect(sheet.room());
    for (const bool lies : {true, false})
        for (const auto& thing : shot.staging)
            if (thing.lies == lies) drawThing(sheet, thing);
    p.restore();
    if (sheet.elevation == Elevation::top) return;
    const double i = shot.rig.inclination * light::degree, foot = -shot.subject.height / 2;
    // Through the subject's foot, as far as the sheet goes to either side.
    const QPointF middle = at(sheet, -foot * std::sin(i), foot * std::cos(i));
    const QPointF along(std::cos(i), -std::sin(i));
    const double far = sheet.bounds.width() + sheet.bounds.height();
    if (!sheet.room().contains(middle)) return;
    const QLineF back = clippedTo({middle, middle + along * far}, sheet.room()),
                 front = clippedTo({middle, middle - along * far}, sheet.room());
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
    sheet.labels.keepClear(whole);
    const QString words =
        shot.rig.inclination == 0
            ? (shoot::has_trait(shot.subject, "outdoors") ? QObject::tr("ground") : QObject::tr("table"))
            : QObject::tr("table, %1\u00b0 down").arg(toQt(text::number_text(shot.rig.inclination, 3)));
    sheet.labels.add({.lines = {plainLine(words, theme().quiet)},
                      .names = QRectF(back.p2() - along * 70 - QPointF(4, 4), QSizeF(8, 8)),
                      .sides = {LabelSide::below, LabelSide::above, LabelSide::left},
                      .may_go = true});
}

}  // namespace poquito::desk
