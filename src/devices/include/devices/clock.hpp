#pragma once

#include <atomic>
#include <chrono>
#include <condition_variable>
#include <mutex>
#include <string>

/// Time at the bench, s. What waits asks a clock, so that a simulated bench can run faster than the wall clock.
namespace poquito::devices {

class Clock {
  public:
    virtual ~Clock() = default;
    virtual double now() const = 0;  // s since some moment
    virtual void sleep(double seconds) = 0;
    /// From now on nobody waits, who sleeps wakes: what is still to do is to be over. From any thread.
    virtual void hurry() = 0;
};

/// The wall clock, `speed` times as fast.
class WallClock final : public Clock {
  public:
    explicit WallClock(double speed = 1);
    double now() const override;
    void sleep(double seconds) override;
    void hurry() override;

  private:
    double speed_;
    std::chrono::steady_clock::time_point start_;
    std::mutex mutex_;
    std::condition_variable wake_;
    bool hurried_ = false;
    std::atomic<double> ahead_ = 0;  // s slept through in a hurry
};

/// Nobody waits: sleeping moves the time on.
class InstantClock final : public Clock {
  public:
    double now() const override { return now_; }
    void sleep(double seconds) override;
    void hurry() override {}

  private:
    std::atomic<double> now_{0};
};

/// Local time of day, ISO 8601 with seconds: 2026-11-25T09:30:00.
std::string local_time();

}  // namespace poquito::devices
