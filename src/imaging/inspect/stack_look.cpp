#include "imaging/inspect/stack_look.hpp"

#include "imaging/inspect/median.hpp"
#include "imaging/parallel.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace poquito::imaging {
namespace {

constexpr int tile_cells = 6;  // across a tile

/// Of what stands about each in the run, itself in it.
std::vector<double> running_median(const std::vector<double>& values, int reach) {
    std::vector<double> out;
    for (int i = 0; i < static_cast<int>(values.size()); ++i) {
        const int from = std::max(0, i - reach), to = std::min(static_cast<int>(values.size()), i + reach + 1);
        out.push_back(median({values.begin() + from, values.begin() + to}));
    }
    return out;
}

/// The mean over a square as large as a tile about a place, what lies past the edge left out; its rim by as much as it
/// is covered.
float mean_about(const CellMap& map, double x, double y) {
    constexpr int reach = tile_cells / 2;
    const int left = static_cast<int>(std::floor(x)) - reach, top = static_cast<int>(std::floor(y)) - reach;
    const auto right_part = static_cast<float>(x - std::floor(x)), lower_part = static_cast<float>(y - std::floor(y));
    constexpr int wide = 2 * reach + 1;
    float sum = 0, weights = 0;
    for (int row = std::max(0, top); row <= std::min(map.rows - 1, top + wide); ++row) {
        const float down = row == top ? 1 - lower_part : row == top + wide ? lower_part : 1;
        for (int column = std::max(0, left); column <= std::min(map.columns - 1, left + wide); ++column) {
            const float across = column == left ? 1 - right_part : column == left + wide ? right_part : 1;
            sum += down * across * map.at(column, row);
            weights += down * across;
        }
    }
    return weights > 0 ? sum / weights : 0;
}

/// Means over tiles of one frame as it lies on the run's middle frame; `unseen` past its edge.
CellMap on_tiles(const CellMap& map, const Similarity& to_frame, int columns, int rows) {
    CellMap out(columns, rows);
    const double mid_x = (map.columns - 1) / 2.0, mid_y = (map.rows - 1) / 2.0;
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const Place there =
                to_frame({(column + 0.5) * tile_cells - 0.5 - mid_x, (row + 0.5) * tile_cells - 0.5 - mid_y});
            const double x = there.x + mid_x, y = there.y + mid_y;
            constexpr double edge = tile_cells / 2.0 - 1;
            const bool outside = x < edge || y < edge || x > map.columns - 1 - edge || y > map.rows - 1 - edge;
            out.at(column, row) = outside ? unseen : mean_about(map, x, y);
        }
    return out;
}

}  // namespace

CellMap spread_out(const CellMap& in) {
    CellMap across(in.columns, in.rows), out(in.columns, in.rows);
    constexpr int reach = tile_cells / 2;
    for (int y = 0; y < in.rows; ++y)
        for (int x = 0; x < in.columns; ++x) {
            const int from = std::max(0, x - reach), to = std::min(in.columns - 1, x + reach);
            float sum = 0;
            for (int i = from; i <= to; ++i) sum += in.at(i, y);
            across.at(x, y) = sum / static_cast<float>(to - from + 1);
        }
    // Down by whole rows, as they lie in memory.
    const auto columns = static_cast<std::size_t>(in.columns);
    const auto row = [&](CellMap& map, int y) { return map.values.data() + static_cast<std::size_t>(y) * columns; };
    for (int y = 0; y < in.rows; ++y) {
        const int from = std::max(0, y - reach), to = std::min(in.rows - 1, y + reach);
        float* sum = row(out, y);
        for (int j = from; j <= to; ++j) {
            const float* one = row(across, j);
            for (std::size_t x = 0; x < columns; ++x) sum[x] += one[x];
        }
        const float each = 1 / static_cast<float>(to - from + 1);
        for (std::size_t x = 0; x < columns; ++x) sum[x] *= each;
    }
    return out;
}

double Neighbour::shift() const { return std::hypot(shift_x, shift_y); }

bool StackLook::moved(std::size_t neighbour) const {
    const auto& one = neighbours[neighbour];
    if (!one.found) return false;
    constexpr double least = 2, times = 5;  // px; of the median deviation
    return one.shift() > std::max(least, times * steady);
}

