#pragma once

#include "gear/kit.hpp"
#include "light/beam.hpp"
#include "light/fall.hpp"
#include "light/position.hpp"
#include "optics/diffraction.hpp"
#include "optics/stack.hpp"
#include "shoot/form.hpp"
#include "shoot/shared.hpp"
#include "text/colour.hpp"

#include <optional>
#include <string>
#include <utility>
#include <vector>

/// The document: a shoot with its kit and its shots. Plain values, validated by storage on the way in: every id a shot
/// names is in the kit. Lengths in mm, times in s, light in stops; `unknown` as in kit.hpp.
namespace poquito::shoot {

struct Subject {
    double width = 30;
    double height = 20;
    double depth = 5;
    double reflectance = 0.18;  // 0 to 1
    double speed = 0;           // mm/s across the frame
    double sway_amplitude = 0;  // mm, middle to extreme, of a swing in the wind or on a hand
    double sway_frequency = 1;  // Hz
    Form form = Form::ball;
    double tilt = 0;                              // degrees, the top away from the camera
    double turn = 0;                              // degrees, the right side away from the camera
    std::optional<text::Colour> colour;           // hue and strength; how bright it is, reflectance says
    std::optional<Shared<HeightMap>> height_map;  // for Form::height_map
    std::vector<std::string> traits;              // what calls for care: see subject_traits()
    std::string unknown;

    bool operator==(const Subject&) const = default;
};

struct Trait {
    const char* id;
    const char* name;
};
/// living, food, liquid, polished, outdoors, person, breakable.
const std::vector<Trait>& subject_traits();
bool has_trait(const Subject& subject, const std::string& id);

/// Focus is given one of two ways.
enum class FocusBy { ring, magnification };
struct Focus {
    FocusBy by = FocusBy::ring;
    double value = 0;  // ring position in [0, 1], or magnification of the whole train

    bool operator==(const Focus&) const = default;
};

struct BellowsSetting {
    std::string bellows;
    double extension = 35;  // mm, mount face to mount face
    std::string unknown;

    bool operator==(const BellowsSetting&) const = default;
};

/// A lens reversed on the front of the shot's lens.
struct FrontLens {
    std::string lens;
    std::optional<std::string> coupling_ring;  // empty: rim on rim, held by other means
    double ring = 0;
    double f_number = 2.8;               // marked, its own
    std::optional<double> focal_length;  // of a zoom
    std::string unknown;

    bool operator==(const FrontLens&) const = default;
};

/// What carries the rig; decides how much its length matters.
enum class Support { unstated, hand, small_head, sturdy_head };

/// Ids of kit. Pieces in mounting order, from the camera to the front.
struct Rig {
    std::string camera;
    std::optional<std::string> crop_mode;  // name of one of the camera's; empty: the whole sensor
    std::vector<std::string> tubes_behind_converter;
    std::optional<std::string> teleconverter;
    std::vector<std::string> tubes;
    std::optional<BellowsSetting> bellows;
    std::optional<std::string> reversing_ring;  // there: the lens is reversed
    std::string lens;
    std::optional<double> focal_length;  // of a zoom
    std::vector<std::string> closeup_lenses;
    std::optional<FrontLens> front_lens;
    std::optional<std::string> rail;
    Support support = Support::unstated;
    Focus focus;
    std::string unknown;

    bool operator==(const Rig&) const = default;
};

/// What corrects an exposure.
enum class Lever { power, distance, stop, iso };

struct Exposure {
    double f_number = 8;  // marked
    double shutter = 1.0 / 125;
    double iso = 100;
    bool high_speed_sync = false;  // of the flashes that have it, past sync
    Lever lever = Lever::power;    // what this photographer reaches for first when a frame is too bright or too dark
    std::string unknown;

    bool operator==(const Exposure&) const = default;
};

/// What counts as sharp.
enum class BlurRule { pixel, diagonal, output, stated };
enum class OutputKind { print, delivery };
struct Sharpness {
    BlurRule rule = BlurRule::pixel;
    double pixels = 2;             // for BlurRule::pixel
    std::optional<double> stated;  // for BlurRule::stated, mm at the sensor
    double wavelength = optics::default_wavelength;
    double focus_offset = 0;  // mm, plane of focus behind the middle of the subject's depth; negative: nearer
    OutputKind output = OutputKind::print;  // for BlurRule::output
    optics::Print print;
    optics::Delivery delivery;
    std::string unknown;

    bool operator==(const Sharpness&) const = default;
};

enum class CaptureMode { single, stack };
enum class DepthRule { blur, quarter_wave, contrast };
enum class Mover { ring, rail, hand };

/// The part of the depth that has to be sharp, mm behind the subject's nearest point; the rest may fall off on purpose.
struct Slice {
    double from = 0;
    double to = 1;  // not below `from`
    std::string unknown;

