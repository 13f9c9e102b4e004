#include "optics/aperture.hpp"
#include "optics/depth.hpp"
#include "optics/diffraction.hpp"
#include "plan/plan.hpp"
#include "plan/set/background_blur.hpp"
#include "sheet.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::workings {

void Sheet::depth() {
    station_ = advice::Station::depth;
    blur_limit_figures();
    if (!(report_.optics.magnification > 0)) return;
    single_frame_figures();
    if (report_.capture.step) {
        frame_figures();
        stack_figures();
    }
    if (report_.sharpness.background_disc) background_figures();
}

void Sheet::blur_limit_figures() {
    const auto& sharp = report_.sharpness;
    const auto& shot = plan_.shot;
    const double n = report_.optics.working_f_number;
    const double lambda = plan_.shot.sharpness.wavelength;
    auto& limit = add_length("blur_limit_mm", "Blur limit", sharp.blur_limit);
    const auto& sensor = plan_.sensor;
    limit.working = working("c", "c", {{"c", sharp.blur_limit}}, sharp.blur_limit, "mm", "as stated");
    const auto& print = shot.sharpness.output.print;
    const auto& delivery = shot.sharpness.output.delivery;
    if (shot.sharpness.rule == shoot::BlurRule::output)
        limit.working =
            shot.sharpness.output.kind == shoot::OutputKind::print
                ? working(
                      "c", optics::print_blur_limit_formula,
                      {{"v", print.viewing_distance}, {"w", sensor.width}, {"crop", print.crop}, {"W", print.width}},
                      sharp.blur_limit, "mm", "0.2 mm seen from 250 mm is a point, common practice")
                : working("c", optics::delivery_blur_limit_formula,
                          {{"w", sensor.width}, {"crop", delivery.crop}, {"W_px", delivery.width_px}}, sharp.blur_limit,
                          "mm", "two pixels of the delivered picture");
    if (shot.sharpness.rule == shoot::BlurRule::pixel)
        limit.working =
            working("c", optics::pixel_blur_limit_formula,
                    {{"n", shot.sharpness.pixels}, {"w", sensor.width}, {"w_px", static_cast<double>(sensor.width_px)}},
                    sharp.blur_limit, "mm", "model 2, so many pixel pitches");
    if (shot.sharpness.rule == shoot::BlurRule::diagonal)
        limit.working = working("c", optics::diagonal_blur_limit_formula, {{"w", sensor.width}, {"h", sensor.height}},
                                sharp.blur_limit, "mm", "sensor diagonal / 1500, common practice");
    auto& airy = add_length("airy_diameter_mm", "Airy disc", sharp.airy_diameter);
    weigh(airy, "diffraction-coarse");
    airy.working = working("Airy", optics::airy_formula, {{"lambda", lambda}, {"N_w", n}}, sharp.airy_diameter, "mm",
                           "Born and Wolf, Principles of Optics, 8.5.2");
}

void Sheet::single_frame_figures() {
    const auto& sharp = report_.sharpness;
    const auto& shot = plan_.shot;
    const double n = report_.optics.working_f_number;
    const double m = report_.optics.magnification;
    const double lambda = plan_.shot.sharpness.wavelength;
    const auto imaging = plan::imaging_of(plan_, shot.exposure.f_number);
    const Bindings optical = {
        {"c", sharp.blur_limit}, {"N_w", n}, {"m", m}, {"g", imaging.pupil_scale}, {"A", imaging.pupil_diameter}};
    if (sharp.depth_of_field) {
        auto& dof = add_length("depth_of_field_mm", "In focus, one frame", *sharp.depth_of_field);
        weigh(dof, "depth-less-than-subject");
        dof.working = working("near + far", optics::depth_of_field_formula,
                              {{"near", *sharp.near}, {"far", *sharp.far}}, *sharp.depth_of_field, "mm", depth_source);
    } else {
        add("depth_of_field_mm", "In focus, one frame", "to infinity");
    }
    if (sharp.near)
        add_length("near_mm", "\u2026 in front of the focus", *sharp.near).working =
            working("near", optics::near_formula, optical, *sharp.near, "mm", depth_source);
    if (sharp.far)
        add_length("far_mm", "\u2026 behind it", *sharp.far).working =
            working("far", optics::far_formula, optical, *sharp.far, "mm", depth_source);
    if (sharp.zone_covered) {
        auto& held =
            add("zone_covered", "Held of what has to be sharp", fmt::format("{:.0f} %", *sharp.zone_covered * 100),
                text::length_text(*sharp.zone_covered * *sharp.zone));
        weigh(held, "zone-not-held");
    }
    if (sharp.best_single_f_number)
        add("best_single_f_number", "Best single stop", text::f_number_text(*sharp.best_single_f_number)).working =
            working("N", optics::best_f_number_formula,
                    {{"m", m},
                     {"d", plan::wanted_sharp(plan_).length()},
                     {"lambda", lambda},
                     {"N_w", shot.exposure.f_number * plan_.working_factor},
                     {"N", shot.exposure.f_number}},
                    *sharp.best_single_f_number, "", "model 2, least sum of Airy disc and edge defocus");
}

