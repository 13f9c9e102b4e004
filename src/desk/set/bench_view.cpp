#include "desk/set/bench_view.hpp"

#include "desk/drawing/bench_painter.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/space.hpp"
#include "text/text.hpp"

#include <QEvent>
#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolButton>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

namespace {

using namespace bench_sizes;

}  // namespace

BenchView::BenchView(Document& document, ChosenLight& chosen, QWidget* parent)
    : QWidget(parent), document_(document), chosen_(chosen) {
    setObjectName(QStringLiteral("benchView"));
    setAccessibleName(tr("Bench, to scale"));
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    connect(&document, &Document::shootChanged, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::selected, this, qOverload<>(&QWidget::update));
    connect(&chosen, &ChosenLight::chosen, this, qOverload<>(&QWidget::update));
}

void BenchView::setElevation(Elevation elevation) {
    if (elevation == elevation_) return;
    elevation_ = elevation;
    update();
    Q_EMIT elevationChanged(elevation);
}

BenchLayout BenchView::layOut() const {
    return benchLayout(document_.kit(), *document_.shot(), *document_.report(), elevation_, QRectF(rect()));
}

double BenchView::scale() const { return layOut().scale; }

double BenchView::drawnWorkingDistance() const {
    const auto layout = layOut();
    return layout.place(layout.focus, 0).x() - layout.place(document_.report()->optics.front, 0).x();
}

std::optional<QPointF> BenchView::lightPlace(std::size_t light) const {
    if (!document_.shot() || light >= document_.shot()->lights.size()) return std::nullopt;
    const auto layout = layOut();
    if (layout.atInfinity) return std::nullopt;
    const QPointF at = lightInPlane(document_.report()->light.sources[light].place, elevation_);
    const QPointF place = layout.place(layout.subject - at.x(), at.y());
    const QRectF room = QRectF(rect()).adjusted(6, 24, -6, -ruler_height + 6);
    return room.contains(place) ? std::optional(place) : std::nullopt;
}

std::optional<QPointF> BenchView::aimPlace() const {
    if (!document_.shot()) return std::nullopt;
    const std::size_t light = chosen_.index(*document_.shot());
    if (!lightPlace(light)) return std::nullopt;
    return aimGrip(layOut(), *document_.shot(), *document_.report(), elevation_, light);
}

std::optional<QPointF> BenchView::backgroundPlace() const {
    if (!document_.shot() || !document_.shot()->background) return std::nullopt;
    const auto layout = layOut();
    if (!layout.backgroundToScale || layout.atInfinity) return std::nullopt;
    return layout.place(layout.subject + document_.shot()->background->distance, 0);
}

void BenchView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(theme().ink);
    const QString title = elevation_ == Elevation::side ? tr("Bench, side") : tr("Bench, top");
    painter.drawText(QPointF(12, 19), title);
    if (!document_.shot()) return;
    const BenchLayout layout = dragLayout_.value_or(layOut());
    const double per_mm = layout.scale * 25.4 / logicalDpiX();  // of the sheet against the set
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    const QString ratio = per_mm >= 1 ? tr("%1 : 1").arg(toQt(text::number_text(per_mm, 2)))
                                      : tr("1 : %1").arg(toQt(text::number_text(1 / per_mm, 2)));
    // As much of it as the links in the corner leave.
    double end = width();
    for (const auto* link : findChildren<QToolButton*>())
        if (link->isVisible()) end = std::min<double>(end, link->x());
    const double begin = 18 + QFontMetrics(textFont(12, QFont::DemiBold)).horizontalAdvance(title);
    painter.drawText(
        QPointF(begin, 19),
        elided(textFont(11),
               document_.report()->light.total
                   ? tr("to scale, %1, mm from the sensor; ring about the subject: light from each side").arg(ratio)
                   : tr("to scale, %1, mm from the sensor").arg(ratio),
               end - begin));
    labels_ = paintBench(painter, layout, *document_.assessment(), elevation_, QRectF(rect()),
                         chosen_.index(*document_.shot()));
}

