#pragma once

/// A subject in liquid behind a flat wall: by refraction it appears nearer than it is. mm. Source: Snell's law, near
/// the axis (any optics text); the indices by common handbooks, from memory: water 1.333 at 20 degrees and 589 nm,
/// soda-lime glass 1.52, acrylic 1.49.
namespace poquito::optics {

struct Tank {
    double water = 50;  // from the inner face of the wall to the subject's centre
    double wall = 4;    // thickness
    double water_index = 1.333;
    double wall_index = 1.52;

    bool operator==(const Tank&) const = default;
};

/// By how much the subject appears nearer, seen from the air: what the lens stands farther off for the same size.
double path_shortened(const Tank& tank);

/// What is `depth` deep to a lens in air is so deep in the water.
double depth_in_water(const Tank& tank, double depth);

inline constexpr const char* path_shortened_formula = "d * (1 - 1 / n) + w * (1 - 1 / n_w)";

}  // namespace poquito::optics
