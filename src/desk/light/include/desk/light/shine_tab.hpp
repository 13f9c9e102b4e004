#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class ChosenLight;
class Sentence;
class ShineDrawing;

/// What a polished face mirrors of the lights, and where a light or a diffuser must be to show in it, or not to.
class ShineTab : public StationPage {
    Q_OBJECT
  public:
    ShineTab(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void bringIn();
    void fill();
    void setPolished();

    ChosenLight& chosen_;
    Sentence* text_ = nullptr;
    QPushButton* polished_ = nullptr;
    QPushButton* bring_ = nullptr;
    QPushButton* fill_ = nullptr;
    ShineDrawing* drawing_ = nullptr;
};

}  // namespace poquito::desk
