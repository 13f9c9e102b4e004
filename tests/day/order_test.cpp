#include "day/order.hpp"

#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::day;
using test::same;

TEST_CASE("changes between shots and their prices", "[day]") {
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

TEST_CASE("a shoot's order keeps what was asked and moves nothing else", "[day]") {
    auto shoot = test::plain_shoot();
    shoot.workday = {.begin = 9 * 3600, .prices = {.light = 600, .subject = 60}};
    while (shoot.shots.size() < 4) shoot.shots.push_back(shoot.shots[0]);
    for (std::size_t i = 0; i < 4; ++i) shoot.shots[i].id = std::string(1, static_cast<char>('a' + i));
    shoot.shots[1].lights = shoot.shots[3].lights = {test::plain_light()};
    shoot.shots[0].timing.after = {"c"};
    shoot.shots[3].timing.handling = 300;
    std::vector<Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(assess(shoot.kit, shot, {}));
    std::vector<const Report*> pointers;
    for (const auto& report : reports) pointers.push_back(&report);
    const auto problem = order_problem(shoot, pointers);
    CHECK_THAT(problem.duration[3], same(300 + 0.125));
    CHECK_THAT(problem.duration[0], same(60 + 0.125));
    const auto day = schedule::best_order(problem);
    CHECK(day.work == 600);  // the light is set up once
    const auto made = in_order(shoot, day.order);
    // The day as it stands is the problem's own with the shots in their order.
    const auto given = given_day(shoot, pointers);
    const auto own = schedule::day_of(problem, {0, 1, 2, 3});
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

TEST_CASE("a time-lapse comes last, unless something is said to come after it", "[day][lapse]") {
    auto shoot = test::plain_shoot();
    while (shoot.shots.size() < 4) shoot.shots.push_back(shoot.shots[0]);
    for (std::size_t i = 0; i < 4; ++i) shoot.shots[i].id = std::string(1, static_cast<char>('a' + i));
    shoot.shots[0].lapse = Lapse{.length = 48 * 3600};
    shoot.shots[3].timing.after = {"a"};  // said so: the camera is taken away from it
    std::vector<Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(assess(shoot.kit, shot, {}));
    std::vector<const Report*> pointers;
    for (const auto& report : reports) pointers.push_back(&report);
    const auto problem = order_problem(shoot, pointers);
    CHECK(problem.after[0] == std::vector<std::size_t>{1, 2});
    CHECK(problem.after[3] == std::vector<std::size_t>{0});
    CHECK(problem.after[2].empty());
    CHECK(schedule::free_jobs(problem) == 4);  // that one comes after it
    CHECK(schedule::circle_of(problem).empty());
    CHECK(problem.duration[0] < 3600);  // once it has begun it goes on by itself
}

TEST_CASE("shots that share a set-up share its prices, and each pair costs what its change does", "[day]") {
    auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    const auto problem_of = [&] {
        std::vector<Report> reports;
        for (const auto& shot : shoot.shots) reports.push_back(assess(shoot.kit, shot, {}));
        std::vector<const Report*> pointers;
        for (const auto& report : reports) pointers.push_back(&report);
        return order_problem(shoot, pointers);
    };
    const auto problem = problem_of();
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        for (std::size_t j = 0; j < shoot.shots.size(); ++j) {
            INFO(shoot.shots[i].id << " to " << shoot.shots[j].id);
            const double price = price_of(change_between(shoot.shots[i], shoot.shots[j]), shoot.workday.prices);
            if (i != j) CHECK(problem.change_between(i, j) == price);
        }
    // Five hundred of one set-up are one row of prices.
    const Shot one = shoot.shots[0];
    shoot.shots.erase(0, shoot.shots.size());
    for (int i = 0; i < 500; ++i) {
        shoot.shots.push_back(one);
        shoot.shots[shoot.shots.size() - 1].id = "s" + std::to_string(i);
    }
    CHECK(problem_of().change.size() == 1);
}

TEST_CASE("orders are found with what each change is, and what waits for itself is told", "[day]") {
    auto shoot = test::plain_shoot();
    // Two set-ups in turns: by set-up there is one change in place of three.
    for (const char* id : {"b", "c", "d"}) {
        shoot.shots.push_back(std::as_const(shoot.shots)[0]);
        shoot.shots.back().id = id;
    }
    for (const std::size_t i : {1, 3}) shoot.shots[i].rig.tubes = {"t20"};
    shoot.workday.prices.tubes = 100;
    std::vector<Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(assess(shoot.kit, shot, {}));
    std::vector<const Report*> pointers;
    for (const auto& report : reports) pointers.push_back(&report);
    const auto problem = order_problem(shoot, pointers);
    const auto orders = orders_of(problem, {});
    CHECK(orders.given.order == std::vector<std::size_t>{0, 1, 2, 3});
    CHECK(orders.given.work - orders.best.work == 200);
    CHECK(orders.exact);
    CHECK(orders.circle.empty());
    const auto tubes_of = [&](const schedule::Day& day) {
        const auto changes = changes_of(shoot.shots, day.order);
        CHECK_FALSE(changes.front().any());
        return std::ranges::count(changes, true, &Change::tubes);
    };
    CHECK(tubes_of(orders.given) == 3);
    CHECK(tubes_of(orders.best) == 1);
    shoot.shots[0].timing.after = {"b"};
    shoot.shots[1].timing.after = {std::as_const(shoot.shots)[0].id};
    const auto never = orders_of(order_problem(shoot, pointers), {});
    CHECK(never.circle.size() == 2);
    CHECK_FALSE(never.exact);
}
