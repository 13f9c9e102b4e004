// Sets of views, what keeps them alike, the outlets that take them, and what is packed.
#include "job/locks.hpp"
#include "job/outlets.hpp"
#include "job/packing.hpp"

#include "day/order.hpp"
#include "plan/assess.hpp"
#include "shoot/change/edit.hpp"
#include "shoot/change/view_set.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "storage/things_csv.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <list>

using namespace poquito;
using job::Assessed;
using shoot::Lock;
using shoot::PlateRole;
using shoot::Shoot;
using shoot::Shot;
using test::same;

namespace {

std::vector<shoot::ViewSet> shipped() {
    const auto text = storage::read_file(POQUITO_DATA "/view-sets.json").value();
    return storage::read_view_sets(text).value();
}
shoot::ViewSet set_named(const std::string& id) {
    const auto all = shipped();
    return *std::ranges::find(all, id, &shoot::ViewSet::id);
}

shoot::Thing satchel(const std::string& name = "Satchel, tan") {
    return {.name = name, .number = "b1", .width = 380, .height = 290, .depth = 110, .colour = {}, .flaws = {}};
}

/// Plans with their facts, for as long as the shoot stays as it is.
struct AllOf {
    explicit AllOf(const Shoot& shoot) {
        for (const Shot& shot : shoot.shots) {
            plans.push_back(plan::plan_of(shoot.kit, shot, {}));
            reports.push_back(plan::assess(plans.back()));
            all.push_back({&plans.back(), &reports.back()});
        }
    }
    std::list<plan::Plan> plans;
    std::list<plan::Report> reports;
    job::AllAssessed all;
};

const Shot& view(const Shoot& shoot, const std::string& thing, const std::string& name) {
    const auto found = std::ranges::find_if(shoot.shots, [&](const Shot& shot) {
        return shot.view && shot.view->thing == thing && shot.view->name == name;
    });
    REQUIRE(found != shoot.shots.end());
    return *found;
}

}  // namespace

TEST_CASE("the sets that ship are a dozen classes, each with a view that has to be shown", "[job][sets]") {
    const auto sets = shipped();
    CHECK(sets.size() == 12);
    for (const auto& set : sets) {
        CAPTURE(set.name);
        CHECK(std::ranges::any_of(set.views, &shoot::SetView::must));
        CHECK(set.views.size() >= 5);
        std::vector<std::string> names;
        for (const auto& one : set.views) {
            names.push_back(one.name);
            CHECK_FALSE(one.proves.empty());
        }
        std::ranges::sort(names);
        CHECK(std::ranges::adjacent_find(names) == names.end());
    }
    const auto text = storage::write_view_sets(sets);
    CHECK(storage::read_view_sets(text).value() == sets);
    CHECK(!storage::read_view_sets("{\"format\": \"poquito-shoot\"}"));
}

