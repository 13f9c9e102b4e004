#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class GiveUpStrip;
class ProposalsView;
class Sentence;

/// Whole plans, best first: the complete settings of each school, side by side, and one click that takes one. Above
/// them what ranks them: what is given up first, and what is wished, which unfolds over them.
class ProposalsTab : public StationPage {
    Q_OBJECT
  public:
    explicit ProposalsTab(Document& document, QWidget* parent = nullptr);

    void takeKeys();  // the plans have the keyboard

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void unfoldWishes();

    Sentence* why_;
    QPushButton* wishes_;
    GiveUpStrip* order_;
    ProposalsView* view_;
};

}  // namespace poquito::desk
