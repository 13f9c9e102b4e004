#include "imaging/inspect/frame_scan.hpp"

#include "imaging/colour.hpp"
#include "imaging/wide.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::imaging {
namespace {

constexpr int levels = 65536;  // of linear light
constexpr double mid_grey = 0.18;

/// Shares of luminance (ITU-R BT.709) of each code value, in steps of `levels`.
struct Shares {
    std::array<std::uint16_t, 256> red{}, green{}, blue{};
    Shares() {
        for (std::size_t i = 0; i < 256; ++i) {
            const double light = to_linear(static_cast<double>(i) / 255) * (levels - 1);
            red[i] = static_cast<std::uint16_t>(std::lround(0.2126 * light));
            green[i] = static_cast<std::uint16_t>(std::lround(0.7152 * light));
            blue[i] = static_cast<std::uint16_t>(std::lround(0.0722 * light));
        }
    }
};
const Shares& shares() {
    static const Shares made;
    return made;
}

/// Luma by the weights of ITU-R BT.601, in quarters of a code value.
POQUITO_WIDE void to_luma(const std::uint8_t* rgb, std::vector<std::int16_t>& out) {
    for (std::size_t x = 0; x < out.size(); ++x)
        out[x] = static_cast<std::int16_t>((77 * rgb[3 * x] + 150 * rgb[3 * x + 1] + 29 * rgb[3 * x + 2] + 32) >> 6);
}

POQUITO_WIDE void to_quarters(const std::uint8_t* luma, std::vector<std::int16_t>& out) {
    for (std::size_t x = 0; x < out.size(); ++x) out[x] = static_cast<std::int16_t>(4 * luma[x]);
}

double stops_of(double level) { return std::log2(std::max(level, 0.25) / (levels - 1) / mid_grey); }

/// The level below which that share of all lies.
double at_share(const std::vector<std::uint32_t>& histogram, std::uint64_t all, double share) {
    const double wanted = share * static_cast<double>(all);
    double below = 0;
    for (std::size_t i = 0; i < histogram.size(); ++i) {
        const double here = histogram[i];
        if (below + here >= wanted && here > 0) return static_cast<double>(i) + (wanted - below) / here - 0.5;
        below += here;
    }
    return static_cast<double>(histogram.size() - 1);
}

}  // namespace

double Structure::directed() const {
    const double sum = xx + yy;
    return sum > 0 ? std::hypot(xx - yy, 2 * xy) / sum : 0;
}

double Structure::least_along() const {
    const double most = std::atan2(2 * xy, xx - yy) / 2 * 180 / std::numbers::pi;
    return most > 0 ? most - 90 : most + 90;
}

FrameScanner::FrameScanner(int width, int height) : width_(width), height_(height) {
    // About 384 cells across whatever the camera, so that frames of all sizes are judged alike; small ones have fewer.
    cell_ = std::clamp(static_cast<int>(std::lround(std::max(width, height) / 384.0)), 4, 64);
    columns_ = std::max(1, width / cell_);
    rows_ = std::max(1, height / cell_);
    constexpr double enough = 0.25e6;  // pixels: more say nothing new of the light
    step_ = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(width) * height / enough)));
    step_ = std::min(step_, cell_);
    constexpr double large = 8e6;  // pixels
    rows_apart_ = static_cast<double>(width) * height >= large ? 2 : 1;
    histogram_.resize(levels);
    const auto cells = static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_);
    for (auto* sum : {&light_sum_, &level_sum_, &level_count_, &clipped_sum_, &light_count_}) sum->resize(cells);
    for (std::size_t i = 0; i < lines_.size(); ++i) lines_[i].start(1 << i, width, columns_, rows_);
    // Every second row of a large frame says as much, and takes half as long: means are of fewer rows, distances the
    // same.
    if (rows_apart_ == 2) lines_[0].apart = 1, lines_[1].single = true;
    lines_[0].spacing = rows_apart_, lines_[1].spacing = 2, lines_[2].spacing = 4;
    scan_.width = width;
    scan_.height = height;
    scan_.cell = cell_;
}

void FrameScanner::row(const std::uint8_t* rgb) {
    if (y_ % step_ == 0)
        measure_light([rgb](int x) {
            const auto* pixel = rgb + 3 * static_cast<std::ptrdiff_t>(x);
            return std::array<int, 3>{pixel[0], pixel[1], pixel[2]};
        });
    measure_detail([rgb](std::vector<std::int16_t>& to) { to_luma(rgb, to); });
}

