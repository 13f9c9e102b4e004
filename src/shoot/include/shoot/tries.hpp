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

/// What one try by hand is: a frame, a burst while the camera rocks through focus, or the camera's own bracket, held.
enum class TryIs { frame, rocking, bracket };

/// A place where an animal is waited for, focused beforehand. mm, s.
struct Perch {
    double scatter = 4;       // nearer or farther that it settles, one standard deviation
    double aside = 8;         // to the sides and up or down
    double comes_every = 60;  // from one visit to the next
    std::string unknown;

    bool operator==(const Perch&) const = default;
};

struct Tries {
    double calm = 0;              // share of the time that the air is nearly still
    double calm_swing = 0.1;      // what is then left of the swing (common practice)
    std::optional<double> still;  // share of the time that what moves by itself holds still; empty: as such things do
    std::optional<Hands> hands;   // empty: as hands usually are
    TryIs is = TryIs::frame;
    int bracket_frames = 10;             // of a bracket that is held
    std::optional<double> bracket_step;  // mm at the subject; empty: three quarters of what one frame holds
    double trigger_fires = 1;            // share of throws that the trigger answers
    double false_fires = 0;              // share of throws that it answers to something else, before they come
    std::optional<double> lands_aside;   // mm to the sides that it comes down, one standard deviation; empty: as far
                                         // as it does nearer and farther
    std::optional<double> stays;         // s that an animal stays, on an average; empty: as long as one likes
    double flees = 0;                    // share of frames that drive it off: the flash, the noise, whoever moves
    std::optional<Perch> perch;          // empty: one goes up to it
    double rinse = 0;                    // s of rinsing or clearing up between tries
    std::optional<double> seconds;       // of one try with all that belongs to it; empty: as such tries usually take
    int kept = 0;                        // at the set, of `tried`
    int tried = 0;
    std::string counted_until;  // when the last frame was taken that is in the count by itself, ISO 8601
    std::string unknown;

    bool operator==(const Tries&) const = default;
};

}  // namespace poquito::shoot
