#include "desk/shell/main_window.hpp"

#include "desk/book/book_sheet.hpp"
#include "desk/day/day_sheet.hpp"
#include "desk/depth/depth_page.hpp"
#include "desk/finder/finder_panel.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/light/light_page.hpp"
#include "desk/proof/proof_page.hpp"
#include "desk/reach/reach_page.hpp"
#include "desk/reading/word_tips.hpp"
#include "desk/run/run_page.hpp"
#include "desk/run/running_view.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/set/train_drawing.hpp"
#include "desk/shell/drawing_area.hpp"
#include "desk/shell/gear_windows.hpp"
#include "desk/shell/help.hpp"
#include "desk/shell/message_bar.hpp"
#include "desk/shell/shot_cards.hpp"
#include "desk/shell/side_panel.hpp"
#include "desk/shell/station_rail.hpp"
#include "desk/shell/station_views.hpp"
#include "desk/shell/status_bar.hpp"
#include "desk/subject/start_page.hpp"
#include "desk/subject/subject_page.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"

#include <QActionGroup>
#include <QApplication>
#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QMimeData>
#include <QPainter>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QTimer>
#include <QToolButton>
#include <QUndoGroup>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {
namespace {

const auto sheet_key = QStringLiteral("place/sheet"), station_key = QStringLiteral("place/station");
constexpr std::array sizes_of_everything = {100, 125, 150, 200};  // per cent

/// A sheet of paper that others lie on, each a part of the window with a style of its own.
class SheetFrame : public QFrame {
  public:
    using QFrame::QFrame;

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(theme().hairline);
        painter.setBrush(theme().panel);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
    }
};

}  // namespace

MainWindow::MainWindow(std::function<shoot::Shoot()> first, QWidget* parent)
    : QMainWindow(parent), first_(std::move(first)) {
    runs_ = new RunController(document_, this);
    proof_ = new ProofController(document_, *runs_, this);
    files_ = new ShootFiles(document_, *runs_, *this);
    commands_ = new ShotCommands(document_, this);
    gear_ = new GearWindows(document_, this);
    log_ = new LogController(document_, this);
    writer_ = new LogWriter(
        document_, *log_, [this](const shoot::Shot& shot) { return subjects_.kindOf(shot).toStdString(); }, this);
    connect(runs_, &RunController::gearChanged, writer_,
            [this](const std::string& what, const QString& shot, double seconds) {
                writer_->enterChange(what, shot.toStdString(), seconds);
            });
    connect(runs_, &RunController::rehearsed, writer_, [this](const QString& shot, bool well, const QString& said) {
        writer_->enterPractice("rehearsal", tr("Rehearsal: %1").arg(shot).toStdString(), well, said.toStdString());
    });
    writer_->enterLooks(*proof_);
    new WordTips(this);
    setObjectName(QStringLiteral("mainWindow"));
    setMinimumSize(480, 320);
    setAcceptDrops(true);
    resize(1280, 800);
    auto* central = new QWidget(this);
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* header = buildHeader();
    column->addWidget(header);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(12, 8, 12, 8);
    row->setSpacing(10);
    cardsColumn_ = buildCards();
    row->addWidget(cardsColumn_);
    auto* middle = new QVBoxLayout;
    middle->setSpacing(6);
    strip_ = new MessageBar(central);
    middle->addWidget(strip_);
    body_ = new QStackedWidget(central);
    body_->addWidget(buildCentre());
    middle->addWidget(body_, 1);
    row->addLayout(middle, 1);
    marginColumn_ = new QWidget(central);
    marginColumn_->setFixedWidth(292);
    (new QVBoxLayout(marginColumn_))->setContentsMargins(0, 0, 0, 0);
    row->addWidget(marginColumn_);
    column->addLayout(row, 1);
    foot_ = new StatusBar(document_, central);
    column->addWidget(foot_);
    // What the sheets need at least. A screen, or a part of one, that is smaller scrolls.
    central->setMinimumSize(1024, 628);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("windowScroll"));
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setWidget(central);
    setCentralWidget(scroll);
    holdsParts(this);
    for (QWidget* part :
         {static_cast<QWidget*>(menuBar()), header, cardsColumn_, static_cast<QWidget*>(strip_),
          static_cast<QWidget*>(upper_), marginColumn_, static_cast<QWidget*>(foot_),
          static_cast<QWidget*>(scroll->horizontalScrollBar()), static_cast<QWidget*>(scroll->verticalScrollBar())})
        stylePart(part);
    for (const auto& name : {tr("&Shoot"), tr("&Edit"), tr("Sho&t"), tr("&View"), tr("&Help")})
        menus_.push_back(menuBar()->addMenu(name));
    connectParts();
    cards_->setFocus();  // digits are stations until one enters a field
}

