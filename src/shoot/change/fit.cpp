#include "shoot/change/fit.hpp"

#include "shoot/change/mount.hpp"

#include <algorithm>

namespace poquito::shoot {
namespace {

template <typename Gear>
const Gear& piece(const std::vector<Gear>& list, const std::string& id) {
    return *find_gear(list, id);
}

std::optional<std::string> owned_step_ring(const gear::Kit& kit, double from, double to) {
    const auto found = std::ranges::find_if(
        kit.step_rings, [&](const gear::StepRing& ring) { return ring.from == from && ring.to == to; });
    return found == kit.step_rings.end() ? std::nullopt : std::optional(found->name);
}

/// Screws piece after piece on the front.
class Front {
  public:
    Front(const gear::Kit& kit, std::vector<Joint>& joints, std::string name, std::optional<double> thread)
        : kit_(kit), joints_(joints), name_(std::move(name)), thread_(thread) {}

    void screw_on(const std::string& name, double thread, std::optional<double> offers) {
        Joint joint{.inner = name_, .outer = name, .inner_thread = thread_, .outer_thread = thread};
        if (thread_ && *thread_ != thread) joint.step_ring = owned_step_ring(kit_, *thread_, thread);
        joints_.push_back(std::move(joint));
        name_ = name;
        thread_ = offers;
    }

  private:
    const gear::Kit& kit_;
    std::vector<Joint>& joints_;
    std::string name_;
    std::optional<double> thread_;
};

std::vector<Joint> joints_of(const gear::Kit& kit, const Shot& shot) {
    const Rig& rig = shot.rig;
    const gear::Lens& lens = piece(kit.lenses, rig.lens);
    std::vector<Joint> joints;
    if (rig.reversing_ring) {
        const auto& ring = piece(kit.reversing_rings, *rig.reversing_ring);
        Front(kit, joints, ring.name, ring.thread).screw_on(lens.name, lens.filter_thread, std::nullopt);
    }
    // The mount of a reversed lens looks at the subject; it has no thread.
    Front front(kit, joints, lens.name, rig.reversing_ring ? std::nullopt : thread_of(lens.filter_thread));
    for (const auto& id : rig.closeup_lenses) {
        const auto& closeup = piece(kit.closeup_lenses, id);
        front.screw_on(closeup.name, closeup.thread, closeup.thread);
    }
    if (const auto& coupled = rig.front_lens) {
        const gear::Lens& outer = piece(kit.lenses, coupled->lens);
        if (coupled->coupling_ring) {
            const auto& ring = piece(kit.coupling_rings, *coupled->coupling_ring);
            front.screw_on(ring.name, ring.thread, ring.front_thread);
        }
        front.screw_on(outer.name, outer.filter_thread, std::nullopt);
    }
    for (const auto& id : rig.filters) {
        const auto& filter = piece(kit.filters, id);
        front.screw_on(filter.name, filter.thread, filter.thread);
    }
    for (const Light& light : shot.lights) {
        if (light.lamp || light.reflector) continue;
        const gear::Flash& flash = piece(kit.flashes, light.flash);
        if (flash.front_thread) front.screw_on(flash.name, *flash.front_thread, flash.front_thread);
    }
    return joints;
}

std::vector<std::string> without_contacts(const gear::Kit& kit, const Rig& rig) {
    std::vector<std::string> names;
    const auto look_at = [&](const auto& gear) {
        if (!gear.contacts) names.push_back(gear.name);
    };
    for (const auto& id : rig.tubes_behind_converter) look_at(piece(kit.tubes, id));
    if (rig.teleconverter) look_at(piece(kit.teleconverters, *rig.teleconverter));
    for (const auto& id : rig.tubes) look_at(piece(kit.tubes, id));
    if (rig.bellows) look_at(piece(kit.bellows, rig.bellows->bellows));
    if (rig.reversing_ring) look_at(piece(kit.reversing_rings, *rig.reversing_ring));
    look_at(piece(kit.lenses, rig.lens));
    return names;
}

}  // namespace

Fit fit_of(const gear::Kit& kit, const Shot& shot, double length) {
    const gear::Lens& lens = piece(kit.lenses, shot.rig.lens);
    Fit fit{.joints = joints_of(kit, shot), .without_contacts = without_contacts(kit, shot.rig), .length = length};
    fit.autofocus = fit.contacts() && lens.autofocus;
    if (!fit.contacts()) fit.stop = lens.aperture_ring ? StopControl::lens_ring : StopControl::none;
    return fit;
}

}  // namespace poquito::shoot

template class std::vector<poquito::shoot::Joint>;
