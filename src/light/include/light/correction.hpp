#pragma once

#include <optional>
#include <string>
#include <vector>

/// What test frames taught about a flash, a lamp or a modifier: how many stops brighter it is than its record says.
namespace poquito::light {

struct Correction {
    double stops = 0;  // positive: brighter than the record
    std::string time;  // local time, ISO 8601

    bool operator==(const Correction&) const = default;
};

struct Calibrated {
    double stops = 0;              // the mean of all
    int count = 0;                 // of test frames
    std::optional<double> spread;  // sample standard deviation; from two on
};
Calibrated calibrated(const std::vector<Correction>& corrections);

/// One source among others, relative to correct, as predicted with the corrections it has.
struct Tested {
    double own = 0;             // stops
    double others = 0;          // exposure ratio of all other light, 0 or more
    double already = 0;         // stops of correction that `own` holds
    double frame_brighter = 0;  // stops that the test frame was brighter than predicted
};
/// The correction that explains the frame with this source alone; empty where the others would have to be dimmer.
std::optional<double> explains(const Tested& tested);

}  // namespace poquito::light

// Written out once, in correction.cpp, not in every file that copies gear.
extern template class std::vector<poquito::light::Correction>;
