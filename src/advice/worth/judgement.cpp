#include "advice/worth/judgement.hpp"

#include "../proposals/settling.hpp"
#include "advice/rules/rules.hpp"
#include "advice/worth/ladder.hpp"
#include "optics/chance.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

double on_lens(const plan::Plan& plan, double f_number) {
    const auto& optics = plan.lens.optics;
    const double smallest = std::min(optics.min_aperture, plan.terms.limits.f_number.value_or(optics.min_aperture));
    return std::clamp(f_number, optics.max_aperture, std::max(smallest, optics.max_aperture));
}

/// Why a stack cannot be asked of this subject and person; empty: it can.
std::string against_stack(const Approach& made, const plan::Plan& plan, const shoot::Limits& limits) {
    const double frames = made.report.capture.cost.exposures;
    if (limits.frames && frames > *limits.frames)
        return fmt::format("{} frames, {} at most", text::number_text(frames, 9), text::number_text(*limits.frames, 9));
    if (limits.minutes && made.seconds > *limits.minutes * 60)
        return fmt::format("{}, {} at most", text::time_text(made.seconds), text::time_text(*limits.minutes * 60));
    const Worth worth = worth_of(plan, made.report);
    if (worth.kept(Quality::possible) < 1) return "it cannot be stepped so";
    // What the run as a whole has to come through; stop, time and light are still to be found.
    double whole = 1;
    if (made.report.chance)
        for (const auto& cause : made.report.chance->causes)
            if (cause.cause == plan::ChanceCause::moves_on || cause.cause == plan::ChanceCause::gap)
                whole *= cause.share;
    constexpr double of_no_use = 0.3, setting_up = 5, minute = 60;
    const double odds = optics::chance_of_any(whole, worth.patience * minute / (made.seconds + setting_up));
    if (odds >= of_no_use) return {};
    const double moves = plan::wandering(made.shot.subject, made.lasts);
    if (moves > made.tolerance)
        return fmt::format("moves {} in {}", text::length_text(moves), text::time_text(made.lasts));
    return fmt::format("{} frames, odds of {:.0f} %", text::number_text(made.report.capture.frames, 9), odds * 100);
}

shoot::Shot changed(const shoot::Shot& shot, const char* id, shoot::CaptureMode mode, double f_number) {
    shoot::Shot other = shot;
    other.capture.mode = mode;
    other.capture.approach = id;
    other.exposure.f_number = f_number;
    return other;
}

Approach approach(const plan::Plan& now, const char* id, std::string name, shoot::Shot shot) {
    Approach made{.id = id, .name = std::move(name), .shot = std::move(shot), .report = {}};
    const plan::Plan plan = plan::plan_of(now, made.shot);
    made.report = plan::assess(plan);
    const auto& report = made.report;
    const auto& capture = report.capture;
    const auto imaging = plan::imaging_of(plan, made.shot.exposure.f_number);
    const double airy = report.sharpness.airy_diameter;
    const bool stack = made.shot.capture.mode == shoot::CaptureMode::stack && capture.frames > 1;
    const double m = report.optics.magnification;
    if (stack) {
        // Each point lies within half a step of some frame's plane of focus.
        const double between = optics::blur_disc(imaging, *capture.step / 2).value_or(0);
        made.ends_blur = made.middle_blur = std::hypot(between, airy);
    } else {
        made.ends_blur = blur_at_ends(report).value_or(airy);
        const double off = std::abs(made.shot.sharpness.focus_offset) * m * m / imaging.working_f_number;
        made.middle_blur = std::hypot(off, airy);
    }
    made.seconds = capture.paced_duration;
    for (const auto& source : report.light.sources)
        if (source.stops) made.flash_energy += capture.frames * source.power;
    const double sideways = report.sharpness.blur_limit / m;
    made.tolerance =
        stack && capture.frame_depth ? std::min(sideways, made.shot.capture.overlap * *capture.frame_depth) : sideways;
    made.lasts = stack ? made.seconds : report.motion.exposure_time;
    made.background = report.sharpness.background_disc_share;
    if (stack) made.against = against_stack(made, plan, plan.terms.limits);
    return made;
}

/// The widest stop at which the camera's own composite takes no more frames than it can; the smallest where none does.
Approach composite(const plan::Plan& plan, int most) {
    const auto& optics = plan.lens.optics;
    double f_number = optics.max_aperture;
    const auto stack = [&] { return changed(plan.shot, "composite", shoot::CaptureMode::stack, f_number); };
    for (;;) {
        const auto frames = plan::stack_frames_at(plan::plan_of(plan, stack()), f_number);
        if (!frames || *frames <= most) break;
        const double next = text::step_f_number(f_number, 1);
        if (next <= f_number || next > optics.min_aperture * 1.001) break;
        f_number = next;
    }
    Approach made = approach(plan, "composite", fmt::format("In camera at {}", text::f_number_text(f_number)), stack());
    const auto& capture = made.report.capture;
    if (capture.frames > most && capture.step) {
        const double span = plan::wanted_sharp(plan).length() + plan.shot.capture.lead + plan.shot.capture.tail;
        made.covered = std::min(1.0, ((most - 1) * *capture.step + *capture.frame_depth) / span);
        made.against = fmt::format("{} frames hold {:.0f} % of it", most, made.covered * 100);
    }
    return made;
}