std::optional<BenchView::Grip> BenchView::gripAt(QPointF place) const {
    if (!document_.shot()) return std::nullopt;
    constexpr double near = 18;
    for (std::size_t i = 0; i < document_.shot()->lights.size(); ++i)
        if (const auto at = lightPlace(i); at && QLineF(*at, place).length() < near) return Grip{Grip::light, i};
    if (const auto at = aimPlace(); at && QLineF(*at, place).length() < near / 2)
        return Grip{Grip::aim, chosen_.index(*document_.shot())};
    if (const auto at = backgroundPlace();
        at && std::abs(at->x() + 3 - place.x()) < 8 && place.y() > 30 && place.y() < height() - ruler_height)
        return Grip{Grip::background, 0};
    return std::nullopt;
}

void BenchView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    dragged_ = gripAt(event->position());
    if (!dragged_) return;
    dragLayout_ = layOut();
    ++drags_;
    if (dragged_->kind == Grip::background) return;
    chosen_.choose(dragged_->index);
    Q_EMIT lightTaken(dragged_->index);
}

void BenchView::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_) return drag(event->position());
    const auto grip = gripAt(event->position());
    setCursor(!grip ? Qt::ArrowCursor : grip->kind == Grip::background ? Qt::SizeHorCursor : Qt::OpenHandCursor);
}

void BenchView::mouseReleaseEvent(QMouseEvent*) {
    dragged_.reset();
    dragLayout_.reset();
    update();
}

/// A light keeps what this elevation does not show; in the plane it goes where it is dragged.
void BenchView::drag(QPointF place) {
    const double along =
        dragLayout_->subject - (place.x() - dragLayout_->origin.x()) / dragLayout_->scale;  // towards the camera
    const double across = (dragLayout_->origin.y() - place.y()) / dragLayout_->scale;
    const QString key = QStringLiteral("bench#%1").arg(drags_);
    if (dragged_->kind == Grip::background) {
        document_.editShot({tr("Move the background"), key}, [&](shoot::Shot& shot) {
            if (shot.background) shot.background->distance = std::max(0.0, std::round(-along));
        });
        return;
    }
    const bool turns = dragged_->kind == Grip::aim;
    const QString name = toQt(document_.report()->light.sources[dragged_->index].label);
    document_.editShot({(turns ? tr("Turn light %1") : tr("Move light %1")).arg(name), key}, [&](shoot::Shot& shot) {
        auto& light = shot.lights[dragged_->index];
        if (turns)
            turnLight(light, {along, across});
        else
            dragLight(light, {along, across});
    });
}

namespace {

/// A point put in the plane of the drawing; what the elevation does not show of it stays.
light::Point inPlane(light::Point point, QPointF place, Elevation elevation) {
    point.z() = place.x();
    if (elevation == Elevation::side)
        point.y() = place.y();
    else
        point.x() = -place.y();
    return point;
}

}  // namespace

void BenchView::dragLight(shoot::Light& light, QPointF place) const {
    if (light.on_lens) return;  // goes with the lens
    const auto position = light::position_of(inPlane(light::place_of(light.position), place, elevation_));
    light.position = {.distance = std::max(5.0, std::round(position.distance)),
                      .azimuth = std::round(position.azimuth),
                      .elevation = std::round(position.elevation)};
}

void BenchView::turnLight(shoot::Light& light, QPointF place) const {
    const light::Point at = light::place_of(light.position);
    const light::Point looks = light.position.distance * light::looks_along(light.position, light.aim);
    // The handle lies part of the way to what it looks at.
    const light::Point grip = inPlane(at + aim_grip_share * looks, place, elevation_);
    const auto aim = light::aimed_at(light.position, at + (grip - at) / aim_grip_share);
    light.aim = {.turn = std::round(aim.turn), .tip = std::round(aim.tip)};
}

bool BenchView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const auto grip = gripAt(help->pos());
        if (grip)
            QToolTip::showText(help->globalPos(),
                               grip->kind == Grip::light ? tr("Drag the light")
                               : grip->kind == Grip::aim ? tr("Turn the light")
                                                         : tr("Drag the background"),
                               this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

}  // namespace poquito::desk

#include "desk/set/moc_bench_view.moc"
