#pragma once

/// The widest blur disc still called sharp, mm at the sensor, by each school. Source: MODEL 2.
namespace poquito::optics {

struct Sensor {
    double width = 36;   // mm
    double height = 24;  // mm
    int width_px = 6000;
    int height_px = 4000;

    bool operator==(const Sensor&) const = default;
};

double pixel_pitch(const Sensor& sensor);

/// `pixels`: how many pixel pitches may blur together; MODEL 2 takes 2 unless told otherwise.
double pixel_blur_limit(const Sensor& sensor, double pixels);

/// Sensor diagonal / 1500 (common practice).
double diagonal_blur_limit(const Sensor& sensor);

/// A print of the whole picture seen from a distance.
struct Print {
    double width = 300;             // mm
    double viewing_distance = 400;  // mm
    double crop = 1;                // share of the frame's width that the picture keeps, in (0, 1]

    bool operator==(const Print&) const = default;
};
/// An eye takes a disc of 1/1250 of its distance for a point: 0.2 mm at 250 mm (common practice, five line pairs per
/// mm).
double print_blur_limit(const Sensor& sensor, const Print& print);

/// A file delivered at a given width.
struct Delivery {
    double width_px = 2000;
    double crop = 1;  // share of the frame's width that the picture keeps, in (0, 1]

    bool operator==(const Delivery&) const = default;
};
/// Two delivered pixels, traced back to the sensor; the pixel school applied to the final picture.
double delivery_blur_limit(const Sensor& sensor, const Delivery& delivery);

inline constexpr const char* pixel_blur_limit_formula = "n * w / w_px";
inline constexpr const char* diagonal_blur_limit_formula = "sqrt(w^2 + h^2) / 1500";
inline constexpr const char* print_blur_limit_formula = "v / 1250 * w * crop / W";
inline constexpr const char* delivery_blur_limit_formula = "2 * w * crop / W_px";

}  // namespace poquito::optics
