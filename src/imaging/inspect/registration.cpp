#include "imaging/inspect/registration.hpp"

#include "imaging/fourier.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <vector>

namespace poquito::imaging {
namespace {

/// Means over squares of 2 * radius + 1, cut at the edges; each row, then each column, by running sums.
GreyImage box_mean(const GreyImage& in, int radius) {
    GreyImage across = in, out = in;
    const auto run = [radius](const float* from, float* to, int count) {
        double sum = 0;
        int first = 0, last = -1;  // within the sum
        for (int i = 0; i < count; ++i) {
            while (last < std::min(count - 1, i + radius)) sum += static_cast<double>(from[++last]);
            while (first < i - radius) sum -= static_cast<double>(from[first++]);
            to[i] = static_cast<float>(sum / (last - first + 1));
        }
    };
    for (int y = 0; y < in.height; ++y)
        run(in.pixels.data() + static_cast<std::ptrdiff_t>(y) * in.width,
            across.pixels.data() + static_cast<std::ptrdiff_t>(y) * in.width, in.width);
    // Down by whole rows, as they lie in memory.
    const auto width = static_cast<std::size_t>(in.width);
    std::vector<float> sums(width, 0);
    int first = 0, last = -1;  // within the sums
    const auto row = [&](int y) { return across.pixels.data() + static_cast<std::ptrdiff_t>(y) * in.width; };
    for (int y = 0; y < in.height; ++y) {
        for (; last < std::min(in.height - 1, y + radius); ++last)
            for (std::size_t x = 0; x < width; ++x) sums[x] += row(last + 1)[x];
        for (; first < y - radius; ++first)
            for (std::size_t x = 0; x < width; ++x) sums[x] -= row(first)[x];
        const auto each = 1 / static_cast<float>(last - first + 1);
        float* to = out.pixels.data() + static_cast<std::ptrdiff_t>(y) * in.width;
        for (std::size_t x = 0; x < width; ++x) to[x] = sums[x] * each;
    }
    return out;
}

/// Each place against its surroundings, in their spread. Where nothing differs it stays near 0.
GreyImage locally_normal(const GreyImage& in) {
    const int radius = std::max(3, in.width / 24);
    constexpr float noise = 0.012f;  // of full scale: what a plain area differs by
    const GreyImage mean = box_mean(in, radius);
    GreyImage squares = in;
    for (std::size_t i = 0; i < in.pixels.size(); ++i) {
        const float off = in.pixels[i] - mean.pixels[i];
        squares.pixels[i] = off * off;
    }
    const GreyImage spread = box_mean(squares, radius);
    GreyImage out = in;
    for (std::size_t i = 0; i < in.pixels.size(); ++i) {
        // Running sums leave less than nothing of a ground that is all one value.
        const float deviation = std::sqrt(std::max(0.0f, spread.pixels[i]));
        out.pixels[i] = std::clamp((in.pixels[i] - mean.pixels[i]) / (deviation + noise), -3.0f, 3.0f);
    }
    return out;
}

GreyImage smaller(const GreyImage& in, int factor) {
    GreyImage out{.width = in.width / factor, .height = in.height / factor, .pixels = {}};
    out.pixels.resize(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height));
    for (int y = 0; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            float sum = 0;
            for (int j = 0; j < factor; ++j)
                for (int i = 0; i < factor; ++i) sum += in.at(x * factor + i, y * factor + j);
            out.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(out.width) +
                       static_cast<std::size_t>(x)] = sum / static_cast<float>(factor * factor);
        }
    return out;
}

/// The value between pixels and its slopes; false outside.
bool sample(const GreyImage& in, double x, double y, float& value, float& slope_x, float& slope_y) {
    const int i = static_cast<int>(std::floor(x)), j = static_cast<int>(std::floor(y));
    if (i < 0 || j < 0 || i + 1 >= in.width || j + 1 >= in.height) return false;
    const auto fx = static_cast<float>(x - i), fy = static_cast<float>(y - j);
    const float a = in.at(i, j), b = in.at(i + 1, j), c = in.at(i, j + 1), d = in.at(i + 1, j + 1);
    value = a + fx * (b - a) + fy * (c - a) + fx * fy * (a - b - c + d);
    slope_x = (b - a) * (1 - fy) + (d - c) * fy;
    slope_y = (c - a) * (1 - fx) + (d - b) * fx;
    return true;
}

