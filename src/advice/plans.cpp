#include "advice/plans.hpp"

#include "advice/advice.hpp"
#include "light/duration.hpp"
#include "light/power.hpp"
#include "optics/aperture.hpp"
#include "optics/blur_limit.hpp"
#include "optics/diffraction.hpp"
#include "plan/ambient.hpp"
#include "plan/assess.hpp"
#include "plan/lighting.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"
#include "search/reach_search.hpp"
#include "shoot/edit.hpp"
#include "shoot/names.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::advice {

using shoot::Loss;

namespace {

constexpr double base_iso = 100, highest_iso = 102400;
constexpr double slowest = 30, fastest = 1.0 / 8000;  // s, what cameras time themselves (common practice)
constexpr double off_by_thirds = 0.2;                 // stops that settings in thirds may miss the exposure by
constexpr double unmissed_time = 0.5;                 // min
constexpr double unmissed_background = 1;             // stops
constexpr double least_flash = 0.25;                  // share of the light from which a frame is one with flash

struct SchoolRow {
    const char* id;
    const char* name;
};
constexpr SchoolRow school_rows[] = {
    {"single-ambient", "One frame, no flash"}, {"single-flash", "One frame, flash"},
    {"stack-rail", "Stack on a rail"},         {"stack-ring", "Stack by the ring"},
    {"stack-camera", "Camera's bracket"},      {"stack-hand", "Bursts while swaying"},
};

bool is_stack(School school) { return school != School::single_ambient && school != School::single_flash; }

double over(double value, const std::optional<double>& limit) {
    constexpr double as_set = 1e-6;
    return limit && value > *limit * (1 + as_set) ? std::log2(value / *limit) : 0;
}

// ---- what a setting loses ----------------------------------------------------------------------------------------

/// What the losses are reckoned from, of a report or of a candidate.
struct Outcome {
    double iso = base_iso;
    double shutter = 1;
    double f_number = 8;
    double exposure_time = 1;
    double frames = 1;
    double exposures = 1;
    double seconds = 1;
    double depth_lost = 0;         // mm
    double total = 0;              // exposure ratio at the subject
    std::optional<double> behind;  // exposure ratio at the background
};

/// mm that neighbouring frames of a stack, or the two ends of one, may be off before it shows.
double tolerance(const plan::Plan& plan, const plan::Report& report) {
    const double sideways = report.sharpness.blur_limit / plan.at.magnification;
    const auto& depth = report.capture.frame_depth;
    return depth ? std::min(sideways, plan.shot.capture.overlap * *depth) : sideways;
}

Weighed weighed(const plan::Plan& plan, const Outcome& outcome, double tolerated, double blur_limit) {
    Weighed weighed;
    auto& losses = weighed.losses;
    losses.depth = outcome.depth_lost;
    losses.iso = std::max(0.0, std::log2(outcome.iso / base_iso));
    const double pitch = optics::pixel_pitch(plan.sensor);
    losses.motion = std::max(0.0, plan::smear_over(plan, outcome.exposure_time).worst() - blur_limit) / pitch;
    if (outcome.frames > 1) {
        const double wanders = plan::wandering(plan.shot.subject, outcome.seconds);
        losses.motion += std::max(0.0, wanders - tolerated) * plan.at.magnification / pitch;
    }
    if (outcome.behind)
        losses.background =
            std::max(0.0, std::log2(outcome.total / std::max(*outcome.behind, 1e-9)) - unmissed_background);
    const double minutes = outcome.seconds / 60;
    losses.time = std::max(0.0, minutes - unmissed_time);
    const auto& limits = plan.limits;
    auto& excess = weighed.excess;
    excess.iso = over(outcome.iso, limits.iso);
    if (plan.shot.rig.support == shoot::Support::hand)
        excess.shutter_by_hand = over(outcome.shutter, limits.shutter_by_hand);
    excess.f_number = over(outcome.f_number, limits.f_number) * 2;
    if (limits.frames) excess.frames = std::max(0.0, outcome.exposures - *limits.frames);
    if (limits.minutes) excess.minutes = std::max(0.0, minutes - *limits.minutes);
    return weighed;
}

/// mm of what has to be sharp that the frames of the report do not hold.
double depth_lost(const plan::Plan& plan, const plan::Report& report) {
    const plan::Zone zone = plan::wanted_sharp(plan);
    if (report.sharpness.zone_covered) return (1 - *report.sharpness.zone_covered) * zone.length();
    return (1 - plan::covered(plan, report).value_or(0)) * zone.length();
}

// ---- the grid ----------------------------------------------------------------------------------------------------

/// The widest, and those whose Airy disc passes no more than `widest_disc`.
std::vector<double> stops_of_lens(const plan::Plan& plan, double widest_disc) {
    const auto& optics = plan.lens.optics;
    std::vector<double> stops{optics.max_aperture};
    for (double f = text::step_f_number(optics.max_aperture, 1); f > stops.back(); f = text::step_f_number(f, 1)) {
        if (f > optics.min_aperture * 1.001 || over(f, plan.limits.f_number) > 0) break;
        const double airy = optics::airy_diameter(plan::working_f_number(plan, f), plan.shot.sharpness.wavelength);
        if (airy > widest_disc) break;
        stops.push_back(f);
    }
    return stops;
}

const std::vector<double>& times() {
    static const auto list = [] {
        std::vector<double> made;
        for (double t = slowest; made.empty() || (t < made.back() && t >= fastest * 0.999);
             t = text::step_shutter(t, -1))
            made.push_back(t);
        return made;
    }();
    return list;
}

const std::vector<double>& speeds() {
    static const auto list = [] {
        std::vector<double> made;
        for (double iso = base_iso; made.empty() || (iso > made.back() && iso <= highest_iso * 1.001);
             iso = text::step_iso(iso, 1))
            made.push_back(iso);
        return made;
    }();
    return list;
}

// ---- which is better ---------------------------------------------------------------------------------------------

/// What is dearest first: the excess of limits, then the losses. In millionths.
using Rank = std::array<double, 11>;
Rank rank_of(const Weighed& weighed, const std::vector<Loss>& order, double seconds) {
    constexpr double fine = 1e6;
    Rank rank;
    for (std::size_t i = 0; i < 5; ++i) {
        const Loss loss = order[4 - i];
        rank[i] = std::round(weighed.excess.of(loss) * fine);
        rank[5 + i] = std::round(weighed.losses.of(loss) * fine);
    }
    rank[10] = std::round(seconds * fine);
    return rank;
}

/// Between schools what nobody would notice decides nothing.
constexpr double noticed[] = {0.01, 1.0 / 3, 0.25, 0.5, 0.5};  // mm, stops, px, stops, min
Rank rank_between_schools(const Weighed& weighed, const std::vector<Loss>& order) {
    Rank rank = rank_of(weighed, order, 0);
    for (std::size_t i = 0; i < 5; ++i) {
        const Loss loss = order[4 - i];
        rank[5 + i] = std::floor(weighed.losses.of(loss) / noticed[static_cast<std::size_t>(loss)] + 1e-6);
    }
    return rank;
}

struct Setting {
    Rank rank;
    double f_number, shutter, iso;
    std::vector<double> power;  // of each light; 0: not a flash, or one that finds its own power
};

/// Exposure ratios at one stop, for 1 s at ISO 100: of what stays on, as the picture shows it and on the card, and of
/// each flash at full power.
struct Levels {
    double steady = 0, steady_behind = 0;
    std::vector<double> flash, flash_behind, flash_shown;
};

/// What a flash is to give whatever the exposure: a rim light, a light on the card.
struct Held {
    double ratio = 0;  // at the subject or on the card; 0: it is not held
    bool on_card = false;
    bool by_itself = false;  // it has stops of its own, and finds its power
};

/// Tries every setting of one school.
class Search {
  public:
    Search(const gear::Kit& kit, shoot::Shot& shot, const shoot::Limits& limits, School school)
        : shot_(shot),
          school_(school),
          plan_(plan::plan_of(kit, shot, limits)),
          order_(shoot::giving_up(plan_.limits)) {
        blur_limit_ = plan::blur_limit(plan_);
        weights();
    }
    std::optional<Setting> best() {
        if (!(plan_.at.magnification > 0)) return std::nullopt;
        if (is_stack(school_))
            for (const double f : stops_of_lens(plan_, blur_limit_)) try_stop(f);
        if (!best_)
            for (const double f : stops_of_lens(plan_, 2 * blur_limit_)) try_stop(f);
        // The widest that takes the light.
        for (const double f : stops_of_lens(plan_, std::numeric_limits<double>::infinity()))
            if (!best_) try_stop(f);
        return best_;
    }

