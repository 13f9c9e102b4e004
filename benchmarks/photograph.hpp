#pragma once

#include "storage/frame_file.hpp"

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <random>
#include <vector>

namespace poquito::bench {

/// One of a stack of `frames`, 24 megapixels: a slope of texture, sharp where the frame is focused: waves of random
/// length and noise, less of it the further off.
inline storage::FramePicture photograph(int number, int frames) {
    constexpr int width = 6000, height = 4000;
    storage::FramePicture picture{.width = width, .height = height, .rgb = {}};
    picture.rgb.resize(std::size_t{3} * width * height);
    std::vector<float> texture(1 << 16);
    std::minstd_rand random(7);
    for (float& value : texture) value = static_cast<float>(random() % 2048) / 1024 - 1;
    std::minstd_rand grain(static_cast<unsigned>(number) + 1);
    for (int y = 0; y < height; ++y) {
        const float off = std::abs(static_cast<float>(y * frames) / height - static_cast<float>(number));
        const float sharp = 60 / (1 + off * off);
        auto* to = picture.rgb.data() + std::size_t{3} * static_cast<std::size_t>(y) * width;
        for (int x = 0; x < width; ++x, to += 3) {
            const auto at = static_cast<std::size_t>((x / 3 * 131 + y / 3 * 197) & 0xffff);
            const float wide = 30 * std::sin(static_cast<float>(x) / 90) * std::cos(static_cast<float>(y) / 70);
            const float value = 110 + wide + sharp * texture[at] + static_cast<float>(grain() % 5) - 2;
            const auto code = static_cast<unsigned char>(std::clamp(value, 0.0f, 255.0f));
            to[0] = code, to[1] = code, to[2] = static_cast<unsigned char>(code - code / 8);
        }
    }
    return picture;
}

}  // namespace poquito::bench
