#include "day/order.hpp"

#include "shoot/change/view_set.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <numeric>
#include <tuple>

namespace poquito::day {
namespace {

bool same_place(const shoot::Light& a, const shoot::Light& b) {
    return a.flash == b.flash && a.lamp == b.lamp && a.modifier == b.modifier && a.position == b.position &&
           a.aim == b.aim && a.on_lens == b.on_lens && a.second_layer == b.second_layer && a.bounce == b.bounce &&
           a.reflector == b.reflector && a.gel == b.gel;
}

bool same_card(const std::optional<shoot::Background>& a, const std::optional<shoot::Background>& b) {
    if (!a || !b) return !a && !b;
    return a->reflectance == b->reflectance && a->own_ev100 == b->own_ev100 && a->kind == b->kind &&
           a->colour == b->colour;
}

/// What stands before the camera through several shots; empty: each shot has a subject of its own.
const std::string& thing_of(const shoot::Shot& shot) {
    static const std::string none;
    return shot.view ? shot.view->thing : shot.plate ? shot.plate->picture : none;
}

/// s to place and dress it, beyond what turning it round takes.
double placing(const shoot::ChangePrices& prices) { return std::max(0.0, prices.subject - prices.turn); }

double first_of(const shoot::Shot& shot, const shoot::ChangePrices& prices) {
    return thing_of(shot).empty() || shot.timing.handling ? 0 : placing(prices);
}

double handling_of(const shoot::Shot& shot, const shoot::ChangePrices& prices) {
    return shot.timing.handling.value_or(thing_of(shot).empty() ? prices.subject
                                                                : std::min(prices.turn, prices.subject));
}

}  // namespace

Change change_between(const shoot::Shot& from, const shoot::Shot& to) {
    const auto &a = from.rig, &b = to.rig;
    const auto extension = [](const shoot::Rig& rig) {
        return std::tie(rig.tubes_behind_converter, rig.teleconverter, rig.tubes, rig.bellows, rig.reversing_ring,
                        rig.closeup_lenses, rig.front_lens, rig.filters);
    };
    Change change{
        .camera = a.camera != b.camera || a.rail != b.rail,
        .lens = a.lens != b.lens,
        .tubes = extension(a) != extension(b),
        .light = !std::equal(from.lights.begin(), from.lights.end(), to.lights.begin(), to.lights.end(), same_place),
        .background = !same_card(from.background, to.background),
        .thing = !thing_of(to).empty() && !to.timing.handling && thing_of(from) != thing_of(to)};
    // Food is made when the light stands, and made anew where it has to wait for another one (common practice).
    change.fresh = !thing_of(to).empty() && thing_of(from) == thing_of(to) && shoot::has_trait(to.subject, "food") &&
                   (change.light || change.camera || change.lens);
    return change;
}

double price_of(const Change& change, const shoot::ChangePrices& prices) {
    return change.camera * prices.camera + change.lens * prices.lens + change.tubes * prices.tubes +
           change.light * prices.light + change.background * prices.background +
           (change.thing || change.fresh) * placing(prices);
}

namespace {

std::vector<const char*> parts_of(const Change& change) {
    std::vector<const char*> parts;
    if (change.camera) parts.push_back("camera");
    if (change.lens) parts.push_back("lens");
    if (change.tubes) parts.push_back("tubes");
    if (change.light) parts.push_back("light");
    if (change.background) parts.push_back("background");
    if (change.thing) parts.push_back("thing");
    if (change.fresh) parts.push_back("food made anew");
    return parts;
}

}  // namespace

std::string only_change(const Change& change) {
    const auto parts = parts_of(change);
    return parts.size() == 1 ? parts.front() : "";
}

std::string change_text(const Change& change) {
    const auto parts = parts_of(change);
    return parts.empty() ? "nothing" : fmt::format("{}", fmt::join(parts, ", "));
}

namespace {

/// A time-lapse is begun when all else is done, unless something is said to come after it: it keeps its camera, and for
/// hours nobody is to walk past it or light it (common practice).
bool comes_first(const shoot::Shot& other, const shoot::Shot& lapse) {
    return lapse.lapse && !other.lapse && std::ranges::count(other.timing.after, lapse.id) == 0;
}

}  // namespace

/// Shots with the same in place cost the same to come from and to go to.
class Setups {
  public:
    explicit Setups(const shoot::Shoot& shoot) : prices_(shoot.workday.prices) {}

