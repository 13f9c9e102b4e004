#pragma once

#include "light/position.hpp"

/// Light has a direction: what of it the camera's side of a subject gets, and what lens, hood and panel take of light
/// that is there. Degrees, stops, mm. Source: MODEL 6; Lambert's law for a ball.
namespace poquito::light {

/// Of a matt ball lit from a place whose direction makes an angle with that to the camera, `towards` its cosine: the
/// mean light of the face that the camera sees, over what it is when lit from the camera. 0 to 1.
double ball_share(double towards);

/// Stops that even light, or a wide sky's, loses on a face towards the camera to a cone about the axis that lens and
/// hood cover; 0 or negative. `half_angle`: degrees, below 90.
double even_light_shaded(double half_angle);

/// A disc in the sky, such as a window or the sun, seen from the subject.
struct SkyDisc {
    double off_axis = 0;    // degrees between its middle and the axis to the camera
    double half_angle = 0;  // degrees that its edge lies from its middle
};
/// The share of its solid angle that lies within the cone about the axis that lens and hood cover, 0 to 1.
double covered_share(const SkyDisc& disc, double half_angle);

/// What a flat face gets of a uniform disc, over what it gets when turned to its middle: `towards` is the cosine of the
/// angle between them. A wide disc still lights a face that is turned away from its middle. 0 to 1.
double disc_share(double towards, double half_angle);

/// Full angle of a disc of that width at that distance, degrees.
double angle_of(double width, double distance);
/// And back: how wide what is seen under an angle is. `angle` below 180.
double width_of(double angle, double distance);

/// Stops that a surface of reflectance r and diameter w, all of it lit, gives the subject at a distance, less what
/// falls on it: a uniform disc on its axis.
double reflected_stops(double reflectance, double diameter, double distance);

/// Illuminance in exposure value of a surface that shines by itself: EV100 of a spot reading of `luminance` cd/m^2 (ISO
/// 2720, K = 12.5).
double ev100_of_luminance(double luminance);

inline constexpr const char* front_formula = "s + log2(k)";
inline constexpr const char* card_formula = "a + log2(r * (w / 2)^2 / (d^2 + (w / 2)^2))";
inline constexpr const char* highlight_formula = "log2((r_h * f + r * h) / 0.18)";

}  // namespace poquito::light
