#include "workings/figures.hpp"

#include "optics/aperture.hpp"
#include "optics/depth.hpp"
#include "optics/diffraction.hpp"
#include "optics/motion.hpp"
#include "plan/background_blur.hpp"
#include "plan/lighting.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <initializer_list>
#include <string_view>
#include <utility>

namespace poquito::workings {
namespace {

struct Binding {
    std::string_view symbol;
    double value;
};
using Bindings = std::initializer_list<Binding>;

/// Puts the numbers in the place of the symbols; names that are not bound (functions) stay.
std::string substituted(std::string_view expression, Bindings bindings) {
    constexpr int digits = 6;
    std::string text;
    const auto in_name = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; };
    for (std::size_t i = 0; i < expression.size();) {
        if (!std::isalpha(static_cast<unsigned char>(expression[i]))) {
            // digits are copied with what follows, so that 1e-9 is not taken for a name
            const bool number = std::isdigit(static_cast<unsigned char>(expression[i]));
            do text += expression[i++];
            while (number && i < expression.size() && (in_name(expression[i]) || expression[i] == '.'));
            continue;
        }
        std::size_t end = i;
        while (end < expression.size() && in_name(expression[end])) ++end;
        const auto name = expression.substr(i, end - i);
        i = end;
        std::string put(name);
        for (const auto& binding : bindings)
            if (binding.symbol == name) {
                put = text::number_text(binding.value, digits);
                if (binding.value < 0) put.insert(0, "(").append(")");
            }
        text += put;
    }
    return text;
}

/// Collects figures for one shot.
class Sheet {
  public:
    explicit Sheet(const advice::Assessment& assessment)
        : plan_(assessment.plan), report_(assessment.report), notes_(assessment.advice.notes) {}

    std::vector<Figure> take() && { return std::move(figures_); }
    void reach();
    void depth();
    void light();
    void run();

  private:
    const plan::Plan& plan_;
    const plan::Report& report_;
    const std::vector<advice::Note>& notes_;
    std::vector<Figure> figures_;
    advice::Station station_ = advice::Station::reach;