    std::size_t index_of(const shoot::Shot& shot) {
        const auto same = [&](const shoot::Shot* other) {
            return !change_between(*other, shot).any() && !change_between(shot, *other).any() &&
                   thing_of(*other) == thing_of(shot) && comes_with(*other) == comes_with(shot);
        };
        // Neighbours are alike more often than not.
        const auto found = std::find_if(shots_.rbegin(), shots_.rend(), same);
        if (found != shots_.rend()) return static_cast<std::size_t>(shots_.rend() - found) - 1;
        shots_.push_back(&shot);
        return shots_.size() - 1;
    }
    std::vector<std::vector<double>> prices() const {
        std::vector<std::vector<double>> all(shots_.size(), std::vector<double>(shots_.size(), 0));
        for (std::size_t i = 0; i < shots_.size(); ++i)
            for (std::size_t j = 0; j < shots_.size(); ++j)
                if (i != j) all[i][j] = price_of(change_between(*shots_[i], *shots_[j]), prices_);
        return all;
    }

  private:
    /// What else the price of coming to it hangs on.
    static std::pair<bool, bool> comes_with(const shoot::Shot& shot) {
        return {shot.timing.handling.has_value(), shoot::has_trait(shot.subject, "food")};
    }

    const shoot::ChangePrices& prices_;
    std::vector<const shoot::Shot*> shots_;  // one of each
};

schedule::Problem order_problem(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports) {
    const std::size_t n = shoot.shots.size();
    schedule::Problem problem{.after = std::vector<std::vector<std::size_t>>(n),
                              .begin = shoot.workday.begin,
                              .waiting_counts = shoot.workday.waiting_counts};
    Setups setups(shoot);
    for (std::size_t i = 0; i < n; ++i) {
        const shoot::Shot& shot = shoot.shots[i];
        const auto& timing = shot.timing;
        problem.duration.push_back(handling_of(shot, shoot.workday.prices) + reports[i]->capture.paced_duration);
        problem.first.push_back(first_of(shot, shoot.workday.prices));
        if (shot.plate && shoot::plates_of(shoot, shot.plate->picture).front() == i)
            if (auto plates = shoot::plates_of(shoot, shot.plate->picture); plates.size() > 1)
                problem.blocks.push_back(std::move(plates));
        problem.not_before.push_back(timing.not_before);
        problem.done_by.push_back(timing.done_by);
        problem.enters.push_back(setups.index_of(shot));
        if (timing.after.empty() && !shot.lapse) continue;
        for (std::size_t j = 0; j < n; ++j)
            if (std::ranges::count(timing.after, shoot.shots[j].id) || comes_first(shoot.shots[j], shot))
                problem.after[i].push_back(j);
    }
    problem.leaves = problem.enters;
    problem.change = setups.prices();
    return problem;
}

schedule::Day given_day(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports) {
    const auto& day = shoot.workday;
    schedule::Day made{.finish = day.begin};
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const auto& timing = shoot.shots[i].timing;
        const double change = i > 0 ? price_of(change_between(shoot.shots[i - 1], shoot.shots[i]), day.prices)
                                    : first_of(shoot.shots[i], day.prices);
        made.work += change;
        const double ready = made.finish + change, start = std::max(ready, timing.not_before.value_or(0));
        made.waiting += start - ready;
        made.start.push_back(start);
        made.finish = start + handling_of(shoot.shots[i], day.prices) + reports[i]->capture.paced_duration;
        if (timing.done_by) made.late += std::max(0.0, made.finish - *timing.done_by);
    }
    return made;
}

Orders orders_of(const schedule::Problem& problem, const std::function<bool()>& go_on) {
    std::vector<std::size_t> listed(problem.duration.size());
    std::iota(listed.begin(), listed.end(), std::size_t{0});
    Orders made{.given = schedule::day_of(problem, listed), .best = {}, .circle = schedule::circle_of(problem)};
    made.best = schedule::best_order(problem, go_on);
    made.exact = schedule::free_jobs(schedule::joined(problem).problem) <= schedule::most_exact && made.best.feasible();
    return made;
}

std::vector<Change> changes_of(const shoot::Shots& shots, const std::vector<std::size_t>& order) {
    std::vector<Change> changes(order.size());
    for (std::size_t k = 1; k < order.size(); ++k) changes[k] = change_between(shots[order[k - 1]], shots[order[k]]);
    return changes;
}

shoot::Shoot in_order(const shoot::Shoot& shoot, const std::vector<std::size_t>& order) {
    shoot::Shoot made = shoot;
    for (std::size_t k = 0; k < order.size(); ++k) made.shots[k] = shoot.shots[order[k]];
    return made;
}

}  // namespace poquito::day
