#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"

#include "day/order.hpp"
#include "job/locks.hpp"
#include "plan/plan.hpp"
#include "shoot/change/edit.hpp"
#include "text/stored_path.hpp"

#include <QRandomGenerator>
#include <QSettings>
#include <QStandardPaths>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {

BenchSettings BenchSettings::stored() {
    const QSettings store;
    BenchSettings settings;
    settings.speed = std::clamp(store.value(QStringLiteral("bench/speed"), 1.0).toDouble(), 0.1, 1000.0);
    settings.railLine = store.value(QStringLiteral("bench/railLine")).toString();
    settings.dialectFile = store.value(QStringLiteral("bench/dialect")).toString();
    return settings;
}

void BenchSettings::store() const {
    QSettings store;
    store.setValue(QStringLiteral("bench/speed"), speed);
    store.setValue(QStringLiteral("bench/railLine"), railLine);
    store.setValue(QStringLiteral("bench/dialect"), dialectFile);
}

RunController::RunController(Document& document, QObject* parent)
    : QObject(parent), document_(document), folder_(defaultFolder()), settings_(BenchSettings::stored()) {
    const auto look = [this] {
        told_ = false;
        if (!session_) return;
        last_ = session_->runner().status();
        Q_EMIT changed();
    };
    tick_.setInterval(250);
    connect(&tick_, &QTimer::timeout, this, look);
    connect(this, &RunController::told, this, look, Qt::QueuedConnection);
    connect(
        this, &RunController::ranThrough, this,
        [this](int run) {
            if (run == run_ && session_) finished();  // else it was shut down, and another may be on
        },
        Qt::QueuedConnection);
}

RunController::~RunController() {
    if (session_) session_->runner().abandon();
}

void RunController::shutDown() {
    queue_.clear();
    if (!session_) return;
    session_->runner().abandon();
    ++run_;
    finished();
}

void RunController::setFolder(const QDir& folder) {
    folder_ = folder;
    brokenRead_ = {};
}

QDir RunController::defaultFolder() {
    return {QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/runs")};
}

void RunController::setSettings(const BenchSettings& settings) {
    settings_ = settings;
    settings_.store();
}

const plan::Plan* RunController::planOf(const std::string& id) const {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, id, &shoot::Shot::id);
    return found == shots.end() ? nullptr : &document_.assessment(static_cast<int>(found - shots.begin())).plan;
}

const shoot::Shot* RunController::find(const std::string& id) const {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, id, &shoot::Shot::id);
    return found == shots.end() ? nullptr : &*found;
}

QString RunController::nextShot() const {
    const auto* shot = queue_.empty() ? nullptr : find(queue_.front());
    return shot ? toQt(shot->name) : QString();
}

// ---- beginning ---------------------------------------------------------------------------------------------------

void RunController::start(std::vector<std::string> shots, bool tests) {
    if (session_) return;
    queue_ = std::move(shots);
    tests_ = tests;
    startNext();
}

void RunController::startNext() {
    change_.clear();
    const plan::Plan* plan = nullptr;
    for (; !plan && !queue_.empty(); queue_.erase(queue_.begin())) plan = planOf(queue_.front());  // some are removed
    if (!plan) return;
    auto bench = devices();
    mishap_.reset();
    rehearsal_.reset();
    notices_.clear();
    if (!tests_) bench.mishaps = mishapsOf(*plan);
    launch(run::Session::begin({.plan = *plan, .tests = tests_},
                               {.journals = folder_.path().toStdString(), .frames_apart = true}, bench));
}

/// What is to go wrong in the next run; once.
std::vector<devices::Mishap> RunController::mishapsOf(const plan::Plan& planned) {
    if (!settings_.rehearsed) return {};
    const auto wish = *std::exchange(settings_.rehearsed, std::nullopt);
    const auto plan = run::make_run_plan(planned, "rehearsal", {});
    const auto seed = seed_.value_or(QRandomGenerator::global()->generate64());
    watched_ = wish.watched;
    if (!wish.exactly.empty()) {
        mishap_ = wish.exactly.front();
        return wish.exactly;
    }
    mishap_ = wish.kind ? run::sized_mishap(planned.kit, planned.shot, plan, *wish.kind, plan.frames.size() / 2)
                        : run::draw_mishap(planned.kit, planned.shot, plan, seed, wish.silent);
    return {*mishap_};
}

