// The order of shots: exact against all permutations, searched against exact and against days whose best is known.
#include "schedule/schedule.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <algorithm>
#include <array>
#include <numeric>

using namespace poquito;
using test::same;

namespace {

schedule::Problem random_problem(test::Random& random, std::size_t n, double strictness) {
    schedule::Problem problem{.change = std::vector(n, std::vector<double>(n)),
                              .after = std::vector<std::vector<std::size_t>>(n),
                              .begin = 32400,
                              .waiting_counts = random.coin()};
    // Set-ups as lists of parts, as a shoot has them.
    std::vector<std::array<int, 4>> setup(n);
    for (auto& parts : setup)
        for (auto& part : parts) part = random.whole(0, 2);
    constexpr double price[] = {180, 120, 90, 240};
    for (std::size_t i = 0; i < n; ++i) {
        problem.duration.push_back(random.between(60, 900));
        problem.not_before.push_back(random.coin(strictness) ? std::optional(32400 + random.between(0, 8000))
                                                             : std::nullopt);
        problem.done_by.push_back(random.coin(strictness) ? std::optional(32400 + random.between(3000, 12000))
                                                          : std::nullopt);
        for (std::size_t j = 0; j < n; ++j)
            for (std::size_t p = 0; p < 4; ++p) problem.change[i][j] += setup[i][p] != setup[j][p] ? price[p] : 0;
        if (i > 0 && random.coin(strictness)) problem.after[i].push_back(random.whole(0, static_cast<int>(i) - 1));
    }
    return problem;
}

std::optional<schedule::Day> brute_force(const schedule::Problem& problem) {
    std::vector<std::size_t> order(problem.duration.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::optional<schedule::Day> best;
    do {
        auto day = schedule::day_of(problem, order);
        if (!day.feasible()) continue;
        if (!best || schedule::better(problem, day, *best)) best = std::move(day);
    } while (std::next_permutation(order.begin(), order.end()));
    return best;
}

}  // namespace

TEST_CASE("a day by hand", "[schedule]") {
    // From nine: 10 minutes, a change of 5, a wait for half past nine, 10 minutes more.
    const schedule::Problem problem{.duration = {600, 600},
                                    .change = {{0, 300}, {200, 0}},
                                    .after = {{}, {}},
                                    .not_before = {std::nullopt, 34200},
                                    .done_by = {std::nullopt, 34500},
                                    .begin = 32400};
    const auto day = schedule::day_of(problem, {0, 1});
    CHECK(day.start == std::vector<double>{32400, 34200});
    CHECK(day.work == 300);
    CHECK(day.waiting == 900);
    CHECK(day.finish == 34800);
    CHECK(day.late == 300);
    CHECK_FALSE(day.feasible());
}

TEST_CASE("no order beats the exact one", "[schedule]") {
    int feasible = 0, impossible = 0;
    for (unsigned seed = 0; seed < 150; ++seed) {
        test::Random random(seed);
        const auto problem =
            random_problem(random, static_cast<std::size_t>(random.whole(1, 8)), random.between(0, 0.5));
        const auto exact = schedule::exact_order(problem);
        const auto brute = brute_force(problem);
        INFO("seed " << seed);
        REQUIRE(exact.has_value() == brute.has_value());
        if (!exact) {
            ++impossible;
            continue;
        }
        ++feasible;
        CHECK(exact->feasible());
        CHECK_THAT(exact->work, same(brute->work));
        CHECK_THAT(exact->finish, same(brute->finish));
    }
    CHECK(feasible > 60);
    CHECK(impossible > 10);
}

TEST_CASE("the searched order is as good as the exact one, or nearly", "[schedule][long]") {
    int same_work = 0, all = 0;
    for (unsigned seed = 0; seed < 60; ++seed) {
        test::Random random(seed);
        const auto problem = random_problem(random, 11, 0.15);
        const auto exact = schedule::exact_order(problem);
        const auto searched = schedule::searched_order(problem);
        INFO("seed " << seed);
        auto sorted = searched.order;
        std::ranges::sort(sorted);
        for (std::size_t i = 0; i < sorted.size(); ++i) REQUIRE(sorted[i] == i);
        if (!exact) {
            CHECK_FALSE(searched.feasible());
            continue;
        }
        ++all;
        CHECK_FALSE(schedule::better(problem, searched, *exact));
        same_work += searched.feasible() && !better(problem, *exact, searched);
        const auto cost = [&](const schedule::Day& day) {
            return problem.waiting_counts ? day.finish - problem.begin : day.work;
        };
        if (searched.feasible()) CHECK(cost(searched) <= cost(*exact) * 1.1 + 1);
    }
    CHECK(all > 20);
    CHECK(same_work > 0.9 * all);
}

TEST_CASE("sixty shots of known best order are put into it", "[schedule][long]") {
    // Six set-ups of ten shots each, mixed: each set-up is made once, so five changes of 300 s.
    test::Random random(5);
    constexpr std::size_t n = 60;
    std::vector<std::size_t> setup(n);
    for (std::size_t i = 0; i < n; ++i) setup[i] = (i * 7) % 6;
    schedule::Problem problem{.duration = std::vector<double>(n, 60),
                              .change = std::vector(n, std::vector<double>(n)),
                              .after = std::vector<std::vector<std::size_t>>(n),
                              .not_before = std::vector<std::optional<double>>(n),
                              .done_by = std::vector<std::optional<double>>(n)};
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j) problem.change[i][j] = setup[i] == setup[j] ? 0 : 300;
    const auto day = schedule::best_order(problem);
    CHECK(day.work == 5 * 300);
    CHECK(day.finish == 60 * 60 + 5 * 300);
    // With one shot of each set-up to come before all others of the next: still no more, in that order.
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j)
            if (setup[j] + 1 == setup[i] && i % 10 == 3) problem.after[i].push_back(j);
    const auto kept = schedule::best_order(problem);
    CHECK(kept.broken == 0);
    // A search that is told to stop gives the best so far, and that is no worse than the order given.
    int asked = 0;
    const auto hasty = schedule::searched_order(problem, [&] { return ++asked < 3; });
    std::vector<std::size_t> given(n);
    std::iota(given.begin(), given.end(), std::size_t{0});
    CHECK_FALSE(schedule::better(problem, schedule::day_of(problem, given), hasty));
    CHECK(asked < 20);
}

