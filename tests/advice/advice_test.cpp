// Every rule is seen to fire where it should, to keep quiet where it should not, and its remedy to settle it.
#include "advice/advice.hpp"
#include "advice/rules/rules.hpp"
#include "advice/worth/trouble.hpp"
#include "plan/assess.hpp"
#include "plan/motion/freeze.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <set>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::advice;
using test::same;

namespace {

const Note* find_note(const Advice& advice, const std::string& code) {
    const auto found = std::ranges::find(advice.notes, code, &Note::code);
    return found == advice.notes.end() ? nullptr : &*found;
}

/// What makes the rule fire on plain_shoot, and whether one click can settle it.
struct RuleCase {
    const char* code;
    bool has_remedy;
    std::function<void(Shoot&, Shot&)> provoke;
};

void add_light(Shot& shot) { shot.lights.push_back(test::plain_light()); }

/// The camera on that stand, over a table so high; "tall" of the kit holds it anywhere.
std::function<void(Shoot&, Shot&)> stands_on(const char* stand, double table) {
    return [stand, table](Shoot& shoot, Shot& shot) {
        shoot.kit.stands = {{.id = "low", .name = "Low", .least = 100, .greatest = 500},
                            {.id = "short", .name = "Short", .least = 300, .greatest = 1200},
                            {.id = "wide", .name = "Wide", .least = 400, .greatest = 1600, .feet = 600},
                            {.id = "weak", .name = "Weak", .least = 400, .greatest = 1600, .carries = 0.3},
                            {.id = "boom", .name = "Boom", .least = 400, .greatest = 1600, .arm = 900, .carries = 5},
                            {.id = "tall", .name = "Tall", .least = 5, .greatest = 2500, .feet = 100, .carries = 9}};
        shoot.kit.cameras[0].weight = 700, shoot.kit.lenses[0].weight = 600;
        shot.rig.stand = stand;
        shot.table = shoot::Table{.height = table, .before = {}, .behind = {}, .unknown = {}};
    };
}

const std::vector<RuleCase>& cases() {
    static const std::vector<RuleCase> all = {
        {"lapse-too-quick", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].power = 1;
             shot.lapse = Lapse{.length = 3600, .interval = 2};
         }},
        {"lapse-out-of-focus", true,
         [](Shoot&, Shot& shot) { shot.lapse = Lapse{.length = 86400, .interval = 600, .growth_depth = 0.2}; }},
        {"lapse-jumps", true,
         [](Shoot&, Shot& shot) { shot.lapse = Lapse{.length = 86400, .interval = 1800, .growth = 2}; }},
        {"lapse-light-drifts", true,
         [](Shoot&, Shot& shot) { shot.lapse = Lapse{.length = 7200, .interval = 10, .drift = -0.5}; }},
        {"lapse-lamps-burn", true,
         [](Shoot&, Shot& shot) {
             shot.lights = {{.lamp = "panel", .position = {.distance = 500}, .power = 1}};
             shot.lapse = Lapse{.length = 86400, .interval = 600, .lamps_rest = false};
         }},
        {"lapse-needs-power", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.cameras[0].charge = 400;
             shot.lapse = Lapse{.length = 86400, .interval = 60};
         }},
        {"lapse-fills-card", true,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.cameras[0].card_space = 8000;
             shot.lapse = Lapse{.length = 86400, .interval = 60};
         }},
        {"magnification-out-of-reach", true, [](Shoot&, Shot& shot) { shot.rig.focus.value = 1.15; }},
        {"focus-inside-lens", true,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lenses[0].optics.length = 290;  // a rim in front of the plane of focus
             shoot.kit.lenses.push_back(test::plain_shoot().kit.lenses[0]);
             shoot.kit.lenses[1].id = "short";
             shot.rig.focus.value = 1;
         }},
        {"lens-close", true,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lenses[0].optics.length = 255;
             shoot.kit.lenses.push_back(test::plain_shoot().kit.lenses[0]);
             shoot.kit.lenses[1].id = "short";
             shot.rig.focus.value = 0.95;
         }},
        {"nearer-than-it-allows", false, [](Shoot&, Shot& shot) { shot.subject.nearest = 900; }},
        {"lens-shades-light", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].position = {.distance = 500, .azimuth = 2, .elevation = 3};
         }},
        {"subject-larger-than-frame", true, [](Shoot&, Shot& shot) { shot.subject.width = 60; }},
        {"subject-past-its-picture", true, [](Shoot&, Shot& shot) { shot.picture_shape = 0.5; }},
        {"closeup-lens-smaller", false, [](Shoot&, Shot& shot) { shot.rig.closeup_lenses = {"c3"}; }},
        {"step-ring-needed", false, [](Shoot&, Shot& shot) { shot.rig.closeup_lenses = {"c2"}; }},
        {"no-sharp-distance", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lenses[0].optics.focal_length = 200;
             shoot.kit.lenses[0].optics.closest_focus = 810;
             shot.rig.reversing_ring = "rev";
         }},
        {"scale-out-of-plane", true,
         [](Shoot&, Shot& shot) {
             shot.staging = {shoot::rule_of(10)};
             shot.staging[0].id = "rule", shot.staging[0].behind = 12;
         }},
        {"scale-cut", false,
         [](Shoot&, Shot& shot) {
             shot.staging = {shoot::rule_of(20)};
             shot.staging[0].id = "rule", shot.staging[0].right = 25;
         }},
        {"stand-too-high", true, stands_on("low", 40)},
        {"stand-too-low", true, stands_on("short", 1900)},
        {"legs-meet-table", true,
         [](Shoot& shoot, Shot& shot) {
             stands_on("wide", 700)(shoot, shot);
             shot.rig.inclination = 40;
             shot.table->before = 260;
         }},
        {"stand-overloaded", true, stands_on("weak", 700)},
        {"top-heavy", false, stands_on("boom", 700)},
        {"edge-through-subject", true,
         [](Shoot&, Shot& shot) {
             shot.rig.inclination = 5;
             shot.background.reset();
             shot.exposure.f_number = 22;
             shot.table = shoot::Table{.height = 700, .before = {}, .behind = 60, .unknown = {}};
         }},
        {"thread-missing", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lenses[0].filter_thread = 0;
             shot.rig.closeup_lenses = {"c2"};
         }},
        {"contacts-lost", false, [](Shoot&, Shot& shot) { shot.rig.tubes = {"plain"}; }},
        {"stop-cannot-be-set", true, [](Shoot&, Shot& shot) { shot.rig.tubes = {"plain"}; }},
        {"long-rig", true,
         [](Shoot&, Shot& shot) {
             shot.rig.support = Support::small_head;
             shot.rig.tubes = {"t20"};
         }},
        {"rig-length", false, [](Shoot&, Shot& shot) { shot.rig.tubes = {"t20"}; }},
        {"rail-too-short", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.rig.rail = "rail";
             shoot.kit.rails[0].travel = 0.5;
         }},
        {"rail-too-coarse", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.rig.rail = "rail";
             shoot.kit.rails[0].step = 1;
         }},
        {"lens-meets-subject", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 90;
             const auto report = assess(shoot.kit, shot, {});
             shoot.kit.lenses[0].optics.length += *report.capture.stack->rail()->clearance + 5;
         }},
        {"lens-comes-near", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 90;
             const auto report = assess(shoot.kit, shot, {});
             shoot.kit.lenses[0].optics.length += *report.capture.stack->rail()->clearance - 5;
         }},
        {"steps-unmeasured", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
             shoot.kit.cameras[0].bracket.step_settings = 10;
         }},
        {"steps-too-coarse", true,
         [](Shoot& shoot, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
             shoot.kit.cameras[0].bracket.step_settings = 10;
             shoot.kit.cameras[0].step_readings = {{.lens = "macro", .setting = 1, .ring_step = 0.2}};
         }},
        {"steps-of-other-stop", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
             shoot.kit.cameras[0].bracket.step_settings = 10;
             shoot.kit.cameras[0].step_readings = {{.lens = "macro", .setting = 1, .f_number = 4, .ring_step = 1e-4}};
         }},
        {"composite-too-many", true,
         [](Shoot& shoot, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .composite = true};
             shot.subject.depth = 5;
             shoot.kit.cameras[0].bracket.composite_max_frames = 3;
         }},
        {"too-many-by-hand", true,
         [](Shoot&, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::hand};
             shot.subject.depth = 20;
         }},
        {"slice-outside-subject", true,
         [](Shoot&, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.capture.slice = Slice{.from = 1, .to = 3};
         }},
        {"card-too-small", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shoot.kit.cameras[0].card_space = 40;
         }},
        {"camera-battery", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shoot.kit.cameras[0].charge = 1;
         }},
        {"buffer-fills", false,
         [](Shoot& shoot, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
             shot.subject.depth = 20;
             shoot.kit.cameras[0].buffer_frames = 3;
             shoot.kit.cameras[0].write_speed = 15;
         }},
        {"more-frames-than-help", true,
         [](Shoot&, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.capture.overlap = 0.9;
             shot.exposure.f_number = 16;
         }},
        {"tubes-keep-focal-length", false, [](Shoot&, Shot& shot) { shot.rig.tubes = {"t20"}; }},
        {"front-lens-corners", false, [](Shoot&, Shot& shot) { shot.rig.front_lens = FrontLens{.lens = "macro"}; }},
        {"measured-lens", false,
         [](Shoot& shoot, Shot&) { shoot.kit.lenses[0].calibrations = {{.ring = 1, .value = 1.02}}; }},
        {"infinity-lost", false, [](Shoot&, Shot& shot) { shot.rig.tubes = {"t20"}; }},
        {"working-aperture", false, [](Shoot&, Shot&) {}},
        {"diffraction-coarse", true, [](Shoot&, Shot& shot) { shot.exposure.f_number = 16; }},
        {"diffraction-over-limit", false, [](Shoot&, Shot& shot) { shot.exposure.f_number = 5.6; }},
        {"depth-less-than-subject", true, [](Shoot&, Shot& shot) { shot.subject.depth = 12; }},
        {"frames-above-bracket", true,
         [](Shoot& shoot, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.exposure.f_number = 2.8;
             shoot.kit.cameras[0].bracket.max_frames = 8;
         }},
        {"stop-not-on-lens", true, [](Shoot&, Shot& shot) { shot.exposure.f_number = 2; }},
        {"ring-cannot-step", true,
         [](Shoot&, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
             shot.rig.focus.value = 1;
         }},
        {"stack-of-moving-subject", true,
         [](Shoot&, Shot& shot) {
             shot.capture.mode = CaptureMode::stack;
             shot.subject.speed = 1;
         }},
        {"best-stop-outside-lens", false, [](Shoot&, Shot& shot) { shot.subject.depth = 60; }},
        {"contrast-nothing-to-keep", false,
         [](Shoot&, Shot& shot) {
             shot.capture = {.mode = CaptureMode::stack, .depth_rule = DepthRule::contrast};
             shot.exposure.f_number = 32;
         }},
        {"past-sync", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.exposure.shutter = 0.004;
         }},
        {"power-above-full", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].position.distance = 4000;
             shot.exposure.f_number = 16;
         }},
        {"power-below-least", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].position.distance = 100;
         }},
        {"exposure-off", true, [](Shoot&, Shot& shot) { shot.ambient = Ambient{.ev100 = 6}; }},
        {"ambient-not-negligible", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.ambient = Ambient{.ev100 = 8};
             shot.subject.speed = 10;
         }},
        {"motion-blur", true,
         [](Shoot&, Shot& shot) {
             shot.ambient = Ambient{.ev100 = 12};
             shot.subject.sway_amplitude = 0.3;
             shot.exposure.shutter = 0.02;
         }},
        {"needs-own-stops", true,
         [](Shoot&, Shot& shot) {
             shot.ambient = Ambient{.ev100 = 10};
             add_light(shot);
             shot.lights[0].position = {.distance = 400, .azimuth = 180, .elevation = 10};
             shot.lights[0].power.reset();
             shot.subject.depth = 0;
         }},
        {"rim-burns", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             add_light(shot);
             for (auto& light : shot.lights) light.power.reset();
             shot.lights[0].position = {.distance = 300, .azimuth = 150, .elevation = 0};
             shot.subject.depth = 10;
         }},
        {"front-dark", true,
         [](Shoot&, Shot& shot) {
             shot.ambient = Ambient{.ev100 = 2};
             add_light(shot);
             shot.lights[0].position = {.distance = 300, .azimuth = 150, .elevation = 20};
             shot.lights[0].power = 1.0 / 32;
             shot.exposure.shutter = 0.01;
         }},
        {"highlight-clips", true,
         [](Shoot&, Shot& shot) {
             shot.ambient = Ambient{.ev100 = 8};
             shot.exposure = {.f_number = 8, .shutter = 4, .iso = 100};
             shot.subject.reflectance = 0.8;
         }},
        {"background-glares", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.exposure.shutter = 1;
             shot.background = Background{.own_ev100 = 13};
         }},
        {"background-small", true,
         [](Shoot&, Shot& shot) {
             shot.subject.depth = 1;
             shot.background = Background{.distance = 400, .width = 60};
         }},
        {"colours-mix", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.ambient = Ambient{.ev100 = 8, .kelvin = 3000};
             shot.exposure.kelvin = 5600;
         }},
        {"light-drifts", false,
         [](Shoot&, Shot& shot) {
             shot.ambient = Ambient{.ev100 = 8, .drift = -20};
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 40;
         }},
        {"series-metered", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].power.reset();
             shot.lights[0].metered = 0;
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 20;
         }},
        {"too-dark-to-focus", false, [](Shoot&, Shot& shot) { add_light(shot); }},
        {"polariser-metal", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.filters = {{.id = "pol", .name = "Polariser 52", .thread = 52, .loss = 1.5, .polariser = true}};
             shot.rig.filters = {"pol"};
             shot.subject.traits = {"polished"};
         }},
        {"safety-dye", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"dye"}; }},
        {"safety-electronics", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"electronic", "liquid"}; }},
        {"safety-gel", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lamps = {{.id = "hot", .name = "Halogen lamp", .hot = true}};
             shot.lights = {{.lamp = "hot", .power = 1, .gel = -137}};
         }},
        {"safety-glare", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lamps = {{.id = "panel", .name = "Panel"}};
             shot.lights = {{.lamp = "panel", .position = {.distance = 400, .azimuth = 160}, .power = 1}};
         }},
        {"safety-night", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"outdoors"}; }},
        {"safety-cells", false,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shoot.kit.flashes[0].charge = 100;
             shot.subject.traits = {"outdoors"};
         }},
        {"recycle-slow", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].power = 0.5;
             shot.capture.mode = CaptureMode::stack;
         }},
        {"no-light", false, [](Shoot&, Shot&) {}},
        {"automatic-idle", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.ambient = Ambient{.ev100 = 14};
         }},
        {"duration-unknown", false,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shoot.kit.flashes[0].durations.clear();
         }},
        {"background-black", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.background = Background{.distance = 5000, .reflectance = 0.18};
         }},
        {"hand-shake", true,
         [](Shoot&, Shot& shot) {
             shot.rig.support = Support::hand;
             shot.ambient = Ambient{.ev100 = 10};
         }},
        {"flash-overheats", true,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shot.lights[0].power = 0.125;
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 40;
             shoot.kit.flashes[0].per_minute = 1;
         }},
        {"battery-short", false,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shot.lights[0].power = 1;
             shot.capture.mode = CaptureMode::stack;
             shoot.kit.flashes[0].charge = 2;
         }},
        {"frames-flicker", true,
         [](Shoot&, Shot& shot) {
             shot.lights = {{.lamp = "panel", .position = {.distance = 500}, .power = 1}};
             shot.exposure.shutter = 0.002;
         }},
        {"duration-table", false,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shoot.kit.flashes[0].durations.insert(shoot.kit.flashes[0].durations.begin(),
                                                   {.power = 0.5, .t05 = 0.00001});
         }},
        {"burst-cut-off", true,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.repeating = RepeatingFlash{.burst = {.flashes = 7, .frequency = 4}}};
         }},
        {"trigger-late", true, [](Shoot&, Shot& shot) { shot.freeze = Freeze{.beam_above = 5, .lag = 0.1}; }},
        {"throw-short", true,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.act = Act::thrown, .drop = -400, .speed = 1500, .angle = 60};
             shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
         }},
        {"out-of-frame", true,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.act = Act::thrown, .drop = -150, .speed = 2500, .angle = 70, .undelayed = true,
                                  .beam_rise = 20, .lag = 0.01};
             shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
         }},
        {"no-delay-serves", false,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.act = Act::thrown, .speed = 2000, .angle = 60, .moment = Moment::top,
                                  .undelayed = true, .beam_rise = 150, .lag = 0.01};
             shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
         }},
        {"no-headroom", true,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.act = Act::thrown, .speed = 2500, .angle = 70, .moment = Moment::top, .beam_rise = 20,
                                  .pieces = 9, .spread = 15, .lag = 0.01};
             shot.subject.speed = std::round(plan::speed_of(*shot.freeze));
         }},
        {"staged-hides", true,
         [](Shoot&, Shot& shot) {
             shot.staging = {{.id = "jar", .name = "Jar", .subject = {.width = 20, .height = 20, .depth = 2},
                              .right = 10, .behind = -5, .unknown = {}}};
         }},
        {"staged-cut", true,
         [](Shoot&, Shot& shot) {
             shot.staging = {{.id = "jar", .name = "Jar", .subject = {.width = 10, .height = 20, .depth = 2},
                              .right = 22, .behind = 2, .unknown = {}}};
         }},
        {"staged-draws-the-eye", true,
         [](Shoot&, Shot& shot) {
             shot.staging = {{.id = "card", .name = "Card",
                              .subject = {.width = 6, .height = 6, .depth = 1, .reflectance = 0.9},
                              .right = -15, .behind = 4, .unknown = {}}};
         }},
        {"camera-overhead", false,
         [](Shoot&, Shot& shot) {
             shot.rig.inclination = 90;
             shot.subject.traits = {"food"};
         }},
        {"camera-high", false,
         [](Shoot&, Shot& shot) {
             shot.rig.inclination = 90;
             shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = 0.05};
         }},
        {"lens-in-tank", true,
         [](Shoot&, Shot& shot) { shot.subject.tank = InTank{.tank = {.water = 600}}; }},
        {"in-tank", false, [](Shoot&, Shot& shot) { shot.subject.tank = InTank{}; }},
        {"held-changed", true,
         [](Shoot&, Shot& shot) {
             shot.held = shoot::settings_of(shot);
             shot.exposure.f_number *= 2;
         }},
        {"zone-not-held", true,
         [](Shoot&, Shot& shot) {
             shot.subject.depth = 12;
             shot.capture.slice = Slice{.from = 2, .to = 4};
             shot.exposure.f_number = 4;
             shot.sharpness.rule = BlurRule::diagonal;
         }},
        {"rest-not-soft", true,
         [](Shoot&, Shot& shot) {
             shot.subject.depth = 12;
             shot.capture.slice = Slice{.from = 2, .to = 2.1, .rest_blur = 0.02};
         }},
        {"shallow-as-wanted", false,
         [](Shoot&, Shot& shot) {
             shot.subject.depth = 12;
             shot.capture.slice = Slice{.from = 2, .to = 2.1};
         }},
        {"ground-not-as-wished", true,
         [](Shoot&, Shot& shot) {
             shot.wishes.ground = WantedGround::black;
             shot.background = Background{.distance = 1000, .reflectance = 0.5};
             shot.lights = {test::plain_light()};
             shot.lights[0].power.reset();
         }},
        {"ground-not-soft", true,
         [](Shoot&, Shot& shot) {
             shot.wishes.softness = 0.2;
             shot.background = Background{.distance = 30};
         }},
        {"lit-not-as-wished", false,
         [](Shoot&, Shot& shot) {
             shot.wishes.lit_by = WantedLight::flash;
             shot.lights.clear();
             shot.ambient = Ambient{.ev100 = 12};
         }},
        {"movement-not-drawn", true,
         [](Shoot&, Shot& shot) {
             shot.wishes.movement = WantedMovement::drawn;
             shot.rig.support = Support::sturdy_head;
             shot.subject.speed = 40;
             shot.lights.clear();
             shot.ambient = Ambient{.ev100 = 14};
             shot.exposure = {.f_number = 5.6, .shutter = 1.0 / 500, .iso = 400};
         }},
        {"contrast-not-as-wished", false,
         [](Shoot&, Shot& shot) {
             shot.wishes.contrast = WantedContrast::soft;
             shot.lights = {test::plain_light()};
             shot.lights[0].power.reset();
             shot.lights[0].position = {.distance = 500, .azimuth = 70, .elevation = 0};
         }},
        {"iso-over-limit", true,
         [](Shoot&, Shot& shot) {
             shot.limits = Limits{.iso = 800};
             shot.exposure.iso = 3200;
             shot.ambient = Ambient{.ev100 = 9};
         }},
        {"shutter-over-limit", true,
         [](Shoot&, Shot& shot) {
             shot.limits = Limits{.iso = 3200, .shutter_by_hand = 1.0 / 200};
             shot.rig.support = Support::hand;
             shot.sharpness = {.rule = BlurRule::stated, .stated = 0.5};
             shot.exposure = {.f_number = 8, .shutter = 1.0 / 60, .iso = 400};
             shot.ambient = Ambient{.ev100 = 11.4};
         }},
        {"stop-over-limit", true,
         [](Shoot&, Shot& shot) {
             shot.limits = Limits{.f_number = 16};
             shot.exposure.f_number = 22;
         }},
        {"frames-over-limit", false,
         [](Shoot&, Shot& shot) {
             shot.limits = Limits{.frames = 3};
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 20;
         }},
        {"minutes-over-limit", false,
         [](Shoot&, Shot& shot) {
             shot.limits = Limits{.minutes = 0.1};
             shot.capture.mode = CaptureMode::stack;
             shot.subject.depth = 20;
         }},
        {"freeze-speed", true, [](Shoot&, Shot& shot) { shot.freeze = Freeze{}; }},
        {"landing-out-of-focus", false, [](Shoot&, Shot& shot) { shot.freeze = Freeze{.scatter = 30}; }},
        {"reflection-bare", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.subject.traits = {"polished"};
         }},
        {"automatic-hides-stop", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].metered = 0;
         }},
        {"automatic-misses", true,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].metered = 0;
             shot.subject.reflectance = 0.9;
             shot.background = Background{.reflectance = 0.9};
         }},
        {"safety-hot-lamp", false,
         [](Shoot& shoot, Shot& shot) {
             shoot.kit.lamps[0].hot = true;
             shot.lights = {{.lamp = "panel", .position = {.distance = 500}, .power = 1}};
         }},
        {"safety-charge", false,
         [](Shoot& shoot, Shot& shot) {
             add_light(shot);
             shoot.kit.flashes[0].energy = 400;
         }},
        {"safety-laser", false, [](Shoot&, Shot& shot) { shot.freeze = Freeze{}; }},
        {"safety-flashing", false,
         [](Shoot&, Shot& shot) {
             shot.freeze = Freeze{.repeating = RepeatingFlash{.burst = {.flashes = 5, .frequency = 15}}};
         }},
        {"safety-person", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"person"}; }},
        {"safety-animal", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.subject.traits = {"living"};
         }},
        {"safety-liquid", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.subject.traits = {"liquid"};
         }},
        {"safety-food", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"food"}; }},
        {"safety-breakable", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"breakable"}; }},
        {"safety-outdoors", false, [](Shoot&, Shot& shot) { shot.subject.traits = {"outdoors"}; }},
        {"safety-stand", false,
         [](Shoot&, Shot& shot) {
             add_light(shot);
             shot.lights[0].modifier = "box";
             shot.lights[0].position.elevation = 70;
         }},
    };
    return all;
}

}  // namespace

