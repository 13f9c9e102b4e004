#pragma once

#include <optional>
#include <string>
#include <vector>

/// How far a person goes, and what is given up first where not everything can be had. Stated for a person, a shoot or a
/// shot; what is not stated does not limit.
namespace poquito::shoot {

/// What a plan can lose: depth that is not sharp, sensitivity above the lowest, blur of movement and hands, light on
/// the background, time.
enum class Loss { depth, iso, motion, background, time };

struct Limits {
    std::optional<double> iso;              // highest
    std::optional<double> shutter_by_hand;  // s, slowest
    std::optional<double> f_number;         // marked, smallest stop that is tolerated
    std::optional<double> frames;           // most of one picture
    std::optional<double> minutes;          // most for one picture
    std::vector<Loss> give_up;              // what goes first stands first; what is missing goes after these
    std::string unknown;

    bool operator==(const Limits&) const = default;
};

/// `nearer` where it states something, else `farther`: a shot's over its shoot's, the shoot's over the person's.
Limits overlaid(const Limits& nearer, const Limits& farther);

/// All five, first goes first: as stated, the others behind them in the usual order (background, time, ISO, depth,
/// movement: common practice).
std::vector<Loss> giving_up(const Limits& limits);

/// With which a person starts who has stated none (common practice).
Limits usual_limits();

}  // namespace poquito::shoot

// Written out once, in limits.cpp, not in every file that copies limits.
extern template class std::vector<poquito::shoot::Loss>;
