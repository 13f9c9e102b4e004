#include "desk/book/practice_tab.hpp"

#include "desk/book/find_error.hpp"
#include "desk/book/practice_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/bag.hpp"
#include "desk/session/document.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/theme.hpp"
#include "log/record.hpp"
#include "plan/stack/step_sizes.hpp"
#include "shoot/change/edit.hpp"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace poquito::desk {

PracticeTab::PracticeTab(Document& document, Controllers controllers, QWidget* parent)
    : QWidget(parent), document_(document), controllers_(controllers) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    row->addWidget(buildList());
    row->addWidget(buildPage(), 1);
    // A run ends inside a signal of its own: the next one begins after it.
    connect(&controllers_.runs, &RunController::ended, this, [this] {
        if (taking_) QTimer::singleShot(0, this, &PracticeTab::takeNext);
    });
    connect(&document_, &Document::shootChanged, this, &PracticeTab::showLaidOut);
    connect(&controllers_.proof, &ProofController::changed, this, [this] {
        if (judging_ && !controllers_.proof.isBusy()) QTimer::singleShot(0, this, &PracticeTab::lookNext);
    });
    connect(&controllers_.runs, &RunController::changed, this, [this] {
        if (taking_) showTaking();
    });
    showExercise();
}

QWidget* PracticeTab::buildList() {
    auto* page = paperOn(this);
    page->setFixedWidth(340);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 10, 10);
    board_ = new PracticeBoard(page);
    column->addWidget(scrollingOn(board_, page), 1);
    connect(board_, &PracticeBoard::exerciseChosen, this, &PracticeTab::showExercise);
    return page;
}

QWidget* PracticeTab::buildPage() {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(18, 12, 18, 12);
    column->setSpacing(10);
    name_ = new QLabel(page);
    name_->setFont(textFont(15, QFont::DemiBold));
    name_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    column->addWidget(name_);
    words_ = new QLabel(page);
    words_->setObjectName(QStringLiteral("practiceWords"));
    words_->setWordWrap(true);
    words_->setTextFormat(Qt::RichText);
    words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    words_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Minimum);
    words_->setMaximumWidth(760);
    column->addWidget(words_);
    auto* row = new QHBoxLayout;
    const auto button = [&](const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, page);
        connect(made, &QPushButton::clicked, this, run);
        row->addWidget(made);
        return made;
    };
    open_ = button({"openExerciseButton", tr("Open as shots"),
                    tr("As shots of this shoot, behind the others: take their "
                       "frames into Proof")},
                   [this] { open(); });
    bench_ = button({"benchExerciseButton", tr("Try it on the bench"),
                     tr("The simulated bench takes the frames: to see what is to come out")},
                    [this] { takeOnBench(); });
    stop_ = button({"stopExerciseButton", tr("Stop"), tr("The bench takes no more; what it took stays")},
                   [this] { stopTaking(); });
    stop_->hide();
    judge_ =
        button({"judgeExerciseButton", tr("Judge the frames"), tr("What its shots have in Proof, or their runs took")},
               [this] { judge(board_->chosen()); });
    away_ = button({"putAwayExerciseButton", tr("Put it away"),
                    tr("Takes the exercise's shots out of this shoot; frames and log stay")},
                   [this] { putAway(); });
    column->addLayout(row);
    said_ = new QLabel(page);
    said_->setObjectName(QStringLiteral("practiceSaid"));
    said_->setWordWrap(true);
    said_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Minimum);
    column->addWidget(said_);
    row->addStretch();
    facts_ = new FactsView("practiceFacts", tr("What the frames say"), page);
    facts_->setMinimumHeight(200);
    facts_->setMaximumWidth(520);
    column->addWidget(facts_);
    column->addLayout(buildKeeping(page));
    pictures_ = new QLabel(page);
    pictures_->setObjectName(QStringLiteral("practicePictures"));
    pictures_->setAccessibleName(tr("What its frames are to look like"));
    column->addWidget(pictures_);
    find_ = new FindError(page);
    find_->hide();
    connect(find_, &FindError::answered, this, &PracticeTab::answer);
    column->addWidget(find_);
    column->addStretch(1);
    return page;
}

