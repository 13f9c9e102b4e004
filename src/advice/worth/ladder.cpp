#include "advice/worth/ladder.hpp"

#include "advice/worth/worth.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/plan.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

/// The engraved full stops a lens has.
std::vector<double> full_stops(const plan::Plan& plan) {
    const auto& optics = plan.lens.optics;
    constexpr double as_engraved = 1.01;  // f/22 is 22.6
    std::vector<double> stops;
    for (double f = 1; f <= optics.min_aperture * as_engraved; f = text::step_f_number(f, 3)) {
        if (f * as_engraved >= optics.max_aperture) stops.push_back(f);
        if (text::step_f_number(f, 3) <= f) break;
    }
    constexpr std::size_t most = 9;
    if (stops.size() > most) stops.erase(stops.begin(), stops.end() - most);
    return stops;
}

std::vector<double> doublings(double middle) {
    std::vector<double> values;
    for (int i = -3; i <= 3; ++i) values.push_back(middle * std::exp2(i));
    return values;
}

}  // namespace

const std::vector<LadderKind>& ladder_kinds() {
    static const std::vector<LadderKind> kinds = {{LadderOf::aperture, "aperture", "stop"},
                                                  {LadderOf::focus, "focus", "focus, near to far"},
                                                  {LadderOf::magnification, "magnification", "magnification"},
                                                  {LadderOf::background, "background", "background distance"},
                                                  {LadderOf::shutter, "shutter", "shutter"},
                                                  {LadderOf::iso, "iso", "ISO"},
                                                  {LadderOf::lights, "lights", "lights, one by one"}};
    return kinds;
}

std::vector<double> ladder_values(const plan::Plan& plan, LadderOf of) {
    const shoot::Shot& shot = plan.shot;
    std::vector<double> values;
    switch (of) {
        case LadderOf::aperture:
            return full_stops(plan);
        case LadderOf::focus: {
            const double half = shoot::presented_extent(shot.subject).depth / 2;
            if (half > 0)
                for (int i = -3; i <= 3; ++i) values.push_back(half * i / 3);
            return values;
        }
        case LadderOf::magnification: {
            const double m = own_value(plan, of);
            if (m > 0)
                for (int i = -3; i <= 3; ++i) values.push_back(m * std::exp2(i / 2.0));
            return values;
        }
        case LadderOf::background:
            if (shot.background && shot.background->distance > 0) return doublings(shot.background->distance);
            return values;
        case LadderOf::shutter:
            for (int i = -3; i <= 3; ++i) values.push_back(text::step_shutter(shot.exposure.shutter, 3 * i));
            break;
        case LadderOf::iso:
            for (int i = -3; i <= 3; ++i) values.push_back(text::step_iso(shot.exposure.iso, 3 * i));
            break;
        case LadderOf::lights: {
            const std::size_t count = shot.lights.size();
            if (count == 0) return values;
            values.push_back(0);
            if (std::ranges::any_of(shot.lights, plan::is_flash)) values.push_back(all_flashes_off);
            constexpr std::size_t most = 3;  // more pictures side by side are too small to compare
            for (std::size_t i = 0; i < std::min(count, most); ++i) values.push_back(static_cast<double>(i + 1));
            for (std::size_t i = 0; i < std::min(count, most) && count > 1; ++i) values.push_back(muted(i));
            return values;
        }
    }
    values.erase(std::unique(values.begin(), values.end()), values.end());  // the ends of a scale repeat
    return values;
}

double own_value(const plan::Plan& plan, LadderOf of) {
    const shoot::Shot& shot = plan.shot;
    switch (of) {
        case LadderOf::aperture:
            return shot.exposure.f_number;
        case LadderOf::focus:
            return shot.sharpness.focus_offset;
        case LadderOf::magnification:
            return plan.at.magnification;
        case LadderOf::background:
            return shot.background ? shot.background->distance : 0;
        case LadderOf::shutter:
            return shot.exposure.shutter;
        case LadderOf::iso:
            return shot.exposure.iso;
        case LadderOf::lights:
            return 0;
    }
    return 0;
}

