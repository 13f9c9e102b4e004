#pragma once

#include "shoot/subject.hpp"

#include <string>
#include <vector>

/// What stands in the picture besides its subject, on the same table. mm.
namespace poquito::shoot {

enum class StagedRole {
    repeat,  // one more of the subject's kind
    prop,
    plate,  // lies, and carries the subject
    cloth,
    card  // stands, and keeps light off or sends it back
};

/// One thing on the table. It stands on it as the subject does; what lies flat on it is as deep as its subject is high.
struct Staged {
    std::string id;
    std::string name;
    StagedRole role = StagedRole::prop;
    Subject subject;    // its size, form, texture, colour; tilt and turn relative to the camera
    bool lies = false;  // flat on the table, its height going away from the camera: plates, cloths, the table itself
    double right = 0;   // its middle from the subject's, as the camera sees it
    double behind = 0;  // along the table, away from the camera
    std::string unknown;

    bool operator==(const Staged&) const = default;
};

/// Props and grounds to begin from (common practice); ids are made when they are put on the table.
std::vector<Staged> usual_props();

}  // namespace poquito::shoot

// Written out once, in staging.cpp, not in every file that copies a shot.
extern template class std::vector<poquito::shoot::Staged>;
