#include "run/run_plan.hpp"

#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/lapse.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"
#include "storage/safe_name.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::run {

std::string RunPlan::file_of(std::size_t frame) const { return fmt::format("{}-{:04}.jpg", id, frame + 1); }

devices::CameraPort::Settings RunPlan::settings_of(std::size_t frame) const {
    auto set = settings;
    if (moment_frames == 0) return set;
    const std::size_t moment = frame / moment_frames;
    set.shutter *= std::exp2(moment_stops * static_cast<double>(moment));
    return set;
}

std::optional<std::string> run_refusal(const plan::Plan& plan, const plan::Report& report) {
    const double frames = std::max(report.capture.frames, report.capture.cost.exposures);
    if (plan.shot.lapse)
        if (const double all = plan::lapse_of(plan, report).exposures; all > plan::most_frames)
            return fmt::format(
                "The time-lapse has {} frames, more than the {} that a run takes: a longer interval, or "
                "one frame each time.",
                text::number_text(all, 9), text::number_text(plan::most_frames, 9));
    if (frames <= plan::most_frames) return std::nullopt;
    return fmt::format(
        "The stack has {} frames, more than the {} that a run takes: choose a wider step, a smaller stop "
        "or a slice of the depth.",
        text::number_text(frames, 9), text::number_text(plan::most_frames, 9));
}

namespace {

/// The same frames at each moment, as many as a run takes.
void repeat_for(const shoot::Lapse& lapse, const plan::LapseReport& report, RunPlan& run) {
    const auto once = run.frames;
    run.moment_frames = once.size();
    run.moment_interval = lapse.interval;
    run.moment_stops = lapse.follows ? -report.drift_each : 0;
    const double most = plan::most_frames / static_cast<double>(once.size());
    const auto moments = static_cast<std::size_t>(std::max(1.0, std::min(report.moments, std::floor(most))));
    run.frames.reserve(moments * once.size());
    for (std::size_t i = 1; i < moments; ++i) run.frames.insert(run.frames.end(), once.begin(), once.end());
    run.frame_time = std::max(run.frame_time, lapse.interval / static_cast<double>(once.size()));
}

}  // namespace

RunPlan make_run_plan(const plan::Plan& plan, std::string id, std::filesystem::path folder) {
    const auto& shot = plan.shot;
    const auto report = plan::assess(plan);
    const auto& cost = report.capture.cost;
    RunPlan run{
        .id = std::move(id),
        .shot = shot.id,
        .shot_name = shot.name,
        .folder = std::move(folder),
        .settings = {.f_number = shot.exposure.f_number, .shutter = shot.exposure.shutter, .iso = shot.exposure.iso},
        .settle = cost.cadence.settle,
        .interval = shot.capture.interval.value_or(0),
        .frame_time = cost.cadence.frame};
    const double planned = plan.extent.depth / 2 + plan.focus;  // plane behind the nearest point
    for (const auto& frame : plan::stack_frames(plan, report)) {
        RunFrame made{.plane = frame.plane, .rail = std::nullopt, .ring = frame.ring};
        if (frame.rail) made.rail = frame.plane - planned;
        run.frames.push_back(made);
    }
    if (report.capture.stack && report.capture.stack->hand()) {
        // Bursts while the camera sways: where each frame will be focused nobody knows, only where the middle is.
        const auto exposures = static_cast<std::size_t>(std::min(cost.exposures, plan::most_frames));
        run.frames.assign(exposures, {.plane = planned, .rail = std::nullopt, .ring = std::nullopt});
        run.interval = std::max(run.interval, 1 / shot.capture.hand.frames_per_second);
    }
    if (report.capture.stack && report.capture.stack->rail()) run.take_up = report.capture.stack->rail()->take_up;
    for (std::size_t i = 0; i < shot.lights.size(); ++i)
        if (plan::is_flash(shot.lights[i]))
            run.powers.push_back(report.light.sources[i].suggested_power.value_or(report.light.sources[i].power));
    if (shot.lapse) repeat_for(*shot.lapse, plan::lapse_of(plan, report), run);
    // Three times what the slowest needs; a weak battery takes about twice (common practice).
    run.flash_timeout = std::max(5.0, 3 * report.capture.recycle);
    return run;
}

