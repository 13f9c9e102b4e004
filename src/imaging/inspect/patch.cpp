#include "imaging/inspect/patch.hpp"

#include "imaging/colour.hpp"

#include <algorithm>
#include <array>

namespace poquito::imaging {

whatif::PatchReading read_patch(const RgbPicture& picture, const Area& area) {
    static const std::array<double, 256> linear = [] {
        std::array<double, 256> table{};
        for (std::size_t i = 0; i < table.size(); ++i) table[i] = to_linear(static_cast<double>(i) / 255);
        return table;
    }();
    double sum = 0, clipped = 0, black = 0;
    for (int y = area.y; y < area.y + area.height; ++y) {
        const std::uint8_t* pixel =
            picture.bytes + static_cast<std::size_t>(y) * picture.stride + static_cast<std::size_t>(area.x) * 3;
        for (int x = 0; x < area.width; ++x, pixel += 3) {
            sum += luminance({.red = linear[pixel[0]], .green = linear[pixel[1]], .blue = linear[pixel[2]]});
            const std::uint8_t most = std::max({pixel[0], pixel[1], pixel[2]});
            clipped += most == 255;
            black += most == 0;
        }
    }
    const double count = static_cast<double>(area.width) * area.height;
    return {.mean = sum / count, .clipped = clipped / count, .black = black / count};
}

}  // namespace poquito::imaging