TEST_CASE("a set makes the shots of a thing in its own size, once, and a second thing takes over what was set up",
          "[job][sets]") {
    auto shoot = test::plain_shoot();
    auto thing = satchel();
    thing.flaws = {{.name = "scuff", .size = 25}, {.name = "stain", .size = 60}};
    const auto bag = set_named("bag");
    CHECK(shoot::add_views(shoot, bag, thing, 0) == 10);  // seven views and two flaws
    CHECK(shoot::add_views(shoot, bag, thing, 0) == 0);
    CHECK(shoot::things_of(shoot) == std::vector<std::string>{"Satchel, tan"});
    const auto& front = view(shoot, thing.name, "front");
    CHECK(front.name == "Satchel, tan, front");
    CHECK(front.id == "b1-front");
    CHECK(front.subject.width == 380);
    CHECK(front.view->must);
    CHECK_FALSE(front.follows);
    // Fill of 0.8 in the tighter direction: 24 x 16 mm of sensor, 380 x 290 mm of bag.
    CHECK_THAT(front.rig.focus.value, same(0.8 * std::min(24.0 / 380, 16.0 / 290)));
    const auto& side = view(shoot, thing.name, "side");
    CHECK(side.subject.width == 110);
    CHECK(side.subject.height == 290);
    CHECK(side.subject.depth == 380);
    CHECK(side.follows->shot == front.id);
    CHECK(view(shoot, thing.name, "bottom").subject.height == 110);
    CHECK(view(shoot, thing.name, "label").subject.width == 0.15 * 380);
    CHECK(view(shoot, thing.name, "scuff").subject.width == 25);
    CHECK(view(shoot, thing.name, "stain").subject.width == 60);
    CHECK(view(shoot, thing.name, "clasp").capture.mode == shoot::CaptureMode::stack);

    // Someone sets the front up; the next bag has it so, without what was done with the first one.
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (std::as_const(shoot.shots)[i].id == front.id) {
            shoot.shots[i].exposure.f_number = 11;
            shoot.shots[i].checked = {"dust"};
            shoot.shots[i].timing.after = {"one"};
        }
    auto second = satchel("Satchel, black");
    second.number.clear();
    second.width = 300;
    CHECK(shoot::add_views(shoot, bag, second, 3) == 8);
    const auto& other = view(shoot, second.name, "front");
    CHECK(other.exposure.f_number == 11);
    CHECK(other.checked.empty());
    CHECK(other.timing.after.empty());
    CHECK(other.subject.width == 300);
    CHECK(other.id == "satchel-black-front");
    CHECK(view(shoot, second.name, "back").follows->shot == other.id);

    // Kept under a name of its own and applied to a third, it makes the same views.
    const auto own = shoot::set_of(shoot, thing.name, "My bags");
    CHECK(own.views.size() == 10);
    auto third = satchel("Satchel, red");
    CHECK(shoot::add_views(shoot, own, third, 0) == 10);
    CHECK_THAT(view(shoot, third.name, "side").subject.width, same(110));
    CHECK_THAT(view(shoot, third.name, "front").rig.focus.value, same(front.rig.focus.value));
}

TEST_CASE("what is locked is told when it deviates, and brought in line", "[job][locks]") {
    auto shoot = test::plain_shoot();
    shoot::add_views(shoot, set_named("coin"),
                     {.name = "Penny", .number = {}, .width = 30, .height = 30, .depth = 2, .colour = {}, .flaws = {}},
                     0);
    const auto at = [&](const std::string& name) {
        return static_cast<std::size_t>(
            std::ranges::find_if(std::as_const(shoot.shots),
                                 [&](const Shot& shot) { return shot.view && shot.view->name == name; }) -
            std::as_const(shoot.shots).begin());
    };
    const auto reverse = at("reverse");
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[reverse]).empty());
    shoot.shots[reverse].exposure.f_number = 4;
    shoot.shots[reverse].rig.focus.value *= 1.5;
    shoot.shots[reverse].lights = {test::plain_light()};
    const auto found = job::deviations(shoot, std::as_const(shoot.shots)[reverse]);
    REQUIRE(found.size() == 3);
    CHECK(std::ranges::find(found, Lock::stop, &job::Deviation::lock)->text == "f/4 where Penny, obverse has f/8");
    CHECK(std::ranges::find(found, Lock::framing, &job::Deviation::lock) != found.end());
    CHECK(std::ranges::find(found, Lock::light, &job::Deviation::lock) != found.end());
    job::bring_in_line(shoot, reverse);
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[reverse]).empty());
    CHECK(std::as_const(shoot.shots)[reverse].subject == std::as_const(shoot.shots)[at("reverse")].subject);
    // The edge is of another size: its framing is its own.
    shoot.shots[at("edge")].rig.focus.value *= 2;
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[at("edge")]).empty());
    // What it follows is taken away: it follows nothing, and nothing is left hanging.
    shoot::remove_shot(shoot, at("obverse"));
    CHECK_FALSE(std::as_const(shoot.shots)[at("reverse")].follows);
}

