#include "desk/shell/main_window.hpp"

#include "desk/base/caption.hpp"
#include "desk/base/file_dialogs.hpp"
#include "desk/base/theme.hpp"
#include "desk/depth/depth_page.hpp"
#include "desk/finder/finder_panel.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/kit/gear_windows.hpp"
#include "desk/light/light_page.hpp"
#include "desk/proof/proof_page.hpp"
#include "desk/reach/reach_page.hpp"
#include "desk/run/run_desk.hpp"
#include "desk/run/run_page.hpp"
#include "desk/run/running_view.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/set/train_drawing.hpp"
#include "desk/shell/autosave.hpp"
#include "desk/shell/foot_line.hpp"
#include "desk/shell/handbook_window.hpp"
#include "desk/shell/ledger_model.hpp"
#include "desk/shell/ledger_view.hpp"
#include "desk/shell/notes_panel.hpp"
#include "desk/shell/shot_cards.hpp"
#include "desk/shell/station_rail.hpp"
#include "desk/shell/welcome_sheet.hpp"
#include "desk/subject/subject_page.hpp"
#include "shoot/edit.hpp"
#include "storage/atomic_file.hpp"
#include "storage/picture_plan.hpp"
#include "storage/shoot_file.hpp"

#include <QApplication>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QEventLoop>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QStackedWidget>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr int most_recent = 8;
const auto file_filter = QStringLiteral("Poquito shoots and pictures with a plan (*.poquito *.png);;All files (*)");

std::string resource(const QString& name) {
    QFile file(name);
    if (!file.open(QIODevice::ReadOnly)) return {};
    return file.readAll().toStdString();
}

QFrame* sheet(QWidget* parent) {
    auto* frame = new QFrame(parent);
    frame->setProperty("sheet", true);
    return frame;
}

}  // namespace

shoot::Shoot demoShoot() {
    return std::get<shoot::Shoot>(storage::read_shoot(resource(QStringLiteral(":/data/winter-catalogue.poquito"))));
}

shoot::Shoot genericShoot() {
    shoot::Shoot shoot = demoShoot();
    shoot.shots.clear();
    shoot.title = "Untitled shoot";
    return shoot;
}

MainWindow::MainWindow(std::function<shoot::Shoot()> first, QWidget* parent)
    : QMainWindow(parent), first_(std::move(first)) {
    gear_ = new GearWindows(document_, this);
    connect(gear_, &GearWindows::problemFound, this, &MainWindow::say);
    runs_ = new RunDesk(document_, this);
    connect(runs_, &RunDesk::problemFound, this, &MainWindow::say);
    setObjectName(QStringLiteral("mainWindow"));
    setMinimumSize(1024, 660);
    setAcceptDrops(true);
    resize(1280, 800);
    auto* central = new QWidget(this);
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(buildHeader());
    auto* row = new QHBoxLayout;
    row->setContentsMargins(12, 8, 12, 8);
    row->setSpacing(10);
    cardsColumn_ = buildCards();
    row->addWidget(cardsColumn_);
    body_ = new QStackedWidget(central);
    body_->addWidget(buildCentre());
    auto* middle = new QVBoxLayout;
    middle->setSpacing(6);
    middle->addWidget(buildStrip(central));
    middle->addWidget(body_, 1);
    row->addLayout(middle, 1);
    marginColumn_ = buildMargin();
    row->addWidget(marginColumn_);
    column->addLayout(row, 1);
    foot_ = new FootLine(document_, central);
    column->addWidget(foot_);
    setCentralWidget(central);
    for (const auto& name : {tr("&Shoot"), tr("&Edit"), tr("Sho&t"), tr("&View"), tr("&Help")})
        menus_.push_back(menuBar()->addMenu(name));

    cards_->setFocus();  // digits are stations until one enters a field
}

/// The first picture of the window is its paper: what takes time, the shoot and all that shows it, comes right after,
/// or before anything is asked of the window.
void MainWindow::furnish() {
    if (furnished_) return;
    furnished_ = true;
    document_.open(first_(), {});
    buildMenus();
    fillMargin();
    connect(&document_, &Document::shootChanged, this, &MainWindow::refresh);
    connect(&document_, &Document::selected, this, &MainWindow::refresh);
    connect(&document_, &Document::unsavedChanged, this, &MainWindow::refreshTitle);
    above_->show();
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
}

// ---- what stands where -------------------------------------------------------------------------------------------

