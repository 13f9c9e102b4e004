#include "advice/worth/worth.hpp"

#include "optics/chance.hpp"
#include "plan/assess.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/chance.hpp"
#include "plan/motion/freeze.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::advice {

using shoot::Loss;

namespace {

constexpr std::optional<Loss> nothing;

/// The table of MODEL 13; common practice.
constexpr std::array<QualityRow, qualities> rows = {{
    {Quality::sharp, "sharp", "Sharpness", "stops of blur", 0.9, 3, Loss::depth},
    {Quality::noise, "noise", "Clean shadows", "stops of ISO", 4, 8, Loss::iso},
    {Quality::odds, "odds", "Odds", "chance", 0, 0, Loss::motion},
    {Quality::time, "time", "Time", "of your patience", 0.15, 3, Loss::time},
    {Quality::exposure, "exposure", "Exposure", "stops off", 0.4, 2, nothing},
    {Quality::highlights, "highlights", "Highlights", "stops clipped", 0.3, 2, nothing},
    {Quality::ghost, "ghost", "No ghost", "share times stops", 0.1, 0.8, Loss::motion},
    {Quality::sync, "sync", "Flash kept", "stops lost", 4, 14, nothing},
    {Quality::softness, "softness", "Softness behind", "stops short", 0.5, 3, Loss::background},
    {Quality::ground, "ground", "Tone behind", "stops too dark", 1.5, 7, Loss::background},
    {Quality::contrast, "contrast", "Open shadows", "stops too hard", 0.5, 3, Loss::background},
    {Quality::bloom, "bloom", "No halos", "stops past f/8", 1.5, 6, Loss::depth},
    {Quality::colour, "colour", "One white", "mired apart", 25, 150, nothing},
    {Quality::lit, "lit", "Light as wished", "share of other light", 0.25, 0.75, nothing},
    {Quality::movement, "movement", "Movement drawn", "stops short", 0.5, 3, nothing},
    {Quality::possible, "possible", "Can be taken", "", 0, 0, nothing},
}};

/// Within a hundred thousandth of nothing no measure is told apart, and nothing divides by it.
constexpr double least = 1e-9;

double stops_over(double value, double limit) { return std::max(0.0, std::log2(std::max(value, least) / limit)); }

bool in_hand(const plan::Plan& plan) { return plan.shot.rig.support == shoot::Support::hand; }
bool has(const plan::Plan& plan, const char* trait) { return shoot::has_trait(plan.shot.subject, trait); }

/// The light as the units can really give it: an automatic flash wants what it has not.
struct Shown {
    double steady = 0, flash = 0;  // exposure ratios on the front
    double sum() const { return steady + flash; }
};

Shown shown_of(const plan::Plan& plan, const plan::Report& report) {
    Shown shown;
    const auto& light = report.light;
    shown.steady = ratio_of(light.continuous);
    for (std::size_t i = 0; i < light.sources.size(); ++i) {
        const auto& source = light.sources[i];
        if (source.continuous || !source.fires || !(source.power > 0)) continue;
        const double can = std::clamp(source.power, plan.sources[i].flash->scale.least, 1.0);
        shown.flash += (ratio_of(source.front) + ratio_of(source.through)) * can / source.power;
    }
    return shown;
}

/// Of which one point counts as bright: the front; where nothing lights that, the ground it stands before, white to a
/// stop and a half over mid grey (common practice).
double exposed(const plan::Report& report, const Shown& shown) {
    if (shown.sum() > 0) return shown.sum();
    constexpr double white_over = 1.5;
    return ratio_of(report.light.background) * std::exp2(-white_over);
}

double sharp(const plan::Plan& plan, const plan::Report& report) {
    const auto& sharpness = report.sharpness;
    if (!(sharpness.blur_limit > 0)) return 0;
    if (!shoot::wants_sharpness(plan.shot)) return 0;
    const double airy = sharpness.airy_diameter / sharpness.blur_limit;
    double off = 0;  // in depths that one frame holds to either side
    constexpr double unbounded = 1e9;
    const double near = std::max(sharpness.near.value_or(unbounded), least);
    const auto wanted = plan::wanted_sharp(plan);
    // Where nobody said what has to be sharp it is the half of it that faces the camera in the middle.
    const double zone = plan.zone ? wanted.length() : report.extent.depth / 2;
    if (report.capture.frames > 1) {
        off = report.capture.step.value_or(0) / 2 / near;
        const double missing = 1 - plan::covered(plan, report).value_or(1);
        off += missing * zone / 2 / near;
    } else {
        const double middle = (wanted.from + wanted.to) / 2 - report.extent.depth / 2;
        off = (zone / 2 + std::abs(plan.focus - middle)) / near;
    }
    return std::log2(1 + airy * airy + off * off) / 2;
}

/// Stops of blur that what lies behind, and what may be soft, is short of.
double softness(const plan::Plan& plan, const plan::Report& report) {
    const auto& sharpness = report.sharpness;
    double short_of = 0;
    const auto& wished = plan.terms.wishes.softness;
    if (wished && plan.shot.background && *wished > 0)
        short_of = stops_over(*wished, std::max(sharpness.background_disc_share.value_or(0), least));
    const auto& slice = plan.shot.capture.slice;
    if (slice && slice->rest_blur && plan.zone) {
        const double rest = sharpness.rest_blur.value_or(0) / plan.sensor.width;
        short_of = std::max(short_of, stops_over(*slice->rest_blur, std::max(rest, least)));
    } else if (!wished && plan.shot.background && plan.shot.background->kind == shoot::BackgroundKind::scene &&
               sharpness.background_blur_over_detail) {
        const double behind = std::max(*sharpness.background_blur_over_detail, least);
        short_of = stops_over(1, behind) * (1 - std::min(1.0, report.optics.fill.value_or(0)));
    }
    constexpr double nothing_told_apart = 6;
    return std::min(short_of, nothing_told_apart);
}

struct ToneOff {
    double stops = 0;
    double felt = 0, spoilt = 0;
};
/// Stops that the ground is from the tone that is wished, in a picture that is exposed as it is to be.
ToneOff off_wished_tone(const shoot::ToneRange& wished, const plan::Report& report, double off) {
    constexpr double felt = 0.7, spoilt = 3;
    const double tone = std::log2(std::max(ratio_of(report.light.background), least)) - off;
    return {.stops = std::max({0.0, wished.from - tone, tone - wished.to}), .felt = felt, .spoilt = spoilt};
}

/// Stops that a scene outdoors falls below what the eye takes for day.
double too_dark_behind(const plan::Plan& plan, const plan::Report& report, double front) {
    const auto& background = plan.shot.background;
    if (plan.terms.wishes.ground == shoot::WantedGround::as_it_is) return 0;
    if (!background || background->kind != shoot::BackgroundKind::scene || !has(plan, "outdoors")) return 0;
    constexpr double day_from = 3, day = 5, still_day = -2;  // EV; stops
    const double by_day =
        std::clamp((plan.shot.ambient ? plan.shot.ambient->ev100 : 0) - day_from, 0.0, day - day_from);
    const double under =
        still_day - std::log2(std::max(ratio_of(report.light.background), least) / std::max(front, least));
    return std::max(0.0, under) * by_day / (day - day_from);
}

/// Stops between the lit side and the other: beyond what is wanted, or short of it where it is to be hard. A light
/// alone in a room: walls and table give a sixteenth of it back. A face asks for two stops at most; of things three and
/// a half are taken as they come (common practice).
double too_hard(const plan::Plan& plan, const plan::Report& report) {
    const auto& tones = report.light.tones;
    if (!tones.lit) return 0;
    constexpr double as_good_as_black = 4, soft = 1, hard = 3;
    const double span = std::min(tones.shadow ? *tones.lit - *tones.shadow : as_good_as_black, as_good_as_black);
    switch (plan.terms.wishes.contrast) {
        case shoot::WantedContrast::soft:
            return std::max(0.0, span - soft);
        case shoot::WantedContrast::hard:
            return std::max(0.0, hard - span);
        case shoot::WantedContrast::unsaid:
            break;
    }
    const double wanted = has(plan, "person") ? 2 : 3.5;
    return std::max(0.0, span - wanted);
}

/// Stops opened past f/8 where a stack would draw halos: all of it where the subject glitters, else as far as what is
/// behind is darker.
double halos(const plan::Plan& plan, const plan::Report& report, double front) {
    if (report.capture.frames <= 1) return 0;
    constexpr double safe = 8, from = 1, until = 4;  // f-number; stops that it is darker
    const double opened = std::max(0.0, 2 * std::log2(safe / plan.shot.exposure.f_number));
    double edge = has(plan, "polished") || has(plan, "liquid") ? 1 : 0;
    if (plan.shot.background && plan.shot.subject.reflectance > 0) {
        const double bright = front * plan.shot.subject.reflectance / 0.18;
        const double darker = std::log2(std::max(bright, least) / std::max(ratio_of(report.light.background), least));
        edge = std::max(edge, std::clamp((darker - from) / (until - from), 0.0, 1.0));
    }
    return opened * edge;
}

/// What the subject draws while the shutter is open, mm at the sensor.
double subjects_smear(const plan::Plan& plan) {
    const auto& subject = plan.shot.subject;
    const auto& tries = shoot::tries_of(plan.shot);
    const double t = plan.shot.exposure.shutter, m = std::max(plan.at.magnification, 0.0);
    const double speed = std::max(subject.speed, plan.shot.freeze ? plan::speed_of(*plan.shot.freeze) : 0);
    const double walks = m * speed * (1 - shoot::still_of(plan.shot)) * t;
    const double swings = plan::smear_over(plan, t).sway * (1 - tries.calm);
    return std::hypot(walks, swings);
}

/// And the hands that hold the camera.
double smear_in_the_open(const plan::Plan& plan) {
    const double t = plan.shot.exposure.shutter;
    const double hands = in_hand(plan) ? plan::shake_of(plan, plan::hands_of(plan), t) : 0;
    return std::hypot(subjects_smear(plan), hands);
}

/// Stops that what moves is drawn shorter than is seen to be meant: a fiftieth of the frame's width (common practice).
double drawn_too_short(const plan::Plan& plan) {
    if (plan.terms.wishes.movement != shoot::WantedMovement::drawn) return 0;
    constexpr double meant = 1.0 / 50, nothing_seen = 6;
    const double drawn = std::max(subjects_smear(plan) / plan.sensor.width, least);
    return std::min(stops_over(meant, drawn), nothing_seen);
}

/// Share of the light that is not what is wished to light it; of both the share that the lesser has too little.
double lit_otherwise(const plan::Plan& plan, const plan::Report& report, const Shown& shown) {
    if (!(shown.sum() > 0)) return 0;
    const double flash = shown.flash / shown.sum();
    const double there = std::min(ambient_shown(report.light) / shown.sum(), 1.0);
    switch (plan.terms.wishes.lit_by) {
        case shoot::WantedLight::flash:
            return 1 - flash;
        case shoot::WantedLight::ambient:
            return 1 - there;
        case shoot::WantedLight::both: {
            constexpr double each = 0.25;  // of the light, at least
            return std::max(0.0, each - std::min(flash, there)) / each;
        }
        case shoot::WantedLight::unsaid:
            break;
    }
    return 0;
}

double ghost(const plan::Plan& plan, const plan::Report& report, const Shown& shown) {
    if (plan.terms.wishes.movement == shoot::WantedMovement::drawn) return 0;
    if (!(shown.flash > 0) || !(report.sharpness.blur_limit > 0)) return 0;
    // Where what stays on is the brighter, the flash's is the ghost, and odds count what is drawn.
    const double share = shown.steady / shown.sum() * (1 - report.motion.open_share);
    return share * std::log2(1 + smear_in_the_open(plan) / report.sharpness.blur_limit);
}

/// Mired between what stays on and the flashes, as far as both are seen.
double two_whites(const plan::Plan& plan, const plan::Report& report, const Shown& shown) {
    if (plan.terms.wishes.coloured_light) return 0;
    if (!(shown.flash > 0) || !(shown.steady > 0) || !plan.shot.ambient || !report.light.ambient_front) return 0;
    constexpr double million = 1e6, bulbs = 3200;
    const bool daylight = plan.shot.ambient->kind != shoot::AmbientKind::even || has(plan, "outdoors");
    constexpr double day = 5500;
    const double there = plan.shot.ambient->kelvin.value_or(daylight ? day : bulbs);
    double most = 0;
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.continuous && source.fires && source.front && plan.shot.lights[i].gel == 0)
            most = std::max(most, std::abs(million / there - million / source.kelvin));
    }
    const double steady = std::min(ambient_shown(report.light) / shown.sum(), 1.0);
    return most * 2 * std::min(steady, 1 - steady);
}

