#include "desk/drawing/frame_drawing.hpp"

#include "frame_layout.hpp"

#include "desk/drawing/form_lines.hpp"
#include "desk/drawing/stack_bands.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

void FrameDrawing::paintFrame(QPainter& painter, const QRectF& area, const shoot::Shot& shot,
                              const plan::Report& report) {
    const QRectF frame = frame_in(area, report);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().ink, 1));
    painter.setBrush(theme().panel);
    painter.drawRect(frame);
    if (report.optics.field_width) {
        painter.setClipRect(frame);
        const double scale = frame.width() / *report.optics.field_width;
        const FormLines lines = formLines(shot.subject, report.sharpness.focus);
        painter.translate(frame.center());
        painter.scale(scale, -scale);
        painter.setRenderHint(QPainter::Antialiasing, false);  // its outline follows
        painter.fillPath(lines.area, theme().focusWash);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        const auto stroke = [&](const QPainterPath& path, const QColor& colour, double width) {
            QPen pen(colour, width);
            pen.setCosmetic(true);
            painter.strokePath(path, pen);
        };
        // Lines of equal depth want room; on a card the outline says enough.
        constexpr double roomy = 120;
        if (frame.width() > roomy) stroke(lines.contours, theme().quiet, 1);
        if (frame.width() > roomy) stroke(lines.focus, theme().focus, 2);
        stroke(lines.outline, theme().focus, 1.4);
    }
    painter.restore();
}

void FrameDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = *document_.report();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paintFrame(painter, frame(), *shot, report);
    painter.setFont(textFont(11));
    if (report.optics.field_width)
        paintDimensions(painter);
    else
        drawLabel(painter, frame().center(), Qt::AlignCenter, tr("focused at infinity: no size in the frame"),
                  theme().quiet);
    if (report.extent.depth > 0) paintSide(painter);
    paintAttitude(painter);
    paintNames(painter);
    paintHandles(painter);
}

namespace {

/// A dimension without its number: that is typed on it.
void drawSpan(QPainter& painter, const QLineF& span) {
    painter.setPen(QPen(theme().ink, 1));
    painter.drawLine(span);
    const QPointF along = (span.p2() - span.p1()) / std::max(span.length(), 1e-6),
                  across(-along.y() * 4, along.x() * 4);
    for (const QPointF end : {span.p1(), span.p2()}) painter.drawLine(QLineF(end - across, end + across));
}

}  // namespace

void FrameDrawing::paintDimensions(QPainter& painter) const {
    const auto& report = *document_.report();
    const QRectF frame = this->frame();
    painter.setPen(QPen(theme().hairline, 1, Qt::DashLine));
    for (const double third : {1.0 / 3, 2.0 / 3}) {
        painter.drawLine(QLineF(frame.left() + third * frame.width(), frame.top(), frame.left() + third * frame.width(),
                                frame.bottom()));
        painter.drawLine(QLineF(frame.left(), frame.top() + third * frame.height(), frame.right(),
                                frame.top() + third * frame.height()));
    }
    const QRectF subject = subject_in(frame, report).intersected(frame);
    const double y = spot(Spot::width).center().y(), x = frame.right() + beside_frame / 2;
    drawSpan(painter, {subject.left(), y, subject.right(), y});
    drawSpan(painter, {x, subject.top(), x, subject.bottom()});
}

/// The camera is at the left: what is near stands left.
void FrameDrawing::paintSide(QPainter& painter) const {
    const Theme& t = theme();
    const auto& shot = *document_.shot();
    const auto& report = *document_.report();
    const QRectF area = side();
    const double deep = held_ ? heldDepth_ : report.extent.depth;
    painter.save();
    painter.setClipRect(area.adjusted(-6, -2, 6, 2));
    // What one frame holds lies about the plane of focus, in the middle of what has to be sharp.
    const auto& sharpness = report.sharpness;
    const double middle = report.extent.depth / 2 + sharpness.focus;
    const double near = middle - sharpness.near.value_or(deep), far = middle + sharpness.far.value_or(deep);
    painter.fillRect(QRectF(QPointF(sideX(near), area.top()), QPointF(sideX(far), area.bottom())), t.focusWash);
    painter.setOpacity(0.75);
    drawSection(painter, area, shot, report, 0, std::max(deep, 1e-6));
    painter.setOpacity(1);
    painter.setPen(QPen(t.focus, 1.6));
    painter.drawLine(QLineF(sideX(middle), area.top(), sideX(middle), area.bottom()));
    painter.restore();
    painter.setPen(QPen(t.link, 1.6));
    for (const Handle end : {Handle::from, Handle::to})
        painter.drawLine(QLineF(sideX(value(end)), area.top(), sideX(value(end)), area.bottom()));
    const double y = spot(Spot::depth).center().y();
    drawSpan(painter, {area.left(), y, sideX(report.extent.depth), y});
}

