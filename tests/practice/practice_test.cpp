// Each exercise is taken on the bench: the right frames pass, wrong ones fail for the right reason.
#include "practice/exercise.hpp"

#include "advice/advice.hpp"
#include "plan/assess.hpp"
#include "run/journal.hpp"
#include "run/runner.hpp"
#include "storage/shoot_file.hpp"
#include "support/benches.hpp"
#include "support/matchers.hpp"

#include <algorithm>
#include <map>
#include <set>
#include <variant>

using namespace poquito;
using practice::Exercise;
using practice::Outcome;
using practice::Result;

namespace {

/// With the gear of the demo: what an exercise meets at a real bag.
const shoot::Shoot& bag() {
    static const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    return shoot;
}

const Exercise& exercise(const std::string& id) {
    const auto all = practice::exercises();
    return *std::ranges::find_if(all, [&](const Exercise& one) { return one.id == id; });
}

/// What was really done, where it differs from the plan.
using Otherwise = std::function<void(shoot::Shot& shot)>;

class Session {
  public:
    explicit Session(const Exercise& exercise, int width = 720)
        : exercise_(exercise), shots_(exercise.shots(bag().kit)), width_(width) {}

    void take(std::size_t number, const Otherwise& otherwise = {}, std::vector<devices::Mishap> mishaps = {}) {
        shoot::Shoot shoot;
        shoot.kit = bag().kit;
        auto shot = shots_[number];
        if (otherwise) otherwise(shot);
        shoot.shots.clear();
        shoot.shots.push_back(shot);
        auto& bench = *benches_.emplace_back(std::make_unique<test::BenchRun>(
            shoot, devices::SimulatedBench::Options{.mishaps = std::move(mishaps), .picture_width = width_}, shot.id));
        bench.plan = run::tries_plan(bench.plan, static_cast<std::size_t>(exercise_.tries), 1);
        bench.devices = std::make_unique<devices::SimulatedBench>(
            bench.clock, run::bench_setup(bench.shoot.kit, bench.shoot.shots[0], bench.plan),
            devices::SimulatedBench::Options{.mishaps = bench.devices->world().mishaps, .picture_width = width_});
        auto created = run::Journal::create(bench.journal_path(), bench.plan);
        run::Runner runner(bench.devices->bench(), bench.clock, created.value(), bench.fresh(),
                           {.hold_on_fault = false, .retake_dim = false});
        runner.run();
        REQUIRE(runner.status().phase == run::Phase::complete);
        const bool single = shots_[number].capture.mode == shoot::CaptureMode::single;
        proof::Request request{.kit = &bag().kit, .shot = &shots_[number], .singles = single, .tries = single};
        for (std::size_t i = 0; i < bench.plan.frames.size(); ++i)
            request.files.push_back(bench.folder.path() / bench.plan.file_of(i));
        request.files.erase(request.files.begin(), request.files.begin() + left_out_);
        looks_[number] = std::make_shared<const proof::Inspection>(*proof::inspect(request));
    }
    void take_all(const Otherwise& otherwise = {}) {
        for (std::size_t i = 0; i < shots_.size(); ++i) take(i, otherwise);
    }

    Outcome outcome() const {
        std::vector<practice::Series> series;
        for (std::size_t i = 0; i < shots_.size(); ++i) {
            const auto found = looks_.find(i);
            series.push_back({.shot = &shots_[i], .inspection = found == looks_.end() ? nullptr : found->second});
        }
        auto made = exercise_.judge(bag().kit, series);
        INFO(made.said);
        return made;
    }
    std::vector<shoot::Shot>& shots() { return shots_; }
    /// mm from frame to frame, as the bench last went.
    double stepTaken() const {
        const auto& frames = benches_.back()->plan.frames;
        return (frames.back().plane - frames.front().plane) / static_cast<double>(frames.size() - 1);
    }
    void leaveOut(int frames) { left_out_ = frames; }  // the first of those that are taken next

  private:
    const Exercise& exercise_;
    std::vector<shoot::Shot> shots_;
    int width_;
    int left_out_ = 0;
    std::vector<std::unique_ptr<test::BenchRun>> benches_;
    std::map<std::size_t, std::shared_ptr<const proof::Inspection>> looks_;
};

void check(const Outcome& outcome, Result result, const char* words) {
    std::string facts;
    for (const auto& fact : outcome.facts) facts += fact.name + ": " + fact.value + "; ";
    INFO(outcome.said << " [" << facts << "]");
    CHECK(outcome.result == result);
    CHECK(outcome.said.find(words) != std::string::npos);
}

}  // namespace

