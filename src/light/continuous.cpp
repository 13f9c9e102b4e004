#include "light/continuous.hpp"

#include <boost/math/special_functions/sinc.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::light {
namespace {

constexpr double lux_at_ev0 = 2.5;  // C / ISO: 250 / 100, ISO 2720
constexpr double pi = std::numbers::pi;

double as_point(double distance, double diameter) { return std::hypot(distance, diameter / 2); }

}  // namespace

double ev100_of(double lux) { return std::log2(lux / lux_at_ev0); }
double lux_of(double ev100) { return lux_at_ev0 * std::exp2(ev100); }

double illuminance(const LampPath& path) {
    const double nearer =
        as_point(path.at_distance, path.face_diameter) / as_point(path.distance, path.source_diameter);
    return path.lux * nearer * nearer * path.power * std::exp2(-path.loss);
}

double illuminance(double luminance, const Disc& disc) {
    const double radius = disc.diameter / 2;
    return pi * luminance * radius * radius / (disc.distance * disc.distance + radius * radius);
}

double flicker_stops(const Flicker& flicker, double shutter) {
    // The mean over the exposure of 1 + depth sin(2 pi f t + phase) swings by depth |sinc(pi f t)|.
    const double swing = flicker.depth * std::abs(boost::math::sinc_pi(pi * flicker.frequency * shutter));
    constexpr double darkest = 1e-3;  // share of the mean; below it the frame is black whatever the number
    return std::log2((1 + swing) / std::max(1 - swing, darkest));
}

const std::vector<Sky>& skies() {
    static const std::vector<Sky> all = {{"clear", "clear sun", 15, 0.53},
                                         {"haze", "hazy sun", 14, 10},
                                         {"bright", "bright cloud", 13, 90},
                                         {"overcast", "overcast", 12, 150},
                                         {"shade", "open shade", 11, 120}};
    return all;
}

}  // namespace poquito::light
