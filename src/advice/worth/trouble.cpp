#include "advice/worth/trouble.hpp"

#include "advice/rules/rules.hpp"
#include "advice/worth/worth.hpp"
#include "plan/assess.hpp"

#include <algorithm>
#include <tuple>

namespace poquito::advice {

namespace {

void count_notes(const plan::Plan& plan, const plan::Report& report, Trouble& trouble) {
    const OnlyCounting counting;
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            if (rule.concern == Concern::safety || rule.level == Level::info || !rule.check(plan, report)) continue;
            if (rule.concern == Concern::statement)
                ++trouble.contradictions;
            else if (rule.level == Level::stop)
                ++trouble.stops;
            else if (!rule.quality)
                ++trouble.cautions;
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

}  // namespace

Trouble trouble_of(const plan::Plan& plan, const plan::Report& report) {
    Trouble trouble;
    count_notes(plan, report, trouble);
    trouble.worth = worth_of(plan, report).worth;
    count_hints(plan, report, trouble);
    return trouble;
}

double Trouble::net_worth() const {
    constexpr double caution = 0.1, hint = 0.03;
    return worth - caution * cautions - hint * hints;
}

bool is_less(const Trouble& then, const Trouble& now) {
    const auto edges = [](const Trouble& one) { return std::tie(one.contradictions, one.stops); };
    if (edges(then) != edges(now)) return edges(then) < edges(now);
    return then.net_worth() >= now.net_worth() + worth_offering;
}

bool is_better(const Trouble& one, const Trouble& other) {
    const auto edges = [](const Trouble& which) { return std::tie(which.contradictions, which.stops); };
    return edges(one) != edges(other) ? edges(one) < edges(other) : one.net_worth() > other.net_worth();
}

shoot::Shot put_right(const gear::Kit& kit, shoot::Shot shot, const shoot::Terms& terms,
                      const std::function<bool()>& go_on) {
    while (!go_on || go_on()) {
        const auto assessed = assessment_of(kit, shot, terms);
        const Note* best = nullptr;
        for (const Note& note : assessed.advice.notes) {
            if (!note.remedy || note.remedy->kit) continue;  // what has to be got first is no matter of a click
            const auto urgent = [](const Note& one) { return one.level == Level::stop; };
            if (!best || (urgent(note) == urgent(*best) && note.remedy->gain > best->remedy->gain)) best = &note;
        }
        if (!best) return shot;
        shot = shoot::Shot(best->remedy->shot);
    }
    return shot;
}

}  // namespace poquito::advice
