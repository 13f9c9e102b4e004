#include "advice/rules/rules.hpp"
#include "optics/aperture.hpp"
#include "plan/set/picture_shape.hpp"
#include "search/missing.hpp"
#include "search/reach_search.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

std::optional<shoot::Rig> rig_for(const gear::Kit& kit, const shoot::Rig& now, const search::WantedReach& wanted) {
    if (OnlyCounting::now()) return std::nullopt;
    return search::find_rig(kit, now, wanted);
}

Remedy mount(const plan::Plan& plan, const shoot::Rig& found) {
    return remedy(plan, "Mount these instead", [&](shoot::Shot& shot) { shot.rig = found; });
}

/// To be borrowed or bought: named, and planned with at a click.
Finding with_what_is_missing(const plan::Plan& plan, const std::string& text,
                             const std::vector<search::Missing>& ways) {
    std::vector<std::string> names;
    Finding finding;
    for (const auto& way : ways) {
        names.push_back(way.name);
        auto made = remedy(plan, fmt::format("Plan with {}, to be got", way.name),
                           [&](shoot::Shot& shot) { shot.rig = way.rig; });
        made.kit = std::make_shared<const gear::Kit>(way.kit);
        finding.ways.push_back({shoot::Loss::depth, std::move(made)});
    }
    finding.text = text + fmt::format("; on this lens {} would: to borrow or buy.", fmt::join(names, ", or "));
    return finding;
}

Found magnification_out_of_reach(const plan::Plan& plan, const plan::Report& report) {
    const auto& optics = report.optics;
    if (optics.reached) return {};
    const double wanted = plan.shot.rig.focus.value;
    auto text =
        fmt::format("{} is out of reach: this set-up goes from {} to {}.", text::magnification_text(wanted),
                    text::magnification_text(optics.range.least), text::magnification_text(optics.range.greatest));
    if (const auto found = rig_for(plan.kit, plan.shot.rig, {.magnification = wanted}))
        return Finding{text + fmt::format(" {} reaches it.", search::pieces_text(plan.kit, *found)),
                       mount(plan, *found)};
    text += " Nothing in the bag reaches it";
    const double missing = wanted - optics.range.greatest;
    if (missing <= 0) return Finding{text + "."};
    if (!OnlyCounting::now())
        if (const auto ways = search::what_would_reach(plan, wanted); !ways.empty())
            return with_what_is_missing(plan, text, ways);
    // m grows by extension over focal length.
    text += fmt::format(": about {:.0f} mm more of extension tube on this lens would.",
                        std::ceil(missing * optics.focal_length));
    return Finding{std::move(text)};
}

Found focus_inside_lens(const plan::Plan& plan, const plan::Report& report) {
    const auto& distance = report.optics.working_distance;
    if (!distance || *distance > 0) return {};
    const double m = report.optics.magnification;
    auto text =
        fmt::format("The plane of focus lies {} behind the front rim, inside the lens.", text::length_text(-*distance));
    if (const auto found = rig_for(plan.kit, plan.shot.rig, {.magnification = m}))
        return Finding{text + fmt::format(" {} gives {} in front of it.", search::pieces_text(plan.kit, *found),
                                          text::magnification_text(m)),
                       mount(plan, *found)};
    Finding finding{std::move(text)};
    if (OnlyCounting::now()) return finding;
    for (auto& way : clear_of_lens(plan)) finding.ways.push_back({shoot::Loss::depth, std::move(way)});
    return finding;
}

Found lens_close(const plan::Plan& plan, const plan::Report& report) {
    const auto& distance = report.optics.working_distance;
    const double least = 1.5 * front_diameter(plan) / 2;
    if (!distance || *distance <= 0 || *distance >= least) return {};
    auto text = fmt::format(
        "The lens is {} from the subject, less than 1.5 times the radius of its front ({}): it takes the light and "
        "frightens what can leave.",
        text::length_text(*distance), text::length_text(least));
    const double m = report.optics.magnification;
    if (const auto found = rig_for(plan.kit, plan.shot.rig, {.magnification = m, .working_distance = least}))
        return Finding{text + fmt::format(" {} keeps further away.", search::pieces_text(plan.kit, *found)),
                       mount(plan, *found)};
    return Finding{std::move(text)};
}

