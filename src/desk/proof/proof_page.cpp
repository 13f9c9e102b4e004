#include "desk/proof/proof_page.hpp"

#include "desk/proof/coverage_map.hpp"
#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"
#include "desk/proof/light_bars.hpp"
#include "desk/proof/proof_notes.hpp"
#include "desk/proof/sorting_view.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QComboBox>
#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QStringList>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {}  // namespace

ProofPage::ProofPage(Document& document, ProofController& controller, RunController& runs, QWidget* parent)
    : StationPage(document, parent), controller_(controller), runs_(runs) {
    pages_ = new QStackedWidget(this);
    auto* own = new QWidget(pages_);
    auto* row = new QHBoxLayout(own);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    frames_ = new FramesPanel(document, controller, own);
    row->addWidget(frames_, 1);
    tabs_ = new Tabs(own);
    row->addWidget(tabs_);
    pages_->addWidget(own);
    sorting_ = new SortingView(document, controller, frames_->pictures(), pages_);
    pages_->addWidget(sorting_);
    addDrawing(pages_, 1);
    tabs_->addTab({"findingsTab", tr("What they show"), tr("What the files tell by themselves")}, buildFindings());
    tabs_->addTab({"byEyeTab", tr("By eye"), tr("What to look at yourself, and what to note")}, buildByEye());
    tabs_->addTab({"proofLogTab", tr("Log"), tr("What was noted of this shot")}, buildLog());
    tabs_->turnTo(0);
    // Keys stay with the frames, and not with whatever field comes first.
    connect(tabs_, &Tabs::turned, this, [this] { frames_->view()->setFocus(); });
    constexpr int right_width = 316;
    tabs_->setFixedWidth(right_width);
    connect(&controller, &ProofController::sortingBegun, this, [this] { showSorting(true); });
    connect(sorting_, &SortingView::left, this, [this] { showSorting(false); });
    connect(sorting_, &SortingView::openWanted, this, [this](int sequence) {
        showSorting(false);
        controller_.open(sequence);
    });
    connect(sorting_, &SortingView::verdictGiven, this, &ProofPage::decideSorted);
    connect(frames_, &FramesPanel::sortingWanted, this, [this] { showSorting(true); });
    connect(frames_, &FramesPanel::framesWanted, this, &ProofPage::askFrames);
    connect(frames_, &FramesPanel::folderWanted, this, &ProofPage::askFolder);
    connect(frames_, &FramesPanel::currentChanged, this, &ProofPage::showLook);
    connect(&controller, &ProofController::problemFound, this, &ProofPage::problemFound);
    connect(&controller, &ProofController::changed, this, [this](const QString& shot) {
        if (!isVisible() || shot.toStdString() != shownShot_) return;
        if (!anyFrames_ && look()) anyFrames_ = true, tabs_->turnTo(0);
        showLook();
    });
    connect(&runs, &RunController::changed, this, [this] {
        if (isVisible()) showVerdict(look());
    });
}

// ---- what the frames show ----------------------------------------------------------------------------------------

QWidget* ProofPage::buildFindings() {
    auto* tab = new QWidget(this);
    auto* column = new QVBoxLayout(tab);
    column->setContentsMargins(0, 2, 0, 0);
    column->setSpacing(6);
    buildQuestion(column);
    notes_ = new ProofNotes(tab);
    column->addWidget(notes_, 1);
    mapBox_ = new QWidget(tab);
    auto* box = new QVBoxLayout(mapBox_);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    auto* title = new QLabel(tr("Which frame is sharp where"), mapBox_);
    title->setFont(textFont(12, QFont::DemiBold));
    box->addWidget(title);
    map_ = new CoverageMap(mapBox_);
    constexpr int map_height = 168;
    map_->setFixedHeight(map_height);
    box->addWidget(map_);
    column->addWidget(mapBox_);
    light_ = new LightBars(tab);
    column->addWidget(light_);
    buildVerdict(column);
    connect(notes_, &ProofNotes::chosen, this, &ProofPage::goToNote);
    connect(notes_, &ProofNotes::takeWanted, this, [this](int row) {
        const auto& note = notes_->notes()[static_cast<std::size_t>(row)];
        if (note.again) take(note.planes);
        if (note.offer) learn(*note.offer);
    });
    connect(map_, &CoverageMap::placeChosen, this,
            [this](std::size_t frame, const QRectF& place) { frames_->goTo(frame, place); });
    return tab;
}

