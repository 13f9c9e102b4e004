#include "plan/motion/lapse.hpp"
#include "advice/rules/rules.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>

/// What is taken again and again, for hours or days.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

std::string length_of_time(double seconds) { return text::time_text(std::round(seconds)); }

/// One moment has to be over, its flashes charged and its frames on the card, when the next one begins.
Found lapse_too_quick(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.lapse) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (lapse.least_interval <= plan.shot.lapse->interval) return {};
    constexpr double room = 1.2;  // for what a card or a battery takes longer now and then (common practice)
    const double interval = std::ceil(lapse.least_interval * room);
    return Finding{fmt::format("Each time takes {} and comes again after {}: frames will be left out. The interval has "
                               "to be longer.",
                               text::time_text(lapse.least_interval), text::time_text(plan.shot.lapse->interval)),
                   remedy(plan, fmt::format("Every {}", length_of_time(interval)),
                          [&](shoot::Shot& shot) { shot.lapse->interval = interval; })};
}

/// A hundredth of the frame from one picture to the next is seen as a jump (common practice).
Found lapse_jumps(const plan::Plan& plan, const plan::Report& report) {
    constexpr double smooth = 0.01;
    if (!plan.shot.lapse) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (lapse.shift_share <= smooth) return {};
    Finding finding{
        fmt::format("It grows by {} % of the frame each time: that jumps where it is shown. A shorter "
                    "interval, or a smaller size.",
                    text::number_text(lapse.shift_share * 100, 2))};
    const double interval = std::floor(plan.shot.lapse->interval * smooth / lapse.shift_share);
    if (interval >= std::max(1.0, lapse.least_interval))
        finding.remedy = remedy(plan, fmt::format("Every {}", length_of_time(interval)),
                                [&](shoot::Shot& shot) { shot.lapse->interval = interval; });
    return finding;
}

/// Light that goes by a third of a stop is seen; in steps of a tenth it flickers.
Found lapse_light_drifts(const plan::Plan& plan, const plan::Report& report) {
    constexpr double seen = 1.0 / 3;
    if (!plan.shot.lapse || plan.shot.lapse->follows) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (std::abs(lapse.drift_all) <= seen) return {};
    return Finding{
        fmt::format("The light gets {} stops {} until the last frame. Shut it out and light it yourself, or "
                    "let the exposure follow by {} of a stop each time.",
                    text::number_text(std::abs(lapse.drift_all), 2), lapse.drift_all > 0 ? "brighter" : "darker",
                    text::number_text(std::abs(lapse.drift_each), 2)),
        remedy(plan, "Let it follow", [](shoot::Shot& shot) { shot.lapse->follows = true; })};
}

/// What grows towards the camera leaves the plane that was focused on the first day.
Found lapse_out_of_focus(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.lapse) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (!lapse.holds) return {};
    const bool nearer = plan.shot.lapse->growth_depth > 0;
    const double through = std::ceil(std::abs(lapse.through) * 10) / 10;
    const bool stack = plan.shot.capture.mode == shoot::CaptureMode::stack;
    return Finding{fmt::format("It grows out of focus after {}: {} {} in all. A stack each time that begins so much "
                               "{}, or a smaller stop, or a smaller size.",
                               length_of_time(*lapse.holds), text::length_text(std::abs(lapse.through)),
                               nearer ? "nearer" : "further away", nearer ? "before it" : "behind it"),
                   remedy(plan, stack ? "Let the stack reach so far" : "A stack each time", [&](shoot::Shot& shot) {
                       shot.capture.mode = shoot::CaptureMode::stack;
                       (nearer ? shot.capture.lead : shot.capture.tail) += through;
                   })};
}

Found lapse_needs_power(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.lapse) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (lapse.charges <= 1) return {};
    return Finding{
        fmt::format("It takes {} batteries, and whoever changes one moves the camera: run it from the mains, "
                    "with a dummy cell made for it.",
                    text::number_text(lapse.charges, 2))};
}

Found lapse_fills_card(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.lapse || !plan.camera.card_space) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (lapse.data_mb <= *plan.camera.card_space) return {};
    const double least = plan.shot.lapse->length / (*plan.camera.card_space / plan.camera.frame_mb);
    return Finding{fmt::format("It writes {} and the card has room for {}: a larger card, smaller files, or longer "
                               "from one frame to the next.",
                               text::data_text(lapse.data_mb), text::data_text(*plan.camera.card_space)),
                   plan.shot.capture.mode == shoot::CaptureMode::single
                       ? std::optional(remedy(plan, fmt::format("Every {}", length_of_time(std::ceil(least))),
                                              [&](shoot::Shot& shot) { shot.lapse->interval = std::ceil(least); }))
                       : std::nullopt};
}

/// Hours of lamps by themselves: heat, and what it does.
Found lapse_lamps_burn(const plan::Plan& plan, const plan::Report& report) {
    constexpr double long_hours = 2;
    if (!plan.shot.lapse || plan.shot.lapse->lamps_rest) return {};
    const auto lapse = plan::lapse_of(plan, report);
    if (lapse.lamps_on < long_hours) return {};
    return Finding{fmt::format("Lamps burn for {}: they dry, melt and cook what they shine on, and no hot lamp is left "
                               "alone near cloth or paper. Let them rest between frames, or use cool ones; house "
                               "rules on what runs unwatched go first.",
                               length_of_time(lapse.lamps_on * 3600)),
                   remedy(plan, "Let them rest", [](shoot::Shot& shot) { shot.lapse->lamps_rest = true; })};
}

constexpr Rule lapse_rows[] = {
    {"lapse-too-quick", Station::depth, Level::stop, Concern::plan, lapse_too_quick},
    {"lapse-out-of-focus", Station::depth, Level::caution, Concern::plan, lapse_out_of_focus},
    {"lapse-jumps", Station::depth, Level::caution, Concern::plan, lapse_jumps},
    {"lapse-light-drifts", Station::light, Level::caution, Concern::plan, lapse_light_drifts},
    {"lapse-lamps-burn", Station::light, Level::caution, Concern::plan, lapse_lamps_burn},
    {"lapse-needs-power", Station::run, Level::caution, Concern::plan, lapse_needs_power},
    {"lapse-fills-card", Station::run, Level::caution, Concern::plan, lapse_fills_card},
};

}  // namespace

std::span<const Rule> lapse_rules() { return lapse_rows; }

}  // namespace poquito::advice
