#pragma once

#include "desk/pages/station_page.hpp"

class QTextBrowser;
class QTimer;

namespace poquito::desk {

/// The run sheet of the shot, as it is printed and exported with the whole shoot.
class PrintTab : public StationPage {
    Q_OBJECT
  public:
    explicit PrintTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void showSheet();

    QTextBrowser* preview_;
    QTimer* laidOut_;
};

}  // namespace poquito::desk
