#pragma once

#include "light/correction.hpp"
#include "light/duration.hpp"
#include "light/power.hpp"
#include "optics/blur_limit.hpp"
#include "optics/train.hpp"

#include <optional>
#include <string>
#include <vector>

/// The gear a shoot can choose from. Lengths in mm, times in s. `unknown` in each record holds the members of the file
/// that this version does not know, as JSON text, to be given back on save; empty where there are none.
namespace poquito::gear {

/// Which f-number the camera shows when the lens is extended.
enum class ApertureDisplay { marked, working };

/// Where the camera's own focus bracketing begins.
enum class BracketStart { nearest, centre };

struct Bracket {
    int max_frames = 1;
    int composite_max_frames = 0;                         // frames its own composite takes; 0: it makes none
    BracketStart start = BracketStart::nearest;           // a plain bracket goes from its focus away
    BracketStart composite_start = BracketStart::centre;  // a composite lies about it (common practice)
    std::optional<double> cadence;                        // s from frame to frame; empty: not known
    double combine = 0;                                   // s that it combines after a composite, and takes nothing
    int step_settings = 0;  // its steps go from 1, narrow, to this, wide; 0: it offers no such scale
    std::string unknown;

    bool operator==(const Bracket&) const = default;
};

/// A part of the sensor, or all of it read out coarser: what a camera calls crop, video or small-picture modes.
struct CropMode {
    std::string name;  // distinct within the camera
    optics::Sensor sensor;

    bool operator==(const CropMode&) const = default;
};

/// How far focus went in a bracket of this camera with one lens, setting and stop: what a photographed rule showed.
struct StepReading {
    std::string lens;          // id
    double setting = 1;        // on the camera's scale of steps
    double f_number = 8;       // marked
    double magnification = 1;  // of the whole train
    double frames = 2;         // in the bracket
    double travel = 1;         // mm at the subject from the first frame's plane to the last one's
    double ring_step = 0;      // share of the ring's travel that one step takes, by the train it was measured on
    std::string time;          // local time, ISO 8601

    bool operator==(const StepReading&) const = default;
};

struct Camera {
    std::string id;
    std::string name;
    optics::Sensor sensor;
    double flange = 44;       // mount face to sensor
    double sync = 1.0 / 200;  // s, fastest shutter for flash
    ApertureDisplay aperture_display = ApertureDisplay::marked;
    double frame_mb = 30;  // data of one frame, megabytes
    Bracket bracket;
    std::optional<double> buffer_frames;  // that it takes at full pace; empty: never fills
    std::optional<double> write_speed;    // MB/s, of camera and card together; empty: not known
    std::optional<double> card_space;     // MB free on the card; empty: not known
    std::optional<double> charge;         // frames that its battery lasts; empty: not known
    // What there must be to focus, in EV at ISO 100 with an f/2.8 lens wide open (common practice).
    double eye_ev = 3;               // by eye, on screen or in the finder
    double autofocus_ev = -2;        // by its autofocus ...
    double autofocus_f_number = 11;  // ... up to this working f-number, wide open
    std::optional<double> iso_max;   // highest whose noise its owner bears, whatever the purpose; empty: none
    std::optional<double> weight;    // g; empty: not known
    std::vector<CropMode> crop_modes;
    std::vector<StepReading> step_readings;
    std::vector<light::Correction> metered_corrections;  // of its automatic exposure, against the averaging meter
    std::string unknown;

    bool operator==(const Camera&) const = default;
};

/// A zoom at one of its focal lengths; what the record does not give per focal length it gives once.
struct ZoomSetting {
    double focal_length = 18;
    double max_aperture = 3.5;
    double closest_focus = 450;
    double max_magnification = 0.1;
    double length = 80;

    bool operator==(const ZoomSetting&) const = default;
};

/// What was measured of a lens, and what the record said before: kept so that a measurement can be taken back.
enum class Measured { magnification, displayed_aperture, sharp_distances };
struct Calibration {
    Measured what = Measured::magnification;
    double ring = 1;
    double value = 0;                       // magnification; working f-number at closest focus; closest focus, mm
    double uncertainty = 0;                 // of the value, one standard deviation
    std::optional<double> believed;         // the value without this measurement; empty: the record had none
    std::optional<double> second_value;     // sharp distances: the hiatus or the focal length that follows, mm
    std::optional<double> second_believed;  // and what the record said of it
    std::optional<double> focal_length;     // of a zoom when it was measured
    std::string time;                       // local time, ISO 8601

    bool operator==(const Calibration&) const = default;
};

struct Lens {
    std::string id;
    std::string name;
    optics::Lens optics;  // without readings: those are among the calibrations
    double filter_thread = 52;
    std::optional<double> hood_length;  // mm that its hood stands before the front rim
    bool contacts = true;               // carries the signals of autofocus, aperture and EXIF
    bool autofocus = true;
    bool aperture_ring = false;  // the stop can be set on the lens itself
    std::optional<double>
        limiter;  // mm from the sensor, where its focus limiter parts near from far; empty: it has none
    std::optional<double> weight;   // g; empty: not known
    std::vector<ZoomSetting> zoom;  // by rising focal length, two or more; empty: one focal length
    std::vector<Calibration> calibrations;
    std::string unknown;

