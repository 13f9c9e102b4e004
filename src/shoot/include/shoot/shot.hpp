#pragma once

#include "gear/kit.hpp"
#include "shoot/capture.hpp"
#include "shoot/exposure.hpp"
#include "shoot/freeze.hpp"
#include "shoot/lights.hpp"
#include "shoot/limits.hpp"
#include "shoot/record.hpp"
#include "shoot/rig.hpp"
#include "shoot/sharpness.hpp"
#include "shoot/subject.hpp"
#include "shoot/tries.hpp"

#include <optional>
#include <string>
#include <vector>

/// One picture to take, with everything that is planned for it.
namespace poquito::shoot {

/// When a shot may be taken. Times of day in s after midnight.
struct Timing {
    std::vector<std::string> after;    // ids of shots that have to be done before it
    std::optional<double> not_before;  // of its first frame
    std::optional<double> done_by;     // of its last frame
    std::optional<double> handling;    // s to place and dress this subject; empty: as the shoot says
    std::string unknown;

    bool operator==(const Timing&) const = default;
};

/// One thing its photographer looks at before the first frame, of their own.
struct OwnCheck {
    std::string id;
    std::string text;
    std::string unknown;

    bool operator==(const OwnCheck&) const = default;
};

struct Shot {
    std::string id;
    std::string name;
    Subject subject;
    Rig rig;
    Exposure exposure;
    Sharpness sharpness;
    Capture capture;
    std::optional<Ambient> ambient;
    std::optional<OtherLight> other_light;
    std::vector<Light> lights;
    std::optional<Background> background;
    std::optional<Freeze> freeze;
    std::optional<Tries> tries;           // empty: as a fresh one
    std::optional<double> picture_shape;  // width over height of the picture as it is delivered; empty: the frame's own
    std::vector<OwnCheck> own_checks;
    std::vector<std::string> checked;  // ids of ticked checklist items
    std::vector<ProofEntry> proof;     // oldest first
    Timing timing;
    std::optional<Limits> limits;  // where they differ from the shoot's
    std::string unknown;

    bool operator==(const Shot&) const = default;
};

/// What decides by chance; a fresh one where nothing was said.
const Tries& tries_of(const Shot& shot);

/// The gear of a shot, taken from the kit; what storage validated is there.
const gear::Camera& camera_of(const gear::Kit& kit, const Shot& shot);
const gear::Lens& lens_of(const gear::Kit& kit, const Shot& shot);
optics::Train train_of(const gear::Kit& kit, const Rig& rig);
const optics::Sensor& sensor_of(const gear::Kit& kit, const Rig& rig);        // in its crop mode
const gear::Flash& flash_of(const gear::Kit& kit, const Light& light);        // of one that is a flash
const gear::Lamp& lamp_of(const gear::Kit& kit, const Light& light);          // of one that is a lamp
const gear::Modifier* modifier_of(const gear::Kit& kit, const Light& light);  // null: bare

}  // namespace poquito::shoot

// Written out once, in shoot.cpp, not in every file that copies a shot.
extern template class std::vector<poquito::shoot::Light>;
extern template class std::vector<poquito::shoot::OwnCheck>;
extern template class std::vector<poquito::shoot::ProofEntry>;
