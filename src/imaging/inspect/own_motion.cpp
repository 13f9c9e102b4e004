#include "imaging/inspect/own_motion.hpp"

#include "imaging/inspect/median.hpp"
#include "imaging/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::imaging {
namespace {

constexpr float outside = std::numeric_limits<float>::quiet_NaN();
constexpr int every = 2;  // which of the pixels are compared, across and down

/// A picture as it lies on the middle one, every so-and-so-manieth pixel.
std::vector<float> laid_on(const GreyImage& picture, const Similarity& to_frame, int columns, int rows) {
    std::vector<float> out;
    out.reserve(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows));
    const double mid_x = (picture.width - 1) / 2.0, mid_y = (picture.height - 1) / 2.0;
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const Place there = to_frame({column * every - mid_x, row * every - mid_y});
            const double x = there.x + mid_x, y = there.y + mid_y;
            if (x < 0 || y < 0 || x >= picture.width - 1 || y >= picture.height - 1) {
                out.push_back(outside);
                continue;
            }
            const int i = static_cast<int>(x), j = static_cast<int>(y);
            const auto fx = static_cast<float>(x - i), fy = static_cast<float>(y - j);
            const float above = picture.at(i, j) * (1 - fx) + picture.at(i + 1, j) * fx;
            const float below = picture.at(i, j + 1) * (1 - fx) + picture.at(i + 1, j + 1) * fx;
            out.push_back(above * (1 - fy) + below * fy);
        }
    return out;
}

/// A net of tiles, and how much each differs.
struct Net {
    int columns = 0, rows = 0;
    std::vector<float> values;

    std::size_t at(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(column);
    }
};

/// Mean squares of what two pictures differ by, a tile; -1 past the edge of either.
Net difference(const std::vector<float>& one, const std::vector<float>& other, int columns, int rows, int side) {
    Net net{.columns = columns / side, .rows = rows / side, .values = {}};
    for (int row = 0; row < net.rows; ++row)
        for (int column = 0; column < net.columns; ++column) {
            float sum = 0;
            for (int y = row * side; y < (row + 1) * side; ++y)
                for (int x = column * side; x < (column + 1) * side; ++x) {
                    const auto i =
                        static_cast<std::size_t>(y) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(x);
                    const float off = one[i] - other[i];
                    sum += off * off;
                }
            net.values.push_back(std::isnan(sum) ? -1 : sum / static_cast<float>(side * side));
        }
    return net;
}

/// Bounds of tiles, inclusive.
struct Bounds {
    int left = 0, top = 0, right = 0, bottom = 0;
    int tiles = 0;
};

/// Tiles that hang together, corners too.
std::vector<Bounds> groups_of(const Net& net, std::vector<bool> marked) {
    std::vector<Bounds> groups;
    for (int row = 0; row < net.rows; ++row)
        for (int column = 0; column < net.columns; ++column) {
            if (!marked[net.at(column, row)]) continue;
            Bounds bounds{column, row, column, row, 0};
            std::vector<std::pair<int, int>> open = {{column, row}};
            marked[net.at(column, row)] = false;
            while (!open.empty()) {
                const auto [x, y] = open.back();
                open.pop_back();
                ++bounds.tiles;
                bounds.left = std::min(bounds.left, x), bounds.right = std::max(bounds.right, x);
                bounds.top = std::min(bounds.top, y), bounds.bottom = std::max(bounds.bottom, y);
                for (int j = std::max(0, y - 1); j <= std::min(net.rows - 1, y + 1); ++j)
                    for (int i = std::max(0, x - 1); i <= std::min(net.columns - 1, x + 1); ++i)
                        if (marked[net.at(i, j)]) marked[net.at(i, j)] = false, open.emplace_back(i, j);
            }
            groups.push_back(bounds);
        }
    return groups;
}

}  // namespace