  private:
    bool flashes() const { return school_ == School::single_flash || (is_stack(school_) && has_flash()); }
    bool has_flash() const {
        return std::ranges::any_of(plan_.sources, [](const auto& s) { return s.is_flash() && !s.set.off; });
    }
    /// Each flash's part of the light on the front: as they are set now, or equal. What does not light the front is
    /// held.
    void weights() {
        parts_.assign(plan_.sources.size(), 0);
        held_.assign(plan_.sources.size(), {});
        double sum = 0;
        const auto now = plan::report_light(plan_).sources;
        const auto shares = [&](std::size_t i) {
            const auto& source = plan_.sources[i];
            return source.is_flash() && !source.set.off && !source.set.own_stops && now[i].shown_share() > 0;
        };
        bool all_set = true;
        for (std::size_t i = 0; i < parts_.size(); ++i) all_set &= !shares(i) || plan_.sources[i].set.power;
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            const auto& source = plan_.sources[i];
            if (!source.is_flash() || source.set.off) continue;
            if (shares(i)) {
                parts_[i] = all_set ? plan::light_at(plan_, source, *source.set.power, 0) * now[i].shown_share() : 1;
                sum += parts_[i];
            } else if (source.set.own_stops) {
                held_[i] = {.ratio = std::exp2(*source.set.own_stops),
                            .on_card = source.set.own_at == shoot::OwnAt::background && plan_.shot.background,
                            .by_itself = true};
            } else if (source.set.power) {
                held_[i].ratio = plan::light_at(plan_, source, *source.set.power, 0);
            }
        }
        for (double& part : parts_) part = sum > 0 ? part / sum : 0;
    }
    Levels levels() const {
        Levels levels;
        const auto& shot = shot_;
        const double scale = shot.exposure.shutter * shot.exposure.iso / base_iso;
        const double iso_scale = shot.exposure.iso / base_iso;
        const auto& background = shot.background;
        const auto& light = report_.light;
        if (light.ambient_front) levels.steady = std::exp2(*light.ambient_front) / scale;
        if (light.ambient && background)
            levels.steady_behind = std::exp2(*light.ambient) *
                                   plan::ambient_falloff(plan_, shoot::background_distance(plan_.shot)) / scale;
        if (light.background_own)
            levels.steady_behind += std::exp2(*light.background_own) * 0.18 / background->reflectance / scale;
        levels.flash.assign(plan_.sources.size(), 0);
        levels.flash_behind = levels.flash_shown = levels.flash;
        for (std::size_t i = 0; i < plan_.sources.size(); ++i) {
            const auto& source = plan_.sources[i];
            if (source.set.off) continue;
            const double power = source.is_flash() ? 1 : source.set.power.value_or(1);
            const double here = plan::light_at(plan_, source, power, 0);
            const double there =
                background ? plan::at_background(plan_, source, power, shoot::background_distance(plan_.shot)) : 0;
            if (source.is_flash()) {
                levels.flash[i] = here / iso_scale;
                levels.flash_shown[i] = levels.flash[i] * light.sources[i].shown_share();
                levels.flash_behind[i] = there / iso_scale;
            } else {
                levels.steady += here * light.sources[i].shown_share() / scale;
                levels.steady_behind += there / scale;
            }
        }
        return levels;
    }