TEST_CASE("a flash that starves is given less power first, then a slower pace", "[advice][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = CaptureMode::stack;
    shot.capture.mover = Mover::ring;
    shot.capture.overlap = 0.97;
    shot.capture.cadence = 0.1;
    shot.exposure.shutter = 1.0 / 200;
    shot.lights = {{.flash = "flash", .position = {.distance = 660}, .power = 1.0 / 16}};
    shoot.kit.flashes[0].recycle_full = 2.5;
    const auto note = [&]() -> std::optional<Note> {
        const auto advice = advise(shoot.kit, shot, {});
        const auto found = std::ranges::find(advice.notes, "recycle-slow", &Note::code);
        return found == advice.notes.end() ? std::nullopt : std::optional(*found);
    };
    REQUIRE(note());
    CHECK(note()->text.find("first 42 frames") != std::string::npos);
    const auto taken = *note()->remedy;
    CHECK(taken.shot.exposure.iso > shot.exposure.iso);
    // The same light, from less power: all frames are whole then.
    const auto before = assess(shoot.kit, shot, {}), after = assess(shoot.kit, taken.shot, {});
    CHECK_THAT(*after.light.front_total, Catch::Matchers::WithinAbs(*before.light.front_total, 1e-9));
    CHECK_FALSE(after.light.sources[0].whole_frames);
    // Where ISO may not rise, the pace goes.
    shot.limits = Limits{.iso = shot.exposure.iso};
    REQUIRE(note());
    const auto slower = *note()->remedy;
    CHECK(slower.shot.exposure == shot.exposure);
    CHECK(slower.shot.capture.interval.value() > 0.1);
    CHECK_FALSE(assess(shoot.kit, slower.shot, {}).light.sources[0].whole_frames);
    // An interval that was set is the person's own: whichever gives more, all frames are whole then.
    shot.limits.reset();
    shot.capture.cadence.reset();
    shot.capture.interval = 0.1;
    REQUIRE(note());
    CHECK_FALSE(assess(shoot.kit, note()->remedy->shot, {}).light.sources[0].whole_frames);
    // A tenth as many frames, and nothing is said.
    shot.capture.overlap = 0.25;
    CHECK_FALSE(note());
}

