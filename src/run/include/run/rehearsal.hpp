#pragma once

#include "devices/sim/world.hpp"
#include "run/journal.hpp"

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

/// A run with a mishap that whoever watches it does not know: what it was, when it was noticed, what it would have
/// cost.
namespace poquito::run {

/// A mishap as people say it.
struct MishapWords {
    devices::MishapKind kind;
    const char* id;     // "subject-moves", as devices::mishap_id
    const char* name;   // "the subject moves"
    const char* shows;  // what one sees of it while it runs
    bool told;          // the bench holds and says so
};
std::span<const MishapWords> mishap_words();
const MishapWords& words_of(devices::MishapKind kind);

/// What can happen to that run. `silent`: only what no device tells.
std::vector<devices::MishapKind> possible_mishaps(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan,
                                                  bool silent);

/// One of them, in the middle of the run, as large as it takes to spoil it and no larger: drawn by that number.
devices::Mishap draw_mishap(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan, std::uint64_t seed,
                            bool silent);
/// One that is wanted, so large.
devices::Mishap sized_mishap(const gear::Kit& kit, const shoot::Shot& shot, const RunPlan& plan,
                             devices::MishapKind kind, std::size_t frame);

/// Someone said or did something about it.
struct Noticed {
    std::size_t frame = 0;                         // that was being taken, or is meant
    std::optional<devices::MishapKind> taken_for;  // empty: that something was wrong
};

struct RehearsalReport {
    std::string happened;        // what, and where
    std::string noticed;         // when, by whom, and as what
    std::string cost;            // what it cost, and what it would have, found later
    std::string next;            // what would have shown it sooner
    bool in_time = false;        // before the run had ended, and not by the bench alone
    bool named = false;          // and as what it was
    std::size_t spoilt = 0;      // frames that are to be taken again as it was noticed
    double seconds = 0;          // that takes
    double seconds_at_home = 0;  // and had it been found with the set gone
};
/// `setup`: s to lay the shot out anew. `notices` in their order.
RehearsalReport report_rehearsal(const RunState& state, const devices::Mishap& mishap,
                                 const std::vector<Noticed>& notices, double setup);

/// Of a stack that is looked through afterwards: whether what is said of it is right.
struct Found {
    bool kind = false;
    bool place = false;  // within a frame of it
    std::string said;
};
Found judge_answer(const devices::Mishap& mishap, devices::MishapKind said, std::size_t frame);

}  // namespace poquito::run
