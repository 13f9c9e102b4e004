#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class ChosenLight;
class Leaves;

/// The light of a shot, a leaf for each question: exposure and balance, the lights one by one, the background, what is
/// frozen, what is mirrored, and what the test frame said.
class LightPage : public StationPage {
    Q_OBJECT
  public:
    LightPage(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

    /// The leaf with the lights' own fields.
    void showLights();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Leaves* leaves_ = nullptr;
};

}  // namespace poquito::desk
