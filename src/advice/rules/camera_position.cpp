#include "plan/set/camera_position.hpp"
#include "advice/rules/rules.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <string>

/// Where the camera stands, and on what.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

/// Another stand of the kit on which `fits` is true; null: none.
const gear::Stand* other_stand(const plan::Plan& plan, const plan::Report& report,
                               const std::function<bool(const plan::OnStand& on)>& fits) {
    for (const auto& stand : plan.kit.stands) {
        if (stand.id == plan.shot.rig.stand) continue;
        auto shot = plan.shot;
        shot.rig.stand = stand.id;
        const auto standing = plan::report_camera_position(plan::plan_of(plan, shot), report);
        if (standing.stand && fits(*standing.stand)) return &stand;
    }
    return nullptr;
}
std::optional<Remedy> take_stand(const plan::Plan& plan, const gear::Stand* stand) {
    if (!stand) return std::nullopt;
    return remedy(plan, fmt::format("Take {}", stand->name), [&](shoot::Shot& shot) { shot.rig.stand = stand->id; });
}
const gear::Stand& stand_of(const plan::Plan& plan) { return *gear::find_gear(plan.kit.stands, *plan.shot.rig.stand); }
bool reaches(const plan::OnStand& on) {
    return !(on.too_high > 0) && !(on.too_low > 0) && on.legs_free.value_or(0) >= 0;
}

/// What hangs over food, people and glass is tied twice.
Found camera_overhead(const plan::Plan& plan, const plan::Report&) {
    constexpr double overhead = 60;
    const auto& subject = plan.shot.subject;
    const bool below = has_trait(subject, "food") || has_trait(subject, "person") || has_trait(subject, "living") ||
                       has_trait(subject, "breakable");
    if (plan.shot.rig.inclination < overhead || !below || plan.shot.rig.support == shoot::Support::hand) return {};
    return Finding{
        "The camera hangs over what it takes: a second line to it and to the lens, a counterweight on the arm "
        "beyond its foot, sandbags, and nobody's hands below while it is moved. House rules and the arm's "
        "stated load go first."};
}

/// On the ground, the lowest that a tripod goes is often too high.
Found stand_too_high(const plan::Plan& plan, const plan::Report& report) {
    const auto& on = report.camera_position.stand;
    if (!on || !(on->too_high > 0)) return {};
    Finding finding{fmt::format(
        "{} goes no lower than {}; the camera has to be at {}: legs spread flat, the column level or upside down, a "
        "bean bag, or the subject {} higher.",
        stand_of(plan).name, text::length_text(stand_of(plan).least),
        text::length_text(*report.camera_position.over_floor), text::length_text(on->too_high))};
    finding.remedy = take_stand(plan, other_stand(plan, report, reaches));
    return finding;
}

Found stand_too_low(const plan::Plan& plan, const plan::Report& report) {
    const auto& on = report.camera_position.stand;
    if (!on || !(on->too_low > 0)) return {};
    Finding finding{fmt::format(
        "{} ends {} too low: the camera has to be {} over the floor. A lower table, or a shorter lens from nearer.",
        stand_of(plan).name, text::length_text(on->too_low), text::length_text(*report.camera_position.over_floor))};
    finding.remedy = take_stand(plan, other_stand(plan, report, reaches));
    if (!finding.remedy) {
        const auto table = shoot::table_of(plan.shot);
        if (const double height = std::floor(table.height - on->too_low); height >= 0)
            finding.remedy = remedy(
                plan,
                height > 0 ? fmt::format("Table {} high", text::length_text(height)) : std::string("On the floor"),
                [&](shoot::Shot& shot) {
                    if (!shot.table) shot.table = shoot::table_of(shot);
                    shot.table->height = height;
                });
    }
    return finding;
}

Found legs_meet_table(const plan::Plan& plan, const plan::Report& report) {
    const auto& on = report.camera_position.stand;
    if (!on || !on->legs_free || *on->legs_free >= 0) return {};
    Finding finding{fmt::format(
        "The legs of {} meet the table's edge: they stand {} too near. One leg under the table and the others drawn "
        "in, the subject {} nearer to the edge, an arm, or a longer lens from further away.",
        stand_of(plan).name, text::length_text(-*on->legs_free), text::length_text(-*on->legs_free))};
    finding.remedy = take_stand(plan, other_stand(plan, report, reaches));
    if (!finding.remedy && plan.shot.table->before) {
        const double before = std::floor(*plan.shot.table->before + *on->legs_free);
        if (before >= plan.shot.subject.depth / 2)
            finding.remedy = remedy(plan, fmt::format("{} from the edge", text::length_text(before)),
                                    [&](shoot::Shot& shot) { shot.table->before = before; });
    }
    return finding;
}