QWidget* MainWindow::buildHeader() {
    auto* header = new QWidget(this);
    auto* layout = new QHBoxLayout(header);
    layout->setContentsMargins(12, 0, 24, 2);
    layout->setSpacing(12);
    auto* titles = new QVBoxLayout;
    titles->setSpacing(0);
    titles->setContentsMargins(0, 2, 0, 0);
    title_ = new QLineEdit(header);
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
    state_->setIndent(7);
    titles->addWidget(state_);
    auto* block = new QWidget(header);
    block->setLayout(titles);
    block->setFixedWidth(262);
    layout->addWidget(block);
    rail_ = new StationRail(document_, header);
    rail_->setMinimumHeight(52);
    connect(rail_, &StationRail::chosen, this, &MainWindow::goTo);
    layout->addWidget(rail_, 1);
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
    connect(add, &QToolButton::clicked, this, &MainWindow::addShot);
    layout->addWidget(add);
    column->setFixedWidth(190);
    return column;
}

/// Where what went wrong is said, above whatever is shown.
QWidget* MainWindow::buildStrip(QWidget* parent) {
    strip_ = new QWidget(parent);
    auto* strip = new QHBoxLayout(strip_);
    strip->setContentsMargins(8, 4, 8, 4);
    stripText_ = new QLabel(strip_);
    stripText_->setObjectName(QStringLiteral("problemText"));
    stripText_->setProperty("problem", true);
    stripText_->setWordWrap(true);
    stripText_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    strip->addWidget(stripText_, 1);
    auto* close = new QToolButton(strip_);
    close->setText(tr("Dismiss"));
    close->setObjectName(QStringLiteral("dismissProblemButton"));
    close->setAccessibleName(tr("Dismiss the message"));
    connect(close, &QToolButton::clicked, strip_, &QWidget::hide);
    strip->addWidget(close);
    strip_->hide();
    return strip_;
}

QWidget* MainWindow::buildCentre() {
    auto* centre = new QWidget(this);
    auto* layout = new QVBoxLayout(centre);
    layout->setContentsMargins(0, 0, 0, 0);
    split_ = new QSplitter(Qt::Vertical, centre);
    split_->setObjectName(QStringLiteral("benchSplit"));
    split_->setHandleWidth(7);
    split_->setChildrenCollapsible(false);
    auto* benchSheet = sheet(split_);
    auto* benchLayout = new QVBoxLayout(benchSheet);
    benchLayout->setContentsMargins(1, 1, 1, 1);
    above_ = new QStackedWidget(benchSheet);
    above_->hide();
    benchLayout->addWidget(above_);
    bench_ = new BenchView(document_, chosenLight_, above_);
    connect(bench_, &BenchView::lightTaken, this, [this] {
        if (rail_->current() == advice::Station::light)
            static_cast<LightPage*>(pageOf(advice::Station::light))->showLights();
    });
    above_->addWidget(bench_);
    auto* turn = new QToolButton(bench_);
    turn->setObjectName(QStringLiteral("elevationButton"));
    turn->setProperty("link", true);
    const auto nameTurn = [this, turn] {
        const bool side = bench_->elevation() == Elevation::side;
        turn->setText(side ? tr("see from the top") : tr("see from the side"));
        turn->setAccessibleName(turn->text());
        turn->adjustSize();
    };
    nameTurn();
    connect(turn, &QToolButton::clicked, this, [this] {
        bench_->setElevation(bench_->elevation() == Elevation::side ? Elevation::top : Elevation::side);
    });
    connect(bench_, &BenchView::elevationChanged, this, nameTurn);
    auto* corner = new QHBoxLayout(bench_);
    corner->setContentsMargins(0, 4, 8, 0);
    corner->addStretch();
    trainButton_ = new QToolButton(bench_);
    trainButton_->setObjectName(QStringLiteral("trainButton"));
    trainButton_->setText(tr("see the train"));
    trainButton_->setAccessibleName(trainButton_->text());
    trainButton_->setProperty("link", true);
    trainButton_->hide();
    connect(trainButton_, &QToolButton::clicked, this, [this] {
        benchInstead_.erase(rail_->current());
        showAbove();
    });
    corner->addWidget(trainButton_, 0, Qt::AlignTop);
    corner->addWidget(turn, 0, Qt::AlignTop);
    split_->addWidget(benchSheet);

    auto* page = sheet(split_);
    auto* pageLayout = new QVBoxLayout(page);
    pageLayout->setContentsMargins(1, 1, 1, 1);
    sheets_ = new QStackedWidget(page);
    pageLayout->addWidget(sheets_);
    split_->addWidget(page);
    split_->setStretchFactor(0, 2);
    split_->setStretchFactor(1, 3);
    split_->setSizes({290, 378});
    layout->addWidget(split_, 1);
    return centre;
}

QWidget* MainWindow::buildMargin() {
    auto* column = new QWidget(this);
    auto* layout = new QVBoxLayout(column);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    column->setFixedWidth(292);
    return column;
}