    void try_stop(double f) {
        shot_.exposure.f_number = f;
        report_ = plan::assess(plan_);
        const Levels levels = this->levels();
        outcome_ = {.f_number = f, .frames = report_.capture.frames, .depth_lost = depth_lost(plan_, report_)};
        tolerated_ = tolerance(plan_, report_);
        if (flashes())
            for (const double iso : speeds())
                for (const double t : times()) try_flash(levels, t, iso);
        else if (levels.steady > 0)
            for (const double t : times()) try_steady(levels, t);
    }

    void try_steady(const Levels& levels, double t) {
        const double wanted = base_iso / (levels.steady * t);
        if (wanted < base_iso * std::exp2(-off_by_thirds) || wanted > highest_iso * std::exp2(off_by_thirds)) return;
        const double iso = std::clamp(text::nearest_iso(wanted), base_iso, highest_iso);
        const double scale = t * iso / base_iso;
        if (std::abs(std::log2(levels.steady * scale)) > off_by_thirds) return;
        outcome_.total = levels.steady * scale;
        outcome_.behind.reset();
        if (shot_.background) outcome_.behind = levels.steady_behind * scale;
        outcome_.exposure_time = t;
        take(t, iso, 0, {});
    }

    void try_flash(const Levels& levels, double t, double iso) {
        if (t < plan_.camera.sync * (1 - 1e-9)) return;
        const double iso_scale = iso / base_iso, scale = t * iso_scale;
        const double steady = levels.steady * scale;
        power_.assign(parts_.size(), 0);
        const auto held = hold(levels, iso_scale);
        if (!held || 1 - steady - *held < least_flash) return;
        double flash = *held, behind = levels.steady_behind * scale, recycle = 0, longest = 0;
        bool durations_known = true;
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            const bool shares = parts_[i] > 0 && levels.flash_shown[i] > 0;
            if (!shares && !(power_[i] > 0)) continue;
            const auto& unit = *plan_.sources[i].flash;
            const double wanted =
                shares ? (1 - steady - *held) * parts_[i] / (levels.flash_shown[i] * iso_scale) : power_[i];
            if (wanted > std::exp2(off_by_thirds) || wanted < unit.scale.least * std::exp2(-off_by_thirds)) return;
            const double power = held_[i].by_itself ? wanted : light::nearest_setting(unit.scale, wanted);
            power_[i] = power;
            if (shares) flash += levels.flash_shown[i] * iso_scale * power;
            behind += levels.flash_behind[i] * iso_scale * power;
            recycle = std::max(recycle, unit.recycle_full * std::min(power, 1.0));
            const auto lasts = gear::flash_time(unit, power);
            if (lasts)
                longest = std::max(longest, lasts->t01);
            else
                durations_known = false;
        }
        const double total = steady + flash;
        if (!(flash > 0) || std::abs(std::log2(total)) > off_by_thirds) return;
        const bool frozen = durations_known && (steady <= 0 || std::log2(total / steady) >= plan::flash_makes_exposure);
        outcome_.total = total;
        outcome_.behind.reset();
        if (shot_.background) outcome_.behind = behind;
        outcome_.exposure_time = frozen ? std::min(longest, t) : t;
        take(t, iso, recycle, power_);
    }

    /// Powers of the flashes that are held, and what they come to on the front; empty: one cannot give so much.
    std::optional<double> hold(const Levels& levels, double iso_scale) {
        double shown = 0;
        for (std::size_t i = 0; i < held_.size(); ++i) {
            if (!(held_[i].ratio > 0)) continue;
            const double full = (held_[i].on_card ? levels.flash_behind[i] : levels.flash[i]) * iso_scale;
            if (!(full > 0)) continue;
            power_[i] = held_[i].ratio / full;
            if (power_[i] > std::exp2(off_by_thirds)) return std::nullopt;
            power_[i] = std::max(power_[i], plan_.sources[i].flash->scale.least);
            shown += levels.flash_shown[i] * iso_scale * power_[i];
        }
        return shown;
    }

    void take(double t, double iso, double recycle, const std::vector<double>& power) {
        outcome_.iso = iso;
        outcome_.shutter = shot_.exposure.shutter = t;
        report_.capture.recycle = recycle;
        report_.capture.interval = std::max(shot_.capture.interval.value_or(plan::default_frame_interval), t);
        const auto pace = plan::pace_of(plan_, report_.capture);
        outcome_.exposures = pace.exposures;
        outcome_.seconds = pace.seconds;
        const Rank rank = rank_of(weighed(plan_, outcome_, tolerated_, blur_limit_), order_, pace.seconds);
        if (!best_ || rank < best_->rank) best_ = Setting{rank, outcome_.f_number, t, iso, power};
    }

    shoot::Shot& shot_;  // the plan's own
    School school_;
    plan::Plan plan_;
    std::vector<Loss> order_;
    double blur_limit_ = 0, tolerated_ = 0;
    std::vector<double> parts_, power_;
    std::vector<Held> held_;
    plan::Report report_;
    Outcome outcome_;
    std::optional<Setting> best_;
};

