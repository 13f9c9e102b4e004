#include "cli/commands.hpp"
#include "cli/common.hpp"

#include "advice/advice.hpp"
#include "advice/proposals/proposals.hpp"
#include "day/order.hpp"
#include "devices/sim/motion_controller.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "proof/delivery.hpp"
#include "run/session.hpp"
#include "storage/atomic_file.hpp"
#include "storage/plans_json.hpp"
#include "storage/report_json.hpp"
#include "storage/run_sheet.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <functional>
#include <optional>
#include <thread>

namespace poquito::cli {
namespace {

std::vector<advice::Assessment> assess_all(const shoot::Shoot& shoot) {
    std::vector<advice::Assessment> assessments;
    assessments.reserve(shoot.shots.size());
    for (const auto& shot : shoot.shots)
        assessments.push_back(advice::assessment_of(shoot.kit, shot, shoot::terms_of(shoot, shot)));
    return assessments;
}

/// Calls back once when the program is asked to end; a handler itself may do next to nothing.
class OnInterrupt {
  public:
    explicit OnInterrupt(std::function<void()> then)
        : thread_([this, then = std::move(then)] {
              while (!over_ && !interrupted()) std::this_thread::sleep_for(std::chrono::milliseconds(20));
              if (interrupted()) then();
          }) {
        take_interrupts();
    }
    ~OnInterrupt() {
        over_ = true;
        thread_.join();
    }
    OnInterrupt(const OnInterrupt&) = delete;
    OnInterrupt& operator=(const OnInterrupt&) = delete;

