#pragma once

#include "desk/day/hours_leaf.hpp"
#include "desk/pages/station_page.hpp"

#include <optional>

namespace poquito::desk {

class LogDesk;
class Leaves;
class RunDesk;
class ShotPictures;
class ViewSetLibrary;

/// The shoot as a whole, a leaf a matter: its hours, its sets and plates, the outlets that take the pictures, and what
/// is packed.
class DaySheet : public StationPage {
    Q_OBJECT
  public:
    DaySheet(Document& document, RunDesk& runs, LogDesk& log, QWidget* parent = nullptr);

    const std::optional<DayPlan>& plan() const;
    bool isSettled() const;
    bool picturesAreMade() const;  // all that were asked for
    Leaves& leaves() { return *leaves_; }

    /// The run sheet of the whole shoot, by the name's ending, .pdf or .html; says what went wrong.
    bool exportSheet(const QString& path);

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
    Leaves* leaves_;
    HoursLeaf* hours_;
};

}  // namespace poquito::desk