TEST_CASE("plates keep to the hero, stand together in the day, and are never split", "[job][plates]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].lights = {test::plain_light()};
    shoot.shots[0].ambient = shoot::Ambient{};
    CHECK(job::add_plates(shoot, 0, {PlateRole::support, PlateRole::clean, PlateRole::ambient}) == 3);
    CHECK(job::add_plates(shoot, 0, {PlateRole::clean}) == 0);
    const auto plates = shoot::plates_of(shoot, "One");
    CHECK(plates == std::vector<std::size_t>{0, 1, 2, 3});
    CHECK(std::as_const(shoot.shots)[1].follows->shot == "one");
    CHECK(std::as_const(shoot.shots)[3].lights[0].off);
    for (const auto i : plates) CHECK(job::deviations(shoot, std::as_const(shoot.shots)[i]).empty());
    shoot.shots[2].exposure.iso = 400;
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[2]).size() == 1);
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[3]).empty());

    // Another shot needs the plates' first set-up, and another the last one's: none comes between them.
    Shot other = std::as_const(shoot.shots)[0];
    other.id = "other", other.name = "Other", other.plate.reset(), other.follows.reset();
    other.rig.tubes = {"t20"};
    shoot.shots.insert(2, other);
    const AllOf facts(shoot);
    std::vector<const plan::Report*> reports;
    for (const auto& one : facts.all) reports.push_back(one.report);
    const auto problem = day::order_problem(shoot, reports);
    REQUIRE(problem.blocks.size() == 1);
    CHECK(problem.blocks[0] == std::vector<std::size_t>{0, 1, 3, 4});
    CHECK(schedule::day_of(problem, {0, 1, 2, 3, 4}).broken == 1);  // as listed
    const auto best = schedule::best_order(problem);
    CHECK(best.broken == 0);
    const auto place = [&](std::size_t job) { return std::ranges::find(best.order, job) - best.order.begin(); };
    CHECK(place(1) == place(0) + 1);
    CHECK(place(3) == place(0) + 2);
    CHECK(place(4) == place(0) + 3);
}

TEST_CASE("a cut is the largest of its shape, in pixels of the file, and tells what it costs", "[job][outlets]") {
    auto shoot = test::plain_shoot();  // 6000 x 4000
    shoot.shots[0].subject = {.width = 30, .height = 20, .depth = 2};
    shoot.shots[0].rig.focus.value = 0.5;  // a field of 48 x 32
    const AllOf facts(shoot);
    shoot::Outlet outlet{.id = "o", .name = "O", .shape = 1, .least_short_px = 3000, .first = {}, .unknown = {}};
    const shoot::Delivery middle{.outlet = "o", .beside = {}, .unknown = {}};
    const auto square = job::cut_for(facts.all[0], outlet, middle);
    CHECK(square.width_px == 4000);
    CHECK(square.height_px == 4000);
    CHECK_THAT(square.left, same(1.0 / 6));
    CHECK_THAT(square.kept, same(2.0 / 3));
    // 30 of 32 mm across: a sixteenth of the picture is free, half of it on each side.
    REQUIRE(square.margin);
    CHECK_THAT(*square.margin, test::WithinAbs(1.0 / 32, 1e-9));
    CHECK(square.problems.empty());
    outlet.margin = 0.05;
    CHECK(job::cut_for(facts.all[0], outlet, middle).cautions.size() == 1);
    // Moved as far as there is room; then the thing passes out of it.
    const auto aside = job::cut_for(facts.all[0], outlet, {.outlet = "o", .right = 0.4, .beside = {}, .unknown = {}});
    CHECK_THAT(aside.left, same(1.0 / 3));
    CHECK(aside.problems.size() == 1);
    outlet.least_short_px = 4001;
    CHECK(job::cut_for(facts.all[0], outlet, middle).problems.size() == 1);
    outlet.most_long_px = 2000, outlet.least_short_px = 1000;
    CHECK(job::cut_for(facts.all[0], outlet, middle).width_px == 2000);
    // Half of a square is upright, 1 : 2; two of them are as wide as they are high.
    outlet.most_long_px.reset();
    const auto half = job::cut_for(facts.all[0], outlet, {.outlet = "o", .beside = "x", .unknown = {}});
    CHECK(half.width_px == 2000);
    CHECK(half.height_px == 4000);
    CHECK_FALSE(half.problems.empty());  // 30 mm do not go into 16
    // The frame's own shape is all of it.
    outlet.shape.reset();
    CHECK(job::cut_for(facts.all[0], outlet, middle).width_px == 6000);
}