TEST_CASE("each rule fires when it is provoked, and its remedy settles it", "[shoot][advice]") {
    for (const auto& rule : cases()) {
        INFO(rule.code);
        auto shoot = test::plain_shoot();
        rule.provoke(shoot, shoot.shots[0]);
        const auto advice = advise(shoot.kit, shoot.shots[0], {});
        const Note* note = find_note(advice, rule.code);
        REQUIRE(note);
        CHECK_FALSE(note->text.empty());
        CHECK(note->text.back() == '.');
        CHECK((note->remedy != nullptr) == rule.has_remedy);
        if (!note->remedy) continue;
        CHECK_FALSE(note->remedy->label.empty());
        CHECK(note->remedy->shot != shoot.shots[0]);
        const auto after = advise(shoot.kit, note->remedy->shot, {});
        // Gone, or less: a move that is worth taking need not be all of it.
        if (find_note(after, rule.code)) CHECK(note->remedy->gain >= worth_offering);
    }
}

TEST_CASE("a stack that is too long is stopped down as far as two discs of what counts as sharp", "[shoot][advice]") {
    int offered = 0, not_offered = 0;
    for (int most = 2; most <= 40; ++most) {
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.capture.mode = CaptureMode::stack;
        shot.exposure.f_number = 2.8;
        shot.subject.depth = 12;
        shoot.kit.cameras[0].bracket.max_frames = most;
        const auto advice = advise(shoot.kit, shot, {});
        const Note* note = find_note(advice, "frames-above-bracket");
        REQUIRE(note);
        std::vector<const Remedy*> ways;
        if (note->remedy) ways.push_back(note->remedy.get());
        for (const auto& other : note->others) ways.push_back(other.get());
        const auto down =
            std::ranges::find_if(ways, [](const Remedy* way) { return way->label.starts_with("Stop down to"); });
        if (down == ways.end()) {
            ++not_offered;
            continue;
        }
        ++offered;
        const auto then = assess(shoot.kit, (*down)->shot, {});
        INFO(most << " " << (*down)->label);
        CHECK(then.capture.frames <= most);
        CHECK(then.sharpness.airy_diameter <= 2.001 * then.sharpness.blur_limit);
    }
    CHECK(offered > 0);
    CHECK(not_offered > 0);
}

