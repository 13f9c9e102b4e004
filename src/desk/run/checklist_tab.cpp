#include "desk/run/checklist_tab.hpp"

#include "advice/checklist.hpp"
#include "desk/run/checklist_model.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/still_list.hpp"
#include "desk/toolkit/theme.hpp"
#include "desk/toolkit/two_line_delegate.hpp"
#include "shoot/change/edit.hpp"
#include "shoot/change/view_set.hpp"

#include "text/text.hpp"

#include <QComboBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QStandardItemModel>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double speeds[] = {1, 5, 20, 100};

}  // namespace

ChecklistTab::ChecklistTab(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent), runs_(runs), library_(library) {
    auto* left = addColumn(6);
    auto* head = addHeading(left, tr("Before the first frame"));
    progress_ = new QLabel(this);
    progress_->setObjectName(QStringLiteral("checklistProgress"));
    progress_->setProperty("quiet", true);
    head->addWidget(progress_);
    model_ = new ChecklistModel(document, this);
    list_ = new StillList(this);
    list_->setObjectName(QStringLiteral("checklistView"));
    list_->setAccessibleName(tr("Checklist"));
    list_->setToolTip(tr("Space or a click ticks an item off"));
    list_->setModel(model_);
    list_->setItemDelegate(new TwoLineDelegate(26, list_));  // past the tick
    list_->setSpacing(1);
    list_->setUniformItemSizes(false);
    list_->setResizeMode(QListView::Adjust);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    left->addWidget(list_, 1);
    addOwnChecks(left);
    auto* right = addColumn(5);
    addBench(right);
    log_ = new FactsView("runLog", tr("What was exposed"), this);
    right->addWidget(log_, 1);
    connect(&runs_, &RunController::begun, this, &ChecklistTab::showRuns);
    connect(&runs_, &RunController::ended, this, &ChecklistTab::showRuns);
}

// ---- what one looks at oneself -----------------------------------------------------------------------------------

namespace {

enum class OwnFor { shot, kind, every };

}  // namespace

void ChecklistTab::addOwnChecks(QVBoxLayout* column) {
    auto* line = new QHBoxLayout;
    line->setSpacing(5);
    own_ = new QLineEdit(this);
    nameControl(own_, {"ownCheckField", tr("A check of your own"),
                       tr("Enter adds it; the Delete key on its line takes it away again")});
    own_->setPlaceholderText(tr("Add a check of your own"));
    ownFor_ = new QComboBox(this);
    nameControl(ownFor_, {"ownCheckChoice", tr("It is for"), tr("New shots of such subjects begin with it")});
    ownFor_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    ownFor_->setMinimumContentsLength(7);
    own_->setMinimumWidth(60);
    ownFor_->addItem(tr("this shot"));
    ownFor_->addItem(QString());
    ownFor_->addItem(tr("every subject"));
    line->addWidget(own_, 1);
    line->addWidget(ownFor_);
    column->addLayout(line);
    connect(own_, &QLineEdit::returnPressed, this, &ChecklistTab::addOwn);
    list_->installEventFilter(this);
}

void ChecklistTab::addOwn() {
    const QString text = own_->text().simplified();
    if (text.isEmpty() || !document().shot()) return;
    const auto reach = static_cast<OwnFor>(ownFor_->currentIndex());
    const QString kind = reach == OwnFor::kind ? library_.kindOf(*document().shot()) : QString();
    const auto current = static_cast<std::size_t>(document().current());
    document().edit({tr("Add a check")}, [&](shoot::Shoot& shoot) {
        for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
            const bool wanted = i == current || reach == OwnFor::every ||
                                (reach == OwnFor::kind && library_.kindOf(std::as_const(shoot.shots)[i]) == kind);
            if (wanted) shoot::add_check(shoot.shots[i], text.toStdString());
        }
    });
    own_->clear();
    if (reach == OwnFor::shot) return;
    const QString problem = library_.keepCheck(kind, text);
    if (!problem.isEmpty())
        Q_EMIT problemFound(tr("The check is in this shoot, but was not kept for others. %1").arg(problem));
}

void ChecklistTab::removeOwn(int row) {
    const auto& checklist = document().assessment()->advice.checklist;
    if (row < 0 || row >= static_cast<int>(checklist.size())) return;
    const auto& item = checklist[static_cast<std::size_t>(row)];
    const auto own = std::ranges::find_if(document().shot()->own_checks,
                                          [&](const auto& one) { return "own-" + one.id == item.id; });
    if (own == document().shot()->own_checks.end()) return;
    const auto id = own->id, text = own->text;
    document().editShot({tr("Take a check away")}, [&](Shot& shot) {
        std::erase_if(shot.own_checks, [&](const auto& one) { return one.id == id; });
        std::erase(shot.checked, "own-" + id);
    });
    const QString problem = library_.forgetCheck(toQt(text));
    if (!problem.isEmpty()) Q_EMIT problemFound(tr("New shots still begin with that check. %1").arg(problem));
}

