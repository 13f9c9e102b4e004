#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// The fall to scale, from where it starts to the wanted place: where it is after equal times, the beam, and how far it
/// gets while trigger and camera wake up.
class FallDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit FallDrawing(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {128, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QRectF field() const;
    double yOf(double above) const;  // mm over the lower of the two ends
    void name(QPainter& painter, double y, const QString& words, const QColor& colour) const;
    void drawFall(QPainter& painter) const;
    void drawThrow(QPainter& painter) const;

    const Document& document_;
};

}  // namespace poquito::desk
