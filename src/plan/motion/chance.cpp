#include "plan/motion/chance.hpp"

#include "plan/light/lighting.hpp"
#include "plan/motion/freeze.hpp"
#include "plan/motion/trajectory.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <map>

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

/// Of a frame that is drawn by the flash, by the open shutter, or by either.
double by_its_time(const Plan& plan, const MotionReport& motion, const std::function<double(double time)>& share) {
    if (!motion.flash_time) return share(motion.exposure_time);
    const double flash = motion.open_share < 1 ? share(*motion.flash_time) : 0;
    const double open = motion.open_share > 0 ? share(plan.shot.exposure.shutter) : 0;
    return (1 - motion.open_share) * flash + motion.open_share * open;
}

bool by_hand(const Plan& plan) { return plan.shot.rig.support == shoot::Support::hand; }

double hands_across(const Plan& plan, double exposure_time) {
    if (!by_hand(plan)) return 1;
    return optics::steady_share(shake_of(plan, hands_of(plan), exposure_time), blur_limit(plan));
}

/// Whoever releases by eye at something fast is off by so much in time, one standard deviation (from memory: trained
/// people who see it coming).
constexpr double off_by_hand = 0.03;  // s

/// What does not break the beam fires nothing.
bool never_triggered(const shoot::Freeze& freeze) {
    const auto path = trajectory_of(freeze);
    return freeze.trigger == shoot::Trigger::beam && path && !path->beam_after;
}

/// Of throws whose light comes while the thing is in the frame.
double triggered(const Plan& plan, const Report& report) {
    const auto& freeze = *plan.shot.freeze;
    const auto& tries = shoot::tries_of(plan.shot);
    const double fires = never_triggered(freeze) ? 0 : tries.trigger_fires * (1 - tries.false_fires);
    if (freeze.trigger != shoot::Trigger::hand || !report.optics.field_height) return fires;
    const double speed = speed_of(freeze);
    if (!(speed > 0)) return fires;
    return fires * optics::scatter_within(off_by_hand, *report.optics.field_height / 2 / speed);
}

/// Of throws that are in the frame as the light comes: to the sides as they scatter; up and down only a throw does, a
/// fall is as long as it is. None where it never gets there.
double in_frame(const Plan& plan, const Report& report) {
    if (!report.freeze->path) return 0;
    const auto& freeze = *plan.shot.freeze;
    const auto& path = *report.freeze->path;
    const double aside = shoot::aside_of(plan.shot);
    const double up = freeze.act == shoot::Act::thrown ? aside : 0;
    const double half_width = *report.optics.field_width / 2, half_height = *report.optics.field_height / 2;
    return optics::scatter_between(aside, half_width - path.off_x, half_width + path.off_x) *
           optics::scatter_between(up, half_height - path.off_y, half_height + path.off_y);
}

/// Of one try with all that belongs to it, where nobody said (common practice).
double usual_seconds(const Plan& plan, const Report& report) {
    constexpr double throwing = 30, looking = 2, stack = 5, pouring = 90;
    const auto& tries = shoot::tries_of(plan.shot);
    if (tries.perch) return tries.perch->comes_every;
    if (plan.shot.freeze) return plan.shot.freeze->act == shoot::Act::sinks ? pouring : throwing;
    return report.capture.frames > 1 ? report.capture.cost.seconds + stack : looking;
}

/// How often what flies is held: nearly always where it is drawn as short as is wanted, or as nobody sees, and hardly
/// ever where three times as long.
double held(const Plan& plan, const Report& report) {
    const double wanted = plan.shot.freeze->wanted_blur * optics::pixel_pitch(plan.sensor);
    const double felt = std::max(wanted, report.sharpness.blur_limit);
    const double drawn = std::max(plan.at.magnification, 0.0) * std::max(report.freeze->speed, plan.shot.subject.speed);
    constexpr double spoilt = 3;
    return by_its_time(plan, report.motion,
                       [&](double time) { return optics::kept_share(drawn * time, felt, spoilt * felt); });
}