TEST_CASE("each exercise can be laid out with a bag: shots that can be planned, ids of its own", "[practice]") {
    std::set<std::string> ids;
    for (const auto& one : practice::exercises()) {
        CHECK(ids.insert(one.id).second);
        CHECK(one.grade >= 1);
        CHECK(one.grade <= 3);
        CHECK(std::string(one.why).size() > 60);
        CHECK_FALSE(one.lay_out.empty());
        for (const auto* shoot : {&bag()}) {
            auto kit = shoot->kit;
            const auto shots = one.shots(kit);
            REQUIRE_FALSE(shots.empty());
            for (const auto& shot : shots) {
                INFO(shot.id);
                CHECK(practice::exercise_of(shot) == &one);
                CHECK(ids.insert(shot.id).second);
                auto written = *shoot;
                written.shots.clear();
                written.shots.push_back(shot);
                CHECK(storage::read_shoot(storage::write_shoot(written)).has_value());
                const auto report = plan::assess(kit, shot, {});
                CHECK(report.optics.working_distance.value_or(0) > 0);
                if (std::string(one.id) != "distance" && std::string(one.id) != "grounds" && !shot.freeze)
                    CHECK(std::abs(report.light.front_total.value_or(9)) < 0.7);
            }
            // The simplest bag there is: a camera and a lens.
            kit.flashes.clear(), kit.lamps.clear(), kit.modifiers.clear(), kit.tubes.clear(),
                kit.closeup_lenses.clear(), kit.rails.clear();
            for (const auto& shot : one.shots(kit)) CHECK(shot.lights.empty());
        }
        // Without frames it says which are missing.
        const auto open = Session(one).outcome();
        CHECK(open.result == Result::open);
        CHECK(open.said.find(one.hidden ? "hides the error" : "more of") != std::string::npos);
    }
    const shoot::Shot none;
    CHECK_FALSE(practice::exercise_of(none));
}

TEST_CASE("the leaning rule: depth grows with the stop, and not where the stop was not set", "[practice]") {
    Session right(exercise("lean"));
    right.take_all();
    const auto outcome = right.outcome();
    check(outcome, Result::passed, "depth grew");
    // As deep as the formula has it for the pixels of these files, half of it in front: the judge reckons neither.
    CHECK(outcome.said.find("as reckoned") == std::string::npos);
    CHECK(std::stod(outcome.facts.back().value) == Approx(50).margin(8));
    // At another slant than it says, the depths are not what they seem.
    Session steep(exercise("lean"));
    steep.take_all([](shoot::Shot& shot) { shot.subject.tilt = 65; });
    check(steep.outcome(), Result::passed, "times as deep as reckoned");
    Session wrong(exercise("lean"));
    wrong.take_all([](shoot::Shot& shot) { shot.exposure.f_number = 8; });
    check(wrong.outcome(), Result::failed, "same stop");
}

TEST_CASE("the ladder: sharpest in the middle, softer at its end, and nothing of it at a slant", "[practice][long]") {
    Session right(exercise("ladder"));
    right.take_all();
    check(right.outcome(), Result::passed, "Sharpest at f/");
    CHECK_FALSE(right.outcome().limits);  // at so few pixels diffraction does not show
    // With more of them it does: the smallest stop that is not softer becomes the person's limit.
    Session finer(exercise("ladder"), 3000);
    finer.take_all();
    const auto ladder = finer.outcome();
    check(ladder, Result::passed, "a sixth softer or more");
    REQUIRE(ladder.limits);
    REQUIRE(ladder.limits->f_number);
    CHECK(ladder.keep == fmt::format("Keep f/{:g} as your smallest stop", *ladder.limits->f_number));
    CHECK(ladder.said.find(fmt::format("From f/{:g} on", *ladder.limits->f_number)) == std::string::npos);
    Session wrong(exercise("ladder"));
    wrong.take_all([](shoot::Shot& shot) { shot.exposure.shutter = 1.0 / 15; });
    check(wrong.outcome(), Result::failed, "not equally bright");
}

TEST_CASE("tubes against glass: of one size or nothing is compared", "[practice]") {
    Session right(exercise("closer"));
    right.take_all();
    check(right.outcome(), Result::passed, "corners");
    Session wrong(exercise("closer"));
    wrong.take(0);
    wrong.take(1, [](shoot::Shot& shot) { shot.rig.focus.value *= 0.8; });
    check(wrong.outcome(), Result::failed, "not of one size");
}

