#include "desk/subject/wish_strip.hpp"

#include "desk/toolkit/theme.hpp"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr double cell_gap = 4, cell_picture = 34, cell_lettering = 16, cell_marker = 7;  // pixels

}  // namespace

WishStrip::WishStrip(const char* name, const QString& says, std::vector<Cell> cells, QWidget* parent)
    : QWidget(parent), cells_(std::move(cells)) {
    setObjectName(QLatin1String(name));
    setAccessibleName(says);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(static_cast<int>(cell_picture + cell_marker + cell_lettering));
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
}

QSize WishStrip::minimumSizeHint() const {
    constexpr int narrowest = 29;
    return {static_cast<int>(cells_.size()) * narrowest, height()};
}

void WishStrip::show(std::optional<std::size_t> taken, std::optional<double> now) {
    if (taken_ == taken && now_ == now) return;
    taken_ = taken, now_ = now;
    update();
}

QRectF WishStrip::cellRect(std::size_t index) const {
    const auto count = static_cast<double>(cells_.size());
    const double wide = (width() - cell_gap * (count - 1)) / count;
    return {static_cast<double>(index) * (wide + cell_gap), 0, wide, cell_picture};
}

void WishStrip::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& t = theme();
    for (std::size_t i = 0; i < cells_.size(); ++i) {
        const QRectF cell = cellRect(i);
        const bool taken = taken_ == i;
        painter.save();
        QPainterPath frame;
        frame.addRoundedRect(cell.adjusted(1, 1, -1, -1), 3, 3);
        painter.setClipPath(frame);
        cells_[i].paint(painter, cell);
        painter.restore();
        painter.setBrush(Qt::NoBrush);
        painter.setPen(hasFocus() && i == marked_ ? QPen(t.link, 2.4)
                       : taken                    ? QPen(t.focus, 2.4)
                                                  : QPen(t.hairline, 1));
        painter.drawPath(frame);
        painter.setFont(textFont(11, taken ? QFont::DemiBold : QFont::Normal));
        painter.setPen(taken ? t.ink : t.quiet);
        painter.drawText(
            QRectF(cell.left() - cell_gap / 2, cell_picture + cell_marker, cell.width() + cell_gap, cell_lettering),
            Qt::AlignCenter, cells_[i].label);
    }
    if (!now_) return;
    const double at = std::clamp(*now_, 0.0, static_cast<double>(cells_.size()));
    const auto index = std::min(static_cast<std::size_t>(at), cells_.size() - 1);
    const QRectF cell = cellRect(index);
    const double x = cell.left() + (at - static_cast<double>(index)) * cell.width();
    const QPointF tip(std::clamp(x, 4.0, width() - 4.0), cell_picture + 1);
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.ink);
    painter.drawPolygon(QPolygonF({tip, tip + QPointF(-4, cell_marker - 1), tip + QPointF(4, cell_marker - 1)}));
}

void WishStrip::choose(std::size_t index) { Q_EMIT chosen(taken_ == index ? -1 : static_cast<int>(index)); }

void WishStrip::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < cells_.size(); ++i)
        if (cellRect(i).adjusted(0, 0, 0, cell_marker + cell_lettering).contains(event->position())) {
            marked_ = i;
            return choose(i);
        }
}

void WishStrip::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        marked_ = (marked_ + (event->key() == Qt::Key_Right ? 1 : cells_.size() - 1)) % cells_.size();
        return update();
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) return choose(marked_);
    QWidget::keyPressEvent(event);
}

bool WishStrip::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        for (std::size_t i = 0; i < cells_.size(); ++i)
            if (cellRect(i).adjusted(0, 0, 0, cell_marker + cell_lettering).contains(help->pos()))
                QToolTip::showText(help->globalPos(), cells_[i].tip, this);
        return true;
    }
    return QWidget::event(event);
}

}  // namespace poquito::desk

#include "desk/subject/moc_wish_strip.moc"
