#pragma once

#include "plan/motion/trajectory.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

class Document;

/// The fall to scale, from where it starts to the wanted place: where it is after equal times, the beam, and how far it
/// gets while trigger and camera wake up. Of a throw its whole path with the frame on it, and the beam to be dragged
/// along it.
class FallDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit FallDrawing(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {128, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    struct Sheet {
        QRectF area;
        QPointF middle;    // mm from the hand, y up
        double scale = 1;  // pixels a mm

        QPointF point(double x, double y) const;
    };
    Sheet sheet(const plan::Trajectory& path) const;
    double endOf(const plan::Trajectory& path) const;
    std::optional<plan::Trajectory> beamed() const;  // of a throw with a beam
    void putBeam(const plan::Trajectory& path, double time);
    QRectF field() const;
    double yOf(double above) const;  // mm over the lower of the two ends
    void name(QPainter& painter, double y, const QString& words, const QColor& colour) const;
    void drawFall(QPainter& painter) const;
    void drawThrow(QPainter& painter) const;

    Document& document_;
};

}  // namespace poquito::desk
