#include "desk/reach/reach_chart.hpp"

#include "desk/reach/reach_model.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString place_text(double distance, double loss) {
    return QObject::tr("%1, %2 stops").arg(toQt(text::length_text(distance)), toQt(text::number_text(loss, 2)));
}

}  // namespace

ReachChart::ReachChart(QWidget* parent) : Chart(parent) {
    setObjectName(QStringLiteral("reachChart"));
    setAccessibleName(tr("Working distance against light lost"));
    setFocusPolicy(Qt::StrongFocus);
    setMargins(46, 26, 16, 40);
}

void ReachChart::show(const std::vector<search::ReachFound>& found, double leastWorkingDistance) {
    found_ = found;
    bound_ = leastWorkingDistance;
    front_.clear();
    double least = 1e9, greatest = 10, most = 1;
    for (const auto& one : found_) {
        if (one.best_trade) front_.push_back(one);
        if (!std::isfinite(one.working_distance)) continue;
        least = std::min(least, one.working_distance);
        greatest = std::max(greatest, one.working_distance);
        most = std::max(most, one.loss);
    }
    if (bound_ > 0) least = std::min(least, bound_);
    least = std::max(0.5, std::min(least, greatest) * 0.85);
    // Loss grows downwards: the better lies above and to the right.
    setAxes(Axis::ratios(least, greatest * 1.15), Axis::even(std::ceil(most + 0.2), 0));
    std::ranges::sort(front_, std::ranges::greater(), &search::ReachFound::working_distance);
    chosen_.reset();
    update();
}

void ReachChart::mark(const std::optional<search::ReachFound>& chosen) {
    chosen_ = chosen;
    update();
}

QPointF ReachChart::placeOf(const search::ReachFound& found) const {
    return placeOf(xAxis().clamped(found.working_distance), yAxis().clamped(found.loss));
}

void ReachChart::draw(QPainter& painter) {
    drawScales(painter);
    if (found_.empty()) {
        painter.setPen(theme().quiet);
        painter.setFont(textFont(12));
        painter.drawText(area(), Qt::AlignCenter, tr("nothing to show"));
        return;
    }
    if (bound_ > 0) {
        drawUpright(painter, QPen(theme().ink, 1, Qt::DashLine), xAxis().clamped(bound_));
        painter.setFont(textFont(11));
        drawLabel(painter, {xOf(xAxis().clamped(bound_)) + 3, area().bottom() - 10}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("at least"), theme().quiet);
    }
    drawFound(painter);
    if (chosen_) drawChosen(painter);
}

void ReachChart::drawScales(QPainter& painter) const {
    const double most = yAxis().from();
    std::vector<Mark> losses, distances;
    for (double stops = 0; stops <= most + 1e-9; stops += most > 8 ? 2 : 1)
        losses.push_back({stops, toQt(text::number_text(stops))});
    for (const double mm : decadeMarks(xAxis().from(), xAxis().to()))
        distances.push_back({mm, toQt(text::length_text(mm))});
    painter.setPen(QPen(theme().hairline, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(area());
    drawRows(painter, losses);
    drawColumns(painter, distances, Lines::across);
    drawTitle(painter, tr("Stops of light lost"));
    drawLine(painter, QRectF(area().left(), height() - 18, area().width(), 16), Qt::AlignRight | Qt::AlignVCenter,
             tr("working distance"));
}

/// The rest first: rings; then the front: joined squares, so that the shape says it and the colour repeats it.
void ReachChart::drawFound(QPainter& painter) const {
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().quiet, 1.1));
    for (const auto& one : found_)
        if (!one.best_trade) painter.drawEllipse(placeOf(one), 2.6, 2.6);
    QPolygonF stairs;
    for (std::size_t i = 0; i < front_.size(); ++i) {
        const QPointF at = placeOf(front_[i]);
        if (i > 0) stairs << QPointF(at.x(), placeOf(front_[i - 1]).y());
        stairs << at;
    }
    painter.setPen(QPen(theme().focus, 1.2));
    painter.drawPolyline(stairs);
    painter.setBrush(theme().focus);
    for (const auto& one : front_) painter.drawRect(QRectF(placeOf(one) - QPointF(3.2, 3.2), QSizeF(6.4, 6.4)));
}

void ReachChart::drawChosen(QPainter& painter) const {
    const QPointF at = placeOf(*chosen_);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().link, 2.2));
    painter.drawEllipse(at, 8, 8);
    painter.setFont(textFont(11, QFont::DemiBold));
    const bool left = at.x() > area().center().x();
    drawLabel(painter, at + QPointF(left ? -12 : 12, -12), (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
              place_text(chosen_->working_distance, chosen_->loss), theme().link);
}

QString ReachChart::reading(double workingDistance, double loss) const {
    return found_.empty() ? QString() : place_text(workingDistance, loss);
}

void ReachChart::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || found_.empty()) return;
    const auto distance = [&](const search::ReachFound& one) {
        const QPointF d = placeOf(one) - event->position();
        // Of dots on one another the best trade-off is meant.
        return d.x() * d.x() + d.y() * d.y() - (one.best_trade ? 4 : 0);
    };
    Q_EMIT chosen(*std::ranges::min_element(found_, {}, distance));
}

bool ReachChart::step(int right, int) {
    if (right == 0 || front_.empty()) return false;
    const auto at = chosen_ ? std::ranges::find_if(front_, [&](const auto& one) { return samePieces(one, *chosen_); })
                            : front_.end();
    if (at == front_.end()) Q_EMIT chosen(front_.front());
    // More working distance lies to the right, and first in the front.
    else if (right > 0 && at != front_.begin())
        Q_EMIT chosen(*(at - 1));
    else if (right < 0 && at + 1 != front_.end())
        Q_EMIT chosen(*(at + 1));
    return true;
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_chart.moc"
