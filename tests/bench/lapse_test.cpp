// A slow thing on the bench: at its times, as its light goes, written down; and what Proof says of its frames.
#include "plan/motion/lapse.hpp"
#include "plan/assess.hpp"
#include "proof/inspection.hpp"
#include "run/journal.hpp"
#include "support/benches.hpp"
#include "support/matchers.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <variant>
#include <vector>

using namespace poquito;
using run::Journal;
using run::Runner;
using test::WithinAbs;

namespace {

/// A bud by the light of a room, twenty times.
shoot::Shoot bud() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject = {.width = 24, .height = 20, .depth = 6, .reflectance = 0.3};
    shot.ambient = shoot::Ambient{.ev100 = 6};
    shot.exposure = {.f_number = 8, .shutter = 1, .iso = 100};
    shot.background = shoot::Background{.distance = 200, .reflectance = 0.1};
    shot.lapse = shoot::Lapse{.length = 6000, .interval = 300};
    return shoot;
}

struct Taken {
    test::BenchRun bench;
    std::vector<double> moments;  // of each exposure, by the bench's clock
    run::RunState state;

    explicit Taken(const shoot::Shoot& shoot, std::vector<devices::Mishap> mishaps = {})
        : bench(shoot, {.mishaps = std::move(mishaps), .picture_width = 160}) {
        auto created = Journal::create(bench.journal_path(), bench.plan);
        auto& journal = created.value();
        Runner runner(bench.devices->bench(), bench.clock, journal, bench.fresh());
        std::size_t seen = 0;
        runner.run([&] {
            const auto status = runner.status();
            const auto exposed = static_cast<std::size_t>(
                std::ranges::count_if(status.frames, [](run::FrameState s) { return s >= run::FrameState::exposed; }));
            if (exposed > seen) moments.push_back(bench.clock.now()), seen = exposed;
        });
        CHECK(runner.status().phase == run::Phase::complete);
        state = run::read_journal(bench.journal_path()).value();
    }

    proof::Inspection inspection() const {
        proof::Request request{.kit = &bench.shoot.kit, .shot = &bench.shoot.shots[0], .singles = true};
        for (std::size_t i = 0; i < bench.plan.frames.size(); ++i)
            request.files.push_back(bench.folder.path() / bench.plan.file_of(i));
        return *proof::inspect(request);
    }
};

/// The frames, from 1, that something of that kind was found in.
std::set<std::size_t> found(const proof::Inspection& inspection, proof::Code code) {
    std::set<std::size_t> frames;
    for (std::size_t i = 0; i < inspection.frames.size(); ++i)
        for (const auto& finding : inspection.frames[i].findings)
            if (finding.code == code) frames.insert(i + 1);
    return frames;
}

}  // namespace

TEST_CASE("a time-lapse is taken at its times, one frame or a stack each, and its journal says so", "[bench][lapse]") {
    auto shoot = bud();
    const Taken single(shoot);
    REQUIRE(single.bench.plan.frames.size() == 20);
    REQUIRE(single.moments.size() == 20);
    for (std::size_t i = 1; i < 20; ++i) CHECK_THAT(single.moments[i] - single.moments[i - 1], WithinAbs(300, 0.2));
    CHECK(single.state.end == shoot::RunEnd::complete);
    CHECK(single.state.taken.size() == 20);
    CHECK(single.state.plan.moment_frames == 1);
    CHECK(single.state.plan.moment_interval == 300);
    // Its test is its first moment alone.
    CHECK(run::test_plan(single.bench.plan).frames.size() == 1);
    auto& shot = shoot.shots[0];
    shot.rig.rail = "rail";
    shot.capture = {.mode = shoot::CaptureMode::stack, .mover = shoot::Mover::rail};
    shot.lapse->length = 900;
    const Taken stacks(shoot);
    const auto each = stacks.bench.plan.moment_frames;
    REQUIRE(each > 2);
    REQUIRE(stacks.moments.size() == 3 * each);
    CHECK_THAT(stacks.moments[each] - stacks.moments[0], WithinAbs(300, 0.5));
    CHECK(stacks.moments[1] - stacks.moments[0] < 20);
    CHECK(stacks.bench.plan.frames[each].plane == stacks.bench.plan.frames[0].plane);
    // More than a run takes is refused, with the reason.
    shot.lapse->length = 1e6, shot.lapse->interval = 5;
    const auto refusal = run::run_refusal(plan::plan_of(shoot.kit, std::as_const(shoot.shots)[0], {}),
                                          plan::assess(shoot.kit, std::as_const(shoot.shots)[0], {}));
    REQUIRE(refusal);
    CHECK(refusal->find("time-lapse") != std::string::npos);
}

TEST_CASE("light that drifts is met by an exposure that follows", "[bench][lapse]") {
    auto shoot = bud();
    shoot.shots[0].lapse->drift = 1.2;  // two stops until the end
    const auto spread = [](const proof::Inspection& inspection) {
        std::vector<double> stops;
        for (const auto& frame : inspection.frames) stops.push_back(frame.scan->median_stops);
        const auto [low, high] = std::ranges::minmax(stops);
        return high - low;
    };
    const Taken fixed(shoot);
    const auto brighter = fixed.inspection();
    CHECK_THAT(spread(brighter), WithinAbs(1.9, 0.3));
    CHECK(found(brighter, proof::Code::uneven).empty());  // it goes slowly: that is no flicker
    shoot.shots[0].lapse->follows = true;
    const Taken followed(shoot);
    CHECK(spread(followed.inspection()) < 0.15);
    // Each exposed a tenth of a stop less than the one before it, and written down so.
    const auto& taken = followed.state.taken;
    CHECK_THAT(std::log2(taken[0].shutter / taken[10].shutter), WithinAbs(1, 1e-6));
    CHECK(found(followed.inspection(), proof::Code::settings).empty());
}

TEST_CASE("Proof finds where a time-lapse flickers and where it jumps, and nothing where it does neither",
          "[bench][lapse]") {
    const auto shoot = bud();
    const auto calm = Taken(shoot).inspection();
    CHECK(found(calm, proof::Code::uneven).empty());
    CHECK(found(calm, proof::Code::moved).empty());
    // From the ninth frame on it stands 1.5 mm aside.
    const auto jumped =
        Taken(shoot, {{.kind = devices::MishapKind::subject_moves, .frame = 8, .size = 1.5}}).inspection();
    CHECK(found(jumped, proof::Code::moved) == std::set<std::size_t>{9});
    CHECK(jumped.verdict == proof::Verdict::look);
    // What it grows by is no jump.
    auto growing = shoot;
    growing.shots[0].lapse->growth = 2;
    CHECK(found(Taken(growing).inspection(), proof::Code::moved).empty());
    // One frame by a camera that was set otherwise for it.
    const Taken taken(shoot);
    auto inspection = taken.inspection();
    auto frames = inspection.frames;
    auto scan = *frames[12].scan;
    scan.median_stops += 0.3;
    frames[12].scan = std::make_shared<const imaging::FrameScan>(scan);
    for (auto& frame : frames) frame.findings.clear();
    const auto judged = *proof::judge(frames, {.kit = &shoot.kit, .shot = &shoot.shots[0], .singles = true});
    CHECK(found(judged, proof::Code::uneven) == std::set<std::size_t>{13});
}