/// The first picture of the window is its paper: what takes time, the shoot and all that shows it, comes right after,
/// or before anything is asked of the window.
void MainWindow::furnish() {
    if (furnished_) return;
    furnished_ = true;
    document_.open(first_(), {});
    fillMenus();
    fillMargin();
    connect(&document_, &Document::shootChanged, this, &MainWindow::refresh);
    connect(&document_, &Document::selected, this, &MainWindow::refresh);
    connect(&document_, &Document::unsavedChanged, this, &MainWindow::refreshTitle);
    goTo(rail_->current());
    refresh();
    Q_EMIT furnished();
}

void MainWindow::paintEvent(QPaintEvent* event) {
    QMainWindow::paintEvent(event);
    if (!furnished_) QTimer::singleShot(0, this, &MainWindow::furnish);
}

MainWindow::~MainWindow() {
    document_.disconnect(this);
    runs_->shutDown();
    writer_->finish();
    log_->finish();
}

// ---- what stands where -------------------------------------------------------------------------------------------

QWidget* MainWindow::buildHeader() {
    auto* header = new QWidget(this);
    auto* layout = new QHBoxLayout(header);
    layout->setContentsMargins(12, 0, 14, 2);
    layout->setSpacing(8);
    auto* titles = new QVBoxLayout;
    titles->setSpacing(0);
    titles->setContentsMargins(0, 2, 0, 0);
    title_ = new LineField(header);
    title_->setObjectName(QStringLiteral("titleField"));
    title_->setAccessibleName(tr("Title of the shoot"));
    title_->setToolTip(tr("Title of the shoot"));
    title_->setFont(textFont(14, QFont::DemiBold));
    title_->setProperty("bare", true);
    connect(title_, &QLineEdit::editingFinished, this, [this] { ++titleVisit_; });
    connect(title_, &QLineEdit::textEdited, this, [this](const QString& text) {
        document_.edit({tr("Rename shoot"), QStringLiteral("title#%1").arg(titleVisit_)},
                       [&](shoot::Shoot& shoot) { shoot.title = text.toStdString(); });
    });
    titles->addWidget(title_);
    state_ = new QLabel(header);
    state_->setObjectName(QStringLiteral("fileState"));
    state_->setProperty("quiet", true);
    state_->setIndent(9);
    titles->addWidget(state_);
    auto* block = new QWidget(header);
    block->setLayout(titles);
    titles_ = block;
    layout->addWidget(block);
    switch_ = new SheetSwitch(header);
    layout->addWidget(switch_, 0, Qt::AlignVCenter);
    rail_ = new StationRail(document_, header);
    constexpr int rail_height = 52;
    rail_->setMinimumHeight(rail_height);
    layout->addWidget(rail_, 1);
    layout->addStretch(0);
    header->setMinimumHeight(rail_height + 2);
    return header;
}

QWidget* MainWindow::buildCards() {
    auto* column = new QWidget(this);
    auto* layout = new QVBoxLayout(column);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    cards_ = new ShotCards(document_, column);
    layout->addWidget(cards_, 1);
    auto* add = new QToolButton(column);
    add->setObjectName(QStringLiteral("addShotButton"));
    add->setAccessibleName(tr("Add a shot"));
    add->setText(tr("+ Add a shot"));
    add->setToolTip(tr("Behind the selected one; Ctrl+Shift+N"));
    add->setProperty("link", true);
    connect(add, &QToolButton::clicked, commands_, &ShotCommands::add);
    layout->addWidget(add);
    column->setFixedWidth(190);
    return column;
}

