#include "desk/light/fall_drawing.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString mm(double length) { return toQt(text::length_text(length)); }
QString milliseconds(double seconds) {
    constexpr double from_here_in_s = 10;
    return seconds < from_here_in_s
               ? QObject::tr("%1 ms").arg(toQt(text::number_text(seconds * 1000, seconds < 1 ? 3 : 4)))
               : toQt(text::time_text(seconds));
}

}  // namespace

QPointF FallDrawing::Sheet::point(double x, double y) const {
    return area.center() + QPointF(x - middle.x(), middle.y() - y) * scale;
}

FallDrawing::FallDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("fallDrawing"));
    setAccessibleName(tr("The fall to scale, with its times"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setToolTip(tr("Of a throw, drag the beam along the path, or move it by the arrow keys"));
}

QRectF FallDrawing::field() const { return QRectF(rect()).adjusted(14, 30, -2, -34); }

double FallDrawing::yOf(double above) const {
    return field().bottom() - field().height() * above / std::max(std::abs(document_.shot()->freeze->drop), 1.0);
}

void FallDrawing::name(QPainter& painter, double y, const QString& words, const QColor& colour) const {
    drawLabel(painter, {field().left() + 12, y}, Qt::AlignLeft | Qt::AlignVCenter,
              elided(textFont(11), words, field().width() - 12), colour);
}

void FallDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot || !shot->freeze || !document_.report()->freeze) return;
    const auto& plan = *shot->freeze;
    const auto& delay = document_.report()->freeze->delay;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), tr("To scale"));
    painter.setFont(textFont(11));
    if (plan.act == shoot::Act::thrown) {
        drawThrow(painter);
    } else {
        const QRectF area = field();
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QLineF(area.left(), area.top(), area.left(), area.bottom()));
        drawFall(painter);
        painter.setPen(QPen(t.focus, 2));
        painter.drawLine(QLineF(area.left() - 12, area.bottom(), area.left() + 10, area.bottom()));
    }
    if (hasFocus()) drawFocusRing(painter, rect());
    // ---- what to set
    painter.setPen(t.ink);
    QString set = plan.act == shoot::Act::thrown ? QString() : tr("drop %1").arg(mm(plan.drop));
    if (plan.trigger != shoot::Trigger::hand && delay)
        set = plan.undelayed ? tr("no delay")
              : *delay >= 0  ? tr("delay %1").arg(milliseconds(*delay))
                             : tr("%1 late").arg(milliseconds(-*delay));
    painter.setFont(textFont(11, QFont::DemiBold));
    const double across = width();
    if (plan.act == shoot::Act::thrown)
        drawLine(painter, {64, 2, across - 64, 16}, Qt::AlignRight | Qt::AlignVCenter, set);
    else
        drawLine(painter, {0, height() - 18.0, across, 16}, Qt::AlignLeft | Qt::AlignVCenter, set);
}

/// Where it is after equal times; while trigger and camera wake up it falls on.
void FallDrawing::drawFall(QPainter& painter) const {
    const auto& plan = *document_.shot()->freeze;
    const Theme& t = theme();
    const QRectF area = field();
    const auto path = plan::trajectory_of(plan);
    if (!path) return name(painter, area.bottom(), tr("it stands still"), t.stop);
    const auto fallen = [&](double time) { return std::min(-path->point(time).y, plan.drop); };
    if (path->beam_after) {
        const double above = -plan::beam_rise_of(plan);  // from where it starts
        const double by_then = fallen(*path->beam_after + plan.lag);
        painter.fillRect(QRectF(QPointF(area.left() - 6, yOf(plan.drop - above)),
                                QPointF(area.left() + 6, yOf(plan.drop - by_then))),
                         document_.report()->freeze->delay.value_or(0) < 0 ? t.stopWash : t.cautionWash);
        painter.setPen(QPen(t.stop, 1.4, Qt::DashLine));
        painter.drawLine(QLineF(area.left() - 12, yOf(plan.drop - above), area.right(), yOf(plan.drop - above)));
    }
    constexpr int images = 6;
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.panel);
    for (int i = 0; i <= images; ++i)
        painter.drawEllipse(QPointF(area.left(), yOf(plan.drop - fallen(path->wanted_after * i / images))), 4, 4);
    name(painter, area.top(), tr("starts, 0 ms"), t.ink);
    if (path->beam_after)
        name(painter, std::clamp(yOf(plan.drop + plan::beam_rise_of(plan)) - 9, area.top() + 14, area.bottom() - 24),
             tr("beam, %1").arg(milliseconds(*path->beam_after)), t.stop);
    name(painter, area.bottom(), tr("place, %1").arg(milliseconds(path->wanted_after)), t.focus);
}

