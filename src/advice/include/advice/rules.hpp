#pragma once

#include "advice/advice.hpp"

#include <optional>
#include <span>
#include <string>
#include <vector>

/// The rules of advice.hpp: one small named rule a row. To add one, write its condition in rules_*.cpp and give it a
/// row there.
namespace poquito::advice {

/// What a rule has to say when it fires.
struct Finding {
    std::string text;
    std::optional<Remedy> remedy = {};
};

struct Rule {
    const char* code;  // stable: files and scripts may look for it
    Station station;
    Level level;
    Concern concern;
    std::optional<Finding> (*check)(const plan::Plan& plan, const plan::Report& report);
};

std::span<const Rule> reach_rules();
std::span<const Rule> depth_rules();
std::span<const Rule> stack_rules();
std::span<const Rule> light_rules();
std::span<const Rule> freeze_rules();
std::span<const Rule> safety_rules();

bool moves(const shoot::Subject& subject);

/// The largest mark of the nominal scale not above `f_number`; sparing the scale's rounding (f/22 is 22.6).
double mark_below(double f_number);

/// A remedy that is the plan's shot with one change.
template <typename Change>
Remedy remedy(const plan::Plan& plan, std::string label, Change change) {
    Remedy made{.label = std::move(label), .shot = plan.shot};
    change(made.shot);
    return made;
}

}  // namespace poquito::advice