RunPlan test_plan(const RunPlan& plan) {
    RunPlan test = plan;
    test.id += shoot::test_run_end;
    // Of a time-lapse its first moment alone.
    if (plan.moment_frames > 0) test.frames.resize(std::min(test.frames.size(), plan.moment_frames));
    test.moment_frames = 0, test.moment_interval = 0, test.moment_stops = 0;
    if (test.frames.empty()) return test;
    const auto last = test.frames.size() - 1;
    std::vector<std::size_t> places = {0, last / 2, last};
    places.erase(std::unique(places.begin(), places.end()), places.end());
    std::vector<RunFrame> chosen;
    chosen.reserve(places.size());
    for (const auto place : places) chosen.push_back(test.frames[place]);
    test.frames = std::move(chosen);
    return test;
}

RunPlan tries_plan(const RunPlan& plan, std::size_t tries, double seconds) {
    RunPlan many = plan;
    for (std::size_t i = 1; i < tries; ++i)
        many.frames.insert(many.frames.end(), plan.frames.begin(), plan.frames.end());
    many.interval = std::max(many.interval, seconds);
    many.frame_time = std::max(many.frame_time, seconds);
    return many;
}

namespace {

/// Of the ring at that plane, by the two planned frames about it or at that end.
std::optional<double> ring_at(const std::vector<RunFrame>& frames, double plane) {
    if (!frames.front().ring) return std::nullopt;
    if (frames.size() < 2) return frames.front().ring;
    std::size_t at = 0;
    while (at + 2 < frames.size() && frames[at + 1].plane < plane) ++at;
    const RunFrame &from = frames[at], &to = frames[at + 1];
    const double share = to.plane == from.plane ? 0 : (plane - from.plane) / (to.plane - from.plane);
    return std::clamp(*from.ring + share * (*to.ring - *from.ring), 0.0, 1.0);
}

}  // namespace

RunPlan retake_plan(const RunPlan& plan, std::vector<double> planes) {
    RunPlan again = plan;
    again.id += shoot::retake_run_end;
    again.moment_frames = 0, again.moment_interval = 0, again.moment_stops = 0;
    if (plan.frames.empty()) return again;
    const RunFrame& first = plan.frames.front();
    if (planes.empty()) planes = {first.plane};
    std::ranges::sort(planes);
    again.frames.clear();
    for (const double plane : planes) {
        RunFrame frame{.plane = plane, .rail = std::nullopt, .ring = ring_at(plan.frames, plane)};
        if (first.rail) frame.rail = *first.rail + plane - first.plane;
        again.frames.push_back(frame);
    }
    return again;
}

namespace {

/// What its rail has to travel; empty: it needs none.
std::optional<devices::RailWay> rail_way(const RunPlan& plan) {
    if (plan.frames.empty() || !plan.frames.front().rail) return std::nullopt;
    return devices::RailWay{.from = *plan.frames.front().rail - plan.take_up, .to = *plan.frames.back().rail};
}

}  // namespace

devices::BenchSetup bench_setup(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan) {
    return {.kit = kit, .shot = shot, .folder = plan.folder, .powers = plan.powers, .way = rail_way(plan)};
}

double rail_reference(const RunPlan& plan, double travel) {
    const auto way = rail_way(plan);
    return way ? way->reference(travel) : travel / 2;
}

std::string next_run_id(const std::filesystem::path& journals, const std::string& shot) {
    const auto safe = storage::safe_name(shot);
    for (int number = 1;; ++number) {
        auto id = fmt::format("{}-{}", safe, number);
        const auto taken = [&](const char* end) {
            std::error_code failed;
            return std::filesystem::exists(journals / (id + end), failed);
        };
        if (!taken(".journal") && !taken("-test.journal") && !taken("-retake.journal")) return id;
    }
}

}  // namespace poquito::run
