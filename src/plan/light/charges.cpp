#include "plan/light/charges.hpp"

#include "plan/light/lighting.hpp"

#include <algorithm>

namespace poquito::plan {

std::vector<ChargeUse> charge_use(const shoot::Shoot& shoot, const std::vector<const Report*>& reports) {
    std::vector<ChargeUse> uses;
    for (const gear::Flash& flash : shoot.kit.flashes) {
        ChargeUse use{.flash = flash.id};
        for (std::size_t s = 0; s < shoot.shots.size() && s < reports.size(); ++s)
            for (std::size_t i = 0; i < shoot.shots[s].lights.size(); ++i) {
                const auto& source = reports[s]->light.sources[i];
                if (shoot.shots[s].lights[i].flash != flash.id || !source.fires) continue;
                const double fired = reports[s]->capture.cost.exposures * flashes_a_frame(shoot.shots[s]);
                use.flashes += fired;
                use.full_flashes += fired * std::min(source.power, 1.0);
            }
        if (flash.charge) use.share = use.full_flashes / *flash.charge;
        if (use.flashes > 0) uses.push_back(use);
    }
    return uses;
}

std::optional<double> flashes_a_minute(const gear::Flash& flash, double power) {
    if (!flash.per_minute || !(power > 0)) return std::nullopt;
    return *flash.per_minute / power;
}

}  // namespace poquito::plan