QWidget* MainWindow::buildCentre() {
    auto* centre = new QWidget(this);
    auto* layout = new QVBoxLayout(centre);
    layout->setContentsMargins(0, 0, 0, 0);
    split_ = new QSplitter(Qt::Vertical, centre);
    split_->setObjectName(QStringLiteral("benchSplit"));
    split_->setHandleWidth(7);
    split_->setChildrenCollapsible(false);
    upper_ = new DrawingArea(document_, chosenLight_, split_);
    split_->addWidget(upper_);
    auto* page = new SheetFrame(split_);
    auto* pageLayout = new QVBoxLayout(page);
    pageLayout->setContentsMargins(2, 2, 2, 2);
    views_ = new StationViews(document_, chosenLight_, *runs_, *proof_, subjects_, page);
    pageLayout->addWidget(views_);
    split_->addWidget(page);
    split_->setStretchFactor(0, 2);
    split_->setStretchFactor(1, 3);
    split_->setSizes({290, 378});
    layout->addWidget(split_, 1);
    return centre;
}

void MainWindow::fillMargin() {
    sidePanel_ = new SidePanel(document_, marginColumn_);
    marginColumn_->layout()->addWidget(sidePanel_);
    connect(sidePanel_, &SidePanel::mendWanted, commands_, &ShotCommands::mend);
    connect(sidePanel_, &SidePanel::putRightWanted, commands_, &ShotCommands::putRight);
    connect(sidePanel_, &SidePanel::handbookWanted, this, [this](const QString& page) { showHandbook(*this, page); });
    connect(sidePanel_, &SidePanel::readingTurned, this, &MainWindow::present);
}

StartPage* MainWindow::start() {
    if (start_) return start_;
    start_ = new StartPage(
        document_, subjects_, [this]() -> Bag& { return bag(); }, this);
    body_->addWidget(start_);
    stylePart(start_);
    connect(start_, &StartPage::shotWanted, commands_, &ShotCommands::add);
    connect(start_, &StartPage::plansWanted, this, [this] {
        goTo(advice::Station::subject);
        static_cast<SubjectPage*>(views_->page(advice::Station::subject))->showPlans();
    });
    connect(start_, &StartPage::left, this, [this] { goTo(advice::Station::subject); });
    connect(start_, &StartPage::openWanted, files_, &ShootFiles::askOpen);
    connect(start_, &StartPage::demoWanted, this, [this] {
        if (files_->mayDropChanges()) openDemo();
    });
    connect(start_, &StartPage::fileWanted, this, [this](const QString& path) {
        if (files_->mayDropChanges()) openFile(path);
    });
    start_->setRecent(ShootFiles::recent());
    return start_;
}

// ---- who hears whom ----------------------------------------------------------------------------------------------

void MainWindow::connectParts() {
    connect(gear_, &GearWindows::problemFound, strip_, &MessageBar::say);
    connect(log_, &LogController::said, strip_, &MessageBar::say);
    connect(writer_, &LogWriter::said, strip_, &MessageBar::say);
    connect(runs_, &RunController::problemFound, strip_, &MessageBar::say);
    connect(proof_, &ProofController::changed, this, [this] {
        if (atProof()) cards_->showProof(proof_);
    });
    connect(files_, &ShootFiles::problemFound, strip_, &MessageBar::say);
    connect(files_, &ShootFiles::told, foot_, &StatusBar::say);
    connect(commands_, &ShotCommands::problemFound, strip_, &MessageBar::say);
    connect(commands_, &ShotCommands::told, foot_, &StatusBar::say);
    connect(commands_, &ShotCommands::added, this, [this] {
        goTo(advice::Station::subject);
        startOf_ = document_.shot()->id;
        goTo(Sheet::shot);
    });
    connect(rail_, &StationRail::chosen, this, qOverload<advice::Station>(&MainWindow::goTo));
    connect(switch_, &SheetSwitch::chosen, this, qOverload<Sheet>(&MainWindow::goTo));
    connect(views_, &StationViews::pageMade, this, &MainWindow::connectPage);
    connect(upper_, &DrawingArea::trainMade, this, &MainWindow::connectTrain);
    connect(upper_, &DrawingArea::finderMade, this, &MainWindow::connectFinder);
    connect(upper_, &DrawingArea::finderShown, this, &MainWindow::divide);
    connect(upper_, &DrawingArea::setupWanted, gear_, &GearWindows::findSetup);
    connect(upper_, &DrawingArea::measureWanted, gear_, &GearWindows::measure);
    connect(upper_, &DrawingArea::kitWanted, this, &MainWindow::showKit);
    connect(upper_->bench(), &BenchView::lightTaken, this, [this] {
        if (rail_->current() == advice::Station::light)
            static_cast<LightPage*>(views_->page(advice::Station::light))->showLights();
    });
}

