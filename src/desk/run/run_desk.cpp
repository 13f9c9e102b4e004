#include "desk/run/run_desk.hpp"

#include "day/order.hpp"
#include "storage/atomic_file.hpp"

#include <QSettings>
#include <QStandardPaths>

#include <algorithm>

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

RunDesk::RunDesk(Document& document, QObject* parent)
    : QObject(parent), document_(document), folder_(defaultFolder()), settings_(BenchSettings::stored()) {
    const auto look = [this] {
        told_ = false;
        if (!runner_) return;
        last_ = runner_->status();
        Q_EMIT changed();
    };
    tick_.setInterval(250);
    connect(&tick_, &QTimer::timeout, this, look);
    connect(this, &RunDesk::told, this, look, Qt::QueuedConnection);
    connect(
        this, &RunDesk::threadEnded, this,
        [this](int run) {
            if (run == run_ && runner_) finished();  // else it was shut down, and another may be on
        },
        Qt::QueuedConnection);
}

RunDesk::~RunDesk() {
    if (runner_) runner_->abandon();
    if (thread_.joinable()) thread_.join();
}

void RunDesk::shutDown() {
    queue_.clear();
    if (!runner_) return;
    runner_->abandon();
    ++run_;
    finished();
}

void RunDesk::setFolder(const QDir& folder) {
    folder_ = folder;
    brokenRead_ = {};
}

QDir RunDesk::defaultFolder() {
    return {QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/runs")};
}

void RunDesk::setSettings(const BenchSettings& settings) {
    settings_ = settings;
    settings_.store();
}

const shoot::Shot* RunDesk::find(const std::string& id) const {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, id, &shoot::Shot::id);
    return found == shots.end() ? nullptr : &*found;
}

QString RunDesk::nextShot() const {
    const auto* shot = queue_.empty() ? nullptr : find(queue_.front());
    return shot ? QString::fromStdString(shot->name) : QString();
}

// ---- beginning ---------------------------------------------------------------------------------------------------

void RunDesk::start(std::vector<std::string> shots, bool tests) {
    if (runner_) return;
    queue_ = std::move(shots);
    tests_ = tests;
    startNext();
}

void RunDesk::startNext() {
    change_.clear();
    while (!queue_.empty() && !find(queue_.front())) queue_.erase(queue_.begin());  // removed meanwhile
    if (queue_.empty()) return;
    const shoot::Shot shot = *find(queue_.front());
    queue_.erase(queue_.begin());
    const auto journals = std::filesystem::path(folder_.path().toStdString());
    const auto id = run::next_run_id(journals, shot.id);
    const auto index = std::ranges::find(document_.shoot().shots, shot.id, &shoot::Shot::id);
    if (const auto refusal =
            run::run_refusal(document_.report(static_cast<int>(index - document_.shoot().shots.begin())))) {
        queue_.clear();
        return Q_EMIT problemFound(QString::fromStdString(*refusal));
    }
    auto plan = run::make_run_plan(document_.kit(), shot, id, journals / id);
    if (tests_) plan = run::test_plan(plan);
    run::RunState state{
        .plan = plan, .time = devices::local_time(), .frames = std::vector<run::JournalFrame>(plan.frames.size())};
    launch(std::move(state), shot, journals / (plan.id + ".journal"));
}

void RunDesk::goOn(const QString& path) {
    if (runner_) return;
    auto journal = run::Journal::resume(path.toStdString());
    if (const auto* error = std::get_if<storage::ReadError>(&journal))
        return Q_EMIT problemFound(QString::fromStdString(storage::message(*error)));
    auto read = run::read_journal(path.toStdString());
    if (const auto* error = std::get_if<storage::ReadError>(&read))
        return Q_EMIT problemFound(QString::fromStdString(storage::message(*error)));
    auto& state = std::get<run::RunState>(read);
    const auto* shot = find(state.plan.shot);
    if (!shot) return Q_EMIT problemFound(tr("The shot of this run is not in the shoot."));
    queue_.clear();
    tests_ = state.plan.id.ends_with("-test");
    const shoot::Shot copy = *shot;
    launch(std::move(state), copy, std::get<run::Journal>(std::move(journal)));
}

void RunDesk::enterInLog(const QString& path) {
    auto journal = run::Journal::resume(path.toStdString());
    if (const auto* error = std::get_if<storage::ReadError>(&journal))
        return Q_EMIT problemFound(QString::fromStdString(storage::message(*error)));
    const auto read = run::read_journal(path.toStdString());
    if (const auto* error = std::get_if<storage::ReadError>(&read))
        return Q_EMIT problemFound(QString::fromStdString(storage::message(*error)));
    std::get<run::Journal>(journal).ended(shoot::RunEnd::broken);
    brokenRead_ = {};
    log(std::get<run::RunState>(read));
    Q_EMIT changed();
}

