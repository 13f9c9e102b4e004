#pragma once

#include "light/exposure.hpp"

#include <vector>

/// Light that stays on: lamps, panels, screens, window and sky. Illuminance in lux, luminance in cd/m^2, mm, s, Hz.
/// Source: MODEL 3; ISO 2720 for exposure value and lux.
namespace poquito::light {

/// Exposure value at ISO 100 of an illuminance, for a dome meter with C = 250 (ISO 2720): EV 15 is 81 920 lx.
double ev100_of(double lux);
double lux_of(double ev100);

/// A lamp as its maker or a meter states it: so many lux at a distance on its axis.
struct LampPath {
    double lux = 1000;           // bare, at full
    double at_distance = 1000;   // mm, where that was measured
    double power = 1;            // fraction of full that it is dimmed to
    double loss = 0;             // stops taken by what stands in the way
    double distance = 1000;      // mm, light to point
    double face_diameter = 0;    // mm, of the lamp when it was measured
    double source_diameter = 0;  // mm, of what shines now: the lamp's face, or the modifier's
};
/// At the point; both distances by the disc rule of flash_stops.
double illuminance(const LampPath& path);

/// On the axis of a uniform disc of that luminance, such as a screen: pi L (w/2)^2 / (d^2 + (w/2)^2).
struct Disc {
    double diameter = 300;  // mm
    double distance = 500;  // mm
};
double illuminance(double luminance, const Disc& disc);

/// Light of lamps that follows the mains: the largest difference between two frames, in stops, of one that swings
/// sinusoidally by `depth` (0 to 1, the swing over the mean) `frequency` times a second, exposed for `shutter`.
struct Flicker {
    double frequency = 100;
    double depth = 0.3;
};
double flicker_stops(const Flicker& flicker, double shutter);

/// Daylight by sky (common practice; full sun is EV 15 by ISO 2720): reading and how wide the source is, seen from the
/// subject, degrees.
struct Sky {
    const char* id;
    const char* name;
    double ev100;
    double size;
};
const std::vector<Sky>& skies();

inline constexpr const char* lamp_formula = "log2(E / 2.5 * (ISO / 100) * t / N_w^2)";

}  // namespace poquito::light