void MainWindow::fillMargin() {
    auto* column = marginColumn_;
    auto* layout = static_cast<QVBoxLayout*>(column->layout());
    notes_ = new NotesPanel(document_, column);
    layout->addWidget(notes_);
    ledger_ = new LedgerView(new LedgerModel(document_, column), column);
    layout->addWidget(ledger_, 1);
    connect(notes_, &NotesPanel::wantedHeightChanged, this, &MainWindow::fitNotes, Qt::QueuedConnection);
    fitNotes();
}

void MainWindow::buildWelcome() {
    welcome_ = new WelcomeSheet(this);
    body_->addWidget(welcome_);
    connect(welcome_, &WelcomeSheet::shotWanted, this, &MainWindow::addShot);
    connect(welcome_, &WelcomeSheet::openWanted, this, &MainWindow::askOpen);
    connect(welcome_, &WelcomeSheet::demoWanted, this, [this] {
        if (mayDropChanges()) openDemo();
    });
    connect(welcome_, &WelcomeSheet::fileWanted, this, [this](const QString& path) {
        if (mayDropChanges()) openFile(path);
    });
}

QAction* MainWindow::action(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                            const std::function<void()>& run) {
    auto* made = menu->addAction(text);
    made->setObjectName(QLatin1String(name));
    made->setShortcut(key);
    connect(made, &QAction::triggered, this, run);
    return made;
}

void MainWindow::buildMenus() {
    auto* shoot = menus_[0];
    action(shoot, "newAction", tr("&New"), QKeySequence::New, [this] {
        if (mayDropChanges()) newShoot();
    });
    action(shoot, "openAction", tr("&Open…"), QKeySequence::Open, [this] { askOpen(); });
    recent_ = shoot->addMenu(tr("Open &recent"));
    connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    action(shoot, "demoAction", tr("Open the &demo"), {}, [this] {
        if (mayDropChanges()) openDemo();
    });
    shoot->addSeparator();
    action(shoot, "saveAction", tr("&Save"), QKeySequence::Save, [this] { save(); });
    action(shoot, "saveAsAction", tr("Save &as…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S),
           [this] { askSaveAs(); });
    shoot->addSeparator();
    action(shoot, "quitAction", tr("&Quit"), QKeySequence(Qt::CTRL | Qt::Key_Q), [this] { close(); });

    auto* edit = menus_[1];
    auto* undo = document_.undoStack().createUndoAction(this, tr("&Undo"));
    undo->setObjectName(QStringLiteral("undoAction"));
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = document_.undoStack().createRedoAction(this, tr("&Redo"));
    redo->setObjectName(QStringLiteral("redoAction"));
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    edit->addActions({undo, redo});

    auto* shot = menus_[2];
    action(shot, "addShotAction", tr("&Add"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N), [this] { addShot(); });
    const auto of_shot = [&](QAction* made) { shotActions_.push_back(made); };
    of_shot(action(shot, "duplicateShotAction", tr("&Duplicate"), QKeySequence(Qt::CTRL | Qt::Key_D),
                   [this] { duplicateShot(); }));
    of_shot(action(shot, "moveUpAction", tr("Move &up"), QKeySequence(Qt::ALT | Qt::Key_Up), [this] { moveShot(-1); }));
    of_shot(action(shot, "moveDownAction", tr("Move do&wn"), QKeySequence(Qt::ALT | Qt::Key_Down),
                   [this] { moveShot(1); }));
    of_shot(action(shot, "removeShotAction", tr("&Remove"), QKeySequence(Qt::CTRL | Qt::Key_Backspace),
                   [this] { removeShot(); }));
    shot->addSeparator();
    of_shot(action(shot, "previousShotAction", tr("&Previous"), QKeySequence(Qt::CTRL | Qt::Key_PageUp),
                   [this] { document_.select(document_.current() - 1); }));
    of_shot(action(shot, "nextShotAction", tr("&Next"), QKeySequence(Qt::CTRL | Qt::Key_PageDown),
                   [this] { document_.select(document_.current() + 1); }));
    cards_->addActions(shot->actions());

    auto* view = menus_[3];
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        const auto station = advice::stations[i];
        const auto name = QByteArray("goTo") + advice::station_name(station);
        action(view, name.constData(), QLatin1String(advice::station_name(station)),
               QKeySequence(Qt::Key_1 + static_cast<int>(i)), [this, station] { goTo(station); });
    }
    view->addSeparator();
    of_shot(action(view, "findSetupAction", tr("&Find a set-up\u2026"), QKeySequence(Qt::CTRL | Qt::Key_F),
                   [this] { gear_->findSetup(); }));
    of_shot(action(view, "measureAction", tr("&Measure the lens\u2026"), QKeySequence(Qt::CTRL | Qt::Key_M),
                   [this] { gear_->measure(); }));
    action(view, "kitRoomAction", tr("&Kit room\u2026"), QKeySequence(Qt::CTRL | Qt::Key_K),
           [this] { gear_->openKitRoom(); });
    view->addSeparator();
    action(view, "elevationAction", tr("Bench from &top or side"), QKeySequence(Qt::CTRL | Qt::Key_E),
           [this] { bench_->setElevation(bench_->elevation() == Elevation::side ? Elevation::top : Elevation::side); });
    action(view, "themeAction", tr("&Dim theme on or off"), QKeySequence(Qt::CTRL | Qt::Key_T),
           [this] { toggleTheme(); });

    auto* help = menus_[4];
    action(help, "handbookAction", tr("&Handbook"), QKeySequence(Qt::SHIFT | Qt::Key_F1), [this] { showHandbook(); });
    action(help, "keysAction", tr("&Keys and typing"), QKeySequence(Qt::Key_F1), [this] { showShortcuts(); });
    action(help, "aboutAction", tr("&About Poquito"), {}, [this] {
        QMessageBox::about(this, tr("About Poquito"),
                           tr("<b>Poquito " POQUITO_VERSION "</b><p>Plans, runs and checks close-up photographs.</p>"
                              "<p>Free software under the GNU General Public License, version 3 or later. "
                              "Lettering: Inter, SIL Open Font License 1.1, with tabular figures.</p>"));
    });
}