void MainWindow::connectPage(advice::Station station, StationPage* page) {
    if (auto* tabs = page->findChild<Tabs*>()) connect(tabs, &Tabs::turned, this, &MainWindow::tellTab);
    if (auto* subject = qobject_cast<SubjectPage*>(page)) {
        connect(subject, &SubjectPage::problemFound, strip_, &MessageBar::say);
        connect(subject, &SubjectPage::limitsKept, this, [this](const shoot::Limits& limits) {
            bag().document().edit({tr("Keep the limits")}, [&](shoot::Shoot& bag) { bag.terms.limits = limits; });
        });
    }
    if (auto* depth = qobject_cast<DepthPage*>(page))
        connect(depth, &DepthPage::problemFound, strip_, &MessageBar::say);
    if (auto* proof = qobject_cast<ProofPage*>(page)) {
        connect(proof, &ProofPage::problemFound, strip_, &MessageBar::say);
        connect(proof, &ProofPage::runShown, this, [this] { showRun(true); });
        connect(proof, &ProofPage::reviewWanted, this, [this] {
            goTo(Sheet::book);
            book()->turnToReview();
        });
    }
    auto* run = qobject_cast<RunPage*>(page);
    if (!run) return;
    connect(run, &RunPage::problemFound, strip_, &MessageBar::say);
    connect(run, &RunPage::runShown, this, [this] { showRun(true); });
    connect(run, &RunPage::slicePointsWanted, this, [this, station] {
        upper_->showOwn(station);
        upper_->finder()->finder()->takeSlice();
        upper_->finder()->finder()->setFocus();
    });
}

void MainWindow::connectTrain(TrainDrawing* train) {
    auto* page = static_cast<ReachPage*>(views_->page(advice::Station::reach));
    connect(page, &ReachPage::pieceDragged, train,
            [train](QPoint at) { train->hover(train->mapFromGlobal(QPointF(at))); });
    connect(page, &ReachPage::pieceDropped, train, [train](const std::string& list, const std::string& id, QPoint at) {
        train->drop(list, id, train->mapFromGlobal(QPointF(at)));
    });
}

void MainWindow::connectFinder(FinderPanel* finder) {
    auto* page = static_cast<DepthPage*>(views_->page(advice::Station::depth));
    connect(finder, &FinderPanel::problemFound, strip_, &MessageBar::say);
    const auto saved = [this](const QString& path) {
        foot_->say(tr("Saved %1, with the plan in it").arg(QFileInfo(path).fileName()));
    };
    connect(finder, &FinderPanel::saved, this, saved);
    connect(page, &DepthPage::saved, this, saved);
    connect(page, &DepthPage::planePointsWanted, this, [this, finder] {
        upper_->showOwn(advice::Station::depth);
        finder->finder()->takePlane(true);
        finder->finder()->setFocus();
    });
    connect(finder->finder(), &FinderView::loupeMoved, page, &DepthPage::setLoupe);
    connect(finder->finder(), &FinderView::planeTaken, page, &DepthPage::showPlane);
}

// ---- what is done by hand ----------------------------------------------------------------------------------------

QAction* MainWindow::action(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                            const std::function<void()>& run) {
    auto* made = menu->addAction(text);
    made->setObjectName(QLatin1String(name));
    made->setShortcut(key);
    connect(made, &QAction::triggered, this, run);
    return made;
}

QAction* MainWindow::shotAction(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                                const std::function<void()>& run) {
    shotActions_.push_back(action(menu, name, text, key, run));
    return shotActions_.back();
}

void MainWindow::fillMenus() {
    fillShootMenu(menus_[0]);
    fillEditMenu(menus_[1]);
    fillShotMenu(menus_[2]);
    fillViewMenu(menus_[3]);
    fillHelpMenu(menus_[4]);
}

