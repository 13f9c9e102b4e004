#include "score.hpp"

#include <array>
#include <limits>
#include <numeric>
#include <random>

namespace poquito::schedule {
namespace {

template <typename List>
auto at(List& list, std::size_t index) {
    return list.begin() + static_cast<std::ptrdiff_t>(index);
}

class OrderSearch {
  public:
    OrderSearch(const Problem& problem, const std::function<bool()>& go_on)
        : go_on_(go_on), scorer_(problem), n_(problem.duration.size()) {}

    /// One job after the other to where it costs least.
    std::vector<std::size_t> inserted(const std::vector<std::size_t>& jobs, const Problem& problem) {
        std::vector<std::size_t> order;
        for (const auto job : jobs) {
            std::size_t best = 0;
            double least = std::numeric_limits<double>::infinity();
            for (std::size_t k = 0; k <= order.size(); ++k) {
                double cost = 0;
                if (k > 0) cost += problem.change_between(order[k - 1], job);
                if (k < order.size()) cost += problem.change_between(job, order[k]);
                if (k > 0 && k < order.size()) cost -= problem.change_between(order[k - 1], order[k]);
                if (cost < least) least = cost, best = k;
            }
            order.insert(at(order, best), job);
        }
        return order;
    }

    /// Takes the first move that helps until none does.
    void improve(std::vector<std::size_t>& order) {
        auto score = scorer_(order);
        for (bool helped = true; helped && going();) {
            helped = false;
            for (std::size_t length = 1; length <= 3 && length < n_; ++length)
                for (std::size_t from = 0; from + length <= n_; ++from) {
                    for (std::size_t to = 0; to + length <= n_ && going(); ++to)
                        for (const bool turned : {false, true}) {
                            if (to == from || (turned && length == 1)) continue;
                            moved(order, from, length, to, turned);
                            helped |= taken(order, score);
                        }
                }
            for (std::size_t from = 0; from + 1 < n_; ++from)
                for (std::size_t to = from + 2; to <= n_ && going(); ++to) {
                    trial_ = order;
                    std::reverse(at(trial_, from), at(trial_, to));
                    helped |= taken(order, score);
                }
        }
    }

    /// Cuts the order into four and puts the two in the middle the other way round: no move of improve undoes that.
    std::vector<std::size_t> kicked(const std::vector<std::size_t>& order, std::mt19937& random) const {
        if (n_ < 4) return order;
        std::array<std::size_t, 3> cut{};
        for (auto& c : cut) c = std::uniform_int_distribution<std::size_t>(1, n_ - 1)(random);
        std::ranges::sort(cut);
        std::vector<std::size_t> made(order.begin(), at(order, cut[0]));
        made.insert(made.end(), at(order, cut[1]), at(order, cut[2]));
        made.insert(made.end(), at(order, cut[0]), at(order, cut[1]));
        made.insert(made.end(), at(order, cut[2]), order.end());
        return made;
    }

    Score score(const std::vector<std::size_t>& order) { return scorer_(order); }
    /// Not asked again once it said no.
    bool going() {
        stopped_ = stopped_ || (go_on_ && !go_on_());
        return !stopped_;
    }

  private:
    void moved(const std::vector<std::size_t>& order, std::size_t from, std::size_t length, std::size_t to,
               bool turned) {
        trial_ = order;
        const auto first = at(trial_, from), end = first + static_cast<std::ptrdiff_t>(length);
        if (turned) std::reverse(first, end);
        if (to < from)
            std::rotate(at(trial_, to), first, end);
        else
            std::rotate(first, end, at(trial_, to + length));
    }

    bool taken(std::vector<std::size_t>& order, Score& score) {
        const auto made = scorer_(trial_);
        if (!made.beats(score)) return false;
        order.swap(trial_);
        score = made;
        return true;
    }

    const std::function<bool()>& go_on_;
    Scorer scorer_;
    std::size_t n_;
    std::vector<std::size_t> trial_;
    bool stopped_ = false;
};

}  // namespace

Day searched_order(const Problem& problem, const std::function<bool()>& go_on) {
    const std::size_t n = problem.duration.size();
    std::vector<std::size_t> given(n);
    std::iota(given.begin(), given.end(), std::size_t{0});
    if (n < 2) return day_of(problem, given);
    OrderSearch search(problem, go_on);
    std::mt19937 random(1);  // the same shoot gives the same order

    // Inserted one after the other they are often far better than as given, and that takes next to no time.
    auto best = given;
    if (auto quick = search.inserted(given, problem); search.score(quick).beats(search.score(best)))
        best = std::move(quick);
    search.improve(best);
    auto best_score = search.score(best);
    constexpr int starts = 8, kicks = 12;
    for (int start = 0; start < starts && search.going(); ++start) {
        auto jobs = given;
        std::ranges::shuffle(jobs, random);
        auto order = search.inserted(jobs, problem);
        search.improve(order);
        auto score = search.score(order);
        for (int kick = 0; kick < kicks && search.going(); ++kick) {
            auto other = search.kicked(order, random);
            search.improve(other);
            if (const auto made = search.score(other); made.beats(score)) order = other, score = made;
        }
        if (score.beats(best_score)) best = order, best_score = score;
    }
    return day_of(problem, best);
}

}  // namespace poquito::schedule
