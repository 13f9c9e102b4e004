#pragma once

#include "text/colour.hpp"

#include <string>
#include <vector>

/// Colours as screens show them and as eyes compare them.
namespace poquito::imaging {

using text::Colour;

/// The transfer curve of IEC 61966-2-1 (sRGB) and its inverse; linear light and code value both 0 to 1.
double to_linear(double encoded);
double to_encoded(double linear);

/// Linear light of the sRGB primaries.
struct Light3 {
    double red = 0;
    double green = 0;
    double blue = 0;
};
Light3 light_of(const Colour& colour);

/// What a black body of that temperature looks like, of luminance 1: Planck's law through the CIE 1931 observer (its
/// functions by the fit of Wyman, Sloan and Shirley, JCGT 2013), onto the primaries of sRGB. What lies outside them is
/// clipped.
Light3 black_body(double kelvin);
/// The same as a camera shows it that takes another temperature for white.
Light3 black_body(double kelvin, double white_kelvin);

Colour colour_of(const Light3& light);  // what lies outside 0 to 1 is clipped

/// Relative luminance, the share of light a surface of that colour sends back: IEC 61966-2-1, weights of ITU-R BT.709.
double luminance(const Light3& light);

/// CIE 1976 L*a*b* for the D65 white of sRGB: ISO/CIE 11664-4. Distances in it are about as large as they look.
struct Lab {
    double lightness = 0;  // 0 to 100
    double a = 0;          // green to red
    double b = 0;          // blue to yellow
};
Lab lab_of(const Colour& colour);
double chroma(const Lab& lab);
double hue(const Lab& lab);                           // degrees, 0 to 360
double difference(const Lab& one, const Lab& other);  // Delta E*ab

/// A colour by lightness, chroma and hue; where a screen cannot show it, with as much of the chroma as it can.
struct LightnessChromaHue {
    double lightness = 50;
    double chroma = 0;
    double hue = 0;  // degrees
};
Colour nearest_colour(const LightnessChromaHue& wanted);

/// A card to put behind a subject, and why.
struct CardColour {
    std::string name;
    Colour colour;
    double difference = 0;  // from the subject
};
/// Opposite in hue, its two neighbours, and a quiet relative; all set off in lightness too. A subject without hue gets
/// neutral cards.
std::vector<CardColour> card_colours(const Colour& subject);

}  // namespace poquito::imaging
