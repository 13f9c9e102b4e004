// Runs: every frame once and in its place, a right record whatever goes wrong, and going on from there.
#include "run/runner.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/benches.hpp"
#include "support/matchers.hpp"
#include "text/stored_path.hpp"

#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <sys/wait.h>
#include <unistd.h>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <functional>
#include <limits>
#include <set>
#include <thread>

using namespace poquito;
using namespace poquito::devices;
using namespace poquito::run;
using test::same;
using test::WithinAbs;

namespace {

Journal created(const test::BenchRun& run) { return Journal::create(run.journal_path(), run.plan).value(); }
RunState read(const test::BenchRun& run) {
    auto state = read_journal(run.journal_path());
    REQUIRE(state.has_value());
    return std::move(state).value();
}

/// All frames once, each with its file.
void check_complete(const test::BenchRun& run, const RunState& state) {
    CHECK(state.missing().empty());
    std::multiset<int> taken;
    for (const auto& frame : state.taken) {
        taken.insert(frame.index);
        CHECK(std::filesystem::file_size(run.folder.path() / frame.file) > 500);
        CHECK_THAT(frame.plane, same(run.plan.frames[static_cast<std::size_t>(frame.index)].plane));
    }
    CHECK(taken.size() == run.plan.frames.size());
    CHECK(std::set<int>(taken.begin(), taken.end()).size() == run.plan.frames.size());
}

/// Calls back once for each exposure, as it begins.
template <typename Then>
auto at_exposures(const Runner& runner, Then then) {
    return [&runner, then, before = Phase::starting]() mutable {
        const auto status = runner.status();
        const bool begins = status.phase == Phase::exposing && before != Phase::exposing;
        before = status.phase;
        if (begins) then(status.frame);
    };
}

/// Between runner and rail: writes down where it is sent.
class Watched final : public RailPort {
  public:
    explicit Watched(RailPort& rail) : rail_(rail) {}
    Done connect() override { return rail_.connect(); }
    void disconnect() override { rail_.disconnect(); }
    std::string name() const override { return rail_.name(); }
    Capabilities capabilities() const override { return rail_.capabilities(); }
    Done home() override { return rail_.home(); }
    Done move_to(double position) override {
        moves.push_back(position);
        return rail_.move_to(position);
    }
    Outcome<double> position() override { return rail_.position(); }
    void halt() override { rail_.halt(); }
    std::vector<double> moves;

  private:
    RailPort& rail_;
};

}  // namespace

TEST_CASE("a run takes every frame in its place, from one side", "[bench][run]") {
    test::BenchRun run;
    REQUIRE(run.plan.frames.size() == 12);
    auto journal = created(run);
    auto bench = run.devices->bench();
    Watched watched(*bench.rail);
    bench.rail = &watched;
    Runner runner(bench, run.clock, journal, run.fresh());
    std::vector<double> stood;
    runner.run(at_exposures(runner, [&](std::size_t) { stood.push_back(run.devices->world().carriage); }));
    CHECK(runner.status().phase == Phase::complete);
    check_complete(run, read(run));
    CHECK(read(run).end == shoot::RunEnd::complete);
    // Once back behind the first frame, then forwards only: the carriage is where the plan wants it, play or not.
    CHECK_THAT(watched.moves[1] - watched.moves[0], WithinAbs(0.1, 1e-9));
    CHECK(std::is_sorted(watched.moves.begin(), watched.moves.end()));
    const double reference = rail_reference(run.plan, 100);
    REQUIRE(stood.size() == 12);
    for (std::size_t i = 0; i < 12; ++i) CHECK_THAT(stood[i], WithinAbs(reference + *run.plan.frames[i].rail, 0.0051));
}

TEST_CASE("a run lasts as long as the plan says", "[bench][run]") {
    test::BenchRun run;
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    double first = -1, last = 0;
    runner.run(at_exposures(runner, [&](std::size_t) {
        if (first < 0) first = run.clock.now();
        last = run.clock.now();
    }));
    const auto report = plan::assess(run.shoot.kit, run.shoot.shots[0], {});
    // The plan counts to the end of the last exposure; the simulation looks every 50 ms.
    CHECK_THAT(last + 0.125 - first, WithinAbs(report.capture.paced_duration, 12 * 0.06));
    CHECK(report.capture.paced_duration > 11 * 1.1);
}

TEST_CASE("the interval that was set is kept", "[bench][run]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].capture.interval = 5;
    test::BenchRun run(shoot);
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    std::vector<double> at;
    runner.run(at_exposures(runner, [&](std::size_t) { at.push_back(run.clock.now()); }));
    REQUIRE(at.size() == 12);
    for (std::size_t i = 1; i < at.size(); ++i) CHECK_THAT(at[i] - at[i - 1], WithinAbs(5, 0.06));
}

