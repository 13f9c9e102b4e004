#include "desk/proof/proof_page.hpp"

#include "advice/look_over.hpp"
#include "desk/proof/coverage_map.hpp"
#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"
#include "desk/proof/light_bars.hpp"
#include "desk/proof/look_over_list.hpp"
#include "desk/proof/proof_model.hpp"
#include "desk/proof/proof_notes.hpp"
#include "desk/proof/sorting_view.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/still_list.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"
#include "desk/toolkit/two_line_delegate.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QComboBox>
#include <QDateTime>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStringList>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {

/// What the correction means in settings, by the lever that moves all light.
QString correction_sentence(const Shot& shot, double correction) {
    if (std::abs(correction) < 0.05) return QObject::tr("The exposure was right.");
    const int thirds = static_cast<int>(std::lround(correction * 3));
    const double iso = step_iso(shot.exposure.iso, thirds);
    if (shot.lights.empty())
        return QObject::tr("Next: %1, or ISO %2.")
            .arg(toQt(shutter_text(step_shutter(shot.exposure.shutter, thirds))), toQt(number_text(iso, 6)));
    return QObject::tr("Next: flash power %1 stops, or ISO %2.").arg(stopsText(correction), toQt(number_text(iso, 6)));
}

}  // namespace

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

// ---- what a person sees ------------------------------------------------------------------------------------------

QWidget* ProofPage::buildByEye() {
    auto* tab = new QWidget(this);
    auto* column = new QVBoxLayout(tab);
    column->setContentsMargins(0, 2, 0, 0);
    column->setSpacing(6);
    auto* head = addHeading(column, tr("Look for, at full size"));
    looked_ = new QLabel(this);
    looked_->setObjectName(QStringLiteral("lookedOver"));
    looked_->setProperty("quiet", true);
    head->addWidget(looked_);
    lookOver_ = new LookOverList(this);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("lookOverView"));
    scroll->setAccessibleName(tr("What to look at in the frames"));
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(lookOver_);
    scroll->viewport()->setAutoFillBackground(false);
    lookOver_->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    connect(lookOver_, &LookOverList::answered, this, &ProofPage::takeAnswers);
    addForm(column);
    return tab;
}

/// What is not so makes the verdict, the correction where it can be told, and what is done about it.
void ProofPage::takeAnswers() {
    const auto wrong = lookOver_->notSo();
    looked_->setText(lookOver_->looked() == 0 ? QString()
                                              : tr("%1 of %2").arg(lookOver_->looked()).arg(lookOver_->count()));
    // A verdict of the person's own stays: only what an answer made goes when the answer does.
    if (const bool had = std::exchange(anyWrong_, !wrong.empty()); had != anyWrong_)
        (anyWrong_ ? redo_ : keep_)->setChecked(true);
    const auto told = std::ranges::find_if(wrong, [](const auto& point) { return point.correction != 0; });
    const double before = std::exchange(told_, told == wrong.end() ? 0 : told->correction);
    if (told_ == before || correction_->value() != before) return;
    correction_->setValue(told_);
    if (const auto* shot = document().shot())
        advice_->setText(told_ == 0 ? QString() : correction_sentence(*shot, told_));
}

void ProofPage::forgetAnswers() {
    told_ = 0;
    anyWrong_ = false;
    lookOver_->forgetAnswers();
    looked_->clear();
}

void ProofPage::addForm(QVBoxLayout* left) {
    auto* group = addGroup(left, {});
    group->setColumnMinimumWidth(0, 0);
    const int top = group->rowCount();  // below the heading
    const auto caption = [&](const QString& label, int row, int column) {
        auto* made = new QLabel(label, this);
        made->setProperty("quiet", true);
        group->addWidget(made, row, column);
        return made;
    };
    const auto field = [&](const Caption& named, Quantity quantity, int column) {
        auto* made = new QuantityField(std::move(quantity), this);
        nameControl(made, named);
        caption(named.label, top, column)->setBuddy(made);
        group->addWidget(made, top, column + 1);
        return made;
    };
    frameCount_ = field({"proofFramesField", tr("Frames"), tr("How many were taken")}, countQuantity(), 0);
    correction_ = field(
        {"proofCorrectionField", tr("Correction"), tr("What the next exposure should differ; positive is brighter")},
        stopsQuantity(), 2);
    frameCount_->setMinimumWidth(50);
    correction_->setMinimumWidth(66);
    correction_->setValue(0);
    keep_ = new QRadioButton(tr("keep"), this);
    keep_->setObjectName(QStringLiteral("keepChoice"));
    redo_ = new QRadioButton(tr("redo"), this);
    redo_->setObjectName(QStringLiteral("redoChoice"));
    keep_->setChecked(true);
    caption(tr("Verdict"), top + 1, 0);
    auto* verdict = new QHBoxLayout;
    verdict->setSpacing(14);
    verdict->addWidget(keep_);
    verdict->addWidget(redo_);
    verdict->addStretch();
    auto* button = captionedButton({"noteProofButton", tr("Note it down"), tr("Into the log below")}, this);
    group->addLayout(verdict, top + 1, 1, 1, 3);
    remark_ = new QLineEdit(this);
    nameControl(remark_, {"remarkField", tr("Remark"), tr("Enter notes it all down")});
    remark_->setPlaceholderText(tr("a remark: clipped? moved?"));
    group->addWidget(remark_, top + 2, 0, 1, 3);
    group->addWidget(button, top + 2, 3);
    connect(button, &QPushButton::clicked, this, &ProofPage::note);
    connect(remark_, &QLineEdit::returnPressed, this, &ProofPage::note);
    advice_ = new Sentence(2, this);
    advice_->setObjectName(QStringLiteral("proofAdvice"));
    left->addWidget(advice_);
    connect(correction_, &QuantityField::valueEdited, this, [this](double value) {
        if (const auto* shot = this->document().shot()) advice_->setText(correction_sentence(*shot, value));
    });
}

