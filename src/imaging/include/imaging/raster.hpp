#pragma once

#include <Eigen/Core>

#include <cstddef>
#include <vector>

namespace poquito::imaging {

/// Linear light with coverage: red, green and blue already multiplied by the fourth number, the share of the pixel that
/// is covered. 0.18 is a mid grey in a correct exposure.
using Rgba = Eigen::Array4f;

inline Rgba opaque(const Rgba& light) { return {light[0], light[1], light[2], 1}; }

/// Rows from the top.
struct Raster {
    int width = 0;
    int height = 0;
    std::vector<Rgba> pixels;

    Raster() = default;
    Raster(int columns, int rows)
        : width(columns),
          height(rows),
          pixels(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows), Rgba::Zero()) {}

    /// Black and empty, in the memory it has where that is enough.
    void reset(int columns, int rows) {
        width = columns;
        height = rows;
        pixels.assign(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows), Rgba::Zero());
    }

    /// With whatever the memory holds: for who writes every pixel.
    void resize(int columns, int rows) {
        width = columns;
        height = rows;
        pixels.resize(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows));
    }

    Rgba* row(int y) { return pixels.data() + static_cast<std::ptrdiff_t>(y) * width; }
    const Rgba* row(int y) const { return pixels.data() + static_cast<std::ptrdiff_t>(y) * width; }
    Rgba& at(int x, int y) { return row(y)[x]; }
    const Rgba& at(int x, int y) const { return row(y)[x]; }
};

}  // namespace poquito::imaging
