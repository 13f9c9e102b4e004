#pragma once

#include "shoot/shoot.hpp"

#include <cstddef>
#include <string>

/// Changes to a shoot that take more than setting a field. Indices are into shoot.shots and must be valid.
namespace poquito::shoot {

/// An id no shot has yet, made from a name: "Tide brooch" gives "tide-brooch", then "tide-brooch-2".
std::string unique_shot_id(const Shoot& shoot, const std::string& name);

/// A plain shot with the first camera and lens of the kit; inserted behind `after` (at the end where there is no such
/// shot). Returns its index. The kit must have a camera and a lens.
std::size_t add_shot(Shoot& shoot, std::size_t after);

/// A copy without ticks and proof, inserted behind the original. Returns its index.
std::size_t duplicate_shot(Shoot& shoot, std::size_t index);

void remove_shot(Shoot& shoot, std::size_t index);

/// Takes the shot from one place to another; `to` is its index afterwards.
void move_shot(Shoot& shoot, std::size_t from, std::size_t to);

/// The magnification at which the subject takes `fill` (above 0) of the frame, in its tighter direction.
double magnification_for_fill(const optics::Sensor& sensor, const Subject& subject, double fill);

}  // namespace poquito::shoot