TEST_CASE("each trouble in the middle of a run leaves a right record and can be gone on with", "[bench][run]") {
    for (const auto kind : {MishapKind::camera_drops, MishapKind::rail_drops, MishapKind::card_full,
                            MishapKind::flash_dies, MishapKind::wrong_aperture}) {
        INFO(mishap_id(kind));
        test::BenchRun run(test::twelve_frames(), {.mishaps = {{.kind = kind, .frame = 5}}, .picture_width = 48});
        {
            auto journal = created(run);
            Runner runner(run.devices->bench(), run.clock, journal, run.fresh(),
                          {.hold_on_fault = false, .reconnects = 0});
            CHECK(runner.run() == Phase::broken);
            CHECK_FALSE(runner.status().problem.empty());
        }
        auto state = read(run);
        CHECK_FALSE(state.end);
        CHECK_FALSE(state.remark.empty());
        // Five are exposed; of those, what reached the card is in the record, in order, and nothing else is.
        CHECK(state.taken.size() <= 5);
        for (std::size_t i = 0; i < state.taken.size(); ++i) CHECK(state.taken[i].index == static_cast<int>(i));
        CHECK(state.missing().size() == 12 - state.taken.size());
        CHECK(unfinished_runs(run.folder.path()).journals == std::vector{run.journal_path()});
        CHECK(record_of(state).end == shoot::RunEnd::broken);
        {
            auto journal = Journal::resume(run.journal_path()).value();
            Runner runner(run.devices->bench(), run.clock, journal, state, {.hold_on_fault = false});
            CHECK(runner.run() == Phase::complete);
        }
        state = read(run);
        check_complete(run, state);
        CHECK(record_of(state).end == shoot::RunEnd::complete);
        CHECK(unfinished_runs(run.folder.path()).journals.empty());
    }
}

TEST_CASE("a connection that drops is made again by itself", "[bench][run]") {
    for (const auto kind : {MishapKind::camera_drops, MishapKind::rail_drops}) {
        test::BenchRun run(test::twelve_frames(), {.mishaps = {{.kind = kind, .frame = 7}}, .picture_width = 48});
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        CHECK(runner.run() == Phase::complete);
        check_complete(run, read(run));
    }
}

TEST_CASE("a frame that the flash missed is found by its darkness and taken again", "[bench][run]") {
    const devices::SimulatedBench::Options options{.mishaps = {{.kind = MishapKind::flash_not_ready, .frame = 4}},
                                                   .picture_width = 48};
    {
        test::BenchRun run(test::twelve_frames(), options);
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        CHECK(runner.run() == Phase::complete);
        check_complete(run, read(run));
        const auto taken = read(run).taken;
        CHECK(taken.back().index == 4);
        for (const auto& frame : taken) CHECK(frame.flash == 1);
    }
    test::BenchRun run(test::twelve_frames(), options);
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh(), {.retake_dim = false});
    CHECK(runner.run() == Phase::complete);
    const auto state = read(run);
    check_complete(run, state);
    CHECK(state.frames[4].state == FrameState::dim);
    CHECK(runner.status().dim == 1);
    const auto dark = std::ranges::find(state.taken, 4, &shoot::ExposedFrame::index);
    REQUIRE(dark != state.taken.end());
    CHECK(dark->flash == 0.25);
    CHECK(dark->remark.find("darker") != std::string::npos);
}

TEST_CASE("pause holds, stop keeps what was taken, resume goes on at the next frame", "[bench][run]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        std::thread person;
        int paused = 0;
        const auto phase = runner.run([&] {
            const auto status = runner.status();
            if (status.phase == Phase::exposing && status.frame == 3 && paused == 0) {
                runner.pause();
                ++paused;
            }
            if (status.phase == Phase::paused && paused == 1) {
                ++paused;
                CHECK(status.problem.empty());
                CHECK(status.frames[3] >= FrameState::exposed);
                CHECK(status.frames[4] == FrameState::pending);
                person = std::thread([&] { runner.resume(); });
            }
            if (status.phase == Phase::exposing && status.frame == 7) runner.stop();
        });
        person.join();
        CHECK(phase == Phase::stopped);
        CHECK(paused == 2);
    }
    auto state = read(run);
    CHECK(state.end == shoot::RunEnd::stopped);
    CHECK(state.taken.size() == 8);                              // the frame that was being exposed is kept
    CHECK(unfinished_runs(run.folder.path()).journals.empty());  // stopped on purpose
    auto journal = Journal::resume(run.journal_path()).value();
    Runner runner(run.devices->bench(), run.clock, journal, state);
    CHECK(runner.status().frame == 8);
    CHECK(runner.run() == Phase::complete);
    check_complete(run, read(run));
}

