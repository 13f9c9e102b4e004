#pragma once

#include "proof/offers.hpp"
#include "shoot/shoot.hpp"

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

/// Exercises of ten minutes with what is at hand: what they are good for, what to lay out, the plan as shots, and what
/// their frames say of one's own gear and hands.
namespace poquito::practice {

/// The frames of one shot of an exercise, as they were looked at; null: none were.
struct Series {
    const shoot::Shot* shot = nullptr;
    std::shared_ptr<const proof::Inspection> inspection;
};

enum class Result {
    open,    // frames are missing
    passed,  // they show what they are to show
    failed   // they do not, and why
};
struct Fact {
    std::string name;
    std::string value;
    std::string remark = {};  // what it rests on, if that has to be said
};
/// What the numbers state of the gear, to be kept in its record.
struct Taught {
    std::string shot;    // whose frames they are, id
    proof::Offer offer;  // of light or of steps; steps of setting 0: nobody said which the camera was set to
};
struct Outcome {
    Result result = Result::open;
    std::string said;  // what the numbers say, what is missing, or what went wrong and how to do it again
    std::vector<Fact> facts;
    /// What the numbers state of the person, to be kept as theirs; empty: nothing.
    std::optional<shoot::Limits> limits;
    std::optional<Taught> taught;
    std::string keep;  // what a button says that keeps either: "Keep f/11 as your smallest stop"
};

struct Exercise {
    const char* id;    // "lean"
    const char* name;  // "A leaning rule at three stops"
    int grade;         // 1 to begin with, 3 last
    int minutes;
    const char* why;
    std::vector<const char*> lay_out;
    std::vector<const char*> trains;  // causes of the log that it helps against
    /// With gear of that kit, which has a camera and a lens. Each is a shot of its own; ids begin with
    /// "practice-" and the exercise's.
    std::vector<shoot::Shot> (*shots)(const gear::Kit& kit);
    /// As many series as shots, in their order.
    Outcome (*judge)(const gear::Kit& kit, const std::vector<Series>& series);
    int tries = 1;        // frames of each shot that it asks for
    bool hidden = false;  // the bench hides an error in its frames, to be found by looking through them
};
std::span<const Exercise> exercises();

/// The exercise that a shot is of, by its id; null: none.
const Exercise* exercise_of(const shoot::Shot& shot);

/// What to try next: of those that were not passed the one that helps against what went wrong most often, then the
/// lowest grade. `causes`: of the log, as often as they were found. Null: all are passed.
const Exercise* next_exercise(const std::vector<std::pair<std::string, int>>& causes,
                              const std::vector<std::string>& passed);

}  // namespace poquito::practice
