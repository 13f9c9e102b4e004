#include "render/disc_blur.hpp"

#include "imaging/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <span>
#include <utility>

namespace poquito::render {
namespace {

/// Area of the part of a disc of radius r about the origin with a < y < b.
double strip_area(double r, double a, double b) {
    const auto integral = [r](double y) {
        y = std::clamp(y, -r, r);
        return y * std::sqrt(std::max(0.0, r * r - y * y)) + r * r * std::asin(y / r);
    };
    return integral(b) - integral(a);
}

/// Running sums along a row, the outer pixels going on `margin` pixels at either side; sums[i] is of all before pixel
/// i - margin.
void sum_row(const imaging::Raster& picture, int y, int margin, std::span<imaging::Rgba> sums) {
    const imaging::Rgba* row = picture.row(y);
    imaging::Rgba sum = imaging::Rgba::Zero();
    for (int i = 0; i < static_cast<int>(sums.size()); ++i) {
        sums[static_cast<std::size_t>(i)] = sum;
        sum += row[std::clamp(i - margin, 0, picture.width - 1)];
    }
}

/// Half a chord as a place between running sums.
struct Chord {
    int whole = 0;
    float part = 0;
};
Chord chord_of(double half) {
    const double reach = half + 0.5;
    const int whole = static_cast<int>(std::floor(reach));
    return {whole, static_cast<float>(reach - whole)};
}

/// The pixels of a row that hold anything; a sheet of a subject is mostly empty.
struct Filled {
    int first = 0;
    int end = 0;  // just behind the last
    bool any() const { return first < end; }
};
Filled filled_part(const imaging::Raster& picture, int y) {
    const imaging::Rgba* row = picture.row(y);
    Filled part{0, picture.width};
    const auto is_empty = [row](int x) { return (row[x] == 0).all(); };
    while (part.first < part.end && is_empty(part.first)) ++part.first;
    while (part.end > part.first && is_empty(part.end - 1)) --part.end;
    return part;
}

void blur_at_this_scale(imaging::Raster& picture, double diameter) {
    const double r = diameter / 2;
    const int reach = static_cast<int>(std::ceil(r - 0.5));
    std::vector<Chord> chords;
    for (int dy = 0; dy <= reach; ++dy) chords.push_back(chord_of(strip_area(r, dy - 0.5, dy + 0.5) / 2));
    const int margin = reach + 2;
    const auto scale = static_cast<float>(1 / strip_area(r, -r, r));

    const auto columns = static_cast<std::size_t>(picture.width) + 2 * static_cast<std::size_t>(margin) + 2;
    thread_local std::vector<imaging::Rgba> kept;  // a frame blurs many sheets of one size: the memory stays
    std::vector<imaging::Rgba>& all = kept;        // the name alone would mean another thread's inside for_rows
    all.resize(columns * static_cast<std::size_t>(picture.height));
    std::vector<Filled> filled(static_cast<std::size_t>(picture.height));
    imaging::for_rows(picture.height, [&](int y) {
        auto& part = filled[static_cast<std::size_t>(y)];
        part = filled_part(picture, y);
        if (part.any()) sum_row(picture, y, margin, {all.data() + static_cast<std::ptrdiff_t>(columns) * y, columns});
    });
    imaging::for_rows(picture.height, [&](int y) {
        imaging::Rgba* to = picture.row(y);
        std::fill(to, to + picture.width, imaging::Rgba::Zero());
        for (int dy = -reach; dy <= reach; ++dy) {
            const Chord& chord = chords[static_cast<std::size_t>(std::abs(dy))];
            const int from = std::clamp(y + dy, 0, picture.height - 1);
            const Filled& part = filled[static_cast<std::size_t>(from)];
            if (!part.any()) continue;
            // At an edge of the raster its outer pixels go on.
            const int begin = part.first == 0 ? 0 : std::max(0, part.first - chord.whole - 1);
            const int end =
                part.end == picture.width ? picture.width : std::min(picture.width, part.end + chord.whole + 1);
            const imaging::Rgba* sums = all.data() + static_cast<std::ptrdiff_t>(columns) * from + margin;
            // Edges of the box about pixel x, half a pixel in from its left edge: x + 1/2 -/+ half a chord.
            const imaging::Rgba* right = sums + chord.whole;
            const imaging::Rgba* left = sums + 1 - chord.whole;
            for (int x = begin; x < end; ++x)
                to[x] += (right[x] + chord.part * (right[x + 1] - right[x])) -
                         (left[x] + chord.part * (left[x - 1] - left[x]));
        }
        for (int x = 0; x < picture.width; ++x) to[x] *= scale;
    });
}

/// Half as many pixels each way, each the mean of four.
imaging::Raster halved(const imaging::Raster& picture) {
    imaging::Raster half((picture.width + 1) / 2, (picture.height + 1) / 2);
    imaging::for_rows(half.height, [&](int y) {
        const imaging::Rgba* upper = picture.row(2 * y);
        const imaging::Rgba* lower = picture.row(std::min(2 * y + 1, picture.height - 1));
        for (int x = 0; x < half.width; ++x) {
            const int right = std::min(2 * x + 1, picture.width - 1);
            const auto left = 2 * static_cast<std::ptrdiff_t>(x);
            half.at(x, y) = (upper[left] + upper[right] + lower[left] + lower[right]) * 0.25f;
        }
    });
    return half;
}

}  // namespace

void blur_by_disc(imaging::Raster& picture, double diameter) {
    constexpr double too_small_to_see = 0.05, wide = 20;  // pixels
    if (diameter < too_small_to_see || picture.pixels.empty()) return;
    if (diameter <= wide) return blur_at_this_scale(picture, diameter);
    const int width = picture.width, height = picture.height;
    int factor = 2;
    imaging::Raster coarse = halved(picture);
    while (diameter / factor > wide && std::min(coarse.width, coarse.height) > 8) {
        coarse = halved(coarse);
        factor *= 2;
    }
    // A disc wider than the raster by far makes one even tone of it.
    const double widest = 4.0 * std::max(coarse.width, coarse.height);
    blur_at_this_scale(coarse, std::min(diameter / factor, widest));
    enlarge(coarse, {.factor = factor, .width = width, .height = height}, picture);
}

Between between_pixels(int fine, int factor, int last) {
    const double at = std::clamp((fine + 0.5) / factor - 0.5, 0.0, static_cast<double>(last));
    const int before = std::min(static_cast<int>(at), std::max(last - 1, 0));
    return {before, std::min(before + 1, last), static_cast<float>(at - before)};
}

namespace {

/// Hands `put(x, y, value)` each pixel of a part, as it is between those of the coarse raster.
template <typename Put>
void for_fine_pixels(const imaging::Raster& coarse, const FinePart& part, const Put& put) {
    if (part.factor == 1) {
        imaging::for_rows(part.height, [&](int y) {
            const imaging::Rgba* from = coarse.row(part.top + y) + part.left;
            for (int x = 0; x < part.width; ++x) put(x, y, from[x]);
        });
        return;
    }
    std::vector<Between> columns;
    columns.reserve(static_cast<std::size_t>(part.width));
    for (int x = 0; x < part.width; ++x)
        columns.push_back(between_pixels(part.left + x, part.factor, coarse.width - 1));
    imaging::for_rows(part.height, [&](int y) {
        const auto [row, next, fy] = between_pixels(part.top + y, part.factor, coarse.height - 1);
        const imaging::Rgba *upper = coarse.row(row), *lower = coarse.row(next);
        for (int x = 0; x < part.width; ++x) {
            const auto [before, after, fx] = columns[static_cast<std::size_t>(x)];
            const imaging::Rgba above = upper[before] + fx * (upper[after] - upper[before]);
            const imaging::Rgba below = lower[before] + fx * (lower[after] - lower[before]);
            put(x, y, above + fy * (below - above));
        }
    });
}

}  // namespace

void enlarge(const imaging::Raster& coarse, const FinePart& part, imaging::Raster& out) {
    out.resize(part.width, part.height);
    for_fine_pixels(coarse, part, [&](int x, int y, const imaging::Rgba& value) { out.at(x, y) = value; });
}

void lay_over(imaging::Raster& picture, int left, int top, const imaging::Raster& coarse, const FinePart& part,
              float brighter) {
    const imaging::Rgba more(brighter, brighter, brighter, 1);
    for_fine_pixels(coarse, part, [&](int x, int y, const imaging::Rgba& front) {
        imaging::Rgba& behind = picture.at(left + x, top + y);
        behind = front * more + (1 - front[3]) * behind;
    });
}

namespace {

constexpr double shortest_seen = 0.05;  // pixels that a point is drawn out by

imaging::Raster turned(const imaging::Raster& picture) {
    imaging::Raster turned(picture.height, picture.width);
    for (int y = 0; y < picture.height; ++y)
        for (int x = 0; x < picture.width; ++x) turned.at(y, x) = picture.at(x, y);
    return turned;
}

}  // namespace

void draw_out_upright(imaging::Raster& picture, double length) {
    if (length < shortest_seen || picture.pixels.empty()) return;
    imaging::Raster lying = turned(picture);
    draw_out(lying, length);
    picture = turned(lying);
}

void draw_out(imaging::Raster& picture, double length) {
    if (length < shortest_seen || picture.pixels.empty()) return;
    length = std::min(length, 4.0 * picture.width);
    const Chord chord = chord_of(length / 2);
    const int margin = chord.whole + 2;
    imaging::for_rows(picture.height, [&](int y) {
        thread_local std::vector<imaging::Rgba> all;
        all.resize(static_cast<std::size_t>(picture.width) + 2 * static_cast<std::size_t>(margin) + 2);
        sum_row(picture, y, margin, all);
        const imaging::Rgba* right = all.data() + margin + chord.whole;
        const imaging::Rgba* left = all.data() + margin + 1 - chord.whole;
        const auto scale = static_cast<float>(1 / length);
        for (int x = 0; x < picture.width; ++x)
            picture.at(x, y) = ((right[x] + chord.part * (right[x + 1] - right[x])) -
                                (left[x] + chord.part * (left[x - 1] - left[x]))) *
                               scale;
    });
}

void blur_by_bell(imaging::Raster& picture, double sigma) {
    constexpr double too_small_to_see = 0.15;
    if (sigma < too_small_to_see || picture.pixels.empty()) return;
    const int reach = static_cast<int>(std::ceil(3 * std::min(sigma, 2.0)));
    std::vector<float> weights;
    // The share of the bell over each pixel, by the error function: right down to a bell narrower than a pixel.
    const auto below = [&](double x) { return std::erf(x / (sigma * std::sqrt(2.0))); };
    for (int i = -reach; i <= reach; ++i) weights.push_back(static_cast<float>((below(i + 0.5) - below(i - 0.5)) / 2));
    float sum = 0;
    for (const float weight : weights) sum += weight;
    for (float& weight : weights) weight /= sum;
    imaging::Raster along(picture.width, picture.height);
    imaging::for_rows(picture.height, [&](int y) {
        const imaging::Rgba* row = picture.row(y);
        for (int x = 0; x < picture.width; ++x) {
            imaging::Rgba value = imaging::Rgba::Zero();
            for (int i = -reach; i <= reach; ++i)
                value += weights.data()[i + reach] * row[std::clamp(x + i, 0, picture.width - 1)];
            along.at(x, y) = value;
        }
    });
    imaging::for_rows(picture.height, [&](int y) {
        imaging::Rgba* to = picture.row(y);
        std::fill(to, to + picture.width, imaging::Rgba::Zero());
        for (int i = -reach; i <= reach; ++i) {
            const imaging::Rgba* row = along.row(std::clamp(y + i, 0, picture.height - 1));
            const float weight = weights.data()[i + reach];
            for (int x = 0; x < picture.width; ++x) to[x] += weight * row[x];
        }
    });
}

void add_disc(imaging::Raster& picture, const LightDisc& disc) {
    const double r = std::max(disc.diameter, 1.0) / 2;  // a point's light falls on a pixel
    const int top = std::max(0, static_cast<int>(std::floor(disc.y - r - 1)));
    const int bottom = std::min(picture.height - 1, static_cast<int>(std::ceil(disc.y + r + 1)));
    // Coverage of a pixel by the edge's distance from its middle, then what is missing to the disc's area made up.
    const auto coverage = [&](int x, int y) {
        return std::clamp(r - std::hypot(x + 0.5 - disc.x, y + 0.5 - disc.y) + 0.5, 0.0, 1.0);
    };
    const int from = static_cast<int>(std::floor(disc.x - r - 1)), to = static_cast<int>(std::ceil(disc.x + r + 1));
    constexpr double smooth_edge = 16;  // pixels of radius from where the edge's steps no longer count
    double area = r > smooth_edge ? std::numbers::pi * r * r : 0;
    for (int y = static_cast<int>(std::floor(disc.y - r - 1));
         r <= smooth_edge && y <= static_cast<int>(std::ceil(disc.y + r + 1)); ++y)
        for (int x = from; x <= to; ++x) area += coverage(x, y);
    if (!(area > 0)) return;
    const imaging::Rgba density = disc.flux / static_cast<float>(area);
    for (int y = top; y <= bottom; ++y)
        for (int x = std::max(0, from); x <= std::min(picture.width - 1, to); ++x)
            picture.at(x, y) += static_cast<float>(coverage(x, y)) * density;
}

}  // namespace poquito::render
