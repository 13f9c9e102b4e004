#pragma once

#include <cstdint>

namespace poquito::text {

/// A colour as a screen shows it: IEC 61966-2-1 (sRGB).
struct Colour {
    std::uint8_t red = 0;
    std::uint8_t green = 0;
    std::uint8_t blue = 0;

    bool operator==(const Colour&) const = default;
};

}  // namespace poquito::text
