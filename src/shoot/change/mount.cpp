#include "shoot/change/mount.hpp"

#include "optics/chain.hpp"

#include <algorithm>

namespace poquito::shoot {
namespace {

constexpr double mount_diameter = 62;   // outer, of tubes, converters and bellows ends (common practice)
constexpr double camera_diameter = 76;  // height of a body about its mount (common practice)

MountedPiece lens_piece(const gear::Lens& lens, const optics::Lens& optics, double ring, double flange, bool reversed) {
    return {.list = "lenses",
            .id = lens.id,
            .name = lens.name,
            .length = optics::lens_state(optics, ring, optics.flange.value_or(flange)).length,
            .diameter = optics.front_diameter,
            .reversed = reversed,
            .measured = !lens.calibrations.empty(),
            .contacts = lens.contacts,
            .front_thread = reversed ? std::nullopt : thread_of(lens.filter_thread)};
}

/// Where the pieces of one list of the rig begin in the row, and how many there are.
struct Stretch {
    std::size_t begin = 0;
    std::size_t count = 0;
    bool holds(std::size_t place) const { return place >= begin && place < begin + count; }
};
Stretch stretch_of(const std::vector<MountedPiece>& pieces, std::string_view list, std::size_t from) {
    Stretch found{.begin = from};
    while (found.begin < pieces.size() && pieces[found.begin].list != list) ++found.begin;
    while (found.begin + found.count < pieces.size() && pieces[found.begin + found.count].list == list) ++found.count;
    return found;
}

std::size_t lens_place(const std::vector<MountedPiece>& pieces) { return stretch_of(pieces, "lenses", 0).begin; }

void put_tube(const gear::Kit& kit, Rig& rig, const std::string& id, std::size_t place) {
    const std::size_t behind = rig.tubes_behind_converter.size();
    const auto at = [](std::vector<std::string>& list, std::size_t index) {
        return list.begin() + static_cast<std::ptrdiff_t>(std::min(index, list.size()));
    };
    const bool splits = rig.teleconverter && find_gear(kit.teleconverters, *rig.teleconverter)->optics.has_length();
    if (splits && place <= behind + 1) {  // the camera stands at 0, the converter behind the tubes behind it
        rig.tubes_behind_converter.insert(at(rig.tubes_behind_converter, place == 0 ? 0 : place - 1), id);
        return;
    }
    const std::size_t first = 1 + behind + (rig.teleconverter ? 1 : 0);
    rig.tubes.insert(at(rig.tubes, place < first ? 0 : place - first), id);
}

std::optional<std::string> couple(const gear::Kit& kit, Rig& rig, const std::string& id) {
    if (rig.reversing_ring) return "Nothing screws into the mount of a reversed lens.";
    if (id == rig.lens) return "A lens cannot be coupled to itself.";
    const gear::Lens& lens = *find_gear(kit.lenses, id);
    const double inner = gear::find_gear(kit.lenses, rig.lens)->filter_thread;
    FrontLens front{.lens = id, .f_number = gear::optics_of(lens, std::nullopt).max_aperture};
    if (rig.front_lens) front.coupling_ring = rig.front_lens->coupling_ring;
    for (const gear::CouplingRing& ring : kit.coupling_rings)
        if (!front.coupling_ring || (ring.thread == inner && ring.front_thread == lens.filter_thread))
            front.coupling_ring = ring.id;
    rig.front_lens = front;
    return std::nullopt;
}

std::optional<std::string> put_coupling_ring(const gear::Kit& kit, Rig& rig, const std::string& id) {
    if (!rig.front_lens) {
        const auto other =
            std::ranges::find_if(kit.lenses, [&](const gear::Lens& lens) { return lens.id != rig.lens; });
        if (other == kit.lenses.end()) return "A coupling ring needs a second lens in the kit.";
        if (auto problem = couple(kit, rig, other->id)) return problem;
    }
    rig.front_lens->coupling_ring = id;
    return std::nullopt;
}

void reverse_by(Rig& rig, const std::string& ring) {
    rig.reversing_ring = ring;
    rig.closeup_lenses.clear();
    rig.front_lens.reset();
}

void fit_zoom(std::optional<double>& focal_length, const gear::Lens& lens) {
    if (lens.zoom.empty())
        focal_length.reset();
    else if (focal_length)
        focal_length = gear::zoom_position(lens, focal_length);
}

}  // namespace

std::vector<MountedPiece> mounted_pieces(const gear::Kit& kit, const Rig& rig, double ring) {
    std::vector<MountedPiece> pieces;
    const auto add = [&](std::string_view list, const auto& gear, double length, double diameter, bool contacts,
                         std::optional<double> thread = std::nullopt) {
        pieces.push_back({.list = list,
                          .id = gear.id,
                          .name = gear.name,
                          .length = length,
                          .diameter = diameter,
                          .contacts = contacts,
                          .front_thread = thread});
    };
    const gear::Camera& camera = *find_gear(kit.cameras, rig.camera);
    add("cameras", camera, camera.flange, camera_diameter, true);
    const auto add_tube = [&](const std::string& id) {
        const gear::Tube& tube = *find_gear(kit.tubes, id);
        add("tubes", tube, tube.length, mount_diameter, tube.contacts);
    };
    std::ranges::for_each(rig.tubes_behind_converter, add_tube);
    if (rig.teleconverter) {
        const auto& converter = *find_gear(kit.teleconverters, *rig.teleconverter);
        add("teleconverters", converter, converter.optics.length, mount_diameter, converter.contacts);
    }
    std::ranges::for_each(rig.tubes, add_tube);
    if (rig.bellows) {
        const auto& bellows = *find_gear(kit.bellows, rig.bellows->bellows);
        add("bellows", bellows, rig.bellows->extension, mount_diameter, bellows.contacts);
    }
    if (rig.reversing_ring) {
        const auto& reversing = *find_gear(kit.reversing_rings, *rig.reversing_ring);
        add("reversing_rings", reversing, reversing.length, mount_diameter, reversing.contacts, reversing.thread);
    }
    const gear::Lens& lens = *find_gear(kit.lenses, rig.lens);
    pieces.push_back(
        lens_piece(lens, gear::optics_of(lens, rig.focal_length), ring, camera.flange, rig.reversing_ring.has_value()));
    for (const auto& id : rig.closeup_lenses) {
        const auto& closeup = *find_gear(kit.closeup_lenses, id);
        add("closeup_lenses", closeup, 0, closeup.thread + 3, true, thread_of(closeup.thread));
    }
    for (const auto& id : rig.filters) {
        const auto& filter = *find_gear(kit.filters, id);
        add("filters", filter, 0, filter.thread + 3, true, thread_of(filter.thread));
    }
    if (const auto& front = rig.front_lens) {
        if (front->coupling_ring) {
            const auto& coupling = *find_gear(kit.coupling_rings, *front->coupling_ring);
            add("coupling_rings", coupling, coupling.length, std::max(coupling.thread, coupling.front_thread) + 3, true,
                coupling.front_thread);
        }
        const gear::Lens& outer = *find_gear(kit.lenses, front->lens);
        pieces.push_back(
            lens_piece(outer, gear::optics_of(outer, front->focal_length), front->ring, camera.flange, true));
    }
    return pieces;
}

std::optional<std::string> put_on(const gear::Kit& kit, Rig& rig, std::string_view list, const std::string& id,
                                  std::size_t place) {
    const auto pieces = mounted_pieces(kit, rig, 0);
    const auto there =
        std::ranges::find_if(pieces, [&](const MountedPiece& piece) { return piece.list == list && piece.id == id; });
    if (there != pieces.end() && (list == "tubes" || list == "closeup_lenses")) {  // each piece is there once
        (void)move_piece(kit, rig, static_cast<std::size_t>(there - pieces.begin()), place);
        return std::nullopt;
    }
    std::optional<std::string> problem;
    if (list == "cameras") rig.camera = id;
    if (list == "lenses") {
        if (place > lens_place(pieces)) {
            problem = couple(kit, rig, id);
        } else {
            rig.lens = id;
            if (rig.front_lens && rig.front_lens->lens == id) rig.front_lens.reset();
        }
    }
    if (list == "tubes") put_tube(kit, rig, id, place);
    if (list == "teleconverters") rig.teleconverter = id;
    if (list == "bellows")
        rig.bellows = BellowsSetting{.bellows = id, .extension = gear::find_gear(kit.bellows, id)->least};
    if (list == "reversing_rings") reverse_by(rig, id);
    if (list == "coupling_rings") problem = put_coupling_ring(kit, rig, id);
    if (list == "rails") rig.rail = id;
    if (list == "filters" && std::ranges::count(rig.filters, id) == 0) rig.filters.push_back(id);
    if (list == "closeup_lenses") {
        if (rig.reversing_ring) return "Nothing screws into the mount of a reversed lens.";
        const auto closeups = stretch_of(pieces, "closeup_lenses", 0);
        const std::size_t index = closeups.count == 0 || place < closeups.begin ? 0 : place - closeups.begin;
        rig.closeup_lenses.insert(
            rig.closeup_lenses.begin() + static_cast<std::ptrdiff_t>(std::min(index, rig.closeup_lenses.size())), id);
    }
    if (!problem) settle_rig(kit, rig);
    return problem;
}

bool can_take_off(const MountedPiece& piece) {
    return piece.list != "cameras" && (piece.list != "lenses" || piece.reversed);
}

void take_off(const gear::Kit& kit, Rig& rig, std::size_t place) {
    const auto pieces = mounted_pieces(kit, rig, 0);
    const MountedPiece& piece = pieces[place];
    const std::size_t lens = lens_place(pieces);
    if (piece.list == "cameras") return;
    if (piece.list == "lenses" && place == lens) rig.reversing_ring.reset();  // turned the right way round
    if (piece.list == "lenses" && place != lens) rig.front_lens.reset();
    if (piece.list == "teleconverters") rig.teleconverter.reset();
    if (piece.list == "bellows") rig.bellows.reset();
    if (piece.list == "reversing_rings") rig.reversing_ring.reset();
    if (piece.list == "coupling_rings") rig.front_lens.reset();
    if (piece.list == "filters") std::erase(rig.filters, piece.id);
    if (piece.list == "closeup_lenses")
        rig.closeup_lenses.erase(rig.closeup_lenses.begin() + static_cast<std::ptrdiff_t>(place - lens - 1));
    if (piece.list == "tubes") {
        const std::size_t behind = rig.tubes_behind_converter.size();
        if (place <= behind)
            rig.tubes_behind_converter.erase(rig.tubes_behind_converter.begin() +
                                             static_cast<std::ptrdiff_t>(place - 1));
        else
            rig.tubes.erase(rig.tubes.begin() +
                            static_cast<std::ptrdiff_t>(place - 1 - behind - (rig.teleconverter ? 1 : 0)));
    }
    settle_rig(kit, rig);
}

bool move_piece(const gear::Kit& kit, Rig& rig, std::size_t from, std::size_t to) {
    const auto pieces = mounted_pieces(kit, rig, 0);
    const MountedPiece& piece = pieces[from];
    Rig changed = rig;
    if (piece.list == "tubes" || piece.list == "closeup_lenses") {
        take_off(kit, changed, from);
        if (put_on(kit, changed, piece.list, piece.id, to > from ? to - 1 : to)) return false;
    } else if (piece.list == "teleconverters") {
        // The converter goes past tubes: those nearer to the camera now stand behind it.
        std::vector<std::string> row = rig.tubes_behind_converter;
        row.insert(row.end(), rig.tubes.begin(), rig.tubes.end());
        const std::size_t target = std::min(row.size(), to == 0 ? 0 : (to > from ? to - 2 : to - 1));
        const auto split = row.begin() + static_cast<std::ptrdiff_t>(target);
        changed.tubes_behind_converter.assign(row.begin(), split);
        changed.tubes.assign(split, row.end());
        settle_rig(kit, changed);
    } else {
        return false;
    }
    if (changed == rig) return false;
    rig = changed;
    return true;
}

void settle_rig(const gear::Kit& kit, Rig& rig) {
    if (rig.bellows) {
        const gear::Bellows& bellows = *find_gear(kit.bellows, rig.bellows->bellows);
        rig.bellows->extension = std::clamp(rig.bellows->extension, bellows.least, bellows.greatest);
    }
    fit_zoom(rig.focal_length, *find_gear(kit.lenses, rig.lens));
    if (rig.front_lens) fit_zoom(rig.front_lens->focal_length, *find_gear(kit.lenses, rig.front_lens->lens));
    const auto& modes = gear::find_gear(kit.cameras, rig.camera)->crop_modes;
    if (rig.crop_mode && std::ranges::count(modes, *rig.crop_mode, &gear::CropMode::name) == 0) rig.crop_mode.reset();
    const auto* converter = rig.teleconverter ? gear::find_gear(kit.teleconverters, *rig.teleconverter) : nullptr;
    if (!converter || !converter->optics.has_length()) {
        rig.tubes.insert(rig.tubes.begin(), rig.tubes_behind_converter.begin(), rig.tubes_behind_converter.end());
        rig.tubes_behind_converter.clear();
    }
    if (rig.reversing_ring) {
        rig.closeup_lenses.clear();
        rig.front_lens.reset();
    }
}

std::optional<std::string> turn_lens(const gear::Kit& kit, Rig& rig) {
    if (rig.reversing_ring) {
        rig.reversing_ring.reset();
        return std::nullopt;
    }
    if (kit.reversing_rings.empty()) return "There is no reversing ring in the kit.";
    const double thread = gear::find_gear(kit.lenses, rig.lens)->filter_thread;
    const auto fitting = std::ranges::find(kit.reversing_rings, thread, &gear::ReversingRing::thread);
    reverse_by(rig, fitting == kit.reversing_rings.end() ? kit.reversing_rings.front().id : fitting->id);
    return std::nullopt;
}

}  // namespace poquito::shoot
