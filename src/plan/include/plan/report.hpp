#pragma once

#include "light/correction.hpp"
#include "light/position.hpp"
#include "optics/stack.hpp"
#include "plan/motion/chance.hpp"
#include "plan/set/camera_position.hpp"
#include "plan/set/staging.hpp"
#include "plan/stack/stack_plan.hpp"
#include "shoot/change/fit.hpp"
#include "shoot/shot.hpp"

#include <optional>
#include <string>
#include <vector>

/// What a plan comes to: facts alone; what to make of them is advice.hpp. mm, s, stops; an empty value does not exist
/// (see MODEL 5).
namespace poquito::plan {

/// A subject in liquid: what the wall and the water change. mm.
struct TankReport {
    double nearer = 0;                     // that it appears
    std::optional<double> real_distance;   // front rim to subject, through air, wall and water
    std::optional<double> front_to_wall;   // air between front rim and the wall's outer face; below 0: there is none
    std::optional<double> depth_of_field;  // in the water
};

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
    double front = 0;  // sensor to front rim, or to its hood's
    double hood = 0;   // mm that a hood stands before the front rim
    double working_f_number = 0;
    double displayed_f_number = 0;  // as this camera shows it
    double exposure_loss = 0;
    bool reaches_infinity = false;
    bool reached = true;                       // false: the wanted magnification is out of reach
    optics::MagnificationRange range;          // over the whole ring
    std::optional<double> fill;                // share of the frame the subject takes, in its tighter direction
    std::optional<double> field_behind_width;  // at the background; empty: none, or it cannot be said
    std::optional<double> field_behind_height;
    std::optional<double> shaded_half_angle;  // degrees, cone about the axis that the front of the lens covers
    std::optional<double> at_infinity_ring;   // subject to sensor at ring 0, the far limit; empty: infinity
    std::optional<double> at_closest_ring;    // at ring 1
    double at_infinity_magnification = 0;
    double at_closest_magnification = 0;
    std::optional<double> table_behind;   // mm, of the table that the subject stands on, along the axis; empty: level
    std::optional<double> camera_height;  // mm, of the sensor over that table; empty: at infinity
    std::optional<TankReport> tank;
    std::vector<gear::Measured> measured;  // what of the lens was measured rather than believed
    shoot::Fit fit;
};

struct SharpnessReport {
    double blur_limit = 0;
    double focus = 0;  // mm, the plane of focus behind the subject's centre
    std::optional<double> near;
    std::optional<double> far;
    std::optional<double> depth_of_field;
    double airy_diameter = 0;
    std::optional<double> best_single_f_number;  // marked, neither rounded nor limited to the lens
    std::optional<double> edge_blur;     // defocus disc in a single frame at the farther end of what has to be sharp
    std::optional<double> rest_blur;     // and of the rest of the subject, where it lies farthest; zones only
    std::optional<double> zone;          // mm, of the depth that has to be sharp; empty: all of it has
    std::optional<double> zone_covered;  // share of the zone that the frames hold, 0 to 1; zones only
    std::optional<double> background_disc;
    std::optional<double> background_disc_share;  // of the frame width
    std::optional<double> background_blur_over_detail;
};

/// A stack as the rule alone would have it (MODEL 2 and 5): no rail rounds its step, no ring stretches it.
struct StackByRule {
    std::optional<double> step;
    double frames = 1;
    double duration = 0;  // s: exposures and recycling alone
    double data_mb = 0;
};

