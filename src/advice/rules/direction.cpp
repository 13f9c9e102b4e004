#include "advice/rules/rules.hpp"
#include "light/gels.hpp"
#include "light/position.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"
#include "whatif/fill.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

/// Light from behind, through and beside; what shines by itself; colour; what there is to focus by (MODEL 6).
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

Found needs_own_stops(const plan::Plan& plan, const plan::Report& report) {
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!source.aimless) continue;
        const bool behind = source.stops || plan::light_at(plan, plan.sources[i], 1, 0) > 0;
        if (!behind && plan.shot.background)
            return Finding{fmt::format("Light {} lights the backdrop alone, so the exposure says nothing of its power: "
                                       "give it stops of its own.",
                                       source.label),
                           remedy(plan, fmt::format("Light {}: backdrop at +0", source.label), [&](shoot::Shot& shot) {
                               shot.lights[i].own_stops = 0;
                               shot.lights[i].own_at = shoot::OwnAt::background;
                           })};
        return Finding{fmt::format("Light {} stands behind and shows on no face that the camera sees: automatic power "
                                   "has nothing to go by. Give it stops of its own; a rim is a stop over the front.",
                                   source.label),
                       remedy(plan, fmt::format("Light {}: a rim of +1", source.label),
                              [&](shoot::Shot& shot) { shot.lights[i].own_stops = 1; })};
    }
    return {};
}

/// A light that hardly shows on the front is no exposure: what it gives the edge burns.
Found rim_burns(const plan::Plan& plan, const plan::Report& report) {
    constexpr double burns = 2.5;  // stops over the front, from where an edge loses its form (common practice)
    for (std::size_t i = 0; i < report.light.sources.size(); ++i) {
        const auto& source = report.light.sources[i];
        const auto& light = plan.shot.lights[i];
        if (!source.rim || *source.rim <= burns || source.through) continue;
        Finding finding{
            fmt::format("Light {} stands so far behind that its edge comes out {} stops over the front{}. A rim "
                        "of one to two stops keeps its form.",
                        source.label, text::number_text(*source.rim, 2),
                        plan::shares_exposure(light) ? ", as it is to share the exposure" : "")};
        if (plan::shares_exposure(light) || light.own_stops) {
            const double own = std::round((light.own_stops.value_or(*source.stops) - *source.rim + 1) * 3) / 3;
            const double rim = light.own_stops ? own : 1;
            finding.remedy = remedy(plan, fmt::format("Light {}: a rim of {}", source.label, text::stops_text(rim)),
                                    [&](shoot::Shot& shot) { shot.lights[i].own_stops = rim; });
        } else if (plan::is_flash(light)) {
            const double power =
                light::nearest_setting(plan::power_scale(plan.sources[i]), source.power * std::exp2(1 - *source.rim));
            finding.remedy =
                remedy(plan, fmt::format("Light {} to {}", source.label, plan::setting_text(plan.sources[i], power)),
                       [&](shoot::Shot& shot) { shot.lights[i].power = power; });
        }
        return finding;
    }
    return {};
}

/// Of a subject that is lit from behind, beside or above more than from the camera's side.
Found front_dark(const plan::Plan& plan, const plan::Report& report) {
    const auto& light = report.light;
    if (!light.total) return {};
    constexpr double dark = -0.75, over = 1;  // stops
    const double front = off_wanted(plan, report).value_or(-20);
    if (front > dark || *light.total < front + over) return {};
    const auto& ambient = plan.shot.ambient;
    const auto source = ambient ? plan::ambient_source(*ambient) : std::nullopt;
    const bool from_camera = ambient && (!source || light::towards_camera(source->place) > 0);
    if (from_camera && light.ambient && *light.ambient > light.ambient_front.value_or(-20) + over) {
        const bool hood = plan.hood > 0;
        Finding shaded{fmt::format(
            "Lens and {} throw their shadow on it: {} stops of the light that is there are taken "
            "away. Turn so that it comes from the side, or go farther off.",
            hood ? "hood" : "camera", text::number_text(*light.ambient - light.ambient_front.value_or(-20), 2))};
        if (hood) shaded.remedy = remedy(plan, "Hood off", [](shoot::Shot& shot) { shot.rig.hood_off = true; });
        return shaded;
    }
    Finding finding{
        fmt::format("The light comes from behind: a meter at the subject reads {}, the front that the camera "
                    "sees gets {}. It needs fill from the camera's side, or is meant as an outline.",
                    text::stops_text(*light.total), light.front_total ? text::stops_text(front) : std::string("none"))};
    // A plate is lit as it is on purpose.
    if (OnlyCounting::now() || plan.shot.plate) return finding;
    for (auto& way : whatif::ways_to_fill(plan))
        finding.ways.push_back({shoot::Loss::time, Remedy{.label = std::move(way.label), .shot = std::move(way.shot)}});
    return finding;
}