bool RunDesk::launch(run::RunState state, const shoot::Shot& shot, JournalSource source) {
    std::error_code failed;
    std::filesystem::create_directories(state.plan.folder, failed);
    if (failed) {
        Q_EMIT problemFound(
            tr("The frames' folder %1 cannot be made: %2")
                .arg(QString::fromStdString(state.plan.folder.string()), QString::fromStdString(failed.message())));
        return false;
    }
    devices::SimulatedBench::Options options{.troubles = settings_.rehearsed,
                                             .picture_width = settings_.pictureWidth,
                                             .device = settings_.railLine.toStdString()};
    if (!settings_.dialectFile.isEmpty()) {
        const auto text = storage::read_file(settings_.dialectFile.toStdString());
        auto dialect = std::holds_alternative<std::string>(text)
                           ? devices::read_dialect(std::get<std::string>(text))
                           : storage::ReadResult<devices::MotionDialect>(std::get<storage::ReadError>(text));
        if (const auto* error = std::get_if<storage::ReadError>(&dialect)) {
            Q_EMIT problemFound(tr("The rail's dialect: %1").arg(QString::fromStdString(storage::message(*error))));
            return false;
        }
        options.dialect = std::get<devices::MotionDialect>(std::move(dialect));
    }
    // Last, so that nothing that could not begin leaves a journal behind.
    std::variant<run::Journal, storage::ReadError> journal =
        std::holds_alternative<run::Journal>(source)
            ? std::get<run::Journal>(std::move(source))
            : run::Journal::create(std::get<std::filesystem::path>(source), state.plan);
    if (const auto* error = std::get_if<storage::ReadError>(&journal)) {
        Q_EMIT problemFound(QString::fromStdString(storage::message(*error)));
        return false;
    }
    settings_.rehearsed.clear();  // once
    brokenRead_ = {};
    plan_ = state.plan;
    clock_ = std::make_unique<devices::WallClock>(settings_.speed);
    devices_ = std::make_unique<devices::SimulatedBench>(*clock_, run::bench_setup(document_.kit(), shot, plan_),
                                                         std::move(options));
    journal_ = std::make_unique<run::Journal>(std::get<run::Journal>(std::move(journal)));
    runner_ = std::make_unique<run::Runner>(devices_->bench(), *clock_, *journal_, std::move(state));
    last_ = runner_->status();
    thread_ = std::thread([this, runner = runner_.get(), run = ++run_] {
        runner->run([this] {
            // Many changes between two paintings are told once.
            if (!told_.exchange(true)) Q_EMIT told();
        });
        Q_EMIT threadEnded(run);
    });
    tick_.start();
    Q_EMIT begun();
    return true;
}

// ---- ending ------------------------------------------------------------------------------------------------------

void RunDesk::finished() {
    thread_.join();
    tick_.stop();
    brokenRead_ = {};
    last_ = runner_->status();
    const auto state = runner_->state();
    runner_.reset();
    journal_.reset();
    devices_.reset();
    clock_.reset();
    log(state);
    if (last_->phase != run::Phase::complete) queue_.clear();
    if (!queue_.empty())
        if (const auto* done = find(state.plan.shot), *next = find(queue_.front()); done && next)
            change_ = QString::fromStdString(day::change_text(day::change_between(*done, *next)));
    Q_EMIT ended();
    Q_EMIT changed();
}

/// What was really exposed, in the shot's record; a run that was gone on with takes the place of its first part.
void RunDesk::log(const run::RunState& state) {
    auto record = run::record_of(state);
    if (state.plan.id.ends_with("-test"))
        record.remark = "test frames" + (record.remark.empty() ? "" : "; " + record.remark);
    if (record.frames.empty() && record.end != shoot::RunEnd::complete) return;
    if (!find(state.plan.shot)) return;
    document_.edit({tr("Log the run")}, [&](shoot::Shoot& shoot) {
        auto& shot = *std::ranges::find(shoot.shots, state.plan.shot, &shoot::Shot::id);
        const auto same = std::ranges::find_if(shot.runs, [&](const auto& run) { return run->id == record.id; });
        if (same != shot.runs.end())
            *same = record;
        else
            shot.runs.push_back(record);
    });
}

// ---- while it runs -----------------------------------------------------------------------------------------------

void RunDesk::pause() {
    if (runner_) runner_->pause();
}

void RunDesk::resume() {
    if (runner_) return runner_->resume();
    startNext();
}

void RunDesk::stop() {
    queue_.clear();
    if (runner_) return runner_->stop();
    change_.clear();
    Q_EMIT changed();
}

void RunDesk::skip() {
    if (runner_) runner_->skip();
}

void RunDesk::redoFrom(std::size_t frame) {
    if (runner_) runner_->redo_from(frame);
}

std::optional<run::RunStatus> RunDesk::status() const { return last_; }

std::vector<BrokenRun> RunDesk::brokenRuns() const {
    std::vector<BrokenRun> runs;
    if (runner_) return runs;
    // Asked with every edit; journals are read when one came or went.
    const auto changed = QFileInfo(folder_.path()).lastModified();
    if (!brokenRead_.isValid() || changed != brokenRead_) {
        brokenRead_ = changed;
        broken_.clear();
        for (const auto& path : run::unfinished_runs(folder_.path().toStdString())) {
            if (run::run_is_on(path)) continue;  // in another window
            const auto read = run::read_journal(path);
            if (const auto* state = std::get_if<run::RunState>(&read))
                broken_.push_back({.journal = QString::fromStdString(path.string()),
                                   .shot = state->plan.shot,
                                   .name = QString::fromStdString(state->plan.shot_name),
                                   .done = state->done(),
                                   .planned = state->frames.size()});
        }
    }
    std::ranges::copy_if(broken_, std::back_inserter(runs), [this](const auto& run) { return find(run.shot); });
    return runs;
}

}  // namespace poquito::desk
