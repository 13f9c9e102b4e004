#include "advice/rules/rules.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {

using shoot::Loss;

namespace {

constexpr double rounding = 1e-6;

std::string settings_text(const shoot::Exposure& exposure) {
    return fmt::format("{}, {}, ISO {}", text::f_number_text(exposure.f_number), text::shutter_text(exposure.shutter),
                       text::number_text(exposure.iso, 6));
}

/// The ISO of the scale that gives `stops` more, at most the highest allowed; what is still missing goes to `missing`.
double raised(const plan::Plan& plan, double stops, double& missing) {
    const double now = plan.shot.exposure.iso, wanted = now * std::exp2(stops);
    const double iso = std::max(now, std::min(text::nearest_iso(wanted), highest_iso(plan)));
    missing = std::log2(wanted / iso);
    return iso;
}

double opened(const plan::Plan& plan, double stops, double& missing) {
    const double now = plan.shot.exposure.f_number;
    const double f =
        std::min(now, std::max(text::nearest_f_number(now * std::exp2(-stops / 2)), plan.lens.optics.max_aperture));
    missing = stops - 2 * std::log2(now / f);
    return f;
}

void add(std::vector<Way>& ways, const plan::Plan& plan, Loss gives_up, const shoot::Exposure& exposure) {
    if (exposure == plan.shot.exposure) return;
    ways.push_back(
        {gives_up, remedy(plan, settings_text(exposure), [&](shoot::Shot& shot) { shot.exposure = exposure; })});
}

constexpr double third = 1.0 / 3;

}  // namespace

double highest_iso(const plan::Plan& plan) {
    constexpr double end_of_scale = 102400;
    return plan.terms.limits.iso.value_or(end_of_scale) * (1 + rounding);
}

std::vector<Way> shorter_time(const plan::Plan& plan, double stops) {
    std::vector<Way> ways;
    shoot::Exposure exposure = plan.shot.exposure;
    exposure.shutter = text::step_shutter(exposure.shutter * std::exp2(-stops) * (1 + rounding), -1);
    const double wanted = std::log2(plan.shot.exposure.shutter / exposure.shutter);
    double missing = 0;
    shoot::Exposure noisier = exposure, wider = exposure, both = exposure;
    noisier.iso = raised(plan, wanted, missing);
    if (missing <= third) add(ways, plan, Loss::iso, noisier);
    wider.f_number = opened(plan, wanted, missing);
    if (missing <= third) add(ways, plan, Loss::depth, wider);
    both.iso = raised(plan, wanted, missing);
    both.f_number = opened(plan, missing, missing);
    if (missing <= third) add(ways, plan, Loss::depth, both);
    return ways;
}

std::vector<Way> brighter(const plan::Plan& plan, double stops) {
    std::vector<Way> ways;
    const shoot::Exposure& now = plan.shot.exposure;
    shoot::Exposure noisier = now, wider = now, longer = now;
    double missing = 0;
    noisier.iso =
        stops > 0 ? raised(plan, stops, missing) : text::nearest_iso(std::max(now.iso * std::exp2(stops), 100.0));
    if (stops < 0) missing = std::log2(noisier.iso / now.iso) - stops;
    if (std::abs(missing) <= third) add(ways, plan, stops > 0 ? Loss::iso : Loss::time, noisier);
    wider.f_number = stops > 0 ? opened(plan, stops, missing)
                               : std::min(text::nearest_f_number(now.f_number * std::exp2(-stops / 2)),
                                          plan.terms.limits.f_number.value_or(plan.lens.optics.min_aperture));
    if (stops < 0) missing = -stops - 2 * std::log2(wider.f_number / now.f_number);
    if (std::abs(missing) <= third) add(ways, plan, Loss::depth, wider);
    longer.shutter = text::nearest_shutter(now.shutter * std::exp2(stops));
    const bool by_hand = plan.shot.rig.support == shoot::Support::hand;
    const double slowest = by_hand ? plan.terms.limits.shutter_by_hand.value_or(60) : 60;
    if (longer.shutter <= slowest * (1 + rounding)) add(ways, plan, stops > 0 ? Loss::motion : Loss::time, longer);
    return ways;
}

}  // namespace poquito::advice
