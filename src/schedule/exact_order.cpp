#include "score.hpp"

#include <cstdint>
#include <limits>

namespace poquito::schedule {
namespace {

/// One way to have done a set of jobs, with a certain one last.
struct Label {
    double time;
    double work;
    std::uint32_t from_state;
    std::uint32_t from_label;
};
constexpr auto none = std::numeric_limits<std::uint32_t>::max();

/// Sets of jobs as bits; a state is a set and the last of its jobs.
class Sets {
  public:
    Sets(const Problem& problem, const Day& good);

    /// False where `go_on` said to stop.
    bool fill(const std::function<bool()>& go_on);
    std::optional<std::vector<std::size_t>> best() const;

  private:
    std::size_t state(std::uint32_t set, std::size_t last) const { return set * n_ + last; }
    std::optional<double> finish_of(std::size_t job, double ready) const;
    bool hopeless(const Label& label, std::uint32_t set) const;
    void go_on_from(std::uint32_t set, std::size_t last, std::uint32_t label);
    void keep(std::size_t state, const Label& made);

    const Problem& problem_;
    const Day& good_;  // bounds all others
    std::size_t n_;
    std::uint32_t sets_;
    std::vector<std::uint32_t> needs_;  // of each job, as a set
    std::vector<double> cheapest_;      // change that comes before each job, whatever the job before it
    std::vector<std::vector<Label>> labels_;
};

}  // namespace

std::optional<Day> exact_order(const Problem& problem, const std::function<bool()>& go_on) {
    if (problem.duration.empty()) return Day{.finish = problem.begin};
    const auto good = searched_order(problem, go_on);
    Sets sets(problem, good);
    if (!sets.fill(go_on)) return std::nullopt;
    auto order = sets.best();
    return order ? std::optional(day_of(problem, std::move(*order))) : std::nullopt;
}

namespace {

Sets::Sets(const Problem& problem, const Day& good)
    : problem_(problem),
      good_(good),
      n_(problem.duration.size()),
      sets_(1u << n_),
      needs_(n_, 0),
      cheapest_(n_, std::numeric_limits<double>::infinity()),
      labels_(sets_ * n_) {
    for (std::size_t job = 0; job < n_; ++job) {
        for (std::size_t before = 0; before < n_; ++before)
            if (before != job) cheapest_[job] = std::min(cheapest_[job], problem.change_between(before, job));
        for (const auto first : problem.after[job]) needs_[job] |= 1u << first;
    }
}

bool Sets::fill(const std::function<bool()>& go_on) {
    for (std::size_t job = 0; job < n_; ++job) {
        const double first = problem_.first.empty() ? 0 : problem_.first[job];
        if (const auto end = finish_of(job, problem_.begin + first); end && needs_[job] == 0)
            labels_[state(1u << job, job)].push_back({*end, first, none, none});
    }
    // All ways into a set come from smaller ones, which have smaller numbers.
    for (std::uint32_t set = 1; set < sets_; ++set) {
        if (go_on && !go_on()) return false;
        for (std::size_t last = 0; last < n_; ++last)
            for (std::uint32_t k = 0; k < labels_[state(set, last)].size(); ++k) go_on_from(set, last, k);
    }
    return true;
}

void Sets::go_on_from(std::uint32_t set, std::size_t last, std::uint32_t k) {
    const auto from = state(set, last);
    const Label label = labels_[from][k];
    if (hopeless(label, set)) return;
    for (std::size_t job = 0; job < n_; ++job) {
        if (set >> job & 1u || (needs_[job] & ~set)) continue;
        const double change = problem_.change_between(last, job);
        if (const auto end = finish_of(job, label.time + change))
            keep(state(set | 1u << job, job), {*end, label.work + change, static_cast<std::uint32_t>(from), k});
    }
}

std::optional<double> Sets::finish_of(std::size_t job, double ready) const {
    const double end = std::max(ready, problem_.not_before[job].value_or(0)) + problem_.duration[job];
    if (problem_.done_by[job] && end > *problem_.done_by[job] + hair) return std::nullopt;
    return end;
}

/// What is still to do takes its durations and, whatever comes before each job, its cheapest change.
bool Sets::hopeless(const Label& label, std::uint32_t set) const {
    if (!good_.feasible()) return false;
    double changes = 0, durations = 0;
    for (std::size_t job = 0; job < n_; ++job)
        if (!(set >> job & 1u)) changes += cheapest_[job], durations += problem_.duration[job];
    return problem_.waiting_counts ? label.time + durations + changes > good_.finish + hair
                                   : label.work + changes > good_.work + hair;
}

/// Only the ways that no other beats in time and work.
void Sets::keep(std::size_t state, const Label& made) {
    auto& labels = labels_[state];
    const bool dominated = std::ranges::any_of(
        labels, [&](const Label& label) { return label.time <= made.time + hair && label.work <= made.work + hair; });
    if (dominated) return;
    // Nothing has come from these yet: a set is gone on from only when all ways into it are known.
    std::erase_if(labels, [&](const Label& label) { return label.time >= made.time && label.work >= made.work; });
    labels.push_back(made);
}

std::optional<std::vector<std::size_t>> Sets::best() const {
    const auto score = [&](const Label& label) {
        return Score{
            .cost = problem_.waiting_counts ? label.time : label.work, .finish = label.time, .work = label.work};
    };
    const Label* best = nullptr;
    std::size_t best_last = 0;
    for (std::size_t last = 0; last < n_; ++last)
        for (const Label& label : labels_[state(sets_ - 1, last)])
            if (!best || score(label).beats(score(*best))) best = &label, best_last = last;
    if (!best) return std::nullopt;
    std::vector<std::size_t> order = {best_last};
    for (const Label* label = best; label->from_state != none;) {
        order.push_back(label->from_state % n_);
        label = &labels_[label->from_state][label->from_label];
    }
    std::ranges::reverse(order);
    return order;
}

}  // namespace
}  // namespace poquito::schedule
