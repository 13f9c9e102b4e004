#pragma once

#include "optics/ray.hpp"

#include <optional>
#include <vector>

/// The train from gear to image. Lengths in mm, measured along the optical axis; magnification is positive, image size
/// over subject size. Everything comes from the 2x2 ray-transfer matrix of the whole train (ray.hpp); MODEL 1 gives the
/// closed forms for a lens that is not reversed, which the ledger shows and the tests hold against the matrix.
namespace poquito::optics {

/// How a lens focuses: `unit` moves the whole lens forward, `internal` shortens the focal length behind a fixed rim.
enum class Focusing { unit, internal };

/// A magnification of the lens alone as it was measured at one position of its ring.
struct RingReading {
    double ring = 1;  // in (0, 1]
    double magnification = 0;

    bool operator==(const RingReading&) const = default;
};

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
    std::optional<double> flange;                    // of its own mount; empty: the camera's
    std::vector<RingReading> readings;               // by rising ring; linear between them, 0 at ring 0

    bool operator==(const Lens&) const = default;
};

/// The lens alone at a ring position: the readings where there are any, else ring * max_magnification.
double lens_magnification(const Lens& lens, double ring);

/// A converter. Thin, and placed so that it lengthens the rig by `length`: it stands length/(factor - 1) in front of
/// where the image was.
struct Converter {
    double factor = 1;
    double length = 0;

    /// Shorter than any that is built, it is taken for none: the power of what lies behind goes by its reciprocal.
    static constexpr double least_length = 0.1;  // mm
    bool has_length() const { return length >= least_length; }

    bool operator==(const Converter&) const = default;
};

enum class Facing { forward, reversed };

/// A lens reversed on the front of the other one, rim to rim but for the coupling ring.
struct FrontLens {
    Lens lens;
    double ring = 0;         // its own focus ring
    double f_number = 2.8;   // marked, its own
    double coupling = 0;     // thickness of the ring between the rims
    double own_flange = 44;  // of its mount

    bool operator==(const FrontLens&) const = default;
};

/// What is screwed together, before it is focused. From the sensor: flange, rear tubes, converter, tubes, lens,
/// close-up lenses, front lens.
struct Train {
    Lens lens;
    double flange = 44;        // mount face to sensor
    double tubes = 0;          // sum of the extension between lens and camera (or converter), bellows included
    double closeup_power = 0;  // 1/mm, sum of the close-up lenses in contact with the front rim; not on a reversed lens
    std::optional<Converter> converter;
    double rear_tubes = 0;  // between converter and camera; needs a converter that has a length
    Facing facing = Facing::forward;
    double reversing_ring = 0;  // thickness; reversed only
    std::optional<FrontLens> front_lens;
};

/// A stop as rays from the subject's side meet it: where a ray (h, angle) at the frontmost face stands off the axis in
/// the plane of the pupil, scale * h + offset * angle, and how far off it may.
struct StopSight {
    double scale = 1;
    double offset = 0;    // mm
    double diameter = 0;  // of the pupil: at marked f-number 1 for the lens, as set for the front lens
};

/// A train at one position of its focus ring. The front is the frontmost face: the front rim, or the mount of a
/// reversed lens.
struct FocusedTrain {
    double ring = 0;                    // 0 infinity ... 1 closest
    double focal_length = 0;            // of the lens alone at this ring position
    double lens_magnification = 0;      // of the lens alone at this ring position
    double extended_magnification = 0;  // with tubes; still without close-up lens, front lens and converter
    double magnification = 0;           // of the whole train
    double image_distance = 0;  // rear principal plane to the sensor (to the converter's image without converter)
    double front = 0;           // sensor to the front, converter included
    double principal = 0;       // front back to the lens's front principal plane; negative: in front of it
    std::optional<double> working_distance;   // front to subject; empty: infinity; negative: inside the lens
    std::optional<double> subject_to_sensor;  // empty: infinity
    RayMatrix whole;                          // from the front to the sensor
    StopSight stop;                           // of the lens
    std::optional<StopSight> front_stop;      // of the front lens
};

/// `ring` in [0, 1].
FocusedTrain focus_at_ring(const Train& train, double ring);

/// True where the train can be focused on infinity: a forward lens without extension or anything in front of it.
bool has_infinity(const Train& train);

/// True where the closed forms of MODEL 1 hold: a forward lens on its own mount, tubes in front of the converter only,
/// no front lens.
bool is_plain(const Train& train);

/// Formulas as they are shown to a person; each is what focus_at_ring computes. The first six are for a plain train,
/// the last three for any: F and the focal points from the ray matrix.
inline constexpr const char* lens_magnification_formula = "ring * M";
inline constexpr const char* read_magnification_formula = "M_0 + (ring - r_0) * (M_1 - M_0) / (r_1 - r_0)";
inline constexpr const char* internal_focal_length_formula = "f + ring * ((L - h) / (2 + M + 1 / M) - f)";
inline constexpr const char* extended_magnification_formula = "m_s + T / f_s";
inline constexpr const char* closeup_magnification_formula = "(m_1 * (1 - D * e) + D * f_s * (1 + m_1)) * k";
inline constexpr const char* working_distance_formula = "1 / (D + 1 / (f_s * (1 + 1 / m_1) - e))";
inline constexpr const char* subject_to_sensor_formula = "S + w";
inline constexpr const char* field_formula = "s / m";
inline constexpr const char* any_extended_magnification_formula = "v / f_s - 1";
inline constexpr const char* any_magnification_formula = "x / F";
inline constexpr const char* any_working_distance_formula = "F / m + g";

}  // namespace poquito::optics

// Written out once, in train.cpp, not in every file that copies a lens.
extern template class std::vector<poquito::optics::RingReading>;