/// A run by itself: nothing waits behind it, and nothing is to go wrong.
void RunController::beginAlone() {
    queue_.clear();
    tests_ = false;
    mishap_.reset();
}

void RunController::startTries(const std::string& id, std::size_t tries) {
    const auto* plan = planOf(id);
    if (session_ || !plan) return;
    beginAlone();
    // Large enough for what is sharp to be told from what is not.
    constexpr int most = 3000;  // pixels; beyond it one waits for each too long
    auto settings = devices();
    const double needed = std::ceil(plan->sensor.width / plan::blur_limit(*plan));
    settings.picture_width = std::max(settings.picture_width, static_cast<int>(std::min<double>(needed, most)));
    launch(run::Session::begin({.plan = *plan, .tries = tries},
                               {.journals = folder_.path().toStdString(), .frames_apart = true}, settings));
}

void RunController::retake(const std::string& id, const std::vector<double>& planes) {
    const auto* plan = planOf(id);
    if (session_ || !plan) return;
    beginAlone();
    launch(run::Session::begin({.plan = *plan, .again = planes},
                               {.journals = folder_.path().toStdString(), .frames_apart = true}, devices()));
}

void RunController::goOn(const QString& path) {
    if (session_) return;
    beginAlone();
    launch(run::Session::go_on(text::StoredPath::of_text(path.toStdString()).path(), document_.shoot(), devices()));
}

void RunController::enterInLog(const QString& path) {
    auto journal = run::Journal::resume(text::StoredPath::of_text(path.toStdString()).path());
    if (!journal) return Q_EMIT problemFound(toQt(text::message(journal.error())));
    const auto read = run::read_journal(text::StoredPath::of_text(path.toStdString()).path());
    if (!read) return Q_EMIT problemFound(toQt(text::message(read.error())));
    journal->ended(shoot::RunEnd::broken);
    brokenRead_ = {};
    log(*read);
    Q_EMIT changed();
}

devices::DeviceSettings RunController::devices() const {
    return {.speed = settings_.speed,
            .rail_line = settings_.railLine.toStdString(),
            .dialect_file = settings_.dialectFile.toStdString(),
            .picture_width = settings_.pictureWidth,
            .mishaps = {}};
}

void RunController::launch(run::Session::Made made) {
    if (!made) {
        queue_.clear();
        return Q_EMIT problemFound(toQt(text::message(made.error())));
    }
    brokenRead_ = {};
    session_ = std::move(*made);
    plan_ = session_->plan();
    tests_ = session_->is_test();
    last_ = session_->runner().status();
    bench_.add([this, session = session_.get(), run = ++run_] {
        session->run([this] {
            // Many changes between two paintings are told once.
            if (!told_.exchange(true)) Q_EMIT told();
        });
        Q_EMIT ranThrough(run);
    });
    tick_.start();
    Q_EMIT begun();
}

// ---- ending ------------------------------------------------------------------------------------------------------

