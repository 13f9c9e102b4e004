// Rehearsals: what can go wrong is drawn to fit the run, what came of it is told as it was.
#include "support/benches.hpp"

#include "run/rehearsal.hpp"
#include "run/session.hpp"

#include <set>

using namespace poquito;
using devices::Mishap;
using devices::MishapKind;

namespace {

bool has(const std::string& text, const char* part) { return text.find(part) != std::string::npos; }

/// The run of those twelve frames with that mishap, to its end.
run::RunState taken_with(const Mishap& mishap) {
    test::BenchRun bench(test::twelve_frames(), {.mishaps = {mishap}, .picture_width = 48});
    auto journal = run::Journal::create(bench.journal_path(), bench.plan);
    REQUIRE(journal.has_value());
    run::Runner runner(bench.devices->bench(), bench.clock, journal.value(), bench.fresh(), {.hold_on_fault = false});
    runner.run();
    return runner.state();
}

run::RehearsalReport report(const Mishap& mishap, const std::vector<run::Noticed>& notices) {
    return run::report_rehearsal(taken_with(mishap), mishap, notices, 600);
}

}  // namespace

TEST_CASE("What is drawn can happen to that run, in its middle, and is the same for the same number", "[rehearsal]") {
    const auto shoot = test::twelve_frames();
    const auto& shot = shoot.shots[0];
    const auto plan = run::make_run_plan(plan::plan_of(shoot.kit, shot, {}), "one", {});
    REQUIRE(plan.frames.size() == 12);
    std::set<MishapKind> drawn, silent;
    for (std::uint64_t seed = 0; seed < 200; ++seed) {
        const auto mishap = run::draw_mishap(shoot.kit, shot, plan, seed, false);
        CHECK(mishap.frame >= 3);
        CHECK(mishap.frame < 9);
        drawn.insert(mishap.kind);
        const auto again = run::draw_mishap(shoot.kit, shot, plan, seed, false);
        CHECK(again.kind == mishap.kind);
        CHECK(again.frame == mishap.frame);
        silent.insert(run::draw_mishap(shoot.kit, shot, plan, seed, true).kind);
    }
    CHECK(drawn.size() == 9);
    CHECK(silent == std::set{MishapKind::subject_moves, MishapKind::rig_slips, MishapKind::light_changes});
    // Without rail, flash and contacts nothing of theirs is drawn; a single frame has no gap.
    auto bare = shoot;
    bare.shots[0].lights.clear();
    bare.shots[0].rig.rail.reset();
    bare.shots[0].capture.mode = shoot::CaptureMode::single;
    bare.kit.lenses[0].contacts = false;
    const auto one = run::make_run_plan(plan::plan_of(bare.kit, bare.shots[0], {}), "one", {});
    const auto possible = run::possible_mishaps(bare.kit, bare.shots[0], one, false);
    CHECK(possible == std::vector{MishapKind::camera_drops, MishapKind::card_full});
    CHECK(run::draw_mishap(bare.kit, bare.shots[0], one, 7, true).frame == 0);
}

TEST_CASE("It is as large as it takes: beyond the overlap, below what counts as a missed flash", "[rehearsal]") {
    const auto shoot = test::twelve_frames();
    const auto plan = run::make_run_plan(plan::plan_of(shoot.kit, shoot.shots[0], {}), "one", {});
    const double step = plan.frames[1].plane - plan.frames[0].plane;
    const auto slip = run::sized_mishap(shoot.kit, shoot.shots[0], plan, MishapKind::rig_slips, 6);
    CHECK(slip.size > 2 * step);
    CHECK(slip.size < 3 * step);
    CHECK(run::sized_mishap(shoot.kit, shoot.shots[0], plan, MishapKind::light_changes, 6).size <
          run::RunOptions().dim_stops);
}

