#include "practice/exercise.hpp"

#include "judges.hpp"
#include "plan/assess.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::practice {
namespace {

using shoot::Shot;

/// The lens that comes closest.
const gear::Lens& closest_lens(const gear::Kit& kit) {
    return *std::ranges::max_element(kit.lenses, {}, [](const auto& lens) { return lens.optics.max_magnification; });
}

/// By the light of a window, as a hand can lay it out anywhere: EV 8 from the left and above.
Shot plain(const gear::Kit& kit, const char* exercise, int number, const std::string& name, double magnification) {
    Shot shot;
    shot.id = fmt::format("practice-{}-{}", exercise, number);
    shot.name = name;
    shot.words = fmt::format("practice {}", exercise);
    const auto& lens = closest_lens(kit);
    shot.rig.camera = kit.cameras.front().id;
    shot.rig.lens = lens.id;
    shot.rig.support = shoot::Support::sturdy_head;
    shot.rig.focus = {.by = shoot::FocusBy::magnification,
                      .value = std::min(magnification, lens.optics.max_magnification)};
    shot.subject = {.width = 50, .height = 35, .depth = 1, .reflectance = 0.4};
    shot.subject.form = shoot::Form::slab;
    shot.subject.texture = shoot::Texture::print;
    constexpr double window = 8;
    shot.ambient = shoot::Ambient{.ev100 = window};
    shot.ambient->kind = shoot::AmbientKind::even;
    shot.background = shoot::Background{.distance = 400, .reflectance = 0.1};
    shot.exposure.iso = 400;
    return shot;
}

/// The time that the light that is there asks for at its stop.
void set_time(const gear::Kit& kit, Shot& shot) {
    const auto report = plan::assess(kit, shot, {});
    if (const auto stops = report.light.ambient_front)
        shot.exposure.shutter = text::nearest_shutter(shot.exposure.shutter * std::exp2(-*stops));
}

/// One flash by hand from the left and above, its power fixed so that the front is right; automatic where it is asked
/// for. Nothing where the kit has none.
void light_by_flash(const gear::Kit& kit, Shot& shot, double distance, bool automatic = false) {
    if (kit.flashes.empty()) return;
    shoot::Light light;
    light.flash = kit.flashes.front().id;
    light.position = {.distance = distance, .azimuth = -35, .elevation = 40};
    shot.lights = {light};
    shot.ambient.reset();
    shot.exposure.shutter = std::max(kit.cameras.front().sync, 1.0 / 125);
    shot.exposure.iso = 200;
    if (automatic) return;
    const auto report = plan::assess(kit, shot, {});
    shot.lights[0].power = report.light.sources.front().suggested_power.value_or(report.light.sources.front().power);
}

std::vector<Shot> shots_lean(const gear::Kit& kit) {
    std::vector<Shot> shots;
    for (const double stop : {4.0, 8.0, 16.0}) {
        auto shot = plain(kit, "lean", static_cast<int>(shots.size()) + 1,
                          fmt::format("Leaning rule, {}", text::f_number_text(stop)), 0.4);
        shot.subject = {.width = 30, .height = 60, .depth = 1, .reflectance = 0.5};
        shot.subject.form = shoot::Form::slab;
        shot.subject.texture = shoot::Texture::print;
        shot.subject.tilt = 45;
        shot.rig.orientation = shoot::Orientation::portrait;
        shot.exposure.f_number = stop;
        set_time(kit, shot);
        shots.push_back(std::move(shot));
    }
    return shots;
}

std::vector<Shot> shots_ladder(const gear::Kit& kit) {
    std::vector<Shot> shots;
    const double smallest = closest_lens(kit).optics.min_aperture;
    for (const double stop : {4.0, 5.6, 8.0, 11.0, 16.0, 22.0, 32.0}) {
        if (stop > smallest) break;
        auto shot = plain(kit, "ladder", static_cast<int>(shots.size()) + 1,
                          fmt::format("Banknote, {}", text::f_number_text(stop)), 1);
        shot.subject.width = 20, shot.subject.height = 14;
        shot.exposure.f_number = stop;
        set_time(kit, shot);
        shots.push_back(std::move(shot));
    }
    return shots;
}

std::vector<Shot> shots_closer(const gear::Kit& kit) {
    auto tubes = plain(kit, "closer", 1, "By tubes", 0.4), glass = plain(kit, "closer", 2, "By a close-up lens", 0.4);
    // The same size, each its own way, as far as the bag has them.
    if (!kit.tubes.empty()) tubes.rig.tubes = {kit.tubes.front().id};
    if (!kit.closeup_lenses.empty()) glass.rig.closeup_lenses = {kit.closeup_lenses.front().id};
    const auto at = plan::plan_of(kit, tubes, {}).at.magnification,
               other = plan::plan_of(kit, glass, {}).at.magnification;
    const double size = std::min(at, other);
    for (auto* shot : {&tubes, &glass}) {
        shot->rig.focus.value = size > 0 ? size : shot->rig.focus.value;
        shot->exposure.f_number = 8;
        set_time(kit, *shot);
    }
    return {tubes, glass};
}

std::vector<Shot> shots_steady(const gear::Kit& kit) {
    std::vector<Shot> shots;
    // What hands leave, braced so (common practice): shift in mm/s, turn in rad/s, to and fro in mm.
    const std::tuple<const char*, double, double, double> ways[] = {{"Standing, arms out", 4, 0.06, 2},
                                                                    {"Elbows to the ribs", 2.5, 0.035, 1.2},
                                                                    {"Leaning on a wall", 1.5, 0.02, 0.8},
                                                                    {"On a bag of rice", 0.3, 0.004, 0.1}};
    for (const auto& [name, shift, turn, along] : ways) {
        auto shot = plain(kit, "steady", static_cast<int>(shots.size()) + 1, name, 0.3);
        shot.rig.support = shoot::Support::hand;
        shot.exposure.f_number = 8, shot.exposure.iso = 800;
        shoot::own_tries(shot).hands = shoot::Hands{.shift = shift, .turn = turn, .along = along, .unknown = {}};
        set_time(kit, shot);
        shot.exposure.shutter = 1.0 / 125;
        if (shot.ambient) shot.ambient->ev100 = 10;
        shots.push_back(std::move(shot));
    }
    return shots;
}

std::vector<Shot> shots_automatic(const gear::Kit& kit) {
    std::vector<Shot> shots;
    for (const bool automatic : {true, false}) {
        auto shot = plain(kit, "automatic", automatic ? 1 : 2, automatic ? "Flash automatic" : "Flash fixed", 0.3);
        light_by_flash(kit, shot, 500, automatic);
        shots.push_back(std::move(shot));
    }
    return shots;
}

std::vector<Shot> shots_distance(const gear::Kit& kit) {
    std::vector<Shot> shots;
    auto far = plain(kit, "distance", 1, "Flash at 60 cm", 0.3);
    light_by_flash(kit, far, 600);
    // A stop under at 60 cm, so that at 30 it is a stop over and still on the scale.
    if (!far.lights.empty()) far.lights[0].power = *far.lights[0].power / 2;
    auto near = far;
    near.id = "practice-distance-2", near.name = "Flash at 30 cm";
    if (!near.lights.empty()) near.lights[0].position.distance = 300;
    return {far, near};
}

std::vector<Shot> shots_grounds(const gear::Kit& kit) {
    auto black = plain(kit, "grounds", 1, "Black ground", 0.3), white = plain(kit, "grounds", 2, "White ground", 0.3);
    for (auto* shot : {&black, &white}) {
        shot->subject = {.width = 30, .height = 30, .depth = 20, .reflectance = 0.2};
        shot->subject.form = shoot::Form::ball;
        shot->subject.texture = shoot::Texture::stone;
        light_by_flash(kit, *shot, 300);
    }
    black.background = shoot::Background{.distance = 1500, .reflectance = 0.04};
    // Paper right behind it, and the flash so strong that the paper is clean.
    white.background = shoot::Background{.distance = 40, .reflectance = 0.9};
    if (!white.lights.empty()) {
        white.lights[0].position = {.distance = 300, .azimuth = -20, .elevation = 60};
        const auto report = plan::assess(kit, white, {});
        constexpr double clean = 2.4;
        if (report.light.background)
            white.lights[0].power = *white.lights[0].power * std::exp2(clean - *report.light.background);
    }
    return {black, white};
}

std::vector<Shot> shots_spoon(const gear::Kit& kit) {
    std::vector<Shot> shots;
    for (const bool large : {false, true}) {
        auto shot = plain(kit, "spoon", large ? 2 : 1, large ? "Spoon, large source" : "Spoon, bare flash", 0.3);
        shot.subject = {.width = 40, .height = 30, .depth = 8, .reflectance = 0.6};
        shot.subject.form = shoot::Form::dome;
        shot.subject.traits = {"polished"};
        light_by_flash(kit, shot, 300);
        if (large && !shot.lights.empty() && !kit.modifiers.empty()) {
            const auto& modifier = *std::ranges::max_element(kit.modifiers, {}, &gear::Modifier::diameter);
            shot.lights[0].modifier = modifier.id;
            shot.lights[0].power.reset();
            const auto report = plan::assess(kit, shot, {});
            shot.lights[0].power = report.light.sources.front().power;
        }
        shots.push_back(std::move(shot));
    }
    return shots;
}

Shot toy_stack(const gear::Kit& kit, const char* exercise, int number, const char* name) {
    auto shot = plain(kit, exercise, number, name, 0.5);
    shot.subject = {.width = 36, .height = 28, .depth = 12, .reflectance = 0.35};
    shot.subject.form = shoot::Form::dome;
    shot.subject.texture = shoot::Texture::stone;
    shot.exposure.f_number = 5.6;
    shot.capture.mode = shoot::CaptureMode::stack;
    shot.capture.mover = kit.rails.empty() ? shoot::Mover::ring : shoot::Mover::rail;
    if (!kit.rails.empty()) shot.rig.rail = kit.rails.front().id;
    set_time(kit, shot);
    return shot;
}

/// What leans is what the steps are read from; the toy beside it is what they are for.
std::vector<Shot> shots_bracket(const gear::Kit& kit) {
    auto shot = toy_stack(kit, "bracket", 1, "Toy and rule");
    shot.subject = {.width = 16, .height = 30, .depth = 1, .reflectance = 0.5};
    shot.subject.form = shoot::Form::slab;
    shot.subject.texture = shoot::Texture::ticks;
    shot.subject.tilt = 45;
    shot.rig.focus.value = std::min(shot.rig.focus.value, 0.4);
    // Steps that a glance at the screen tells apart: some twenty of them.
    shot.exposure.f_number = 8;
    shot.capture.depth_rule = shoot::DepthRule::blur;
    shot.sharpness.rule = shoot::BlurRule::pixel;
    shot.sharpness.pixels = 4;
    shot.capture.mover = shoot::Mover::ring;
    shot.rig.rail.reset();
    shoot::Staged toy;
    toy.id = "toy", toy.name = "Toy";
    toy.subject = {.width = 16, .height = 16, .depth = 16, .reflectance = 0.35};
    toy.subject.form = shoot::Form::ball;
    toy.subject.texture = shoot::Texture::stone;
    toy.right = 18;
    shot.staging = {toy};
    set_time(kit, shot);
    return {shot};
}

std::vector<Shot> shots_grain(const gear::Kit& kit) {
    auto shot = plain(kit, "grain", 1, "Coffee bean, falling", 0.6);
    shot.subject = {.width = 11, .height = 8, .depth = 5, .reflectance = 0.3};
    shot.subject.form = shoot::Form::dome;
    shot.subject.texture = shoot::Texture::stone;
    shot.freeze = shoot::Freeze{.act = shoot::Act::fall, .drop = 300, .beam_above = 200, .scatter = 2};
    light_by_flash(kit, shot, 250);
    if (!shot.lights.empty()) {
        shot.lights[0].power = 1.0 / 32;
        const auto report = plan::assess(kit, shot, {});
        constexpr double least = 50, most = 3200;
        shot.exposure.iso = text::nearest_iso(
            std::clamp(shot.exposure.iso * std::exp2(-report.light.front_total.value_or(0)), least, most));
    }
    shot.background = shoot::Background{.distance = 800, .reflectance = 0.04};
    return {shot};
}

/// With steps as wide as the bench's own pixels, so that one sees them.
std::vector<Shot> shots_error(const gear::Kit& kit) {
    auto shot = toy_stack(kit, "error", 1, "Stack with an error");
    shot.sharpness.rule = shoot::BlurRule::pixel;
    shot.sharpness.pixels = 6;
    return {shot};
}

std::vector<Shot> shots_stack(const gear::Kit& kit) { return {toy_stack(kit, "stack", 1, "First stack")}; }

const std::vector<Exercise>& all() {
    static const std::vector<Exercise> made = {
        {"lean",
         "A leaning rule at three stops",
         1,
         10,
         "Depth of field stops being a word once you have seen it lie on a rule: how deep, and how much of it before "
         "the place you focused on.",
         {"A printed rule or a page of small print, leaning back by 45 degrees (a square of paper folded corner to "
          "corner has that angle), upright in the frame.",
          "Camera on a stand, focused by hand on the middle of the rule, fired by the self-timer.",
          "The same picture at f/4, f/8 and f/16, each with four times the time of the one before: equally bright."},
         {"blurred"},
         shots_lean,
         judge_lean},
        {"distance",
         "The light from 60 to 30 cm",
         1,
         5,
         "Half the distance is four times the light. Once you have seen it, you move the light by reckoning and not by "
         "guessing.",
         {"Anything with print on it, the flash on a stand 60 cm from it, its power set by hand.",
          "Take a frame. Put the flash at 30 cm, change nothing else, and take another.",
          "Measure from the flash's face to the subject, not to the camera."},
         {"light", "clipped"},
         shots_distance,
         judge_distance},
        {"steady",
         "Four ways to brace",
         1,
         10,
         "Close up every tremor is magnified with the subject. How many frames of eight are sharp tells which way of "
         "standing is yours.",
         {"Print on a wall at eye height, by a bright window, 1/125 s, the flash off.",
          "Eight frames each: arms out; elbows to the ribs; leaning on a wall; the lens on a bag of rice."},
         {"shaken", "chance"},
         shots_steady,
         judge_steady,
         8},
        {"automatic",
         "Flash automatic against fixed",
         1,
         10,
         "Automatic flash answers to what is in the frame; fixed flash repeats. Both are useful once you know by how "
         "much.",
         {"One thing; five frames by automatic flash, five by power set by hand. Nothing is moved.",
          "Among the automatic ones lay something white beside it, then something black, and see what that does."},
         {"light", "uneven"},
         shots_automatic,
         judge_automatic,
         5},
        {"ladder",
         "The ladder of stops",
         2,
         10,
         "A smaller stop holds more sharp, until all of it gets softer by diffraction. Where that begins at this size, "
         "with your lens, is a number to know.",
         {"A banknote or fine print, parallel to the sensor: if it leans, the ladder shows depth and not diffraction.",
          "Camera on a stand, close to life size; one frame at each full stop, each with twice the time of the one "
          "before."},
         {"blurred"},
         shots_ladder,
         judge_ladder},
        {"closer",
         "Tubes against a close-up lens",
         2,
         10,
         "Two ways to the same size: a tube takes light, a close-up lens puts more glass before yours. See what each "
         "does to the corners.",
         {"Print, parallel to the sensor, filling the frame.",
          "The lens with a tube; then without it and with the close-up lens, at the same size; f/8 both times."},
         {"blurred"},
         shots_closer,
         judge_closer},
        {"grounds",
         "Black ground and white ground, one flash",
         2,
         10,
         "A background comes out black or white by how much light reaches it, not by its colour alone.",
         {"One thing, one flash, a sheet of white paper and a dark room.",
          "Black: nothing behind the thing for a metre and a half. White: the paper right behind it, the flash from "
          "above on both."},
         {"background"},
         shots_grounds,
         judge_grounds},
        {"spoon",
         "The family of angles, with a spoon",
         2,
         10,
         "What is polished mirrors what stands where it looks: its family of angles. A spoon shows the size of your "
         "light better than any chart.",
         {"A clean spoon, lit by the bare flash: look at the point of light in it.",
          "Then by the largest light you have: a softbox, or a sheet of paper between the flash and the spoon."},
         {"clipped"},
         shots_spoon,
         judge_spoon},
        {"stack",
         "A first stack",
         2,
         15,
         "A stack is only as good as its worst gap. Take one that is whole before you take one that matters.",
         {"A toy or a stone, 1 to 2 cm deep, on a steady table; nobody walks.",
          "Everything by hand: stop, time, ISO, white. Begin before the nearest point, end behind the farthest."},
         {"gap", "end_open", "moved"},
         shots_stack,
         judge_stack},
        {"error",
         "A stack with an error in it",
         2,
         10,
         "What spoils a stack is hardly seen in one frame. Who has found it once finds it the next time before "
         "packing.",
         {"Try it on the bench: something happens on the way, and nobody says what.",
          "Flip through the frames with the arrow keys, to and fro; say what it was, at the first frame that shows "
          "it."},
         {"gap", "moved", "uneven"},
         shots_error,
         judge_error,
         1,
         true},
        {"bracket",
         "The camera's bracket, a toy and a rule",
         3,
         10,
         "The camera numbers the steps of its focus bracket and does not say how wide they are. A rule that leans "
         "tells "
         "it in millimetres.",
         {"A rule or a strip of fine print through the middle of the frame, leaning back by 45 degrees: a square of "
          "paper folded corner to corner has that angle. A toy beside it.",
          "The camera's focus bracket from the near end of the rule on, its step set to the middle of the scale (note "
          "the number), as many frames as the plan says."},
         {"gap", "steps"},
         shots_bracket,
         judge_bracket},
        {"grain",
         "A coffee bean, falling",
         3,
         15,
         "In a dark room the flash freezes what moves, not the shutter; on most units less power is a shorter flash.",
         {"Coffee beans, a dark room, a dark ground; the flash close by at a thirty-second of its power.",
          "Focus on a bean held where it will pass, then drop one from 30 cm and fire as it passes. Ten tries; keep "
          "the "
          "best. Cover the floor."},
         {"shaken", "chance"},
         shots_grain,
         judge_grain,
         6},
    };
    return made;
}

}  // namespace

std::span<const Exercise> exercises() { return all(); }

const Exercise* exercise_of(const Shot& shot) {
    for (const auto& exercise : all())
        if (shot.id.starts_with(fmt::format("practice-{}-", exercise.id))) return &exercise;
    return nullptr;
}

const Exercise* next_exercise(const std::vector<std::pair<std::string, int>>& causes,
                              const std::vector<std::string>& passed) {
    const Exercise* best = nullptr;
    int most = -1;
    for (const auto& exercise : all()) {
        if (std::ranges::count(passed, exercise.id) > 0) continue;
        int helps = 0;
        for (const auto& cause : causes)
            if (std::ranges::any_of(exercise.trains, [&](const char* one) { return cause.first == one; }))
                helps += cause.second;
        if (helps > most || (helps == most && best && exercise.grade < best->grade)) best = &exercise, most = helps;
    }
    return best;
}

}  // namespace poquito::practice
