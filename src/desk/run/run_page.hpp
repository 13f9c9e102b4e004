#pragma once

#include "desk/base/station_page.hpp"

namespace poquito::desk {

class Leaves;
class RunDesk;
class SheetLeaf;

/// Running a shoot, a leaf for each question: what to look at first, how the stack is taken, what it costs, how wide
/// the camera's steps are, in which order the shots come, and the sheet to take along.
class RunPage : public StationPage {
    Q_OBJECT
  public:
    RunPage(Document& document, RunDesk& runs, QWidget* parent = nullptr);

    /// See SheetLeaf.
    bool exportSheet(const QString& path);

  Q_SIGNALS:
    void runShown();
    void slicePointsWanted();
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Leaves* leaves_ = nullptr;
    SheetLeaf* sheet_ = nullptr;
};

}  // namespace poquito::desk
