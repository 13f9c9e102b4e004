#pragma once

#include "shoot/shoot.hpp"

#include <optional>
#include <string>
#include <vector>

/// Whether a rig holds together, and what it still does: threads, contacts, length. mm.
namespace poquito::shoot {

/// Two pieces that meet at a thread, the one nearer to the camera first.
struct Joint {
    std::string inner;  // names
    std::string outer;
    std::optional<double> inner_thread;  // empty: it has none
    double outer_thread = 0;
    std::optional<std::string> step_ring;  // name of one in the kit that joins them; for joints that need one

    bool fits() const { return inner_thread == outer_thread; }
    bool narrows() const { return inner_thread && outer_thread < *inner_thread; }  // may darken the corners
};

/// How the stop gets from the dial to the blades.
enum class StopControl { camera, lens_ring, none };

struct Fit {
    std::vector<Joint> joints;                  // from the lens forwards; then the lights that hang on the front
    std::vector<std::string> without_contacts;  // names of the pieces that break the chain, from the camera forwards
    bool autofocus = true;
    StopControl stop = StopControl::camera;
    double length = 0;  // camera's mount face to the front, at this focus

    bool contacts() const { return without_contacts.empty(); }  // autofocus, automatic aperture, EXIF
};

/// `length`: see Fit; the plan knows the focus.
Fit fit_of(const gear::Kit& kit, const Shot& shot, double length);

/// Longer than this, a rig on a small head sags and turns (common practice).
inline constexpr double long_rig = 150;

}  // namespace poquito::shoot

// Written out once, in fit.cpp, not in every file that copies a train.
extern template class std::vector<poquito::shoot::Joint>;