StationPage* MainWindow::pageOf(advice::Station station) {
    auto& page = pages_[static_cast<std::size_t>(station)];
    if (page) return page;
    const auto make = [&]() -> StationPage* {
        switch (station) {
            case advice::Station::subject: {
                auto* subject = new SubjectPage(document_);
                connect(subject, &SubjectPage::problemFound, this, &MainWindow::say);
                return subject;
            }
            case advice::Station::reach:
                return new ReachPage(document_);
            case advice::Station::depth:
                return new DepthPage(document_);
            case advice::Station::light:
                return new LightPage(document_, chosenLight_);
            case advice::Station::run:
                return buildRun();
            case advice::Station::proof:
                break;
        }
        return new ProofPage(document_);
    };
    page = make();
    page->setObjectName(QLatin1String(advice::station_name(station)) + QLatin1String("Page"));
    auto* scroll = new QScrollArea(sheets_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* inner = new QWidget(scroll);
    auto* layout = new QVBoxLayout(inner);
    layout->setContentsMargins(10, 9, 10, 6);
    layout->addWidget(page);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    sheets_->addWidget(scroll);
    page->refresh();
    return page;
}

void MainWindow::goTo(advice::Station station) {
    furnish();
    if (runShown_) showRun(false);
    rail_->setCurrent(station);
    auto* page = pageOf(station);
    auto* scroll = page->parentWidget()->parentWidget()->parentWidget();
    sheets_->setCurrentWidget(scroll);
    page->refresh();
    showAbove();
    showInLedger();
    QTimer::singleShot(0, this, &MainWindow::showInLedger);  // once more when the notes have taken their room
}

/// The train pulled apart, with what is about gear in its corner; made when one first goes to Reach.
void MainWindow::buildTrain() {
    auto* around = new QWidget(above_);
    auto* layout = new QVBoxLayout(around);
    layout->setContentsMargins(12, 6, 12, 2);
    train_ = new TrainDrawing(document_, around);
    layout->addWidget(train_);
    auto* corner = new QHBoxLayout(train_);
    corner->setContentsMargins(0, 0, 0, 0);
    corner->setSpacing(4);
    corner->addStretch();
    const auto button = [&](const char* name, const QString& label, const QString& tip, const auto& run) {
        auto* made = new QToolButton(train_);
        made->setText(label);
        nameControl(made, {name, label, tip});
        made->setProperty("link", true);
        connect(made, &QToolButton::clicked, this, run);
        corner->addWidget(made, 0, Qt::AlignTop);
    };
    button("searchButton", tr("Find a set-up\u2026"), tr("Every way the kit reaches a size, ranked; Ctrl+F"),
           [this] { gear_->findSetup(); });
    button("calibrateButton", tr("Measure\u2026"), tr("Measured values in the place of the lens record's; Ctrl+M"),
           [this] { gear_->measure(); });
    button("kitButton", tr("Kit room\u2026"), tr("Add, change and remove gear; Ctrl+K"),
           [this] { gear_->openKitRoom(); });
    button("benchButton", tr("see the bench"), tr("The whole set to scale; the other stations always show it"), [this] {
        benchInstead_.insert(advice::Station::reach);
        showAbove();
    });
    above_->addWidget(around);
    auto* page = static_cast<ReachPage*>(pageOf(advice::Station::reach));
    connect(page, &ReachPage::pieceDragged, this,
            [this](QPoint at) { train_->hover(train_->mapFromGlobal(QPointF(at))); });
    connect(page, &ReachPage::pieceDropped, this, [this](const std::string& list, const std::string& id, QPoint at) {
        train_->drop(list, id, train_->mapFromGlobal(QPointF(at)));
    });
}

void MainWindow::buildFinder() {
    finder_ = new FinderPanel(document_, above_);
    above_->addWidget(finder_);
    auto* page = static_cast<DepthPage*>(pageOf(advice::Station::depth));
    connect(finder_, &FinderPanel::benchWanted, this, [this] {
        benchInstead_.insert(rail_->current());
        showAbove();
    });
    connect(finder_, &FinderPanel::problemFound, this, &MainWindow::say);
    connect(page, &DepthPage::problemFound, this, &MainWindow::say);
    const auto saved = [this](const QString& path) {
        foot_->say(tr("Saved %1, with the plan in it").arg(QFileInfo(path).fileName()));
    };
    connect(finder_, &FinderPanel::saved, this, saved);
    connect(page, &DepthPage::saved, this, saved);
    connect(page, &DepthPage::planePointsWanted, this, [this] {
        benchInstead_.erase(advice::Station::depth);
        showAbove();
        finder_->finder()->takePlane(true);
        finder_->finder()->setFocus();
    });
    connect(finder_->finder(), &FinderView::loupeMoved, page, &DepthPage::setLoupe);
    connect(finder_->finder(), &FinderView::planeTaken, page, &DepthPage::showPlane);
}

StationPage* MainWindow::buildRun() {
    auto* page = new RunPage(document_, *runs_);
    connect(page, &RunPage::problemFound, this, &MainWindow::say);
    connect(page, &RunPage::runShown, this, [this] { showRun(true); });
    connect(page, &RunPage::slicePointsWanted, this, [this] {
        benchInstead_.erase(advice::Station::run);
        showAbove();
        finder_->finder()->takeSlice();
        finder_->finder()->setFocus();
    });
    return page;
}

/// The run fills the window but for the stations: it is read from further away than anything else.
void MainWindow::showRun(bool show) {
    if (show && !running_) {
        running_ = new RunningView(document_, *runs_, this);
        body_->addWidget(running_);
        connect(running_, &RunningView::leaveWanted, this, [this] { showRun(false); });
    }
    runShown_ = show;
    if (show) {
        body_->setCurrentWidget(running_);
        cardsColumn_->hide();
        marginColumn_->hide();
        running_->setFocus();
    } else {
        refresh();
    }
}

/// Above the station's sheet: the bench, or the drawing that the station has of its own.
void MainWindow::showAbove() {
    const auto station = rail_->current();
    const bool bench = benchInstead_.contains(station);
    const bool train = station == advice::Station::reach && !bench;
    const bool finder =
        (station == advice::Station::depth || station == advice::Station::light || station == advice::Station::run) &&
        !bench;
    if (train && !train_) buildTrain();
    if (finder && !finder_) buildFinder();
    trainButton_->setText(station == advice::Station::reach ? tr("see the train") : tr("see the finder"));
    trainButton_->setAccessibleName(trainButton_->text());
    trainButton_->setVisible(bench);
    // The finder takes more of the height than a drawing of the set; each division is kept as it was left.
    if (finder != finderShown_) {
        (finderShown_ ? splitWithFinder_ : splitElsewhere_) = split_->saveState();
        const auto& wanted = finder ? splitWithFinder_ : splitElsewhere_;
        if (!wanted.isEmpty())
            split_->restoreState(wanted);
        else if (finder)
            split_->setSizes({split_->height() * 48 / 100, split_->height() * 52 / 100});
        finderShown_ = finder;
    }
    above_->setCurrentWidget(train ? train_->parentWidget() : finder ? static_cast<QWidget*>(finder_) : bench_);
    if (train) train_->refresh();
    if (finder) finder_->refresh();
}

/// The station's own numbers come to the top.
void MainWindow::showInLedger() {
    const auto* model = static_cast<LedgerModel*>(ledger_->model());
    if (const auto index = model->indexOfStation(rail_->current()); index.isValid())
        ledger_->scrollTo(index, QAbstractItemView::PositionAtTop);
}

// ---- what is shown -----------------------------------------------------------------------------------------------

/// Only the sheet on top is refreshed; the others are when one goes there.
void MainWindow::refresh() {
    const bool empty = document_.count() == 0;
    if (empty && !welcome_) buildWelcome();
    if (!runShown_ || empty) {
        body_->setCurrentWidget(empty ? static_cast<QWidget*>(welcome_) : body_->widget(0));
        cardsColumn_->setVisible(!empty);
        marginColumn_->setVisible(!empty);
    }
    rail_->setEnabled(!empty);
    pageOf(rail_->current())->refresh();
    if (train_ && train_->isVisible()) train_->refresh();
    if (finder_ && finder_->isVisible()) finder_->refresh();
    for (auto* action : shotActions_) action->setEnabled(document_.shot() != nullptr);
    refreshTitle();
    if (empty) fillRecent();
}

void MainWindow::refreshTitle() {
    const auto title = QString::fromStdString(document_.shoot().title);
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

void MainWindow::say(const QString& problem) {
    stripText_->setText(problem);
    strip_->setVisible(!problem.isEmpty());
}

/// As tall as they need, but the ledger keeps at least half.
void MainWindow::fitNotes() {
    const int most = std::max(90, marginColumn_->height() * 9 / 20);
    if (notes_) notes_->setFixedHeight(std::min(most, notes_->wantedHeight()));
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    const bool narrow = event->size().width() < 1180;
    cardsColumn_->setFixedWidth(narrow ? 154 : 190);
    marginColumn_->setFixedWidth(narrow ? 252 : 292);
    fitNotes();
}

// ---- files -------------------------------------------------------------------------------------------------------

void MainWindow::newShoot() {
    furnish();
    shoot::Shoot shoot = genericShoot();
    shoot.kit = bag().kit();
    document_.open(std::move(shoot), {});
}

Bag& MainWindow::bag() { return gear_->bag(); }
void MainWindow::openDemo() {
    furnish();
    document_.open(demoShoot(), {});
}

bool MainWindow::openFile(const QString& path) {
    furnish();
    if (path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive)) return restorePicture(path);
    auto loaded = storage::load_shoot(path.toStdString());
    if (const auto* error = std::get_if<storage::ReadError>(&loaded)) {
        say(tr("%1 was not opened. %2")
                .arg(QFileInfo(path).fileName(), QString::fromStdString(storage::message(*error))));
        return false;
    }
    say({});
    document_.open(std::move(std::get<shoot::Shoot>(loaded)), QFileInfo(path).absoluteFilePath());
    remember(document_.path());
    return true;
}

/// The plan in a picture becomes a shot of this shoot: in the place of the one with its id, else behind the selected
/// one.
bool MainWindow::restorePicture(const QString& path) {
    const auto name = QFileInfo(path).fileName();
    const auto bytes = storage::read_file(path.toStdString());
    auto plan = std::holds_alternative<std::string>(bytes) ? storage::plan_in_picture(std::get<std::string>(bytes))
                                                           : std::get<storage::ReadError>(bytes);
    if (const auto* error = std::get_if<storage::ReadError>(&plan)) {
        say(tr("%1 brings no plan. %2").arg(name, QString::fromStdString(storage::message(*error))));
        return false;
    }
    say({});
    shoot::Adopted adopted;
    document_.edit({tr("Restore a plan")}, [&](shoot::Shoot& shoot) {
        const auto after = document_.current() < 0 ? shoot.shots.size() : static_cast<std::size_t>(document_.current());
        adopted = shoot::adopt(shoot, std::get<shoot::Shoot>(plan), after);
    });
    document_.select(static_cast<int>(adopted.index));
    const auto shot = QString::fromStdString(document_.shot()->name);
    foot_->say(adopted.replaced ? tr("\u201c%1\u201d is as %2 has it; Ctrl+Z takes it back").arg(shot, name)
                                : tr("Added \u201c%1\u201d from %2; Ctrl+Z takes it back").arg(shot, name));
    return true;
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (urls.size() == 1 && urls.front().isLocalFile()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const auto path = event->mimeData()->urls().value(0).toLocalFile();
    if (path.isEmpty()) return;
    event->acceptProposedAction();
    const bool picture = path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive);
    if (picture || mayDropChanges()) openFile(path);
}

bool MainWindow::saveTo(const QString& path) {
    furnish();
    if (const auto error = storage::save_shoot(document_.shoot(), path.toStdString())) {
        say(tr("The shoot was not saved, and the file is as it was. %1")
                .arg(QString::fromStdString(storage::message(*error))));
        return false;
    }
    say({});
    document_.setSaved(QFileInfo(path).absoluteFilePath());
    remember(document_.path());
    foot_->say(tr("Saved %1").arg(QFileInfo(path).fileName()));
    return true;
}

bool MainWindow::save() { return document_.path().isEmpty() ? askSaveAs() : saveTo(document_.path()); }

bool MainWindow::askSaveAs() {
    QString suggested = document_.path();
    if (suggested.isEmpty())
        suggested =
            QString::fromStdString(shoot::unique_shot_id({}, document_.shoot().title)) + QStringLiteral(".poquito");
    const QString path = askSavePath(this, tr("Save shoot"), suggested, QStringLiteral("poquito"));
    return !path.isEmpty() && saveTo(path);
}

void MainWindow::askOpen() {
    if (!mayDropChanges()) return;
    const QString path = QFileDialog::getOpenFileName(this, tr("Open shoot"),
                                                      QFileInfo(inDocuments(document_.path())).path(), file_filter);
    if (!path.isEmpty()) openFile(path);
}

/// Asks only: nothing is stopped while something else may still be cancelled.
bool MainWindow::mayEndRun() {
    QMessageBox box(QMessageBox::NoIcon, tr("A run is on"),
                    tr("Stop the run of \u201c%1\u201d? What was taken is kept and logged.")
                        .arg(QString::fromStdString(runs_->plan().shot_name)),
                    QMessageBox::Cancel, this);
    box.setObjectName(QStringLiteral("runQuestion"));
    auto* stop = box.addButton(tr("Stop it"), QMessageBox::AcceptRole);
    box.exec();
    return box.clickedButton() == stop;
}

/// Stops the run and lets what is in the camera's buffer reach the card, while the window goes on answering.
void MainWindow::endRun() {
    QEventLoop loop;
    connect(runs_, &RunDesk::ended, &loop, &QEventLoop::quit);
    runs_->stop();
    if (!runs_->isRunning()) return;
    // Nearly always it takes a moment only; a window that comes and goes would be noise.
    QTimer::singleShot(250, &loop, &QEventLoop::quit);
    loop.exec(QEventLoop::ExcludeUserInputEvents);
    if (!runs_->isRunning()) return;
    QMessageBox box(QMessageBox::NoIcon, tr("Stopping the run"),
                    tr("Stopping. Frames in the camera's buffer still reach the card."), QMessageBox::NoButton, this);
    box.setObjectName(QStringLiteral("stoppingRun"));
    auto* leave = box.addButton(tr("Do not wait"), QMessageBox::RejectRole);
    leave->setToolTip(tr("Frames that have not reached the card count as missing"));
    connect(runs_, &RunDesk::ended, &box, &QDialog::accept);
    box.exec();
    if (runs_->isRunning()) runs_->shutDown();
}

/// What is on belongs to this shoot: a run is stopped and logged before the shoot goes, which is a change to save.
bool MainWindow::mayDropChanges() {
    const bool running = runs_->isRunning();
    if (running && !mayEndRun()) return false;
    const auto answer = running || document_.isUnsaved() ? askToSave() : QMessageBox::Discard;
    if (answer == QMessageBox::Cancel) return false;
    if (running) endRun();
    return answer == QMessageBox::Discard || save();
}

int MainWindow::askToSave() {
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"),
                    tr("Save the changes to “%1”?").arg(QString::fromStdString(document_.shoot().title)),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    box.setObjectName(QStringLiteral("unsavedQuestion"));
    box.setDefaultButton(QMessageBox::Save);
    const int answer = box.exec();
    return answer == QMessageBox::Save || answer == QMessageBox::Discard ? answer : QMessageBox::Cancel;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (mayDropChanges())
        event->accept();
    else
        event->ignore();
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    auto paths = settings.value(QStringLiteral("recent")).toStringList();
    paths.removeAll(path);
    paths.prepend(path);
    settings.setValue(QStringLiteral("recent"), QStringList(paths.mid(0, most_recent)));
}

void MainWindow::fillRecent() {
    const auto paths = QSettings().value(QStringLiteral("recent")).toStringList();
    if (welcome_) welcome_->setRecent(paths);
    recent_->clear();
    for (const auto& path : paths) {
        auto* entry = recent_->addAction(QFileInfo(path).fileName());
        entry->setToolTip(path);
        connect(entry, &QAction::triggered, this, [this, path] {
            if (mayDropChanges()) openFile(path);
        });
    }
    recent_->setToolTipsVisible(true);
    if (paths.isEmpty()) recent_->addAction(tr("nothing yet"))->setEnabled(false);
}

void MainWindow::startAutosave(const QDir& folder) {
    furnish();
    const auto recovered = recoverOrDiscard(folder);
    autosave_ = std::make_unique<Autosave>(document_, folder);
    if (document_.isUnsaved()) autosave_->flush();
    if (recovered) Autosave::discard(*recovered);  // only now that this window's own copy is on the disk
}

/// The newest leftover that can be read, if it was wanted back; the rest wait for the next start.
std::optional<Leftover> MainWindow::recoverOrDiscard(const QDir& folder) {
    for (const auto& leftover : Autosave::leftovers(folder)) {
        auto loaded = storage::load_shoot(leftover.copy.toStdString());
        if (std::holds_alternative<storage::ReadError>(loaded)) continue;
        auto& shoot = std::get<shoot::Shoot>(loaded);
        QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work found"),
                        tr("Poquito ended unexpectedly with unsaved changes to “%1” (%2).\nRecover them?")
                            .arg(QString::fromStdString(shoot.title),
                                 QFileInfo(leftover.copy).lastModified().toString(QStringLiteral("d MMM yyyy hh:mm"))),
                        QMessageBox::Yes | QMessageBox::No, this);
        box.setObjectName(QStringLiteral("recoverQuestion"));
        box.button(QMessageBox::Yes)->setText(tr("Recover"));
        box.button(QMessageBox::No)->setText(tr("Discard"));
        if (box.exec() == QMessageBox::Yes) {
            document_.recover(std::move(shoot), leftover.original);
            return leftover;
        }
        Autosave::discard(leftover);
    }
    return std::nullopt;
}

