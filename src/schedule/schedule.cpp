#include "schedule/schedule.hpp"

#include "score.hpp"

#include <algorithm>
#include <utility>

namespace poquito::schedule {

Day day_of(const Problem& problem, std::vector<std::size_t> order) {
    Day day{.order = std::move(order)};
    double time = problem.begin;
    for (std::size_t k = 0; k < day.order.size(); ++k) {
        const auto job = day.order[k];
        const double first = problem.first.empty() ? 0 : problem.first[job];
        const double ready = time + (k > 0 ? problem.change_between(day.order[k - 1], job) : first);
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
    std::vector<std::size_t> place(problem.duration.size());
    for (std::size_t k = 0; k < day.order.size(); ++k) place[day.order[k]] = k;
    for (const auto& block : problem.blocks)
        for (std::size_t k = 1; k < block.size(); ++k) day.broken += place[block[k]] != place[block[k - 1]] + 1;
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

std::vector<std::size_t> Joined::apart(const std::vector<std::size_t>& order) const {
    std::vector<std::size_t> all;
    for (const auto job : order) all.insert(all.end(), jobs[job].begin(), jobs[job].end());
    return all;
}

Joined joined(const Problem& problem) {
    Joined made;
    const std::size_t n = problem.duration.size();
    std::vector<bool> blocked(n, false);
    std::vector<std::size_t> within(n);  // which of the new jobs each is in
    std::vector<const std::vector<std::size_t>*> begins(n, nullptr);
    for (const auto& block : problem.blocks) {
        if (block.empty()) continue;
        begins[block.front()] = &block;
        for (const auto job : block) blocked[job] = true;
    }
    for (std::size_t job = 0; job < n; ++job) {
        if (blocked[job] && !begins[job]) continue;
        const auto jobs = begins[job] ? *begins[job] : std::vector{job};
        for (const auto one : jobs) within[one] = made.jobs.size();
        made.jobs.push_back(jobs);
    }
    auto& to = made.problem;
    to.begin = problem.begin, to.waiting_counts = problem.waiting_counts;
    const std::size_t count = made.jobs.size();
    to.change = problem.change;
    to.after.resize(count);
    for (std::size_t b = 0; b < count; ++b) {
        const auto& jobs = made.jobs[b];
        double passed = 0;  // s from its begin
        std::optional<double> not_before, begins_by;
        for (std::size_t k = 0; k < jobs.size(); ++k) {
            const auto job = jobs[k];
            if (k > 0) passed += problem.change_between(jobs[k - 1], job);
            // It is begun late enough that none of it waits.
            if (problem.not_before[job])
                not_before = std::max(not_before.value_or(0), *problem.not_before[job] - passed);
            passed += problem.duration[job];
            if (problem.done_by[job]) {
                const double by = *problem.done_by[job] - passed;
                begins_by = std::min(begins_by.value_or(by), by);
            }
            for (const auto first : problem.after[job])
                if (within[first] != b && std::ranges::count(to.after[b], within[first]) == 0)
                    to.after[b].push_back(within[first]);
        }
        to.duration.push_back(passed);
        to.not_before.push_back(not_before);
        to.done_by.push_back(begins_by ? std::optional(*begins_by + passed) : std::nullopt);
        if (!problem.first.empty()) to.first.push_back(problem.first[jobs.front()]);
        to.enters.push_back(problem.enters.empty() ? jobs.front() : problem.enters[jobs.front()]);
        to.leaves.push_back(problem.leaves.empty() ? jobs.back() : problem.leaves[jobs.back()]);
    }
    return made;
}

std::size_t free_jobs(const Problem& problem) {
    const auto count = problem.duration.size();
    const bool tied = std::ranges::any_of(problem.after, [&](auto first) {
        std::ranges::sort(first);
        first.erase(std::unique(first.begin(), first.end()), first.end());
        return count > 1 && first.size() == count - 1;
    });
    return tied ? count - 1 : count;
}

Day best_order(const Problem& problem, const std::function<bool()>& go_on) {
    if (!problem.blocks.empty()) {
        const auto whole = joined(problem);
        return day_of(problem, whole.apart(best_order(whole.problem, go_on).order));
    }
    if (free_jobs(problem) <= most_exact)
        if (const auto exact = exact_order(problem, go_on)) return *exact;
    return searched_order(problem, go_on);
}

}  // namespace poquito::schedule
