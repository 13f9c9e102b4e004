#include "desk/subject/table_drawing.hpp"

#include "advice/advice.hpp"
#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/set/staging.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::desk {
namespace {

constexpr double margin = 18;

QColor hue_of(const shoot::Subject& subject) {
    if (!subject.colour) return greyOf(subject.reflectance);
    return {subject.colour->red, subject.colour->green, subject.colour->blue};
}

}  // namespace

TableDrawing::TableDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("tableDrawing"));
    setAccessibleName(tr("The table from above"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void TableDrawing::setPlan(const advice::Assessment* assessment, const std::string& chosen) {
    assessment_ = assessment;
    chosen_ = chosen;
    QStringList says;
    if (assessment)
        for (const auto& thing : assessment->plan.shot.staging)
            says << tr("%1, %2 right, %3 behind")
                        .arg(toQt(thing.name), toQt(text::length_text(thing.right)),
                             toQt(text::length_text(thing.behind)));
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    update();
}

/// All things and the frame where the subject stands fit in.
double TableDrawing::scale() const {
    if (held_) return heldScale_;
    if (!assessment_) return 1;
    const auto& plan = assessment_->plan;
    const auto& subject = plan.shot.subject;
    double wide = subject.width * 1.4, deep = std::max(subject.depth, subject.width / 2);
    if (const auto& field = assessment_->report.optics.field_width) wide = std::max(wide, *field * 1.15);
    for (const auto& thing : plan.shot.staging) {
        const double own = thing.lies ? thing.subject.height : thing.subject.depth;
        wide = std::max(wide, 2 * std::abs(thing.right) + thing.subject.width);
        deep = std::max(deep, 2 * std::abs(thing.behind) + own);
    }
    return std::min((width() - 2 * margin) / wide, (height() - 2 * margin - 16) / std::max(deep * 1.15, wide * 0.2));
}

QPointF TableDrawing::at(double right, double behind) const {
    return {width() / 2.0 + right * scale(), height() / 2.0 - behind * scale()};
}

QRectF TableDrawing::footprint(double right, double behind, double width, double deep) const {
    const QPointF middle = at(right, behind);
    const double w = width * scale(), h = std::max(deep * scale(), 3.0);
    return {middle.x() - w / 2, middle.y() - h / 2, w, h};
}

QRectF TableDrawing::thingRect(const std::string& id) const {
    if (!assessment_) return {};
    for (const auto& thing : assessment_->plan.shot.staging)
        if (thing.id == id)
            return footprint(thing.right, thing.behind, thing.subject.width,
                             thing.lies ? thing.subject.height : thing.subject.depth);
    return {};
}

double TableDrawing::onTable(double away) const {
    const auto& shot = assessment_->plan.shot;
    const double i = shot.rig.inclination * std::numbers::pi / 180;
    const double cosine = std::max(0.05, std::cos(i));
    return (away - shot.subject.height / 2 * std::sin(i)) / cosine;
}

void TableDrawing::drawFrame(QPainter& painter) const {
    const Theme& t = theme();
    const auto& plan = assessment_->plan;
    const auto& report = assessment_->report;
    if (!report.optics.field_width) return;
    // How wide the frame is where the table is so far back.
    const double nearest = -height() / 2.0 / scale(), farthest = height() / 2.0 / scale();
    const double i = plan.shot.rig.inclination * std::numbers::pi / 180;
    QPolygonF left, right;
    for (int k = 0; k <= 12; ++k) {
        const double behind = nearest + (farthest - nearest) * k / 12;
        const double away = behind * std::cos(i) + plan.shot.subject.height / 2 * std::sin(i);
        const double half = *report.optics.field_width / 2 / plan::scale_at(plan, away);
        left << at(-half, behind);
        right << at(half, behind);
    }
    if (report.sharpness.near || report.sharpness.far) {
        constexpr double endless = 1e4;  // mm: past any table
        const double near = onTable(plan.focus - report.sharpness.near.value_or(endless));
        const double far = onTable(plan.focus + report.sharpness.far.value_or(endless));
        const double top = std::clamp(at(0, far).y(), 0.0, static_cast<double>(height()));
        const double bottom = std::clamp(at(0, near).y(), 0.0, static_cast<double>(height()));
        painter.fillRect(QRectF(QPointF(0, top), QPointF(width(), bottom)), t.focusWash);
        painter.setFont(textFont(11));
        if (bottom - top > 16)
            drawLabel(painter, QPointF(width() - 6, bottom - 9), Qt::AlignRight | Qt::AlignVCenter,
                      tr("sharp in one frame"), t.focus);
    }
    painter.setPen(QPen(t.quiet, 1.2, Qt::DashLine));
    painter.drawPolyline(left);
    painter.drawPolyline(right);
    painter.setPen(QPen(t.hairline, 1, Qt::DashDotLine));
    painter.drawLine(QPointF(width() / 2.0, 0), QPointF(width() / 2.0, height()));
}

void TableDrawing::drawThings(QPainter& painter, bool lying) const {
    const Theme& t = theme();
    const auto& shot = assessment_->plan.shot;
    for (const auto& thing : shot.staging) {
        if (thing.lies != lying) continue;
        auto fill = hue_of(thing.subject);
        fill.setAlphaF(lying ? 0.3F : 0.8F);
        painter.setBrush(fill);
        painter.setPen(thing.id == chosen_ ? QPen(t.link, 2.4) : QPen(t.ink, 1));
        painter.drawRect(thingRect(thing.id));
        painter.setBrush(Qt::NoBrush);
    }
    if (lying) return;
    const QRectF own = footprint(0, 0, shot.subject.width, shot.subject.depth);
    painter.setBrush(hue_of(shot.subject));
    painter.setPen(QPen(t.ink, 1.6));
    painter.drawRect(own);
    painter.setBrush(Qt::NoBrush);
}

void TableDrawing::drawNames(QPainter& painter) const {
    const Theme& t = theme();
    painter.setFont(textFont(11));
    for (const auto& thing : assessment_->plan.shot.staging) {
        const QRectF area = thingRect(thing.id);
        const bool is = thing.id == chosen_;
        if (!is && area.width() < lineWidth(textFont(11), toQt(thing.name)) * 0.5) continue;
        if (is || thing.lies)
            drawLabel(painter, QPointF(area.left() + 4, thing.lies ? area.top() + 9 : area.top() - 9),
                      Qt::AlignLeft | Qt::AlignVCenter, toQt(thing.name), is ? t.link : t.quiet);
    }
}

void TableDrawing::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(rect());
    if (!assessment_) return;
    drawThings(painter, true);
    drawFrame(painter);
    drawThings(painter, false);
    drawNames(painter);
    const double down = assessment_->plan.shot.rig.inclination;
    drawLabel(painter, QPointF(6, height() - 9), Qt::AlignLeft | Qt::AlignVCenter,
              down > 0 ? tr("from above; the camera stands below, %1\u00b0 down").arg(down)
                       : tr("from above; the camera stands below"),
              t.quiet);
    if (hasFocus()) {
        const QRectF area = thingRect(chosen_);
        drawFocusRing(painter, area.isEmpty() ? QRectF(rect()) : area.adjusted(-4, -4, 4, 4));
    }
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void TableDrawing::mousePressEvent(QMouseEvent* event) {
    held_.reset();
    if (!assessment_) return;
    const auto& staging = assessment_->plan.shot.staging;
    const shoot::Staged* hit = nullptr;
    for (const bool lies : {true, false})  // what stands is met before what lies under it
        for (const auto& thing : staging)
            if (thing.lies == lies && thingRect(thing.id).adjusted(-3, -3, 3, 3).contains(event->position()))
                hit = &thing;
    if (!hit) return;
    heldScale_ = scale();
    held_ = Held{.id = hit->id, .from = event->position(), .right = hit->right, .behind = hit->behind};
    Q_EMIT chosen(hit->id);
}

void TableDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (!held_ || !(event->buttons() & Qt::LeftButton)) {
        bool over = false;
        if (assessment_)
            for (const auto& thing : assessment_->plan.shot.staging)
                over = over || thingRect(thing.id).contains(event->position());
        setCursor(over ? Qt::OpenHandCursor : Qt::ArrowCursor);
        return;
    }
    const auto by = (event->position() - held_->from) / heldScale_;
    Q_EMIT moved(held_->id, std::round(held_->right + by.x()), std::round(held_->behind - by.y()));
}

void TableDrawing::mouseReleaseEvent(QMouseEvent*) {
    held_.reset();
    update();
}

void TableDrawing::keyPressEvent(QKeyEvent* event) {
    if (!assessment_) return QWidget::keyPressEvent(event);
    const auto& staging = assessment_->plan.shot.staging;
    const auto now = std::ranges::find(staging, chosen_, &shoot::Staged::id);
    const int turn = event->key() == Qt::Key_PageDown ? 1 : event->key() == Qt::Key_PageUp ? -1 : 0;
    if (turn != 0 && !staging.empty()) {
        const auto count = static_cast<std::ptrdiff_t>(staging.size());
        const auto next = now == staging.end() ? 0 : (now - staging.begin() + turn + count) % count;
        return Q_EMIT chosen(staging[static_cast<std::size_t>(next)].id);
    }
    if (now == staging.end()) return QWidget::keyPressEvent(event);
    const double step = (event->modifiers() & Qt::ShiftModifier) != 0 ? 1 : 5;  // mm
    switch (event->key()) {
        case Qt::Key_Left:
            return Q_EMIT moved(chosen_, now->right - step, now->behind);
        case Qt::Key_Right:
            return Q_EMIT moved(chosen_, now->right + step, now->behind);
        case Qt::Key_Up:
            return Q_EMIT moved(chosen_, now->right, now->behind + step);
        case Qt::Key_Down:
            return Q_EMIT moved(chosen_, now->right, now->behind - step);
        case Qt::Key_Delete:
            return Q_EMIT removed(chosen_);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace poquito::desk

#include "desk/subject/moc_table_drawing.moc"