/// An animal of which nobody said how it moves breathes and shifts its feet, mm/s (common practice).
constexpr double breathing = 0.1;
/// How long what pauses, a lull or an animal, stays so, s (common practice).
constexpr double lull = 8;

/// That what moves by itself or swings is still within what nobody sees when the last frame of a stack is taken.
double stays_put(const Plan& plan, const Report& report) {
    const auto& subject = plan.shot.subject;
    const auto& tries = shoot::tries_of(plan.shot);
    // Of bursts while swaying the planes come one by one, in whichever of them.
    const bool bursts = plan.shot.capture.mover == shoot::Mover::hand;
    const double run =
        bursts ? report.capture.cost.seconds : report.capture.cost.cadence.frame * (report.capture.frames - 1);
    const double lasts = std::exp(-run / lull);
    // Three limits between the first frame and the last are lost in putting them together (common practice).
    const double seen = 3 * report.sharpness.blur_limit / std::max(plan.at.magnification, 1e-9);
    const auto near_enough = [&](double moved) { return 1 / (1 + std::pow(moved / seen, 2)); };
    const bool alive = shoot::has_trait(subject, "living") || shoot::has_trait(subject, "person");
    const bool rests_always = tries.still && *tries.still >= 1;
    const double speed = subject.speed > 0 ? subject.speed : alive && !rests_always ? breathing : 0;
    double share = 1;
    if (speed > 0) {
        const double still = shoot::still_of(plan.shot);
        share *= still * lasts + (1 - still) * near_enough(speed * run);
    }
    if (subject.sway_amplitude > 0)
        share *= tries.calm * lasts * near_enough(tries.calm_swing * subject.sway_amplitude) +
                 (1 - tries.calm) * near_enough(subject.sway_amplitude);
    return share;
}

/// Who sways evenly gets all planes with the bursts that are planned; of three who try one sways so (common practice).
constexpr double swaying_hits = 0.3;

/// That hands which drift as they shift pass over no plane between one frame of a held bracket and the next.
double no_gap(const Plan& plan, const Report& report) {
    const double drift = hands_of(plan).shift * report.capture.cost.cadence.frame;
    return std::pow(optics::scatter_within(drift, report.capture.step.value_or(0)), report.capture.frames - 1);
}

