#include "plan/set/staging.hpp"
#include "advice/rules/rules.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <string>

/// What stands beside the subject.
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
        const auto& thing = thing_of(plan, r);
        return thing.lies || thing.role == shoot::StagedRole::scale || r.cut_off > clearly_out ? 0 : r.cut_off;
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
        const auto moved = plan::plan_of(plan, other);
        const auto all = plan::report_staging(moved, report);
        const auto found = std::ranges::find(all, one->id, &StagedReport::id);
        if (found == all.end() || found->draws_the_eye) continue;
        finding.remedy = remedy(plan, fmt::format("{} {} behind it", thing.name, text::length_text(place)),
                                [&](shoot::Shot& shot) { thing_in(shot, one->id).behind = place; });
        break;
    }
    return finding;
}

/// What is measured by lies in the plane of focus, whole and sharp.
const StagedReport* scale_in(const plan::Plan& plan, const plan::Report& report) {
    const auto* rule = shoot::rule_in(plan.shot.staging);
    const auto found = rule ? std::ranges::find(report.staging, rule->id, &StagedReport::id) : report.staging.end();
    return found == report.staging.end() ? nullptr : &*found;
}

Found scale_out_of_plane(const plan::Plan& plan, const plan::Report& report) {
    constexpr double readable = 0.01;  // of a length: what one reads off a rule in a picture (common practice)
    const auto* one = scale_in(plan, report);
    if (!one) return {};
    const double reads = plan::scale_at(plan, one->place.away) / plan::scale_at(plan, plan.focus) - 1;
    const bool blurred = one->blur.value_or(0) > 2 * plan::blur_limit(plan);
    if (std::abs(reads) < readable && !blurred) return {};
    const auto& thing = thing_of(plan, *one);
    Finding finding{
        fmt::format("{} lies {} {} the plane of focus: {}{}.", thing.name,
                    text::length_text(std::abs(one->behind_focus)), one->behind_focus < 0 ? "before" : "behind",
                    std::abs(reads) < readable
                        ? std::string("it is not sharp enough to be read")
                        : fmt::format("what is measured by it comes out {} % too {}",
                                      text::number_text(std::abs(reads) * 100, 2), reads < 0 ? "large" : "small"),
                    blurred && std::abs(reads) >= readable ? ", and it is blurred" : "")};
    const double i = plan.shot.rig.inclination * std::numbers::pi / 180;
    constexpr double steep = 0.2;  // cosine: looking straight down only its height would bring it there
    if (std::cos(i) < steep) {
        finding.text +=
            fmt::format(" Lay something under it, {} high.", text::length_text(std::abs(one->behind_focus)));
        return finding;
    }
    const double behind = thing.behind - one->behind_focus / std::cos(i);
    finding.remedy = remedy(plan,
                            std::abs(behind) < 0.5
                                ? fmt::format("{} beside the subject's middle", thing.name)
                                : fmt::format("{} {} {} its middle", thing.name, text::length_text(std::abs(behind)),
                                              behind < 0 ? "before" : "behind"),
                            [&](shoot::Shot& shot) { thing_in(shot, one->id).behind = behind; });
    return finding;
}

Found scale_cut(const plan::Plan& plan, const plan::Report& report) {
    constexpr double seen = 0.02;
    const auto* one = scale_in(plan, report);
    if (!one || one->cut_off < seen) return {};
    return Finding{
        fmt::format("{}: {:.0f} % of it is outside the frame. Both its ends have to be seen, or nothing can "
                    "be measured by it: a shorter one, or nearer to the subject.",
                    thing_of(plan, *one).name, one->cut_off * 100)};
}

constexpr Rule staging_rows[] = {
    {"staged-hides", Station::subject, Level::caution, Concern::plan, staged_hides},
    {"staged-cut", Station::subject, Level::info, Concern::plan, staged_cut},
    {"staged-draws-the-eye", Station::subject, Level::info, Concern::plan, staged_draws_the_eye},
    {"scale-out-of-plane", Station::subject, Level::caution, Concern::plan, scale_out_of_plane},
    {"scale-cut", Station::subject, Level::caution, Concern::plan, scale_cut},
};

}  // namespace

std::span<const Rule> staging_rules() { return staging_rows; }

}  // namespace poquito::advice
