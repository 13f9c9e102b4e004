#include "advice/rules.hpp"
#include "plan/staging.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>

/// What stands beside the subject, and where the camera stands above all of it.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;
using plan::StagedReport;

const shoot::Staged& thing_of(const plan::Plan& plan, const StagedReport& report) {
    return *std::ranges::find(plan.shot.staging, report.id, &shoot::Staged::id);
}
shoot::Staged& thing_in(shoot::Shot& shot, const std::string& id) {
    return *std::ranges::find(shot.staging, id, &shoot::Staged::id);
}

/// The worst by that measure, where it is at least `least`; null: none.
template <typename Measure>
const StagedReport* worst(const plan::Report& report, double least, Measure measure) {
    const StagedReport* found = nullptr;
    for (const auto& one : report.staging)
        if (measure(one) >= least && (!found || measure(one) > measure(*found))) found = &one;
    return found;
}

Found staged_hides(const plan::Plan& plan, const plan::Report& report) {
    constexpr double seen = 0.05;
    const auto* one = worst(report, seen, [](const StagedReport& r) { return r.hides; });
    if (!one) return {};
    const auto& thing = thing_of(plan, *one);
    const double side = thing.right < 0 ? -1 : 1;
    const double right = side * std::ceil((plan.extent.width + thing.subject.width) / 2 * 1.05);
    return Finding{fmt::format("{}: it stands before {:.0f} % of the subject.", thing.name, one->hides * 100),
                   remedy(plan,
                          fmt::format("{} {} to the {}", thing.name, text::length_text(std::abs(right)),
                                      side < 0 ? "left" : "right"),
                          [&](shoot::Shot& shot) { thing_in(shot, one->id).right = right; })};
}

/// Cut through the middle it looks like a mistake: well in, or clearly out (common practice). What lies may run out.
Found staged_cut(const plan::Plan& plan, const plan::Report& report) {
    constexpr double least = 0.05, clearly_out = 0.6;
    const auto* one = worst(report, least, [&](const StagedReport& r) {
        return thing_of(plan, r).lies || r.cut_off > clearly_out ? 0 : r.cut_off;
    });
    if (!one) return {};
    const auto& thing = thing_of(plan, *one);
    Finding finding{
        fmt::format("{}: {:.0f} % of it is cut off by the frame's edge, which looks like a mistake. All of "
                    "it in, or clearly half of it out.",
                    thing.name, one->cut_off * 100)};
    const double past_left = std::max(0.0, -one->left), past_right = std::max(0.0, one->left + one->width - 1);
    if (one->width < 0.9 && past_left + past_right > 0 && report.optics.field_width) {
        const double by = std::ceil((past_left > 0 ? past_left : -past_right) * 1.1 * *report.optics.field_width /
                                    plan::scale_at(plan, one->place.away));
        finding.remedy = remedy(plan, fmt::format("{} {} inwards", thing.name, text::length_text(std::abs(by))),
                                [&](shoot::Shot& shot) { thing_in(shot, one->id).right += by; });
    }
    return finding;
}

Found staged_draws_the_eye(const plan::Plan& plan, const plan::Report& report) {
    const auto* one = worst(report, 1, [](const StagedReport& r) { return r.draws_the_eye ? 1 + r.width : 0; });
    if (!one) return {};
    const auto& thing = thing_of(plan, *one);
    const bool brighter = thing.subject.reflectance > plan.shot.subject.reflectance;
    Finding finding{
        fmt::format("{}: {} than the subject, and sharp enough to be read, it draws the eye. Further back it "
                    "blurs; a duller one would do too.",
                    thing.name, brighter ? "brighter" : "more coloured")};
    if (thing.lies || OnlyCounting::now()) return finding;
    auto other = plan.shot;
    for (double behind = std::max(10.0, thing.behind); behind < 5000; behind *= 1.25) {
        const double place = std::round(behind);
        thing_in(other, one->id).behind = place;
        const auto moved = plan::plan_of(plan.kit, other, plan.limits);
        const auto all = plan::report_staging(moved, report);
        const auto found = std::ranges::find(all, one->id, &StagedReport::id);
        if (found == all.end() || found->draws_the_eye) continue;
        finding.remedy = remedy(plan, fmt::format("{} {} behind it", thing.name, text::length_text(place)),
                                [&](shoot::Shot& shot) { thing_in(shot, one->id).behind = place; });
        break;
    }
    return finding;
}

/// What hangs over food, people and glass is tied twice.
Found camera_overhead(const plan::Plan& plan, const plan::Report&) {
    constexpr double overhead = 60;
    const auto& subject = plan.shot.subject;
    const bool below = has_trait(subject, "food") || has_trait(subject, "person") || has_trait(subject, "living") ||
                       has_trait(subject, "breakable");
    if (plan.shot.rig.inclination < overhead || !below) return {};
    return Finding{
        "The camera hangs over what it takes: a second line to it and to the lens, a counterweight on the arm "
        "beyond its foot, sandbags, and nobody's hands below while it is moved. House rules and the arm's "
        "stated load go first."};
}

Found camera_high(const plan::Plan& plan, const plan::Report& report) {
    constexpr double table = 750, reach = 1700;  // mm: a table's height, and where eyes are (common practice)
    const auto& height = report.optics.camera_height;
    if (!(plan.shot.rig.inclination > 0) || !height || table + *height < reach) return {};
    return Finding{
        fmt::format("On a table the camera stands {} over the floor: steps that stand firm, a remote release "
                    "and a screen at eye height; or a longer way from a floor, with a shorter lens.",
                    text::length_text(table + *height))};
}

constexpr Rule staging_rows[] = {
    {"staged-hides", Station::subject, Level::caution, Concern::plan, staged_hides},
    {"staged-cut", Station::subject, Level::info, Concern::plan, staged_cut},
    {"staged-draws-the-eye", Station::subject, Level::info, Concern::plan, staged_draws_the_eye},
    {"camera-overhead", Station::reach, Level::caution, Concern::safety, camera_overhead},
    {"camera-high", Station::reach, Level::info, Concern::plan, camera_high},
};

}  // namespace

std::span<const Rule> staging_rules() { return staging_rows; }

}  // namespace poquito::advice
