#include "light/exposure.hpp"

#include <cmath>

namespace poquito::light {

double ambient_stops(const Settings& settings, double ev100) {
    return ev100 +
           std::log2(settings.iso / 100 * settings.shutter / (settings.working_f_number * settings.working_f_number)) -
           settings.loss;
}

double flash_stops(const Settings& settings, const FlashPath& path) {
    constexpr double mm_per_metre = 1000;
    const double distance = std::hypot(path.distance, path.modifier_diameter / 2) / mm_per_metre;
    const double at_guide = path.guide_number / (settings.working_f_number * distance);
    return 2 * std::log2(at_guide) + std::log2(path.power * settings.iso / 100) - path.loss - settings.loss;
}

double power_for(const Settings& settings, FlashPath path, double stops) {
    path.power = 1;
    return std::exp2(stops - flash_stops(settings, path));
}

double high_speed_loss(const HighSpeed& unit, double shutter) {
    constexpr double same = 1 - 1e-9;  // 1/200 written two ways
    return shutter >= unit.sync * same ? 0 : unit.at_sync + std::log2(unit.sync / shutter);
}

}  // namespace poquito::light