Found nearer_than_it_allows(const plan::Plan& plan, const plan::Report& report) {
    const auto& nearest = plan.shot.subject.nearest;
    const auto& distance = report.optics.working_distance;
    if (!nearest || !distance || *distance <= 0 || *distance >= *nearest * 0.999) return {};
    Finding finding{fmt::format("It lets you come within {}; the lens stands {} from it.", text::length_text(*nearest),
                                text::length_text(*distance))};
    const double m = report.optics.magnification;
    if (const auto found = rig_for(plan.kit, plan.shot.rig, {.magnification = m, .working_distance = *nearest})) {
        finding.text += fmt::format(" {} keeps away.", search::pieces_text(plan.kit, *found));
        finding.remedy = mount(plan, *found);
    } else {
        finding.text += " Nothing in the bag keeps away at this size: go slowly, or take it smaller and crop.";
    }
    return finding;
}

/// Water before the subject that leaves the lens a finger's width of air before the wall.
double nearer_to_wall(const plan::Plan& plan, const plan::TankReport& tank) {
    constexpr double finger = 10;  // mm
    // Each mm of water less brings the wall nearer to the subject by a mm, and the subject appears by less nearer.
    const double least = (finger - *tank.front_to_wall) * plan.shot.subject.tank->tank.water_index;
    return std::max(0.0, std::floor(plan.shot.subject.tank->tank.water - least));
}

Found lens_shades_light(const plan::Plan& plan, const plan::Report& report) {
    const auto& half_angle = report.optics.shaded_half_angle;
    if (!half_angle) return {};
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        if (plan.shot.lights[i].on_lens) continue;  // hangs on the front itself
        const auto& position = plan.shot.lights[i].position;
        const bool beyond_rim = position.distance * light::towards_camera(position) > *report.optics.working_distance;
        if (!beyond_rim || report.light.sources[i].off_axis >= *half_angle) continue;
        const double clear = std::min(85.0, std::ceil(*half_angle / 5 + 1) * 5);
        return Finding{
            fmt::format("Light {} stands {}\u00b0 off the axis, inside the {}\u00b0 that the front of the lens shades.",
                        report.light.sources[i].label, text::number_text(report.light.sources[i].off_axis, 2),
                        text::number_text(*half_angle, 2)),
            remedy(plan, fmt::format("Raise light {} to {}\u00b0", report.light.sources[i].label, clear),
                   [&](shoot::Shot& shot) { shot.lights[i].position.elevation = clear; })};
    }
    return {};
}

/// From where the subject takes `fill` of the frame, or of what is left of it, back to nine tenths.
auto less_of(const plan::Plan& plan, const plan::Report& report, double fill, const char* what) {
    constexpr double wanted_fill = 0.9;  // leaves a margin to straighten and crop (common practice)
    const double m = report.optics.magnification * wanted_fill / fill;
    return remedy(plan, fmt::format("Fill 90 % of the {}, {}", what, text::magnification_text(m)),
                  [&](shoot::Shot& shot) { shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = m}; });
}

Found subject_larger_than_frame(const plan::Plan& plan, const plan::Report& report) {
    const auto& optics = report.optics;
    if (!optics.fill || *optics.fill <= 1 || plan.terms.wishes.passes_frame) return {};
    return Finding{fmt::format("The subject, {} \u00d7 {} mm, is larger than the field, {} \u00d7 {} mm.",
                               text::number_text(plan.extent.width), text::number_text(plan.extent.height),
                               text::number_text(*optics.field_width), text::number_text(*optics.field_height)),
                   less_of(plan, report, *optics.fill, "frame")};
}

Found subject_past_its_picture(const plan::Plan& plan, const plan::Report& report) {
    if (plan.terms.wishes.passes_frame) return {};
    const auto cut = plan::picture_cut(plan, report);
    if (!cut || !cut->fill || *cut->fill <= 1 || report.optics.fill.value_or(0) > 1) return {};
    return Finding{
        fmt::format(
            "Cut to its picture of {} \u00d7 {} px, the frame holds {} \u00d7 {} mm: the subject, {} \u00d7 {} mm, "
            "loses its edges.",
            cut->width_px, cut->height_px, text::number_text(*report.optics.field_width * cut->width),
            text::number_text(*report.optics.field_height * cut->height), text::number_text(plan.extent.width),
            text::number_text(plan.extent.height)),
        less_of(plan, report, *cut->fill, "picture")};
}

Found no_sharp_distance(const plan::Plan& plan, const plan::Report& report) {
    if (report.optics.magnification >= 0) return {};
    // The image lies behind the sensor even for a subject at infinity: so much is missing.
    const double missing = -plan.at.extended_magnification * plan.at.focal_length;
    return Finding{
        fmt::format("No subject distance is sharp: the lens stands {} too near to the sensor for its focal "
                    "length. Put more extension behind it.",
                    text::length_text(std::max(0.0, missing)))};
}