TEST_CASE("circles of \"after\" are found", "[schedule]") {
    schedule::Problem problem{.duration = {1, 1, 1, 1},
                              .change = std::vector(4, std::vector<double>(4, 0)),
                              .after = {{1}, {2}, {0}, {0}},
                              .not_before = std::vector<std::optional<double>>(4),
                              .done_by = std::vector<std::optional<double>>(4)};
    auto circle = schedule::circle_of(problem);
    std::ranges::sort(circle);
    CHECK(circle == std::vector<std::size_t>{0, 1, 2});
    CHECK_FALSE(schedule::exact_order(problem));
    problem.after[2].clear();
    CHECK(schedule::circle_of(problem).empty());
}

TEST_CASE("a thousand jobs give the best order found so far as soon as someone has had enough", "[schedule]") {
    test::Random random(5);
    for (const double strictness : {0.0, 0.3}) {
        const auto problem = random_problem(random, 1000, strictness);
        std::vector<std::size_t> given(1000);
        std::iota(given.begin(), given.end(), std::size_t{0});
        // Counted, not timed: the search asks often, and ends at once when told to.
        int asked = 0, left = 200;
        const auto day = schedule::searched_order(problem, [&] {
            ++asked;
            return --left > 0;
        });
        CHECK(left <= 0);
        CHECK(asked < 230);
        auto sorted = day.order;
        std::ranges::sort(sorted);
        CHECK(sorted == given);
        CHECK_FALSE(schedule::better(problem, schedule::day_of(problem, given), day));
        if (strictness == 0)
            CHECK(day.work < schedule::day_of(problem, given).work / 3);  // inserted, whatever time is left
    }
}

TEST_CASE("one that comes after all the others costs no exactness", "[schedule]") {
    test::Random random(3);
    auto problem = random_problem(random, 6, 0);
    CHECK(schedule::free_jobs(problem) == 6);
    problem.after[2] = {0, 1, 3, 4, 5, 5};
    CHECK(schedule::free_jobs(problem) == 5);
    problem.after[2] = {0, 1, 3, 4};
    CHECK(schedule::free_jobs(problem) == 6);
    // Seventeen and the last are ordered as well as by every order of the seventeen before it.
    auto large = random_problem(random, schedule::most_exact + 1, 0);
    const auto last = schedule::most_exact;
    for (std::size_t job = 0; job < last; ++job) large.after[last].push_back(job);
    CHECK(schedule::free_jobs(large) == schedule::most_exact);
    const auto exact = schedule::exact_order(large);
    REQUIRE(exact);
    const auto best = schedule::best_order(large);
    CHECK(best.order.back() == last);
    CHECK(best.work == Approx(exact->work));
    CHECK(best.finish == Approx(exact->finish));
    CHECK(schedule::free_jobs({.duration = {1}, .change = {{0}}, .after = {{}}}) == 1);
}

