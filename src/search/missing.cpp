#include "search/missing.hpp"

#include "sold.hpp"

#include <algorithm>
#include <functional>
#include <optional>

namespace poquito::search {
namespace {

class Lacking {
  public:
    Lacking(const plan::Plan& plan, double magnification) : plan_(plan), kit_(plan.kit), magnification_(magnification) {
        // Under ids that no bag has: a piece of the bag stays what it is.
        for (gear::Tube tube : sold_tubes()) tube.id = own(tube.id), kit_.tubes.push_back(tube);
        for (gear::CloseupLens lens : sold_closeup_lenses())
            lens.id = own(lens.id), kit_.closeup_lenses.push_back(lens);
    }

    std::optional<std::string> tubes(bool contacts) const {
        std::vector<gear::Tube> all = sold_tubes();
        std::erase_if(all, [&](const gear::Tube& tube) { return tube.contacts != contacts; });
        std::vector<std::vector<gear::Tube>> sets;
        for (std::size_t i = 0; i < all.size(); ++i) {
            sets.push_back({all[i]});
            for (std::size_t j = i + 1; j < all.size(); ++j) sets.push_back({all[i], all[j]});
        }
        // One piece before two, the shorter before the longer.
        const auto length = [](const std::vector<gear::Tube>& set) {
            double sum = 0;
            for (const auto& tube : set) sum += tube.length;
            return sum;
        };
        std::ranges::stable_sort(sets, [&](const auto& a, const auto& b) {
            return a.size() != b.size() ? a.size() < b.size() : length(a) < length(b);
        });
        for (const auto& set : sets)
            if (reaches([&](shoot::Rig& rig) {
                    for (const auto& tube : set) rig.tubes.push_back(own(tube.id));
                })) {
                return set.size() == 1 ? set[0].name : set[0].name + " + " + set[1].name;
            }
        return std::nullopt;
    }

    std::optional<std::string> closeup_lens(bool achromat) const {
        if (plan_.shot.rig.reversing_ring || plan_.shot.rig.front_lens) return std::nullopt;  // no thread in front
        std::vector<gear::CloseupLens> all = sold_closeup_lenses();
        std::erase_if(all, [&](const gear::CloseupLens& lens) { return lens.achromat != achromat; });
        std::ranges::stable_sort(all, {}, &gear::CloseupLens::power_dpt);
        for (const auto& lens : all)
            if (reaches([&](shoot::Rig& rig) { rig.closeup_lenses.push_back(own(lens.id)); })) return lens.name;
        return std::nullopt;
    }

  private:
    static std::string own(const std::string& id) { return "sold:" + id; }

    bool reaches(const std::function<void(shoot::Rig&)>& mount) const {
        shoot::Shot shot = plan_.shot;
        mount(shot.rig);
        shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = magnification_};
        const auto then = plan::plan_of(kit_, shot, plan_.terms);
        return then.found.reached && then.at.working_distance && *then.at.working_distance > 0;
    }

    const plan::Plan& plan_;
    gear::Kit kit_;
    double magnification_;
};

}  // namespace

std::vector<std::string> what_would_reach(const plan::Plan& plan, double magnification) {
    const Lacking lacking(plan, magnification);
    std::vector<std::string> names;
    const auto take = [&](const std::optional<std::string>& name) {
        if (name) names.push_back(*name);
        return name.has_value();
    };
    if (!take(lacking.tubes(true))) take(lacking.tubes(false));
    if (!take(lacking.closeup_lens(true))) take(lacking.closeup_lens(false));
    return names;
}

}  // namespace poquito::search
