#pragma once

#include "practice/exercise.hpp"

/// What the frames of each exercise have to show.
namespace poquito::practice {

Outcome judge_lean(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_ladder(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_closer(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_steady(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_automatic(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_distance(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_grounds(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_spoon(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_error(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_bracket(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_grain(const gear::Kit& kit, const std::vector<Series>& series);
Outcome judge_stack(const gear::Kit& kit, const std::vector<Series>& series);

}  // namespace poquito::practice