    bool operator==(const Slice&) const = default;
};

/// A stack by hand: bursts while the camera sways through focus.
struct HandHeld {
    double frames_per_second = 10;
    double burst = 1.5;  // s that one burst lasts
    double speed = 8;    // mm/s that the camera sways along its axis
    double range = 8;    // mm from one end of the sway to the other
    std::string unknown;

    bool operator==(const HandHeld&) const = default;
};

struct Capture {
    CaptureMode mode = CaptureMode::single;
    DepthRule depth_rule = DepthRule::blur;
    double contrast_kept = 0.8;  // for DepthRule::contrast
    double overlap = 0.25;       // share of the frame depth
    double lead = 0;             // mm in front of the nearest point
    double tail = 0;             // mm behind the farthest point
    Mover mover = Mover::rail;
    std::optional<Slice> slice;           // empty: the whole depth
    bool composite = false;               // the camera is to combine the frames itself
    std::optional<double> settle;         // s of rest after each move; empty: see default_settle
    HandHeld hand;                        // for Mover::hand
    std::optional<std::string> approach;  // what was decided on, an id of judgement.hpp
    std::optional<double> interval;       // s between two frames as set on camera or remote; empty: as fast as it goes
    std::string unknown;

    bool operator==(const Capture&) const = default;
};

/// Where the light that is there anyway comes from.
enum class AmbientKind { even, window, sky };
struct Ambient {
    double ev100 = 8;
    AmbientKind kind = AmbientKind::even;
    light::Position position{
        .distance = 1000, .azimuth = 0, .elevation = 30};  // of window or sun; its direction counts
    double size = 60;  // degrees that it is wide, seen from the subject: how soft it is
    std::string unknown;

    bool operator==(const Ambient&) const = default;
};

/// Light that goes by way of a card, a wall or a ceiling; `position` is then where that stands.
struct Bounce {
    double from_lamp = 500;    // mm, lamp to surface
    double reflectance = 0.8;  // 0 to 1
    double diameter = 300;     // mm, of the surface or of the patch of it that is lit
    std::string unknown;

    bool operator==(const Bounce&) const = default;
};

/// One source of the set: a flash or a lamp of the kit.
struct Light {
    std::string flash;                // empty: a lamp
    std::optional<std::string> lamp;  // empty: a flash
    std::optional<std::string> modifier;
    light::Position position;
    std::optional<double> power;  // fraction of full; empty: automatic, flashes only
    light::Aim aim;
    bool on_lens = false;              // hangs on the lens's front: distance and direction follow from it
    double ratio = 0;                  // of a twin: stops of the tube to the camera's right over the other
    bool second_layer = false;         // of the modifier's diffuser
    std::optional<Bounce> bounce;      // empty: straight at the subject
    std::optional<double> metered;     // of automatic flash by the camera's meter: its compensation, stops
    std::optional<std::string> group;  // "A", "B" or "C"; empty: a letter of its own
    std::string unknown;

    bool operator==(const Light&) const = default;
};

/// A plain card, or a place with detail and highlights.
enum class BackgroundKind { card, scene };
struct Background {
    double distance = 300;      // behind the subject's centre
    double reflectance = 0.18;  // 0 to 1
    double detail = 10;         // size of the detail one might recognise in it, mm
    BackgroundKind kind = BackgroundKind::card;
    std::optional<text::Colour> colour;  // hue and strength, as a subject's
    std::string unknown;

    bool operator==(const Background&) const = default;
};

/// Something that falls, flies or splashes, and what fires the light.
enum class Act { fall, thrown, splash };
enum class Trigger { beam, sound, hand };
struct TwoDrops {
    double rise = 0.06;  // s from the first drop's impact until its column stands as high as wanted
    double column = 20;  // mm, how high
    std::string unknown;

    bool operator==(const TwoDrops&) const = default;
};
struct RepeatingFlash {
    light::Burst burst;
    std::string unknown;

    bool operator==(const RepeatingFlash&) const = default;
};
struct Freeze {
    Act act = Act::fall;
    double drop = 300;       // mm that it falls to the wanted place, or from where it is thrown; negative: rises
    double speed = 2000;     // mm/s as it is thrown
    double wanted_blur = 2;  // pixels
    Trigger trigger = Trigger::beam;
    double beam_above = 60;          // mm over the wanted place
    double sound_distance = 200;     // mm from the sound to its trigger
    double lag = 0.06;               // s of trigger and camera together
    double scatter = 5;              // mm, nearer or farther than planned that it may come down
    std::optional<TwoDrops> second;  // a second drop that meets the first one's column
    std::optional<RepeatingFlash> repeating;
    std::string unknown;

