#pragma once

#include "desk/day/hours_tab.hpp"
#include "desk/pages/station_page.hpp"

#include <optional>

namespace poquito::desk {

class LogController;
class Tabs;
class RunController;
class ShotPictures;
class ViewSetLibrary;

/// The shoot as a whole, a tab a matter: its hours, its sets and plates, the outlets that take the pictures, and what
/// is packed.
class DaySheet : public StationPage {
    Q_OBJECT
  public:
    DaySheet(Document& document, RunController& runs, LogController& log, QWidget* parent = nullptr);

    const std::optional<DayPlan>& plan() const;
    bool isSettled() const;
    bool picturesAreMade() const;  // all that were asked for
    Tabs& tabs() { return *tabs_; }

    /// The run sheet of the whole shoot, by the name's ending, .pdf or .html; says what went wrong.
    bool exportPaper(const QString& path);

  Q_SIGNALS:
    void shotWanted();  // the selected one, on its own sheet
    void addWanted();
    void runShown();
    void problemFound(const QString& words);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    ViewSetLibrary* library_;
    ShotPictures* pictures_;
    Tabs* tabs_;
    HoursTab* hours_;
};

}  // namespace poquito::desk
