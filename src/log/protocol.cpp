#include "log/protocol.hpp"

#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace poquito::log {
namespace {

/// What a session was planned as, and what of it came out.
struct Seen {
    std::string time;
    std::int64_t entry = 0;
    shoot::Shoot plan;
    double magnification = 0;
    std::optional<double> light;                  // stops that the picture is planned to come out at
    std::optional<double> stops, scale, framing;  // measured
};

std::optional<Seen> seen_in(const Entry& entry) {
    if (entry.plan.empty()) return std::nullopt;
    auto read = storage::read_shoot(entry.plan);
    if (!read || read->shots.empty()) return std::nullopt;
    const auto plan =
        plan::plan_of(read->kit, std::as_const(read->shots)[0], shoot::terms_of(*read, std::as_const(read->shots)[0]));
    const auto report = plan::assess(plan);
    return Seen{.time = entry.time,
                .entry = entry.id,
                .plan = std::move(*read),
                .magnification = plan.at.magnification,
                .light = report.light.front_total,
                .stops = entry.stops,
                .scale = entry.scale,
                .framing = entry.off};
}

const shoot::Shot& shot_in(const Seen& seen) { return seen.plan.shots[0]; }

std::optional<double> difference(const std::optional<double>& one, const std::optional<double>& other) {
    return one && other ? std::optional(*one - *other) : std::nullopt;
}

Session against(const Seen& now, const Seen& first, const std::vector<shoot::Lock>& locks) {
    Session session{
        .time = now.time,
        .entry = now.entry,
        .exposure = {},
        .scale = {},
        .framing = now.framing,
        .light = difference(now.light, first.light),
        .measured = now.stops || now.scale || now.framing,
        .otherwise = job::deviations_between(now.plan.kit, shot_in(now), first.plan.kit, shot_in(first), locks)};
    // What was measured in one of the two alone is no difference between them.
    if (session.light) session.exposure = *session.light + difference(now.stops, first.stops).value_or(0);
    const double measured = now.scale && first.scale ? *now.scale / *first.scale : 1;
    if (first.magnification > 0) session.scale = now.magnification / first.magnification * measured;
    return session;
}

std::string day_of(const std::string& time) { return time.substr(0, 10); }

/// From the first session of those at the end that are all off the same way; none where the last one is not.
template <typename Off>
void add_drift(Protocol& protocol, Off off, const char* up, const char* down, double unit, const char* unit_text) {
    const auto& sessions = protocol.sessions;
    if (sessions.size() < 2) return;
    const double last = off(sessions.back());
    if (std::abs(last) <= 1) return;
    std::size_t from = sessions.size() - 1;
    while (from > 1 && std::abs(off(sessions[from - 1])) > 1 && (off(sessions[from - 1]) > 0) == (last > 0)) --from;
    protocol.drifts.push_back({.text = fmt::format("{}{} {} since {}", text::number_text(std::abs(last) * unit, 2),
                                                   unit_text, last > 0 ? up : down, day_of(sessions[from].time)),
                               .since = day_of(sessions[from].time)});
}

std::vector<std::string> settings_of(const Seen& first) {
    const auto& shot = shot_in(first);
    const auto& kit = first.plan.kit;
    std::vector<std::string> lines;
    lines.push_back(fmt::format("{}, {}", shoot::camera_of(kit, shot).name, shoot::lens_of(kit, shot).name));
    for (const auto& id : shot.rig.tubes)
        if (const auto* tube = gear::find_gear(kit.tubes, id)) lines.back() += ", " + tube->name;
    const auto plan = plan::plan_of(kit, shot, shoot::terms_of(first.plan, shot));
    const auto report = plan::assess(plan);
    lines.push_back(fmt::format(
        "{}, subject to sensor {}{}", text::magnification_text(first.magnification),
        report.optics.subject_to_sensor ? text::length_text(*report.optics.subject_to_sensor)
                                        : std::string("not known"),
        shot.rig.inclination > 0 ? fmt::format(", looking down by {}\u00b0", text::number_text(shot.rig.inclination, 3))
                                 : std::string()));
    lines.push_back(text::exposure_text(shot.exposure.f_number, shot.exposure.shutter, shot.exposure.iso));
    for (std::size_t i = 0; i < shot.lights.size(); ++i) {
        const auto& light = shot.lights[i];
        if (light.off) continue;
        const char letter = static_cast<char>('A' + i % 26);
        if (light.reflector) {
            lines.push_back(
                fmt::format("{}: a card, {} from the subject", letter, text::length_text(light.position.distance)));
            continue;
        }
        const auto* modifier = shoot::modifier_of(kit, light);
        lines.push_back(fmt::format("{}: {}{} at {}, {} from the subject, {}\u00b0 round, {}\u00b0 up", letter,
                                    light.lamp ? shoot::lamp_of(kit, light).name : shoot::flash_of(kit, light).name,
                                    modifier ? " in " + modifier->name : std::string(),
                                    light.power ? text::power_text(*light.power) : std::string("automatic power"),
                                    text::length_text(light.position.distance),
                                    text::number_text(light.position.azimuth, 3),
                                    text::number_text(light.position.elevation, 3)));
    }
    if (shot.background)
        lines.push_back(fmt::format("Ground {} behind it", text::length_text(shoot::background_distance(shot))));
    return lines;
}

}  // namespace

Protocol protocol_of(const shoot::Shoot& shoot, std::size_t index, const std::vector<Entry>& entries) {
    const auto& shot = shoot.shots[index];
    Protocol protocol;
    protocol.name = shot.name;
    protocol.locks = job::series_locks(shoot, shot);
    auto locks = protocol.locks;
    if (locks.empty())
        for (int i = 0; i < shoot::locks; ++i) locks.push_back(static_cast<shoot::Lock>(i));
    // One a day: what was measured goes before what was run, the last of each.
    std::map<std::string, const Entry*> days;
    std::vector<const Entry*> sorted;
    for (const auto& entry : entries)
        if (entry.name == shot.name && (entry.kind == Kind::run || entry.kind == Kind::inspection))
            sorted.push_back(&entry);
    std::ranges::stable_sort(sorted, {}, [](const Entry* entry) { return entry->time; });
    for (const auto* entry : sorted) {
        auto& kept = days[day_of(entry->time)];
        if (!kept || kept->kind == Kind::run || entry->kind == Kind::inspection) kept = entry;
    }
    std::optional<Seen> first;
    for (const auto& [day, entry] : days) {
        auto seen = seen_in(*entry);
        if (!seen) continue;
        if (!first) {
            first = std::move(seen);
            protocol.settings = settings_of(*first);
            protocol.sessions.push_back(against(*first, *first, locks));
            continue;
        }
        protocol.sessions.push_back(against(*seen, *first, locks));
    }
    add_drift(
        protocol, [](const Session& s) { return s.exposure.value_or(0) / exposure_may; }, "lighter", "darker",
        exposure_may, " stops");
    add_drift(
        protocol, [](const Session& s) { return (s.scale.value_or(1) - 1) / scale_may; }, "larger", "smaller",
        scale_may * 100, " %");
    add_drift(
        protocol, [](const Session& s) { return s.framing.value_or(0) / framing_may; }, "off its place", "",
        framing_may * 100, " % of the frame");
    if (!protocol.sessions.empty())
        for (const auto& one : protocol.sessions.back().otherwise)
            protocol.drifts.push_back({.text = one.text, .since = day_of(protocol.sessions.back().time)});
    return protocol;
}

}  // namespace poquito::log
