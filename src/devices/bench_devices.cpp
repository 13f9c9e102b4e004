#include "devices/bench_devices.hpp"

#include "devices/sim/simulated_bench.hpp"
#include "storage/atomic_file.hpp"

#include <variant>

namespace poquito::devices {
namespace {

/// The simulated bench with a clock of its own.
class TimedBench final : public BenchDevices {
  public:
    TimedBench(const BenchSetup& setup, double speed, SimulatedBench::Options options)
        : clock_(speed), devices_(clock_, setup, std::move(options)) {}
    Bench bench() override { return devices_.bench(); }
    Clock& clock() override { return clock_; }

  private:
    WallClock clock_;
    SimulatedBench devices_;
};

text::Expected<MotionDialect> dialect_in(const std::filesystem::path& file) {
    const auto text = storage::read_file(file);
    if (!text) return text.error();
    auto dialect = read_dialect(*text);
    if (!dialect) return text::Error{file.string() + ": " + dialect.error().place, dialect.error().problem};
    return dialect;
}

}  // namespace

text::Expected<std::unique_ptr<BenchDevices>> make_devices(const BenchSetup& setup, const DeviceSettings& settings) {
    SimulatedBench::Options options{.mishaps = settings.mishaps,
                                    .picture_width = settings.picture_width,
                                    .serial = settings.rail_behind_line,
                                    .device = settings.rail_line,
                                    .dialect = {}};
    if (!settings.dialect_file.empty()) {
        auto dialect = dialect_in(settings.dialect_file);
        if (!dialect) return dialect.error();
        options.dialect = std::move(*dialect);
    }
    return std::make_unique<TimedBench>(setup, settings.speed, std::move(options));
}

}  // namespace poquito::devices
