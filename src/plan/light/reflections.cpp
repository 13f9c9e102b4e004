#include "plan/light/reflections.hpp"
#include "light/angle.hpp"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::plan {

using light::Point;

light::Mirror mirror_of(const shoot::Subject& subject) {
    using light::degree;
    // The top goes away with the tilt, the right side with the turn, as form.hpp has them.
    const Eigen::Matrix3d turned = (Eigen::AngleAxisd(subject.turn * degree, Point::UnitY()) *
                                    Eigen::AngleAxisd(-subject.tilt * degree, Point::UnitX()))
                                       .toRotationMatrix();
    light::Mirror mirror{.right = turned * Point::UnitX(),
                         .up = turned * Point::UnitY(),
                         .half_width = subject.width / 2,
                         .half_height = subject.height / 2};
    mirror.centre = subject.depth / 2 * (turned * Point::UnitZ());
    const bool flat = subject.form == shoot::Form::slab || subject.form == shoot::Form::box ||
                      subject.form == shoot::Form::leaf || subject.form == shoot::Form::folds ||
                      subject.form == shoot::Form::height_map || subject.depth <= 0;
    if (!flat) mirror.bulge = subject.depth;
    return mirror;
}

std::optional<Point> pupil_point(const Plan& plan) {
    const auto pupil = pupil_distance(plan);
    if (!pupil || !(plan.at.magnification > 0)) return std::nullopt;
    const double ahead = *pupil - plan.focus;
    if (ahead <= plan.extent.depth / 2) return std::nullopt;
    return Point(0, 0, ahead);
}

std::optional<Family> family_of_angles(const Plan& plan, AxisPlane in) {
    const auto pupil = pupil_point(plan);
    if (!pupil || !shoot::has_trait(plan.shot.subject, "polished")) return std::nullopt;
    const auto mirror = mirror_of(plan.shot.subject);
    // The rim of a round face looks sideways: near it lies what the face is seen to show.
    const double edge = mirror.bulge ? 0.85 : 1;
    const bool upright = in == AxisPlane::upright;
    const auto one = light::reflect(mirror, *pupil, upright ? 0 : -edge, upright ? -edge : 0);
    const auto other = light::reflect(mirror, *pupil, upright ? 0 : edge, upright ? edge : 0);
    if (!one || !other) return std::nullopt;
    return Family{.one = *one, .other = *other};
}

std::vector<Shown> face_map(const Plan& plan, const LightReport& light, std::size_t chosen, int across) {
    std::vector<Shown> map(static_cast<std::size_t>(across) * static_cast<std::size_t>(across), Shown::nothing);
    const auto pupil = pupil_point(plan);
    if (!pupil) return map;
    const auto mirror = mirror_of(plan.shot.subject);
    std::vector<std::pair<light::DiscSource, Shown>> discs;  // the chosen light's first
    for (const bool own : {true, false})
        for (std::size_t i = 0; i < light.sources.size(); ++i) {
            if ((i == chosen) != own || !light.sources[i].stops) continue;
            for (const auto& tube : light.sources[i].tubes)
                discs.push_back({{.centre = light::place_of(tube.place), .diameter = tube.diameter},
                                 own ? Shown::chosen : Shown::other});
        }
    for (int j = 0; j < across; ++j)
        for (int i = 0; i < across; ++i) {
            const double u = (2 * i + 1.0) / across - 1, v = 1 - (2 * j + 1.0) / across;
            if (mirror.bulge && u * u + v * v > 1) continue;
            const auto ray = light::reflect(mirror, *pupil, u, v);
            if (!ray) continue;
            const auto found = std::ranges::find_if(discs, [&](const auto& disc) { return shows(*ray, disc.first); });
            map[static_cast<std::size_t>(j * across + i)] = found == discs.end() ? Shown::room : found->second;
        }
    return map;
}

std::vector<ReflectionReport> report_reflections(const Plan& plan, const LightReport& light) {
    const auto pupil = pupil_point(plan);
    if (!pupil || !shoot::has_trait(plan.shot.subject, "polished")) return {};
    const auto mirror = mirror_of(plan.shot.subject);
    const light::Reflections face(mirror, *pupil);
    std::vector<ReflectionReport> reports;
    for (const SourceReport& source : light.sources) {
        ReflectionReport report;
        for (const SourceTube& tube : source.tubes) {
            const light::DiscSource disc{.centre = light::place_of(tube.place), .diameter = tube.diameter};
            report.mirrored = std::min(1.0, report.mirrored + face.share_of(disc));
            if (!report.filling) report.filling = light::filling_diameter(mirror, *pupil, disc.centre);
            if (!mirror.bulge) continue;
            if (const auto mark = light::glint(mirror, *pupil, disc))
                report.marks.push_back({.x = mark->at.x(), .y = mark->at.y(), .width = mark->width});
        }
        reports.push_back(std::move(report));
    }
    return reports;
}

std::optional<light::Position> shown_place(const Plan& plan, std::size_t light) {
    const auto pupil = pupil_point(plan);
    if (!pupil) return std::nullopt;
    return light::shown_from(mirror_of(plan.shot.subject), *pupil, plan.shot.lights[light].position.distance);
}

}  // namespace poquito::plan