void Sheet::frame_figures() {
    const auto& sharp = report_.sharpness;
    const auto& capture = report_.capture;
    const auto& shot = plan_.shot;
    const double n = report_.optics.working_f_number;
    const double m = report_.optics.magnification;
    const double lambda = plan_.shot.sharpness.wavelength;
    auto& frame = add_length("frame_depth_mm", "Depth of a frame", *capture.frame_depth);
    const double dz = *capture.frame_depth * m * m / 2;
    frame.working =
        shot.capture.depth_rule == shoot::DepthRule::blur
            ? working("F", optics::depth_of_field_formula, {{"near", *sharp.near}, {"far", *sharp.far}},
                      *capture.frame_depth, "mm", "model 2, geometric blur disc")
            : working("F", optics::contrast_depth_formula, {{"dz", dz}, {"m", m}}, *capture.frame_depth, "mm",
                      fmt::format("Hopkins 1955: {} of image-side defocus keeps {:.0f} % of the contrast",
                                  text::length_text(dz), shot.capture.contrast_kept * 100));
    const bool quarter = shot.capture.depth_rule == shoot::DepthRule::quarter_wave || capture.nothing_to_keep;
    if (quarter)
        frame.working = working("F", optics::quarter_wave_formula, {{"lambda", lambda}, {"N_w", n}, {"m", m}},
                                *capture.frame_depth, "mm", "model 2, a quarter wave either side (Rayleigh)");
}

void Sheet::stack_figures() {
    const auto& capture = report_.capture;
    const auto& shot = plan_.shot;
    const auto& stack = *capture.stack;
    auto& step =
        add_length("step_mm", fmt::format("Step at {} overlap", fmt::format("{:.0f} %", shot.capture.overlap * 100)),
                   *capture.step);
    if (stack.rail() && stack.rail()->unit > 0)
        step.working = working("step", plan::rail_step_formula,
                               {{"F", *capture.frame_depth}, {"o", shot.capture.overlap}, {"u", stack.rail()->unit}},
                               *capture.step, "mm", "model 2, in whole steps of the rail");
    else if (stack.ring())
        step.working = working(
            "step", "d * v", {{"d", stack.ring()->ring_step}, {"v", *capture.step / stack.ring()->ring_step}},
            *capture.step, "mm", "equal shares d of the ring's travel; v what all of it would move at this plane");
    else
        step.working = working("step", optics::step_formula, {{"F", *capture.frame_depth}, {"o", shot.capture.overlap}},
                               *capture.step, "mm", "model 2");
    auto& frames = add("frames", fmt::format("Frames for {}", text::length_text(stack.span.length())),
                       text::number_text(capture.frames, 9));
    weigh(frames, "frames-above-bracket");
    frames.working =
        stack.ring()
            ? working("frames", plan::ring_frames_formula,
                      {{"r_0", stack.ring()->first_ring},
                       {"r_1", stack.ring()->last_ring},
                       {"d", stack.bracket() && stack.bracket()->choice ? stack.bracket()->choice->least_ring_step
                                                                        : stack.ring()->ring_step}},
                      capture.frames, "", "ring positions of the first and last plane, in shares of its travel")
            : working("frames", optics::frames_formula,
                      {{"d", stack.span.length() - shot.capture.lead - shot.capture.tail},
                       {"lead", shot.capture.lead},
                       {"tail", shot.capture.tail},
                       {"F", *capture.frame_depth},
                       {"step", *capture.step}},
                      capture.frames, "", "model 2");
    if (capture.ring_travel)
        add("crop", "Crop from refocusing", text::number_text(capture.ring_travel->crop * 100, 2), "%").working =
            working("crop", optics::crop_formula, {{"r", 1 + capture.ring_travel->scale_change}},
                    capture.ring_travel->crop, "", "model 2, r the scale of the last frame over the first");
    if (capture.viewpoint_change)
        add("viewpoint_change", "Viewpoint moves by", text::number_text(*capture.viewpoint_change * 100, 2), "%")
            .working =
            working("change", "(n - 1) * step / Z",
                    {{"n", capture.frames}, {"step", *capture.step}, {"Z", plan::pupil_distance(plan_).value()}},
                    *capture.viewpoint_change, "", "rail travel over entrance pupil to subject");
}

void Sheet::background_figures() {
    const auto& sharp = report_.sharpness;
    const auto& shot = plan_.shot;
    const double n = report_.optics.working_f_number;
    const double m = report_.optics.magnification;
    const auto imaging = plan::imaging_of(plan_, shot.exposure.f_number);
    add_length("background_disc_mm", "Background disc", *sharp.background_disc).working =
        working("disc", optics::blur_disc_formula,
                {{"m", m},
                 {"A", imaging.pupil_diameter},
                 {"b", plan::background_behind_focus(plan_)},
                 {"N_w", n},
                 {"g", imaging.pupil_scale}},
                *sharp.background_disc, "mm", depth_source);
    const double ratio = *sharp.background_blur_over_detail;
    add("background_disc_share", fmt::format("\u2026 a {} detail", text::length_text(shot.background->detail)),
        plan::recognition_text(plan::recognition(ratio)),
        fmt::format("disc {} %", text::number_text(*sharp.background_disc_share * 100, 2)))
        .working =
        working("disc / detail", optics::blur_over_detail_formula,
                {{"m", m}, {"b", plan::background_behind_focus(plan_)}, {"N_w", n}, {"g", shot.background->detail}},
                ratio, "", "pupil geometry; below 1 a detail is still recognised, common practice");
}

}  // namespace poquito::workings
