#include "desk/subject/frame_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/form_lines.hpp"
#include "desk/base/theme.hpp"
#include "desk/run/stack_bands.hpp"
#include "desk/set/bench_layout.hpp"
#include "desk/shell/document.hpp"
#include "shoot/edit.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

/// The largest rectangle of the field's shape inside `area`, centred.
QRectF frame_in(const QRectF& area, const plan::Report& report) {
    const auto& optics = report.optics;
    const double aspect = optics.field_width ? *optics.field_width / *optics.field_height : 1.5;
    const double width = std::min(area.width(), area.height() * aspect);
    QRectF frame(0, 0, width, width / aspect);
    frame.moveCenter(area.center());
    return frame;
}

QRectF subject_in(const QRectF& frame, const plan::Report& report) {
    const double scale = frame.width() / *report.optics.field_width;
    QRectF subject(0, 0, report.extent.width * scale, report.extent.height * scale);
    subject.moveCenter(frame.center());
    return subject;
}

}  // namespace

namespace {

/// From the side a thin thing is drawn deeper than it is, so that what has to be sharp can be taken hold of; no more
/// than this, and the drawing says how much.
constexpr double most_stretch = 2.5;

}  // namespace

FrameDrawing::FrameDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("frameDrawing"));
    setAccessibleName(tr("The subject in the frame and from the side; up and down choose what left and right change"));
    setToolTip(
        tr("Drag the edges for width and height, the corner for how much of the frame it takes;\nbelow, the far edge "
           "for its depth, the blue ends for what has to be sharp"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

// ---- where things stand ------------------------------------------------------------------------------------------

QRectF FrameDrawing::frame() const {
    constexpr double above = 18, below = 40, beside = 56;
    const double high = side().top() - above - below - 16;
    return frame_in(QRectF(4, above, width() - 4 - beside, std::max(high, 40.0)), *document_.report());
}

QRectF FrameDrawing::side() const {
    const double high = std::clamp(height() * 0.26, 48.0, 130.0), room = width() - 70.0;
    return {10, height() - high - 22, held_ ? heldWidth_ : std::min(room, trueWidth(high) * most_stretch), high};
}

/// px: its depth at the scale at which its height fills the side.
double FrameDrawing::trueWidth(double high) const {
    const auto& extent = document_.report()->extent;
    return extent.depth * high / std::max(2 * subjectHalf(extent, Elevation::side), 1e-6);
}

/// In depth behind the nearest point.
double FrameDrawing::sideX(double depth) const {
    const double across = held_ ? heldDepth_ : std::max(document_.report()->extent.depth, 1e-6);
    return side().left() + depth / across * side().width();
}

std::optional<QPointF> FrameDrawing::place(Handle handle) const {
    const auto* report = document_.report();
    if (!report) return std::nullopt;
    const bool in_frame = handle == Handle::width || handle == Handle::height || handle == Handle::fill;
    if (in_frame ? !report->optics.field_width : report->extent.depth <= 0) return std::nullopt;
    const QRectF subject = in_frame ? subject_in(frame(), *report) : QRectF();
    switch (handle) {
        case Handle::width:
            return QPointF(subject.right(), subject.center().y());
        case Handle::height:
            return QPointF(subject.center().x(), subject.top());
        case Handle::fill:
            return subject.topRight();
        case Handle::from:
        case Handle::to:
            return QPointF(sideX(value(handle)), side().top());
        case Handle::depth:
            break;
    }
    return QPointF(sideX(value(handle)), side().center().y());
}

std::optional<FrameDrawing::Handle> FrameDrawing::handleAt(QPointF at) const {
    constexpr double grip = 9;
    std::optional<Handle> nearest;
    double best = grip;
    for (const Handle handle : handles) {
        const auto there = place(handle);
        const double off = there ? QLineF(*there, at).length() : grip;
        if (off >= best) continue;
        best = off;
        nearest = handle;
    }
    return nearest;
}

// ---- what it stands for ------------------------------------------------------------------------------------------

double FrameDrawing::value(Handle handle) const {
    const auto& shot = *document_.shot();
    const auto& report = *document_.report();
    const auto& slice = shot.capture.slice;
    switch (handle) {
        case Handle::width:
            return shot.subject.width;
        case Handle::height:
            return shot.subject.height;
        case Handle::fill:
            return report.optics.fill.value_or(1);
        case Handle::from:
            return slice ? slice->from : 0;
        case Handle::to:
            return slice ? slice->to : report.extent.depth;
        case Handle::depth:
            break;
    }
    return shot.subject.depth;
}

void FrameDrawing::set(Handle handle, double value) {
    static const char* names[] = {QT_TR_NOOP("Change width"),
                                  QT_TR_NOOP("Change height"),
                                  QT_TR_NOOP("Change fill"),
                                  QT_TR_NOOP("Mark what has to be sharp"),
                                  QT_TR_NOOP("Mark what has to be sharp"),
                                  QT_TR_NOOP("Change depth")};
    // Two digits behind what a drawing shows: nobody means 41.9837 mm.
    const double fine = std::pow(10, std::floor(std::log10(std::max(value, 1e-3))) - 2);
    const double rounded = std::round(value / fine) * fine;
    const double depth = document_.report()->extent.depth;
    const QString key = QStringLiteral("frame%1#%2").arg(static_cast<int>(handle)).arg(visit_);
    document_.editShot({tr(names[static_cast<int>(handle)]), key}, [&](shoot::Shot& shot) {
        auto& slice = shot.capture.slice;
        switch (handle) {
            case Handle::width:
                shot.subject.width = std::max(rounded, 0.01);
                return;
            case Handle::height:
                shot.subject.height = std::max(rounded, 0.01);
                return;
            case Handle::depth:
                shot.subject.depth = std::max(rounded, 0.0);
                return;
            case Handle::fill: {
                const auto& sensor = shoot::sensor_of(document_.kit(), shot.rig);
                const double fill = std::clamp(rounded, 0.02, 5.0);
                shot.rig.focus = {.by = shoot::FocusBy::magnification,
                                  .value = shoot::magnification_for_fill(sensor, shot.subject, fill)};
                return;
            }
            case Handle::from:
            case Handle::to:
                break;
        }
        if (!slice) slice = shoot::Slice{.from = 0, .to = depth, .rest_blur = {}, .unknown = {}};
        const double end = std::clamp(rounded, 0.0, depth);
        if (handle == Handle::from)
            slice->from = std::min(end, slice->to);
        else
            slice->to = std::max(end, slice->from);
    });
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void FrameDrawing::mousePressEvent(QMouseEvent* event) {
    held_.reset();
    if (!document_.shot() || event->button() != Qt::LeftButton) return;
    const auto taken = handleAt(event->position());
    if (!taken) return;
    const auto& report = *document_.report();
    heldScale_ = report.optics.field_width ? frame().width() / *report.optics.field_width : 1;
    heldDepth_ = std::max(report.extent.depth, 1e-6);
    heldWidth_ = side().width();
    active_ = *taken;
    ++visit_;
    held_ = taken;
    update();
}

void FrameDrawing::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    if (!held_) {
        const auto over = document_.shot() ? handleAt(at) : std::nullopt;
        setCursor(!over                     ? Qt::ArrowCursor
                  : *over == Handle::height ? Qt::SizeVerCursor
                  : *over == Handle::fill   ? Qt::SizeBDiagCursor
                                            : Qt::SizeHorCursor);
        return;
    }
    const QPointF middle = frame().center();
    const double depth = (at.x() - side().left()) / side().width() * heldDepth_;
    switch (*held_) {
        case Handle::width:
            return set(Handle::width, 2 * std::abs(at.x() - middle.x()) / heldScale_);
        case Handle::height:
            return set(Handle::height, 2 * std::abs(at.y() - middle.y()) / heldScale_);
        case Handle::fill:
            return set(Handle::fill, 2 * std::max(std::abs(at.x() - middle.x()) / frame().width(),
                                                  std::abs(at.y() - middle.y()) / frame().height()));
        case Handle::from:
        case Handle::to:
        case Handle::depth:
            return set(*held_, depth);
    }
}

void FrameDrawing::mouseReleaseEvent(QMouseEvent*) {
    held_.reset();
    update();
}

void FrameDrawing::keyPressEvent(QKeyEvent* event) {
    const auto count = handles.size();
    const auto now = static_cast<std::size_t>(active_);
    const double by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        active_ = handles[(now + (event->key() == Qt::Key_Down ? 1 : count - 1)) % count];
        ++visit_;
        return update();
    }
    if (by == 0 || !document_.shot() || !place(active_)) return QWidget::keyPressEvent(event);
    const bool end = active_ == Handle::from || active_ == Handle::to;
    const double step = end ? document_.report()->extent.depth : value(active_);
    set(active_, value(active_) + by * step * (event->modifiers() & Qt::ShiftModifier ? 0.002 : 0.02));
}

void FrameDrawing::focusInEvent(QFocusEvent* event) {
    ++visit_;
    QWidget::focusInEvent(event);
    update();
}

void FrameDrawing::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    update();
}