double lost_to_sync(const plan::Report& report) {
    double lost = 0;
    for (const auto& source : report.light.sources)
        if (source.fires) lost = std::max(lost, source.losses.high_speed);
    return lost;
}

/// Minutes before the first try: a bracket is set, a rail is screwed on and levelled, a light that stands there is
/// taken away (common practice).
double setting_up(const plan::Plan& plan, const plan::Report& report) {
    constexpr double bracket = 1, rail = 2, light_away = 1.5;
    double minutes = 0;
    if (report.capture.frames > 1) {
        const bool by_itself = report.capture.stack && report.capture.stack->bracket();
        minutes += by_itself || plan.shot.capture.mover == shoot::Mover::hand ? bracket : rail;
    }
    if (std::ranges::any_of(plan.shot.lights, [](const auto& light) { return light.off; })) minutes += light_away;
    return minutes;
}

struct Tried {
    double minutes = 0, tries = 1, most = 1, one = 1, odds = 1;
};

Tried tried(const plan::Plan& plan, const plan::Report& report, double patience, double change) {
    constexpr double minute = 60, kept_frame = 15, rejected = 2;  // s (common practice)
    constexpr double looking = 2, by_stand = 5, certain = 1 - 1e-9, never = 1e-9;
    const auto& chance = report.chance;
    const double one = std::clamp(chance ? chance->chance : 1.0, never, certain);
    const double shortest = in_hand(plan) ? looking : by_stand;
    const bool stack = report.capture.frames > 1;
    const double burst = chance && chance->burst ? std::max(1, chance->burst->row.frames) : 1;
    const double run = stack ? report.capture.cost.seconds : plan.shot.exposure.shutter;
    const double seconds =
        std::max(chance ? chance->seconds_a_try : 0.0,
                 std::max(shoot::tries_of(plan.shot).seconds.value_or(shortest), report.capture.recycle * burst) + run);
    Tried made;
    made.one = one;
    const double most = made.most = std::max(1.0, patience * minute / seconds);
    made.odds = -std::expm1(most * std::log1p(-one));
    constexpr double never_one = 0.05;
    made.tries = std::clamp(std::log(never_one) / std::log1p(-one), 1.0, most);
    const double a_try = std::max(report.capture.cost.exposures, burst);
    const bool combined = stack && plan.shot.capture.composite;
    made.minutes = change + setting_up(plan, report) + made.tries * seconds / minute;
    if (stack && !combined) made.minutes += report.capture.frames * kept_frame / minute;
    // Frames that come to nothing, and those of a good try that show no plane that is wanted.
    const double wasted = (made.tries - 1) * a_try + (combined ? 0 : a_try - report.capture.frames);
    made.minutes += std::max(0.0, wasted) * rejected / minute;
    return made;
}

