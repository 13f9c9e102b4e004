#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class ChosenLight;
class Tabs;

/// The light of a shot, a tab for each question: exposure and balance, the lights one by one, the background, what is
/// frozen, what is mirrored, and what the test frame said.
class LightPage : public StationPage {
    Q_OBJECT
  public:
    LightPage(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

    /// The tab with the lights' own fields.
    void showLights();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Tabs* tabs_ = nullptr;
};

}  // namespace poquito::desk