void FrameScanner::row(const std::uint8_t* luma, const std::uint8_t* blue, const std::uint8_t* red, int shift) {
    if (y_ % step_ == 0) {
        // ITU-R BT.601 at full range, in 1024ths.
        const auto code = [](int value) { return std::clamp(value, 0, 255); };
        if (blue)
            measure_light([=](int x) {
                const int y = luma[x], b = blue[x >> shift] - 128, r = red[x >> shift] - 128;
                return std::array<int, 3>{code(y + ((1436 * r + 512) >> 10)),
                                          code(y - ((352 * b + 731 * r + 512) >> 10)),
                                          code(y + ((1815 * b + 512) >> 10))};
            });
        else
            measure_light([=](int x) { return std::array<int, 3>{luma[x], luma[x], luma[x]}; });
    }
    measure_detail([luma](std::vector<std::int16_t>& to) { to_quarters(luma, to); });
}

template <typename ToLuma>
void FrameScanner::measure_detail(const ToLuma& to_luma_of) {
    if (y_ % rows_apart_ == 0) {
        Lines& pixels = lines_[0];
        to_luma_of(pixels.last[static_cast<std::size_t>(pixels.count % 5)]);
        for (std::size_t i = 0; i < lines_.size(); ++i) {
            Lines& lines = lines_[i];
            if (i > 0) {
                const Lines& finer = lines_[i - 1];
                const int newest = finer.count - 1;
                if (!add_row(lines, finer.last[static_cast<std::size_t>(newest % 5)], newest)) break;
            }
            ++lines.count;
            if (lines.count > 2 * lines.apart) measure(lines);
            if (i + 1 == lines_.size() && lines.count % rows_apart_ == 0) measure_level(lines);
        }
        // Of large frames every sixteenth row of the file says as much.
        if (pixels.count > 2 * pixels.apart && pixels.count % (4 * rows_apart_) == 0) measure_structure(pixels);
    }
    ++y_;
}

/// Of the newest line of means.
void FrameScanner::measure_level(const Lines& lines) {
    const int row = std::min((lines.count - 1) * lines.spacing / cell_, rows_ - 1);
    const auto& line = lines.last[static_cast<std::size_t>((lines.count - 1) % 5)];
    if (line.empty()) return;  // narrower than a place of the coarsest means
    const int cell = std::max(1, cell_ / lines.factor), wide = static_cast<int>(line.size());
    for (int column = 0; column < columns_; ++column) {
        const int from = std::min(column * cell, wide - 1), to = std::min(wide, from + cell);
        std::int32_t sum = 0;
        for (int x = from; x < to; ++x) sum += line[static_cast<std::size_t>(x)];
        const auto i =
            static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column);
        level_sum_[i] += sum;
        level_count_[i] += 4 * (to - from);  // quarters of a code value
    }
}

template <typename PixelAt>
void FrameScanner::measure_light(const PixelAt& pixel_at) {
    const auto& share = shares();
    const int row = std::min(y_ / cell_, rows_ - 1);
    const int edge = std::max(2, columns_ / 16);
    const auto first = static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_);
    for (int column = 0, x = 0; column < columns_; ++column) {
        const int to = column + 1 == columns_ ? width_ : (column + 1) * cell_;
        const bool border = row < edge || column < edge || row >= rows_ - edge || column >= columns_ - edge;
        std::int32_t light = 0, clipped = 0, count = 0;  // of a row of a cell
        for (; x < to; x += step_, ++count) {
            const auto [r, g, b] = pixel_at(x);
            const std::array<int, 3> shared = {share.red[static_cast<std::size_t>(r)],
                                               share.green[static_cast<std::size_t>(g)],
                                               share.blue[static_cast<std::size_t>(b)]};
            const int luminance = std::min(shared[0] + shared[1] + shared[2], levels - 1);
            ++histogram_[static_cast<std::size_t>(luminance)];
            light += luminance;
            const int most = std::max({r, g, b});
            clipped += most >= 254;
            black_ += most <= 3;
            if (border)
                for (std::size_t c = 0; c < 3; ++c) border_sum_[c] += shared[c];
        }
        if (border) border_count_ += count;
        const auto i = first + static_cast<std::size_t>(column);
        light_sum_[i] += light;
        clipped_sum_[i] += clipped;
        light_count_[i] += count;
        clipped_ += static_cast<std::uint64_t>(clipped);
        looked_ += static_cast<std::uint64_t>(count);
    }
}

