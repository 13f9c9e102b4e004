#include "imaging/inspect/lost_detail.hpp"

#include "imaging/inspect/median.hpp"
#include "imaging/inspect/stack_look.hpp"
#include "imaging/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace poquito::imaging {
namespace {

constexpr int square_cells = 6;  // cells: wide enough that a frame may stand a little elsewhere
constexpr float no_detail = -1e9f;

/// Means over squares of so many cells.
CellMap squares(const CellMap& map) {
    CellMap means(map.columns / square_cells, map.rows / square_cells);
    constexpr float each = 1.0f / (square_cells * square_cells);
    for (int row = 0; row < means.rows * square_cells; ++row)
        for (int column = 0; column < means.columns; ++column) {
            const float* from = map.values.data() +
                                static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns) +
                                static_cast<std::size_t>(column) * square_cells;
            means.at(column, row / square_cells) += std::accumulate(from, from + square_cells, 0.0f) * each;
        }
    return means;
}

/// log(middling / coarse) of each square; `no_detail` where one drowns in noise.
CellMap shares(const FrameScan& frame, const CellMap& middling_noise, const CellMap& coarse_noise) {
    CellMap middling = squares(frame.middling);
    const CellMap coarse = squares(frame.coarse);
    for (std::size_t i = 0; i < middling.values.size(); ++i) {
        constexpr float clearly = 4;
        const float noise = std::max(1.0f, middling_noise.values[i]), wide = std::max(1.0f, coarse_noise.values[i]);
        const float own = std::max(0.1f * noise, middling.values[i] - middling_noise.values[i]);
        middling.values[i] = coarse.values[i] < clearly * wide ? no_detail : std::log(own / coarse.values[i]);
    }
    return middling;
}

}  // namespace

std::vector<std::optional<double>> detail_against_neighbours(const std::vector<const FrameScan*>& frames) {
    std::vector<std::optional<double>> against(frames.size());
    if (frames.size() < 3) return against;
    // Noise is that of the camera: a few say what it is.
    const std::size_t count = frames.size();
    const std::vector<const FrameScan*> some = {frames[count / 6], frames[count / 2], frames[count - 1 - count / 6]};
    const CellMap& level = frames[count / 2]->level;
    CellMap middling_noise, coarse_noise;
    at_once([&] { middling_noise = squares(noise_of(some, level, &FrameScan::middling)); },
            [&] { coarse_noise = squares(noise_of(some, level, &FrameScan::coarse)); });
    std::vector<CellMap> all(frames.size());
    for_each_of(static_cast<int>(frames.size()), [&](int i) {
        const auto f = static_cast<std::size_t>(i);
        all[f] = shares(*frames[f], middling_noise, coarse_noise);
    });
    // Where those beside it show nothing fine either, nothing can be lost.
    const float told = std::log(0.05f);
    for (std::size_t f = 1; f + 1 < frames.size(); ++f) {
        std::vector<double> here;
        for (std::size_t i = 0; i < all[f].values.size(); ++i) {
            const float before = all[f - 1].values[i], own = all[f].values[i], after = all[f + 1].values[i];
            if (before < told || after < told || own == no_detail) continue;
            here.push_back(static_cast<double>(own - (before + after) / 2));
        }
        constexpr std::size_t enough = 16;  // squares
        if (here.size() >= enough) against[f] = median(std::move(here));
    }
    return against;
}

}  // namespace poquito::imaging
