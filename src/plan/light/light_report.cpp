#include "light/angle.hpp"
#include "light/direction.hpp"
#include "light/space.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/face.hpp"
#include "plan/light/lighting.hpp"
#include "plan/light/lit_face.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::plan {
namespace {

using light::degree;

constexpr double half_ring = 2 / std::numbers::pi;  // middle of a half circle's line, of its radius
constexpr double no_front = 1e-9;                   // MODEL 6: a share below it is none

/// 0 is no light at all, and has no stops.
std::optional<double> stops_of(double exposure_ratio) {
    if (!(exposure_ratio > 0)) return std::nullopt;
    return std::log2(exposure_ratio);
}
double ratio_of(const std::optional<double>& stops) { return stops ? std::exp2(*stops) : 0; }

std::vector<SourceTube> tubes_of(const Source& source, const light::Position& place) {
    const double diameter = shining_diameter(source);
    if (!source.is_flash() || !source.set.on_lens) return {{.place = place, .diameter = diameter}};
    const gear::Flash& flash = *source.flash;
    const double share = std::exp2(source.set.ratio) / (1 + std::exp2(source.set.ratio));
    if (flash.heads == gear::Heads::twin) {
        auto other = place;
        other.azimuth = -other.azimuth;
        return {{.place = place, .diameter = diameter, .share = share},
                {.place = other, .diameter = diameter, .share = 1 - share}};
    }
    if (flash.heads == gear::Heads::ring && source.set.ratio != 0) {  // two half tubes, each about its side's middle
        auto half = place, other = place;
        half.azimuth = place.azimuth * half_ring, other.azimuth = -half.azimuth;
        const double wide = 2 * place.distance * std::sin(std::abs(half.azimuth) * degree) + diameter;
        return {{.place = half, .diameter = wide, .share = share},
                {.place = other, .diameter = wide, .share = 1 - share}};
    }
    if (flash.heads == gear::Heads::ring) {  // shines from all round the lens
        const double across = 2 * place.distance * std::sin(std::abs(place.azimuth) * degree);
        return {{.place = {.distance = place.distance}, .diameter = across + diameter}};
    }
    return {{.place = place, .diameter = diameter}};
}

/// What of a source's light the picture shows, over what a meter turned to it reads.
struct Seen {
    double front = 0;
    double through = 0;
    double reaches = 0;
    double both() const { return front + through; }
};

Seen seen_of(const Plan& plan, const Face& face, const std::vector<SourceTube>& tubes) {
    const auto& subject = plan.shot.subject;
    const double sends_on = subject.reflectance > 0 ? subject.transmittance / subject.reflectance : 0;
    Seen seen;
    for (const SourceTube& tube : tubes) {
        const auto lit = face.lit_from(tube.place);
        seen.front += tube.share * lit.front;
        seen.reaches = std::max(seen.reaches, lit.rim);
        if (sends_on > 0) seen.through += tube.share * sends_on * face.through_from(tube.place);
    }
    if (seen.front < no_front) seen.front = 0;
    if (seen.through < no_front) seen.through = 0;
    return seen;
}

/// A source with what is worked out of it once.
struct Worked {
    std::vector<SourceTube> tubes;
    Seen seen;
    double at_full = 0;                // exposure ratio at the subject of the unit at full; of a card: as it is
    double nearest = 0, farthest = 0;  // exposure ratios at the subject's ends, as it fires
    std::optional<double> power;       // exact; empty: it stays dark
};

/// The power with which a flash gives stops of its own, where it is told to; empty: it gets nowhere there.
std::optional<double> power_for_own(const Plan& plan, const Source& source, double at_full) {
    const bool card = source.set.own_at == shoot::OwnAt::background && plan.shot.background;
    const double full = card ? at_background(plan, source, 1, shoot::background_distance(plan.shot)) : at_full;
    if (!(full > 0)) return std::nullopt;
    return std::exp2(*source.set.own_stops) / full;
}

/// What each automatic flash that reaches the front has to give; empty: the rest is enough already. One that the
/// camera's meter reads adds to daylight as well, whatever that gives: its compensation says how much less.
struct Shared {
    double found = 0;    // by one that is told what to reach
    double metered = 0;  // by one that is metered
};
std::optional<Shared> share_of_automatics(const Plan& plan, const LightReport& report, const std::vector<Worked>& all) {
    const double wanted = std::exp2(plan.terms.wishes.brighter.value_or(0));
    double rest = ratio_of(report.ambient_front) + ratio_of(report.ambient_through);
    int automatics = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (plan.sources[i].set.off) continue;
        if (!shares_exposure(plan.sources[i].set))
            rest += all[i].power ? all[i].at_full * *all[i].power * all[i].seen.both() : 0;
        else if (all[i].seen.both() > 0)
            ++automatics;
    }
    if (automatics == 0) return std::nullopt;
    const double missing = std::max(0.0, wanted - rest);
    return Shared{.found = missing / automatics, .metered = std::max(missing, std::min(rest, wanted)) / automatics};
}

