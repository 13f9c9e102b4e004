#include "shoot/advice.hpp"

#include "shoot/assess.hpp"
#include "shoot/rules.hpp"
#include "shoot/scales.hpp"

#include <algorithm>

namespace poquito::shoot {

bool moves(const Subject& subject) { return subject.speed > 0 || subject.sway_amplitude > 0; }

double mark_below(double f_number) {
    const double above = step_f_number(f_number, 1);
    return step_f_number(above, -1) <= f_number ? step_f_number(above, -1) : step_f_number(f_number, -1);
}

namespace {

std::vector<Note> notes_on(const Plan& plan, const Report& report);

}  // namespace

Advice advise(const Plan& plan, const Report& report) {
    return {.checklist = make_checklist(plan, report), .notes = notes_on(plan, report)};
}

Advice advise(const Kit& kit, const Shot& shot) {
    const Plan plan = plan_of(kit, shot);
    return advise(plan, assess(plan));
}

Assessment assessment_of(const Kit& kit, const Shot& shot) {
    Assessment made{.plan = plan_of(kit, shot), .report = {}, .advice = {}};
    made.report = assess(made.plan);
    made.advice = advise(made.plan, made.report);
    return made;
}

namespace {

std::vector<Note> notes_on(const Plan& plan, const Report& report) {
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
}  // namespace poquito::shoot