std::vector<OwnMotion> own_motions(const std::vector<const GreyImage*>& pictures,
                                   const std::vector<Similarity>& to_frame, const std::vector<bool>& left_out,
                                   int tile) {
    std::vector<OwnMotion> found;
    const std::size_t count = pictures.size();
    constexpr std::size_t least = 5;  // frames, to know what is usual at a place
    if (count < least) return found;
    const int columns = (pictures[0]->width - 1) / every, rows = (pictures[0]->height - 1) / every;
    const int side = std::max(1, tile / every);
    std::vector<std::vector<float>> laid(count);
    for_each_of(static_cast<int>(count), [&](int i) {
        const auto f = static_cast<std::size_t>(i);
        if (!left_out[f]) laid[f] = laid_on(*pictures[f], to_frame[f], columns, rows);
    });
    std::vector<Net> changes(count - 1);
    for_each_of(static_cast<int>(count - 1), [&](int i) {
        const auto f = static_cast<std::size_t>(i);
        if (!laid[f].empty() && !laid[f + 1].empty())
            changes[f] = difference(laid[f], laid[f + 1], columns, rows, side);
    });
    std::vector<const Net*> known;
    for (const Net& one : changes)
        if (!one.values.empty()) known.push_back(&one);
    if (known.size() + 1 < least) return found;

    // What is usual at a place, by focus that comes and goes there; and what is usual all over from one frame to the
    // next.
    std::vector<double> usual;
    for (std::size_t t = 0; t < known[0]->values.size(); ++t) {
        std::vector<double> here;
        for (const Net* net : known)
            if (net->values[t] >= 0) here.push_back(static_cast<double>(net->values[t]));
        usual.push_back(median(std::move(here)));
    }
    std::vector<std::pair<std::size_t, Bounds>> seen;
    for (std::size_t f = 0; f + 1 < count; ++f) {
        const Net& net = changes[f];
        if (net.values.empty()) continue;
        std::vector<double> all;
        for (const float value : net.values)
            if (value >= 0) all.push_back(static_cast<double>(value));
        const double everywhere = median(std::move(all));
        std::vector<bool> marked;
        std::size_t many = 0;
        for (std::size_t t = 0; t < net.values.size(); ++t) {
            constexpr double plain = 0.25, times = 10;  // squares of local deviations
            marked.push_back(static_cast<double>(net.values[t]) > std::max(plain, times * (usual[t] + everywhere)));
            many += marked.back() ? 1 : 0;
        }
        // All over it is the camera, or light.
        constexpr double all_over = 0.1;
        if (static_cast<double>(many) > all_over * static_cast<double>(net.values.size())) continue;
        constexpr int some = 2;
        for (const Bounds& bounds : groups_of(net, std::move(marked)))
            if (bounds.tiles >= some) seen.emplace_back(f, bounds);
    }
    // The same place again within a few frames is the same thing.
    constexpr std::size_t soon = 3;
    const int size = side * every;
    for (const auto& [f, bounds] : seen) {
        const OwnMotion one{.first = f,
                            .last = f + 1,
                            .left = bounds.left * size,
                            .top = bounds.top * size,
                            .width = (bounds.right - bounds.left + 1) * size,
                            .height = (bounds.bottom - bounds.top + 1) * size};
        const auto same = std::ranges::find_if(found, [&](const OwnMotion& known_one) {
            return one.first <= known_one.last + soon && one.left <= known_one.left + known_one.width + size &&
                   known_one.left <= one.left + one.width + size &&
                   one.top <= known_one.top + known_one.height + size && known_one.top <= one.top + one.height + size;
        });
        if (same == found.end()) {
            found.push_back(one);
            continue;
        }
        const int right = std::max(same->left + same->width, one.left + one.width),
                  bottom = std::max(same->top + same->height, one.top + one.height);
        same->left = std::min(same->left, one.left), same->top = std::min(same->top, one.top);
        same->width = right - same->left, same->height = bottom - same->top;
        same->last = one.last;
    }
    return found;
}

}  // namespace poquito::imaging
