#pragma once

#include <QWidget>

namespace poquito::desk {

class ChosenLight;
class Document;

/// The face of the subject as the camera sees it, to scale, with the reflections of all lights where and as large as
/// they are.
class ShineDrawing : public QWidget {
    Q_OBJECT
  public:
    ShineDrawing(const Document& document, const ChosenLight& chosen, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {180, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QRectF field() const;
    double scale() const;                       // pixels a mm
    QPointF placeOf(double x, double y) const;  // mm from the face's middle, to the right and up
    QImage faceImage() const;
    void drawMarks(QPainter& painter) const;

    const Document& document_;
    const ChosenLight& chosen_;
};

}  // namespace poquito::desk
