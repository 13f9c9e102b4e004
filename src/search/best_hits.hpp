#pragma once

#include "search/reach_search.hpp"

#include <algorithm>
#include <array>
#include <limits>
#include <span>
#include <tuple>
#include <vector>

/// What is kept of many hits: the best by every order of the measures, and those that nothing beats.
namespace poquito::search {

inline void mark_best_trades(std::vector<ReachFound>& found) {
    double least_loss = std::numeric_limits<double>::infinity();
    double distance = std::numeric_limits<double>::infinity();
    for (ReachFound& one : found) {  // sorted by falling working distance, then rising loss
        one.best_trade = one.loss < least_loss || (one.loss == least_loss && one.working_distance == distance);
        if (one.loss < least_loss) {
            least_loss = one.loss;
            distance = one.working_distance;
        }
    }
}

inline double measure_of(const ReachFound& one, ReachMeasure measure) {
    switch (measure) {
        case ReachMeasure::working_distance:
            return -one.working_distance;
        case ReachMeasure::loss:
            return one.loss;
        case ReachMeasure::pieces:
            return one.pieces;
        case ReachMeasure::optical_cost:
            break;
    }
    return one.optical_cost;
}

using MeasureOrder = std::array<ReachMeasure, 4>;

/// Those that are equal by all measures stand as the gear does, so that an order is always the same.
inline bool before(const ReachFound& a, const ReachFound& b, std::span<const ReachMeasure> order) {
    for (const ReachMeasure measure : order) {
        const double left = measure_of(a, measure), right = measure_of(b, measure);
        if (left != right) return left < right;
    }
    const auto pieces = [](const ReachFound& f) {
        return std::tie(f.camera, f.crop_mode, f.lens, f.zoom, f.reversing_ring, f.front_lens, f.front_zoom,
                        f.coupling_ring, f.closeups[0], f.closeups[1], f.converter, f.tubes, f.tubes_behind, f.bellows);
    };
    return pieces(a) < pieces(b);
}

/// See ReachKept.
class BestHits {
  public:
    explicit BestHits(const ReachKept& kept) : kept_(kept) {}

    void add(const ReachFound& found) {
        ++reached_;
        found_.push_back(found);
        if (found_.size() >= 2 * std::max<std::size_t>(kept_.all, 1)) thin_out();
    }
    ReachResult result() && {
        if (found_.size() > kept_.all) thin_out();
        rank(found_, {ReachMeasure::working_distance, ReachMeasure::loss});
        mark_best_trades(found_);
        return {.found = std::move(found_), .reached = reached_};
    }

  private:
    void thin_out() {
        // By working distance, what nothing beats in both is marked on the way.
        rank(found_, {ReachMeasure::working_distance, ReachMeasure::loss});
        mark_best_trades(found_);
        std::vector<bool> stays(found_.size());
        std::vector<std::size_t> places(found_.size());
        for (std::size_t i = 0; i < found_.size(); ++i) {
            stays[i] = found_[i].best_trade;
            places[i] = i;
        }
        const auto best = static_cast<std::ptrdiff_t>(std::min(kept_.best, places.size()));
        MeasureOrder order = {ReachMeasure::working_distance, ReachMeasure::loss, ReachMeasure::pieces,
                              ReachMeasure::optical_cost};
        do {
            std::ranges::nth_element(places, places.begin() + best,
                                     [&](std::size_t a, std::size_t b) { return before(found_[a], found_[b], order); });
            for (auto place = places.begin(); place != places.begin() + best; ++place) stays[*place] = true;
        } while (std::ranges::next_permutation(order).found);
        std::size_t to = 0;
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (stays[i]) found_[to++] = found_[i];
        found_.resize(to);
    }

    ReachKept kept_;
    std::vector<ReachFound> found_;
    std::size_t reached_ = 0;
};

}  // namespace poquito::search
