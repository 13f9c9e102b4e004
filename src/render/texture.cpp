#include "render/texture.hpp"

#include "shoot/values/lattice_hash.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstdint>
#include <numbers>

namespace poquito::render {
namespace {

/// One sheet of random values that every octave reads from a place of its own; it repeats after so many of its steps.
constexpr int side = 256;
const std::array<float, std::size_t{side} * side>& values() {
    static const auto table = [] {
        std::array<float, std::size_t{side} * side> made{};
        for (int i = 0; i < side * side; ++i)
            made[static_cast<std::size_t>(i)] = static_cast<float>(2 * shoot::lattice_hash(i % side, i / side, 0) - 1);
        return made;
    }();
    return table;
}

/// Values on whole places, smooth between them.
float noise(double x, double y) {
    const double left = std::floor(x), top = std::floor(y);
    const auto i = static_cast<std::int64_t>(left), j = static_cast<std::int64_t>(top);
    const auto ease = [](float t) { return t * t * (3 - 2 * t); };
    const float fx = ease(static_cast<float>(x - left)), fy = ease(static_cast<float>(y - top));
    const auto at = [&table = values()](std::int64_t column, std::int64_t row) {
        return table[static_cast<std::size_t>((row & (side - 1)) * side + (column & (side - 1)))];
    };
    const float upper = at(i, j) + fx * (at(i + 1, j) - at(i, j));
    const float lower = at(i, j + 1) + fx * (at(i + 1, j + 1) - at(i, j + 1));
    return upper + fy * (lower - upper);
}

constexpr double vein_half_width = 0.05, between_veins = 6;  // of a size; each size so much smaller than the one before
int vein_sizes(const Detail& detail) {
    const double room = detail.coarsest / 2 * 2 * vein_half_width / (detail.finest / 2);
    return room > 1 ? static_cast<int>(std::ceil(std::log(room) / std::log(between_veins))) : 0;
}

/// How much of a strip `finest` wide, `off` mm from the middle of a line, the line covers: as sharp at its edges as the
/// finest detail, and fainter where it is narrower.
double line(double off, double half_width, double finest) {
    const double within = std::clamp((half_width - std::abs(off)) / finest + 0.5, 0.0, 1.0);
    return within * std::min(1.0, 2 * half_width / finest);
}

/// How much of what repeats after `period` can still be told apart, from none to all.
double told_apart(double period, double finest) { return std::clamp(period / (2 * finest) - 0.5, 0.0, 1.0); }

struct Bearing {
    double along = 0, across = 0;
};
Bearing turned(double x, double y, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    return {.along = c * x + s * y, .across = c * y - s * x};
}

/// -1 to 1, by a place and a salt.
double even(int i, int j, int salt) { return 2 * shoot::lattice_hash(i, j, salt) - 1; }

int whole(double value) { return static_cast<int>(std::floor(value)); }

/// The nearest of points, one to a square of a net at a place of its own within it.
struct Nearest {
    double distance = 1e9;  // in squares
    double second = 1e9;
    int i = 0, j = 0;
};
/// So much of the plane lies on the bounds between nearest points, for each part of a square that they are wide to
/// either side (counted over two million places).
constexpr double bounded = 4.5;
Nearest nearest_point(double x, double y, int salt) {
    const int column = whole(x), row = whole(y);
    Nearest found;
    for (int j = row - 1; j <= row + 1; ++j)
        for (int i = column - 1; i <= column + 1; ++i) {
            const double away =
                std::hypot(i + 0.5 + 0.4 * even(i, j, salt) - x, j + 0.5 + 0.4 * even(i, j, salt + 1) - y);
            if (away < found.distance)
                found = {.distance = away, .second = found.distance, .i = i, .j = j};
            else
                found.second = std::min(found.second, away);
        }
    return found;
}

// What each kind of surface shows, in its own sizes, mm: about -1 to 1, and 0 in the mean. Sizes are common practice.

/// The mean of veins(): so much of one size's sheet lies on a line, and of the others what is left.
double veined(const Detail& detail) {
    static const double on_a_line = [] {
        constexpr int steps = 512;
        int found = 0;
        for (int j = 0; j < steps; ++j)
            for (int i = 0; i < steps; ++i) found += std::abs(noise(i * 0.37, j * 0.37)) < vein_half_width;
        return found / static_cast<double>(steps * steps);
    }();
    return 1 - std::pow(1 - on_a_line, vein_sizes(detail));
}

/// Stone, bark, a biscuit: blotches with cracks, of every size.
double stone(double x, double y, const Detail& detail) {
    return texture(x, y, detail) - veins(x, y, detail) + veined(detail);
}

/// Beneath each: what is too small for its own pattern.
double under(double x, double y, Detail detail, double coarsest) {
    detail.coarsest = std::max(std::min(detail.coarsest, coarsest), detail.finest);
    return stone(x, y, detail);
}

/// Bristles, each thirty times as long as wide, light ones and dark ones, combed one way; between long ones shorter.
double hairs(double x, double y, const Detail& detail) {
    double sum = 0.35 * under(x, y, detail, 0.2);
    double longest = std::min(1.0, detail.coarsest);
    for (int layer = 0; layer < 5 && longest / 30 > detail.finest / 2; ++layer, longest /= 3.5) {
        const double u = x / longest, v = y / longest;
        double strongest = 0;
        for (int j = whole(v); j <= whole(v) + 1; ++j)  // they hang down from their roots
            for (int i = whole(u) - 1; i <= whole(u) + 1; ++i)
                for (int of_two = 0; of_two < 2; ++of_two) {
                    const int salt = 40 + 8 * layer + 4 * of_two;
                    const double right = u - i - shoot::lattice_hash(i, j, salt);
                    const double down = j + shoot::lattice_hash(i, j, salt + 1) - v;
                    const double slant = 0.35 + 0.6 * even(i, j, salt + 2);
                    const double longer = std::sqrt(1 + slant * slant);
                    const double along = (down + slant * right) / longer;
                    if (along < 0 || along > 1) continue;
                    const double half_width = (1 - along) / 30;  // to a point
                    const double seen = line((right - slant * down) / longer, half_width, detail.finest / longest);
                    const double tone = even(i, j, salt + 3) < 0.2 ? 1.0 : -1.5;  // the light ones are more
                    if (seen * std::abs(tone) > std::abs(strongest)) strongest = seen * tone;
                }
        sum += 0.8 * strongest;
    }
    return sum;
}

/// Skin and leather: pits about 0.8 mm apart, and the furrows between them.
double pores(double x, double y, const Detail& detail) {
    double sum = 0.7 * under(x, y, detail, 0.3);
    double apart = 0.8;
    for (int layer = 0; layer < 5 && apart > detail.finest; ++layer, apart /= 5) {
        const auto at = nearest_point(x / apart, y / apart, 70 + 2 * layer);
        constexpr double pit = 0.13, furrow = 0.035;  // of the distance apart
        const double finest = detail.finest / apart;
        const double pits = line(at.distance, pit, finest), covered = 3.14 * pit * pit;
        const double edges = line((at.second - at.distance) / 2, furrow, finest), lined = bounded * furrow;
        sum += told_apart(apart * 0.4, detail.finest) * (1.1 * (covered - pits) + 0.7 * (lined - edges));
    }
    return sum;
}

/// Plain weave of threads 0.4 mm apart, each of plies and fibres that wind about it.
double weave(double x, double y, const Detail& detail) {
    constexpr double apart = 0.4, ply = 0.06, fibre = 0.015, fibril = 0.003, twist = 0.35;  // mm; radians
    const double pi = std::numbers::pi;
    const int column = whole(x / apart), row = whole(y / apart);
    const bool upright = (column + row) % 2 == 0;  // which thread lies on top here
    const double own_x = x - (column + 0.5) * apart, own_y = y - (row + 0.5) * apart;
    const double across = upright ? own_x : own_y, along = upright ? own_y : own_x;
    // Round across itself, dipping under its neighbours at both ends.
    const double round = std::cos(pi * across / apart) + 0.5 * std::cos(pi * along / apart) - 1.5 * 2 / pi;
    const double shade = 1.2 * round * told_apart(apart, detail.finest);
    const auto wound = turned(along, across, twist);
    const double wobble = 0.2 * static_cast<double>(noise(x / 0.1, y / 0.1));
    const auto strands = [&](double width, int salt) {
        const double place = wound.across / width + wobble;
        const int strand = whole(place);
        const double gap = line(place - strand - 0.5, 0.5 - 0.12, detail.finest / width) - 0.76;
        return told_apart(width, detail.finest) * (1.2 * gap + 0.5 * even(strand + 64 * column, row, salt));
    };
    return shade + 0.5 * strands(ply, 90) + 0.6 * strands(fibre, 91) + 0.6 * strands(fibril, 92) +
           0.5 * under(x, y, detail, fibre);
}

/// A leaf, a petal, a wing: a net of veins, and cells of 0.04 mm between them.
double leaf(double x, double y, const Detail& detail) {
    constexpr double wall = 0.07;  // of a cell
    double sum = 0.6 * texture(x, y, detail) + 1.3 * (veined(detail) - veins(x, y, detail));
    sum += 0.3 * under(x, y, detail, 0.04);
    int salt = 100;
    for (const double cell : {0.04, 0.005}) {  // and what is in the cells
        salt += 4;
        const double seen = told_apart(cell * 0.4, detail.finest);
        if (!(seen > 0)) break;
        const auto at = nearest_point(x / cell, y / cell, salt);
        const double walls = line((at.second - at.distance) / 2, wall, detail.finest / cell);
        sum += seen * (0.5 * even(at.i, at.j, salt + 2) + bounded * wall - walls);
    }
    return sum;
}

/// Sugar, salt, crumb, snow: facets with sharp edges, each of its own tone, of several sizes.
double crystals(double x, double y, const Detail& detail) {
    double sum = 0.3 * under(x, y, detail, 0.4);
    double size = std::min(0.5, detail.coarsest), strong = 0.7;
    for (int layer = 0; layer < 5 && size > detail.finest; ++layer, size /= 4, strong *= 0.85) {
        const auto at = nearest_point(x / size, y / size, 120 + 8 * layer);
        // As sharp as the finest detail: half way to its neighbour's at the edge, whose tone is not known here.
        const double inside = std::clamp((at.second - at.distance) / (detail.finest / size), 0.0, 1.0);
        sum += strong * told_apart(size, detail.finest) * inside * even(at.i, at.j, 124 + 8 * layer);
    }
    return sum;
}

/// Metal, glass, horn: hair-fine scratches along the polish and across it.
double scratches(double x, double y, const Detail& detail) {
    double sum = 0.3 * under(x, y, detail, 0.1);
    constexpr double bearings[] = {0.25, 0.32, 1.9};
    int salt = 150;
    for (double apart = std::min(1.0, detail.coarsest); apart > 2 * detail.finest && salt < 210; apart /= 3)
        for (const double bearing : bearings) {
            salt += 2;
            const auto at = turned(x, y, bearing + 0.05 * even(salt, 0, 1));
            const double place = at.across / apart;
            const int lane = whole(place);
            const double length = apart * 12, along = at.along / length + shoot::lattice_hash(lane, 0, salt);
            const int piece = whole(along);
            const double from = 0.5 * shoot::lattice_hash(lane, piece, salt + 1);
            if (along - piece < from || along - piece > from + 0.4) continue;
            const double middle = 0.2 + 0.6 * shoot::lattice_hash(piece, lane, salt + 1);
            const double tone = (lane + piece) % 2 == 0 ? 1.0 : -1.0;  // by how the light strikes it
            sum += tone * 1.4 * line(place - lane - middle, 0.02, detail.finest / apart);
        }
    return sum;
}

/// Print on card: dots of a screen of 60 lines to the centimetre, larger where it is darker, on fibres and their chalk.
double print(double x, double y, const Detail& detail) {
    constexpr double apart = 1 / 6.0, fibre = 0.05, chalk = 0.003;  // mm
    const double ink = std::clamp(
        0.45 + 0.5 * texture(x, y, {.coarsest = detail.coarsest, .finest = std::max(detail.finest, 2 * apart)}), 0.1,
        0.75);
    const auto at = turned(x / apart, y / apart, std::numbers::pi / 4);
    const double off = std::hypot(at.along - std::round(at.along), at.across - std::round(at.across));
    const double seen = told_apart(apart, detail.finest);
    const double dot = line(off, std::sqrt(ink / std::numbers::pi), detail.finest / apart);
    return 1.6 * (0.45 - (seen * dot + (1 - seen) * ink)) + 0.6 * under(x, y, detail, fibre) +
           0.8 * under(x, y, detail, chalk);
}

/// A rule: a tick every millimetre from the middle on, longer ones every five and ten, on plain ground.
double ticks(double x, double y, const Detail& detail) {
    constexpr double half_width = 0.09, up = 1.2;  // mm, of a tick, and how far up from the middle the short ones go
    const double nearest = std::round(x);
    const auto number = static_cast<long>(nearest);
    const double length = number % 10 == 0 ? 3 * up : number % 5 == 0 ? 2 * up : up;
    const double covered = 2 * half_width;
    const double seen = told_apart(1, detail.finest);
    const bool there = y < length;  // they stand on the lower edge
    const double drawn = there ? seen * line(x - nearest, half_width, detail.finest) + (1 - seen) * covered : 0;
    return -1.4 * drawn + 0.1 * under(x, y, detail, 0.1);
}

}  // namespace

double texture(double x, double y, const Detail& detail) {
    // Each octave weaker than the one before, though not by half: the finest is what shows sharpness.
    constexpr double weaker = 0.88;
    double sum = 0, weight = 1, size = detail.coarsest;
    for (int octave = 0; octave < 24 && size >= detail.finest; ++octave) {
        sum += weight * noise(x / size + 37.3 * octave, y / size + 11.7 * octave);
        size /= 2;
        weight *= weaker;
    }
    return sum * 0.45;
}

double veins(double x, double y, const Detail& detail) {
    double strongest = 0, size = detail.coarsest / 2;
    for (int i = 0; i < vein_sizes(detail); ++i, size /= between_veins) {  // no two sizes run along one another
        const double off = std::abs(static_cast<double>(noise(x / size - 91.4 * i, y / size + 53.9 * i)));
        // The value changes by about 1.5 in a size; the edge is as sharp as the finest detail.
        const double edge = std::max(1.5 * detail.finest / size, 1e-6);
        strongest = std::max(strongest, std::clamp((vein_half_width - off) / edge + 0.5, 0.0, 1.0));
    }
    return strongest;
}

double pattern_of(shoot::Texture kind, double x, double y, const Detail& detail) {
    switch (kind) {
        case shoot::Texture::hairs:
            return hairs(x, y, detail);
        case shoot::Texture::pores:
            return pores(x, y, detail);
        case shoot::Texture::weave:
            return weave(x, y, detail);
        case shoot::Texture::veins:
            return leaf(x, y, detail);
        case shoot::Texture::crystals:
            return crystals(x, y, detail);
        case shoot::Texture::scratches:
            return scratches(x, y, detail);
        case shoot::Texture::print:
            return print(x, y, detail);
        case shoot::Texture::ticks:
            return ticks(x, y, detail);
        case shoot::Texture::usual:
        case shoot::Texture::stone:
            break;
    }
    return stone(x, y, detail);
}

}  // namespace poquito::render
