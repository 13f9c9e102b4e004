#pragma once

#include "shoot/checklist.hpp"
#include "shoot/plan.hpp"
#include "shoot/report.hpp"
#include "shoot/stations.hpp"

#include <memory>
#include <string>
#include <vector>

/// What to make of a plan's facts: what to check, what speaks against it, what would mend it.
namespace poquito::shoot {

enum class Level { info, caution, stop };

/// One change that answers a note: the shot as it would be.
struct Remedy {
    std::string label;
    Shot shot;
};

/// Safety notes stand apart: they are shown, but never make a station doubtful.
enum class Concern { plan, safety };

struct Note {
    std::string code;
    Station station = Station::subject;
    Level level = Level::info;
    Concern concern = Concern::plan;
    std::string text;
    std::shared_ptr<const Remedy> remedy;  // null: nothing one click could do
};

struct Advice {
    std::vector<ChecklistItem> checklist;
    std::vector<Note> notes;  // stops first, then cautions, then information, each in the order of work
};
Advice advise(const Plan& plan, const Report& report);
Advice advise(const Kit& kit, const Shot& shot);

/// A shot with all that is known of it: what every view and export reads. Kit and shot outlive it.
struct Assessment {
    Plan plan;
    Report report;
    Advice advice;
};
Assessment assessment_of(const Kit& kit, const Shot& shot);

}  // namespace poquito::shoot