TEST_CASE("redo from here takes it and all behind it again - skip leaves one out", "[bench][run]") {
    test::BenchRun run;
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    bool redone = false, skipped = false;
    std::vector<std::size_t> exposed;
    const double reference = rail_reference(run.plan, 100);
    runner.run(at_exposures(runner, [&](std::size_t frame) {
        exposed.push_back(frame);
        // Also after going back: from behind, so that the play of the screw does not show.
        CHECK_THAT(run.devices->world().carriage, WithinAbs(reference + *run.plan.frames[frame].rail, 0.0051));
        // Of what is asked for more than once the earliest counts.
        if (frame == 6 && !redone)
            for (const std::size_t from : {5, 4, 6}) redone = true, runner.redo_from(from);
        if (frame == 9 && !skipped) skipped = true, runner.skip();
    }));
    CHECK(exposed == std::vector<std::size_t>{0, 1, 2, 3, 4, 5, 6, 4, 5, 6, 7, 8, 9, 11});
    const auto state = read(run);
    CHECK(state.frames[10].state == FrameState::skipped);
    CHECK(state.taken.size() == 11);
    CHECK(state.missing().empty());
    CHECK(std::ranges::count(state.taken, 5, &shoot::ExposedFrame::index) == 1);
}

TEST_CASE("a person is told what is wrong and goes on when it is mended", "[bench][run]") {
    test::BenchRun run(test::twelve_frames(),
                       {.mishaps = {{.kind = MishapKind::flash_dies, .frame = 2}}, .picture_width = 48});
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    std::thread person;
    std::string told;
    runner.run([&] {
        const auto status = runner.status();
        if (status.phase == Phase::paused && told.empty()) {
            told = status.problem;
            person = std::thread([&] { runner.resume(); });
        }
    });
    person.join();
    CHECK(told.find("flash is not ready") != std::string::npos);
    check_complete(run, read(run));
}

TEST_CASE("a stack longer than the rail is refused before the first frame", "[bench][run]") {
    auto shoot = test::twelve_frames();
    shoot.kit.rails[0].travel = 5;
    test::BenchRun run(shoot);
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh(), {.hold_on_fault = false});
    CHECK(runner.run() == Phase::broken);
    CHECK(runner.status().problem.find("longer than the 5 mm") != std::string::npos);
    CHECK(read(run).taken.empty());
}

TEST_CASE("test frames are the first, the middle and the last", "[bench][run]") {
    test::BenchRun run;
    const auto test = test_plan(run.plan);
    REQUIRE(test.frames.size() == 3);
    CHECK(test.frames[0].plane == run.plan.frames[0].plane);
    CHECK(test.frames[1].plane == run.plan.frames[5].plane);
    CHECK(test.frames[2].plane == run.plan.frames[11].plane);
    RunPlan single = run.plan;
    single.frames.resize(1);
    CHECK(test_plan(single).frames.size() == 1);

    // What is taken again goes where the plan's own frames would be, in between and past the ends.
    const auto& first = run.plan.frames.front();
    const double step = run.plan.frames[1].plane - first.plane;
    const auto again = retake_plan(run.plan, {first.plane + 1.5 * step, first.plane - step, run.plan.frames[3].plane});
    CHECK(again.id == run.plan.id + "-retake");
    REQUIRE(again.frames.size() == 3);
    CHECK_THAT(again.frames[0].plane, WithinAbs(first.plane - step, 1e-9));  // nearest first
    CHECK_THAT(*again.frames[0].rail, WithinAbs(*first.rail - step, 1e-9));
    CHECK_THAT(*again.frames[1].rail, WithinAbs(*first.rail + 1.5 * step, 1e-9));
    CHECK_THAT(*again.frames[2].rail, WithinAbs(*run.plan.frames[3].rail, 1e-9));
    CHECK(again.take_up == run.plan.take_up);
    CHECK(retake_plan(single, {}).frames.size() == 1);
    RunPlan by_ring = run.plan;
    for (std::size_t i = 0; i < by_ring.frames.size(); ++i)
        by_ring.frames[i] = {
            .plane = static_cast<double>(i), .rail = std::nullopt, .ring = 0.1 + 0.02 * static_cast<double>(i)};
    CHECK_THAT(*retake_plan(by_ring, {2.5}).frames.front().ring, WithinAbs(0.15, 1e-9));
    CHECK_THAT(*retake_plan(by_ring, {-1}).frames.front().ring, WithinAbs(0.08, 1e-9));
}

// ---- journal -----------------------------------------------------------------------------------------------------

