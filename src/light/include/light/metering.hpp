#pragma once

/// Flash that the camera meters through the lens: it brings the metered average to mid grey. Source: MODEL 3.
namespace poquito::light {

/// What the metered field holds.
struct MeteredField {
    double fill = 1;                       // share of the field the subject takes, 0 to 1
    double reflectance = 0.18;             // of the subject
    double background_reflectance = 0.18;  // 0 where there is nothing behind
    double background_stops = 0;           // the flash's light at the background against that at the subject
};

/// The average the meter sees, relative to a surface that sends back all light: a r + (1 - a) r_b 2^B.
double metered_reflectance(const MeteredField& field);

/// How far the automatic misses, in stops; positive: too bright. Its negative is the compensation to set. The field
/// sends back some light.
double automatic_error(const MeteredField& field);

inline constexpr const char* metered_formula = "a * r + (1 - a) * r_b * 2^(B)";
inline constexpr const char* automatic_formula = "0 - log2(r_m / 0.18)";

}  // namespace poquito::light
