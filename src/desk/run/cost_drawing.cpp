#include "desk/run/cost_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString seconds(double s) { return QString::fromStdString(text::time_text(s)); }

}  // namespace

CostDrawing::CostDrawing(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("costDrawing"));
    setAccessibleName(tr("Where the time of a frame goes, and what more frames would sharpen"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void CostDrawing::paintEvent(QPaintEvent*) {
    if (!document_.report()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paintCadence(painter, QRectF(0, 0, width(), 86));
    const auto& capture = document_.report()->capture;
    if (capture.frames > 1 && capture.stack && !capture.stack->hand())
        paintCurve(painter, QRectF(0, 96, width(), height() - 96));
}

void CostDrawing::paintCadence(QPainter& painter, const QRectF& area) const {
    const auto& capture = document_.report()->capture;
    const auto& cadence = capture.cost.cadence;
    const Theme& t = theme();
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(area.left(), area.top(), area.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             capture.frames > 1 ? tr("From one frame to the next: %1").arg(seconds(cadence.frame))
                                : tr("One frame: %1").arg(seconds(cadence.exposure)));
    struct Part {
        double from, to;
        QColor colour;
        QString name;
        int row;
    };
    std::vector<Part> parts;
    double at = 0;
    const auto add = [&](double length, const QColor& colour, const QString& name) {
        if (length <= 0) return;
        parts.push_back({at, at + length, colour, name, 0});
        at += length;
    };
    add(cadence.exposure, t.light, capture.frames > 1 ? QString() : tr("exposes"));
    if (capture.frames > 1) {
        add(cadence.move, t.link, tr("moves"));
        add(cadence.settle, t.linkWash, tr("settles"));
        if (cadence.recycle > 0)
            parts.push_back({cadence.exposure, cadence.exposure + cadence.recycle, t.caution, tr("recycles"), 1});
    }
    if (cadence.write > 0)
        parts.push_back({cadence.exposure, cadence.exposure + cadence.write, t.quiet, tr("writes"), 2});
    double longest = capture.frames > 1 ? cadence.frame : at;
    for (const auto& part : parts) longest = std::max(longest, part.to);
    const double name_width = 50;
    const double words_width = std::min(150.0, area.width() * 0.42);
    const QRectF bars(area.left() + name_width, area.top() + 24, area.width() - name_width - words_width - 8, 54);
    const auto x = [&](double time) { return bars.left() + time / longest * bars.width(); };
    constexpr double row_height = 18;
    const QString rows[] = {tr("camera"), tr("flash"), tr("card")};
    painter.setFont(textFont(11));
    for (int row = 0; row < 3; ++row) {
        const bool any = std::any_of(parts.begin(), parts.end(), [&](const Part& part) { return part.row == row; });
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(area.left(), bars.top() + row * row_height, name_width - 8, row_height),
                 Qt::AlignLeft | Qt::AlignVCenter, rows[row]);
        if (!any)
            drawLine(painter, QRectF(bars.left(), bars.top() + row * row_height, bars.width(), row_height),
                     Qt::AlignLeft | Qt::AlignVCenter, row == 2 ? tr("speed not in the kit") : tr("none"));
    }
    QStringList words[3];
    for (const auto& part : parts) {
        const QRectF bar(QPointF(x(part.from), bars.top() + part.row * row_height + 2),
                         QPointF(std::max(x(part.to), x(part.from) + 2), bars.top() + (part.row + 1) * row_height - 2));
        painter.fillRect(bar, part.colour);
        if (!part.name.isEmpty()) words[part.row] += tr("%1 %2").arg(part.name, seconds(part.to - part.from));
    }
    for (int row = 0; row < 3; ++row) {
        painter.setPen(t.ink);
        drawLine(painter, QRectF(bars.right() + 8, bars.top() + row * row_height, words_width, row_height),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), words[row].join(QStringLiteral(", ")), words_width));
    }
    if (capture.frames > 1) {
        painter.setPen(QPen(t.ink, 1, Qt::DashLine));
        painter.drawLine(QPointF(x(cadence.frame), bars.top() - 4), QPointF(x(cadence.frame), bars.bottom()));
    }
}

