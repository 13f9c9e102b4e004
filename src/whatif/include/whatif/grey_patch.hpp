#pragma once

#include "plan/report.hpp"

#include <optional>
#include <string>
#include <vector>

/// The test frame: what it showed against what was planned, the one change that mends it, and what is learned from it.
namespace poquito::whatif {

/// What a marked area of a picture holds. 0 to 1 of full scale, as light (not as stored by the file).
struct PatchReading {
    double mean = 0;     // of the luminance
    double clipped = 0;  // share of the area with a channel at its end
    double black = 0;    // share at zero
};
/// Stops that the picture is brighter than a correct exposure of a surface of that reflectance (above 0): log2(mean /
/// reflectance). With clipped pixels it is at least that; empty where all is black.
std::optional<double> stops_from_correct(const PatchReading& reading, double reflectance);

/// The exposure the plan predicts for the frame as it was taken: each automatic flash at the setting nearest to what it
/// wants, as a person dials it. Empty: no light.
std::optional<double> predicted_stops(const plan::Plan& plan);

/// The one change of a lever that makes a frame correct that showed `stops` too bright (negative: too dark).
struct Fix {
    shoot::Lever lever = shoot::Lever::power;
    std::string label;                // Power to 1/32
    std::optional<double> left_over;  // stops it still misses by; empty: the lever cannot do it
    shoot::Shot shot;
};
/// All levers, the preferred one first.
std::vector<Fix> fixes(const plan::Plan& plan, double stops);

/// What a meter at the subject would read of that lamp alone; empty where it is none, or none of it gets there.
std::optional<double> reading_of(const plan::Plan& plan, std::size_t light);

/// Where the difference between the frame and the plan is kept.
enum class KeptIn { unit, modifier, camera };
struct Lesson {
    std::size_t light = 0;
    KeptIn kept_in = KeptIn::unit;
    double frame_stops = 0;  // that the frame was from correct
    std::string time;        // local time, ISO 8601
};
/// The correction it comes to, against the record; empty: this light alone cannot explain it, or is not there. Kept in
/// the camera it tells of its automatic exposure, compensated as advised: no light is meant.
std::optional<double> learned(const plan::Plan& plan, const Lesson& lesson);
/// The kit with that correction added. The lesson has one.
gear::Kit taught(const plan::Plan& plan, const Lesson& lesson);
/// A meter at the subject read `ev100` of that lamp alone: the one correction its record then has. The light is a lamp
/// and reaches the subject.
gear::Kit taught_by_reading(const plan::Plan& plan, std::size_t light, double ev100, const std::string& time);
/// And without any, as the record says.
gear::Kit untaught(const gear::Kit& kit, const shoot::Shot& shot, const Lesson& lesson);

}  // namespace poquito::whatif