// ---- what a school starts from -----------------------------------------------------------------------------------

/// A flash of the bag where the shot has none: on the lens where it belongs there, else at the camera's left, above,
/// with the first diffuser of the bag.
std::optional<shoot::Light> added_flash(const gear::Kit& kit) {
    if (kit.flashes.empty()) return std::nullopt;
    const auto on_lens = std::ranges::find_if(kit.flashes, [](const auto& f) { return f.heads != gear::Heads::one; });
    const auto& unit = on_lens != kit.flashes.end() ? *on_lens : kit.flashes.front();
    shoot::Light light{.flash = unit.id, .position = {.distance = 250, .azimuth = -35, .elevation = 40}};
    if (on_lens != kit.flashes.end())
        light.on_lens = true;
    else if (!kit.modifiers.empty())
        light.modifier = kit.modifiers.front().id;
    return light;
}

void switch_flashes(shoot::Shot& shot, bool on) {
    for (auto& light : shot.lights)
        if (plan::is_flash(light)) light.off = !on;
}

/// The shot as that school begins it, settings still to be found; empty: it cannot be had here.
std::optional<shoot::Shot> begun(const gear::Kit& kit, const shoot::Shot& shot, School school) {
    shoot::Shot made = shot;
    made.exposure.high_speed_sync = false;
    const auto& camera = shoot::camera_of(kit, shot);
    const bool camera_steps =
        camera.bracket.max_frames > 1 && shoot::lens_of(kit, shot).autofocus && !shot.rig.reversing_ring;
    made.capture.mode = is_stack(school) ? shoot::CaptureMode::stack : shoot::CaptureMode::single;
    made.capture.approach.reset();
    switch (school) {
        case School::single_ambient:
            switch_flashes(made, false);
            break;
        case School::single_flash: {
            if (std::ranges::none_of(made.lights, plan::is_flash)) {
                const auto light = added_flash(kit);
                if (!light) return std::nullopt;
                made.lights.push_back(*light);
            }
            switch_flashes(made, true);
            break;
        }
        case School::stack_rail:
            if (kit.rails.empty() && !made.rig.rail) return std::nullopt;
            if (!made.rig.rail) made.rig.rail = kit.rails.front().id;
            if (made.rig.support == shoot::Support::hand) made.rig.support = shoot::Support::sturdy_head;
            made.capture.mover = shoot::Mover::rail;
            break;
        case School::stack_ring:
        case School::stack_camera:
            if (camera_steps != (school == School::stack_camera)) return std::nullopt;
            if (school == School::stack_ring && made.rig.support == shoot::Support::hand)
                made.rig.support = shoot::Support::sturdy_head;
            made.capture.mover = shoot::Mover::ring;
            break;
        case School::stack_hand:
            made.rig.support = shoot::Support::hand;
            made.capture.mover = shoot::Mover::hand;
            break;
    }
    return made;
}

