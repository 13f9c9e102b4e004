#pragma once

#include "plan/fwd.hpp"
#include "shoot/fwd.hpp"

#include <QRectF>
#include <QString>
#include <QWidget>

#include <array>
#include <map>
#include <optional>

namespace poquito::desk {

class Document;

/// The subject as the camera sees it, in its frame and to scale, and from the side beside it: what is known of its size
/// and how it lies can be dragged, and typed where it stands. Width and height by the subject's edges, how much of the
/// frame it takes by its corner; depth, tilt and what of it has to be sharp from the side, its turn from above.
class FrameDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit FrameDrawing(Document& document, QWidget* parent = nullptr);

    /// The frame alone, as large as `area` allows. Also painted small on shot cards.
    static void paintFrame(QPainter& painter, const QRectF& area, const shoot::Shot& shot, const plan::Report& report);

    enum class Handle { width, height, fill, tilt, turn, from, to, depth };
    static constexpr std::array handles = {Handle::width, Handle::height, Handle::fill, Handle::tilt,
                                           Handle::turn,  Handle::from,   Handle::to,   Handle::depth};
    /// Where it stands; empty: there is none, at infinity or of what has no depth.
    std::optional<QPointF> place(Handle handle) const;

    /// Numbers that are typed on the drawing.
    enum class Spot { width, height, fill, magnification, depth, tilt, turn };
    /// The drawing puts it in its place, and hides it where there is none.
    void holdField(Spot spot, QWidget* field);
    void placeFields();

    QSize minimumSizeHint() const override { return {480, 200}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    QRectF frame() const;     // of the picture
    QRectF side() const;      // what is seen from the side
    double column() const;    // x of the numbers beside the frame
    double attitude() const;  // x of those beside the side
    QRectF spot(Spot spot) const;
    QRectF dial() const;  // that turns it
    double trueWidth(double high) const;
    double sideX(double depth) const;
    double value(Handle handle) const;
    double shown(Handle size) const;
    void set(Handle handle, double value);
    std::optional<Handle> handleAt(QPointF at) const;
    void paintDimensions(QPainter& painter) const;
    void paintSide(QPainter& painter) const;
    void paintAttitude(QPainter& painter) const;
    void paintNames(QPainter& painter) const;
    void paintHandles(QPainter& painter) const;

    Document& document_;
    std::optional<Handle> held_;
    Handle active_ = Handle::width;
    double heldScale_ = 1;  // px a mm of the frame when it was taken hold of
    double heldShare_ = 1;  // its own size over what is shown of it
    double heldDepth_ = 1;  // mm across the side
    double heldWidth_ = 1;  // px of it
    int visit_ = 0;
    std::map<Spot, QWidget*> fields_;
};

}  // namespace poquito::desk
