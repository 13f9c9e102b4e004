#include "render/sight.hpp"

#include "imaging/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace poquito::render {
namespace {

/// Share of a pixel that the subject covers, and the mean of what is seen of it.
void look_closer(const Scene& scene, const Grid& grid, int x, int y, Fragment& fragment, float& coverage) {
    constexpr int across = 4;
    int met = 0;
    Fragment sum{.depth = 0, .albedo = imaging::Rgba::Zero(), .normal = imaging::Rgba::Zero()};
    for (int j = 0; j < across; ++j)
        for (int i = 0; i < across; ++i) {
            const auto one = scene.subject(grid.place(x + (i + 0.5) / across, y + (j + 0.5) / across), 2 * grid.pitch);
            if (!one) continue;
            ++met;
            sum.depth += one->depth;
            sum.albedo += one->albedo;
            sum.normal += one->normal;
            sum.x += one->x;
            sum.y += one->y;
        }
    coverage = static_cast<float>(met) / (across * across);
    if (met == 0) return;
    fragment.depth = sum.depth / static_cast<float>(met);
    fragment.albedo = sum.albedo / static_cast<float>(met);
    fragment.x = sum.x / static_cast<float>(met);
    fragment.y = sum.y / static_cast<float>(met);
    fragment.normal = sum.normal / std::max(1e-6f, std::sqrt(sum.normal.square().sum()));
}

/// Where the subject ends, or leaps in depth, a pixel is part of each side.
bool is_edge(const Sight& sight, double leap, int x, int y) {
    const Grid& grid = sight.grid;
    const auto here = grid.index(x, y);
    for (const auto& [i, j] : {std::pair(x + 1, y), std::pair(x, y + 1), std::pair(x - 1, y), std::pair(x, y - 1)}) {
        if (i < 0 || j < 0 || i >= grid.width || j >= grid.height) continue;
        const auto there = grid.index(i, j);
        if (sight.coverage[here] != sight.coverage[there]) return true;
        if (sight.coverage[here] > 0 && std::abs(sight.fragments[here].depth - sight.fragments[there].depth) > leap)
            return true;
    }
    return false;
}

void measure(Sight& sight) {
    const Grid& grid = sight.grid;
    PixelBox box{grid.width, grid.height, 0, 0};
    bool any = false;
    for (int y = 0; y < grid.height; ++y)
        for (int x = 0; x < grid.width; ++x) {
            const auto i = grid.index(x, y);
            if (sight.coverage[i] <= 0) continue;
            box = {std::min(box.left, x), std::min(box.top, y), std::max(box.right, x + 1),
                   std::max(box.bottom, y + 1)};
            const double depth = sight.fragments[i].depth;
            if (!any) sight.range = {.nearest = depth, .farthest = depth};
            any = true;
            sight.range.nearest = std::min(sight.range.nearest, depth);
            sight.range.farthest = std::max(sight.range.farthest, depth);
        }
    sight.box = any ? box : PixelBox{};
}

}  // namespace

void look(const Scene& scene, const Grid& grid, Sight& sight) {
    const auto count = static_cast<std::size_t>(grid.width) * static_cast<std::size_t>(grid.height);
    sight.grid = grid;
    sight.fragments.resize(count);
    sight.coverage.assign(count, 0);
    imaging::for_rows(grid.height, [&](int y) {
        for (int x = 0; x < grid.width; ++x)
            if (const auto fragment = scene.subject(grid.place(x + 0.5, y + 0.5), 2 * grid.pitch)) {
                sight.fragments[grid.index(x, y)] = *fragment;
                sight.coverage[grid.index(x, y)] = 1;
            }
    });
    const double leap = std::max(1e-9, (scene.farthest - scene.nearest) / 8);
    std::vector<unsigned char> edge(count, 0);
    imaging::for_rows(grid.height, [&](int y) {
        for (int x = 0; x < grid.width; ++x) edge[grid.index(x, y)] = is_edge(sight, leap, x, y);
    });
    imaging::for_rows(grid.height, [&](int y) {
        for (int x = 0; x < grid.width; ++x) {
            const auto i = grid.index(x, y);
            if (edge[i]) look_closer(scene, grid, x, y, sight.fragments[i], sight.coverage[i]);
        }
    });
    sight.depths.resize(count);
    for (std::size_t i = 0; i < count; ++i) sight.depths[i] = sight.fragments[i].depth;
    measure(sight);
}

