#pragma once

#include <optional>

/// Falling, thrown and splashing things. mm, s, mm/s. Free fall without air resistance: within a per cent for the
/// heights of a table top (Galileo's law, any mechanics text).
namespace poquito::light {

inline constexpr double gravity = 9806.65;  // mm/s^2, standard acceleration of free fall, ISO 80000-3

double fall_time(double height);   // from rest
double fall_speed(double height);  // after that height
double fallen(double time);        // the height fallen from rest after a time

/// The speed of what is thrown up or down after it has moved `drop` mm down from where it left; empty where it never
/// gets there (drop negative: above the start).
struct Throw {
    double speed = 1000;  // mm/s, straight up or down
    double drop = 0;
};
std::optional<double> thrown_speed(const Throw& thrown);

/// A beam across the way, `above` mm over the wanted place, that something falling `height` mm in all breaks.
struct Beam {
    double height = 300;
    double above = 50;
    double lag = 0.05;  // s between the trigger's signal and the light
};
/// Seconds to wait between beam and trigger signal so that the light comes when the thing is at the wanted place;
/// negative: the beam must be set higher. `above` at most `height`.
double trigger_delay(const Beam& beam);
/// The least `above` that leaves the lag its time.
double least_beam_height(const Beam& beam);

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
inline constexpr const char* trigger_formula = "sqrt(2 * h / g) - sqrt(2 * (h - b) / g) - l";

}  // namespace poquito::light