void ProofPage::buildQuestion(QVBoxLayout* column) {
    question_ = new QWidget(this);
    question_->setObjectName(QStringLiteral("whoseFrames"));
    auto* box = new QVBoxLayout(question_);
    box->setContentsMargins(0, 0, 0, 4);
    box->setSpacing(4);
    auto* words =
        new QLabel(tr("No shot was planned with their settings, or more than one. Of which are they?"), question_);
    words->setWordWrap(true);
    box->addWidget(words);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    whose_ = new QComboBox(question_);
    nameControl(whose_, {"whoseFramesChoice", tr("Their shot"), tr("They are looked at against its plan")});
    row->addWidget(whose_, 1);
    auto* yes =
        captionedButton({"whoseFramesButton", tr("Of this one"), tr("Not asked again for these frames")}, question_);
    row->addWidget(yes);
    box->addLayout(row);
    column->addWidget(question_);
    connect(yes, &QPushButton::clicked, this, [this] {
        const auto& shots = document().shoot().shots;
        const auto at = whose_->currentIndex();
        if (at < 0 || at >= static_cast<int>(shots.size())) return;
        const auto to = shots[static_cast<std::size_t>(at)].id, from = shownShot_;
        if (to != from) document().select(at);
        controller_.belong(from, to);
    });
}

void ProofPage::showQuestion(const ProofLook* now) {
    const bool asked = now && now->frames.unsure;
    // Filled once a shot, so that a choice is not lost while they are looked at, and none of another shot stays.
    if (asked && askedOf_ != shownShot_) {
        whose_->clear();
        for (const auto& shot : document().shoot().shots) whose_->addItem(toQt(shot.name));
        whose_->setCurrentIndex(document().current());
    }
    askedOf_ = asked ? shownShot_ : std::string();
    question_->setVisible(asked);
}

void ProofPage::buildVerdict(QVBoxLayout* column) {
    verdict_ = new Sentence(2, this);
    verdict_->setObjectName(QStringLiteral("proofVerdict"));
    column->addWidget(verdict_);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    take_ = captionedButton({"takeAgainButton", tr("Take them"), tr("A run of just these frames, on the bench")}, this);
    keepShot_ = captionedButton({"keepShotButton", tr("Keep"), tr("Into the log: these are kept; K")}, this);
    redoShot_ =
        captionedButton({"redoShotButton", tr("Redo"), tr("Into the log: to be taken again, and why; R")}, this);
    aside_ = captionedButton({"setAsideButton", tr("Aside"),
                              tr("Moves this frame into a folder \u201cset aside\u201d beside it, never deleted; A. "
                                 "Shift+A brings the last one back")},
                             this);
    row->addWidget(take_, 1);
    for (auto* button : {keepShot_, redoShot_, aside_}) row->addWidget(button);
    column->addLayout(row);
    connect(take_, &QPushButton::clicked, this, [this] {
        const auto* now = look();
        if (now && now->inspection) take(proof::planes_to_take(now->notes, *now->inspection));
    });
    connect(keepShot_, &QPushButton::clicked, this, [this] { keepLook(true); });
    connect(redoShot_, &QPushButton::clicked, this, [this] { keepLook(false); });
    connect(aside_, &QPushButton::clicked, this, &ProofPage::setAside);
}

