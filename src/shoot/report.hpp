#pragma once

#include "light/background.hpp"
#include "optics/stack.hpp"
#include "shoot/checklist.hpp"
#include "shoot/fit.hpp"
#include "shoot/shoot.hpp"
#include "shoot/stations.hpp"

#include <memory>
#include <optional>
#include <string>
#include <vector>

/// What a plan comes to: everything views and exports read. mm, s, stops; an empty value does not exist (see MODEL 5).
namespace poquito::shoot {

struct OpticsReport {
    double focal_length = 0;  // of the lens at this ring position
    double ring = 0;
    double lens_magnification = 0;
    double extended_magnification = 0;  // with tubes
    double magnification = 0;           // of the whole train
    std::optional<double> field_width;
    std::optional<double> field_height;
    std::optional<double> working_distance;  // front rim to subject
    std::optional<double> subject_to_sensor;
    double front = 0;  // sensor to front rim
    double working_f_number = 0;
    double displayed_f_number = 0;  // as this camera shows it
    double exposure_loss = 0;
    bool reaches_infinity = false;
    bool reached = true;                      // false: the wanted magnification is out of reach
    optics::MagnificationRange range;         // over the whole ring
    std::optional<double> fill;               // share of the frame the subject takes, in its tighter direction
    std::optional<double> shaded_half_angle;  // degrees, cone about the axis that the front of the lens covers
    std::optional<double> at_infinity_ring;   // subject to sensor at ring 0, the far limit; empty: infinity
    std::optional<double> at_closest_ring;    // at ring 1
    double at_infinity_magnification = 0;
    double at_closest_magnification = 0;
    std::vector<Measured> measured;  // what of the lens was measured rather than believed
    Fit fit;
};

struct SharpnessReport {
    double blur_limit = 0;
    std::optional<double> near;
    std::optional<double> far;
    std::optional<double> depth_of_field;
    double airy_diameter = 0;
    std::optional<double> best_single_f_number;  // marked, neither rounded nor limited to the lens
    std::optional<double> edge_blur;             // defocus disc at the subject's farther end in a single frame
    std::optional<double> background_disc;
    std::optional<double> background_disc_share;  // of the frame width
    std::optional<double> background_blur_over_detail;
};

struct CaptureReport {
    std::optional<double> frame_depth;
    bool nothing_to_keep = false;  // the contrast rule gave way to quarter-wave
    std::optional<double> step;
    double frames = 1;
    double duration = 0;        // s: exposures and recycling alone, MODEL 5
    double paced_duration = 0;  // s: at the pace the camera and the flashes keep, see interval
    double data_mb = 0;
    double recycle = 0;   // s, the longest of the flashes
    double interval = 0;  // s from one frame to the next as the camera fires them: as set, or as fast as brackets go
    std::optional<optics::FocusTravel> travel;      // planes of the first and last frame; stacks only
    std::optional<optics::RingTravel> ring_travel;  // stacks by ring the ring can do
    std::optional<double> viewpoint_change;  // stacks by rail: travel over the distance from entrance pupil to subject
};

struct SourceReport {
    std::optional<double> stops;  // at the subject, relative to correct
    double power = 0;             // exact: as set, or as the automatic wants it
    std::optional<double> suggested_power;
    std::optional<double> left_over;  // stops, wanted over suggested; positive: too dark
    std::optional<double> t05;        // s
    std::optional<double> t01;        // s
    std::optional<double> facing;     // stops a flat face towards the camera loses to the slant; empty: lit from behind
    double recycle = 0;               // s
    double off_axis = 0;              // degrees between light and lens axis, seen from the subject
};

struct LightReport {
    std::optional<double> ambient;
    std::vector<SourceReport> sources;
    std::optional<double> total;
    std::optional<double> background;
    std::optional<light::BackgroundLook> background_look;
};

struct MotionReport {
    double blur = 0;           // steady movement
    double sway_blur = 0;      // swing, at worst
    double exposure_time = 0;  // s that count: the shutter's, or the flash's where it makes the exposure
    bool frozen_by_flash = false;
};

enum class Level { info, caution, stop };

/// One change that answers a note: the shot as it would be.
struct Remedy {
    std::string label;
    Shot shot;
};

/// Safety notes stand apart: they are shown, but never make a station doubtful.
enum class Concern { plan, safety };

struct Note {
    std::string code;
    Station station = Station::subject;
    Level level = Level::info;
    Concern concern = Concern::plan;
    std::string text;
    std::shared_ptr<const Remedy> remedy;  // null: nothing one click could do
};

struct Report {
    std::string id;
    Extent extent;  // of the subject as it is turned towards the camera
    OpticsReport optics;
    SharpnessReport sharpness;
    CaptureReport capture;
    LightReport light;
    MotionReport motion;
    std::vector<ChecklistItem> checklist;
    std::vector<Note> notes;  // stops first, then cautions, then information
};

}  // namespace poquito::shoot
