#include "log/diff.hpp"

#include "log/record.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

namespace poquito::log {
namespace {

using shoot::Shoot;
using shoot::Shot;

const Shot* find(const Shoot& shoot, const std::string& id) {
    for (const Shot& shot : shoot.shots)
        if (shot.id == id) return &shot;
    return nullptr;
}

/// Those of `now` that `before` has not.
template <typename Record>
std::vector<Record> added(const std::vector<Record>& before, const std::vector<Record>& now) {
    std::vector<Record> all;
    for (const auto& one : now)
        if (std::ranges::find(before, one) == before.end()) all.push_back(one);
    return all;
}

class Between {
  public:
    Between(const Shoot& before, const Shoot& now, const ClassOf& class_of, const std::string& time)
        : before_(before), now_(now), class_of_(class_of), time_(time) {}

    void of_shot(const Shot& shot) {
        const Shot* had = find(before_, shot.id);
        if (!had) return;  // a copy brings along what was written of the first
        for (const auto& run : shoot::runs_of(now_.runs, shot.id)) {
            const auto& runs = shoot::runs_of(before_.runs, shot.id);
            const bool known = std::ranges::any_of(runs, [&](const auto& one) { return one->id == run->id; });
            if (!known && !run->frames.empty()) entries.push_back(run_entry(now_, shot, class_of_(shot), *run));
        }
        for (const auto& proof : added(had->proof, shot.proof))
            entries.push_back(proof_entry(now_, shot, class_of_(shot), proof));
        const auto &tries = shoot::tries_of(shot), &had_tries = shoot::tries_of(*had);
        if (tries.tried > had_tries.tried && tries.kept >= had_tries.kept)
            entries.push_back(count_entry(now_, shot, class_of_(shot), tries.kept - had_tries.kept,
                                          tries.tried - had_tries.tried, time_));
    }

    /// What the kit learned while that shot was worked on: of it where it has that piece, else of the first that has.
    void of_kit(const std::string& worked_on) {
        of_lights(before_.kit.flashes, now_.kit.flashes, worked_on,
                  [](const shoot::Light& light) { return light.lamp ? std::string() : light.flash; });
        of_lights(before_.kit.lamps, now_.kit.lamps, worked_on,
                  [](const shoot::Light& light) { return light.lamp.value_or(std::string()); });
        for (const auto& camera : now_.kit.cameras) {
            const auto* had = gear::find_gear(before_.kit.cameras, camera.id);
            if (!had) continue;
            for (const auto& reading : added(had->step_readings, camera.step_readings))
                of_steps(camera, reading, worked_on);
        }
    }

    std::vector<Entry> entries;

  private:
    /// The shot worked on, or else the first, that is so.
    template <typename Is>
    const Shot* shot_that(const std::string& worked_on, const Is& is) const {
        const Shot* first = nullptr;
        for (const Shot& shot : now_.shots) {
            if (!is(shot)) continue;
            if (shot.id == worked_on) return &shot;
            if (!first) first = &shot;
        }
        return first;
    }

    template <typename Unit, typename IdOf>
    void of_lights(const std::vector<Unit>& before, const std::vector<Unit>& now, const std::string& worked_on,
                   const IdOf& id_of) {
        for (const Unit& unit : now) {
            const auto* had = gear::find_gear(before, unit.id);
            const auto fresh = had ? added(had->corrections, unit.corrections) : std::vector<light::Correction>();
            if (fresh.empty()) continue;
            const auto is = [&](const shoot::Light& light) { return !light.reflector && id_of(light) == unit.id; };
            const auto* shot =
                shot_that(worked_on, [&](const Shot& one) { return std::ranges::any_of(one.lights, is); });
            if (!shot) continue;
            const auto light = static_cast<std::size_t>(std::ranges::find_if(shot->lights, is) - shot->lights.begin());
            for (const auto& one : fresh)
                entries.push_back(correction_entry(now_, *shot, class_of_(*shot), light, one.stops,
                                                   one.time.empty() ? time_ : one.time));
        }
    }

    void of_steps(const gear::Camera& camera, const gear::StepReading& reading, const std::string& worked_on) {
        const auto* shot = shot_that(
            worked_on, [&](const Shot& one) { return one.rig.camera == camera.id && one.rig.lens == reading.lens; });
        if (!shot) return;
        auto entry = entry_for(now_, *shot, class_of_(*shot));
        entry.kind = Kind::calibration;
        entry.what = "steps";
        entry.time = reading.time.empty() ? time_ : reading.time;
        entry.value = reading.travel / std::max(1.0, reading.frames - 1);  // mm from plane to plane
        entry.magnification = reading.magnification;
        entry.f_number = reading.f_number;
        entry.uid = fmt::format("calibration:{}:{}:{}", camera.id, reading.lens, entry.time);
        entries.push_back(std::move(entry));
    }

    const Shoot& before_;
    const Shoot& now_;
    const ClassOf& class_of_;
    const std::string& time_;
};

}  // namespace

std::vector<Entry> entries_between(const Shoot& before, const Shoot& now, const std::string& shot,
                                   const std::string& time, const ClassOf& class_of) {
    Between between(before, now, class_of, time);
    for (const Shot& one : now.shots) between.of_shot(one);
    if (before.kit != now.kit) between.of_kit(shot);
    return std::move(between.entries);
}

}  // namespace poquito::log