struct CaptureReport {
    StackByRule by_rule;
    std::optional<double> frame_depth;
    bool nothing_to_keep = false;  // the contrast rule gave way to quarter-wave
    std::optional<double> step;    // as the gear really makes it, at the planned plane; never above the rule's
    double frames = 1;             // as many as that takes; a whole number
    double paced_duration = 0;     // s: at the pace that camera, mover and flashes keep, see interval
    double data_mb = 0;
    double recycle = 0;   // s, the longest of the flashes
    double interval = 0;  // s from one frame to the next as the camera fires them: as set, or as fast as brackets go
    std::optional<optics::FocusTravel> travel;      // planes of the first and last frame; stacks only
    std::optional<optics::RingTravel> ring_travel;  // stacks by ring the ring can do
    std::optional<double> viewpoint_change;  // stacks by rail: travel over the distance from entrance pupil to subject
    std::optional<StackReport> stack;        // stacks only
    StackCost cost;
};

/// Stops that stand between a source and the subject.
struct Losses {
    double modifier = 0;    // as calibrated
    double layer = 0;       // a second one of diffuser
    double bounce = 0;      // by the surface's reflectance
    double aim = 0;         // looking past the subject, through a grid or not
    double high_speed = 0;  // high-speed sync
    double total() const { return modifier + layer + bounce + aim + high_speed; }
};

/// One window that shines: most sources have one, a twin light has two.
struct SourceTube {
    light::Position place;
    double diameter = 0;  // mm
    double share = 1;     // of the source's light
};

/// What the camera's own metering would do with this field, of flash or of the light that is there (MODEL 3).
struct MeteringReport {
    double fill = 1;            // share of the frame's area the subject takes
    double background = 0;      // stops of the metered light there against the subject's
    double reflectance = 0;     // the average that is metered
    double error = 0;           // stops without compensation, by the average; positive: too bright
    light::Calibrated learned;  // stops brighter than that, which test frames of this unit (or camera) showed
    double expected = 0;        // stops that it will come out without compensation, by what is known best: see `by`
    /// The compensation to begin with, and what it goes by: what was learned of this unit, before what practice begins
    /// with for such a subject, before the average. Never plus where the highlight would clip.
    double advised = 0;
    enum class By { learned, practice, average } by = By::average;
};

struct SourceReport {
    std::string label;  // as it is called: its group, numbered where several share one
    bool continuous = false;
    bool fires = false;             // false: an automatic one that stays dark
    bool reflector = false;         // sends back what falls on it: no unit, no power
    bool aimless = false;           // automatic, reaches no face the camera sees, and has no stops of its own: no power
    std::optional<double> stops;    // at the subject, as a meter turned to it reads; empty: none gets there
    std::optional<double> front;    // of that, seen from the camera; empty: none
    std::optional<double> through;  // what comes through the subject to the camera; empty: none
    std::optional<double> rim;      // stops over the front of the edge it lights, of a light beside or behind
    double reaches = 0;             // share of the face the camera sees that it reaches, 0 to 1
    double front_share = 0;         // front over stops, as a ratio: k of MODEL 6
    double through_share = 0;       // and through over stops
    double shown_share() const { return front_share + through_share; }
    double power = 0;  // exact: as set, or as the automatic wants it
    std::optional<double> suggested_power;
    std::optional<double> left_over;  // stops, wanted over suggested; positive: too dark
    std::optional<double> t05;        // s
    std::optional<double> t01;        // s
    std::optional<double> facing;     // stops a flat face towards the camera loses to the slant; empty: lit from behind
    double recycle = 0;               // s
    double off_axis = 0;              // degrees between light and lens axis, seen from the subject
    light::Position place;            // as it really stands; of a light on the lens: of each of its tubes
    std::vector<SourceTube> tubes;
    double path = 0;  // mm, lamp to subject
    Losses losses;
    std::optional<double> share;             // of all light on the front
    double kelvin = 5600;                    // of its light, gel counted; of a card: of the light that is there
    std::optional<double> falloff;           // stops that the back of the subject gets less than its front
    std::optional<double> background;        // stops at the card before its reflectance; empty: none gets there
    std::optional<double> flicker;           // stops, largest difference between frames
    std::optional<MeteringReport> metering;  // of an automatic flash
    std::optional<double> whole_frames;      // of the stack, before its store is too low; empty: all of them
    light::Calibrated calibration;           // of the unit
    light::Calibrated modifier_calibration;
};