// ---- the drawing -------------------------------------------------------------------------------------------------

void FrameDrawing::paintFrame(QPainter& painter, const QRectF& area, const shoot::Shot& shot,
                              const plan::Report& report) {
    const QRectF frame = frame_in(area, report);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().ink, 1));
    painter.setBrush(theme().panel);
    painter.drawRect(frame);
    if (report.optics.field_width) {
        painter.setClipRect(frame);
        const double scale = frame.width() / *report.optics.field_width;
        const FormLines lines = formLines(shot.subject, report.sharpness.focus);
        painter.translate(frame.center());
        painter.scale(scale, -scale);
        painter.setRenderHint(QPainter::Antialiasing, false);  // its outline follows
        painter.fillPath(lines.area, theme().focusWash);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        const auto stroke = [&](const QPainterPath& path, const QColor& colour, double width) {
            QPen pen(colour, width);
            pen.setCosmetic(true);
            painter.strokePath(path, pen);
        };
        // Lines of equal depth want room; on a card the outline says enough.
        constexpr double roomy = 120;
        if (frame.width() > roomy) stroke(lines.contours, theme().quiet, 1);
        if (frame.width() > roomy) stroke(lines.focus, theme().focus, 2);
        stroke(lines.outline, theme().focus, 1.4);
    }
    painter.restore();
}

void FrameDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = *document_.report();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paintFrame(painter, frame(), *shot, report);
    painter.setFont(textFont(11));
    if (report.optics.field_width)
        paintDimensions(painter);
    else
        drawLabel(painter, frame().center(), Qt::AlignCenter, tr("focused at infinity: no size in the frame"),
                  theme().quiet);
    if (report.extent.depth > 0) paintSide(painter);
    paintHandles(painter);
}

void FrameDrawing::paintDimensions(QPainter& painter) const {
    const auto& report = *document_.report();
    const QRectF frame = this->frame();
    painter.setPen(QPen(theme().hairline, 1, Qt::DashLine));
    for (const double third : {1.0 / 3, 2.0 / 3}) {
        painter.drawLine(QLineF(frame.left() + third * frame.width(), frame.top(), frame.left() + third * frame.width(),
                                frame.bottom()));
        painter.drawLine(QLineF(frame.left(), frame.top() + third * frame.height(), frame.right(),
                                frame.top() + third * frame.height()));
    }
    const auto millimetres = [](double mm) { return QString::fromStdString(text::length_text(mm)); };
    const QRectF subject = subject_in(frame, report).intersected(frame);
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(frame.left(), frame.top() - 6),
                     tr("Field %1 × %2, filled to %3 %")
                         .arg(millimetres(*report.optics.field_width), millimetres(*report.optics.field_height))
                         .arg(qRound(*report.optics.fill * 100)));
    drawDimension(painter, {subject.left(), frame.bottom() + 12}, {subject.right(), frame.bottom() + 12},
                  millimetres(report.extent.width));
    painter.setFont(textFont(11, QFont::Medium));
    painter.setPen(QPen(theme().ink, 1));
    const double x = frame.right() + 8;
    painter.drawLine(QLineF(x, subject.top(), x, subject.bottom()));
    painter.drawLine(QLineF(x - 4, subject.top(), x + 4, subject.top()));
    painter.drawLine(QLineF(x - 4, subject.bottom(), x + 4, subject.bottom()));
    drawLabel(painter, {x + 2, subject.center().y()}, Qt::AlignLeft | Qt::AlignVCenter,
              millimetres(report.extent.height), theme().ink);
}

