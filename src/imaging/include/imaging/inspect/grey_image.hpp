#pragma once

#include <cstddef>
#include <vector>

namespace poquito::imaging {

/// Brightness in rows from the top, 0 black to 1 white. Places are in pixels from the middle of the top left one.
struct GreyImage {
    int width = 0;
    int height = 0;
    std::vector<float> pixels;

    float at(int x, int y) const {
        return pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
    }
};

struct Place {
    double x = 0;
    double y = 0;

    bool operator==(const Place&) const = default;
};

}  // namespace poquito::imaging
