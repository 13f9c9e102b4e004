#include "advice/advice.hpp"

#include "advice/rules.hpp"
#include "plan/assess.hpp"
#include "text/scales.hpp"

#include <algorithm>

namespace poquito::advice {

bool moves(const shoot::Subject& subject) { return subject.speed > 0 || subject.sway_amplitude > 0; }

double mark_below(double f_number) {
    const double above = text::step_f_number(f_number, 1);
    return text::step_f_number(above, -1) <= f_number ? text::step_f_number(above, -1)
                                                      : text::step_f_number(f_number, -1);
}

namespace {

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report);

}  // namespace

Advice advise(const plan::Plan& plan, const plan::Report& report) {
    return {.checklist = make_checklist(plan, report), .notes = notes_on(plan, report)};
}

Advice advise(const gear::Kit& kit, const shoot::Shot& shot) {
    const plan::Plan plan = plan::plan_of(kit, shot);
    return advise(plan, plan::assess(plan));
}

Assessment assessment_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Limits& limits) {
    Assessment made{.plan = plan::plan_of(kit, shot, limits), .report = {}, .advice = {}};
    made.report = plan::assess(made.plan);
    made.advice = advise(made.plan, made.report);
    return made;
}

namespace {

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report) {
    std::vector<Note> notes;
    for (const auto rules :
         {reach_rules(), depth_rules(), stack_rules(), light_rules(), freeze_rules(), safety_rules()})
        for (const Rule& rule : rules) {
            auto finding = rule.check(plan, report);
            if (!finding) continue;
            notes.push_back(
                {.code = rule.code,
                 .station = rule.station,
                 .level = rule.level,
                 .concern = rule.concern,
                 .text = std::move(finding->text),
                 .remedy = finding->remedy ? std::make_shared<const Remedy>(std::move(*finding->remedy)) : nullptr});
        }
    std::ranges::stable_sort(notes, std::ranges::greater(), &Note::level);
    return notes;
}

}  // namespace
}  // namespace poquito::advice