/// Whatever makes the exposure is turned down by so many stops: flashes by power, then the time.
std::vector<Way> darker(const plan::Plan& plan, double stops) {
    std::vector<Way> ways;
    const double thirds = std::ceil(stops * 3 - 1e-6);
    const auto& exposure = plan.shot.exposure;
    const double iso = text::step_iso(exposure.iso, -static_cast<int>(thirds));
    if (!plan::finds_power(plan) && iso >= 100)
        ways.push_back({shoot::Loss::iso, remedy(plan, fmt::format("ISO {}", text::number_text(iso, 6)),
                                                 [&](shoot::Shot& shot) { shot.exposure.iso = iso; })});
    const bool any_flash = std::ranges::any_of(plan.shot.lights, plan::is_flash);
    const double shutter = text::step_shutter(exposure.shutter, -static_cast<int>(thirds));
    if (!any_flash)
        ways.push_back({shoot::Loss::time, remedy(plan, fmt::format("Expose {}", text::shutter_text(shutter)),
                                                  [&](shoot::Shot& shot) { shot.exposure.shutter = shutter; })});
    return ways;
}

Found highlight_clips(const plan::Plan& plan, const plan::Report& report) {
    const auto& light = report.light;
    constexpr double worth_saying = 0.1;  // stops
    if (!light.highlight || light.highlight_room >= -worth_saying) return {};
    const bool through = light.through && light.front_total && *light.through > *light.front_total - 1;
    Finding finding{
        fmt::format("Its brightest part clips by {} stops{}. The highlight decides: less exposure, or {}.",
                    text::number_text(-light.highlight_room, 2), through ? ", by the light that comes through it" : "",
                    plan.shot.sharpness.headroom > 0 ? "a softer light" : "raw files, which hold about a stop")};
    finding.ways = darker(plan, -light.highlight_room);
    return finding;
}

Found background_glares(const plan::Plan& plan, const plan::Report& report) {
    const auto& light = report.light;
    if (!light.background_own) return {};
    constexpr double glares = 1;  // stops over clipping, from where it eats into edges (common practice)
    const double over = *light.background_own - light::LookLimits().white_from - plan.shot.sharpness.headroom;
    if (over <= glares) return {};
    Finding finding{
        fmt::format("What shines behind is {} stops over clipping: it eats into the subject's edges and "
                    "veils the picture. A stop over is enough for white.",
                    text::number_text(over, 2))};
    const double shutter =
        text::step_shutter(plan.shot.exposure.shutter, -static_cast<int>(std::ceil((over - glares) * 3 - 1e-6)));
    const bool flash = light.flash && *light.flash > light.continuous.value_or(-20);
    if (flash && shutter >= plan.camera.sync * (1 - 1e-9))
        finding.ways.push_back(
            {shoot::Loss::background, remedy(plan, fmt::format("Expose {}", text::shutter_text(shutter)),
                                             [&](shoot::Shot& shot) { shot.exposure.shutter = shutter; })});
    return finding;
}

/// The backdrop is smaller than the field there.
Found background_small(const plan::Plan& plan, const plan::Report& report) {
    const auto& background = plan.shot.background;
    const auto &width = report.optics.field_behind_width, &height = report.optics.field_behind_height;
    if (!background || !width || !height || !(background->width || background->height)) return {};
    if (shoot::background_distance(plan.shot) < background->distance) return {};  // the table is what is seen
    constexpr double margin = 1.1;  // for framing, and a backdrop that hangs askew (common practice)
    const double need_width = *width * margin, need_height = *height * margin;
    const bool narrow = background->width && *background->width < need_width * (1 - 1e-9);
    const bool low = background->height && *background->height < need_height * (1 - 1e-9);
    if (!narrow && !low) return {};
    Finding finding{
        fmt::format("The backdrop shows its edge: {} behind, the field is {} \u00d7 {}; with a margin it "
                    "has to be {} \u00d7 {}, {} both ways to turn the camera upright, or stand nearer.",
                    text::length_text(background->distance), text::length_text(*width), text::length_text(*height),
                    text::length_text(std::ceil(need_width)), text::length_text(std::ceil(need_height)),
                    text::length_text(std::ceil(std::max(need_width, need_height))))};
    // The field grows evenly with the distance from the plane of focus.
    const double behind = plan::background_behind_focus(plan);
    const double field_width = *report.optics.field_width, field_height = *report.optics.field_height;
    double share = 1;
    if (narrow) share = std::min(share, (*background->width / margin - field_width) / (*width - field_width));
    if (low) share = std::min(share, (*background->height / margin - field_height) / (*height - field_height));
    const double nearer = std::floor(plan.focus + behind * share);
    if (share > 0 && nearer >= plan.extent.depth / 2 + 5)
        finding.ways.push_back(
            {shoot::Loss::background, remedy(plan, fmt::format("Backdrop {} behind", text::length_text(nearer)),
                                             [&](shoot::Shot& shot) { shot.background->distance = nearer; })});
    return finding;
}

