#include "shoot/advice.hpp"
#include "shoot/scales.hpp"
#include "shoot/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

using Found = std::optional<Finding>;

bool moves(const Subject& subject) { return subject.speed > 0 || subject.sway_amplitude > 0; }

/// The largest mark of the nominal scale not above `f_number`; sparing the scale's rounding (f/22 is 22.6).
double mark_below(double f_number) {
    const double above = step_f_number(f_number, 1);
    return step_f_number(above, -1) <= f_number ? step_f_number(above, -1) : step_f_number(f_number, -1);
}

std::optional<Remedy> open_up(const Plan& plan, double airy_over_limit) {
    const double wanted =
        std::max(mark_below(plan.shot.exposure.f_number * 2 / airy_over_limit), plan.lens.optics.max_aperture);
    if (wanted >= plan.shot.exposure.f_number) return std::nullopt;
    return remedy(plan, fmt::format("Open to {}", f_number_text(wanted)),
                  [&](Shot& shot) { shot.exposure.f_number = wanted; });
}

Found diffraction_coarse(const Plan& plan, const Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 2) return {};
    return Finding{
        fmt::format("Diffraction: the Airy disc is {}, {} times the blur limit of {}. Detail at the limit is "
                    "gone at every distance.",
                    length_text(report.sharpness.airy_diameter), number_text(ratio, 2),
                    length_text(report.sharpness.blur_limit)),
        open_up(plan, ratio)};
}

Found diffraction_over_limit(const Plan&, const Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 1 || ratio > 2) return {};
    return Finding{
        fmt::format("The Airy disc, {}, is wider than the blur limit of {}: usual at this magnification; the "
                    "finest detail loses some contrast.",
                    length_text(report.sharpness.airy_diameter), length_text(report.sharpness.blur_limit))};
}

Found depth_less_than_subject(const Plan& plan, const Report& report) {
    const auto& depth = report.sharpness.depth_of_field;
    if (plan.shot.capture.mode == CaptureMode::stack || !depth || *depth >= plan.extent.depth) return {};
    auto text =
        fmt::format("One frame holds {} of the subject's {}.", length_text(*depth), length_text(plan.extent.depth));
    if (moves(plan.shot.subject))
        return Finding{text + " It moves, so a stack has little chance: choose which part is to be sharp."};
    const auto steps = stack_steps(plan, plan.shot.exposure.f_number);
    if (!steps) return Finding{std::move(text)};
    return Finding{std::move(text), remedy(plan, fmt::format("Stack of {}", number_text(steps->frames, 6)),
                                           [](Shot& shot) { shot.capture.mode = CaptureMode::stack; })};
}

/// The first stop, stepping down, that keeps the stack within the bracket and its Airy disc within twice the limit.
std::optional<double> stop_within_bracket(const Plan& plan, const Report& report) {
    const double airy_per_f_number = report.sharpness.airy_diameter / plan.shot.exposure.f_number;
    for (double f = step_f_number(plan.shot.exposure.f_number, 1);; f = step_f_number(f, 1)) {
        if (f > plan.lens.optics.min_aperture || f * airy_per_f_number > 2 * report.sharpness.blur_limit)
            return std::nullopt;
        const auto steps = stack_steps(plan, f);
        if (!steps || steps->frames <= plan.camera.bracket.max_frames) return f;
        if (step_f_number(f, 1) == f) return std::nullopt;
    }
}

Found frames_above_bracket(const Plan& plan, const Report& report) {
    const double frames = report.capture.frames;
    if (frames <= plan.camera.bracket.max_frames) return {};
    const double passes = std::ceil(frames / plan.camera.bracket.max_frames);
    Finding finding{fmt::format("{} frames pass the {} that this camera brackets: {} passes, or a controlled rail.",
                                number_text(frames, 9), plan.camera.bracket.max_frames, number_text(passes, 9))};
    if (const auto f = stop_within_bracket(plan, report))
        finding.remedy = remedy(plan, fmt::format("Stop down to {}", f_number_text(*f)),
                                [&](Shot& shot) { shot.exposure.f_number = *f; });
    return finding;
}

