#include "desk/run/cadence_bars.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr double lane_height = 18, name_width = 50;  // pixels
constexpr int rows = 3;

QString seconds(double s) { return toQt(text::time_text(s)); }

}  // namespace

CadenceBars::CadenceBars(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("cadenceBars"));
    setAccessibleName(tr("Where the time of a frame goes"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(90);
}

std::vector<CadenceBars::Part> CadenceBars::parts() const {
    const auto& capture = document_.report()->capture;
    const auto& cadence = capture.cost.cadence;
    const Theme& t = theme();
    const bool many = capture.frames > 1;
    std::vector<Part> parts;
    double at = 0;
    const auto then = [&](double length, const QColor& colour, const QString& name) {
        if (length <= 0) return;
        parts.push_back({at, at + length, colour, name});
        at += length;
    };
    then(cadence.exposure, t.light, many ? QString() : tr("exposes"));
    if (many) {
        then(cadence.move, t.link, tr("moves"));
        then(cadence.settle, t.linkWash, tr("settles"));
    }
    const auto meanwhile = [&](double length, const QColor& colour, const QString& name, Row row) {
        if (length > 0) parts.push_back({cadence.exposure, cadence.exposure + length, colour, name, row});
    };
    if (many) meanwhile(cadence.recycle, t.caution, tr("recycles"), flash);
    meanwhile(cadence.write, t.quiet, tr("writes"), card);
    return parts;
}

void CadenceBars::paintEvent(QPaintEvent*) {
    if (!document_.report()) return;
    const auto& capture = document_.report()->capture;
    const auto& cadence = capture.cost.cadence;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(0, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             capture.frames > 1 ? tr("From one frame to the next: %1").arg(seconds(cadence.frame))
                                : tr("One frame: %1").arg(seconds(cadence.exposure)));
    const auto all = parts();
    double longest = capture.frames > 1 ? cadence.frame : cadence.exposure;
    for (const auto& part : all) longest = std::max(longest, part.to);
    const double words = std::min(150.0, width() * 0.42);
    const QRectF bars(name_width, 24, width() - name_width - words - 8, rows * lane_height);
    const auto x = [&](double time) { return bars.left() + time / longest * bars.width(); };
    for (const auto& part : all) {
        const double top = bars.top() + static_cast<int>(part.row) * lane_height;
        painter.fillRect(QRectF(QPointF(x(part.from), top + 2),
                                QPointF(std::max(x(part.to), x(part.from) + 2), top + lane_height - 2)),
                         part.colour);
    }
    paintNames(painter, bars, all);
    if (capture.frames <= 1) return;
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    painter.drawLine(QPointF(x(cadence.frame), bars.top() - 4), QPointF(x(cadence.frame), bars.bottom()));
}

/// Of the rows before the bars, and what each row does behind them.
void CadenceBars::paintNames(QPainter& painter, const QRectF& bars, const std::vector<Part>& parts) const {
    const Theme& t = theme();
    const std::array<QString, rows> names = {tr("camera"), tr("flash"), tr("card")};
    painter.setFont(textFont(11));
    for (int row = 0; row < rows; ++row) {
        const double top = bars.top() + row * lane_height;
        QStringList words;
        bool any = false;
        for (const auto& part : parts) {
            if (part.row != row) continue;
            any = true;
            if (!part.name.isEmpty()) words += tr("%1 %2").arg(part.name, seconds(part.to - part.from));
        }
        painter.setPen(t.quiet);
        drawLine(painter, {0, top, name_width - 8, lane_height}, Qt::AlignLeft | Qt::AlignVCenter,
                 names[static_cast<std::size_t>(row)]);
        if (!any)
            drawLine(painter, {bars.left(), top, bars.width(), lane_height}, Qt::AlignLeft | Qt::AlignVCenter,
                     row == card ? tr("speed not in the kit") : tr("none"));
        painter.setPen(t.ink);
        const double room = width() - bars.right() - 8;
        drawLine(painter, {bars.right() + 8, top, room, lane_height}, Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), words.join(QStringLiteral(", ")), room));
    }
}

}  // namespace poquito::desk

#include "desk/run/moc_cadence_bars.moc"
