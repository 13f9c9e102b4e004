#include "render/shadow.hpp"

#include "imaging/parallel.hpp"
#include "shoot/form/form.hpp"
#include "shoot/values/lru_cache.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

namespace poquito::render {
namespace {

constexpr float nothing = 1e6f;  // mm behind: no part of the subject

double node(int i, double half) { return (2.0 * i / (Relief::cells - 1) - 1) * half; }

std::size_t index(int i, int j) { return static_cast<std::size_t>(j) * Relief::cells + static_cast<std::size_t>(i); }

/// Bilinear on the net of a relief.
float between(const Relief& relief, const std::vector<float>& values, double x, double y) {
    const auto grid = [](double value, double half) {
        return std::clamp((value / half + 1) / 2 * (Relief::cells - 1), 0.0, Relief::cells - 1.001);
    };
    const double u = grid(x, relief.half_width), v = grid(y, relief.half_height);
    const int i = static_cast<int>(u), j = static_cast<int>(v);
    const auto fx = static_cast<float>(u - i), fy = static_cast<float>(v - j);
    const float low = values[index(i, j)] * (1 - fx) + values[index(i + 1, j)] * fx;
    const float high = values[index(i, j + 1)] * (1 - fx) + values[index(i + 1, j + 1)] * fx;
    return low * (1 - fy) + high * fy;
}

std::shared_ptr<const Relief> measured(const shoot::Subject& subject) {
    const shoot::Surface surface(subject);
    auto relief = std::make_shared<Relief>();
    relief->half_width = surface.extent().width / 2;
    relief->half_height = surface.extent().height / 2;
    relief->z.assign(static_cast<std::size_t>(Relief::cells) * Relief::cells, nothing);
    imaging::for_rows(Relief::cells, [&](int j) {
        for (int i = 0; i < Relief::cells; ++i) {
            const auto hit = surface.hit({.x = node(i, relief->half_width), .y = node(j, relief->half_height)});
            if (hit) relief->z[index(i, j)] = static_cast<float>(hit->z);
        }
    });
    return relief;
}

}  // namespace

float Relief::at(double x, double y) const { return between(*this, z, x, y); }
/// Between those of the four nearest nodes that have a horizon: beside the form there is none.
float Shadows::at(double x, double y) const {
    if (horizons.empty()) return 1;
    const auto grid = [](double value, double half_size) {
        return std::clamp((value / half_size + 1) / 2 * (Relief::cells - 1), 0.0, Relief::cells - 1.001);
    };
    const double u = grid(x, relief->half_width), v = grid(y, relief->half_height);
    const int i = static_cast<int>(u), j = static_cast<int>(v);
    const auto fx = static_cast<float>(u - i), fy = static_cast<float>(v - j);
    float sum = 0, weight = 0;
    for (const int di : {0, 1})
        for (const int dj : {0, 1}) {
            const auto node_index = index(i + di, j + dj);
            if (relief->z[node_index] >= nothing) continue;
            const float share = (di ? fx : 1 - fx) * (dj ? fy : 1 - fy);
            sum += share * horizons[node_index];
            weight += share;
        }
    if (!(weight > 0)) return 1;
    const float share = std::clamp((height - std::atan(sum / weight)) / (2 * half) + 0.5f, 0.0f, 1.0f);
    return share * share * (3 - 2 * share);
}

namespace {

Shadows shadows_on(std::shared_ptr<const Relief> relief, const imaging::Rgba& towards, double softness);

}  // namespace

std::shared_ptr<const Relief> relief_of(const shoot::Subject& subject) {
    static shoot::LruCache<shoot::Subject, Relief> kept;
    const auto shape = shoot::shape_of(subject);
    return kept.of(shape, [&] { return measured(shape); });
}

std::shared_ptr<const Shadows> cast_shadows(const std::shared_ptr<const Relief>& relief, const imaging::Rgba& towards,
                                            double softness) {
    static shoot::LruCache<std::tuple<std::shared_ptr<const Relief>, float, float, float, double>, Shadows> kept;
    return kept.of({relief, towards[0], towards[1], towards[2], softness},
                   [&] { return std::make_shared<const Shadows>(shadows_on(relief, towards, softness)); });
}

namespace {

Shadows shadows_on(std::shared_ptr<const Relief> relief, const imaging::Rgba& towards, double softness) {
    constexpr double least_half = 0.02;  // rad: a point's shadow is as soft as the net is coarse
    const double across = std::hypot(towards.x(), towards.y());
    const double dx = across > 1e-6 ? towards.x() / across : 0, dy = across > 1e-6 ? towards.y() / across : 0;
    Shadows shadows{.relief = std::move(relief)};
    shadows.height = static_cast<float>(std::atan2(-towards.z(), across));
    shadows.half = static_cast<float>(std::max(std::asin(std::clamp(softness, 0.0, 1.0)), least_half));
    const Relief& ground = *shadows.relief;
    if (across <= 1e-6) return shadows;  // from the camera: nothing it shows is in shadow
    // A cell of the net at a time, whatever the subject's shape.
    const double cell =
        2.0 / (Relief::cells - 1) / std::max(std::abs(dx) / ground.half_width, std::abs(dy) / ground.half_height);
    constexpr float open = -20;  // beside the form nothing stands in the way of what is not quite behind
    shadows.horizons.assign(ground.z.size(), open);
    imaging::for_rows(Relief::cells, [&](int j) {
        for (int i = 0; i < Relief::cells; ++i) {
            const float z = ground.z[index(i, j)];
            if (z >= nothing) continue;
            const double x = node(i, ground.half_width), y = node(j, ground.half_height);
            double steepest = -1e9;
            for (double way = cell;
                 std::abs(x + way * dx) <= ground.half_width && std::abs(y + way * dy) <= ground.half_height;
                 way += cell)
                steepest = std::max(steepest, (z - ground.at(x + way * dx, y + way * dy)) / way);
            shadows.horizons[index(i, j)] = static_cast<float>(std::max(steepest, double{open}));
        }
    });
    return shadows;
}

}  // namespace

}  // namespace poquito::render
