#include "advice/proposals/proposals.hpp"

#include "proposal_words.hpp"
#include "settling.hpp"

#include "advice/advice.hpp"
#include "advice/rules/rules.hpp"
#include "advice/worth/trouble.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/chance.hpp"
#include "plan/plan.hpp"
#include "search/reach_search.hpp"
#include "shoot/change/edit.hpp"

#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>
#include <utility>

namespace poquito::advice {

namespace {

struct SchoolRow {
    const char* id;
    const char* name;
};
constexpr SchoolRow school_rows[] = {
    {"single-ambient", "One frame, no flash"},  {"single-flash", "One frame, flash"},
    {"burst-rocking", "A burst while rocking"}, {"stack-camera", "Camera's bracket"},
    {"stack-ring", "Stack by the ring"},        {"stack-rail", "Stack on a rail"},
    {"stack-hand", "Bursts while swaying"},
};
constexpr const char* lit_ids[] = {"ambient", "flash", "fill", "lamp", "ground"};

double over(double value, const std::optional<double>& limit) {
    constexpr double as_set = 1e-6;
    return limit && value > *limit * (1 + as_set) ? std::log2(value / *limit) : 0;
}

// ---- ways to take it ---------------------------------------------------------------------------------------------

/// One of them, its settings still to be found.
struct Taking {
    School school = School::single_ambient;
    Lit lit = Lit::ambient;
    shoot::Shot shot;
    Stays stays;
    double change = 0;  // minutes
};

// Minutes that go by (common practice).
constexpr double light_from_bag = 2, stand_from_bag = 3;

/// A flash of the bag where the shot has none: on the lens where it belongs there, else the strongest, at the camera's
/// left, above, as near as the front lets it, with the first diffuser of the bag.
std::optional<shoot::Light> added_flash(const gear::Kit& kit, double magnification) {
    if (kit.flashes.empty()) return std::nullopt;
    const auto on_lens = std::ranges::find_if(kit.flashes, [](const auto& f) { return f.heads != gear::Heads::one; });
    const auto& unit = on_lens != kit.flashes.end()
                           ? *on_lens
                           : *std::ranges::max_element(kit.flashes, {}, &gear::Flash::guide_number);
    constexpr double close_up = 0.15, near = 250, far = 1200;  // mm (common practice)
    shoot::Light light{
        .flash = unit.id,
        .position = {.distance = magnification > close_up ? near : far, .azimuth = -35, .elevation = 40}};
    if (on_lens != kit.flashes.end())
        light.on_lens = true;
    else if (!kit.modifiers.empty())
        light.modifier = kit.modifiers.front().id;
    return light;
}

/// cd on its axis.
double intensity(const gear::Lamp& lamp) {
    constexpr double metre = 1000;
    const double across = lamp.face / metre;
    if (!lamp.lux) return lamp.luminance.value_or(0) * std::numbers::pi * across * across / 4;
    return *lamp.lux * std::pow(lamp.lux_distance / metre, 2);
}

/// The brightest lamp of the kit where a flash would stand; one that burns only where there is no other.
shoot::Light added_lamp(const gear::Kit& kit, double magnification) {
    constexpr double close_up = 0.15, near = 300, far = 1200;  // mm (common practice)
    const auto& unit = *std::ranges::max_element(
        kit.lamps, {}, [](const gear::Lamp& lamp) { return std::pair(!lamp.hot, intensity(lamp)); });
    shoot::Light light{.position = {.distance = magnification > close_up ? near : far, .azimuth = -35, .elevation = 40},
                       .power = 1};
    light.lamp = unit.id;
    return light;
}

void switch_flashes(shoot::Shot& shot, bool on) {
    for (auto& light : shot.lights)
        if (plan::is_flash(light)) light.off = !on;
}

bool fires_flash(const shoot::Shot& shot) {
    return std::ranges::any_of(shot.lights, [](const auto& light) { return plan::is_flash(light) && !light.off; });
}

bool is_locked(const shoot::Shot& shot, shoot::Lock lock) {
    return shot.follows && std::ranges::count(shot.follows->locks, lock) > 0;
}

class Ways {
  public:
    Ways(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms)
        : kit_(kit), shot_(shot), now_(plan::plan_of(kit, shot, terms)), report_(plan::assess(now_)) {}