struct Coloured {
    std::string name;
    double kelvin = 0;
    std::optional<std::size_t> light;  // empty: what is there
};

/// What counts in the picture, by its colour.
std::vector<Coloured> coloured(const plan::Report& report) {
    constexpr double counts = 0.06;  // share of the front: four stops below it nobody sees the colour
    const auto& light = report.light;
    std::vector<Coloured> found;
    if (light.ambient_front && light.ambient_kelvin && light.front_total &&
        std::exp2(*light.ambient_front - *light.front_total) >= counts)
        found.push_back({.name = "the light that is there", .kelvin = *light.ambient_kelvin, .light = {}});
    for (std::size_t i = 0; i < light.sources.size(); ++i) {
        const auto& source = light.sources[i];
        if (source.reflector || !((source.share && *source.share >= counts) || source.rim)) continue;
        found.push_back({.name = "light " + source.label, .kelvin = source.kelvin, .light = i});
    }
    return found;
}

Found colours_mix(const plan::Plan& plan, const plan::Report& report) {
    const auto sources = coloured(report);
    if (sources.empty() || plan.terms.wishes.coloured_light) return {};
    const double white = report.light.white;
    const auto apart = [&](const Coloured& one) { return std::abs(light::warmer_by(one.kelvin, white)); };
    const auto worst = std::ranges::max_element(sources, {}, apart);
    if (apart(*worst) <= light::seen_as_colour) return {};
    if (worst->light && plan.shot.lights[*worst->light].gel != 0) return {};  // coloured on purpose
    const double warmer = light::warmer_by(worst->kelvin, white);
    Finding finding{fmt::format("Light of two colours: {} has {} K where white is set to {} K; it shows {}.",
                                worst->name, text::number_text(worst->kelvin, 3), text::number_text(white, 3),
                                warmer > 0 ? "orange" : "blue")};
    // One colour alone is the camera's setting; two want a gel, on what one can reach.
    const bool all_alike = std::ranges::all_of(sources, [&](const Coloured& one) {
        return std::abs(light::warmer_by(one.kelvin, worst->kelvin)) <= light::seen_as_colour;
    });
    if (all_alike) {
        finding.text = fmt::format("All light has about {} K and the camera is set to {} K: the picture comes out {}.",
                                   text::number_text(worst->kelvin, 3), text::number_text(white, 3),
                                   warmer > 0 ? "orange" : "blue");
        finding.remedy = remedy(plan, fmt::format("White at {} K", text::number_text(worst->kelvin, 3)),
                                [&](shoot::Shot& shot) { shot.exposure.kelvin = worst->kelvin; });
        return finding;
    }
    const auto reached =
        worst->light ? worst : std::ranges::find_if(sources, [](const auto& s) { return s.light.has_value(); });
    if (reached == sources.end()) return finding;
    const double goal = worst->light ? white : worst->kelvin;
    const auto gel = light::nearest_gel(-light::warmer_by(reached->kelvin, goal));
    if (!gel) return finding;
    finding.text += fmt::format(" A {} gel on {} brings them together.", gel->name, reached->name);
    finding.remedy = remedy(plan, fmt::format("{} gel on {}", gel->name, reached->name), [&](shoot::Shot& shot) {
        shot.lights[*reached->light].gel += gel->mired;
        if (!worst->light) shot.exposure.kelvin = goal;
    });
    return finding;
}

