#pragma once

#include "light/fall.hpp"

#include <optional>
#include <string>

/// Something fast that one flash is to hold. mm, s.
namespace poquito::shoot {

/// Something that falls, flies or splashes, and what fires the light.
enum class Act { fall, thrown, splash };
enum class Trigger { beam, sound, hand };
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
    double drop = 300;       // mm that it falls to the wanted place, or from where it is thrown; negative: rises
    double speed = 2000;     // mm/s as it is thrown
    double wanted_blur = 2;  // pixels
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

}  // namespace poquito::shoot
