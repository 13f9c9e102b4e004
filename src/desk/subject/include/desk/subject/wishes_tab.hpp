#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class WishStrip;

/// What the picture is to look like, as what it means: a column of What matters, and unfolded over the plans that it
/// ranks.
class WishesTab : public StationPage {
    Q_OBJECT
  public:
    explicit WishesTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void wishForAll();

    WishStrip *grounds_, *softness_;
    ChoiceChips* looks_;
    QuantityField* brighter_;
    QPushButton* forAll_;
};

}  // namespace poquito::desk
