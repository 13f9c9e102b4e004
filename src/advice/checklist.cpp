#include "advice/checklist.hpp"

#include "optics/train.hpp"
#include "plan/lighting.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

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
    const bool centre = plan.camera.bracket.start == gear::BracketStart::centre;
    if (const auto* bracket = report.capture.stack->bracket(); bracket && bracket->choice)
        return fmt::format("Focus bracketing really on: {} frames, step setting {}; this camera begins at the {}",
                           frames, text::number_text(bracket->choice->setting, 3), centre ? "centre" : "nearest point");
    return fmt::format("Focus bracketing really on: {} frames, {} a step; this camera begins at the {}", frames, step,
                       centre ? "centre" : "nearest point");
}

}  // namespace

std::vector<ChecklistItem> make_checklist(const plan::Plan& plan, const plan::Report& report) {
    std::vector<ChecklistItem> items;
    const auto add = [&](const char* id, std::string text, const char* why) {
        items.push_back({.id = id, .text = std::move(text), .why = why});
    };
    const auto& exposure = plan.shot.exposure;
    add("settings",
        fmt::format("{} on the lens, {} on the display; {}; ISO {}", text::f_number_text(exposure.f_number),
                    text::f_number_text(report.optics.displayed_f_number), text::shutter_text(exposure.shutter),
                    text::number_text(exposure.iso, 6)),
        "A dial turned in the bag changes depth or exposure of every frame.");
    const auto& fit = report.optics.fit;
    if (fit.stop == shoot::StopControl::lens_ring)
        add("stop-by-hand", fmt::format("{} set on the lens's own ring", text::f_number_text(exposure.f_number)),
            "The camera cannot close this lens: it stays wide open unless its ring is turned.");
    if (fit.stop == shoot::StopControl::none)
        add("stop-by-hand",
            exposure.f_number > plan.train.lens.max_aperture * 1.01
                ? fmt::format("{} set on the camera and held with the depth-of-field button while the lens "
                              "came off",
                              text::f_number_text(exposure.f_number))
                : std::string("Lens wide open: nothing sets its stop"),
            "Without contacts the camera does not move the blades.");
    if (plan.shot.rig.crop_mode)
        add("crop-mode", fmt::format("Camera set to \u201c{}\u201d", *plan.shot.rig.crop_mode),
            "In another mode the frame is larger or smaller than planned.");
    if (std::ranges::any_of(fit.joints, [](const shoot::Joint& joint) { return joint.inner_thread && !joint.fits(); }))
        add("step-rings", "Step rings in the bag: see the notes of Reach",
            "Without them the pieces do not screw together.");
    const bool compensated =
        std::ranges::any_of(plan.shot.lights, [](const shoot::Light& light) { return light.metered.value_or(0) != 0; });
    add("compensation",
        compensated ? "Exposure compensation at zero, flash compensation as planned"
                    : "Exposure compensation back to zero",
        "What was left over from the last subject makes every frame of this one too bright or too dark.");
    if (report.optics.magnification > 0)
        add("focus",
            fmt::format("Manual focus, {}: {} of the frame filled",
                        text::magnification_text(report.optics.magnification),
                        fmt::format("{:.0f} %", *report.optics.fill * 100)),
            "Autofocus would move the plane between frames.");
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        const auto& source = report.light.sources[i];
        const auto setting = [&](double power) { return plan::setting_text(plan.kit, light, power); };
        std::string how = light.power              ? "manual, " + setting(*light.power)
                          : source.suggested_power ? "automatic, about " + setting(*source.suggested_power)
                                                   : std::string("automatic");
        if (light.metered)
            how = fmt::format("metered by the camera, compensation {}", text::stops_text(*light.metered));
        if (!plan::is_flash(light)) how = "on, " + setting(*light.power);
        add("flash",
            fmt::format(
                "Light {}: {}, {}", source.label, how,
                light.on_lens ? "on the lens" : text::length_text(light.position.distance) + " from the subject"),
            "Near the subject a few centimetres are half a stop.");
        items.back().id = fmt::format("flash-{}", i + 1);
    }
    const auto& capture = report.capture;
    const bool stack = capture.frames > 1;
    if (stack)
        add("bracketing", bracket_text(plan, report),
            plan.shot.capture.mover == shoot::Mover::ring
                ? "Cameras drop it without a word when a mode or a card is changed: one frame where a stack should be."
                : "A stack that begins behind the nearest point cannot be mended at home.");
    if (stack && plan.shot.rig.rail && plan.shot.capture.mover == shoot::Mover::rail)
        add("backlash", "Rail run back past the start and forwards again; its screw clamped free of play",
            "The first steps after turning round do not move: frames that show the same.");
    if (plan.shot.capture.interval)
        add("interval", fmt::format("A frame every {}", text::time_text(*plan.shot.capture.interval)),
            "Faster than the flash recycles, every other frame is dark.");
    if (plan.shot.capture.mover == shoot::Mover::hand && stack)
        add("release", "Continuous drive on, shutter half pressed, breath held",
            "A burst that starts late has swayed through already.");
    else
        add("release", "Remote or self-timer, hands off", "The finger on the shutter shakes every frame it starts.");
    if (plan.shot.rig.support != shoot::Support::hand)
        add("stabiliser", "Stabiliser off on tripod or rail",
            "At rest it hunts, and shifts the picture from frame to frame.");
    constexpr double shake = 0.2;  // magnification from which a mirror or shutter shows (common practice)
    if (report.optics.magnification >= shake && !report.motion.frozen_by_flash)
        add("shutter-shock", "Mirror delay or electronic first curtain",
            "At this magnification the blow of mirror or curtain is wider than the blur limit.");
    const auto& cost = capture.cost;
    add("card",
        cost.card_share ? fmt::format("Card has room for {}, {:.0f} % of what was free",
                                      text::data_text(capture.data_mb), *cost.card_share * 100)
                        : fmt::format("Card has room for {}", text::data_text(capture.data_mb)),
        "A card that fills in the middle of a stack loses the whole stack.");
    const bool fires = std::ranges::any_of(
        report.light.sources, [](const plan::SourceReport& source) { return source.fires && !source.continuous; });
    if (fires)
        add("charge", fmt::format("Flash charged for {}", text::count_text(cost.exposures, "flash", "flashes")),
            "Batteries that weaken recycle slower and slower, until a frame is missed.");
    add("test-frame",
        stack ? "Test frames of both ends looked at, exposure and edges" : "Test frame looked at, exposure and focus",
        stack ? "The first must be sharp on the nearest point, the last on the farthest: afterwards is too late."
              : "What one frame shows now takes a second set-up later.");
    return items;
}

bool is_ticked(const shoot::Shot& shot, const std::string& item_id) {
    return std::ranges::count(shot.checked, item_id) > 0;
}

bool all_ticked(const shoot::Shot& shot, const std::vector<ChecklistItem>& checklist) {
    return std::ranges::all_of(checklist, [&](const ChecklistItem& item) { return is_ticked(shot, item.id); });
}

}  // namespace poquito::advice