bool holds_all(const Approach& single) {
    const auto& sharp = single.report.sharpness;
    return sharp.edge_blur.value_or(0) <= sharp.blur_limit && sharp.airy_diameter <= 2 * sharp.blur_limit;
}

/// At the stop with the least blur, or the widest beyond it that holds all of the depth where one does.
Approach best_single(const plan::Plan& plan, double least_blur) {
    const auto at = [&](double f_number) {
        shoot::Shot single = changed(plan.shot, "single-best", shoot::CaptureMode::single, f_number);
        single.sharpness.focus_offset = 0;
        return approach(plan, "single-best", fmt::format("One frame at {}", text::f_number_text(f_number)), single);
    };
    Approach first = at(least_blur);
    if (holds_all(first)) return first;
    for (double f_number = least_blur;;) {
        const double next = on_lens(plan, text::step_f_number(f_number, 1));
        if (next <= f_number) return first;
        f_number = next;
        Approach smaller = at(f_number);
        if (smaller.report.sharpness.airy_diameter > 2 * smaller.report.sharpness.blur_limit) return first;
        if (holds_all(smaller)) return smaller;
    }
}

struct Choice {
    std::size_t index;
    std::string why;
};

std::size_t index_of(const std::vector<Approach>& approaches, const char* id) {
    return static_cast<std::size_t>(std::ranges::find(approaches, id, &Approach::id) - approaches.begin());
}

std::string um(double mm) { return text::length_text(mm); }

/// What one frame and a stack come to, each at the settings that are worth most, lit and carried as the shot is.
struct Weighed {
    double single = -1, stack = -1;  // worth; below 0: it cannot be had
    double stack_stop = halo_safe_f_number;
};
Weighed weighed(const plan::Plan& plan) {
    const shoot::Shot& shot = plan.shot;
    Weighed made;
    const bool flash = std::ranges::any_of(
        shot.lights, [](const auto& light) { return !light.lamp && !light.reflector && !light.off; });
    for (const auto mode : {shoot::CaptureMode::single, shoot::CaptureMode::stack}) {
        shoot::Shot other = shot;
        other.capture.mode = mode;
        other.sharpness.focus_offset = 0;
        for (const Lit lit : {Lit::ambient, Lit::flash, Lit::fill}) {
            if ((lit == Lit::ambient) == flash || (lit == Lit::fill && mode == shoot::CaptureMode::stack)) continue;
            const double begin = mode == shoot::CaptureMode::single ? shot.exposure.f_number : halo_safe_f_number;
            const auto best = Settling(plan.kit, other, plan.terms, lit, {}, 0).beside(begin);
            if (!best) continue;
            const double worth = best->excess > 0 ? 0 : best->worth;
            auto& reached = mode == shoot::CaptureMode::single ? made.single : made.stack;
            if (worth <= reached) continue;
            reached = worth;
            if (mode == shoot::CaptureMode::stack) made.stack_stop = best->shot.exposure.f_number;
        }
    }
    return made;
}

Choice choose(const std::vector<Approach>& all, const Weighed& worth) {
    const auto single = index_of(all, "single-best"), sharpest = index_of(all, "stack-sharpest"),
               safe = index_of(all, "stack-halo-safe"), camera = index_of(all, "composite");
    const Approach& one = all[single];
    const auto& shot = one.shot;
    const bool stack_can = all[safe].against.empty() || all[sharpest].against.empty();
    const bool stack_is_worth_more = worth.stack > worth.single * (1 + tie) && stack_can;
    const bool camera_works = camera < all.size() && all[camera].against.empty();
    const std::string& against = all[safe].against;
    if (!stack_is_worth_more) {
        if (holds_all(one)) {
            const auto& zone = one.report.sharpness.zone;
            return {single,
                    fmt::format("One frame at {} holds {} within the blur limit.",
                                text::f_number_text(one.shot.exposure.f_number),
                                zone ? fmt::format("the {} that have to be sharp", text::length_text(*zone))
                                     : fmt::format("all {} of the depth", text::length_text(one.report.extent.depth)))};
        }
        if (against.empty())
            return {single,
                    "A stack would cost more in time and odds than it gives in sharpness, so it is one frame at "
                    "its best stop."};
        if (camera_works && !all[sharpest].against.empty())
            return {camera,
                    fmt::format("A long stack fails here ({}), but the camera's own composite is through in {}.",
                                against, text::time_text(all[camera].lasts))};
        return {single, fmt::format("A stack fails here ({}{}), so it is one frame at its best stop.", against,
                                    advice::moves(shot.subject)
                                        ? fmt::format(", where {} would do no harm", um(all[safe].tolerance))
                                        : "")};
    }
    const char* still = shot.rig.support == shoot::Support::hand
                            ? "It holds still and the burst is short"
                            : "The subject holds still, so a stack costs only time";
    const auto away = [&](std::size_t i) {
        return std::abs(std::log2(all[i].shot.exposure.f_number / worth.stack_stop));
    };
    if (!all[safe].against.empty() || (all[sharpest].against.empty() && away(sharpest) < away(safe)))
        return {sharpest, fmt::format("{}, and {} is clearly sharper than {}.", still,
                                      text::f_number_text(all[sharpest].shot.exposure.f_number),
                                      text::f_number_text(all[safe].shot.exposure.f_number))};
    const bool bright_edges = shoot::has_trait(shot.subject, "polished") || shoot::has_trait(shot.subject, "liquid");
    if (bright_edges)
        return {safe, fmt::format("{}, and at {} its bright edges stay free of halos.", still,
                                  text::f_number_text(all[safe].shot.exposure.f_number))};
    return {safe, fmt::format("{}, and a wider stop would gain little for its many frames.", still)};
}

