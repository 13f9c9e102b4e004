#pragma once

#include "gear/kit.hpp"
#include "support/random.hpp"

#include <string>

namespace poquito::test {

/// A bag someone could own: all kinds of gear, few of each.
inline gear::Kit random_bag(Random& random) {
    gear::Kit kit;
    const auto id = [](const char* stem, int i) { return std::string(stem) + std::to_string(i); };
    for (int i = 0; i < random.whole(1, 2); ++i)
        kit.cameras.push_back({.id = id("body", i),
                               .name = id("Body ", i),
                               .sensor = {.width = random.between(13, 44), .height = random.between(9, 33)},
                               .flange = random.between(16, 46)});
    for (int i = 0; i < random.whole(1, 3); ++i) {
        gear::Lens lens{.id = id("lens", i), .name = id("Lens ", i), .filter_thread = 49.0 + 3 * random.whole(0, 6)};
        auto& o = lens.optics;
        o.focal_length = random.log_between(20, 200);
        o.max_magnification = random.log_between(0.1, 2);
        o.focusing = random.coin() ? optics::Focusing::unit : optics::Focusing::internal;
        const double shrink = o.focusing == optics::Focusing::unit ? 1 : random.between(0.65, 1);
        o.hiatus = o.focusing == optics::Focusing::unit ? 0 : random.between(-10, 20);
        o.closest_focus = shrink * o.focal_length * (2 + o.max_magnification + 1 / o.max_magnification) + o.hiatus;
        o.pupil_magnification = random.between(0.6, 1.8);
        o.length = random.between(0.5, 1.3) * o.focal_length;
        lens.contacts = random.coin(0.8);
        lens.autofocus = random.coin(0.8);
        lens.aperture_ring = random.coin(0.3);
        if (random.coin(0.3))
            lens.zoom = {{.focal_length = o.focal_length,
                          .max_aperture = 3.5,
                          .closest_focus = o.closest_focus,
                          .max_magnification = o.max_magnification,
                          .length = o.length},
                         {.focal_length = o.focal_length * 2,
                          .max_aperture = 5.6,
                          .closest_focus = o.closest_focus * 2,
                          .max_magnification = o.max_magnification,
                          .length = o.length + 20}};
        if (random.coin(0.2) && lens.zoom.empty())
            lens.calibrations = {{.ring = random.between(0.4, 0.9), .value = o.max_magnification * 0.55}};
        kit.lenses.push_back(lens);
    }
    for (int i = 0; i < random.whole(0, 3); ++i)
        kit.tubes.push_back(
            {.id = id("tube", i), .name = id("Tube ", i), .length = random.between(8, 40), .contacts = random.coin()});
    for (int i = 0; i < random.whole(0, 3); ++i)
        kit.closeup_lenses.push_back({.id = id("closeup", i),
                                      .name = id("Close-up ", i),
                                      .power_dpt = random.between(1, 10),
                                      .thread = 58,
                                      .achromat = random.coin()});
    for (int i = 0; i < random.whole(0, 2); ++i)
        kit.teleconverters.push_back({.id = id("converter", i),
                                      .name = id("Converter ", i),
                                      .optics = {.factor = random.between(1.2, 2.2), .length = random.between(15, 50)},
                                      .contacts = random.coin(0.8)});
    if (random.coin()) kit.bellows = {{.id = "bellows", .name = "Bellows", .least = 40, .greatest = 150}};
    if (random.coin()) kit.reversing_rings = {{.id = "rev", .name = "Reversing ring", .length = 6, .thread = 52}};
    if (random.coin()) kit.coupling_rings = {{.id = "pair", .name = "Coupling ring", .length = 3}};
    return kit;
}

}  // namespace poquito::test