void MainWindow::fillShootMenu(QMenu* menu) {
    action(menu, "newAction", tr("&New"), QKeySequence::New, [this] {
        if (files_->mayDropChanges()) newShoot();
    });
    action(menu, "openAction", tr("&Open…"), QKeySequence::Open, [this] { files_->askOpen(); });
    recent_ = menu->addMenu(tr("Open &recent"));
    recent_->setToolTipsVisible(true);
    connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    action(menu, "demoAction", tr("Open the &demo"), {}, [this] {
        if (files_->mayDropChanges()) openDemo();
    });
    menu->addSeparator();
    action(menu, "saveAction", tr("&Save"), QKeySequence::Save, [this] { files_->save(); });
    action(menu, "saveAsAction", tr("Save &as…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S),
           [this] { files_->askSaveAs(); });
    menu->addSeparator();
    action(menu, "quitAction", tr("&Quit"), QKeySequence(Qt::CTRL | Qt::Key_Q), [this] { close(); });
}

void MainWindow::fillEditMenu(QMenu* menu) {
    history_ = new QUndoGroup(this);
    history_->addStack(&document_.undoStack());
    history_->setActiveStack(&document_.undoStack());
    auto* undo = history_->createUndoAction(this, tr("&Undo"));
    undo->setObjectName(QStringLiteral("undoAction"));
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = history_->createRedoAction(this, tr("&Redo"));
    redo->setObjectName(QStringLiteral("redoAction"));
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    menu->addActions({undo, redo});
}

void MainWindow::fillShotMenu(QMenu* menu) {
    action(menu, "addShotAction", tr("&Add"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N),
           [this] { commands_->add(); });
    shotAction(menu, "duplicateShotAction", tr("&Duplicate"), QKeySequence(Qt::CTRL | Qt::Key_D),
               [this] { commands_->duplicate(); });
    shotAction(menu, "moveUpAction", tr("Move &up"), QKeySequence(Qt::ALT | Qt::Key_Up),
               [this] { commands_->move(-1); });
    shotAction(menu, "moveDownAction", tr("Move do&wn"), QKeySequence(Qt::ALT | Qt::Key_Down),
               [this] { commands_->move(1); });
    shotAction(menu, "removeShotAction", tr("&Remove"), QKeySequence(Qt::CTRL | Qt::Key_Backspace),
               [this] { commands_->remove(); });
    menu->addSeparator();
    shotAction(menu, "previousShotAction", tr("&Previous"), QKeySequence(Qt::CTRL | Qt::Key_PageUp),
               [this] { commands_->step(-1); });
    shotAction(menu, "nextShotAction", tr("&Next"), QKeySequence(Qt::CTRL | Qt::Key_PageDown),
               [this] { commands_->step(1); });
    menu->addSeparator();
    shotAction(menu, "switchLightAction", tr("&Sun or cloud"), QKeySequence(Qt::Key_W),
               [this] { commands_->switchLight(); });
    cards_->addActions(menu->actions());
}

void MainWindow::fillViewMenu(QMenu* menu) {
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        const auto station = advice::stations[i];
        const auto name = QByteArray("goTo") + advice::station_name(station);
        action(menu, name.constData(), QLatin1String(advice::station_name(station)),
               QKeySequence(Qt::Key_1 + static_cast<int>(i)), [this, station] { goTo(station); });
    }
    menu->addSeparator();
    action(menu, "daySheetAction", tr("The &day"), QKeySequence(Qt::Key_0), [this] { turnTo(Sheet::day); });
    action(menu, "bookSheetAction", tr("The &book"), QKeySequence(Qt::Key_B), [this] { turnTo(Sheet::book); });
    menu->addSeparator();
    shotAction(menu, "findSetupAction", tr("&Find a set-up\u2026"), QKeySequence(Qt::CTRL | Qt::Key_F),
               [this] { gear_->findSetup(); });
    shotAction(menu, "measureAction", tr("&Measure the lens\u2026"), QKeySequence(Qt::CTRL | Qt::Key_M),
               [this] { gear_->measure(); });
    action(menu, "kitRoomAction", tr("&Kit room\u2026"), QKeySequence(Qt::CTRL | Qt::Key_K), [this] { showKit(); });
    menu->addSeparator();
    action(menu, "elevationAction", tr("Bench from &top or side"), QKeySequence(Qt::CTRL | Qt::Key_E),
           [this] { upper_->turnBench(); });
    action(menu, "themeAction", tr("&Dim theme on or off"), QKeySequence(Qt::CTRL | Qt::Key_T),
           [this] { toggleTheme(); });
    fillSizes(menu->addMenu(tr("&Size of everything")));
}