CellMap noise_of(const std::vector<const FrameScan*>& frames, const CellMap& level, CellMap FrameScan::*of) {
    constexpr std::size_t bins = 16;
    std::array<std::vector<float>, bins> seen;
    const auto bin_of = [](float value) {
        return std::min(bins - 1, static_cast<std::size_t>(std::max(0.0f, value) / 256 * static_cast<float>(bins)));
    };
    // Some of a long run are enough.
    constexpr std::size_t enough = 16;
    const std::size_t apart = (frames.size() + enough - 1) / enough;
    for (std::size_t f = apart / 2; f < frames.size(); f += apart) {
        const FrameScan* frame = frames[f];
        const CellMap detail = spread_out(frame->*of);
        const std::size_t stride = std::max<std::size_t>(1, frames.size() / apart / 8);
        for (std::size_t i = 0; i < detail.values.size(); i += stride)
            seen[bin_of(frame->level.values[i])].push_back(detail.values[i]);
    }
    std::array<float, bins> quiet{};
    float all = 0;
    for (std::size_t i = 0; i < bins; ++i) {
        auto& values = seen[i];
        if (values.size() < 50) continue;
        const auto at = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 12);
        std::ranges::nth_element(values, at);
        quiet[i] = *at;
        all = std::max(all, *at);
    }
    for (std::size_t i = 0; i < bins; ++i)  // a level that is seldom: as its neighbours
        if (seen[i].size() < 50) {
            float near = 0;
            for (std::size_t off = 1; off < bins && near == 0; ++off) {
                if (i >= off && seen[i - off].size() >= 50) near = quiet[i - off];
                if (near == 0 && i + off < bins && seen[i + off].size() >= 50) near = quiet[i + off];
            }
            quiet[i] = near;
        }
    CellMap noise(level.columns, level.rows);
    constexpr float margin = 1.25f;  // the quiet end lies below the mean
    // Never less than what rounding to code values makes of a slope without detail: a twelfth for each of the six parts
    // of two second differences, less by the four pixels that a mean is of. Wider ones see the steps of a gentle slope
    // one by one: 16 of a tile's 24 pixels each way, of which detail has to stand out 2.5 times.
    const float rounding = of == &FrameScan::coarse ? 0.55f : of == &FrameScan::middling ? 0.25f : 1.0f;
    for (std::size_t i = 0; i < noise.values.size(); ++i)
        noise.values[i] = std::max(rounding, margin * quiet[bin_of(level.values[i])]);
    return noise;
}