TEST_CASE("a stack that is offered takes as many frames as it says", "[shoot][advice]") {
    int offered = 0;
    for (const double depth : {20.0, 40.0, 80.0})
        for (const double stop : {4.0, 8.0, 16.0}) {
            auto shoot = test::plain_shoot();
            auto& shot = shoot.shots[0];
            shot.subject.depth = depth;
            shot.exposure.f_number = stop;
            shot.capture.mover = Mover::ring;  // which takes more of them than the rule's steps come to
            shot.rig.focus.value = 0.25;
            const auto advice = advise(shoot.kit, shot, {});
            for (const Note& note : advice.notes) {
                auto ways = note.others;
                if (note.remedy) ways.push_back(note.remedy);
                for (const auto& way : ways) {
                    if (!way->label.starts_with("Stack of ")) continue;
                    ++offered;
                    const auto taken = assess(shoot.kit, way->shot, {}).capture.frames;
                    CHECK(way->label == fmt::format("Stack of {}", text::number_text(taken, 6)));
                    CHECK(plan::stack_frames_at(plan::plan_of(shoot.kit, shot, {}), stop) == taken);
                }
            }
        }
    CHECK(offered > 3);
}

TEST_CASE("every rule of the table is provoked above", "[shoot][advice]") {
    std::set<std::string> provoked;
    for (const auto& rule : cases()) provoked.insert(rule.code);
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            INFO(rule.code);
            CHECK(provoked.erase(rule.code) == 1);
        }
    CHECK(provoked.empty());
}

