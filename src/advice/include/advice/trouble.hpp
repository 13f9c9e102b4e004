#pragma once

#include "advice/advice.hpp"
#include "advice/plans.hpp"

#include <array>
#include <compare>

/// How much speaks against a plan, so that it can be said whether a remedy makes it better.
namespace poquito::advice {

/// Compared member by member, the first that differs decides: statements that contradict each other, stop notes,
/// caution notes (safety's are not counted), how far limits are passed and what is lost, dearest of the person's order
/// first, in millionths; then information that could be answered. Every remedy that a note offers lowers it; so no
/// sequence of remedies runs in a circle.
struct Trouble {
    int contradictions = 0;
    int stops = 0;
    int cautions = 0;
    std::array<double, 10> lost = {};
    int hints = 0;

    auto operator<=>(const Trouble&) const = default;
};
Trouble trouble_of(const plan::Plan& plan, const plan::Report& report);

/// Whether that plan has less trouble than `now`: as comparing the two, and sooner done.
bool lowers(const plan::Plan& plan, const plan::Report& report, const Trouble& now);

/// The shot with remedies applied, the first note's first, until no note has one more.
shoot::Shot put_right(const gear::Kit& kit, shoot::Shot shot, const shoot::Limits& limits = {});

}  // namespace poquito::advice