TEST_CASE("a torn last line is as if it had not been begun", "[bench][journal]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        runner.run();
    }
    const auto whole = storage::read_file(run.journal_path()).value();
    const auto head = whole.find('\n') + 1;
    std::size_t taken_before = 0;
    for (std::size_t length = head; length <= whole.size(); length += 7) {
        REQUIRE(storage::replace_file(run.journal_path(), whole.substr(0, length)));
        const auto state = read(run);
        CHECK(state.taken.size() >= taken_before);
        taken_before = state.taken.size();
        // Going on writes whole lines behind the last whole one.
        auto journal = Journal::resume(run.journal_path()).value();
        REQUIRE(journal.fault("x"));
        CHECK(read(run).remark == "x");
    }
    CHECK(taken_before == 12);
}

TEST_CASE("what is to be taken again counts as missing from the moment it is asked for", "[bench][journal]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        runner.run();
    }
    // Asked for, and the power goes before the first of them is begun.
    {
        auto journal = Journal::resume(run.journal_path()).value();
        REQUIRE(journal.redone(9));
    }
    const auto state = read(run);
    CHECK(state.missing() == std::vector<std::size_t>{9, 10, 11});
    CHECK(state.taken.size() == 9);
    CHECK_FALSE(state.end);
    CHECK(unfinished_runs(run.folder.path()).journals.size() == 1);
}

TEST_CASE("a journal that is none is refused, and of one that is, lines that fit nothing are passed over",
          "[bench][journal]") {
    test::Folder folder;
    const auto path = folder.path() / "x.journal";
    const auto read_text = [&](const std::string& text) {
        REQUIRE(storage::replace_file(path, text));
        return read_journal(path);
    };
    const auto problem = [&](const std::string& text) {
        const auto state = read_text(text);
        REQUIRE(!state);
        return text::message(state.error());
    };
    CHECK(problem("").find("empty") != std::string::npos);
    CHECK(problem("hello\n").find("line 1: not a line of a run's journal") != std::string::npos);
    CHECK(problem("{\"journal\": \"other\", \"version\": 1}\n").find("line 1: expected the head") != std::string::npos);
    for (const char* version : {"18888888888.0", "-1e300", "true"})
        CHECK(problem(fmt::format("{{\"journal\":\"poquito-run\",\"version\":{}}}\n", version)).find("line 1") !=
              std::string::npos);
    test::BenchRun run;
    { auto journal = created(run); }
    // As the first version wrote it: once, and without checks.
    auto head = storage::read_file(run.journal_path()).value();
    auto first = nlohmann::ordered_json::parse(head.substr(0, head.find('\n')));
    first["version"] = 1;
    first.erase("check");
    first["moment_frames"] = 2e30;
    CHECK(problem(first.dump() + "\n").find("line 1") != std::string::npos);
    first["moment_frames"] = 0;
    head = first.dump() + "\n";
    const auto passed_over = [&](const std::string& lines) {
        const auto state = read_text(head + lines);
        REQUIRE(state.has_value());
        return state.value().damaged_lines;
    };
    CHECK(passed_over("{\"event\": \"begun\", \"frame\": 3}\n").empty());
    CHECK(passed_over("{\"event\": \"begun\", \"frame\": 99}\n{\"event\": \"begun\", \"frame\": 1}\n") ==
          std::vector<std::size_t>{2});
    CHECK(passed_over("not json\n{\"event\":\"x\"}\n") == std::vector<std::size_t>{2, 3});
    for (const char* number : {"1e59", "-1", "0.5", "1e999", "12"})
        CHECK(passed_over(fmt::format("{{\"event\":\"begun\",\"frame\":{}}}\n", number)).size() == 1);
    // An existing journal is not begun anew.
    CHECK(!Journal::create(run.journal_path(), run.plan));
    CHECK(next_run_id(run.folder.path(), "one") == "one-2");
    CHECK(next_run_id(run.folder.path(), "t\u00fc/..") == "t------1");
    CHECK(next_run_id(run.folder.path(), std::string(300, 'a')).size() < 100);
}

TEST_CASE("one damaged byte anywhere in a journal costs one frame at most, and is told", "[bench][journal][long]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        runner.run();
    }
    const auto whole = storage::read_file(run.journal_path()).value();
    const auto intact = read(run);
    REQUIRE(intact.taken.size() == 12);
    REQUIRE(intact.damaged_lines.empty());
    for (std::size_t at = 0; at < whole.size(); ++at) {
        const std::array wrong = {'\0', 'x', '\n', '"', static_cast<char>(whole[at] ^ 1)};
        auto damaged = whole;
        damaged[at] = wrong[at % wrong.size()];
        if (damaged == whole) damaged[at] = wrong.back();
        INFO("byte " << at << ": " << whole[at] << " to " << static_cast<int>(damaged[at]));
        const auto state = journal_of(damaged, run.journal_path());
        REQUIRE(state.has_value());
        const auto& found = state.value();
        // At the very end of the file it is a line that was torn.
        const bool last = damaged.find('\n', at) == std::string::npos;
        CHECK((last || !found.damaged_lines.empty()));
        CHECK(found.plan.frames.size() == 12);
        CHECK(found.missing().size() <= 2);
        CHECK(found.taken.size() + found.missing().size() == 12);
        for (const auto& frame : found.taken)
            CHECK(frame.file == run.plan.file_of(static_cast<std::size_t>(frame.index)));
    }
}

