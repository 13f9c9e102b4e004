#include "log/demo_year.hpp"

#include "log/record.hpp"
#include "text/scales.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <utility>

namespace poquito::log {
namespace {

/// Numbers that are the same on every machine (SplitMix64, Steele and others 2014).
class Dice {
  public:
    explicit Dice(unsigned seed) : state_(seed) {}
    double share() {
        state_ += 0x9e3779b97f4a7c15u;
        std::uint64_t z = state_;
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9u;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebu;
        return static_cast<double>((z ^ (z >> 31)) >> 11) / 9007199254740992.0;
    }
    int whole(int from, int to) { return from + static_cast<int>(share() * (to - from + 1)); }
    double about(double middle, double spread) {
        double sum = 0;
        for (int i = 0; i < 12; ++i) sum += share() - 0.5;
        return middle + spread * sum;
    }

  private:
    std::uint64_t state_;
};

constexpr const char* remark = "made up";

struct Day {
    int year, month, day;
    int minutes = 9 * 60;

    std::string now() const {
        return fmt::format("{}-{:02}-{:02}T{:02}:{:02}:00", year, month, day, minutes / 60 % 24, minutes % 60);
    }
};

class Year {
  public:
    Year(const shoot::Shoot& shoot, unsigned seed) : shoot_(shoot), dice_(seed) {}

    void work_on(Day& day) {
        const int shots = dice_.whole(3, 6);
        for (int k = 0; k < shots && shoot_.shots.size() > 0; ++k) {
            const auto& shot =
                shoot_.shots[static_cast<std::size_t>(dice_.whole(0, static_cast<int>(shoot_.shots.size()) - 1))];
            change(day, shot);
            take(day, shot);
        }
    }

    std::vector<Entry> entries;

  private:
    Entry& add(const Day& day, Kind kind, const shoot::Shot& shot) {
        auto& entry = entries.emplace_back(entry_for(shoot_, shot, {}));
        entry.kind = kind;
        entry.time = day.now();
        entry.uid = fmt::format("made-up:{}:{}", entries.size(), entry.time);
        entry.remark = remark;
        entry.place = shoot::has_trait(shot.subject, "outdoors") ? "Saltmarsh, outer bank" : "Saltmarsh, back room";
        if (shoot::has_trait(shot.subject, "outdoors")) entry.words = shot.name;
        return entry;
    }

    void change(Day& day, const shoot::Shot& shot) {
        constexpr const char* parts[] = {"light", "lens", "subject", "background"};
        constexpr double minutes[] = {6.5, 2.2, 3, 1};
        const auto part = static_cast<std::size_t>(dice_.whole(0, 3));
        auto& entry = add(day, Kind::change, shot);
        entry.what = parts[part];
        entry.minutes = minutes[part] * std::exp(dice_.about(0, 0.4));
        entry.plan.clear();
        day.minutes += static_cast<int>(std::ceil(*entry.minutes));
    }