  private:
    std::atomic<bool> over_ = false;
    std::thread thread_;
};

std::string clock_text(double seconds) {
    const auto minutes = std::lround(seconds / 60);
    return fmt::format("{:02}:{:02}", minutes / 60, minutes % 60);
}

}  // namespace

int report(const std::string& file) {
    const auto shoot = load(file);
    if (!shoot) return bad_input;
    const std::string text = storage::write_report(assess_all(*shoot));
    std::fwrite(text.data(), 1, text.size(), stdout);
    return done;
}

int write_sheet(const std::string& file, const std::string& out) {
    const auto shoot = load(file);
    if (!shoot) return bad_input;
    const auto sheet = storage::run_sheet_html(*shoot, assess_all(*shoot), {.narrow_screens = true});
    if (const auto written = storage::replace_file(out, sheet); !written) return complain(written.error());
    return done;
}

int deliver_pictures(const std::string& file, const std::filesystem::path& folder, bool replace) {
    const auto shoot = load(file);
    if (!shoot) return bad_input;
    const auto assessments = assess_all(*shoot);
    job::AllAssessed facts;
    for (const auto& one : assessments) facts.push_back({.plan = &one.plan, .report = &one.report});
    const auto plan = proof::delivery_plan(*shoot, facts, folder);
    bool all = plan.missing.empty();
    for (const auto& words : plan.missing) std::fprintf(stderr, "%s\n", words.c_str());
    for (const auto& one : plan.jobs) {
        const auto made = proof::deliver(one, replace ? proof::IfThere::replace : proof::IfThere::keep);
        if (made.width > 0) std::printf("%s %d x %d\n", one.to.c_str(), made.width, made.height);
        if (made.problem.empty()) continue;
        all = false;
        std::fprintf(stderr, "%s\n", made.problem.c_str());
    }
    return all ? done : bad_input;
}

int run_shot(const std::string& file, const RunRequest& request) {
    const auto loaded = load(file);
    if (!loaded) return bad_input;
    const shoot::Shoot& shoot = *loaded;
    const auto* shot = find_shot(shoot, request.shot);
    if (!shot) return bad_input;
    devices::DeviceSettings settings{.speed = request.speed,
                                     .rail_line = request.device,
                                     .dialect_file = request.dialect,
                                     .rail_behind_line = request.serial,
                                     .picture_width = request.width};
    for (const auto& text : request.mishaps) {
        const auto mishap = devices::parse_mishap(text);
        if (!mishap) {
            fmt::print(stderr, "got trouble \"{}\", expected such as camera-drops@5 or subject-moves@5:0.4\n", text);
            return bad_usage;
        }
        settings.mishaps.push_back(*mishap);
    }
    if (!request.no_book && refuses_book(request.book)) return bad_input;
    for (const auto& error : run::unfinished_runs(request.folder).unreadable) (void)complain(error);
    const auto broken = run::broken_run(request.folder, shot->id, request.tests_only);
    const run::RunOptions options{.hold_on_fault = false};
    auto made = broken ? run::Session::go_on(*broken, shoot, settings, options, request.folder)
                       : run::Session::begin({.plan = plan::plan_of(shoot.kit, *shot, shoot::terms_of(shoot, *shot)),
                                              .tests = request.tests_only},
                                             {.journals = request.folder}, settings, options);
    if (!made) return complain(made.error());
    auto& session = **made;
    auto& runner = session.runner();
    const auto state = runner.state();
    if (const auto damage = run::damage_text(state); !damage.empty())
        fmt::print(stderr, "{}: {}\n", state.plan.id, damage);
    if (broken)
        fmt::print("goes on with {}: {} of {} frames are there\n", state.plan.id, state.done(), state.frames.size());
    else
        fmt::print("{}: {} frames\n", state.plan.id, state.frames.size());
    const OnInterrupt stops([&] { runner.stop(); });
    std::size_t shown = state.done();
    std::string event;
    const auto phase = session.run([&] {
        const auto status = runner.status();
        const auto done = static_cast<std::size_t>(
            std::ranges::count_if(status.frames, [](auto s) { return s >= run::FrameState::saved; }));
        if (status.event != event) fmt::print("  {}\n", event = status.event);
        if (done != shown) fmt::print("  {} of {}\n", shown = done, status.frames.size());
        std::fflush(stdout);
    });
    if (!request.no_book) enter_run(request.book, shoot, *shot, run::log_entry(runner.state()));
    const auto status = runner.status();
    if (phase == run::Phase::broken) {
        fmt::print(stderr, "{} Run it again to go on.\n", status.problem);
        return broke_off;
    }
    fmt::print("{}: {} frames on the card{}\n", phase == run::Phase::complete ? "complete" : "stopped",
               runner.state().taken.size(), status.dim > 0 ? fmt::format(", {} too dark", status.dim) : "");
    return done;
}

int show_log(const std::filesystem::path& journal) {
    const auto read = run::read_journal(journal);
    if (!read) return complain(read.error());
    const auto& state = *read;
    if (const auto damage = run::damage_text(state); !damage.empty()) fmt::print(stderr, "{}\n", damage);
    const auto record = run::record_of(state);
    constexpr const char* ends[] = {"complete", "stopped", "broken off"};
    fmt::print("{}, {}: {} of {} frames, {}\n", record.id, record.time, record.frames.size(), record.planned,
               ends[static_cast<int>(record.end)]);
    for (const auto& frame : record.frames)
        fmt::print("{:5}  {:9.4f} mm  f/{:g}  {:g} s  ISO {:g}  {}{}{}\n", frame.index + 1, frame.plane, frame.f_number,
                   frame.shutter, frame.iso, frame.file, frame.remark.empty() ? "" : "  ", frame.remark);
    return done;
}

namespace {

/// Lets a search go on for so many seconds, and says on standard error that it is at it when that takes noticeably
/// long.
class BudgetedProgress {
  public:
    explicit BudgetedProgress(double seconds) : seconds_(seconds) {}

    bool go_on() const {
        const double passed = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
        if (passed >= told_ + tell_every) {
            told_ = passed;
            fmt::print(stderr, "looking for a better order, {} of at most {}\n", text::time_text(std::floor(passed)),
                       text::time_text(seconds_));
        }
        over_ |= passed > seconds_;
        return !over_ && !interrupted();
    }
    bool over() const { return over_; }

