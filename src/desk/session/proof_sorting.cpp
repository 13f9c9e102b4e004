#include "desk/session/proof_controller.hpp"

#include "desk/session/document.hpp"
#include "shoot/change/view_set.hpp"

#include <algorithm>
#include <filesystem>

namespace poquito::desk {

namespace fs = std::filesystem;

void ProofController::takeIn(std::vector<fs::path> files, const QString& from) {
    cancel();
    taking_ = true;
    stop_ = std::make_shared<std::atomic<bool>>(false);
    worker_.add([this, stop = stop_, job = ++job_, files = std::move(files), from, shoot = document_.snapshot()] {
        const auto sequences = proof::sequences_of(files);
        if (sequences.size() == 1) {
            const auto place = proof::shot_of(sequences.front(), *shoot);
            const auto shot = place ? shoot->shots[*place].id : std::string();
            QMetaObject::invokeMethod(
                this,
                [this, job, shot, from, all = sequences.front().files] {
                    if (job != job_) return;
                    taking_ = false;
                    const auto at = placeOf(shot);
                    if (at) document_.select(*at);
                    const auto* now = document_.shot();
                    if (now) lookAt(now->id, {.files = all, .planes = {}, .from = from, .unsure = !at});
                },
                Qt::QueuedConnection);
            return;
        }
        QMetaObject::invokeMethod(
            this,
            [this, job, from, count = files.size()] {
                if (job != job_) return;
                taking_ = false;
                sorted_.clear();
                sortedFrom_ = from;
                sorting_ = true;
                deciding_.start();
                sortDone_ = 0, sortAll_ = count;
                Q_EMIT sortingBegun();
                Q_EMIT sortedChanged();
            },
            Qt::QueuedConnection);
        proof::look_through(
            files, shoot.get(),
            [&](proof::Sorted one) {
                auto shot = one.shot ? shoot->shots[*one.shot].id : std::string();
                QMetaObject::invokeMethod(
                    this,
                    [this, job, one = std::move(one), shot = std::move(shot)]() mutable {
                        sorts(job, std::move(one), std::move(shot));
                    },
                    Qt::QueuedConnection);
                return !*stop;
            },
            [&](std::size_t done, std::size_t) {
                QMetaObject::invokeMethod(
                    this,
                    [this, job, done] {
                        if (job != job_) return;
                        sortDone_ = std::max(sortDone_, done);
                        Q_EMIT sortedChanged();
                    },
                    Qt::QueuedConnection);
                return !*stop;
            });
        QMetaObject::invokeMethod(
            this,
            [this, job] {
                if (job != job_) return;
                sorting_ = false;
                Q_EMIT sortedChanged();
            },
            Qt::QueuedConnection);
    });
}

void ProofController::sorts(int job, proof::Sorted sorted, std::string shot) {
    if (job != job_) return;
    SortedSequence row{.id = ++sequences_, .sorted = std::move(sorted), .shot = std::move(shot)};
    const auto place =
        std::ranges::upper_bound(sorted_, row, [](const SortedSequence& one, const SortedSequence& other) {
            return proof::comes_before(one.sorted, other.sorted);
        });
    sorted_.insert(place, std::move(row));
    Q_EMIT sortedChanged();
}

std::optional<int> ProofController::placeOf(const std::string& shot) const {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, shot, &shoot::Shot::id);
    return found == shots.end() ? std::nullopt : std::optional(static_cast<int>(found - shots.begin()));
}

const ProofController::SortedSequence* ProofController::sequence(int id) const {
    return const_cast<ProofController*>(this)->find(id);
}

ProofController::SortedSequence* ProofController::find(int sequence) {
    const auto found = std::ranges::find(sorted_, sequence, &SortedSequence::id);
    return found == sorted_.end() ? nullptr : &*found;
}

void ProofController::assign(int sequence, std::string shot) {
    auto* row = find(sequence);
    if (!row) return;
    row->shot = std::move(shot);
    Q_EMIT sortedChanged();
}

void ProofController::open(int sequence) {
    const auto* row = find(sequence);
    const auto shot = row ? placeOf(row->shot) : std::nullopt;
    if (!shot) return;
    document_.select(*shot);
    const bool was_sorting = std::exchange(sorting_, false);
    lookAt(row->shot, {.files = row->sorted.sequence.files, .planes = {}, .from = sortedFrom_});
    if (was_sorting) Q_EMIT sortedChanged();
}

void ProofController::decide(int sequence, Decision decision) {
    auto* row = find(sequence);
    if (!row) return;
    row->decision = decision;
    Q_EMIT sortedChanged();
    tellSortedThrough();
}

void ProofController::tellSortedThrough() {
    if (sorting_ || !deciding_.isValid() ||
        std::ranges::any_of(sorted_, [](const SortedSequence& row) { return row.decision == Decision::open; }))
        return;
    std::size_t frames = 0;
    for (const auto& row : sorted_) frames += row.sorted.sequence.files.size();
    const auto seconds = static_cast<double>(deciding_.elapsed()) / 1000;
    deciding_.invalidate();
    Q_EMIT sortedThrough(frames, seconds);
}

bool ProofController::setSequenceAside(int sequence) {
    auto* row = find(sequence);
    if (!row || row->asideGroup > 0) return false;
    ++groups_;
    bool all = true;
    for (const auto& file : row->sorted.sequence.files) {
        const auto to = moveAside(file);
        all = all && to;
        if (to) aside_.push_back({.shot = {}, .from = file, .to = *to, .plane = {}, .group = groups_});
    }
    if (all) row->decision = Decision::set_aside, row->asideGroup = groups_;
    Q_EMIT sortedChanged();
    tellSortedThrough();
    return all;
}

}  // namespace poquito::desk
