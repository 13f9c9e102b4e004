#pragma once

#include "shoot/shoot.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// A rig as a row of pieces from the camera to the front, and what hands do with it. Lengths in mm.
namespace poquito::shoot {

/// One piece in its place.
struct MountedPiece {
    std::string_view list;  // of the kit: "tubes"
    std::string id;
    std::string name;
    double length = 0;    // along the axis as it stands; a close-up lens has none in the model
    double diameter = 0;  // outer
    bool reversed = false;
    bool measured = false;               // a lens of which something was measured
    bool contacts = true;                // what it leads on
    std::optional<double> front_thread;  // what it offers in front
};

/// Screws before the lens and has no length in the model: a close-up lens, a filter.
inline bool is_thin(const MountedPiece& piece) { return piece.list == "closeup_lenses" || piece.list == "filters"; }

/// The thread that a record of gear gives, mm; 0 stands for none.
constexpr std::optional<double> thread_of(double record) { return record > 0 ? std::optional(record) : std::nullopt; }

/// `ring`: where the focus ring of the shot's lens stands. The camera comes first.
std::vector<MountedPiece> mounted_pieces(const gear::Kit& kit, const Rig& rig, double ring);

/// Puts a piece of the kit on at a place of mounted_pieces (the piece then there stands in front of it). Tubes go to
/// either side of the converter, close-up lenses in front of the lens; cameras, lenses, converters, bellows and rings
/// have their place and take that of their like. A lens dropped in front of the lens is coupled to it. Says why it
/// cannot be; empty: done.
std::optional<std::string> put_on(const gear::Kit& kit, Rig& rig, std::string_view list, const std::string& id,
                                  std::size_t place);

/// Whether the piece at that place can be taken off; camera and lens stay.
bool can_take_off(const MountedPiece& piece);
void take_off(const gear::Kit& kit, Rig& rig, std::size_t place);

/// Takes the piece from one place and puts it on at another (a place of the row as it is before). False: it cannot
/// stand there.
bool move_piece(const gear::Kit& kit, Rig& rig, std::size_t from, std::size_t to);

/// Makes a rig fit its gear: extension inside the bellows, zooms inside their range, a crop mode that is there, tubes
/// behind a converter only where it has a length, nothing screwed to the mount of a reversed lens.
void settle_rig(const gear::Kit& kit, Rig& rig);

/// Turns the shot's lens round, by the first reversing ring of the kit that fits its thread, else the first. Says why
/// it cannot be; empty: done.
std::optional<std::string> turn_lens(const gear::Kit& kit, Rig& rig);

}  // namespace poquito::shoot
