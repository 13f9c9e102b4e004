#include "shoot/advice.hpp"
#include "shoot/gear_search.hpp"
#include "shoot/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

using Found = std::optional<Finding>;

Remedy mount(const Plan& plan, const FoundRig& found) {
    return remedy(plan, fmt::format("Mount {}", found.name), [&](Shot& shot) { shot.rig = found.rig; });
}

Found magnification_out_of_reach(const Plan& plan, const Report& report) {
    const auto& optics = report.optics;
    if (optics.reached) return {};
    const double wanted = plan.shot.rig.focus.value;
    auto text = fmt::format("{} is out of reach: this set-up goes from {} to {}.", magnification_text(wanted),
                            magnification_text(optics.range.least), magnification_text(optics.range.greatest));
    if (const auto found = find_rig(plan.kit, plan.shot.rig, {.magnification = wanted}))
        return Finding{text + fmt::format(" {} reaches it.", found->name), mount(plan, *found)};
    return Finding{text + " Nothing in the kit reaches it."};
}

Found focus_inside_lens(const Plan& plan, const Report& report) {
    const auto& distance = report.optics.working_distance;
    if (!distance || *distance > 0) return {};
    const double m = report.optics.magnification;
    auto text =
        fmt::format("The plane of focus lies {} behind the front rim, inside the lens.", length_text(-*distance));
    if (const auto found = find_rig(plan.kit, plan.shot.rig, {.magnification = m}))
        return Finding{text + fmt::format(" {} gives {} in front of it.", found->name, magnification_text(m)),
                       mount(plan, *found)};
    return Finding{std::move(text)};
}

Found lens_close(const Plan& plan, const Report& report) {
    const auto& distance = report.optics.working_distance;
    const double least = 1.5 * plan.lens.optics.front_diameter / 2;
    if (!distance || *distance <= 0 || *distance >= least) return {};
    auto text = fmt::format(
        "The lens is {} from the subject, less than 1.5 times the radius of its front ({}): it takes the light and "
        "frightens what can leave.",
        length_text(*distance), length_text(least));
    const double m = report.optics.magnification;
    if (const auto found = find_rig(plan.kit, plan.shot.rig, {.magnification = m, .working_distance = least}))
        return Finding{text + fmt::format(" {} keeps further away.", found->name), mount(plan, *found)};
    return Finding{std::move(text)};
}

Found lens_shades_light(const Plan& plan, const Report& report) {
    const auto& half_angle = report.optics.shaded_half_angle;
    if (!half_angle) return {};
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& position = plan.shot.lights[i].position;
        const bool beyond_rim = position.distance * light::towards_camera(position) > *report.optics.working_distance;
        if (!beyond_rim || report.light.sources[i].off_axis >= *half_angle) continue;
        const double clear = std::min(85.0, std::ceil(*half_angle / 5 + 1) * 5);
        return Finding{
            fmt::format("Light {} stands {}\u00b0 off the axis, inside the {}\u00b0 that the front of the lens shades.",
                        static_cast<char>('A' + i), number_text(report.light.sources[i].off_axis, 2),
                        number_text(*half_angle, 2)),
            remedy(plan, fmt::format("Raise light {} to {}\u00b0", static_cast<char>('A' + i), clear),
                   [&](Shot& shot) { shot.lights[i].position.elevation = clear; })};
    }
    return {};
}

Found subject_larger_than_frame(const Plan& plan, const Report& report) {
    const auto& optics = report.optics;
    if (!optics.fill || *optics.fill <= 1) return {};
    constexpr double wanted_fill = 0.9;  // leaves a margin to straighten and crop (common practice)
    const double m = optics.magnification * wanted_fill / *optics.fill;
    return Finding{fmt::format("The subject, {} \u00d7 {} mm, is larger than the field, {} \u00d7 {} mm.",
                               number_text(plan.shot.subject.width), number_text(plan.shot.subject.height),
                               number_text(*optics.field_width), number_text(*optics.field_height)),
                   remedy(plan, fmt::format("Fill 90 % of the frame, {}", magnification_text(m)),
                          [&](Shot& shot) { shot.rig.focus = {.by = FocusBy::magnification, .value = m}; })};
}

/// Thread of lens or close-up lens, in the order they are screwed on.
struct Joint {
    std::string name;
    double thread;  // of the close-up lens
    double lens_thread;
};
std::optional<Joint> first_joint(const Plan& plan, bool (*fires)(double thread, double lens_thread)) {
    for (const auto& id : plan.shot.rig.closeup_lenses) {
        const auto& closeup = *find_gear(plan.kit.closeup_lenses, id);
        if (fires(closeup.thread, plan.lens.filter_thread))
            return Joint{.name = closeup.name, .thread = closeup.thread, .lens_thread = plan.lens.filter_thread};
    }
    return std::nullopt;
}

