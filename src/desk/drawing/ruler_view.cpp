#include "desk/drawing/ruler_view.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

imaging::GreyImage greyOf(const QImage& image) {
    const QImage grey = image.convertToFormat(QImage::Format_Grayscale8);
    imaging::GreyImage made{.width = grey.width(), .height = grey.height()};
    made.pixels.reserve(static_cast<std::size_t>(grey.width()) * static_cast<std::size_t>(grey.height()));
    for (int y = 0; y < grey.height(); ++y) {
        const uchar* line = grey.constScanLine(y);
        for (int x = 0; x < grey.width(); ++x) made.pixels.push_back(static_cast<float>(line[x]) / 255.0f);
    }
    return made;
}

RulerView::RulerView(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("rulerView"));
    setAccessibleName(tr("Photograph of a rule"));
    setAccessibleDescription(tr("Click two ticks; arrow keys nudge the mark"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void RulerView::setImage(const QImage& image) {
    image_ = image;
    grey_ = greyOf(image);
    marks_ = {};
    active_ = 0;
    fit();
    Q_EMIT marksChanged();
}

void RulerView::fit() {
    fitted_ = true;
    if (image_.isNull()) return;
    zoom_ = std::min(double(width()) / image_.width(), double(height()) / image_.height());
    origin_ = QPointF((width() - image_.width() * zoom_) / 2, (height() - image_.height() * zoom_) / 2);
    update();
}

void RulerView::resizeEvent(QResizeEvent*) {
    if (fitted_) fit();
}

QPointF RulerView::toView(imaging::Place place) const {
    return origin_ + QPointF((place.x + 0.5) * zoom_, (place.y + 0.5) * zoom_);
}
imaging::Place RulerView::toImage(QPointF at) const {
    const QPointF p = (at - origin_) / zoom_;
    return {p.x() - 0.5, p.y() - 0.5};
}

void RulerView::zoomBy(double factor, QPointF about) {
    if (image_.isNull()) return;
    const double zoom = std::clamp(zoom_ * factor, 0.02, 40.0);
    origin_ = about - (about - origin_) * (zoom / zoom_);
    zoom_ = zoom;
    fitted_ = false;
    update();
}

// ---- painting ----------------------------------------------------------------------------------------------------

void RulerView::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.panel);
    p.setPen(QPen(hasFocus() ? t.link : t.hairline, hasFocus() ? 2 : 1));
    p.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    if (image_.isNull()) {
        p.setPen(t.quiet);
        p.setFont(textFont(12));
        p.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Photograph a millimetre rule, flat to the sensor, with the ring where you want to know it. "
                      "Then open the picture here."));
        return;
    }
    p.setRenderHint(QPainter::SmoothPixmapTransform, zoom_ < 2);
    p.setClipRect(rect().adjusted(1, 1, -1, -1));
    p.drawImage(QRectF(origin_, QSizeF(image_.size()) * zoom_), image_);
    p.setRenderHint(QPainter::Antialiasing);
    if (marks_[0] && marks_[1]) {
        p.setPen(QPen(t.focus, 1.4, Qt::DashLine));
        p.drawLine(toView(marks_[0]->place), toView(marks_[1]->place));
    }
    for (std::size_t i = 0; i < 2; ++i)
        if (marks_[i]) drawMark(p, i);
    p.setFont(textFont(11));
    drawLabel(p, QPointF(8, height() - 12), Qt::AlignLeft | Qt::AlignVCenter,
              tr("%1 % · wheel zooms, right button moves, arrows nudge the mark, 0 fits").arg(std::lround(zoom_ * 100)),
              t.quiet);
}

