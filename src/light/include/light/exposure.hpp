#pragma once

/// Exposure arithmetic in stops (base-2 logarithms of exposure ratios); 0 is a correct exposure of mid grey. Times in
/// seconds, f-numbers are working f-numbers. Source: MODEL 3; ISO 2720 for exposure value, ISO 1230 for guide numbers.
namespace poquito::light {

/// What the camera is set to, with the working f-number in place of the marked one.
struct Settings {
    double working_f_number = 8;
    double shutter = 0.01;  // s
    double iso = 100;
    double loss = 0;  // stops that filters before the lens take of all light
};

/// Ambient light of exposure value `ev100`, relative to correct.
double ambient_stops(const Settings& settings, double ev100);

/// One flash on its way to a point.
struct FlashPath {
    double guide_number = 20;      // metres at ISO 100, full power
    double power = 1;              // fraction of full, above 0
    double loss = 0;               // stops taken by whatever stands in the way
    double distance = 1000;        // mm, light to point (bounce: the whole path)
    double modifier_diameter = 0;  // mm; a source near its subject is a disc, not a point
};

/// Relative to correct. A uniform disc of diameter w seen on its axis lights like a point at sqrt(d^2 + (w/2)^2)
/// (Lambertian disc; any radiometry text).
double flash_stops(const Settings& settings, const FlashPath& path);

/// The power that gives `stops`; may pass 1. The inverse of flash_stops; `path.power` is not read.
double power_for(const Settings& settings, FlashPath path, double stops);

/// Stops that high-speed sync costs against one flash at the same power: what the unit loses in making its light last
/// (`at_sync`), and from there what a shutter faster than sync cuts off a light that lasts (MODEL 3: it spreads the
/// light). 0 at sync and slower.
struct HighSpeed {
    double sync = 1.0 / 200;  // s
    double at_sync = 2;       // stops
};
double high_speed_loss(const HighSpeed& unit, double shutter);

inline constexpr const char* ambient_formula = "log2(2^EV * ISO / 100 * t / N_w^2)";
inline constexpr const char* flash_formula = "log2(G^2 * p * (ISO / 100) * 2^(-l) / (N_w^2 * (d^2 + (w / 2)^2)))";
inline constexpr const char* auto_power_formula = "2^(g) / 2^(s_1)";
inline constexpr const char* flash_sum_formula = "log2(a + f)" /* exposure ratios: ambient, sum of the sources */;
inline constexpr const char* high_speed_formula = "h + log2(t_s / t)";

}  // namespace poquito::light