    Figure& add(const char* key, std::string name, std::string value, std::string unit = {}) {
        figures_.push_back(
            {key, station_, std::move(name), std::move(value), std::move(unit), advice::Level::info, {}});
        return figures_.back();
    }
    static Working working(std::string symbol, std::string_view expression, Bindings bindings, double result,
                           std::string unit, std::string source) {
        return {std::move(symbol), std::string(expression), substituted(expression, bindings), result,
                std::move(unit),   std::move(source)};
    }
    void weigh(Figure& figure, const char* code) const {
        for (const auto& note : notes_)
            if (note.code == code) figure.weight = note.level;
    }
    Figure& add_length(const char* key, std::string name, double mm) {
        const auto text = text::length_text(mm);
        const auto space = text.find(' ');
        return add(key, std::move(name), text.substr(0, space), text.substr(space + 1));
    }
    Working reading_working() const;
    Working any_aperture_working() const;
    void source_figures(std::size_t i);
    Working flash_working(std::size_t i) const;
    Working lamp_working(std::size_t i) const;
    void metering_figures(const plan::MeteringReport& metering);
    void balance_figures();
    void freeze();
};

constexpr const char* any_train_source =
    "ray matrices; x from the rear focal point to the sensor, F of the whole train";
constexpr const char* train_source = "model 1; Ray, Applied Photographic Optics";
constexpr const char* depth_source = "model 2, pupil of the whole train";
constexpr const char* exposure_source = "model 3; ISO 2720";
constexpr const char* guide_source = "model 3; ISO 1230, disc source";

void Sheet::reach() {
    station_ = advice::Station::reach;
    const auto& optics = report_.optics;
    const auto& train = plan_.train;
    const auto& lens = train.lens;
    const double factor = train.converter ? train.converter->factor : 1;

    const bool plain = optics::is_plain(train);
    const auto& whole = plan_.at.whole;
    const double total_focal = -1 / whole.c;  // of the whole train; afocal ones make no image

    const auto measured = [&](gear::Measured part, const char* unit) {
        const bool is = std::ranges::count(optics.measured, part) > 0;
        return is ? fmt::format("{}{}measured", unit, *unit ? ", " : "") : std::string(unit);
    };
    auto& m = add("magnification", "Magnification", text::number_text(optics.magnification),
                  measured(gear::Measured::magnification, "\u00d7"));
    weigh(m, "magnification-out-of-reach");
    m.working =
        !plain ? working("m", optics::any_magnification_formula, {{"x", -whole.a * total_focal}, {"F", total_focal}},
                         optics.magnification, "", any_train_source)
               : working("m", optics::closeup_magnification_formula,
                         {{"m_1", optics.extended_magnification},
                          {"D", train.closeup_power},
                          {"e", plan_.at.principal},
                          {"f_s", optics.focal_length},
                          {"k", factor}},
                         optics.magnification, "", train_source);
    add("extended_magnification", "\u2026 lens and tubes alone", text::number_text(optics.extended_magnification),
        "\u00d7")
        .working = plain
                       ? working("m_1", optics::extended_magnification_formula,
                                 {{"m_s", optics.lens_magnification}, {"T", train.tubes}, {"f_s", optics.focal_length}},
                                 optics.extended_magnification, "", train_source)
                       : working("m_1", optics::any_extended_magnification_formula,
                                 {{"v", plan_.at.image_distance}, {"f_s", optics.focal_length}},
                                 optics.extended_magnification, "", "image distance over focal length, less 1");
    add("magnification_range", "\u2026 the ring goes",
        fmt::format("{} to {}", text::number_text(optics.range.least), text::number_text(optics.range.greatest)),
        "\u00d7")
        .working = working("greatest", "m", {{"m", optics.range.greatest}}, optics.range.greatest, "",
                           "largest over the whole ring, turning points included");
    auto& ring = add("ring", "Focus ring", text::number_text(optics.ring), "of 1");
    ring.working =
        working("m_s", optics::lens_magnification_formula, {{"ring", optics.ring}, {"M", lens.max_magnification}},
                optics.lens_magnification, "", "model 1, the ring runs from infinity 0 to closest 1");
    if (!lens.readings.empty()) ring.working = reading_working();
    auto& focal = add("focal_length_mm", "Focal length", text::number_text(optics.focal_length), "mm");
    focal.working = working("f_s", "f", {{"f", lens.focal_length}}, optics.focal_length, "mm",
                            "kit record; a unit-focusing lens keeps its focal length");
    if (lens.focusing == optics::Focusing::internal)
        focal.working = working("f_s", optics::internal_focal_length_formula,
                                {{"f", lens.focal_length},
                                 {"ring", optics.ring},
                                 {"L", lens.closest_focus},
                                 {"h", lens.hiatus},
                                 {"M", optics::lens_magnification(lens, 1)}},
                                optics.focal_length, "mm", "model 1, internal focusing");
    if (optics.field_width) {
        auto& field =
            add("field_width_mm", "Field",
                text::number_text(*optics.field_width) + " \u00d7 " + text::number_text(*optics.field_height), "mm");
        weigh(field, "subject-larger-than-frame");
        field.working =
            working("field width", optics::field_formula, {{"s", plan_.sensor.width}, {"m", optics.magnification}},
                    *optics.field_width, "mm", "definition of magnification");
    }
    if (optics.working_distance) {
        auto& w = add("working_distance_mm", "Working distance", text::number_text(*optics.working_distance), "mm");
        weigh(w, "lens-close");
        weigh(w, "focus-inside-lens");
        if (!plain || optics.extended_magnification > 0)
            w.working =
                !plain
                    ? working("w", optics::any_working_distance_formula,
                              {{"F", total_focal}, {"m", optics.magnification}, {"g", whole.d * total_focal}},
                              *optics.working_distance, "mm", "ray matrices; g from the front to the front focal point")
                    : working("w", optics::working_distance_formula,
                              {{"D", train.closeup_power},
                               {"f_s", optics.focal_length},
                               {"m_1", optics.extended_magnification},
                               {"e", plan_.at.principal}},
                              *optics.working_distance, "mm", train_source);
        add("subject_to_sensor_mm", "Subject to sensor", text::number_text(*optics.subject_to_sensor, 4),
            measured(gear::Measured::sharp_distances, "mm"))
            .working = working("subject to sensor", optics::subject_to_sensor_formula,
                               {{"S", optics.front}, {"w", *optics.working_distance}}, *optics.subject_to_sensor, "mm",
                               "model 1, S from sensor to front rim");
    } else {
        add("working_distance_mm", "Working distance", "\u221e");
    }
    const double marked = plan_.shot.exposure.f_number;
    const double own = optics::own_f_number(train, plan_.at, marked);
    auto& aperture = add("working_f_number", "Working aperture", text::f_number_text(optics.working_f_number),
                         measured(gear::Measured::displayed_aperture, ""));
    weigh(aperture, "stop-not-on-lens");
    aperture.working = !plain ? any_aperture_working()
                              : working("N_w", optics::working_f_number_formula,
                                        {{"N_own", own},
                                         {"f_s", optics.focal_length},
                                         {"P", lens.pupil_magnification},
                                         {"m_s", optics.lens_magnification},
                                         {"T", train.tubes},
                                         {"k", factor}},
                                        optics.working_f_number, "", train_source);
    if (plain) {
        auto& own_figure = add("own_f_number", "\u2026 the lens's own part", text::f_number_text(own));
        own_figure.working =
            lens.closest_working_f_number
                ? working("N_own", optics::measured_own_f_number_formula,
                          {{"N", marked},
                           {"ring", optics.ring},
                           {"R", *lens.closest_working_f_number},
                           {"N_0", lens.max_aperture}},
                          own, "", "model 1, working f-number measured at closest focus")
                : working("N_own", optics::own_f_number_formula,
                          {{"N", marked}, {"m_s", optics.lens_magnification}, {"P", lens.pupil_magnification}}, own, "",
                          train_source);
    }
    add("exposure_loss_stops", "Light lost", text::number_text(optics.exposure_loss, 2), "stops").working =
        working("loss", optics::exposure_loss_formula, {{"N_w", optics.working_f_number}, {"N", marked}},
                optics.exposure_loss, "stops", "model 1; Langford, Basic Photography");
}

/// The stretch between two readings that the ring stands in.
Working Sheet::reading_working() const {
    const auto& lens = plan_.train.lens;
    optics::RingReading low{.ring = 0, .magnification = 0}, high{.ring = 1, .magnification = lens.max_magnification};
    for (const auto& reading : lens.readings) {
        if (reading.ring >= report_.optics.ring) {
            high = reading;
            break;
        }
        low = reading;
    }
    return working("m_s", optics::read_magnification_formula,
                   {{"M_0", low.magnification},
                    {"ring", report_.optics.ring},
                    {"r_0", low.ring},
                    {"M_1", high.magnification},
                    {"r_1", high.ring}},
                   report_.optics.lens_magnification, "", "measured, linear between the ring positions measured");
}

Working Sheet::any_aperture_working() const {
    const auto& optics = report_.optics;
    const auto pupil = optics::entrance_pupil(plan_.at, plan_.shot.exposure.f_number);
    if (!optics.working_distance)
        return working("N_w", "N_w", {{"N_w", optics.working_f_number}}, optics.working_f_number, "", any_train_source);
    const double to_pupil = *optics.working_distance + pupil.behind_front;
    return working(
        "N_w", optics::any_working_f_number_formula,
        {{"m", optics.magnification},
         {"w", *optics.working_distance},
         {"p", pupil.behind_front},
         {"g", std::copysign(pupil.scale, optics.magnification * to_pupil)},
         {"A", pupil.diameter}},
        optics.working_f_number, "",
        "ray matrices; p from the front to the entrance pupil, g the pupil A over what the subject sees of it");
}

void Sheet::depth() {
    station_ = advice::Station::depth;
    const auto& sharp = report_.sharpness;
    const auto& capture = report_.capture;
    const auto& shot = plan_.shot;
    const double n = report_.optics.working_f_number;
    const double m = report_.optics.magnification;
    const double lambda = shot.sharpness.wavelength;

    auto& limit = add_length("blur_limit_mm", "Blur limit", sharp.blur_limit);
    const auto& sensor = plan_.sensor;
    limit.working = working("c", "c", {{"c", sharp.blur_limit}}, sharp.blur_limit, "mm", "as stated");
    const auto& print = shot.sharpness.print;
    const auto& delivery = shot.sharpness.delivery;
    if (shot.sharpness.rule == shoot::BlurRule::output)
        limit.working =
            shot.sharpness.output == shoot::OutputKind::print
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
    if (!(m > 0)) return;
    const auto imaging = plan::imaging_of(plan_, shot.exposure.f_number);
    const auto pupil = optics::entrance_pupil(plan_.at, shot.exposure.f_number);
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
    if (sharp.best_single_f_number)
        add("best_single_f_number", "Best single stop", text::f_number_text(*sharp.best_single_f_number)).working =
            working("N", optics::best_f_number_formula,
                    {{"m", m},
                     {"d", report_.extent.depth},
                     {"lambda", lambda},
                     {"N_w", shot.exposure.f_number * plan_.working_factor},
                     {"N", shot.exposure.f_number}},
                    *sharp.best_single_f_number, "", "model 2, least sum of Airy disc and edge defocus");
    if (capture.step) {
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
        const auto& stack = *capture.stack;
        auto& step = add_length("step_mm",
                                fmt::format("Step at {} overlap", fmt::format("{:.0f} %", shot.capture.overlap * 100)),
                                *capture.step);
        if (stack.rail() && stack.rail()->unit > 0)
            step.working =
                working("step", plan::rail_step_formula,
                        {{"F", *capture.frame_depth}, {"o", shot.capture.overlap}, {"u", stack.rail()->unit}},
                        *capture.step, "mm", "model 2, in whole steps of the rail");
        else if (stack.ring())
            step.working = working(
                "step", "d * v", {{"d", stack.ring()->ring_step}, {"v", *capture.step / stack.ring()->ring_step}},
                *capture.step, "mm", "equal shares d of the ring's travel; v what all of it would move at this plane");
        else
            step.working =
                working("step", optics::step_formula, {{"F", *capture.frame_depth}, {"o", shot.capture.overlap}},
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
    }
    if (capture.ring_travel)
        add("crop", "Crop from refocusing", text::number_text(capture.ring_travel->crop * 100, 2), "%").working =
            working("crop", optics::crop_formula, {{"r", 1 + capture.ring_travel->scale_change}},
                    capture.ring_travel->crop, "", "model 2, r the scale of the last frame over the first");
    if (capture.viewpoint_change)
        add("viewpoint_change", "Viewpoint moves by", text::number_text(*capture.viewpoint_change * 100, 2), "%")
            .working = working("change", "(n - 1) * step / Z",
                               {{"n", capture.frames},
                                {"step", *capture.step},
                                {"Z", *report_.optics.working_distance + pupil.behind_front}},
                               *capture.viewpoint_change, "", "rail travel over entrance pupil to subject");
    if (sharp.background_disc) {
        add_length("background_disc_mm", "Background disc", *sharp.background_disc).working =
            working("disc", optics::blur_disc_formula,
                    {{"m", m},
                     {"A", imaging.pupil_diameter},
                     {"b", plan::background_behind_focus(shot)},
                     {"N_w", n},
                     {"g", imaging.pupil_scale}},
                    *sharp.background_disc, "mm", depth_source);
        const double ratio = *sharp.background_blur_over_detail;
        add("background_disc_share", fmt::format("\u2026 a {} detail", text::length_text(shot.background->detail)),
            plan::recognition_text(plan::recognition(ratio)),
            fmt::format("disc {} %", text::number_text(*sharp.background_disc_share * 100, 2)))
            .working =
            working("disc / detail", optics::blur_over_detail_formula,
                    {{"m", m}, {"b", plan::background_behind_focus(shot)}, {"N_w", n}, {"g", shot.background->detail}},
                    ratio, "", "pupil geometry; below 1 a detail is still recognised, common practice");
    }
}

std::string calibrated_text(const light::Calibrated& calibrated) {
    if (calibrated.count == 0) return {};
    if (!calibrated.spread)
        return fmt::format(", calibrated by {}", text::count_text(calibrated.count, "frame", "frames"));
    return fmt::format(", calibrated by {} frames \u00b1 {}", calibrated.count,
                       text::number_text(*calibrated.spread, 2));
}

void Sheet::source_figures(std::size_t i) {
    const auto& source = report_.light.sources[i];
    const auto& light = plan_.shot.lights[i];
    const auto name = fmt::format("{} {} at the subject", source.continuous ? "Lamp" : "Flash", source.label);
    if (!source.fires) {
        add("stops", name, "off");
        return;
    }
    if (source.stops) {
        auto& stops =
            add("stops", name, text::stops_text(*source.stops),
                "stops" + calibrated_text(source.calibration.count ? source.calibration : source.modifier_calibration));
        stops.working = source.continuous ? lamp_working(i) : flash_working(i);
    } else {
        add("stops", name, "none");
    }
    auto& power = add("suggested_power", fmt::format("\u2026 power to set"),
                      plan::setting_text(plan_.kit, light, *source.suggested_power),
                      fmt::format("{} left", text::stops_text(*source.left_over)));
    weigh(power, "power-above-full");
    weigh(power, "power-below-least");
    const double step = plan::power_scale(plan_.kit, light).step;
    power.working = working("power", light::nearest_setting_formula,
                            {{"n", std::round(-std::log2(*source.suggested_power) / step)}, {"step", step}},
                            *source.suggested_power, "", "the unit's setting nearest to the power wanted");
    if (!light.power) {
        const double full = std::log2(plan::light_at(plan_, light, 1, 0));
        add("power", "\u2026 power wanted", text::power_text(source.power)).working =
            working("power", light::auto_power_formula, {{"g", *source.stops}, {"s_1", full}}, source.power, "",
                    "model 3, g wanted and s_1 at full power, in stops");
    }
    if (source.losses.high_speed > 0)
        add("high_speed_loss_stops", "\u2026 high-speed sync takes", text::number_text(source.losses.high_speed),
            "stops")
            .working = working("loss", light::high_speed_formula,
                               {{"h", shoot::flash_of(plan_.kit, light).high_speed_loss},
                                {"t_s", plan_.camera.sync},
                                {"t", plan_.shot.exposure.shutter}},
                               source.losses.high_speed, "stops",
                               "model 3; h at sync speed from the unit's record, 2 by common practice");
    if (source.t01) {
        const bool decays = shoot::flash_of(plan_.kit, light).discharge == light::Discharge::decay;
        add("flash_duration_s", "\u2026 freezes in, t0.1", text::shutter_text(*source.t01)).working = working(
            "t0.1", decays ? light::t01_decay_formula : "t_05", {{"t_05", *source.t05}}, *source.t01, "s",
            decays ? "ISO 2827; exponential decay" : "ISO 2827; cut off, so t0.1 is t0.5 of the record's table");
    }
    if (source.metering && light.metered) metering_figures(*source.metering);
}

Working Sheet::flash_working(std::size_t i) const {
    const auto& source = report_.light.sources[i];
    const auto path = plan::flash_path(plan_, plan_.shot.lights[i]);
    const auto settings = plan::settings_of(plan_);
    return working("stops", light::flash_formula,
                   {{"G", path.guide_number},
                    {"p", source.power},
                    {"ISO", settings.iso},
                    {"l", path.loss},
                    {"N_w", settings.working_f_number},
                    {"d", path.distance / 1000},
                    {"w", path.modifier_diameter / 1000}},
                   *source.stops, "stops", guide_source);
}

Working Sheet::lamp_working(std::size_t i) const {
    const auto& source = report_.light.sources[i];
    auto path = plan::lamp_path(plan_, plan_.shot.lights[i]);
    path.power = source.power;
    const auto settings = plan::settings_of(plan_);
    return working("stops", light::lamp_formula,
                   {{"E", light::illuminance(path)},
                    {"ISO", settings.iso},
                    {"t", settings.shutter},
                    {"N_w", settings.working_f_number}},
                   *source.stops, "stops", "ISO 2720, C = 250; E in lux at the subject, disc source");
}

void Sheet::metering_figures(const plan::MeteringReport& metering) {
    add("metering_error_stops", "\u2026 camera's metering errs", text::stops_text(metering.error), "stops").working =
        working("error", light::automatic_formula, {{"r_m", metering.reflectance}}, metering.error, "stops",
                "model 3; r_m the average reflectance of the field as the flash lights it");
}

void Sheet::freeze() {
    if (!report_.freeze) return;
    const auto& freeze = *report_.freeze;
    const auto& plan = *plan_.shot.freeze;
    auto& speed = add("freeze_speed_mm_s", "Speed at the place", text::number_text(freeze.speed / 1000), "m/s");
    if (plan.act != shoot::Act::thrown)
        speed.working = working("speed", light::fall_speed_formula, {{"g", light::gravity}, {"h", plan.drop}},
                                freeze.speed, "mm/s", "free fall, g by ISO 80000-3");
    if (freeze.slowest > 0)
        add("slowest_t01_s", "\u2026 freezes within", text::shutter_text(freeze.slowest)).working =
            working("t", "n * pitch / (m * w)",
                    {{"n", plan.wanted_blur},
                     {"pitch", optics::pixel_pitch(plan_.sensor)},
                     {"m", report_.optics.magnification},
                     {"w", freeze.speed}},
                    freeze.slowest, "s", "model 2, motion; n pixels of blur wanted");
    if (freeze.delay && plan.trigger == shoot::Trigger::beam)
        add("trigger_delay_s", "Trigger delay", fmt::format("{} ms", text::number_text(*freeze.delay * 1000))).working =
            working(
                "delay", light::trigger_formula,
                {{"h", plan.drop}, {"b", std::min(plan.beam_above, plan.drop)}, {"g", light::gravity}, {"l", plan.lag}},
                *freeze.delay, "s", "free fall from the beam to the place, less camera and trigger");
    if (freeze.burst_time)
        add("burst_s", "Repeating flash lasts", text::shutter_text(*freeze.burst_time)).working =
            working("t", light::burst_formula,
                    {{"n", static_cast<double>(plan.repeating->burst.flashes)}, {"F", plan.repeating->burst.frequency}},
                    *freeze.burst_time, "s", "model 3");
}

void Sheet::light() {
    station_ = advice::Station::light;
    const auto& light = report_.light;
    const auto settings = plan::settings_of(plan_);
    if (light.ambient)
        add("ambient_stops", "Ambient", text::stops_text(*light.ambient), "stops").working =
            working("ambient", light::ambient_formula,
                    {{"EV", plan_.shot.ambient->ev100},
                     {"ISO", settings.iso},
                     {"t", settings.shutter},
                     {"N_w", settings.working_f_number}},
                    *light.ambient, "stops", exposure_source);
    for (std::size_t i = 0; i < light.sources.size(); ++i) source_figures(i);
    if (light.total) {
        auto& total = add("total_stops", "Exposure", text::stops_text(*light.total), "stops");
        weigh(total, "exposure-off");
        const double ambient = light.ambient ? std::exp2(*light.ambient) : 0;
        total.working =
            working("exposure", light::flash_sum_formula, {{"a", ambient}, {"f", std::exp2(*light.total) - ambient}},
                    *light.total, "stops", "model 3, sources add as exposure ratios");
    }
    balance_figures();
    if (light.background) {
        constexpr const char* looks[] = {"black", "dark", "grey", "white"};
        add("background_stops", "Background", text::stops_text(*light.background),
            fmt::format("stops, {}", looks[static_cast<int>(*light.background_look)]))
            .working = working("background", light::background_formula,
                               {{"B", std::exp2(*light.background) * 0.18 / plan_.shot.background->reflectance},
                                {"r", plan_.shot.background->reflectance}},
                               *light.background, "stops", "model 3, B the light at the card over a correct exposure");
    }
    freeze();
    const auto& motion = report_.motion;
    const auto in_pixels = [&](Figure& blur, double mm) {
        blur.unit += fmt::format(", {} px", text::number_text(mm / optics::pixel_pitch(plan_.sensor), 2));
    };
    if (motion.blur > 0) {
        auto& blur = add_length("blur_mm", "Blur from movement", motion.blur);
        in_pixels(blur, motion.blur);
        weigh(blur, "motion-blur");
        blur.working =
            working("blur", optics::motion_blur_formula,
                    {{"m", report_.optics.magnification}, {"w", plan_.shot.subject.speed}, {"t", motion.exposure_time}},
                    motion.blur, "mm",
                    motion.frozen_by_flash ? "model 2; t is the flash's t0.1" : "model 2; t is the shutter time");
    }
    if (motion.ghost_share > 0) {
        auto& ghost = add("ghost_share", "Ghost, of the light", text::number_text(motion.ghost_share * 100, 2), "%");
        weigh(ghost, "ambient-not-negligible");
        in_pixels(ghost, motion.ghost_blur);
        ghost.working = working(
            "share", "100 * a / (a + f)",
            {{"a", std::exp2(*light.continuous)}, {"f", std::exp2(*light.total) - std::exp2(*light.continuous)}},
            motion.ghost_share * 100, "%", "what stays on over all light, as exposure ratios");
    }
    if (motion.hand_blur > 0) {
        auto& blur = add_length("hand_blur_mm", "Blur from the hands", motion.hand_blur);
        in_pixels(blur, motion.hand_blur);
        weigh(blur, "hand-shake");
        blur.working = working("blur", plan::hand_blur_formula,
                               {{"w", plan::HandShake::turning},
                                {"f", report_.optics.focal_length},
                                {"m", std::max(report_.optics.magnification, 0.0)},
                                {"v", plan::HandShake::shifting},
                                {"t", motion.exposure_time}},
                               motion.hand_blur, "mm", "hands turn by w rad/s and shift by v mm/s: common practice");
    }
    if (motion.sway_blur > 0) {
        auto& blur = add_length("sway_blur_mm", "Blur from sway", motion.sway_blur);
        in_pixels(blur, motion.sway_blur);
        weigh(blur, "motion-blur");
        blur.working = working("blur", optics::oscillation_blur_formula,
                               {{"a", plan_.shot.subject.sway_amplitude},
                                {"m", report_.optics.magnification},
                                {"F", plan_.shot.subject.sway_frequency},
                                {"t", motion.exposure_time}},
                               motion.sway_blur, "mm", "model 2, at worst");
    }
}

void Sheet::balance_figures() {
    const auto& light = report_.light;
    if (light.key_to_fill) {
        const double key = std::exp2(*light.sources[*light.key].stops);
        add("key_to_fill_stops", "Key over the rest", text::stops_text(*light.key_to_fill), "stops").working =
            working("ratio", "log2(k / r)", {{"k", key}, {"r", key * std::exp2(-*light.key_to_fill)}},
                    *light.key_to_fill, "stops", "k the strongest light, r all the rest, as exposure ratios");
    }
    if (light.front && light.back)
        add("falloff_stops", "Front over back", text::stops_text(*light.front - *light.back), "stops").working =
            working("falloff", "front - back", {{"front", *light.front}, {"back", *light.back}},
                    *light.front - *light.back, "stops",
                    "model 3 at the nearest and the farthest point of the subject");
    if (light.black_frame && light.flash) {
        const double ambient = light.ambient ? std::exp2(*light.ambient) : 0;
        add("continuous_stops", "Without flash", text::stops_text(*light.continuous),
            light.black_frame->over <= 0 ? "black" : "stops")
            .working =
            working("frame", light::flash_sum_formula, {{"a", ambient}, {"f", std::exp2(*light.continuous) - ambient}},
                    *light.continuous, "stops", "model 3; black from 5 stops under, common practice");
    }
}

void Sheet::run() {
    station_ = advice::Station::run;
    const auto& capture = report_.capture;
    const double shutter = plan_.shot.exposure.shutter;
    auto& duration = add("paced_duration_s", "Time for the frames", text::time_text(capture.paced_duration));
    weigh(duration, "recycle-slow");
    const auto& cost = capture.cost;
    const auto& cadence = cost.cadence;
    if (cost.stalls > 0)
        duration.working =
            working("time", "(n - 1) * frame + stalls + t",
                    {{"n", cost.exposures}, {"t", shutter}, {"frame", cadence.frame}, {"stalls", cost.stalls}},
                    capture.paced_duration, "s", "a full buffer waits for the card");
    else
        duration.working =
            working("time", "(n - 1) * frame + t", {{"n", cost.exposures}, {"t", shutter}, {"frame", cadence.frame}},
                    capture.paced_duration, "s", "from frame to frame as below");
    if (capture.frames > 1 && !capture.stack->hand())
        add("frame_s", "\u2026 from frame to frame", text::time_text(cadence.frame)).working =
            working("frame", "max(interval, t + max(move + settle, recycle))",
                    {{"interval", capture.interval},
                     {"t", shutter},
                     {"move", cadence.move},
                     {"settle", cadence.settle},
                     {"recycle", capture.recycle}},
                    cadence.frame, "s", "a frame every interval, later where mover or flash is not ready");
    add("data_mb", "Data", text::data_text(capture.data_mb)).working =
        working("data", "n * frame", {{"n", cost.exposures}, {"frame", plan_.camera.frame_mb}}, capture.data_mb, "MB",
                "size of one frame from the kit");
}

}  // namespace

std::vector<Figure> figures(const advice::Assessment& assessment) {
    Sheet sheet(assessment);
    sheet.reach();
    sheet.depth();
    sheet.light();
    sheet.run();
    return std::move(sheet).take();
}

std::string pretty(const std::string& expression) {
    static const std::pair<std::string_view, std::string_view> signs[] = {{"lambda", "\u03bb"}, {" * ", " \u00d7 "},
                                                                          {" - ", " \u2212 "},  {"^2", "\u00b2"},
                                                                          {"(-", "(\u2212"},    {"pi", "\u03c0"}};
    std::string text = expression;
    for (const auto& [plain, sign] : signs)
        for (auto at = text.find(plain); at != std::string::npos; at = text.find(plain, at + sign.size()))
            text.replace(at, plain.size(), sign);
    return text;
}

}  // namespace poquito::workings
