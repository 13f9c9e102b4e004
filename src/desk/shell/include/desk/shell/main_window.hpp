#pragma once

#include "advice/stations.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/session/document.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/shell/sheet_switch.hpp"
#include "desk/shell/shoot_files.hpp"
#include "desk/shell/shot_commands.hpp"

#include <QMainWindow>

#include <functional>
#include <vector>

class QDir;
class QLabel;
class QLineEdit;
class QMenu;
class QSplitter;
class QStackedWidget;
class QUndoGroup;

namespace poquito::desk {

class Bag;
class BookSheet;
class DaySheet;
class FinderPanel;
class StatusBar;
class GearWindows;
class SidePanel;
class MessageBar;
class LogController;
class LogWriter;
class ProofController;
class RunController;
class RunningView;
class ShotCards;
class StartPage;
class StationPage;
class StationRail;
class StationViews;
class TrainDrawing;
class DrawingArea;

/// The settings' key for the size of everything in per cent, which is read before there is a window.
inline const auto size_key = QStringLiteral("size");

/// The drafting table has three sheets. The shot: stations along the top, shots on the left, bench and the station's
/// page in the middle, notes and numbers on the right; the day, the shoot as a whole; the book, what outlives it. The
/// running cost stands below. The window says what stands where and who hears whom; what is done stands in ShootFiles,
/// ShotCommands and the pages.
class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    /// Opens what `first` gives once its own first picture is on the screen: see furnish().
    explicit MainWindow(std::function<shoot::Shoot()> first = genericShoot, QWidget* parent = nullptr);
    ~MainWindow() override;

    Document& document() {
        furnish();
        return document_;
    }
    Bag& bag();
    RunController& runs() {
        furnish();
        return *runs_;
    }
    ProofController& proof() {
        furnish();
        return *proof_;
    }
    LogController& log() {
        furnish();
        return *log_;
    }
    LogWriter& logWriter() {
        furnish();
        return *writer_;
    }
    void goTo(advice::Station station);
    void goTo(Sheet sheet);
    Sheet sheet() const { return sheet_; }
    /// Where one was when the window was closed the last time: sheet and station.
    void goToRemembered();

    /// Without questions; what goes wrong is said in the strip above the bench. True: it is done.
    bool openFile(const QString& path);  // a shoot, or a picture that carries a plan: its shot joins the open shoot
    bool saveTo(const QString& path);
    void openDemo();
    void newShoot();

    /// Offers what a crash left behind; keeps copies of unsaved work from now on.
    void startAutosave(const QDir& folder);

  Q_SIGNALS:
    void furnished();  // once: everything is there

  protected:
    void closeEvent(QCloseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    // What stands where.
    QWidget* buildHeader();
    QWidget* buildCards();
    QWidget* buildCentre();
    void fillMargin();
    void furnish();
    StartPage* start();
    // Who hears whom.
    void connectParts();
    void connectPage(advice::Station station, StationPage* page);
    void connectTrain(TrainDrawing* train);
    void connectFinder(FinderPanel* finder);
    // What is done by hand.
    QAction* action(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                    const std::function<void()>& run);
    QAction* shotAction(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                        const std::function<void()>& run);  // needs a shot
    void fillMenus();
    void fillShootMenu(QMenu* menu);
    void fillEditMenu(QMenu* menu);
    void fillShotMenu(QMenu* menu);
    void fillViewMenu(QMenu* menu);
    void fillSizes(QMenu* menu);
    void fillHelpMenu(QMenu* menu);
    void fillRecent();
    void toggleTheme();
    // What is shown.
    void showRun(bool show);
    void turnTo(Sheet sheet);  // or back, where it is shown already
    DaySheet* day();
    BookSheet* book();
    void present();
    void chooseHistory();
    void showKit();
    void divide(bool forFinder);
    bool atProof() const;
    void read();
    void tellTab();
    void lookAtDropped(const QStringList& paths);
    void refresh();
    void refreshTitle();

    Document document_;
    std::function<shoot::Shoot()> first_;
    bool furnished_ = false;
    RunController* runs_ = nullptr;
    ProofController* proof_ = nullptr;
    LogController* log_ = nullptr;
    LogWriter* writer_ = nullptr;
    ShootFiles* files_ = nullptr;
    ShotCommands* commands_ = nullptr;
    GearWindows* gear_ = nullptr;
    ChosenLight chosenLight_;
    SubjectLibrary subjects_;

    QWidget* titles_ = nullptr;
    QLineEdit* title_ = nullptr;
    int titleVisit_ = 0;  // typing of one visit is one step of the history
    QLabel* state_ = nullptr;
    SheetSwitch* switch_ = nullptr;
    Sheet sheet_ = Sheet::shot, sheetBefore_ = Sheet::day, turnedTo_ = Sheet::shot;
    StationRail* rail_ = nullptr;
    QWidget* cardsColumn_ = nullptr;
    ShotCards* cards_ = nullptr;
    MessageBar* strip_ = nullptr;
    QStackedWidget* body_ = nullptr;
    QSplitter* split_ = nullptr;
    QByteArray splitWithFinder_, splitElsewhere_;
    DrawingArea* upper_ = nullptr;
    StationViews* views_ = nullptr;
    StartPage* start_ = nullptr;
    std::string startOf_;  // id of the shot whose first questions are asked; empty: none are
    DaySheet* day_ = nullptr;
    BookSheet* book_ = nullptr;
    RunningView* running_ = nullptr;
    bool runShown_ = false;
    QWidget* marginColumn_ = nullptr;
    SidePanel* sidePanel_ = nullptr;
    StatusBar* foot_ = nullptr;
    QUndoGroup* history_ = nullptr;  // what Ctrl+Z goes back in: the shoot, or in the book the side that is shown
    std::vector<QMenu*> menus_;
    QMenu* recent_ = nullptr;
    std::vector<QAction*> shotActions_;
};

}  // namespace poquito::desk
