#include "desk/reach/reach_chart.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/reach/reach_model.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

ReachChart::ReachChart(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("reachChart"));
    setAccessibleName(tr("Working distance against light lost"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ReachChart::show(const std::vector<search::ReachFound>& found, double leastWorkingDistance) {
    found_ = found;
    bound_ = leastWorkingDistance;
    front_.clear();
    least_ = 1e9;
    greatest_ = 10;
    most_ = 1;
    for (const auto& one : found_) {
        if (one.best_trade) front_.push_back(one);
        if (!std::isfinite(one.working_distance)) continue;
        least_ = std::min(least_, one.working_distance);
        greatest_ = std::max(greatest_, one.working_distance);
        most_ = std::max(most_, one.loss);
    }
    if (bound_ > 0) least_ = std::min(least_, bound_);
    least_ = std::max(0.5, std::min(least_, greatest_) * 0.85);
    greatest_ *= 1.15;
    most_ = std::ceil(most_ + 0.2);
    std::ranges::sort(front_, std::ranges::greater(), &search::ReachFound::working_distance);
    chosen_.reset();
    update();
}

void ReachChart::mark(const std::optional<search::ReachFound>& chosen) {
    chosen_ = chosen;
    update();
}

QRectF ReachChart::plot() const { return QRectF(46, 26, width() - 62, height() - 66); }

double ReachChart::xOf(double distance) const {
    const double d = std::clamp(distance, least_, greatest_);
    return plot().left() + plot().width() * std::log(d / least_) / std::log(greatest_ / least_);
}
double ReachChart::yOf(double loss) const {
    return plot().top() + plot().height() * std::clamp(loss, 0.0, most_) / most_;
}
QPointF ReachChart::placeOf(const search::ReachFound& found) const {
    return {xOf(found.working_distance), yOf(found.loss)};
}

void ReachChart::drawAxes(QPainter& p) const {
    const Theme& t = theme();
    const QRectF area = plot();
    p.setFont(textFont(11));
    p.setPen(QPen(t.hairline, 1));
    p.drawRect(area);
    for (double stops = 0; stops <= most_ + 1e-9; stops += most_ > 8 ? 2 : 1) {
        const double y = yOf(stops);
        p.setPen(QPen(t.hairline, 1));
        p.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
        p.setPen(t.quiet);
        drawLine(p, QRectF(0, y - 8, area.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter,
                 QString::fromStdString(text::number_text(stops)));
    }
    double free = area.left() - 30;
    for (const double mm : decadeMarks(least_, greatest_)) {
        const double x = xOf(mm);
        p.setPen(QPen(t.hairline, 1));
        p.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
        const auto text = QString::fromStdString(text::length_text(mm));
        const double half = lineWidth(p.font(), text) / 2;
        if (x - half < free + 6) continue;
        p.setPen(t.quiet);
        drawLine(p, QRectF(x - half - 2, area.bottom() + 4, 2 * half + 4, 14), Qt::AlignCenter, text);
        free = x + half;
    }
    p.setPen(t.ink);
    p.setFont(textFont(12, QFont::DemiBold));
    drawLine(p, QRectF(4, 2, area.right(), 16), Qt::AlignLeft | Qt::AlignVCenter, tr("Stops of light lost"));
    drawLine(p, QRectF(area.left(), height() - 18, area.width(), 16), Qt::AlignRight | Qt::AlignVCenter,
             tr("working distance"));
}

void ReachChart::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawAxes(p);
    if (found_.empty()) {
        p.setPen(t.quiet);
        p.setFont(textFont(12));
        p.drawText(plot(), Qt::AlignCenter, tr("nothing to show"));
        return;
    }
    if (bound_ > 0) {
        const double x = xOf(bound_);
        p.setPen(QPen(t.ink, 1, Qt::DashLine));
        p.drawLine(QPointF(x, plot().top()), QPointF(x, plot().bottom()));
        p.setFont(textFont(11));
        drawLabel(p, {x + 3, plot().bottom() - 10}, Qt::AlignLeft | Qt::AlignVCenter, tr("at least"), t.quiet);
    }
    // The rest first: rings; then the front: joined squares, so that the shape says it and the colour repeats it.
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.quiet, 1.1));
    for (const auto& one : found_)
        if (!one.best_trade) p.drawEllipse(placeOf(one), 2.6, 2.6);
    QPainterPath path;
    for (std::size_t i = 0; i < front_.size(); ++i) {
        const QPointF at = placeOf(front_[i]);
        if (i == 0) {
            path.moveTo(at);
            continue;
        }
        path.lineTo(at.x(), placeOf(front_[i - 1]).y());
        path.lineTo(at);
    }
    p.setPen(QPen(t.focus, 1.2));
    p.drawPath(path);
    p.setBrush(t.focus);
    for (const auto& one : front_) p.drawRect(QRectF(placeOf(one) - QPointF(3.2, 3.2), QSizeF(6.4, 6.4)));
    if (!chosen_) return;
    const QPointF at = placeOf(*chosen_);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.link, 2.2));
    p.drawEllipse(at, 8, 8);
    p.setFont(textFont(11, QFont::DemiBold));
    const auto label = tr("%1, %2 stops")
                           .arg(QString::fromStdString(text::length_text(chosen_->working_distance)),
                                QString::fromStdString(text::number_text(chosen_->loss, 2)));
    const bool left = at.x() > plot().center().x();
    drawLabel(p, at + QPointF(left ? -12 : 12, -12), (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, label,
              t.link);
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

void ReachChart::keyPressEvent(QKeyEvent* event) {
    const bool right = event->key() == Qt::Key_Right, left = event->key() == Qt::Key_Left;
    if ((!right && !left) || front_.empty()) return QWidget::keyPressEvent(event);
    auto at = chosen_ ? std::ranges::find_if(front_, [&](const auto& one) { return samePieces(one, *chosen_); })
                      : front_.end();
    if (at == front_.end()) return Q_EMIT chosen(front_.front());
    // More working distance lies to the right, and first in the front.
    if (right && at != front_.begin()) Q_EMIT chosen(*(at - 1));
    if (left && at + 1 != front_.end()) Q_EMIT chosen(*(at + 1));
}

}  // namespace poquito::desk
