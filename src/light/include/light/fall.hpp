#pragma once

/// Falling and splashing things. mm, s, mm/s. Free fall without air resistance: within a per cent for the
/// heights of a table top (Galileo's law, any mechanics text).
namespace poquito::light {

inline constexpr double gravity = 9806.65;  // mm/s^2, standard acceleration of free fall, ISO 80000-3

double fall_time(double height);   // from rest
double fall_speed(double height);  // after that height
double fallen(double time);        // the height fallen from rest after a time

/// Sound takes time: that of the trigger's distance, in dry air of 20 degrees Celsius.
inline constexpr double speed_of_sound = 343200;  // mm/s, ISO 9613-1 at 20 degrees

/// A second drop is to meet what the first one threw up.
struct TwoDrops {
    double height = 300;  // mm, valve to surface
    double rise = 0.06;   // s from the first drop's impact until its column stands as high as wanted
    double column = 20;   // mm, how high it then stands
};
/// Seconds between the valve's openings.
double second_drop_after(const TwoDrops& drops);

/// A repeating flash.
struct Burst {
    int flashes = 5;
    double frequency = 20;  // Hz

    bool operator==(const Burst&) const = default;
};
/// The shutter time that holds all of it: n / F (MODEL 3).
double burst_time(const Burst& burst);

inline constexpr const char* fall_speed_formula = "sqrt(2 * g * h)";
inline constexpr const char* burst_formula = "n / F";

}  // namespace poquito::light