TEST_CASE("a satchel set for two shops, of a list of three bags, to order, run sheet and cut", "[job][story]") {
    auto shoot = test::plain_shoot();
    shoot.kit.lenses[0].optics.max_magnification = 1;
    shoot.shots[0].background = shoot::Background{.reflectance = 0.9};
    const auto list = storage::read_things_csv(
        "\xEF\xBB\xBFname;width (cm);height (cm);depth (cm);no;flaws;shelf\r\n"
        "\"Satchel; tan\";38;29;11;b01;scuff 25 mm\r\n"
        "Satchel, black;38;29,5;11;b02;\r\n"
        "\"Satchel, \"\"old\"\"\nred\";30;24;9;b03;\"torn seam 40; scuff 12,5 mm; scuff 30\"\r\n");
    const auto& read = list.value();
    CHECK(read.problems.empty());
    REQUIRE(read.things.size() == 3);
    CHECK(read.things[0].name == "Satchel; tan");
    CHECK_THAT(read.things[1].height, same(295));
    CHECK(read.things[2].name == "Satchel, \"old\"\nred");
    REQUIRE(read.things[2].flaws.size() == 3);
    CHECK_THAT(read.things[2].flaws[1].size, same(12.5));
    CHECK(read.things[2].flaws[2].name == "scuff 2");
    CHECK(read.unused == std::vector<std::string>{"shelf"});
    shoot.outlets = job::usual_outlets();
    std::size_t made = 0;
    for (const auto& thing : read.things) made += shoot::add_views(shoot, set_named("bag"), thing, 0);
    CHECK(made == 9 + 8 + 11);
    shoot::remove_shot(shoot, 0);

    // Into two shops: 12 square, 20 as they are.
    const auto& square = shoot.outlets[0];
    const AllOf facts(shoot);
    const auto red = shoot::shots_of_thing(shoot, read.things[2].name);
    REQUIRE(red.size() == 11);
    auto narrow = square;
    narrow.most = 4;
    const auto four = job::choose_pictures(shoot, facts.all, narrow, read.things[2].name);
    CHECK(four.proven);
    CHECK(four.pictures.size() == 4);
    CHECK(shoot.shots[four.pictures[0].shots[0]].view->name == "front");
    CHECK(four.pictures[0].shots.size() == 1);  // the first stands alone
    for (const auto& thing : read.things)
        for (const auto& outlet : {square, shoot.outlets[1]}) {
            const auto choice = job::choose_pictures(shoot, facts.all, outlet, thing.name);
            CHECK(choice.musts_left_out == 0);
            CHECK(choice.left_out.empty());
            job::deliver(shoot, outlet.id, thing.name, choice);
            const AllOf now(shoot);
            const auto kept = job::delivered(shoot, now.all, outlet, thing.name);
            CHECK(kept.pictures.size() == choice.pictures.size());
            CHECK_THAT(kept.worth, same(choice.worth));
            CHECK(kept.unfit.empty());
        }
    // Each cut of the square shop is square and large enough.
    for (const auto i : red) {
        const auto& shot = std::as_const(shoot.shots)[i];
        const auto cut = job::cut_for(facts.all[i], square, *job::delivery_of(shot, square.id));
        CHECK(std::min(cut.width_px, cut.height_px) >= 2000 / (job::delivery_of(shot, square.id)->beside ? 2 : 1));
        if (!job::delivery_of(shot, square.id)->beside) CHECK(cut.width_px == cut.height_px);
    }
    // A cut that was moved stays moved when it is chosen anew.
    shoot.shots[red[0]].deliveries[0].right = 0.05;
    job::deliver(shoot, square.id, read.things[2].name,
                 job::choose_pictures(shoot, facts.all, square, read.things[2].name));
    CHECK(std::as_const(shoot.shots)[red[0]].deliveries[0].right == 0.05);

    // The order: as few placings and set-ups as there can be; a thing that stands is turned, not placed anew.
    std::vector<const plan::Report*> reports;
    for (const auto& one : facts.all) reports.push_back(one.report);
    const auto problem = day::order_problem(shoot, reports);
    const auto best = schedule::best_order(problem);
    const auto& prices = shoot.workday.prices;
    CHECK_THAT(best.work, same(3 * (prices.subject - prices.turn)));  // one set-up, three bags
    // And all of it comes back from a file.
    const auto text = storage::write_shoot(day::in_order(shoot, best.order));
    const auto again = storage::read_shoot(text).value();
    CHECK(again == day::in_order(shoot, best.order));
}