    bool operator==(const Lens&) const = default;
};

struct Tube {
    std::string id;
    std::string name;
    double length = 12;
    bool contacts = true;  // carries the signals of autofocus and aperture
    std::string unknown;

    bool operator==(const Tube&) const = default;
};

struct CloseupLens {
    std::string id;
    std::string name;
    double power_dpt = 2;  // dioptres, 1/m
    double thread = 52;
    bool achromat = false;  // of two elements or more
    std::string unknown;

    bool operator==(const CloseupLens&) const = default;
};

struct Teleconverter {
    std::string id;
    std::string name;
    optics::Converter optics;
    bool contacts = true;
    std::string unknown;

    bool operator==(const Teleconverter&) const = default;
};

/// A bellows or helicoid: extension that can be set.
struct Bellows {
    std::string id;
    std::string name;
    double least = 35;      // mm, racked in, mount face to mount face
    double greatest = 150;  // mm, racked out
    bool contacts = false;
    std::string unknown;

    bool operator==(const Bellows&) const = default;
};

/// Holds a lens by its filter thread, its mount towards the subject.
struct ReversingRing {
    std::string id;
    std::string name;
    double length = 5;  // thickness
    double thread = 52;
    bool contacts = false;
    std::string unknown;

    bool operator==(const ReversingRing&) const = default;
};

/// Holds a reversed lens on the front of another one.
struct CouplingRing {
    std::string id;
    std::string name;
    double length = 3;         // thickness between the rims
    double thread = 52;        // towards the lens on the camera
    double front_thread = 52;  // towards the reversed lens
    std::string unknown;

    bool operator==(const CouplingRing&) const = default;
};

struct StepRing {
    std::string id;
    std::string name;
    double from = 52;  // thread of what it is screwed to
    double to = 58;    // thread it offers
    std::string unknown;

    bool operator==(const StepRing&) const = default;
};

struct Rail {
    std::string id;
    std::string name;
    double travel = 150;
    double step = 0.01;                    // least step that can be set
    std::optional<double> pitch;           // mm a turn of its screw
    std::optional<double> steps_per_turn;  // of its motor; empty: turned by hand
    double backlash = 0;                   // mm lost when it turns round
    double speed = 2;                      // mm/s
    std::string unknown;

    bool operator==(const Rail&) const = default;
};

/// How many tubes a flash has, and how they stand.
enum class Heads { one, twin, ring };
/// How a unit states its power.
enum class PowerShown { fraction, stops, watt_seconds };

/// Which duration a unit's table or display states.
enum class DurationMeans { t05, t01, unknown };

/// Holds the camera: a tripod, a column, a boom on its foot.
struct Stand {
    std::string id;
    std::string name;
    double least = 400;             // mm, floor to the middle of the camera, as low as it goes
    double greatest = 1500;         // and as high
    double arm = 0;                 // mm that it holds the camera out past its own middle
    double feet = 450;              // mm from its middle to its feet, as they stand when it is fully open
    std::optional<double> carries;  // kg; empty: not known
    std::string unknown;

    bool operator==(const Stand&) const = default;
};

struct Flash {
    std::string id;
    std::string name;
    double guide_number = 20;  // metres at ISO 100, full power, all tubes together; as the record says
    light::PowerScale scale;
    light::Discharge discharge = light::Discharge::cut;
    std::vector<light::Duration> durations;
    DurationMeans durations_mean = DurationMeans::t05;
    double recycle_full = 2;             // s after full power
    double burst_store = 1;              // full-power flashes that it holds when its ready light comes on
    double kelvin = 5600;                // colour of its light (common practice)
    std::optional<double> front_thread;  // ring and twin lights: the thread they hang on; empty: stands on its own
    Heads heads = Heads::one;
    std::optional<double>
        spread;        // mm between the tubes of a twin, across the tube of a ring; empty: at the lens's rim
    double face = 40;  // mm, diameter of a bare tube's face
    std::optional<double> energy;  // watt-seconds at full power
    PowerShown power_shown = PowerShown::fraction;
    bool high_speed_sync = false;
    double high_speed_loss = 2;        // stops at sync speed (common practice)
    std::optional<double> charge;      // flashes of full power that its batteries hold; empty: fed from the mains
    std::optional<double> per_minute;  // flashes of full power it stands without overheating
    std::vector<light::Correction> corrections;          // what test frames taught, against guide_number
    std::vector<light::Correction> metered_corrections;  // and of automatic flash, against the averaging meter
    std::string unknown;

    bool operator==(const Flash&) const = default;
};

/// A light that stays on. Its strength is known by lux at a distance, or for screens by luminance.
struct Lamp {
    std::string id;
    std::string name;
    std::optional<double> lux = 1000;  // on its axis, bare, at full
    double lux_distance = 1000;        // mm, where
    std::optional<double> luminance;   // cd/m^2, of a screen that fills its face
    double face = 100;                 // mm, diameter
    light::PowerScale scale = {.least = 1};
    std::optional<double> flicker;  // Hz, of its light (twice the mains'); empty: steady
    double flicker_depth = 0.3;     // swing over the mean
    double kelvin = 5600;           // colour of its light
    bool hot = false;               // burns what touches it
    bool mains = true;
    std::vector<light::Correction> corrections;
    std::string unknown;

