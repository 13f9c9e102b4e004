#include "advice/look_over.hpp"

#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>

namespace poquito::advice {
namespace {

using text::length_text;

struct Look {
    std::string seen;
    std::string otherwise;
    double correction = 0;
};
using MaybeLook = std::optional<Look>;

bool stacked(const plan::Report& report) { return report.capture.frames > 1 && report.capture.stack; }

bool in_one_sweep(const plan::Report& report) { return stacked(report) && !report.capture.stack->hand(); }

bool fires(const plan::Report& report) {
    return std::ranges::any_of(report.light.sources,
                               [](const auto& source) { return source.fires && !source.continuous; });
}

MaybeLook first_frame(const plan::Plan& plan, const plan::Report& report) {
    if (!in_one_sweep(report)) return {};
    return Look{fmt::format("The first frame is sharp on {}, or just in front of it",
                            plan.zone ? "the near end of what has to be sharp" : "the nearest point"),
                fmt::format("Begin {} nearer and run it again: no program mends a stack that begins too late.",
                            length_text(2 * *report.capture.step))};
}

MaybeLook last_frame(const plan::Plan& plan, const plan::Report& report) {
    if (!in_one_sweep(report)) return {};
    return Look{fmt::format("The last frame is sharp on {}, or just behind it",
                            plan.zone ? "the far end of what has to be sharp" : "the farthest point"),
                "Add frames at the end; what was taken can stay where nothing has moved."};
}

MaybeLook neighbours(const plan::Plan&, const plan::Report& report) {
    if (!in_one_sweep(report) || !report.capture.frame_depth) return {};
    const double step = *report.capture.step;
    return Look{fmt::format("What two neighbours show sharp overlaps: {} a step, {} held", length_text(step),
                            length_text(*report.capture.frame_depth)),
                fmt::format("There is a gap: {} a step, from the first frame.", length_text(0.75 * step))};
}

MaybeLook every_plane(const plan::Plan&, const plan::Report& report) {
    if (!stacked(report) || in_one_sweep(report)) return {};
    return Look{fmt::format("Going through the bursts, each part of {} is sharp in one frame at least",
                            length_text(report.capture.stack->span.length())),
                "Another burst over the part that is missing, now, while it holds still."};
}

/// A single frame of something that has depth.
MaybeLook sharp_there(const plan::Plan& plan, const plan::Report& report) {
    if (stacked(report) || !report.sharpness.depth_of_field) return {};
    const double wanted = plan::wanted_sharp(plan).length();
    const double held = *report.sharpness.depth_of_field;
    const std::string place = plan.zone ? "what has to be sharp" : "the middle of the subject";
    if (held >= wanted)
        return Look{fmt::format("At full size {} is sharp from front to back: {} held, {} wanted", place,
                                length_text(held), length_text(wanted)),
                    "Sharp in front of it or behind: focus there. Sharp nowhere: shaken, or a stop too small."};
    return Look{fmt::format("At full size {} is sharp over {}; softer before and behind it is as planned", place,
                            length_text(held)),
                "Sharp in front of it or behind: focus there. Sharp nowhere: shaken, or a stop too small."};
}

MaybeLook shaken(const plan::Plan& plan, const plan::Report& report) {
    if (report.motion.frozen_by_flash) return {};
    const bool hand = plan.shot.rig.support == shoot::Support::hand;
    return Look{
        "Specks of light are points, not strokes, and edges are single",
        hand ? fmt::format("Brace better, more frames in a burst, or {}.",
                           text::shutter_text(plan.shot.exposure.shutter / 2))
             : std::string("Strokes all one way come from the stand: hands off, weight on it, wait after each move.")};
}

MaybeLook frozen(const plan::Plan&, const plan::Report& report) {
    if (!report.freeze) return {};
    return Look{fmt::format("What flies has hard edges: it draws {} on the sensor", length_text(report.freeze->blur)),
                "Half the power and the flash nearer, or a stop of ISO: a lower setting burns shorter."};
}

MaybeLook every_frame_lit(const plan::Plan&, const plan::Report& report) {
    if (!stacked(report) || !fires(report)) return {};
    const double pace = std::max(report.capture.interval, report.capture.recycle);
    return Look{fmt::format("Seen small and side by side, no frame is darker than its neighbours: {}",
                            text::count_text(report.capture.cost.exposures, "frame", "frames")),
                fmt::format("A frame every {} and not faster, or half the power.", text::time_text(1.5 * pace))};
}

MaybeLook nothing_moved(const plan::Plan& plan, const plan::Report& report) {
    if (!in_one_sweep(report)) return {};
    const bool rail = plan.shot.capture.mover == shoot::Mover::rail;
    return Look{fmt::format("First and last frame laid over each other: nothing has moved by more than {}{}",
                            length_text(report.capture.stack->hold_still),
                            rail ? "; near things growing a little is the rail" : ""),
                "Find what gave way: table, clamp, a warm lamp, the subject drying. Then the whole run again."};
}

MaybeLook exposure(const plan::Plan& plan, const plan::Report& report) {
    if (!report.light.front_total) return {};
    const double planned = *report.light.front_total;
    constexpr double nearly = 1.0 / 3;  // of a stop: nobody sees less (common practice)
    return Look{std::abs(planned) < nearly
                    ? std::string("The subject is as bright as it looks, and nothing of it blinks")
                    : fmt::format("The subject is {} stops {} than it looks, as planned",
                                  text::number_text(std::abs(planned), 2), planned > 0 ? "brighter" : "darker"),
                plan.shot.lights.empty()
                    ? "Change shutter or ISO by what it is off, and enter that at Light, Test."
                    : "Change all lights by what it is off, each by the same, and enter that at Light, Test."};
}

MaybeLook highlights(const plan::Plan&, const plan::Report& report) {
    if (report.reflections.empty()) return {};
    return Look{"Highlights have soft edges and a tone of their own; at most their cores blink",
                "Two thirds of a stop less light, or a larger source nearer: what is burnt out does not come back.",
                -2.0 / 3};
}

MaybeLook background(const plan::Plan& plan, const plan::Report& report) {
    if (!report.light.background || !report.light.background_look || !plan.shot.background) return {};
    const auto stops = text::stops_text(*report.light.background);
    using light::BackgroundLook;
    switch (*report.light.background_look) {
        case BackgroundLook::black:
            return Look{fmt::format("The background is black into the corners: {} stops from middle grey", stops),
                        "Farther away, or a flag between it and the light."};
        case BackgroundLook::white:
            return Look{
                fmt::format(
                    "The background is white into the corners, {} stops from middle grey; edges against it stay crisp",
                    stops),
                "Grey corners: more light on the card alone. Edges eaten: less of it, or the card farther away."};
        case BackgroundLook::dark:
        case BackgroundLook::grey:
            break;
    }
    return Look{
        fmt::format("The background is even and without a crease or edge of the card: {} stops from middle grey",
                    stops),
        "A larger card, or farther away; light it by itself where it has to be brighter."};
}

MaybeLook one_colour(const plan::Plan&, const plan::Report& report) {
    constexpr double seen_below = 3;  // stops under the flash at which another colour still shows (common practice)
    const auto& light = report.light;
    if (!light.continuous || !light.flash || *light.continuous < *light.flash - seen_below) return {};
    return Look{"Greys are grey on every side: no warm or green one from the light that stays on",
                "Room light off, or as short as sync allows, or a filter on the flash."};
}

MaybeLook same_from_frame_to_frame(const plan::Plan&, const plan::Report& report) {
    constexpr double seen = 0.1;  // stops between frames
    const auto flickers = std::ranges::any_of(
        report.light.sources, [](const auto& source) { return source.flicker && *source.flicker > seen; });
    if (!flickers || !stacked(report)) return {};
    return Look{"Brightness is the same from frame to frame: lamps like these flicker",
                "A shutter time as long as whole flickers: 1/50 s where the mains has 50 Hz, 1/60 s where it has 60. "
                "Or lamps that do not flicker."};
}

MaybeLook dust(const plan::Plan&, const plan::Report& report) {
    constexpr double shows = 16;  // working f-number from which grains on a sensor are seen (common practice)
    if (report.optics.working_f_number < shows) return {};
    return Look{fmt::format("Plain parts are free of specks: at a working {} every grain on the sensor shows",
                            text::f_number_text(report.optics.working_f_number)),
                stacked(report) ? "Blow sensor and subject clean first: a stack draws each speck as a row of them."
                                : "Blow sensor and subject clean, then again."};
}

MaybeLook all_there(const plan::Plan&, const plan::Report& report) {
    if (!report.optics.fill || *report.optics.fill > 1) return {};
    return Look{fmt::format("All of it is in the frame, {:.0f} % of it filled; the edges hold nothing else",
                            *report.optics.fill * 100),
                "Move it before the lights: they are set for where it stands."};
}

/// One row a point, what most often goes wrong first. To add one, write its wording above and give it a row.
struct LookRow {
    const char* id;
    const char* name;
    MaybeLook (*said)(const plan::Plan& plan, const plan::Report& report);
};
MaybeLook as_wished(const plan::Plan& plan, const plan::Report&) {
    const auto words = shoot::words_of(plan.terms.wishes);
    if (words.empty()) return {};
    return Look{fmt::format("It looks as wished: {}", fmt::join(words, ", ")),
                "What matters, Subject: the note beside each wish says what would bring it nearer."};
}

constexpr LookRow look_rows[] = {
    {"first-frame", "first frame", first_frame},
    {"last-frame", "last frame", last_frame},
    {"neighbours", "overlap", neighbours},
    {"every-plane", "all planes", every_plane},
    {"sharp-there", "sharpness", sharp_there},
    {"frozen", "frozen", frozen},
    {"shaken", "shake", shaken},
    {"every-frame-lit", "every frame lit", every_frame_lit},
    {"exposure", "exposure", exposure},
    {"highlights", "highlights", highlights},
    {"as-wished", "as wished", as_wished},
    {"background", "background", background},
    {"nothing-moved", "nothing moved", nothing_moved},
    {"one-colour", "one colour", one_colour},
    {"flicker", "flicker", same_from_frame_to_frame},
    {"dust", "dust", dust},
    {"all-there", "framing", all_there},
};

}  // namespace

std::vector<ProofPoint> look_over(const plan::Plan& plan, const plan::Report& report) {
    std::vector<ProofPoint> points;
    for (const LookRow& row : look_rows)
        if (auto said = row.said(plan, report))
            points.push_back({.id = row.id,
                              .name = row.name,
                              .seen = std::move(said->seen),
                              .otherwise = std::move(said->otherwise),
                              .correction = said->correction});
    return points;
}

}  // namespace poquito::advice