void RunController::finished() {
    bench_.wait();
    tick_.stop();
    brokenRead_ = {};
    last_ = session_->runner().status();
    const auto state = session_->runner().state();
    session_.reset();
    if (isRehearsal()) {
        queue_.clear();                      // of this shot alone
        constexpr double usual_setup = 600;  // s to lay a shot out anew, where nobody said (common practice)
        const auto* shot = find(state.plan.shot);
        rehearsal_ = run::report_rehearsal(state, *mishap_, notices_,
                                           shot ? shot->timing.handling.value_or(usual_setup) : usual_setup);
        Q_EMIT rehearsed(toQt(state.plan.shot_name), rehearsal_->in_time,
                         toQt(rehearsal_->happened + " " + rehearsal_->noticed + " " + rehearsal_->cost));
    }
    log(state);
    if (last_->phase != run::Phase::complete) queue_.clear();
    changed_.clear();
    if (!queue_.empty())
        if (const auto* done = find(state.plan.shot), *next = find(queue_.front()); done && next) {
            changed_ = day::only_change(day::change_between(*done, *next));
            waiting_.start();
            change_ = done->plate && next->plate && done->plate->picture == next->plate->picture
                          ? tr("Camera, focus and table stay as they are. %1: %2")
                                .arg(toQt(next->plate->picture), QLatin1String(job::role_work(next->plate->role)))
                          : tr("Change %1").arg(toQt(day::change_text(day::change_between(*done, *next))));
        }
    Q_EMIT ended();
    Q_EMIT changed();
}

/// What was really exposed, in the shot's record; a run that was gone on with takes the place of its first part.
void RunController::log(const run::RunState& state) {
    const auto record = run::log_entry(state);
    if (record.frames.empty() && record.end != shoot::RunEnd::complete) return;
    if (!find(state.plan.shot)) return;
    document_.edit({tr("Log the run")}, [&](shoot::Shoot& shoot) { shoot::log_run(shoot, state.plan.shot, record); });
}

// ---- while it runs -----------------------------------------------------------------------------------------------

void RunController::notice(std::optional<devices::MishapKind> taken_for) {
    if (!isRehearsal() || !session_) return;
    const auto status = session_->runner().status();
    notices_.push_back({.frame = status.frame, .taken_for = taken_for});
    Q_EMIT changed();
}

/// Who pauses, stops or goes back where the bench itself has nothing to say has seen something.
void RunController::reactedTo() {
    if (session_ && isRehearsal() && session_->runner().status().problem.empty()) notice(std::nullopt);
}

void RunController::pause() {
    reactedTo();
    if (session_) session_->runner().pause();
}

void RunController::resume() {
    if (session_) return session_->runner().resume();
    // One thing changed between two shots: so long it took. Of several nobody knows which took what.
    if (!changed_.empty() && waiting_.isValid())
        Q_EMIT gearChanged(changed_, toQt(queue_.front()), static_cast<double>(waiting_.elapsed()) / 1000);
    startNext();
}

void RunController::stop() {
    reactedTo();
    queue_.clear();
    if (session_) return session_->runner().stop();
    change_.clear();
    Q_EMIT changed();
}

void RunController::skip() {
    if (session_) session_->runner().skip();
}

void RunController::redoFrom(std::size_t frame) {
    reactedTo();
    if (session_) session_->runner().redo_from(frame);
}

std::optional<run::RunStatus> RunController::status() const { return last_; }

std::vector<BrokenRun> RunController::brokenRuns() const {
    std::vector<BrokenRun> runs;
    if (session_) return runs;
    // Asked with every edit; journals are read when one came or went.
    const auto changed = QFileInfo(folder_.path()).lastModified();
    if (!brokenRead_.isValid() || changed != brokenRead_) {
        brokenRead_ = changed;
        broken_.clear();
        const auto found = run::unfinished_runs(folder_.path().toStdString());
        for (const auto& error : found.unreadable) {
            const auto words = tr("A run's journal cannot be read. %1").arg(toQt(text::message(error)));
            if (unread_.contains(words)) continue;
            unread_ << words;
            Q_EMIT problemFound(words);  // once, whoever asks first
        }
        for (const auto& path : found.journals) {
            if (run::run_is_on(path)) continue;  // in another window
            const auto read = run::read_journal(path);
            if (read)
                broken_.push_back({.journal = toQt(text::StoredPath(path).text()),
                                   .shot = read->plan.shot,
                                   .name = toQt(read->plan.shot_name),
                                   .done = read->done(),
                                   .planned = read->frames.size()});
        }
    }
    std::ranges::copy_if(broken_, std::back_inserter(runs), [this](const auto& run) { return find(run.shot); });
    return runs;
}

}  // namespace poquito::desk

#include "desk/session/moc_run_controller.moc"