// ---- shots -------------------------------------------------------------------------------------------------------

void MainWindow::addShot() {
    if (document_.kit().cameras.empty() || document_.kit().lenses.empty())
        return say(tr("The kit has no camera or no lens to plan with: the kit room (Ctrl+K) has a catalogue."));
    std::size_t added = 0;
    const auto after =
        document_.current() < 0 ? document_.shoot().shots.size() : static_cast<std::size_t>(document_.current());
    document_.edit({tr("Add a shot")}, [&](shoot::Shoot& shoot) { added = shoot::add_shot(shoot, after); });
    document_.select(static_cast<int>(added));
    goTo(advice::Station::subject);
}

void MainWindow::duplicateShot() {
    if (!document_.shot()) return;
    std::size_t copy = 0;
    document_.edit({tr("Duplicate shot")}, [&](shoot::Shoot& shoot) {
        copy = shoot::duplicate_shot(shoot, static_cast<std::size_t>(document_.current()));
    });
    document_.select(static_cast<int>(copy));
}

void MainWindow::removeShot() {
    if (!document_.shot()) return;
    const auto name = QString::fromStdString(document_.shot()->name);
    document_.edit({tr("Remove shot")}, [&](shoot::Shoot& shoot) {
        shoot::remove_shot(shoot, static_cast<std::size_t>(document_.current()));
    });
    foot_->say(tr("Removed “%1”; Ctrl+Z brings it back").arg(name));
}

