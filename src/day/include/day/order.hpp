#pragma once

#include "plan/report.hpp"
#include "schedule/schedule.hpp"
#include "shoot/shoot.hpp"

#include <cstddef>
#include <functional>
#include <string>
#include <vector>

/// What the order of a day's shots costs, for schedule.hpp to find the best. Times in s, of day in s after midnight.
namespace poquito::day {

/// What changes from one shot to the next.
struct Change {
    bool camera = false;
    bool lens = false;
    bool tubes = false;
    bool light = false;
    bool background = false;
    bool thing = false;  // another is placed, of those with several views or plates
    bool fresh = false;  // the same food, that did not wait while the light or the camera was changed
    bool any() const { return camera || lens || tubes || light || background || thing || fresh; }
};
Change change_between(const shoot::Shot& from, const shoot::Shot& to);
double price_of(const Change& change, const shoot::ChangePrices& prices);
/// The name of the one part that changes; empty: none, or several.
std::string only_change(const Change& change);
std::string change_text(const Change& change);  // "lens, light"; "nothing"

/// The shots of the shoot as jobs, in their order. `reports` one a shot.
schedule::Problem order_problem(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports);

/// The day in the order the shots stand in; `order` is empty.
schedule::Day given_day(const shoot::Shoot& shoot, const std::vector<const plan::Report*>& reports);

/// The order the shots stand in beside the best one found. `go_on` false: the best so far, see schedule::best_order.
struct Orders {
    schedule::Day given, best;
    std::vector<std::size_t> circle;  // jobs that wait for each other; empty: none do
    bool exact = false;               // no order is better
};
Orders orders_of(const schedule::Problem& problem, const std::function<bool()>& go_on);
/// What is changed before each of the shots in that order; nothing before the first.
std::vector<Change> changes_of(const shoot::Shots& shots, const std::vector<std::size_t>& order);

/// The shoot with its shots in that order.
shoot::Shoot in_order(const shoot::Shoot& shoot, const std::vector<std::size_t>& order);

}  // namespace poquito::day