const ProofLook* ProofPage::look() const { return controller_.look(shownShot_); }

void ProofPage::showLook() {
    const auto* now = look();
    frames_->refresh();
    showQuestion(now);
    const int said = now ? now->said : 0;
    if (said != shownNotes_) {
        shownNotes_ = said;
        notes_->setNotes(now ? now->notes : std::vector<proof::Note>());
        map_->setInspection(now ? now->inspection : nullptr);
        if (!notes_->notes().empty() && notes_->notes().front().tone <= proof::Tone::caution) {
            notes_->setCurrentIndex(notes_->model()->index(0, 0));
            frames_->mark(0);
        } else {
            frames_->mark(-1);
        }
    }
    mapBox_->setVisible(map_->hasTiles());
    const auto at = frames_->current();
    map_->setCurrent(at);
    const bool known = now && at < now->facts.size() && now->facts[at] && now->facts[at]->scan;
    light_->setScan(known ? now->facts[at]->scan : nullptr);
    light_->setVisible(known);
    showVerdict(now);
}

void ProofPage::showVerdict(const ProofLook* now) {
    const bool judged = now && now->inspection;
    const auto planes = judged ? proof::planes_to_take(now->notes, *now->inspection) : std::vector<double>();
    const bool single =
        judged && now->inspection->frames.size() == 1 && std::ranges::any_of(now->notes, &proof::Note::again);
    const auto count = single ? std::size_t{1} : planes.size();
    const double each = document().report() ? document().report()->capture.cost.cadence.frame : 0;
    const auto frames_words = toQt(text::count_text(static_cast<double>(count), "frame", "frames"));
    QString words;
    if (!now || now->frames.files.empty()) {
        words = tr("No frames of this shot yet. Drop them on the picture, or choose them below it.");
    } else if (!judged) {
        words = now->running ? tr("Looking\u2026 gaps, ends and movement are told when all are read.")
                             : tr("Not all was looked at.");
    } else {
        switch (now->summary.outcome) {
            case proof::Outcome::whole:
                words =
                    now->inspection->stack ? tr("Whole. The set can come down.") : tr("Good. The set can come down.");
                break;
            case proof::Outcome::look:
                words = tr("Look before you keep it: %1.").arg(toQt(now->summary.why));
                break;
            case proof::Outcome::mendable:
                words = count > 0 ? tr("Mend it while the set stands: %1, about %2.")
                                        .arg(frames_words, toQt(text::time_text(each * static_cast<double>(count))))
                                  : tr("Mend it while the set stands: %1.").arg(toQt(now->summary.why));
                break;
            case proof::Outcome::hopeless:
                words = tr("More of it is wrong than right: put it right, and take it all again.");
                break;
        }
    }
    verdict_->setText(words);
    take_->setVisible(count > 0);
    take_->setText(tr("Take %1").arg(frames_words));
    take_->setEnabled(!runs_.isRunning());
    for (auto* button : {keepShot_, redoShot_, aside_}) button->setEnabled(judged);
}

void ProofPage::take(const std::vector<double>& planes) {
    if (runs_.isRunning()) return Q_EMIT problemFound(tr("The bench is at another run."));
    runs_.retake(shownShot_, planes);
    if (runs_.isRunning()) Q_EMIT runShown();
}

/// What the frames teach, into kit or shot: because it was asked for.
void ProofPage::learn(std::size_t offer) {
    const auto* now = look();
    const auto* shot = document().shot();
    if (!now || !shot || shot->id != shownShot_ || offer >= now->offers.size()) return;
    const auto taken = now->offers[offer];
    const auto time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document().learn({toQt(taken.action)}, [&](shoot::Shoot& shoot) { proof::learn(shoot, shownShot_, taken, time); });
    controller_.judgeAgain(shownShot_);
}

