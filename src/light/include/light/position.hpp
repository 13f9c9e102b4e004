#pragma once

#include <optional>

/// Where a light stands and what reaches the plane behind the subject. mm and degrees. Source: MODEL 3.
namespace poquito::light {

/// Seen from the subject's centre.
struct Position {
    double distance = 1000;  // mm
    double azimuth = 0;      // degrees from the camera's side of the axis towards the right
    double elevation = 0;    // degrees above the horizontal

    bool operator==(const Position&) const = default;
};

/// Cosine of the angle between the light's direction and the axis towards the camera; negative: behind the subject.
double towards_camera(const Position& position);

/// The way from a light to the point on the axis `behind` mm behind the subject's centre, on a plane that faces the
/// camera.
struct BackgroundPath {
    double distance = 0;   // mm
    double incidence = 1;  // cosine at the plane, in (0, 1]
};
/// Empty where the light stands behind that plane or in it: no light falls on its face.
std::optional<BackgroundPath> path_to_background(const Position& position, double behind);

/// Stops of a surface against mid grey: log2(reflectance / 0.18). `reflectance` above 0.
double reflectance_stops(double reflectance);

/// How a background of that many stops from mid grey looks (defaults of MODEL 3).
enum class BackgroundLook { black, dark, grey, white };
struct LookLimits {
    double black_below = -6;
    double dark_below = -4;
    double white_from = 2.473931188332412;  // log2(1 / 0.18)
};
BackgroundLook background_look(double stops, const LookLimits& limits = {});

inline constexpr const char* background_formula = "log2(B * r / 0.18)";

}  // namespace poquito::light