TEST_CASE("with a line cut short in its middle a run is gone on with, not begun anew", "[bench][journal]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
        runner.run(at_exposures(runner, [&](std::size_t frame) {
            if (frame == 8) runner.stop();
        }));
    }
    auto text = storage::read_file(run.journal_path()).value();
    // Of a run that breaks off: no line says that it ended.
    text.resize(text.rfind('\n', text.size() - 2) + 1);
    const auto all = journal_of(text, run.journal_path()).value();
    const auto before = all.taken.size();
    auto line = text.rfind("\"saved\"", text.size() - 200);
    REQUIRE(line != std::string::npos);
    text.erase(line + 2, 4);
    REQUIRE(storage::replace_file(run.journal_path(), text));
    const auto found = unfinished_runs(run.folder.path());
    REQUIRE(found.journals.size() == 1);
    CHECK(found.unreadable.empty());
    const auto state = read(run);
    CHECK(state.taken.size() + 1 == before);
    CHECK(damage_text(state).find("is damaged and was passed over") != std::string::npos);
    CHECK(record_of(state).remark.find("damaged") != std::string::npos);
    REQUIRE(storage::replace_file(run.folder / "other.journal", "hello\n"));
    CHECK(unfinished_runs(run.folder.path()).unreadable.size() == 1);
}

TEST_CASE("a plan comes back from its journal as it was", "[bench][journal]") {
    test::BenchRun run;
    { auto journal = created(run); }
    const auto plan = read(run).plan;
    CHECK(plan.id == run.plan.id);
    CHECK(plan.shot == "one");
    CHECK(plan.folder == run.plan.folder);
    CHECK(plan.powers == run.plan.powers);
    CHECK(plan.settings.shutter == run.plan.settings.shutter);
    CHECK(plan.take_up == run.plan.take_up);
    CHECK(plan.settle == run.plan.settle);
    REQUIRE(plan.frames.size() == run.plan.frames.size());
    for (std::size_t i = 0; i < plan.frames.size(); ++i) {
        CHECK(plan.frames[i].plane == run.plan.frames[i].plane);
        CHECK(plan.frames[i].rail == run.plan.frames[i].rail);
        CHECK_FALSE(plan.frames[i].ring);
    }
}

TEST_CASE("a run by ring turns the ring from near to far and leaves no rail to wait for", "[bench][run]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].rig.rail.reset();
    shoot.shots[0].capture.mover = shoot::Mover::ring;
    test::BenchRun run(shoot);
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    std::vector<double> rings;
    CHECK(runner.run(at_exposures(runner, [&](std::size_t) { rings.push_back(*run.devices->world().ring); })) ==
          Phase::complete);
    REQUIRE(rings.size() == run.plan.frames.size());
    for (std::size_t i = 0; i < rings.size(); ++i) CHECK_THAT(rings[i], same(*run.plan.frames[i].ring));
    CHECK(std::is_sorted(rings.rbegin(), rings.rend()));
    const auto state = read(run);
    CHECK(state.missing().empty());
    CHECK(state.plan.frames[3].ring == run.plan.frames[3].ring);
}

TEST_CASE("a single frame is a run of one", "[bench][run]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].capture.mode = shoot::CaptureMode::single;
    test::BenchRun run(shoot);
    REQUIRE(run.plan.frames.size() == 1);
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    CHECK(runner.run() == Phase::complete);
    CHECK(read(run).taken.size() == 1);
}

TEST_CASE("time left and frames done are told while it runs", "[bench][run]") {
    test::BenchRun run;
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    // The way to the switch, which may be the whole rail, and from there behind the first frame are in it.
    const double way = rail_reference(run.plan, 100) + *run.plan.frames[0].rail - run.plan.take_up;
    CHECK_THAT(runner.status().seconds_left, same(12 * run.plan.frame_time + (100 + way) / 2));
    double before = 1e9;
    bool charged = false;
    runner.run([&] {
        const auto status = runner.status();
        CHECK(status.seconds_left <= before + 1e-9);
        before = status.seconds_left;
        charged |= status.flash_ready_in > 0.0;
        CHECK(status.frames.size() == 12);
        CHECK(status.frame < 12);
    });
    CHECK(before == 0);
    // A quarter of power recycles in a second; moving and settling take longer, so nobody waits for it.
    CHECK_FALSE(charged);

    auto shoot = test::twelve_frames();
    shoot.shots[0].lights[0].power = 1;
    shoot.shots[0].exposure.iso = 25;
    test::BenchRun slow(shoot);
    auto other = created(slow);
    Runner waits(slow.devices->bench(), slow.clock, other, slow.fresh());
    double longest = 0;
    waits.run([&] { longest = std::max(longest, waits.status().flash_ready_in.value()); });
    // Four seconds after full power, less the move of half a second and the rest of one.
    CHECK(longest > 1.5);
    CHECK(longest < 3.5);
    for (const auto& frame : read(slow).taken) CHECK(frame.flash == 1);
}

