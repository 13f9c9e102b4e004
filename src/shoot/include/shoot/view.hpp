#pragma once

#include <optional>
#include <string>
#include <vector>

/// Pictures that belong together: the views of a thing, shots that keep to another one, the plates that one picture is
/// put together from; and the outlets that take them.
namespace poquito::shoot {

/// What of a thing this shot shows, and what for.
struct View {
    std::string thing;  // all views of one thing have the same: "Satchel, tan"
    std::string name;   // "front"
    std::string proves;
    double worth = 1;               // against its other views, where fewer are taken
    bool must = false;              // is shown wherever the thing is
    bool half = false;              // may share a picture with another that may, each on half of it
    std::vector<std::string> also;  // names of views that it shows as well: the thing is turned so that both are seen
    std::string unknown;

    bool operator==(const View&) const = default;
};

/// What stays as in another shot.
enum class Lock {
    camera,   // body, lens and all between and before them
    framing,  // focus, how it is held, where it looks down from
    stop,     // f-number, shutter time, ISO
    light,    // where each stands, its power, the light that is there
    ground    // the card behind
};
inline constexpr int locks = 5;

/// This shot is one of a row that is compared or laid on one another.
struct Follows {
    std::string shot;  // id of the one that the row goes by
    std::vector<Lock> locks;
    std::string unknown;

    bool operator==(const Follows&) const = default;
};

/// What a plate brings into the picture.
enum class PlateRole {
    hero,
    piece,    // one more thing, or the same lit otherwise
    support,  // with what holds it, which is taken out
    clean,    // the place without it
    shadow,   // what falls on the ground
    flash,    // by flash alone
    ambient   // by the light that is there alone
};

struct Plate {
    std::string picture;  // all plates of it have the same
    PlateRole role = PlateRole::hero;
    std::string unknown;

    bool operator==(const Plate&) const = default;
};

/// What an outlet wants behind the thing.
enum class Ground { any, plain, white };

/// A shop, a journal, an archive: what it takes of each thing. Pixels of the picture as it is delivered.
struct Outlet {
    std::string id;
    std::string name;
    int most = 12;                         // pictures of one thing
    std::optional<double> shape;           // width over height; empty: as the shot has it
    std::optional<double> least_short_px;  // of the shorter side
    std::optional<double> most_long_px;    // of the longer side: larger ones are made smaller
    Ground ground = Ground::any;
    double margin = 0;                 // share of the picture's sides that stays free about the thing
    std::optional<std::string> first;  // name of the view that has to come first
    std::string unknown;

    bool operator==(const Outlet&) const = default;
};

/// That an outlet gets this shot, and how it is cut: the largest cut of its shape, its middle so far from the frame's.
struct Delivery {
    std::string outlet;                 // id
    double right = 0;                   // share of the frame's width
    double down = 0;                    // share of the frame's height
    std::optional<std::string> beside;  // id of the shot it shares the picture with, on the left of it or the right
    std::string unknown;

    bool operator==(const Delivery&) const = default;
};

/// Something carried that is not gear of the kit: a prop, a cloth, a spare.
struct PackedItem {
    std::string id;
    std::string text;
    std::string container;  // where it goes; empty: not said
    std::string unknown;

    bool operator==(const PackedItem&) const = default;
};
/// Where a piece of the kit goes.
struct PackedIn {
    std::string item;
    std::string container;
    std::string unknown;

    bool operator==(const PackedIn&) const = default;
};
/// What goes along, besides what the shots say; and what is ticked, by the ids of the list.
struct Packing {
    std::vector<PackedItem> own;
    std::vector<PackedIn> places;
    std::vector<std::string> going;
    std::vector<std::string> home;
    std::string unknown;

    bool operator==(const Packing&) const = default;
};

}  // namespace poquito::shoot

// Written out once, in view.cpp, not in every file that copies a shot.
extern template class std::vector<poquito::shoot::Outlet>;
extern template class std::vector<poquito::shoot::Delivery>;
extern template class std::vector<poquito::shoot::PackedItem>;
extern template class std::vector<poquito::shoot::PackedIn>;
