#include "desk/drawing/frame_drawing.hpp"

#include "frame_layout.hpp"

#include "desk/drawing/bench_layout.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double degree = 3.14159265358979323846 / 180;

}  // namespace

namespace {

/// From the side a thin thing is drawn deeper than it is, so that what has to be sharp can be taken hold of; no more
/// than this, and the drawing says how much.
constexpr double most_stretch = 2.5;

constexpr double above = 34, below = 36;               // px that titles and the lowest numbers take
constexpr double field_width = 80, field_height = 25;  // px of a number that is typed
constexpr double before_side = 30, beside_side = 26;

}  // namespace

FrameDrawing::FrameDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("frameDrawing"));
    setAccessibleName(tr("The subject in the frame and from the side; up and down choose what left and right change"));
    setToolTip(
        tr("Drag the edges for width and height, the corner for how much of the frame it takes;\n"
           "from the side the far edge for its depth, the arm for its tilt, the blue ends for what has to be\n"
           "sharp; the dial for its turn, seen from above"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

// ---- where things stand ------------------------------------------------------------------------------------------

QRectF FrameDrawing::frame() const {
    constexpr double share = 0.45;  // of the sheet's width, at most
    const QRectF area(12, above, std::max(share * width() - 12, 80.0), std::max(height() - above - below, 60.0));
    QRectF frame = frame_in(area, *document_.report());
    frame.moveLeft(area.left());
    return frame;
}

double FrameDrawing::column() const { return frame().right() + beside_frame; }

double FrameDrawing::attitude() const { return width() - field_width - 12; }

QRectF FrameDrawing::side() const {
    const double left = column() + field_width + before_side, high = std::max(height() - above - below, 40.0);
    const double room = std::max(attitude() - beside_side - left, 40.0);
    return {left, above, held_ ? heldWidth_ : std::min(room, trueWidth(high) * most_stretch), high};
}

QRectF FrameDrawing::spot(Spot spot) const {
    constexpr double name = 16;  // px of the words above a number
    const QRectF frame = this->frame(), side = this->side();
    const QSizeF size(field_width, field_height);
    const double middle = frame.center().y() - field_height / 2;
    switch (spot) {
        case Spot::width:
            return {{frame.center().x() - field_width / 2, frame.bottom() + 6}, size};
        case Spot::height:
            return {{column(), middle}, size};
        case Spot::fill:
            return {{column(), std::min(frame.top() - name + 12, middle - field_height - 2) + 4}, size};
        case Spot::magnification:
            return {{column(), std::max(frame.bottom() - field_height, middle + field_height + name)}, size};
        case Spot::depth:
            return {{std::max(side.left(), side.center().x() - field_width / 2), side.bottom() + 6}, size};
        case Spot::tilt:
            return {{attitude(), side.top() + name}, size};
        case Spot::turn:
            break;
    }
    return {{attitude(), side.top() + 2 * name + field_height + 6}, size};
}

void FrameDrawing::holdField(Spot spot, QWidget* field) {
    fields_[spot] = field;
    placeFields();
}

void FrameDrawing::placeFields() {
    const auto* report = document_.report();
    if (!report) return;
    for (const auto& [where, field] : fields_) {
        const bool on_sensor = where == Spot::fill;
        field->setVisible(!on_sensor || report->optics.field_width.has_value());
        field->setGeometry(spot(where).toRect());
    }
}

void FrameDrawing::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    placeFields();
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
    const bool attitude = handle == Handle::tilt || handle == Handle::turn;
    if (in_frame ? !report->optics.field_width : !attitude && report->extent.depth <= 0) return std::nullopt;
    const QRectF subject = in_frame ? subject_in(frame(), *report) : QRectF();
    switch (handle) {
        case Handle::width:
            return QPointF(subject.right(), subject.center().y());
        case Handle::height:
            return QPointF(subject.center().x(), subject.top());
        case Handle::fill:
            return subject.topRight();
        case Handle::tilt: {
            const double tilt = value(handle) * degree, long_arm = side().height() / 2 - 8;
            return side().center() + QPointF(std::sin(tilt), -std::cos(tilt)) * long_arm;
        }
        case Handle::turn: {
            const double turn = value(handle) * degree;
            return dial().center() + QPointF(std::sin(turn), std::cos(turn)) * dial().width() / 2;
        }
        case Handle::from:
        case Handle::to:
            return QPointF(sideX(value(handle)), side().bottom());
        case Handle::depth:
            break;
    }
    return QPointF(sideX(report->extent.depth), side().center().y());
}

/// What turns it, seen from above: the subject in the middle, the camera below, the knob where the subject looks.
QRectF FrameDrawing::dial() const {
    const QRectF field = spot(Spot::turn);
    const double radius = std::clamp((height() - field.bottom() - 26) / 2, 12.0, field.width() / 2 - 6);
    const QPointF middle(field.center().x(), field.bottom() + 8 + radius);
    return {middle - QPointF(radius, radius), middle + QPointF(radius, radius)};
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
        case Handle::tilt:
            return shot.subject.tilt;
        case Handle::turn:
            return shot.subject.turn;
        case Handle::from:
            return slice ? slice->from : 0;
        case Handle::to:
            return slice ? slice->to : report.extent.depth;
        case Handle::depth:
            break;
    }
    return shot.subject.depth;
}

/// Of its own size what the camera sees of it, tilted and turned.
double FrameDrawing::shown(Handle size) const {
    const auto& extent = document_.report()->extent;
    return size == Handle::width ? extent.width : size == Handle::height ? extent.height : extent.depth;
}

void FrameDrawing::set(Handle handle, double value) {
    static const char* names[] = {QT_TR_NOOP("Change width"),
                                  QT_TR_NOOP("Change height"),
                                  QT_TR_NOOP("Change fill"),
                                  QT_TR_NOOP("Tilt"),
                                  QT_TR_NOOP("Turn"),
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
        constexpr double most = shoot::greatest_view_angle;
        switch (handle) {
            case Handle::tilt:
                shot.subject.tilt = std::clamp(std::round(value), -most, most);
                return;
            case Handle::turn:
                shot.subject.turn = std::clamp(std::round(value), -most, most);
                return;
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
    heldShare_ = *taken == Handle::width || *taken == Handle::height || *taken == Handle::depth
                     ? value(*taken) / std::max(shown(*taken), 1e-6)
                     : 1;
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
            return set(Handle::width, heldShare_ * 2 * std::abs(at.x() - middle.x()) / heldScale_);
        case Handle::height:
            return set(Handle::height, heldShare_ * 2 * std::abs(at.y() - middle.y()) / heldScale_);
        case Handle::fill:
            return set(Handle::fill, 2 * std::max(std::abs(at.x() - middle.x()) / frame().width(),
                                                  std::abs(at.y() - middle.y()) / frame().height()));
        case Handle::tilt: {
            const QPointF arm = at - side().center();
            return set(Handle::tilt, std::atan2(arm.x(), -arm.y()) / degree);
        }
        case Handle::turn:
            return set(Handle::turn, std::atan2(at.x() - dial().center().x(), at.y() - dial().center().y()) / degree);
        case Handle::from:
        case Handle::to:
            return set(*held_, depth);
        case Handle::depth:
            return set(*held_, heldShare_ * depth);
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
    if (active_ == Handle::tilt || active_ == Handle::turn) return set(active_, std::round(value(active_) + by));
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

}  // namespace poquito::desk

#include "desk/drawing/moc_frame_drawing.moc"
