#pragma once

#include "desk/station_page.hpp"

class QLineEdit;

namespace poquito::desk {

class FrameDrawing;

/// How big, how deep, how it moves and reflects, and what part of the frame it fills.
class SubjectPage : public StationPage {
    Q_OBJECT
  public:
    explicit SubjectPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const shoot::Report& report) override;

  private:
    QLineEdit* name_;
    QuantityField* swayFrequency_;
    FrameDrawing* frame_;
};

}  // namespace poquito::desk
