#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// Blur at the sensor against the marked stop, for one frame focused on the subject's middle: defocus at the subject's
/// ends, diffraction, their sum, the blur limit, the best stop. Click or drag to take a stop.
class DepthChart : public QWidget {
    Q_OBJECT
  public:
    explicit DepthChart(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {140, 150}; }

    /// Where a marked stop stands, and which stop stands at a place, in this widget's pixels.
    double xOf(double fNumber) const;
    double fNumberAt(double x) const;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

  private:
    struct Range {
        double widest = 1;
        double smallest = 22;
    };
    Range range() const;
    QRectF plot() const;
    void take(double x);

    Document& document_;
    int drag_ = 0;
};

}  // namespace poquito::desk