namespace {

/// Adds the squares of second differences across and down of a line, place by place. Short numbers, for the processor
/// to take many at once. `apart`: lines between those that are compared, as two pixels of the line lie apart.
POQUITO_WIDE void add_squares(const std::array<std::vector<std::int16_t>, 5>& lines, int newest, int apart,
                              std::int32_t* squares) {
    const auto line = [&](int back) { return lines[static_cast<std::size_t>((newest + 10 - back) % 5)].data(); };
    const auto *top = line(2 * apart), *middle = line(apart), *bottom = line(0);
    const int wide = static_cast<int>(lines[0].size());
    for (int x = 2; x < wide - 2; ++x) {
        const auto across =
            static_cast<std::int16_t>(static_cast<std::int16_t>(2 * middle[x] - middle[x - 2] - middle[x + 2]) >> 1);
        const auto down = static_cast<std::int16_t>(static_cast<std::int16_t>(2 * middle[x] - top[x] - bottom[x]) >> 1);
        squares[x] += across * across + down * down;
    }
}

/// Products of the slopes across and down of a line, over blocks that short sums hold.
POQUITO_WIDE void add_slopes(const std::int16_t* top, const std::int16_t* middle, const std::int16_t* bottom, int wide,
                             std::int64_t* products) {
    constexpr int block = 1024;  // of at most 1020^2
    for (int from = 2; from < wide - 2; from += block) {
        const int to = std::min(wide - 2, from + block);
        std::int32_t xx = 0, xy = 0, yy = 0;
        for (int x = from; x < to; ++x) {
            const auto across =
                           static_cast<std::int16_t>(static_cast<std::int16_t>(middle[x + 2] - middle[x - 2]) >> 1),
                       down = static_cast<std::int16_t>(static_cast<std::int16_t>(bottom[x] - top[x]) >> 1);
            xx += across * across;
            xy += across * down;
            yy += down * down;
        }
        products[0] += xx, products[1] += xy, products[2] += yy;
    }
}

}  // namespace

void FrameScanner::Lines::start(int factor_of, int width, int columns, int down) {
    factor = factor_of;
    for (auto& line : last) line.resize(static_cast<std::size_t>(width / factor));
    sums.resize(static_cast<std::size_t>(width / factor));
    row_squares.resize(static_cast<std::size_t>(width / factor));
    squares.resize(static_cast<std::size_t>(columns) * static_cast<std::size_t>(down));
    rows.resize(static_cast<std::size_t>(down));
}

namespace {

POQUITO_WIDE void add_pairs(const std::int16_t* finer, std::int16_t* sums, std::size_t count) {
    for (std::size_t x = 0; x < count; ++x) sums[x] = static_cast<std::int16_t>(finer[2 * x] + finer[2 * x + 1]);
}
POQUITO_WIDE void mean_pairs(const std::int16_t* finer, std::int16_t* line, std::size_t count) {
    for (std::size_t x = 0; x < count; ++x)
        line[x] = static_cast<std::int16_t>((finer[2 * x] + finer[2 * x + 1] + 1) >> 1);
}
POQUITO_WIDE void mean_fours(const std::int16_t* sums, const std::int16_t* finer, std::int16_t* line,
                             std::size_t count) {
    for (std::size_t x = 0; x < count; ++x)
        line[x] = static_cast<std::int16_t>((sums[x] + finer[2 * x] + finer[2 * x + 1] + 2) >> 2);
}

}  // namespace

/// A line of means of twice as many pixels each way from two of the level before. True: that makes another line.
bool FrameScanner::add_row(Lines& lines, const std::vector<std::int16_t>& finer, int of) {
    auto& line = lines.last[static_cast<std::size_t>(lines.count % 5)];
    if (lines.single) {
        mean_pairs(finer.data(), line.data(), line.size());
        return true;
    }
    if (of % 2 == 0) {
        add_pairs(finer.data(), lines.sums.data(), line.size());
        return false;
    }
    mean_fours(lines.sums.data(), finer.data(), line.data(), line.size());
    return true;
}

/// Of the line between those that are compared.
void FrameScanner::measure(Lines& lines) {
    const int y = (lines.count - 1 - lines.apart) * lines.spacing;
    const int row = y / cell_;
    if (row >= rows_) return;
    if (row != lines.row) sum_squares(lines);
    lines.row = row;
    add_squares(lines.last, (lines.count - 1) % 5, lines.apart, lines.row_squares.data());
    ++lines.rows[static_cast<std::size_t>(row)];
}

