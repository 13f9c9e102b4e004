#include "shoot/rules.hpp"
#include "shoot/scales.hpp"
#include "shoot/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

using Found = std::optional<Finding>;

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

constexpr Rule rules[] = {
    {"diffraction-coarse", Station::depth, Level::caution, Concern::plan, diffraction_coarse},
    {"depth-less-than-subject", Station::depth, Level::caution, Concern::plan, depth_less_than_subject},
    {"stop-not-on-lens", Station::depth, Level::caution, Concern::plan, stop_not_on_lens},
    {"diffraction-over-limit", Station::depth, Level::info, Concern::plan, diffraction_over_limit},
    {"best-stop-outside-lens", Station::depth, Level::info, Concern::plan, best_stop_outside_lens},
    {"contrast-nothing-to-keep", Station::depth, Level::info, Concern::plan, contrast_nothing_to_keep},
};

}  // namespace

std::span<const Rule> depth_rules() { return rules; }

}  // namespace poquito::shoot
