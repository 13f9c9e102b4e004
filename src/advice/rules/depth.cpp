#include "advice/rules/rules.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

/// What a single frame cannot do better: beyond the best stop everything gets softer, its ends too.
bool past_best_stop(const plan::Plan& plan, const plan::Report& report) {
    constexpr double a_third = 1.13;  // as an f-number
    const auto& best = report.sharpness.best_single_f_number;
    return !best || plan.shot.exposure.f_number > *best * a_third;
}

bool is_stack(const plan::Plan& plan) { return plan.shot.capture.mode == shoot::CaptureMode::stack; }

/// The same light at another stop, paid by time; flashes that find their power do so themselves.
Remedy at_stop(const plan::Plan& plan, std::string label, double f_number) {
    return remedy(plan, std::move(label), [&](shoot::Shot& shot) {
        const double stops = 2 * std::log2(f_number / shot.exposure.f_number);
        shot.exposure.f_number = f_number;
        if (plan::finds_power(plan)) return;
        shot.exposure.shutter = text::nearest_shutter(shot.exposure.shutter * std::exp2(stops));
    });
}

Found diffraction_coarse(const plan::Plan& plan, const plan::Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 2 || (!is_stack(plan) && !past_best_stop(plan, report))) return {};
    Finding finding{
        fmt::format("Stopped down so far, diffraction blurs everything alike: its disc is {}, {} times what you take "
                    "for sharp, {}.",
                    text::length_text(report.sharpness.airy_diameter), text::number_text(ratio, 2),
                    text::length_text(report.sharpness.blur_limit))};
    double wanted = mark_below(plan.shot.exposure.f_number * 2 / ratio);
    if (!is_stack(plan) && report.sharpness.best_single_f_number)
        wanted = std::max(wanted, mark_below(*report.sharpness.best_single_f_number));
    wanted = std::max(wanted, plan.lens.optics.max_aperture);
    if (wanted < plan.shot.exposure.f_number)
        finding.remedy = at_stop(plan, fmt::format("Open to {}", text::f_number_text(wanted)), wanted);
    return finding;
}

Found diffraction_over_limit(const plan::Plan& plan, const plan::Report& report) {
    const double ratio = report.sharpness.airy_diameter / report.sharpness.blur_limit;
    if (ratio <= 1) return {};
    if (ratio > 2 && (is_stack(plan) || past_best_stop(plan, report))) return {};
    return Finding{
        fmt::format("The disc of diffraction, {}, is wider than what you take for sharp, {}: usual at this "
                    "magnification; the finest detail loses some contrast{}.",
                    text::length_text(report.sharpness.airy_diameter), text::length_text(report.sharpness.blur_limit),
                    ratio > 2 ? ", and any wider stop loses more at the ends" : "")};
}

bool misses_sharpness(const plan::Plan& plan, const plan::Report& report) {
    return worth_of(plan, report).kept(Quality::sharp) < missed;
}

/// Whether the subject keeps still for a stack as it would be.
bool holds_still_for(const plan::Plan& plan, const shoot::Shot& stacked) {
    const plan::Plan then = plan::plan_of(plan, stacked);
    const auto report = plan::assess(then);
    const double tolerated = std::min(report.sharpness.blur_limit / report.optics.magnification,
                                      stacked.capture.overlap * report.capture.frame_depth.value_or(0));
    return plan::wandering(stacked.subject, report.capture.paced_duration) <= tolerated;
}

/// Ways to more depth: a smaller stop, as far as the best one, paid by ISO or time; a stack of what keeps still.
void deepen(const plan::Plan& plan, const plan::Report& report, double wanted, Finding& finding) {
    if (OnlyCounting::now()) return;
    const auto& sharp = report.sharpness;
    const double f_now = plan.shot.exposure.f_number;
    const double best = sharp.best_single_f_number.value_or(f_now);
    double f = text::step_f_number(f_now * wanted / *sharp.depth_of_field * 0.999, 1);
    const double most = std::min({best, plan.lens.optics.min_aperture, plan.terms.limits.f_number.value_or(1000)});
    if (f > most) f = mark_below(most);
    if (f > f_now * 1.01) {
        const double stops = 2 * std::log2(f / f_now);
        const auto label = [&](const shoot::Exposure& e) {
            return plan::finds_power(plan) ? fmt::format("Close to {}", text::f_number_text(f))
                                           : fmt::format("{}, {}, ISO {}", text::f_number_text(f),
                                                         text::shutter_text(e.shutter), text::number_text(e.iso, 6));
        };
        shoot::Exposure noisier = plan.shot.exposure;
        noisier.f_number = f;
        shoot::Exposure longer = noisier;
        if (!plan::finds_power(plan)) {
            noisier.iso = text::nearest_iso(noisier.iso * std::exp2(stops));
            longer.shutter = text::nearest_shutter(longer.shutter * std::exp2(stops));
        }
        const auto expose = [&](shoot::Loss loss, const shoot::Exposure& exposure) {
            finding.ways.push_back(
                {loss, remedy(plan, label(exposure), [&](shoot::Shot& shot) { shot.exposure = exposure; })});
        };
        expose(shoot::Loss::iso, noisier);
        expose(shoot::Loss::motion, longer);
    }
    const auto frames = plan::stack_frames_at(plan, f_now);
    if (!frames || *frames < 2) return;
    auto stacked = remedy(plan, fmt::format("Stack of {}", text::number_text(*frames, 6)),
                          [](shoot::Shot& shot) { shot.capture.mode = shoot::CaptureMode::stack; });
    if (holds_still_for(plan, stacked.shot)) finding.ways.push_back({shoot::Loss::time, std::move(stacked)});
}

