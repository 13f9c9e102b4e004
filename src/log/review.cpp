#include "log/review.hpp"

#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>
#include <utility>

namespace poquito::log {
namespace {

/// Minutes after midnight.
double clock_of(const std::string& time) {
    constexpr std::size_t begins = 11;  // "2026-11-28T09:40:00"
    int hour = 0, minute = 0;
    if (time.size() <= begins || std::sscanf(time.c_str() + begins, "%2d:%2d", &hour, &minute) != 2) return 0;
    return hour * 60 + minute;
}

struct CauseRow {
    const char* cause;
    const char* text;
    const char* otherwise;
};
/// What is said of each, and what a practised one would do (common practice).
constexpr CauseRow rows[] = {
    {"gap", "Gaps in the stack", "Let frames overlap by a tenth more: a few frames cost less than a stack with a gap."},
    {"end_open", "The stack begins or ends too late",
     "Begin one frame before the nearest point and end one behind the farthest."},
    {"moved", "Something moved between frames",
     "Fire from afar, wait longer after each move, and keep off table and floor while it runs."},
    {"shaken", "Shaken frames", "Wait longer after each move, mirror first, or let a flash make the exposure."},
    {"blurred", "Not sharp where it should be",
     "Focus enlarged on the place that matters, and look at one test frame at full size before the rest."},
    {"uneven", "Light that changed from frame to frame",
     "Leave the unit more time, or less power and more ISO; shut the window's light out."},
    {"settings", "A setting that drifted", "Everything by hand before the first frame: stop, time, ISO, flash, white."},
    {"clipped", "Burnt highlights",
     "Test the brightest place first; give a third of a stop less light, or enlarge the source."},
    {"background", "A ground that is not as planned", "Test the ground alone, without the subject's light, first."},
    {"colour", "Colour that changed", "One white balance for all of a set, and one kind of light."},
    {"order", "Frames out of order", "Let files count on, and set the camera's clock."},
    {"missing", "Frames missing", "Leave the card more time: an interval longer than it takes to write."},
    {"size", "Frames of another size", "Set size and form of files before the first frame, and lock the dial."},
    {"unreadable", "Files that cannot be read", "Change the card, and copy from it once more before it is wiped."},
    {"flash", "The flash fell behind", "Half the power and double the ISO, or a longer interval."},
    {"light", "Light off its record", "Take over what the unit really gave: it stands in What it teaches."},
    {"change", "Changes slower than planned",
     "Plan with the times they really took, or order the shots so that less is changed."},
    {"broken", "Runs that broke off",
     "Go by the checklist for card, charge and cables: each could have been seen before the run."},
    {"chance", "Tries that missed",
     "Stop at the count where the next one costs more than it is worth, or take another way."},
};

const CauseRow* row_of(const std::string& cause) {
    for (const auto& row : rows)
        if (cause == row.cause) return &row;
    return nullptr;
}

/// "gap 2, shaken 1".
std::vector<std::pair<std::string, int>> causes_in(const std::string& text) {
    std::vector<std::pair<std::string, int>> all;
    std::size_t at = 0;
    while (at < text.size()) {
        const auto end = std::min(text.find(", ", at), text.size());
        const auto one = text.substr(at, end - at);
        const auto space = one.rfind(' ');
        int often = 1;
        if (space != std::string::npos) std::sscanf(one.c_str() + space, "%d", &often);
        all.emplace_back(one.substr(0, space), often);
        at = end + 2;
    }
    return all;
}

class Look {
  public:
    Look(std::vector<const Entry*> entries, const std::vector<std::pair<std::string, double>>& prices)
        : entries_(std::move(entries)), prices_(prices) {}

    void see(Review& review) {
        for (const auto* entry : entries_) {
            switch (entry->kind) {
                case Kind::run:
                    see_run(review, *entry);
                    break;
                case Kind::change:
                    see_change(review, *entry);
                    break;
                case Kind::correction:
                    if (constexpr double seen = 1.0 / 3; std::abs(entry->stops.value_or(0)) > seen)
                        add("light", entry->name, 1, test_frame);
                    break;
                case Kind::count:
                    if (const int missed = entry->tried.value_or(0) - entry->kept.value_or(0); missed > 0)
                        add("chance", entry->name, missed, entry->minutes.value_or(0));
                    break;
                case Kind::inspection:
                    see_inspection(*entry);
                    break;
                default:
                    break;
            }
        }
        spread_again();
        for (auto& [name, cause] : causes_) review.causes.push_back(std::move(cause));
        std::ranges::stable_sort(review.causes, [](const ReviewedCause& a, const ReviewedCause& b) {
            return a.minutes != b.minutes ? a.minutes > b.minutes : a.often > b.often;
        });
        constexpr std::size_t most = 3;
        for (const auto& cause : review.causes)
            if (review.otherwise.size() < most) review.otherwise.push_back(cause.otherwise);
    }

  private:
    static constexpr double test_frame = 1;  // minutes that one takes with a look at it (common practice)

    ReviewedCause& add(const std::string& cause, const std::string& shot, int often, double minutes) {
        auto& found = causes_[cause];
        if (found.cause.empty()) {
            const auto* row = row_of(cause);
            found.cause = cause;
            found.text = row ? row->text : cause;
            found.otherwise = row ? row->otherwise : "";
        }
        found.often += often;
        found.minutes += minutes;
        if (std::ranges::count(found.shots, shot) == 0) found.shots.push_back(shot);
        return found;
    }

