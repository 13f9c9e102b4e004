#include "desk/proof/frame_view.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QResizeEvent>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

FrameView::FrameView(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("frameView"));
    setAccessibleName(tr("The frame"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::ClickFocus);
}

void FrameView::setPicture(const QImage& image, QSize size, const QString& words) {
    if (size != size_) {
        size_ = size;
        zoom_ = 1;
        middle_ = QRectF(QPointF(), QSizeF(size)).center();
    }
    image_ = image;
    words_ = words;
    see();
}

void FrameView::setCaption(const QString& caption) {
    caption_ = caption;
    update();
}

void FrameView::setMarks(Marks marks) {
    marks_ = std::move(marks);
    update();
}

double FrameView::fitOf(QSizeF room) const {
    if (size_.isEmpty()) return 1;
    return std::min(room.width() / size_.width(), room.height() / size_.height());
}

/// What is seen from near stays as large, whatever room there is for it.
void FrameView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    if (!isWhole() && event->oldSize().isValid() && !event->oldSize().isEmpty())
        zoom_ *= fitOf(QSizeF(event->oldSize())) / fit();
    see();
}

double FrameView::scale() const { return fit() * zoom_; }

QRectF FrameView::pictureRect() const {
    const QSizeF shown = QSizeF(size_) * scale();
    return {QPointF(width() / 2.0 - middle_.x() * scale(), height() / 2.0 - middle_.y() * scale()), shown};
}

QPointF FrameView::placeAt(QPointF point) const { return (point - pictureRect().topLeft()) / scale(); }

void FrameView::keepInside() {
    zoom_ = std::clamp(zoom_, 1.0, std::max(1.0, 8 / fit()));
    const QSizeF half = QSizeF(width(), height()) / scale() / 2;
    const auto within = [](double at, double half_of, double all) {
        return 2 * half_of >= all ? all / 2 : std::clamp(at, half_of, all - half_of);
    };
    middle_ = {within(middle_.x(), half.width(), size_.width()), within(middle_.y(), half.height(), size_.height())};
}

void FrameView::moved() {
    see();
    Q_EMIT looked();
}

void FrameView::follow(const FrameView& other) {
    zoom_ = other.zoom_;
    if (!other.size_.isEmpty() && !size_.isEmpty())
        middle_ = {other.middle_.x() * size_.width() / other.size_.width(),
                   other.middle_.y() * size_.height() / other.size_.height()};
    see();
}

void FrameView::see() {
    keepInside();
    update();
    if (!image_.isNull() && image_.width() < size_.width() && image_.width() < 0.9 * size_.width() * scale())
        Q_EMIT pixelsWanted();
}

void FrameView::goTo(const QRectF& place) {
    zoom_ = std::max(1.0, 1 / fit());
    middle_ = place.center();
    moved();
}

void FrameView::showWhole() {
    zoom_ = 1;
    moved();
}

void FrameView::zoomBy(double factor, std::optional<QPointF> about) {
    const QPointF point = about.value_or(QRectF(rect()).center());
    const QPointF place = placeAt(point);
    zoom_ *= factor;
    keepInside();
    // What was under the mouse stays there.
    middle_ = place - (point - QRectF(rect()).center()) / scale();
    moved();
}

void FrameView::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    if (image_.isNull() || size_.isEmpty()) {
        painter.setFont(textFont(13));
        painter.setPen(t.quiet);
        painter.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap, words_);
        return;
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform, scale() * size_.width() < 2.0 * image_.width());
    painter.setClipRect(rect());
    painter.drawImage(pictureRect(), image_);
    paintMarks(painter);
    const QPointF corner = pictureRect().topLeft();
    if (!caption_.isEmpty())
        paintLabel(painter, QPointF(std::max(0.0, corner.x()) + 6, std::max(0.0, corner.y()) + 6), caption_);
    if (!isWhole())
        paintLabel(painter, {8, height() - 24.0}, tr("%1 % of the file's pixels").arg(std::lround(scale() * 100)));
}

void FrameView::paintLabel(QPainter& painter, QPointF at, const QString& words) const {
    painter.setFont(textFont(11, QFont::DemiBold));
    const QRectF label(at, QSizeF(lineWidth(painter.font(), words) + 14, 18));
    painter.fillRect(label, theme().underPicture);
    painter.setPen(theme().overPicture);
    drawLine(painter, label, Qt::AlignCenter, words);
}

/// Dark under light, so that a line is seen on any picture.
void FrameView::paintMarks(QPainter& painter) const {
    const Theme& t = theme();
    const QRectF picture = pictureRect();
    const auto on_screen = [&](const QRectF& place) {
        return QRectF(picture.topLeft() + place.topLeft() * scale(), place.size() * scale());
    };
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    if (marks_.shape) paintCut(painter, picture, *marks_.shape);
    QRectF all;
    for (const auto& tile : marks_.tiles) {
        const QRectF at = on_screen(tile);
        all |= at;
        QColor wash = marks_.warn ? t.stop : t.focus;
        wash.setAlphaF(marks_.warn ? 0.30f : 0.42f);
        painter.fillRect(at.adjusted(0.5, 0.5, -0.5, -0.5), wash);
        painter.setPen(QPen(t.overPicture, 1));  // on any colour
        painter.drawRect(at.adjusted(0.5, 0.5, -0.5, -0.5));
    }
    for (const auto& area : marks_.areas) {
        const QRectF at = on_screen(area).adjusted(-3, -3, 3, 3);
        painter.setPen(QPen(t.underPicture, 4));
        painter.drawRect(at);
        painter.setPen(QPen(t.overPicture, 1.6, Qt::DashLine));
        painter.drawRect(at);
    }
    if (marks_.words.isEmpty()) return;
    painter.setFont(textFont(12, QFont::DemiBold));
    const double wide = std::min(width() - 16.0, lineWidth(painter.font(), marks_.words) + 16);
    QRectF label(0, 0, wide, 20);
    label.moveCenter(all.isNull() ? QPointF(width() / 2.0, 16) : QPointF(all.center().x(), all.top() - 14));
    label.moveLeft(std::clamp(label.left(), 4.0, std::max(4.0, width() - label.width() - 4)));
    label.moveTop(std::clamp(label.top(), 4.0, height() - 24.0));
    painter.fillRect(label, t.underPicture);
    painter.setPen(t.overPicture);
    drawLine(painter, label, Qt::AlignCenter, elided(painter.font(), marks_.words, wide - 10));
}

void FrameView::wheelEvent(QWheelEvent* event) {
    zoomBy(std::exp2(event->angleDelta().y() / 240.0), event->position());
    event->accept();
}

void FrameView::mousePressEvent(QMouseEvent* event) {
    grabbed_ = event->position();
    QWidget::mousePressEvent(event);
}

void FrameView::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) return;
    middle_ -= (event->position() - grabbed_) / scale();
    grabbed_ = event->position();
    moved();
}

void FrameView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (isWhole())
        goTo(QRectF(placeAt(event->position()), QSizeF()));
    else
        showWhole();
}

}  // namespace poquito::desk

#include "desk/proof/moc_frame_view.moc"
