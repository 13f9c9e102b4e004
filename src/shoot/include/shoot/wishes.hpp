#pragma once

#include <optional>
#include <string>
#include <vector>

/// What a picture is to look like. Stated for a shoot or a shot; what is unsaid is judged as most pictures are. How
/// soft the rest of a subject is to be stands with what has to be sharp (shoot/capture.hpp, Slice). Source: MODEL 15.
namespace poquito::shoot {

enum class WantedGround { unsaid, black, dark, as_it_is, light, white };
enum class WantedLight { unsaid, flash, ambient, both };
enum class WantedMovement { unsaid, frozen, drawn };
enum class WantedContrast { unsaid, soft, hard };

struct Wishes {
    WantedGround ground = WantedGround::unsaid;
    std::optional<double> softness;  // of the ground at least: a point's disc as a share of the frame's width
    WantedLight lit_by = WantedLight::unsaid;
    WantedMovement movement = WantedMovement::unsaid;
    WantedContrast contrast = WantedContrast::unsaid;
    std::optional<double> brighter;  // stops over a correct exposure, negative: under it
    bool coloured_light = false;     // lights of unlike colour stand in it on purpose
    bool passes_frame = false;       // the subject passes the frame's edges on purpose
    std::string unknown;

    bool operator==(const Wishes&) const = default;
};

/// `nearer` where it says something, else `farther`: a shot's over its shoot's.
Wishes overlaid(const Wishes& nearer, const Wishes& farther);

/// That a shot is to be judged by `wanted`: `own` says what its shoot does not say already, and what is wished for the
/// whole shoot and no longer wanted is taken back there.
void grant(const Wishes& wanted, Wishes& own, Wishes& shoots);

/// What is wished, each in a few words: "black ground", "flash alone", "+0.7 stops".
std::vector<std::string> words_of(const Wishes& wishes);

/// Stops against mid grey between which a ground is as wanted; empty: any is.
struct ToneRange {
    double from = 0;
    double to = 0;
};
std::optional<ToneRange> tones_of(WantedGround ground);

}  // namespace poquito::shoot
