#include "advice/checklist.hpp"

#include "optics/train.hpp"
#include "plan/light/lighting.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

namespace poquito::advice {
namespace {

std::string bracket_text(const plan::Plan& plan, const plan::Report& report) {
    const auto frames = text::number_text(report.capture.frames, 9);
    const auto step = text::length_text(*report.capture.step);
    if (plan.shot.capture.mover == shoot::Mover::rail)
        return fmt::format("Rail: {} frames, {} a step, backlash taken up, begun in front of the nearest point", frames,
                           step);
    if (plan.shot.capture.mover == shoot::Mover::hand) {
        const auto& hand = *report.capture.stack->hand();
        return fmt::format("Bursts of {} through {} planes, {} bursts", text::number_text(hand.burst_frames, 4), frames,
                           text::number_text(hand.bursts, 3));
    }
    const bool centre = plan::starts_centred(plan);
    if (const auto* bracket = report.capture.stack->bracket(); bracket && bracket->choice)
        return fmt::format("Focus bracketing really on: {} frames, step setting {}; this camera begins at the {}",
                           frames, text::number_text(bracket->choice->setting, 3), centre ? "centre" : "nearest point");
    return fmt::format("Focus bracketing really on: {} frames, {} a step; this camera begins at the {}", frames, step,
                       centre ? "centre" : "nearest point");
}

/// What an item says, where the plan calls for it.
struct Wording {
    std::string text;
    const char* why;  // what goes wrong without it
};
using Said = std::optional<Wording>;

Said settings(const plan::Plan& plan, const plan::Report& report) {
    const auto& exposure = plan.shot.exposure;
    return Wording{fmt::format("{} on the lens, {} on the display; {}; ISO {}", text::f_number_text(exposure.f_number),
                               text::f_number_text(report.optics.displayed_f_number),
                               text::shutter_text(exposure.shutter), text::number_text(exposure.iso, 6)),
                   "A dial turned in the bag changes depth or exposure of every frame."};
}

Said stop_by_hand(const plan::Plan& plan, const plan::Report& report) {
    const double f_number = plan.shot.exposure.f_number;
    switch (report.optics.fit.stop) {
        case shoot::StopControl::camera:
            return {};
        case shoot::StopControl::lens_ring:
            return Wording{fmt::format("{} set on the lens's own ring", text::f_number_text(f_number)),
                           "The camera cannot close this lens: it stays wide open unless its ring is turned."};
        case shoot::StopControl::none:
            break;
    }
    const bool held = f_number > plan.train.lens.max_aperture * 1.01;
    return Wording{held ? fmt::format("{} set on the camera and held with the depth-of-field button while the lens "
                                      "came off",
                                      text::f_number_text(f_number))
                        : std::string("Lens wide open: nothing sets its stop"),
                   "Without contacts the camera does not move the blades."};
}

Said release_without_lens(const plan::Plan&, const plan::Report& report) {
    if (report.optics.fit.contacts()) return {};
    return Wording{"Camera set to release without a lens",
                   "It sees no lens where the contacts end, and as it comes from the shop it does not fire then."};
}

Said focus_limiter(const plan::Plan& plan, const plan::Report& report) {
    const auto& limiter = plan.lens.limiter;
    const auto& distance = report.optics.subject_to_sensor;
    if (!limiter || !distance || !report.optics.fit.autofocus) return {};
    const auto at = text::length_text(*limiter);
    const bool bare = plan.train.tubes == 0 && plan.train.rear_tubes == 0 && plan.train.closeup_power == 0;
    if (!bare)
        return Wording{"Focus limiter off, the whole range",
                       "With tubes or a close-up lens its distances are others than it was made for."};
    return Wording{*distance < *limiter ? fmt::format("Focus limiter to near, up to {}", at)
                                        : fmt::format("Focus limiter to far, from {}", at),
                   *distance < *limiter ? "Set to far it never comes so near; over the whole range it hunts."
                                        : "Over the whole range it hunts through the near one first."};
}

Said crop_mode(const plan::Plan& plan, const plan::Report&) {
    if (!plan.shot.rig.crop_mode) return {};
    return Wording{fmt::format("Camera set to \u201c{}\u201d", *plan.shot.rig.crop_mode),
                   "In another mode the frame is larger or smaller than planned."};
}

Said step_rings(const plan::Plan&, const plan::Report& report) {
    if (std::ranges::none_of(report.optics.fit.joints,
                             [](const shoot::Joint& joint) { return joint.inner_thread && !joint.fits(); }))
        return {};
    return Wording{"Step rings in the bag: see the notes of Reach", "Without them the pieces do not screw together."};
}

Said compensation(const plan::Plan& plan, const plan::Report&) {
    const bool compensated =
        std::ranges::any_of(plan.shot.lights, [](const shoot::Light& light) { return light.metered.value_or(0) != 0; });
    if (const auto& wished = plan.terms.wishes.brighter; wished && !compensated && plan::finds_power(plan))
        return Wording{
            fmt::format("Exposure compensation at zero, flash compensation {} as wished", text::stops_text(*wished)),
            "A flash that finds its power goes for a correct exposure until it is told otherwise."};
    return Wording{compensated ? "Exposure compensation at zero, flash compensation as planned"
                               : "Exposure compensation back to zero",
                   "What was left over from the last subject makes every frame of this one too bright or too dark."};
}

bool by_hand(const plan::Plan& plan) { return plan.shot.rig.support == shoot::Support::hand; }

/// One frame of something that moves, not too near: there autofocus is faster than a hand and does not wander.
bool autofocus_serves(const plan::Plan& plan, const plan::Report& report) {
    constexpr double small = 0.35;  // magnification from which it hunts (common practice)
    const auto& subject = plan.shot.subject;
    return plan.shot.capture.mode == shoot::CaptureMode::single && report.optics.fit.autofocus &&
           report.optics.magnification < small && (subject.speed > 0 || subject.sway_amplitude > 0);
}

Said focus(const plan::Plan& plan, const plan::Report& report) {
    if (!(report.optics.magnification > 0)) return {};
    if (plan.shot.freeze)
        return Wording{
            fmt::format("Focused by hand on a stand-in held where it will be, {}; focus locked, stand-in away",
                        text::magnification_text(report.optics.magnification)),
            "Nothing is there yet to focus on, and autofocus hunts in the empty frame."};
    if (autofocus_serves(plan, report))
        return Wording{fmt::format("Autofocus on what has to be sharp, one small field; {:.0f} % of the frame filled",
                                   *report.optics.fill * 100),
                       "By hand one is late on something that moves; a wide field takes what is nearest."};
    const auto manual = fmt::format("Manual focus, {}: {:.0f} % of the frame filled",
                                    text::magnification_text(report.optics.magnification), *report.optics.fill * 100);
    if (plan.shot.capture.mode == shoot::CaptureMode::stack)
        return Wording{manual, "Autofocus would move the plane between frames."};
    // Common practice: ten times enlarged nobody holds it.
    const char* aid = "the picture enlarged 3 to 7 times, or peaking in a colour that it lacks";
    if (!by_hand(plan))
        return Wording{fmt::format("{}; {}", manual, aid), "Autofocus takes what is nearest, and hunts so close."};
    return Wording{fmt::format("{}{}; then to and fro with the whole camera until it is sharp there, {}", manual,
                               report.optics.fit.autofocus ? " (by autofocus at first, then off)" : "", aid),
                   "So near autofocus hunts, and the ring moves the plane by more than hands do."};
}

/// Of one light.
Wording lit(const plan::Plan& plan, const plan::Report& report, std::size_t i) {
    const auto& light = plan.shot.lights[i];
    const auto& source = report.light.sources[i];
    if (source.reflector)
        return {fmt::format("Card {}: {} wide, {} from the subject", source.label,
                            text::length_text(light.reflector->diameter), text::length_text(light.position.distance)),
                "What a card gives falls with the square of its distance."};
    const auto setting = [&](double power) { return plan::setting_text(plan.sources[i], power); };
    std::string how = light.power              ? "manual, " + setting(*light.power)
                      : source.suggested_power ? "automatic, about " + setting(*source.suggested_power)
                                               : std::string("automatic");
    if (light.own_stops)
        how += fmt::format(", {} stops of its own{}", text::stops_text(*light.own_stops),
                           light.own_at == shoot::OwnAt::background ? " on the backdrop" : "");
    if (light.metered) how = fmt::format("metered by the camera, compensation {}", text::stops_text(*light.metered));
    if (source.continuous) how = "on, " + setting(*light.power);
    return {
        fmt::format("Light {}: {}, {}", source.label, how,
                    light.on_lens ? "on the lens" : text::length_text(light.position.distance) + " from the subject"),
        "Near the subject a few centimetres are half a stop."};
}

bool is_stack(const plan::Report& report) { return report.capture.frames > 1; }

Said bracketing(const plan::Plan& plan, const plan::Report& report) {
    if (!is_stack(report)) return {};
    return Wording{bracket_text(plan, report),
                   plan.shot.capture.mover == shoot::Mover::ring
                       ? "Cameras drop it without a word when a mode or a card is changed, and take one frame where a "
                         "stack should be. Stop, time, ISO and white balance of the first frame stay to the last."
                       : "A stack that begins behind the nearest point cannot be mended at home."};
}

Said backlash(const plan::Plan& plan, const plan::Report& report) {
    if (!is_stack(report) || !plan.rail || plan.shot.capture.mover != shoot::Mover::rail) return {};
    return Wording{"Rail run back past the start and forwards again, all clamps tight",
                   "After turning round the first steps move nothing: the first frames would all show the same."};
}

Said interval(const plan::Plan& plan, const plan::Report&) {
    if (!plan.shot.capture.interval) return {};
    return Wording{fmt::format("A frame every {}", text::time_text(*plan.shot.capture.interval)),
                   "Faster than the flash recycles, every other frame is dark."};
}

Said stand(const plan::Plan& plan, const plan::Report& report) {
    constexpr double near = 0.25;  // magnification from which a stand that gives is seen (common practice)
    if (by_hand(plan) || report.optics.magnification < near) return {};
    return Wording{"Legs wide, one of them under the lens, weight hung low",
                   "A stand that gives a tenth of a millimetre moves the frame by more than the blur limit."};
}

Said release(const plan::Plan& plan, const plan::Report& report) {
    if (plan.shot.capture.mover == shoot::Mover::hand && is_stack(report))
        return Wording{"Continuous drive on, shutter half pressed, breath held",
                       "A burst that begins late has swayed past before its first frame."};
    if (plan.shot.freeze)
        return Wording{plan.shot.freeze->trigger == shoot::Trigger::hand
                           ? "Remote in the other hand, shutter half pressed"
                           : "Trigger armed, hands off the camera",
                       "Whoever looks for the button sees the thing come down."};
    constexpr double at_once = 0.3;  // s, within which a flash is ready for the next frame of a burst
    if (by_hand(plan) && report.capture.recycle > at_once)
        return Wording{fmt::format("Single frames, pressed at the end of a breath, {} between them",
                                   text::time_text(std::ceil(report.capture.recycle * 2) / 2)),
                       "Before the flash is ready a frame is dark."};
    if (by_hand(plan))
        return Wording{"A short burst, pressed at the end of a breath",
                       "Whether one single frame by hand is sharp is luck."};
    return Wording{"Remote or self-timer, hands off", "The finger on the shutter shakes every frame it starts."};
}

Said brace(const plan::Plan& plan, const plan::Report& report) {
    if (!by_hand(plan) || is_stack(report)) return {};
    return Wording{"Braced: elbows in, a knee or the ground under one arm; breathe out",
                   "Hands sway to and fro by more than the depth of field."};
}

Said edges(const plan::Plan& plan, const plan::Report&) {
    const auto& subject = plan.shot.subject;
    return Wording{shoot::has_trait(subject, "outdoors") ? "Edges of the frame clear: stems, bright leaves, a horizon"
                                                         : "Edges of the frame clear; dust and fingerprints off",
                   "What leans into the frame is mostly seen at home, where it cannot be moved any more."};
}

Said stabiliser(const plan::Plan& plan, const plan::Report&) {
    if (plan.shot.rig.support == shoot::Support::hand) return {};
    return Wording{"Stabiliser off on tripod or rail",
                   "On a stand that is still it hunts for movement, and shifts the picture from frame to frame."};
}

Said shutter_shock(const plan::Plan&, const plan::Report& report) {
    constexpr double shake = 0.2;  // magnification from which a mirror or shutter shows (common practice)
    if (report.optics.magnification < shake || report.motion.frozen_by_flash) return {};
    return Wording{
        "Mirror delay or electronic first curtain",
        "At this magnification the blow of mirror or shutter curtain shakes the picture by more than the blur limit."};
}

Said card(const plan::Plan&, const plan::Report& report) {
    const auto room = text::data_text(report.capture.data_mb);
    const auto& share = report.capture.cost.card_share;
    return Wording{share ? fmt::format("Card has room for {}, {:.0f} % of what was free", room, *share * 100)
                         : fmt::format("Card has room for {}", room),
                   "A card that fills in the middle of a stack loses the whole stack."};
}

Said tries(const plan::Plan& plan, const plan::Report& report) {
    if (!plan.shot.freeze || !report.chance) return {};
    const auto& chance = *report.chance;
    if (!std::isfinite(chance.tries) || chance.tries < 2) return {};
    return Wording{fmt::format("Things for {} throws or more: of {:.0f} tries in a hundred one is right",
                               text::number_text(chance.tries, 3), chance.chance * 100),
                   "Whoever brings five pieces goes home after five throws."};
}

Said charge(const plan::Plan& plan, const plan::Report& report) {
    const bool fires = std::ranges::any_of(
        report.light.sources, [](const plan::SourceReport& source) { return source.fires && !source.continuous; });
    if (!fires) return {};
    return Wording{fmt::format("Flash charged for {}",
                               text::count_text(report.capture.cost.exposures * plan::flashes_a_frame(plan.shot),
                                                "flash", "flashes")),
                   "Batteries that weaken recycle slower and slower, until a frame is missed."};
}

Said test_frame(const plan::Plan& plan, const plan::Report& report) {
    if (const auto wished = shoot::words_of(plan.terms.wishes); !wished.empty())
        return Wording{fmt::format("{} looked at, exposure and {}: {}",
                                   is_stack(report) ? "Test frames of both ends" : "Test frame",
                                   is_stack(report) ? "edges" : "focus", fmt::join(wished, ", ")),
                       "What one test frame shows of a wish now would take a second set-up later."};
    if (is_stack(report))
        return Wording{
            "Test frames of both ends looked at, exposure and edges",
            "The first must be sharp on the nearest point, the last on the farthest: afterwards is too late."};
    return Wording{"Test frame looked at, exposure and focus",
                   "What one test frame shows now would take a second set-up later."};
}

/// One row an item, in the order one does them. To add one, write its wording above and give it a row.
struct Row {
    const char* id;
    Said (*said)(const plan::Plan& plan, const plan::Report& report) = nullptr;
    Wording (*of_light)(const plan::Plan& plan, const plan::Report& report,
                        std::size_t light) = nullptr;  // one a light
};
constexpr Row rows[] = {
    {"settings", settings},
    {"stop-by-hand", stop_by_hand},
    {"release-without-lens", release_without_lens},
    {"focus-limiter", focus_limiter},
    {"crop-mode", crop_mode},
    {"step-rings", step_rings},
    {"compensation", compensation},
    {"focus", focus},
    {.id = "flash", .of_light = lit},
    {"bracketing", bracketing},
    {"backlash", backlash},
    {"interval", interval},
    {"brace", brace},
    {"edges", edges},
    {"stand", stand},
    {"release", release},
    {"stabiliser", stabiliser},
    {"shutter-shock", shutter_shock},
    {"card", card},
    {"tries", tries},
    {"charge", charge},
    {"test-frame", test_frame},
};

}  // namespace

std::vector<ChecklistItem> make_checklist(const plan::Plan& plan, const plan::Report& report) {
    std::vector<ChecklistItem> items;
    const auto add = [&](std::string id, Wording said) {
        items.push_back({.id = std::move(id), .text = std::move(said.text), .why = said.why});
    };
    for (const auto& own : plan.shot.own_checks)
        items.push_back({.id = "own-" + own.id, .text = own.text, .why = "Yours; the Delete key takes it away."});
    for (const Row& row : rows) {
        if (row.said)
            if (auto said = row.said(plan, report)) add(row.id, std::move(*said));
        for (std::size_t i = 0; row.of_light && i < plan.shot.lights.size(); ++i)
            add(fmt::format("{}-{}", row.id, i + 1), row.of_light(plan, report, i));
    }
    return items;
}

bool is_ticked(const shoot::Shot& shot, const std::string& item_id) {
    return std::ranges::count(shot.checked, item_id) > 0;
}

bool all_ticked(const shoot::Shot& shot, const std::vector<ChecklistItem>& checklist) {
    return std::ranges::all_of(checklist, [&](const ChecklistItem& item) { return is_ticked(shot, item.id); });
}

}  // namespace poquito::advice