    std::vector<Taking> all() {
        const bool own_flash = fires_flash(shot_);
        const bool fixed = is_locked(shot_, shoot::Lock::light) || shot_.plate;
        for (const Lit lit : {Lit::ambient, Lit::flash, Lit::fill, Lit::lamp}) {
            const bool flash = lit == Lit::flash || lit == Lit::fill;
            if (fixed && (lit == Lit::lamp || flash != own_flash)) continue;
            if (lit == Lit::lamp && !lamp_helps()) continue;
            take(flash ? School::single_flash : School::single_ambient, lit);
            if (shot_.lapse || shot_.freeze) continue;  // the camera stays as it is; what flies waits for no bracket
            if (lit == Lit::ambient || lit == Lit::flash) take(School::burst_rocking, lit);
            for (const School school :
                 {School::stack_camera, School::stack_ring, School::stack_rail, School::stack_hand})
                if (lit == Lit::ambient || lit == Lit::lamp || (lit == Lit::flash && own_flash)) take(school, lit);
        }
        if (in_hand() && !kit_.stands.empty() && !shot_.freeze) {
            take(School::single_ambient, Lit::ambient, true);
            if (!shot_.lapse)
                for (const School school : {School::stack_camera, School::stack_ring, School::stack_rail})
                    take(school, own_flash ? Lit::flash : Lit::ambient, true);
        }
        return std::move(found_);
    }

  private:
    bool in_hand() const { return shot_.rig.support == shoot::Support::hand; }
    /// A lamp of the kit that the set has not yet, under a roof: outdoors by day it is lost.
    bool lamp_helps() const {
        return !kit_.lamps.empty() && !shoot::has_trait(shot_.subject, "outdoors") &&
               std::ranges::none_of(shot_.lights, [](const auto& light) { return light.lamp.has_value(); });
    }
    bool camera_steps() const {
        return now_.camera.bracket.max_frames > 1 && report_.optics.fit.autofocus && !shot_.rig.reversing_ring &&
               now_.lens.autofocus;
    }

    void take(School school, Lit lit, bool put_on_stand = false) {
        Taking way{.school = school, .lit = lit, .shot = shot_, .stays = {}};
        auto& made = way.shot;
        made.exposure.high_speed_sync = false;
        made.capture.mode = is_stack(school) ? shoot::CaptureMode::stack : shoot::CaptureMode::single;
        made.capture.approach.reset();
        if (put_on_stand) {
            made.rig.support = shoot::Support::sturdy_head;
            made.rig.stand = kit_.stands.front().id;
            way.change += stand_from_bag;
        }
        if (!light(way) || !carry(way)) return;
        way.stays = {.stop = is_locked(shot_, shoot::Lock::stop),
                     .times = is_locked(shot_, shoot::Lock::stop) && is_locked(shot_, shoot::Lock::light),
                     .power = is_locked(shot_, shoot::Lock::light) || shot_.exposure.lever == shoot::Lever::stop};
        found_.push_back(std::move(way));
    }

    bool light(Taking& way) {
        auto& made = way.shot;
        if (way.lit == Lit::ambient) {
            switch_flashes(made, false);
            return true;
        }
        if (way.lit == Lit::lamp) {
            switch_flashes(made, false);
            made.lights.push_back(added_lamp(kit_, now_.at.magnification));
            way.change += light_from_bag;
            return true;
        }
        if (std::ranges::none_of(made.lights, plan::is_flash)) {
            const auto light = added_flash(kit_, now_.at.magnification);
            if (!light) return false;
            made.lights.push_back(*light);
            way.change += light_from_bag;
        }
        // Those that stand dark among others that fire are so on purpose.
        if (!fires_flash(made)) switch_flashes(made, true);
        return true;
    }

    bool carry(Taking& way) {
        auto& made = way.shot;
        const bool hand = made.rig.support == shoot::Support::hand;
        switch (way.school) {
            case School::single_ambient:
            case School::single_flash:
                break;
            case School::burst_rocking:
                if (!hand) return false;
                shoot::own_tries(made).is = shoot::TryIs::rocking;
                return true;
            case School::stack_rail:
                if (hand || (kit_.rails.empty() && !made.rig.rail)) return false;
                if (!made.rig.rail) made.rig.rail = kit_.rails.front().id;
                made.capture.mover = shoot::Mover::rail;
                break;
            case School::stack_ring:
                if (hand || camera_steps()) return false;
                made.capture.mover = shoot::Mover::ring;
                break;
            case School::stack_camera:
                if (!camera_steps()) return false;
                made.capture.mover = shoot::Mover::ring;
                if (hand) {  // where a run begins is as uncertain as the hands
                    const double along = plan::hands_of(now_).along;
                    made.capture.lead = std::max(made.capture.lead, along);
                    made.capture.tail = std::max(made.capture.tail, along);
                }
                break;
            case School::stack_hand:
                if (!hand) return false;
                made.capture.mover = shoot::Mover::hand;
                break;
        }
        if (made.tries) made.tries->is = shoot::TryIs::frame;
        return true;
    }