std::string step_ring_text(const shoot::Joint& joint) {
    const auto ring = fmt::format("{} to {} mm step ring", text::number_text(*joint.inner_thread),
                                  text::number_text(joint.outer_thread));
    return joint.step_ring ? fmt::format("a {} ({}, in the kit)", ring, *joint.step_ring)
                           : fmt::format("a {}, which is not in the kit", ring);
}

/// The first joint that is as asked, in the order of mounting.
template <typename Asked>
const shoot::Joint* find_joint(const plan::Report& report, Asked asked) {
    const auto& joints = report.optics.fit.joints;
    const auto found = std::ranges::find_if(joints, asked);
    return found == joints.end() ? nullptr : &*found;
}

Found thread_missing(const plan::Plan&, const plan::Report& report) {
    const auto* joint = find_joint(report, [](const shoot::Joint& j) { return !j.inner_thread; });
    if (!joint) return {};
    return Finding{fmt::format("{} has no thread in front to take {} ({} mm).", joint->inner, joint->outer,
                               text::number_text(joint->outer_thread))};
}

Found step_ring_needed(const plan::Plan&, const plan::Report& report) {
    const auto* joint =
        find_joint(report, [](const shoot::Joint& j) { return j.inner_thread && !j.fits() && !j.narrows(); });
    if (!joint) return {};
    return Finding{fmt::format("{} has a {} mm thread, {} {} mm: take {}.", joint->outer,
                               text::number_text(joint->outer_thread), joint->inner,
                               text::number_text(*joint->inner_thread), step_ring_text(*joint))};
}

Found closeup_lens_smaller(const plan::Plan& plan, const plan::Report& report) {
    const auto* joint = find_joint(report, [](const shoot::Joint& j) { return j.narrows(); });
    if (!joint) return {};
    Finding finding{
        fmt::format("{} has a {} mm thread, smaller than the {} mm of {}: it needs {}, and may darken the "
                    "corners.",
                    joint->outer, text::number_text(joint->outer_thread), text::number_text(*joint->inner_thread),
                    joint->inner, step_ring_text(*joint))};
    const auto& closeups = plan.shot.rig.closeup_lenses;
    if (closeups.size() != 1) return finding;
    const auto& now = *find_gear(plan.kit.closeup_lenses, closeups.front());
    const auto other = std::ranges::find_if(plan.kit.closeup_lenses, [&](const gear::CloseupLens& closeup) {
        return closeup.thread >= plan.lens.filter_thread && closeup.power_dpt == now.power_dpt;
    });
    if (other != plan.kit.closeup_lenses.end() && now.name == joint->outer)
        finding.remedy = remedy(plan, fmt::format("Take {}", other->name),
                                [&](shoot::Shot& shot) { shot.rig.closeup_lenses = {other->id}; });
    return finding;
}

Found contacts_lost(const plan::Plan&, const plan::Report& report) {
    const auto& fit = report.optics.fit;
    if (fit.contacts()) return {};
    const auto names = fmt::format("{}", fmt::join(fit.without_contacts, ", "));
    return Finding{
        fmt::format("{} {} no contacts: no autofocus, no f-number in the EXIF, and the camera does not set the "
                    "stop{}.",
                    names, fit.without_contacts.size() == 1 ? "carries" : "carry",
                    fit.stop == shoot::StopControl::lens_ring ? "; set it on the lens" : "")};
}

Found stop_cannot_be_set(const plan::Plan& plan, const plan::Report& report) {
    const double widest = plan.train.lens.max_aperture;
    if (report.optics.fit.stop != shoot::StopControl::none || plan.shot.exposure.f_number <= widest * 1.01) return {};
    return Finding{
        fmt::format(
            "Without contacts this lens stays where its blades were left, mostly wide open at {}. Ways out: set "
            "the stop on the camera, hold the depth-of-field button and take the lens off; a ring or tube with "
            "contacts; a lens with an aperture ring.",
            text::f_number_text(widest)),
        remedy(plan, fmt::format("Plan wide open, {}", text::f_number_text(widest)),
               [&](shoot::Shot& shot) { shot.exposure.f_number = widest; })};
}

Found long_rig_small_head(const plan::Plan& plan, const plan::Report& report) {
    const auto& fit = report.optics.fit;
    if (fit.length <= shoot::long_rig || plan.shot.rig.support != shoot::Support::small_head) return {};
    return Finding{
        fmt::format("{} of gear in front of the camera, more than {}, sags and turns on a small head: hold it "
                    "by a lens collar or rail under its middle, or take a sturdy head.",
                    text::length_text(fit.length), text::length_text(shoot::long_rig)),
        remedy(plan, "Take a sturdy head", [](shoot::Shot& shot) { shot.rig.support = shoot::Support::sturdy_head; })};
}

