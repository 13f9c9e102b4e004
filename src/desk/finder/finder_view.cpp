#include "desk/finder/finder_view.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/finder/loupe_view.hpp"
#include "desk/finder/trajectory_overlay.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "job/outlets.hpp"
#include "plan/set/picture_shape.hpp"
#include "render/scene.hpp"
#include "text/text.hpp"

#include <QElapsedTimer>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

/// What a rendering brings back.
struct FinderView::Picture {
    std::shared_ptr<const render::FinderFrame> frame;
    QImage image, outline;
    QRectF subjectBox;
    render::Clipped clipped;
    double milliseconds = 0;
    double scale = 1;
};

namespace {

constexpr double title_height = 24;

QString mm(double length) { return toQt(text::length_text(length)); }

/// The pixels of the subject within the slice that have a neighbour without.
QImage outline_of(const render::FinderFrame& frame, double near, double far, QRgb colour) {
    const int width = frame.light.width, height = frame.light.height;
    QImage outline(width, height, QImage::Format_ARGB32_Premultiplied);
    outline.fill(Qt::transparent);
    const auto within = [&](int x, int y) {
        const double depth = frame.depth_at(x, y);
        return depth >= -near && depth <= far;
    };
    for (int y = 1; y + 1 < height; ++y) {
        auto* row = reinterpret_cast<QRgb*>(outline.scanLine(y));
        for (int x = 1; x + 1 < width; ++x)
            if (within(x, y) && !(within(x - 1, y) && within(x + 1, y) && within(x, y - 1) && within(x, y + 1)))
                row[x] = colour;
    }
    return outline;
}

QRectF box_of(const render::FinderFrame& frame) {
    const int width = frame.light.width, height = frame.light.height;
    int left = width, top = height, right = 0, bottom = 0;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            if (frame.depth_at(x, y) == render::FinderFrame::no_subject) continue;
            left = std::min(left, x), right = std::max(right, x + 1);
            top = std::min(top, y), bottom = std::max(bottom, y + 1);
        }
    if (left >= right) return {};
    return {double(left) / width, double(top) / height, double(right - left) / width, double(bottom - top) / height};
}

}  // namespace

