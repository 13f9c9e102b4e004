#pragma once

#include "shoot/shoot.hpp"

#include <cstddef>
#include <string>
#include <vector>

/// Shots that keep to another one: the plates of a picture, the views of a set, a series that is compared.
namespace poquito::job {

/// What is not as in the shot that this one follows.
struct Deviation {
    shoot::Lock lock = shoot::Lock::camera;
    std::string text;  // "f/8 where Satchel, front has f/11"
};
std::vector<Deviation> deviations(const shoot::Shoot& shoot, const shoot::Shot& shot);

/// What is not as in another shot, which may be of another shoot with a kit of its own.
std::vector<Deviation> deviations_between(const gear::Kit& kit, const shoot::Shot& shot, const gear::Kit& other_kit,
                                          const shoot::Shot& other, const std::vector<shoot::Lock>& locks);

/// What is locked in the row that a shot belongs to: by itself, or by those that go by it. Empty: it is in none; plates
/// are of one picture, not of a series.
std::vector<shoot::Lock> series_locks(const shoot::Shoot& shoot, const shoot::Shot& shot);

/// A series as it is planned now against an earlier session of it: the same patient, coin or plant months ago, or
/// another one by the same protocol.
struct SessionComparison {
    struct Differs {
        std::size_t shot = 0;  // of the shoot that is planned now
        std::vector<Deviation> what;
    };
    std::vector<Differs> shots;
    std::size_t compared = 0;
    std::vector<std::size_t> without;  // of the series, that the earlier one has not
};
/// Shots that follow one another, by what is locked there; matched by view and thing, by view, or by name.
SessionComparison compare_sessions(const shoot::Shoot& now, const shoot::Shoot& before);

const char* lock_name(shoot::Lock lock);  // for people
const char* role_name(shoot::PlateRole role);

/// Gives the shot what its locks say, from the one that it follows. Nothing where it follows none.
void bring_in_line(shoot::Shoot& shoot, std::size_t shot);

/// The shot as a plate of that picture, which keeps to the first of its plates what that role has to: all keep camera
/// and framing; what is to be laid on the hero keeps its stop and light too, a shadow its stop, flash and ambient their
/// aperture's framing alone.
void make_plate(shoot::Shoot& shoot, std::size_t shot, const std::string& picture, shoot::PlateRole role);

/// Plates of those roles, as copies of `hero` behind the last plate of its picture; a role that is there already is not
/// made again, but for a piece more. The shot becomes the hero where it was no plate. Returns how many.
std::size_t add_plates(shoot::Shoot& shoot, std::size_t hero, const std::vector<shoot::PlateRole>& roles);

/// What must not move from one plate to the next, for people; and what becomes of it.
const char* role_work(shoot::PlateRole role);

}  // namespace poquito::job
