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

/// Into the log of that shot: a run with the same id, which was gone on with, gives way.
void log_run(Shoot& shoot, const std::string& shot, RunRecord run);

/// A shoot of that shot alone, with the gear it uses and no more.
Shoot alone(const Shoot& shoot, std::size_t index);

struct Adopted {
    std::size_t index = 0;  // of the shot
    bool replaced = false;  // in the place of the one with its id; else it is new
    int gear_added = 0;
};
/// Takes the only shot of `one` over, with its gear: pieces that are there already are used, others join the kit, under
/// another id where theirs is taken. `after` as in add_shot.
Adopted adopt(Shoot& shoot, Shoot one, std::size_t after);

/// Where one photographs, with the light that is there: its reading, where it comes from and how wide it is (common
/// practice: a lit room EV 6 from all round, a bright window EV 9 from the left, an open, hazy sky EV 13).
enum class Place { table, window, field };
Ambient ambient_at(Place place);

/// Below it the sky is overcast, from it on there is sun; EV at ISO 100 (common practice).
inline constexpr double sun_from_ev = 12.5;

/// Takes the settings prepared for the other light, and prepares those of now in their place. Nothing where there is no
/// light that is there, or nothing is prepared.
void switch_light(Shot& shot);

/// The magnification at which the subject takes `fill` (above 0) of the frame, in its tighter direction.
double magnification_for_fill(const optics::Sensor& sensor, const Subject& subject, double fill);

}  // namespace poquito::shoot
