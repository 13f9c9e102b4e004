#include "imaging/colour.hpp"
#include "light/angle.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::imaging {
namespace {

using light::degree;

/// CIE XYZ of the D65 white with Y = 1; IEC 61966-2-1.
constexpr double white[3] = {0.9505, 1.0, 1.0890};
/// sRGB to XYZ, IEC 61966-2-1; the inverse is the standard's own.
constexpr double to_xyz[3][3] = {{0.4124, 0.3576, 0.1805}, {0.2126, 0.7152, 0.0722}, {0.0193, 0.1192, 0.9505}};
constexpr double from_xyz[3][3] = {{3.2406, -1.5372, -0.4986}, {-0.9689, 1.8758, 0.0415}, {0.0557, -0.2040, 1.0570}};

/// The cube root with its straight foot, ISO/CIE 11664-4: delta = 6/29.
constexpr double delta = 6.0 / 29;
double lab_curve(double t) { return t > delta * delta * delta ? std::cbrt(t) : t / (3 * delta * delta) + 4.0 / 29; }
double lab_curve_inverse(double f) { return f > delta ? f * f * f : 3 * delta * delta * (f - 4.0 / 29); }

Light3 light_of_lab(const Lab& lab) {
    const double y = (lab.lightness + 16) / 116;
    const double xyz[3] = {white[0] * lab_curve_inverse(y + lab.a / 500), white[1] * lab_curve_inverse(y),
                           white[2] * lab_curve_inverse(y - lab.b / 200)};
    const auto row = [&](int i) { return from_xyz[i][0] * xyz[0] + from_xyz[i][1] * xyz[1] + from_xyz[i][2] * xyz[2]; };
    return {row(0), row(1), row(2)};
}

bool is_shown(const Light3& light) {
    constexpr double slack = 1e-3;
    const auto [low, high] = std::minmax({light.red, light.green, light.blue});
    return low >= -slack && high <= 1 + slack;
}

Lab polar(const LightnessChromaHue& wanted, double chroma) {
    return {.lightness = wanted.lightness,
            .a = chroma * std::cos(wanted.hue * degree),
            .b = chroma * std::sin(wanted.hue * degree)};
}

}  // namespace

double to_linear(double encoded) {
    return encoded <= 0.04045 ? encoded / 12.92 : std::pow((encoded + 0.055) / 1.055, 2.4);
}

double to_encoded(double linear) {
    return linear <= 0.0031308 ? linear * 12.92 : 1.055 * std::pow(linear, 1 / 2.4) - 0.055;
}

Light3 light_of(const Colour& colour) {
    return {to_linear(colour.red / 255.0), to_linear(colour.green / 255.0), to_linear(colour.blue / 255.0)};
}

Colour colour_of(const Light3& light) {
    const auto code = [](double linear) {
        return static_cast<std::uint8_t>(std::lround(to_encoded(std::clamp(linear, 0.0, 1.0)) * 255));
    };
    return {.red = code(light.red), .green = code(light.green), .blue = code(light.blue)};
}

namespace {

/// One lobe of the fit: a bell with two widths. nm.
double lobe(double nm, double middle, double below, double above) {
    const double t = (nm - middle) * (nm < middle ? below : above);
    return std::exp(-t * t / 2);
}

}  // namespace

Light3 black_body(double kelvin) {
    double x = 0, y = 0, z = 0;
    constexpr double step = 5;  // nm
    for (double nm = 380; nm <= 780; nm += step) {
        constexpr double second = 1.438777e7;  // nm K, the second radiation constant (CODATA)
        const double power = std::pow(nm / 560, -5) / std::expm1(second / (nm * kelvin));
        x += power * (1.056 * lobe(nm, 599.8, 0.0264, 0.0323) + 0.362 * lobe(nm, 442.0, 0.0624, 0.0374) -
                      0.065 * lobe(nm, 501.1, 0.0490, 0.0382));
        y += power * (0.821 * lobe(nm, 568.8, 0.0213, 0.0247) + 0.286 * lobe(nm, 530.9, 0.0613, 0.0322));
        z += power * (1.217 * lobe(nm, 437.0, 0.0845, 0.0278) + 0.681 * lobe(nm, 459.0, 0.0385, 0.0725));
    }
    x /= y, z /= y;
    // IEC 61966-2-1.
    const Light3 light{.red = 3.2406 * x - 1.5372 - 0.4986 * z,
                       .green = -0.9689 * x + 1.8758 + 0.0415 * z,
                       .blue = 0.0557 * x - 0.2040 + 1.0570 * z};
    return {.red = std::max(0.0, light.red), .green = std::max(0.0, light.green), .blue = std::max(0.0, light.blue)};
}