/// What makes all light that stays on disappear: each control alone.
struct BlackFrame {
    double over = 0;                // stops above the limit; negative: black already
    std::optional<double> shutter;  // s; empty: it would pass sync
    double f_number = 0;            // marked
    double iso = 0;
};
inline constexpr double black_frame_limit = -5;  // stops (common practice)

/// The picture's tones as patches of mid grey would show them, stops; empty: no light.
struct Tones {
    std::optional<double> lit;     // a face turned half towards a light, that which makes the two differ most
    std::optional<double> shadow;  // and one turned as much away from it
    std::optional<double> rim;     // the edge that a light from beside or behind draws
    double key_azimuth = 0;        // degrees, where the key is
    double key_elevation = 0;
};

/// Whether what stays on is enough to focus by, wide open. Stops more than is needed; empty: nothing stays on.
struct FocusingLight {
    std::optional<double> by_eye;
    std::optional<double> by_autofocus;  // empty also: not at that working aperture
    double working_f_number = 0;         // wide open
    bool autofocus_stops_down = false;   // its working f-number, wide open, is beyond what the camera's needs
};

struct LightReport {
    std::optional<double> ambient;        // at the subject
    std::optional<double> ambient_front;  // what lens and hood leave of it
    /// What of it comes through the subject, as if that were as bright by reflecting: the sun from behind, what is all
    /// round. Empty: none.
    std::optional<double> ambient_through;
    std::vector<SourceReport> sources;
    std::optional<double> total;        // what meters turned to the sources read, together
    std::optional<double> front_total;  // what the picture shows of it: front and through. Exposure goes by this
    std::optional<double> through;      // of that, what comes through the subject
    std::optional<double> highlight;    // of the subject's brightest part, 0 = mid grey
    double highlight_room = 0;          // stops from there to where the file clips; negative: clipped. With a highlight
    Tones tones;
    FocusingLight focusing;
    double white = 5600;  // kelvin that the camera is set to, or the strongest light's
    std::optional<double> ambient_kelvin;
    std::optional<double> background_own;  // of the background's own light
    std::optional<double> background;
    std::optional<light::BackgroundLook> background_look;
    std::optional<double> continuous;         // ambient, lamps and cards, on the front
    std::optional<double> flash;              // all flashes, on the front
    std::optional<std::size_t> key;           // the strongest source on the front
    std::optional<double> key_to_fill;        // stops between it and all the others together, on the front
    std::optional<double> nearest;            // all light at the subject's nearest point
    std::optional<double> farthest;           // and at its farthest
    std::optional<double> shutter_room;       // stops the shutter can be shortened before sync; empty: no flash
    std::optional<BlackFrame> black_frame;    // empty: nothing stays on
    std::optional<MeteringReport> automatic;  // exposure by what is there, where no flash fires
    std::optional<double> automatic_shutter;  // s, that it sets when compensated as advised
    std::optional<double> recycling_iso;      // with which automatic flashes keep up with the frames; empty: they do
};

/// A mark of light on a round polished subject: mm from its centre, to the camera's right and up.
struct HighlightMark {
    double x = 0;
    double y = 0;
    double width = 0;  // mm
};

/// What a polished subject shows of one source.
struct ReflectionReport {
    double mirrored = 0;               // share of the face that shows it, 0 to 1
    std::optional<double> filling;     // mm, diameter in its place that fills the whole face; empty: none would
    std::vector<HighlightMark> marks;  // on a round subject, one a tube
};

