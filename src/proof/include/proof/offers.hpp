#pragma once

#include "plan/plan.hpp"
#include "proof/inspection.hpp"

#include <string>
#include <vector>

/// What frames teach of the gear they were taken with and of their subject: offered, for kit and shot change only when
/// their owner says so.
namespace poquito::proof {

enum class Teaches { light, steps, depth, odds };
struct Offer {
    Teaches teaches = Teaches::light;
    std::string text;           // what was seen, and what stands in its way
    std::string action;         // "Remember it for Compact flash"
    std::size_t light = 0;      // of the shot's; light
    double frame_stops = 0;     // that the frames were from correct; light
    gear::StepReading reading;  // steps
    double depth = 0;           // mm, of the subject; depth
    int kept = 0, tried = 0;    // of frames that are not in the count yet; odds
    std::string until;          // when the last of them was taken; odds
};

/// Of frames of that shot, judged against it. What the kit has learned since they were taken is not offered again.
std::vector<Offer> offers_of(const Inspection& inspection, const plan::Plan& plan);

/// Puts it into the kit or that shot. `time`: local, ISO 8601.
void learn(shoot::Shoot& shoot, const std::string& shot, const Offer& offer, const std::string& time);

}  // namespace poquito::proof
