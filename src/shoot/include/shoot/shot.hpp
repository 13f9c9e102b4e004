#pragma once

#include "gear/kit.hpp"
#include "shoot/capture.hpp"
#include "shoot/exposure.hpp"
#include "shoot/freeze.hpp"
#include "shoot/lapse.hpp"
#include "shoot/lights.hpp"
#include "shoot/limits.hpp"
#include "shoot/record.hpp"
#include "shoot/rig.hpp"
#include "shoot/sharpness.hpp"
#include "shoot/staging.hpp"
#include "shoot/subject.hpp"
#include "shoot/tries.hpp"
#include "shoot/view.hpp"
#include "shoot/wishes.hpp"

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

/// Settings that stay while pieces are laid anew, so that every frame of a session can be chosen from.
struct Held {
    Exposure exposure;
    Focus focus;
    std::vector<Light> lights;
    std::string unknown;

    bool operator==(const Held&) const = default;
};

struct Shot {
    std::string id;
    std::string name;
    std::string words;  // species, title, what else it is looked for by
    Subject subject;
    Rig rig;
    Exposure exposure;
    Sharpness sharpness;
    Capture capture;
    std::optional<Ambient> ambient;
    std::optional<OtherLight> other_light;
    std::optional<double> bearing;  // degrees clockwise from north that the camera looks towards; empty: not said
    std::vector<Light> lights;
    std::optional<Background> background;
    std::optional<Table> table;   // empty: as a fresh one
    std::vector<Staged> staging;  // what stands in the picture besides the subject
    std::optional<Freeze> freeze;
    std::optional<Lapse> lapse;           // empty: it is taken once
    std::optional<Tries> tries;           // empty: as a fresh one
    std::optional<Held> held;             // empty: nothing is held
    std::optional<double> picture_shape;  // width over height of the picture as it is delivered; empty: the frame's own
    std::optional<View> view;             // empty: of no set
    std::optional<Follows> follows;
    std::optional<Plate> plate;
    std::vector<Delivery> deliveries;  // one an outlet that takes it
    std::vector<OwnCheck> own_checks;
    std::vector<std::string> checked;  // ids of ticked checklist items
    std::vector<ProofEntry> proof;     // oldest first
    Timing timing;
    std::optional<Limits> limits;  // where they differ from the shoot's
    Wishes wishes;                 // over those of the shoot
    std::string unknown;

    bool operator==(const Shot&) const = default;
};

/// The shot's settings as they would be held; and back to those that are.
Held settings_of(const Shot& shot);
void put_back(Shot& shot);  // nothing where none are held

/// What decides by chance; a fresh one where nothing was said. And the shot's own, made where it has none.
const Tries& tries_of(const Shot& shot);
Tries& own_tries(Shot& shot);

/// Share of the time that what moves by itself holds still. Where nothing was said an animal pauses the less the faster
/// it is (common practice: MODEL 13), and what is no animal never.
double still_of(const Shot& shot);

/// mm to the sides that what is thrown comes down, one standard deviation; 0 where nothing is.
double aside_of(const Shot& shot);

/// Whether anything in it has to be sharp: not in a plate of the place without its subject, or of what falls on the
/// ground.
bool wants_sharpness(const Shot& shot);

/// What its subject stands on; where nothing was said the ground outdoors, else a table.
Table table_of(const Shot& shot);

/// mm behind the subject's centre where the axis meets the table that it stands on: it lies half its height below, and
/// the camera looks down. Empty: it does not. Source: MODEL 9.
std::optional<double> table_distance(const Shot& shot);

/// mm behind the subject's centre where the background is: the card, or the table where that comes first. The shot has
/// a background.
double background_distance(const Shot& shot);

/// The gear of a shot, taken from the kit; what storage validated is there.
const gear::Camera& camera_of(const gear::Kit& kit, const Shot& shot);
const gear::Lens& lens_of(const gear::Kit& kit, const Shot& shot);
optics::Train train_of(const gear::Kit& kit, const Rig& rig);
optics::Sensor sensor_of(const gear::Kit& kit, const Rig& rig);               // in its crop mode, as it is held
const gear::Flash& flash_of(const gear::Kit& kit, const Light& light);        // of one that is a flash
const gear::Lamp& lamp_of(const gear::Kit& kit, const Light& light);          // of one that is a lamp
const gear::Modifier* modifier_of(const gear::Kit& kit, const Light& light);  // null: bare

}  // namespace poquito::shoot

// Written out once, in shoot.cpp, not in every file that copies a shot.
extern template class std::vector<poquito::shoot::Light>;
extern template class std::vector<poquito::shoot::OwnCheck>;
extern template class std::vector<poquito::shoot::ProofEntry>;
