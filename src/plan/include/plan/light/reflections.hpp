#pragma once

#include "light/shiny.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>
#include <vector>

/// What a polished subject mirrors. mm from the subject's centre, as in light/space.hpp.
namespace poquito::plan {

/// The face it turns to the camera: flat for slabs and their like, else the half ellipsoid that fills its box.
light::Mirror mirror_of(const shoot::Subject& subject);

/// Where the lens looks from; empty where its pupil does not lie in front of the subject.
std::optional<light::Point> pupil_point(const Plan& plan);

/// The family of angles in the plane through the axis, upright or level: where the two ends of the polished face send
/// the camera's look. What stands between the two is mirrored.
enum class AxisPlane { upright, level };
struct Family {
    light::Reflection one;    // by the lower, or the left end
    light::Reflection other;  // by the upper, or the right end
};
/// Empty where the face is not polished, or one of its ends cannot be seen.
std::optional<Family> family_of_angles(const Plan& plan, AxisPlane in);

/// What each of `across` x `across` squares of the face, in rows from its top, mirrors into the lens.
enum class Shown : unsigned char {
    nothing,  // no face there, or the lens does not see it
    room,
    chosen,  // the light `chosen`, whatever else
    other
};
std::vector<Shown> face_map(const Plan& plan, const LightReport& light, std::size_t chosen, int across);

/// One a light, for a subject with the trait "polished"; none for others.
std::vector<ReflectionReport> report_reflections(const Plan& plan, const LightReport& light);

/// A light's place for the middle of a flat face to show it, as far away as it is now; empty: none.
std::optional<light::Position> shown_place(const Plan& plan, std::size_t light);

}  // namespace poquito::plan
