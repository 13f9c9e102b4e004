#include "run/session.hpp"

#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"

#include <algorithm>
#include <limits>
#include <system_error>
#include <utility>
#include <variant>

namespace poquito::run {

Session::Session(std::unique_ptr<devices::BenchDevices> devices, Journal journal, RunState state, RunOptions options)
    : plan_(state.plan),
      devices_(std::move(devices)),
      journal_(std::move(journal)),
      runner_(devices_->bench(), devices_->clock(), journal_, std::move(state), options) {}

Session::Made Session::begin(const Wish& wish, const RunFolders& folders, const devices::DeviceSettings& settings,
                             RunOptions options) {
    const auto& shot = wish.plan.shot;
    const auto report = plan::assess(wish.plan);
    if (const auto refusal = run_refusal(wish.plan, report)) return text::Error{"shot " + shot.id, *refusal};
    const auto id = next_run_id(folders.journals, shot.id);
    auto plan = make_run_plan(wish.plan, id, folders.frames_apart ? folders.journals / id : folders.journals);
    if (wish.tests) plan = test_plan(plan);
    if (wish.again) plan = retake_plan(plan, *wish.again);
    if (wish.tries > 1) {
        plan = tries_plan(plan, wish.tries, report.chance ? report.chance->seconds_a_try : 0);
        // What the trigger missed is a try like any other.
        options.dim_stops = std::numeric_limits<double>::infinity();
    }
    RunState state{
        .plan = plan, .time = devices::local_time(), .frames = std::vector<JournalFrame>(plan.frames.size())};
    const auto journal = [&] { return Journal::create(folders.journals / (plan.id + ".journal"), plan); };
    return launch(wish.plan.kit, shot, std::move(state), journal, settings, options);
}

Session::Made Session::go_on(const std::filesystem::path& path, const shoot::Shoot& shoot,
                             const devices::DeviceSettings& settings, RunOptions options,
                             const std::filesystem::path& frames) {
    // Locked before it is read: whoever had it may have written until then.
    auto journal = Journal::resume(path);
    if (!journal) return journal.error();
    auto read = read_journal(path);
    if (!read) return read.error();
    auto& state = *read;
    const auto shot = std::ranges::find(shoot.shots, state.plan.shot, &shoot::Shot::id);
    if (shot == shoot.shots.end())
        return text::Error{path.string(), "its shot \"" + state.plan.shot + "\" is not in the shoot"};
    if (!frames.empty()) state.plan.folder = frames;
    return launch(
        shoot.kit, *shot, std::move(state), [&] { return std::move(journal); }, settings, options);
}

/// The journal comes last, so that nothing that could not begin leaves one behind.
Session::Made Session::launch(const gear::Kit& kit, const shoot::Shot& shot, RunState state,
                              const std::function<text::Expected<Journal>()>& journal,
                              const devices::DeviceSettings& settings, RunOptions options) {
    std::error_code failed;
    std::filesystem::create_directories(state.plan.folder, failed);
    if (failed) return text::Error{state.plan.folder.string(), "cannot make the frames' folder, " + failed.message()};
    auto devices = devices::make_devices(bench_setup(kit, shot, state.plan), settings);
    if (!devices) return devices.error();
    auto written = journal();
    if (!written) return written.error();
    return std::unique_ptr<Session>(new Session(std::move(*devices), std::move(*written), std::move(state), options));
}

bool Session::is_test() const { return run::is_test(plan_); }

bool is_test(const RunPlan& plan) { return shoot::is_test_run(plan.id); }

shoot::RunRecord log_entry(const RunState& state) {
    auto record = record_of(state);
    if (is_test(state.plan)) record.remark = "test frames" + (record.remark.empty() ? "" : "; " + record.remark);
    return record;
}

std::optional<std::filesystem::path> broken_run(const std::filesystem::path& journals, const std::string& shot,
                                                bool tests) {
    for (const auto& path : unfinished_runs(journals).journals) {
        const auto state = read_journal(path);
        if (state && state->plan.shot == shot && is_test(state->plan) == tests) return path;
    }
    return std::nullopt;
}

}  // namespace poquito::run