TEST_CASE("a sound plan is left in peace", "[shoot][advice]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 0.5;
    shot.exposure.f_number = 5.6;
    shot.lights = {test::plain_light()};
    shot.ambient = Ambient{.ev100 = 3};
    shot.exposure.shutter = 0.01;
    const auto advice = advise(shoot.kit, shot, {});
    for (const auto& note : advice.notes) {
        INFO(note.code << ": " << note.text);
        CHECK(note.level == Level::info);
    }
}

TEST_CASE("gear that reaches a magnification is found in the kit, fewest pieces first", "[shoot][advice]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].rig.focus.value = 1.15;
    const auto advice = advise(shoot.kit, shoot.shots[0], {});
    const Note* note = find_note(advice, "magnification-out-of-reach");
    REQUIRE(note);
    CHECK(note->text.find("Tube 20 mm") != std::string::npos);
    CHECK_THAT(assess(shoot.kit, note->remedy->shot, {}).optics.magnification, same(1.15));
    shoot.shots[0].rig.focus.value = 30;
    const auto hopeless = advise(shoot.kit, shoot.shots[0], {});
    CHECK(find_note(hopeless, "magnification-out-of-reach")->remedy == nullptr);
}

TEST_CASE("notes come worst first", "[shoot][advice]") {
    auto shoot = test::plain_shoot();
    shoot.shots[0].rig.focus.value = 30;
    const auto advice = advise(shoot.kit, shoot.shots[0], {});
    REQUIRE(advice.notes.size() > 2);
    CHECK(advice.notes.front().level == Level::stop);
    CHECK(std::ranges::is_sorted(advice.notes, std::ranges::greater(), &Note::level));
}