std::vector<CauseOdds> causes_of(const Plan& plan, const Report& report, bool bursts) {
    const auto& shot = plan.shot;
    const auto& tries = shoot::tries_of(plan.shot);
    const auto& motion = report.motion;
    const bool stack = report.capture.frames > 1;
    std::vector<CauseOdds> causes;
    const auto add = [&](ChanceCause cause, double share) { causes.push_back({.cause = cause, .share = share}); };
    const auto depth = depth_to_hit(report);
    const bool is_drawn = plan.terms.wishes.movement == shoot::WantedMovement::drawn;  // what moves is to be drawn

    if (shot.subject.sway_amplitude > 0) {
        if (!is_drawn)
            add(ChanceCause::wind, by_its_time(plan, motion, [&](double time) { return swing_across(plan, time); }));
        const double through = shoot::sway_through(shot.subject);
        if (depth && through > 0)
            add(ChanceCause::wind_through,
                in_gusts(tries, [&](double swing) { return optics::share_within(through * swing, *depth / 2); }));
    }
    if (by_hand(plan)) {
        add(ChanceCause::hands, by_its_time(plan, motion, [&](double time) { return hands_across(plan, time); }));
        if (const auto burst = burst_of(plan, report))
            add(ChanceCause::hands_through, burst->in_depth);
        else if (depth && !stack)
            add(ChanceCause::hands_through, optics::scatter_within(hands_of(plan).along, *depth / 2));
        else if (stack)
            add(ChanceCause::gap, bursts ? swaying_hits : no_gap(plan, report));
    }
    if (!shot.freeze && !is_drawn && shot.subject.speed > 0) {
        const double still = shoot::still_of(shot);
        const double drawn = std::max(plan.at.magnification, 0.0) * shot.subject.speed;
        const double moving = by_its_time(
            plan, motion, [&](double time) { return optics::steady_share(drawn * time, report.sharpness.blur_limit); });
        constexpr double left_to_chance = 1e-6;
        if (const double share = still + (1 - still) * moving; share < 1 - left_to_chance)
            add(ChanceCause::moving, share);
    }
    // A flash that starves on the way leaves frames dark that nothing replaces.
    if (stack)
        for (const auto& source : report.light.sources)
            if (source.whole_frames && *source.whole_frames < report.capture.frames)
                add(ChanceCause::flash, std::pow(*source.whole_frames / report.capture.frames, 2));
    if (stack && !shot.freeze && !is_drawn)
        if (const double share = stays_put(plan, report); share < 1) add(ChanceCause::moves_on, share);
    if (tries.perch && !shot.freeze) {
        const auto& sharp = report.sharpness;
        constexpr double ever = std::numeric_limits<double>::infinity();
        if (sharp.near)
            add(ChanceCause::landing,
                optics::scatter_between(tries.perch->scatter, *sharp.near, sharp.far.value_or(ever)));
        if (report.optics.field_width && report.optics.field_height)
            add(ChanceCause::landing_aside,
                optics::scatter_within(tries.perch->aside, *report.optics.field_width / 2) *
                    optics::scatter_within(tries.perch->aside, *report.optics.field_height / 2));
    }
    if (shot.freeze) {
        if (report.freeze && !is_drawn) add(ChanceCause::flash, held(plan, report));
        if (const double share = triggered(plan, report); share < 1 || shot.freeze->trigger == shoot::Trigger::hand)
            add(ChanceCause::trigger, share);
        const bool many = shot.freeze->pieces > 1;
        // Nobody steers how they fly together: of five-and-twenty one throw in five pleases (common practice, a guess).
        if (many) add(ChanceCause::pattern, 1 / std::sqrt(static_cast<double>(shot.freeze->pieces)));
        if (many && report.freeze && report.freeze->path)
            add(ChanceCause::landing, report.freeze->path->inside);  // of what flies together as much as is wanted
        else if (report.freeze && report.freeze->landing_inside)
            add(ChanceCause::landing, *report.freeze->landing_inside);
        if (report.freeze && report.optics.field_width && report.optics.field_height)
            add(ChanceCause::landing_aside, in_frame(plan, report));
    }
    std::ranges::stable_sort(causes, {}, &CauseOdds::share);
    return causes;
}

}  // namespace

const char* cause_name(ChanceCause cause) {
    constexpr const char* names[] = {
        "wind across",      "wind through focus", "hand shake",          "hands to and fro",
        "subject movement", "it moves on",        "gaps between frames", "flash",
        "trigger",          "where it lands",     "out of frame",        "how they fly"};
    return names[static_cast<int>(cause)];
}

namespace {

/// mm to and fro, one standard deviation, of hands that aim: a millimetre where they would sway as usual.
double aimed(double range) { return range / shoot::HandHeld().range; }

}  // namespace

bool ChanceReport::hangs_on(ChanceCause cause) const {
    return std::ranges::find(causes, cause, &CauseOdds::cause) != causes.end();
}

std::optional<double> depth_to_hit(const Report& report) {
    return report.capture.frames > 1 ? report.capture.frame_depth : report.sharpness.depth_of_field;
}

double shake_of(const Plan& plan, const shoot::Hands& hands, double exposure_time) {
    const double m = std::max(0.0, plan.at.magnification);
    return exposure_time * std::hypot(hands.shift * m, hands.turn * plan.at.focal_length * (1 + m));
}

shoot::Hands hands_of(const Plan& plan) {
    if (const auto& hands = shoot::tries_of(plan.shot).hands) return *hands;
    return {.shift = HandShake::shifting, .turn = HandShake::turning, .along = aimed(plan.shot.capture.hand.range)};
}

shoot::Hands hands_braced(const Brace& brace) {
    const double share = brace.speed / shoot::HandHeld().speed;
    return {.shift = HandShake::shifting * share, .turn = HandShake::turning * share, .along = aimed(brace.range)};
}

