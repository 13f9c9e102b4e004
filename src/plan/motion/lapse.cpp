#include "plan/motion/lapse.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {
namespace {

constexpr double hour = 3600;

/// s that one moment takes: its frames at their pace, and the last of them onto the card.
double moment_time(const Plan& plan, const Report& report) {
    const auto& capture = report.capture;
    const double writing = plan.camera.write_speed ? plan.camera.frame_mb / *plan.camera.write_speed : 0;
    const bool single = plan.shot.capture.mode == shoot::CaptureMode::single;
    // A single frame's flash is charged before the next one.
    const double taking = single ? plan.shot.exposure.shutter + capture.recycle : capture.cost.seconds;
    return taking + writing;
}

}  // namespace

LapseReport lapse_of(const Plan& plan, const Report& report) {
    const auto& lapse = *plan.shot.lapse;
    const auto& capture = report.capture;
    LapseReport made;
    constexpr double rounding = 1e-9;
    made.moments = std::max(1.0, std::floor(lapse.length / lapse.interval + rounding));
    const double each = std::max(1.0, capture.cost.exposures);
    made.exposures = made.moments * each;
    made.shown = made.moments / lapse.frames_per_second;
    made.least_interval = moment_time(plan, report);
    made.data_mb = made.exposures * plan.camera.frame_mb;
    if (plan.camera.charge) made.charges = made.exposures / *plan.camera.charge;
    made.shift = lapse.growth * lapse.interval / hour * plan.at.magnification;
    made.shift_share = made.shift / plan.sensor.width;
    made.through = lapse.growth_depth * lapse.length / hour;
    if (lapse.growth_depth != 0) {
        // What is held sharp in front of the nearest point: half of what one frame holds, or a stack's lead and that.
        const auto frame = capture.frame_depth ? capture.frame_depth : report.sharpness.depth_of_field;
        const double room =
            frame.value_or(0) / 2 + (plan.shot.capture.mode == shoot::CaptureMode::stack
                                         ? (lapse.growth_depth > 0 ? plan.shot.capture.lead : plan.shot.capture.tail)
                                         : 0);
        const double holds = room / std::abs(lapse.growth_depth) * hour;
        if (holds < lapse.length) made.holds = holds;
    }
    made.drift_each = lapse.drift * lapse.interval / hour;
    made.drift_all = lapse.drift * lapse.length / hour;
    const bool lamps =
        std::ranges::any_of(plan.shot.lights, [](const auto& light) { return light.lamp && !light.off; });
    // Lamps that rest burn for a moment and the warming up before it, a second or so.
    if (lamps) made.lamps_on = lapse.lamps_rest ? made.moments * (made.least_interval + 1) / hour : lapse.length / hour;
    return made;
}

Yield yield_of(const Plan& plan, const Report& report) {
    const auto& capture = report.capture;
    if (!plan.shot.lapse)
        return {.frames = capture.frames, .data_mb = capture.data_mb, .charge_share = capture.cost.charge_share};
    const auto lapse = lapse_of(plan, report);
    Yield made{.frames = lapse.exposures, .data_mb = lapse.data_mb, .runs_on = plan.shot.lapse->length};
    if (plan.camera.charge) made.charge_share = lapse.charges;
    return made;
}

double interval_for(const shoot::Lapse& lapse, double shown) {
    return lapse.length / std::max(1.0, shown * lapse.frames_per_second);
}

double length_for(const shoot::Lapse& lapse, double shown) {
    return lapse.interval * std::max(1.0, shown * lapse.frames_per_second);
}

}  // namespace poquito::plan
