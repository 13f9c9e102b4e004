#include "desk/run/cost_curve.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/stack/stack_plan.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::desk {

CostCurve::CostCurve(const Document& document, QWidget* parent) : Chart(parent), document_(document) {
    setObjectName(QStringLiteral("costCurve"));
    setAccessibleName(tr("The worst blur against the number of frames"));
    setMargins(38, 24, 8, 36);
}

const plan::CaptureReport& CostCurve::capture() const { return document_.report()->capture; }

double CostCurve::blurOf(double frames) const {
    return plan::blur_of_frames(document_.assessment()->plan, capture().stack->span.length(), frames) * 1000;
}

bool CostCurve::prepare() {
    if (!document_.report() || capture().frames <= 1 || !capture().stack || capture().stack->hand()) return false;
    const double enough = capture().cost.enough_frames;
    const double most = std::max({capture().frames, enough, 4.0}) * 1.6;
    const double least = std::max(1.0, std::floor(std::min(capture().frames, enough) / 4));
    floor_ = capture().cost.floor * 1000;
    setAxes(Axis::ratios(least, most), Axis::ratios(floor_ * 0.85, blurOf(least) * 1.1));
    return true;
}

void CostCurve::draw(QPainter& painter) {
    drawTitle(painter, tr("Worst blur between planes, \u00b5m"));
    if (area().height() < 30) return;
    std::vector<Mark> rows, columns;
    for (const double mark : decadeMarks(yAxis().from(), yAxis().to()))
        rows.push_back({mark, toQt(text::number_text(mark, 3))});
    for (const double mark : decadeMarks(xAxis().from(), xAxis().to()))
        columns.push_back({mark, toQt(text::number_text(mark, 4))});
    drawRows(painter, rows);
    drawColumns(painter, columns, Lines::ticks);
    drawNote(painter, Qt::AlignRight, tr("frames"));
    drawAcross(painter, QPen(theme().caution, 1.2, Qt::DashLine), floor_);
    drawCurve(painter, QPen(theme().focus, 2), [this](double frames) { return blurOf(frames); });
    drawEnough(painter);
}

/// The plan, and the part of the field where more frames only take time.
void CostCurve::drawEnough(QPainter& painter) const {
    const Theme& t = theme();
    const QRectF all = area();
    const auto& cost = capture().cost;
    const double enough = xOf(std::max(cost.enough_frames, xAxis().from()));
    QColor wash = t.cautionWash;
    wash.setAlphaF(0.5);
    painter.fillRect(QRectF(QPointF(enough, all.top()), all.bottomRight()), wash);
    const QPointF now = placeOf(capture().frames, blurOf(capture().frames));
    painter.setPen(QPen(t.ink, 1.5));
    painter.setBrush(t.focus);
    painter.drawEllipse(now, 4.5, 4.5);
    painter.setFont(textFont(11));
    drawLabel(painter, now - QPointF(0, 14), Qt::AlignHCenter | Qt::AlignVCenter,
              tr("planned %1").arg(toQt(text::number_text(capture().frames, 6))), t.focus);
    const QString hardly =
        elided(textFont(11), tr("more than %1 hardly help").arg(toQt(text::number_text(cost.enough_frames, 6))),
               all.width() - 8);
    drawLabel(painter, {std::min(enough + 4, all.right() - lineWidth(textFont(11), hardly) - 8), all.top() + 8},
              Qt::AlignLeft | Qt::AlignVCenter, hardly, t.caution);
    drawLabel(painter, {all.left() + 4, yOf(floor_) + 9}, Qt::AlignLeft | Qt::AlignVCenter,
              tr("Airy disc %1").arg(toQt(text::number_text(floor_, 3))), t.caution);
}

QString CostCurve::reading(double frames, double) const {
    const double whole = std::max(1.0, std::round(frames));
    return tr("%1 frames: %2 \u00b5m, %3")
        .arg(toQt(text::number_text(whole, 6)), toQt(text::number_text(blurOf(whole), 3)),
             toQt(text::time_text(whole * capture().cost.cadence.frame)));
}

}  // namespace poquito::desk

#include "desk/run/moc_cost_curve.moc"