// ---- a throw: its whole path, and the frame on it ------------------------------------------------------------------

/// Maps mm from the hand to the drawing: all of its path down to the frame's lower edge, and the frame, to scale.
FallDrawing::Sheet FallDrawing::sheet(const plan::Trajectory& path) const {
    const auto& optics = document_.report()->optics;
    const double wide = optics.field_width.value_or(0), high = optics.field_height.value_or(0);
    QRectF extent(path.place.x - wide / 2, path.place.y - high / 2, wide, high);
    const double end = endOf(path);
    constexpr int steps = 40;
    for (int i = 0; i <= steps; ++i) {
        const auto at = path.point(end * i / steps);
        extent.setLeft(std::min(extent.left(), at.x)), extent.setRight(std::max(extent.right(), at.x));
        extent.setTop(std::min(extent.top(), at.y)), extent.setBottom(std::max(extent.bottom(), at.y));
    }
    const QRectF area = QRectF(rect()).adjusted(8, 88, -8, -20);
    const double scale =
        std::min(area.width() / std::max(extent.width(), 1.0), area.height() / std::max(extent.height(), 1.0));
    return {.area = area, .middle = extent.center(), .scale = scale};
}

/// s until it leaves the frame's lower edge, or is where it is wanted.
double FallDrawing::endOf(const plan::Trajectory& path) const {
    const double under = path.place.y - document_.report()->optics.field_height.value_or(0) / 2;
    return std::max({light::passes(path.toss, under).falling.value_or(0), path.wanted_after, path.lit_after});
}

