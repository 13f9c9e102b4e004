#pragma once

#include <cstddef>
#include <functional>
#include <optional>
#include <vector>

/// Jobs one after the other, each change between two at its price: the order that costs least. Knows nothing of what
/// the jobs are. Times in s, of day in s after midnight.
namespace poquito::schedule {

/// What has to be ordered, `n` jobs.
struct Problem {
    std::vector<double> duration;             // of each, its own handling included
    std::vector<std::vector<double>> change;  // from the set-up of the first index to that of the second
    /// Set-ups that each begins and ends with, as indices of `change`; empty: each job has one of its own.
    std::vector<std::size_t> enters, leaves;
    std::vector<double> first;                    // before each where it begins the day; empty: nothing
    std::vector<std::vector<std::size_t>> after;  // of each: the jobs that have to be done before it
    std::vector<std::optional<double>> not_before;
    std::vector<std::optional<double>> done_by;
    std::vector<std::vector<std::size_t>> blocks;  // jobs of which each follows the one before it at once
    double begin = 0;
    bool waiting_counts = false;  // idle time is no better than work: the day that ends first is the best

    double change_between(std::size_t job, std::size_t next) const {
        return change[leaves.empty() ? job : leaves[job]][enters.empty() ? next : enters[next]];
    }
};

struct Day {
    std::vector<std::size_t> order;
    std::vector<double> start;  // of each in that order, after its change and any wait
    double work = 0;            // all changes
    double waiting = 0;
    double finish = 0;
    double late = 0;         // s past all `done_by` together
    std::size_t broken = 0;  // "after" relations that do not hold, and places where a block is split
    bool feasible() const { return late <= 0 && broken == 0; }
};
/// The day in that order.
Day day_of(const Problem& problem, std::vector<std::size_t> order);

/// Whether `one` is the better day of the problem: keeps more relations, is less late, takes less work (with the
/// waiting where that counts), ends earlier, takes less work.
bool better(const Problem& problem, const Day& one, const Day& other);

/// The best of the orders that keep everything, as `better` has it. Dynamic programming
/// over sets of jobs and the last of them (Held and Karp 1962), with all pairs of time and work that no other pair
/// beats, bounded by a searched order. Empty where no order keeps everything, and where `go_on` said to stop. For up to
/// `most_exact` free jobs.
std::optional<Day> exact_order(const Problem& problem, const std::function<bool()>& go_on = {});
inline constexpr std::size_t most_exact = 17;

/// How many jobs can change places: all but one that comes after all the others. `most_exact` counts these.
std::size_t free_jobs(const Problem& problem);

/// A good order for any number: cheapest insertion, then moves of up to three neighbours and turned-round stretches
/// until none helps, from many starts. Never worse than the order given. `go_on` false: the best so far; it is asked at
/// least every few milliseconds, whatever the number of jobs up to some thousands.
Day searched_order(const Problem& problem, const std::function<bool()>& go_on = {});

/// The problem with each block as one job, and the jobs that each of its jobs stands for.
struct Joined {
    Problem problem;
    std::vector<std::vector<std::size_t>> jobs;

    std::vector<std::size_t> apart(const std::vector<std::size_t>& order) const;  // as jobs of the first problem
};
Joined joined(const Problem& problem);

/// exact_order where it can, else searched_order; blocks are kept whole.
Day best_order(const Problem& problem, const std::function<bool()>& go_on = {});

/// A circle among the "after" relations, as jobs one after the other; empty: there is none.
std::vector<std::size_t> circle_of(const Problem& problem);

}  // namespace poquito::schedule