Found step_ring_needed(const Plan& plan, const Report&) {
    const auto joint = first_joint(plan, [](double thread, double lens) { return thread > lens; });
    if (!joint) return {};
    return Finding{fmt::format("{} has a {} mm thread, the lens {} mm: take a {} to {} mm step ring.", joint->name,
                               number_text(joint->thread), number_text(joint->lens_thread),
                               number_text(joint->lens_thread), number_text(joint->thread))};
}

Found closeup_lens_smaller(const Plan& plan, const Report&) {
    const auto joint = first_joint(plan, [](double thread, double lens) { return thread < lens; });
    if (!joint) return {};
    const auto larger = [&](const CloseupLens& closeup) {
        const auto& now = *find_gear(plan.kit.closeup_lenses, plan.shot.rig.closeup_lenses.front());
        return closeup.thread >= plan.lens.filter_thread && closeup.power_dpt == now.power_dpt;
    };
    Finding finding{
        fmt::format("{} has a {} mm thread, smaller than the lens's {} mm: it needs a {} to {} mm step ring "
                    "and may darken the corners.",
                    joint->name, number_text(joint->thread), number_text(joint->lens_thread),
                    number_text(joint->lens_thread), number_text(joint->thread))};
    const auto other = std::ranges::find_if(plan.kit.closeup_lenses, larger);
    if (other != plan.kit.closeup_lenses.end() && plan.shot.rig.closeup_lenses.size() == 1)
        finding.remedy = remedy(plan, fmt::format("Take {}", other->name),
                                [&](Shot& shot) { shot.rig.closeup_lenses = {other->id}; });
    return finding;
}

Found tube_without_contacts(const Plan& plan, const Report&) {
    for (const auto& id : plan.shot.rig.tubes) {
        const auto& tube = *find_gear(plan.kit.tubes, id);
        if (tube.contacts) continue;
        return Finding{
            fmt::format("{} carries no contacts: no autofocus, and the stop must be set before mounting or on "
                        "the lens itself.",
                        tube.name)};
    }
    return {};
}

Found infinity_lost(const Plan& plan, const Report& report) {
    if (report.optics.reaches_infinity) return {};
    const auto far = optics::focus_at_ring(plan.train, 0).subject_to_sensor;
    const auto near = optics::focus_at_ring(plan.train, 1).subject_to_sensor;
    if (!far || !near) return Finding{"Infinity focus is lost."};
    return Finding{fmt::format("Infinity focus is lost: the ring reaches from {} to {}, subject to sensor.",
                               length_text(std::min(*near, *far)), length_text(std::max(*near, *far)))};
}

Found working_aperture(const Plan& plan, const Report& report) {
    constexpr double worth_saying = 0.3;  // stops, a third
    if (report.optics.exposure_loss < worth_saying) return {};
    const double marked = plan.shot.exposure.f_number;
    const double working = report.optics.working_f_number;
    const bool shows_working = plan.camera.aperture_display == ApertureDisplay::working;
    const auto shown = shows_working
                           ? fmt::format("the camera shows the working value; the ring says {}", f_number_text(marked))
                           : fmt::format("the camera goes on showing {}", f_number_text(marked));
    return Finding{
        fmt::format("Marked {} works at {}; {}. Metering through the lens has paid the {} stops; a hand-held "
                    "meter and manual flash have not.",
                    f_number_text(marked), f_number_text(working), shown, number_text(report.optics.exposure_loss, 2))};
}

constexpr Rule rules[] = {
    {"magnification-out-of-reach", Station::reach, Level::stop, Concern::plan, magnification_out_of_reach},
    {"focus-inside-lens", Station::reach, Level::stop, Concern::plan, focus_inside_lens},
    {"lens-close", Station::reach, Level::caution, Concern::plan, lens_close},
    {"lens-shades-light", Station::light, Level::caution, Concern::plan, lens_shades_light},
    {"subject-larger-than-frame", Station::subject, Level::caution, Concern::plan, subject_larger_than_frame},
    {"closeup-lens-smaller", Station::reach, Level::caution, Concern::plan, closeup_lens_smaller},
    {"tube-without-contacts", Station::reach, Level::caution, Concern::plan, tube_without_contacts},
    {"step-ring-needed", Station::reach, Level::info, Concern::plan, step_ring_needed},
    {"infinity-lost", Station::reach, Level::info, Concern::plan, infinity_lost},
    {"working-aperture", Station::reach, Level::info, Concern::plan, working_aperture},
};

}  // namespace

std::span<const Rule> reach_rules() { return rules; }

}  // namespace poquito::shoot
