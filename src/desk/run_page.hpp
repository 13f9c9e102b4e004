#pragma once

#include "desk/station_page.hpp"

class QListView;
class QTextBrowser;
class QTimer;

namespace poquito::desk {

class ChecklistModel;

/// The checklist of the shot and its run sheet, to be printed or exported with the whole shoot.
class RunPage : public StationPage {
    Q_OBJECT
  public:
    explicit RunPage(Document& document, QWidget* parent = nullptr);

    /// Writes by the name's ending, .pdf or .html; says what went wrong.
    bool exportSheet(const QString& path);

  protected:
    void showShot(const Shot& shot, const shoot::Report& report) override;

  private:
    void askAndExport(const QString& ending);
    void askAndPrint();
    void showSheet();

    ChecklistModel* model_;
    QListView* list_;
    QLabel* progress_;
    QTextBrowser* preview_;
    QTimer* laidOut_;
};

}  // namespace poquito::desk
