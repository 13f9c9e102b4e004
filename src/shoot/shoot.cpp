#include "shoot/shoot.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>

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
const Lamp& lamp_of(const Kit& kit, const Light& light) { return known(kit.lamps, *light.lamp); }

const Modifier* modifier_of(const Kit& kit, const Light& light) {
    return light.modifier ? &known(kit.modifiers, *light.modifier) : nullptr;
}

optics::Train train_of(const Kit& kit, const Rig& rig) {
    constexpr double mm_per_metre = 1000;
    const Camera& camera = known(kit.cameras, rig.camera);
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

const optics::Sensor& sensor_of(const Kit& kit, const Rig& rig) {
    const Camera& camera = known(kit.cameras, rig.camera);
    for (const CropMode& mode : camera.crop_modes)
        if (mode.name == rig.crop_mode) return mode.sensor;
    return camera.sensor;
}

std::optional<double> zoom_position(const Lens& lens, std::optional<double> focal_length) {
    if (lens.zoom.empty()) return std::nullopt;
    return std::clamp(focal_length.value_or(lens.optics.focal_length), lens.zoom.front().focal_length,
                      lens.zoom.back().focal_length);
}

optics::Lens optics_of(const Lens& lens, std::optional<double> focal_length) {
    optics::Lens optics = lens.optics;
    const auto position = zoom_position(lens, focal_length);
    if (position) {
        const auto above = std::ranges::lower_bound(lens.zoom, *position, {}, &ZoomSetting::focal_length);
        const ZoomSetting& high = *above;
        const ZoomSetting& low = above == lens.zoom.begin() ? high : *(above - 1);
        const double span = high.focal_length - low.focal_length;
        const double part = span > 0 ? (*position - low.focal_length) / span : 0;
        optics.focal_length = *position;
        optics.max_aperture = std::lerp(low.max_aperture, high.max_aperture, part);
        optics.closest_focus = std::lerp(low.closest_focus, high.closest_focus, part);
        optics.max_magnification = std::lerp(low.max_magnification, high.max_magnification, part);
        optics.length = std::lerp(low.length, high.length, part);
    }
    for (const Calibration& calibration : lens.calibrations)
        if (calibration.what == Measured::magnification && calibration.focal_length == position)
            optics.readings.push_back({.ring = calibration.ring, .magnification = calibration.value});
    std::ranges::sort(optics.readings, {}, &optics::RingReading::ring);
    return optics;
}

}  // namespace poquito::shoot
