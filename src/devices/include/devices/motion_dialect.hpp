#pragma once

#include "text/error.hpp"

#include <string>
#include <string_view>
#include <vector>

/// The words a motion controller understands: one line a command, one line or more in answer, the last of them `ok`.
/// The defaults are the codes of ISO 6983 as stepper controllers commonly take them; another controller is a matter of
/// a small JSON file, see docs/motion-protocol.md. mm, s.
namespace poquito::devices {

struct MotionDialect {
    std::vector<std::string> setup = {"G21", "G90"};  // millimetres, absolute positions
    std::string move = "G1 X{position} F{feed}";      // {position} mm, {feed} mm a minute
    std::string finish = "M400";                      // answers when all movement has ended; empty: `move` does
    std::string home = "G28 X";                       // empty: no home switch
    std::string where = "M114";                       // answers with the position
    std::string position_after = "X:";                // what stands before it there
    std::string halt = "M410";
    std::string ok = "ok";
    std::string error = "error";  // an answer that begins so is a refusal
    int baud = 115200;
    double timeout = 5;  // s for an answer, beyond the time a movement takes
    double speed = 2;    // mm/s
    double travel = 100;
    double least_step = 0.001;
    double backlash = 0;

    bool operator==(const MotionDialect&) const = default;
};

/// `{position}` and `{feed}` replaced; numbers with four digits behind the point.
std::string filled(std::string_view command, double position, double feed);

/// From JSON: every member may be left out. The error names the place.
text::Expected<MotionDialect> read_dialect(std::string_view json);
std::string write_dialect(const MotionDialect& dialect);

}  // namespace poquito::devices
