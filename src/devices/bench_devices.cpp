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

storage::ReadResult<MotionDialect> dialect_in(const std::filesystem::path& file) {
    const auto text = storage::read_file(file);
    if (const auto* error = std::get_if<storage::ReadError>(&text)) return *error;
    auto dialect = read_dialect(std::get<std::string>(text));
    if (const auto* error = std::get_if<storage::ReadError>(&dialect))
        return storage::ReadError{file.string() + ": " + error->place, error->problem};
    return dialect;
}

}  // namespace

storage::ReadResult<std::unique_ptr<BenchDevices>> make_devices(const BenchSetup& setup,
                                                                const DeviceSettings& settings) {
    SimulatedBench::Options options{.troubles = settings.troubles,
                                    .picture_width = settings.picture_width,
                                    .serial = settings.rail_behind_line,
                                    .device = settings.rail_line,
                                    .dialect = {}};
    if (!settings.dialect_file.empty()) {
        auto dialect = dialect_in(settings.dialect_file);
        if (const auto* error = std::get_if<storage::ReadError>(&dialect)) return *error;
        options.dialect = std::get<MotionDialect>(std::move(dialect));
    }
    return std::make_unique<TimedBench>(setup, settings.speed, std::move(options));
}

}  // namespace poquito::devices
