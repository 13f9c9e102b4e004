#include "advice/rules.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

std::optional<Remedy> open_up(const plan::Plan& plan, double airy_over_limit) {
    const double wanted =
        std::max(mark_below(plan.shot.exposure.f_number * 2 / airy_over_limit), plan.lens.optics.max_aperture);
    if (wanted >= plan.shot.exposure.f_number) return std::nullopt;
    return remedy(plan, fmt::format("Open to {}", text::f_number_text(wanted)),
                  [&](shoot::Shot& shot) { shot.exposure.f_number = wanted; });
}

Found diffraction_coarse(const plan::Plan& plan, const plan::Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 2) return {};
    return Finding{
        fmt::format("Diffraction: the Airy disc is {}, {} times the blur limit of {}. Detail at the limit is "
                    "gone at every distance.",
                    text::length_text(report.sharpness.airy_diameter), text::number_text(ratio, 2),
                    text::length_text(report.sharpness.blur_limit)),
        open_up(plan, ratio)};
}

Found diffraction_over_limit(const plan::Plan&, const plan::Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 1 || ratio > 2) return {};
    return Finding{
        fmt::format("The Airy disc, {}, is wider than the blur limit of {}: usual at this magnification; the "
                    "finest detail loses some contrast.",
                    text::length_text(report.sharpness.airy_diameter), text::length_text(report.sharpness.blur_limit))};
}

Found depth_less_than_subject(const plan::Plan& plan, const plan::Report& report) {
    const auto& depth = report.sharpness.depth_of_field;
    if (plan.shot.capture.mode == shoot::CaptureMode::stack || !depth || *depth >= plan.extent.depth) return {};
    auto text = fmt::format("One frame holds {} of the subject's {}.", text::length_text(*depth),
                            text::length_text(plan.extent.depth));
    if (moves(plan.shot.subject))
        return Finding{text + " It moves, so a stack has little chance: choose which part is to be sharp."};
    const auto steps = plan::stack_steps(plan, plan.shot.exposure.f_number);
    if (!steps) return Finding{std::move(text)};
    return Finding{std::move(text), remedy(plan, fmt::format("Stack of {}", text::number_text(steps->frames, 6)),
                                           [](shoot::Shot& shot) { shot.capture.mode = shoot::CaptureMode::stack; })};
}

Found stop_not_on_lens(const plan::Plan& plan, const plan::Report&) {
    const auto& optics = plan.lens.optics;
    const double f = plan.shot.exposure.f_number;
    constexpr double as_engraved = 1.001;
    if (f * as_engraved >= optics.max_aperture && f <= optics.min_aperture * as_engraved) return {};
    const double nearest = std::clamp(f, optics.max_aperture, optics.min_aperture);
    return Finding{fmt::format("This lens goes from {} to {}, not to {}.", text::f_number_text(optics.max_aperture),
                               text::f_number_text(optics.min_aperture), text::f_number_text(f)),
                   remedy(plan, fmt::format("Set {}", text::f_number_text(nearest)),
                          [&](shoot::Shot& shot) { shot.exposure.f_number = nearest; })};
}

Found best_stop_outside_lens(const plan::Plan& plan, const plan::Report& report) {
    const auto& best = report.sharpness.best_single_f_number;
    const auto& optics = plan.lens.optics;
    if (!best) return {};
    if (*best >= optics.max_aperture && *best <= optics.min_aperture) return {};
    return Finding{fmt::format("The best single stop, {}, is not on this lens ({} to {}).", text::f_number_text(*best),
                               text::f_number_text(optics.max_aperture), text::f_number_text(optics.min_aperture))};
}

Found contrast_nothing_to_keep(const plan::Plan&, const plan::Report& report) {
    if (!report.capture.nothing_to_keep) return {};
    return Finding{
        "Diffraction leaves less than a tenth of the contrast at the blur limit, so there is none to keep: "
        "the frame depth is the quarter-wave rule's."};
}

constexpr Rule depth_rows[] = {
    {"diffraction-coarse", Station::depth, Level::caution, Concern::plan, diffraction_coarse},
    {"depth-less-than-subject", Station::depth, Level::caution, Concern::plan, depth_less_than_subject},
    {"stop-not-on-lens", Station::depth, Level::caution, Concern::plan, stop_not_on_lens},
    {"diffraction-over-limit", Station::depth, Level::info, Concern::plan, diffraction_over_limit},
    {"best-stop-outside-lens", Station::depth, Level::info, Concern::plan, best_stop_outside_lens},
    {"contrast-nothing-to-keep", Station::depth, Level::info, Concern::plan, contrast_nothing_to_keep},
};

}  // namespace

std::span<const Rule> depth_rules() { return depth_rows; }

}  // namespace poquito::advice
