#include "desk/reach/stand_drawing.hpp"

#include "advice/advice.hpp"
#include "desk/drawing/bench_layout.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/label_placer.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/angle.hpp"
#include "plan/set/background_blur.hpp"
#include "plan/set/camera_position.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

using light::degree;
constexpr double margin = 20;       // pixels
constexpr double board = 22;        // mm, a table's thickness (common practice)
constexpr double drawn_edge = 300;  // mm, where none is said

}  // namespace

/// World: mm, x level from the subject's centre away from the camera, y over the floor.
struct StandDrawing::Side {
    double scale = 1;  // pixels a millimetre
    QPointF origin;    // of x = 0, y = 0
    double tableTop = 0;
    double centre = 0;  // of the subject, y
    double tip = 0;     // rad that the camera looks down
    double away = 0;    // mm, sensor to the subject's centre, along the axis
    bool floorShown = true;
    QRectF world;  // what is drawn of it; y upwards, so that top is its lower edge

    QPointF at(double x, double y) const { return origin + QPointF(x * scale, -y * scale); }
    /// A place by the camera's own axes from the subject's centre: along the axis away from it, and up.
    QPointF seen(double along, double up) const {
        return at(along * std::cos(tip) + up * std::sin(tip), centre - along * std::sin(tip) + up * std::cos(tip));
    }
};

