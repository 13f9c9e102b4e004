#pragma once

#include "light/fall.hpp"

#include <optional>
#include <string>

/// Something fast that one flash is to hold. mm, s.
namespace poquito::shoot {

/// Something that falls, flies, splashes, or sinks evenly as a plume of dye does; and what fires the light.
enum class Act { fall, thrown, splash, sinks };
enum class Trigger { beam, sound, hand };
/// When the light is to come: as it is at the wanted place for the first time, as it turns, or as it comes down past
/// the wanted place.
enum class Moment { place, top, coming_down };
struct TwoDrops {
    double rise = 0.06;  // s from the first drop's impact until its column stands as high as wanted
    double column = 20;  // mm, how high
    std::string unknown;

    bool operator==(const TwoDrops&) const = default;
};
struct RepeatingFlash {
    light::Burst burst;
    std::string unknown;

    bool operator==(const RepeatingFlash&) const = default;
};
struct Freeze {
    Act act = Act::fall;
    double drop = 300;            // mm that it falls to the wanted place, or from where it is thrown; negative: rises
    double speed = 2000;          // mm/s as it is thrown, or sinks
    std::optional<double> angle;  // degrees above the horizontal, past 90 towards the left; empty: see angle_of
    Moment moment = Moment::place;
    bool undelayed = false;           // the light comes as soon as it can after the trigger
    std::optional<double> beam_rise;  // mm over the hand that the beam crosses the way of a throw; empty: half the way
    bool beam_coming_down = false;    // it breaks the beam there only on its way down
    int pieces = 1;                   // that fly together
    double spread = 0;                // mm of them about their middle, to every side, one standard deviation
    double wanted_blur = 2;           // pixels
    Trigger trigger = Trigger::beam;
    double beam_above = 60;       // mm over the wanted place
    double sound_distance = 200;  // mm from the sound to its trigger
    double lag = 0.06;            // s of trigger and camera together
    double scatter = 5;  // mm, nearer or farther that it comes down, one standard deviation: two of three lie within
    std::optional<TwoDrops> second;  // a second drop that meets the first one's column
    std::optional<RepeatingFlash> repeating;
    std::string unknown;

    bool operator==(const Freeze&) const = default;
};

/// As it leaves: straight up where the place lies above and down where below, unless it is said.
double angle_of(const Freeze& freeze);

}  // namespace poquito::shoot
