#include "advice/advice.hpp"

#include "advice/rules/rules.hpp"
#include "advice/worth/moves.hpp"
#include "advice/worth/trouble.hpp"
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

std::array<std::span<const Rule>, 12> all_rules() {
    return {staging_rules(), camera_position_rules(), reach_rules(),  depth_rules(), stack_rules(), lapse_rules(),
            light_rules(),   direction_rules(),       freeze_rules(), limit_rules(), wish_rules(),  safety_rules()};
}

namespace {

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report, Remedies remedies);

}  // namespace

Advice advise(const plan::Plan& plan, const plan::Report& report, Remedies remedies) {
    return {.remedies = remedies, .checklist = make_checklist(plan, report), .notes = notes_on(plan, report, remedies)};
}

Advice advise(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms) {
    const plan::Plan plan = plan::plan_of(kit, shot, terms);
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

plan::Plan plan_with(const plan::Plan& now, const Remedy& remedy) {
    return plan::plan_of(remedy.kit ? *remedy.kit : now.kit, remedy.shot, now.terms);
}

Assessment assessment_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms, Remedies remedies) {
    Assessment made{.plan = plan::plan_of(kit, shot, terms), .report = {}, .advice = {}};
    made.report = plan::assess(made.plan);
    made.advice = advise(made.plan, made.report, remedies);
    return made;
}

namespace {

/// Takes the remedies that make it better.
class Pruning {
  public:
    Pruning(const plan::Plan& plan, const plan::Report& report) : plan_(plan), report_(report) {}

    /// Of all ways out those after which least is left, best first.
    std::vector<std::shared_ptr<const Remedy>> best_of(const Finding& finding, const std::optional<Quality>& quality) {
        struct Left {
            const Remedy* way;
            Trouble then;
        };
        std::vector<Left> found;
        for (const Remedy* way : ways_of(finding, quality)) {
            if (!has_dials_for(way->shot)) continue;
            const Trouble then = after(*way);
            // What a measure says is mended where the measure says so.
            const bool same_edges = then.contradictions == now().contradictions && then.stops == now().stops;
            if (quality && same_edges && then.worth < now().worth + worth_offering) continue;
            if (is_less(then, now())) found.push_back({way, then});
        }
        // Of two that are as good the one that was named first.
        std::ranges::stable_sort(found, [](const Left& a, const Left& b) { return is_better(a.then, b.then); });
        std::vector<std::shared_ptr<const Remedy>> made;
        for (const Left& left : found) {
            const auto is_said = [&](const auto& one) { return one->label == left.way->label; };
            if (made.size() == most_offered || std::ranges::any_of(made, is_said)) continue;
            auto remedy = std::make_shared<Remedy>(*left.way);
            remedy->worth = left.then.worth, remedy->gain = left.then.worth - now().worth;
            made.push_back(std::move(remedy));
        }
        return made;
    }

    const Worth& worth() {
        if (!worth_) worth_ = worth_of(plan_, report_);
        return *worth_;
    }

  private:
    static constexpr std::size_t most_offered = 3;

    std::vector<const Remedy*> ways_of(const Finding& finding, const std::optional<Quality>& quality) {
        std::vector<const Remedy*> ways;
        if (finding.remedy) ways.push_back(&*finding.remedy);
        for (const Way& way : finding.ways) ways.push_back(&way.remedy);
        if (!quality) return ways;
        // Of the moves that any shot has the best ones that give back what this note misses. Patience makes good odds
        // of bad ones: what gives those back gives time.
        const auto kept = [&](const Worth& one) {
            return one.kept(*quality) * (*quality == Quality::odds ? one.kept(Quality::time) : 1);
        };
        std::size_t moves = 0;
        for (const Move& move : all_moves())
            if (moves < most_offered && kept(move.worth) > kept(worth())) ways.push_back(&move.remedy), ++moves;
        return ways;
    }

    /// No remedy turns a dial past its end.
    bool has_dials_for(const shoot::Shot& shot) const {
        constexpr double top_iso = 102400, fastest = 1.0 / 8000, as_marked = 1.01;
        const auto &e = shot.exposure, &now = plan_.shot.exposure;
        if (e.iso > std::max(top_iso, now.iso) * as_marked) return false;
        if (e.shutter * as_marked < std::min(fastest, now.shutter)) return false;
        for (std::size_t i = 0; i < shot.lights.size(); ++i) {
            const auto& light = shot.lights[i];
            if (light.lamp || light.reflector || !light.power || light.off) continue;
            const double least = plan::source_of(plan_.kit, light).flash->scale.least;
            const auto was = i < plan_.shot.lights.size() ? plan_.shot.lights[i].power : std::nullopt;
            if (light.power != was && *light.power * as_marked < std::min(least, was.value_or(1))) return false;
        }
        return true;
    }
    const std::vector<Move>& all_moves() {
        if (!moves_) moves_ = moves_of(plan_, report_);
        return *moves_;
    }
    const Trouble& now() {
        if (!now_) now_ = trouble_of(plan_, report_);
        return *now_;
    }
    Trouble after(const Remedy& remedy) const {
        const plan::Plan then = plan_with(plan_, remedy);
        return trouble_of(then, plan::assess(then));
    }

    const plan::Plan& plan_;
    const plan::Report& report_;
    std::optional<Trouble> now_;
    std::optional<Worth> worth_;
    std::optional<std::vector<Move>> moves_;
};

/// So little is kept of what the note stands for that the picture would be of no use (MODEL 13). How plans compare goes
/// by worth all the same: it is a word to people, and no edge.
bool is_spoilt(const Rule& rule, Pruning& pruning) {
    constexpr double of_no_use = 0.3;
    return rule.level == Level::caution && rule.quality && pruning.worth().kept(*rule.quality) < of_no_use;
}

/// Nothing is warned of that nobody would see (MODEL 13). Odds are of all tries that there is time for: of one it is
/// told.
bool is_unnoticed(const Rule& rule, Pruning& pruning) {
    constexpr double as_good_as_all = 0.95;
    // What cannot be taken is not measured further.
    return rule.level == Level::caution && rule.quality && *rule.quality != Quality::odds &&
           pruning.worth().kept(Quality::possible) > 0 && pruning.worth().kept(*rule.quality) > as_good_as_all;
}

std::vector<Note> notes_on(const plan::Plan& plan, const plan::Report& report, Remedies remedies) {
    std::vector<Note> notes;
    std::optional<OnlyCounting> counting;
    if (remedies == Remedies::left_out) counting.emplace();
    Pruning pruning(plan, report);
    for (const auto rules : all_rules())
        for (const Rule& rule : rules) {
            auto finding = rule.check(plan, report);
            if (!finding || is_unnoticed(rule, pruning)) continue;
            Note note{.code = rule.code,
                      .station = rule.station,
                      .level = is_spoilt(rule, pruning) ? Level::stop : rule.level,
                      .concern = rule.concern,
                      .text = std::move(finding->text)};
            if (remedies == Remedies::found) {
                note.others = pruning.best_of(*finding, rule.quality);
                if (!note.others.empty()) {
                    note.remedy = std::move(note.others.front());
                    note.others.erase(note.others.begin());
                }
            }
            notes.push_back(std::move(note));
        }
    std::ranges::stable_sort(notes, std::ranges::greater(), &Note::level);
    return notes;
}

}  // namespace
}  // namespace poquito::advice
