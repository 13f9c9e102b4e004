// What was found, tried and left out, in words.
#include "parts.hpp"
#include "search/reach_search.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

namespace poquito::search {

std::vector<std::string> mounting_order(const gear::Kit& kit, const shoot::Rig& rig) {
    std::vector<std::string> names;
    const auto add = [&](const auto& list, const std::string& id) { names.push_back(gear::find_gear(list, id)->name); };
    add(kit.cameras, rig.camera);
    if (rig.crop_mode) names.back() += ", " + *rig.crop_mode;
    for (const auto& id : rig.tubes_behind_converter) add(kit.tubes, id);
    if (rig.teleconverter) add(kit.teleconverters, *rig.teleconverter);
    for (const auto& id : rig.tubes) add(kit.tubes, id);
    if (rig.bellows) {
        add(kit.bellows, rig.bellows->bellows);
        names.back() += " at " + text::length_text(rig.bellows->extension);
    }
    if (rig.reversing_ring) add(kit.reversing_rings, *rig.reversing_ring);
    const gear::Lens& lens = *find_gear(kit.lenses, rig.lens);
    add(kit.lenses, rig.lens);
    if (!lens.calibrations.empty()) names.back() += " (measured)";
    if (const auto position = gear::zoom_position(lens, rig.focal_length))
        names.back() += " at " + text::length_text(*position);
    if (rig.reversing_ring) names.back() += " reversed";
    for (const auto& id : rig.closeup_lenses) add(kit.closeup_lenses, id);
    if (const auto& front = rig.front_lens) {
        if (front->coupling_ring) add(kit.coupling_rings, *front->coupling_ring);
        add(kit.lenses, front->lens);
        names.back() += " reversed";
    }
    return names;
}

std::string pieces_text(const gear::Kit& kit, const shoot::Rig& rig) {
    auto names = mounting_order(kit, rig);
    names.erase(names.begin());
    return fmt::format("{}", fmt::join(names, " + "));
}

std::string cost_text(const gear::Kit& kit, const ReachFound& found) {
    std::vector<std::string> reasons;
    for (const PieceIndex closeup : found.closeups) {
        if (!closeup) continue;
        const double cost = closeup_cost(kit.closeup_lenses[*closeup]);
        if (cost > 0)
            reasons.push_back(fmt::format("{} is of one element and softens the corners{}",
                                          kit.closeup_lenses[*closeup].name,
                                          cost > optical_cost::single_element ? " badly" : ""));
    }
    if (found.converter)
        reasons.push_back(fmt::format("{} enlarges the lens's faults", kit.teleconverters[*found.converter].name));
    if (found.front_lens) reasons.emplace_back("coupled lenses darken the corners");
    return reasons.empty() ? "Plain extension and achromats keep the lens's quality."
                           : fmt::format("{}.", fmt::join(reasons, "; "));
}

std::string space_text(const gear::Kit& kit, const ReachWish& wish) {
    std::string text = fmt::format(
        "Tried: every {}lens{}, with every set of tubes, on either side of a converter; {}up to two close-up lenses in "
        "front. ",
        wish.only_camera ? "" : "camera and ", kit.reversing_rings.empty() ? "" : " forwards and reversed",
        kit.bellows.empty() ? "" : "each bellows or helicoid; ");
    if (!kit.coupling_rings.empty())
        text += "Coupled: every two lenses, the front one wide open at infinity, without close-up lenses. ";
    if (!kit.bellows.empty())
        text += "Bellows: the lens's ring at infinity where the extension does it alone, else at the nearer end. ";
    if (std::ranges::any_of(kit.lenses, [](const gear::Lens& lens) { return !lens.zoom.empty(); }))
        text += "Zooms: at the focal lengths of their record. ";
    text += "Not tried: three close-up lenses or more, two converters, two bellows";
    if (kit.reversing_rings.empty()) text += ", reversed lenses (no reversing ring in the kit)";
    if (kit.coupling_rings.empty()) text += ", coupled lenses (no coupling ring in the kit)";
    if (!wish.crop_modes || !wish.field_width) text += ", crop modes";
    return text + ".";
}

std::string left_out_text(const ReachLeftOut& out) {
    std::vector<std::string> parts;
    const auto add = [&](std::size_t number, const char* why) {
        if (number > 0) parts.push_back(fmt::format("{} {}", number, why));
    };
    add(out.out_of_reach, "do not give this size");
    add(out.inside, "would focus inside the rig");
    add(out.too_near, "come too near");
    add(out.too_dark, "lose too much light");
    add(out.without_autofocus, "have no autofocus");
    add(out.without_infinity, "lose infinity");
    add(out.glass_in_front, "put glass in front");
    return parts.empty() ? std::string() : fmt::format("{}.", fmt::join(parts, ", "));
}

}  // namespace poquito::search
