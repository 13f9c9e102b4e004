#pragma once

#include "desk/pages/station_page.hpp"

class QLineEdit;
class QListView;

namespace poquito::desk {

class ChecklistModel;
class FactsView;
class RunController;
class SubjectLibrary;

/// Before the first frame: what to look at and why; then the bench, and the buttons that begin.
class ChecklistTab : public StationPage {
    Q_OBJECT
  public:
    ChecklistTab(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent = nullptr);

  Q_SIGNALS:
    void runShown();  // the running view is wanted
    void problemFound(const QString& problem);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addOwnChecks(QVBoxLayout* column);
    void addOwn();
    void removeOwn(int row);
    void addBench(QVBoxLayout* column);
    void addBroken(QVBoxLayout* column);
    void addPace(QGridLayout* group);
    void addRehearsal(QGridLayout* group);
    void addRail(QGridLayout* group);
    QPushButton* addButton(QHBoxLayout* row, const Caption& caption, const std::function<void()>& run);
    void addRow(QGridLayout* group, const Caption& caption, QWidget* control);
    void showRuns();
    void begin(bool tests);

    RunController& runs_;
    SubjectLibrary& library_;
    QLineEdit* own_ = nullptr;
    QComboBox* ownFor_ = nullptr;
    ChecklistModel* model_;
    QListView* list_;
    QLabel* progress_ = nullptr;
    QWidget* broken_ = nullptr;
    QLabel* brokenText_ = nullptr;
    QString brokenJournal_;
    QPushButton* test_ = nullptr;
    QPushButton* run_ = nullptr;
    QPushButton* see_ = nullptr;
    FactsView* log_ = nullptr;
    int wrappedAt_ = 0;
};

}  // namespace poquito::desk