bool ChecklistTab::eventFilter(QObject* watched, QEvent* event) {
    if (watched == list_ && event->type() == QEvent::KeyPress &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete) {
        removeOwn(list_->currentIndex().row());
        return true;
    }
    return StationPage::eventFilter(watched, event);
}

// ---- the bench ---------------------------------------------------------------------------------------------------

void ChecklistTab::addBench(QVBoxLayout* column) {
    addHeading(column, tr("On the bench"));
    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(5);
    test_ = addButton(buttons, {"testFramesButton", tr("Test frames"), tr("First, middle and last frame alone")},
                      [this] { begin(true); });
    run_ = addButton(buttons, {"startRunButton", tr("Run"), tr("All frames of this shot, recorded one by one")},
                     [this] { begin(false); });
    see_ = addButton(buttons, {"seeRunButton", tr("Watch the run"), tr("The run that is on, or was last")},
                     [this] { Q_EMIT runShown(); });
    buttons->addStretch();
    column->addLayout(buttons);
    addBroken(column);
    auto* group = addGroup(column, {});
    addPace(group);
    addRehearsal(group);
    addRail(group);
}

QPushButton* ChecklistTab::addButton(QHBoxLayout* row, const Caption& caption, const std::function<void()>& run) {
    auto* made = captionedButton(caption, this);
    connect(made, &QPushButton::clicked, this, run);
    row->addWidget(made);
    return made;
}

/// A run that a crash left.
void ChecklistTab::addBroken(QVBoxLayout* column) {
    broken_ = new QWidget(this);
    auto* strip = new QVBoxLayout(broken_);
    strip->setContentsMargins(0, 2, 0, 2);
    strip->setSpacing(3);
    brokenText_ = new QLabel(broken_);
    brokenText_->setObjectName(QStringLiteral("brokenRunText"));
    brokenText_->setProperty("problem", true);
    brokenText_->setWordWrap(true);
    strip->addWidget(brokenText_);
    auto* ways = new QHBoxLayout;
    addButton(ways, {"goOnButton", tr("Go on"), tr("At the next frame; what was taken stays")}, [this] {
        runs_.goOn(brokenJournal_);
        if (runs_.isRunning()) Q_EMIT runShown();
    });
    addButton(ways, {"logBrokenButton", tr("Only log it"), tr("It stays as it is, and is entered as broken off")},
              [this] { runs_.enterInLog(brokenJournal_), showRuns(); });
    ways->addStretch();
    strip->addLayout(ways);
    column->addWidget(broken_);
}

void ChecklistTab::addRow(QGridLayout* group, const Caption& caption, QWidget* control) {
    const int at = group->rowCount();
    auto* label = new QLabel(caption.label, this);
    label->setBuddy(control);
    label->setToolTip(caption.tip);
    nameControl(control, caption);
    group->addWidget(label, at, 0);
    group->addWidget(control, at, 1);
}

void ChecklistTab::addPace(QGridLayout* group) {
    auto* speed = new QComboBox(this);
    for (const double s : speeds) speed->addItem(s == 1 ? tr("at its true pace") : tr("%1 times faster").arg(s), s);
    speed->setCurrentIndex(std::max(0, speed->findData(runs_.settings().speed)));
    addRow(group,
           {"benchSpeedChoice", tr("Bench runs"), tr("The bench here is simulated; real rails keep their own time")},
           speed);
    connect(speed, &QComboBox::activated, this, [this, speed] {
        auto settings = runs_.settings();
        settings.speed = speed->currentData().toDouble();
        runs_.setSettings(settings);
    });
}

void ChecklistTab::addRehearsal(QGridLayout* group) {
    auto* rehearse = new QComboBox(this);
    constexpr int none = -1, unknown = -2;
    rehearse->addItem(tr("nothing goes wrong"), none);
    rehearse->addItem(tr("something, you are not told what"), unknown);
    for (const auto& one : run::mishap_words()) rehearse->addItem(tr(one.name), static_cast<int>(one.kind));
    addRow(group,
           {"rehearseChoice", tr("Rehearse"),
            tr("In the next run something goes wrong: see when you notice, and what it would have cost")},
           rehearse);
    connect(rehearse, &QComboBox::activated, this, [this, rehearse] {
        auto settings = runs_.settings();
        settings.rehearsed.reset();
        const int wish = rehearse->currentData().toInt();
        if (wish == unknown) settings.rehearsed = Rehearsed{};
        if (wish >= 0) settings.rehearsed = Rehearsed{.kind = static_cast<devices::MishapKind>(wish)};
        runs_.setSettings(settings);
    });
    connect(&runs_, &RunController::begun, rehearse, [this, rehearse] {
        if (!runs_.settings().rehearsed) rehearse->setCurrentIndex(0);  // test frames leave it for the run
    });
}

