#include "light/position.hpp"
#include "light/angle.hpp"

#include <cmath>

namespace poquito::light {

double towards_camera(const Position& position) {
    return std::cos(position.elevation * degree) * std::cos(position.azimuth * degree);
}

std::optional<BackgroundPath> path_to_background(const Position& position, double behind) {
    const double along_axis = position.distance * towards_camera(position);
    const double distance =
        std::sqrt(position.distance * position.distance + behind * behind + 2 * behind * along_axis);
    const double incidence = (along_axis + behind) / distance;
    constexpr double grazing = 1e-12;  // what is left of cos 90 degrees in binary
    if (!(incidence > grazing)) return std::nullopt;
    return BackgroundPath{.distance = distance, .incidence = incidence};
}

double reflectance_stops(double reflectance) { return std::log2(reflectance / 0.18); }

BackgroundLook background_look(double stops, const LookLimits& limits) {
    if (stops < limits.black_below) return BackgroundLook::black;
    if (stops < limits.dark_below) return BackgroundLook::dark;
    return stops >= limits.white_from ? BackgroundLook::white : BackgroundLook::grey;
}

}  // namespace poquito::light
