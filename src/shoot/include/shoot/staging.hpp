#pragma once

#include "shoot/subject.hpp"

#include <optional>
#include <string>
#include <vector>

/// What stands in the picture besides its subject, on the same table. mm.
namespace poquito::shoot {

/// What the subject stands on: a table on the floor, or the ground itself.
struct Table {
    double height = 750;           // over the floor that the camera's stand is on; 0: the ground. A table's is common
    std::optional<double> before;  // from the subject's centre to its edge towards the camera; empty: not said
    std::optional<double> behind;  // and to the edge away from it; empty: it goes on
    std::string unknown;

    bool operator==(const Table&) const = default;
};

enum class StagedRole {
    repeat,  // one more of the subject's kind
    prop,
    plate,  // lies, and carries the subject
    cloth,
    card,  // stands, and keeps light off or sends it back
    scale  // a rule or a patch that the picture is measured by
};

/// One thing on the table. It stands on it as the subject does; what lies flat on it is as deep as its subject is high.
struct Staged {
    std::string id;
    std::string name;
    StagedRole role = StagedRole::prop;
    Subject subject;    // its size, form, texture, colour; tilt from upright, its top away; turn to a level camera
    bool lies = false;  // flat on the table, its height going away from the camera: plates, cloths, the table itself
    double right = 0;   // its middle from the subject's, as the camera sees it
    double behind = 0;  // along the table, away from the camera
    std::string unknown;

    bool operator==(const Staged&) const = default;
};

/// A rule of that length to stand in the picture, its ticks a millimetre apart.
Staged rule_of(double length);
/// The rule that the shot measures by; null: none.
const Staged* rule_in(const std::vector<Staged>& staging);

/// Props and grounds to begin from (common practice); ids are made when they are put on the table.
std::vector<Staged> usual_props();

}  // namespace poquito::shoot

// Written out once, in staging.cpp, not in every file that copies a shot.
extern template class std::vector<poquito::shoot::Staged>;
