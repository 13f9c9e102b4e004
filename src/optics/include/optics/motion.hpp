#pragma once

/// Blur from movement, mm at the sensor. Source: MODEL 2.
namespace poquito::optics {

/// A steady movement across the frame.
struct SteadyMotion {
    double magnification = 1;
    double speed = 0;     // mm/s at the subject
    double exposure = 0;  // s
};
double motion_blur(const SteadyMotion& motion);

/// A swing about a middle, as of a stem in the wind or a hand.
struct Oscillation {
    double magnification = 1;
    double amplitude = 0;  // mm at the subject, middle to extreme
    double frequency = 1;  // Hz
    double exposure = 0;   // s
};
/// At worst: the exposure lies about the moment of greatest speed. From half a period on the whole swing counts.
double oscillation_blur(const Oscillation& oscillation);

inline constexpr const char* motion_blur_formula = "m * w * t";
inline constexpr const char* oscillation_blur_formula = "2 * a * m * sin(pi * min(F * t, 1 / 2))";

}  // namespace poquito::optics