TEST_CASE("stations stand as the notes, the checklist and the proof leave them", "[shoot][stations]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.depth = 0.1;
    const auto at_station = [&](Station station) { return status_of(assessment_of(shoot.kit, shot, {}), station); };
    CHECK(at_station(Station::reach) == Status::settled);
    CHECK(at_station(Station::light) == Status::open);
    CHECK(at_station(Station::run) == Status::open);
    CHECK(at_station(Station::proof) == Status::open);
    shot.subject.depth = 12;  // far more than one frame holds
    CHECK(at_station(Station::depth) == Status::doubtful);
    for (const auto& item : advise(shoot.kit, shot, {}).checklist) shot.checked.push_back(item.id);
    CHECK(at_station(Station::run) == Status::settled);
    shot.proof = {{.verdict = Verdict::redo}};
    CHECK(at_station(Station::proof) == Status::doubtful);
    shot.proof.push_back({.verdict = Verdict::keep});
    CHECK(at_station(Station::proof) == Status::settled);
    shot.subject.traits = {"food"};
    CHECK(at_station(Station::run) == Status::settled);  // a safety caution is no doubt about the plan
    // A plan stands as the worst of its stations: doubt before what is open, wherever either lies.
    for (const double depth : {0.1, 12.0})
        for (const bool lit : {false, true})
            for (const bool kept : {false, true}) {
                shot.subject.depth = depth;
                shot.ambient = lit ? std::optional(Ambient{.ev100 = 8}) : std::nullopt;
                shot.proof.clear();
                if (kept) shot.proof = {{.verdict = Verdict::keep}};
                const auto assessed = assessment_of(shoot.kit, shot, {});
                std::vector<Status> each;
                for (const auto station : stations) each.push_back(status_of(assessed, station));
                const auto has = [&](Status wanted) { return std::ranges::find(each, wanted) != each.end(); };
                const auto whole = status_of(assessed);
                CHECK(whole == (has(Status::doubtful) ? Status::doubtful
                                : has(Status::open)   ? Status::open
                                                      : Status::settled));
            }
    shot.subject.depth = 12, shot.ambient.reset();
    CHECK(status_of(assessment_of(shoot.kit, shot, {})) == Status::doubtful);  // depth; light is open
}