/// Lettering, drawings and what is touched grow together, so that all keeps its place; from the next start on.
void MainWindow::fillSizes(QMenu* menu) {
    auto* sizes = new QActionGroup(this);
    const int now = QSettings().value(size_key, sizes_of_everything.front()).toInt();
    for (const int percent : sizes_of_everything) {
        auto* made = action(menu, qPrintable(QStringLiteral("size%1Action").arg(percent)), tr("%1 %").arg(percent), {},
                            [this, percent] {
                                QSettings().setValue(size_key, percent);
                                foot_->say(tr("All of it is drawn at %1 % from the next start on").arg(percent));
                            });
        made->setCheckable(true);
        made->setChecked(percent == now);
        sizes->addAction(made);
    }
}

void MainWindow::fillHelpMenu(QMenu* menu) {
    action(menu, "readAction", tr("&Read about this"), QKeySequence(Qt::Key_F1), [this] { read(); });
    action(menu, "handbookAction", tr("&Handbook"), QKeySequence(Qt::SHIFT | Qt::Key_F1),
           [this] { showHandbook(*this); });
    action(menu, "keysAction", tr("&Keys and typing"), QKeySequence(Qt::CTRL | Qt::Key_F1),
           [this] { showKeys(*this); });
    action(menu, "aboutAction", tr("&About Poquito"), {}, [this] { showAbout(*this); });
}

void MainWindow::fillRecent() {
    const auto paths = ShootFiles::recent();
    if (start_) start_->setRecent(paths);
    recent_->clear();
    for (const auto& path : paths) {
        auto* entry = recent_->addAction(QFileInfo(path).fileName());
        entry->setToolTip(path);
        connect(entry, &QAction::triggered, this, [this, path] {
            if (files_->mayDropChanges()) openFile(path);
        });
    }
    if (paths.isEmpty()) recent_->addAction(tr("nothing yet"))->setEnabled(false);
}

void MainWindow::toggleTheme() {
    const auto kind = themeKind() == ThemeKind::light ? ThemeKind::dim : ThemeKind::light;
    applyTheme(*qApp, kind);
    QSettings().setValue(QStringLiteral("dim"), kind == ThemeKind::dim);
    refresh();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (!urls.isEmpty() && urls.front().isLocalFile()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList paths;
    for (const auto& url : event->mimeData()->urls())
        if (url.isLocalFile()) paths << url.toLocalFile();
    if (paths.isEmpty()) return;
    event->acceptProposedAction();
    // A shoot, or the picture of a plan, comes alone and away from Proof; all else is frames.
    const QString suffix = QFileInfo(paths.front()).suffix().toLower();
    const bool frame = suffix != QLatin1String("poquito") && (atProof() || suffix != QLatin1String("png"));
    if (paths.size() > 1 || QFileInfo(paths.front()).isDir() || (frame && !ProofController::framesIn(paths).empty()))
        lookAtDropped(paths);
    else
        files_->openInPlace(paths.front());
}

bool MainWindow::atProof() const {
    return sheet_ == Sheet::shot && !runShown_ && rail_->current() == advice::Station::proof;
}

void MainWindow::lookAtDropped(const QStringList& paths) {
    if (document_.count() == 0) return;
    auto files = ProofController::framesIn(paths);
    if (files.empty()) return strip_->say(tr("No frames among what was dropped: JPEG, TIFF, PNG and raw files are."));
    const QString from = toQt(files.front().parent_path().filename().string());
    goTo(advice::Station::proof);
    proof_->takeIn(std::move(files), from);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!files_->mayDropChanges()) return event->ignore();
    QSettings settings;
    settings.setValue(sheet_key, static_cast<int>(sheet_));
    settings.setValue(station_key, static_cast<int>(rail_->current()));
    event->accept();
}

void MainWindow::goToRemembered() {
    const QSettings settings;
    const int station = settings.value(station_key, 0).toInt();
    const int sheet = settings.value(sheet_key, static_cast<int>(Sheet::shot)).toInt();
    if (document_.count() == 0) return;  // its page is the first one
    if (station >= 0 && station < static_cast<int>(advice::stations.size()))
        goTo(advice::stations[static_cast<std::size_t>(station)]);
    for (const auto one : {Sheet::day, Sheet::book})
        if (sheet == static_cast<int>(one)) goTo(one);
}

