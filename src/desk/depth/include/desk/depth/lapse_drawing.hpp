#pragma once

#include "plan/motion/lapse.hpp"
#include "shoot/lapse.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

/// A time-lapse as a line from its first moment to its last: when focus leaves what grows, how the light goes, and what
/// all of it comes to.
class LapseDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit LapseDrawing(QWidget* parent = nullptr);
    void setLapse(const shoot::Lapse& lapse, const plan::LapseReport& report);
    QSize minimumSizeHint() const override { return {280, 92}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QString words() const;

    shoot::Lapse lapse_;
    plan::LapseReport report_;
};

}  // namespace poquito::desk
