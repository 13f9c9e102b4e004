#pragma once

#include <optional>

/// The train from gear to image. Lengths in mm, measured along the optical axis; magnification is positive, image size
/// over subject size. Formulas: MODEL 1, which is the thick-lens form of the 2x2 ray-transfer matrix (Gerrard and
/// Burch, Introduction to Matrix Methods in Optics).
namespace poquito::optics {

/// How a lens focuses: `unit` moves the whole lens forward, `internal` shortens the focal length behind a fixed rim.
enum class Focusing { unit, internal };

struct Lens {
    double focal_length = 50;         // at infinity
    double max_aperture = 2.8;        // smallest marked f-number
    double min_aperture = 22;         // largest marked f-number
    double closest_focus = 450;       // sensor to subject at ring 1
    double max_magnification = 0.15;  // at ring 1
    Focusing focusing = Focusing::unit;
    double hiatus = 0;               // between the principal planes, front to rear; internal focusing only
    double pupil_magnification = 1;  // exit pupil over entrance pupil
    double length = 60;              // mount face to front rim, at infinity
    double front_diameter = 50;
    std::optional<double> closest_working_f_number;  // at ring 1, for max_aperture; empty: not known

    bool operator==(const Lens&) const = default;
};

/// A converter next to the camera, all tubes in front of it.
struct Converter {
    double factor = 1;
    double length = 0;

    bool operator==(const Converter&) const = default;
};

/// What is screwed together, before it is focused.
struct Train {
    Lens lens;
    double flange = 44;        // mount face to sensor
    double tubes = 0;          // sum of the extension between lens and camera
    double closeup_power = 0;  // 1/mm, sum of the close-up lenses in contact with the front rim
    std::optional<Converter> converter;
};

/// A train at one position of its focus ring.
struct FocusedTrain {
    double ring = 0;                    // 0 infinity ... 1 closest
    double focal_length = 0;            // of the lens alone at this ring position
    double lens_magnification = 0;      // ring * max_magnification: the lens without tubes
    double extended_magnification = 0;  // with tubes; still without close-up lens and converter
    double magnification = 0;           // of the whole train
    double image_distance = 0;  // rear principal plane to the sensor (to the converter's image without converter)
    double front = 0;           // sensor to front rim, converter included
    double principal = 0;       // front rim back to the front principal plane; negative: in front of the rim
    std::optional<double> working_distance;   // front rim to subject; empty: infinity; negative: inside the lens
    std::optional<double> subject_to_sensor;  // empty: infinity
};

/// `ring` in [0, 1].
FocusedTrain focus_at_ring(const Train& train, double ring);

/// Formulas as they are shown to a person; each is what focus_at_ring computes.
inline constexpr const char* lens_magnification_formula = "ring * M";
inline constexpr const char* internal_focal_length_formula = "f + ring * ((L - h) / (2 + M + 1 / M) - f)";
inline constexpr const char* extended_magnification_formula = "m_s + T / f_s";
inline constexpr const char* closeup_magnification_formula = "(m_1 * (1 - D * e) + D * f_s * (1 + m_1)) * k";
inline constexpr const char* working_distance_formula = "1 / (D + 1 / (f_s * (1 + 1 / m_1) - e))";
inline constexpr const char* subject_to_sensor_formula = "S + w";
inline constexpr const char* field_formula = "s / m";

}  // namespace poquito::optics
