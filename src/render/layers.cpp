#include "render/layers.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::render {
namespace {

/// Depths where the disc is so wide, from the plane of focus outwards, as far as the subject goes on that side.
void add_side(const LensBlur& lens, const DepthRange& range, double resolution, bool behind,
              std::vector<double>& depths) {
    const double end = behind ? range.farthest : -range.nearest;
    const double begin = std::max(0.0, behind ? range.nearest : -range.farthest);
    if (end <= 0) return;
    constexpr double growth = 1.4;
    constexpr int most = 64;
    double disc = 0;
    for (int i = 0; i < most; ++i) {
        disc = std::max(disc + resolution, disc * growth);
        const auto depth = depth_of_disc(lens, disc, behind);
        if (!depth || std::abs(*depth) >= end) break;
        if (std::abs(*depth) > begin) depths.push_back(*depth);
    }
}

}  // namespace

std::vector<Layer> layers_of(const LensBlur& lens, const DepthRange& range, double resolution) {
    std::vector<double> depths = {range.nearest, range.farthest};
    if (range.nearest < 0 && range.farthest > 0) depths.push_back(0);
    add_side(lens, range, resolution, true, depths);
    add_side(lens, range, resolution, false, depths);
    std::ranges::sort(depths, std::greater());
    depths.erase(std::unique(depths.begin(), depths.end()), depths.end());
    std::vector<Layer> layers;
    for (const double depth : depths) layers.push_back({.depth = depth, .diameter = blur_disc(lens, depth)});
    return layers;
}

}  // namespace poquito::render