FinderView::FinderView(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      draft_(std::make_shared<render::Finder>()),
      fine_(std::make_shared<render::Finder>()) {
    setObjectName(QStringLiteral("finder"));
    setAccessibleName(tr("Finder: the frame as the camera will show it"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setCursor(Qt::CrossCursor);
    connect(&queue_, &PictureQueue::idle, this, &FinderView::frameShown);
}

void FinderView::setOverlays(const FinderOverlays& overlays) {
    const bool again = overlays.clipping != overlays_.clipping || overlays.slice != overlays_.slice;
    overlays_ = overlays;
    if (again) refresh();
    update();
}

void FinderView::takePlane(bool take) {
    takes_ = take ? Takes::plane : Takes::nothing;
    points_.clear();
    depths_.clear();
    setToolTip({});
    update();
}

void FinderView::takeSlice() {
    takePlane(false);
    takes_ = Takes::slice;
    update();
}

void FinderView::setLoupe(imaging::Place place) {
    const auto* report = document_.report();
    if (!report || !report->optics.field_width) return;
    const auto& sensor = shoot::sensor_of(document_.kit(), document_.shot()->rig);
    loupe_ = {.x = std::clamp(place.x, -sensor.width / 2, sensor.width / 2),
              .y = std::clamp(place.y, -sensor.height / 2, sensor.height / 2)};
    update();
    Q_EMIT loupeMoved(loupe_);
}

QRectF FinderView::frameRect() const {
    const auto* shot = document_.shot();
    if (!shot) return {};
    const auto& sensor = shoot::sensor_of(document_.kit(), shot->rig);
    const QRectF room = QRectF(rect()).adjusted(0, title_height, 0, 0);
    const double aspect = sensor.width / sensor.height;
    const double width = std::floor(std::min(room.width(), room.height() * aspect));
    return {room.left(), room.top(), width, std::floor(width / aspect)};
}

QPointF FinderView::pointOf(imaging::Place place) const {
    const QRectF frame = frameRect();
    const double scale = frame.width() / shoot::sensor_of(document_.kit(), document_.shot()->rig).width;
    return frame.center() + QPointF(place.x, -place.y) * scale;
}

imaging::Place FinderView::placeOf(QPointF point) const {
    const QRectF frame = frameRect();
    const double scale = frame.width() / shoot::sensor_of(document_.kit(), document_.shot()->rig).width;
    const QPointF off = (point - frame.center()) / scale;
    return {.x = off.x(), .y = -off.y()};
}

std::optional<double> FinderView::depthAt(QPointF point) const {
    const QRectF frame = frameRect();
    if (!frame_ || !frame.contains(point)) return std::nullopt;
    const int width = frame_->light.width, height = frame_->light.height;
    const int x = std::clamp(static_cast<int>((point.x() - frame.left()) / frame.width() * width), 0, width - 1);
    const int y = std::clamp(static_cast<int>((point.y() - frame.top()) / frame.height() * height), 0, height - 1);
    const float depth = frame_->depth_at(x, y);
    return depth == render::FinderFrame::no_subject ? std::nullopt : std::optional<double>(depth);
}

// ---- rendering ---------------------------------------------------------------------------------------------------

void FinderView::refresh() {
    if (!document_.shot() || !isVisible()) return;
    if (!document_.report()->optics.field_width) {
        frame_.reset();
        image_ = {};
        update();
        return;
    }
    queue_.render(work(draftScale_, draft_), work(1, fine_));
}

PictureQueue::Work FinderView::work(double scale, std::shared_ptr<render::Finder> finder) {
    constexpr double most_wide = 960, least_wide = 90;
    const QRectF frame = frameRect();
    const double wide = std::max(least_wide, scale * std::min(most_wide, frame.width() * devicePixelRatioF()));
    const render::Finder::Size size{
        .width = static_cast<int>(std::lround(wide)),
        .height = std::max(1, static_cast<int>(std::lround(wide * frame.height() / frame.width())))};
    const QColor sea = theme().focus;
    // As large as it is shown, so that painting it is copying it.
    const QSize shown = (frame.size() * devicePixelRatioF()).toSize();
    return [this, assessment = document_.sharedAssessment(document_.current()), overlays = overlays_, size, scale,
            shown, finder = std::move(finder),
            colour = qPremultiply(sea.rgba())](const std::function<bool()>& go_on) -> PictureQueue::Show {
        QElapsedTimer timer;
        timer.start();
        const auto scene = render::scene_of(assessment->plan, assessment->report);
        if (!scene) return {};
        auto rendered = finder->render(*scene, size, go_on);
        if (!rendered) return {};
        Picture picture{.scale = scale};
        picture.image = imageOf(
            render::develop(rendered->light, overlays.clipping ? render::Clipping::marked : render::Clipping::as_is));
        constexpr double endless = 1e9;
        if (overlays.slice)
            picture.outline = outline_of(*rendered, assessment->report.sharpness.near.value_or(endless),
                                         assessment->report.sharpness.far.value_or(endless), colour);
        picture.subjectBox = box_of(*rendered);
        picture.clipped = render::clipped(rendered->light);
        picture.frame = std::make_shared<render::FinderFrame>(std::move(*rendered));
        picture.milliseconds = static_cast<double>(timer.nsecsElapsed()) / 1e6;
        for (QImage* image : {&picture.image, &picture.outline})
            if (!image->isNull()) *image = image->scaled(shown, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
        return [this, picture = std::move(picture)] { show(picture); };
    };
}

void FinderView::show(Picture picture) {
    // A draft takes about a frame's time: coarser where the scene is hard, finer again where it is easy.
    constexpr double fluent = 25;  // ms
    if (picture.scale < 1)
        draftScale_ = std::clamp(draftScale_ * std::sqrt(fluent / std::max(picture.milliseconds, 1.0)), 0.15, 0.6);
    frame_ = picture.frame;
    image_ = std::move(picture.image);
    outline_ = std::move(picture.outline);
    subjectBox_ = picture.subjectBox;
    clipped_ = picture.clipped;
    update();
}

// ---- painting ----------------------------------------------------------------------------------------------------

QString FinderView::title() const {
    const auto* shot = document_.shot();
    QString text = tr("%1, focus %2")
                       .arg(toQt(text::f_number_text(shot->exposure.f_number)),
                            shot->sharpness.focus_offset == 0 ? shot->capture.slice ? tr("in the middle of the zone")
                                                                                    : tr("in the middle of the depth")
                            : shot->sharpness.focus_offset < 0
                                ? tr("%1 in front of the middle").arg(mm(-shot->sharpness.focus_offset))
                                : tr("%1 behind the middle").arg(mm(shot->sharpness.focus_offset)));
    if (overlays_.clipping && frame_)
        text += tr(" · %1 % white, %2 % black")
                    .arg(toQt(text::number_text(clipped_.white * 100, 2)),
                         toQt(text::number_text(clipped_.black * 100, 2)));
    return text;
}

void FinderView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(theme().ink);
    const QString heading =
        takes_ == Takes::plane ? tr("Click %1 of 3 points of a plane").arg(points_.size() + 1)
        : takes_ == Takes::slice
            ? tr("Click the %1 point that has to be sharp").arg(points_.empty() ? tr("nearest") : tr("farthest"))
            : tr("Finder");
    painter.drawText(QPointF(0, 15), heading);
    if (!document_.shot()) return;
    const QRectF frame = frameRect();
    const double beside = lineWidth(textFont(12, QFont::DemiBold), heading) + 8;
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(beside, 15), elided(textFont(11), title(), width() - beside));
    painter.fillRect(frame, theme().greyScale[0]);
    if (!document_.report()->optics.field_width) {
        painter.fillRect(frame, theme().paper);
        drawLabel(painter, frame.center(), Qt::AlignCenter,
                  tr("focused at infinity: nothing near has a size in the frame"), theme().quiet);
        return;
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    if (!image_.isNull()) painter.drawImage(frame, image_);
    painter.save();
    painter.setClipRect(frame);
    paintOverlays(painter, frame);
    painter.restore();
    if (!document_.report()->light.front_total)
        drawLabel(painter, {frame.center().x(), frame.bottom() - 16}, Qt::AlignCenter,
                  tr("no light is planned: the frame stays black"), theme().quiet);
    painter.setPen(hasFocus() ? QPen(theme().link, 2) : QPen(theme().hairline, 1));
    painter.drawRect(frame.adjusted(0.5, 0.5, -0.5, -0.5));
}

void FinderView::paintOverlays(QPainter& painter, const QRectF& frame) const {
    // Over a picture of any brightness: a dark line under a light one.
    const auto twice = [&](const auto& draw, Qt::PenStyle style = Qt::SolidLine) {
        painter.setPen(QPen(theme().underPicture, 2.4));
        draw();
        painter.setPen(QPen(theme().overPicture, 1, style));
        draw();
    };
    painter.setBrush(Qt::NoBrush);
    if (overlays_.slice && !outline_.isNull()) painter.drawImage(frame, outline_);
    if (overlays_.crop) {
        const QRectF kept = paintCut(painter, frame, *overlays_.crop);
        if (const auto cut = plan::picture_cut(document_.assessment()->plan, *document_.report())) {
            painter.setFont(textFont(11));
            drawLabel(painter, kept.bottomLeft() + QPointF(6, -11), Qt::AlignLeft | Qt::AlignVCenter,
                      tr("%1 \u00d7 %2 px").arg(cut->width_px).arg(cut->height_px), theme().ink);
        }
    }
    // What outlets take of it, where that is not all.
    double label_up = 11;
    for (const auto& delivery : document_.shot()->deliveries) {
        const auto& outlets = document_.shoot().outlets;
        const auto outlet = std::ranges::find(outlets, delivery.outlet, &shoot::Outlet::id);
        if (outlet == outlets.end()) continue;
        const auto cut = job::cut_for({&document_.assessment()->plan, document_.report()}, *outlet, delivery);
        constexpr double all_of_it = 0.999;
        if (cut.kept > all_of_it) continue;
        const QRectF kept(frame.left() + cut.left * frame.width(), frame.top() + cut.top * frame.height(),
                          cut.width * frame.width(), cut.height * frame.height());
        twice([&] { painter.drawRect(kept); });
        painter.setFont(textFont(11));
        drawLabel(painter, kept.bottomRight() - QPointF(6, label_up), Qt::AlignRight | Qt::AlignVCenter,
                  tr("%1, %2 \u00d7 %3 px").arg(toQt(outlet->name)).arg(cut.width_px).arg(cut.height_px),
                  cut.problems.empty() ? theme().ink : theme().caution);
        label_up += 17;
    }
    if (overlays_.thirds)
        for (const double third : {1.0 / 3, 2.0 / 3})
            twice([&] {
                const double x = frame.left() + third * frame.width(), y = frame.top() + third * frame.height();
                painter.drawLine(QLineF(x, frame.top(), x, frame.bottom()));
                painter.drawLine(QLineF(frame.left(), y, frame.right(), y));
            });
    if (overlays_.margin) {
        constexpr double safe = 0.05;  // of each side: what printers and platforms may trim (common practice)
        const QRectF inside =
            frame.adjusted(safe * frame.width(), safe * frame.height(), -safe * frame.width(), -safe * frame.height());
        twice([&] { painter.drawRect(inside); }, Qt::DashLine);
    }
    if (overlays_.fill && !subjectBox_.isEmpty()) {
        const QRectF box(frame.left() + subjectBox_.left() * frame.width(),
                         frame.top() + subjectBox_.top() * frame.height(), subjectBox_.width() * frame.width(),
                         subjectBox_.height() * frame.height());
        twice([&] { painter.drawRect(box); });
        painter.setFont(textFont(11));
        drawLabel(
            painter, box.topLeft() + QPointF(6, 11), Qt::AlignLeft | Qt::AlignVCenter,
            tr("fills %1 % × %2 %").arg(qRound(subjectBox_.width() * 100)).arg(qRound(subjectBox_.height() * 100)),
            theme().ink);
    }
    if (overlays_.path) paintTrajectory(painter, frame, document_.assessment()->plan, *document_.report());
    // The loupe's window, marked by its corners and never smaller than one can see.
    const auto& sensor = shoot::sensor_of(document_.kit(), document_.shot()->rig);
    const double across = std::max(14.0, LoupeView::columns * frame.width() / sensor.width_px);
    QRectF window(0, 0, across, across * LoupeView::rows / LoupeView::columns);
    window.moveCenter(pointOf(loupe_));
    twice([&] { painter.drawRect(window); });
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const QPointF at = pointOf({points_[i].x(), points_[i].y()});
        twice([&] { painter.drawEllipse(at, 5, 5); });
    }
}

// ---- hands -------------------------------------------------------------------------------------------------------

void FinderView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !document_.shot() || !frameRect().contains(event->position())) return;
    pressed_ = event->position();
    dragged_ = false;
}

