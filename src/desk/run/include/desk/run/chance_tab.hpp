#pragma once

#include "advice/worth/better_odds.hpp"
#include "desk/pages/station_page.hpp"
#include "desk/session/shot_task.hpp"

#include <QElapsedTimer>

#include <memory>
#include <vector>

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QListWidget;
class QToolButton;

namespace poquito::desk {

class MeasureSway;
class OddsView;
class RehearsalView;
class RunController;
class SubjectLibrary;

/// How likely a try of this shot is sharp, what that hangs on, what would help; and counting at the set, a key for one
/// that is kept and one for one that is not.
class ChanceTab : public StationPage {
    Q_OBJECT
  public:
    ChanceTab(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent = nullptr);

  Q_SIGNALS:
    void runShown();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void addCounting(QVBoxLayout* column);
    void addWays(QVBoxLayout* column);
    void count(bool kept);
    void take(int row);
    void takeWanted();
    void showWays();
    void rehearse(bool on);
    void showClass(const Shot& shot);
    void showRun(const plan::Report& report);

    RunController& runs_;
    SubjectLibrary& library_;
    ShotTask<std::vector<advice::BetterOdds>> better_;
    QString wanted_;  // the way that was clicked while those of the last edit were looked for
    OddsView* odds_;
    RehearsalView* rehearsal_;
    MeasureSway* sway_;
    QToolButton* measure_;
    QPushButton* rehearse_;
    QWidget* waysPanel_;
    QPushButton* tries_;
    QuantityField* calm_;
    QuantityField* through_;
    QuantityField* still_;
    QComboBox* is_;
    QuantityField* rate_;
    QuantityField* lasts_;
    QuantityField* frames_;
    QuantityField* pace_;
    QuantityField* trigger_;
    QuantityField* false_;
    QuantityField* pieces_;
    QuantityField* spread_;
    QuantityField* aside_;
    QuantityField* stays_;
    QuantityField* flees_;
    QCheckBox* perched_;
    std::vector<QuantityField*> perch_;
    QuantityField* rinse_;
    QuantityField* seconds_;
    QLabel* counted_;
    QLabel* ofClass_;
    QCheckBox* held_;
    QToolButton* anew_;
    QLabel* none_;
    QListWidget* ways_;
    std::shared_ptr<const void> rehearsedOf_;  // the assessment that the tries that are shown were drawn of
    QElapsedTimer taken_;
};

}  // namespace poquito::desk