Light3 black_body(double kelvin, double white_kelvin) {
    constexpr double least = 1e-3;
    const Light3 own = black_body(kelvin), white = black_body(white_kelvin);
    Light3 seen{.red = own.red / std::max(white.red, least),
                .green = own.green / std::max(white.green, least),
                .blue = own.blue / std::max(white.blue, least)};
    const double level = luminance(seen);
    return {.red = seen.red / level, .green = seen.green / level, .blue = seen.blue / level};
}

double luminance(const Light3& light) {
    return to_xyz[1][0] * light.red + to_xyz[1][1] * light.green + to_xyz[1][2] * light.blue;
}

Lab lab_of(const Colour& colour) {
    const Light3 light = light_of(colour);
    const auto part = [&](int i) {
        return lab_curve((to_xyz[i][0] * light.red + to_xyz[i][1] * light.green + to_xyz[i][2] * light.blue) /
                         white[i]);
    };
    return {.lightness = 116 * part(1) - 16, .a = 500 * (part(0) - part(1)), .b = 200 * (part(1) - part(2))};
}

double chroma(const Lab& lab) { return std::hypot(lab.a, lab.b); }

double hue(const Lab& lab) {
    const double degrees = std::atan2(lab.b, lab.a) / degree;
    return degrees < 0 ? degrees + 360 : degrees;
}

double difference(const Lab& one, const Lab& other) {
    return std::hypot(one.lightness - other.lightness, one.a - other.a, one.b - other.b);
}

Colour nearest_colour(const LightnessChromaHue& wanted) {
    double shown = 0, beyond = wanted.chroma;
    if (is_shown(light_of_lab(polar(wanted, wanted.chroma)))) shown = wanted.chroma;
    for (int i = 0; shown < wanted.chroma && i < 20; ++i) {
        const double middle = (shown + beyond) / 2;
        (is_shown(light_of_lab(polar(wanted, middle))) ? shown : beyond) = middle;
    }
    return colour_of(light_of_lab(polar(wanted, shown)));
}

std::vector<CardColour> card_colours(const Colour& subject) {
    const Lab lab = lab_of(subject);
    // A step in lightness that the eye cannot miss, towards the side with more room.
    const double light = lab.lightness > 50 ? lab.lightness - 35 : lab.lightness + 35;
    constexpr double grey = 6;  // chroma below which nobody names a hue (common practice)
    std::vector<CardColour> cards;
    const auto add = [&](const char* name, const LightnessChromaHue& wanted) {
        const Colour colour = nearest_colour(wanted);
        cards.push_back({.name = name, .colour = colour, .difference = difference(lab, lab_of(colour))});
    };
    if (chroma(lab) >= grey) {
        const double strength = std::min(chroma(lab), 45.0), opposite = hue(lab) + 180;
        add("opposite", {.lightness = light, .chroma = strength, .hue = opposite});
        add("opposite \u2212 30\u00b0", {.lightness = light, .chroma = strength, .hue = opposite - 30});
        add("opposite + 30\u00b0", {.lightness = light, .chroma = strength, .hue = opposite + 30});
        add("quiet relative", {.lightness = light, .chroma = strength / 3, .hue = hue(lab)});
    }
    add("neutral", {.lightness = light});
    add(lab.lightness > 50 ? "near black" : "near white", {.lightness = lab.lightness > 50 ? 12.0 : 95.0});
    return cards;
}

}  // namespace poquito::imaging
