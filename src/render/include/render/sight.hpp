#pragma once

#include "imaging/parallel.hpp"
#include "render/scene.hpp"

#include <algorithm>
#include <vector>

namespace poquito::render {

/// Pixels of a rendering and where they lie on the sensor.
struct Grid {
    int width = 0;
    int height = 0;
    double pitch = 0.01;    // mm at the sensor a pixel
    imaging::Place centre;  // mm at the sensor

    bool operator==(const Grid&) const = default;

    /// `x`, `y` in pixels from the left and top edges.
    imaging::Place place(double x, double y) const {
        return {.x = centre.x + (x - width / 2.0) * pitch, .y = centre.y + (height / 2.0 - y) * pitch};
    }
    imaging::Place pixel(imaging::Place place) const {
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
};
void look(const Scene& scene, const Grid& grid, Sight& sight);

/// What the fragments of a sight send to the camera. While the sources stay where they are and only give more or less,
/// as with the stop, what each of them lights is not worked out anew.
struct Lights {
    std::vector<imaging::Rgba> pixels;  // light and coverage, both times the coverage
    std::vector<SceneLight> sources;    // that light them
    float gloss = 0;
    std::vector<Lit> lit;  // by each of them, all of the first one's before those of the next
};
/// `sight` is the same as the last time, or new and `lights` empty.
void light_up(const Scene& scene, const Sight& sight, Lights& lights);

/// A lit sight, so many of its pixels to one cell each way, ready to be taken apart into sheets: most cells lie wholly
/// in a sheet or not at all.
class Cells {
  public:
    /// Refers to both as long as it is used.
    void gather(const Sight& sight, const Lights& lights, int factor);

    int factor() const { return factor_; }

    /// One sheet inside `part` (pixels of the grid; its left and top edges whole cells), as it is without blur: what
    /// `share` gives of each depth, which never is more of a greater depth.
    template <typename Share>
    void fill_layer(imaging::Raster& out, const PixelBox& part, const Share& share) const {
        const int left = part.left / factor_, top = part.top / factor_;
        out.resize((part.right + factor_ - 1) / factor_ - left, (part.bottom + factor_ - 1) / factor_ - top);
        imaging::for_rows(out.height, [&](int y) {
            auto cell =
                static_cast<std::size_t>(top + y) * static_cast<std::size_t>(width_) + static_cast<std::size_t>(left);
            imaging::Rgba* to = out.row(y);
            for (int x = 0; x < out.width; ++x, ++cell) {
                const float whole = share(farthest_[cell]);
                if (whole == 1)
                    to[x] = all_[cell];
                else if (nearest_[cell] == farthest_[cell])
                    to[x] = whole * all_[cell];
                else
                    to[x] = share(nearest_[cell]) > 0 ? part_of(left + x, top + y, share)
                                                      : imaging::Rgba(imaging::Rgba::Zero());
            }
        });
    }

  private:
    template <typename Share>
    imaging::Rgba part_of(int x, int y, const Share& share) const {
        const Grid& grid = sight_->grid;
        const int right = std::min((x + 1) * factor_, grid.width), bottom = std::min((y + 1) * factor_, grid.height);
        imaging::Rgba sum = imaging::Rgba::Zero();
        for (int j = y * factor_; j < bottom; ++j)
            for (auto i = grid.index(x * factor_, j); i < grid.index(right, j); ++i)
                if (sight_->coverage[i] > 0) sum += share(sight_->depths[i]) * lights_->pixels[i];
        return sum / static_cast<float>((right - x * factor_) * (bottom - y * factor_));
    }

    const Sight* sight_ = nullptr;
    const Lights* lights_ = nullptr;
    int factor_ = 0;
    int width_ = 0;                          // cells
    std::vector<imaging::Rgba> all_;         // means of the lights
    std::vector<float> nearest_, farthest_;  // depths of what is covered; where nothing is, both are without bound
};

}  // namespace poquito::render
