// What goes wrong on the bench is what its frames show: looked at by Proof, which knows nothing of it.
#include "proof/inspection.hpp"
#include "run/rehearsal.hpp"
#include "support/benches.hpp"

#include <cmath>
#include <variant>

using namespace poquito;
using devices::MishapKind;

TEST_CASE("What slips or dims on the bench is what its frames show", "[rehearsal][bench][long]") {
    const auto look = [](MishapKind kind) {
        auto shoot = test::twelve_frames();
        auto& shot = shoot.shots[0];
        shot.subject.texture = shoot::Texture::stone;
        shot.capture.depth_rule = shoot::DepthRule::blur;
        shot.sharpness.pixels = 3;              // as large as the bench's own
        shot.subject.form = shoot::Form::slab;  // and leaning: as much of it in every plane
        shot.subject.width = 18, shot.subject.height = 12, shot.subject.depth = 0.1, shot.subject.tilt = 45;
        const auto plan = run::make_run_plan(plan::plan_of(shoot.kit, shot, {}), "one", {});
        CAPTURE(plan.frames.size());
        const auto mishap = run::sized_mishap(shoot.kit, shoot.shots[0], plan, kind, 6);
        test::BenchRun bench(shoot, {.mishaps = {mishap}, .picture_width = 1920});
        auto journal = run::Journal::create(bench.journal_path(), bench.plan);
        run::Runner runner(bench.devices->bench(), bench.clock, journal.value(), bench.fresh(),
                           {.hold_on_fault = false});
        CHECK(runner.run() == run::Phase::complete);
        CHECK(runner.status().dim == 0);  // nothing that the bench itself would see
        proof::Request request{.kit = &bench.shoot.kit, .shot = &bench.shoot.shots[0]};
        for (std::size_t i = 0; i < bench.plan.frames.size(); ++i)
            request.files.push_back(bench.folder.path() / bench.plan.file_of(i));
        return *proof::inspect(request);
    };
    const auto slipped = look(MishapKind::rig_slips);
    REQUIRE(slipped.stack);
    REQUIRE(slipped.stack->gaps.size() == 1);
    CHECK(slipped.stack->gaps.front().after_frame == 6);
    CHECK(slipped.stack->uneven.empty());
    const auto dimmed = look(MishapKind::light_changes);
    REQUIRE(dimmed.stack);
    CHECK(dimmed.stack->gaps.empty());
    REQUIRE_FALSE(dimmed.stack->uneven.empty());
    for (const auto& one : dimmed.stack->uneven) CHECK(std::abs(one.stops) == Approx(0.35).margin(0.06));
}