TEST_CASE("the exact order stops when it is told to, and the best of the rest is given", "[schedule]") {
    test::Random random(10);
    const auto problem = random_problem(random, schedule::most_exact, 0.1);
    int asked = 0;
    CHECK_FALSE(schedule::exact_order(problem, [&] { return ++asked < 40; }));
    CHECK(asked < 60);
    asked = 0;
    const auto day = schedule::best_order(problem, [&] { return ++asked < 40; });
    CHECK(day.order.size() == schedule::most_exact);
    CHECK(asked < 80);
    REQUIRE(schedule::exact_order(problem));
}

TEST_CASE("blocks stay together, in their order, at the price of the best order that keeps them so", "[schedule]") {
    test::Random random(21);
    for (int round = 0; round < 30; ++round) {
        auto problem = random_problem(random, 7, 0);
        problem.not_before.assign(7, std::nullopt);
        problem.done_by.assign(7, std::nullopt);
        problem.blocks = {{5, 1}, {2, 6, 0}};
        problem.after.assign(7, {});
        problem.after[3] = {6};  // on one in the middle of a block
        const auto whole = schedule::joined(problem);
        REQUIRE(whole.jobs.size() == 4);
        const double within =
            problem.change_between(5, 1) + problem.change_between(2, 6) + problem.change_between(6, 0);
        // Every order of the four, and what it comes to when it is taken apart.
        std::vector<std::size_t> order(4);
        std::iota(order.begin(), order.end(), std::size_t{0});
        std::optional<schedule::Day> best;
        do {
            const auto apart = whole.apart(order);
            auto sorted = apart;
            std::ranges::sort(sorted);
            for (std::size_t i = 0; i < 7; ++i) REQUIRE(sorted[i] == i);
            const auto joined_day = schedule::day_of(whole.problem, order), day = schedule::day_of(problem, apart);
            CHECK(day.work == Approx(joined_day.work + within));
            CHECK(day.finish == Approx(joined_day.finish));
            CHECK((day.broken == 0) == (joined_day.broken == 0));
            if (day.broken == 0 && (!best || day.work < best->work)) best = day;
        } while (std::ranges::next_permutation(order).found);
        REQUIRE(best);
        const auto found = schedule::best_order(problem);
        CHECK(found.broken == 0);
        CHECK(found.work == Approx(best->work));
    }
}

TEST_CASE("a block begins late enough that none of it waits, and early enough for the first that has to be done",
          "[schedule]") {
    schedule::Problem problem{.duration = {100, 200, 50},
                              .change = {{0, 10, 20}, {30, 0, 40}, {50, 60, 0}},
                              .first = {5, 6, 7},
                              .after = {{}, {}, {0}},
                              .not_before = {std::nullopt, 1000, std::nullopt},
                              .done_by = {400, 2000, std::nullopt},
                              .blocks = {{0, 1}}};
    const auto whole = schedule::joined(problem);
    REQUIRE(whole.jobs == std::vector<std::vector<std::size_t>>{{0, 1}, {2}});
    const auto& made = whole.problem;
    CHECK(made.duration == std::vector<double>{310, 50});  // 100, the change of 10, 200
    CHECK(made.not_before[0] == 1000.0 - 110);             // then the second begins at 1000
    CHECK(made.done_by[0] == 400.0 - 100 + 310);           // the first is the one that presses
    CHECK_FALSE(made.not_before[1]);
    CHECK(made.after == std::vector<std::vector<std::size_t>>{{}, {0}});
    CHECK(made.first == std::vector<double>{5, 7});
    CHECK(made.change_between(0, 1) == 40);  // from what the block leaves behind
    CHECK(made.change_between(1, 0) == 50);  // to what it begins with
    CHECK(whole.apart({1, 0}) == std::vector<std::size_t>{2, 0, 1});
    CHECK(schedule::day_of(problem, {0, 2, 1}).broken == 1);
}

TEST_CASE("jobs that share a set-up are ordered at the prices between set-ups", "[schedule]") {
    // Three set-ups and a thousand jobs take nine prices, not a million.
    schedule::Problem problem{.change = {{0, 300, 100}, {300, 0, 200}, {100, 200, 0}}};
    constexpr std::size_t n = 12;
    for (std::size_t i = 0; i < n; ++i) problem.enters.push_back(i % 3);
    problem.leaves = problem.enters;
    problem.duration.assign(n, 60);
    problem.after.resize(n), problem.not_before.resize(n), problem.done_by.resize(n);
    CHECK(problem.change_between(0, 3) == 0);
    CHECK(problem.change_between(1, 5) == 200);
    CHECK(schedule::best_order(problem).work == Approx(300));  // all of the first, of the third, of the second
}
