#pragma once

#include "devices/motion_dialect.hpp"
#include "devices/ports.hpp"

#include <memory>
#include <mutex>
#include <string>

namespace poquito::devices {

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
    enum class Moves { no, yes };
    /// Sends a command; the answer's lines but for the last. One that moves is not sent after a halt.
    Outcome<std::string> ask(const std::string& command, double timeout, Moves moves = Moves::no);
    Done tell_it(const std::string& command, double timeout, Moves moves = Moves::no);
    Done send(const std::string& command, double timeout, Moves moves);
    Fault lost();
    void close();

    std::string device_;
    MotionDialect dialect_;
    std::unique_ptr<Line> line_;
    double at_ = 0;  // where it was last sent

    // Of the two below: a halt falls before a command, which then is not sent, or behind it, never in between; and
    // never on a line that is gone, whose descriptor may be another file's by then.
    std::mutex mutex_;
    int handle_ = -1;  // of the line
    bool halted_ = false;
};

}  // namespace poquito::devices