shoot::Shot at_rung(const shoot::Shot& shot, LadderOf of, double value) {
    shoot::Shot changed = shot;
    switch (of) {
        case LadderOf::aperture:
            changed.exposure.f_number = value;
            break;
        case LadderOf::focus:
            changed.sharpness.focus_offset = value;
            break;
        case LadderOf::magnification:
            changed.rig.focus = {.by = shoot::FocusBy::magnification, .value = value};
            break;
        case LadderOf::background:
            if (changed.background) changed.background->distance = value;
            break;
        case LadderOf::shutter:
            changed.exposure.shutter = value;
            break;
        case LadderOf::iso:
            changed.exposure.iso = value;
            break;
        case LadderOf::lights:
            for (std::size_t i = 0; i < changed.lights.size(); ++i) {
                if (value == all_flashes_off) changed.lights[i].off |= plan::is_flash(changed.lights[i]);
                if (value > 0) changed.lights[i].off |= i + 1 != static_cast<std::size_t>(value);
                if (value == muted(i)) changed.lights[i].off = true;
            }
            break;
    }
    return changed;
}

std::string rung_text(const shoot::Shot& shot, LadderOf of, double value) {
    switch (of) {
        case LadderOf::aperture:
            return text::f_number_text(value);
        case LadderOf::focus:
            if (value == 0) return "middle";
            return text::length_text(std::abs(value)) + (value < 0 ? " nearer" : " farther");
        case LadderOf::magnification:
            return text::magnification_text(value);
        case LadderOf::background:
            return text::length_text(value);
        case LadderOf::shutter:
            return text::shutter_text(value);
        case LadderOf::iso:
            return "ISO " + text::number_text(value, 6);
        case LadderOf::lights:
            if (value == 0) return "all";
            if (value == all_flashes_off) return "no flash";
            if (value > 0) return plan::light_label(shot, static_cast<std::size_t>(value) - 1) + " alone";
            return "without " + plan::light_label(shot, static_cast<std::size_t>(-2 - value));
    }
    return {};
}

namespace {

/// Exposed as the shot is now: whatever pays for the light, it is the same for all rungs.
double worth_as_lit(Worth worth, const Worth& now) {
    double product = 1;
    for (auto& part : worth.parts) {
        if (part.quality == Quality::exposure || part.quality == Quality::noise) part = now.part(part.quality);
        product *= part.factor();
    }
    return product;
}

void mark_best(std::vector<Rung>& rungs) {
    if (rungs.empty()) return;
    const auto best = std::ranges::max_element(rungs, {}, &Rung::worth);
    const auto own = std::ranges::find(rungs, true, &Rung::is_own);
    best->is_best = best->worth > own->worth + tie;
}

}  // namespace

std::vector<Rung> climb(const plan::Plan& now, LadderOf of, const std::vector<double>& values) {
    const shoot::Shot& shot = now.shot;
    const double own = own_value(now, of);
    const auto exposure_needed = [&](const shoot::Shot& one) {
        const double n = plan::working_f_number(plan::plan_of(now, one), one.exposure.f_number);
        return std::log2(n * n / (one.exposure.shutter * one.exposure.iso));
    };
    const double needed_now = exposure_needed(shot);
    // Compared one by one, lights give what they give together.
    const shoot::Shot as_fired = of == LadderOf::lights ? plan::as_fired(shot, plan::report_light(now)) : shoot::Shot{};
    const Worth worth_now = worth_of(now, plan::assess(now));
    const bool made_up = of == LadderOf::aperture || of == LadderOf::magnification;
    std::vector<Rung> rungs;
    for (const double value : values) {
        Rung rung{.value = value, .shot = at_rung(shot, of, value), .report = {}, .ends_blur = {}};
        const shoot::Shot taken = of == LadderOf::lights ? at_rung(as_fired, of, value) : rung.shot;
        const plan::Plan plan = plan::plan_of(now, taken);
        rung.report = plan::assess(plan);
        const Worth worth = worth_of(plan, rung.report);
        rung.worth = made_up ? worth_as_lit(worth, worth_now) : worth.worth;
        rung.ends_blur = blur_at_ends(rung.report);
        rung.light_needed = exposure_needed(rung.shot) - needed_now;
        rungs.push_back(std::move(rung));
    }
    const auto apart = [&](const Rung& rung) {
        return of == LadderOf::focus || of == LadderOf::lights ? std::abs(rung.value - own)
                                                               : std::abs(std::log(rung.value / own));
    };
    if (!rungs.empty()) std::ranges::min_element(rungs, {}, apart)->is_own = true;
    mark_best(rungs);
    return rungs;
}

std::optional<double> blur_at_ends(const plan::Report& report) {
    const auto& sharpness = report.sharpness;
    if (!sharpness.edge_blur) return std::nullopt;
    return std::hypot(*sharpness.edge_blur, sharpness.airy_diameter);
}

}  // namespace poquito::advice
