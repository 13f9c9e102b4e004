#include "imaging/inspect/rule_reader.hpp"

#include "imaging/inspect/median.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace poquito::imaging {
namespace {

constexpr double sample_step = 0.25;  // pixels, along a profile

/// Between the pixels by their weights; beyond the edge the edge goes on.
double sample(const GreyImage& image, double x, double y) {
    x = std::clamp(x, 0.0, image.width - 1.0);
    y = std::clamp(y, 0.0, image.height - 1.0);
    const int x0 = std::min(static_cast<int>(x), std::max(0, image.width - 2));
    const int y0 = std::min(static_cast<int>(y), std::max(0, image.height - 2));
    const int x1 = std::min(x0 + 1, image.width - 1), y1 = std::min(y0 + 1, image.height - 1);
    const double u = x - x0, v = y - y0;
    return std::lerp(std::lerp(double{image.at(x0, y0)}, double{image.at(x1, y0)}, u),
                     std::lerp(double{image.at(x0, y1)}, double{image.at(x1, y1)}, u), v);
}

/// Direction in which brightness changes most about a place: the first axis of the structure tensor (Bigun and
/// Granlund 1987), gradients by central differences over two pixels.
std::optional<double> gradient_direction(const GreyImage& image, Place at, double radius) {
    double xx = 0, xy = 0, yy = 0;
    for (double y = at.y - radius; y <= at.y + radius; ++y)
        for (double x = at.x - radius; x <= at.x + radius; ++x) {
            const double gx = sample(image, x + 1, y) - sample(image, x - 1, y);
            const double gy = sample(image, x, y + 1) - sample(image, x, y - 1);
            xx += gx * gx;
            xy += gx * gy;
            yy += gy * gy;
        }
    // Without a leading axis there is no line: noise alone is the same all round.
    const double difference = std::hypot(xx - yy, 2 * xy);
    if (!(difference > 0.2 * (xx + yy))) return std::nullopt;
    double angle = 0.5 * std::atan2(2 * xy, xx - yy);
    if (angle <= -std::numbers::pi / 2) angle += std::numbers::pi;
    return angle;
}

/// Mean brightness of a strip, along a direction. `offset` and `half_width` of the strip across it.
std::vector<double> profile(const GreyImage& image, Place at, double direction, double reach, double offset,
                            double half_width) {
    const double ux = std::cos(direction), uy = std::sin(direction);
    std::vector<double> values;
    for (double t = -reach; t <= reach + 1e-9; t += sample_step) {
        double sum = 0;
        int count = 0;
        for (double s = offset - half_width; s <= offset + half_width + 1e-9; ++s, ++count)
            sum += sample(image, at.x + t * ux - s * uy, at.y + t * uy + s * ux);
        values.push_back(sum / count);
    }
    return values;
}

/// A profile as what stands out of it, positive, whichever is darker or lighter.
std::vector<double> standing_out(std::vector<double> values) {
    const double ground = median(values);
    const auto [low, high] = std::ranges::minmax(values);
    const double sign = ground - low > high - ground ? -1 : 1;
    for (double& value : values) value = std::max(0.0, sign * (value - ground));
    return values;
}

struct Line {
    double at = 0;  // index into the profile, weighted middle
    double peak = 0;
};

/// Stretches above half of the strongest line.
std::vector<Line> lines_in(const std::vector<double>& out) {
    constexpr double visible = 0.03;  // of full brightness
    const double strongest = std::ranges::max(out);
    std::vector<Line> lines;
    if (strongest < visible) return lines;
    for (std::size_t i = 0; i < out.size(); ++i) {
        if (out[i] < strongest / 2) continue;
        std::size_t begin = i, end = i;
        while (end + 1 < out.size() && out[end + 1] >= strongest / 2) ++end;
        const std::size_t next = end;
        // The flanks belong to the line; they hold the middle still where noise nibbles at the top.
        while (begin > 0 && out[begin - 1] > strongest * 0.15 && out[begin - 1] <= out[begin]) --begin;
        while (end + 1 < out.size() && out[end + 1] > strongest * 0.15 && out[end + 1] <= out[end]) ++end;
        Line line;
        double weight = 0;
        for (std::size_t j = begin; j <= end; ++j) {
            line.at += static_cast<double>(j) * out[j];
            weight += out[j];
            line.peak = std::max(line.peak, out[j]);
        }
        line.at /= weight;
        lines.push_back(line);
        i = next;
    }
    return lines;
}

/// Pixels from the middle of the profile to the nearest line.
std::optional<double> nearest_line(const std::vector<double>& values, double reach) {
    std::optional<double> best;
    for (const Line& line : lines_in(standing_out(values))) {
        const double t = line.at * sample_step - reach;
        if (!best || std::abs(t) < std::abs(*best)) best = t;
    }
    return best;
}

double half_turn(double angle) {
    while (angle > std::numbers::pi / 2) angle -= std::numbers::pi;
    while (angle <= -std::numbers::pi / 2) angle += std::numbers::pi;
    return angle;
}

/// Where the parts of a tick stand across it, as a straight line over the place along it.
struct LineFit {
    double offset = 0;  // at the tick's place, pixels
    double slope = 0;   // pixels across a pixel along
    double uncertainty = 0;
};
std::optional<LineFit> fit_line(const GreyImage& image, const Tick& tick, double reach, double strip) {
    constexpr int parts = 9;
    std::vector<std::pair<double, double>> points;
    for (int i = 0; i < parts; ++i) {
        const double along = (i - (parts - 1) / 2.0) * 2 * strip / parts;
        if (const auto t = nearest_line(profile(image, tick.place, tick.normal, reach, along, strip / parts), reach))
            points.emplace_back(along, *t);
    }
    if (points.size() < 4) return std::nullopt;
    const auto n = static_cast<double>(points.size());
    double s = 0, t = 0, ss = 0, st = 0;
    for (const auto& [along, across] : points) {
        s += along;
        t += across;
        ss += along * along;
        st += along * across;
    }
    LineFit fit{.slope = (n * st - s * t) / (n * ss - s * s)};
    fit.offset = (t - fit.slope * s) / n;
    double rest = 0;
    for (const auto& [along, across] : points) rest += std::pow(across - fit.offset - fit.slope * along, 2);
    constexpr double least = 0.05;  // pixels: below it the sampling itself counts
    fit.uncertainty = std::max(least, std::sqrt(rest / (n - 2) / n));
    return fit;
}

}  // namespace