/// What a result is good for from now on.
QLayout* PracticeTab::buildKeeping(QWidget* page) {
    auto* row = new QHBoxLayout;
    settingName_ = new QLabel(tr("The camera's step was set to"), page);
    row->addWidget(settingName_);
    setting_ = new QuantityField(ratioQuantity({.least = 1, .greatest = 1000}), page);
    nameControl(setting_, {"dialledSettingField", tr("Step setting"),
                           tr("The number on the camera's scale, 1 for its narrowest steps")});
    setting_->setFixedWidth(60);
    row->addWidget(setting_);
    keep_ = captionedButton(
        {"keepMeasuredButton", tr("Keep it"), tr("For this shoot, and for all that begin from now on")}, page);
    connect(keep_, &QPushButton::clicked, this, [this] { keep(); });
    row->addWidget(keep_);
    row->addStretch();
    return row;
}

void PracticeTab::refresh() {
    controllers_.writer.book().search(
        {.words = "practice", .kind = log::Kind::note, .most = 1000}, this, [this](const LogController::Found& found) {
            done_.clear();
            // Newest first: what came of it last counts, unless it was passed once.
            for (const auto& entry : found.entries) {
                if (entry.what != "practice") continue;
                const bool passed = entry.verdict == "keep";
                auto& result = done_.try_emplace(entry.subject_class, practice::Result::failed).first->second;
                if (passed) result = practice::Result::passed;
            }
            showDone();
        });
    controllers_.writer.book().search(
        {.kind = log::Kind::inspection, .most = 500}, this, [this](const LogController::Found& found) {
            std::map<std::string, int> causes;
            for (const auto& entry : found.entries)
                for (const auto& part : toQt(entry.causes).split(QStringLiteral(", "), Qt::SkipEmptyParts))
                    causes[part.section(QLatin1Char(' '), 0, 0).toStdString()] +=
                        std::max(1, part.section(QLatin1Char(' '), 1).toInt());
            causes_.assign(causes.begin(), causes.end());
            showDone();
        });
}

void PracticeTab::showDone() {
    std::vector<std::string> passed;
    for (const auto& [id, result] : done_)
        if (result == practice::Result::passed) passed.push_back(id);
    const auto* next = practice::next_exercise(causes_, passed);
    board_->setDone(done_, next ? next->id : std::string());
}

void PracticeTab::showExercise() {
    const auto& exercise = board_->chosen();
    name_->setText(QString::fromUtf8(exercise.name));
    auto words = QStringLiteral("<p>%1</p><ol style=\"margin-left:-22px\">")
                     .arg(QString::fromUtf8(exercise.why).toHtmlEscaped());
    for (const auto* one : exercise.lay_out)
        words += QStringLiteral("<li>%1</li>").arg(QString::fromUtf8(one).toHtmlEscaped());
    words_->setText(words + QStringLiteral("</ol>"));
    const bool gear = !document_.kit().cameras.empty() && !document_.kit().lenses.empty();
    for (auto* button : {open_, bench_, judge_}) button->setEnabled(gear);
    outcome_ = {};
    showOutcome();
    showLaidOut();
    pictures_->clear();
    pictures_->show();
    find_->hide();
    hidden_.reset();
    open_->setVisible(!exercise.hidden);
    judge_->setVisible(!exercise.hidden);
    if (gear)
        controllers_.writer.book().drawShots(exercise.shots(document_.kit()), this,
                                             [this, id = exercise.id](const std::vector<std::string>& pictures) {
                                                 if (board_->chosen().id == id) showPictures(pictures);
                                             });
}