TEST_CASE("a thing turned shows two views, and stands for them where an outlet takes few pictures", "[job][outlets]") {
    auto shoot = test::plain_shoot();
    shoot::add_views(shoot, set_named("bag"), satchel(), 0);
    const auto& turned = view(shoot, "Satchel, tan", "turned");
    CHECK(turned.view->also == std::vector<std::string>{"front", "side"});
    CHECK(turned.subject.turn == 40);
    auto outlet = job::usual_outlets()[1];
    outlet.first.reset();
    const AllOf facts(shoot);
    const auto names = [&](int most) {
        outlet.most = most;
        const auto choice = job::choose_pictures(shoot, facts.all, outlet, "Satchel, tan");
        std::vector<std::string> all;
        for (const auto& picture : choice.pictures)
            for (const auto i : picture.shots) all.push_back(shoot.shots[i].view->name);
        for (const auto i : choice.covered) all.push_back("(" + shoot.shots[i].view->name + ")");
        return all;
    };
    // One picture: front at three quarters of 10 and side of 5, and its own 3; no other brings as much.
    CHECK(names(1) == std::vector<std::string>{"turned", "(front)", "(side)"});
    // With room for all each stands alone, and none is covered.
    const auto all = names(20);
    CHECK(std::ranges::none_of(all, [](const std::string& name) { return name.front() == '('; }));
    // Given so, it is told so.
    outlet.most = 1;
    auto given = shoot;
    given.outlets = {outlet};
    job::deliver(given, outlet.id, "Satchel, tan", job::choose_pictures(shoot, facts.all, outlet, "Satchel, tan"));
    const AllOf now(given);
    const auto delivered = job::delivered(given, now.all, outlet, "Satchel, tan");
    CHECK(delivered.covered.size() == 2);
    CHECK_THAT(delivered.worth, same(3 + 0.75 * (10 + 5)));
    const auto files = job::files_for(given, now.all, outlet, "Satchel, tan");
    REQUIRE(files.size() == 1);
    CHECK(files[0].name == "b1-01-turned");
}

