#pragma once

#include "imaging/raster.hpp"

#include <array>
#include <vector>

/// The soft shadows that things throw on one another and on the table: each taken as the ellipsoid in its box. mm by
/// the camera's axes from the subject's centre: x right, y up, z away from the camera.
namespace poquito::render {

struct Caster {
    std::array<float, 3> middle = {0, 0, 0};
    std::array<float, 3> radius = {1, 1, 1};  // across, up and behind, of the thing itself
    float cosine = 1, sine = 0;               // of its tilt, top away from the camera
    bool casts = true;                        // false: it lies flat, or is not there

    bool operator==(const Caster&) const = default;
};

/// Those of a scene, by their fragments' `thing`; `focus` is where the plane of focus lies behind the subject's centre.
struct Casters {
    std::vector<Caster> things;
    float focus = 0;

    bool operator==(const Casters&) const = default;
};

/// Where from a source's light comes, of length 1, and the tangent of half the angle that it is wide.
struct Beam {
    imaging::Rgba towards = {0, 0, -1, 0};
    float spread = 0;
};
/// What a place sees of the source past one thing, 0 to 1.
float seen_past(const Caster& caster, const imaging::Rgba& place, const Beam& beam);
/// Past all of them but the one that it is on itself.
float seen_past(const Casters& casters, std::size_t own, const imaging::Rgba& place, const Beam& beam);

}  // namespace poquito::render
