#pragma once

#include "plan/report.hpp"
#include "shoot/shoot.hpp"

#include <optional>
#include <string>
#include <vector>

/// What mends a dark front, and what brings one of the picture's tones to where it is wanted: whole shots that an edit
/// takes. Source: MODEL 6.
namespace poquito::whatif {

/// A way to more light on the front, with place and size.
struct FillWay {
    std::string label;
    shoot::Shot shot;
    double front = 0;  // stops that it comes to
};
/// A card opposite to where the light comes from, a flash, a lamp from the camera's side: those that the kit and the
/// light allow and that raise the front by a third of a stop or more, each as near to correct as it gets.
std::vector<FillWay> ways_to_fill(const plan::Plan& plan);

/// The tones of the strip that one can ask for.
enum class Tone { shadow, rim, background };
std::optional<double> tone_of(const plan::LightReport& light, Tone tone);

/// The shot with that tone at `stops`, or as near as its lights allow: the light that makes most of it gets power or
/// stops of its own, a card moves. The exposure of the front is found anew by what is automatic. Empty: nothing that is
/// set up makes that tone.
struct ToneAsked {
    std::string label;  // what was turned: "Light B to +0.7 stops of its own"
    shoot::Shot shot;
    double stops = 0;  // that it comes to
};
std::optional<ToneAsked> ask_for(const plan::Plan& plan, Tone tone, double stops);

}  // namespace poquito::whatif
