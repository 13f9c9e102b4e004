#include "advice/trouble.hpp"

#include "advice/rules.hpp"
#include "plan/assess.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace poquito::advice {

namespace {

void count_notes(const plan::Plan& plan, const plan::Report& report, Trouble& trouble) {
    const OnlyCounting counting;
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            if (rule.concern == Concern::safety || rule.level == Level::info || !rule.check(plan, report)) continue;
            ++(rule.concern == Concern::statement ? trouble.contradictions
               : rule.level == Level::stop        ? trouble.stops
                                                  : trouble.cautions);
        }
}

void count_hints(const plan::Plan& plan, const plan::Report& report, Trouble& trouble) {
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            if (rule.concern == Concern::safety || rule.level != Level::info) continue;
            const auto finding = rule.check(plan, report);
            if (finding && (finding->remedy || !finding->ways.empty())) ++trouble.hints;
        }
}

void count_losses(const plan::Plan& plan, const plan::Report& report, Trouble& trouble) {
    if (!(plan.at.magnification > 0)) return;
    const auto [losses, excess] = weigh(plan, report);
    const auto order = shoot::giving_up(plan.limits);
    constexpr double fine = 1e6;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const shoot::Loss loss = order[order.size() - 1 - i];
        trouble.lost[i] = std::round(excess.of(loss) * fine);
        trouble.lost[5 + i] = std::round(losses.of(loss) * fine);
    }
}

}  // namespace

Trouble trouble_of(const plan::Plan& plan, const plan::Report& report) {
    Trouble trouble;
    count_notes(plan, report, trouble);
    count_losses(plan, report, trouble);
    count_hints(plan, report, trouble);
    return trouble;
}

bool lowers(const plan::Plan& plan, const plan::Report& report, const Trouble& now) {
    Trouble then;
    count_notes(plan, report, then);
    // What differs already decides; the rest is not worth working out.
    const auto notes = [](const Trouble& one) { return std::tie(one.contradictions, one.stops, one.cautions); };
    if (notes(then) != notes(now)) return notes(then) < notes(now);
    count_losses(plan, report, then);
    if (then.lost != now.lost) return then.lost < now.lost;
    count_hints(plan, report, then);
    return then.hints < now.hints;
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