void FallDrawing::drawThrow(QPainter& painter) const {
    const auto& freeze = *document_.shot()->freeze;
    const Theme& t = theme();
    const auto path = plan::trajectory_of(freeze);
    if (!path) {
        painter.setPen(t.stop);
        painter.drawText(QRectF(rect()).adjusted(0, 30, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                         tr("It never gets to the place."));
        return;
    }
    const Sheet sheet = this->sheet(*path);
    const auto at = [&](double time) {
        const auto point = path->point(time);
        return sheet.point(point.x, point.y);
    };
    const double end = endOf(*path);
    QPolygonF line;
    constexpr int steps = 80;
    for (int i = 0; i <= steps; ++i) line << at(end * i / steps);
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
    constexpr double between = 0.02;  // s: images at equal times
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.panel);
    for (double time = 0; time <= end && time / between < 60; time += between) painter.drawEllipse(at(time), 2.5, 2.5);
    painter.setBrush(Qt::NoBrush);
    const auto& optics = document_.report()->optics;
    if (optics.field_width && optics.field_height) {
        const QSizeF size(*optics.field_width * sheet.scale, *optics.field_height * sheet.scale);
        painter.setPen(QPen(t.focus, 1.4));
        painter.drawRect(
            QRectF(sheet.point(path->place.x, path->place.y) - QPointF(size.width(), size.height()) / 2, size));
    }
    if (path->beam_after) {
        const QPointF beam = at(*path->beam_after);
        painter.setPen(QPen(t.stop, 1.4, Qt::DashLine));
        painter.drawLine(QPointF(sheet.area.left(), beam.y()), QPointF(sheet.area.right(), beam.y()));
        painter.setPen(QPen(t.stop, 1.4));
        painter.setBrush(t.panel);
        painter.drawEllipse(beam, hasFocus() ? 6 : 4.5, hasFocus() ? 6 : 4.5);
        drawLabel(painter, QPointF(sheet.area.left(), beam.y() + 10), Qt::AlignLeft | Qt::AlignVCenter,
                  tr("beam, %1").arg(milliseconds(*path->beam_after)), t.stop);
    }
    const QPointF lit = at(path->lit_after);
    painter.setPen(QPen(t.lightText, 1.4));
    painter.setBrush(t.light);
    painter.drawEllipse(lit, 4.5, 4.5);
    painter.setBrush(Qt::NoBrush);
    const bool at_right = lit.x() > width() * 0.6;
    drawLabel(painter, lit + QPointF(at_right ? -8 : 8, -10),
              (at_right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
              tr("light, %1").arg(milliseconds(path->lit_after)), t.lightText);
    const QPointF hand = at(0);
    drawLabel(painter, hand + QPointF(hand.x() > width() / 2.0 ? -6 : 6, 10),
              (hand.x() > width() / 2.0 ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, tr("hand"), t.quiet);
    painter.setPen(t.quiet);
    painter.setFont(textFont(11));
    if (const double top = light::top_height(path->toss); top > 0)
        drawLine(painter, {0, 18, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter.font(),
                        tr("top %1 over the hand after %2").arg(mm(top), milliseconds(light::top_time(path->toss))),
                        width()));
    const auto& caught = document_.report()->freeze->path;
    if (!caught) return;
    const double across = width();
    const auto say = [&](double y, const QString& words) {
        drawLine(painter, {0, y, across, 16}, Qt::AlignLeft | Qt::AlignVCenter, elided(painter.font(), words, across));
    };
    say(34, caught->headroom >= 0 ? tr("%1 of headroom").arg(mm(caught->headroom))
                                  : tr("cut by %1 at the top").arg(mm(-caught->headroom)));
    if (optics.field_behind_width && optics.field_behind_height)
        say(50,
            tr("backdrop %1 \u00d7 %2 or more").arg(mm(*optics.field_behind_width), mm(*optics.field_behind_height)));
    say(66, tr("caught by %1 \u00d7 %2 of cloth").arg(mm(caught->catcher_width), mm(caught->catcher_depth)));
}

// ---- hands: the beam runs along the path ---------------------------------------------------------------------------

std::optional<plan::Trajectory> FallDrawing::beamed() const {
    const auto* shot = document_.shot();
    if (!shot || !shot->freeze || shot->freeze->act != shoot::Act::thrown) return std::nullopt;
    if (shot->freeze->trigger != shoot::Trigger::beam) return std::nullopt;
    return plan::trajectory_of(*shot->freeze);
}

void FallDrawing::putBeam(const plan::Trajectory& path, double time) {
    const double at = std::clamp(time, 0.0, endOf(path));
    const double rise = std::round(light::point_at(path.toss, at).y);
    const bool down = at > light::top_time(path.toss) && light::top_time(path.toss) > 0;
    document_.editShot({tr("Move the beam"), QStringLiteral("beam-along")}, [&](shoot::Shot& shot) {
        shot.freeze->beam_rise = std::min(rise, light::top_height(path.toss));
        shot.freeze->beam_coming_down = down;
    });
}

void FallDrawing::mousePressEvent(QMouseEvent* event) { mouseMoveEvent(event); }

void FallDrawing::mouseMoveEvent(QMouseEvent* event) {
    const auto path = beamed();
    if (!path || !(event->buttons() & Qt::LeftButton)) return;
    const Sheet sheet = this->sheet(*path);
    const double end = endOf(*path);
    constexpr int steps = 400;
    double nearest = 0, least = 1e9;
    for (int i = 0; i <= steps; ++i) {
        const auto point = path->point(end * i / steps);
        const QPointF apart = sheet.point(point.x, point.y) - event->position();
        if (const double away = std::hypot(apart.x(), apart.y()); away < least) least = away, nearest = end * i / steps;
    }
    putBeam(*path, nearest);
}

void FallDrawing::keyPressEvent(QKeyEvent* event) {
    const auto path = beamed();
    const int step = event->key() == Qt::Key_Right || event->key() == Qt::Key_Up    ? 1
                     : event->key() == Qt::Key_Left || event->key() == Qt::Key_Down ? -1
                                                                                    : 0;
    if (!path || step == 0) return QWidget::keyPressEvent(event);
    constexpr double a_step = 0.005;  // s
    putBeam(*path, path->beam_after.value_or(0) + a_step * step);
}

}  // namespace poquito::desk

#include "desk/light/moc_fall_drawing.moc"