/// The arm that tilts it, and the dial that turns it.
void FrameDrawing::paintAttitude(QPainter& painter) const {
    const auto tilt = place(Handle::tilt), turn = place(Handle::turn);
    const Theme& t = theme();
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    if (tilt) painter.drawLine(QLineF(side().center(), *tilt));
    if (!turn) return;
    const QRectF dial = this->dial();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.hairline, 1));
    constexpr int sixteenths = 16, most = static_cast<int>(shoot::greatest_view_angle);
    painter.drawArc(dial, (270 - most) * sixteenths, 2 * most * sixteenths);
    // A bar across the way it looks, as deep to its width as it is.
    const auto& subject = document_.shot()->subject;
    const double broad = dial.width() * 0.4;
    const double deep = std::clamp(broad * subject.depth / std::max(subject.width, 1e-6), 3.0, broad);
    painter.save();
    painter.translate(dial.center());
    painter.rotate(-subject.turn);
    painter.setPen(QPen(t.focus, 1.2));
    painter.setBrush(t.focusWash);
    painter.drawRect(QRectF(-broad / 2, -deep / 2, broad, deep));
    painter.restore();
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    painter.drawLine(QLineF(dial.center(), *turn));
    painter.setPen(t.quiet);
    painter.setFont(textFont(11));
    drawLine(painter, {dial.left() - 20, dial.bottom() + 5, dial.width() + 40, 13}, Qt::AlignCenter, tr("camera"));
}

/// What is seen, and what the numbers are that no line says it of.
void FrameDrawing::paintNames(QPainter& painter) const {
    const Theme& t = theme();
    const auto& report = *document_.report();
    const auto mm = [](double v) { return toQt(text::length_text(v)); };
    constexpr double corner = 110;  // px that the buttons take
    const auto title = [&](double left, double right, const QString& name, const QString& words) {
        const QFont heavy = textFont(12, QFont::DemiBold), light = textFont(11);
        const double wide = lineWidth(heavy, name) + 8;
        painter.setFont(heavy);
        painter.setPen(t.ink);
        drawLine(painter, {left, 7, wide, 18}, Qt::AlignLeft | Qt::AlignVCenter, name);
        painter.setFont(light);
        painter.setPen(t.quiet);
        drawLine(painter, {left + wide, 7, right - left - wide, 18}, Qt::AlignLeft | Qt::AlignVCenter,
                 elided(light, words, right - left - wide));
    };
    const double apart = side().left();
    title(12, apart - 8, tr("Subject in the frame"),
          report.optics.field_width
              ? tr("to scale, field %1 × %2").arg(mm(*report.optics.field_width), mm(*report.optics.field_height))
              : QString());
    const auto& slice = document_.shot()->capture.slice;
    QString words = slice ? tr("%1 of %2 to be sharp").arg(mm(slice->to - slice->from), mm(report.extent.depth))
                          : tr("all to be sharp");
    const double stretched = side().width() / std::max(trueWidth(side().height()), 1e-6);
    constexpr double visibly = 1.05;
    if (report.extent.depth <= 0) words = tr("flat");
    if (report.extent.depth > 0 && stretched > visibly)
        words = slice ? tr("depth %1 \u00d7; %2").arg(toQt(text::number_text(stretched, 2)), words)
                      : tr("depth %1 \u00d7").arg(toQt(text::number_text(stretched, 2)));
    title(apart, width() - corner, tr("From the side"), words);
    const auto name = [&](Spot where, const QString& text) {
        painter.setFont(textFont(11));
        painter.setPen(t.quiet);
        const QRectF field = spot(where);
        drawLine(painter, {field.left() + 2, field.top() - 15, field.width(), 14}, Qt::AlignLeft | Qt::AlignVCenter,
                 text);
    };
    // Beside a size of its own, what its dimension line spans where that is another.
    const auto seen = [&](Spot where, Handle size, bool below) {
        const double own = value(size), span = shown(size);
        if (std::abs(span - own) < 0.005 * std::max(own, span)) return;
        const QRectF field = spot(where);
        const QString span_text = tr("shows %1").arg(mm(span));
        const QRectF room = below ? QRectF(field.left() + 2, field.bottom() + 1, field.width(), 14)
                                  : QRectF(field.right() + 6, field.top(), 90, field.height());
        painter.setFont(textFont(11));
        painter.fillRect(QRectF(room.topLeft(), QSizeF(lineWidth(painter.font(), span_text) + 4, room.height())),
                         t.panel);
        painter.setPen(t.quiet);
        drawLine(painter, room, Qt::AlignLeft | Qt::AlignVCenter, span_text);
    };
    if (report.optics.field_width) {
        seen(Spot::width, Handle::width, false);
        seen(Spot::height, Handle::height, true);
        name(Spot::fill, tr("fills"));
    }
    seen(Spot::depth, Handle::depth, false);
    name(Spot::magnification, tr("on the sensor"));
    name(Spot::tilt, tr("tilt"));
    name(Spot::turn, tr("turn"));
}

void FrameDrawing::paintHandles(QPainter& painter) const {
    const Theme& t = theme();
    for (const Handle handle : handles) {
        const auto at = place(handle);
        if (!at) continue;
        const bool zone = handle == Handle::from || handle == Handle::to;
        const bool turns = handle == Handle::tilt || handle == Handle::turn;
        const bool active = handle == active_ && (hasFocus() || held_);
        painter.setPen(QPen(turns ? t.ink : zone ? t.link : t.focus, active ? 2.4 : 1.4));
        painter.setBrush(active ? t.linkWash : t.panel);
        if (handle == Handle::fill)
            painter.drawRect(QRectF(*at - QPointF(4, 4), QSizeF(8, 8)));
        else
            painter.drawEllipse(*at, 4.5, 4.5);
    }
}

}  // namespace poquito::desk
