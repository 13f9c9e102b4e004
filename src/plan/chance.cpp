#include "plan/chance.hpp"

#include "plan/freeze.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::plan {
namespace {

/// In gusts part of the time is nearly calm.
double in_gusts(const shoot::Tries& tries, const std::function<double(double swing)>& share) {
    return tries.calm * share(tries.calm_swing) + (1 - tries.calm) * share(1);
}

double swing_across(const Plan& plan, double exposure_time) {
    const auto& subject = plan.shot.subject;
    return in_gusts(shoot::tries_of(plan.shot), [&](double swing) {
        return optics::sharp_share({.magnification = std::max(0.0, plan.at.magnification),
                                    .amplitude = subject.sway_amplitude * swing,
                                    .frequency = subject.sway_frequency,
                                    .exposure = exposure_time,
                                    .limit = blur_limit(plan)});
    });
}

bool by_hand(const Plan& plan) { return plan.shot.rig.support == shoot::Support::hand; }

double hands_across(const Plan& plan, double exposure_time) {
    if (!by_hand(plan)) return 1;
    const auto hands = hands_of(plan);
    const double m = std::max(0.0, plan.at.magnification);
    const double blur = exposure_time * std::hypot(hands.shift * m, hands.turn * plan.at.focal_length * (1 + m));
    return optics::steady_share(blur, blur_limit(plan));
}

/// Whoever releases by eye at something fast is off by so much in time, one standard deviation (from memory: trained
/// people who see it coming).
constexpr double off_by_hand = 0.03;  // s

/// Of throws whose light comes while the thing is in the frame.
double triggered(const Plan& plan, const Report& report) {
    const auto& freeze = *plan.shot.freeze;
    const double fires = shoot::tries_of(plan.shot).trigger_fires;
    if (freeze.trigger != shoot::Trigger::hand || !report.optics.field_height) return fires;
    const double speed = speed_of(freeze);
    if (!(speed > 0)) return fires;
    return fires * optics::scatter_within(off_by_hand, *report.optics.field_height / 2 / speed);
}

/// Of one try with all that belongs to it, where nobody said (common practice).
double usual_seconds(const Plan& plan, const Report& report) {
    constexpr double throwing = 30, looking = 2, stack = 5;
    if (plan.shot.freeze) return throwing;
    return report.capture.frames > 1 ? report.capture.cost.seconds + stack : looking;
}

std::vector<CauseOdds> causes_of(const Plan& plan, const Report& report, bool bursts) {
    const auto& shot = plan.shot;
    const auto& tries = shoot::tries_of(plan.shot);
    const double exposure = report.motion.exposure_time;
    std::vector<CauseOdds> causes;
    const auto add = [&](ChanceCause cause, double share) { causes.push_back({.cause = cause, .share = share}); };
    const auto depth = report.capture.frames > 1 ? report.capture.frame_depth : report.sharpness.depth_of_field;

    if (shot.subject.sway_amplitude > 0) {
        add(ChanceCause::wind, swing_across(plan, exposure));
        constexpr double of_it = 0.5;  // common practice
        const double through = shot.subject.sway_depth.value_or(of_it * shot.subject.sway_amplitude);
        if (depth && through > 0)
            add(ChanceCause::wind_through,
                in_gusts(tries, [&](double swing) { return optics::share_within(through * swing, *depth / 2); }));
    }
    if (by_hand(plan) && !bursts) {
        add(ChanceCause::hands, hands_across(plan, exposure));
        if (depth) add(ChanceCause::hands_through, optics::scatter_within(hands_of(plan).along, *depth / 2));
    }
    if (!shot.freeze && shot.subject.speed > 0 && report.motion.blur > report.sharpness.blur_limit)
        add(ChanceCause::moving, tries.still);
    if (shot.freeze) {
        if (tries.trigger_fires < 1 || shot.freeze->trigger == shoot::Trigger::hand)
            add(ChanceCause::trigger, triggered(plan, report));
        if (report.freeze && report.freeze->landing_inside) add(ChanceCause::landing, *report.freeze->landing_inside);
        if (report.optics.field_width)
            add(ChanceCause::landing_aside, optics::scatter_within(tries.lands_aside.value_or(shot.freeze->scatter),
                                                                   *report.optics.field_width / 2));
    }
    std::ranges::stable_sort(causes, {}, &CauseOdds::share);
    return causes;
}

}  // namespace

const char* cause_name(ChanceCause cause) {
    constexpr const char* names[] = {"wind across",      "wind through focus", "hand shake",
                                     "hands to and fro", "subject movement",   "trigger",
                                     "where it lands",   "out of frame"};
    return names[static_cast<int>(cause)];
}

namespace {

/// Of a sway from one end to the other and back at an even pace, one standard deviation.
double deviation_of(double range) { return range / std::sqrt(12.0); }

}  // namespace

shoot::Hands hands_of(const Plan& plan) {
    if (const auto& hands = shoot::tries_of(plan.shot).hands) return *hands;
    return {
        .shift = HandShake::shifting, .turn = HandShake::turning, .along = deviation_of(plan.shot.capture.hand.range)};
}

shoot::Hands hands_braced(const Brace& brace) {
    const double share = brace.speed / shoot::HandHeld().speed;
    return {
        .shift = HandShake::shifting * share, .turn = HandShake::turning * share, .along = deviation_of(brace.range)};
}

double sharp_share(const Plan& plan, double exposure_time) {
    return swing_across(plan, exposure_time) * hands_across(plan, exposure_time);
}

std::optional<ChanceReport> report_chance(const Plan& plan, const Report& report) {
    const auto& tries = shoot::tries_of(plan.shot);
    // By hand the sway is what takes the planes of a stack.
    const bool bursts = report.capture.frames > 1 && plan.shot.capture.mover == shoot::Mover::hand;
    ChanceReport made{.causes = causes_of(plan, report, bursts)};
    if (made.causes.empty() && tries.tried == 0) return std::nullopt;
    for (const auto& cause : made.causes) made.reckoned *= cause.share;
    made.frames = bursts ? 1 : report.capture.frames;
    made.chance = std::pow(made.reckoned, made.frames);
    made.counted = optics::counted_share(tries.kept, tries.tried);
    if (made.counted && tries.tried >= enough_tried) made.chance = made.counted->share;
    made.tries = optics::tries_for(made.chance);
    made.seconds_a_try = tries.seconds.value_or(usual_seconds(plan, report));
    const auto for_all = [&](const std::optional<double>& share) {
        return share ? std::optional(*share * made.tries) : std::nullopt;
    };
    made.card_share = for_all(report.capture.cost.card_share);
    made.charge_share = for_all(report.capture.cost.charge_share);
    if (plan.limits.minutes) {
        constexpr double ten = 10, minute = 60;
        made.stop_after = ten * std::floor(*plan.limits.minutes * minute / made.seconds_a_try / ten);
        made.by_then = optics::chance_of_any(made.chance, *made.stop_after);
    }
    return made;
}

}  // namespace poquito::plan