void give_power(const Plan& plan, LightReport& report, std::vector<Worked>& all) {
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Source& source = plan.sources[i];
        if (source.set.off) continue;
        all[i].at_full = light_at(plan, source, 1, 0);
        if (source.is_reflector())
            all[i].power = 1;
        else if (source.set.power)
            all[i].power = source.set.power;
        else if (source.set.own_stops)
            all[i].power = power_for_own(plan, source, all[i].at_full);
    }
    const auto share = share_of_automatics(plan, report, all);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Source& source = plan.sources[i];
        if (!shares_exposure(source.set)) continue;
        const double full = all[i].at_full * all[i].seen.both();
        report.sources[i].aimless = !(full > 0);
        if (!share || report.sources[i].aimless) continue;
        const auto& metering = report.sources[i].metering;
        const bool metered = source.set.metered && metering;
        const double miss = metered ? metering->expected + *source.set.metered : 0;
        if (const double wanted = metered ? share->metered : share->found; wanted > 0)
            all[i].power = wanted * std::exp2(miss) / full;
    }
}

/// What does not depend on the power.
SourceReport begun(const Plan& plan, std::size_t i, const Worked& worked) {
    const Source& source = plan.sources[i];
    SourceReport report{.label = light_label(plan.shot, i), .continuous = !source.is_flash()};
    report.reflector = source.is_reflector();
    report.place = placed(plan, source);
    report.tubes = worked.tubes;
    const double towards_camera = light::towards_camera(report.place);
    report.facing = stops_of(towards_camera);
    report.off_axis = std::acos(std::clamp(towards_camera, -1.0, 1.0)) / degree;
    report.path = report.place.distance + (source.set.bounce ? source.set.bounce->from_lamp : 0);
    report.reaches = worked.seen.reaches;
    report.front_share = worked.seen.front;
    report.through_share = worked.seen.through;
    if (report.reflector) {
        report.kelvin = plan.shot.ambient ? kelvin_of(*plan.shot.ambient) : report.kelvin;
        return report;
    }
    report.losses = losses(plan, source);
    report.calibration = light::calibrated(source.is_flash() ? source.flash->corrections : source.lamp->corrections);
    if (source.modifier) report.modifier_calibration = light::calibrated(source.modifier->corrections);
    if (source.is_flash()) report.metering = metering_of(plan, source);
    const double bare = source.is_flash() ? source.flash->kelvin : source.lamp->kelvin;
    constexpr double million = 1e6;  // mired
    report.kelvin = million / std::max(million / bare + source.set.gel, 1.0);
    return report;
}

