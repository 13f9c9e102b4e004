#pragma once

#include "imaging/parallel.hpp"
#include "imaging/render/scene.hpp"

#include <algorithm>
#include <vector>

namespace poquito::imaging {

/// Pixels of a rendering and where they lie on the sensor.
struct Grid {
    int width = 0;
    int height = 0;
    double pitch = 0.01;  // mm at the sensor a pixel
    Place centre;         // mm at the sensor

    bool operator==(const Grid&) const = default;

    /// `x`, `y` in pixels from the left and top edges.
    Place place(double x, double y) const {
        return {.x = centre.x + (x - width / 2.0) * pitch, .y = centre.y + (height / 2.0 - y) * pitch};
    }
    Place pixel(Place place) const {
        return {.x = (place.x - centre.x) / pitch + width / 2.0, .y = height / 2.0 - (place.y - centre.y) / pitch};
    }
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
};

struct DepthRange {
    double nearest = 0;  // mm behind the plane of focus
    double farthest = 0;
};

struct PixelBox {
    int left = 0, top = 0, right = 0, bottom = 0;  // the last two just outside
    bool empty() const { return left >= right || top >= bottom; }
};

/// What the rays through the pixels of a grid meet: all that stays when only blur and light change.
struct Sight {
    Grid grid;
    std::vector<Fragment> fragments;
    std::vector<float> coverage;  // share of each pixel that the subject takes
    std::vector<float> depths;    // of the fragments, by themselves: every sheet asks for all of them
    PixelBox box;                 // about all that is covered
    DepthRange range;             // of what is covered

    /// One sheet of the subject inside `part`, as it is without blur: what `share` gives of each depth; each pixel the
    /// mean of `factor` x `factor` of the grid's.
    template <typename Share>
    void fill_sheet(Raster& out, const PixelBox& part, int factor, const std::vector<Rgba>& lights,
                    const Share& share) const {
        out.reset((part.right - part.left + factor - 1) / factor, (part.bottom - part.top + factor - 1) / factor);
        for_rows(out.height, [&](int y) {
            const int top = part.top + y * factor, bottom = std::min(top + factor, part.bottom);
            for (int x = 0; x < out.width; ++x) {
                const int left = part.left + x * factor, right = std::min(left + factor, part.right);
                Rgba sum = Rgba::Zero();
                bool any = false;
                for (int j = top; j < bottom; ++j)
                    for (auto i = grid.index(left, j); i < grid.index(right, j); ++i) {
                        if (coverage[i] <= 0) continue;
                        const float alpha = coverage[i] * share(depths[i]);
                        if (alpha <= 0) continue;
                        any = true;
                        const Rgba light = lights[i] * alpha;
                        sum += Rgba(light[0], light[1], light[2], alpha);
                    }
                if (any) out.at(x, y) = sum / static_cast<float>((right - left) * (bottom - top));
            }
        });
    }
};
void look(const Scene& scene, const Grid& grid, Sight& sight);

/// What each fragment sends to the camera.
void light_up(const Scene& scene, const Sight& sight, std::vector<Rgba>& lights);

}  // namespace poquito::imaging