TEST_CASE("stop in the middle of a move halts the rail at once", "[bench][run]") {
    test::BenchRun run;
    auto journal = created(run);
    auto bench = run.devices->bench();
    Runner runner(bench, run.clock, journal, run.fresh());
    bool asked = false;
    const auto phase = runner.run([&] {
        if (runner.status().phase == Phase::settling && runner.status().frame == 2 && !asked) {
            asked = true;
            runner.stop();
        }
    });
    CHECK(phase == Phase::stopped);
    const auto state = read(run);
    CHECK(state.taken.size() == 2);
    CHECK(state.frames[2].state == FrameState::begun);  // begun, not exposed: taken again when it goes on
    CHECK(state.missing().front() == 2);
}

TEST_CASE("requests in the middle of a fault are taken up when it goes on", "[bench][run]") {
    test::BenchRun run(test::twelve_frames(),
                       {.mishaps = {{.kind = MishapKind::flash_dies, .frame = 4}}, .picture_width = 48});
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh());
    std::thread person;
    bool answered = false;
    runner.run([&] {
        if (runner.status().phase != Phase::paused || answered) return;
        answered = true;
        person = std::thread([&] {
            runner.skip();
            runner.redo_from(2);
            runner.resume();
        });
    });
    person.join();
    const auto state = read(run);
    CHECK(state.missing().empty());
    CHECK(state.end == shoot::RunEnd::complete);
    const auto skipped =
        std::ranges::count_if(state.frames, [](const auto& f) { return f.state == FrameState::skipped; });
    CHECK(skipped <= 1);
    CHECK(state.taken.size() + static_cast<std::size_t>(skipped) == 12);
}

// ---- stopping ----------------------------------------------------------------------------------------------------

namespace {

/// Between runner and rail: does something after so many movements, as another thread might just then.
class Interrupted final : public RailPort {
  public:
    Interrupted(RailPort& rail, int after, std::function<void()> then)
        : rail_(rail), after_(after), then_(std::move(then)) {}
    Done connect() override {
        auto done = rail_.connect();
        if (after_ == 0 && !over_) over_ = true, then_();
        return done;
    }
    void disconnect() override { rail_.disconnect(); }
    std::string name() const override { return rail_.name(); }
    Capabilities capabilities() const override { return rail_.capabilities(); }
    Done home() override { return moved(rail_.home()); }
    Done move_to(double position) override { return moved(rail_.move_to(position)); }
    Outcome<double> position() override { return rail_.position(); }
    void halt() override { rail_.halt(); }

  private:
    Done moved(Done done) {
        if (++moves_ == after_) over_ = true, then_();
        return done;
    }
    RailPort& rail_;
    int after_, moves_ = 0;
    bool over_ = false;
    std::function<void()> then_;
};

}  // namespace

TEST_CASE("a stop between two movements of the rail is the last of them", "[bench][run]") {
    for (const bool serial : {false, true})
        // While it connects, after homing, between going behind the first frame and to it, and there.
        for (const int after : {0, 1, 2, 3}) {
            INFO((serial ? "serial" : "simulated") << ", after " << after);
            test::BenchRun run(test::twelve_frames(), {.picture_width = 48, .serial = serial});
            auto journal = created(run);
            auto bench = run.devices->bench();
            Runner* runner = nullptr;
            double stood = -1;
            Interrupted rail(*bench.rail, after, [&] {
                runner->stop();
                stood = run.devices->world().carriage;
            });
            bench.rail = &rail;
            Runner made(bench, run.clock, journal, run.fresh());
            runner = &made;
            CHECK(made.run() == Phase::stopped);
            CHECK(run.devices->world().carriage == stood);
            CHECK(read(run).taken.empty());
            // The latch is the port's: it holds for whoever asks, until it is connected anew.
            REQUIRE(bench.rail->move_to(50));
            CHECK(run.devices->world().carriage == stood);
            REQUIRE_FALSE(bench.rail->connect());
            CHECK_FALSE(bench.rail->move_to(50));
        }
}

