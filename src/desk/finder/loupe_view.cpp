#include "desk/finder/loupe_view.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/session/document.hpp"
#include "desk/toolkit/theme.hpp"
#include "render/finder.hpp"

#include <QPainter>

namespace poquito::desk {

LoupeView::LoupeView(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      draft_(std::make_shared<render::Loupe>()),
      fine_(std::make_shared<render::Loupe>()) {
    setObjectName(QStringLiteral("loupe"));
    setAccessibleName(tr("Loupe: the sensor's own pixels"));
    setToolTip(
        tr("The part of the frame in the small box, one pixel of the sensor to a pixel of the screen. Click or drag in "
           "the finder."));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Preferred);
}

void LoupeView::setPlace(imaging::Place place) {
    place_ = place;
    refresh();
}

void LoupeView::refresh() {
    if (!document_.shot() || !isVisible()) return;
    if (!document_.report()->optics.field_width) {
        image_ = {};
        update();
        return;
    }
    queue_.render(work(draft_, 1), work(fine_, 2));
}

PictureQueue::Work LoupeView::work(std::shared_ptr<render::Loupe> loupe, int rays) {
    return [this, assessment = document_.sharedAssessment(document_.current()), place = place_,
            loupe = std::move(loupe), rays](const std::function<bool()>& go_on) -> PictureQueue::Show {
        const auto scene = render::scene_of(assessment->plan, assessment->report);
        if (!scene) return {};
        const auto light =
            loupe->render(*scene, {.centre = place, .width = columns, .height = rows, .rays = rays}, go_on);
        if (!light) return {};
        const QImage image = imageOf(render::develop(*light));
        return [this, image] {
            image_ = image;
            update();
        };
    };
}

void LoupeView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    const QRect room(0, caption, width(), height() - caption);
    painter.drawText(
        QPointF(0, 12),
        tr("Loupe, %1 × %2 sensor pixels").arg(std::min(columns, room.width())).arg(std::min(rows, room.height())));
    painter.fillRect(room, theme().greyScale[0]);
    if (image_.isNull()) return;
    // Pixel for pixel, on screens of any density; what does not fit is cut all round.
    const double ratio = devicePixelRatioF();
    const QSizeF shown = QSizeF(columns, rows) / ratio;
    const double zoom =
        std::max(1.0, std::floor(std::min(room.width() / shown.width(), room.height() / shown.height())));
    QRectF area(QPointF(0, 0), shown * zoom);
    area.moveCenter(QRectF(room).center());
    area.moveTo(std::floor(area.x() * ratio) / ratio, std::floor(area.y() * ratio) / ratio);
    painter.setClipRect(room);
    painter.drawImage(area, image_);
    painter.setClipping(false);
    painter.setPen(QPen(theme().hairline, 1));
    painter.drawRect(QRectF(room).adjusted(0.5, 0.5, -0.5, -0.5));
}

void LoupeView::showEvent(QShowEvent*) { refresh(); }

}  // namespace poquito::desk

#include "desk/finder/moc_loupe_view.moc"
