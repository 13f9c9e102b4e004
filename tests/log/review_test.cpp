// A day looked back on, a series over the months, and lessons that are taken over.
#include "log/review.hpp"

#include "log/protocol.hpp"
#include "log/record.hpp"
#include "log/take_over.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

using namespace poquito;
using log::Entry;
using log::Kind;
using log::Lesson;
using log::Topic;
using test::same;

namespace {

struct Day {
    std::vector<Entry> entries;

    Entry& add(Kind kind, const char* time, const char* shot) {
        auto& entry = entries.emplace_back();
        entry.kind = kind;
        entry.shoot = "Saltmarsh", entry.shot = shot, entry.name = shot;
        entry.time = fmt::format("2026-11-28T{}:00", time);
        return entry;
    }
    Entry& run(const char* time, const char* shot, int frames, double minutes) {
        auto& entry = add(Kind::run, time, shot);
        entry.frames = frames, entry.minutes = minutes;
        return entry;
    }
};

const log::ReviewedCause* cause(const log::Review& review, const char* name) {
    const auto found = std::ranges::find(review.causes, name, &log::ReviewedCause::cause);
    return found == review.causes.end() ? nullptr : &*found;
}

}  // namespace

TEST_CASE("a day is looked back on: planned against happened, what went wrong and what it cost", "[log][review]") {
    Day day;
    day.add(Kind::change, "09:05", "urchin").minutes = 10, day.entries.back().what = "light";
    day.run("09:20", "urchin", 30, 6);
    day.add(Kind::inspection, "09:30", "urchin").causes = "gap 2, shaken 1";
    day.run("09:40", "urchin", 30, 6);
    day.add(Kind::proof, "09:50", "urchin").verdict = "keep";
    day.entries.back().f_number = 9, day.entries.back().planned_f_number = 8;
    auto& weak = day.run("10:10", "brooch", 20, 4);
    weak.held = 12;
    day.run("10:30", "brooch", 5, 1).what = "broken off";
    day.add(Kind::proof, "10:40", "brooch").verdict = "redo";
    auto& count = day.add(Kind::count, "11:00", "bee");
    count.kept = 2, count.tried = 40;
    std::ranges::reverse(day.entries);  // as the book gives them
    const auto review = log::review_of(day.entries,
                                       {{.shot = "urchin", .name = "Urchin", .frames = 30, .minutes = 5},
                                        {.shot = "tin", .name = "Tin", .frames = 1, .minutes = 0}},
                                       {{"light", 4}, {"lens", 2}});
    CHECK(review.day == "2026-11-28");
    CHECK_THAT(review.begin, same(9 * 60 + 5));
    CHECK_THAT(review.end, same(11 * 60));
    REQUIRE(review.shots.size() == 4);
    const auto& urchin = review.shots[0];
    CHECK(urchin.name == "Urchin");
    CHECK(urchin.frames == 60);
    CHECK(urchin.planned_frames == 30);
    CHECK(urchin.runs == 2);
    CHECK_THAT(urchin.minutes, same(12));
    CHECK(urchin.verdict == "keep");
    CHECK_THAT(*urchin.f_number, same(9));
    CHECK(review.shots[3].name == "Tin");
    CHECK(review.shots[3].runs == 0);
    CHECK(review.kept == 1);
    CHECK(review.redone == 1);
    CHECK(review.open == 2);
    CHECK_THAT(review.running, same(17));
    CHECK_THAT(review.changing, same(10));
    CHECK_THAT(review.planned_changing, same(4));
    // The second run of the urchin was for two gaps and a shake; the brooch broke off once, and its flash is no cost of
    // a run that was not taken again.
    REQUIRE(cause(review, "gap"));
    CHECK_THAT(cause(review, "gap")->minutes, same(4));
    CHECK_THAT(cause(review, "shaken")->minutes, same(2));
    CHECK_THAT(cause(review, "change")->minutes, same(6));
    CHECK(cause(review, "change")->text.find("light") != std::string::npos);
    CHECK(cause(review, "broken")->often == 1);
    CHECK(cause(review, "flash")->often == 8);
    CHECK_THAT(cause(review, "flash")->minutes, same(0));
    CHECK(cause(review, "chance")->often == 38);
    CHECK(review.causes.front().cause == "change");  // the dearest
    REQUIRE(review.otherwise.size() == 3);
    CHECK(review.otherwise[1].find("overlap") != std::string::npos);
    CHECK(log::review_of({}, {}, {}).day.empty());
}

