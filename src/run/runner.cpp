#include "run/runner.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <system_error>

namespace poquito::run {
namespace {

constexpr double look_every = 0.05;  // s between looks at stop and pause
constexpr double hair = 1e-6;        // mm

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

template <typename Change>
void Runner::update(Change change) {
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

// ---- devices -----------------------------------------------------------------------------------------------------

devices::Done Runner::connect() {
    set_phase(Phase::starting);
    if (bench_.rail)
        if (auto fault = bench_.rail->connect()) return fault;
    if (auto fault = bench_.camera->connect()) return fault;
    for (auto* flash : bench_.flashes)
        if (auto fault = flash->connect()) return fault;
    return bench_.trigger->connect();
}

devices::Done Runner::prepare() {
    if (auto fault = connect()) return fault;
    // A stop that came before the connection was made is a halt that the connection has lifted.
    if (stopping()) return std::nullopt;
    const auto& plan = state_.plan;
    if (bench_.rail && !plan.frames.empty() && plan.frames.front().rail) {
        const auto capabilities = bench_.rail->capabilities();
        if (reference_ + *plan.frames.front().rail - plan.take_up < -hair ||
            reference_ + *plan.frames.back().rail > capabilities.travel + hair)
            return devices::Fault{
                .kind = devices::FaultKind::out_of_travel,
                .text = fmt::format("The stack is longer than the {:g} mm of the rail.", capabilities.travel)};
        {
            const std::lock_guard lock(mutex_);
            rail_at_.reset();
            taken_up_ = false;
        }
        if (capabilities.has_home) {
            if (auto fault = bench_.rail->home()) return fault;
            if (auto fault = stopping() ? std::nullopt : check_rail(0)) return fault;
            update([&] {
                home_way_ = 0;
                rail_at_ = 0;
            });
        }
    }
    if (bench_.camera->capabilities().sets_exposure)
        if (auto fault = bench_.camera->set(plan.settings)) return fault;
    for (std::size_t i = 0; i < bench_.flashes.size() && i < plan.powers.size(); ++i)
        if (auto fault = bench_.flashes[i]->set_power(plan.powers[i])) return fault;
    last_saved_ = clock_.now();
    // Frames that were in the buffer when the connection dropped: still there, or to be taken again.
    if (const auto unsaved = bench_.camera->unsaved(); unsaved && *unsaved == 0 && !waiting_.empty()) {
        if (auto fault = collect()) return fault;
        for (const auto& [name, frame] : waiting_) mark(frame, FrameState::pending);
        waiting_.clear();
    }
    return std::nullopt;
}

/// An "ok" alone is believed of no rail that can say where it stands.
devices::Done Runner::check_rail(double wanted) {
    const auto capabilities = bench_.rail->capabilities();
    if (!capabilities.tells_position) return std::nullopt;
    const auto found = bench_.rail->position();
    if (!found) return found.error();
    const double stands = *found;
    constexpr double printed = 0.01;  // mm: answers have two digits behind the point at least
    if (std::abs(stands - wanted) <= std::max(2 * capabilities.least_step, printed) + hair) return std::nullopt;
    return devices::Fault{
        .kind = devices::FaultKind::refused,
        .text = fmt::format("The rail was sent to {:.3f} mm and says it stands at {:.3f} mm.", wanted, stands)};
}

/// A disk that was pulled takes every further frame with it.
devices::Done Runner::check_folder() {
    std::error_code failed;
    const bool there = std::filesystem::is_directory(state_.plan.folder, failed);
    if (there || !had_folder_) {
        had_folder_ = there;
        return std::nullopt;
    }
    return devices::Fault{
        .kind = devices::FaultKind::refused,
        .text = fmt::format("The frames' folder is gone: {}. Nothing more is exposed.", state_.plan.folder.string())};
}

/// Not at all when it is to be stopped.
devices::Done Runner::move_rail(double position) {
    if (stopping()) return std::nullopt;
    auto fault = bench_.rail->move_to(position);
    if (!fault && !stopping()) fault = check_rail(position);
    const std::lock_guard lock(mutex_);
    rail_at_ = fault ? std::nullopt : std::optional(position);
    return fault;
}

devices::Done Runner::approach(const RunFrame& frame) {
    if (frame.rail && bench_.rail) {
        if (goes_back(frame)) {
            const double way = std::abs(rail_at_.value_or(0) - behind(frame));
            update([&] { moving_until_ = clock_.now() + way / bench_.rail->capabilities().speed; });
            auto fault = move_rail(behind(frame));
            update([&] {
                moving_until_ = 0;
                taken_up_ = true;
            });
            if (fault) return fault;
        }
        if (auto fault = move_rail(reference_ + *frame.rail)) return fault;
    }
    if (stopping()) return std::nullopt;
    if (frame.ring)
        if (auto fault = bench_.camera->focus_to(*frame.ring)) return fault;
    if (!frame.rail && !frame.ring) return std::nullopt;
    wait(state_.plan.settle, Phase::settling);
    return std::nullopt;
}

devices::Done Runner::wait_for_flashes() {
    const double begun = clock_.now();
    while (!stopping()) {
        std::optional<double> longest = 0;  // empty: one of them does not say
        for (auto* flash : bench_.flashes) {
            const auto ready = flash->ready_in();
            if (!ready) return ready.error();
            const auto& seconds = *ready;
            longest = longest && seconds ? std::optional(std::max(*longest, *seconds)) : std::nullopt;
        }
        if (longest && *longest <= 0) break;
        if (clock_.now() - begun > state_.plan.flash_timeout)
            return devices::Fault{
                .kind = devices::FaultKind::not_ready,
                .text = fmt::format("The flash is not ready after {:.0f} s: batteries?", state_.plan.flash_timeout)};
        update([&] {
            status_.flash_ready_in = longest;
            status_.phase = Phase::charging;
        });
        // What is less than a clock can tell is a moment all the same: it has to pass.
        constexpr double moment = 0.001;
        clock_.sleep(std::clamp(longest.value_or(look_every), moment, look_every));
    }
    if (status_.flash_ready_in != 0.0) update([&] { status_.flash_ready_in = 0; });
    return std::nullopt;
}

devices::Done Runner::check_settings(std::size_t frame) {
    if (!bench_.camera->capabilities().sets_exposure) return std::nullopt;  // it does not tell either
    const auto found = bench_.camera->settings();
    if (!found) return found.error();
    const auto& now = *found;
    const auto wanted = state_.plan.settings_of(frame);
    const auto differs = [](double a, double b) { return std::abs(a / b - 1) > 0.01; };
    if (!differs(now.f_number, wanted.f_number) && !differs(now.shutter, wanted.shutter) &&
        !differs(now.iso, wanted.iso))
        return std::nullopt;
    // Set back for when the run goes on; a person should still know.
    bench_.camera->set(wanted);
    return devices::Fault{
        .kind = devices::FaultKind::refused,
        .text = fmt::format("The camera stood at f/{:.2g}, {:g} s, ISO {:g} and not at f/{:.2g}, {:g} s, ISO "
                            "{:g}: set back. Look at the last frame before going on.",
                            now.f_number, now.shutter, now.iso, wanted.f_number, wanted.shutter, wanted.iso)};
}

devices::Done Runner::take(std::size_t index) {
    const auto& plan = state_.plan;
    const auto& frame = plan.frames[index];
    update([&] {
        status_.phase = Phase::moving;
        status_.frame = index;
        status_.plane = frame.plane;
    });
    journal_failed_ |= !journal_.begun(index);
    mark(index, FrameState::begun);
    if (auto fault = approach(frame)) return fault;
    if (auto fault = wait_for_flashes()) return fault;
    if (const double early = last_exposure_ + plan.interval - clock_.now(); early > 0) wait(early, Phase::waiting);
    if (const bool opens = plan.opens_moment(index); opens) {
        if (const double early = moment_begun_ + plan.moment_interval - clock_.now(); early > 0)
            wait(early, Phase::waiting);
        if (plan.moment_stops != 0 && !stopping())
            if (auto fault = bench_.camera->set(plan.settings_of(index))) return fault;
        moment_begun_ = clock_.now();
    }
    if (stopping()) return std::nullopt;
    if (auto fault = check_folder()) return fault;
    set_phase(Phase::exposing);
    const auto name = plan.file_of(index);
    if (auto fault = bench_.camera->expect(name)) return fault;
    if (auto fault = check_settings(index)) return fault;
    last_exposure_ = clock_.now();
    if (auto fault = bench_.trigger->fire()) return fault;

    shoot::ExposedFrame exposed{.index = static_cast<int>(index),
                                .file = name,
                                .plane = frame.plane,
                                .f_number = plan.settings.f_number,
                                .shutter = plan.settings_of(index).shutter,
                                .iso = plan.settings.iso,
                                .time = devices::local_time()};
    for (auto* flash : bench_.flashes) exposed.flash = std::min(exposed.flash, flash->last_share().value_or(1));
    journal_failed_ |= !journal_.exposed(index, exposed);
    waiting_[name] = index;
    last_saved_ = clock_.now();
    update([&] { state_.frames[index] = {.state = FrameState::exposed, .exposed = exposed}; });
    return collect();
}

/// Enters what has reached the card.
devices::Done Runner::collect() {
    for (const auto& file : bench_.camera->saved()) {
        last_saved_ = clock_.now();
        const auto found = waiting_.find(file.name);
        if (found == waiting_.end()) continue;  // asked to be taken again meanwhile
        const auto index = found->second;
        waiting_.erase(found);
        brightness_[index] = file.brightness;
        journal_failed_ |= !journal_.saved(index);
        update([&] {
            state_.frames[index].state = FrameState::saved;
            state_.taken.push_back(state_.frames[index].exposed);
            status_.last_file = file.file;
        });
    }
    const auto unsaved = bench_.camera->unsaved();
    if (!unsaved) return unsaved.error();
    return std::nullopt;
}

/// Frames of one stack are lit alike: one that is darker than most was missed by the flash.
void Runner::judge_brightness() {
    if (brightness_.size() < 3 || state_.plan.moment_frames > 0) return;  // in a time-lapse light goes its own way
    std::vector<double> all;
    for (const auto& [frame, stops] : brightness_) all.push_back(stops);
    const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
    std::nth_element(all.begin(), middle, all.end());
    for (const auto& entry : brightness_) {
        const std::size_t frame = entry.first;
        const double darker = *middle - entry.second;
        if (!(darker > options_.dim_stops) || state_.frames[frame].state != FrameState::saved) continue;
        journal_failed_ |= !journal_.dim(frame, -darker);
        const bool again = options_.retake_dim && !retaken_[frame];
        retaken_[frame] = true;
        update([&] {
            std::erase_if(state_.taken, [&](const auto& taken) { return taken.index == static_cast<int>(frame); });
            auto& record = state_.frames[frame];
            record.exposed.remark = fmt::format("{:.1f} stops darker than its neighbours", darker);
            if (again) {
                record = {};
                status_.event = fmt::format("frame {} was too dark and is taken again", frame + 1);
            } else {
                record.state = FrameState::dim;
                state_.taken.push_back(record.exposed);
            }
        });
    }
}

}  // namespace poquito::run