    const gear::Kit& kit_;
    const shoot::Shot& shot_;
    plan::Plan now_;
    plan::Report report_;
    std::vector<Taking> found_;
};

// ---- one plan, and their order -----------------------------------------------------------------------------------

Lit lit_of(const plan::Plan& plan, const plan::Report& report) {
    const double flash = ratio_of(report.light.flash), steady = ratio_of(report.light.continuous),
                 there = ambient_shown(report.light);
    if (!(flash > 0) && !(steady > 0)) return Lit::ground;
    if (flash > 0) return steady > flash ? Lit::fill : Lit::flash;
    const bool lamps =
        std::ranges::any_of(plan.shot.lights, [](const auto& light) { return light.lamp && !light.off; });
    return lamps && steady - there > there ? Lit::lamp : Lit::ambient;
}

std::optional<Proposal> plan_by(const gear::Kit& kit, const Taking& way, const shoot::Terms& terms) {
    auto settled = Settling(kit, way.shot, terms, way.lit, way.stays, way.change).best();
    if (!settled) return std::nullopt;
    Proposal made{.school = way.school, .shot = std::move(settled->shot), .report = {}, .change = way.change};
    const plan::Plan plan = plan::plan_of(kit, made.shot, terms);
    made.report = plan::assess(plan);
    made.worth = worth_of(plan, made.report, way.change);
    made.lit = lit_of(plan, made.report);
    made.wishes = plan.terms.wishes;
    made.excess = excess_of(plan, made.report);
    made.keeps_limits = !made.excess.any();
    made.stopped = trouble_of(plan, made.report).stops > 0;
    made.gives_up = given_up(made);
    made.sentence = sentence_of(made);
    return made;
}

bool is_as(const Proposal& plan, const shoot::Shot& now) {
    const bool stack = now.capture.mode == shoot::CaptureMode::stack;
    return is_stack(plan.school) == stack && (!stack || plan.shot.capture.mover == now.capture.mover) &&
           plan.in_hand() == (now.rig.support == shoot::Support::hand) &&
           fires_flash(now) == (plan.lit == Lit::flash || plan.lit == Lit::fill);
}

/// Three stops and more under the light that is there a flash shows nowhere: no way of its own (common practice).
bool is_unseen_fill(const Proposal& plan) {
    constexpr double seen = 1.0 / 8;
    return plan.lit == Lit::fill && ratio_of(plan.report.light.flash) < seen * ratio_of(plan.report.light.continuous);
}

/// Worth first; of two within a tie the quicker, then the simpler.
void put_in_order(std::vector<Proposal>& plans) {
    std::vector<Proposal> sorted;
    // What is in the hand stays there unless nothing else works: a stand out of the bag is shown beside.
    constexpr double works = 0.05;
    const bool hand_works = std::ranges::any_of(
        plans, [](const Proposal& plan) { return plan.in_hand() && plan.fits() && plan.worth.worth >= works; });
    const auto rank = [&](const Proposal& plan) {
        return plan.stopped ? 3 : !plan.keeps_limits ? 2 : hand_works && !plan.in_hand() ? 1 : 0;
    };
    // Who waits a quarter of a minute longer, or some third of what it takes, does not notice (common practice).
    const auto pace = [](const Proposal& plan) { return std::round(2 * std::log(plan.worth.minutes + 0.5)); };
    while (!plans.empty()) {
        const auto lead = std::ranges::min_element(plans, [&](const Proposal& a, const Proposal& b) {
            return rank(a) != rank(b) ? rank(a) < rank(b) : a.worth.worth > b.worth.worth;
        });
        auto first = lead;
        for (auto one = plans.begin(); one != plans.end(); ++one) {
            if (rank(*one) != rank(*lead) || one->worth.worth < lead->worth.worth * (1 - tie)) continue;
            const auto simpler = [&](const Proposal& plan) { return std::tuple(pace(plan), plan.school, plan.lit); };
            if (simpler(*one) < simpler(*first)) first = one;
        }
        sorted.push_back(std::move(*first));
        plans.erase(first);
    }
    plans = std::move(sorted);
}

}  // namespace

const char* school_id(School school) { return school_rows[static_cast<std::size_t>(school)].id; }
const char* school_name(School school) { return school_rows[static_cast<std::size_t>(school)].name; }
bool is_stack(School school) { return school >= School::stack_camera; }
const char* lit_id(Lit lit) { return lit_ids[static_cast<std::size_t>(lit)]; }

std::string plan_name(const Proposal& plan) {
    std::string name = school_name(plan.school);
    if (plan.school == School::single_ambient && plan.lit == Lit::lamp) name = "One frame, lamp";
    if (plan.lit == Lit::fill) name += " as fill";
    if (is_stack(plan.school) && plan.lit == Lit::lamp) name += ", lamp";
    if ((is_stack(plan.school) || plan.school == School::burst_rocking) && plan.lit == Lit::flash) name += ", flash";
    if (plan.change >= stand_from_bag && !plan.in_hand()) name += ", on the stand";
    return name;
}

bool Excess::any() const { return sum() > 0; }
double Excess::sum() const { return iso + shutter_by_hand + frames + minutes + f_number; }

Excess excess_of(const plan::Plan& plan, const plan::Report& report) {
    const auto& limits = plan.terms.limits;
    const auto& exposure = plan.shot.exposure;
    Excess excess;
    excess.iso = over(exposure.iso, limits.iso);
    if (plan.shot.rig.support == shoot::Support::hand && !report.motion.frozen_by_flash)
        excess.shutter_by_hand = over(exposure.shutter, limits.shutter_by_hand);
    excess.f_number = over(exposure.f_number, limits.f_number) * 2;
    const auto& cost = report.capture.cost;
    if (limits.frames) excess.frames = std::max(0.0, cost.exposures - *limits.frames);
    if (limits.minutes) excess.minutes = std::max(0.0, cost.seconds / 60 - *limits.minutes);
    return excess;
}

std::vector<Proposal> proposals_for(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Terms& terms) {
    shoot::Shot reached = shot;
    std::string changes;
    const auto now = plan::plan_of(kit, shot, terms);
    if (now.at.magnification > 0 && now.at.working_distance && *now.at.working_distance <= 0)
        if (const auto ways = clear_of_lens(now); !ways.empty()) {
            const auto best = std::ranges::max_element(ways, {}, [&](const Remedy& way) {
                const auto then = plan::plan_of(kit, way.shot, terms);
                return worth_of(then, plan::assess(then)).worth;
            });
            reached.rig = best->shot.rig;
            changes = best->label;
        }
    if (!now.found.reached)
        if (const auto rig = search::find_rig(kit, shot.rig, {.magnification = shot.rig.focus.value})) {
            reached.rig = *rig;
            changes = search::pieces_text(kit, *rig);
        }
    std::vector<Proposal> plans;
    for (const Taking& way : Ways(kit, reached, terms).all())
        if (auto made = plan_by(kit, way, terms)) {
            made->changes = changes;
            plans.push_back(std::move(*made));
        }
    double best = 0;
    for (const auto& plan : plans) best = std::max(best, plan.worth.worth);
    constexpr double least = 0.1;
    std::erase_if(plans, [&](const Proposal& plan) {
        return !is_as(plan, shot) && (plan.worth.worth < least * best || is_unseen_fill(plan));
    });
    put_in_order(plans);
    say_why(plans);
    return plans;
}

std::optional<shoot::OtherLight> prepare_other_light(const gear::Kit& kit, const shoot::Shot& shot,
                                                     const shoot::Terms& terms) {
    if (!shot.ambient) return std::nullopt;
    constexpr double between = 3;  // EV (common practice)
    shoot::Shot other = shot;
    other.ambient->ev100 += shot.ambient->ev100 < shoot::sun_from_ev ? between : -between;
    for (const auto& plan : proposals_for(kit, other, terms))
        if (is_as(plan, shot) && plan.changes.empty())
            return shoot::OtherLight{.ev100 = other.ambient->ev100, .exposure = plan.shot.exposure, .unknown = {}};
    return std::nullopt;
}

}  // namespace poquito::advice
