#include "whatif/flash_balance.hpp"

#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be

std::optional<light::Balance> balance_of(const LightReport& light) {
    if (!light.continuous || !light.flash) return std::nullopt;
    return light::Balance{.ambient = *light.continuous, .flash = *light.flash};
}

std::optional<BalanceProposal> propose_balance(const Plan& plan, const light::Balance& wanted) {
    const shoot::Shot& shot = plan.shot;
    const LightReport light = report_light(plan);
    const auto now = balance_of(light);
    if (!now) return std::nullopt;
    const auto levers = light::levers_to(*now, wanted, light.shutter_room);
    BalanceProposal proposal{.shot = shot, .at_wall = levers.both < -1e-9};
    auto& exposure = proposal.shot.exposure;
    const auto& lens = plan.train.lens;
    double shutter = text::nearest_shutter(shot.exposure.shutter * std::exp2(levers.shutter));
    if (shutter < plan.camera.sync && shot.exposure.shutter >= plan.camera.sync * (1 - 1e-9))
        shutter = plan.camera.sync;
    exposure.shutter = shutter;
    if (std::abs(levers.both) > 1e-9) {
        exposure.f_number = std::clamp(text::nearest_f_number(shot.exposure.f_number * std::exp2(-levers.both / 2)),
                                       lens.max_aperture, lens.min_aperture);
        const double done = -2 * std::log2(exposure.f_number / shot.exposure.f_number);
        if (std::abs(levers.both - done) > 1.0 / 6 + 1e-9)
            exposure.iso = text::nearest_iso(shot.exposure.iso * std::exp2(levers.both - done));
    }
    // Whatever the marks came to, the flashes bring themselves to what is wanted of them.
    const Plan changed = plan_of(plan, proposal.shot);
    for (std::size_t i = 0; i < proposal.shot.lights.size(); ++i) {
        shoot::Light& one = proposal.shot.lights[i];
        const auto& source = light.sources[i];
        if (!is_flash(one) || !source.stops || !source.share || one.own_stops) continue;
        const double shown = std::log2(*source.share) + *light.front_total;  // front and through
        const double part = shown - *light.flash;                            // of all flash, kept
        const double at_full = std::log2(light_at(changed, changed.sources[i], 1, 0));
        one.power = std::exp2(wanted.flash + part - at_full - (shown - *source.stops));
        one.metered.reset();
    }
    const auto reached = balance_of(report_light(plan_of(plan, proposal.shot)));
    if (reached) proposal.reached = *reached;
    proposal.text = fmt::format("{}, {}, ISO {}", text::shutter_text(exposure.shutter),
                                text::f_number_text(exposure.f_number), text::number_text(exposure.iso, 6));
    for (std::size_t i = 0; i < proposal.shot.lights.size(); ++i)
        if (is_flash(proposal.shot.lights[i]) && proposal.shot.lights[i].power)
            proposal.text += fmt::format(", {} {}", light_label(proposal.shot, i),
                                         setting_text(changed.sources[i], *proposal.shot.lights[i].power));
    return proposal;
}

}  // namespace poquito::whatif