    void take(Day& day, const shoot::Shot& shot) {
        const bool stack = shot.capture.mode == shoot::CaptureMode::stack;
        const int frames = stack ? dice_.whole(12, 40) : dice_.whole(1, 8);
        auto& run = add(day, Kind::run, shot);
        run.frames = frames;
        run.f_number = shot.exposure.f_number;
        run.value = frames, run.planned = frames;
        run.cadence = dice_.about(3, 0.4);
        run.minutes = *run.cadence * frames / 60;
        light(run, shot, frames);
        day.minutes += 2 + frames / 10;
        look(day, shot, frames, stack);
        const bool again = dice_.share() < (stack ? 0.3 : 0.1);
        if (again) {
            auto& second = add(day, Kind::run, shot);
            second.frames = frames, second.f_number = shot.exposure.f_number;
            second.value = frames, second.planned = frames, second.cadence = 3, second.minutes = frames * 3.0 / 60;
            day.minutes += 3 + frames / 10;
        }
        auto& proof = add(day, Kind::proof, shot);
        proof.frames = frames;
        const std::string place = proof.place;
        proof.verdict = dice_.share() < (stack ? 0.7 : 0.85) ? "keep" : "redo";
        proof.f_number = text::step_f_number(shot.exposure.f_number, dice_.share() < 0.3 ? 1 : 0);
        day.minutes += dice_.whole(2, 9);
        if (stack && dice_.share() < 0.4) {
            auto& work = add(day, Kind::change, shot);
            work.what = dice_.share() < 0.5 ? "sorting" : "combining";
            work.frames = frames;
            work.minutes = frames * (work.what == "sorting" ? 4 : 14) * std::exp(dice_.about(0, 0.3)) / 60;
            work.plan.clear();
        }
        for (std::size_t i = 0; i < shot.lights.size(); ++i)
            if (!shot.lights[i].reflector && dice_.share() < 0.4)
                entries.push_back([&] {
                    auto entry = correction_entry(shoot_, shot, {}, i,
                                                  dice_.about(shot.lights[i].modifier ? 0.3 : -0.2, 0.25), day.now());
                    entry.uid = fmt::format("made-up:{}:{}", entries.size() + 1, entry.time);
                    entry.remark = remark, entry.place = place;
                    entry.plan.clear();
                    return entry;
                }());
        const auto& subject = shot.subject;
        if (subject.speed > 0 || subject.sway_amplitude > 0 || shot.freeze) {
            auto& count = add(day, Kind::count, shot);
            count.tried = dice_.whole(20, 80);
            count.kept = static_cast<int>(std::clamp(dice_.about(0.25, 0.08), 0.0, 1.0) * *count.tried);
            count.plan.clear();
        }
    }

    /// A unit that keeps up with so many frames by its power.
    void light(Entry& run, const shoot::Shot& shot, int frames) {
        const auto flash =
            std::ranges::find_if(shot.lights, [](const auto& one) { return !one.off && !one.reflector && !one.lamp; });
        if (flash == shot.lights.end()) return;
        run.power = flash->power;
        const int store = static_cast<int>(std::max(1.0, dice_.about(1.4, 0.15) / flash->power.value_or(1)));
        run.held = std::min(store, frames);
    }

    /// What frames show: the camera creeps nearer over the year, and a light grows old.
    void look(const Day& day, const shoot::Shot& shot, int frames, bool stack) {
        auto& seen = add(day, Kind::inspection, shot);
        seen.frames = frames;
        seen.f_number = shot.exposure.f_number;
        seen.verdict = "keep";
        const double gone = (day.month - 1) / 12.0;
        seen.stops = dice_.about(-0.25 * gone, 0.05);
        seen.scale = 1 + dice_.about(0.03 * gone, 0.004);
        seen.off = std::abs(dice_.about(0.006, 0.004));
        constexpr const char* wrong[] = {"gap", "end_open", "shaken", "moved", "uneven", "clipped"};
        if (dice_.share() < 0.4) {
            const int cause = stack ? dice_.whole(0, 5) : 5;
            seen.causes = fmt::format("{} {}", wrong[cause], dice_.whole(1, 3));
            seen.verdict = "redo";
        }
        if (!stack) return;
        seen.what = "depth";
        seen.planned = shot.subject.depth;
        seen.value = shot.subject.depth * dice_.about(1.06, 0.05);
    }

    const shoot::Shoot& shoot_;
    Dice dice_;
};

}  // namespace

std::vector<Entry> demo_year(const shoot::Shoot& shoot, int year, unsigned seed) {
    Year made(shoot, seed);
    Dice days(seed + 1);
    for (int month = 1; month <= 12; ++month)
        for (const int from : {1, 11, 20}) {
            Day day{.year = year, .month = month, .day = from + days.whole(0, 8)};
            made.work_on(day);
        }
    return std::move(made.entries);
}

}  // namespace poquito::log
