#include "desk/session/proof_controller.hpp"

#include "desk/session/document.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "proof/taken.hpp"
#include "shoot/change/view_set.hpp"
#include "storage/atomic_file.hpp"

#include <algorithm>
#include <system_error>

namespace poquito::desk {
namespace fs = std::filesystem;

namespace {

/// The frame that a plate is laid on: the middle one of its picture's first plate, as its last run took it.
std::optional<proof::LaidOn> first_plate(const shoot::Shoot& shoot, const shoot::Shot& shot) {
    if (!shot.plate) return std::nullopt;
    const auto plates = shoot::plates_of(shoot, shot.plate->picture);
    const auto& first = shoot.shots[plates.front()];
    if (first.id == shot.id) return std::nullopt;
    const auto taken = proof::taken_frames(shoot::runs_of(shoot.runs, first.id));
    if (taken.files.empty()) return std::nullopt;
    const auto& locks = shot.follows ? shot.follows->locks : std::vector<shoot::Lock>();
    const auto locked = [&](shoot::Lock lock) { return std::ranges::count(locks, lock) > 0; };
    return proof::LaidOn{.file = taken.files[taken.files.size() / 2],
                         .name = first.name,
                         .alike = locked(shoot::Lock::light) && locked(shoot::Lock::stop)};
}

}  // namespace

ProofController::ProofController(Document& document, RunController& runs, QObject* parent)
    : QObject(parent), document_(document), runs_(runs) {
    constexpr int often = 400;  // ms; a file that did not grow for two of them is whole
    watch_.setInterval(often);
    connect(&watch_, &QTimer::timeout, this, &ProofController::lookIntoFolder);
    // Another shoot has other shots, whatever their ids.
    connect(&document, &Document::opened, this, [this] {
        if (stop_) *stop_ = true;
        ++job_;
        busyWith_.clear();
        taking_ = sorting_ = false;
        watch_.stop();
        watched_.clear();
        coming_.reset();
        looks_.clear();
        sorted_.clear();
        aside_.clear();
    });
    connect(&runs, &RunController::ended, this, [this] {
        if (!runs_.isTest()) lookAtRuns(runs_.shot());
    });
}

ProofController::~ProofController() {
    if (stop_) *stop_ = true;
}

const ProofLook* ProofController::look(const std::string& shot) const {
    const auto found = looks_.find(shot);
    return found == looks_.end() ? nullptr : &found->second;
}

std::vector<fs::path> ProofController::framesIn(const QStringList& paths) {
    std::vector<fs::path> files;
    for (const auto& path : paths) files.emplace_back(path.toStdString());
    return proof::frames_in(files);
}

// ---- what is looked at -------------------------------------------------------------------------------------------

void ProofController::lookAt(const std::string& shot, ProofFrames frames) {
    auto& look = looks_[shot];
    // What was seen of a file that stays is kept.
    std::map<fs::path, std::shared_ptr<const proof::FrameFacts>> known;
    for (const auto& facts : look.facts)
        if (facts && facts->scan && !facts->scan->detail.empty()) known[facts->file] = facts;
    look = {};
    look.frames = std::move(frames);
    look.facts.resize(look.frames.files.size());
    for (std::size_t i = 0; i < look.facts.size(); ++i)
        if (const auto found = known.find(look.frames.files[i]); found != known.end()) look.facts[i] = found->second;
    start(shot);
}

void ProofController::add(const std::string& shot, const std::vector<fs::path>& files) {
    ProofFrames frames;
    if (const auto* had = look(shot)) frames = had->frames;
    for (const auto& file : files)
        if (std::ranges::find(frames.files, file) == frames.files.end()) frames.files.push_back(file);
    frames.planes.clear();
    lookAt(shot, std::move(frames));
}

void ProofController::belong(const std::string& shot, const std::string& to) {
    const auto found = looks_.find(shot);
    if (found == looks_.end()) return;
    found->second.frames.unsure = false;
    if (shot == to) return Q_EMIT changed(toQt(shot));
    cancel();
    auto frames = std::move(found->second.frames);
    looks_.erase(found);
    Q_EMIT changed(toQt(shot));
    lookAt(to, std::move(frames));
}

void ProofController::lookAgain(const std::string& shot) {
    const auto found = looks_.find(shot);
    if (found == looks_.end()) return;
    found->second.facts.assign(found->second.frames.files.size(), nullptr);
    start(shot);
}

void ProofController::judgeAgain(const std::string& shot) {
    const auto found = looks_.find(shot);
    if (found != looks_.end()) lookAt(shot, ProofFrames(found->second.frames));
}

bool ProofController::lookAtRuns(const std::string& shot) {
    auto taken = proof::taken_frames(shoot::runs_of(document_.shoot().runs, shot));
    std::error_code failed;
    if (taken.files.empty() || !fs::exists(taken.files.front(), failed)) return false;
    lookAt(shot, {.files = std::move(taken.files),
                  .planes = std::move(taken.planes),
                  .from = tr("the run on the bench"),
                  .ofRun = true});
    return true;
}

void ProofController::cancel() {
    if (stop_) *stop_ = true;
    if (std::exchange(taking_, false)) ++job_;
    if (std::exchange(sorting_, false)) {
        ++job_;
        Q_EMIT sortedChanged();
    }
    if (busyWith_.empty()) return;
    const auto shot = std::exchange(busyWith_, {});
    ++job_;
    looks_[shot].running = false;
    Q_EMIT changed(toQt(shot));
}

void ProofController::start(const std::string& shot) {
    cancel();
    // Maps of detail are large: those of one shot at a time.
    for (auto& [other, look] : looks_)
        if (other != shot)
            for (auto& facts : look.facts)
                if (facts && facts->scan && !facts->scan->detail.empty()) {
                    auto slim = std::make_shared<proof::FrameFacts>(*facts);
                    slim->scan = proof::without_maps(*facts->scan);
                    facts = std::move(slim);
                }
    auto& look = looks_[shot];
    look.inspection = nullptr;
    look.notes.clear();
    look.offers.clear();
    look.said = ++said_;
    look.summary = {};
    look.running = true;
    look.done =
        static_cast<std::size_t>(std::ranges::count_if(look.facts, [](const auto& facts) { return facts != nullptr; }));
    busyWith_ = shot;
    since_.start();
    stop_ = std::make_shared<std::atomic<bool>>(false);
    worker_.add([this, stop = stop_, job = ++job_, shot, frames = look.frames, facts = look.facts,
                 shoot = document_.snapshot()]() mutable {
        std::vector<fs::path> files;
        std::vector<std::size_t> places;
        for (std::size_t i = 0; i < facts.size(); ++i)
            if (!facts[i]) files.push_back(frames.files[i]), places.push_back(i);
        const auto found = std::ranges::find(shoot->shots, shot, &shoot::Shot::id);
        const bool known = found != shoot->shots.end();
        const bool singles = known && found->capture.mode == shoot::CaptureMode::single;
        const proof::Request request{.files = frames.files,
                                     .kit = known ? &shoot->kit : nullptr,
                                     .shot = known ? &*found : nullptr,
                                     .terms = known ? shoot::terms_of(*shoot, *found) : shoot::Terms(),
                                     .singles = singles,
                                     .tries = singles,
                                     .planes = frames.planes,
                                     .laid_on = known ? first_plate(*shoot, *found) : std::nullopt};
        // A first answer soon, then as more is known.
        QElapsedTimer since;
        since.start();
        qint64 next = 500;  // ms
        proof::look_at_all(files, [&](std::size_t i, proof::FrameFacts one) {
            if (*stop) return false;
            const auto at = places[i];
            auto shared = std::make_shared<const proof::FrameFacts>(std::move(one));
            std::vector<std::shared_ptr<const proof::FrameFacts>> so_far;
            facts[at] = shared;
            if (since.elapsed() >= next) so_far = facts;
            QMetaObject::invokeMethod(
                this, [this, job, at, shared] { took(job, at, shared); }, Qt::QueuedConnection);
            if (so_far.empty()) return true;
            auto notes = proof::notes_so_far(so_far, request);
            QMetaObject::invokeMethod(
                this, [this, job, notes = std::move(notes)]() mutable { saidSoFar(job, std::move(notes)); },
                Qt::QueuedConnection);
            constexpr qint64 often = 2000;
            next = since.elapsed() + often;
            return true;
        });
        if (*stop) return;
        std::vector<proof::FrameFacts> all;
        all.reserve(facts.size());
        for (const auto& one : facts) all.push_back(*one);
        auto inspection = proof::judge(std::move(all), request, [&] { return !*stop; });
        if (!inspection) return;
        Judged judged_now{
            .inspection = std::make_shared<const proof::Inspection>(std::move(*inspection)), .offers = {}, .notes = {}};
        if (known)
            judged_now.offers = proof::offers_of(*judged_now.inspection,
                                                 plan::plan_of(shoot->kit, *found, shoot::terms_of(*shoot, *found)));
        judged_now.notes = proof::notes_of(*judged_now.inspection, judged_now.offers);
        QMetaObject::invokeMethod(
            this, [this, job, now = std::move(judged_now)]() mutable { judged(job, std::move(now)); },
            Qt::QueuedConnection);
    });
    Q_EMIT changed(toQt(shot));
}

void ProofController::took(int job, std::size_t frame, std::shared_ptr<const proof::FrameFacts> facts) {
    if (job != job_ || busyWith_.empty()) return;
    auto& look = looks_[busyWith_];
    look.facts[frame] = std::move(facts);
    ++look.done;
    look.seconds = static_cast<double>(since_.elapsed()) / 1000;
    look.secondsLeft =
        look.seconds / static_cast<double>(look.done) * static_cast<double>(look.facts.size() - look.done);
    Q_EMIT changed(toQt(busyWith_));
}

void ProofController::saidSoFar(int job, std::vector<proof::Note> notes) {
    if (job != job_ || busyWith_.empty()) return;
    looks_[busyWith_].notes = std::move(notes);
    looks_[busyWith_].said = ++said_;
    Q_EMIT changed(toQt(busyWith_));
}

void ProofController::judged(int job, Judged found) {
    if (job != job_ || busyWith_.empty()) return;
    const auto shot = std::exchange(busyWith_, {});
    auto& look = looks_[shot];
    look.running = false;
    look.seconds = static_cast<double>(since_.elapsed()) / 1000;
    look.secondsLeft = 0;
    look.summary = proof::summary_of(*found.inspection, found.notes);
    look.notes = std::move(found.notes);
    look.offers = std::move(found.offers);
    look.said = ++said_;
    look.inspection = std::move(found.inspection);
    Q_EMIT changed(toQt(shot));
    if (looks_[shot].frames.ofRun) countRun(shot);
}

/// Frames of a run count themselves: there is no doubt whose they are.
void ProofController::countRun(const std::string& shot) {
    const auto& offers = looks_[shot].offers;
    const auto odds = std::ranges::find(offers, proof::Teaches::odds, &proof::Offer::teaches);
    if (odds == offers.end() || odds->tried == 0) return;
    // A copy: the edit may look anew.
    document_.edit({toQt(odds->action)},
                   [&shot, counted = *odds](shoot::Shoot& shoot) { proof::learn(shoot, shot, counted, {}); });
    judgeAgain(shot);  // what is counted is no longer offered
}

// ---- set aside ---------------------------------------------------------------------------------------------------

std::optional<fs::path> ProofController::moveAside(const fs::path& from) {
    const auto folder = from.parent_path() / tr("set aside").toStdString();
    std::error_code failed;
    fs::create_directories(folder, failed);
    auto to = folder / from.filename();
    for (int number = 2; !failed; ++number) {
        failed = storage::rename_file(from, to);
        if (!failed) return to;
        if (failed == std::errc::file_exists) failed.clear();
        to = folder / (from.stem().string() + "-" + std::to_string(number) + from.extension().string());
    }
    Q_EMIT problemFound(tr("%1 cannot be set aside: %2").arg(toQt(from.filename().string()), toQt(failed.message())));
    return std::nullopt;
}

bool ProofController::setAside(const std::string& shot, std::size_t frame) {
    const auto found = looks_.find(shot);
    if (found == looks_.end() || frame >= found->second.frames.files.size()) return false;
    auto frames = found->second.frames;
    const auto from = frames.files[frame];
    const auto to = moveAside(from);
    if (!to) return false;
    std::optional<double> plane;
    const auto place = static_cast<std::ptrdiff_t>(frame);
    if (frames.planes.size() == frames.files.size()) {
        plane = frames.planes[frame];
        frames.planes.erase(frames.planes.begin() + place);
    }
    frames.files.erase(frames.files.begin() + place);
    aside_.push_back({.shot = shot, .from = from, .to = *to, .place = frame, .plane = plane});
    lookAt(shot, std::move(frames));
    return true;
}

/// Never over another file that took its name meanwhile.
bool ProofController::moveBack(const Aside& one) {
    const auto failed = storage::rename_file(one.to, one.from);
    if (!failed) return true;
    const bool taken = failed == std::errc::file_exists;
    Q_EMIT problemFound(
        tr("%1 cannot be brought back: %2")
            .arg(toQt(one.to.string()),
                 taken ? tr("another %1 is there by now, and both are kept").arg(toQt(one.from.filename().string()))
                       : toQt(failed.message())));
    return false;
}

bool ProofController::bringBack() {
    if (aside_.empty()) return false;
    const Aside last = aside_.back();
    // All of a sequence come back together. What cannot stays where it is, to be tried again.
    std::vector<Aside> left;
    while (!aside_.empty() && (left.empty() || last.group > 0) && aside_.back().group == last.group) {
        if (!moveBack(aside_.back())) left.push_back(aside_.back());
        aside_.pop_back();
        if (last.group == 0) break;
    }
    aside_.insert(aside_.end(), left.rbegin(), left.rend());
    if (last.group > 0) {
        for (auto& row : sorted_)
            if (left.empty() && row.asideGroup == last.group) row.decision = Decision::open, row.asideGroup = 0;
        Q_EMIT sortedChanged();
        return left.empty();
    }
    if (!left.empty()) return false;
    const auto found = looks_.find(last.shot);
    if (found == looks_.end()) return true;
    auto frames = found->second.frames;
    const auto place = static_cast<std::ptrdiff_t>(std::min(last.place, frames.files.size()));
    if (last.plane && frames.planes.size() == frames.files.size())
        frames.planes.insert(frames.planes.begin() + place, *last.plane);
    frames.files.insert(frames.files.begin() + place, last.from);
    if (frames.planes.size() != frames.files.size()) frames.planes.clear();
    lookAt(last.shot, std::move(frames));
    return true;
}

void ProofController::watch(const QString& folder) {
    watched_ = folder;
    if (folder.isEmpty()) {
        coming_.reset();
        watch_.stop();
    } else {
        coming_.emplace(folder.toStdString());
        watch_.start();
    }
    if (const auto* shot = document_.shot()) Q_EMIT changed(toQt(shot->id));
}

void ProofController::lookIntoFolder() {
    const auto* shot = document_.shot();
    if (!shot || !coming_) return;
    const auto whole = coming_->whole();
    if (whole.empty()) return;
    ProofFrames frames;
    if (const auto* had = look(shot->id); had && had->frames.watched) frames = had->frames;
    frames.from = tr("the watched folder"), frames.watched = true;
    for (const auto& file : whole)  // one whose copy had stalled comes again
        if (std::ranges::find(frames.files, file) == frames.files.end()) frames.files.push_back(file);
    lookAt(shot->id, std::move(frames));
}

}  // namespace poquito::desk

#include "desk/session/moc_proof_controller.moc"