Found stop_not_on_lens(const Plan& plan, const Report&) {
    const auto& optics = plan.lens.optics;
    const double f = plan.shot.exposure.f_number;
    constexpr double as_engraved = 1.001;
    if (f * as_engraved >= optics.max_aperture && f <= optics.min_aperture * as_engraved) return {};
    const double nearest = std::clamp(f, optics.max_aperture, optics.min_aperture);
    return Finding{fmt::format("This lens goes from {} to {}, not to {}.", f_number_text(optics.max_aperture),
                               f_number_text(optics.min_aperture), f_number_text(f)),
                   remedy(plan, fmt::format("Set {}", f_number_text(nearest)),
                          [&](Shot& shot) { shot.exposure.f_number = nearest; })};
}

Found best_stop_outside_lens(const Plan& plan, const Report& report) {
    const auto& best = report.sharpness.best_single_f_number;
    const auto& optics = plan.lens.optics;
    if (!best) return {};
    if (*best >= optics.max_aperture && *best <= optics.min_aperture) return {};
    return Finding{fmt::format("The best single stop, {}, is not on this lens ({} to {}).", f_number_text(*best),
                               f_number_text(optics.max_aperture), f_number_text(optics.min_aperture))};
}

Found contrast_nothing_to_keep(const Plan&, const Report& report) {
    if (!report.capture.nothing_to_keep) return {};
    return Finding{
        "Diffraction leaves less than a tenth of the contrast at the blur limit, so there is none to keep: "
        "the frame depth is the quarter-wave rule's."};
}

Found ring_cannot_step(const Plan& plan, const Report& report) {
    const auto& capture = report.capture;
    if (plan.shot.capture.mover != Mover::ring || !capture.travel || capture.frames < 2 || capture.ring_travel)
        return {};
    const bool near_unity = std::abs(report.optics.magnification - 1) < 0.1;
    const auto why =
        near_unity ? "near 1:1 it hardly moves the plane of focus" : "its travel ends before the stack does";
    return Finding{fmt::format("The focus ring cannot make this stack: {}.", why),
                   remedy(plan, "Move the camera on a rail", [](Shot& shot) { shot.capture.mover = Mover::rail; })};
}

Found stack_of_moving_subject(const Plan& plan, const Report& report) {
    if (report.capture.frames < 2 || !moves(plan.shot.subject)) return {};
    Finding finding{fmt::format("The subject moves; it would have to hold still for {}.",
                                time_text(report.capture.paced_duration))};
    if (report.sharpness.best_single_f_number) {
        const double f = std::clamp(mark_below(*report.sharpness.best_single_f_number), plan.lens.optics.max_aperture,
                                    plan.lens.optics.min_aperture);
        finding.remedy = remedy(plan, fmt::format("One frame at {}", f_number_text(f)), [&](Shot& shot) {
            shot.capture.mode = CaptureMode::single;
            shot.exposure.f_number = f;
        });
    }
    return finding;
}

constexpr Rule rules[] = {
    {"diffraction-coarse", Station::depth, Level::caution, Concern::plan, diffraction_coarse},
    {"depth-less-than-subject", Station::depth, Level::caution, Concern::plan, depth_less_than_subject},
    {"frames-above-bracket", Station::depth, Level::caution, Concern::plan, frames_above_bracket},
    {"stop-not-on-lens", Station::depth, Level::caution, Concern::plan, stop_not_on_lens},
    {"ring-cannot-step", Station::depth, Level::caution, Concern::plan, ring_cannot_step},
    {"stack-of-moving-subject", Station::depth, Level::caution, Concern::plan, stack_of_moving_subject},
    {"diffraction-over-limit", Station::depth, Level::info, Concern::plan, diffraction_over_limit},
    {"best-stop-outside-lens", Station::depth, Level::info, Concern::plan, best_stop_outside_lens},
    {"contrast-nothing-to-keep", Station::depth, Level::info, Concern::plan, contrast_nothing_to_keep},
};

}  // namespace

std::span<const Rule> depth_rules() { return rules; }

}  // namespace poquito::shoot
