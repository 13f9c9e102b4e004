#include "desk/light/patch_view.hpp"

#include "desk/session/picture_file.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "imaging/inspect/patch.hpp"

#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QKeyEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>

namespace poquito::desk {

PatchView::PatchView(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("patchView"));
    setAccessibleName(tr("Picture of the test frame"));
    setToolTip(
        tr("Drop the test frame's JPEG here, or click or press Enter to open it; drag over an area to measure it"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setAcceptDrops(true);
    setCursor(Qt::CrossCursor);
}

QRectF PatchView::pictureRect() const {
    const QRectF area = QRectF(rect()).adjusted(0, 24, 0, -2);
    if (picture_.isNull()) return area;
    QSizeF size = picture_.size();
    size.scale(area.size(), Qt::KeepAspectRatio);
    return {area.center() - QPointF(size.width() / 2, size.height() / 2), size};
}

void PatchView::open(const QString& path) {
    const auto [picture, problem] = readPicture(path.toStdString(), Turned::upright);
    if (picture.isNull()) {
        problem_ = tr("%1 is no picture: %2").arg(QFileInfo(path).fileName(), problem);
        update();
        return;
    }
    problem_.clear();
    picture_ = picture.convertToFormat(QImage::Format_RGB888);
    // The middle of the frame, until another area is marked.
    const QSize part = picture_.size() / 8;
    area_ = QRect(picture_.rect().center() - QPoint(part.width() / 2, part.height() / 2), part.expandedTo({1, 1}));
    read();
}

void PatchView::clear() {
    picture_ = {};
    area_ = {};
    problem_.clear();
    reading_.reset();
    update();
}

void PatchView::read() {
    reading_.reset();
    const QRect inside = area_ & picture_.rect();
    if (!inside.isEmpty())
        reading_ = imaging::read_patch({.bytes = picture_.constBits(),
                                        .width = picture_.width(),
                                        .height = picture_.height(),
                                        .stride = static_cast<std::size_t>(picture_.bytesPerLine())},
                                       {inside.x(), inside.y(), inside.width(), inside.height()});
    update();
    Q_EMIT marked();
}

void PatchView::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 17), tr("Picture of it"));
    const QRectF area = pictureRect();
    if (picture_.isNull()) {
        painter.setPen(QPen(hasFocus() ? t.link : t.hairline, 1.4, Qt::DashLine));
        painter.drawRect(area.adjusted(1, 1, -2, -2));
        painter.setPen(problem_.isEmpty() ? t.quiet : t.stop);
        painter.setFont(textFont(11));
        painter.drawText(area.adjusted(14, 8, -14, -8), Qt::AlignCenter | Qt::TextWordWrap,
                         problem_.isEmpty() ? tr("Drop the test frame's JPEG here, or click to open it.") : problem_);
        return;
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(area, picture_);
    const double scale = area.width() / picture_.width();
    const QRectF mark(area.topLeft() + QPointF(area_.topLeft()) * scale, QSizeF(area_.size()) * scale);
    painter.setPen(QPen(t.underPicture, 3));
    painter.drawRect(mark);
    painter.setPen(QPen(t.overPicture, 1.2));
    painter.drawRect(mark);
    if (hasFocus()) {
        painter.setPen(QPen(t.link, 1.4));
        painter.drawRect(area.adjusted(1, 1, -1, -1));
    }
    if (!problem_.isEmpty()) {
        painter.setFont(textFont(11));
        drawLabel(painter, area.topLeft() + QPointF(4, 12), Qt::AlignLeft | Qt::AlignVCenter, problem_, t.stop);
    }
}

void PatchView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    if (picture_.isNull()) return askOpen();
    const QRectF area = pictureRect();
    from_ = ((event->position() - area.topLeft()) * (picture_.width() / area.width())).toPoint();
    dragging_ = true;
}

void PatchView::mouseMoveEvent(QMouseEvent* event) {
    if (!dragging_) return;
    const QRectF area = pictureRect();
    const QPoint to = ((event->position() - area.topLeft()) * (picture_.width() / area.width())).toPoint();
    const QRect dragged = QRect(from_, to).normalized() & picture_.rect();
    if (dragged.width() < 2 || dragged.height() < 2) return;
    area_ = dragged;
    update();
}

void PatchView::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    read();
}

void PatchView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
        return askOpen();
    QWidget::keyPressEvent(event);
}

void PatchView::askOpen() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Open the test frame"), {},
                                                      tr("Pictures (*.jpg *.jpeg *.png *.tif *.tiff)"));
    if (!path.isEmpty()) open(path);
}

void PatchView::dragEnterEvent(QDragEnterEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (urls.size() == 1 && urls.front().isLocalFile()) event->acceptProposedAction();
}

void PatchView::dropEvent(QDropEvent* event) {
    open(event->mimeData()->urls().front().toLocalFile());
    event->acceptProposedAction();
}

}  // namespace poquito::desk

#include "desk/light/moc_patch_view.moc"
