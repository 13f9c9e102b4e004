#pragma once

#include "desk/toolkit/chart.hpp"
#include "imaging/inspect/frame_scan.hpp"

#include <memory>

namespace poquito::desk {

/// How much of a frame is how light, in stops from mid grey: each bar in the grey that it stands for.
class LightBars : public Chart {
    Q_OBJECT
  public:
    explicit LightBars(QWidget* parent = nullptr);

    void setScan(std::shared_ptr<const imaging::FrameScan> scan);

    QSize sizeHint() const override { return {300, 84}; }

  protected:
    bool prepare() override;
    void draw(QPainter& painter) override;
    QString reading(double x, double y) const override;

  private:
    std::shared_ptr<const imaging::FrameScan> scan_;
};

}  // namespace poquito::desk
