#include "desk/bench_view.hpp"

#include "desk/bench_painter.hpp"
#include "desk/document.hpp"
#include "desk/drafting.hpp"
#include "desk/theme.hpp"
#include "shoot/text.hpp"

#include <QEvent>
#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::desk {

namespace {

using namespace bench;

constexpr double degree = std::numbers::pi / 180;

}  // namespace

BenchView::BenchView(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("benchView"));
    setAccessibleName(tr("Bench, to scale"));
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    connect(&document, &Document::shootChanged, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::selected, this, qOverload<>(&QWidget::update));
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
    const QPointF at = lightInPlane(document_.shot()->lights[light].position, elevation_);
    const QPointF place = layout.place(layout.subject - at.x(), at.y());
    const QRectF room = QRectF(rect()).adjusted(6, 24, -6, -ruler_height + 6);
    return room.contains(place) ? std::optional(place) : std::nullopt;
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
    const QString ratio = per_mm >= 1 ? tr("%1 : 1").arg(QString::fromStdString(shoot::number_text(per_mm, 2)))
                                      : tr("1 : %1").arg(QString::fromStdString(shoot::number_text(1 / per_mm, 2)));
    painter.drawText(QPointF(18 + QFontMetrics(textFont(12, QFont::DemiBold)).horizontalAdvance(title), 19),
                     tr("to scale, %1, mm from the sensor").arg(ratio));
    paintBench(painter, layout, document_, elevation_, QRectF(rect()));
}

std::optional<BenchView::Grip> BenchView::gripAt(QPointF place) const {
    if (!document_.shot()) return std::nullopt;
    constexpr double near = 18;
    for (std::size_t i = 0; i < document_.shot()->lights.size(); ++i)
        if (const auto at = lightPlace(i); at && QLineF(*at, place).length() < near) return Grip{Grip::light, i};
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
}

void BenchView::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_) return drag(event->position());
    const auto grip = gripAt(event->position());
    setCursor(!grip ? Qt::ArrowCursor : grip->kind == Grip::light ? Qt::OpenHandCursor : Qt::SizeHorCursor);
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
    document_.editShot({tr("Move light %1").arg(QChar('A' + static_cast<int>(dragged_->index))), key},
                       [&](shoot::Shot& shot) {
                           auto& position = shot.lights[dragged_->index].position;
                           const double out = position.distance * std::cos(position.elevation * degree);
                           if (elevation_ == Elevation::side) {
                               // Depth across the paper stays: along = out cos(az), across = height.
                               const double sideways = out * std::sin(position.azimuth * degree);
                               const double ground = std::hypot(along, sideways);
                               position = {.distance = std::max(5.0, std::round(std::hypot(ground, across))),
                                           .azimuth = std::round(std::atan2(sideways, along) / degree),
                                           .elevation = std::round(std::atan2(across, ground) / degree)};
                           } else {
                               const double up = position.distance * std::sin(position.elevation * degree);
                               const double ground = std::hypot(along, across);
                               position = {.distance = std::max(5.0, std::round(std::hypot(ground, up))),
                                           .azimuth = std::round(std::atan2(-across, along) / degree),
                                           .elevation = std::round(std::atan2(up, ground) / degree)};
                           }
                       });
}

bool BenchView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const auto grip = gripAt(help->pos());
        if (grip)
            QToolTip::showText(help->globalPos(),
                               grip->kind == Grip::light ? tr("Drag the light") : tr("Drag the background"), this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

}  // namespace poquito::desk