void fire(const Plan& plan, std::size_t i, Worked& worked, SourceReport& report) {
    const Source& source = plan.sources[i];
    if (source.set.off || !worked.power) return;
    const double power = *worked.power, ratio = worked.at_full * power;
    report.fires = power > 0;
    report.stops = stops_of(ratio);
    report.front = stops_of(ratio * worked.seen.front);
    report.through = stops_of(ratio * worked.seen.through);
    const double half = plan.extent.depth / 2;
    const double nearest = light_at(plan, source, power, -half), farthest = light_at(plan, source, power, half);
    if (nearest > 0 && farthest > 0) report.falloff = std::log2(nearest / farthest);
    worked.nearest = nearest * worked.seen.both(), worked.farthest = farthest * worked.seen.both();
    if (report.reflector) return;
    report.power = power;
    report.suggested_power = light::nearest_setting(power_scale(source), power);
    report.left_over = std::log2(power / *report.suggested_power);
    if (!source.is_flash()) {
        const gear::Lamp& lamp = *source.lamp;
        if (lamp.flicker)
            report.flicker = light::flicker_stops({.frequency = *lamp.flicker, .depth = lamp.flicker_depth},
                                                  plan.shot.exposure.shutter);
        return;
    }
    const gear::Flash& flash = *source.flash;
    if (!in_high_speed(plan, source))
        if (const auto lasts = gear::flash_time(flash, power)) report.t05 = lasts->t05, report.t01 = lasts->t01;
    report.recycle = flash.recycle_full * std::min(power * flashes_a_frame(plan.shot), 1.0);
}

// ---- sums --------------------------------------------------------------------------------------------------------

std::optional<BlackFrame> black_frame_of(const Plan& plan, const LightReport& report) {
    if (!report.continuous) return std::nullopt;
    const auto& exposure = plan.shot.exposure;
    BlackFrame black{.over = *report.continuous - black_frame_limit};
    const double shutter = exposure.shutter * std::exp2(-black.over);
    if (!report.shutter_room || black.over <= *report.shutter_room + 1e-9) black.shutter = shutter;
    black.f_number = exposure.f_number * std::exp2(black.over / 2);
    black.iso = exposure.iso * std::exp2(-black.over);
    return black;
}

/// The ISO with which the slowest automatic flash is ready for every frame.
std::optional<double> recycling_iso(const Plan& plan, const LightReport& report) {
    const auto& capture = plan.shot.capture;
    const double interval = std::max(capture.interval.value_or(default_frame_interval), plan.shot.exposure.shutter);
    double over = 1;
    for (std::size_t i = 0; i < report.sources.size(); ++i)
        if (!report.sources[i].continuous && !plan.shot.lights[i].power && report.sources[i].stops)
            over = std::max(over, report.sources[i].recycle / interval);
    if (capture.mode != shoot::CaptureMode::stack || over <= 1 + 1e-9) return std::nullopt;
    return plan.shot.exposure.iso * over;
}

/// The shutter time that flash goes down to: sync, or with high-speed sync the camera's fastest.
double fastest_with_flash(const Plan& plan) {
    constexpr double fastest = 1.0 / 8000;  // s (common practice)
    const bool all_last = std::ranges::all_of(plan.sources, [](const Source& source) {
        return !source.is_flash() || source.set.off || source.flash->high_speed_sync;
    });
    return plan.shot.exposure.high_speed_sync && all_last ? std::min(fastest, plan.camera.sync) : plan.camera.sync;
}

