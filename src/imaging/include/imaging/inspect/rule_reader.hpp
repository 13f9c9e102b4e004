#pragma once

#include "imaging/inspect/grey_image.hpp"

#include <optional>

/// Reading a photographed rule: ticks found to parts of a pixel, and the magnification that follows.
namespace poquito::imaging {

/// A tick near a mark.
struct Tick {
    Place place;             // on its middle line, the point nearest to the mark
    double normal = 0;       // direction across the tick, radians from the x axis, in (-pi/2, pi/2]
    double uncertainty = 0;  // of the place across the tick, pixels: spread of its parts over their root
};

/// The dark or light line nearest to `near`, up to `reach` pixels off; the direction comes from the gradients about it
/// (structure tensor). Empty where nothing there stands out.
std::optional<Tick> find_tick(const GreyImage& image, Place near, double reach);

/// Lines crossed on the way from one mark to the other, neither end counted; 0 where none stands out. The spaces
/// between are one more.
int ticks_between(const GreyImage& image, Place from, Place to);

/// What two marks on a rule say.
struct RuleMarks {
    Place first, second;
    std::optional<Tick> first_tick, second_tick;  // where the marks were set to ticks
    double distance = 10;                         // on the rule between them, mm
    double pixel_pitch = 0.004;                   // mm on the sensor to one pixel of this image
};

struct RuleReading {
    double magnification = 0;
    double uncertainty = 0;  // one standard deviation
    double pixels = 0;       // between the marks, across the ticks where they are known
};

/// A mark set by hand is good to half a pixel, the ticks of a rule to 0.05 mm (common practice). A rule that is not
/// parallel to the sensor reads too small by the cosine of its tilt: nothing here can see that.
inline constexpr double hand_mark_uncertainty = 0.5;  // pixels
inline constexpr double rule_uncertainty = 0.05;      // mm, of the distance between two ticks
RuleReading read_rule(const RuleMarks& marks);

}  // namespace poquito::imaging
