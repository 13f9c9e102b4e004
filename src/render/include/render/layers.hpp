#pragma once

#include "render/sight.hpp"

#include <algorithm>
#include <vector>

/// A subject with depth, taken apart into layers that each blur as one. Between two neighbouring layers the blur of a
/// point is theirs in proportion. A layer holds all that is as near as itself or nearer: what the nearer hide is there,
/// and a blurred edge shows more of the subject behind it, not a hole.
namespace poquito::render {

struct Layer {
    double depth = 0;     // mm behind the plane of focus
    double diameter = 0;  // of the blur disc there, mm at the sensor
};

/// From the farthest to the nearest. Neighbours differ by at most `resolution` mm of disc, or by two fifths where
/// it is wider than a few of those.
std::vector<Layer> layers_of(const LensBlur& lens, const DepthRange& range, double resolution);

/// Whether a depth is wholly in the next nearer layer, so that it shows nothing of this one.
inline bool is_hidden(const std::vector<Layer>& layers, std::size_t index, float depth) {
    return index + 1 < layers.size() && depth <= layers[index + 1].depth;
}

/// The share of a point that layer `index` holds.
inline float share_in(const std::vector<Layer>& layers, std::size_t index, float depth) {
    const double here = layers[index].depth;
    if (index == 0 || depth <= here) return 1;
    const double behind = layers[index - 1].depth;
    return static_cast<float>(std::clamp((behind - depth) / (behind - here), 0.0, 1.0));
}

}  // namespace poquito::render
