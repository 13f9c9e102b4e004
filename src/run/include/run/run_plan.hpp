#pragma once

#include "devices/bench_setup.hpp"
#include "devices/ports.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

/// A stack, or a single frame, as the bench is told to take it. mm, s; planes are mm behind the subject's nearest
/// point.
namespace poquito::run {

struct RunFrame {
    double plane = 0;
    std::optional<double> rail;  // mm towards the subject from where the planned plane is in focus
    std::optional<double> ring;
};

struct RunPlan {
    std::string id;  // names its journal and the frames' files: letters, digits, hyphens
    std::string shot;
    std::string shot_name;
    std::filesystem::path folder;  // of the frames
    std::vector<RunFrame> frames;  // nearest first
    devices::CameraPort::Settings settings;
    std::vector<double> powers;  // of the flashes, fractions of full
    double settle = 0;           // of rest after each move
    double take_up = 0;          // mm of rail further back than the first frame, so that all come from one side
    double interval = 0;         // at least from one exposure to the next
    double flash_timeout = 30;   // to wait for a flash
    /// Of a time-lapse: how many frames one moment has, how far apart moments begin, and by how many stops each is
    /// exposed more than the one before it, against the light's own drift. 0 frames: it is taken once.
    std::size_t moment_frames = 0;
    double moment_interval = 0;
    double moment_stops = 0;
    double frame_time = 1;  // expected, from one frame to the next: for the time left

    std::string file_of(std::size_t frame) const;  // "urchin-1-0007.jpg"
    bool opens_moment(std::size_t frame) const { return moment_frames > 0 && frame % moment_frames == 0; }
    devices::CameraPort::Settings settings_of(std::size_t frame) const;  // as its moment has them
};

/// Why no run can be made of what is planned: more frames than `most_frames`. Empty: it can.
std::optional<std::string> run_refusal(const plan::Plan& plan, const plan::Report& report);

/// What is planned for that shot; `id` as in RunPlan. Of a stack that is refused only the first frames.
RunPlan make_run_plan(const plan::Plan& plan, std::string id, std::filesystem::path folder);

/// Its first, middle and last frame alone, as a run of its own: what to look at before the run.
RunPlan test_plan(const RunPlan& plan);

/// All of it so many times over, one try after the other: of what is left to chance. `seconds` that one try takes, with
/// all that belongs to it.
RunPlan tries_plan(const RunPlan& plan, std::size_t tries, double seconds);

/// Only what is to be taken of it, again or in between: at those planes, nearest first, as a run of its own. Rail and
/// ring go on as they do between its frames and at its ends. Of a plan without frames that move, that one frame again.
RunPlan retake_plan(const RunPlan& plan, std::vector<double> planes);

/// What the bench needs for it. Kit and shot outlive the bench.
devices::BenchSetup bench_setup(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan);

/// mm from the home switch where the carriage stands when the planned plane is in focus; see RailWay.
double rail_reference(const RunPlan& plan, double travel);

/// An id for the next run of a shot: its own id and a number no journal in the folder has.
std::string next_run_id(const std::filesystem::path& journals, const std::string& shot);

}  // namespace poquito::run
