#pragma once

#include "desk/station_page.hpp"

class QSlider;

namespace poquito::desk {

class ReachDrawing;

/// Camera, lens, tubes, close-up lenses, converter and the focus ring.
class ReachPage : public StationPage {
    Q_OBJECT
  public:
    explicit ReachPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const shoot::Report& report) override;

  private:
    QSlider* slider_;
    int drag_ = 0;
    ReachDrawing* drawing_;
};

}  // namespace poquito::desk
