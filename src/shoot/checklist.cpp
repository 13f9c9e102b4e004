#include "shoot/checklist.hpp"

#include "optics/train.hpp"
#include "shoot/lighting.hpp"
#include "shoot/plan.hpp"
#include "shoot/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

std::string bracket_text(const Plan& plan, const Report& report) {
    const auto frames = number_text(report.capture.frames, 9);
    const auto step = length_text(*report.capture.step);
    if (plan.shot.capture.mover == Mover::rail)
        return fmt::format("Rail: {} frames, {} a step, backlash taken up, begun in front of the nearest point", frames,
                           step);
    const bool centre = plan.camera.bracket.start == BracketStart::centre;
    return fmt::format("Focus bracketing really on: {} frames, {} a step; this camera begins at the {}", frames, step,
                       centre ? "centre" : "nearest point");
}

}  // namespace

std::vector<ChecklistItem> make_checklist(const Plan& plan, const Report& report) {
    std::vector<ChecklistItem> items;
    const auto add = [&](const char* id, std::string text) { items.push_back({id, std::move(text)}); };
    const auto& exposure = plan.shot.exposure;
    add("settings", fmt::format("{} on the lens, {} on the display; {}; ISO {}", f_number_text(exposure.f_number),
                                f_number_text(report.optics.displayed_f_number), shutter_text(exposure.shutter),
                                number_text(exposure.iso, 6)));
    const auto& fit = report.optics.fit;
    if (fit.stop == StopControl::lens_ring)
        add("stop-by-hand", fmt::format("{} set on the lens's own ring", f_number_text(exposure.f_number)));
    if (fit.stop == StopControl::none)
        add("stop-by-hand",
            exposure.f_number > plan.train.lens.max_aperture * 1.01
                ? fmt::format("{} set on the camera and held with the depth-of-field button while the lens "
                              "came off",
                              f_number_text(exposure.f_number))
                : std::string("Lens wide open: nothing sets its stop"));
    if (plan.shot.rig.crop_mode)
        add("crop-mode", fmt::format("Camera set to \u201c{}\u201d", *plan.shot.rig.crop_mode));
    if (std::ranges::any_of(fit.joints, [](const Joint& joint) { return joint.inner_thread && !joint.fits(); }))
        add("step-rings", "Step rings in the bag: see the notes of Reach");
    const bool compensated =
        std::ranges::any_of(plan.shot.lights, [](const Light& light) { return light.metered.value_or(0) != 0; });
    add("compensation", compensated ? "Exposure compensation at zero, flash compensation as planned"
                                    : "Exposure compensation back to zero");
    if (report.optics.magnification > 0)
        add("focus",
            fmt::format("Manual focus, {}: {} of the frame filled", magnification_text(report.optics.magnification),
                        fmt::format("{:.0f} %", *report.optics.fill * 100)));
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        const auto& source = report.light.sources[i];
        const auto setting = [&](double power) { return setting_text(plan.kit, light, power); };
        std::string how = light.power              ? "manual, " + setting(*light.power)
                          : source.suggested_power ? "automatic, about " + setting(*source.suggested_power)
                                                   : std::string("automatic");
        if (light.metered) how = fmt::format("metered by the camera, compensation {}", stops_text(*light.metered));
        if (!is_flash(light)) how = "on, " + setting(*light.power);
        add("flash",
            fmt::format("Light {}: {}, {}", source.label, how,
                        light.on_lens ? "on the lens" : length_text(light.position.distance) + " from the subject"));
        items.back().id = fmt::format("flash-{}", i + 1);
    }
    if (report.capture.frames > 1) add("bracketing", bracket_text(plan, report));
    if (plan.shot.capture.interval)
        add("interval", fmt::format("A frame every {}", time_text(*plan.shot.capture.interval)));
    add("release", "Remote or self-timer, hands off; stabiliser off on a tripod");
    constexpr double shake = 0.2;  // magnification from which a mirror or shutter shows (common practice)
    if (report.optics.magnification >= shake && !report.motion.frozen_by_flash)
        add("shutter-shock", "Mirror delay or electronic first curtain");
    add("card", fmt::format("Card has room for {}", data_text(report.capture.data_mb)));
    add("test-frame", report.capture.frames > 1 ? "Test frames of both ends looked at, exposure and edges"
                                                : "Test frame looked at, exposure and focus");
    return items;
}

bool is_ticked(const Shot& shot, const std::string& item_id) { return std::ranges::count(shot.checked, item_id) > 0; }

bool all_ticked(const Shot& shot, const Report& report) {
    return std::ranges::all_of(report.checklist, [&](const ChecklistItem& item) { return is_ticked(shot, item.id); });
}

}  // namespace poquito::shoot