std::optional<StackLook> look_at_stack(const std::vector<const FrameScan*>& frames, const std::vector<bool>& spoilt,
                                       const std::function<bool()>& go_on) {
    const auto stopped = [&] { return go_on && !go_on(); };
    StackLook look;
    if (frames.size() < 2) return look;
    const std::size_t count = frames.size();
    const int cell = frames.front()->cell;
    std::vector<Registrable> pictures(count);
    for_each_of(static_cast<int>(count), [&](int i) {
        if (!stopped()) pictures[static_cast<std::size_t>(i)] = registrable(frames[static_cast<std::size_t>(i)]->small);
    });
    if (stopped()) return std::nullopt;
    std::vector<std::optional<Registration>> found(count - 1);
    for_each_of(static_cast<int>(count - 1), [&](int i) {
        const auto k = static_cast<std::size_t>(i);
        if (!stopped()) found[k] = registered(pictures[k], pictures[k + 1]);
    });
    if (stopped()) return std::nullopt;

    constexpr double unlike = 0.25;  // below it the two show nothing in common
    std::vector<double> dx, dy, turn;
    for (const auto& one : found) {
        const bool good = one && one->likeness > unlike;
        dx.push_back(good ? one->similarity.dx * cell : 0);
        dy.push_back(good ? one->similarity.dy * cell : 0);
        turn.push_back(good ? one->similarity.turn * 180 / std::numbers::pi : 0);
    }
    constexpr int about = 4;  // frames to either side that make up the drift
    const auto drift_x = running_median(dx, about), drift_y = running_median(dy, about),
               drift_turn = running_median(turn, about);
    std::vector<double> off;
    for (std::size_t i = 0; i + 1 < count; ++i) {
        const bool good = found[i] && found[i]->likeness > unlike;
        look.neighbours.push_back({.found = good,
                                   .shift_x = dx[i] - drift_x[i],
                                   .shift_y = dy[i] - drift_y[i],
                                   .turn = turn[i] - drift_turn[i],
                                   .scale = good ? found[i]->similarity.scale : 1});
        if (good) off.push_back(look.neighbours.back().shift());
    }
    look.steady = median(off);

    // Every frame as it lies on the middle one.
    const std::size_t middle = count / 2;
    std::vector<Similarity> to_frame(count);
    const auto of = [&](std::size_t i) { return look.neighbours[i].found ? found[i]->similarity : Similarity{}; };
    for (std::size_t f = middle; f + 1 < count; ++f) to_frame[f + 1] = of(f) * to_frame[f];
    for (std::size_t f = middle; f > 0; --f) to_frame[f - 1] = of(f - 1).inverse() * to_frame[f];

    look.to_frame = to_frame;
    for (auto& one : look.to_frame) one.dx *= cell, one.dy *= cell;

    const int columns = frames[middle]->detail.columns / tile_cells, rows = frames[middle]->detail.rows / tile_cells;
    look.tile = tile_cells * cell;
    if (columns < 2 || rows < 2) return look;
    DetailSeen seen, wider;
    for (auto* one : {&seen, &wider}) one->frames.resize(count);
    std::vector<CellMap> light(count);
    for_each_of(static_cast<int>(count), [&](int i) {
        const auto f = static_cast<std::size_t>(i);
        if (stopped()) return;
        seen.frames[f] = on_tiles(frames[f]->detail, to_frame[f], columns, rows);
        wider.frames[f] = on_tiles(frames[f]->middling, to_frame[f], columns, rows);
        light[f] = on_tiles(frames[f]->light, to_frame[f], columns, rows);
    });
    if (stopped()) return std::nullopt;

    // Light, place by place, where it is neither black nor clipped.
    std::vector<std::vector<double>> ratios(count);
    for (std::size_t tile = 0; tile < light[0].values.size(); ++tile) {
        std::vector<double> here;
        here.reserve(count);
        for (const auto& map : light) here.push_back(map.values[tile]);
        if (std::ranges::any_of(here, [](double value) { return value == unseen; })) continue;
        const double usual = median(here);
        if (usual < 0.004 || usual > 0.9) continue;
        for (std::size_t f = 0; f < count; ++f) ratios[f].push_back(std::log2(std::max(here[f], 1e-5) / usual));
    }
    for (auto& one : ratios) look.uneven.push_back(one.size() < 8 ? 0 : median(std::move(one)));

    // What a frame that is much darker or shaken shows of detail says nothing of where it was focused, or what moves.
    constexpr double much = 0.4;  // stops
    std::vector<bool> left_out;
    for (std::size_t f = 0; f < count; ++f)
        left_out.push_back(std::abs(look.uneven[f]) > much || (f < spoilt.size() && spoilt[f]));
    std::vector<const GreyImage*> contrasts;
    contrasts.reserve(count);
    for (const auto& picture : pictures) contrasts.push_back(&picture.fine);
    look.own = own_motions(contrasts, to_frame, left_out, tile_cells);
    for (auto& one : look.own)
        for (int* length : {&one.left, &one.top, &one.width, &one.height}) *length *= cell;

    const CellMap level = on_tiles(frames[middle]->level, {}, columns, rows);
    at_once([&] { seen.noise = noise_of(frames, level, &FrameScan::detail); },
            [&] { wider.noise = noise_of(frames, level, &FrameScan::middling); });
    const auto leave_out = [&](DetailSeen& one) {
        for (std::size_t f = 0; f < count; ++f)
            if (left_out[f]) std::ranges::fill(one.frames[f].values, unseen);
    };
    leave_out(seen);
    leave_out(wider);
    if (stopped()) return std::nullopt;
    // By the finest detail where enough of it stands out of the noise, else by that twice as wide.
    constexpr double enough = 0.5;  // of the tiles that show any
    const bool noisy = told_share(seen) < enough * told_share(wider);
    if (!noisy) {
        look.planes = focus_planes(seen, wider);
        return look;
    }
    auto& widest = seen;
    for_each_of(static_cast<int>(count), [&](int i) {
        const auto f = static_cast<std::size_t>(i);
        widest.frames[f] = on_tiles(frames[f]->coarse, to_frame[f], columns, rows);
    });
    widest.noise = noise_of(frames, level, &FrameScan::coarse);
    leave_out(widest);
    look.planes = focus_planes(wider, widest);
    if (look.planes) look.planes->detail = 2;
    return look;
}

}  // namespace poquito::imaging
