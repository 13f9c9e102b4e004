#pragma once

#include "optics/blur_limit.hpp"
#include "optics/diffraction.hpp"

#include <optional>
#include <string>

/// What has to be sharp, and by which rule. Blur in mm at the sensor.
namespace poquito::shoot {

/// What counts as sharp.
enum class BlurRule { pixel, diagonal, output, stated };

/// What the picture is for, for BlurRule::output.
enum class OutputKind { print, delivery };
struct Output {
    OutputKind kind = OutputKind::print;
    optics::Print print;
    optics::Delivery delivery;  // its crop is the print's: the picture is cropped once
    std::string unknown;

    bool operator==(const Output&) const = default;
};

struct Sharpness {
    BlurRule rule = BlurRule::pixel;
    double pixels = 2;             // for BlurRule::pixel
    std::optional<double> stated;  // for BlurRule::stated, mm at the sensor
    double wavelength = optics::default_wavelength;
    double focus_offset = 0;  // mm, plane of focus behind the middle of the subject's depth; negative: nearer
    Output output;
    double headroom = 0;  // stops that the file format holds above paper white: 0 a JPEG, about 1 raw (common practice)
    std::string unknown;

    bool operator==(const Sharpness&) const = default;
};

}  // namespace poquito::shoot
