#pragma once

#include "advice/advice.hpp"
#include "advice/proposals/proposals.hpp"

#include <functional>

/// How much speaks against a plan, so that it can be said whether a remedy makes it better.
namespace poquito::advice {

/// Worth says nearly all of it. What no measure can say counts beside it: statements that contradict each other and
/// stop notes before everything; caution notes that stand for no quality of worth (safety's are not counted) as a tenth
/// of worth each, information that could be answered as a thirtieth.
struct Trouble {
    int contradictions = 0;
    int stops = 0;
    double worth = 0;
    int cautions = 0;
    int hints = 0;

    double net_worth() const;  // worth less what else speaks against it
};
Trouble trouble_of(const plan::Plan& plan, const plan::Report& report);

/// What a remedy has to gain to be offered (MODEL 13).
inline constexpr double worth_offering = 0.02;

/// Whether `then` has less trouble than `now`: fewer contradictions, else fewer stop notes, else it stands better by
/// `worth_offering`. So no sequence of such steps runs in a circle.
bool is_less(const Trouble& then, const Trouble& now);

/// Whether `one` is the better of two ways out.
bool is_better(const Trouble& one, const Trouble& other);

/// The shot with remedies applied, those of stop notes first, then the one that gains most, until no note has one more
/// or `go_on` says no.
shoot::Shot put_right(const gear::Kit& kit, shoot::Shot shot, const shoot::Terms& terms,
                      const std::function<bool()>& go_on = {});

}  // namespace poquito::advice
