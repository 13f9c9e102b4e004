#include "desk/shell/main_window.hpp"

#include "desk/book/book_sheet.hpp"
#include "desk/day/day_sheet.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/reading/word_tips.hpp"
#include "desk/run/running_view.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
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
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"

#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QPainter>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QTimer>
#include <QUndoGroup>
#include <QVBoxLayout>
#include <QWidget>

namespace poquito::desk {
namespace {

const auto sheet_key = QStringLiteral("place/sheet"), station_key = QStringLiteral("place/station");

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
