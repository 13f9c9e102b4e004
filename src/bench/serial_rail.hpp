#pragma once

#include "bench/motion_dialect.hpp"
#include "bench/ports.hpp"

#include <atomic>
#include <memory>
#include <string>

namespace poquito::bench {

/// A stepper rail behind a serial line that speaks a motion dialect: real, or the simulated controller's.
class SerialRail final : public RailPort {
  public:
    SerialRail(std::string device, MotionDialect dialect);
    ~SerialRail() override;
    Done connect() override;
    void disconnect() override;
    std::string name() const override { return "rail"; }
    Capabilities capabilities() const override;
    Done home() override;
    Done move_to(double position) override;
    Outcome<double> position() override;
    void halt() override;

  private:
    struct Line;
    /// Sends a command; the answer's lines but for the last.
    Outcome<std::string> ask(const std::string& command, double timeout);
    Done tell_it(const std::string& command, double timeout);

    std::string device_;
    MotionDialect dialect_;
    std::unique_ptr<Line> line_;
    double at_ = 0;                 // where it was last sent
    std::atomic<int> handle_ = -1;  // of the line, for a halt from another thread
};

}  // namespace poquito::bench