/// Of one frame; what the subject does not let one stack is said.
Found depth_less_than_subject(const plan::Plan& plan, const plan::Report& report) {
    const auto& depth = report.sharpness.depth_of_field;
    if (is_stack(plan) || plan.zone || !depth || *depth >= plan.extent.depth || !misses_sharpness(plan, report))
        return {};
    if (!shoot::wants_sharpness(plan.shot)) return {};
    const bool alive = shoot::has_trait(plan.shot.subject, "living") || shoot::has_trait(plan.shot.subject, "person");
    Finding finding{fmt::format(
        "One frame holds {} of the subject's {}. {}", text::length_text(*depth), text::length_text(plan.extent.depth),
        moves(plan.shot.subject) || alive ? "It moves, so a stack has little chance: say which part has to be sharp."
                                          : "Where less has to be sharp, say so: a zone.")};
    deepen(plan, report, plan.extent.depth, finding);
    return finding;
}

Found zone_not_held(const plan::Plan& plan, const plan::Report& report) {
    const auto& held = report.sharpness.zone_covered;
    constexpr double all = 0.995;
    if (!held || *held >= all || is_stack(plan) || !misses_sharpness(plan, report)) return {};
    const double zone = *report.sharpness.zone;
    Finding finding{fmt::format("{} holds {} of the {} that have to be sharp.",
                                text::f_number_text(plan.shot.exposure.f_number), text::length_text(*held * zone),
                                text::length_text(zone))};
    if (std::abs(plan.shot.sharpness.focus_offset) > zone * 0.02)
        finding.remedy =
            remedy(plan, "Focus in the middle of it", [](shoot::Shot& shot) { shot.sharpness.focus_offset = 0; });
    if (report.sharpness.depth_of_field) deepen(plan, report, zone, finding);
    return finding;
}

/// The wanted fall into softness: said as what it is.
Found shallow_as_wanted(const plan::Plan& plan, const plan::Report& report) {
    const auto& held = report.sharpness.zone_covered;
    if (!held || *held < 0.995 || !report.sharpness.rest_blur ||
        *report.sharpness.rest_blur <= report.sharpness.blur_limit)
        return {};
    const double share = *report.sharpness.rest_blur / plan.sensor.width;
    if (share < plan.shot.capture.slice->rest_blur.value_or(0)) return {};
    return Finding{
        fmt::format("The {} that have to be sharp are; the rest falls off to a disc of {} % of the frame, as wanted.",
                    text::length_text(*report.sharpness.zone), text::number_text(share * 100, 2))};
}

Found rest_not_soft(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.zone || !report.sharpness.rest_blur || is_stack(plan)) return {};
    const auto& goal = plan.shot.capture.slice->rest_blur;
    const double share = *report.sharpness.rest_blur / plan.sensor.width;
    if (!goal || share >= *goal || *report.sharpness.rest_blur <= 0) return {};
    if (worth_of(plan, report).kept(Quality::softness) >= missed) return {};
    Finding finding{fmt::format("What may be soft is blurred to discs of {} % of the frame; you wanted {} % at least.",
                                text::number_text(share * 100, 2), text::number_text(*goal * 100, 2))};
    const double f = std::max(mark_below(plan.shot.exposure.f_number * share / *goal), plan.lens.optics.max_aperture);
    if (f < plan.shot.exposure.f_number)
        finding.remedy = at_stop(plan, fmt::format("Open to {}", text::f_number_text(f)), f);
    return finding;
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
    {"diffraction-coarse", Station::depth, Level::caution, Concern::plan, diffraction_coarse, Quality::sharp},
    {"depth-less-than-subject", Station::depth, Level::caution, Concern::plan, depth_less_than_subject, Quality::sharp},
    {"zone-not-held", Station::depth, Level::caution, Concern::plan, zone_not_held, Quality::sharp},
    {"rest-not-soft", Station::depth, Level::caution, Concern::plan, rest_not_soft, Quality::softness},
    {"stop-not-on-lens", Station::depth, Level::caution, Concern::plan, stop_not_on_lens},
    {"shallow-as-wanted", Station::depth, Level::info, Concern::plan, shallow_as_wanted},
    {"diffraction-over-limit", Station::depth, Level::info, Concern::plan, diffraction_over_limit},
    {"best-stop-outside-lens", Station::depth, Level::info, Concern::plan, best_stop_outside_lens},
    {"contrast-nothing-to-keep", Station::depth, Level::info, Concern::plan, contrast_nothing_to_keep},
};

}  // namespace

std::span<const Rule> depth_rules() { return depth_rows; }

}  // namespace poquito::advice