TEST_CASE("a series is held against its first session, and what drifts is told from when on", "[log][protocol]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.name = "Canine, left";
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.125;
    auto second = std::as_const(shoot.shots)[0];
    second.id = "two", second.name = "Canine, right";
    second.follows = shoot::Follows{.shot = "one", .locks = {shoot::Lock::stop, shoot::Lock::light}, .unknown = {}};
    shoot.shots.push_back(second);
    std::vector<Entry> entries;
    const auto session = [&](const char* day, const shoot::Shoot& as, double stops, double scale) {
        auto entry = log::entry_for(as, std::as_const(as.shots)[0], "tooth");
        entry.kind = Kind::inspection;
        entry.id = static_cast<std::int64_t>(entries.size()) + 1;
        entry.time = std::string(day) + "T10:00:00";
        entry.stops = stops, entry.scale = scale, entry.off = 0.01;
        entries.push_back(entry);
        entry.kind = Kind::run, entry.stops.reset(), entry.scale.reset(),
        entry.off.reset();  // the same day: what was measured counts
        entry.time = std::string(day) + "T11:00:00";
        entries.push_back(entry);
    };
    session("2026-01-10", shoot, 0.1, 1.00);
    session("2026-04-10", shoot, 0.15, 1.01);
    session("2026-07-10", shoot, 0.4, 1.03);
    auto other = shoot;
    other.shots[0].lights[0].power = 0.25;
    other.shots[0].exposure.f_number *= 2;
    session("2026-10-10", other, 0.1, 1.04);
    std::ranges::reverse(entries);
    const auto protocol = log::protocol_of(shoot, 0, entries);
    CHECK(protocol.locks == std::vector{shoot::Lock::stop, shoot::Lock::light});
    REQUIRE(protocol.sessions.size() == 4);
    CHECK_THAT(*protocol.sessions[0].exposure, same(0));
    CHECK_THAT(*protocol.sessions[0].scale, same(1));
    CHECK_THAT(*protocol.sessions[2].exposure, same(0.3));
    CHECK_THAT(*protocol.sessions[2].scale, same(1.03));
    CHECK(protocol.sessions[2].measured);
    CHECK(protocol.sessions[2].otherwise.empty());
    // Twice the power at two stops less of aperture: a stop darker.
    CHECK_THAT(*protocol.sessions[3].exposure, test::WithinAbs(-1, 0.02));
    CHECK(protocol.sessions[3].otherwise.size() == 2);
    const auto told = [&](const char* words) {
        return std::ranges::any_of(protocol.drifts,
                                   [&](const log::Drift& one) { return one.text.find(words) != std::string::npos; });
    };
    CHECK(told("darker since 2026-10-10"));
    CHECK(told("4 % larger since 2026-07-10"));
    CHECK_FALSE(told("off its place"));
    CHECK(told("light A"));
    CHECK_FALSE(protocol.settings.empty());
    CHECK(protocol.settings[0].find("100 mm macro 1:1") != std::string::npos);
    // A session whose frames were not looked at differs by its plan alone.
    auto unseen = entries;
    std::erase_if(unseen, [](const Entry& entry) {
        return entry.kind == Kind::inspection && entry.time.starts_with("2026-07-10");
    });
    const auto by_plan = log::protocol_of(shoot, 0, unseen);
    REQUIRE(by_plan.sessions.size() == 4);
    CHECK_FALSE(by_plan.sessions[2].measured);
    CHECK_THAT(*by_plan.sessions[2].exposure, same(0));
    CHECK_THAT(*by_plan.sessions[2].scale, same(1));
    // Without plans there is nothing to compare.
    for (auto& entry : entries) entry.plan.clear();
    CHECK(log::protocol_of(shoot, 0, entries).sessions.empty());
}

