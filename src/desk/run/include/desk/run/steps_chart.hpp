#pragma once

#include "desk/toolkit/chart.hpp"
#include "plan/stack/step_sizes.hpp"

#include <optional>

namespace poquito::desk {

class Document;

/// Travel of a step at the subject against the camera's setting, both in equal ratios: readings, fit with its spread
/// at the shot's stop, and the step that the plan allows.
class StepsChart : public Chart {
    Q_OBJECT
  public:
    explicit StepsChart(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {190, 160}; }

  protected:
    bool prepare() override;
    void draw(QPainter& painter) override;
    QString reading(double setting, double step) const override;

  private:
    /// mm at the subject of a setting at the shot's stop, and the factor of its spread: two deviations.
    double stepOf(double setting) const;
    double spreadOf(double setting) const;
    void drawScales(QPainter& painter) const;
    void drawFit(QPainter& painter) const;
    void drawWanted(QPainter& painter) const;

    const Document& document_;
    std::optional<plan::StepFit> fit_;
    double rate_ = 0;  // mm at the subject for the whole travel of the ring
};

}  // namespace poquito::desk
