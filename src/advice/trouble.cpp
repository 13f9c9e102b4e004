#include "advice/trouble.hpp"

#include "advice/rules.hpp"
#include "plan/assess.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::advice {

Trouble trouble_of(const plan::Plan& plan, const plan::Report& report) {
    Trouble trouble;
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            if (rule.concern == Concern::safety) continue;
            const auto finding = rule.check(plan, report);
            if (!finding) continue;
            if (rule.concern == Concern::statement)
                ++trouble.contradictions;
            else if (rule.level == Level::stop)
                ++trouble.stops;
            else if (rule.level == Level::caution)
                ++trouble.cautions;
            else if (finding->remedy || !finding->ways.empty())
                ++trouble.hints;
        }
    if (!(plan.at.magnification > 0)) return trouble;
    const auto [losses, excess] = weigh(plan, report);
    const auto order = shoot::giving_up(plan.limits);
    constexpr double fine = 1e6;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const shoot::Loss loss = order[order.size() - 1 - i];
        trouble.lost[i] = std::round(excess.of(loss) * fine);
        trouble.lost[5 + i] = std::round(losses.of(loss) * fine);
    }
    return trouble;
}

shoot::Shot put_right(const gear::Kit& kit, shoot::Shot shot, const shoot::Limits& limits) {
    for (;;) {
        const auto assessed = assessment_of(kit, shot, limits);
        const auto note =
            std::ranges::find_if(assessed.advice.notes, [](const Note& n) { return n.remedy != nullptr; });
        if (note == assessed.advice.notes.end()) return shot;
        shot = shoot::Shot(note->remedy->shot);
    }
}

}  // namespace poquito::advice
