#pragma once

#include "schedule/schedule.hpp"

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <vector>

namespace poquito::schedule {

inline constexpr double hair = 1e-6;  // s: sums of the same changes in another order differ by less

/// What decides between two days, in the order it does.
struct Score {
    std::size_t broken = 0;
    double late = 0;
    double cost = 0;  // work, or the finish where waiting counts
    double finish = 0;
    double work = 0;

    bool beats(const Score& other) const {
        if (broken != other.broken) return broken < other.broken;
        if (std::abs(late - other.late) > hair) return late < other.late;
        if (std::abs(cost - other.cost) > hair) return cost < other.cost;
        if (std::abs(finish - other.finish) > hair) return finish < other.finish;
        return work < other.work - hair;
    }
};

/// Scores an order without making a day of it.
class Scorer {
  public:
    explicit Scorer(const Problem& problem) : problem_(problem), place_(problem.duration.size()) {}

    Score operator()(const std::vector<std::size_t>& order) {
        Score score;
        double time = problem_.begin;
        for (std::size_t k = 0; k < order.size(); ++k) place_[order[k]] = k;
        for (std::size_t k = 0; k < order.size(); ++k) {
            const auto job = order[k];
            for (const auto first : problem_.after[job]) score.broken += place_[first] > k;
            const double change = k > 0                    ? problem_.change_between(order[k - 1], job)
                                  : problem_.first.empty() ? 0
                                                           : problem_.first[job];
            score.work += change;
            time = std::max(time + change, problem_.not_before[job].value_or(0)) + problem_.duration[job];
            if (problem_.done_by[job]) score.late += std::max(0.0, time - *problem_.done_by[job]);
        }
        score.finish = time;
        score.cost = problem_.waiting_counts ? time : score.work;
        return score;
    }

  private:
    const Problem& problem_;
    std::vector<std::size_t> place_;
};

}  // namespace poquito::schedule