QWidget* ProofPage::buildLog() {
    auto* tab = new QWidget(this);
    auto* right = new QVBoxLayout(tab);
    right->setContentsMargins(0, 2, 0, 0);
    right->setSpacing(6);
    auto* bar = addHeading(right, tr("Log of this shot"));
    auto* review = captionedButton({"reviewButton", tr("Review the day"),
                                    tr("Planned and happened, what it cost and what to do otherwise, on a page of the "
                                       "book")},
                                   this);
    connect(review, &QPushButton::clicked, this, &ProofPage::reviewWanted);
    bar->addWidget(review);
    remove_ = new QPushButton(tr("Remove entry"), this);
    remove_->setObjectName(QStringLiteral("removeProofButton"));
    remove_->setAccessibleName(tr("Remove the chosen entry of the log"));
    connect(remove_, &QPushButton::clicked, this, &ProofPage::removeChosen);
    bar->addWidget(remove_);
    model_ = new ProofModel(document(), this);
    log_ = new StillList(this);
    log_->setObjectName(QStringLiteral("proofLog"));
    log_->setAccessibleName(tr("Log of this shot"));
    log_->setModel(model_);
    log_->setItemDelegate(new TwoLineDelegate(4, log_));
    log_->setUniformItemSizes(false);
    log_->setResizeMode(QListView::Adjust);
    log_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    right->addWidget(log_, 1);
    const auto enableRemove = [this] { remove_->setEnabled(log_->selectionModel()->hasSelection()); };
    connect(log_->selectionModel(), &QItemSelectionModel::selectionChanged, this, enableRemove);
    connect(model_, &QAbstractItemModel::modelReset, this, enableRemove);
    enableRemove();
    return tab;
}

void ProofPage::showShot(const Shot& shot, const Report& report) {
    const bool fresh = shot.id != shownShot_;
    if (fresh) {
        // A fresh form for another shot, starting from its plan.
        shownShot_ = shot.id;
        frameCount_->setValue(std::min(report.capture.frames, 1e6));
        correction_->setValue(0);
        remark_->clear();
        keep_->setChecked(true);
        advice_->setText({});
        forgetAnswers();
    }
    lookOver_->setPoints(advice::look_over(document().assessment()->plan, report));
    model_->refresh();
    if (!look() && !runs_.isRunning()) controller_.lookAtRuns(shot.id);
    // Without frames there is one's own eye.
    if (const bool any = look() != nullptr; fresh || any != anyFrames_) {
        anyFrames_ = any;
        tabs_->turnTo(any ? 0 : 1);
    }
    showLook();
}

void ProofPage::note() {
    QStringList remark;
    if (!remark_->text().trimmed().isEmpty()) remark << remark_->text().trimmed();
    QStringList wrong;
    for (const auto& point : lookOver_->notSo()) wrong << toQt(point.name);
    if (!wrong.isEmpty()) remark << tr("not so: %1").arg(wrong.join(QStringLiteral(", ")));
    addEntry(tr("Note what was shot"), {.frames = static_cast<int>(frameCount_->value()),
                                        .correction = correction_->value(),
                                        .verdict = keep_->isChecked() ? Verdict::keep : Verdict::redo,
                                        .remark = remark.join(QStringLiteral("; ")).toStdString()});
    remark_->clear();
    forgetAnswers();
}

void ProofPage::addEntry(const QString& label, shoot::ProofEntry entry) {
    entry.time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document().editShot({label}, [&](Shot& shot) { shot.proof.push_back(std::move(entry)); });
}

void ProofPage::removeChosen() {
    const auto chosen = log_->selectionModel()->selectedRows();
    if (chosen.isEmpty()) return;
    const auto entry = model_->entryOf(chosen.front().row());
    document().editShot({tr("Remove log entry")},
                        [&](Shot& shot) { shot.proof.erase(shot.proof.begin() + static_cast<std::ptrdiff_t>(entry)); });
}

}  // namespace poquito::desk

#include "desk/proof/moc_proof_page.moc"
