#pragma once

#include "advice/checklist.hpp"
#include "advice/stations.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <memory>
#include <string>
#include <vector>

/// What to make of a plan's facts: what to check, what speaks against it, what would mend it.
namespace poquito::advice {

enum class Level { info, caution, stop };

/// One change that answers a note: the shot as it would be.
struct Remedy {
    std::string label;
    shoot::Shot shot;
    std::shared_ptr<const gear::Kit> kit = {};  // null: as it is; else with a piece that has to be got
    double worth = 0;                           // of what it makes, where a note offers it
    double gain = 0;                            // and how much more than now that is
};
/// The shot with the remedy taken.
plan::Plan plan_with(const plan::Plan& now, const Remedy& remedy);

/// Safety notes stand apart: they are shown, but never make a station doubtful. `statement`: what was stated in two
/// places contradicts itself, so that nothing that follows from it can be trusted.
enum class Concern { plan, safety, statement };

struct Note {
    std::string code;
    Station station = Station::subject;
    Level level = Level::info;
    Concern concern = Concern::plan;
    std::string text;
    std::shared_ptr<const Remedy> remedy;               // null: nothing one click could do
    std::vector<std::shared_ptr<const Remedy>> others;  // the next best, two at most
};
/// What a note says in few words where it is usual at this magnification and nobody is surprised by it: "infinity is
/// lost". Null: it is not of that kind.
const char* usual_words(const Note& note);

/// Looking for remedies takes longer than all the rest: what only counts notes does without.
enum class Remedies { found, left_out };

struct Advice {
    Remedies remedies = Remedies::found;
    std::vector<ChecklistItem> checklist;
    std::vector<Note> notes;  // stops first, then cautions, then information, each in the order of work
};
Advice advise(const plan::Plan& plan, const plan::Report& report, Remedies remedies = Remedies::found);
Advice advise(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms);

/// A shot with all that is known of it: what every view and export reads. Kit and shot outlive it.
struct Assessment {
    plan::Plan plan;
    plan::Report report;
    Advice advice;
};
/// `terms`: of the shoot; the shot's own win.
Assessment assessment_of(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms,
                         Remedies remedies = Remedies::found);

}  // namespace poquito::advice
