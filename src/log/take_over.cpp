#include "log/take_over.hpp"

#include "log/record.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::log {
namespace {

using shoot::Shoot;
using shoot::Shot;

constexpr double noticed = 0.05;  // what differs by less is the same

/// What the day plans for it, s; null: it has no such price.
double* price_of(shoot::Workday& day, const std::string& what) {
    auto& prices = day.prices;
    const std::pair<const char*, double*> all[] = {
        {"camera", &prices.camera},         {"lens", &prices.lens},       {"tubes", &prices.tubes},
        {"light", &prices.light},           {"subject", &prices.subject}, {"turn", &prices.turn},
        {"background", &prices.background}, {"sorting", &day.sorting},    {"combining", &day.combining}};
    for (const auto& [name, price] : all)
        if (what == name) return price;
    return nullptr;
}

double seconds_of(const Lesson& lesson) {
    return lesson.topic == Topic::work ? std::round(lesson.value * 10) / 10 : std::round(lesson.value * 60);
}

/// The corrections of the unit that a lesson is of, in the shot's light of that modifier; null: it has none such.
std::vector<light::Correction>* corrections_of(const Lesson& lesson, Shoot& shoot, const Shot& shot) {
    for (const auto& light : shot.lights) {
        if (light.off || light.reflector) continue;
        const auto* modifier = shoot::modifier_of(shoot.kit, light);
        if ((modifier ? modifier->name : std::string()) != lesson.modifier) continue;
        if (light.lamp) {
            for (auto& lamp : shoot.kit.lamps)
                if (lamp.id == *light.lamp && lamp.name == lesson.unit) return &lamp.corrections;
        } else {
            for (auto& flash : shoot.kit.flashes)
                if (flash.id == light.flash && flash.name == lesson.unit) return &flash.corrections;
        }
    }
    return nullptr;
}

shoot::Light* flash_of(const Lesson& lesson, const Shoot& shoot, Shot& shot) {
    for (auto& light : shot.lights)
        if (!light.off && !light.reflector && !light.lamp && shoot::flash_of(shoot.kit, light).name == lesson.unit)
            return &light;
    return nullptr;
}

/// Sets it to be taken that way, by its words in entries.
void take_by(Shot& shot, const std::string& approach) {
    const bool stack = approach.starts_with("stack") || approach.starts_with("bursts");
    shot.capture.mode = stack ? shoot::CaptureMode::stack : shoot::CaptureMode::single;
    if (approach == "stack by ring") shot.capture.mover = shoot::Mover::ring;
    if (approach == "stack by rail") shot.capture.mover = shoot::Mover::rail;
    if (approach == "bursts by hand") shot.capture.mover = shoot::Mover::hand;
    if (approach == "single frames by hand") shot.rig.support = shoot::Support::hand;
    if (approach == "one frame" && shot.rig.support == shoot::Support::hand)
        shot.rig.support = shoot::Support::unstated;
    shot.capture.approach.reset();
}

std::optional<std::string> offer_for_shot(const Lesson& lesson, const Shoot& shoot, const Shot& shot) {
    switch (lesson.topic) {
        case Topic::stop: {
            const double stop = text::nearest_f_number(lesson.value);
            if (shoot::lens_of(shoot.kit, shot).name != lesson.lens) return std::nullopt;
            if (std::abs(shot.exposure.f_number / stop - 1) < noticed) return std::nullopt;
            return fmt::format("Plan {} for {}", text::f_number_text(stop), shot.name);
        }
        case Topic::depth:
            if (shoot::lens_of(shoot.kit, shot).name != lesson.lens || shot.subject.depth <= 0 ||
                shot.capture.mode != shoot::CaptureMode::stack || std::abs(lesson.value - 1) < noticed)
                return std::nullopt;
            return fmt::format("Plan {} as {} deep", shot.name, text::length_text(shot.subject.depth * lesson.value));
        case Topic::approach:
            if (approach_of(shot) == lesson.what) return std::nullopt;
            return fmt::format("Plan {} so", shot.name);
        case Topic::odds:
            if (shoot::tries_of(shot).tried > 0 || lesson.what != approach_of(shot)) return std::nullopt;
            return fmt::format("Begin the count of {} with these", shot.name);
        default:
            return std::nullopt;
    }
}

}  // namespace

std::optional<std::string> offer_of(const Lesson& lesson, const Shoot& shoot, std::size_t index,
                                    const std::string& subject_class) {
    if (lesson.topic == Topic::change || lesson.topic == Topic::work) {
        auto day = shoot.workday;
        const double* price = price_of(day, lesson.what);
        if (!price || std::abs(*price - seconds_of(lesson)) < noticed * *price) return std::nullopt;
        return lesson.topic == Topic::work ? fmt::format("Plan {} s a frame", text::number_text(seconds_of(lesson), 3))
                                           : fmt::format("Plan {} for it", text::time_text(seconds_of(lesson)));
    }
    if (index >= shoot.shots.size()) return std::nullopt;
    const Shot& shot = shoot.shots[index];
    if (lesson.topic == Topic::exposure) {
        auto own = shoot;
        const auto* corrections = corrections_of(lesson, own, shot);
        if (!corrections || !corrections->empty() || std::abs(lesson.value) < noticed) return std::nullopt;
        return fmt::format("Remember {} for {}", text::stops_text(lesson.value), lesson.unit);
    }
    if (lesson.topic == Topic::flash) {
        auto own = shot;
        const auto* light = flash_of(lesson, shoot, own);
        if (!light || !light->power || shot.capture.mode != shoot::CaptureMode::stack || lesson.what != "behind" ||
            fmt::format("{} at {}", lesson.unit, text::power_text(*light->power)) != lesson.about)
            return std::nullopt;
        return fmt::format("Half the power and double the ISO for {}", shot.name);
    }
    return lesson.subject_class == subject_class ? offer_for_shot(lesson, shoot, shot) : std::nullopt;
}

void take_over(const Lesson& lesson, Shoot& shoot, std::size_t index, const std::string& time) {
    if (lesson.topic == Topic::change || lesson.topic == Topic::work) {
        if (double* price = price_of(shoot.workday, lesson.what)) *price = seconds_of(lesson);
        return;
    }
    if (index >= shoot.shots.size()) return;
    if (lesson.topic == Topic::exposure) {
        const Shot shot = std::as_const(shoot.shots)[index];
        if (auto* corrections = corrections_of(lesson, shoot, shot))
            corrections->push_back({.stops = lesson.value, .time = time});
        return;
    }
    Shot& shot = shoot.shots[index];
    switch (lesson.topic) {
        case Topic::stop:
            shot.exposure.f_number = text::nearest_f_number(lesson.value);
            return;
        case Topic::depth:
            shot.subject.depth *= lesson.value;
            return;
        case Topic::approach:
            take_by(shot, lesson.what);
            return;
        case Topic::odds: {
            auto& tries = shoot::own_tries(shot);
            tries.tried = static_cast<int>(lesson.cases);
            tries.kept = static_cast<int>(std::lround(lesson.value * static_cast<double>(lesson.cases)));
            return;
        }
        case Topic::flash:
            if (auto* light = flash_of(lesson, shoot, shot); light && light->power)
                light->power = *light->power / 2, shot.exposure.iso *= 2;
            return;
        default:
            return;
    }
}

}  // namespace poquito::log
