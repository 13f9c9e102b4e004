#pragma once

#include "advice/advice.hpp"
#include "advice/worth/worth.hpp"
#include "shoot/terms.hpp"

#include <array>
#include <optional>
#include <span>
#include <string>
#include <vector>

/// The rules of advice.hpp: one small named rule a row. To add one, write its condition in rules/*.cpp and give it a
/// row there.
namespace poquito::advice {

/// One way out, and what it gives up.
struct Way {
    shoot::Loss gives_up = shoot::Loss::time;
    Remedy remedy;
};

/// What a rule has to say when it fires. Of its ways out the note takes the one that gives up what goes first in the
/// person's order; a remedy that gives up nothing goes before them. None is taken that does not lower the trouble
/// (trouble.hpp).
struct Finding {
    std::string text;
    std::optional<Remedy> remedy = {};
    std::vector<Way> ways = {};
};

struct Rule {
    const char* code;  // stable: files and scripts may look for it
    Station station;
    Level level;
    Concern concern;
    std::optional<Finding> (*check)(const plan::Plan& plan, const plan::Report& report);
    std::optional<Quality> quality = {};  // that it says the loss of: any move that gives it back is a way out
};

std::span<const Rule> reach_rules();
std::span<const Rule> depth_rules();
std::span<const Rule> stack_rules();
std::span<const Rule> light_rules();
std::span<const Rule> direction_rules();
std::span<const Rule> freeze_rules();
std::span<const Rule> safety_rules();
std::span<const Rule> limit_rules();
std::span<const Rule> staging_rules();
std::span<const Rule> camera_position_rules();
std::span<const Rule> lapse_rules();
std::span<const Rule> wish_rules();
std::array<std::span<const Rule>, 12> all_rules();  // in the order of work

/// While one lives on this thread rules are only counted: what takes long and only finds a remedy is left out.
class OnlyCounting {
  public:
    OnlyCounting() { ++depth_; }
    ~OnlyCounting() { --depth_; }
    OnlyCounting(const OnlyCounting&) = delete;
    OnlyCounting& operator=(const OnlyCounting&) = delete;
    static bool now() { return depth_ > 0; }

  private:
    static inline thread_local int depth_ = 0;
};

bool moves(const shoot::Subject& subject);

/// The highest ISO that camera, purpose and person allow; where none is stated the scale's end.
double highest_iso(const plan::Plan& plan);

/// Shutter times `stops` shorter (negative: longer) with what pays for it: ISO, a wider stop, or both; and, for a frame
/// that is to be brighter by so many stops, the same without the shorter time. Each stays within the limits; those that
/// would not are missing. Of shots whose light stays on; flashes find their own power.
std::vector<Way> shorter_time(const plan::Plan& plan, double stops);
std::vector<Way> brighter(const plan::Plan& plan, double stops);

/// Where the plane of focus lies inside the rig: the same rig zoomed longer, or with a tube less, at what it then
/// reaches; those that get clear of it.
std::vector<Remedy> clear_of_lens(const plan::Plan& plan);

/// The largest mark of the nominal scale not above `f_number`; sparing the scale's rounding (f/22 is 22.6).
double mark_below(double f_number);

/// A remedy that is the plan's shot with one change.
template <typename Change>
Remedy remedy(const plan::Plan& plan, std::string label, Change change) {
    Remedy made{.label = std::move(label), .shot = plan.shot};
    change(made.shot);
    return made;
}

}  // namespace poquito::advice