/// A falling or flying subject frozen by flash.
struct FreezeRow {
    double power = 1;
    double t05 = 0;
    double t01 = 0;
    double blur = 0;                 // mm at the sensor
    std::optional<double> f_number;  // marked, that this power gives the same exposure with
    double iso = 100;                // or this ISO
};
/// On the way of what falls or is thrown; lengths from where it leaves, x to the right, y up. mm, s.
struct TrajectoryReport {
    double top = 0;               // over where it leaves
    double top_after = 0;         // s
    double beam_after = 0;        // s until it breaks the beam; 0 without one
    double wanted_after = 0;      // s until the moment that is wanted
    double lit_after = 0;         // s until the light comes, as it is set
    double x = 0, y = 0;          // of the place, where the middle of the frame is
    double off_x = 0, off_y = 0;  // of it from there as the light comes
    double headroom = 0;          // from its upper edge then to the frame's; negative: it is cut
    double freezes = 0;           // share of its way through the frame on which the flash holds it to the wanted blur
    double inside = 1;            // of its pieces, how many are in the frame and in focus, on an average
    double catcher_x = 0;         // of the middle of what catches it, under the frame
    double catcher_width = 0;     // that nineteen of twenty come down on
    double catcher_depth = 0;
};
struct FreezeReport {
    double speed = 0;                                   // mm/s
    std::optional<std::size_t> light;                   // the flash it is worked out for, the slowest of them
    std::vector<FreezeRow> rows;                        // its settings from full power down
    double slowest = 0;                                 // s, t0.1 that still freezes to the wanted blur
    std::optional<std::size_t> brightest_that_freezes;  // of rows
    double blur = 0;                                    // mm at the sensor, as planned
    std::optional<double> delay;           // s from trigger to signal; negative: set the beam higher; empty: by hand
    double least_beam = 0;                 // mm above the place; of a throw, over the hand, the latest on its way
    std::optional<TrajectoryReport> path;  // empty: it never gets to the place, or has no frame
    std::optional<double> second_after;    // s between the valve's openings
    std::optional<double> burst_time;      // s
    std::optional<double> burst_spacing;   // mm on the sensor between the last two images of a repeating flash
    std::optional<double> landing_inside;  // share of where it comes down that the depth of field holds
};

/// Hands turn the camera, so that a frame of focal length f is safe at 1/f s for a blur of 0.03 mm, and shift it, which
/// only shows close up. Both rates are common practice, not measurements.
struct HandShake {
    static constexpr double turning = 0.03;  // rad/s
    static constexpr double shifting = 2;    // mm/s
};
inline constexpr const char* hand_blur_formula = "(w * f * (1 + m) + v * m) * t";

/// Ambient this far below the total leaves the exposure to the flash (MODEL 2, motion).
inline constexpr double flash_makes_exposure = 4;  // stops

struct MotionReport {
    double blur = 0;           // steady movement
    double sway_blur = 0;      // swing, at worst
    double exposure_time = 0;  // s that count: the shutter's, or the flash's where it makes the exposure
    bool frozen_by_flash = false;
    std::optional<double>
        flash_time;          // s, of the longest flash; empty: none fires, or one lasts as long as the shutter
    double open_share = 1;   // 0 to 1: how far chance goes by the shutter's time; 0: by the flash's alone
    double hand_blur = 0;    // hand-held: by turning and shifting of the hands, see HandShake
    double sharp_share = 1;  // of frames that swing and hands let be sharp, both across
    double ghost_blur = 0;   // what light that stays on draws during the whole shutter time
    double ghost_share = 0;  // its share of the exposure; 0 where nothing moves or no flash fires
};

struct Report {
    std::string id;
    shoot::Extent extent;  // of the subject as it is turned towards the camera
    OpticsReport optics;
    SharpnessReport sharpness;
    CaptureReport capture;
    LightReport light;
    MotionReport motion;
    std::vector<ReflectionReport> reflections;  // one a light where the subject is polished, else none
    std::optional<FreezeReport> freeze;
    CameraPositionReport camera_position;  // of the camera
    std::vector<StagedReport> staging;     // one a thing besides the subject
    std::optional<ChanceReport> chance;    // empty: nothing is left to it
};

}  // namespace poquito::plan
