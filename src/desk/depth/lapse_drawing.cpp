#include "desk/depth/lapse_drawing.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

LapseDrawing::LapseDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("lapseDrawing"));
    setAccessibleName(tr("The time-lapse from its first frame to its last"));
    setFixedHeight(92);
}

void LapseDrawing::setLapse(const shoot::Lapse& lapse, const plan::LapseReport& report) {
    lapse_ = lapse, report_ = report;
    setAccessibleDescription(tr("%1, shown in %2").arg(words(), toQt(text::time_text(report.shown))));
    update();
}

QString LapseDrawing::words() const {
    QStringList parts;
    parts << toQt(text::count_text(report_.exposures, "frame", "frames"));
    parts << toQt(text::data_text(report_.data_mb));
    if (report_.charges > 0) parts << toQt(text::count_text(std::ceil(report_.charges), "battery", "batteries"));
    if (report_.shift_share > 0)
        parts << tr("grows %1 % of the frame each time").arg(toQt(text::number_text(report_.shift_share * 100, 2)));
    return parts.join(QStringLiteral(" \u00b7 "));
}

void LapseDrawing::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF line(6, 30, width() - 12.0, 22);
    painter.setFont(textFont(12));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(line.left(), 4, line.width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(12), words(), line.width()));
    // What is held sharp, then what is not.
    const double held = report_.holds ? std::clamp(*report_.holds / lapse_.length, 0.0, 1.0) : 1;
    painter.fillRect(QRectF(line.left(), line.top(), line.width() * held, line.height()), t.focusWash);
    if (held < 1)
        painter.fillRect(
            QRectF(line.left() + line.width() * held, line.top(), line.width() * (1 - held), line.height()),
            t.stopWash);
    painter.setPen(QPen(t.ink, 1));
    painter.drawRect(line);
    // A stroke a moment, or as many as can be told apart.
    const double most = line.width() / 4;
    const int strokes = static_cast<int>(std::min(report_.moments, most));
    painter.setPen(QPen(report_.moments > most ? t.hairline : t.focus, 1));
    for (int i = 0; i < strokes; ++i) {
        const double x = line.left() + line.width() * i / std::max(1, strokes - 1);
        painter.drawLine(QPointF(x, line.top() + 5), QPointF(x, line.bottom() - 5));
    }
    if (lapse_.drift != 0) {
        const double tall = std::min(line.height() / 2, std::abs(report_.drift_all) * 3);
        const double up = lapse_.drift > 0 ? -1 : 1;
        painter.setPen(QPen(t.light, 1.8));
        painter.drawLine(QPointF(line.left(), line.center().y() - up * tall),
                         QPointF(line.right(), line.center().y() + up * tall));
    }
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(line.left(), line.bottom() + 3, 80, 14), Qt::AlignLeft | Qt::AlignVCenter, tr("begins"));
    drawLine(painter, QRectF(line.right() - 160, line.bottom() + 3, 160, 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("after %1").arg(toQt(text::time_text(lapse_.length))));
    QStringList below;
    if (held < 1) below << tr("out of focus after %1").arg(toQt(text::time_text(*report_.holds)));
    if (lapse_.drift != 0)
        below << tr("light %1 stops in all, %2 a time")
                     .arg(toQt(text::stops_text(report_.drift_all)), toQt(text::number_text(report_.drift_each, 2)));
    if (report_.least_interval > lapse_.interval)
        below << tr("one time takes %1").arg(toQt(text::time_text(report_.least_interval)));
    painter.setPen(held < 1 || report_.least_interval > lapse_.interval ? t.stop : t.quiet);
    drawLine(painter, QRectF(line.left(), line.bottom() + 19, line.width(), 15), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(11), below.join(QStringLiteral(" \u00b7 ")), line.width()));
}

}  // namespace poquito::desk

#include "desk/depth/moc_lapse_drawing.moc"
