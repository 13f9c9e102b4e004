#include "run/runner.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <system_error>

namespace poquito::run {

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