Bag& MainWindow::bag() { return gear_->bag(); }

bool MainWindow::openFile(const QString& path) {
    sheet_ = Sheet::shot;
    furnish();
    return files_->open(path);
}

bool MainWindow::saveTo(const QString& path) {
    furnish();
    return files_->saveTo(path);
}

void MainWindow::openDemo() {
    sheet_ = Sheet::shot;
    furnish();
    document_.open(demoShoot(), {});
    log_->showMadeUp();
}

void MainWindow::newShoot() {
    sheet_ = Sheet::shot;
    furnish();
    shoot::Shoot shoot = genericShoot();
    shoot.kit = bag().kit();
    shoot.terms.limits = bag().document().shoot().terms.limits;
    document_.open(std::move(shoot), {});
}

void MainWindow::startAutosave(const QDir& folder) {
    furnish();
    files_->startAutosave(folder);
}

// ---- what is shown -----------------------------------------------------------------------------------------------

void MainWindow::goTo(advice::Station station) {
    furnish();
    runShown_ = false;
    startOf_.clear();
    rail_->setCurrent(station);
    views_->show(station);
    upper_->show(station);
    if (sidePanel_) sidePanel_->setStation(station), tellTab();
    goTo(Sheet::shot);
}

void MainWindow::goTo(Sheet sheet) {
    furnish();
    runShown_ = false;
    if (sheet != sheet_) sheetBefore_ = sheet_;
    sheet_ = sheet;
    refresh();  // without a shot there is no day
    auto* focus = sheet_ == Sheet::shot  ? static_cast<QWidget*>(cards_)
                  : sheet_ == Sheet::day ? day_->nextInFocusChain()
                                         : static_cast<QWidget*>(book_);
    if (QWidget* had = focusWidget(); !had || !had->isVisible()) focus->setFocus();
}

void MainWindow::showKit() {
    goTo(Sheet::book);
    book()->turnToKit();
}

void MainWindow::turnTo(Sheet sheet) {
    if (sheet == Sheet::day && document_.count() == 0) return;
    goTo(sheet != sheet_ ? sheet : sheetBefore_ == sheet ? Sheet::shot : sheetBefore_);
}

DaySheet* MainWindow::day() {
    if (day_) return day_;
    day_ = new DaySheet(document_, *runs_, *log_, this);
    body_->addWidget(day_);
    connect(day_, &DaySheet::shotWanted, this, [this] { goTo(Sheet::shot); });
    connect(day_, &DaySheet::addWanted, commands_, &ShotCommands::add);
    connect(day_, &DaySheet::runShown, this, [this] { showRun(true); });
    connect(day_, &DaySheet::problemFound, strip_, &MessageBar::say);
    return day_;
}

BookSheet* MainWindow::book() {
    if (book_) return book_;
    book_ = new BookSheet(document_, bag(), {.writer = *writer_, .runs = *runs_, .proof = *proof_, .bag = bag()}, this);
    body_->addWidget(book_);
    history_->addStack(&bag().document().undoStack());
    connect(&book_->kit(), &KitRoom::sideShown, this, &MainWindow::chooseHistory);
    connect(book_, &BookSheet::turned, this, &MainWindow::chooseHistory);
    connect(book_, &BookSheet::shotWanted, this, [this] { goTo(Sheet::shot); });
    return book_;
}

/// The run fills the window but for the stations: it is read from further away than anything else.
void MainWindow::showRun(bool show) {
    if (show && !running_) {
        running_ = new RunningView(document_, *runs_, this);
        body_->addWidget(running_);
        stylePart(running_);
        connect(running_, &RunningView::leaveWanted, this, [this] { showRun(false); });
    }
    runShown_ = show;
    refresh();
    if (show) running_->setFocus();
}

/// Beside the shot its page; elsewhere the words of what has the keys, or else the handbook's chapter of what is shown.
void MainWindow::read() {
    if (sheet_ == Sheet::shot && !runShown_ && document_.count() > 0) return sidePanel_->turnReading();
    if (WordTips::explain(focusWidget())) return;
    const QWidget* shown = body_->currentWidget();
    const auto* tabs = shown->findChild<Tabs*>();
    showHandbook(*this, tabs ? tabs->currentName() : shown->objectName());
}

