#include "run/runner.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::run {
namespace {

std::vector<FrameState> states_of(const RunState& state) {
    std::vector<FrameState> list;
    for (const auto& frame : state.frames) list.push_back(frame.state);
    return list;
}

}  // namespace

Runner::Runner(devices::Bench bench, devices::Clock& clock, Journal& journal, RunState state, RunOptions options)
    : bench_(std::move(bench)), clock_(clock), journal_(journal), options_(options), state_(std::move(state)) {
    // What was begun, or exposed and not seen on the card, is taken again.
    for (const auto frame : state_.missing()) state_.frames[frame] = {};
    status_.frames = states_of(state_);
    retaken_.resize(state_.frames.size());
    if (bench_.rail && !state_.plan.frames.empty() && state_.plan.frames.front().rail) {
        // Also where nothing is missing but the end: a run is prepared for whatever it lacks.
        const auto rail = bench_.rail->capabilities();
        reference_ = rail_reference(state_.plan, rail.travel);
        // Where it stands nobody knows before it was at its switch.
        if (rail.has_home) home_way_ = rail.travel / rail.speed;
    }
    if (const auto missing = state_.missing(); !missing.empty()) {
        status_.frame = missing.front();
        status_.plane = state_.plan.frames[missing.front()].plane;
    }
    status_.seconds_left = seconds_left();
}

/// s of rail travel before the next exposure, beyond the one step that a frame's own time holds.
double Runner::way_ahead() const {
    if (!bench_.rail || stop_) return 0;
    if (const double on = moving_until_ - clock_.now(); on > 0) return on;
    const auto next =
        std::ranges::find_if(state_.frames, [](const auto& frame) { return frame.state < FrameState::exposed; });
    if (next == state_.frames.end()) return 0;
    const auto& frame = state_.plan.frames[static_cast<std::size_t>(next - state_.frames.begin())];
    if (!frame.rail || !goes_back(frame)) return home_way_;
    return home_way_ + std::abs(rail_at_.value_or(0) - behind(frame)) / bench_.rail->capabilities().speed;
}

/// Whether the rail first goes behind the frame's place: always from there, so that the play of the screw is used up
/// the same way for every frame.
bool Runner::goes_back(const RunFrame& frame) const {
    return !taken_up_ || !rail_at_ || *rail_at_ > reference_ + *frame.rail + hair;
}

double Runner::behind(const RunFrame& frame) const { return reference_ + *frame.rail - state_.plan.take_up; }

void Runner::update(const std::function<void()>& change) {
    {
        const std::lock_guard lock(mutex_);
        change();
        status_.frames = states_of(state_);
        status_.seconds_left = seconds_left();
        status_.dim = static_cast<std::size_t>(std::ranges::count(status_.frames, FrameState::dim));
    }
    if (changed_) changed_();
}

RunStatus Runner::status() const {
    const std::lock_guard lock(mutex_);
    auto status = status_;
    status.seconds_left = seconds_left();  // time passes on a long way, and nothing else changes
    return status;
}

double Runner::seconds_left() const {
    const auto missing = state_.missing().size();
    return missing == 0 ? 0 : static_cast<double>(missing) * state_.plan.frame_time + way_ahead();
}

RunState Runner::state() const {
    const std::lock_guard lock(mutex_);
    return state_;
}

// ---- asked for ---------------------------------------------------------------------------------------------------

void Runner::pause() { pause_ = true; }

void Runner::resume() {
    const std::lock_guard lock(mutex_);
    pause_ = false;
    wake_.notify_all();
}

void Runner::stop() {
    stop_ = true;
    if (bench_.rail) bench_.rail->halt();
    const std::lock_guard lock(mutex_);
    wake_.notify_all();
}

void Runner::abandon() {
    abandoned_ = true;
    stop();
    clock_.hurry();
}

void Runner::skip() {
    const std::lock_guard lock(mutex_);
    skip_ = true;
    wake_.notify_all();
}

void Runner::redo_from(std::size_t frame) {
    const std::lock_guard lock(mutex_);
    redo_ = redo_ ? std::min(*redo_, frame) : frame;
    wake_.notify_all();
}

