#pragma once

#include "devices/motion_dialect.hpp"
#include "devices/ports.hpp"

#include <atomic>
#include <functional>
#include <string>
#include <thread>

namespace poquito::devices {

/// The other end of the line: a simulated motion controller behind a pseudo-terminal. It moves a rail and speaks the
/// default dialect, so that everything between can be tried without a real one.
class MotionController {
  public:
    explicit MotionController(RailPort& rail);  // which outlives it
    ~MotionController();
    MotionController(const MotionController&) = delete;
    MotionController& operator=(const MotionController&) = delete;

    /// What a serial line would be: the path to open. Empty: no pseudo-terminal could be had.
    const std::string& device() const { return device_; }

    void fall_silent() { silent_ = true; }  // hears, does not answer
    void unplug();                          // the line is gone

  private:
    void serve();
    std::string answer(const std::string& command);
    /// Moves while it goes on hearing: a halt ends it.
    std::string moved(const std::function<Done()>& move);
    bool read_more();

    RailPort& rail_;
    int master_ = -1;
    std::string device_;
    std::atomic<bool> silent_ = false, quit_ = false;
    std::string received_;
    std::thread thread_;
};

}  // namespace poquito::devices
