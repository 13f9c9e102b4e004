#pragma once

#include "desk/session/picture_queue.hpp"
#include "render/finder.hpp"

#include <QImage>
#include <QWidget>

#include <memory>
#include <optional>
#include <vector>

namespace poquito::desk {

class Document;

/// What is drawn over the frame.
struct FinderOverlays {
    bool slice = true;  // outline of what one frame holds sharp
    bool thirds = false;
    bool margin = false;  // safe margin
    bool fill = false;    // box about the subject, and its share of the frame
    bool clipping = false;
    bool path = true;            // of what falls or is thrown
    std::optional<double> crop;  // width over height
};

/// The frame as the camera will show it. A click focuses there, a drag takes the loupe along; when points of a plane
/// are wanted, clicks give those instead.
class FinderView : public QWidget {
    Q_OBJECT
  public:
    explicit FinderView(Document& document, QWidget* parent = nullptr);

    void refresh();
    const FinderOverlays& overlays() const { return overlays_; }
    void setOverlays(const FinderOverlays& overlays);

    /// Begins to take three points of the subject, or gives it up.
    void takePlane(bool take);
    bool takesPlane() const { return takes_ == Takes::plane; }

    /// Begins to take two points of the subject: the chosen slice reaches from the nearer to the farther.
    void takeSlice();

    /// The middle of the loupe on the sensor, mm; x right, y up.
    imaging::Place loupe() const { return loupe_; }
    void setLoupe(imaging::Place place);

    /// Where the frame lies on this widget, and a place on the sensor in it.
    QRectF frameRect() const;
    QPointF pointOf(imaging::Place place) const;
    imaging::Place placeOf(QPointF point) const;

    /// Depth behind the plane of focus of what is seen there, mm; empty beside the subject or before the first frame.
    std::optional<double> depthAt(QPointF point) const;

    /// The last frame, fine or not; null before it.
    std::shared_ptr<const render::FinderFrame> frame() const { return frame_; }
    bool isSettled() const { return queue_.isIdle(); }

    QSize minimumSizeHint() const override { return {220, 160}; }

  Q_SIGNALS:
    void loupeMoved(poquito::imaging::Place place);
    void planeTaken(const std::vector<QPointF>& places);  // on the sensor, mm
    void frameShown();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool event(QEvent* event) override;

  private:
    struct Picture;
    PictureQueue::Work work(double scale, std::shared_ptr<render::Finder> finder);
    void show(Picture picture);
    void focusAt(imaging::Place place);
    void takePoint(imaging::Place place, double depth);
    void chooseSlice();
    void paintOverlays(QPainter& painter, const QRectF& frame) const;
    QString title() const;

    Document& document_;
    FinderOverlays overlays_;
    std::shared_ptr<render::Finder> draft_, fine_;
    double draftScale_ = 0.5;  // of the fine picture, as large as stays fluent
    std::shared_ptr<const render::FinderFrame> frame_;
    QImage image_, outline_;
    QRectF subjectBox_;  // shares of the frame
    render::Clipped clipped_;
    imaging::Place loupe_;
    std::optional<QPointF> pressed_;
    bool dragged_ = false;
    enum class Takes { nothing, plane, slice };
    Takes takes_ = Takes::nothing;
    std::vector<QPointF> points_;  // taken so far, on the sensor, mm
    std::vector<double> depths_;   // of them, mm behind the plane of focus
    PictureQueue queue_;
};

}  // namespace poquito::desk
