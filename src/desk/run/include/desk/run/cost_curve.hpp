#pragma once

#include "desk/toolkit/chart.hpp"

namespace poquito::plan {
struct CaptureReport;
}

namespace poquito::desk {

class Document;

/// How the worst blur between planes falls with the number of frames, down to what diffraction leaves; from where more
/// of them hardly help.
class CostCurve : public Chart {
    Q_OBJECT
  public:
    explicit CostCurve(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {190, 110}; }

  protected:
    bool prepare() override;
    void draw(QPainter& painter) override;
    QString reading(double frames, double blur) const override;

  private:
    const plan::CaptureReport& capture() const;
    double blurOf(double frames) const;  // micrometres at the sensor
    void drawEnough(QPainter& painter) const;

    const Document& document_;
    double floor_ = 0;  // micrometres
};

}  // namespace poquito::desk
