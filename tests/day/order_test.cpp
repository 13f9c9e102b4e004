// The order of shots: exact against all permutations, searched against exact and against days whose best is known.
#include "day/order.hpp"
#include "plan/assess.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <array>
#include <numeric>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::day;
using test::same;

namespace {

OrderProblem random_problem(test::Random& random, std::size_t n, double strictness) {
    OrderProblem problem{.change = std::vector(n, std::vector<double>(n)),
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

std::optional<OrderedDay> brute_force(const OrderProblem& problem) {
    std::vector<std::size_t> order(problem.duration.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::optional<OrderedDay> best;
    do {
        auto day = day_of(problem, order);
        if (!day.feasible()) continue;
        if (!best || better(problem, day, *best)) best = std::move(day);
    } while (std::next_permutation(order.begin(), order.end()));
    return best;
}

}  // namespace

TEST_CASE("a day by hand", "[shoot][order]") {
    // From nine: 10 minutes, a change of 5, a wait for half past nine, 10 minutes more.
    const OrderProblem problem{.duration = {600, 600},
                               .change = {{0, 300}, {200, 0}},
                               .after = {{}, {}},
                               .not_before = {std::nullopt, 34200},
                               .done_by = {std::nullopt, 34500},
                               .begin = 32400};
    const auto day = day_of(problem, {0, 1});
    CHECK(day.start == std::vector<double>{32400, 34200});
    CHECK(day.work == 300);
    CHECK(day.waiting == 900);
    CHECK(day.finish == 34800);
    CHECK(day.late == 300);
    CHECK_FALSE(day.feasible());
}

TEST_CASE("no order beats the exact one", "[shoot][order]") {
    int feasible = 0, impossible = 0;
    for (unsigned seed = 0; seed < 150; ++seed) {
        test::Random random(seed);
        const auto problem =
            random_problem(random, static_cast<std::size_t>(random.whole(1, 8)), random.between(0, 0.5));
        const auto exact = exact_order(problem);
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

TEST_CASE("the searched order is as good as the exact one, or nearly", "[shoot][order]") {
    int same_work = 0, all = 0;
    for (unsigned seed = 0; seed < 60; ++seed) {
        test::Random random(seed);
        const auto problem = random_problem(random, 11, 0.15);
        const auto exact = exact_order(problem);
        const auto searched = searched_order(problem);
        INFO("seed " << seed);
        auto sorted = searched.order;
        std::ranges::sort(sorted);
        for (std::size_t i = 0; i < sorted.size(); ++i) REQUIRE(sorted[i] == i);
        if (!exact) {
            CHECK_FALSE(searched.feasible());
            continue;
        }
        ++all;
        CHECK_FALSE(better(problem, searched, *exact));
        same_work += searched.feasible() && !better(problem, *exact, searched);
        const auto cost = [&](const OrderedDay& day) {
            return problem.waiting_counts ? day.finish - problem.begin : day.work;
        };
        if (searched.feasible()) CHECK(cost(searched) <= cost(*exact) * 1.1 + 1);
    }
    CHECK(all > 20);
    CHECK(same_work > 0.9 * all);
}

TEST_CASE("sixty shots of known best order are put into it", "[shoot][order]") {
    // Six set-ups of ten shots each, mixed: each set-up is made once, so five changes of 300 s.
    test::Random random(5);
    constexpr std::size_t n = 60;
    std::vector<std::size_t> setup(n);
    for (std::size_t i = 0; i < n; ++i) setup[i] = (i * 7) % 6;
    OrderProblem problem{.duration = std::vector<double>(n, 60),
                         .change = std::vector(n, std::vector<double>(n)),
                         .after = std::vector<std::vector<std::size_t>>(n),
                         .not_before = std::vector<std::optional<double>>(n),
                         .done_by = std::vector<std::optional<double>>(n)};
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j) problem.change[i][j] = setup[i] == setup[j] ? 0 : 300;
    const auto day = best_order(problem);
    CHECK(day.work == 5 * 300);
    CHECK(day.finish == 60 * 60 + 5 * 300);
    // With one shot of each set-up to come before all others of the next: still no more, in that order.
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j)
            if (setup[j] + 1 == setup[i] && i % 10 == 3) problem.after[i].push_back(j);
    const auto kept = best_order(problem);
    CHECK(kept.broken == 0);
    // A search that is told to stop gives the best so far, and that is no worse than the order given.
    int asked = 0;
    const auto hasty = searched_order(problem, [&] { return ++asked < 3; });
    std::vector<std::size_t> given(n);
    std::iota(given.begin(), given.end(), std::size_t{0});
    CHECK_FALSE(better(problem, day_of(problem, given), hasty));
    CHECK(asked < 20);
}

TEST_CASE("circles of \"after\" are found", "[shoot][order]") {
    OrderProblem problem{.duration = {1, 1, 1, 1},
                         .change = std::vector(4, std::vector<double>(4, 0)),
                         .after = {{1}, {2}, {0}, {0}},
                         .not_before = std::vector<std::optional<double>>(4),
                         .done_by = std::vector<std::optional<double>>(4)};
    auto circle = circle_of(problem);
    std::ranges::sort(circle);
    CHECK(circle == std::vector<std::size_t>{0, 1, 2});
    CHECK_FALSE(exact_order(problem));
    problem.after[2].clear();
    CHECK(circle_of(problem).empty());
}

TEST_CASE("changes between shots and their prices", "[shoot][order]") {
    auto shoot = test::plain_shoot();
    const Shot a = shoot.shots[0];
    Shot b = a;
    CHECK_FALSE(change_between(a, b).any());
    b.exposure.f_number = 4;
    b.subject.width = 3;
    CHECK_FALSE(change_between(a, b).any());
    b.lights = {test::plain_light()};
    CHECK(change_between(a, b).light);
    Shot c = b;
    c.lights[0].power = 0.25;  // a dial, no work
    CHECK_FALSE(change_between(b, c).any());
    c.lights[0].position.azimuth += 20;
    CHECK(change_between(b, c).light);
    c.rig.tubes = {"t20"};
    c.background = Background{};
    c.rig.rail = "rail";
    const auto change = change_between(b, c);
    CHECK(change_text(change) == "camera, tubes, light, background");
    CHECK(price_of(change, {.camera = 1, .lens = 10, .tubes = 100, .light = 1000, .background = 10000}) == 11101);
    CHECK(change_text(change_between(a, a)) == "nothing");
}

TEST_CASE("a shoot's order keeps what was asked and moves nothing else", "[shoot][order]") {
    auto shoot = test::plain_shoot();
    shoot.workday = {.begin = 9 * 3600, .prices = {.light = 600, .subject = 60}};
    shoot.shots.resize(4, shoot.shots[0]);
    for (std::size_t i = 0; i < 4; ++i) shoot.shots[i].id = std::string(1, static_cast<char>('a' + i));
    shoot.shots[1].lights = shoot.shots[3].lights = {test::plain_light()};
    shoot.shots[0].timing.after = {"c"};
    shoot.shots[3].timing.handling = 300;
    std::vector<Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(assess(shoot.kit, shot));
    std::vector<const Report*> pointers;
    for (const auto& report : reports) pointers.push_back(&report);
    const auto problem = order_problem(shoot, pointers);
    CHECK_THAT(problem.duration[3], same(300 + 0.125));
    CHECK_THAT(problem.duration[0], same(60 + 0.125));
    const auto day = best_order(problem);
    CHECK(day.work == 600);  // the light is set up once
    const auto made = in_order(shoot, day.order);
    // The day as it stands is the problem's own with the shots in their order.
    const auto given = given_day(shoot, pointers);
    const auto own = day_of(problem, {0, 1, 2, 3});
    CHECK(given.start == own.start);
    CHECK_THAT(given.finish, same(own.finish));
    CHECK_THAT(given.work, same(own.work));
    const auto place = [&](const char* id) {
        return std::ranges::find(made.shots, id, &Shot::id) - made.shots.begin();
    };
    CHECK(place("c") < place("a"));
    CHECK(std::abs(place("b") - place("d")) == 1);
    for (const auto& shot : made.shots) CHECK(std::ranges::count(shoot.shots, shot) == 1);
}

TEST_CASE("a thousand jobs give the best order found so far as soon as someone has had enough", "[shoot][order]") {
    test::Random random(5);
    for (const double strictness : {0.0, 0.3}) {
        const auto problem = random_problem(random, 1000, strictness);
        std::vector<std::size_t> given(1000);
        std::iota(given.begin(), given.end(), std::size_t{0});
        // Counted, not timed: the search asks often, and ends at once when told to.
        int asked = 0, left = 200;
        const auto day = searched_order(problem, [&] {
            ++asked;
            return --left > 0;
        });
        CHECK(left <= 0);
        CHECK(asked < 230);
        auto sorted = day.order;
        std::ranges::sort(sorted);
        CHECK(sorted == given);
        CHECK_FALSE(better(problem, day_of(problem, given), day));
        if (strictness == 0) CHECK(day.work < day_of(problem, given).work / 3);  // inserted, whatever time is left
    }
}

TEST_CASE("the exact order stops when it is told to, and the best of the rest is given", "[shoot][order]") {
    test::Random random(9);
    const auto problem = random_problem(random, most_exact, 0.1);
    int asked = 0;
    CHECK_FALSE(exact_order(problem, [&] { return ++asked < 40; }));
    CHECK(asked < 60);
    asked = 0;
    const auto day = best_order(problem, [&] { return ++asked < 40; });
    CHECK(day.order.size() == most_exact);
    CHECK(asked < 80);
    REQUIRE(exact_order(problem));
}