void MainWindow::moveShot(int by) {
    const int from = document_.current(), to = from + by;
    if (from < 0 || to < 0 || to >= document_.count()) return;
    document_.edit({tr("Move shot")}, [&](shoot::Shoot& shoot) {
        shoot::move_shot(shoot, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
    });
    document_.select(to);
}

// ---- the rest ----------------------------------------------------------------------------------------------------

void MainWindow::toggleTheme() {
    const auto kind = themeKind() == ThemeKind::light ? ThemeKind::dim : ThemeKind::light;
    applyTheme(*qApp, kind);
    QSettings().setValue(QStringLiteral("dim"), kind == ThemeKind::dim);
    refresh();
}

void MainWindow::showHandbook() {
    if (!handbook_) handbook_ = new HandbookWindow(this);
    handbook_->show();
    handbook_->raise();
    handbook_->activateWindow();
}

void MainWindow::showShortcuts() {
    QMessageBox box(this);
    box.setObjectName(QStringLiteral("keysHelp"));
    box.setWindowTitle(tr("Keys and typing"));
    box.setTextFormat(Qt::RichText);
    box.setText(
        tr("<p><b>Stations</b> 1 to 6 &nbsp; <b>Shots</b> Ctrl+PageUp, Ctrl+PageDown; Alt+Up and Alt+Down move one</p>"
           "<p><b>Numbers</b> arrow keys and wheel step along the field's own scale, thirds of a stop where there are "
           "any; "
           "Page Up and Page Down step ten. Escape takes back what is half typed.</p>"
           "<p><b>Typing</b> f/5.6 · 1/200 · 2\" (seconds in times, inches in lengths) · 1/8 +0.3 · 3/4\" · 250 um · "
           "3.5 cm · 1:2 · 25 %</p>"
           "<p><b>Ledger</b> a click or Enter opens the working of a number. <b>Bench</b> lights and background are "
           "dragged, a light is turned by the circle on its beam; Ctrl+E turns the bench.</p>"
           "<p><b>Train</b> arrow keys choose a piece, with Shift they move it; Delete takes it off; R turns the lens "
           "round. <b>Gear</b> Ctrl+F finds a set-up, Ctrl+M measures the lens, Ctrl+K opens the kit room.</p>"
           "<p><b>Finder</b> a click focuses there, a drag or the arrow keys (finer with Shift) move the loupe, Enter "
           "focuses "
           "where it is. <b>Ladder</b> and <b>judgement</b> arrow keys choose; Enter takes.</p>"
           "<p><b>Balance</b> arrow keys move the dot by a third of a stop. <b>Freeze</b> F takes the brightest power "
           "that "
           "freezes by its aperture, I by ISO. <b>Test frame</b> Enter opens its picture.</p>"));
    box.exec();
}

}  // namespace poquito::desk