TEST_CASE("bracing: the steadiest way wins, and all fail where the time is too long", "[practice][long]") {
    const auto turning = [](double turn) {
        return [turn](shoot::Shot& shot) { shoot::own_tries(shot).hands->turn = turn; };
    };
    Session right(exercise("steady"), 1600);
    right.take(0), right.take(1, turning(0.06)), right.take(2), right.take(3);
    check(right.outcome(), Result::passed, "is your way");
    const auto steady = right.outcome();
    REQUIRE(steady.facts.size() == 4);
    const auto sharp = [&](std::size_t way) { return std::stoi(steady.facts[way].value); };
    CHECK(sharp(0) < sharp(2));
    CHECK(sharp(3) >= 7);
    // The bag is no way to hold a camera: the limit is what hands did.
    CHECK(steady.said.find("on the bag of rice") != std::string::npos);
    CHECK(steady.said.find("Leaning on a wall") != std::string::npos);
    REQUIRE(steady.limits);
    CHECK(*steady.limits->shutter_by_hand <= right.shots()[0].exposure.shutter);
    CHECK_FALSE(steady.limits->f_number);
    Session alike(exercise("steady"), 800);
    for (const std::size_t way : {0, 1, 2, 3}) alike.take(way, turning(0.004));
    check(alike.outcome(), Result::passed, "and \u201cLeaning on a wall\u201d are alike by hand: 8 of 8");
    check(alike.outcome(), Result::passed, "twice the time");
    Session shaky(exercise("steady"), 800);
    for (const std::size_t way : {0, 1, 2}) shaky.take(way, turning(1));
    shaky.take(3);
    check(shaky.outcome(), Result::passed, "not enough");
    CHECK_FALSE(shaky.outcome().limits);
}

TEST_CASE("automatic against fixed: a fixed series that is not steady is told", "[practice]") {
    Session right(exercise("automatic"));
    right.take_all();
    check(right.outcome(), Result::passed, "repeat");
    Session wrong(exercise("automatic"));
    wrong.take(0);
    wrong.take(1, {}, {{.kind = devices::MishapKind::flash_not_ready, .frame = 2}});
    check(wrong.outcome(), Result::failed, "not steady");
}

TEST_CASE("half the distance is two stops, unless the flash takes them away again", "[practice]") {
    Session right(exercise("distance"));
    right.take_all();
    check(right.outcome(), Result::passed, "two stops more");
    Session wrong(exercise("distance"));
    wrong.take(0);
    wrong.take(1, [](shoot::Shot& shot) { shot.lights[0].power = *shot.lights[0].power / 4; });
    check(wrong.outcome(), Result::failed, "automatic");
}

TEST_CASE("black ground and white ground, and each as it goes wrong", "[practice]") {
    Session right(exercise("grounds"));
    right.take_all();
    check(right.outcome(), Result::passed, "two grounds");
    Session wrong(exercise("grounds"));
    wrong.take(0, [](shoot::Shot& shot) { shot.background->distance = 60, shot.background->reflectance = 0.4; });
    wrong.take(1);
    check(wrong.outcome(), Result::failed, "dark grey");
    wrong.take(0);
    wrong.take(1, [](shoot::Shot& shot) { shot.background->distance = 600; });
    check(wrong.outcome(), Result::failed, "is grey");
}

TEST_CASE("the spoon shows how large the light is", "[practice]") {
    Session right(exercise("spoon"));
    right.take_all();
    check(right.outcome(), Result::passed, "became a field");
    Session wrong(exercise("spoon"));
    wrong.take(0);
    wrong.take(1, [&](shoot::Shot& shot) { shot.lights = wrong.shots()[0].lights; });
    check(wrong.outcome(), Result::failed, "no larger");
}

TEST_CASE("a first stack is whole, or it is told where it is not", "[practice][long]") {
    Session right(exercise("stack"));
    right.take_all();
    check(right.outcome(), Result::passed, "whole");
    Session late(exercise("stack"));
    late.leaveOut(14);
    late.take(0);
    check(late.outcome(), Result::failed, "18 frames where the plan has 32");
    Session touched(exercise("stack"));
    touched.take(0, {}, {{.kind = devices::MishapKind::subject_moves, .frame = 6, .size = 0.8}});
    check(touched.outcome(), Result::failed, "lies elsewhere");
}