TEST_CASE("a run that is abandoned is over at once, and what had not reached the card is missing", "[bench][run]") {
    test::BenchRun run;
    run.shoot.kit.cameras[0].write_speed = 0.01;  // hours
    run.devices = std::make_unique<SimulatedBench>(run.clock, bench_setup(run.shoot.kit, run.shoot.shots[0], run.plan),
                                                   SimulatedBench::Options{.picture_width = 48});
    WallClock clock(1000);
    SimulatedBench slow(clock, bench_setup(run.shoot.kit, run.shoot.shots[0], run.plan), {.picture_width = 48});
    auto journal = created(run);
    Runner runner(slow.bench(), clock, journal, run.fresh());
    std::thread person;
    runner.run(at_exposures(runner, [&](std::size_t frame) {
        if (frame == 2) person = std::thread([&] { runner.abandon(); });
    }));
    person.join();
    const auto state = read(run);
    CHECK(state.end == shoot::RunEnd::stopped);
    CHECK(state.missing().size() >= 9);
    CHECK(state.missing().size() + state.taken.size() == 12);
}

TEST_CASE("a rail that says ok and does not move is not believed", "[bench][run]") {
    struct OnlySaysOk : RailPort {
        RailPort& rail;
        int moves = 0;
        explicit OnlySaysOk(RailPort& one) : rail(one) {}
        Done connect() override { return rail.connect(); }
        void disconnect() override { rail.disconnect(); }
        std::string name() const override { return rail.name(); }
        Capabilities capabilities() const override { return rail.capabilities(); }
        Done home() override { return rail.home(); }
        Done move_to(double position) override {
            // From the third movement on its motor has lost its steps.
            return ++moves < 3 ? rail.move_to(position) : std::nullopt;
        }
        Outcome<double> position() override { return rail.position(); }
        void halt() override { rail.halt(); }
    };
    test::BenchRun run;
    auto journal = created(run);
    auto bench = run.devices->bench();
    OnlySaysOk rail(*bench.rail);
    bench.rail = &rail;
    Runner runner(bench, run.clock, journal, run.fresh(), {.hold_on_fault = false, .reconnects = 0});
    CHECK(runner.run() == Phase::broken);
    CHECK(runner.status().problem.find("says it stands at") != std::string::npos);
    CHECK(read(run).taken.size() <= 1);
}

TEST_CASE("a folder that goes in mid-run stops it before the next exposure", "[bench][run]") {
    test::BenchRun run;
    const auto elsewhere = run.folder.path().parent_path() / "pulled";
    run.plan.folder = run.folder / "card";
    std::filesystem::create_directory(run.plan.folder);
    run.devices = std::make_unique<SimulatedBench>(run.clock, bench_setup(run.shoot.kit, run.shoot.shots[0], run.plan),
                                                   SimulatedBench::Options{.picture_width = 48});
    std::size_t exposed = 0;
    {
        auto journal = created(run);
        Runner runner(run.devices->bench(), run.clock, journal, run.fresh(), {.hold_on_fault = false, .reconnects = 0});
        CHECK(runner.run(at_exposures(runner, [&](std::size_t frame) {
            ++exposed;
            if (frame == 4) std::filesystem::rename(run.plan.folder, elsewhere);
        })) == Phase::broken);
        CHECK(runner.status().problem.find("folder is gone") != std::string::npos);
        CHECK(exposed == 5);
    }
    // It comes back, and the run goes on to its end.
    std::filesystem::rename(elsewhere, run.plan.folder);
    auto state = read(run);
    CHECK(state.missing().size() >= 7);
    auto journal = Journal::resume(run.journal_path()).value();
    Runner runner(run.devices->bench(), run.clock, journal, state);
    CHECK(runner.run() == Phase::complete);
    CHECK(read(run).taken.size() == 12);
}

TEST_CASE("while a flash does not charge nobody is told when it will be ready", "[bench][run]") {
    test::BenchRun run(test::twelve_frames(),
                       {.mishaps = {{.kind = MishapKind::flash_dies, .frame = 3}}, .picture_width = 48});
    auto journal = created(run);
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh(), {.hold_on_fault = false, .reconnects = 0});
    bool unsaid = false;
    runner.run([&] {
        const auto ready = runner.status().flash_ready_in;
        unsaid |= !ready;
        if (ready) CHECK(*ready < 60);
    });
    CHECK(unsaid);
    CHECK(runner.status().phase == Phase::broken);
}

// ---- names, places, locks ----------------------------------------------------------------------------------------

TEST_CASE("a folder whose name is not UTF-8 holds a run and gives it back", "[bench][journal]") {
    test::BenchRun run;
    const std::filesystem::path folder = run.folder.path() / "r\xe9sultats \xff";
    run.plan.folder = folder;
    const auto path = folder / "one-1.journal";
    { REQUIRE(Journal::create(path, run.plan).has_value()); }
    const auto state = read_journal(path);
    REQUIRE(state.has_value());
    CHECK(state.value().plan.folder == folder);
    CHECK(record_of(state.value()).folder.path() == folder);
    for (const char* name : {"plain", "/a b/\xc3\xa9", "file:///odd", "\x80%41"}) {
        CHECK(text::StoredPath(name).path() == std::filesystem::path(name));
        CHECK_NOTHROW(nlohmann::json(text::StoredPath(name).text()).dump());
    }
    CHECK(text::StoredPath("/a b/\xc3\xa9").text() == "/a b/\xc3\xa9");
}

