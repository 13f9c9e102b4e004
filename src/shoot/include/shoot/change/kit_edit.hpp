#pragma once

#include "gear/rows.hpp"
#include "shoot/shoot.hpp"

#include <string>
#include <vector>

/// Changes to a kit, and what they mean for the shots that use it. Afterwards every id a shot names is in the kit.
namespace poquito::shoot {

/// An id of that list that no piece has yet: "Tube 12 mm" gives "tube-12-mm", then "tube-12-mm-2".
std::string unique_gear_id(const gear::GearKind& kind, const gear::Kit& kit, const std::string& name);

/// A plain new piece at the end of the list; a copy behind the original. Both return the index.
std::size_t add_gear(const gear::GearKind& kind, gear::Kit& kit);
std::size_t duplicate_gear(const gear::GearKind& kind, gear::Kit& kit, std::size_t index);

/// Names of the shots that use the piece, in their order.
std::vector<std::string> users_of(const Shoot& shoot, const gear::GearKind& kind, const std::string& id);

/// True where a shot cannot do without one: cameras, lenses, flashes of a light. Other pieces are just taken off.
bool needs_replacement(const gear::GearKind& kind);

/// Removes the piece. Shots that use it take `replacement` (the id of another of the kind) or, where it is empty and
/// the kind needs none, do without.
void remove_gear(Shoot& shoot, const gear::GearKind& kind, std::size_t index, const std::string& replacement);

/// Makes the shots fit gear that was changed: extension inside the bellows, zooms inside their range, crop modes that
/// are there, tubes behind a converter only where it has a length. Returns the names of the shots it had to change.
std::vector<std::string> fit_shots_to_kit(Shoot& shoot);

/// Puts a piece of another kit into this one: in the place of the one with its id, else at the end.
void put_gear(const gear::GearKind& kind, gear::Kit& kit, const gear::Kit& from, std::size_t index);

/// Puts what was found out about gear from `before` to `after` into a bag: pieces that it has just as they were, and
/// ways of holding that came or went.
void carry_learned(const gear::Kit& before, const gear::Kit& after, gear::Kit& bag);

struct Merged {
    int added = 0;
    int renamed = 0;  // of those added: another piece has the id
    int same = 0;     // there already
};
/// Adds all of `from`; nothing that is there is changed.
Merged merge_kit(gear::Kit& kit, const gear::Kit& from);

}  // namespace poquito::shoot
