#include "plan/set/staging.hpp"

#include "light/angle.hpp"
#include "optics/depth.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "plan/set/background_blur.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {
namespace {

struct Box {
    double left, top, right, bottom;

    double area() const { return std::max(0.0, right - left) * std::max(0.0, bottom - top); }
    Box and_(const Box& other) const {
        return {std::max(left, other.left), std::max(top, other.top), std::min(right, other.right),
                std::min(bottom, other.bottom)};
    }
};

/// How far its brightest and most coloured part is from grey, 0 to 1.
double strength(const std::optional<text::Colour>& colour) {
    if (!colour) return 0;
    const int most = std::max({colour->red, colour->green, colour->blue});
    const int least = std::min({colour->red, colour->green, colour->blue});
    return most > 0 ? static_cast<double>(most - least) / most : 0;
}

/// What lies flat lies on what was put there before it: a cloth on its slate.
bool lies_on_another(const shoot::Shot& shot, const shoot::Staged& thing) {
    for (const auto& other : shot.staging) {
        if (other.id == thing.id) return false;
        if (other.lies && std::abs(other.right - thing.right) < other.subject.width / 2 &&
            std::abs(other.behind - thing.behind) < other.subject.height / 2)
            return true;
    }
    return false;
}

/// What detail of a thing is as wide as that one might still read: a thirtieth of it (common practice).
double detail_of(const shoot::Subject& subject) { return std::max(subject.width, subject.height) / 30; }

}  // namespace

SeenPlace seen_place(const Plan& plan, const shoot::Staged& thing) {
    const double i = plan.shot.rig.inclination * light::degree;
    const double foot = -plan.shot.subject.height / 2;  // of the subject, from its centre
    const double thick = thing.lies ? thing.subject.depth : thing.subject.height;
    const double up = thing.lies && !lies_on_another(plan.shot, thing) ? foot - thick / 2 : foot + thick / 2;
    return {.right = thing.right,
            .up = up * std::cos(i) + thing.behind * std::sin(i),
            .away = thing.behind * std::cos(i) - up * std::sin(i)};
}

shoot::Subject seen_subject(const Plan& plan, const shoot::Staged& thing) {
    auto subject = thing.subject;
    const double down = plan.shot.rig.inclination, most = shoot::greatest_view_angle;
    if (thing.lies)
        subject.tilt = std::clamp(90 - std::abs(down), 0.0, most);
    else
        subject.tilt = std::clamp(subject.tilt - down, -most, most);
    return subject;
}

double scale_at(const Plan& plan, double away) {
    if (!(plan.at.magnification > 0)) return 1;
    // One over the distance from entrance pupil to plane of focus, as the pupil and the f-number have it (MODEL 9).
    const auto& [m, n, a, g] = imaging_of(plan, plan.shot.exposure.f_number);
    return 1 / std::max(1e-3, 1 + (away - plan.focus) * m * g / (a * n));
}

std::vector<StagedReport> report_staging(const Plan& plan, const Report& report) {
    std::vector<StagedReport> all;
    const auto& field_width = report.optics.field_width;
    const auto& field_height = report.optics.field_height;
    const double m = plan.at.magnification;
    if (plan.shot.staging.empty() || !field_width || !field_height || !(m > 0)) return all;
    const auto imaging = imaging_of(plan, plan.shot.exposure.f_number);
    const auto box_of = [&](const SeenPlace& at, double width, double height) {
        const double scale = scale_at(plan, at.away);
        const double x = at.right * scale / *field_width, y = at.up * scale / *field_height;
        const double w = width * scale / *field_width, h = height * scale / *field_height;
        return Box{0.5 + x - w / 2, 0.5 - y - h / 2, 0.5 + x + w / 2, 0.5 - y + h / 2};
    };
    const Box hero = box_of({}, plan.extent.width, plan.extent.height);
    for (const auto& thing : plan.shot.staging) {
        StagedReport one;
        one.id = thing.id;
        const auto extent = shoot::presented_extent(seen_subject(plan, thing));
        one.place = seen_place(plan, thing);
        const Box box = box_of(one.place, extent.width, extent.height);
        one.left = box.left, one.top = box.top, one.width = box.right - box.left, one.height = box.bottom - box.top;
        const double area = box.area();
        one.cut_off = area > 0 ? 1 - box.and_({0, 0, 1, 1}).area() / area : 0;
        one.behind_focus = one.place.away - plan.focus;
        const auto disc = optics::blur_disc(imaging, one.behind_focus);
        one.blur = disc;
        if (disc) one.blur_share = *disc / plan.sensor.width;
        const bool before = one.place.away < 0 && !thing.lies;
        const double common = hero.and_(box).area();
        if (before && hero.area() > 0) one.hides = common / hero.area();
        if (!before && area > 0 && !thing.lies) one.hidden = common / area;
        one.readable = disc && *disc / m < detail_of(thing.subject);
        const auto& own = plan.shot.subject;
        constexpr double much = 1.3, coloured = 0.25;
        one.draws_the_eye =
            one.readable && thing.role != shoot::StagedRole::repeat && one.cut_off < 0.9 &&
            (thing.subject.reflectance > much * std::max(own.reflectance, own.highlight_reflectance.value_or(0)) ||
             strength(thing.subject.colour) > strength(own.colour) + coloured);
        all.push_back(std::move(one));
    }
    return all;
}

}  // namespace poquito::plan
