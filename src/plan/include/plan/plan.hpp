#pragma once

#include "light/exposure.hpp"
#include "optics/focus.hpp"
#include "optics/stack.hpp"
#include "shoot/shot.hpp"
#include "shoot/terms.hpp"

#include <optional>
#include <vector>

/// What facts and advice are both made of: a shot with its gear resolved and its train focused. References live as
/// long as the shoot.
namespace poquito::plan {

/// A light of the shot with its gear: flash or lamp, and what hangs before it.
struct Source {
    const shoot::Light& set;
    const gear::Flash* flash = nullptr;        // null: a lamp
    const gear::Lamp* lamp = nullptr;          // null: a flash; both: a reflector
    const gear::Modifier* modifier = nullptr;  // null: bare

    bool is_flash() const { return flash != nullptr; }
    bool is_lamp() const { return lamp != nullptr; }
    bool is_reflector() const { return !flash && !lamp; }
};
Source source_of(const gear::Kit& kit, const shoot::Light& light);

/// What has to be sharp, mm behind the subject's nearest point; lies within its depth.
struct Zone {
    double from = 0;
    double to = 0;
    double length() const { return to - from; }
};

struct Plan {
    const gear::Kit& kit;
    const shoot::Shot& shot;
    const gear::Camera& camera;
    const gear::Lens& lens;
    optics::Sensor sensor;                   // in its crop mode, as it is held
    const gear::Rail* rail = nullptr;        // null: none
    const gear::Lens* front_lens = nullptr;  // reversed on the lens; null: none
    optics::Train train;
    optics::FoundFocus found;
    optics::FocusedTrain at;
    shoot::Extent extent;         // of the subject as it is turned
    std::optional<Zone> zone;     // what has to be sharp, where that is not all of the depth
    double focus = 0;             // mm, the plane of focus behind the subject's centre
    shoot::Terms terms;           // the shot's over those of its shoot and person
    double hood = 0;              // mm that a hood stands before the front rim; working distance counts from it
    double filters = 0;           // stops that filters take
    double working_factor = 1;    // working over marked f-number, the lens's own stop
    std::vector<Source> sources;  // as the shot's lights
};

/// `terms`: of its shoot, see shoot::terms_of; the shot's own win. None ({}) decides no number of optics or a stack:
/// only how long one goes on, and what the picture is to look like, its exposure with it.
Plan plan_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms);

/// The shot as it is changed, with the kit and under the terms of that plan.
Plan plan_of(const Plan& plan, const shoot::Shot& changed);

double working_f_number(const Plan& plan, double marked_f_number);

/// mm from the plane of focus to the entrance pupil; empty: it lies in no place before the lens.
std::optional<double> pupil_distance(const Plan& plan);

/// The plan's optics at another marked stop. Magnification above 0.
optics::Imaging imaging_of(const Plan& plan, double marked_f_number);

/// mm at the sensor, by the shot's rule; or by another.
double blur_limit(const Plan& plan);
double blur_limit(const optics::Sensor& sensor, const shoot::Sharpness& sharpness);

/// What has to be sharp: the zone, else all of the depth.
Zone wanted_sharp(const Plan& plan);

/// mm from the plane of focus to the background; 0 where the focus lies behind it. The shot has one.
double background_behind_focus(const Plan& plan);

/// Of what faces the subject: the front rim, or the lens end that a reversed lens shows, taken as wide as its mount.
double front_diameter(const Plan& plan);

/// mm; empty: unbounded, or no magnification. `fell_back`: the contrast rule had nothing to keep.
struct FrameDepth {
    std::optional<double> depth;
    bool fell_back = false;
};
FrameDepth frame_depth(const Plan& plan, double marked_f_number);

/// How far a frame at another position of the ring is sharp in front of its plane and behind it, by the shot's rule;
/// empty: unbounded, or no magnification.
struct FrameReach {
    double near = 0;
    double far = 0;
    bool fell_back = false;  // the contrast rule had nothing to keep
    double depth() const { return near + far; }
};
std::optional<FrameReach> frame_reach(const Plan& plan, const optics::FocusedTrain& at, double marked_f_number);

light::Settings settings_of(const Plan& plan);

}  // namespace poquito::plan
