#pragma once

#include "light/background.hpp"
#include "optics/diffraction.hpp"
#include "optics/stack.hpp"
#include "shoot/colour.hpp"
#include "shoot/form.hpp"
#include "shoot/kit.hpp"

#include <optional>
#include <string>
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
    double tilt = 0;                      // degrees, the top away from the camera
    double turn = 0;                      // degrees, the right side away from the camera
    std::optional<Colour> colour;         // hue and strength; how bright it is, reflectance says
    std::optional<HeightMap> height_map;  // for Form::height_map
    std::vector<std::string> traits;      // what calls for care: see subject_traits()
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

    bool operator==(const BellowsSetting&) const = default;
};

/// A lens reversed on the front of the shot's lens.
struct FrontLens {
    std::string lens;
    std::optional<std::string> coupling_ring;  // empty: rim on rim, held by other means
    double ring = 0;
    double f_number = 2.8;               // marked, its own
    std::optional<double> focal_length;  // of a zoom

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

struct Exposure {
    double f_number = 8;  // marked
    double shutter = 1.0 / 125;
    double iso = 100;
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
enum class Mover { ring, rail };
struct Capture {
    CaptureMode mode = CaptureMode::single;
    DepthRule depth_rule = DepthRule::blur;
    double contrast_kept = 0.8;  // for DepthRule::contrast
    double overlap = 0.25;       // share of the frame depth
    double lead = 0;             // mm in front of the nearest point
    double tail = 0;             // mm behind the farthest point
    Mover mover = Mover::rail;
    std::optional<std::string> approach;  // what was decided on, an id of judgement.hpp
    std::optional<double> interval;       // s between two frames as set on camera or remote; empty: as fast as it goes
    std::string unknown;

    bool operator==(const Capture&) const = default;
};

struct Ambient {
    double ev100 = 8;
    std::string unknown;

    bool operator==(const Ambient&) const = default;
};

struct Light {
    std::string flash;
    std::optional<std::string> modifier;
    light::Position position;
    std::optional<double> power;  // fraction of full; empty: automatic
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
    std::optional<Colour> colour;  // hue and strength, as a subject's
    std::string unknown;

    bool operator==(const Background&) const = default;
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
    std::vector<std::string> checked;  // ids of ticked checklist items
    std::vector<ProofEntry> proof;     // oldest first
    std::string unknown;

    bool operator==(const Shot&) const = default;
};

struct Shoot {
    std::string title;
    Kit kit;
    std::vector<Shot> shots;
    std::string unknown;

    bool operator==(const Shoot&) const = default;
};

/// The gear of a shot, taken from the kit; what storage validated is there.
const Camera& camera_of(const Kit& kit, const Shot& shot);
const Lens& lens_of(const Kit& kit, const Shot& shot);
optics::Train train_of(const Kit& kit, const Rig& rig);
const optics::Sensor& sensor_of(const Kit& kit, const Rig& rig);  // in its crop mode
const Flash& flash_of(const Kit& kit, const Light& light);
const Modifier* modifier_of(const Kit& kit, const Light& light);  // null: bare

}  // namespace poquito::shoot
