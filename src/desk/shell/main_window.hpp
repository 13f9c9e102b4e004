#pragma once

#include "advice/stations.hpp"
#include "desk/set/chosen_light.hpp"
#include "desk/shell/autosave.hpp"
#include "desk/shell/document.hpp"

#include <QMainWindow>

#include <array>
#include <functional>
#include <memory>
#include <set>

class QDir;
class QLabel;
class QLineEdit;
class QMenu;
class QSplitter;
class QStackedWidget;
class QToolButton;

namespace poquito::desk {

class Bag;
class BenchView;
class FinderPanel;
class FootLine;
class GearWindows;
class HandbookWindow;
class LedgerView;
class NotesPanel;
class RunDesk;
class RunningView;
class ShotCards;
class StationPage;
class StationRail;
class TrainDrawing;
class WelcomeSheet;

shoot::Shoot demoShoot();
/// The kit of the demo without its shots: what a new shoot starts from.
shoot::Shoot genericShoot();

/// The drafting table: stations along the top, shots on the left, bench and the station's sheet in the middle, notes
/// and ledger on the right, the running cost below.
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
    RunDesk& runs() {
        furnish();
        return *runs_;
    }
    void goTo(advice::Station station);

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
    void buildMenus();
    QWidget* buildHeader();
    QWidget* buildCards();
    QWidget* buildStrip(QWidget* parent);
    QWidget* buildCentre();
    QWidget* buildMargin();
    void fillMargin();
    void furnish();
    void buildWelcome();
    QAction* action(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                    const std::function<void()>& run);
    void buildTrain();
    void buildFinder();
    StationPage* buildRun();
    void showAbove();
    void showRun(bool show);
    bool restorePicture(const QString& path);
    StationPage* pageOf(advice::Station station);

    void refresh();
    void refreshTitle();
    void showInLedger();
    void fillRecent();
    void remember(const QString& path);
    void say(const QString& problem);
    void fitNotes();
    std::optional<Leftover> recoverOrDiscard(const QDir& folder);

    bool mayDropChanges();
    bool mayEndRun();
    int askToSave();  // QMessageBox::Save, Discard or Cancel
    void endRun();
    void askOpen();
    bool save();
    bool askSaveAs();
    void addShot();
    void duplicateShot();
    void removeShot();
    void moveShot(int by);
    void toggleTheme();
    void showShortcuts();
    void showHandbook();

    Document document_;
    std::function<shoot::Shoot()> first_;
    bool furnished_ = false;
    std::unique_ptr<Autosave> autosave_;
    std::array<StationPage*, advice::stations.size()> pages_{};
    QLineEdit* title_ = nullptr;
    int titleVisit_ = 0;  // typing of one visit is one step of the history
    QLabel* state_ = nullptr;
    QWidget* cardsColumn_ = nullptr;
    QWidget* marginColumn_ = nullptr;
    StationRail* rail_ = nullptr;
    ShotCards* cards_ = nullptr;
    ChosenLight chosenLight_;
    BenchView* bench_ = nullptr;
    QSplitter* split_ = nullptr;
    QStackedWidget* above_ = nullptr;
    TrainDrawing* train_ = nullptr;
    QToolButton* trainButton_ = nullptr;
    FinderPanel* finder_ = nullptr;
    /// Stations where the bench was asked for in place of their own drawing; at Light and Run it is until the finder
    /// is.
    std::set<advice::Station> benchInstead_ = {advice::Station::light, advice::Station::run};
    QByteArray splitWithFinder_, splitElsewhere_;
    bool finderShown_ = false;
    GearWindows* gear_ = nullptr;
    HandbookWindow* handbook_ = nullptr;
    RunDesk* runs_ = nullptr;
    RunningView* running_ = nullptr;
    bool runShown_ = false;
    QStackedWidget* sheets_ = nullptr;
    QStackedWidget* body_ = nullptr;
    WelcomeSheet* welcome_ = nullptr;
    NotesPanel* notes_ = nullptr;
    LedgerView* ledger_ = nullptr;
    FootLine* foot_ = nullptr;
    QWidget* strip_ = nullptr;
    QLabel* stripText_ = nullptr;
    std::vector<QMenu*> menus_;
    QMenu* recent_ = nullptr;
    std::vector<QAction*> shotActions_;
};

}  // namespace poquito::desk
