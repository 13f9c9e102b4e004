#pragma once

#include "plan/grey_patch.hpp"

#include <cstddef>
#include <cstdint>

/// What an area of a finished picture holds.
namespace poquito::imaging {

/// Eight bits a channel, red, green, blue, rows from the top. Not owned.
struct RgbPicture {
    const std::uint8_t* bytes = nullptr;
    int width = 0;
    int height = 0;
    std::size_t stride = 0;  // bytes from one row to the next
};
struct Area {
    int x = 0;
    int y = 0;
    int width = 0;
    int height = 0;
};

/// Mean of the light the numbers stand for (sRGB undone, IEC 61966-2-1; luminance weights of the same), the share with
/// a channel at its end and the share at zero. The area has pixels and lies in the picture. A camera's own tone curve
/// differs from sRGB in the lights and shadows: mid grey is where it is surest.
plan::PatchReading read_patch(const RgbPicture& picture, const Area& area);

}  // namespace poquito::imaging
