#pragma once

#include "shoot/shoot.hpp"
#include "text/colour.hpp"

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

/// What a thing of a class needs: its views, and how they are taken. Those that ship are common practice, and the
/// user's to change.
namespace poquito::shoot {

/// From where a view looks, which says what of the thing's size is across, up and behind.
enum class Face { front, back, left, right, top, bottom, part };

struct SetView {
    std::string name;
    std::string proves;
    double worth = 1;
    bool must = false;
    bool half = false;
    std::vector<std::string> also;  // see View
    Face face = Face::front;
    double turn = 0;              // degrees that the thing is turned for it, its right side towards the camera
    double share = 0.25;          // of the thing's longer side that a part is wide
    double fill = 0.8;            // share of the frame, in its tighter direction
    bool stack = false;           // sharp through all of its depth
    std::optional<double> shape;  // of its picture
    bool flaw = false;            // one for each flaw of the thing, as large as that is
    bool scale = false;           // with a rule beside it
    std::vector<Lock> locks;      // to the set's first view
    std::string unknown;

    bool operator==(const SetView&) const = default;
};

struct ViewSet {
    std::string id;
    std::string name;  // of the class: "Bag"
    std::vector<SetView> views;
    std::string unknown;

    bool operator==(const ViewSet&) const = default;
};

struct Flaw {
    std::string name;
    double size = 20;  // mm

    bool operator==(const Flaw&) const = default;
};

/// One thing to be photographed by a set. mm, as it stands before the camera.
struct Thing {
    std::string name;
    std::string number;  // what its files are called by; empty: by its name
    double width = 100, height = 100, depth = 50;
    std::optional<text::Colour> colour;
    std::vector<Flaw> flaws;

    bool operator==(const Thing&) const = default;
};

/// Makes those views of the thing that the shoot does not have yet, behind `pattern`: each as the newest shot of that
/// view in the shoot, or as `pattern` where there is none, for the thing's own size, so that the cuts of all outlets
/// hold it. Returns how many. `pattern` must be a shot of it.
std::size_t add_views(Shoot& shoot, const ViewSet& set, const Thing& thing, std::size_t pattern);

/// Things that have views, in the order of their first shots; and the shots of one.
std::vector<std::string> things_of(const Shoot& shoot);
std::vector<std::size_t> shots_of_thing(const Shoot& shoot, const std::string& thing);

/// The thing that a shot is a view of, as far as the front, back and top views of it tell; empty: it is none.
std::optional<Thing> thing_of(const Shoot& shoot, const Shot& shot);

/// A set as the shots of that thing are: to keep under a name of its own.
ViewSet set_of(const Shoot& shoot, const std::string& thing, const std::string& name);

/// Shots that are plates of the picture, in the order of the list.
std::vector<std::size_t> plates_of(const Shoot& shoot, const std::string& picture);

}  // namespace poquito::shoot

// Written out once, in view_set.cpp.
extern template class std::vector<poquito::shoot::SetView>;
extern template class std::vector<poquito::shoot::ViewSet>;