TEST_CASE("a plane at infinity comes back from journal and log", "[bench][journal]") {
    test::BenchRun run;
    const double infinite = std::numeric_limits<double>::infinity();
    run.plan.frames[11].plane = infinite;
    {
        auto journal = created(run);
        REQUIRE(journal.exposed(11, {.index = 11, .file = "x.jpg", .plane = infinite, .time = "t"}));
        REQUIRE(journal.saved(11));
    }
    const auto state = read(run);
    CHECK(state.plan.frames[11].plane == infinite);
    REQUIRE(state.taken.size() == 1);
    CHECK(state.taken[0].plane == infinite);
    auto shoot = run.shoot;
    shoot.runs[shoot.shots[0].id] = {record_of(state)};
    const auto back = storage::read_shoot(storage::write_shoot(shoot));
    REQUIRE(back.has_value());
    CHECK(back.value().runs == shoot.runs);
}

TEST_CASE("a journal without frames is refused, and none is begun", "[bench][journal]") {
    test::BenchRun run;
    { auto journal = created(run); }
    auto text = storage::read_file(run.journal_path()).value();
    const auto frames = text.find("\"frames\":[");
    REQUIRE(storage::replace_file(run.journal_path(), text.substr(0, frames) + "\"frames\":[]}\n"));
    const auto state = read_journal(run.journal_path());
    REQUIRE(!state);
    CHECK(text::message(state.error()).find("line 1: damaged") != std::string::npos);
    auto plan = run.plan;
    plan.frames.clear();
    CHECK(test_plan(plan).frames.empty());
    const auto path = run.folder.path() / "none.journal";
    CHECK(!Journal::create(path, plan));
    CHECK_FALSE(std::filesystem::exists(path));
}

TEST_CASE("a journal is one program's at a time", "[bench][journal]") {
    test::BenchRun run;
    {
        auto journal = created(run);
        CHECK(run_is_on(run.journal_path()));
        const auto second = Journal::resume(run.journal_path());
        REQUIRE(!second);
        CHECK(second.error().problem.find("is on already") != std::string::npos);
        // In another program just the same.
        const auto child = ::fork();
        if (child == 0) ::_exit(Journal::resume(run.journal_path()).has_value() ? 1 : 0);
        int status = 0;
        ::waitpid(child, &status, 0);
        CHECK((WIFEXITED(status) && WEXITSTATUS(status) == 0));
    }
    CHECK_FALSE(run_is_on(run.journal_path()));
    CHECK(Journal::resume(run.journal_path()).has_value());
    CHECK_FALSE(run_is_on(run.folder.path() / "no.journal"));
}

TEST_CASE("a stack of more frames than a run takes is refused, and its frames are not spread", "[bench][run]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].subject.depth = 900000;
    shoot.shots[0].rig.rail.reset();
    const auto report = plan::assess(shoot.kit, shoot.shots[0], {});
    REQUIRE(report.capture.frames > plan::most_frames);
    const auto refusal = run_refusal(plan::plan_of(shoot.kit, shoot.shots[0], {}), report);
    REQUIRE(refusal);
    CHECK(refusal->find("10000") != std::string::npos);
    const auto frames = plan::stack_frames(plan::plan_of(shoot.kit, shoot.shots[0], {}), report);
    REQUIRE(frames.size() == 10000);
    for (const std::size_t i : {std::size_t{1}, std::size_t{5000}, std::size_t{9999}}) {
        CHECK_THAT(frames[i].plane - frames[i - 1].plane, WithinAbs(*report.capture.step, 1e-6 * *report.capture.step));
        CHECK_THAT(*frames[i].rail, WithinAbs(static_cast<double>(i) * *report.capture.step, 1e-6));
    }
    const auto twelve = test::twelve_frames();
    CHECK_FALSE(
        run_refusal(plan::plan_of(twelve.kit, twelve.shots[0], {}), plan::assess(twelve.kit, twelve.shots[0], {})));
}

TEST_CASE("a journal is not handed on to other programs", "[bench][journal]") {
    test::BenchRun run;
    auto journal = created(run);
    int found = 0;
    for (const auto& entry : std::filesystem::directory_iterator("/proc/self/fd")) {
        std::error_code gone;
        if (std::filesystem::read_symlink(entry.path(), gone) != std::filesystem::canonical(run.journal_path()))
            continue;
        ++found;
        CHECK((::fcntl(std::stoi(entry.path().filename()), F_GETFD) & FD_CLOEXEC) != 0);
    }
    CHECK(found == 1);
}