/// The camera is at the left: what is near stands left.
void FrameDrawing::paintSide(QPainter& painter) const {
    const Theme& t = theme();
    const auto& shot = *document_.shot();
    const auto& report = *document_.report();
    const QRectF area = side();
    const double deep = held_ ? heldDepth_ : report.extent.depth;
    painter.setPen(t.quiet);
    painter.setFont(textFont(11));
    const auto mm = [](double v) { return QString::fromStdString(text::length_text(v)); };
    const auto& slice = shot.capture.slice;
    painter.save();
    painter.setClipRect(area.adjusted(-6, -2, 6, 2));
    // What one frame holds lies about the plane of focus, in the middle of what has to be sharp.
    const auto& sharpness = report.sharpness;
    const double middle = report.extent.depth / 2 + sharpness.focus;
    const double near = middle - sharpness.near.value_or(deep), far = middle + sharpness.far.value_or(deep);
    painter.fillRect(QRectF(QPointF(sideX(near), area.top()), QPointF(sideX(far), area.bottom())), t.focusWash);
    painter.setOpacity(0.75);
    const double stretched = drawSection(painter, area, shot, report, 0, std::max(deep, 1e-6));
    painter.setOpacity(1);
    painter.setPen(QPen(t.focus, 1.6));
    painter.drawLine(QLineF(sideX(middle), area.top(), sideX(middle), area.bottom()));
    painter.restore();
    QString words =
        slice
            ? tr("Near at the left: %1 of %2 has to be sharp").arg(mm(slice->to - slice->from), mm(report.extent.depth))
            : tr("Near at the left: all of it has to be sharp");
    constexpr double visibly = 1.05;
    if (stretched > visibly)
        words += tr("; depth %1 \u00d7").arg(QString::fromStdString(text::number_text(stretched, 2)));
    drawLine(painter, QRectF(area.left() - 6, area.top() - 27, width() - area.left(), 16),
             Qt::AlignLeft | Qt::AlignVCenter, elided(textFont(11), words, width() - area.left()));
    painter.setPen(QPen(t.link, 1.6));
    for (const Handle end : {Handle::from, Handle::to})
        painter.drawLine(QLineF(sideX(value(end)), area.top(), sideX(value(end)), area.bottom()));
    drawDimension(painter, {area.left(), area.bottom() + 11}, {sideX(report.extent.depth), area.bottom() + 11},
                  mm(report.extent.depth));
}

void FrameDrawing::paintHandles(QPainter& painter) const {
    const Theme& t = theme();
    for (const Handle handle : handles) {
        const auto at = place(handle);
        if (!at) continue;
        const bool zone = handle == Handle::from || handle == Handle::to;
        const bool active = handle == active_ && (hasFocus() || held_);
        painter.setPen(QPen(zone ? t.link : t.focus, active ? 2.4 : 1.4));
        painter.setBrush(active ? t.linkWash : t.panel);
        if (handle == Handle::fill)
            painter.drawRect(QRectF(*at - QPointF(4, 4), QSizeF(8, 8)));
        else
            painter.drawEllipse(*at, 4.5, 4.5);
    }
}

}  // namespace poquito::desk