TEST_CASE("a series is held against an earlier session of it", "[job][locks]") {
    auto before = test::plain_shoot();
    before.title = "In May";
    shoot::add_views(before, set_named("dental"),
                     {.name = "Patient 4", .number = {}, .width = 50, .height = 30, .depth = 20}, 0);
    for (std::size_t i = 2; i < before.shots.size(); ++i)
        before.shots[i].follows = shoot::Follows{.shot = std::as_const(before.shots)[1].id,
                                                 .locks = {Lock::camera, Lock::stop, Lock::framing},
                                                 .unknown = {}};
    for (std::size_t i = 2; i < before.shots.size(); ++i) job::bring_in_line(before, i);
    auto now = before;
    const auto same_as_then = job::compare_sessions(now, before);
    CHECK(same_as_then.shots.empty());
    CHECK(same_as_then.compared == before.shots.size() - 1);
    CHECK(same_as_then.without.empty());
    // Another patient by the same protocol; one shot at another stop, one without the rule that was there in May.
    for (std::size_t i = 1; i < now.shots.size(); ++i) now.shots[i].view->thing = "Patient 9";
    now.shots[2].exposure.f_number = 11;
    before.shots[3].staging = {shoot::rule_of(10)};
    const auto differs = job::compare_sessions(now, before);
    REQUIRE(differs.shots.size() == 2);
    CHECK(differs.shots[0].shot == 2);
    CHECK(differs.shots[0].what[0].lock == Lock::stop);
    CHECK(differs.shots[0].what[0].text.find("f/11 where") == 0);
    CHECK(differs.shots[1].what[0].text.find("no rule in the frame") == 0);
    now.shots[4].view->name = "palate";
    CHECK(job::compare_sessions(now, before).without == std::vector<std::size_t>{4});
}

TEST_CASE("food that would wait for another light is made anew, and the order spares it", "[job][day]") {
    auto shoot = test::plain_shoot();
    shoot::add_views(shoot, set_named("dish"),
                     {.name = "Toffee", .number = {}, .width = 200, .height = 60, .depth = 200}, 0);
    shoot::remove_shot(shoot, 0);
    shoot.shots.erase(4, shoot.shots.size());
    for (std::size_t i = 0; i < 4; ++i) {
        shoot.shots[i].subject.traits = {"food"};
        shoot.shots[i].lights = {test::plain_light()};
        if (i % 2 == 1) shoot.shots[i].lights[0].position.azimuth = 80;
    }
    const auto& shots = std::as_const(shoot.shots);
    CHECK(day::change_between(shots[0], shots[1]).fresh);
    CHECK_FALSE(day::change_between(shots[0], shots[2]).fresh);
    CHECK(day::change_text(day::change_between(shots[0], shots[1])) == "light, food made anew");
    const auto& prices = shoot.workday.prices;
    CHECK_THAT(day::price_of(day::change_between(shots[0], shots[1]), prices),
               same(prices.light + prices.subject - prices.turn));
    const AllOf facts(shoot);
    std::vector<const plan::Report*> reports;
    for (const auto& one : facts.all) reports.push_back(one.report);
    // Both of one light, then both of the other: it is made twice.
    CHECK_THAT(schedule::best_order(day::order_problem(shoot, reports)).work,
               same(prices.light + 2 * (prices.subject - prices.turn)));
}

TEST_CASE("a view that an outlet's cut does not hold is told, and fits when it is framed for it", "[job][outlets]") {
    auto shoot = test::plain_shoot();
    shoot::add_views(shoot, set_named("bag"), satchel(), 0);
    shoot.outlets = job::usual_outlets();  // asked for when all was framed for the frame's own shape
    const AllOf facts(shoot);
    const auto choice = job::choose_pictures(shoot, facts.all, shoot.outlets[0], "Satchel, tan");
    REQUIRE(choice.unfit.size() == 6);  // all that are wider than high; the side is not
    CHECK(choice.musts_left_out == 2);  // front and label
    job::deliver(shoot, shoot.outlets[0].id, "Satchel, tan", choice);
    CHECK_FALSE(job::delivery_of(shoot.shots[choice.unfit[0]], shoot.outlets[0].id));
    for (const auto i : choice.unfit) job::frame_for(shoot, i, shoot.outlets[0]);
    const AllOf now(shoot);
    CHECK(job::choose_pictures(shoot, now.all, shoot.outlets[0], "Satchel, tan").unfit.empty());
    const auto& front = view(shoot, "Satchel, tan", "front");
    // 380 mm in a square of 16 mm, a twentieth of it free at both ends, and the shot's own fifth.
    CHECK_THAT(front.rig.focus.value, same(0.8 * 16 / 380));
}

