#include "light/metering.hpp"

#include <cmath>

namespace poquito::light {

double metered_reflectance(const MeteredField& field) {
    return field.fill * field.reflectance +
           (1 - field.fill) * field.background_reflectance * std::exp2(field.background_stops);
}

double automatic_error(const MeteredField& field) { return -std::log2(metered_reflectance(field) / 0.18); }

}  // namespace poquito::light