  private:
    static constexpr double tell_every = 2;  // s
    double seconds_;
    std::chrono::steady_clock::time_point begun_ = std::chrono::steady_clock::now();
    mutable double told_ = 0;
    mutable bool over_ = false;
};

}  // namespace

int order_shots(const std::string& file, const std::string& out, double seconds) {
    const auto loaded = load(file);
    if (!loaded) return bad_input;
    const shoot::Shoot& shoot = *loaded;
    std::vector<plan::Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(plan::assess(shoot.kit, shot, shoot::terms_of(shoot, shot)));
    std::vector<const plan::Report*> pointers;
    pointers.reserve(reports.size());
    for (const auto& report : reports) pointers.push_back(&report);
    const auto problem = day::order_problem(shoot, pointers);
    if (const auto circle = schedule::circle_of(problem); !circle.empty()) {
        std::string names;
        for (const auto job : circle) names += (names.empty() ? "" : ", ") + shoot.shots[job].id;
        return complain({"shots", fmt::format("{} wait for each other, expected an order among them", names)});
    }
    take_interrupts();  // what was found until then is printed
    const BudgetedProgress progress(seconds);
    const auto orders = day::orders_of(problem, [&] { return progress.go_on(); });
    const auto &before = orders.given, &after = orders.best;
    if (progress.over())
        fmt::print(stderr, "stopped after {}: the best order found so far; --seconds gives it longer\n",
                   text::time_text(seconds));
    const auto changes = day::changes_of(shoot.shots, after.order);
    for (std::size_t k = 0; k < after.order.size(); ++k)
        fmt::print("{}  {}  ({})\n", clock_text(after.start[k]), shoot.shots[after.order[k]].name,
                   k > 0 ? "changes " + day::change_text(changes[k]) : std::string("first"));
    fmt::print("changes take {} instead of {}, over at {}{}\n", text::time_text(after.work),
               text::time_text(before.work), clock_text(after.finish),
               after.late > 0 ? ", " + text::time_text(after.late) + " late" : "");
    if (out.empty()) return done;
    if (const auto saved = storage::save_shoot(day::in_order(shoot, after.order), out); !saved)
        return complain(saved.error());
    return done;
}

int print_plans(const std::string& file, const std::string& id, int take, const std::string& out) {
    const auto loaded = load(file);
    if (!loaded) return bad_input;
    const shoot::Shoot& shoot = *loaded;
    const auto* shot = find_shot(shoot, id);
    if (!shot) return bad_input;
    const auto plans = advice::proposals_for(shoot.kit, *shot, shoot::terms_of(shoot, *shot));
    if (take > static_cast<int>(plans.size()))
        return complain({"--take", fmt::format("got {}, expected 1 to {}, the plans there are", take, plans.size())});
    if (take > 0) {
        std::error_code none;
        if (std::filesystem::equivalent(file, out, none))
            return complain({"--out", "got the shoot itself, expected another file: it is never changed"});
        shoot::Shoot taken = shoot;
        const auto place = std::ranges::find(shoot.shots, id, &shoot::Shot::id) - shoot.shots.begin();
        taken.shots[static_cast<std::size_t>(place)] = plans[static_cast<std::size_t>(take) - 1].shot;
        if (const auto saved = storage::save_shoot(taken, out); !saved) return complain(saved.error());
    }
    fmt::print("{}", storage::write_plans(plans));
    return done;
}

int print_stack(const std::string& file, const std::string& id) {
    const auto loaded = load(file);
    if (!loaded) return bad_input;
    const shoot::Shoot& shoot = *loaded;
    const auto* shot = find_shot(shoot, id);
    if (!shot) return bad_input;
    const auto report = plan::assess(shoot.kit, *shot, shoot::terms_of(shoot, *shot));
    const auto plan = plan::plan_of(shoot.kit, *shot, shoot::terms_of(shoot, *shot));
    const auto frames = plan::stack_frames(plan, report);
    if (static_cast<double>(frames.size()) < report.capture.frames)
        fmt::print(stderr, "the first {} of {} frames\n", frames.size(), text::number_text(report.capture.frames, 9));
    fmt::print("frame  plane_mm{}{}\n", frames.front().rail ? "  rail_mm" : "", frames.front().ring ? "  ring" : "");
    for (std::size_t i = 0; i < frames.size(); ++i) {
        fmt::print("{:5}  {:.4f}", i + 1, frames[i].plane);
        if (frames[i].rail) fmt::print("  {:.4f}", *frames[i].rail);
        if (frames[i].ring) fmt::print("  {:.6f}", *frames[i].ring);
        fmt::print("\n");
    }
    return done;
}

int serve_rail(double travel, double speed) {
    devices::WallClock clock(speed);
    devices::World world{.clock = clock};
    devices::SimulatedRail rail(world, {.travel = travel, .step = 0.001, .backlash = 0.02});
    devices::MotionController controller(rail);
    if (controller.device().empty()) return complain({"pseudo-terminal", "cannot be had on this system"});
    fmt::print("{}\n", controller.device());
    std::fflush(stdout);
    take_interrupts();
    while (!interrupted()) std::this_thread::sleep_for(std::chrono::milliseconds(50));
    return done;
}

}  // namespace poquito::cli