/// The frames as they are to come out, side by side; of more than four the first, the last and two between.
void PracticeTab::showPictures(const std::vector<std::string>& pictures) {
    constexpr std::size_t most = 4;
    constexpr int wide = 186, tall = 180, gap = 10;
    const auto count = std::min(most, pictures.size());
    QPixmap sheet(static_cast<int>(count) * (wide + gap), tall);
    sheet.fill(theme().panel);
    QPainter painter(&sheet);
    const auto shots = board_->chosen().shots(document_.kit());
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    for (std::size_t k = 0; k < count; ++k) {
        const auto at = count > 1 ? k * (pictures.size() - 1) / (count - 1) : 0;
        const QRect cell(static_cast<int>(k) * (wide + gap), 0, wide, tall);
        QPixmap one;
        int foot = 0;
        if (one.loadFromData(QByteArray::fromStdString(pictures[at]))) {
            one = one.scaled(wide, tall - 22, Qt::KeepAspectRatio, Qt::SmoothTransformation);
            painter.drawPixmap(cell.topLeft(), one);
            foot = one.height();
        }
        painter.drawText(QRect(cell.left(), foot + 4, wide, 18), Qt::AlignLeft | Qt::AlignVCenter,
                         elided(textFont(11), toQt(shots[at].name), wide));
    }
    pictures_->setPixmap(sheet);
}

std::vector<std::string> PracticeTab::layOut(const practice::Exercise& exercise) {
    const auto shots = exercise.shots(document_.kit());
    std::vector<std::string> ids;
    std::vector<shoot::Shot> fresh;
    for (const auto& shot : shots) {
        ids.push_back(shot.id);
        if (std::ranges::find(document_.shoot().shots, shot.id, &shoot::Shot::id) == document_.shoot().shots.end())
            fresh.push_back(shot);
    }
    if (!fresh.empty())
        document_.edit({tr("Lay out an exercise")}, [&](shoot::Shoot& shoot) {
            for (auto& shot : fresh) shoot.shots.push_back(std::move(shot));
        });
    return ids;
}

void PracticeTab::open() {
    const auto ids = layOut(board_->chosen());
    const auto& shots = document_.shoot().shots;
    const auto first = std::ranges::find(shots, ids.front(), &shoot::Shot::id);
    document_.select(static_cast<int>(first - shots.begin()));
    Q_EMIT shotWanted();
}

void PracticeTab::showLaidOut() {
    const auto& exercise = board_->chosen();
    away_->setVisible(std::ranges::any_of(document_.shoot().shots,
                                          [&](const auto& shot) { return practice::exercise_of(shot) == &exercise; }));
}

/// It is no part of the job: neither of its day nor of what has to be packed.
void PracticeTab::putAway() {
    const auto& exercise = board_->chosen();
    document_.edit({tr("Put an exercise away")}, [&](shoot::Shoot& shoot) {
        for (std::size_t i = shoot.shots.size(); i-- > 0;)
            if (practice::exercise_of(std::as_const(shoot.shots)[i]) == &exercise) shoot::remove_shot(shoot, i);
    });
}

// ---- on the bench ------------------------------------------------------------------------------------------------

void PracticeTab::takeOnBench() {
    if (controllers_.runs.isRunning()) {
        said_->setText(tr("A run is on: let it end first."));
        return;
    }
    waiting_ = layOut(board_->chosen());
    taking_ = &board_->chosen();
    find_->hide();
    hidden_.reset();
    outcome_ = {};
    showOutcome();
    takeNext();
}

