#include "desk/shell/main_window.hpp"

#include "desk/book/book_sheet.hpp"
#include "desk/depth/depth_page.hpp"
#include "desk/finder/finder_panel.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/light/light_page.hpp"
#include "desk/proof/proof_page.hpp"
#include "desk/reach/reach_page.hpp"
#include "desk/run/run_page.hpp"
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
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QSplitter>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

namespace {

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

}  // namespace poquito::desk
