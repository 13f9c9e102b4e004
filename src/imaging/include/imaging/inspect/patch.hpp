#pragma once

#include "imaging/inspect/rgb_picture.hpp"
#include "whatif/grey_patch.hpp"

/// What an area of a finished picture holds.
namespace poquito::imaging {

struct Area {
    int x = 0;
    int y = 0;
    int width = 0;
    int height = 0;
};

/// Mean of the light the numbers stand for (sRGB undone, IEC 61966-2-1; luminance weights of the same), the share with
/// a channel at its end and the share at zero. The area has pixels and lies in the picture. A camera's own tone curve
/// differs from sRGB in the lights and shadows: mid grey is where it is surest.
whatif::PatchReading read_patch(const RgbPicture& picture, const Area& area);

}  // namespace poquito::imaging
