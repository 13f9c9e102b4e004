#pragma once

#include <QWidget>

class QPainter;

namespace poquito::advice {
struct Assessment;
}

namespace poquito::desk {

/// The set from the side, to scale, up is up: floor, table, subject, what the frame takes, the camera on its stand, and
/// the backdrop. The camera is tipped by dragging it about the subject, or by the arrow keys.
class StandDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit StandDrawing(QWidget* parent = nullptr);
    void setPlan(const advice::Assessment* assessment);
    QSize minimumSizeHint() const override { return {150, 170}; }

  Q_SIGNALS:
    void turned(double degrees, int drag);  // looks down by; equal `drag`: one movement of the hand

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    struct Side;  // the drawing's own measures
    struct Painting;
    Side side() const;
    QPointF camera(const Side& side) const;

    const advice::Assessment* assessment_ = nullptr;
    bool held_ = false;
    int drag_ = 0;
};

}  // namespace poquito::desk