void ChecklistTab::addRail(QGridLayout* group) {
    auto* line = new QLineEdit(runs_.settings().railLine, this);
    line->setPlaceholderText(tr("simulated"));
    addRow(group,
           {"railLineField", tr("Rail"),
            tr("A serial line such as /dev/ttyACM0 with a motion controller; empty: simulated. "
               "docs/motion-protocol.md says what it has to understand")},
           line);
    connect(line, &QLineEdit::editingFinished, this, [this, line] {
        auto settings = runs_.settings();
        settings.railLine = line->text().trimmed();
        runs_.setSettings(settings);
    });
    auto* dialect = new QLineEdit(runs_.settings().dialectFile, this);
    dialect->setPlaceholderText(tr("built-in commands"));
    addRow(group,
           {"railDialectField", tr("\u2026 speaks"),
            tr("A JSON file with its commands; empty: the built-in ones, see docs/motion-protocol.md")},
           dialect);
    connect(dialect, &QLineEdit::editingFinished, this, [this, dialect] {
        auto settings = runs_.settings();
        settings.dialectFile = dialect->text().trimmed();
        runs_.setSettings(settings);
    });
}

void ChecklistTab::begin(bool tests) {
    std::vector<std::string> ids{document().shot()->id};
    // The plates of a picture are one job: the run goes from each to the next while nothing moves.
    const auto& shots = document().shoot().shots;
    if (const auto& plate = document().shot()->plate; plate && !tests) {
        ids.clear();
        for (const auto i : shoot::plates_of(document().shoot(), plate->picture)) ids.push_back(shots[i].id);
    }
    runs_.start(std::move(ids), tests);
    if (runs_.isRunning()) Q_EMIT runShown();
}

void ChecklistTab::showRuns() {
    const auto broken = runs_.brokenRuns();
    broken_->setVisible(!broken.empty());
    if (!broken.empty()) {
        const auto& run = broken.front();
        brokenJournal_ = run.journal;
        brokenText_->setText(tr("A run of \u201c%1\u201d broke off after %2 of %3 frames. Nothing is lost.")
                                 .arg(run.name)
                                 .arg(run.done)
                                 .arg(run.planned));
    }
    const bool free = !runs_.isRunning() && !runs_.waitsForGear();
    for (auto* start : {test_, run_}) start->setEnabled(free);
    see_->setEnabled(runs_.status().has_value());
}

void ChecklistTab::showShot(const Shot& shot, const plan::Report&) {
    model_->refresh();
    const QString kind = library_.kindOf(shot);
    const auto of_kind = static_cast<int>(OwnFor::kind);
    if (kind.isEmpty() && ownFor_->currentIndex() == of_kind) ownFor_->setCurrentIndex(0);
    const QString words = kind.isEmpty() ? tr("its class: no subject chosen") : tr("every of \u201c%1\u201d").arg(kind);
    if (ownFor_->itemText(of_kind) != words) ownFor_->setItemText(of_kind, words);
    auto* entry = static_cast<QStandardItemModel*>(ownFor_->model())->item(of_kind);
    if (entry->isEnabled() == kind.isEmpty()) entry->setEnabled(!kind.isEmpty());
    if (list_->width() != wrappedAt_) {  // rows are as high as their text is wrapped
        wrappedAt_ = list_->width();
        QTimer::singleShot(0, list_, [this] { list_->doItemsLayout(); });
    }
    const auto& checklist = document().assessment()->advice.checklist;
    const auto ticked =
        std::ranges::count_if(checklist, [&](const auto& item) { return advice::is_ticked(shot, item.id); });
    progress_->setText(tr("%1 of %2").arg(ticked).arg(checklist.size()));
    showRuns();
    std::vector<Fact> facts;
    const auto& runs = shoot::runs_of(document().shoot().runs, shot.id);
    for (auto shared = runs.rbegin(); shared != runs.rend(); ++shared) {
        const auto* run = &**shared;
        const QString end = run->end == shoot::RunEnd::complete  ? tr("complete")
                            : run->end == shoot::RunEnd::stopped ? tr("stopped")
                                                                 : tr("broken off");
        const auto odd = std::ranges::count_if(run->frames, [](const auto& f) { return !f.remark.empty(); });
        QString remark = toQt(run->folder.path().string());
        if (odd > 0) remark = tr("%1 odd; ").arg(odd) + remark;
        if (!run->remark.empty()) remark = toQt(run->remark) + QStringLiteral("; ") + remark;
        facts.push_back({toQt(run->time).replace(QLatin1Char('T'), QLatin1Char(' ')),
                         tr("%1 of %2 frames, %3").arg(run->frames.size()).arg(run->planned).arg(end), remark,
                         run->end == shoot::RunEnd::complete ? theme().focus : theme().caution});
    }
    if (facts.empty()) facts.push_back({tr("Nothing yet"), QString()});
    log_->setFacts(std::move(facts));
}

}  // namespace poquito::desk

#include "desk/run/moc_checklist_tab.moc"
