#include "desk/toolkit/chart.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

double Axis::share(double value) const {
    return ratios_ ? std::log(value / from_) / std::log(to_ / from_) : (value - from_) / (to_ - from_);
}

double Axis::at(double share) const {
    return ratios_ ? from_ * std::pow(to_ / from_, share) : from_ + (to_ - from_) * share;
}

std::vector<double> Axis::places(int count) const {
    std::vector<double> values;
    for (int i = 0; i <= count; ++i) values.push_back(at(static_cast<double>(i) / count));
    return values;
}

Chart::Chart(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMouseTracking(true);
}

void Chart::setMargins(double left, double top, double right, double bottom) {
    left_ = left, top_ = top, right_ = right, bottom_ = bottom;
}

void Chart::refresh() {
    prepare();
    update();
}

QString Chart::reading(double, double) const { return {}; }

bool Chart::step(int, int) { return false; }

void Chart::paintEvent(QPaintEvent*) {
    if (!prepare()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    draw(painter);
    drawCursor(painter);
}

// ---- what all draw alike -----------------------------------------------------------------------------------------

void Chart::drawTitle(QPainter& painter, const QString& title) const {
    const QFont font = textFont(12, QFont::DemiBold);
    painter.setFont(font);
    painter.setPen(theme().ink);
    drawLine(painter, {0, 0, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter,
             elided(font, title, width()));
}

void Chart::drawColumns(QPainter& painter, const std::vector<Mark>& marks, Lines lines, double apart) const {
    constexpr double tick = 4, gap = 6;
    const QRectF all = area();
    painter.setFont(textFont(11));
    double free = -1e9, last = -1e9;
    for (const Mark& mark : marks) {
        const double x = xOf(mark.value);
        painter.setPen(QPen(theme().hairline, mark.width));
        painter.drawLine(QLineF(x, lines == Lines::across ? all.top() : all.bottom(), x,
                                lines == Lines::across ? all.bottom() : all.bottom() + tick));
        if (mark.text.isEmpty()) continue;
        const double half = lineWidth(painter.font(), mark.text) / 2;
        if (x - half < free + gap || x < last + apart) continue;
        painter.setPen(theme().quiet);
        drawLine(painter, {x - half - 2, all.bottom() + tick, 2 * half + 4, 14}, Qt::AlignCenter, mark.text);
        free = x + half;
        last = x;
    }
}

void Chart::drawRows(QPainter& painter, const std::vector<Mark>& marks) const {
    const QRectF all = area();
    painter.setFont(textFont(11));
    for (const Mark& mark : marks) {
        const double y = yOf(mark.value);
        painter.setPen(QPen(theme().hairline, mark.width));
        painter.drawLine(QLineF(all.left(), y, all.right(), y));
        painter.setPen(theme().quiet);
        drawLine(painter, {0, y - 8, all.left() - 6, 16}, Qt::AlignRight | Qt::AlignVCenter, mark.text);
    }
}

void Chart::drawNote(QPainter& painter, Qt::Alignment side, const QString& words) const {
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    drawLine(painter, {area().left(), area().bottom() + 19, area().width(), 14}, side | Qt::AlignVCenter, words);
}

void Chart::drawCurve(QPainter& painter, const QPen& pen, const std::function<double(double)>& value) const {
    constexpr int pieces = 60;
    // Line by line: as one path, a long shallow curve costs many times as much to smooth.
    QList<QLineF> lines;
    std::optional<QPointF> last;
    for (const double x : x_.places(pieces)) {
        const QPointF here = placeOf(x, y_.clamped(value(x)));
        if (last) lines << QLineF(*last, here);
        last = here;
    }
    painter.setPen(pen);
    painter.drawLines(lines);
}

void Chart::drawUpright(QPainter& painter, const QPen& pen, double x) const {
    painter.setPen(pen);
    painter.drawLine(QLineF(xOf(x), area().top(), xOf(x), area().bottom()));
}

void Chart::drawAcross(QPainter& painter, const QPen& pen, double y) const {
    painter.setPen(pen);
    painter.drawLine(QLineF(area().left(), yOf(y), area().right(), yOf(y)));
}

void Chart::clipToArea(QPainter& painter, double more) const {
    painter.setClipRect(area().adjusted(-more, -more, more, more));
}

// ---- cursor and keys ---------------------------------------------------------------------------------------------

void Chart::drawCursor(QPainter& painter) const {
    if (!cursor_ || !area().contains(*cursor_)) return;
    const QString words = reading(xAt(cursor_->x()), yAt(cursor_->y()));
    if (words.isEmpty()) return;
    painter.setFont(textFont(11));
    painter.setPen(QPen(theme().quiet, 1));
    painter.drawLine(QLineF(cursor_->x(), area().top(), cursor_->x(), area().bottom()));
    // Beside the line where there is room, and above the mouse.
    const double width = lineWidth(painter.font(), words) + 6;
    const bool right = cursor_->x() + 8 + width <= area().right();
    const double left = right ? cursor_->x() + 8 : std::max(area().left(), cursor_->x() - 8 - width);
    const double x = std::max(0.0, std::min(left, this->width() - width - 2));  // inside the chart, even a narrow one
    drawLabel(painter, {x, std::max(area().top() + 8, cursor_->y() - 14)}, Qt::AlignLeft | Qt::AlignVCenter, words,
              theme().ink);
}

void Chart::mouseMoveEvent(QMouseEvent* event) {
    cursor_ = event->buttons() ? std::nullopt : std::optional(event->position());
    update();
}

void Chart::leaveEvent(QEvent*) {
    cursor_.reset();
    update();
}

void Chart::keyPressEvent(QKeyEvent* event) {
    int right = 0, up = 0;
    switch (event->key()) {
        case Qt::Key_Left:
            right = -1;
            break;
        case Qt::Key_Right:
            right = 1;
            break;
        case Qt::Key_Down:
            up = -1;
            break;
        case Qt::Key_Up:
            up = 1;
            break;
        default:
            return QWidget::keyPressEvent(event);
    }
    if (!step(right, up)) QWidget::keyPressEvent(event);
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_chart.moc"