Found too_dark_to_focus(const plan::Plan& plan, const plan::Report& report) {
    const auto& focusing = report.light.focusing;
    if (!report.light.total) return {};
    const bool rings_turn = plan.shot.capture.mode != shoot::CaptureMode::stack;
    const auto at = fmt::format("wide open at a working {}", text::f_number_text(focusing.working_f_number));
    if (!focusing.by_eye)
        return Finding{
            fmt::format("Nothing stays on to focus by: a torch or a modelling lamp on the subject until the "
                        "focus stands, {}.",
                        at)};
    if (*focusing.by_eye >= 0) return {};
    const bool autofocus = report.optics.fit.autofocus && focusing.by_autofocus && *focusing.by_autofocus >= 0;
    if (autofocus && rings_turn) return {};
    Finding finding{
        fmt::format("Too dark to focus by eye {}: {} stops are missing{}. A torch or a modelling lamp near "
                    "the subject while you focus.",
                    at, text::number_text(-*focusing.by_eye, 2),
                    autofocus                       ? "; autofocus still finds it"
                    : focusing.autofocus_stops_down ? "; autofocus does not work at that stop either"
                                                    : "; for autofocus too")};
    return finding;
}

/// The light that is there grows or fades while frames are taken.
Found light_drifts(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.ambient || plan.shot.ambient->drift == 0) return {};
    const auto& light = report.light;
    if (!light.ambient_front || !light.front_total) return {};
    constexpr double held = 1.0 / 3, hour = 3600;  // stops; s
    const double share = std::exp2(*light.ambient_front - *light.front_total);
    const double a_third = held / (std::abs(plan.shot.ambient->drift) * std::max(share, 1e-3)) * hour;
    if (report.capture.cost.seconds <= a_third) return {};
    return Finding{fmt::format(
        "The light {} by {} stops an hour: the reading holds {} within a third of a stop, these "
        "frames take {}. Fewer frames, a faster pace, or light of your own.",
        plan.shot.ambient->drift > 0 ? "grows" : "fades", text::number_text(std::abs(plan.shot.ambient->drift), 2),
        text::time_text(a_third), text::time_text(report.capture.cost.seconds))};
}

/// A series that the camera meters frame by frame jumps from one to the next.
Found series_metered(const plan::Plan& plan, const plan::Report& report) {
    if (report.capture.frames < 2) return {};
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& source = report.light.sources[i];
        if (!plan.shot.lights[i].metered || !source.suggested_power) continue;
        return Finding{fmt::format("Light {} is metered anew for each frame of the series: the frames will differ. A "
                                   "series wants a fixed power.",
                                   source.label),
                       remedy(plan,
                              fmt::format("Fix light {} at {}", source.label,
                                          plan::setting_text(plan.sources[i], *source.suggested_power)),
                              [&](shoot::Shot& shot) {
                                  shot.lights[i].power = *source.suggested_power;
                                  shot.lights[i].metered.reset();
                              })};
    }
    return {};
}

/// A polariser takes glare off what does not conduct, and nothing off metal.
Found polariser_on_metal(const plan::Plan& plan, const plan::Report&) {
    if (!shoot::has_trait(plan.shot.subject, "polished")) return {};
    for (const auto& id : plan.shot.rig.filters)
        if (const auto* filter = gear::find_gear(plan.kit.filters, id); filter && filter->polariser)
            return Finding{
                "A polariser takes glare off lacquer, glass and water, none off bare metal: there a bigger "
                "source does it."};
    return {};
}

constexpr Rule direction_rows[] = {
    {"needs-own-stops", Station::light, Level::stop, Concern::plan, needs_own_stops},
    {"rim-burns", Station::light, Level::caution, Concern::plan, rim_burns},
    {"front-dark", Station::light, Level::caution, Concern::plan, front_dark, Quality::exposure},
    {"highlight-clips", Station::light, Level::caution, Concern::plan, highlight_clips, Quality::highlights},
    {"background-glares", Station::light, Level::caution, Concern::plan, background_glares},
    {"background-small", Station::light, Level::caution, Concern::plan, background_small},
    {"colours-mix", Station::light, Level::caution, Concern::plan, colours_mix},
    {"light-drifts", Station::light, Level::caution, Concern::plan, light_drifts},
    {"series-metered", Station::light, Level::caution, Concern::plan, series_metered},
    {"too-dark-to-focus", Station::light, Level::info, Concern::plan, too_dark_to_focus},
    {"polariser-metal", Station::light, Level::info, Concern::plan, polariser_on_metal},
};

}  // namespace

std::span<const Rule> direction_rules() { return direction_rows; }

}  // namespace poquito::advice
