#include "devices/sim/world.hpp"

#include "devices/sim/simulated_camera.hpp"
#include "plan/stack/stack_plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <utility>

namespace poquito::devices {
namespace {

constexpr std::pair<MishapKind, const char*> mishap_ids[] = {
    {MishapKind::camera_drops, "camera-drops"},     {MishapKind::rail_drops, "rail-drops"},
    {MishapKind::card_full, "card-full"},           {MishapKind::flash_not_ready, "flash-not-ready"},
    {MishapKind::flash_dies, "flash-dies"},         {MishapKind::subject_moves, "subject-moves"},
    {MishapKind::wrong_aperture, "wrong-aperture"}, {MishapKind::rig_slips, "rig-slips"},
    {MishapKind::light_changes, "light-changes"},
};

Fault not_connected(const std::string& name) {
    return {.kind = FaultKind::not_connected, .text = fmt::format("The {} does not answer.", name)};
}

}  // namespace

const char* mishap_id(MishapKind kind) {
    return std::find_if(std::begin(mishap_ids), std::end(mishap_ids),
                        [&](const auto& entry) { return entry.first == kind; })
        ->second;
}

std::optional<Mishap> parse_mishap(const std::string& text) {
    const auto at = text.find('@');
    if (at == std::string::npos) return std::nullopt;
    for (const auto& [kind, id] : mishap_ids) {
        if (text.compare(0, at, id) != 0) continue;
        Mishap mishap{.kind = kind};
        const char* end = text.data() + text.size();
        auto read = std::from_chars(text.data() + at + 1, end, mishap.frame);
        if (read.ec != std::errc()) return std::nullopt;
        if (read.ptr != end && *read.ptr == ':') read = std::from_chars(read.ptr + 1, end, mishap.size);
        if (read.ec != std::errc() || read.ptr != end) return std::nullopt;
        return mishap;
    }
    return std::nullopt;
}

std::optional<Mishap> World::due(MishapKind kind) {
    const std::lock_guard lock(mutex);
    const auto found = std::find_if(mishaps.begin(), mishaps.end(), [&](const Mishap& mishap) {
        return mishap.kind == kind && exposures >= mishap.frame;
    });
    if (found == mishaps.end()) return std::nullopt;
    const Mishap mishap = *found;
    mishaps.erase(found);
    return mishap;
}

// ---- rail --------------------------------------------------------------------------------------------------------

SimulatedRail::SimulatedRail(World& world, const gear::Rail& rail)
    : world_(world), rail_(rail), unit_(plan::least_step(rail)) {
    // Somewhere, as when it is switched on: where, only its switch can tell.
    screw_ = rail.travel * 0.3;
    world_.carriage = screw_;
}

Done SimulatedRail::connect() {
    connected_ = true;
    halted_ = false;
    return std::nullopt;
}

RailPort::Capabilities SimulatedRail::capabilities() const {
    return {.travel = rail_.travel,
            .least_step = unit_,
            .backlash = rail_.backlash,
            .has_home = true,
            .speed = rail_.speed};
}

Done SimulatedRail::home() {
    if (!connected_) return not_connected(name());
    // The switch closes where the carriage is; then once more from a little in front of it.
    if (auto fault = go(screw_ - world_.carriage - rail_.backlash)) return fault;
    world_.carriage = std::max(world_.carriage.load(), 0.0);
    screw_ = 0;
    world_.carriage = 0;
    tell("rail at its home switch");
    return std::nullopt;
}

Done SimulatedRail::move_to(double position) {
    if (world_.due(MishapKind::rail_drops)) connected_ = false;
    if (!connected_) return not_connected(name());
    if (position < -unit_ / 2 || position > rail_.travel + unit_ / 2)
        return Fault{.kind = FaultKind::out_of_travel,
                     .text = fmt::format("The rail goes from 0 to {:g} mm, not to {:.3f}.", rail_.travel, position)};
    return go(std::round(position / unit_) * unit_);
}

/// Turns the screw; the carriage follows when the play between them is used up.
Done SimulatedRail::go(double screw) {
    constexpr double look_every = 0.05;  // s, for a halt
    const Fault halted{.kind = FaultKind::refused, .text = "The rail was halted."};
    if (halted_) return halted;
    const double way = screw - screw_;
    double left = std::abs(way) / rail_.speed;
    const double rate = way < 0 ? -rail_.speed : rail_.speed;
    while (left > 0) {
        const double slice = std::min(left, look_every);
        world_.clock.sleep(slice);
        left -= slice;
        screw_ = left > 0 ? screw_ + rate * slice : screw;
        world_.carriage = std::clamp(world_.carriage.load(), screw_, screw_ + rail_.backlash);
        if (halted_) return halted;
    }
    return std::nullopt;
}

Outcome<double> SimulatedRail::position() {
    if (!connected_) return not_connected(name());
    return screw_;
}

// ---- flash -------------------------------------------------------------------------------------------------------

SimulatedFlash::SimulatedFlash(World& world, const gear::Flash& flash, double power)
    : world_(world), flash_(flash), power_(power), held_(flash.burst_store) {}

/// It fills evenly, a full-power flash in the time its record gives, up to what it stores (MODEL 6).
double SimulatedFlash::charge() const {
    const double waited = world_.clock.now() - since_;
    const double filled = flash_.recycle_full > 0 ? held_ + waited / flash_.recycle_full : flash_.burst_store;
    return std::min(flash_.burst_store, filled);
}

Done SimulatedFlash::connect() {
    connected_ = true;
    dead_ = false;  // whoever connects it again has put in fresh batteries
    return std::nullopt;
}

Done SimulatedFlash::set_power(double power) {
    if (!connected_) return not_connected(flash_.name);
    power_ = std::clamp(power, flash_.scale.least, 1.0);
    return std::nullopt;
}

Outcome<std::optional<double>> SimulatedFlash::ready_in() {
    if (!connected_) return not_connected(flash_.name);
    if (world_.due(MishapKind::flash_dies)) dead_ = true;
    if (dead_) return std::optional<double>();
    return std::optional((flash_.burst_store - charge()) * flash_.recycle_full);
}

double SimulatedFlash::flash() {
    if (dead_ || !connected_) {
        share_ = 0;
        return 0;
    }
    // What is missing of the charge is missing of the light.
    const double charged = charge();
    double share = std::clamp(charged / power_, 0.0, 1.0);
    if (world_.due(MishapKind::flash_not_ready)) share = std::min(share, 0.25);
    held_ = charged - share * power_;
    since_ = world_.clock.now();
    share_ = share;
    return share;
}

// ---- trigger -----------------------------------------------------------------------------------------------------

Done SimulatedTrigger::connect() {
    connected_ = true;
    return std::nullopt;
}

Done SimulatedTrigger::fire() {
    if (!connected_) return not_connected(name());
    return camera_.released();
}

}  // namespace poquito::devices