/// Nobody said yet what light there is to be: what light decides is left aside then.
bool light_is_planned(const plan::Plan& plan) {
    const auto& shot = plan.shot;
    return shot.ambient || !shot.lights.empty() || (shot.background && shot.background->own_ev100);
}
bool any_light(const plan::Report& report) { return report.light.front_total || report.light.background; }

bool can_be_stepped(const plan::Plan& plan, const plan::Report& report) {
    const auto& capture = report.capture;
    if (plan.shot.capture.mover == shoot::Mover::ring && capture.travel && !capture.ring_travel) return false;
    if (!capture.stack) return true;
    const auto& stack = *capture.stack;
    if (const auto* bracket = stack.bracket(); bracket && bracket->too_coarse) return false;
    if (const auto* hand = stack.hand(); hand && !std::isfinite(hand->bursts)) return false;
    if (const auto* rail = stack.rail(); rail && ((plan.rail && rail->spare < 0) || rail->clearance.value_or(0) < 0))
        return false;
    return true;
}

}  // namespace

const std::array<QualityRow, qualities>& quality_rows() { return rows; }
const QualityRow& row_of(Quality quality) { return rows[static_cast<std::size_t>(quality)]; }

double WorthPart::factor() const { return std::pow(kept, weight); }

double weight_of(const QualityRow& row, const shoot::Limits& limits) {
    if (!row.by) return 1;
    constexpr double weights[] = {0.6, 0.8, 1, 1.2, 1.5};
    const auto place = std::ranges::find(limits.give_up, *row.by) - limits.give_up.begin();
    return place < 5 && place < static_cast<std::ptrdiff_t>(limits.give_up.size()) ? weights[place] : 1;
}

