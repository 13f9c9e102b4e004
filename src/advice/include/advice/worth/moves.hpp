#pragma once

#include "advice/advice.hpp"
#include "advice/worth/worth.hpp"

#include <vector>

/// What one person does next: the moves of MODEL 13 that any shot has. Rules add those that are theirs alone.
namespace poquito::advice {

struct Move {
    Remedy remedy;
    Worth worth;  // with it
};

/// Each alone, those that are worth more than the plan as it is by what a remedy has to gain, the best first: settings
/// with what pays for them, another stop, time or ISO where the exposure is off, power, a lower ISO with more power,
/// bracing, a light or what it is bounced off brought nearer, one frame in place of a stack and the other way round,
/// flash off. Never a dial that does not exist.
std::vector<Move> moves_of(const plan::Plan& plan, const plan::Report& report);

}  // namespace poquito::advice