TEST_CASE("What no device tells is noticed by someone or by nobody, and costs accordingly", "[rehearsal]") {
    const Mishap moves{.kind = MishapKind::subject_moves, .frame = 5, .size = 0.4};
    const auto unseen = report(moves, {});
    CHECK_FALSE(unseen.in_time);
    CHECK(has(unseen.noticed, "Nobody"));
    CHECK(has(unseen.happened, "frame 6"));
    CHECK(has(unseen.happened, "0.4 mm"));
    CHECK(unseen.spoilt == 12);
    const auto seen = report(moves, {{.frame = 7, .taken_for = MishapKind::subject_moves}});
    CHECK(seen.in_time);
    CHECK(seen.named);
    CHECK(has(seen.noticed, "You noticed 2 frames later, and said what it was"));
    CHECK(seen.spoilt == 8);  // it begins anew
    CHECK(seen.seconds < unseen.seconds);
    CHECK(seen.seconds_at_home == Approx(unseen.seconds_at_home));
    CHECK(seen.seconds_at_home > 600);
    const auto mistaken = report(moves, {{.frame = 6, .taken_for = MishapKind::rig_slips}});
    CHECK(mistaken.in_time);
    CHECK_FALSE(mistaken.named);
    CHECK(has(mistaken.noticed, "took it for something else: the rig slips"));
    // A slip is gone back to; only what came after it is taken again.
    const auto slip = report({.kind = MishapKind::rig_slips, .frame = 5, .size = 0.3}, {{.frame = 7}});
    CHECK(slip.spoilt == 3);
    CHECK(has(slip.cost, "Back to frame 6"));
    // Noticed when all were taken: from the sixth to the twelfth.
    CHECK(report({.kind = MishapKind::rig_slips, .frame = 5, .size = 0.3}, {{.frame = 12}}).spoilt == 7);
    const auto light = report({.kind = MishapKind::light_changes, .frame = 5, .size = 0.3}, {});
    CHECK(light.spoilt == 7);
    CHECK(has(light.cost, "seam"));
}

TEST_CASE("An alarm before anything happened is one, and a run that ends before has nothing to report", "[rehearsal]") {
    const Mishap moves{.kind = MishapKind::subject_moves, .frame = 5, .size = 0.4};
    const auto early = report(moves, {{.frame = 2}, {.frame = 8}});
    CHECK(has(early.noticed, "You noticed 3 frames later"));
    CHECK(has(early.noticed, "one alarm was false"));
    auto state = taken_with(moves);
    for (std::size_t i = 3; i < state.frames.size(); ++i) state.frames[i].state = run::FrameState::pending;
    const auto over = run::report_rehearsal(state, moves, {{.frame = 2}}, 600);
    CHECK(has(over.happened, "Nothing went wrong yet"));
    CHECK_FALSE(over.in_time);
}

TEST_CASE("What the bench says by itself is judged by what was done about it", "[rehearsal]") {
    const Mishap full{.kind = MishapKind::card_full, .frame = 5};
    const auto broken = report(full, {});  // nobody there
    CHECK_FALSE(broken.in_time);
    CHECK(has(broken.cost, "Run goes on where it broke off"));
    // Who stops before it came was told nothing by the bench.
    auto before = taken_with(full);
    for (std::size_t i = 3; i < before.frames.size(); ++i) before.frames[i].state = run::FrameState::pending;
    const auto over = run::report_rehearsal(before, full, {{.frame = 2}}, 600);
    CHECK(has(over.happened, "Nothing went wrong yet"));
    CHECK_FALSE(has(over.noticed, "The bench held"));
    auto mended = taken_with({.kind = MishapKind::subject_moves, .frame = 11, .size = 0});
    CHECK(run::report_rehearsal(mended, full, {}, 600).in_time);
    mended.frames[5].state = run::FrameState::skipped;
    const auto left_out = run::report_rehearsal(mended, full, {}, 600);
    CHECK_FALSE(left_out.in_time);
    CHECK(has(left_out.cost, "one frame left out"));
    CHECK(left_out.spoilt == 1);
    for (const std::size_t i : {9, 10, 11}) mended.frames[i].state = run::FrameState::pending;
    CHECK(run::report_rehearsal(mended, full, {}, 600).spoilt == 4);
    const auto dark = report({.kind = MishapKind::flash_not_ready, .frame = 4}, {});
    CHECK(dark.in_time);
    CHECK(has(dark.noticed, "took it again"));
}

TEST_CASE("A stack that is looked through is found out by what and where", "[rehearsal]") {
    const Mishap slip{.kind = MishapKind::rig_slips, .frame = 5, .size = 0.3};
    const auto right = run::judge_answer(slip, MishapKind::rig_slips, 6);
    CHECK(right.kind);
    CHECK(right.place);
    CHECK_FALSE(has(right.said, "neighbour"));
    const auto elsewhere = run::judge_answer(slip, MishapKind::rig_slips, 9);
    CHECK(elsewhere.kind);
    CHECK_FALSE(elsewhere.place);
    CHECK(has(elsewhere.said, "neighbour"));
    CHECK_FALSE(run::judge_answer(slip, MishapKind::subject_moves, 5).kind);
    for (const auto& one : run::mishap_words()) CHECK(run::words_of(one.kind).name == one.name);
}
