#pragma once

#include "desk/toolkit/chart.hpp"

#include <utility>

namespace poquito::shoot {
struct Shot;
}
namespace poquito::plan {
struct Plan;
struct Report;
}  // namespace poquito::plan

namespace poquito::desk {

class Document;

/// Blur at the sensor against the marked stop, for one frame focused on the subject's middle: defocus at the subject's
/// ends, diffraction, their sum, the blur limit, the best stop. Click, drag or arrow keys take a stop.
class DepthChart : public Chart {
    Q_OBJECT
  public:
    explicit DepthChart(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {140, 150}; }

  protected:
    bool prepare() override;
    void draw(QPainter& painter) override;
    QString reading(double fNumber, double blur) const override;
    bool step(int right, int up) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

  private:
    const shoot::Shot& shot() const;
    const plan::Report& report() const;
    const plan::Plan& plan() const;
    /// Whether the subject's ends are blurred at all.
    bool hasEnds() const;
    void drawScales(QPainter& painter) const;
    void drawBlurs(QPainter& painter) const;
    void drawLimits(QPainter& painter) const;
    void drawStops(QPainter& painter) const;
    void drawNames(QPainter& painter) const;
    void take(double x);

    Document& document_;
    std::vector<std::pair<QString, double>> otherLimits_;
    int drag_ = 0;
};

}  // namespace poquito::desk