/// Takes up what other threads asked for; only the run changes its state.
void Runner::settle_requests() {
    std::optional<std::size_t> redo;
    bool skipping = false;
    {
        const std::lock_guard lock(mutex_);
        redo.swap(redo_);
        std::swap(skipping, skip_);
    }
    if (redo && *redo < state_.frames.size()) {
        journal_failed_ |= !journal_.redone(*redo);
        std::erase_if(waiting_, [&](const auto& entry) { return entry.second >= *redo; });
        std::erase_if(brightness_, [&](const auto& entry) { return entry.first >= *redo; });
        update([&] {
            for (std::size_t i = *redo; i < state_.frames.size(); ++i) {
                state_.frames[i] = {};
                retaken_[i] = false;
            }
            std::erase_if(state_.taken, [&](const auto& taken) { return taken.index >= static_cast<int>(*redo); });
        });
    }
    if (skipping)
        if (const auto frame = next()) {
            journal_failed_ |= !journal_.skipped(*frame);
            mark(*frame, FrameState::skipped);
        }
    if (!redo && !skipping) return;
    if (const auto frame = next())
        update([&] {
            status_.phase = Phase::moving;
            status_.frame = *frame;
            status_.plane = state_.plan.frames[*frame].plane;
        });
}

// ---- the run -----------------------------------------------------------------------------------------------------

Phase Runner::run(const std::function<void()>& changed) {
    changed_ = changed;
    const auto tell = [this](const std::string& event) { update([&] { status_.event = event; }); };
    if (bench_.rail) bench_.rail->listen(tell);
    bench_.camera->listen(tell);

    int tries = 0;
    bool ready = false;
    while (!stopping()) {
        settle_requests();
        if (journal_failed_) {
            update([&] { status_.problem = "The journal cannot be written: is the disk full?"; });
            return finish(Phase::broken);
        }
        if (pause_) {
            if (!hold(status_.problem)) break;
            continue;
        }
        devices::Done fault;
        const auto frame = ready ? next() : std::nullopt;
        if (!ready) {
            fault = prepare();
            ready = !fault;
        } else if (frame) {
            fault = take(*frame);
        } else {
            fault = collect();
            if (!fault) {
                judge_brightness();
                if (!next() && waiting_.empty()) return finish(Phase::complete);
                if (!waiting_.empty()) wait(look_every, Phase::saving);
                if (!waiting_.empty() && clock_.now() - last_saved_ > options_.save_timeout)
                    fault = devices::Fault{.kind = devices::FaultKind::timed_out,
                                           .text = fmt::format("{} frames do not reach the card.", waiting_.size())};
            }
        }
        if (!fault) {
            if (frame) tries = 0;
            continue;
        }
        if (stopping()) break;
        // From the beginning, whatever it was: connected, homed, set.
        ready = false;
        if (fault->kind == devices::FaultKind::not_connected) {
            // What was in the buffer of a camera that dropped may be lost: it is taken again unless it turns up.
            if (tries++ < options_.reconnects) {
                tell(fault->text + " Connecting again.");
                wait(1, Phase::starting);
                continue;
            }
        }
        tries = 0;
        journal_failed_ |= !journal_.fault(fault->text);
        update([&] {
            status_.problem = fault->text;
            state_.remark = fault->text;
        });
        if (!options_.hold_on_fault) return finish(Phase::broken);
        pause_ = true;
        if (!hold(fault->text)) break;
    }
    // What was exposed is kept: the buffer still reaches the card.
    set_phase(Phase::saving);
    for (const double begun = clock_.now(); !abandoned_ && !collect() && !waiting_.empty();) {
        if (clock_.now() - begun > options_.save_timeout) break;
        clock_.sleep(look_every);
    }
    return finish(Phase::stopped);
}

Phase Runner::finish(Phase phase) {
    if (phase != Phase::broken)
        journal_.ended(phase == Phase::complete ? shoot::RunEnd::complete : shoot::RunEnd::stopped);
    update([&] {
        if (phase != Phase::broken)
            state_.end = phase == Phase::complete ? shoot::RunEnd::complete : shoot::RunEnd::stopped;
        if (phase != Phase::broken) status_.problem.clear();
        status_.phase = phase;
    });
    return phase;
}

bool Runner::hold(const std::string& problem) {
    update([&] {
        status_.phase = Phase::paused;
        status_.problem = problem;
    });
    {
        std::unique_lock lock(mutex_);
        wake_.wait(lock, [&] { return !pause_ || stop_ || redo_ || skip_; });
    }
    if (stop_) return false;
    if (!pause_) update([&] { status_.problem.clear(); });
    return true;
}

std::optional<std::size_t> Runner::next() {
    const std::lock_guard lock(mutex_);
    for (std::size_t i = 0; i < state_.frames.size(); ++i)
        if (state_.frames[i].state < FrameState::exposed) return i;
    return std::nullopt;
}

void Runner::set_phase(Phase phase) {
    if (status_.phase != phase) update([&] { status_.phase = phase; });
}

void Runner::mark(std::size_t frame, FrameState state) {
    update([&] { state_.frames[frame].state = state; });
}

void Runner::wait(double seconds, Phase phase) {
    set_phase(phase);
    for (double left = seconds; left > 0 && !stopping(); left -= look_every) clock_.sleep(std::min(left, look_every));
}

}  // namespace poquito::run
