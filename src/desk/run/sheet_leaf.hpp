#pragma once

#include "desk/base/station_page.hpp"

class QTextBrowser;
class QTimer;

namespace poquito::desk {

/// The run sheet of the shot, to be printed or exported with the whole shoot.
class SheetLeaf : public StationPage {
    Q_OBJECT
  public:
    explicit SheetLeaf(Document& document, QWidget* parent = nullptr);

    /// Writes by the name's ending, .pdf or .html; says what went wrong.
    bool exportSheet(const QString& path);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void askAndExport(const QString& ending);
    void askAndPrint();
    void showSheet();

    QTextBrowser* preview_;
    QTimer* laidOut_;
};

}  // namespace poquito::desk
