#include "advice/worth/better_odds.hpp"

#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/freeze.hpp"
#include "plan/motion/trajectory.hpp"
#include "plan/stack/stack_plan.hpp"
#include "shoot/limits.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::advice {
namespace {

using plan::ChanceCause;

class Betterment {
  public:
    Betterment(const plan::Plan& plan, const plan::Report& report)
        : plan_(plan), report_(report), limits_(shoot::overlaid(plan.terms.limits, shoot::usual_limits())) {}

    std::vector<BetterOdds> all() {
        faster();
        deeper();
        smaller();
        steadier();
        calmer();
        surer();
        shorter();
        std::ranges::stable_sort(found_, std::greater<>(), &BetterOdds::chance);
        return std::move(found_);
    }

  private:
    const shoot::Shot& shot() const { return plan_.shot; }
    bool has(ChanceCause cause) const { return report_.chance->hangs_on(cause); }

    void offer(std::string text, std::string price, const std::function<void(shoot::Shot&)>& change) {
        BetterOdds made{.text = std::move(text), .price = std::move(price), .shot = shot()};
        change(made.shot);
        // What was counted was counted as it is now.
        if (made.shot.tries) made.shot.tries->kept = made.shot.tries->tried = 0;
        const auto with = plan::plan_of(plan_, made.shot);
        const auto report = plan::assess(with);
        // A size that this set-up does not reach helps nobody.
        if (report_.optics.reached && !report.optics.reached) return;
        const auto& chance = report.chance;
        // Reckoned against reckoned: what was counted holds for the shot as it is.
        const double before = std::pow(report_.chance->reckoned, report_.chance->frames);
        made.chance = chance ? chance->chance : 1;
        made.tries = chance ? chance->tries : 1;
        made.seconds = chance ? chance->tries * chance->seconds_a_try : report_.chance->seconds_a_try;
        constexpr double worth_it = 1.1, least = 1e-4;
        if (made.chance < std::max(before * worth_it, least)) return;
        made.times = made.chance / std::max(before, least);
        found_.push_back(std::move(made));
    }

    /// Less time, paid for by sensitivity or by a wider stop.
    void faster() {
        const bool moves = has(ChanceCause::wind) || has(ChanceCause::hands) || has(ChanceCause::moving);
        if (!moves || report_.motion.frozen_by_flash) return;
        const auto& exposure = shot().exposure;
        for (const int stops : {1, 2}) {
            const double shutter = text::step_shutter(exposure.shutter, -3 * stops);
            const double iso = text::step_iso(exposure.iso, 3 * stops);
            if (shutter < exposure.shutter && iso <= *limits_.iso)
                offer("Expose " + text::shutter_text(shutter), fmt::format("ISO {}", text::number_text(iso, 5)),
                      [&](shoot::Shot& changed) {
                          changed.exposure.shutter = shutter;
                          changed.exposure.iso = iso;
                      });
            const double stop = text::step_f_number(exposure.f_number, -3 * stops);
            if (shutter < exposure.shutter && stop < exposure.f_number && stop >= plan_.train.lens.max_aperture * 0.99)
                offer("Expose " + text::shutter_text(shutter),
                      fmt::format("f/{}, less depth", text::number_text(stop, 2)), [&](shoot::Shot& changed) {
                          changed.exposure.shutter = shutter;
                          changed.exposure.f_number = stop;
                      });
        }
    }