void report_sums(const Plan& plan, const std::vector<Worked>& all, LightReport& report) {
    double continuous = ratio_of(report.ambient_front), flash = 0, strongest = 0;
    double through = ratio_of(report.ambient_through);
    double metered = ratio_of(report.ambient);
    bool any_flash = false;
    const double half = plan.extent.depth / 2;
    double nearest = continuous * ambient_falloff(plan, -half), farthest = continuous * ambient_falloff(plan, half);
    for (std::size_t i = 0; i < report.sources.size(); ++i) {
        const auto& source = report.sources[i];
        any_flash |= !source.continuous;
        if (!source.fires) continue;
        // What lights the card alone may still graze one end of the subject.
        nearest += all[i].nearest, farthest += all[i].farthest;
        metered += ratio_of(source.stops);
        const double shown = ratio_of(source.front) + ratio_of(source.through);
        through += ratio_of(source.through);
        (source.continuous ? continuous : flash) += shown;
        if (shown > strongest) {
            strongest = shown;
            report.key = i;
        }
    }
    continuous += ratio_of(report.ambient_through);
    report.continuous = stops_of(continuous);
    report.flash = stops_of(flash);
    report.through = stops_of(through);
    report.total = stops_of(metered);
    const double shown = continuous + flash;
    report.front_total = stops_of(shown);
    if (report.key && shown - strongest > 0) report.key_to_fill = std::log2(strongest / (shown - strongest));
    if (report.key && half > 0) {
        report.nearest = stops_of(nearest);
        report.farthest = stops_of(farthest);
    }
    for (auto& source : report.sources)
        if (const double own = ratio_of(source.front) + ratio_of(source.through); own > 0) source.share = own / shown;
    if (any_flash)
        report.shutter_room = std::max(0.0, std::log2(plan.shot.exposure.shutter / fastest_with_flash(plan)));
    report.black_frame = black_frame_of(plan, report);
    report.recycling_iso = recycling_iso(plan, report);
}

void report_highlight(const Plan& plan, LightReport& report) {
    const auto& subject = plan.shot.subject;
    const double brightest = subject.highlight_reflectance.value_or(subject.reflectance);
    const double through = ratio_of(report.through), front = ratio_of(report.front_total) - through;
    report.highlight = stops_of((brightest * front + subject.reflectance * through) / 0.18);
    if (report.highlight)
        report.highlight_room = light::LookLimits().white_from + plan.shot.sharpness.headroom - *report.highlight;
}

// ---- tones -------------------------------------------------------------------------------------------------------

/// Where the light on the front comes from most: the key, or what is there and has a direction.
std::optional<light::Position> key_place(const Plan& plan, const LightReport& report) {
    const auto source = plan.shot.ambient ? ambient_source(*plan.shot.ambient) : std::nullopt;
    const double key = report.key ? ratio_of(report.sources[*report.key].front) : 0;
    if (source && ratio_of(report.ambient_front) > key) return source->place;
    if (!(key > 0)) return std::nullopt;
    const auto& tubes = report.sources[*report.key].tubes;
    return std::ranges::max_element(tubes, {}, &SourceTube::share)->place;
}

/// What a window or the sun gives a face turned to it, where a dome towards the camera, which gets what a ball's face
/// gets, reads `there`.
double bare_ambient(const Plan& plan, double there, double towards_camera) {
    const double around = room_share(*plan.shot.ambient);
    // Behind it the reading is the room's: a window may be many times as bright, the sun is three stops over open shade
    // (common practice).
    constexpr double reached = 0.05, over_shade = 7;
    const bool sun = plan.shot.ambient->kind == shoot::AmbientKind::sky;
    const double least = sun ? (1 - around) / over_shade : reached;
    if (!(around < 1)) return 0;
    return there * (1 - around) / std::max(least, light::ball_share(towards_camera));
}