/// One picture onto the other from a guess near by: Gauss and Newton on the squares of what differs, each difference
/// the less counted the greater it is, so that what moves by itself does not pull the rest along.
std::optional<Registration> refined(const GreyImage& from, const GreyImage& to, Similarity guess) {
    const double mid_x = (from.width - 1) / 2.0, mid_y = (from.height - 1) / 2.0;
    const double to_x = (to.width - 1) / 2.0, to_y = (to.height - 1) / 2.0;
    const double reach = std::hypot(mid_x, mid_y);
    double likeness = 0;
    int apart = 2;  // px: every fourth tells the way, all of them where it ends
    for (int round = 0; round < 30; ++round) {
        Eigen::Matrix4d normal = Eigen::Matrix4d::Zero();
        Eigen::Vector4d pull = Eigen::Vector4d::Zero();
        const double c = guess.scale * std::cos(guess.turn), s = guess.scale * std::sin(guess.turn);
        double product = 0, own = 0, others = 0;
        for (int y = 1; y + 1 < from.height; y += apart)
            for (int x = 1; x + 1 < from.width; x += apart) {
                const double u = x - mid_x, v = y - mid_y;
                float value, gx, gy;
                if (!sample(to, to_x + c * u - s * v + guess.dx, to_y + s * u + c * v + guess.dy, value, gx, gy))
                    continue;
                const float here = from.at(x, y);
                const double off = value - here;
                product += value * here, own += here * here, others += value * value;
                const double weight = 1 / (1 + off * off);
                // By shift, turn, and the logarithm of the scale; the last two at the picture's corner.
                const double ru = (c * u - s * v) / reach, rv = (s * u + c * v) / reach;
                const Eigen::Vector4d slope(gx, gy, -gx * rv + gy * ru, gx * ru + gy * rv);
                normal.noalias() += weight * slope * slope.transpose();
                pull.noalias() += weight * off * slope;
            }
        if (!(own > 0) || !(others > 0)) return std::nullopt;
        likeness = product / std::sqrt(own * others);
        normal.diagonal().array() += 1e-6 * normal.trace() + 1e-9;
        const Eigen::Vector4d change = normal.ldlt().solve(pull);
        if (!change.allFinite()) return std::nullopt;
        guess.dx -= change[0];
        guess.dy -= change[1];
        guess.turn -= change[2] / reach;
        guess.scale *= std::exp(-change[3] / reach);
        if (std::abs(guess.dx) > from.width || std::abs(guess.dy) > from.height || std::abs(guess.turn) > 1 ||
            guess.scale < 0.5 || guess.scale > 2)
            return std::nullopt;
        const double most = change.cwiseAbs().maxCoeff();
        constexpr double near_by = 0.008, there = 0.003;
        if (most < there && apart == 1) break;
        if (most < near_by) apart = 1;
    }
    return Registration{.similarity = guess, .likeness = likeness};
}

/// The shift at which their phases agree best: what a knock did to the camera, however far.
Similarity shifted(const GreyImage& from, const GreyImage& to) {
    const int width = from.width, height = from.height;
    const auto size = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    Plane first(size), second(size);
    auto *a = first.data(), *b = second.data();
    const auto window = [&](int i, int count) {
        const double at = std::sin(3.14159265358979 * (i + 0.5) / count);
        return static_cast<float>(at * at);
    };
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const auto i = static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
            const float weight = window(x, width) * window(y, height);
            a[i] = from.pixels[i] * weight;
            b[i] = to.pixels[i] * weight;
        }
    transform({&first, &second}, width, height, Direction::to_frequencies);
    for (std::size_t i = 0; i < size; ++i) {
        const auto cross = std::conj(a[i]) * b[i];
        const float length = std::abs(cross);
        // Weighted by how strong it is, a little: blurred pictures have noise alone in their fine part.
        a[i] = length > 1e-12f ? cross / std::sqrt(length) : std::complex<float>();
    }
    transform({&first}, width, height, Direction::back);
    std::size_t best = 0;
    for (std::size_t i = 0; i < size; ++i)
        if (a[i].real() > a[best].real()) best = i;
    int dx = static_cast<int>(best % static_cast<std::size_t>(width)),
        dy = static_cast<int>(best / static_cast<std::size_t>(width));
    if (dx > width / 2) dx -= width;
    if (dy > height / 2) dy -= height;
    return {.dx = static_cast<double>(dx), .dy = static_cast<double>(dy)};
}

}  // namespace

Place Similarity::operator()(const Place& from) const {
    const double c = scale * std::cos(turn), s = scale * std::sin(turn);
    return {c * from.x - s * from.y + dx, s * from.x + c * from.y + dy};
}

Similarity operator*(const Similarity& other, const Similarity& one) {
    const Place shift = other({one.dx, one.dy});
    return {.dx = shift.x, .dy = shift.y, .turn = other.turn + one.turn, .scale = other.scale * one.scale};
}

Similarity Similarity::inverse() const {
    Similarity back{.turn = -turn, .scale = 1 / scale};
    const Place shift = back({dx, dy});
    back.dx = -shift.x, back.dy = -shift.y;
    return back;
}

Registrable registrable(const GreyImage& picture) {
    Registrable made;
    constexpr int rough_width = 96;
    const int factor = std::max(1, picture.width / rough_width);
    made.fine = locally_normal(picture);
    made.rough = locally_normal(smaller(picture, factor));
    return made;
}

std::optional<Registration> registered(const Registrable& from, const Registrable& to, const Similarity& guess) {
    if (from.fine.width < 16 || from.fine.height < 16 || from.fine.width != to.fine.width ||
        from.fine.height != to.fine.height)
        return std::nullopt;
    const double factor = static_cast<double>(from.fine.width) / from.rough.width;
    const auto at_rough = [&](Similarity similarity, double by) {
        similarity.dx *= by, similarity.dy *= by;
        return similarity;
    };
    // From the guess, and from the shift that the phases say: whichever lies better.
    std::optional<Registration> best;
    for (Similarity start : {at_rough(guess, 1 / factor), shifted(from.rough, to.rough)}) {
        auto found = refined(from.rough, to.rough, start);
        if (found && (!best || found->likeness > best->likeness)) best = found;
    }
    if (!best) return std::nullopt;
    auto fine = refined(from.fine, to.fine, at_rough(best->similarity, factor));
    return fine;
}

}  // namespace poquito::imaging
