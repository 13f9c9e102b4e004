#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// Travel of a step at the subject against the camera's setting, both in equal ratios: readings, fit with its spread
/// at the shot's stop, and the step that the plan allows.
class StepsChart : public QWidget {
    Q_OBJECT
  public:
    explicit StepsChart(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {190, 160}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
};

}  // namespace poquito::desk
