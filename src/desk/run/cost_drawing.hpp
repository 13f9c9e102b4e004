#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// From one frame to the next as a bar of its parts, and how the worst blur falls with the number of frames.
class CostDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit CostDrawing(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {190, 160}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void paintCadence(QPainter& painter, const QRectF& area) const;
    void paintCurve(QPainter& painter, const QRectF& area) const;

    const Document& document_;
};

}  // namespace poquito::desk