/// A cross that leaves the tick itself free; along the tick where it was found.
void RulerView::drawMark(QPainter& p, std::size_t which) const {
    const auto& mark = *marks_[which];
    const QPointF at = toView(mark.place);
    const double angle = mark.tick ? mark.tick->normal : 0;
    const QColor colour = which == active_ ? theme().link : theme().focus;
    for (const double width : {4.0, 1.6}) {
        p.setPen(QPen(width > 2 ? theme().panel : colour, width));
        for (const double side : {-1.0, 1.0}) {
            const QPointF across(std::cos(angle), std::sin(angle)), along(-std::sin(angle), std::cos(angle));
            p.drawLine(at + side * 5 * across, at + side * 17 * across);
            p.drawLine(at + side * 12 * along, at + side * 26 * along);
        }
    }
    p.setFont(textFont(12, QFont::DemiBold));
    const bool left = at.x() > width() - 120;
    drawLabel(p, at + QPointF(left ? -12 : 12, -24), (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
              mark.tick ? tr("%1 on the tick").arg(which + 1) : QString::number(which + 1), colour);
}

// ---- hands -------------------------------------------------------------------------------------------------------

void RulerView::wheelEvent(QWheelEvent* event) {
    zoomBy(std::pow(2.0, event->angleDelta().y() / 240.0), event->position());
    event->accept();
}

void RulerView::mousePressEvent(QMouseEvent* event) {
    if (image_.isNull()) return;
    if (event->button() == Qt::LeftButton) return setMark(event->position());
    panning_ = event->position();
}

void RulerView::mouseMoveEvent(QMouseEvent* event) {
    if (!panning_) return;
    origin_ += event->position() - *panning_;
    panning_ = event->position();
    fitted_ = false;
    update();
}

void RulerView::mouseReleaseEvent(QMouseEvent*) { panning_.reset(); }

/// The mark under the cursor is taken; else the first that is missing; else the active one comes here.
void RulerView::setMark(QPointF at) {
    for (std::size_t i = 0; i < 2; ++i)
        if (marks_[i] && QLineF(toView(marks_[i]->place), at).length() < 10) {
            active_ = i;
            return update();
        }
    for (std::size_t i = 0; i < wanted_; ++i)
        if (!marks_[i]) {
            active_ = i;
            break;
        }
    Mark mark{.place = toImage(at)};
    constexpr double reach = 14;  // pixels of the widget one may miss a tick by
    if (snapping_) mark.tick = imaging::find_tick(grey_, mark.place, std::clamp(reach / zoom_, 8.0, 60.0));
    if (mark.tick) mark.place = mark.tick->place;
    marks_[active_] = mark;
    update();
    Q_EMIT marksChanged();
}

void RulerView::setFirstMark(imaging::Place place) {
    marks_[0] = Mark{.place = place, .tick = std::nullopt};
    active_ = 0;
    update();
    Q_EMIT marksChanged();
}

void RulerView::nudge(double dx, double dy) {
    auto& mark = marks_[active_];
    if (!mark) return;
    mark->place.x += dx;
    mark->place.y += dy;
    mark->tick.reset();
    update();
    Q_EMIT marksChanged();
}

void RulerView::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 1;
    const QPointF middle(width() / 2.0, height() / 2.0);
    switch (event->key()) {
        case Qt::Key_Left:
            return nudge(-step, 0);
        case Qt::Key_Right:
            return nudge(step, 0);
        case Qt::Key_Up:
            return nudge(0, -step);
        case Qt::Key_Down:
            return nudge(0, step);
        case Qt::Key_Plus:
            return zoomBy(1.5, marks_[active_] ? toView(marks_[active_]->place) : middle);
        case Qt::Key_Minus:
            return zoomBy(1 / 1.5, marks_[active_] ? toView(marks_[active_]->place) : middle);
        case Qt::Key_0:
            return fit();
        case Qt::Key_1:
        case Qt::Key_2:
            active_ = event->key() == Qt::Key_1 ? 0 : 1;
            return update();
        default:
            QWidget::keyPressEvent(event);
    }
}

/// Tab goes from one mark to the other before it leaves.
bool RulerView::focusNextPrevChild(bool next) {
    if (next && active_ == 0 && marks_[1]) {
        active_ = 1;
        update();
        return true;
    }
    return QWidget::focusNextPrevChild(next);
}

}  // namespace poquito::desk

#include "desk/drawing/moc_ruler_view.moc"
