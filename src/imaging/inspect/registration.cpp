#include "imaging/inspect/registration.hpp"

#include "imaging/fourier.hpp"
#include "imaging/wide.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <numbers>
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

/// Sums over places of one row of one picture against where they lie in another: what a round of Gauss and Newton
/// needs.
struct Pull {
    float normal[10] = {};  // upper half of the matrix, row by row
    float pull[4] = {};
    float product = 0, own = 0, others = 0;
};

/// Where each place of a row lies in the other picture: at `x` + k `by_x`, `y` + k `by_y`, all of them inside; `turn_x`
/// and `turn_y` the same from its middle, of its reach.
struct Row {
    float x = 0, y = 0, by_x = 0, by_y = 0;
    float turn_x = 0, turn_y = 0, turn_by_x = 0, turn_by_y = 0;
    int count = 0;
    int apart = 1;
};

/// Differences the less counted the greater they are.
POQUITO_WIDE void add_row(const float* from, const float* to, int to_width, const Row& row, Pull& sums) {
    float xx = 0, xy = 0, xt = 0, xs = 0, yy = 0, yt = 0, ys = 0, tt = 0, ts = 0, ss = 0;
    float px = 0, py = 0, pt = 0, ps = 0, product = 0, own = 0, others = 0;
    POQUITO_SUMS(xx, xy, xt, xs, yy, yt, ys, tt, ts, ss, px, py, pt, ps, product, own, others)
    for (int k = 0; k < row.count; ++k) {
        const auto at = static_cast<float>(k);
        const float x = row.x + at * row.by_x, y = row.y + at * row.by_y;
        const int i = static_cast<int>(x), j = static_cast<int>(y);
        const float fx = x - static_cast<float>(i), fy = y - static_cast<float>(j);
        const int first = j * to_width + i;
        const float a = to[first], b = to[first + 1], c = to[first + to_width], d = to[first + to_width + 1];
        const float value = a + fx * (b - a) + fy * (c - a) + fx * fy * (a - b - c + d);
        const float gx = (b - a) * (1 - fy) + (d - c) * fy, gy = (c - a) * (1 - fx) + (d - b) * fx;
        const float here = from[static_cast<std::ptrdiff_t>(k) * row.apart], off = value - here,
                    weight = 1 / (1 + off * off);
        product += value * here, own += here * here, others += value * value;
        const float turn_x = row.turn_x + at * row.turn_by_x, turn_y = row.turn_y + at * row.turn_by_y;
        const float gt = gy * turn_x - gx * turn_y, gs = gx * turn_x + gy * turn_y;
        const float wx = weight * gx, wy = weight * gy, wt = weight * gt, ws = weight * gs;
        xx += wx * gx, xy += wx * gy, xt += wx * gt, xs += wx * gs;
        yy += wy * gy, yt += wy * gt, ys += wy * gs;
        tt += wt * gt, ts += wt * gs, ss += ws * gs;
        px += wx * off, py += wy * off, pt += wt * off, ps += ws * off;
    }
    const float normal[] = {xx, xy, xt, xs, yy, yt, ys, tt, ts, ss}, pull[] = {px, py, pt, ps};
    for (int i = 0; i < 10; ++i) sums.normal[i] = normal[i];
    for (int i = 0; i < 4; ++i) sums.pull[i] = pull[i];
    sums.product = product, sums.own = own, sums.others = others;
}

/// Which of `count` places at `at` + k `by` lie at 0 or above and below `end`: a part of `first` to `last`, narrowed.
void keep_inside(double at, double by, double end, int& first, int& last) {
    constexpr double margin = 1e-3;  // of numbers held short
    const double low = margin - at, high = end - margin - at;
    if (std::abs(by) < 1e-9) {
        if (low > 0 || high < 0) last = first - 1;
        return;
    }
    const double one = low / by, other = high / by;
    first = std::max(first, static_cast<int>(std::ceil(std::clamp(std::min(one, other), -1e6, 1e6))));
    last = std::min(last, static_cast<int>(std::floor(std::clamp(std::max(one, other), -1e6, 1e6))));
}