Found stand_overloaded(const plan::Plan& plan, const plan::Report& report) {
    const auto& on = report.camera_position.stand;
    if (!on || !on->carried || !stand_of(plan).carries || *on->carried <= *stand_of(plan).carries) return {};
    Finding finding{fmt::format("Camera and lens weigh {} kg, {} carries {}: it gives under them, or comes down.",
                                text::number_text(*on->carried, 2), stand_of(plan).name,
                                text::number_text(*stand_of(plan).carries, 2))};
    finding.remedy = take_stand(plan, other_stand(plan, report, [&](const plan::OnStand& other) {
                                    return reaches(other) && !(other.bag > 0);
                                }));
    return finding;
}

Found top_heavy(const plan::Plan& plan, const plan::Report& report) {
    const auto& on = report.camera_position.stand;
    if (!on || !on->bag) return {};
    return Finding{fmt::format(
        "The arm of {} holds {} kg {} out, beyond its feet: a leg under the arm and at least {} kg of sandbag on its "
        "middle before the camera goes on, the arm drawn in before it comes off.",
        stand_of(plan).name, text::number_text(*on->carried, 2), text::length_text(stand_of(plan).arm),
        text::number_text(std::ceil(*on->bag * 2) / 2, 2))};
}

/// Without a stand that is named: what it would have to do.
Found camera_high(const plan::Plan& plan, const plan::Report& report) {
    constexpr double reach = 1700;  // mm, where eyes are (common practice)
    const auto& height = report.camera_position.over_floor;
    if (!(plan.shot.rig.inclination > 0) || !height || *height < reach) return {};
    return Finding{
        fmt::format("The camera stands {} over the floor: steps that stand firm, a remote release and a screen at eye "
                    "height; or the subject lower, or a shorter lens from nearer.",
                    text::length_text(*height))};
}

/// A line behind the subject that can be made out cuts it in two (common practice).
Found edge_through_subject(const plan::Plan& plan, const plan::Report& report) {
    const auto& edge = report.camera_position.edge;
    constexpr double soft = 0.08;  // of the frame's height: from there on it is a gradation, not a line
    if (!edge || edge->up_the_subject <= 0 || edge->up_the_subject >= 1 || edge->blur > soft) return {};
    Finding finding{
        fmt::format("{} runs behind the subject at {:.0f} % of its height, sharp enough to cut it in two. "
                    "Above it or at its foot it would be a ground.",
                    edge->horizon ? "The horizon" : "The table's far edge", edge->up_the_subject * 100)};
    if (OnlyCounting::now()) return finding;
    constexpr int most = 30;  // degrees more: past that it is another picture
    for (int more = 1; more <= most && plan.shot.rig.inclination + more <= 90; ++more) {
        auto shot = plan.shot;
        shot.rig.inclination += more;
        const auto there = plan::plan_of(plan, shot);
        const auto now = plan::report_camera_position(there, report);
        if (now.edge && now.edge->up_the_subject < 1.05) continue;
        const double angle = std::round(shot.rig.inclination);
        finding.remedy = remedy(plan, fmt::format("Look down {}\u00b0", text::number_text(angle, 3)),
                                [&](shoot::Shot& edited) { edited.rig.inclination = angle; });
        break;
    }
    return finding;
}

constexpr Rule standing_rows[] = {
    {"camera-overhead", Station::reach, Level::caution, Concern::safety, camera_overhead},
    {"top-heavy", Station::reach, Level::caution, Concern::safety, top_heavy},
    {"stand-overloaded", Station::reach, Level::caution, Concern::plan, stand_overloaded},
    {"stand-too-high", Station::reach, Level::caution, Concern::plan, stand_too_high},
    {"stand-too-low", Station::reach, Level::caution, Concern::plan, stand_too_low},
    {"legs-meet-table", Station::reach, Level::caution, Concern::plan, legs_meet_table},
    {"camera-high", Station::reach, Level::info, Concern::plan, camera_high},
    {"edge-through-subject", Station::subject, Level::info, Concern::plan, edge_through_subject},
};

}  // namespace

std::span<const Rule> camera_position_rules() { return standing_rows; }

}  // namespace poquito::advice
