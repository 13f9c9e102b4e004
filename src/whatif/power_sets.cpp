#include "whatif/power_sets.hpp"

#include "plan/light/lighting.hpp"

#include <algorithm>

namespace poquito::whatif {

using namespace plan;  // what it asks, of shots as they would be

void store_powers(shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& name) {
    shoot::PowerSet set{.name = name};
    for (const char* group : {"A", "B", "C"})
        for (std::size_t i = 0; i < shot.lights.size(); ++i)
            if (is_flash(shot.lights[i]) && shot.lights[i].power && group_of(shot, i) == group) {
                set.powers.emplace_back(group, std::min(*shot.lights[i].power, 1.0));
                break;
            }
    const auto same = std::ranges::find(shoot.power_sets, name, &shoot::PowerSet::name);
    if (same == shoot.power_sets.end()) {
        shoot.power_sets.push_back(std::move(set));
    } else {
        set.unknown = same->unknown;
        *same = std::move(set);
    }
}

int call_up(const shoot::PowerSet& set, shoot::Shot& shot) {
    int changed = 0;
    for (std::size_t i = 0; i < shot.lights.size(); ++i) {
        const auto found = std::ranges::find(set.powers, group_of(shot, i), &std::pair<std::string, double>::first);
        if (found == set.powers.end() || !is_flash(shot.lights[i])) continue;
        shot.lights[i].power = found->second;
        shot.lights[i].metered.reset();
        ++changed;
    }
    return changed;
}

void forget_powers(shoot::Shoot& shoot, const std::string& name) {
    std::erase_if(shoot.power_sets, [&](const shoot::PowerSet& set) { return set.name == name; });
}

}  // namespace poquito::whatif
