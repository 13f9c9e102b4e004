#include "shoot/shoot.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <numbers>
#include <utility>

namespace poquito::shoot {
namespace {

template <typename Gear>
const Gear& known(const std::vector<Gear>& list, const std::string& id) {
    const Gear* gear = gear::find_gear(list, id);
    assert(gear && "storage and edit keep every id of a shot in the kit");
    return *gear;
}

}  // namespace

double angle_of(const Freeze& freeze) {
    constexpr double straight = 90;
    const bool upwards = freeze.drop < 0 || freeze.moment != Moment::place;
    return freeze.angle.value_or(upwards ? straight : -straight);
}

const std::vector<Trait>& subject_traits() {
    static const std::vector<Trait> traits = {
        {"living", "animal or plant"}, {"person", "person"},          {"food", "food"},
        {"liquid", "liquid near"},     {"polished", "polished"},      {"breakable", "breakable"},
        {"outdoors", "outdoors"},      {"electronic", "electronics"}, {"dye", "dye or stain"},
    };
    return traits;
}

bool has_trait(const Subject& subject, const std::string& id) { return std::ranges::count(subject.traits, id) > 0; }

Held settings_of(const Shot& shot) {
    return {.exposure = shot.exposure, .focus = shot.rig.focus, .lights = shot.lights};
}

void put_back(Shot& shot) {
    if (!shot.held) return;
    shot.exposure = shot.held->exposure;
    shot.rig.focus = shot.held->focus;
    shot.lights = shot.held->lights;
}

const gear::Camera& camera_of(const gear::Kit& kit, const Shot& shot) { return known(kit.cameras, shot.rig.camera); }
const gear::Lens& lens_of(const gear::Kit& kit, const Shot& shot) { return known(kit.lenses, shot.rig.lens); }
const gear::Flash& flash_of(const gear::Kit& kit, const Light& light) { return known(kit.flashes, light.flash); }
const gear::Lamp& lamp_of(const gear::Kit& kit, const Light& light) { return known(kit.lamps, *light.lamp); }

const gear::Modifier* modifier_of(const gear::Kit& kit, const Light& light) {
    return light.modifier ? &known(kit.modifiers, *light.modifier) : nullptr;
}

optics::Train train_of(const gear::Kit& kit, const Rig& rig) {
    constexpr double mm_per_metre = 1000;
    const gear::Camera& camera = known(kit.cameras, rig.camera);
    optics::Train train{.lens = optics_of(known(kit.lenses, rig.lens), rig.focal_length), .flange = camera.flange};
    for (const auto& id : rig.tubes) train.tubes += known(kit.tubes, id).length;
    if (rig.bellows) train.tubes += rig.bellows->extension;
    for (const auto& id : rig.tubes_behind_converter) train.rear_tubes += known(kit.tubes, id).length;
    for (const auto& id : rig.closeup_lenses)
        train.closeup_power += known(kit.closeup_lenses, id).power_dpt / mm_per_metre;
    if (rig.teleconverter) train.converter = known(kit.teleconverters, *rig.teleconverter).optics;
    if (rig.reversing_ring) {
        train.facing = optics::Facing::reversed;
        train.reversing_ring = known(kit.reversing_rings, *rig.reversing_ring).length;
    }
    if (const auto& front = rig.front_lens) {
        const auto optics = optics_of(known(kit.lenses, front->lens), front->focal_length);
        train.front_lens = optics::FrontLens{
            .lens = optics,
            .ring = front->ring,
            .f_number = front->f_number,
            .coupling = front->coupling_ring ? known(kit.coupling_rings, *front->coupling_ring).length : 0,
            .own_flange = optics.flange.value_or(camera.flange)};
    }
    return train;
}

optics::Sensor sensor_of(const gear::Kit& kit, const Rig& rig) {
    const gear::Camera& camera = known(kit.cameras, rig.camera);
    optics::Sensor sensor = camera.sensor;
    for (const gear::CropMode& mode : camera.crop_modes)
        if (mode.name == rig.crop_mode) sensor = mode.sensor;
    if (rig.orientation == Orientation::portrait) {
        std::swap(sensor.width, sensor.height);
        std::swap(sensor.width_px, sensor.height_px);
    }
    return sensor;
}

Table table_of(const Shot& shot) {
    if (shot.table) return *shot.table;
    Table table;
    if (has_trait(shot.subject, "outdoors")) table.height = 0;
    return table;
}

std::optional<double> table_distance(const Shot& shot) {
    constexpr double degree = std::numbers::pi / 180;
    if (!(shot.rig.inclination > 0)) return std::nullopt;
    return shot.subject.height / 2 / std::sin(shot.rig.inclination * degree);
}

double background_distance(const Shot& shot) {
    const double card = shot.background->distance;
    return std::min(card, table_distance(shot).value_or(card));
}

const Tries& tries_of(const Shot& shot) {
    static const Tries fresh;
    return shot.tries ? *shot.tries : fresh;
}

Tries& own_tries(Shot& shot) { return shot.tries ? *shot.tries : shot.tries.emplace(); }

bool wants_sharpness(const Shot& shot) {
    return !shot.plate || (shot.plate->role != PlateRole::clean && shot.plate->role != PlateRole::shadow);
}

double still_of(const Shot& shot) {
    const auto& stated = tries_of(shot).still;
    if (stated) return *stated;
    if (shot.freeze || !has_trait(shot.subject, "living")) return 0;
    constexpr double slow = 0.3, halved_at = 5;  // share of what hardly moves; mm/s
    return slow / (1 + shot.subject.speed / halved_at);
}

double aside_of(const Shot& shot) {
    return shot.freeze ? tries_of(shot).lands_aside.value_or(shot.freeze->scatter) : 0;
}

double sway_through(const Subject& subject) {
    constexpr double of_it = 0.5;  // common practice
    return subject.sway_depth.value_or(of_it * subject.sway_amplitude);
}

const std::vector<CopyOnWrite<RunRecord>>& runs_of(const Runs& runs, const std::string& shot) {
    static const std::vector<CopyOnWrite<RunRecord>> none;
    const auto found = runs.find(shot);
    return found == runs.end() ? none : found->second;
}

Terms terms_of(const Shoot& shoot, const Shot& shot) {
    Terms terms = shoot.terms;
    const auto asks_white = [&](const Delivery& delivery) {
        const auto outlet = std::ranges::find(shoot.outlets, delivery.outlet, &Outlet::id);
        return outlet != shoot.outlets.end() && outlet->ground == Ground::white;
    };
    if (shot.wishes.ground == WantedGround::unsaid && std::ranges::any_of(shot.deliveries, asks_white))
        terms.wishes.ground = WantedGround::white;
    return terms;
}

}  // namespace poquito::shoot

template class std::vector<poquito::shoot::PowerSet>;
template class std::vector<poquito::shoot::Obstacle>;
template class std::vector<std::shared_ptr<poquito::shoot::Shot>>;

template class std::vector<poquito::shoot::Light>;
template class std::vector<poquito::shoot::OwnCheck>;
template class std::vector<poquito::shoot::ProofEntry>;
template class std::vector<poquito::shoot::CopyOnWrite<poquito::shoot::RunRecord>>;
