#include "desk/drawing/frame_drawing.hpp"

#include "desk/drawing/bench_layout.hpp"
#include "desk/drawing/form_lines.hpp"
#include "desk/drawing/stack_bands.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double degree = 3.14159265358979323846 / 180;

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

constexpr double above = 34, below = 36;               // px that titles and the lowest numbers take
constexpr double field_width = 80, field_height = 25;  // px of a number that is typed
constexpr double beside_frame = 16, before_side = 30, beside_side = 26;

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
    paintAttitude(painter);
    paintNames(painter);
    paintHandles(painter);
}

namespace {

/// A dimension without its number: that is typed on it.
void drawSpan(QPainter& painter, const QLineF& span) {
    painter.setPen(QPen(theme().ink, 1));
    painter.drawLine(span);
    const QPointF along = (span.p2() - span.p1()) / std::max(span.length(), 1e-6),
                  across(-along.y() * 4, along.x() * 4);
    for (const QPointF end : {span.p1(), span.p2()}) painter.drawLine(QLineF(end - across, end + across));
}

}  // namespace

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
    const QRectF subject = subject_in(frame, report).intersected(frame);
    const double y = spot(Spot::width).center().y(), x = frame.right() + beside_frame / 2;
    drawSpan(painter, {subject.left(), y, subject.right(), y});
    drawSpan(painter, {x, subject.top(), x, subject.bottom()});
}

/// The camera is at the left: what is near stands left.
void FrameDrawing::paintSide(QPainter& painter) const {
    const Theme& t = theme();
    const auto& shot = *document_.shot();
    const auto& report = *document_.report();
    const QRectF area = side();
    const double deep = held_ ? heldDepth_ : report.extent.depth;
    painter.save();
    painter.setClipRect(area.adjusted(-6, -2, 6, 2));
    // What one frame holds lies about the plane of focus, in the middle of what has to be sharp.
    const auto& sharpness = report.sharpness;
    const double middle = report.extent.depth / 2 + sharpness.focus;
    const double near = middle - sharpness.near.value_or(deep), far = middle + sharpness.far.value_or(deep);
    painter.fillRect(QRectF(QPointF(sideX(near), area.top()), QPointF(sideX(far), area.bottom())), t.focusWash);
    painter.setOpacity(0.75);
    drawSection(painter, area, shot, report, 0, std::max(deep, 1e-6));
    painter.setOpacity(1);
    painter.setPen(QPen(t.focus, 1.6));
    painter.drawLine(QLineF(sideX(middle), area.top(), sideX(middle), area.bottom()));
    painter.restore();
    painter.setPen(QPen(t.link, 1.6));
    for (const Handle end : {Handle::from, Handle::to})
        painter.drawLine(QLineF(sideX(value(end)), area.top(), sideX(value(end)), area.bottom()));
    const double y = spot(Spot::depth).center().y();
    drawSpan(painter, {area.left(), y, sideX(report.extent.depth), y});
}

/// The arm that tilts it, and the dial that turns it.
void FrameDrawing::paintAttitude(QPainter& painter) const {
    const auto tilt = place(Handle::tilt), turn = place(Handle::turn);
    const Theme& t = theme();
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    if (tilt) painter.drawLine(QLineF(side().center(), *tilt));
    if (!turn) return;
    const QRectF dial = this->dial();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.hairline, 1));
    constexpr int sixteenths = 16, most = static_cast<int>(shoot::greatest_view_angle);
    painter.drawArc(dial, (270 - most) * sixteenths, 2 * most * sixteenths);
    // A bar across the way it looks, as deep to its width as it is.
    const auto& subject = document_.shot()->subject;
    const double broad = dial.width() * 0.4;
    const double deep = std::clamp(broad * subject.depth / std::max(subject.width, 1e-6), 3.0, broad);
    painter.save();
    painter.translate(dial.center());
    painter.rotate(-subject.turn);
    painter.setPen(QPen(t.focus, 1.2));
    painter.setBrush(t.focusWash);
    painter.drawRect(QRectF(-broad / 2, -deep / 2, broad, deep));
    painter.restore();
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    painter.drawLine(QLineF(dial.center(), *turn));
    painter.setPen(t.quiet);
    painter.setFont(textFont(11));
    drawLine(painter, {dial.left() - 20, dial.bottom() + 5, dial.width() + 40, 13}, Qt::AlignCenter, tr("camera"));
}