TEST_CASE("a bracket along a leaning rule measures the camera's step, for its record", "[practice][long]") {
    const auto& camera = bag().kit.cameras.front();
    Session right(exercise("bracket"));
    right.take_all();
    const auto outcome = right.outcome();
    check(outcome, Result::passed, "By the rule a step");
    // tan 46 / tan 45 and tan 44 / tan 45 lie 3.5 % about 1.
    CHECK(outcome.facts.back().value == "45\u00b0");
    CHECK(outcome.facts.back().remark.find("3.5 %") != std::string::npos);
    REQUIRE(outcome.taught);
    const auto& reading = outcome.taught->offer.reading;
    CHECK(outcome.taught->shot == right.shots()[0].id);
    CHECK(outcome.keep == "Remember it for " + camera.name);
    CHECK(reading.travel / (reading.frames - 1) == Approx(right.stepTaken()).epsilon(0.1));
    CHECK(reading.lens == right.shots()[0].rig.lens);
    // Kept, it is one more reading of that camera.
    auto shoot = bag();
    shoot.shots.push_back(right.shots()[0]);
    proof::learn(shoot, outcome.taught->shot, outcome.taught->offer, "2026-12-01T10:00:00");
    REQUIRE(shoot.kit.cameras.front().step_readings.size() == camera.step_readings.size() + 1);
    // Half as wide again is measured so, and is too wide.
    Session wide(exercise("bracket"));
    wide.take_all([](shoot::Shot& shot) { shot.capture.overlap = 0, shot.sharpness.pixels = 6; });
    CHECK(wide.stepTaken() > 1.4 * right.stepTaken());
    const auto other = wide.outcome();
    REQUIRE(other.taught);
    CHECK(other.taught->offer.reading.travel / (other.taught->offer.reading.frames - 1) ==
          Approx(wide.stepTaken()).epsilon(0.1));
    check(other, Result::failed, "smaller step");
    // A rule that stands upright says nothing.
    Session upright(exercise("bracket"));
    upright.take_all([](shoot::Shot& shot) { shot.subject.tilt = 0, shot.capture.lead = shot.capture.tail = 10; });
    check(upright.outcome(), Result::failed, "tells nothing");
    CHECK_FALSE(upright.outcome().taught);
    // Nor does one that leaned while its shot says that it does not.
    right.shots()[0].subject.tilt = 0;
    check(right.outcome(), Result::failed, "as its tilt");
    CHECK_FALSE(right.outcome().taught);
}

TEST_CASE("what fixed flash gave against its record is offered to be kept", "[practice]") {
    const auto weaker = [](shoot::Shot& shot) {
        if (shot.lights[0].power) shot.lights[0].power = *shot.lights[0].power / 2;
    };
    for (const char* id : {"distance", "automatic"}) {
        INFO(id);
        Session right(exercise(id));
        right.take_all();
        CHECK_FALSE(right.outcome().taught);  // it gave what it should
        Session weak(exercise(id));
        weak.take_all(weaker);
        const auto outcome = weak.outcome();
        check(outcome, Result::passed, "darker");
        REQUIRE(outcome.taught);
        CHECK(outcome.taught->offer.teaches == proof::Teaches::light);
        auto shoot = bag();
        for (const auto& shot : weak.shots()) shoot.shots.push_back(shot);
        proof::learn(shoot, outcome.taught->shot, outcome.taught->offer, "2026-12-01T10:00:00");
        const auto& corrections = shoot.kit.flashes.front().corrections;
        REQUIRE(corrections.size() == bag().kit.flashes.front().corrections.size() + 1);
        CHECK(corrections.back().stops == Approx(-1).margin(0.15));
    }
}

TEST_CASE("what falls is frozen by a short flash, where it is met", "[practice]") {
    Session right(exercise("grain"));
    right.take_all();
    check(right.outcome(), Result::passed, "frozen");
    Session wrong(exercise("grain"));
    wrong.take_all([](shoot::Shot& shot) { shot.freeze->beam_above = 60; });
    check(wrong.outcome(), Result::failed, "none of the frames");
    // At full power the flash is long: it is met, and drawn out.
    Session drawn(exercise("grain"));
    drawn.take_all([](shoot::Shot& shot) {
        shot.exposure.iso *= *shot.lights[0].power;
        shot.lights[0].power = 1;
    });
    check(drawn.outcome(), Result::failed, "None is frozen");
}

TEST_CASE("what goes wrong most is practised next, then the easiest that is left", "[practice]") {
    CHECK(std::string(practice::next_exercise({}, {})->id) == "lean");
    CHECK(std::string(practice::next_exercise({{"gap", 5}, {"clipped", 2}}, {})->id) == "stack");
    CHECK(std::string(practice::next_exercise({{"gap", 5}, {"clipped", 2}}, {"stack", "error", "bracket"})->id) ==
          "distance");
    std::vector<std::string> all;
    for (const auto& one : practice::exercises()) all.emplace_back(one.id);
    CHECK_FALSE(practice::next_exercise({{"gap", 5}}, all));
}