std::optional<double> off_wanted(const plan::Plan& plan, const plan::Report& report) {
    if (!report.light.front_total) return std::nullopt;
    return *report.light.front_total - plan.terms.wishes.brighter.value_or(0);
}

double noise_base(const optics::Sensor& sensor) {
    constexpr double full_frame = 30, aps_c = 21;  // mm, sensors wider than these
    const double clean = sensor.width > full_frame ? 800 : sensor.width > aps_c ? 400 : 200;
    constexpr double three_stops = 8;
    return clean / three_stops;
}

double patience_of(const plan::Plan& plan) {
    constexpr double by_hand = 5, on_stand = 30, minute = 60, at_least = 1;
    double patience = plan.terms.limits.minutes.value_or(in_hand(plan) ? by_hand : on_stand);
    const auto& stays = shoot::tries_of(plan.shot).stays;
    if (stays && has(plan, "living")) patience = std::min(patience, std::max(*stays / minute, at_least));
    return std::max(patience, least);
}

bool is_possible(const plan::Plan& plan, const plan::Report& report) {
    if (!(plan.at.magnification > 0) || !report.optics.reached) return false;
    if (light_is_planned(plan) && !any_light(report)) return false;
    if (report.optics.working_distance && !(*report.optics.working_distance > 0)) return false;
    // A stop that nothing sets, steps that nothing makes.
    if (report.optics.fit.stop == shoot::StopControl::none &&
        plan.shot.exposure.f_number > plan.train.lens.max_aperture * 1.01)
        return false;
    if (report.capture.frames > 1 && !can_be_stepped(plan, report)) return false;
    // More than the camera combines it does not take.
    const double most = plan.camera.bracket.composite_max_frames;
    if (plan.shot.capture.composite && report.capture.frames > std::max(most, 1.0)) return false;
    const bool bands = std::ranges::any_of(plan.sources, [&](const plan::Source& source) {
        return source.is_flash() && !source.set.off && !plan::in_high_speed(plan, source);
    });
    return !bands || plan.shot.exposure.shutter >= plan.camera.sync * (1 - 1e-9);
}