void PracticeTab::takeNext() {
    if (!taking_ || controllers_.runs.isRunning()) return;
    if (waiting_.empty()) {
        const auto& exercise = *taking_;
        endTaking();
        if (!exercise.hidden) return judge(exercise);
        // Nobody waits for it any more: the next time another error is hidden.
        if (&exercise == &board_->chosen()) lookThrough();
        return;
    }
    const auto shot = waiting_.front();
    waiting_.erase(waiting_.begin());
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, shot, &shoot::Shot::id);
    if (found == shots.end()) return endTaking();  // taken out meanwhile
    if (taking_->tries > 1)
        controllers_.runs.startTries(shot, static_cast<std::size_t>(taking_->tries));
    else {
        auto settings = controllers_.runs.settings();
        if (taking_->hidden) settings.rehearsed = Rehearsed{.silent = true, .watched = false};
        controllers_.runs.setSettings(settings);
        controllers_.runs.start({shot}, false);
    }
    if (!controllers_.runs.isRunning()) return endTaking();  // it said why
    stop_->show();
    showTaking();
}

/// Which shot the bench is at, and how far; whichever exercise is being read meanwhile.
void PracticeTab::showTaking() {
    const auto status = controllers_.runs.status();
    const auto& shots = document_.shoot().shots;
    const auto shot = std::ranges::find(shots, controllers_.runs.shot(), &shoot::Shot::id);
    if (!status || shot == shots.end() || practice::exercise_of(*shot) != taking_) return;
    const auto of = status->frames.size();
    said_->setText(
        tr("The bench takes %1, frame %2 of %3.").arg(toQt(shot->name)).arg(std::min(status->frame + 1, of)).arg(of));
}

void PracticeTab::endTaking() {
    waiting_.clear();
    taking_ = nullptr;
    stop_->hide();
}

void PracticeTab::stopTaking() {
    endTaking();
    controllers_.runs.stop();
    said_->setText(tr("Stopped. What the bench took so far can be judged, or taken anew."));
}

// ---- an error that is hidden in them -----------------------------------------------------------------------------

void PracticeTab::lookThrough() {
    hidden_ = controllers_.runs.mishap();
    const auto& plan = controllers_.runs.plan();
    QStringList files;
    for (std::size_t i = 0; i < plan.frames.size(); ++i) files << toQt((plan.folder / plan.file_of(i)).string());
    said_->setText(tr("Something happened on the way. What was it, and at which frame does it begin to show?"));
    pictures_->hide();
    find_->show();
    find_->setFrames(files);
}

void PracticeTab::answer(devices::MishapKind kind, int frame) {
    if (!hidden_) return;
    const auto found = run::judge_answer(*hidden_, kind, static_cast<std::size_t>(frame));
    outcome_ = {.result = found.kind && found.place ? practice::Result::passed : practice::Result::failed,
                .said = found.said,
                .facts = {{tr("you said").toStdString(), run::words_of(kind).name},
                          {tr("at frame").toStdString(), std::to_string(frame + 1)}}};
    hidden_.reset();  // known now: the next one is another
    showOutcome();
    enter(board_->chosen(), outcome_);
}

// ---- what the frames say -----------------------------------------------------------------------------------------

void PracticeTab::judge(const practice::Exercise& exercise) {
    looking_ = layOut(exercise);
    judging_ = &exercise;
    lookNext();
}

void PracticeTab::lookNext() {
    if (!judging_ || controllers_.proof.isBusy()) return;
    while (!looking_.empty()) {
        const auto shot = looking_.front();
        const auto* look = controllers_.proof.look(shot);
        if (look && look->inspection) {
            looking_.erase(looking_.begin());
            continue;
        }
        looking_.erase(looking_.begin());
        if (controllers_.proof.lookAtRuns(shot)) return;  // told by changed
    }
    const auto& exercise = *std::exchange(judging_, nullptr);
    std::vector<practice::Series> series;
    const auto& shots = document_.shoot().shots;
    const auto planned = exercise.shots(document_.kit());
    for (const auto& one : planned) {
        const auto found = std::ranges::find(shots, one.id, &shoot::Shot::id);
        const auto* look = controllers_.proof.look(one.id);
        series.push_back(
            {.shot = found == shots.end() ? &one : &*found, .inspection = look ? look->inspection : nullptr});
    }
    const auto outcome = exercise.judge(document_.kit(), series);
    if (outcome.result != practice::Result::open) enter(exercise, outcome);
    // Another one is being read by now: that one's result is in the log, and its tick in the list.
    if (&exercise != &board_->chosen()) {
        said_->setText(tr("The bench is done with \u201c%1\u201d.").arg(QString::fromUtf8(exercise.name)));
        return;
    }
    outcome_ = outcome;
    showOutcome();
}