void report_tones(const Plan& plan, LightReport& report) {
    if (!report.front_total) return;
    Tones& tones = report.tones;
    if (const auto key = key_place(plan, report))
        tones.key_azimuth = key->azimuth, tones.key_elevation = key->elevation;
    // From whatever light's side they differ most: which of two equals is the key is no step in what is seen.
    double widest = -1;
    const auto look_from = [&](const light::Point& aside) {
        constexpr double half_way = std::numbers::sqrt2 / 2;  // 45 degrees, as a face's two cheeks stand
        const auto one = stops_of(light_on_face(plan, report, {aside.x() * half_way, aside.y() * half_way, half_way})),
                   other =
                       stops_of(light_on_face(plan, report, {-aside.x() * half_way, -aside.y() * half_way, half_way}));
        const auto& [shadow, lit] = std::minmax(one, other, [](auto a, auto b) { return ratio_of(a) < ratio_of(b); });
        const double span = !lit ? 0 : std::log2(ratio_of(lit) / std::max(ratio_of(shadow), no_front));
        if (span > widest) widest = span, tones.lit = lit, tones.shadow = shadow;
    };
    look_from({1, 0, 0});
    const auto look_from_place = [&](const light::Position& place) {
        light::Point across = light::place_of(place);
        across.z() = 0;
        if (across.norm() > 1e-3 * place.distance) look_from(across.normalized());
    };
    for (const auto& source : report.sources)
        if (ratio_of(source.front) > 0)
            look_from_place(std::ranges::max_element(source.tubes, {}, &SourceTube::share)->place);
    const auto around = plan.shot.ambient ? ambient_source(*plan.shot.ambient) : std::nullopt;
    if (around && ratio_of(report.ambient_front) > 0) look_from_place(around->place);
    // The edge of a round thing, seen edge on, towards the strongest light from beside or behind.
    constexpr double beside = 75;  // degrees off the axis, from where a light draws an edge (common practice)
    double strongest = 0;
    for (auto& source : report.sources) {
        if (!source.stops || source.off_axis < beside || !(source.reaches > 0)) continue;
        const double edge = ratio_of(source.stops) * std::sin(source.off_axis * degree);
        if (edge < no_front) continue;
        source.rim = std::log2(edge) - *report.front_total;
        strongest = std::max(strongest, edge);
    }
    if (const double there = ratio_of(report.ambient_front); there > 0)
        if (const auto source = ambient_source(*plan.shot.ambient)) {
            const double towards = light::towards_camera(source->place);
            if (std::acos(std::clamp(towards, -1.0, 1.0)) / degree >= beside)
                strongest = std::max(strongest, bare_ambient(plan, there, towards) * std::sqrt(1 - towards * towards));
        }
    tones.rim = stops_of(strongest);
}

/// What is there to focus by, with the lens wide open.
void report_focusing(const Plan& plan, LightReport& report) {
    auto& focusing = report.focusing;
    const double widest = plan.train.lens.max_aperture;
    focusing.working_f_number = working_f_number(plan, widest);
    focusing.autofocus_stops_down = focusing.working_f_number > plan.camera.autofocus_f_number * (1 + 1e-9);
    if (!report.continuous) return;
    auto settings = settings_of(plan);
    settings.loss = 0;  // counted in what is there
    const double ev = *report.continuous - light::ambient_stops(settings, 0);
    constexpr double stated_at = 2.8;
    const double there = ev - 2 * std::log2(focusing.working_f_number / stated_at);
    focusing.by_eye = there - plan.camera.eye_ev;
    if (!focusing.autofocus_stops_down) focusing.by_autofocus = there - plan.camera.autofocus_ev;
}

void report_colour(const Plan& plan, LightReport& report) {
    if (plan.shot.ambient) report.ambient_kelvin = kelvin_of(*plan.shot.ambient);
    const double key = report.key ? *report.sources[*report.key].share * ratio_of(report.front_total) : 0;
    if (plan.shot.exposure.kelvin)
        report.white = *plan.shot.exposure.kelvin;
    else if (report.ambient_kelvin && ratio_of(report.ambient_front) >= key)
        report.white = *report.ambient_kelvin;
    else if (report.key)
        report.white = report.sources[*report.key].kelvin;
}

}  // namespace