Worth worth_of(const plan::Plan& plan, const plan::Report& report, double change) {
    Worth made;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        made.parts[i].quality = rows[i].quality;
        made.parts[i].weight = weight_of(rows[i], plan.terms.limits);
    }
    made.patience = patience_of(plan);
    const auto part = [&](Quality quality) -> WorthPart& { return made.parts[static_cast<std::size_t>(quality)]; };
    if (!is_possible(plan, report)) {
        part(Quality::possible).kept = 0;
        part(Quality::possible).measure = 1;
        return made;
    }
    const Shown shown = shown_of(plan, report);
    const bool planned = light_is_planned(plan);
    const double front = exposed(report, shown);
    const double off = planned ? std::log2(std::max(front, least)) - plan.terms.wishes.brighter.value_or(0) : 0;
    const auto measure_by = [&](Quality quality, double x, double felt, double spoilt) {
        auto& one = part(quality);
        one.measure = x, one.felt = felt, one.spoilt = spoilt;
        one.kept = optics::kept_share(x, felt, spoilt);
    };
    const auto measure = [&](Quality quality, double x) {
        const auto& row = row_of(quality);
        measure_by(quality, x, row.felt, row.spoilt);
    };
    measure(Quality::sharp, sharp(plan, report));
    measure(Quality::noise,
            std::max(0.0, std::log2(plan.shot.exposure.iso / noise_base(plan.sensor)) + std::max(0.0, -off)));
    measure(Quality::exposure, std::abs(off));
    measure(Quality::highlights, report.light.highlight ? std::max(0.0, -report.light.highlight_room) : 0);
    measure(Quality::ghost, ghost(plan, report, shown));
    measure(Quality::sync, lost_to_sync(report));
    measure(Quality::softness, softness(plan, report));
    measure(Quality::ground, planned ? too_dark_behind(plan, report, front) : 0);
    if (const auto wished = shoot::tones_of(plan.terms.wishes.ground); wished && planned && plan.shot.background) {
        const auto tone = off_wished_tone(*wished, report, off);
        measure_by(Quality::ground, tone.stops, tone.felt, tone.spoilt);
    }
    measure(Quality::contrast, too_hard(plan, report));
    measure(Quality::bloom, halos(plan, report, planned ? front : 0));
    measure(Quality::colour, two_whites(plan, report, shown));
    measure(Quality::lit, planned ? lit_otherwise(plan, report, shown) : 0);
    measure(Quality::movement, drawn_too_short(plan));
    const Tried needed = tried(plan, report, made.patience, change);
    made.minutes = needed.minutes, made.tries = needed.tries;
    made.one_try = needed.one, made.most_tries = needed.most;
    measure(Quality::time, needed.minutes / made.patience);
    part(Quality::odds).measure = part(Quality::odds).kept = needed.odds;
    made.worth = 1;
    for (const auto& one : made.parts) made.worth *= one.factor();
    return made;
}

}  // namespace poquito::advice