void PracticeTab::showOutcome() {
    std::vector<Fact> facts;
    facts.reserve(outcome_.facts.size());
    for (const auto& one : outcome_.facts)
        facts.push_back({.name = toQt(one.name), .value = toQt(one.value), .remark = toQt(one.remark)});
    facts_->setVisible(!facts.empty());
    facts_->setFacts(std::move(facts));
    keep_->setVisible(outcome_.limits || outcome_.taught);
    keep_->setText(toQt(outcome_.keep));
    const bool steps = outcome_.taught && outcome_.taught->offer.teaches == proof::Teaches::steps;
    for (QWidget* one : {static_cast<QWidget*>(settingName_), static_cast<QWidget*>(setting_)}) one->setVisible(steps);
    if (steps) showSetting();
    const auto words = toQt(outcome_.said);
    said_->setText(outcome_.result == practice::Result::passed   ? tr("Passed. %1").arg(words)
                   : outcome_.result == practice::Result::failed ? tr("Not yet. %1").arg(words)
                                                                 : words);
}

/// As the plan named it, else the middle of the camera's scale, as the exercise asks for.
void PracticeTab::showSetting() {
    const auto& shots = document_.shoot().shots;
    const auto shot = std::ranges::find(shots, outcome_.taught->shot, &shoot::Shot::id);
    const auto* camera = shot == shots.end() ? nullptr : gear::find_gear(document_.kit().cameras, shot->rig.camera);
    const int most =
        camera && camera->bracket.step_settings > 0 ? camera->bracket.step_settings : plan::usual_step_settings;
    const int middle = (most + 1) / 2;
    const double named = outcome_.taught->offer.reading.setting;
    setting_->setValue(named > 0 ? named : middle);
}

void PracticeTab::keep() {
    if (outcome_.limits) keepLimits();
    if (outcome_.taught) keepTaught();
    showOutcome();
}

/// Into the record of this shoot's gear, and of the bag's where it is the same.
void PracticeTab::keepTaught() {
    auto taught = *std::exchange(outcome_.taught, std::nullopt);
    if (taught.offer.teaches == proof::Teaches::steps) taught.offer.reading.setting = setting_->value();
    const auto time = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    // What was found out is entered in the log as of the shot that is worked on.
    const auto& shots = document_.shoot().shots;
    const auto shot = std::ranges::find(shots, taught.shot, &shoot::Shot::id);
    if (shot != shots.end()) document_.select(static_cast<int>(shot - shots.begin()));
    document_.learn({toQt(outcome_.keep)},
                    [&](shoot::Shoot& shoot) { proof::learn(shoot, taught.shot, taught.offer, time); });
    controllers_.proof.judgeAgain(taught.shot);
}

/// What was measured of the person limits this shoot and those to come.
void PracticeTab::keepLimits() {
    const auto measured = *std::exchange(outcome_.limits, std::nullopt);
    const EditLabel label{tr("Keep what was measured")};
    const auto take = [&](shoot::Shoot& shoot) { shoot.terms.limits = shoot::overlaid(measured, shoot.terms.limits); };
    document_.edit(label, take);
    controllers_.bag.document().edit(label, take);
}

void PracticeTab::enter(const practice::Exercise& exercise, const practice::Outcome& outcome) {
    controllers_.writer.enterPractice(exercise.id, exercise.name, outcome.result == practice::Result::passed,
                                      outcome.said);
    done_[exercise.id] = outcome.result;
    showDone();
}

}  // namespace poquito::desk

#include "desk/book/moc_practice_tab.moc"