double light_on_face(const Plan& plan, const LightReport& report, const light::Point& normal) {
    const auto towards = [&](const light::Position& place) { return normal.dot(light::place_of(place).normalized()); };
    const auto facing = [&](const light::Position& place) { return std::max(0.0, towards(place)); };
    double sum = ratio_of(report.through);  // shines out of every face alike
    if (const double there = ratio_of(report.ambient_front); there > 0) {
        const auto source = ambient_source(*plan.shot.ambient);
        const double all_round = source ? room_share(*plan.shot.ambient) : 1;
        sum += there * all_round;
        if (source)
            sum += bare_ambient(plan, there, light::towards_camera(source->place)) *
                   light::disc_share(towards(source->place), source->size / 2);
    }
    for (const auto& source : report.sources)
        if (source.stops)
            for (const auto& tube : source.tubes) sum += ratio_of(source.stops) * tube.share * facing(tube.place);
    return sum;
}

void report_background(const Plan& plan, LightReport& report) {
    const auto& background = plan.shot.background;
    report.background_own.reset(), report.background.reset(), report.background_look.reset();
    if (!background) return;
    double sum = ratio_of(report.ambient) * ambient_at_background(plan);
    for (std::size_t i = 0; i < report.sources.size(); ++i) {
        auto& source = report.sources[i];
        if (!source.fires || source.reflector) continue;
        double ratio = at_background(plan, plan.sources[i], source.power, shoot::background_distance(plan.shot));
        if (!source.continuous) ratio *= flashes_a_frame(plan.shot);  // what stands still gets them all
        source.background = stops_of(ratio);
        sum += ratio;
    }
    double shown = sum * background->reflectance / 0.18;
    if (background->own_ev100) {
        report.background_own = light::ambient_stops(settings_of(plan), *background->own_ev100);
        shown += std::exp2(*report.background_own);
    }
    report.background = stops_of(shown);
    if (report.background) report.background_look = light::background_look(*report.background);
}

namespace {

/// What of the light that is there shines through the subject: of the sun or a window what strikes its back, of what is
/// all round as much as strikes its front.
std::optional<double> through_of_ambient(const Plan& plan, double there) {
    const auto& subject = plan.shot.subject;
    if (!(subject.transmittance > 0) || !(subject.reflectance > 0)) return std::nullopt;
    const auto source = ambient_source(*plan.shot.ambient);
    double sum = there * (source ? room_share(*plan.shot.ambient) : 1);
    if (source)
        sum +=
            bare_ambient(plan, there, light::towards_camera(source->place)) * Face(subject).through_from(source->place);
    return stops_of(sum * subject.transmittance / subject.reflectance);
}

}  // namespace

LightReport report_light(const Plan& plan) {
    LightReport report;
    report.ambient = ambient_at_subject(plan);
    if (report.ambient) {
        if (const auto shaded = shaded_by_lens(plan)) report.ambient_front = *report.ambient + *shaded;
        report.ambient_through = through_of_ambient(plan, std::exp2(*report.ambient));
    }
    std::vector<Worked> all(plan.sources.size());
    report.sources.reserve(all.size());
    if (!all.empty()) {
        const Face face(plan.shot.subject);
        for (std::size_t i = 0; i < all.size(); ++i) {
            all[i].tubes = tubes_of(plan.sources[i], placed(plan, plan.sources[i]));
            all[i].seen = seen_of(plan, face, all[i].tubes);
            report.sources.push_back(begun(plan, i, all[i]));
        }
    }
    give_power(plan, report, all);
    for (std::size_t i = 0; i < all.size(); ++i) fire(plan, i, all[i], report.sources[i]);
    report_sums(plan, all, report);
    report_highlight(plan, report);
    report_background(plan, report);
    report.automatic = automatic_exposure(plan, report);
    if (report.automatic)
        report.automatic_shutter =
            plan.shot.exposure.shutter * std::exp2(plan.terms.wishes.brighter.value_or(0) - *report.front_total);
    report_tones(plan, report);
    report_focusing(plan, report);
    report_colour(plan, report);
    return report;
}

}  // namespace poquito::plan
