#pragma once

#include "devices/clock.hpp"
#include "devices/ports.hpp"
#include "run/journal.hpp"
#include "run/run_plan.hpp"

#include <atomic>
#include <condition_variable>
#include <functional>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <vector>

/// Takes the frames of a plan, one after the other, and can be told to stop at any time. mm, s.
namespace poquito::run {

enum class Phase {
    starting,  // connecting, homing
    moving,
    settling,
    charging,  // waiting for the flash
    waiting,   // for the interval
    exposing,
    saving,  // what is still in the buffer
    paused,
    complete,
    stopped,
    broken,  // gave up; the journal can be gone on with
};

/// What a person sees while it runs.
struct RunStatus {
    Phase phase = Phase::starting;
    std::size_t frame = 0;  // being taken, or next
    std::vector<FrameState> frames;
    double plane = 0;                          // where the plane of focus is now or on its way to
    std::optional<double> flash_ready_in = 0;  // s; empty: it does not say when, or never will be
    double seconds_left = 0;                   // of what is still missing, the way to the first frame included
    std::string problem;                       // why it holds; empty: because someone asked
    std::string last_file;                     // path of the latest frame on the card
    std::size_t dim = 0;                       // frames that are still too dark
    std::string event;                         // the latest that a device told
};

struct RunOptions {
    bool hold_on_fault = true;  // waits for a person; else it gives up
    int reconnects = 2;         // tried by itself before that
    bool retake_dim = true;     // frames that the flash missed, once, behind the others
    double dim_stops = 0.4;     // darker than the median by so much counts as missed
    double save_timeout = 30;   // s without a frame reaching the card
};

class Runner {
  public:
    /// The bench, the clock and the journal outlive it.
    Runner(devices::Bench bench, devices::Clock& clock, Journal& journal, RunState state, RunOptions options = {});

    /// Returns when it is complete, stopped or broken. `changed` is called on this thread whenever the status is new.
    Phase run(const std::function<void()>& changed = {});

    // From any thread.
    void pause();
    void resume();
    void stop();     // keeps what was taken; what is in the camera's buffer still reaches the card
    void abandon();  // stop, and do not wait for that either: such frames count as missing
    void skip();     // the frame that is next
    void redo_from(std::size_t frame);
    RunStatus status() const;
    RunState state() const;

  private:
    static constexpr double look_every = 0.05;  // s between looks at stop and pause
    static constexpr double hair = 1e-6;        // mm

    devices::Done take(std::size_t frame);
    devices::Done approach(const RunFrame& frame);
    devices::Done move_rail(double position);
    devices::Done check_rail(double wanted);
    devices::Done check_folder();
    double way_ahead() const;
    double seconds_left() const;
    bool goes_back(const RunFrame& frame) const;
    double behind(const RunFrame& frame) const;
    devices::Done connect();
    devices::Done prepare();
    devices::Done check_settings(std::size_t frame);
    devices::Done collect();
    devices::Done wait_for_flashes();
    std::optional<std::size_t> next();
    bool hold(const std::string& problem);  // false: to be stopped
    void settle_requests();
    void wait(double seconds, Phase phase);
    bool stopping() const { return stop_; }
    void set_phase(Phase phase);
    void mark(std::size_t frame, FrameState state);
    void judge_brightness();
    Phase finish(Phase phase);
    void update(const std::function<void()>& change);

    devices::Bench bench_;
    devices::Clock& clock_;
    Journal& journal_;
    RunOptions options_;

    mutable std::mutex mutex_;  // of all below
    std::condition_variable wake_;
    RunState state_;
    RunStatus status_;
    std::optional<std::size_t> redo_;
    bool skip_ = false;

    std::atomic<bool> pause_ = false;
    std::atomic<bool> stop_ = false;
    std::atomic<bool> abandoned_ = false;
    std::function<void()> changed_;
    std::optional<double> rail_at_;  // where it was last sent; empty: not known
    bool taken_up_ = false;          // the rail came from behind since it was connected
    double reference_ = 0;
    double home_way_ = 0;      // s at most to the home switch; 0 once it is there
    double moving_until_ = 0;  // when the movement that is on ends
    double last_exposure_ = -1e9;
    double moment_begun_ = -1e9;  // of a time-lapse
    double last_saved_ = 0;
    std::map<std::string, std::size_t> waiting_;  // names of frames in the buffer
    std::map<std::size_t, double> brightness_;    // of frames on the card
    std::vector<bool> retaken_;
    bool journal_failed_ = false;
    bool had_folder_ = false;  // of the frames
};

}  // namespace poquito::run