std::optional<Tick> find_tick(const GreyImage& image, Place near, double reach) {
    if (image.width < 3 || image.height < 3) return std::nullopt;
    const auto direction = gradient_direction(image, near, reach);
    if (!direction) return std::nullopt;
    const double strip = std::clamp(reach / 2, 2.0, 12.0);
    const auto middle = nearest_line(profile(image, near, *direction, reach, 0, strip / 2), reach);
    if (!middle) return std::nullopt;
    Tick tick{.place = {near.x + *middle * std::cos(*direction), near.y + *middle * std::sin(*direction)},
              .normal = *direction};
    // The gradients give the direction roughly; a straight line through parts of the tick gives it well.
    for (int round = 0; round < 3; ++round) {
        const auto line = fit_line(image, tick, reach, strip);
        if (!line) return std::nullopt;
        tick.place.x += line->offset * std::cos(tick.normal);
        tick.place.y += line->offset * std::sin(tick.normal);
        tick.normal = half_turn(tick.normal - std::atan(line->slope));
        tick.uncertainty = line->uncertainty;
    }
    // The point of that line nearest to the mark.
    const double across =
        (tick.place.x - near.x) * std::cos(tick.normal) + (tick.place.y - near.y) * std::sin(tick.normal);
    tick.place = {near.x + across * std::cos(tick.normal), near.y + across * std::sin(tick.normal)};
    return tick;
}

int ticks_between(const GreyImage& image, Place from, Place to) {
    const double length = std::hypot(to.x - from.x, to.y - from.y);
    if (length < 4 || image.width < 3 || image.height < 3) return 0;
    const Place middle{(from.x + to.x) / 2, (from.y + to.y) / 2};
    const double direction = std::atan2(to.y - from.y, to.x - from.x);
    const auto lines = lines_in(standing_out(profile(image, middle, direction, length / 2, 0, 2)));
    const double margin = std::max(2.0, length * 0.01);  // the marked ticks themselves stand at the ends
    return static_cast<int>(std::ranges::count_if(lines, [&](const Line& line) {
        const double t = line.at * sample_step;
        return t > margin && t < length - margin;
    }));
}

RuleReading read_rule(const RuleMarks& marks) {
    const double dx = marks.second.x - marks.first.x, dy = marks.second.y - marks.first.y;
    double pixels = std::hypot(dx, dy);
    if (marks.first_tick && marks.second_tick) {
        // Two parallel lines: only what lies across them counts. Their directions as doubled angles, so that they mean
        // the same either way round.
        const double twice_x = std::cos(2 * marks.first_tick->normal) + std::cos(2 * marks.second_tick->normal);
        const double twice_y = std::sin(2 * marks.first_tick->normal) + std::sin(2 * marks.second_tick->normal);
        const double normal = 0.5 * std::atan2(twice_y, twice_x);
        pixels = std::abs(dx * std::cos(normal) + dy * std::sin(normal));
    }
    const auto mark = [](const std::optional<Tick>& tick) { return tick ? tick->uncertainty : hand_mark_uncertainty; };
    RuleReading reading{.magnification = pixels * marks.pixel_pitch / marks.distance, .pixels = pixels};
    if (pixels > 0)
        reading.uncertainty =
            reading.magnification * std::hypot(mark(marks.first_tick) / pixels, mark(marks.second_tick) / pixels,
                                               rule_uncertainty / marks.distance);
    return reading;
}

}  // namespace poquito::imaging
