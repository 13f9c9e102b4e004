#pragma once

#include "light/continuous.hpp"
#include "light/exposure.hpp"
#include "light/metering.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>
#include <string>
#include <string_view>

/// The lights of a plan, resolved: where each really stands, what lies in its way, what arrives.
namespace poquito::plan {

inline bool is_reflector(const shoot::Light& light) { return light.reflector.has_value(); }
inline bool is_flash(const shoot::Light& light) { return !light.lamp && !light.reflector; }
inline bool is_lamp(const shoot::Light& light) { return light.lamp && !light.reflector; }
/// A flash that finds its power as the shot asks: automatic, and not given stops of its own.
inline bool shares_exposure(const shoot::Light& light) {
    return is_flash(light) && !light.off && !light.power && !light.own_stops;
}

/// How often a flash fires in one frame: repeating flash takes so many times its power (MODEL 6).
inline double flashes_a_frame(const shoot::Shot& shot) {
    return shot.freeze && shot.freeze->repeating ? shot.freeze->repeating->burst.flashes : 1;
}

/// What a light is called: the letter of its group, or of its place in the list; numbered where several share it.
std::string light_label(const shoot::Shot& shot, std::size_t light);
/// The letter of the group it answers to.
std::string group_of(const shoot::Shot& shot, std::size_t light);

/// The name of its unit; of a reflector "card".
const std::string& unit_name(const Source& source);
/// The settings its unit offers.
const light::PowerScale& power_scale(const Source& source);

/// Where it stands: of a light on the lens, one of its tubes, the one to the camera's right. Its working distance is
/// taken as 1 mm at least.
light::Position placed(const Plan& plan, const Source& source);

/// mm, diameter of what the subject sees shine: modifier, card of a bounce, or the bare face.
double shining_diameter(const Source& source);

/// Whether a flash finds its power itself: another stop or ISO leaves the exposure right.
bool finds_power(const Plan& plan);

/// Whether high-speed sync is on for this light.
bool in_high_speed(const Plan& plan, const Source& source);

Losses losses(const Plan& plan, const Source& source);

/// The way of a flash to the subject at full power, its guide number as calibrated.
light::FlashPath flash_path(const Plan& plan, const Source& source);
/// And of a lamp that is known by its lux. Its record's number as calibrated.
light::LampPath lamp_path(const Plan& plan, const Source& source);

/// Relative to correct, as an exposure ratio, at the axis point `behind` mm behind the subject's centre; the slant of
/// what it falls on is not counted. 0 where none gets there.
double light_at(const Plan& plan, const Source& source, double power, double behind);
/// The same at a card there that faces the camera, its slant counted, its reflectance not.
double at_background(const Plan& plan, const Source& source, double power, double behind);

/// mm from the subject at which the light would give so many stops more (negative: fewer), in the same direction and on
/// the same way; empty: nowhere, its modifier is too large. `report`: as it stands.
std::optional<double> distance_for(const Source& source, const SourceReport& report, double stops);

/// What the camera's metering would see of this flash.
std::optional<MeteringReport> metering_of(const Plan& plan, const Source& source);
/// And its automatic exposure, where no flash fires: of the subject's front and the background as they are in `light`.
std::optional<MeteringReport> automatic_exposure(const Plan& plan, const LightReport& light);

LightReport report_light(const Plan& plan);
/// Its background anew, where only that moved.
void report_background(const Plan& plan, LightReport& report);

/// The shot with each flash fixed at the power that it has in the report; those that stay dark are off.
shoot::Shot as_fired(const shoot::Shot& shot, const LightReport& light);

/// The stops of a source as its unit states power: "1/8", "−3.0 stops", "50 Ws".
std::string setting_text(const Source& source, double power);
/// And back: that, or any way a power is written. Empty: not understood.
std::optional<double> parse_setting(const Source& source, std::string_view text);

}  // namespace poquito::plan