    void see_run(Review& review, const Entry& entry) {
        const double minutes = entry.minutes.value_or(0);
        review.running += minutes;
        // All but its first whole run was a second time.
        const bool again = done_[entry.shot] > 0;
        const bool broken = entry.what == "broken off";
        if (broken)
            add("broken", entry.name, 1, minutes);
        else
            ++done_[entry.shot];
        if (again && !broken) again_[entry.shot] += minutes;
        if (entry.held && entry.frames && *entry.held < *entry.frames)
            add("flash", entry.name, *entry.frames - *entry.held, 0), wrong_[entry.shot]["flash"] += 1;
    }

    void see_change(Review& review, const Entry& entry) {
        const double minutes = entry.minutes.value_or(0);
        if (entry.frames) return;  // work on frames, after the day
        review.changing += minutes;
        for (const auto& [what, price] : prices_) {
            if (what != entry.what) continue;
            review.planned_changing += price;
            if (constexpr double slower = 1.25; minutes > price * slower) {
                auto& cause = add("change", entry.name, 1, minutes - price);
                slow_[what] += minutes - price;
                const auto worst = std::ranges::max_element(slow_, {}, [](const auto& one) { return one.second; });
                cause.text = fmt::format("Changes slower than planned, most of all: {}", worst->first);
            }
        }
    }

    void see_inspection(const Entry& entry) {
        for (const auto& [cause, often] : causes_in(entry.causes)) {
            add(cause, entry.name, often, 0);
            wrong_[entry.shot][cause] += often;
        }
    }

    /// What was taken again was taken again for what was found wrong with it: by how often.
    void spread_again() {
        for (const auto& [shot, minutes] : again_) {
            const auto wrong = wrong_.find(shot);
            if (wrong == wrong_.end()) continue;
            int all = 0;
            for (const auto& [cause, often] : wrong->second) all += often;
            for (const auto& [cause, often] : wrong->second) causes_[cause].minutes += minutes * often / all;
        }
    }

    std::vector<const Entry*> entries_;  // oldest first
    const std::vector<std::pair<std::string, double>>& prices_;
    std::map<std::string, ReviewedCause> causes_;
    std::map<std::string, int> done_;                          // whole runs, by shot
    std::map<std::string, double> again_;                      // minutes of those after the first
    std::map<std::string, std::map<std::string, int>> wrong_;  // by shot and cause
    std::map<std::string, double> slow_;                       // minutes too many, by change
};

ReviewedShot& shot_of(Review& review, std::map<std::string, std::size_t>& places, const Entry& entry,
                      const std::vector<PlannedShot>& planned) {
    const auto [place, fresh] = places.try_emplace(entry.shot, review.shots.size());
    if (fresh) {
        auto& made = review.shots.emplace_back();
        made.name = entry.name;
        const auto plan = std::ranges::find(planned, entry.shot, &PlannedShot::shot);
        if (plan != planned.end())
            made.name = plan->name, made.planned_frames = plan->frames, made.planned_minutes = plan->minutes;
    }
    return review.shots[place->second];
}

}  // namespace

Review review_of(const std::vector<Entry>& entries, const std::vector<PlannedShot>& planned,
                 const std::vector<std::pair<std::string, double>>& prices) {
    Review review;
    std::vector<const Entry*> sorted;
    sorted.reserve(entries.size());
    for (const auto& entry : entries) sorted.push_back(&entry);
    std::ranges::stable_sort(sorted, {}, [](const Entry* entry) { return entry->time; });
    if (sorted.empty()) return review;
    constexpr std::size_t date = 10;
    review.shoot = sorted.front()->shoot;
    review.day = sorted.front()->time.substr(0, date);
    review.begin = clock_of(sorted.front()->time), review.end = clock_of(sorted.back()->time);
    std::map<std::string, std::size_t> places;
    for (const auto* entry : sorted) {
        if (entry->kind != Kind::run && entry->kind != Kind::proof && entry->kind != Kind::count) continue;
        auto& shot = shot_of(review, places, *entry, planned);
        if (entry->kind == Kind::run) {
            ++shot.runs;
            shot.frames += entry->frames.value_or(0);
            shot.minutes += entry->minutes.value_or(0);
        } else if (entry->kind == Kind::count) {
            shot.frames = std::max(shot.frames, entry->tried.value_or(0));
        } else {
            shot.verdict = entry->verdict;
        }
        if (entry->f_number) shot.f_number = entry->f_number;
        if (!shot.planned_f_number) shot.planned_f_number = entry->planned_f_number;
    }
    for (const auto& plan : planned)
        if (!places.contains(plan.shot))
            review.shots.push_back(
                {.name = plan.name, .planned_frames = plan.frames, .planned_minutes = plan.minutes, .verdict = {}});
    for (const auto& shot : review.shots) {
        review.kept += shot.verdict == "keep" ? 1 : 0;
        review.redone += shot.verdict == "redo" ? 1 : 0;
        review.open += shot.verdict.empty() ? 1 : 0;
    }
    Look(std::move(sorted), prices).see(review);
    return review;
}

}  // namespace poquito::log
