#include "plan/set/camera_position.hpp"

#include "light/angle.hpp"
#include "optics/depth.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "plan/set/background_blur.hpp"
#include "plan/set/staging.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::plan {
namespace {

/// A place over the table as the camera sees it: `behind` level from the subject's centre, `up` from it.
SeenPlace seen(const Plan& plan, double behind, double up) {
    const double i = plan.shot.rig.inclination * light::degree;
    return {.right = 0, .up = up * std::cos(i) + behind * std::sin(i), .away = behind * std::cos(i) - up * std::sin(i)};
}

std::optional<FarEdge> far_edge(const Plan& plan, const Report& report) {
    const auto& shot = plan.shot;
    const auto& field_height = report.optics.field_height;
    if (!field_height) return std::nullopt;
    const auto table = shoot::table_of(shot);
    const bool outdoors = shoot::has_trait(shot.subject, "outdoors");
    if (!table.behind && !outdoors) return std::nullopt;
    constexpr double horizon = 1e7;  // mm: ten kilometres
    const double behind = table.behind.value_or(horizon);
    if (shot.background && shot.background->kind == shoot::BackgroundKind::card && shot.background->distance < behind)
        return std::nullopt;  // the card stands before it
    const double foot = -shot.subject.height / 2;
    const auto at = seen(plan, behind, table.behind ? foot : 0);
    const double height = at.up * scale_at(plan, at.away);  // in the plane of focus
    FarEdge edge{.horizon = !table.behind, .place = 0.5 - height / *field_height};
    if (edge.place < 0 || edge.place > 1) return std::nullopt;
    const auto disc = optics::blur_disc(imaging_of(plan, shot.exposure.f_number), at.away - plan.focus);
    edge.blur = disc ? *disc / plan.sensor.height : 1;
    edge.up_the_subject = height / plan.extent.height + 0.5;
    return edge;
}

/// The edges of the frame as rays from the entrance pupil, in a plane upright through the axis.
std::optional<Sweep> sweep(const Plan& plan, const Report& report) {
    const auto& shot = plan.shot;
    const auto& field_height = report.optics.field_height;
    const auto& field_width = report.optics.field_width;
    if (!shot.background || shot.background->kind == shoot::BackgroundKind::scene) return std::nullopt;
    if (!field_height || !field_width || !(plan.at.magnification > 0)) return std::nullopt;
    const auto& [m, n, a, g] = imaging_of(plan, shot.exposure.f_number);
    if (!(g > 0)) return std::nullopt;
    const double pupil = a * n / (m * g);  // to the plane of focus
    const double i = shot.rig.inclination * light::degree, half = std::atan(*field_height / 2 / pupil);
    const double centre = shot.subject.height / 2;  // over the table
    // The pupil stands so far before the subject's centre, and so high over the table.
    const double before = (pupil - plan.focus) * std::cos(i), high = centre + (pupil - plan.focus) * std::sin(i);
    const double wall = shot.background->distance;
    if (!(i + half > 0) || i + half >= std::numbers::pi) return std::nullopt;
    const double lower = high / std::tan(i + half) - before;  // where the frame's lower edge meets the table
    if (lower >= wall) return std::nullopt;
    constexpr double margin = 1.1;  // for framing (common practice)
    Sweep found;
    found.before = std::max(0.0, -lower) * margin;
    const bool over = i - half < std::numbers::pi / 2;
    found.up = over ? std::max(0.0, high - (wall + before) * std::tan(i - half)) * margin : 0;
    if (!over || high - (wall + before) * std::tan(i - half) <= 0) {
        // The table alone fills the frame: no wall, no curve.
        const double upper = high / std::tan(i - half) - before;
        const double away = seen(plan, upper, -centre).away;
        found.width = *field_width / scale_at(plan, away) * margin;
        found.length = (upper - lower) * margin;
        return found;
    }
    // A curve as wide as half the way to the wall hides where the wall begins (common practice).
    found.radius = std::min(std::max(0.0, wall - plan.extent.depth / 2) / 2, std::max(found.up, 1.0));
    found.width = *field_width / scale_at(plan, seen(plan, wall, found.up - centre).away) * margin;
    const double flat = std::max(0.0, wall - found.radius + found.before);
    found.length = flat + found.radius * std::numbers::pi / 2 + std::max(0.0, found.up - found.radius);
    return found;
}

std::optional<double> weight_of(const Plan& plan) {
    std::optional<double> grams;
    const auto add = [&](const std::optional<double>& one) {
        if (one) grams = grams.value_or(0) + *one;
    };
    add(plan.camera.weight);
    add(plan.lens.weight);
    if (const auto& front = plan.shot.rig.front_lens)
        if (const auto* lens = gear::find_gear(plan.kit.lenses, front->lens)) add(lens->weight);
    constexpr double grams_in_kg = 1000;
    if (grams) *grams /= grams_in_kg;
    return grams;
}

OnStand on_stand(const Plan& plan, const gear::Stand& stand, double over_floor, double away) {
    OnStand found{.too_high = std::max(0.0, stand.least - over_floor),
                  .too_low = std::max(0.0, over_floor - stand.greatest),
                  .middle = away + stand.arm,
                  .carried = weight_of(plan)};
    const auto table = shoot::table_of(plan.shot);
    // Legs run from the camera's height to the feet; at the table's height they are so far out.
    if (table.before && table.height > 0 && over_floor > table.height)
        found.legs_free = found.middle - *table.before - stand.feet * (1 - table.height / over_floor);
    if (found.carried && stand.arm > 0)
        if (const double bag = bag_for(*found.carried, stand.arm, stand.feet); bag > 0) found.bag = bag;
    return found;
}

}  // namespace

double bag_for(double load, double arm, double feet) {
    // Three feet: past the line that joins the foot under the arm with another one the load is (arm - feet) / 2 out,
    // the middle feet / 2 in.
    return load * std::max(0.0, arm - feet) / feet;
}

CameraPositionReport report_camera_position(const Plan& plan, const Report& report) {
    CameraPositionReport standing;
    const auto table = shoot::table_of(plan.shot);
    if (const auto& height = report.optics.camera_height) {
        standing.over_floor = table.height + *height;
        standing.away = *report.optics.subject_to_sensor * std::cos(plan.shot.rig.inclination * light::degree);
    }
    standing.edge = far_edge(plan, report);
    standing.sweep = sweep(plan, report);
    if (plan.shot.rig.stand && standing.over_floor)
        if (const auto* stand = gear::find_gear(plan.kit.stands, *plan.shot.rig.stand))
            standing.stand = on_stand(plan, *stand, *standing.over_floor, *standing.away);
    return standing;
}

}  // namespace poquito::plan
