#pragma once

#include <cstddef>
#include <cstdint>

namespace poquito::imaging {

/// Eight bits a channel, red, green, blue, rows from the top. Not owned.
struct RgbPicture {
    const std::uint8_t* bytes = nullptr;
    int width = 0;
    int height = 0;
    std::size_t stride = 0;  // bytes from one row to the next
};

}  // namespace poquito::imaging