TEST_CASE("a backdrop whose edge shows is brought to where it fills the frame with a margin", "[advice][background]") {
    for (const bool low : {false, true}) {
        INFO("low: " << low);
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.background = Background{.distance = 400, .reflectance = 0.18};
        const auto behind = [&](const Shot& one) {
            const auto& optics = plan::assess(shoot.kit, one, {}).optics;
            return low ? *optics.field_behind_height : *optics.field_behind_width;
        };
        // Wide or high enough for three quarters of the way.
        auto nearer = shot;
        nearer.background->distance = 300;
        const double size = behind(nearer) * 1.1;
        (low ? shot.background->height : shot.background->width) = size;
        const auto advice = advise(shoot.kit, shot, {});
        const auto note = std::ranges::find(advice.notes, "background-small", &Note::code);
        REQUIRE(note != advice.notes.end());
        REQUIRE(note->remedy);
        const auto& then = *note->remedy->shot.background;
        CHECK_THAT(then.distance, test::WithinAbs(300, 1));  // whole millimetres
        CHECK(behind(note->remedy->shot) * 1.1 <= size * (1 + 1e-9));
    }
}

TEST_CASE("what hides the subject goes to the side that it stands on already", "[advice][staging]") {
    for (const double side : {-1.0, 1.0}) {
        INFO(side);
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.staging = {{.id = "jar",
                         .name = "Jar",
                         .subject = {.width = 20, .height = 20, .depth = 2},
                         .right = 10 * side,
                         .behind = -5,
                         .unknown = {}}};
        const auto notes = advise(shoot.kit, shot, {}).notes;
        const auto note = std::ranges::find(notes, std::string("staged-hides"), &Note::code);
        REQUIRE(note != notes.end());
        REQUIRE(note->remedy);
        CHECK(note->remedy->shot.staging[0].right * side > 15);
        CHECK(note->remedy->label.ends_with(side < 0 ? "left" : "right"));
    }
}

TEST_CASE("a subject past its picture is told in the picture's own millimetres", "[advice][reach]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.picture_shape = 0.5;
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    const auto notes = advise(plan, report).notes;
    const auto note = std::ranges::find(notes, std::string("subject-past-its-picture"), &Note::code);
    REQUIRE(note != notes.end());
    // Half as wide as it is high.
    const double high = *report.optics.field_height;
    CHECK(note->text.find(fmt::format("holds {} \u00d7 {} mm", text::number_text(high / 2), text::number_text(high))) !=
          std::string::npos);
}
