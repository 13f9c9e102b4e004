#pragma once

#include "devices/sim/simulated_bench.hpp"
#include "run/runner.hpp"
#include "support/folder.hpp"
#include "support/shoots.hpp"

#include <memory>
#include <string>

namespace poquito::test {

/// Twelve frames of a ball by rail, lit by one flash.
inline shoot::Shoot twelve_frames() {
    using namespace shoot;
    Shoot shoot = plain_shoot();
    shoot.kit.cameras[0].write_speed = 60;  // half a second a frame
    shoot.kit.cameras[0].buffer_frames = 4;
    shoot.kit.cameras[0].card_space = 5000;
    shoot.kit.rails[0].backlash = 0.05;
    Shot& shot = shoot.shots[0];
    shot.rig.rail = "rail";
    shot.subject = {.width = 20, .height = 14, .depth = 11.2, .reflectance = 0.4};
    shot.capture = {.mode = CaptureMode::stack, .depth_rule = DepthRule::quarter_wave, .mover = Mover::rail};
    shot.lights = {plain_light()};
    shot.lights[0].position.distance = 1500;
    shot.lights[0].power = 0.25;
    shot.background = Background{.distance = 200, .reflectance = 0.05};
    return shoot;
}

/// A run of the first shot on the simulated bench, nobody waiting, with small pictures.
struct BenchRun {
    Folder folder;
    devices::InstantClock clock;
    shoot::Shoot shoot;
    run::RunPlan plan;
    std::unique_ptr<devices::SimulatedBench> devices;

    explicit BenchRun(shoot::Shoot of = twelve_frames(),
                      devices::SimulatedBench::Options options = {.picture_width = 48},
                      const std::string& name = "frames")
        : folder(name),
          shoot(std::move(of)),
          plan(run::make_run_plan(plan::plan_of(shoot.kit, shoot.shots[0], {}), "one-1", folder.path())) {
        devices = std::make_unique<devices::SimulatedBench>(clock, run::bench_setup(shoot.kit, shoot.shots[0], plan),
                                                            std::move(options));
    }
    std::filesystem::path journal_path() const { return folder.path() / (plan.id + ".journal"); }
    run::RunState fresh() const {
        return {.plan = plan, .time = {}, .frames = std::vector<run::JournalFrame>(plan.frames.size())};
    }
};

}  // namespace poquito::test