void CostDrawing::paintCurve(QPainter& painter, const QRectF& area) const {
    const auto& report = *document_.report();
    const auto& capture = report.capture;
    const auto& cost = capture.cost;
    const Theme& t = theme();
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(area.left(), area.top(), area.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("Worst blur between planes, \u00b5m"));
    const QRectF field(area.left() + 38, area.top() + 24, area.width() - 46, area.height() - 24 - 36);
    if (field.height() < 30) return;
    const auto& plan = document_.assessment()->plan;
    const double span = capture.stack->span.length();
    const double most = std::max({capture.frames, cost.enough_frames, 4.0}) * 1.6;
    const double least = std::max(1.0, std::floor(std::min(capture.frames, cost.enough_frames) / 4));
    const double low = cost.floor * 1000, high = plan::blur_of_frames(plan, span, least) * 1000;
    const double log_least = std::log(least), log_most = std::log(most);
    const double log_low = std::log(low * 0.85), log_high = std::log(high * 1.1);
    const auto x = [&](double frames) {
        return field.left() + (std::log(frames) - log_least) / (log_most - log_least) * field.width();
    };
    const auto y = [&](double blur) {
        return field.bottom() - (std::log(blur) - log_low) / (log_high - log_low) * field.height();
    };
    painter.setFont(textFont(11));
    for (const double mark : decadeMarks(low * 0.85, high * 1.1)) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(field.left(), y(mark)), QPointF(field.right(), y(mark)));
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(area.left(), y(mark) - 8, 32, 16), Qt::AlignRight | Qt::AlignVCenter,
                 QString::fromStdString(text::number_text(mark, 3)));
    }
    for (const double mark : decadeMarks(least, most)) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(x(mark), field.bottom()), QPointF(x(mark), field.bottom() + 4));
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(x(mark) - 24, field.bottom() + 4, 48, 14), Qt::AlignHCenter | Qt::AlignVCenter,
                 QString::fromStdString(text::number_text(mark, 4)));
    }
    drawLine(painter, QRectF(field.left(), field.bottom() + 18, field.width(), 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("frames"));
    // What diffraction leaves at any number of frames.
    painter.setPen(QPen(t.caution, 1.2, Qt::DashLine));
    painter.drawLine(QPointF(field.left(), y(low)), QPointF(field.right(), y(low)));
    QPolygonF curve;
    constexpr int points = 60;
    for (int i = 0; i <= points; ++i) {
        const double frames = std::exp(log_least + (log_most - log_least) * i / points);
        curve << QPointF(x(frames), y(plan::blur_of_frames(plan, span, frames) * 1000));
    }
    painter.setPen(QPen(t.focus, 2));
    painter.drawPolyline(curve);
    const double enough_x = x(std::max(cost.enough_frames, least));
    painter.fillRect(QRectF(QPointF(enough_x, field.top()), field.bottomRight()), [&] {
        QColor wash = t.cautionWash;
        wash.setAlphaF(0.5);
        return wash;
    }());
    painter.setPen(QPen(t.ink, 1.5));
    const double now = plan::blur_of_frames(plan, span, capture.frames) * 1000;
    painter.setBrush(t.focus);
    painter.drawEllipse(QPointF(x(capture.frames), y(now)), 4.5, 4.5);
    drawLabel(painter, {x(capture.frames), y(now) - 14}, Qt::AlignHCenter | Qt::AlignVCenter,
              tr("planned %1").arg(QString::fromStdString(text::number_text(capture.frames, 6))), t.focus);
    drawLabel(painter, {std::min(enough_x + 4, field.right() - 130), field.top() + 8}, Qt::AlignLeft | Qt::AlignVCenter,
              tr("more than %1 hardly help").arg(QString::fromStdString(text::number_text(cost.enough_frames, 6))),
              t.caution);
    drawLabel(painter, {field.left() + 4, y(low) + 9}, Qt::AlignLeft | Qt::AlignVCenter,
              tr("Airy disc %1").arg(QString::fromStdString(text::number_text(low, 3))), t.caution);
}

}  // namespace poquito::desk