void FinderView::mouseMoveEvent(QMouseEvent* event) {
    constexpr double slip = 4;
    if (!pressed_) return;
    if (QLineF(*pressed_, event->position()).length() > slip) dragged_ = true;
    if (dragged_) setLoupe(placeOf(event->position()));
}

void FinderView::mouseReleaseEvent(QMouseEvent* event) {
    if (!pressed_) return;
    pressed_.reset();
    if (dragged_) return;
    const auto place = placeOf(event->position());
    if (takes_ == Takes::nothing) {
        setLoupe(place);
        focusAt(place);
        return;
    }
    if (const auto depth = depthAt(event->position())) takePoint(place, *depth);
}

void FinderView::takePoint(imaging::Place place, double depth) {
    points_.emplace_back(place.x, place.y);
    depths_.push_back(depth);
    if (takes_ == Takes::plane && points_.size() == 3) {
        const auto points = points_;
        takePlane(false);
        Q_EMIT planeTaken(points);
    }
    if (takes_ == Takes::slice && points_.size() == 2) chooseSlice();
    update();
}

void FinderView::chooseSlice() {
    const auto depths = depths_;
    takePlane(false);
    const double nearest = document_.report()->sharpness.focus + document_.report()->extent.depth / 2;
    const auto behind = [&](double depth) {
        return std::clamp(std::round((depth + nearest) * 1000) / 1000, 0.0, document_.report()->extent.depth);
    };
    const auto ends = std::minmax({behind(depths[0]), behind(depths[1])});
    document_.editShot({tr("Choose the slice")}, [&](shoot::Shot& shot) {
        shot.capture.slice = shoot::Slice{.from = ends.first, .to = ends.second};
    });
}