TEST_CASE("two tall views share a picture side by side where an outlet takes one", "[job][outlets]") {
    auto shoot = test::plain_shoot();
    shoot::add_views(
        shoot, set_named("bottle"),
        {.name = "Tonic", .number = {}, .width = 70, .height = 240, .depth = 70, .colour = {}, .flaws = {}}, 0);
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (shoot.shots[i].view && shoot.shots[i].view->name == "front") shoot.shots[i].view->half = true;
    const shoot::Outlet one{.id = "one",
                            .name = "One",
                            .most = 1,
                            .shape = 1,
                            .least_short_px = {},
                            .most_long_px = {},
                            .first = {},
                            .unknown = {}};
    shoot.outlets = {one};
    const AllOf facts(shoot);
    const auto choice = job::choose_pictures(shoot, facts.all, one, "Tonic");
    REQUIRE(choice.pictures.size() == 1);
    REQUIRE(choice.pictures[0].shots.size() == 2);
    CHECK(shoot.shots[choice.pictures[0].shots[0]].view->name == "front");
    CHECK(shoot.shots[choice.pictures[0].shots[1]].view->name == "back label");
    CHECK_THAT(choice.worth, same(0.75 * (10 + 7)));
    job::deliver(shoot, "one", "Tonic", choice);
    const auto& front = view(shoot, "Tonic", "front");
    CHECK(job::delivery_of(front, "one")->beside == view(shoot, "Tonic", "back label").id);
    // 4000 px high, and half as wide: two of them are square.
    const AllOf now(shoot);
    const auto cut = job::cut_for(now.all[choice.pictures[0].shots[0]], one, *job::delivery_of(front, "one"));
    CHECK(cut.width_px == 2000);
    CHECK(cut.height_px == 4000);
    CHECK(*cut.margin > 0);
}

TEST_CASE("a list of things says what it could not read and where", "[job][csv]") {
    const auto problems = [](const std::string& text) {
        const auto result = storage::read_things_csv(text);
        if (!result) return text::message(result.error());
        std::string all;
        for (const auto& problem : result.value().problems) all += text::message(problem) + "\n";
        return all;
    };
    const auto things = [](const std::string& text) { return storage::read_things_csv(text).value().things; };
    CHECK(problems("").find("the table is empty") != std::string::npos);
    CHECK(problems("name,height\nA,3\n").find("no heading \"width\"") != std::string::npos);
    CHECK(problems("name,width,width,height\n").find("two headings for width") != std::string::npos);
    CHECK(problems("name,width,height\nA,\"1\" 2,3\n").find("line 2: a quotation mark stands alone") !=
          std::string::npos);
    CHECK(problems("name,width,height\nA,wide,3\nB,4,5\n") == "line 2, width: got \"wide\", expected a size, 38 cm\n");
    CHECK(things("name,width,height\nA,wide,3\nB,4,5\n").size() == 1);
    CHECK(problems("name,width,height\n,4,5\n") == "line 2: it has no name\n");
    CHECK(problems("name,width,height\nA,4,5\nA,4,5\n") == "line 3: \"A\" is there already\n");
    CHECK(things("name,width,height\nA,\"4,5\",5\n")[0].width == 4.5);
    CHECK(problems("name,width,height\nA,4,5,6\n") == "line 2: 4 cells where the headings are 3\n");
    CHECK(problems("name,width,height,colour\nA,4,5,brownish\n").find("#8a5532") != std::string::npos);
    CHECK(problems("name,width,height\nA,-4,5\n").find("a size") != std::string::npos);
    CHECK(things("name\twidth_cm\theight_cm\nB\xFC"
                 "chse\t4\t5\n")[0]
              .name ==
          "B\xC3\xBC"
          "chse");  // Latin 1
    CHECK(things("Item,Height (in),Width (in)\nA,2,4\n")[0].width == Approx(101.6));
    CHECK(things("name,width,height\r\n\r\nA,4 cm,50\r\n")[0].width == 40);  // its own unit wins
    CHECK(things("name,width,height\nA,4,5")[0].depth == 2);
    CHECK(things("name,width,height\n,,\nA,4,5\n").size() == 1);
}

