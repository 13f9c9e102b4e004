#include "desk/light/fall_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString mm(double length) { return QString::fromStdString(text::length_text(length)); }
QString milliseconds(double seconds) {
    return QObject::tr("%1 ms").arg(QString::fromStdString(text::number_text(seconds * 1000, 3)));
}

}  // namespace

FallDrawing::FallDrawing(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("fallDrawing"));
    setAccessibleName(tr("The fall to scale, with its times"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void FallDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot || !shot->freeze || !document_.report()->freeze) return;
    const auto& plan = *shot->freeze;
    const auto& freeze = *document_.report()->freeze;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), tr("To scale"));
    painter.setFont(textFont(11));
    const QRectF area = QRectF(rect()).adjusted(14, 30, -2, -34);
    const double height = std::max(std::abs(plan.drop), 1.0);
    const bool falls = plan.act != shoot::Act::thrown;
    const auto y_of = [&](double above) { return area.bottom() - area.height() * above / height; };
    const auto line = [&](double y, const QString& words, const QColor& colour) {
        drawLabel(painter, {area.left() + 12, y}, Qt::AlignLeft | Qt::AlignVCenter,
                  elided(textFont(11), words, area.width() - 12), colour);
    };
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QLineF(area.left(), area.top(), area.left(), area.bottom()));
    if (falls && plan.drop > 0) {
        // While trigger and camera wake up it falls on.
        if (plan.trigger == shoot::Trigger::beam) {
            const double above = std::min(plan.beam_above, plan.drop);
            const double broken = light::fall_time(plan.drop - above);
            const double by_then = std::min(light::fallen(broken + plan.lag), plan.drop);
            QColor wash = freeze.delay.value_or(0) < 0 ? t.stopWash : t.cautionWash;
            painter.fillRect(
                QRectF(QPointF(area.left() - 6, y_of(above)), QPointF(area.left() + 6, y_of(plan.drop - by_then))),
                wash);
            painter.setPen(QPen(t.stop, 1.4, Qt::DashLine));
            painter.drawLine(QLineF(area.left() - 12, y_of(above), area.right(), y_of(above)));
        }
        // Where it is after equal times.
        constexpr int images = 6;
        const double whole = light::fall_time(plan.drop);
        painter.setPen(QPen(t.ink, 1));
        painter.setBrush(t.panel);
        for (int i = 0; i <= images; ++i)
            painter.drawEllipse(QPointF(area.left(), y_of(plan.drop - light::fallen(whole * i / images))), 4, 4);
        line(area.top(), tr("starts, 0 ms"), t.ink);
        if (plan.trigger == shoot::Trigger::beam) {
            const double above = std::min(plan.beam_above, plan.drop);
            const double y = std::clamp(y_of(above) - 9, area.top() + 14, area.bottom() - 24);
            line(y, tr("beam, %1").arg(milliseconds(light::fall_time(plan.drop - above))), t.stop);
        }
        line(area.bottom(), tr("place, %1").arg(milliseconds(whole)), t.focus);
    } else {
        painter.setPen(QPen(t.ink, 1.4));
        const double from = plan.drop >= 0 ? area.top() : area.bottom(),
                     to = plan.drop >= 0 ? area.bottom() : area.top();
        painter.drawLine(QLineF(area.left(), from, area.left(), to));
        line(from, tr("thrown, %1 m/s").arg(QString::fromStdString(text::number_text(plan.speed / 1000, 2))), t.ink);
        line(to, tr("place, %1 m/s").arg(QString::fromStdString(text::number_text(freeze.speed / 1000, 2))), t.focus);
    }
    painter.setPen(QPen(t.focus, 2));
    const double place = plan.drop >= 0 ? area.bottom() : area.top();
    painter.drawLine(QLineF(area.left() - 12, place, area.left() + 10, place));
    // ---- what to set
    painter.setPen(t.ink);
    QString set = tr("drop %1").arg(mm(plan.drop));
    if (plan.trigger != shoot::Trigger::hand && freeze.delay)
        set = *freeze.delay >= 0 ? tr("delay %1").arg(milliseconds(*freeze.delay))
                                 : tr("%1 late").arg(milliseconds(-*freeze.delay));
    painter.setFont(textFont(11, QFont::DemiBold));
    drawLine(painter, {0, this->height() - 18.0, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter,
             set);
}

}  // namespace poquito::desk
