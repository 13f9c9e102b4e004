#include "shoot/change/kit_edit.hpp"

#include "shoot/change/mount.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <functional>
#include <string_view>

namespace poquito::shoot {
namespace {

/// Calls `visit` with every place in the shot that names a piece of that list: an id, an optional id or a list of ids.
template <typename AnyShot, typename Visit>
void visit_references(AnyShot& shot, std::string_view list, Visit visit) {
    auto& rig = shot.rig;
    if (list == "cameras") visit(rig.camera);
    if (list == "lenses") {
        visit(rig.lens);
        if (rig.front_lens) visit(rig.front_lens->lens);
    }
    if (list == "tubes") {
        visit(rig.tubes);
        visit(rig.tubes_behind_converter);
    }
    if (list == "closeup_lenses") visit(rig.closeup_lenses);
    if (list == "teleconverters") visit(rig.teleconverter);
    if (list == "bellows" && rig.bellows) visit(rig.bellows->bellows);
    if (list == "reversing_rings") visit(rig.reversing_ring);
    if (list == "coupling_rings" && rig.front_lens) visit(rig.front_lens->coupling_ring);
    if (list == "filters") visit(rig.filters);
    if (list == "rails") visit(rig.rail);
    if (list == "stands") visit(rig.stand);
    const auto lights = [&](auto& all) {
        for (auto& light : all) {
            if (list == "flashes") visit(light.flash);
            if (list == "lamps") visit(light.lamp);
            if (list == "modifiers") visit(light.modifier);
        }
    };
    lights(shot.lights);
    if (shot.held) lights(shot.held->lights);
}

/// Of the lights that are set and of those that are held.
void erase_lights(Shot& shot, const std::function<bool(const Light& light)>& which) {
    std::erase_if(shot.lights, which);
    if (shot.held) std::erase_if(shot.held->lights, which);
}

struct Names {
    const std::string& id;
    bool& found;
    void operator()(const std::string& one) { found |= one == id; }
    void operator()(const std::optional<std::string>& one) { found |= one == id; }
    void operator()(const std::vector<std::string>& many) { found |= std::ranges::count(many, id) > 0; }
};

struct Replace {
    const std::string& id;
    const std::string& by;  // empty: taken off
    void operator()(std::string& one) {
        if (one == id && !by.empty()) one = by;
    }
    void operator()(std::optional<std::string>& one) {
        if (one == id) one = by.empty() ? std::nullopt : std::optional(by);
    }
    void operator()(std::vector<std::string>& many) {
        if (by.empty())
            std::erase(many, id);
        else
            std::ranges::replace(many, id, by);
    }
};

}  // namespace

std::string unique_gear_id(const gear::GearKind& kind, const gear::Kit& kit, const std::string& name) {
    return text::unique_id(name, kind.one,
                           [&](const std::string& id) { return gear::find_index(kind, kit, id).has_value(); });
}

std::size_t add_gear(const gear::GearKind& kind, gear::Kit& kit) {
    const std::size_t index = kind.count(kit);
    const std::string name = std::string("New ") + kind.one;
    const std::string id = unique_gear_id(kind, kit, name);
    kind.insert_new(kit, index);
    kind.set_id(kit, index, id);
    kind.set_name(kit, index, name);
    return index;
}

std::size_t duplicate_gear(const gear::GearKind& kind, gear::Kit& kit, std::size_t index) {
    const std::string name = kind.name(kit, index) + " copy";
    const std::string id = unique_gear_id(kind, kit, name);
    kind.insert_copy(kit, index + 1, kit, index);
    kind.set_id(kit, index + 1, id);
    kind.set_name(kit, index + 1, name);
    return index + 1;
}

std::vector<std::string> users_of(const Shoot& shoot, const gear::GearKind& kind, const std::string& id) {
    std::vector<std::string> names;
    for (const Shot& shot : shoot.shots) {
        bool found = false;
        visit_references(shot, kind.list, Names{id, found});
        if (found) names.push_back(shot.name);
    }
    return names;
}

bool needs_replacement(const gear::GearKind& kind) {
    const std::string_view list = kind.list;
    return list == "cameras" || list == "lenses";
}

void remove_gear(Shoot& shoot, const gear::GearKind& kind, std::size_t index, const std::string& replacement) {
    const std::string id = kind.id(shoot.kit, index);
    const std::string_view list = kind.list;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        Shot& shot = shoot.shots[i];
        // What a bellows or a flash carried goes with it.
        if (replacement.empty() && list == "bellows" && shot.rig.bellows && shot.rig.bellows->bellows == id)
            shot.rig.bellows.reset();
        if (replacement.empty() && list == "flashes")
            erase_lights(shot, [&](const Light& light) { return !light.reflector && light.flash == id; });
        if (replacement.empty() && list == "lamps")
            erase_lights(shot, [&](const Light& light) { return light.lamp == id; });
        if (replacement.empty() && list == "lenses" && shot.rig.front_lens && shot.rig.front_lens->lens == id)
            shot.rig.front_lens.reset();
        visit_references(shot, list, Replace{id, replacement});
    }
    kind.remove(shoot.kit, index);
    fit_shots_to_kit(shoot);
}

