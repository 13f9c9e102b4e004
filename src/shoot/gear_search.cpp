#include "shoot/gear_search.hpp"

#include "optics/focus.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <tuple>

namespace poquito::shoot {
namespace {

constexpr std::size_t most_tubes = 3;

/// Every choice of up to `most` of the pieces, the empty one first.
template <typename Gear>
std::vector<std::vector<std::string>> choices(const std::vector<Gear>& pieces, std::size_t most) {
    std::vector<std::vector<std::string>> found = {{}};
    for (const Gear& piece : pieces)
        for (std::size_t i = 0, before = found.size(); i < before; ++i)
            if (found[i].size() < most) {
                found.push_back(found[i]);
                found.back().push_back(piece.id);
            }
    return found;
}

bool reaches(const Kit& kit, const Rig& rig, const WantedReach& wanted) {
    const auto train = train_of(kit, rig);
    const auto found = optics::find_focus(train, wanted.magnification);
    if (!found.reached) return false;
    const auto distance = optics::focus_at_ring(train, found.ring).working_distance;
    return !distance || *distance > std::max(0.0, wanted.working_distance);
}

std::vector<Rig> candidates(const Kit& kit, const Rig& now) {
    std::vector<Rig> rigs;
    for (const Lens& lens : kit.lenses)
        for (const auto& tubes : choices(kit.tubes, most_tubes))
            for (const auto& closeups : choices(kit.closeup_lenses, 1))
                for (const auto& converters : choices(kit.teleconverters, 1)) {
                    Rig rig{.camera = now.camera, .lens = lens.id, .tubes = tubes, .closeup_lenses = closeups};
                    if (!converters.empty()) rig.teleconverter = converters.front();
                    rig.unknown = now.unknown;
                    rigs.push_back(std::move(rig));
                }
    const auto effort = [&](const Rig& rig) {
        const std::size_t pieces = rig.tubes.size() + rig.closeup_lenses.size() + (rig.teleconverter ? 1 : 0);
        // Of as many pieces: tubes keep the lens's quality, close-up lenses add glass, converters enlarge its faults.
        return std::tuple(rig.lens != now.lens, pieces, rig.teleconverter.has_value(), !rig.closeup_lenses.empty());
    };
    std::ranges::stable_sort(rigs, {}, effort);
    return rigs;
}

}  // namespace

std::optional<FoundRig> find_rig(const Kit& kit, const Rig& now, const WantedReach& wanted) {
    for (Rig& rig : candidates(kit, now)) {
        if (!reaches(kit, rig, wanted)) continue;
        rig.focus = {.by = FocusBy::magnification, .value = wanted.magnification};
        auto names = mounting_order(kit, rig);
        names.erase(names.begin());  // the camera stays
        return FoundRig{.rig = std::move(rig), .name = fmt::format("{}", fmt::join(names, " + "))};
    }
    return std::nullopt;
}

std::vector<std::string> mounting_order(const Kit& kit, const Rig& rig) {
    std::vector<std::string> names;
    const auto add = [&](const auto& list, const std::string& id) { names.push_back(find_gear(list, id)->name); };
    add(kit.cameras, rig.camera);
    if (rig.teleconverter) add(kit.teleconverters, *rig.teleconverter);
    for (const auto& id : rig.tubes) add(kit.tubes, id);
    add(kit.lenses, rig.lens);
    for (const auto& id : rig.closeup_lenses) add(kit.closeup_lenses, id);
    return names;
}

}  // namespace poquito::shoot
