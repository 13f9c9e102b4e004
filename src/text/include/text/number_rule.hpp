#pragma once

#include <string>

namespace poquito::text {

/// Which numbers are let in; both the check and its words. Numbers as they stand in files: mm, s, stops, degrees.
struct NumberRule {
    double least = 0;
    double greatest = 1e9;
    bool without_least = false;  // open at the lower end
    bool without_greatest = false;

    bool allows(double value) const;
    std::string words() const;  // "0 to 1", "above 0 to 1", "0 to below 1"
};

/// The range of each quantity, once: the file, the fields and the schema go by these. Each is as wide as physics and
/// the trade allow, and no wider: what lies outside is a slip of the keyboard, and nothing that is computed inside runs
/// out of the numbers a double holds. The bounds are common practice unless a line says otherwise.
namespace range {
// Shares and ratios.
inline constexpr NumberRule share{.greatest = 1};
inline constexpr NumberRule part{.least = 1e-6, .greatest = 1};     // a share of which nothing may not be left
inline constexpr NumberRule power{.least = 1e-6, .greatest = 100};  // fraction of full; above 1 is said in a note
inline constexpr NumberRule magnification{.greatest = 1000};
inline constexpr NumberRule magnification_of_lens{.least = 1e-6, .greatest = 1000};
inline constexpr NumberRule pupil_magnification{.least = 0.01, .greatest = 100};
inline constexpr NumberRule factor{.least = 0.1, .greatest = 20};  // of a converter or a focal reducer
inline constexpr NumberRule kept{.least = 0.01, .greatest = 0.99};
inline constexpr NumberRule overlap{.greatest = 0.99};
inline constexpr NumberRule crop{.least = 0.01, .greatest = 1};           // of the picture that is used
inline constexpr NumberRule picture_shape{.least = 0.1, .greatest = 10};  // width over height
inline constexpr NumberRule margin{.greatest = 0.45};                     // of a side, at both ends of it
inline constexpr NumberRule aside{.least = -0.5, .greatest = 0.5};        // shares of a frame off its middle
inline constexpr NumberRule reflecting{.least = 0.01, .greatest = 1};     // what a surface gives back that is to light
// Lengths.
inline constexpr NumberRule size{.least = 1e-4, .greatest = 1e6};  // of what is there: a tenth of a micrometre to 1 km
inline constexpr NumberRule length{.greatest = 1e6};
inline constexpr NumberRule offset{.least = -1e6, .greatest = 1e6};
inline constexpr NumberRule focal_length{.least = 0.1, .greatest = 1e5};
inline constexpr NumberRule sensor{.least = 0.1, .greatest = 1000};  // from a needle's camera to the largest plate
inline constexpr NumberRule disc{.least = 1e-5, .greatest = 100};    // at the sensor
inline constexpr NumberRule wavelength_nm{.least = 100, .greatest = 2000};  // far ultraviolet to near infrared
inline constexpr NumberRule thread{.greatest = 1000};
inline constexpr NumberRule dioptres{.least = 0.01, .greatest = 1000};
// Exposure. No lens in air is faster than f/0.5 (the cone of its rays would open beyond 180 degrees).
inline constexpr NumberRule f_number{.least = 0.5, .greatest = 1000};
inline constexpr NumberRule shutter{.least = 1e-7, .greatest = 86400};
inline constexpr NumberRule iso{.least = 1, .greatest = 1e7};
inline constexpr NumberRule stops{.least = -30, .greatest = 30};
inline constexpr NumberRule lost_stops{.greatest = 30};
inline constexpr NumberRule stop_steps{.least = 0.01, .greatest = 30};
inline constexpr NumberRule exposure_value{.least = -30, .greatest = 40};  // starlight is -8, the sun's own disc 33
inline constexpr NumberRule guide_number{.least = 0.01, .greatest = 1e4};
inline constexpr NumberRule flash_duration{.least = 1e-9, .greatest = 60};
inline constexpr NumberRule light{.least = 1e-6, .greatest = 1e9};     // lx, cd/m2, Ws
inline constexpr NumberRule kelvin{.least = 1000, .greatest = 40000};  // a candle to a deep blue sky
inline constexpr NumberRule mired{.least = -500, .greatest = 500};     // of gels, several of them
// Time and movement.
inline constexpr NumberRule seconds{.greatest = 604800};  // up to a week
inline constexpr NumberRule some_seconds{.least = 1e-6, .greatest = 604800};
inline constexpr NumberRule speed{.greatest = 1e6};  // mm/s: a kilometre a second, a rifle's bullet
inline constexpr NumberRule some_speed{.least = 1e-6, .greatest = 1e6};
inline constexpr NumberRule frequency{.greatest = 1e6};
inline constexpr NumberRule some_frequency{.least = 1e-6, .greatest = 1e6};
inline constexpr NumberRule turning{.greatest = 100};  // rad/s
// Angles.
inline constexpr NumberRule full_turn{.least = -360, .greatest = 360};
inline constexpr NumberRule refraction{.least = 1, .greatest = 4};  // index; diamond has 2.4
inline constexpr NumberRule inclination{.least = -90, .greatest = 90};
inline constexpr NumberRule half_turn{.least = -180, .greatest = 180};
inline constexpr NumberRule source_angle{.least = 1e-3, .greatest = 180};
// Counts and data.
inline constexpr double most = 1e9;  // of anything that is counted
inline constexpr NumberRule count{.greatest = most};
inline constexpr NumberRule some{.least = 1e-6, .greatest = most};  // that need not be whole
inline constexpr NumberRule pixels{.least = 0.01, .greatest = 1e6};
inline constexpr NumberRule sensor_pixels{.least = 1, .greatest = 1e6};
inline constexpr NumberRule megabytes{.greatest = most};
// What was measured, of any kind.
inline constexpr NumberRule reading{.least = -most, .greatest = most};
inline constexpr NumberRule some_reading{.least = 1e-9, .greatest = most};
}  // namespace range

}  // namespace poquito::text
