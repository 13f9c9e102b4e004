#include "plan/motion/burst.hpp"

#include "../stack/making.hpp"
#include "light/store.hpp"
#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "plan/stack/stack_plan.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::plan {
namespace {

/// As the shot says that one rocks; hands that were measured sway as wide as they do, and as much faster.
shoot::HandHeld sway_of(const Plan& plan) {
    shoot::HandHeld sway = plan.shot.capture.hand;
    if (!shoot::tries_of(plan.shot).hands) return sway;
    const double range = hands_of(plan).along * std::sqrt(12.0);
    sway.speed *= range / sway.range;
    sway.range = range;
    return sway;
}

/// As many as the buffer lets through in that time; beyond it they come as the card takes them.
double through_buffer(const Plan& plan, double frames, double every) {
    const auto& camera = plan.camera;
    if (!camera.buffer_frames || !camera.write_speed) return frames;
    const double write = camera.frame_mb / *camera.write_speed, time = (frames - 1) * every;
    while (frames > 1 && last_exposure(frames, every, write, *camera.buffer_frames) > time * (1 + as_good_as_whole))
        --frames;
    return frames;
}

/// As many as all flashes give whole at that pace.
double whole_flashes(const Plan& plan, const Report& report, double frames, double every) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.fires || source.continuous) continue;
        auto fire = rapid_fire_of(plan, report, i);
        fire.every = every;
        if (const auto whole = light::whole_flashes(fire)) frames = std::min(frames, *whole);
    }
    return frames;
}

/// Exact where all its frames are focused alike.
double rocking_odds(const Burst& burst, double depth) {
    auto as_taken = burst.sway;
    as_taken.frames_per_second = 1 / burst.row.every;
    as_taken.burst = burst.row.frames * burst.row.every;
    return sway_odds(as_taken, depth).chance;
}

}  // namespace

const char* limit_name(BurstLimit limit) {
    constexpr const char* names[] = {"drive", "shutter time", "flash", "buffer"};
    return names[static_cast<int>(limit)];
}

double nearest_focus(const shoot::HandHeld& sway, const FrameRow& row, double start) {
    const double circle = 2 * sway.range;
    double nearest = std::numeric_limits<double>::infinity();
    for (int i = 0; i < row.frames; ++i) {
        const double at = std::fmod(start + sway.speed * row.every * i, circle);
        const double place = (at < sway.range ? at : circle - at) - sway.range / 2;
        const double focus = place + row.step * (i - (row.frames - 1) / 2.0);
        if (std::abs(focus) < std::abs(nearest)) nearest = focus;
    }
    return nearest;
}

double row_odds(const shoot::HandHeld& sway, const FrameRow& row, double depth) {
    // Enough beginnings for a per cent; fewer where each takes long to follow.
    constexpr int most = 4000, least = 400, steps = 100000;
    const int beginnings = std::clamp(steps / std::max(1, row.frames), least, most);
    int hits = 0;
    for (int k = 0; k < beginnings; ++k)
        hits += std::abs(nearest_focus(sway, row, 2 * sway.range * (k + 0.5) / beginnings)) <= depth / 2;
    return static_cast<double>(hits) / beginnings;
}

double Burst::seconds() const { return std::max(0, row.frames - 1) * row.every; }

std::optional<Burst> burst_of(const Plan& plan, const Report& report) {
    const auto& shot = plan.shot;
    const auto& tries = shoot::tries_of(shot);
    if (tries.is == shoot::TryIs::frame || shot.rig.support != shoot::Support::hand || report.capture.frames > 1)
        return std::nullopt;
    const bool rocking = tries.is == shoot::TryIs::rocking;
    const auto depth = depth_to_hit(report);
    Burst burst{.sway = sway_of(plan), .row = {}};
    auto& row = burst.row;
    const auto& bracket = plan.camera.bracket;
    row.every = rocking ? 1 / burst.sway.frames_per_second
                        : shot.capture.cadence.value_or(bracket.cadence.value_or(default_frame_interval));
    if (shot.exposure.shutter > row.every) row.every = shot.exposure.shutter, burst.limit = BurstLimit::shutter;
    constexpr double overlapping = 0.75;
    if (!rocking) row.step = tries.bracket_step.value_or(depth.value_or(0) * overlapping);
    const double wanted = rocking ? std::max(1.0, std::floor(burst.sway.burst / row.every + as_good_as_whole))
                                  : static_cast<double>(tries.bracket_frames);
    double frames = wanted;
    if (const double buffered = through_buffer(plan, wanted, row.every); buffered < frames)
        frames = buffered, burst.limit = BurstLimit::buffer;
    if (const double lit = whole_flashes(plan, report, wanted, row.every); lit < frames)
        frames = lit, burst.limit = BurstLimit::flash;
    row.frames = static_cast<int>(frames);
    if (row.frames < 1) return burst;  // never
    burst.in_depth = !depth ? 1 : rocking ? rocking_odds(burst, *depth) : row_odds(burst.sway, row, *depth);
    return burst;
}

}  // namespace poquito::plan
