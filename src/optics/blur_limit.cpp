#include "optics/blur_limit.hpp"

#include <cmath>

namespace poquito::optics {

double pixel_pitch(const Sensor& sensor) { return sensor.width / sensor.width_px; }

double pixel_blur_limit(const Sensor& sensor, double pixels) { return pixels * pixel_pitch(sensor); }

double diagonal_blur_limit(const Sensor& sensor) { return std::hypot(sensor.width, sensor.height) / 1500; }

double print_blur_limit(const Sensor& sensor, const Print& print) {
    constexpr double point_over_distance = 1.0 / 1250;
    const double enlargement = print.width / (sensor.width * print.crop);
    return print.viewing_distance * point_over_distance / enlargement;
}

double delivery_blur_limit(const Sensor& sensor, const Delivery& delivery) {
    return 2 * sensor.width * delivery.crop / delivery.width_px;
}

}  // namespace poquito::optics
