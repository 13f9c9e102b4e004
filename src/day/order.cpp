#include "day/order.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <numeric>
#include <random>
#include <tuple>

namespace poquito::day {
namespace {

constexpr double hair = 1e-6;  // s: sums of the same changes in another order differ by less

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
    explicit Scorer(const OrderProblem& problem) : problem_(problem), place_(problem.duration.size()) {}

    Score operator()(const std::vector<std::size_t>& order) {
        Score score;
        double time = problem_.begin;
        for (std::size_t k = 0; k < order.size(); ++k) place_[order[k]] = k;
        for (std::size_t k = 0; k < order.size(); ++k) {
            const auto job = order[k];
            for (const auto first : problem_.after[job]) score.broken += place_[first] > k;
            const double change = k > 0 ? problem_.change[order[k - 1]][job] : 0;
            score.work += change;
            time = std::max(time + change, problem_.not_before[job].value_or(0)) + problem_.duration[job];
            if (problem_.done_by[job]) score.late += std::max(0.0, time - *problem_.done_by[job]);
        }
        score.finish = time;
        score.cost = problem_.waiting_counts ? time : score.work;
        return score;
    }

  private:
    const OrderProblem& problem_;
    std::vector<std::size_t> place_;
};

}  // namespace

OrderedDay day_of(const OrderProblem& problem, std::vector<std::size_t> order) {
    OrderedDay day{.order = std::move(order)};
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

bool better(const OrderProblem& problem, const OrderedDay& one, const OrderedDay& other) {
    const auto score = [&](const OrderedDay& day) {
        return Score{.broken = day.broken,
                     .late = day.late,
                     .cost = problem.waiting_counts ? day.finish : day.work,
                     .finish = day.finish,
                     .work = day.work};
    };
    return score(one).beats(score(other));
}

std::vector<std::size_t> circle_of(const OrderProblem& problem) {
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

// ---- exact -------------------------------------------------------------------------------------------------------

namespace {

/// One way to have done a set of jobs, with a certain one last.
struct Label {
    double time;
    double work;
    std::uint32_t from_state;
    std::uint32_t from_label;
};

bool dominated(const std::vector<Label>& labels, double time, double work) {
    return std::any_of(labels.begin(), labels.end(),
                       [&](const Label& label) { return label.time <= time + hair && label.work <= work + hair; });
}

void keep(std::vector<Label>& labels, const Label& made) {
    if (dominated(labels, made.time, made.work)) return;
    // Nothing has come from these yet: a set is gone on from only when all ways into it are known.
    std::erase_if(labels, [&](const Label& label) { return label.time >= made.time && label.work >= made.work; });
    labels.push_back(made);
}

}  // namespace

std::optional<OrderedDay> exact_order(const OrderProblem& problem, const std::function<bool()>& go_on) {
    const std::size_t n = problem.duration.size();
    if (n == 0) return OrderedDay{.finish = problem.begin};
    // A good day bounds all others: what is still to do takes its durations and, whatever comes before each job, its
    // cheapest change.
    const auto good = searched_order(problem, go_on);
    std::vector<double> cheapest(n, std::numeric_limits<double>::infinity());
    for (std::size_t job = 0; job < n; ++job)
        for (std::size_t before = 0; before < n; ++before)
            if (before != job) cheapest[job] = std::min(cheapest[job], problem.change[before][job]);
    const auto hopeless = [&](const Label& label, std::uint32_t set) {
        if (!good.feasible()) return false;
        double changes = 0, durations = 0;
        for (std::size_t job = 0; job < n; ++job)
            if (!(set >> job & 1u)) changes += cheapest[job], durations += problem.duration[job];
        return problem.waiting_counts ? label.time + durations + changes > good.finish + hair
                                      : label.work + changes > good.work + hair;
    };
    std::vector<std::uint32_t> needs(n, 0);
    for (std::size_t job = 0; job < n; ++job)
        for (const auto first : problem.after[job]) needs[job] |= 1u << first;
    const auto sets = std::size_t{1} << n;
    std::vector<std::vector<Label>> labels(sets * n);
    const auto finish_of = [&](std::size_t job, double ready) -> std::optional<double> {
        const double end = std::max(ready, problem.not_before[job].value_or(0)) + problem.duration[job];
        if (problem.done_by[job] && end > *problem.done_by[job] + hair) return std::nullopt;
        return end;
    };
    constexpr auto none = std::numeric_limits<std::uint32_t>::max();
    for (std::size_t job = 0; job < n; ++job)
        if (const auto end = finish_of(job, problem.begin); end && needs[job] == 0)
            labels[(std::size_t{1} << job) * n + job].push_back({*end, 0, none, none});
    // All ways into a set come from smaller ones, which have smaller numbers.
    for (std::uint32_t set = 1; set < sets; ++set) {
        if (go_on && !go_on()) return std::nullopt;
        for (std::size_t last = 0; last < n; ++last) {
            const auto state = set * n + last;
            for (std::uint32_t k = 0; k < labels[state].size(); ++k) {
                const Label label = labels[state][k];
                if (hopeless(label, set)) continue;
                for (std::size_t job = 0; job < n; ++job) {
                    if (set >> job & 1u || (needs[job] & ~set)) continue;
                    const double change = problem.change[last][job];
                    if (const auto end = finish_of(job, label.time + change))
                        keep(labels[(set | 1u << job) * n + job],
                             {*end, label.work + change, static_cast<std::uint32_t>(state), k});
                }
            }
        }
    }
    const Label* best = nullptr;
    std::size_t best_last = 0;
    for (std::size_t last = 0; last < n; ++last)
        for (const Label& label : labels[(sets - 1) * n + last]) {
            const auto score = [&](const Label& l) {
                return Score{.cost = problem.waiting_counts ? l.time : l.work, .finish = l.time, .work = l.work};
            };
            if (!best || score(label).beats(score(*best))) best = &label, best_last = last;
        }
    if (!best) return std::nullopt;
    std::vector<std::size_t> order = {best_last};
    for (const Label* label = best; label->from_state != none;) {
        order.push_back(label->from_state % n);
        label = &labels[label->from_state][label->from_label];
    }
    std::ranges::reverse(order);
    return day_of(problem, std::move(order));
}

// ---- searched ----------------------------------------------------------------------------------------------------

namespace {

template <typename List>
auto at(List& list, std::size_t index) {
    return list.begin() + static_cast<std::ptrdiff_t>(index);
}

class Search {
  public:
    Search(const OrderProblem& problem, const std::function<bool()>& go_on)
        : go_on_(go_on), scorer_(problem), n_(problem.duration.size()) {}

    /// One job after the other to where it costs least.
    std::vector<std::size_t> inserted(const std::vector<std::size_t>& jobs, const OrderProblem& problem) {
        std::vector<std::size_t> order;
        for (const auto job : jobs) {
            std::size_t best = 0;
            double least = std::numeric_limits<double>::infinity();
            for (std::size_t k = 0; k <= order.size(); ++k) {
                double cost = 0;
                if (k > 0) cost += problem.change[order[k - 1]][job];
                if (k < order.size()) cost += problem.change[job][order[k]];
                if (k > 0 && k < order.size()) cost -= problem.change[order[k - 1]][order[k]];
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

OrderedDay searched_order(const OrderProblem& problem, const std::function<bool()>& go_on) {
    const std::size_t n = problem.duration.size();
    std::vector<std::size_t> given(n);
    std::iota(given.begin(), given.end(), std::size_t{0});
    if (n < 2) return day_of(problem, given);
    Search search(problem, go_on);
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

OrderedDay best_order(const OrderProblem& problem, const std::function<bool()>& go_on) {
    if (problem.duration.size() <= most_exact)
        if (const auto exact = exact_order(problem, go_on)) return *exact;
    return searched_order(problem, go_on);
}

// ---- of a shoot --------------------------------------------------------------------------------------------------

namespace {

bool same_place(const shoot::Light& a, const shoot::Light& b) {
    return a.flash == b.flash && a.lamp == b.lamp && a.modifier == b.modifier && a.position == b.position &&
           a.aim == b.aim && a.on_lens == b.on_lens && a.second_layer == b.second_layer && a.bounce == b.bounce;
}

bool same_card(const std::optional<shoot::Background>& a, const std::optional<shoot::Background>& b) {
    if (!a || !b) return !a && !b;
    return a->reflectance == b->reflectance && a->kind == b->kind && a->colour == b->colour;
}

}  // namespace

Change change_between(const shoot::Shot& from, const shoot::Shot& to) {
    const auto &a = from.rig, &b = to.rig;
    const auto extension = [](const shoot::Rig& rig) {
        return std::tie(rig.tubes_behind_converter, rig.teleconverter, rig.tubes, rig.bellows, rig.reversing_ring,
                        rig.closeup_lenses, rig.front_lens);
    };
    return {
        .camera = a.camera != b.camera || a.rail != b.rail,
        .lens = a.lens != b.lens,
        .tubes = extension(a) != extension(b),
        .light = !std::equal(from.lights.begin(), from.lights.end(), to.lights.begin(), to.lights.end(), same_place),
        .background = !same_card(from.background, to.background)};
}

double price_of(const Change& change, const shoot::ChangePrices& prices) {
    return change.camera * prices.camera + change.lens * prices.lens + change.tubes * prices.tubes +
           change.light * prices.light + change.background * prices.background;
}

std::string change_text(const Change& change) {
    std::vector<const char*> parts;
    if (change.camera) parts.push_back("camera");
    if (change.lens) parts.push_back("lens");
    if (change.tubes) parts.push_back("tubes");
    if (change.light) parts.push_back("light");
    if (change.background) parts.push_back("background");
    if (parts.empty()) return "nothing";
    return fmt::format("{}", fmt::join(parts, ", "));
}

OrderProblem order_problem(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports) {
    const std::size_t n = shoot.shots.size();
    OrderProblem problem{.change = std::vector(n, std::vector<double>(n, 0)),
                         .after = std::vector<std::vector<std::size_t>>(n),
                         .begin = shoot.workday.begin,
                         .waiting_counts = shoot.workday.waiting_counts};
    for (std::size_t i = 0; i < n; ++i) {
        const shoot::Shot& shot = shoot.shots[i];
        const auto& timing = shot.timing;
        problem.duration.push_back(timing.handling.value_or(shoot.workday.prices.subject) +
                                   reports[i]->capture.paced_duration);
        problem.not_before.push_back(timing.not_before);
        problem.done_by.push_back(timing.done_by);
        for (std::size_t j = 0; j < n; ++j) {
            if (i != j) problem.change[i][j] = price_of(change_between(shot, shoot.shots[j]), shoot.workday.prices);
            if (std::ranges::count(timing.after, shoot.shots[j].id)) problem.after[i].push_back(j);
        }
    }
    return problem;
}

OrderedDay given_day(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports) {
    const auto& day = shoot.workday;
    OrderedDay made{.finish = day.begin};
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const auto& timing = shoot.shots[i].timing;
        const double change = i > 0 ? price_of(change_between(shoot.shots[i - 1], shoot.shots[i]), day.prices) : 0;
        made.work += change;
        const double ready = made.finish + change, start = std::max(ready, timing.not_before.value_or(0));
        made.waiting += start - ready;
        made.start.push_back(start);
        made.finish = start + timing.handling.value_or(day.prices.subject) + reports[i]->capture.paced_duration;
        if (timing.done_by) made.late += std::max(0.0, made.finish - *timing.done_by);
    }
    return made;
}

shoot::Shoot in_order(const shoot::Shoot& shoot, const std::vector<std::size_t>& order) {
    shoot::Shoot made = shoot;
    for (std::size_t k = 0; k < order.size(); ++k) made.shots[k] = shoot.shots[order[k]];
    return made;
}

}  // namespace poquito::day
