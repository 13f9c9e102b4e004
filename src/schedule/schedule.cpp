#include "schedule/schedule.hpp"

#include "score.hpp"

namespace poquito::schedule {

Day day_of(const Problem& problem, std::vector<std::size_t> order) {
    Day day{.order = std::move(order)};
    double time = problem.begin;
    for (std::size_t k = 0; k < day.order.size(); ++k) {
        const auto job = day.order[k];
        const double ready = time + (k > 0 ? problem.change[day.order[k - 1]][job] : 0);
        const double start = std::max(ready, problem.not_before[job].value_or(0));
        day.waiting += start - ready;
        day.start.push_back(start);
        time = start + problem.duration[job];
    }
    const auto score = Scorer(problem)(day.order);
    day.work = score.work;
    day.late = score.late;
    day.broken = score.broken;
    day.finish = time;
    return day;
}

bool better(const Problem& problem, const Day& one, const Day& other) {
    const auto score = [&](const Day& day) {
        return Score{.broken = day.broken,
                     .late = day.late,
                     .cost = problem.waiting_counts ? day.finish : day.work,
                     .finish = day.finish,
                     .work = day.work};
    };
    return score(one).beats(score(other));
}

std::vector<std::size_t> circle_of(const Problem& problem) {
    // Depth first; a job met again while it is still open closes a circle.
    enum class Seen { no, open, done };
    std::vector<Seen> seen(problem.after.size(), Seen::no);
    std::vector<std::size_t> way;
    std::vector<std::size_t> circle;
    const auto visit = [&](const auto& self, std::size_t job) -> bool {
        if (seen[job] == Seen::done) return false;
        way.push_back(job);
        if (seen[job] == Seen::open) {
            circle.assign(std::find(way.begin(), way.end(), job), way.end() - 1);
            return true;
        }
        seen[job] = Seen::open;
        for (const auto first : problem.after[job])
            if (self(self, first)) return true;
        seen[job] = Seen::done;
        way.pop_back();
        return false;
    };
    for (std::size_t job = 0; job < problem.after.size(); ++job)
        if (visit(visit, job)) return circle;
    return {};
}

Day best_order(const Problem& problem, const std::function<bool()>& go_on) {
    if (problem.duration.size() <= most_exact)
        if (const auto exact = exact_order(problem, go_on)) return *exact;
    return searched_order(problem, go_on);
}

}  // namespace poquito::schedule
