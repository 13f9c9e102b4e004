#include "optics/aperture.hpp"
#include "sheet.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::workings {

void Sheet::reach() {
    station_ = advice::Station::reach;
    magnification_figures();
    ring_figures();
    distance_figures();
    aperture_figures();
}

std::string Sheet::measured(gear::Measured part, const char* unit) const {
    const bool is = std::ranges::count(report_.optics.measured, part) > 0;
    return is ? fmt::format("{}{}measured", unit, *unit ? ", " : "") : std::string(unit);
}

void Sheet::magnification_figures() {
    const auto& optics = report_.optics;
    const auto& train = plan_.train;
    const double factor = train.converter ? train.converter->factor : 1;
    const bool plain = optics::is_plain(train);
    const auto& whole = plan_.at.whole;
    const double total_focal = -1 / whole.c;  // of the whole train; afocal ones make no image
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
}

void Sheet::ring_figures() {
    const auto& optics = report_.optics;
    const auto& lens = plan_.train.lens;
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
}

void Sheet::distance_figures() {
    const auto& optics = report_.optics;
    const auto& train = plan_.train;
    const bool plain = optics::is_plain(train);
    const auto& whole = plan_.at.whole;
    const double total_focal = -1 / whole.c;  // of the whole train; afocal ones make no image
    if (optics.field_width) {
        auto& field =
            add("field_width_mm", "Field",
                text::number_text(*optics.field_width) + " \u00d7 " + text::number_text(*optics.field_height), "mm");
        weigh(field, "subject-larger-than-frame");
        field.working =
            working("field width", optics::field_formula, {{"s", plan_.sensor.width}, {"m", optics.magnification}},
                    *optics.field_width, "mm", "definition of magnification");
    }
    if (optics.tank) {
        const auto& tank = plan_.shot.subject.tank->tank;
        add("tank_nearer_mm", "\u2026 appears nearer by", text::number_text(optics.tank->nearer), "mm").working =
            working("nearer", optics::path_shortened_formula,
                    {{"d", tank.water}, {"n", tank.water_index}, {"w", tank.wall}, {"n_w", tank.wall_index}},
                    optics.tank->nearer, "mm", "Snell's law near the axis");
        if (optics.tank->front_to_wall)
            add("tank_wall_mm", "\u2026 lens to the wall", text::number_text(*optics.tank->front_to_wall), "mm");
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
}

void Sheet::aperture_figures() {
    const auto& optics = report_.optics;
    const auto& train = plan_.train;
    const auto& lens = train.lens;
    const double factor = train.converter ? train.converter->factor : 1;
    const bool plain = optics::is_plain(train);
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

}  // namespace poquito::workings
