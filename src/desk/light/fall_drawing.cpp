#include "desk/light/fall_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/shell/document.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString mm(double length) { return toQt(text::length_text(length)); }
QString milliseconds(double seconds) { return QObject::tr("%1 ms").arg(toQt(text::number_text(seconds * 1000, 3))); }

}  // namespace

FallDrawing::FallDrawing(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("fallDrawing"));
    setAccessibleName(tr("The fall to scale, with its times"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
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
    const QRectF area = field();
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QLineF(area.left(), area.top(), area.left(), area.bottom()));
    plan.act != shoot::Act::thrown&& plan.drop > 0 ? drawFall(painter) : drawThrow(painter);
    painter.setPen(QPen(t.focus, 2));
    const double place = plan.drop >= 0 ? area.bottom() : area.top();
    painter.drawLine(QLineF(area.left() - 12, place, area.left() + 10, place));
    // ---- what to set
    painter.setPen(t.ink);
    QString set = tr("drop %1").arg(mm(plan.drop));
    if (plan.trigger != shoot::Trigger::hand && delay)
        set = *delay >= 0 ? tr("delay %1").arg(milliseconds(*delay)) : tr("%1 late").arg(milliseconds(-*delay));
    painter.setFont(textFont(11, QFont::DemiBold));
    drawLine(painter, {0, height() - 18.0, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter, set);
}

/// Where it is after equal times; while trigger and camera wake up it falls on.
void FallDrawing::drawFall(QPainter& painter) const {
    const auto& plan = *document_.shot()->freeze;
    const Theme& t = theme();
    const QRectF area = field();
    const bool beam = plan.trigger == shoot::Trigger::beam;
    const double above = std::min(plan.beam_above, plan.drop), broken = light::fall_time(plan.drop - above);
    if (beam) {
        const double by_then = std::min(light::fallen(broken + plan.lag), plan.drop);
        painter.fillRect(
            QRectF(QPointF(area.left() - 6, yOf(above)), QPointF(area.left() + 6, yOf(plan.drop - by_then))),
            document_.report()->freeze->delay.value_or(0) < 0 ? t.stopWash : t.cautionWash);
        painter.setPen(QPen(t.stop, 1.4, Qt::DashLine));
        painter.drawLine(QLineF(area.left() - 12, yOf(above), area.right(), yOf(above)));
    }
    constexpr int images = 6;
    const double whole = light::fall_time(plan.drop);
    painter.setPen(QPen(t.ink, 1));
    painter.setBrush(t.panel);
    for (int i = 0; i <= images; ++i)
        painter.drawEllipse(QPointF(area.left(), yOf(plan.drop - light::fallen(whole * i / images))), 4, 4);
    name(painter, area.top(), tr("starts, 0 ms"), t.ink);
    if (beam)
        name(painter, std::clamp(yOf(above) - 9, area.top() + 14, area.bottom() - 24),
             tr("beam, %1").arg(milliseconds(broken)), t.stop);
    name(painter, area.bottom(), tr("place, %1").arg(milliseconds(whole)), t.focus);
}

void FallDrawing::drawThrow(QPainter& painter) const {
    const auto& plan = *document_.shot()->freeze;
    const QRectF area = field();
    const double from = plan.drop >= 0 ? area.top() : area.bottom(), to = plan.drop >= 0 ? area.bottom() : area.top();
    painter.setPen(QPen(theme().ink, 1.4));
    painter.drawLine(QLineF(area.left(), from, area.left(), to));
    const auto speed = [](double mm_s) { return toQt(text::number_text(mm_s / 1000, 2)); };
    name(painter, from, tr("thrown, %1 m/s").arg(speed(plan.speed)), theme().ink);
    name(painter, to, tr("place, %1 m/s").arg(speed(document_.report()->freeze->speed)), theme().focus);
}

}  // namespace poquito::desk

#include "light/moc_fall_drawing.moc"