    /// A flash that is shorter, or that makes the exposure at all.
    void shorter() {
        if (report_.freeze && report_.freeze->brightest_that_freezes && has(ChanceCause::flash)) {
            const auto& freeze = *report_.freeze;
            const auto& row = freeze.rows[*freeze.brightest_that_freezes];
            const auto& source = plan_.sources[*freeze.light];
            const auto at = [&](plan::ExposedBy by, std::string price) {
                offer("Less power: " + plan::setting_text(source, row.power), std::move(price),
                      [&](shoot::Shot& changed) { changed = plan::at_power(shot(), freeze, row, by); });
            };
            if (row.iso <= *limits_.iso) at(plan::ExposedBy::iso, fmt::format("ISO {}", text::number_text(row.iso, 4)));
            if (row.f_number)
                at(plan::ExposedBy::aperture, fmt::format("f/{}, less depth", text::number_text(*row.f_number, 2)));
        }
        const bool moves = has(ChanceCause::wind) || has(ChanceCause::hands) || has(ChanceCause::moving);
        if (!moves || report_.motion.frozen_by_flash) return;
        const auto flash =
            std::ranges::find_if(plan_.kit.flashes, [](const auto& one) { return !one.durations.empty(); });
        if (flash != plan_.kit.flashes.end())
            offer(fmt::format("Light it by flash: {}", flash->name), "the light there is four stops under",
                  [&](shoot::Shot& changed) { light_by(changed, *flash); });
    }

    /// From the camera's side, at half the working distance but not in its way; time and stop so that what is there
    /// anyway leaves no ghost.
    void light_by(shoot::Shot& changed, const gear::Flash& flash) const {
        const double air = report_.optics.working_distance.value_or(200);
        constexpr double aside = 40, above = 35, fastest = 1.0 / 250;
        if (std::ranges::none_of(changed.lights, [](const auto& light) { return plan::is_flash(light); }))
            changed.lights.push_back(
                {.flash = flash.id,
                 .position = {.distance = std::clamp(air, 80.0, 400.0), .azimuth = aside, .elevation = above}});
        changed.exposure.shutter = plan_.camera.sync > 0 ? plan_.camera.sync : fastest;
        // As little sensitivity, then as small a stop as it takes, within the limits.
        const auto lit = plan::assess(plan::plan_of(plan_, changed)).light.continuous;
        if (!lit) return;
        constexpr double lowest = 100, thirds = 3;
        double over = *lit + plan::flash_makes_exposure;
        for (; over > 0 && changed.exposure.iso > lowest; over -= 1 / thirds)
            changed.exposure.iso = std::max(lowest, text::step_iso(changed.exposure.iso, -1));
        for (; over > 0; over -= 1 / thirds) {
            const double stop = text::step_f_number(changed.exposure.f_number, 1);
            if (stop > plan_.train.lens.min_aperture * 1.01 || stop > *limits_.f_number) return;
            changed.exposure.f_number = stop;
        }
    }

    /// Room to miss in depth.
    void deeper() {
        if (!has(ChanceCause::hands_through) && !has(ChanceCause::wind_through) && !has(ChanceCause::landing)) return;
        const auto& exposure = shot().exposure;
        for (const int stops : {1, 2}) {
            const double stop = text::step_f_number(exposure.f_number, 3 * stops);
            const double iso = text::step_iso(exposure.iso, 3 * stops);
            if (stop > plan_.train.lens.min_aperture * 1.01 || stop > *limits_.f_number || iso > *limits_.iso) continue;
            offer(fmt::format("Stop down to f/{}", text::number_text(stop, 2)),
                  fmt::format("ISO {}", text::number_text(iso, 5)), [&](shoot::Shot& changed) {
                      changed.exposure.f_number = stop;
                      changed.exposure.iso = iso;
                  });
        }
    }

    void smaller() {
        const double m = plan_.at.magnification;
        if (!(m > 0)) return;
        for (const double factor : {0.7, 0.5})
            offer(fmt::format("Smaller in the frame: {}", text::magnification_text(m * factor)),
                  fmt::format("cropped: {:.0f} % of its pixels", factor * factor * 100), [&](shoot::Shot& changed) {
                      changed.rig.focus = {.by = shoot::FocusBy::magnification, .value = m * factor};
                  });
    }