std::string cost_sentence(const std::vector<Approach>& all, std::size_t best) {
    const Approach& taken = all[best];
    const Approach& one = all[index_of(all, "single-best")];
    if (taken.report.capture.frames > 1)
        return fmt::format("{} in {} leave {} of blur at the ends, one frame at {} leaves {}.",
                           text::count_text(taken.report.capture.frames, "frame", "frames"),
                           text::time_text(taken.seconds), um(taken.ends_blur),
                           text::f_number_text(one.shot.exposure.f_number), um(one.ends_blur));
    const Approach& stack = all[index_of(all, "stack-halo-safe")];
    if (stack.report.capture.frames > 1)
        return fmt::format("It leaves {} at the ends; {} at {} would leave {}.", um(taken.ends_blur),
                           text::count_text(stack.report.capture.frames, "frame", "frames"),
                           text::f_number_text(stack.shot.exposure.f_number), um(stack.ends_blur));
    return fmt::format("It leaves {} at the ends and {} in the middle.", um(taken.ends_blur), um(taken.middle_blur));
}

}  // namespace

double sharpest_f_number(const plan::Plan& plan) {
    const double widest = plan.lens.optics.max_aperture;
    double f_number = on_lens(plan, text::step_f_number(widest, 6));
    const auto airy = [&](double marked) {
        return optics::airy_diameter(plan::working_f_number(plan, marked), plan.shot.sharpness.wavelength);
    };
    while (f_number > widest && airy(f_number) > 2 * blur_limit(plan)) {
        const double wider = std::max(widest, text::step_f_number(f_number, -1));
        if (wider >= f_number) break;
        f_number = wider;
    }
    return f_number;
}

std::optional<Judgement> judge(const plan::Plan& plan) {
    const shoot::Shot& shot = plan.shot;
    const plan::Report now = plan::assess(plan);
    if (!(now.optics.magnification > 0)) return std::nullopt;
    const auto text = [](const char* what, double f) { return fmt::format("{} at {}", what, text::f_number_text(f)); };
    const auto& wanted = now.sharpness.best_single_f_number;
    const double best = on_lens(plan, wanted ? text::nearest_f_number(*wanted) : shot.exposure.f_number);
    const double own = shot.exposure.f_number, sharpest = sharpest_f_number(plan),
                 safe = on_lens(plan, halo_safe_f_number);
    Judgement judgement;
    auto& all = judgement.approaches;
    // The best single stop is the one for a focus in the middle of the depth.
    all.push_back(best_single(plan, best));
    all.push_back(approach(plan, "single-own", text("One frame", own),
                           changed(shot, "single-own", shoot::CaptureMode::single, own)));
    all.push_back(approach(plan, "stack-sharpest", text("Stack", sharpest),
                           changed(shot, "stack-sharpest", shoot::CaptureMode::stack, sharpest)));
    all.push_back(approach(plan, "stack-halo-safe", text("Stack", safe),
                           changed(shot, "stack-halo-safe", shoot::CaptureMode::stack, safe)));
    const int most = plan.camera.bracket.composite_max_frames;
    if (most > 1) all.push_back(composite(plan, most));
    if (!shoot::wants_sharpness(shot)) {
        judgement.best = index_of(all, "single-own");
        judgement.reason =
            "Nothing in this plate has to be sharp. One frame at the stop of the picture it is laid under.";
        return judgement;
    }
    auto [index, why] = choose(all, weighed(plan));
    judgement.best = index;
    judgement.reason = why + " " + cost_sentence(all, index);
    return judgement;
}

std::string objection(const Judgement& judgement, std::size_t chosen) {
    const Approach& best = judgement.approaches[judgement.best];
    const Approach& taken = judgement.approaches[chosen];
    if (chosen == judgement.best) return {};
    std::string text =
        fmt::format("Your choice: {}. Against {} it leaves {} at the ends in place of {}, in {} in place of {}",
                    taken.name, best.name, um(taken.ends_blur), um(best.ends_blur),
                    text::count_text(taken.report.capture.frames, "frame", "frames"),
                    text::number_text(best.report.capture.frames, 9));
    if (!taken.against.empty()) text += fmt::format("; mind that {}", taken.against);
    return text + ".";
}

}  // namespace poquito::advice
