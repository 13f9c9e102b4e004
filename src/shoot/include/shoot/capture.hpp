#pragma once

#include <optional>
#include <string>

/// One frame or a stack, and how the planes of a stack are reached. mm, s.
namespace poquito::shoot {

enum class CaptureMode { single, stack };
enum class DepthRule { blur, quarter_wave, contrast };
enum class Mover { ring, rail, hand };

/// The part of the depth that has to be sharp, mm behind the subject's nearest point; the rest may fall off on purpose.
/// Of one frame as of a stack.
struct Slice {
    double from = 0;
    double to = 1;  // not below `from`
    std::optional<double>
        rest_blur;  // share of the frame's width that the rest should be soft by at least; empty: may be
    std::string unknown;

    bool operator==(const Slice&) const = default;
};

/// A stack by hand: bursts while the camera sways through focus.
struct HandHeld {
    double frames_per_second = 10;
    double burst = 1.5;  // s that one burst lasts
    double speed = 8;    // mm/s that the camera sways along its axis
    double range = 8;    // mm from one end of the sway to the other
    std::string unknown;

    bool operator==(const HandHeld&) const = default;
};

struct Capture {
    CaptureMode mode = CaptureMode::single;
    DepthRule depth_rule = DepthRule::blur;
    double contrast_kept = 0.8;  // for DepthRule::contrast
    double overlap = 0.25;       // share of the frame depth
    double lead = 0;             // mm in front of the nearest point
    double tail = 0;             // mm behind the farthest point
    Mover mover = Mover::rail;
    std::optional<Slice> slice;           // empty: the whole depth
    bool composite = false;               // the camera is to combine the frames itself
    std::optional<double> settle;         // s of rest after each move; empty: see default_settle
    HandHeld hand;                        // for Mover::hand
    std::optional<std::string> approach;  // what was decided on, an id of judgement.hpp
    std::optional<double> cadence;   // s between two frames of the camera's own drive or bracket, where it is known
    std::optional<double> interval;  // s between two frames as set on camera or remote; empty: as fast as it goes
    std::string unknown;

    bool operator==(const Capture&) const = default;
};

}  // namespace poquito::shoot
