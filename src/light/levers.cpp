#include "light/levers.hpp"

#include <algorithm>

namespace poquito::light {

Balance moved(const Balance& from, const Levers& by) {
    return {.ambient = from.ambient + by.shutter + by.both, .flash = from.flash + by.both + by.power};
}

Levers levers_to(const Balance& from, const Balance& to, const std::optional<double>& shutter_room) {
    const double ambient = to.ambient - from.ambient;
    Levers levers{.shutter = shutter_room ? std::max(ambient, -*shutter_room) : ambient};
    levers.both = ambient - levers.shutter;
    levers.power = to.flash - from.flash - levers.both;
    return levers;
}

}  // namespace poquito::light
