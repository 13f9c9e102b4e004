#pragma once

#include "devices/bench_setup.hpp"
#include "devices/serial_rail.hpp"
#include "devices/sim/motion_controller.hpp"
#include "devices/sim/simulated_camera.hpp"
#include "devices/sim/world.hpp"

#include <memory>
#include <vector>

namespace poquito::devices {

/// The bench that ships with the application: all devices for one plan, with one world behind them.
class SimulatedBench {
  public:
    struct Options {
        std::vector<Mishap> mishaps;
        int picture_width = 960;  // px
        bool serial = false;      // the rail behind a serial line, through a pseudo-terminal
        std::string device;       // or a real one's line; empty: simulated
        MotionDialect dialect;
    };
    /// The clock outlives it.
    SimulatedBench(Clock& clock, const BenchSetup& setup, Options options);
    ~SimulatedBench();

    Bench bench();
    World& world() { return world_; }
    MotionController* controller() { return controller_.get(); }

  private:
    World world_;
    std::unique_ptr<RailPort> rail_;
    std::unique_ptr<MotionController> controller_;
    std::unique_ptr<RailPort> serial_;  // in front of it
    std::vector<std::unique_ptr<SimulatedFlash>> flashes_;
    std::unique_ptr<SimulatedCamera> camera_;
    std::unique_ptr<SimulatedTrigger> trigger_;
};

}  // namespace poquito::devices