void FinderView::focusAt(imaging::Place place) {
    const auto depth = depthAt(pointOf(place));
    if (!depth) return;
    // To the micrometre: nobody sets finer, and the file stays readable.
    const double offset = std::round((document_.shot()->sharpness.focus_offset + *depth) * 1000) / 1000;
    document_.editShot({tr("Focus there")},
                       [&](shoot::Shot& shot) { shot.sharpness.focus_offset = offset == 0 ? 0 : offset; });
}

void FinderView::keyPressEvent(QKeyEvent* event) {
    if (!document_.shot()) return;
    const double step = shoot::sensor_of(document_.kit(), document_.shot()->rig).width /
                        (event->modifiers() & Qt::ShiftModifier ? 200 : 40);
    switch (event->key()) {
        case Qt::Key_Left:
            return setLoupe({loupe_.x - step, loupe_.y});
        case Qt::Key_Right:
            return setLoupe({loupe_.x + step, loupe_.y});
        case Qt::Key_Up:
            return setLoupe({loupe_.x, loupe_.y + step});
        case Qt::Key_Down:
            return setLoupe({loupe_.x, loupe_.y - step});
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return focusAt(loupe_);
        case Qt::Key_Escape:
            if (takes_ != Takes::nothing) return takePlane(false);
            break;
        default:
            break;
    }
    QWidget::keyPressEvent(event);
}

void FinderView::resizeEvent(QResizeEvent*) { refresh(); }

bool FinderView::event(QEvent* event) {
    if (event->type() == QEvent::Show) refresh();
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        if (const auto depth = document_.shot() ? depthAt(help->pos()) : std::nullopt)
            QToolTip::showText(help->globalPos(),
                               tr("%1 %2 the plane of focus\nClick to focus here, drag to move the loupe")
                                   .arg(mm(std::abs(*depth)), *depth < 0 ? tr("in front of") : tr("behind")),
                               this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

}  // namespace poquito::desk

#include "desk/finder/moc_finder_view.moc"
