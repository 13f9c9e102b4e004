// What a stack costs: time, space, charge, and what more frames would still gain.
#include "making.hpp"
#include "optics/aperture.hpp"
#include "optics/depth.hpp"
#include "plan/report.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

double default_settle(shoot::Mover mover) {
    switch (mover) {
        case shoot::Mover::rail:
            return 1;
        case shoot::Mover::ring:
            return 0.2;
        case shoot::Mover::hand:
            return 0;
    }
    return 0;
}

double exposures_of(const StackReport* stack, double frames) {
    const auto* hand = stack ? stack->hand() : nullptr;
    if (!hand || frames < 2) return frames;
    return std::isfinite(hand->bursts) ? hand->bursts * hand->burst_frames : frames;
}

double last_exposure(double frames, double interval, double write, double buffer) {
    const double last = frames - 1;
    if (write <= interval) return last * interval;
    // The card is busy from the first frame on: a frame waits until the one `buffer` before it is written.
    return std::max(last * interval, (last - buffer + 1) * write);
}

double blur_of_frames(const Plan& plan, double span, double frames) {
    const auto imaging = imaging_of(plan, plan.shot.exposure.f_number);
    const double defocus = optics::blur_disc(imaging, span / (2 * frames)).value_or(0);
    return std::hypot(optics::airy_diameter(imaging.working_f_number, plan.shot.sharpness.wavelength), defocus);
}

namespace {

/// Few enough that a twentieth is all that more of them could sharpen.
double enough_frames(const Plan& plan, double span, double airy) {
    const auto imaging = imaging_of(plan, plan.shot.exposure.f_number);
    constexpr double nearly = 1.05;
    const double disc = airy * std::sqrt(nearly * nearly - 1);
    // disc = m^2 A b / (A N_w + m b s), solved for b.
    const double m = imaging.magnification, a = imaging.pupil_diameter;
    const double per = m * m * a - disc * m * imaging.pupil_scale;
    if (per <= 0) return 1;
    const double behind = disc * a * imaging.working_f_number / per;
    return std::max(1.0, std::ceil(span / (2 * behind) - as_good_as_whole));
}

}  // namespace

StackCost pace_of(const Plan& plan, const CaptureReport& report) {
    const auto& shot = plan.shot;
    const auto& capture = shot.capture;
    StackCost cost;
    auto& cadence = cost.cadence;
    const bool stack = report.frames > 1;
    const bool by_hand = stack && capture.mover == shoot::Mover::hand;
    cadence.exposure = shot.exposure.shutter;
    cadence.recycle = report.recycle;
    if (stack && capture.mover == shoot::Mover::rail) {
        cadence.move = *report.step / (plan.rail ? plan.rail->speed : gear::Rail{}.speed);
    }
    if (stack) cadence.settle = capture.settle.value_or(default_settle(capture.mover));
    // A bracket goes at its own pace, whatever the flash does.
    const bool own_pace = stack && capture.mover == shoot::Mover::ring && cadence_of(plan);
    if (own_pace) cadence.settle = 0;
    const double at_rest = std::max(cadence.move + cadence.settle, report.recycle);
    cadence.frame = std::max(report.interval, own_pace ? cadence.exposure : cadence.exposure + at_rest);
    if (by_hand) cadence.frame = std::max(1 / capture.hand.frames_per_second, cadence.exposure + report.recycle);
    cost.exposures = exposures_of(report.stack ? &*report.stack : nullptr, report.frames);

    const auto& camera = plan.camera;
    if (camera.write_speed) cadence.write = camera.frame_mb / *camera.write_speed;
    double last = (cost.exposures - 1) * cadence.frame;
    if (camera.buffer_frames && camera.write_speed) {
        const double stalled = last_exposure(cost.exposures, cadence.frame, cadence.write, *camera.buffer_frames);
        cost.stalls = stalled - last;
        last = stalled;
        if (cadence.write > cadence.frame)
            cost.frames_to_stall =
                std::floor((*camera.buffer_frames - 1) * cadence.write / (cadence.write - cadence.frame)) + 1;
        if (cost.stalls <= 0) cost.frames_to_stall.reset();
    }
    if (stack && capture.mover == shoot::Mover::ring && capture.composite) cost.combine = camera.bracket.combine;
    cost.seconds = last + cadence.exposure + cost.combine;
    if (camera.card_space) cost.card_share = cost.exposures * camera.frame_mb / *camera.card_space;
    if (camera.charge) cost.charge_share = cost.exposures / *camera.charge;
    return cost;
}

StackCost cost_of(const Plan& plan, const CaptureReport& report) {
    const auto& shot = plan.shot;
    StackCost cost = pace_of(plan, report);
    if (!(plan.at.magnification > 0)) return cost;
    cost.floor = optics::airy_diameter(working_f_number(plan, shot.exposure.f_number), shot.sharpness.wavelength);
    if (!report.stack) return cost;
    cost.blur = blur_of_frames(plan, report.stack->span.length(), report.frames);
    cost.enough_frames = enough_frames(plan, report.stack->span.length(), cost.floor);
    return cost;
}

}  // namespace poquito::plan
