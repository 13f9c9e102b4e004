#pragma once

#include "optics/train.hpp"
#include "support/random.hpp"

namespace poquito::test {

/// A lens a maker could have built: closest focus leaves room for the principal planes.
inline optics::Lens random_lens(Random& random) {
    optics::Lens lens;
    lens.focal_length = random.log_between(20, 200);
    lens.max_magnification = random.log_between(0.1, 2);
    lens.focusing = random.coin() ? optics::Focusing::unit : optics::Focusing::internal;
    const double sum = 2 + lens.max_magnification + 1 / lens.max_magnification;
    const double hiatus = random.between(-10, 20);
    const double closest_focal_length =
        lens.focusing == optics::Focusing::unit ? lens.focal_length : lens.focal_length * random.between(0.65, 1);
    lens.closest_focus = closest_focal_length * sum + hiatus;
    lens.hiatus = hiatus;
    lens.pupil_magnification = random.between(0.6, 1.8);
    lens.length = random.between(0.5, 1.3) * lens.focal_length;
    lens.front_diameter = lens.focal_length / 2;
    if (random.coin(0.3)) lens.closest_working_f_number = lens.max_aperture * random.between(1.1, 2.2);
    return lens;
}

/// A forward lens with tubes in front of the converter: what the closed forms of MODEL 1 are about.
inline optics::Train random_train(Random& random) {
    optics::Train train{.lens = random_lens(random), .flange = random.between(15, 47)};
    if (random.coin()) train.tubes = random.between(5, 120);
    if (random.coin()) train.closeup_power = random.between(0.5, 10) / 1000;
    if (random.coin(0.3))
        train.converter = optics::Converter{.factor = random.between(1.2, 2), .length = random.between(10, 50)};
    return train;
}

/// Everything a train can be: reversed, coupled, tubes on both sides of the converter, readings, a foreign mount.
inline optics::Train random_any_train(Random& random) {
    optics::Train train = random_train(random);
    if (train.converter && random.coin()) train.rear_tubes = random.between(5, 60);
    if (random.coin(0.3)) train.lens.flange = random.between(15, 60);
    if (random.coin(0.3)) {
        const double at = random.between(0.2, 0.9);
        train.lens.readings = {
            {.ring = at, .magnification = at * train.lens.max_magnification * random.between(0.9, 1.1)}};
        if (random.coin())
            train.lens.readings.push_back(
                {.ring = 1, .magnification = train.lens.max_magnification * random.between(0.97, 1.03)});
    }
    if (random.coin(0.3)) {
        train.facing = optics::Facing::reversed;
        train.reversing_ring = random.between(2, 12);
        train.closeup_power = 0;
    } else if (random.coin(0.4)) {
        train.front_lens = optics::FrontLens{.lens = random_lens(random),
                                             .ring = random.coin() ? 0 : random.between(0, 1),
                                             .f_number = random.log_between(1.4, 8),
                                             .coupling = random.between(1, 8),
                                             .own_flange = random.between(15, 47)};
    }
    return train;
}

}  // namespace poquito::test
