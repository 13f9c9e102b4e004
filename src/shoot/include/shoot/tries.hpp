#pragma once

#include <optional>
#include <string>

/// What decides by chance whether a frame of a shot is sharp, and what was counted of it. mm, s; shares 0 to 1.
namespace poquito::shoot {

/// How steady a person holds a camera, as measured: shift and turn as they draw a frame out during its exposure.
struct Hands {
    double shift = 2;    // mm/s across
    double turn = 0.03;  // rad/s
    double along = 2;    // mm to and fro, one standard deviation
    std::string unknown;

    bool operator==(const Hands&) const = default;
};

struct Tries {
    double calm = 0;                    // share of the time that the air is nearly still
    double calm_swing = 0.1;            // what is then left of the swing (common practice)
    double still = 0;                   // share of the time that what moves by itself holds still
    std::optional<Hands> hands;         // empty: as hands usually are
    double trigger_fires = 1;           // share of throws that the trigger answers
    std::optional<double> lands_aside;  // mm to the sides that it comes down, one standard deviation; empty: as far
                                        // as it does nearer and farther
    std::optional<double> seconds;      // of one try with all that belongs to it; empty: as such tries usually take
    int kept = 0;                       // at the set, of `tried`
    int tried = 0;
    std::string unknown;

    bool operator==(const Tries&) const = default;
};

}  // namespace poquito::shoot
