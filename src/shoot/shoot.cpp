#include "shoot/shoot.hpp"

#include <algorithm>
#include <cassert>

namespace poquito::shoot {
namespace {

template <typename Gear>
const Gear& known(const std::vector<Gear>& list, const std::string& id) {
    const Gear* gear = find_gear(list, id);
    assert(gear && "storage and edit keep every id of a shot in the kit");
    return *gear;
}

}  // namespace

const std::vector<Trait>& subject_traits() {
    static const std::vector<Trait> traits = {
        {"living", "animal or plant"}, {"person", "person"},       {"food", "food"},         {"liquid", "liquid near"},
        {"polished", "polished"},      {"breakable", "breakable"}, {"outdoors", "outdoors"},
    };
    return traits;
}

bool has_trait(const Subject& subject, const std::string& id) { return std::ranges::count(subject.traits, id) > 0; }

const Camera& camera_of(const Kit& kit, const Shot& shot) { return known(kit.cameras, shot.rig.camera); }
const Lens& lens_of(const Kit& kit, const Shot& shot) { return known(kit.lenses, shot.rig.lens); }
const Flash& flash_of(const Kit& kit, const Light& light) { return known(kit.flashes, light.flash); }

const Modifier* modifier_of(const Kit& kit, const Light& light) {
    return light.modifier ? &known(kit.modifiers, *light.modifier) : nullptr;
}

optics::Train train_of(const Kit& kit, const Rig& rig) {
    constexpr double mm_per_metre = 1000;
    optics::Train train{.lens = known(kit.lenses, rig.lens).optics, .flange = known(kit.cameras, rig.camera).flange};
    for (const auto& id : rig.tubes) train.tubes += known(kit.tubes, id).length;
    for (const auto& id : rig.closeup_lenses)
        train.closeup_power += known(kit.closeup_lenses, id).power_dpt / mm_per_metre;
    if (rig.teleconverter) train.converter = known(kit.teleconverters, *rig.teleconverter).optics;
    return train;
}

}  // namespace poquito::shoot