Found rig_length(const plan::Plan& plan, const plan::Report& report) {
    const auto& fit = report.optics.fit;
    if (fit.length <= shoot::long_rig || plan.shot.rig.support != shoot::Support::unstated) return {};
    return Finding{fmt::format("{} of gear in front of the camera: on a small tripod head that sags and turns.",
                               text::length_text(fit.length))};
}

Found tubes_keep_focal_length(const plan::Plan& plan, const plan::Report&) {
    if (plan.train.tubes + plan.train.rear_tubes <= 0) return {};
    return Finding{fmt::format(
        "Extension does not change the focal length, which stays {} mm at this ring position: it "
        "moves the lens away from the sensor by {}.",
        text::number_text(plan.at.focal_length), text::length_text(plan.train.tubes + plan.train.rear_tubes))};
}

Found front_lens_corners(const plan::Plan& plan, const plan::Report&) {
    if (!plan.shot.rig.front_lens) return {};
    const auto own = plan.working_factor * plan.shot.exposure.f_number;
    const double other = optics::front_working_f_number(plan.at).value_or(0);
    return Finding{
        fmt::format("Two coupled lenses darken the corners unless the one in front is wide open and the one on "
                    "the camera is the longer. Here {} limits the light.",
                    own >= other ? "the lens on the camera" : "the lens in front")};
}

Found measured_lens(const plan::Plan& plan, const plan::Report& report) {
    const auto& measured = report.optics.measured;
    if (measured.empty()) return {};
    constexpr const char* names[] = {"magnification", "working aperture at closest focus", "closest focus"};
    std::string text;
    for (const gear::Measured part : measured)
        text += fmt::format("{}{}", text.empty() ? "" : " and ", names[static_cast<int>(part)]);
    return Finding{fmt::format("Of {} the {} {} measured, not taken from the record.", plan.lens.name, text,
                               measured.size() == 1 ? "is" : "are")};
}

Found infinity_lost(const plan::Plan& plan, const plan::Report& report) {
    if (report.optics.reaches_infinity) return {};
    const auto far = optics::focus_at_ring(plan.train, 0).subject_to_sensor;
    const auto near = optics::focus_at_ring(plan.train, 1).subject_to_sensor;
    if (!far || !near) return Finding{"Infinity focus is lost."};
    if (std::abs(*far - *near) < 0.05)
        return Finding{
            fmt::format("Infinity focus is lost, and the ring moves nothing: sharp at {} from the sensor only.",
                        text::length_text(*near))};
    return Finding{fmt::format("Infinity focus is lost: the ring reaches from {} to {}, subject to sensor.",
                               text::length_text(std::min(*near, *far)), text::length_text(std::max(*near, *far)))};
}

Found working_aperture(const plan::Plan& plan, const plan::Report& report) {
    constexpr double worth_saying = 0.3;  // stops, a third
    if (report.optics.exposure_loss < worth_saying) return {};
    const double marked = plan.shot.exposure.f_number;
    const double working = report.optics.working_f_number;
    const bool shows_working = plan.camera.aperture_display == gear::ApertureDisplay::working;
    const auto shown =
        shows_working ? fmt::format("the camera shows the working value; the ring says {}", text::f_number_text(marked))
                      : fmt::format("the camera goes on showing {}", text::f_number_text(marked));
    return Finding{
        fmt::format("Marked {} works at {}; {}. The lens is not broken. Metering through the lens has paid the {}; "
                    "a hand-held meter and manual flash have not.",
                    text::f_number_text(marked), text::f_number_text(working), shown,
                    text::count_text(std::round(report.optics.exposure_loss * 10) / 10, "stop", "stops"))};
}

/// Through glass and water.
Found lens_in_tank(const plan::Plan& plan, const plan::Report& report) {
    const auto& tank = report.optics.tank;
    if (!tank || !tank->front_to_wall || *tank->front_to_wall > 0) return {};
    return Finding{
        fmt::format("At this size the lens would have to stand {} inside the tank: bring the subject nearer to "
                    "the wall, or take it smaller.",
                    text::length_text(-*tank->front_to_wall)),
        remedy(plan, fmt::format("{} of water before it", text::length_text(nearer_to_wall(plan, *tank))),
               [&](shoot::Shot& shot) { shot.subject.tank->tank.water = nearer_to_wall(plan, *tank); })};
}

