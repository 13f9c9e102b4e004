#pragma once

#include "devices/bench_setup.hpp"
#include "devices/clock.hpp"
#include "devices/ports.hpp"
#include "devices/sim/world.hpp"
#include "text/error.hpp"

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

namespace poquito::devices {

/// Which devices stand on the bench, whatever is photographed.
struct DeviceSettings {
    double speed = 1;                    // times as fast as the wall clock, for what is simulated
    std::string rail_line;               // a serial line with a motion controller; empty: the simulated rail
    std::filesystem::path dialect_file;  // what that understands, as JSON; empty: the usual commands
    bool rail_behind_line = false;       // the simulated rail spoken to through a pseudo-terminal
    int picture_width = 960;             // px, of the simulated camera
    std::vector<Mishap> mishaps = {};    // that are to happen
};

/// Devices that stand ready for one set-up, and the clock they go by.
class BenchDevices {
  public:
    virtual ~BenchDevices() = default;
    virtual Bench bench() = 0;
    virtual Clock& clock() = 0;
};

/// The devices that the settings name, for that set-up; the error is the dialect's. Today the camera, the flashes and
/// the release are simulated always, the rail unless a line is named.
text::Expected<std::unique_ptr<BenchDevices>> make_devices(const BenchSetup& setup, const DeviceSettings& settings);

}  // namespace poquito::devices
