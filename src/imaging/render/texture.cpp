#include "imaging/render/texture.hpp"

#include "shoot/scattered.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstdint>

namespace poquito::imaging {
namespace {

/// One sheet of random values that every octave reads from a place of its own; it repeats after so many of its steps.
constexpr int side = 256;
const std::array<float, side * side>& values() {
    static const auto table = [] {
        std::array<float, side * side> made{};
        for (int i = 0; i < side * side; ++i)
            made[static_cast<std::size_t>(i)] = static_cast<float>(2 * shoot::scattered(i % side, i / side, 0) - 1);
        return made;
    }();
    return table;
}

/// Values on whole places, smooth between them.
float noise(double x, double y) {
    const double left = std::floor(x), top = std::floor(y);
    const auto i = static_cast<std::int64_t>(left), j = static_cast<std::int64_t>(top);
    const auto ease = [](float t) { return t * t * (3 - 2 * t); };
    const float fx = ease(static_cast<float>(x - left)), fy = ease(static_cast<float>(y - top));
    const auto at = [&table = values()](std::int64_t column, std::int64_t row) {
        return table[static_cast<std::size_t>((row & (side - 1)) * side + (column & (side - 1)))];
    };
    const float upper = at(i, j) + fx * (at(i + 1, j) - at(i, j));
    const float lower = at(i, j + 1) + fx * (at(i + 1, j + 1) - at(i, j + 1));
    return upper + fy * (lower - upper);
}

}  // namespace

double texture(double x, double y, const Detail& detail) {
    // Each octave weaker than the one before, though not by half: the finest is what shows sharpness.
    constexpr double weaker = 0.88;
    double sum = 0, weight = 1, size = detail.coarsest;
    for (int octave = 0; octave < 24 && size >= detail.finest; ++octave) {
        sum += weight * noise(x / size + 37.3 * octave, y / size + 11.7 * octave);
        size /= 2;
        weight *= weaker;
    }
    return sum * 0.45;
}

double veins(double x, double y, const Detail& detail) {
    constexpr double half_width = 0.05, between = 6;  // of a size; each size so much smaller than the one before
    double strongest = 0;
    double apart = 0;  // so that no two sizes run along one another
    for (double size = detail.coarsest / 2; size * 2 * half_width > detail.finest / 2; size /= between, ++apart) {
        const double off = std::abs(static_cast<double>(noise(x / size - 91.4 * apart, y / size + 53.9 * apart)));
        // The value changes by about 1.5 in a size; the edge is as sharp as the finest detail.
        const double edge = std::max(1.5 * detail.finest / size, 1e-6);
        strongest = std::max(strongest, std::clamp((half_width - off) / edge + 0.5, 0.0, 1.0));
    }
    return strongest;
}

}  // namespace poquito::imaging
