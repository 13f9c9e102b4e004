#pragma once

#include "day/order.hpp"
#include "desk/pages/station_page.hpp"
#include "desk/session/search.hpp"

#include <QTimer>

#include <optional>

class QButtonGroup;
class QCheckBox;
class QToolButton;

namespace poquito::desk {

class DayDrawing;
class FactsView;
class RunController;
class Sentence;

/// What an order comes to, beside the order given.
struct DayPlan {
    schedule::Problem problem;
    schedule::Day given, best;
    std::vector<QString> names;                      // of the shots, in the order given
    std::vector<QString> works;                      // what each takes: "26 frames"
    std::vector<QString> givenChanges, bestChanges;  // before each shot of that order
    QString impossible;                              // why no order keeps everything; empty: one does
    bool exact = false;
};

/// Its shots over the hours, in an order one can drag and the one that costs least work; what the
/// day comes to, what a change takes, the run sheet and runs of several shots.
class HoursTab : public StationPage {
    Q_OBJECT
  public:
    HoursTab(Document& document, RunController& runs, QWidget* parent = nullptr);

    const std::optional<DayPlan>& plan() const { return plan_; }
    bool isSettled() const { return !search_.isRunning() && !later_.isActive(); }

    /// The run sheet of the whole shoot, by the name's ending, .pdf or .html; says what went wrong.
    bool exportPaper(const QString& path);

  Q_SIGNALS:
    void shotWanted();  // the selected one, on its own sheet
    void addWanted();
    void runShown();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    QWidget* buildDay();
    QWidget* buildSide();
    void addPrices(QVBoxLayout* column);
    void addTiming(QVBoxLayout* column);
    void addWays(QVBoxLayout* column);
    void showWhole();
    void search();
    void found(DayPlan found);
    void showPlan();
    void apply();
    void moveShot(int from, int to);
    void askAndExport(const QString& ending);
    void askAndPrint();

    RunController& runs_;
    DayDrawing* drawing_ = nullptr;
    FactsView* whole_ = nullptr;
    std::vector<std::pair<QuantityField*, double shoot::ChangePrices::*>> prices_;
    QuantityField* begin_ = nullptr;
    QCheckBox* waiting_ = nullptr;
    QLabel* timingOf_ = nullptr;
    QuantityField* notBefore_ = nullptr;
    QuantityField* doneBy_ = nullptr;
    ChoiceChips* after_ = nullptr;
    Sentence* verdict_ = nullptr;
    QToolButton* listed_ = nullptr;
    QToolButton* least_ = nullptr;
    QPushButton* apply_ = nullptr;
    QPushButton* cancel_ = nullptr;
    QPushButton* run_ = nullptr;
    std::optional<DayPlan> plan_;
    std::string of_;  // what the plan was searched for
    QTimer later_;
    Search<DayPlan> search_;
};

}  // namespace poquito::desk