// ---- words -------------------------------------------------------------------------------------------------------

constexpr double long_gone = 200;  // px of movement from which no frame has the subject where it was
constexpr const char* loss_units[] = {"mm", "stops", "px", "stops", "min"};

std::vector<GivenUp> given_up(const Losses& losses, const Excess& excess, const std::vector<Loss>& order) {
    std::vector<GivenUp> list;
    constexpr double worth_saying[] = {0.001, 0.01, 0.01, 0.1, 0.01};
    for (const Loss loss : order) {
        const auto i = static_cast<std::size_t>(loss);
        if (losses.of(loss) > worth_saying[i]) list.push_back({shoot::name_of(loss), losses.of(loss), loss_units[i]});
    }
    const auto pass = [&](const char* what, double by, const char* unit) {
        if (by > 0) list.push_back({what, by, unit});
    };
    pass("iso_max", excess.iso, "stops");
    pass("shutter_by_hand_max_s", excess.shutter_by_hand, "stops");
    pass("f_number_max", excess.f_number, "stops");
    pass("frames_max", excess.frames, "frames");
    pass("minutes_max", excess.minutes, "min");
    return list;
}

std::string loss_words(Loss loss, double by) {
    switch (loss) {
        case Loss::depth:
            return fmt::format("{} of depth", text::length_text(by));
        case Loss::iso:
            return fmt::format("clean shadows (ISO {})", text::number_text(base_iso * std::exp2(by), 6));
        case Loss::motion:
            return by > long_gone ? "everything: it has moved on"
                                  : fmt::format("sharp movement ({} px)", text::number_text(by, 2));
        case Loss::background:
            return fmt::format("light on the background ({} stops)", text::number_text(by + unmissed_background, 2));
        case Loss::time:
            break;
    }
    return text::time_text((by + unmissed_time) * 60);
}

