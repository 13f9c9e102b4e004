#include "imaging/inspect/composite.hpp"

#include "imaging/parallel.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>

namespace poquito::imaging {
namespace {

/// Between the four pixels about a place; the edge goes on outside.
void add_between(const RgbPicture& picture, double x, double y, float share, std::array<float, 3>& sum) {
    x = std::clamp(x, 0.0, picture.width - 1.001);
    y = std::clamp(y, 0.0, picture.height - 1.001);
    const int left = static_cast<int>(x), top = static_cast<int>(y);
    const auto across = static_cast<float>(x - left), down = static_cast<float>(y - top);
    const std::uint8_t* upper = picture.bytes + static_cast<std::size_t>(top) * picture.stride +
                                std::size_t{3} * static_cast<std::size_t>(left);
    const std::uint8_t* lower = upper + picture.stride;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto of = [c](const std::uint8_t* row, float part) {
            return static_cast<float>(row[c]) + part * (static_cast<float>(row[c + 3]) - static_cast<float>(row[c]));
        };
        const float above = of(upper, across);
        sum[c] += share * (above + down * (of(lower, across) - above));
    }
}

double between_tiles(const CellMap& map, double column, double row) {
    column = std::clamp(column, 0.0, map.columns - 1.0);
    row = std::clamp(row, 0.0, map.rows - 1.0);
    const int left = std::min(static_cast<int>(column), std::max(0, map.columns - 2));
    const int top = std::min(static_cast<int>(row), std::max(0, map.rows - 2));
    const int right = std::min(left + 1, map.columns - 1), bottom = std::min(top + 1, map.rows - 1);
    const auto mix = [](float from, float to, double share) {
        return static_cast<double>(from) + share * static_cast<double>(to - from);
    };
    const double above = mix(map.at(left, top), map.at(right, top), column - left);
    const double below = mix(map.at(left, bottom), map.at(right, bottom), column - left);
    return above + (row - top) * (below - above);
}

}  // namespace

CellMap filled(CellMap map, int tiles) {
    if (std::ranges::all_of(map.values, [](float value) { return std::isnan(value); })) return map;
    for (bool holes = true; holes && tiles-- > 0;) {
        holes = false;
        const CellMap before = map;
        for (int y = 0; y < map.rows; ++y)
            for (int x = 0; x < map.columns; ++x) {
                if (!std::isnan(before.at(x, y))) continue;
                float sum = 0;
                int count = 0;
                for (int row = std::max(0, y - 1); row <= std::min(map.rows - 1, y + 1); ++row)
                    for (int column = std::max(0, x - 1); column <= std::min(map.columns - 1, x + 1); ++column)
                        if (const float value = before.at(column, row); !std::isnan(value)) sum += value, ++count;
                if (count > 0)
                    map.at(x, y) = sum / static_cast<float>(count);
                else
                    holes = true;
            }
    }
    return map;
}

std::vector<std::uint8_t> composite(const std::vector<CompositeFrame>& frames, const CellMap& depths, double tile,
                                    const std::function<bool()>& go_on) {
    const CellMap depth = filled(depths);
    if (frames.empty() || depth.empty() || std::isnan(depth.values.front())) return {};
    const int width = frames.front().picture.width, height = frames.front().picture.height;
    if (width < 2 || height < 2) return {};
    std::vector<std::uint8_t> out(std::size_t{3} * static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    std::atomic<bool> ended = false;
    for_rows(height, [&](int y) {
        if (ended) return;
        if (go_on && y % 32 == 0 && !go_on()) ended = true;
        auto* to = out.data() + std::size_t{3} * static_cast<std::size_t>(y) * static_cast<std::size_t>(width);
        for (int x = 0; x < width; ++x) {
            const double at = between_tiles(depth, (x + 0.5) / tile - 0.5, (y + 0.5) / tile - 0.5);
            const auto behind = std::ranges::lower_bound(frames, at, {}, &CompositeFrame::plane);
            const auto far = static_cast<std::size_t>(
                std::min<std::ptrdiff_t>(behind - frames.begin(), static_cast<std::ptrdiff_t>(frames.size()) - 1));
            const std::size_t near = behind == frames.begin() || behind == frames.end() ? far : far - 1;
            const double way = frames[far].plane - frames[near].plane;
            const double share = way > 0 ? std::clamp((at - frames[near].plane) / way, 0.0, 1.0) : 1;
            const Place place{.x = x - (width - 1) / 2.0, .y = y - (height - 1) / 2.0};
            std::array<float, 3> sum = {};
            const auto add = [&](const CompositeFrame& frame, double part) {
                if (part <= 0) return;
                const Place there = frame.to_frame(place);
                add_between(frame.picture, there.x + (width - 1) / 2.0, there.y + (height - 1) / 2.0,
                            static_cast<float>(part), sum);
            };
            add(frames[near], 1 - share);
            add(frames[far], share);
            for (const float value : sum)
                *to++ = static_cast<std::uint8_t>(std::lround(std::clamp(value, 0.0f, 255.0f)));
        }
    });
    if (ended) return {};
    return out;
}

}  // namespace poquito::imaging