/// What is seen, and what the numbers are that no line says it of.
void FrameDrawing::paintNames(QPainter& painter) const {
    const Theme& t = theme();
    const auto& report = *document_.report();
    const auto mm = [](double v) { return toQt(text::length_text(v)); };
    constexpr double corner = 110;  // px that the buttons take
    const auto title = [&](double left, double right, const QString& name, const QString& words) {
        const QFont heavy = textFont(12, QFont::DemiBold), light = textFont(11);
        const double wide = lineWidth(heavy, name) + 8;
        painter.setFont(heavy);
        painter.setPen(t.ink);
        drawLine(painter, {left, 7, wide, 18}, Qt::AlignLeft | Qt::AlignVCenter, name);
        painter.setFont(light);
        painter.setPen(t.quiet);
        drawLine(painter, {left + wide, 7, right - left - wide, 18}, Qt::AlignLeft | Qt::AlignVCenter,
                 elided(light, words, right - left - wide));
    };
    const double apart = side().left();
    title(12, apart - 8, tr("Subject in the frame"),
          report.optics.field_width
              ? tr("to scale, field %1 × %2").arg(mm(*report.optics.field_width), mm(*report.optics.field_height))
              : QString());
    const auto& slice = document_.shot()->capture.slice;
    QString words = slice ? tr("%1 of %2 to be sharp").arg(mm(slice->to - slice->from), mm(report.extent.depth))
                          : tr("all to be sharp");
    const double stretched = side().width() / std::max(trueWidth(side().height()), 1e-6);
    constexpr double visibly = 1.05;
    if (report.extent.depth <= 0) words = tr("flat");
    if (report.extent.depth > 0 && stretched > visibly)
        words = slice ? tr("depth %1 \u00d7; %2").arg(toQt(text::number_text(stretched, 2)), words)
                      : tr("depth %1 \u00d7").arg(toQt(text::number_text(stretched, 2)));
    title(apart, width() - corner, tr("From the side"), words);
    const auto name = [&](Spot where, const QString& text) {
        painter.setFont(textFont(11));
        painter.setPen(t.quiet);
        const QRectF field = spot(where);
        drawLine(painter, {field.left() + 2, field.top() - 15, field.width(), 14}, Qt::AlignLeft | Qt::AlignVCenter,
                 text);
    };
    // Beside a size of its own, what its dimension line spans where that is another.
    const auto seen = [&](Spot where, Handle size, bool below) {
        const double own = value(size), span = shown(size);
        if (std::abs(span - own) < 0.005 * std::max(own, span)) return;
        const QRectF field = spot(where);
        const QString span_text = tr("shows %1").arg(mm(span));
        const QRectF room = below ? QRectF(field.left() + 2, field.bottom() + 1, field.width(), 14)
                                  : QRectF(field.right() + 6, field.top(), 90, field.height());
        painter.setFont(textFont(11));
        painter.fillRect(QRectF(room.topLeft(), QSizeF(lineWidth(painter.font(), span_text) + 4, room.height())),
                         t.panel);
        painter.setPen(t.quiet);
        drawLine(painter, room, Qt::AlignLeft | Qt::AlignVCenter, span_text);
    };
    if (report.optics.field_width) {
        seen(Spot::width, Handle::width, false);
        seen(Spot::height, Handle::height, true);
        name(Spot::fill, tr("fills"));
    }
    seen(Spot::depth, Handle::depth, false);
    name(Spot::magnification, tr("on the sensor"));
    name(Spot::tilt, tr("tilt"));
    name(Spot::turn, tr("turn"));
}

void FrameDrawing::paintHandles(QPainter& painter) const {
    const Theme& t = theme();
    for (const Handle handle : handles) {
        const auto at = place(handle);
        if (!at) continue;
        const bool zone = handle == Handle::from || handle == Handle::to;
        const bool turns = handle == Handle::tilt || handle == Handle::turn;
        const bool active = handle == active_ && (hasFocus() || held_);
        painter.setPen(QPen(turns ? t.ink : zone ? t.link : t.focus, active ? 2.4 : 1.4));
        painter.setBrush(active ? t.linkWash : t.panel);
        if (handle == Handle::fill)
            painter.drawRect(QRectF(*at - QPointF(4, 4), QSizeF(8, 8)));
        else
            painter.drawEllipse(*at, 4.5, 4.5);
    }
}

}  // namespace poquito::desk

#include "desk/drawing/moc_frame_drawing.moc"