    bool operator==(const Lamp&) const = default;
};

struct Modifier {
    std::string id;
    std::string name;
    double loss = 1;                             // stops, as the record says
    double diameter = 150;                       // of the luminous face
    std::optional<double> grid;                  // degrees, the full angle where half of the light is left; empty: none
    double layer_loss = 1;                       // stops of a second layer of diffuser (common practice)
    std::vector<light::Correction> corrections;  // positive: it takes less than `loss`
    std::string unknown;

    bool operator==(const Modifier&) const = default;
};

/// Screws before the lens and takes light.
struct Filter {
    std::string id;
    std::string name;
    double thread = 52;
    double loss = 3;         // stops
    bool polariser = false;  // takes glare off lacquer, petals, water
    std::string unknown;

    bool operator==(const Filter&) const = default;
};

/// Sends light back, or lets it through softened: card, cloth, foil, panel.
struct Card {
    std::string id;
    std::string name;
    double diameter = 300;
    std::optional<double> reflectance;  // empty: sends none back
    std::optional<double> loss;         // stops that its cloth takes of light through it; empty: none gets through
    std::string unknown;

    bool operator==(const Card&) const = default;
};

/// A way of holding a camera as its owner does, measured by frames of a rule; see plan/sway_readings.hpp.
struct Hold {
    std::string id;
    std::string name;
    double shift = 2;    // mm/s across
    double turn = 0.03;  // rad/s
    double along = 2;    // mm to and fro, one standard deviation
    double frames = 0;   // it was measured by
    std::string unknown;

    bool operator==(const Hold&) const = default;
};

struct Kit {
    std::vector<Camera> cameras;
    std::vector<Lens> lenses;
    std::vector<Tube> tubes;
    std::vector<CloseupLens> closeup_lenses;
    std::vector<Teleconverter> teleconverters;
    std::vector<Bellows> bellows;
    std::vector<ReversingRing> reversing_rings;
    std::vector<CouplingRing> coupling_rings;
    std::vector<StepRing> step_rings;
    std::vector<Rail> rails;
    std::vector<Stand> stands;
    std::vector<Flash> flashes;
    std::vector<Lamp> lamps;
    std::vector<Modifier> modifiers;
    std::vector<Filter> filters;
    std::vector<Card> cards;
    std::vector<Hold> holds;
    std::string unknown;

    bool operator==(const Kit&) const = default;
};

/// The lens as optics takes it, a zoom set to `focal_length` (empty: to the record's own; outside the table: to its
/// nearer end), linear between the entries of the table, with its measured magnifications.
optics::Lens optics_of(const Lens& lens, std::optional<double> focal_length);

/// The focal length the zoom is set to; empty for a lens of one focal length.
std::optional<double> zoom_position(const Lens& lens, std::optional<double> focal_length);

/// How long a flash lasts at a power, s, from its table; empty outside it. Where it is not known which duration the
/// table states, it is taken as t0.5, so that the longer t0.1 counts. A record without a table is taken to last 1/1000
/// s (t0.1) at full power and in proportion below (common practice: MODEL 14).
struct FlashTime {
    double t05 = 0;
    double t01 = 0;
    bool assumed = false;
};
std::optional<FlashTime> flash_time(const Flash& flash, double power);

/// The piece with that id; null where the list has none.
template <typename Gear>
const Gear* find_gear(const std::vector<Gear>& list, const std::string& id) {
    for (const Gear& gear : list)
        if (gear.id == id) return &gear;
    return nullptr;
}

}  // namespace poquito::gear

// Written out once, in kit.cpp, not in every file that copies a kit.
extern template class std::vector<poquito::gear::CropMode>;
extern template class std::vector<poquito::gear::StepReading>;
extern template class std::vector<poquito::gear::ZoomSetting>;
extern template class std::vector<poquito::gear::Calibration>;
extern template class std::vector<poquito::gear::Camera>;
extern template class std::vector<poquito::gear::Lens>;
extern template class std::vector<poquito::gear::Tube>;
extern template class std::vector<poquito::gear::CloseupLens>;
extern template class std::vector<poquito::gear::Teleconverter>;
extern template class std::vector<poquito::gear::Bellows>;
extern template class std::vector<poquito::gear::ReversingRing>;
extern template class std::vector<poquito::gear::CouplingRing>;
extern template class std::vector<poquito::gear::StepRing>;
extern template class std::vector<poquito::gear::Rail>;
extern template class std::vector<poquito::gear::Stand>;
extern template class std::vector<poquito::gear::Flash>;
extern template class std::vector<poquito::gear::Lamp>;
extern template class std::vector<poquito::gear::Modifier>;
extern template class std::vector<poquito::gear::Filter>;
extern template class std::vector<poquito::gear::Card>;
extern template class std::vector<poquito::gear::Hold>;