    void steadier() {
        if (!has(ChanceCause::hands) && !has(ChanceCause::hands_through)) return;
        const auto now = plan::hands_of(plan_);
        for (const auto& brace : plan::braces()) {
            const auto held = plan::hands_braced(brace);
            if (held.shift >= now.shift && held.along >= now.along) continue;
            offer(fmt::format("Brace it: {}", brace.name), "",
                  [&](shoot::Shot& changed) { shoot::own_tries(changed).hands = held; });
        }
        for (const auto& hold : plan_.kit.holds) {
            if (hold.shift >= now.shift && hold.along >= now.along) continue;
            offer((hold.frames > 0 ? "Hold it as measured: " : "Hold it: ") + hold.name, "", [&](shoot::Shot& changed) {
                shoot::own_tries(changed).hands =
                    shoot::Hands{.shift = hold.shift, .turn = hold.turn, .along = hold.along, .unknown = {}};
            });
        }
        if (has(ChanceCause::hands_through) && shoot::tries_of(shot()).is == shoot::TryIs::frame &&
            report_.capture.frames <= 1) {
            const auto as = [&](const char* text, const char* price, shoot::TryIs is) {
                offer(text, price, [is](shoot::Shot& changed) { shoot::own_tries(changed).is = is; });
            };
            as("Rock through focus in bursts", "more frames to look through", shoot::TryIs::rocking);
            if (plan_.camera.bracket.max_frames > 1)
                as("Let the camera bracket in your hand", "more frames to look through", shoot::TryIs::bracket);
        }
        offer("Put it on a stand", "less free to follow",
              [](shoot::Shot& changed) { changed.rig.support = shoot::Support::sturdy_head; });
    }

    /// Common practice: a card or an umbrella to windward leaves a third of the swing, a clamp at the stem a tenth.
    void calmer() {
        if (!has(ChanceCause::wind) && !has(ChanceCause::wind_through)) return;
        const auto less = [&](const char* text, const char* price, double left) {
            offer(text, price, [left](shoot::Shot& changed) {
                changed.subject.sway_amplitude *= left;
                if (changed.subject.sway_depth) *changed.subject.sway_depth *= left;
            });
        };
        less("Shield it from the wind", "a reflector, screen or umbrella to windward", 1.0 / 3);
        less("Hold or clamp the stem", "a clip just out of the frame", 0.1);
        if (!shot().subject.sway_depth || *shot().subject.sway_depth > 0)
            offer("Turn its way across the frame", "the camera square to the wind",
                  [](shoot::Shot& changed) { changed.subject.sway_depth = 0; });
        const double calm = shot().tries ? shot().tries->calm : 0;
        if (calm > 0 && calm < 1)
            offer("Wait for the lulls", fmt::format("{:.0f} % of the time", calm * 100), [&](shoot::Shot& changed) {
                changed.tries->seconds = report_.chance->seconds_a_try / calm;
                changed.tries->calm = 1;
            });
    }

    /// Of throws.
    void surer() {
        if (!shot().freeze) return;
        if (has(ChanceCause::landing) || has(ChanceCause::landing_aside))
            offer("Throw from nearer, through a funnel or along a guide", "half the scatter", [](shoot::Shot& changed) {
                changed.freeze->scatter /= 2;
                if (changed.tries && changed.tries->lands_aside) *changed.tries->lands_aside /= 2;
            });
        if (shot().freeze->trigger == shoot::Trigger::hand)
            offer("Let a beam fire it", "a light barrier across its way", [](shoot::Shot& changed) {
                auto& freeze = *changed.freeze;
                freeze.trigger = shoot::Trigger::beam;
                if (plan::trigger_delay(freeze).value_or(0) >= 0) return;
                // Where it leaves trigger and camera their time.
                const double least = plan::least_beam(freeze);
                if (freeze.act == shoot::Act::thrown)
                    freeze.beam_rise = std::floor(least);
                else
                    freeze.beam_above = std::ceil(least);
            });
    }

    const plan::Plan& plan_;
    const plan::Report& report_;
    shoot::Limits limits_;
    std::vector<BetterOdds> found_;
};

}  // namespace

std::vector<BetterOdds> better_odds(const plan::Plan& plan, const plan::Report& report) {
    if (!report.chance) return {};
    return Betterment(plan, report).all();
}

}  // namespace poquito::advice
