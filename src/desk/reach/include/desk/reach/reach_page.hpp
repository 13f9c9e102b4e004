#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class Tabs;

/// What makes the magnification, and what carries it: a tab for the train, one for the stand.
class ReachPage : public StationPage {
    Q_OBJECT
  public:
    explicit ReachPage(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    /// A piece is held over another part of the window, and let go of there; in coordinates of the screen.
    void pieceDragged(QPoint at);
    void pieceDropped(const std::string& list, const std::string& id, QPoint at);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Tabs* tabs_;
};

}  // namespace poquito::desk
