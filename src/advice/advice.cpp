#include "advice/advice.hpp"

#include "advice/rules.hpp"
#include "advice/trouble.hpp"
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

std::array<std::span<const Rule>, 11> all_rules() {
    return {staging_rules(), standing_rules(),  reach_rules(),  depth_rules(), stack_rules(), lapse_rules(),
            light_rules(),   direction_rules(), freeze_rules(), limit_rules(), safety_rules()};
}

namespace {

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report, Remedies remedies);

}  // namespace

Advice advise(const plan::Plan& plan, const plan::Report& report, Remedies remedies) {
    return {.remedies = remedies, .checklist = make_checklist(plan, report), .notes = notes_on(plan, report, remedies)};
}

Advice advise(const gear::Kit& kit, const shoot::Shot& shot) {
    const plan::Plan plan = plan::plan_of(kit, shot);
    return advise(plan, plan::assess(plan));
}

const char* usual_words(const Note& note) {
    constexpr std::pair<const char*, const char*> words[] = {
        {"infinity-lost", "infinity is lost"},
        {"working-aperture", "less light than marked"},
        {"tubes-keep-focal-length", "tubes keep the focal length"},
        {"diffraction-over-limit", "finest contrast lost to diffraction"},
        {"best-stop-outside-lens", "the best single stop is not on the lens"},
        {"rig-length", "a long front"},
        {"measured-lens", "a measured lens"},
    };
    const auto found = std::ranges::find(words, note.code, [](const auto& one) { return std::string(one.first); });
    return note.level == Level::info && found != std::end(words) ? found->second : nullptr;
}

Assessment assessment_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Limits& limits,
                         Remedies remedies) {
    Assessment made{.plan = plan::plan_of(kit, shot, limits), .report = {}, .advice = {}};
    made.report = plan::assess(made.plan);
    made.advice = advise(made.plan, made.report, remedies);
    return made;
}

namespace {

/// Takes the remedies that make it better.
class Pruning {
  public:
    Pruning(const plan::Plan& plan, const plan::Report& report) : plan_(plan), report_(report) {}

    std::shared_ptr<const Remedy> best_of(Finding& finding) {
        if (finding.remedy && helps(*finding.remedy)) return kept(*finding.remedy);
        const auto order = shoot::giving_up(plan_.limits);
        const auto place = [&](const Way& way) { return std::ranges::find(order, way.gives_up) - order.begin(); };
        std::ranges::stable_sort(finding.ways, {}, place);
        for (Way& way : finding.ways)
            if (helps(way.remedy)) return kept(way.remedy);
        return nullptr;
    }

  private:
    static std::shared_ptr<const Remedy> kept(Remedy& remedy) {
        return std::make_shared<const Remedy>(std::move(remedy));
    }
    bool helps(const Remedy& remedy) {
        if (!now_) now_ = trouble_of(plan_, report_);
        const plan::Plan then = plan::plan_of(plan_.kit, remedy.shot, plan_.limits);
        return lowers(then, plan::assess(then), *now_);
    }

    const plan::Plan& plan_;
    const plan::Report& report_;
    std::optional<Trouble> now_;
};

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report, Remedies remedies) {
    std::vector<Note> notes;
    std::optional<OnlyCounting> counting;
    if (remedies == Remedies::left_out) counting.emplace();
    Pruning pruning(plan, report);
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            auto finding = rule.check(plan, report);
            if (!finding) continue;
            notes.push_back({.code = rule.code,
                             .station = rule.station,
                             .level = rule.level,
                             .concern = rule.concern,
                             .text = std::move(finding->text),
                             .remedy = remedies == Remedies::found ? pruning.best_of(*finding) : nullptr});
        }
    std::ranges::stable_sort(notes, std::ranges::greater(), &Note::level);
    return notes;
}

}  // namespace
}  // namespace poquito::advice