TEST_CASE("a lesson is offered where it changes something, and does that when it is taken", "[log][lessons]") {
    auto shoot = test::plain_shoot();
    {
        auto& shot = shoot.shots[0];
        shot.lights = {test::plain_light()};
        shot.lights[0].power = 0.125;
        shot.exposure.f_number = 8, shot.exposure.iso = 200;
        shot.capture.mode = shoot::CaptureMode::stack, shot.capture.mover = shoot::Mover::rail;
        shot.subject.depth = 10;
    }
    const auto taken = [&](const Lesson& lesson) {
        REQUIRE(log::offer_of(lesson, shoot, 0, "coin"));
        auto after = shoot;
        log::take_over(lesson, after, 0, "2026-11-28T10:00:00");
        CHECK_FALSE(log::offer_of(lesson, after, 0, "coin"));  // it is taken
        return after;
    };
    const auto shot_of = [](const shoot::Shoot& after) { return std::as_const(after.shots)[0]; };
    Lesson lesson{.topic = Topic::stop, .value = 5.6, .subject_class = "coin", .lens = "100 mm macro 1:1"};
    CHECK_THAT(shot_of(taken(lesson)).exposure.f_number, same(5.6));
    CHECK_FALSE(log::offer_of(lesson, shoot, 0, "insect"));
    lesson.lens = "Another";
    CHECK_FALSE(log::offer_of(lesson, shoot, 0, "coin"));
    lesson = {.topic = Topic::exposure, .value = 0.4, .unit = "Compact flash"};
    CHECK_THAT(taken(lesson).kit.flashes[0].corrections.at(0).stops, same(0.4));
    lesson = {.topic = Topic::change, .value = 7, .what = "light"};
    CHECK_THAT(taken(lesson).workday.prices.light, same(420));
    lesson = {.topic = Topic::work, .value = 14.26, .what = "combining"};
    CHECK_THAT(taken(lesson).workday.combining, same(14.3));
    lesson = {.topic = Topic::approach, .value = 0.9, .what = "one frame", .subject_class = "coin"};
    CHECK(shot_of(taken(lesson)).capture.mode == shoot::CaptureMode::single);
    lesson.what = "stack by ring";
    CHECK(shot_of(taken(lesson)).capture.mover == shoot::Mover::ring);
    lesson = {.topic = Topic::odds, .cases = 40, .value = 0.25, .what = "stack by rail", .subject_class = "coin"};
    CHECK(shoot::tries_of(shot_of(taken(lesson))).kept == 10);
    lesson = {.topic = Topic::flash, .about = "Compact flash at 1/8", .what = "behind", .unit = "Compact flash"};
    const auto slower = shot_of(taken(lesson));
    CHECK_THAT(*slower.lights[0].power, same(0.0625));
    CHECK_THAT(slower.exposure.iso, same(400));
    lesson = {.topic = Topic::depth, .value = 1.2, .subject_class = "coin", .lens = "100 mm macro 1:1"};
    auto deeper = shoot;
    log::take_over(lesson, deeper, 0, {});
    CHECK_THAT(shot_of(deeper).subject.depth, same(12));
    CHECK_FALSE(log::offer_of({.topic = Topic::pace}, shoot, 0, "coin"));
    CHECK_FALSE(log::offer_of(lesson, shoot, 9, "coin"));
}

TEST_CASE("the change that took longest over its plan is named, not the longest one", "[log][review]") {
    Day day;
    day.add(Kind::change, "09:05", "urchin").minutes = 9, day.entries.back().what = "lens";
    day.add(Kind::change, "09:30", "urchin").minutes = 10, day.entries.back().what = "light";
    const auto review = log::review_of(day.entries, {}, {{"light", 4}, {"lens", 2}});
    REQUIRE(cause(review, "change"));
    CHECK_THAT(cause(review, "change")->minutes, same(7 + 6));
    CHECK(cause(review, "change")->text.ends_with("lens"));
}