StandDrawing::StandDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("standDrawing"));
    setAccessibleName(tr("The set from the side"));
    setToolTip(tr("Drag the camera about the subject to tip it; or the arrow keys"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void StandDrawing::setPlan(const advice::Assessment* assessment) {
    assessment_ = assessment;
    if (assessment && assessment->report.optics.camera_height)
        setAccessibleDescription(
            tr("The camera looks %1\u00b0 down from %2 over the table")
                .arg(assessment->plan.shot.rig.inclination)
                .arg(toQt(text::length_text(std::round(*assessment->report.optics.camera_height)))));
    update();
}

StandDrawing::Side StandDrawing::side() const {
    Side side;
    const auto& plan = assessment_->plan;
    const auto& report = assessment_->report;
    const auto table = shoot::table_of(plan.shot);
    side.tip = plan.shot.rig.inclination * degree;
    side.away = report.optics.subject_to_sensor.value_or(1000);
    side.tableTop = table.height;
    side.centre = table.height + plan.shot.subject.height / 2;
    const double body = 70;  // mm that a camera is behind and about its sensor (common practice)
    double left = -side.away * std::cos(side.tip) - body, top = side.centre + side.away * std::sin(side.tip) + body;
    double right = std::max(plan.extent.depth, side.away * 0.25);
    if (plan.shot.background) right = std::max(right, std::min(plan.shot.background->distance, side.away * 2) + 20);
    top = std::max(top, side.centre + plan.shot.subject.height / 2 + side.away * 0.1);
    if (const auto& on = report.camera_position.stand) {
        const auto* stand = gear::find_gear(plan.kit.stands, *plan.shot.rig.stand);
        left = std::min(left, -on->middle - (stand ? stand->feet : 0));
    }
    // The floor is drawn where the set is not lost above it.
    const double above = top - side.tableTop;
    side.floorShown = table.height <= 2.2 * std::max(above, right - left);
    const double bottom = side.floorShown ? -30 : side.tableTop - std::max(60.0, 0.3 * above);
    side.world = QRectF(QPointF(left, bottom), QPointF(right, top));
    side.scale = std::min((width() - 2 * margin) / side.world.width(), (height() - 2 * margin) / side.world.height());
    side.origin = QPointF(width() / 2.0 - side.world.center().x() * side.scale,
                          height() / 2.0 + side.world.center().y() * side.scale);
    return side;
}

QPointF StandDrawing::camera(const Side& side) const { return side.seen(-side.away, 0); }

namespace {

using plan::Plan;

/// The camera by its axes: body about the sensor, barrel to the front rim.
void drawCamera(QPainter& painter, const Plan& plan, const plan::Report& report, const QPointF& sensor, double tip,
                double scale) {
    const Theme& t = theme();
    painter.save();
    painter.translate(sensor);
    painter.rotate(tip / degree);
    const double flange = plan.camera.flange * scale, front = std::max(report.optics.front * scale, flange + 2);
    const double half = bench_sizes::body_half * scale;
    const double barrel = plan.lens.optics.front_diameter / 2 * scale;
    painter.setPen(QPen(t.ink, 1.3));
    painter.setBrush(t.panel);
    painter.drawRoundedRect(QRectF(QPointF(-bench_sizes::body_behind * scale, -half), QPointF(flange, half)), 3, 3);
    painter.drawRect(QRectF(QPointF(flange, -barrel), QPointF(front, barrel)));
    const double chip = plan.sensor.height / 2 * scale;
    painter.setPen(QPen(t.ink, 2.5, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(QPointF(0, -chip), QPointF(0, chip));
    painter.restore();
}

}  // namespace

/// The parts of the picture, from what lies behind to what lies over it.
struct StandDrawing::Painting {
    Painting(QPainter& painter, const StandDrawing& drawing)
        : p(painter),
          plan(drawing.assessment_->plan),
          report(drawing.assessment_->report),
          shot(plan.shot),
          s(drawing.side()),
          sensor(drawing.camera(s)),
          labels(QRectF(drawing.rect()).adjusted(3, 3, -3, -3)) {}

    void all() {
        field();
        standsOn();
        backdrop();
        sweep();
        subject();
        stand();
        drawCamera(p, plan, report, sensor, s.tip, s.scale);
        labels.keepClear(QRectF(sensor - QPointF(20, 20), QSizeF(40, 40)));
        measures();
        drawLabels(p, labels.place());
    }

    void words(const QString& text, const QColor& colour, const QRectF& names,
               std::vector<LabelSide> sides = {LabelSide::right, LabelSide::above, LabelSide::below, LabelSide::left}) {
        labels.add(
            {.lines = {{text, textFont(11), colour}}, .names = names, .sides = std::move(sides), .may_go = true});
    }

    /// What the frame takes, from the entrance pupil on.
    void field() {
        const auto pupil = plan::pupil_distance(plan);
        if (!report.optics.field_height || !pupil || *pupil <= 0) return;
        const double half = *report.optics.field_height / 2;
        const QPointF from = s.seen(plan.focus - *pupil, 0);
        const auto edge = [&](double sign) { return s.seen(plan.focus + past, sign * half * (1 + past / *pupil)); };
        QPainterPath seen;
        seen.moveTo(from);
        seen.lineTo(edge(1));
        seen.lineTo(edge(-1));
        seen.closeSubpath();
        // It ends at the table, and at the card behind.
        QPainterPath air;
        const double wall = shot.background ? shot.background->distance : past;
        air.addRect(QRectF(s.at(-2 * past, s.tableTop + 3 * past), s.at(wall, s.tableTop)));
        p.fillPath(seen.intersected(air), t.focusWash);
        p.setPen(QPen(t.focus, 1, Qt::DashLine));
        p.drawPath(seen.intersected(air));
    }

    /// Floor and table.
    void standsOn() {
        p.setPen(QPen(t.ink, 1.2));
        if (s.floorShown && table.height > 0) p.drawLine(s.at(-9 * past, 0), s.at(9 * past, 0));
        const QRectF top(s.at(nearEdge, s.tableTop), s.at(farEdge, s.tableTop - (table.height > 0 ? board : 4)));
        p.fillRect(top, t.hairline);
        p.setPen(QPen(t.quiet, 1.2));
        p.drawLine(top.topLeft(), top.topRight());
        if (table.before) p.drawLine(top.topLeft(), top.bottomLeft());
        if (table.behind) p.drawLine(top.topRight(), top.bottomRight());
        if (table.height > board) {
            p.setPen(QPen(t.hairline, 4));
            for (const double x : {nearEdge + 40, farEdge - 40})
                p.drawLine(s.at(x, s.tableTop - board), s.at(x, s.floorShown ? 0 : s.world.top() - 200));
        }
        labels.keepClear(top);
    }

    void backdrop() {
        if (!shot.background || shot.background->distance >= past) return;
        const double x = shot.background->distance;
        const double ground = x < farEdge ? s.tableTop : 0;
        const double high = shot.background->height.value_or(past);
        const double foot = shot.background->height ? std::max(s.centre - high / 2, ground) : ground;
        const QLineF card(s.at(x, foot), s.at(x, foot + high));
        const bool scene = shot.background->kind == shoot::BackgroundKind::scene;
        p.setPen(QPen(scene ? t.quiet : t.ink, scene ? 1.5 : 3, scene ? Qt::DotLine : Qt::SolidLine, Qt::FlatCap));
        p.drawLine(card);
        labels.keepClear(card);
    }

    void sweep() {
        const auto& sweep = report.camera_position.sweep;
        if (!sweep || sweep->up <= 0 || !shot.background) return;
        const double wall = shot.background->distance, r = sweep->radius;
        QPainterPath path;
        path.moveTo(s.at(-sweep->before, s.tableTop));
        path.lineTo(s.at(wall - r, s.tableTop));
        path.quadTo(s.at(wall, s.tableTop), s.at(wall, s.tableTop + r));
        path.lineTo(s.at(wall, s.tableTop + std::max(sweep->up, r)));
        p.setPen(QPen(t.link, 1.6));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
        words(StandDrawing::tr("sweep %1").arg(toQt(text::length_text(std::ceil(sweep->length)))), t.link,
              QRectF(s.at(wall - r, s.tableTop + r), s.at(wall, s.tableTop)).normalized());
    }

    /// As it is tilted to the camera.
    void subject() {
        const double tilt = shot.subject.tilt * degree;
        const auto own = [&](double back, double up) {
            return s.seen(back * std::cos(tilt) + up * std::sin(tilt), up * std::cos(tilt) - back * std::sin(tilt));
        };
        const double back = shot.subject.depth / 2, up = shot.subject.height / 2;
        QPolygonF outline;
        if (shot.subject.form == shoot::Form::ball || shot.subject.form == shoot::Form::ring)
            for (int k = 0; k < 36; ++k)
                outline << own(back * std::cos(k * 10 * degree), up * std::sin(k * 10 * degree));
        else
            outline << own(-back, -up) << own(-back, up) << own(back, up) << own(back, -up);
        p.setPen(QPen(t.ink, 1.3));
        p.setBrush(t.panel);
        p.drawPolygon(outline);
        labels.keepClear(outline.boundingRect());
        p.setPen(QPen(t.quiet, 1, Qt::DashDotLine));
        p.drawLine(s.seen(-s.away, 0), s.seen(report.optics.table_behind.value_or(s.away * 0.2), 0));
    }

    void stand() {
        const auto& on = report.camera_position.stand;
        if (!on) return;
        const auto& stand = *gear::find_gear(plan.kit.stands, *shot.rig.stand);
        const bool bad = on->too_high > 0 || on->too_low > 0 || on->legs_free.value_or(0) < 0;
        const double apex = std::max(stand.least * 0.8, std::min(cameraY, stand.greatest) - 60);
        p.setPen(QPen(bad ? t.caution : t.quiet, 2.2));
        const double x = -on->middle;
        p.drawLine(s.at(x, std::max(apex, std::min(cameraY, stand.greatest))), s.at(x, apex));
        if (stand.arm > 0) p.drawLine(s.at(x, cameraY), s.at(cameraX, cameraY));
        const double end = s.floorShown || table.height <= 0 ? 0 : s.world.top() - 10;
        for (const double side : {-1.0, 1.0})
            p.drawLine(s.at(x, apex), s.at(x + side * stand.feet * (1 - end / std::max(apex, 1.0)), end));
        if (on->carried && on->bag) {
            p.setBrush(t.cautionWash);
            p.drawRoundedRect(QRectF(s.at(x, apex * 0.6) - QPointF(8, 0), QSizeF(16, 20)), 4, 4);
        }
        words(toQt(stand.name), bad ? t.caution : t.quiet, QRectF(s.at(x, apex) - QPointF(4, 4), QSizeF(8, 8)),
              {LabelSide::left, LabelSide::right, LabelSide::below});
    }

    /// How high, and how far.
    void measures() {
        if (std::sin(s.tip) > 0.1) {
            const double x = s.world.left() + 12 / s.scale;
            p.setPen(QPen(t.quiet, 1));
            const QLineF height(s.at(x, cameraY), s.at(x, s.tableTop));
            p.drawLine(height);
            for (const QPointF end : {height.p1(), height.p2()}) p.drawLine(end - QPointF(4, 0), end + QPointF(4, 0));
            labels.keepClear(height);
            p.setFont(textFont(11));
            labels.keepClear(drawLabel(p, height.center() + QPointF(6, 0), Qt::AlignLeft | Qt::AlignVCenter,
                                       toQt(text::length_text(std::round(*report.optics.camera_height))), t.ink));
            words(StandDrawing::tr("%1\u00b0 down").arg(toQt(text::number_text(shot.rig.inclination, 3))), t.ink,
                  QRectF(sensor - QPointF(24, 24), QSizeF(48, 48)), {LabelSide::right, LabelSide::above});
        }
        if (table.height > 0 && s.floorShown)
            words(StandDrawing::tr("table %1").arg(toQt(text::length_text(table.height))), t.quiet,
                  QRectF(s.at(farEdge - 40, s.tableTop - board), s.at(farEdge - 30, 0)), {LabelSide::left});
    }

    QPainter& p;
    const plan::Plan& plan;
    const plan::Report& report;
    const shoot::Shot& shot;
    const Side s;
    const QPointF sensor;
    LabelPlacer labels;
    const Theme& t = theme();
    const shoot::Table table = shoot::table_of(shot);
    const double past = std::hypot(s.world.width(), s.world.height());
    const double nearEdge = -table.before.value_or(std::max(drawn_edge, -s.world.left())),
                 farEdge = table.behind.value_or(std::max(drawn_edge, s.world.right() * 1.2));
    const double cameraX = -s.away * std::cos(s.tip), cameraY = s.centre + s.away * std::sin(s.tip);
};

void StandDrawing::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(rect());
    if (!assessment_ || !assessment_->report.optics.subject_to_sensor) return;
    Painting(painter, *this).all();
    if (hasFocus()) drawFocusRing(painter, rect().adjusted(1, 1, -1, -1));
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void StandDrawing::mousePressEvent(QMouseEvent* event) {
    if (!assessment_ || !assessment_->report.optics.subject_to_sensor || event->button() != Qt::LeftButton) return;
    constexpr double near = 60;  // pixels
    held_ = QLineF(camera(side()), event->position()).length() < near;
    if (held_) ++drag_;
}

void StandDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (!assessment_ || !assessment_->report.optics.subject_to_sensor) return;
    const Side s = side();
    if (!held_) {
        setCursor(QLineF(camera(s), event->position()).length() < 60 ? Qt::OpenHandCursor : Qt::ArrowCursor);
        return;
    }
    const QPointF from = event->position() - s.at(0, s.centre);
    const double degrees = std::round(std::atan2(-from.y(), -from.x()) / degree);
    Q_EMIT turned(std::clamp(degrees, -90.0, 90.0), drag_);
}

void StandDrawing::mouseReleaseEvent(QMouseEvent*) { held_ = false; }

void StandDrawing::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
    if (!assessment_ || by == 0) return QWidget::keyPressEvent(event);
    const double step = (event->modifiers() & Qt::ShiftModifier) != 0 ? 1 : 5;  // degrees
    Q_EMIT turned(std::clamp(assessment_->plan.shot.rig.inclination + by * step, -90.0, 90.0), ++drag_);
}

}  // namespace poquito::desk

#include "desk/reach/moc_stand_drawing.moc"