void ProofPage::goToNote(int row) {
    const auto& note = notes_->notes()[static_cast<std::size_t>(row)];
    frames_->mark(row);
    if (note.place && !note.frames.empty())
        frames_->goTo(note.frames.front(), QRectF(note.place->x, note.place->y, note.place->width, note.place->height));
    else if (!note.frames.empty())
        frames_->goTo(note.frames.front());
}

/// Into the log, with what was found.
void ProofPage::keepLook(bool keep) {
    const auto* now = look();
    if (!now || !now->inspection) return;
    QStringList why;
    for (const auto& one : now->notes)
        if (one.tone <= proof::Tone::caution) why << toQt(one.text).section(QLatin1Char('.'), 0, 0);
    addEntry(keep ? tr("Keep the frames") : tr("Redo the frames"),
             {.frames = static_cast<int>(now->frames.files.size()),
              .verdict = keep ? Verdict::keep : Verdict::redo,
              .remark = why.mid(0, 3).join(QStringLiteral("; ")).toStdString()});
}

/// Into the log of the shot that they are of, whichever is selected.
void ProofPage::decideSorted(int sequence, bool keep) {
    const auto* chosen = controller_.sequence(sequence);
    const auto shot = chosen ? controller_.placeOf(chosen->shot) : std::nullopt;
    if (!shot) return;
    const auto& row = chosen->sorted;
    const shoot::ProofEntry entry{.time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(),
                                  .frames = static_cast<int>(row.sequence.files.size()),
                                  .verdict = keep ? Verdict::keep : Verdict::redo,
                                  .remark = row.summary.why};
    document().edit({keep ? tr("Keep the frames") : tr("Redo the frames")},
                    [&](shoot::Shoot& shoot) { shoot.shots[static_cast<std::size_t>(*shot)].proof.push_back(entry); });
    controller_.decide(sequence, keep ? ProofController::Decision::kept : ProofController::Decision::redo);
}

void ProofPage::showSorting(bool show) {
    pages_->setCurrentIndex(show ? 1 : 0);
    if (show) {
        sorting_->refresh();
        sorting_->setFocus();
    } else {
        showLook();
        frames_->view()->setFocus();
    }
}

void ProofPage::setAside() {
    const auto* now = look();
    if (now && !now->frames.files.empty()) controller_.setAside(shownShot_, frames_->current());
}

void ProofPage::keyPressEvent(QKeyEvent* event) {
    if (pages_->currentWidget() == sorting_) return StationPage::keyPressEvent(event);
    if (frames_->take(event)) return;
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    if (plain && event->key() == Qt::Key_K) return keepLook(true);
    if (plain && event->key() == Qt::Key_R) return keepLook(false);
    if (plain && event->key() == Qt::Key_A) {
        if (event->modifiers() & Qt::ShiftModifier)
            controller_.bringBack();
        else
            setAside();
        return;
    }
    StationPage::keyPressEvent(event);
}

void ProofPage::showEvent(QShowEvent* event) {
    StationPage::showEvent(event);
    if (pages_->currentWidget() == sorting_)
        sorting_->setFocus();
    else
        frames_->view()->setFocus();
}

void ProofPage::askFrames() {
    const auto files = QFileDialog::getOpenFileNames(this, tr("Frames of this shot"), inDocuments(QString()),
                                                     tr("Frames (*.jpg *.jpeg *.tif *.tiff *.png *.dng *.cr2 *.cr3 "
                                                        "*.nef *.arw *.raf *.rw2 *.orf *.pef);;All files (*)"));
    if (files.isEmpty()) return;
    controller_.takeIn(ProofController::framesIn(files), QFileInfo(files.front()).dir().dirName());
}

void ProofPage::askFolder() {
    const auto folder =
        QFileDialog::getExistingDirectory(this, tr("Folder that frames come into"), inDocuments(QString()));
    if (!folder.isEmpty()) controller_.watch(folder);
}

}  // namespace poquito::desk

#include "desk/proof/moc_proof_page.moc"