/// Which tab of the station is shown, for what is read beside it.
void MainWindow::tellTab() {
    const auto* tabs = views_->page(rail_->current())->findChild<Tabs*>();
    if (sidePanel_) sidePanel_->setTab(tabs ? tabs->currentName() : QString());
}

/// Each division of the height is kept as it was left.
void MainWindow::divide(bool forFinder) {
    (forFinder ? splitElsewhere_ : splitWithFinder_) = split_->saveState();
    const auto& wanted = forFinder ? splitWithFinder_ : splitElsewhere_;
    if (!wanted.isEmpty())
        split_->restoreState(wanted);
    else if (forFinder)
        split_->setSizes({split_->height() * 48 / 100, split_->height() * 52 / 100});
}

/// Shows what is to be shown now, and nothing beside it that belongs to another sheet.
void MainWindow::present() {
    const bool empty = document_.count() == 0;
    if (!document_.shot() || document_.shot()->id != startOf_) startOf_.clear();
    if (empty && sheet_ == Sheet::day) sheet_ = Sheet::shot;
    if (empty) runShown_ = false;
    const bool shot = sheet_ == Sheet::shot && !runShown_ && !empty, starts = empty || !startOf_.empty();
    QWidget* page = runShown_               ? static_cast<QWidget*>(running_)
                    : sheet_ == Sheet::day  ? static_cast<QWidget*>(day())
                    : sheet_ == Sheet::book ? static_cast<QWidget*>(book())
                    : starts                ? static_cast<QWidget*>(start())
                                            : body_->widget(0);
    const bool turned = body_->currentWidget() != page;
    body_->setCurrentWidget(page);
    cardsColumn_->setVisible(shot);
    // Proof is about pictures: the set and the plan's numbers give way to them.
    marginColumn_->setVisible(shot && (!atProof() || (sidePanel_ && sidePanel_->reads())));
    upper_->setVisible(!atProof());
    cards_->showProof(atProof() ? proof_ : nullptr);
    if (turned && shot && !starts && !atProof()) cards_->setFocus();  // and not whatever field comes first
    rail_->setEnabled(!empty);
    rail_->setVisible(sheet_ == Sheet::shot);
    switch_->setReachable(Sheet::day, !empty);
    switch_->setCurrent(sheet_);
    chooseHistory();
}

/// What Ctrl+Z goes back in.
void MainWindow::chooseHistory() {
    const bool kit = sheet_ == Sheet::book && book()->showsKit();
    history_->setActiveStack(kit ? &book()->kit().document().undoStack() : &document_.undoStack());
}

void MainWindow::refresh() {
    present();
    if (sheet_ == Sheet::day) day()->refresh();
    if (sheet_ == Sheet::book && turnedTo_ != sheet_) book()->refresh();
    turnedTo_ = sheet_;
    if (sheet_ == Sheet::shot && start_ && start_->isVisible()) {
        start_->refresh();
    } else if (sheet_ == Sheet::shot) {
        views_->page(rail_->current())->refresh();
        upper_->refresh();
        sidePanel_->refresh();
    }
    for (auto* action : shotActions_) action->setEnabled(document_.shot() != nullptr);
    refreshTitle();
    if (document_.count() == 0) fillRecent();
}

void MainWindow::refreshTitle() {
    const auto title = toQt(document_.shoot().title);
    if (title_->text() != title) {
        title_->setText(title);
        title_->setCursorPosition(0);
    }
    const QString file = document_.path().isEmpty() ? tr("not saved yet") : QFileInfo(document_.path()).fileName();
    state_->setText(document_.isUnsaved() ? tr("%1 · unsaved changes").arg(file) : file);
    state_->setToolTip(document_.path());
    setWindowTitle(tr("%1[*] · Poquito").arg(title));
    setWindowModified(document_.isUnsaved());
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    const bool narrow = event->size().width() < 1180;
    cardsColumn_->setFixedWidth(narrow ? 154 : 190);
    marginColumn_->setFixedWidth(narrow ? 252 : 292);
    titles_->setFixedWidth(narrow ? 212 : 236);
}

}  // namespace poquito::desk

#include "desk/shell/moc_main_window.moc"