std::string sentence_of(const WholePlan& made, const std::vector<Loss>& order) {
    std::vector<std::string> words;
    for (std::size_t i = order.size(); i-- > 0;) {
        const Loss loss = order[i];
        const double by = made.losses.of(loss);
        constexpr double felt[] = {0.005, 0.3, 0.05, 0, 0};  // below it nobody misses anything
        if (by > felt[static_cast<std::size_t>(loss)]) words.push_back(loss_words(loss, by));
    }
    const auto& sharp = made.report.sharpness;
    if (sharp.airy_diameter > 2 * sharp.blur_limit)
        words.push_back(fmt::format("the finest detail (diffraction is {} times the blur limit)",
                                    text::number_text(sharp.airy_diameter / sharp.blur_limit, 2)));
    std::string text = words.empty() ? "Gives up nothing." : fmt::format("Gives up {}.", fmt::join(words, ", "));
    std::vector<std::string> passed;
    for (const auto& entry : made.gives_up)
        if (entry.what.ends_with("_max") || entry.what.ends_with("_max_s"))
            passed.push_back(fmt::format("{} by {} {}",
                                         entry.what == "iso_max"                 ? "ISO"
                                         : entry.what == "shutter_by_hand_max_s" ? "the time by hand"
                                         : entry.what == "frames_max"            ? "frames"
                                         : entry.what == "minutes_max"           ? "time"
                                                                                 : "the stop",
                                         text::number_text(entry.by, 2), entry.unit));
    if (!passed.empty()) text += fmt::format(" Passes your limit of {}.", fmt::join(passed, ", of "));
    return text;
}

/// What a loss comes to, for a comparison of two plans: "4.2 mm out of focus".
std::string compared(Loss loss, double by) {
    switch (loss) {
        case Loss::depth:
            return by > 0.0005 ? fmt::format("leaves {} soft", text::length_text(by)) : "is sharp all through";
        case Loss::iso:
            return fmt::format("needs ISO {}", text::number_text(base_iso * std::exp2(by), 6));
        case Loss::motion:
            if (by > long_gone) return "comes too late: the subject has moved on";
            return by > 0.05 ? fmt::format("blurs movement {} px past the limit", text::number_text(by, 2))
                             : "holds movement";
        case Loss::background:
            return by > 0 ? fmt::format("leaves the background {} stops darker than the subject",
                                        text::number_text(by + unmissed_background, 2))
                          : "keeps the background light";
        case Loss::time:
            break;
    }
    return by > 0 ? fmt::format("takes {}", text::time_text((by + unmissed_time) * 60)) : "is quick";
}

std::string why_best(const std::vector<WholePlan>& plans, const std::vector<Loss>& order) {
    const WholePlan& best = plans.front();
    if (plans.size() == 1) return "The only school that can be had here.";
    const WholePlan& next = plans[1];
    if (best.keeps_limits && !next.keeps_limits) return "The only one that keeps all your limits.";
    if (!best.stopped && next.stopped) return "The only one that nothing stands against.";
    for (std::size_t i = order.size(); i-- > 0;) {
        const double mine = best.losses.of(order[i]), other = next.losses.of(order[i]);
        const double fine = noticed[static_cast<std::size_t>(order[i])];
        if (std::floor(mine / fine + 1e-6) == std::floor(other / fine + 1e-6)) continue;
        return fmt::format("It {}; \u201c{}\u201d {}.", compared(order[i], mine), school_name(next.school),
                           compared(order[i], other));
    }
    return "As good as the next in everything, and simpler.";
}

std::optional<WholePlan> plan_by(const gear::Kit& kit, const shoot::Shot& begun, School school,
                                 const shoot::Limits& limits) {
    shoot::Shot trial = begun;
    const auto found = Search(kit, trial, limits, school).best();
    if (!found) return std::nullopt;
    WholePlan made{.school = school, .shot = begun, .report = {}};
    made.shot.exposure.f_number = found->f_number;
    made.shot.exposure.shutter = found->shutter;
    made.shot.exposure.iso = found->iso;
    for (std::size_t i = 0; i < found->power.size(); ++i) {
        auto& light = made.shot.lights[i];
        if (found->power[i] <= 0 || light.own_stops) continue;
        light.power = found->power[i];
        light.metered.reset();
    }
    const plan::Plan plan = plan::plan_of(kit, made.shot, limits);
    made.report = plan::assess(plan);
    const auto [losses, excess] = weigh(plan, made.report);
    made.losses = losses, made.excess = excess;
    made.keeps_limits = !excess.any();
    const auto advice = advise(plan, made.report);
    made.stopped = std::ranges::any_of(advice.notes, [](const Note& note) { return note.level == Level::stop; });
    const auto order = shoot::giving_up(plan.limits);
    made.gives_up = given_up(losses, excess, order);
    made.sentence = sentence_of(made, order);
    return made;
}

}  // namespace

