#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class Tabs;
class RunController;
class SubjectLibrary;

/// Taking this shot, a tab for each question: what to look at first, how the stack is taken, what it costs, how wide
/// the camera's steps are, and its sheet.
class RunPage : public StationPage {
    Q_OBJECT
  public:
    RunPage(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent = nullptr);

  Q_SIGNALS:
    void runShown();
    void slicePointsWanted();
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Tabs* tabs_ = nullptr;
};

}  // namespace poquito::desk