Found in_tank(const plan::Plan& plan, const plan::Report& report) {
    const auto& tank = report.optics.tank;
    if (!tank || !tank->real_distance || !tank->front_to_wall || *tank->front_to_wall <= 0) return {};
    std::string text = fmt::format(
        "Through the wall and {} of water it appears {} nearer: the lens stands {} from the wall, {} from the "
        "subject, for this size.",
        text::length_text(plan.shot.subject.tank->tank.water), text::length_text(tank->nearer),
        text::length_text(*tank->front_to_wall), text::length_text(*tank->real_distance));
    if (tank->depth_of_field)
        text +=
            fmt::format(" In the water a frame holds {}, more than in air.", text::length_text(*tank->depth_of_field));
    return Finding{text +
                   " Square to the wall: seen at a slant it smears. A lens hood against the glass keeps reflections "
                   "out."};
}

constexpr Rule reach_rows[] = {
    {"lens-in-tank", Station::reach, Level::stop, Concern::plan, lens_in_tank},
    {"magnification-out-of-reach", Station::reach, Level::stop, Concern::plan, magnification_out_of_reach},
    {"focus-inside-lens", Station::reach, Level::stop, Concern::plan, focus_inside_lens},
    {"lens-close", Station::reach, Level::caution, Concern::plan, lens_close},
    {"nearer-than-it-allows", Station::reach, Level::caution, Concern::plan, nearer_than_it_allows},
    {"lens-shades-light", Station::light, Level::caution, Concern::plan, lens_shades_light},
    {"subject-larger-than-frame", Station::subject, Level::caution, Concern::plan, subject_larger_than_frame},
    {"subject-past-its-picture", Station::subject, Level::caution, Concern::plan, subject_past_its_picture},
    {"no-sharp-distance", Station::reach, Level::stop, Concern::plan, no_sharp_distance},
    {"thread-missing", Station::reach, Level::caution, Concern::plan, thread_missing},
    {"closeup-lens-smaller", Station::reach, Level::caution, Concern::plan, closeup_lens_smaller},
    {"stop-cannot-be-set", Station::reach, Level::caution, Concern::plan, stop_cannot_be_set},
    {"contacts-lost", Station::reach, Level::caution, Concern::plan, contacts_lost},
    {"long-rig", Station::reach, Level::caution, Concern::plan, long_rig_small_head},
    {"step-ring-needed", Station::reach, Level::info, Concern::plan, step_ring_needed},
    {"front-lens-corners", Station::reach, Level::info, Concern::plan, front_lens_corners},
    {"in-tank", Station::reach, Level::info, Concern::plan, in_tank},
    {"rig-length", Station::reach, Level::info, Concern::plan, rig_length},
    {"tubes-keep-focal-length", Station::reach, Level::info, Concern::plan, tubes_keep_focal_length},
    {"measured-lens", Station::reach, Level::info, Concern::plan, measured_lens},
    {"infinity-lost", Station::reach, Level::info, Concern::plan, infinity_lost},
    {"working-aperture", Station::reach, Level::info, Concern::plan, working_aperture},
};

}  // namespace

std::vector<Remedy> clear_of_lens(const plan::Plan& plan) {
    std::vector<Remedy> ways;
    const auto offer = [&](std::string label, const std::function<void(shoot::Rig&)>& change) {
        auto made = remedy(plan, std::move(label), [&](shoot::Shot& shot) { change(shot.rig); });
        if (!plan::plan_of(plan, made.shot).found.reached)
            made.shot.rig.focus = {.by = shoot::FocusBy::ring, .value = 1};
        const auto then = plan::plan_of(plan, made.shot);
        if (then.at.magnification > 0 && then.at.working_distance && *then.at.working_distance > 0)
            ways.push_back(std::move(made));
    };
    const auto now = gear::zoom_position(plan.lens, plan.shot.rig.focal_length);
    for (const auto& setting : plan.lens.zoom)
        if (now && setting.focal_length > *now)
            offer(fmt::format("Zoom to {:.0f} mm", setting.focal_length),
                  [&](shoot::Rig& rig) { rig.focal_length = setting.focal_length; });
    for (std::size_t i = 0; i < plan.shot.rig.tubes.size(); ++i)
        if (const auto* tube = gear::find_gear(plan.kit.tubes, plan.shot.rig.tubes[i]))
            offer(fmt::format("Take {} off", tube->name),
                  [&](shoot::Rig& rig) { rig.tubes.erase(rig.tubes.begin() + static_cast<std::ptrdiff_t>(i)); });
    return ways;
}

std::span<const Rule> reach_rules() { return reach_rows; }

}  // namespace poquito::advice