const char* school_id(School school) { return school_rows[static_cast<std::size_t>(school)].id; }
const char* school_name(School school) { return school_rows[static_cast<std::size_t>(school)].name; }

double Losses::of(Loss loss) const {
    const double all[] = {depth, iso, motion, background, time};
    return all[static_cast<std::size_t>(loss)];
}

double Excess::of(Loss loss) const {
    const double all[] = {f_number, iso, shutter_by_hand, 0, frames + minutes};
    return all[static_cast<std::size_t>(loss)];
}

bool Excess::any() const { return iso > 0 || shutter_by_hand > 0 || frames > 0 || minutes > 0 || f_number > 0; }

Weighed weigh(const plan::Plan& plan, const plan::Report& report) {
    const auto& exposure = plan.shot.exposure;
    Outcome outcome{.iso = exposure.iso,
                    .shutter = exposure.shutter,
                    .f_number = exposure.f_number,
                    .exposure_time = report.motion.exposure_time,
                    .frames = report.capture.frames,
                    .exposures = report.capture.cost.exposures,
                    .seconds = report.capture.cost.seconds,
                    .depth_lost = depth_lost(plan, report),
                    .total = std::exp2(report.light.front_total.value_or(0))};
    if (const auto& background = plan.shot.background; background && report.light.background)
        outcome.behind = std::exp2(*report.light.background) * 0.18 / background->reflectance;
    return weighed(plan, outcome, tolerance(plan, report), report.sharpness.blur_limit);
}

std::vector<WholePlan> whole_plans(const gear::Kit& kit, const shoot::Shot& shot, const shoot::Limits& limits) {
    shoot::Shot reached = shot;
    std::string changes;
    const plan::Plan now = plan::plan_of(kit, shot, limits);
    if (!now.found.reached)
        if (const auto rig = search::find_rig(kit, shot.rig, {.magnification = shot.rig.focus.value})) {
            reached.rig = *rig;
            changes = search::pieces_text(kit, *rig);
        }
    std::vector<WholePlan> plans;
    for (const School school : schools) {
        const auto begin = begun(kit, reached, school);
        if (!begin) continue;
        auto made = plan_by(kit, *begin, school, limits);
        const bool one_frame_does = made && is_stack(school) && made->report.capture.frames <= 1;
        if (made && !one_frame_does) {
            made->changes = changes;
            plans.push_back(std::move(*made));
        }
    }
    const auto order = shoot::giving_up(now.limits);
    std::ranges::stable_sort(plans, [&](const WholePlan& a, const WholePlan& b) {
        const bool a_good = a.keeps_limits && !a.stopped, b_good = b.keeps_limits && !b.stopped;
        if (a_good != b_good) return a_good;
        if (a.stopped != b.stopped) return !a.stopped;
        return rank_between_schools({a.losses, a.excess}, order) < rank_between_schools({b.losses, b.excess}, order);
    });
    if (!plans.empty()) plans.front().why = why_best(plans, order);
    return plans;
}

std::optional<shoot::OtherLight> prepare_other_light(const gear::Kit& kit, const shoot::Shot& shot,
                                                     const shoot::Limits& limits) {
    if (!shot.ambient) return std::nullopt;
    constexpr double between = 3;  // EV (common practice)
    shoot::Shot other = shot;
    other.ambient->ev100 += shot.ambient->ev100 < shoot::sun_from_ev ? between : -between;
    const bool stacked = shot.capture.mode == shoot::CaptureMode::stack;
    for (const auto& plan : whole_plans(kit, other, limits)) {
        const bool flashes = plan.school == School::single_flash;
        const bool same = stacked ? is_stack(plan.school) && plan.shot.capture.mover == shot.capture.mover
                                  : !is_stack(plan.school) && (flashes == !shot.lights.empty() || shot.lights.empty());
        if (same && plan.changes.empty())
            return shoot::OtherLight{.ev100 = other.ambient->ev100, .exposure = plan.shot.exposure, .unknown = {}};
    }
    return std::nullopt;
}

}  // namespace poquito::advice
