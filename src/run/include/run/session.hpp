#pragma once

#include "devices/bench_devices.hpp"
#include "run/runner.hpp"

#include <filesystem>
#include <functional>
#include <memory>

/// A run from its first preparation to its record: the one way to take a shot, for window and command line alike.
namespace poquito::run {

/// Where runs leave what they make.
struct RunFolders {
    std::filesystem::path journals;
    bool frames_apart = false;  // each run's in a folder of its own below, else beside the journals
};

class Session {
  public:
    using Made = text::Expected<std::unique_ptr<Session>>;

    /// A new run of that shot; `tests`: its first, middle and last frame alone; `again`: those planes alone. Nothing is
    /// left behind where it cannot begin. Kit and shot are not needed afterwards.
    struct Wish {
        const plan::Plan& plan;
        bool tests = false;
        std::optional<std::vector<double>> again = {};  // see retake_plan
        std::size_t tries = 1;                          // see tries_plan
    };
    static Made begin(const Wish& wish, const RunFolders& folders, const devices::DeviceSettings& settings,
                      RunOptions options = {});

    /// Goes on with a run that broke off, of a shot of that shoot. `frames`: where they lie now; empty: where they did.
    static Made go_on(const std::filesystem::path& journal, const shoot::Shoot& shoot,
                      const devices::DeviceSettings& settings, RunOptions options = {},
                      const std::filesystem::path& frames = {});

    /// As Runner: waits until it is over; the rest of the runner's calls are for any other thread.
    Phase run(const std::function<void()>& changed = {}) { return runner_.run(changed); }
    Runner& runner() { return runner_; }
    const RunPlan& plan() const { return plan_; }
    bool is_test() const;

  private:
    Session(std::unique_ptr<devices::BenchDevices> devices, Journal journal, RunState state, RunOptions options);
    static Made launch(const gear::Kit& kit, const shoot::Shot& shot, RunState state,
                       const std::function<text::Expected<Journal>()>& journal, const devices::DeviceSettings& settings,
                       RunOptions options);

    RunPlan plan_;
    std::unique_ptr<devices::BenchDevices> devices_;
    Journal journal_;
    Runner runner_;
};

/// What was exposed, as the shoot's log has it; test frames are called so.
shoot::RunRecord log_entry(const RunState& state);
bool is_test(const RunPlan& plan);

/// The newest run in the folder of that shot that broke off; empty: none.
std::optional<std::filesystem::path> broken_run(const std::filesystem::path& journals, const std::string& shot,
                                                bool tests);

}  // namespace poquito::run