/// Of the row of cells that is over.
void FrameScanner::sum_squares(Lines& lines) {
    const int cell = std::max(1, cell_ / lines.factor), wide = static_cast<int>(lines.sums.size());
    double* sums = lines.squares.data() + static_cast<std::ptrdiff_t>(lines.row) * columns_;
    for (int column = 0; column < columns_; ++column) {
        const int from = std::max(2, column * cell), to = std::min(wide - 2, (column + 1) * cell);
        for (int x = from; x < to; ++x) sums[column] += lines.row_squares[static_cast<std::size_t>(x)];
    }
    std::ranges::fill(lines.row_squares, 0);
}

void FrameScanner::measure_structure(const Lines& lines) {
    const int newest = lines.count - 1;
    const auto line = [&](int back) { return lines.last[static_cast<std::size_t>((newest + 10 - back) % 5)].data(); };
    const auto *top = line(2 * lines.apart), *middle = line(lines.apart), *bottom = line(0);
    std::array<std::int64_t, 3> products{};
    add_slopes(top, middle, bottom, width_, products.data());
    constexpr double to_codes = 1.0 / 4;  // of halves of differences of quarters, squared
    scan_.structure.xx += to_codes * static_cast<double>(products[0]);
    scan_.structure.xy += to_codes * static_cast<double>(products[1]);
    scan_.structure.yy += to_codes * static_cast<double>(products[2]);
}

CellMap FrameScanner::map_of(const std::vector<double>& sums, const std::vector<double>& counts, double scale) const {
    CellMap map(columns_, rows_);
    for (std::size_t i = 0; i < map.values.size(); ++i)
        map.values[i] = counts[i] > 0 ? static_cast<float>(sums[i] / counts[i] * scale) : 0.0f;
    return map;
}

/// Halves of second differences were squared, of quarters of a code value: a quarter of sixteen times the square.
CellMap FrameScanner::mean_squares(const Lines& lines) const {
    CellMap map(columns_, rows_);
    const int cell = std::max(1, cell_ / lines.factor), wide = static_cast<int>(lines.sums.size());
    for (int row = 0; row < rows_; ++row)
        for (int column = 0; column < columns_; ++column) {
            const int across = std::min(wide - 2, (column + 1) * cell) - std::max(2, column * cell);
            const double places = static_cast<double>(lines.rows[static_cast<std::size_t>(row)]) * std::max(0, across);
            const auto i =
                static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column);
            if (places > 0) map.values[i] = static_cast<float>(lines.squares[i] / places / 4);
        }
    return map;
}

FrameScan FrameScanner::finish() {
    FrameScan scan = std::move(scan_);
    if (looked_ == 0) return scan;
    for (Lines& lines : lines_) sum_squares(lines);
    scan.light = map_of(light_sum_, light_count_, 1.0 / (levels - 1));
    scan.level = map_of(level_sum_, level_count_, 1);
    scan.clipped = map_of(clipped_sum_, light_count_, 1);
    scan.detail = mean_squares(lines_[0]);
    scan.middling = mean_squares(lines_[1]);
    scan.coarse = mean_squares(lines_[2]);
    scan.median_stops = stops_of(at_share(histogram_, looked_, 0.5));
    scan.brightest_stops = stops_of(at_share(histogram_, looked_, 0.99));
    scan.clipped_share = static_cast<double>(clipped_) / static_cast<double>(looked_);
    scan.black_share = static_cast<double>(black_) / static_cast<double>(looked_);
    constexpr std::array<double, 3> weights = {0.2126, 0.7152, 0.0722};
    for (std::size_t c = 0; c < 3; ++c)
        scan.border[c] = border_sum_[c] / weights[c] / (levels - 1) / std::max(1.0, border_count_);
    for (std::size_t level = 0; level < histogram_.size(); ++level) {
        if (histogram_[level] == 0) continue;
        const double place = (stops_of(static_cast<double>(level)) - LightHistogram::from) / LightHistogram::step;
        const auto last = static_cast<double>(scan.histogram.shares.size() - 1);
        scan.histogram.shares[static_cast<std::size_t>(std::clamp(place, 0.0, last))] +=
            static_cast<float>(histogram_[level]) / static_cast<float>(looked_);
    }
    scan.small = {.width = columns_, .height = rows_, .pixels = {}};
    scan.small.pixels.resize(scan.level.values.size());
    for (std::size_t i = 0; i < scan.small.pixels.size(); ++i) scan.small.pixels[i] = scan.level.values[i] / 255;
    return scan;
}

}  // namespace poquito::imaging
