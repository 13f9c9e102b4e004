#include "shoot/advice.hpp"

#include <algorithm>

namespace poquito::shoot {

std::vector<Note> advise(const Plan& plan, const Report& report) {
    std::vector<Note> notes;
    for (const auto rules : {reach_rules(), depth_rules(), light_rules(), freeze_rules(), safety_rules()})
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

}  // namespace poquito::shoot