double chance_of_all(double one, double frames) { return std::pow(one, std::sqrt(frames)); }

double sharp_share(const Plan& plan, const MotionReport& motion) {
    return by_its_time(plan, motion, [&](double time) { return swing_across(plan, time); }) *
           by_its_time(plan, motion, [&](double time) { return hands_across(plan, time); });
}

namespace {

/// An animal that does not stay: how many tries one visit gives, and how many visits that makes. One frame it always
/// gives; after each it goes with the share that is driven off, and when its time is up.
void count_visits(const shoot::Tries& tries, ChanceReport& made) {
    if (!tries.stays && tries.flees <= 0) return;
    if (tries.perch) return;  // a try is a visit
    double a_visit = std::numeric_limits<double>::infinity();
    if (tries.stays) a_visit = std::max(1.0, std::floor(*tries.stays / made.seconds_a_try));
    // Of a geometric row, cut off when it leaves by itself.
    if (tries.flees > 0) a_visit = (1 - std::pow(1 - tries.flees, a_visit)) / tries.flees;
    made.tries_a_visit = a_visit;
    made.visits = std::ceil(made.tries / a_visit);
}

}  // namespace

namespace {

/// Of the flash whose batteries so many frames empty most; empty: none has any.
std::optional<double> flash_charges(const Plan& plan, const Report& report, double exposures) {
    std::map<const gear::Flash*, double> used;
    for (std::size_t i = 0; i < plan.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (const auto* flash = plan.sources[i].flash; flash && source.fires && flash->charge)
            used[flash] += exposures * flashes_a_frame(plan.shot) * std::min(source.power, 1.0) / *flash->charge;
    }
    std::optional<double> most;
    for (const auto& [flash, share] : used) most = std::max(share, most.value_or(share));
    return most;
}

}  // namespace

std::optional<ChanceReport> report_chance(const Plan& plan, const Report& report) {
    const auto& tries = shoot::tries_of(plan.shot);
    // By hand the sway is what takes the planes of a stack.
    const bool bursts = report.capture.frames > 1 && plan.shot.capture.mover == shoot::Mover::hand;
    ChanceReport made{.causes = causes_of(plan, report, bursts)};
    if (made.causes.empty() && tries.tried == 0) return std::nullopt;
    made.frames = report.capture.frames;
    made.burst = burst_of(plan, report);
    // What a run has to come through as a whole is no matter of each of its frames.
    double whole = 1;
    for (const auto& cause : made.causes) {
        const bool of_run = cause.cause == ChanceCause::moves_on || cause.cause == ChanceCause::gap ||
                            (cause.cause == ChanceCause::flash && made.frames > 1);
        (of_run ? whole : made.reckoned) *= cause.share;
    }
    made.chance = chance_of_all(made.reckoned, made.frames) * whole;
    made.counted = optics::counted_share(tries.kept, tries.tried);
    if (made.counted && tries.tried >= enough_tried) made.chance = made.counted->share;
    made.tries = optics::tries_for(made.chance);
    made.seconds_a_try =
        tries.seconds.value_or(usual_seconds(plan, report) + (made.burst ? made.burst->seconds() : 0)) + tries.rinse;
    count_visits(tries, made);
    const double exposures = made.tries * (made.burst ? std::max(1, made.burst->row.frames) : 1);
    const auto for_all = [&](const std::optional<double>& share) {
        return share ? std::optional(*share * exposures) : std::nullopt;
    };
    made.flash_charge_share = flash_charges(plan, report, exposures);
    made.card_share = for_all(report.capture.cost.card_share);
    made.charge_share = for_all(report.capture.cost.charge_share);
    if (plan.terms.limits.minutes) {
        constexpr double ten = 10, minute = 60;
        made.stop_after = ten * std::floor(*plan.terms.limits.minutes * minute / made.seconds_a_try / ten);
        made.by_then = optics::chance_of_any(made.chance, *made.stop_after);
    }
    return made;
}

}  // namespace poquito::plan
