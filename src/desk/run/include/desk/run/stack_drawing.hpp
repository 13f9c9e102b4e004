#pragma once

#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

class Document;
struct Band;

/// The subject from the side with the frames of its stack: what each holds sharp, and where the chosen slice begins and
/// ends. The ends are dragged, or moved with the arrow keys.
class StackDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit StackDrawing(Document& document, QWidget* parent = nullptr);

    /// Where a depth behind the nearest point is drawn, and back.
    double xOf(double depth) const;
    double depthAt(double x) const;
    QSize minimumSizeHint() const override { return {170, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    enum class End { from, to };
    struct Range {
        double low = 0, high = 1;  // depths at the drawing's edges
    };
    Range range() const;
    QRectF field() const;
    void drawBands(QPainter& painter, const std::vector<Band>& bands) const;
    void drawPlanes(QPainter& painter, const std::vector<Band>& bands) const;
    void drawWeak(QPainter& painter, const std::vector<Band>& bands) const;
    void drawEnds(QPainter& painter) const;
    void drawRuler(QPainter& painter) const;
    std::optional<End> endAt(double x) const;
    void moveEnd(End end, double depth);

    Document& document_;
    std::optional<End> dragged_;
    std::optional<Range> held_;  // the scale stands still while an end is dragged
    End active_ = End::from;
    int drag_ = 0;
};

}  // namespace poquito::desk