TEST_CASE("the packing list has what the shots use, as often as one shot has it at once, and cells to spare",
          "[job][packing]") {
    auto shoot = test::plain_shoot();
    shoot.kit.cameras[0].charge = 0.5;  // frames
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light(), test::plain_light()};
    shot.subject.traits = {"food"};
    Shot outside = shot;
    outside.id = "two", outside.name = "Lichen", outside.subject.traits = {"outdoors"}, outside.lights.clear();
    shoot.shots.push_back(outside);
    const auto list = [&] {
        const AllOf facts(shoot);
        return job::packing_list(shoot, facts.all);
    };
    const auto line = [&](const std::string& id) {
        const auto all = list();
        const auto found = std::ranges::find(all, id, &job::PackLine::id);
        return found == all.end() ? std::optional<job::PackLine>() : *found;
    };
    CHECK(line("cameras:body")->why == "for 2 shots");
    CHECK(line("flashes:flash")->count == 2);
    CHECK_FALSE(line("tubes:t20"));
    CHECK(line("thing:One"));
    CHECK_FALSE(line("thing:Lichen"));  // it is met where it grows
    CHECK(line("supply:food"));
    shoot.shots[1].staging = {shoot::rule_of(20), shoot::rule_of(20), shoot::usual_props()[2]};
    CHECK(line("prop:Rule, 20 mm")->count == 2);
    CHECK(line("prop:Slate")->why == "on the table of one shot");
    CHECK(line("supply:portions")->stays);
    CHECK_FALSE(line("supply:towels"));
    REQUIRE(line("charge:body"));
    CHECK(line("charge:body")->count == 5);  // two frames of half a charge each: four, and one
    job::tick(shoot.packing, "cameras:body", false, true);
    CHECK(line("cameras:body")->going);
    CHECK_FALSE(line("cameras:body")->home);
    job::tick(shoot.packing, "cameras:body", false, false);
    CHECK_FALSE(line("cameras:body")->going);
    job::put_into(shoot.packing, *line("cameras:body"), "Rucksack");
    CHECK(line("cameras:body")->container == "Rucksack");
    job::add_own(shoot.packing, "Slate, 40 x 30", "Crate");
    job::add_own(shoot.packing, "  ", "Crate");
    REQUIRE(line("own:slate-40-x-30"));
    CHECK(job::cases_of(list()).size() == 3);
    job::tick(shoot.packing, "own:slate-40-x-30", true, true);
    job::remove_own(shoot.packing, "own:slate-40-x-30");
    CHECK_FALSE(line("own:slate-40-x-30"));
    CHECK(shoot.packing.home.empty());
}

TEST_CASE("what follows another's ground and light is to look as that is to look", "[job][locks]") {
    auto shoot = test::plain_shoot();
    auto second = std::as_const(shoot.shots)[0];
    second.id = "second", second.name = "Second";
    second.follows =
        shoot::Follows{.shot = shoot.shots[0].id, .locks = {shoot::Lock::light, shoot::Lock::ground}, .unknown = {}};
    shoot.shots.push_back(second);
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[1]).empty());
    auto& wishes = shoot.shots[0].wishes;
    wishes = {.ground = shoot::WantedGround::black,
              .softness = 0.1,
              .lit_by = shoot::WantedLight::flash,
              .contrast = shoot::WantedContrast::soft,
              .brighter = 0.7};
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[1]).size() == 2);
    job::bring_in_line(shoot, 1);
    CHECK(job::deviations(shoot, std::as_const(shoot.shots)[1]).empty());
    const auto& now = std::as_const(shoot.shots)[1].wishes;
    CHECK(now.ground == shoot::WantedGround::black);
    CHECK(now.softness == 0.1);
    CHECK(now.lit_by == shoot::WantedLight::flash);
    CHECK(now.contrast == shoot::WantedContrast::soft);
    CHECK_FALSE(now.brighter);  // of its own exposure
}
