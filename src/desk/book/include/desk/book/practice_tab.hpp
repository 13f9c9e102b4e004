#pragma once

#include "devices/sim/world.hpp"
#include "practice/exercise.hpp"

#include <QWidget>

#include <map>
#include <optional>
#include <string>
#include <vector>

class QLabel;
class QLayout;
class QPushButton;

namespace poquito::desk {

class Bag;
class Document;
class FactsView;
class FindError;
class LogWriter;
class PracticeBoard;
class ProofController;
class QuantityField;
class RunController;

/// Exercises: chosen, laid out as shots of this shoot, tried on the bench or taken with the camera, and judged by their
/// frames. What came of them goes into the log.
class PracticeTab : public QWidget {
    Q_OBJECT
  public:
    struct Controllers {
        LogWriter& writer;
        RunController& runs;
        ProofController& proof;
        Bag& bag;
    };
    PracticeTab(Document& document, Controllers controllers, QWidget* parent = nullptr);
    void refresh();
    const practice::Outcome& outcome() const { return outcome_; }
    bool isBusy() const { return !waiting_.empty() || judging_; }

  Q_SIGNALS:
    void shotWanted();

  private:
    QWidget* buildList();
    QWidget* buildPage();
    QLayout* buildKeeping(QWidget* page);
    void showExercise();
    void showDone();
    void showPictures(const std::vector<std::string>& pictures);
    std::vector<std::string> layOut(
        const practice::Exercise& exercise);  // ids of its shots in this shoot, made where they are not there
    void showLaidOut();
    void open();
    void putAway();
    void takeOnBench();
    void takeNext();
    void showTaking();
    void endTaking();
    void stopTaking();
    void lookThrough();
    void answer(devices::MishapKind kind, int frame);
    void judge(const practice::Exercise& exercise);
    void lookNext();
    void showOutcome();
    void enter(const practice::Exercise& exercise, const practice::Outcome& outcome);
    void keep();
    void showSetting();
    void keepLimits();
    void keepTaught();

    Document& document_;
    Controllers controllers_;
    PracticeBoard* board_ = nullptr;
    QLabel* name_ = nullptr;
    QLabel* words_ = nullptr;
    QLabel* pictures_ = nullptr;
    QLabel* said_ = nullptr;
    FactsView* facts_ = nullptr;
    FindError* find_ = nullptr;
    std::optional<devices::Mishap> hidden_;  // what is to be found
    QPushButton* open_ = nullptr;
    QPushButton* bench_ = nullptr;
    QPushButton* judge_ = nullptr;
    QPushButton* stop_ = nullptr;
    QPushButton* away_ = nullptr;
    QPushButton* keep_ = nullptr;  // what the numbers state of person or gear
    QLabel* settingName_ = nullptr;
    QuantityField* setting_ = nullptr;  // that the steps which were measured were taken with
    std::vector<std::string> waiting_;  // shots that are still to be taken on the bench
    std::vector<std::string> looking_;  // shots whose frames are still to be looked at
    const practice::Exercise* taking_ = nullptr;
    const practice::Exercise* judging_ = nullptr;
    practice::Outcome outcome_;
    std::map<std::string, practice::Result> done_;
    std::vector<std::pair<std::string, int>> causes_;
};

}  // namespace poquito::desk
