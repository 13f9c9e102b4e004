// Compiled as it would be shipped: millions of points a picture.
#include "support/photographs.hpp"

#include <algorithm>
#include <cstdint>

namespace poquito::test {
namespace {

constexpr int margin = 40;
constexpr double widest = 26, apart = 1, degree = 3.14159265358979 / 180;

double random(int x, int y, int salt) {
    std::uint32_t h = static_cast<std::uint32_t>(x) * 374761393u + static_cast<std::uint32_t>(y) * 668265263u +
                      static_cast<std::uint32_t>(salt) * 2246822519u;
    h = (h ^ (h >> 13)) * 1274126177u;
    h = (h ^ (h >> 16)) * 2654435761u;
    return (h ^ (h >> 15)) / 4294967296.0;
}

}  // namespace

Photographs::Photographs(Scene scene) : scene_(std::move(scene)) {
    wide_ = scene_.width + 2 * margin;
    high_ = scene_.height + 2 * margin;
    std::vector<float> sharp(static_cast<std::size_t>(wide_) * static_cast<std::size_t>(high_));
    for (int y = 0; y < high_; ++y)
        for (int x = 0; x < wide_; ++x) sharp[at(x, y)] = static_cast<float>(texture(x, y));
    for (int i = 0; i < scene_.glints; ++i) {
        const int x = margin + static_cast<int>(random(i, 0, 5) * scene_.width);
        const int y = margin + static_cast<int>(random(i, 1, 5) * scene_.height);
        for (int v = -1; v <= 1; ++v)
            for (int u = -1; u <= 1; ++u) sharp[at(x + u, y + v)] = 6;
    }
    for (double diameter = 0; diameter <= widest; diameter += apart) blurred_.push_back(disc_mean(sharp, diameter / 2));
}

storage::FramePicture Photographs::picture(const Frame& frame, int number) const {
    storage::FramePicture out{.width = scene_.width, .height = scene_.height, .rgb = {}};
    out.rgb.resize(static_cast<std::size_t>(scene_.width) * static_cast<std::size_t>(scene_.height) * 3);
    const double mid_x = (scene_.width - 1) / 2.0, mid_y = (scene_.height - 1) / 2.0;
    const double scale = 1 + scene_.breathing * frame.focus;
    const double c = std::cos(frame.turn * degree) / scale, s = std::sin(frame.turn * degree) / scale;
    const double gain = std::exp2(frame.stops);
    std::uint32_t state = static_cast<std::uint32_t>(scene_.seed * 7919 + number * 104729 + 17);
    for (int y = 0; y < scene_.height; ++y)
        for (int x = 0; x < scene_.width; ++x) {
            double light = 0;
            const int points = frame.drawn_out > 0 ? static_cast<int>(frame.drawn_out * 2) + 1 : 1;
            for (int k = 0; k < points; ++k) {
                const double along = points > 1 ? frame.drawn_out * (static_cast<double>(k) / (points - 1) - 0.5) : 0;
                const double u = x + along - mid_x - frame.dx, v = y - mid_y - frame.dy;
                const double px = c * u + s * v, py = -s * u + c * v;
                light += seen(px, py, frame.focus, mid_x, mid_y);
            }
            light *= gain / points;
            const double clipped = std::clamp(light, 0.0, 1.0);
            const double code =
                255 * (clipped <= 0.0031308 ? 12.92 * clipped : 1.055 * std::pow(clipped, 1 / 2.4) - 0.055);
            const double tint[] = {1.02, 1.0, 0.97};
            for (int k = 0; k < 3; ++k) {
                double noise = -2;  // sum of four even ones: nearly normal
                for (int i = 0; i < 4; ++i) {
                    state = state * 1664525u + 1013904223u;
                    noise += (state >> 8) / 16777216.0;
                }
                const double value = code >= 254.5 ? 255 : code * tint[k] + scene_.noise * noise * 1.73;
                out.rgb[(static_cast<std::size_t>(y) * static_cast<std::size_t>(scene_.width) +
                         static_cast<std::size_t>(x)) *
                            3 +
                        static_cast<std::size_t>(k)] =
                    static_cast<unsigned char>(std::clamp(std::lround(value), 0L, 255L));
            }
        }
    return out;
}

std::size_t Photographs::at(int x, int y) const {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(wide_) + static_cast<std::size_t>(x);
}

double Photographs::smooth(double x, double y, int salt) const {
    const int i = static_cast<int>(std::floor(x)), j = static_cast<int>(std::floor(y));
    const auto ease = [](double t) { return t * t * (3 - 2 * t); };
    const double fx = ease(x - i), fy = ease(y - j);
    const double upper = random(i, j, salt) * (1 - fx) + random(i + 1, j, salt) * fx;
    const double lower = random(i, j + 1, salt) * (1 - fx) + random(i + 1, j + 1, salt) * fx;
    return upper * (1 - fy) + lower * fy - 0.5;
}

double Photographs::texture(int x, int y) const {
    double sum = 0, weight = 0.16, size = 48;
    for (int octave = 0; octave < 6; ++octave, size /= 2, weight *= scene_.fineness + 0.15)
        sum += weight * smooth(x / size, y / size, scene_.seed * 31 + octave);
    const bool plain = smooth(x / 70.0, y / 70.0, scene_.seed * 31 + 99) + 0.5 < scene_.plain;
    return std::max(0.01, 0.2 + (plain ? 0.02 : 1) * sum);
}

std::vector<float> Photographs::disc_mean(const std::vector<float>& in, double radius) const {
    std::vector<std::pair<int, int>> places;
    const int reach = static_cast<int>(std::ceil(radius));
    for (int v = -reach; v <= reach; ++v)
        for (int u = -reach; u <= reach; ++u)
            if (u * u + v * v <= radius * radius + 0.01) places.emplace_back(u, v);
    // A row at a time, its outer points going on: each point's sum still runs over the places in their order.
    std::vector<float> out(in.size()), row(static_cast<std::size_t>(wide_) + 2 * static_cast<std::size_t>(reach));
    for (int y = 0; y < high_; ++y) {
        float* sums = out.data() + at(0, y);
        int there = -reach - 1;
        for (const auto& [u, v] : places) {
            if (v != there)
                for (int x = -reach; x < wide_ + reach; ++x)
                    row[static_cast<std::size_t>(x + reach)] =
                        in[at(std::clamp(x, 0, wide_ - 1), std::clamp(y + v, 0, high_ - 1))];
            there = v;
            const float* from = row.data() + reach + u;
            for (int x = 0; x < wide_; ++x) sums[x] += from[x];
        }
        for (int x = 0; x < wide_; ++x) sums[x] /= static_cast<float>(places.size());
    }
    return out;
}

double Photographs::between(const std::vector<float>& in, double x, double y) const {
    const double cx = std::clamp(x, 0.0, wide_ - 1.001), cy = std::clamp(y, 0.0, high_ - 1.001);
    const int i = static_cast<int>(cx), j = static_cast<int>(cy);
    const double fx = cx - i, fy = cy - j;
    return (in[at(i, j)] * (1 - fx) + in[at(i + 1, j)] * fx) * (1 - fy) +
           (in[at(i, j + 1)] * (1 - fx) + in[at(i + 1, j + 1)] * fx) * fy;
}

double Photographs::seen(double px, double py, double focus, double mid_x, double mid_y) const {
    const double off = std::abs(scene_.depth(px / mid_x, py / mid_y) - focus);
    const double diameter = std::min(std::hypot(scene_.least_disc, scene_.disc * off), widest - 0.001);
    const auto k = static_cast<std::size_t>(diameter / apart);
    const double f = diameter / apart - static_cast<double>(k);
    const double x = px + mid_x + margin, y = py + mid_y + margin;
    return between(blurred_[k], x, y) * (1 - f) + between(blurred_[std::min(k + 1, blurred_.size() - 1)], x, y) * f;
}

}  // namespace poquito::test
