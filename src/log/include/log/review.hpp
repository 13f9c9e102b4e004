#pragma once

#include "log/entry.hpp"

#include <optional>
#include <string>
#include <vector>

/// A day of a shoot looked back on: planned against happened, what went wrong by cause and what it cost. Minutes.
namespace poquito::log {

/// What the plan had for a shot.
struct PlannedShot {
    std::string shot;  // id
    std::string name;
    int frames = 1;
    double minutes = 0;  // from its first frame to its last
};

struct ReviewedShot {
    std::string name;
    int planned_frames = 0;
    int frames = 0;  // of all its runs
    int runs = 0;
    double planned_minutes = 0;
    double minutes = 0;   // its runs alone
    std::string verdict;  // the last that was given; empty: none
    std::optional<double> planned_f_number, f_number;
};

struct ReviewedCause {
    std::string cause;      // as entries have it: "gap", "flash", "light"
    std::string text;       // for people: "Gaps in the stack"
    int often = 0;          // frames or times
    double minutes = 0;     // that went into it, where that is known
    std::string otherwise;  // what to do another time
    std::vector<std::string> shots;
};

struct Review {
    std::string shoot;
    std::string day;                     // ISO; empty: nothing was logged
    double begin = 0, end = 0;           // of its first and last entry, minutes after midnight
    std::vector<ReviewedShot> shots;     // in the order they were first taken, then what was planned and not taken
    int kept = 0, redone = 0, open = 0;  // shots: kept, told to be taken again, without a verdict
    double running = 0, changing = 0;    // minutes of the day; the rest is looking, talking and waiting
    double planned_changing = 0;
    std::vector<ReviewedCause> causes;   // the dearest first
    std::vector<std::string> otherwise;  // three at most
};

/// Of all entries of a shoot on one day, whichever order they come in. `planned`: its shots; `prices`: minutes that the
/// day has for a change, by the name of entries ("light"); those not named are not compared.
Review review_of(const std::vector<Entry>& entries, const std::vector<PlannedShot>& planned,
                 const std::vector<std::pair<std::string, double>>& prices);

}  // namespace poquito::log
