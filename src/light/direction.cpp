#include "light/direction.hpp"
#include "light/angle.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::light {

double ball_share(double towards) {
    const double c = std::clamp(towards, -1.0, 1.0);
    return (std::sqrt(1 - c * c) + std::acos(-c) * c) / std::numbers::pi;
}

double even_light_shaded(double half_angle) { return 2 * std::log2(std::cos(half_angle * degree)); }

double covered_share(const SkyDisc& disc, double half_angle) {
    const double edge = std::min(disc.half_angle, 180.0);
    if (disc.off_axis - edge >= half_angle) return 0;
    if (disc.off_axis + edge <= half_angle) return 1;
    if (half_angle + edge <= disc.off_axis) return 0;
    // Ring by ring about the disc's middle: how much of each lies within the cone. In the cosine of the ring's angle,
    // which is what solid angle goes by.
    const double middle_cos = std::cos(disc.off_axis * degree), middle_sin = std::sin(disc.off_axis * degree);
    const double cone = std::cos(half_angle * degree), last = std::cos(edge * degree);
    constexpr int rings = 512;
    double sum = 0;
    for (int i = 0; i < rings; ++i) {
        const double c = 1 - (1 - last) * (i + 0.5) / rings;
        const double across = middle_sin * std::sqrt(1 - c * c);
        const double rest = cone - middle_cos * c;
        sum += across > 1e-12 ? std::acos(std::clamp(rest / across, -1.0, 1.0)) / std::numbers::pi : rest <= 0 ? 1 : 0;
    }
    return sum / rings;
}

double disc_share(double towards, double half_angle) {
    const double cosine = std::clamp(towards, -1.0, 1.0), sine = std::sqrt(1 - cosine * cosine);
    const double last = std::cos(std::clamp(half_angle, 0.0, 90.0) * degree);
    if (last > 1 - 1e-9) return std::max(0.0, cosine);
    // Ring by ring, even in the cosine as solid angle is; of each the part before the face, whole.
    constexpr int rings = 48;
    double sum = 0, turned_to_it = 0;
    for (int i = 0; i < rings; ++i) {
        const double c = 1 - (1 - last) * (i + 0.5) / rings;
        const double along = cosine * c, across = sine * std::sqrt(1 - c * c);
        turned_to_it += c;
        if (along >= across) {
            sum += along;
        } else if (along > -across) {
            const double until = std::acos(-along / across);
            sum += (along * until + across * std::sin(until)) / std::numbers::pi;
        }
    }
    return sum / turned_to_it;
}

double angle_of(double width, double distance) { return 2 * std::atan(width / 2 / distance) / degree; }

double width_of(double angle, double distance) { return 2 * distance * std::tan(angle / 2 * degree); }

double reflected_stops(double reflectance, double diameter, double distance) {
    const double radius = diameter / 2;
    return std::log2(reflectance) + std::log2(radius * radius / (distance * distance + radius * radius));
}

double ev100_of_luminance(double luminance) { return std::log2(8 * luminance); }

}  // namespace poquito::light
