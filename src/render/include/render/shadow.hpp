#pragma once

#include "imaging/raster.hpp"
#include "shoot/shoot.hpp"

#include <memory>
#include <vector>

/// The subject's own soft shadows. mm from the middle of the depth it presents: x right, y up, z away from the camera.
namespace poquito::render {

/// The visible surface as heights on a square net over its extent.
struct Relief {
    static constexpr int cells = 64;
    double half_width = 1;
    double half_height = 1;
    std::vector<float> z;  // rows from the bottom; far behind where there is nothing

    /// Between the four nearest nodes; places beside the net count as its edge.
    float at(double x, double y) const;
};

/// Of a subject as it is turned. Remembers the last few: forms are expensive, lights change often.
std::shared_ptr<const Relief> relief_of(const shoot::Subject& subject);

/// How much of a round source each place sees past the rest of the subject, 0 to 1: the source's height over the
/// horizon that the relief makes towards it, against the source's own width. Slopes of horizons are kept, not shares:
/// they change evenly from node to node where the edge of light does not.
struct Shadows {
    std::shared_ptr<const Relief> relief;
    std::vector<float> horizons;  // slopes over the plane that faces the camera; empty: nothing is in shadow
    float height = 0;             // rad, of the source
    float half = 0;               // rad, half the angle it is wide

    float at(double x, double y) const;
};
/// `towards` of length 1, z away from the camera; `softness` is the sine of half the angle the source is wide.
/// Remembers the last few, as reliefs.
std::shared_ptr<const Shadows> cast_shadows(const std::shared_ptr<const Relief>& relief, const imaging::Rgba& towards,
                                            double softness);

}  // namespace poquito::render