namespace {

bool stand_alike(const std::vector<SceneLight>& before, const std::vector<SceneLight>& now) {
    return std::ranges::equal(before, now, [](const SceneLight& a, const SceneLight& b) {
        const bool cast_alike = a.casters == b.casters || (a.casters && b.casters && *a.casters == *b.casters);
        return a.softness == b.softness && a.shadows == b.shadows && a.others == b.others && a.distance == b.distance &&
               cast_alike && (a.towards == b.towards).all();
    });
}
bool give_alike(const std::vector<SceneLight>& before, const std::vector<SceneLight>& now) {
    return std::ranges::equal(before, now, [](const SceneLight& a, const SceneLight& b) {
        return a.amount == b.amount && (a.tint == b.tint).all();
    });
}

}  // namespace

void light_up(const Scene& scene, const Sight& sight, Lights& lights) {
    const auto count = sight.fragments.size();
    const bool stands =
        lights.pixels.size() == count && lights.gloss == scene.gloss && stand_alike(lights.sources, scene.lights);
    if (stands && give_alike(lights.sources, scene.lights)) return;
    lights.sources = scene.lights;
    lights.gloss = scene.gloss;
    lights.pixels.resize(count);
    lights.lit.resize(count * scene.lights.size());
    imaging::for_rows(sight.grid.height, [&](int y) {
        for (int x = 0; x < sight.grid.width; ++x) {
            const auto i = sight.grid.index(x, y);
            const float coverage = sight.coverage[i];
            imaging::Rgba& pixel = lights.pixels[i];
            pixel = {0, 0, 0, coverage};
            if (coverage <= 0) continue;
            LitInColour all;
            for (std::size_t k = 0; k < scene.lights.size(); ++k) {
                Lit& one = lights.lit[k * count + i];
                if (!stands) one = lit_by(scene.lights[k], scene.gloss, sight.fragments[i]);
                all.add(scene.lights[k], one);
            }
            pixel = sent(scene.gloss, sight.fragments[i].albedo, all) * coverage;
            pixel[3] = coverage;
        }
    });
}

void Cells::gather(const Sight& sight, const Lights& lights, int factor) {
    const Grid& grid = sight.grid;
    sight_ = &sight;
    lights_ = &lights;
    factor_ = factor;
    width_ = (grid.width + factor - 1) / factor;
    const int height = (grid.height + factor - 1) / factor;
    const auto count = static_cast<std::size_t>(width_) * static_cast<std::size_t>(height);
    all_.resize(count);
    nearest_.resize(count);
    farthest_.resize(count);
    constexpr float unbounded = std::numeric_limits<float>::infinity();
    imaging::for_rows(height, [&](int y) {
        auto cell = static_cast<std::size_t>(y) * static_cast<std::size_t>(width_);
        const int top = y * factor, bottom = std::min(top + factor, grid.height);
        for (int x = 0; x < width_; ++x, ++cell) {
            const int left = x * factor, right = std::min(left + factor, grid.width);
            imaging::Rgba sum = imaging::Rgba::Zero();
            float nearest = unbounded, farthest = -unbounded;
            for (int j = top; j < bottom; ++j)
                for (auto i = grid.index(left, j); i < grid.index(right, j); ++i) {
                    if (sight.coverage[i] <= 0) continue;
                    sum += lights.pixels[i];
                    nearest = std::min(nearest, sight.depths[i]);
                    farthest = std::max(farthest, sight.depths[i]);
                }
            all_[cell] = sum / static_cast<float>((right - left) * (bottom - top));
            nearest_[cell] = nearest;
            farthest_[cell] = nearest <= farthest ? farthest : unbounded;
        }
    });
}

}  // namespace poquito::render
