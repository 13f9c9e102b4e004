#pragma once

#include "plan/report.hpp"

#include <string>
#include <vector>

/// What gives the background another look: black, dark, keeping its colour, clean white.
namespace poquito::whatif {

struct BackdropChange {
    std::string label;  // Card 620 mm behind
    shoot::Shot shot;
    double stops = 0;  // of the background as it then is
};
/// Each a single change that brings the background to that look and leaves the subject's exposure within a third of a
/// stop: its distance, its card, the shutter, a light of its own. Those that can; none for a shot without background.
std::vector<BackdropChange> ways_to(const plan::Plan& plan, light::BackgroundLook look);

/// The whole set for pure black or clean white: card, its distance, and a light of its own or none, so that subject and
/// background are lit apart (common practice: white two subject widths behind, or its light wraps round the edges).
/// Empty label: cannot be reached with this kit.
BackdropChange set_recipe(const plan::Plan& plan, light::BackgroundLook look);

/// black, dark, keeps its colour, clean white.
const char* look_text(light::BackgroundLook look);

}  // namespace poquito::whatif