/// One picture onto the other from a guess near by: Gauss and Newton on the squares of what differs, each difference
/// the less counted the greater it is, so that what moves by itself does not pull the rest along.
std::optional<Registration> refined(const GreyImage& from, const GreyImage& to, Similarity guess) {
    const double mid_x = (from.width - 1) / 2.0, mid_y = (from.height - 1) / 2.0;
    const double to_x = (to.width - 1) / 2.0, to_y = (to.height - 1) / 2.0;
    const double reach = std::hypot(mid_x, mid_y);
    double likeness = 0;
    int apart = 2;  // px: every fourth tells the way, all of them where it ends
    Eigen::Vector4d last_found, last_made;
    bool has_last = false;
    for (int round = 0; round < 30; ++round) {
        // By shift, turn, and the logarithm of the scale; the last two at the picture's corner.
        Eigen::Matrix4d normal = Eigen::Matrix4d::Zero();
        Eigen::Vector4d pull = Eigen::Vector4d::Zero();
        const double c = guess.scale * std::cos(guess.turn), s = guess.scale * std::sin(guess.turn);
        double product = 0, own = 0, others = 0;
        for (int y = 1; y + 1 < from.height; y += apart) {
            // From the row's second place on, every so-and-so-manieth that lies within the other picture.
            const double u = 1 - mid_x, v = y - mid_y;
            const double turned_x = c * u - s * v, turned_y = s * u + c * v;
            const double x0 = to_x + turned_x + guess.dx, y0 = to_y + turned_y + guess.dy;
            int first = 0, last = (from.width - 3) / apart;
            keep_inside(x0, c * apart, to.width - 1, first, last);
            keep_inside(y0, s * apart, to.height - 1, first, last);
            if (last < first) continue;
            const Row row{.x = static_cast<float>(x0 + first * c * apart),
                          .y = static_cast<float>(y0 + first * s * apart),
                          .by_x = static_cast<float>(c * apart),
                          .by_y = static_cast<float>(s * apart),
                          .turn_x = static_cast<float>((turned_x + first * c * apart) / reach),
                          .turn_y = static_cast<float>((turned_y + first * s * apart) / reach),
                          .turn_by_x = static_cast<float>(c * apart / reach),
                          .turn_by_y = static_cast<float>(s * apart / reach),
                          .count = last - first + 1,
                          .apart = apart};
            Pull sums;
            add_row(&from.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(from.width) + 1 +
                                 static_cast<std::size_t>(first) * static_cast<std::size_t>(apart)],
                    to.pixels.data(), to.width, row, sums);
            for (int i = 0, at = 0; i < 4; ++i) {
                for (int j = i; j < 4; ++j, ++at) normal(i, j) += static_cast<double>(sums.normal[at]);
                pull[i] += static_cast<double>(sums.pull[i]);
            }
            product += static_cast<double>(sums.product), own += static_cast<double>(sums.own);
            others += static_cast<double>(sums.others);
        }
        if (!(own > 0) || !(others > 0)) return std::nullopt;
        likeness = product / std::sqrt(own * others);
        normal.diagonal().array() += 1e-6 * normal.trace() + 1e-9;
        const Eigen::Vector4d found = -normal.selfadjointView<Eigen::Upper>().ldlt().solve(pull);
        if (!found.allFinite()) return std::nullopt;
        // Each round comes nearer by much the same share of the way: by this and the last one, to its end (Anderson's
        // mixing of two).
        Eigen::Vector4d made = found;
        if (const Eigen::Vector4d changed = found - last_found; has_last && changed.squaredNorm() > 1e-18) {
            constexpr double at_most = 4;  // of what is known from a round before
            const double share = std::clamp(found.dot(changed) / changed.squaredNorm(), -at_most, at_most);
            made -= share * (last_made + changed);
        }
        last_found = found, last_made = made, has_last = true;
        guess.dx += made[0];
        guess.dy += made[1];
        guess.turn += made[2] / reach;
        guess.scale *= std::exp(made[3] / reach);
        if (std::abs(guess.dx) > from.width || std::abs(guess.dy) > from.height || std::abs(guess.turn) > 1 ||
            guess.scale < 0.5 || guess.scale > 2)
            return std::nullopt;
        const double most = found.cwiseAbs().maxCoeff();
        constexpr double near_by = 0.005, there = 0.003;
        if (most < there && apart == 1) break;
        if (most < near_by && apart == 2) apart = 1, has_last = false;
    }
    return Registration{.similarity = guess, .likeness = likeness};
}

/// The shift at which their phases agree best: what a knock did to the camera, however far.
Similarity shifted(const GreyImage& from, const GreyImage& to) {
    const int width = from.width, height = from.height;
    const auto size = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    Plane first(size), second(size);
    auto *a = first.data(), *b = second.data();
    const auto window = [](int count) {
        std::vector<float> all;
        for (int i = 0; i < count; ++i) {
            const double at = std::sin(std::numbers::pi * (i + 0.5) / count);
            all.push_back(static_cast<float>(at * at));
        }
        return all;
    };
    const auto across = window(width), down = window(height);
    std::size_t i = 0;
    for (const float row : down)
        for (const float column : across) {
            a[i] = from.pixels[i] * row * column;
            b[i] = to.pixels[i] * row * column;
            ++i;
        }
    transform({&first, &second}, width, height, Direction::to_frequencies);
    for (i = 0; i < size; ++i) {
        const auto cross = std::conj(a[i]) * b[i];
        const float length = std::abs(cross);
        // Weighted by how strong it is, a little: blurred pictures have noise alone in their fine part.
        a[i] = length > 1e-12f ? cross / std::sqrt(length) : std::complex<float>();
    }
    transform({&first}, width, height, Direction::back);
    std::size_t best = 0;
    for (i = 0; i < size; ++i)
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