    bool operator==(const Freeze&) const = default;
};

/// What was shot, and the judgement on it.
enum class Verdict { keep, redo };
struct ProofEntry {
    std::string time;  // local time, ISO 8601
    int frames = 1;
    double correction = 0;  // stops the next exposure should differ; positive: brighter
    Verdict verdict = Verdict::keep;
    std::string remark;
    std::string unknown;

    bool operator==(const ProofEntry&) const = default;
};

/// One frame as it was really exposed.
struct ExposedFrame {
    int index = 0;        // in the planned order, from 0
    std::string file;     // its name in the run's folder
    double plane = 0;     // mm behind the subject's nearest point where it was focused
    double f_number = 8;  // marked
    double shutter = 1.0 / 125;
    double iso = 100;
    double flash = 1;    // share of the flash light it should have had, the least of all flashes
    std::string time;    // local time, ISO 8601
    std::string remark;  // what was odd about it; empty: nothing
    std::string unknown;

    bool operator==(const ExposedFrame&) const = default;
};

/// What happened at the bench: an exact record, also of a run that broke off.
enum class RunEnd { complete, stopped, broken };
struct RunRecord {
    std::string id;      // of its journal
    std::string time;    // when it began, local time, ISO 8601
    std::string folder;  // where the frames lie
    int planned = 0;     // frames
    RunEnd end = RunEnd::complete;
    std::string remark;
    std::vector<ExposedFrame> frames;  // in the order they were taken
    std::string unknown;

    bool operator==(const RunRecord&) const = default;
};

/// When a shot may be taken. Times of day in s after midnight.
struct Timing {
    std::vector<std::string> after;    // ids of shots that have to be done before it
    std::optional<double> not_before;  // of its first frame
    std::optional<double> done_by;     // of its last frame
    std::optional<double> handling;    // s to place and dress this subject; empty: as the shoot says
    std::string unknown;

    bool operator==(const Timing&) const = default;
};

struct Shot {
    std::string id;
    std::string name;
    Subject subject;
    Rig rig;
    Exposure exposure;
    Sharpness sharpness;
    Capture capture;
    std::optional<Ambient> ambient;
    std::vector<Light> lights;
    std::optional<Background> background;
    std::optional<Freeze> freeze;
    std::vector<std::string> checked;     // ids of ticked checklist items
    std::vector<ProofEntry> proof;        // oldest first
    std::vector<Shared<RunRecord>> runs;  // oldest first
    Timing timing;
    std::string unknown;

    bool operator==(const Shot&) const = default;
};

/// Powers of the groups that are called up together: one for portrait distance, one for close.
struct PowerSet {
    std::string name;
    std::vector<std::pair<std::string, double>> powers;  // group and fraction of full, by rising group
    std::string unknown;

    bool operator==(const PowerSet&) const = default;
};

/// What each change from one shot to the next takes, s. Where this photographer's own times are not known these are
/// what a practised one takes (common practice).
struct ChangePrices {
    double camera = 180;
    double lens = 120;
    double tubes = 90;  // converter, close-up lens, bellows and rings too
    double light = 240;
    double background = 90;
    double subject = 120;  // to place and dress one
    std::string unknown;

    bool operator==(const ChangePrices&) const = default;
};

/// The day of the shoot, and the work on the frames that follows it.
struct Workday {
    double begin = 9 * 3600;  // s after midnight
    ChangePrices prices;
    double sorting = 2;          // s a frame, as this user measured it
    double combining = 5;        // s a frame of a stack
    bool waiting_counts = true;  // for the order of shots: idle time is no better than work
    std::string unknown;

    bool operator==(const Workday&) const = default;
};

struct Shoot {
    std::string title;
    gear::Kit kit;
    Workday workday;
    std::vector<PowerSet> power_sets;
    std::vector<Shot> shots;
    std::string unknown;

    bool operator==(const Shoot&) const = default;
};

/// The gear of a shot, taken from the kit; what storage validated is there.
const gear::Camera& camera_of(const gear::Kit& kit, const Shot& shot);
const gear::Lens& lens_of(const gear::Kit& kit, const Shot& shot);
optics::Train train_of(const gear::Kit& kit, const Rig& rig);
const optics::Sensor& sensor_of(const gear::Kit& kit, const Rig& rig);        // in its crop mode
const gear::Flash& flash_of(const gear::Kit& kit, const Light& light);        // of one that is a flash
const gear::Lamp& lamp_of(const gear::Kit& kit, const Light& light);          // of one that is a lamp
const gear::Modifier* modifier_of(const gear::Kit& kit, const Light& light);  // null: bare

}  // namespace poquito::shoot