std::vector<std::string> fit_shots_to_kit(Shoot& shoot) {
    std::vector<std::string> changed;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        Rig rig = std::as_const(shoot.shots)[i].rig;
        settle_rig(shoot.kit, rig);
        if (rig == std::as_const(shoot.shots)[i].rig) continue;
        shoot.shots[i].rig = std::move(rig);
        changed.push_back(std::as_const(shoot.shots)[i].name);
    }
    return changed;
}

void put_gear(const gear::GearKind& kind, gear::Kit& kit, const gear::Kit& from, std::size_t index) {
    if (const auto there = gear::find_index(kind, kit, kind.id(from, index)))
        kind.replace(kit, *there, from, index);
    else
        kind.insert_copy(kit, kind.count(kit), from, index);
}

namespace {

template <typename Gear>
void carry(const std::vector<Gear>& before, const std::vector<Gear>& after, std::vector<Gear>& bag) {
    for (Gear& own : bag) {
        const Gear* was = gear::find_gear(before, own.id);
        const Gear* is = gear::find_gear(after, own.id);
        if (was && is && own == *was) own = *is;
    }
}

}  // namespace

void carry_learned(const gear::Kit& before, const gear::Kit& after, gear::Kit& bag) {
    carry(before.cameras, after.cameras, bag.cameras);
    carry(before.lenses, after.lenses, bag.lenses);
    carry(before.flashes, after.flashes, bag.flashes);
    carry(before.lamps, after.lamps, bag.lamps);
    carry(before.modifiers, after.modifiers, bag.modifiers);
    carry(before.holds, after.holds, bag.holds);
    for (const auto& hold : after.holds)
        if (!gear::find_gear(before.holds, hold.id) && !gear::find_gear(bag.holds, hold.id)) bag.holds.push_back(hold);
    std::erase_if(bag.holds, [&](const gear::Hold& own) {
        const auto* was = gear::find_gear(before.holds, own.id);
        return was && *was == own && !gear::find_gear(after.holds, own.id);
    });
}

Merged merge_kit(gear::Kit& kit, const gear::Kit& from) {
    Merged merged;
    for (const gear::GearKind& kind : gear::gear_kinds())
        for (std::size_t i = 0; i < kind.count(from); ++i) {
            const auto there = gear::find_index(kind, kit, kind.id(from, i));
            if (there && kind.equal(kit, *there, from, i)) {
                ++merged.same;
                continue;
            }
            const std::size_t index = kind.count(kit);
            const std::string id = unique_gear_id(kind, kit, kind.id(from, i));
            kind.insert_copy(kit, index, from, i);
            kind.set_id(kit, index, id);
            ++merged.added;
            merged.renamed += there.has_value();
        }
    return merged;
}

}  // namespace poquito::shoot
