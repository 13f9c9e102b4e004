#include "gear/rows.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cassert>
#include <cmath>
#include <type_traits>

namespace poquito::gear {
namespace {

template <typename Number>
Cell to_cell(const Number& value) {
    if constexpr (std::is_same_v<Number, std::optional<double>>)
        return value ? Cell(*value) : Cell();
    else if constexpr (std::is_same_v<Number, std::string> || std::is_same_v<Number, bool>)
        return value;
    else
        return static_cast<double>(value);
}

template <typename Number>
void from_cell(const Cell& cell, Number& value) {
    if constexpr (std::is_same_v<Number, std::optional<double>>)
        value = std::holds_alternative<double>(cell) ? std::optional(std::get<double>(cell)) : std::nullopt;
    else if constexpr (std::is_same_v<Number, std::string> || std::is_same_v<Number, bool>)
        value = std::get<Number>(cell);
    else
        value = static_cast<Number>(std::get<double>(cell));
}

GearField& field_of(GearKind& kind, FieldSpec spec) {
    return kind.fields.emplace_back(GearField{std::move(spec), {}, {}});
}

/// Builds a kind whose records stand in `list` of a kit. Members are reached by generic lambdas that take the record.
template <typename Gear, std::vector<Gear> Kit::*list>
class Builder {
  public:
    Builder(const char* key, const char* one, const char* many, bool optional)
        : kind_{.list = key, .one = one, .many = many, .optional = optional} {
        kind_.count = [](const Kit& kit) { return (kit.*list).size(); };
        kind_.id = [](const Kit& kit, std::size_t i) { return (kit.*list)[i].id; };
        kind_.name = [](const Kit& kit, std::size_t i) { return (kit.*list)[i].name; };
        kind_.unknown = [](const Kit& kit, std::size_t i) { return (kit.*list)[i].unknown; };
        kind_.set_id = [](Kit& kit, std::size_t i, const std::string& id) { (kit.*list)[i].id = id; };
        kind_.set_name = [](Kit& kit, std::size_t i, const std::string& name) { (kit.*list)[i].name = name; };
        kind_.set_unknown = [](Kit& kit, std::size_t i, const std::string& json) { (kit.*list)[i].unknown = json; };
        kind_.insert_new = [](Kit& kit, std::size_t i) { (kit.*list).insert((kit.*list).begin() + at(i), Gear{}); };
        kind_.insert_copy = [](Kit& kit, std::size_t i, const Kit& from, std::size_t j) {
            Gear copy = (from.*list)[j];
            (kit.*list).insert((kit.*list).begin() + at(i), std::move(copy));
        };
        kind_.replace = [](Kit& kit, std::size_t i, const Kit& from, std::size_t j) {
            (kit.*list)[i] = Gear((from.*list)[j]);
        };
        kind_.remove = [](Kit& kit, std::size_t i) { (kit.*list).erase((kit.*list).begin() + at(i)); };
        kind_.equal = [](const Kit& kit, std::size_t i, const Kit& other, std::size_t j) {
            return (kit.*list)[i] == (other.*list)[j];
        };
        kind_.check = [](const Kit&, std::size_t) { return std::optional<GearProblem>(); };
    }

    template <typename Access>
    Builder& number(const char* key, const char* label, Measure measure, text::NumberRule rule, const char* hint,
                    Access access) {
        return add(key, label, hint, FieldType::number, measure, rule, Reached(access));
    }
    template <typename Access>
    Builder& whole(const char* key, const char* label, int least, const char* hint, Access access,
                   Measure measure = Measure::count, double greatest = text::range::most) {
        return add(key, label, hint, FieldType::whole_number, measure,
                   {.least = static_cast<double>(least), .greatest = greatest}, Reached(access));
    }
    template <typename Access>
    Builder& flag(const char* key, const char* label, const char* hint, Access access) {
        return add(key, label, hint, FieldType::flag, {}, {}, Reached(access));
    }
    /// `choices` in the order of the enumeration.
    template <typename Access>
    Builder& choice(const char* key, const char* label, const std::vector<const char*>& choices, const char* hint,
                    Access access) {
        return add_choice(key, label, hint, choices, Reached(access));
    }
    /// The member added last may be absent; it is then what a fresh record has.
    Builder& may_be_absent() {
        auto& field = kind_.fields.back();
        Kit plain;
        kind_.insert_new(plain, 0);
        field.optional = true;
        field.otherwise = field.get(plain, 0);
        return *this;
    }
    /// `read` makes a Row of cells, `write` cells of a Row.
    template <typename Access, typename Read, typename Write>
    Builder& table(const char* key, const char* label, const char* hint, std::vector<FieldSpec> columns, bool optional,
                   Access access, Read read, Write write) {
        GearTable made{.key = key, .label = label, .hint = hint, .columns = std::move(columns), .optional = optional};
        made.get = [access, write](const Kit& kit, std::size_t i) {
            Rows rows;
            for (const auto& item : access((kit.*list)[i])) rows.push_back(write(item));
            return rows;
        };
        made.set = [access, read](Kit& kit, std::size_t i, const Rows& rows) {
            auto& items = access((kit.*list)[i]);
            items.clear();
            for (const auto& row : rows) items.push_back(read(row));
        };
        kind_.tables.push_back(std::move(made));
        return *this;
    }
    template <typename Access>
    Builder& part(const char* key, Access access) {
        kind_.parts.push_back(
            {key, [access](const Kit& kit, std::size_t i) { return std::string(access((kit.*list)[i])); },
             [access](Kit& kit, std::size_t i, const std::string& json) { access((kit.*list)[i]) = json; }});
        return *this;
    }
    Builder& check(std::optional<GearProblem> (*problem_of)(const Gear&)) {
        kind_.check = [problem_of](const Kit& kit, std::size_t i) { return problem_of((kit.*list)[i]); };
        return *this;
    }
    operator GearKind() { return std::move(kind_); }

  private:
    /// A member by two plain functions, so that what handles it is compiled once for each type of member and not for
    /// each member.
    template <typename Value>
    struct Reached {
        template <typename Access>
        explicit Reached(Access /*a lambda that captures nothing*/)
            : of([](const Gear& gear) -> const Value& { return Access{}(gear); }),
              in([](Gear& gear) -> Value& { return Access{}(gear); }) {}
        const Value& (*of)(const Gear&);
        Value& (*in)(Gear&);
    };
    template <typename Access>
    Reached(Access access) -> Reached<std::decay_t<decltype(access(std::declval<Gear&>()))>>;

    template <typename Value>
    [[gnu::noinline]] Builder& add(const char* key, const char* label, const char* hint, FieldType type,
                                   Measure measure, text::NumberRule rule, Reached<Value> member) {
        auto& field =
            field_of(kind_, {.key = key, .label = label, .hint = hint, .type = type, .measure = measure, .rule = rule});
        field.optional = std::is_same_v<Value, std::optional<double>>;
        field.get = [member](const Kit& kit, std::size_t i) { return to_cell(member.of((kit.*list)[i])); };
        field.set = [member](Kit& kit, std::size_t i, const Cell& cell) { from_cell(cell, member.in((kit.*list)[i])); };
        return *this;
    }
    template <typename Choice>
    [[gnu::noinline]] Builder& add_choice(const char* key, const char* label, const char* hint,
                                          const std::vector<const char*>& choices, Reached<Choice> member) {
        auto& field =
            field_of(kind_, {.key = key, .label = label, .hint = hint, .type = FieldType::choice, .choices = choices});
        field.get = [member, choices](const Kit& kit, std::size_t i) {
            return Cell(std::string(choices[static_cast<std::size_t>(member.of((kit.*list)[i]))]));
        };
        field.set = [member, choices](Kit& kit, std::size_t i, const Cell& cell) {
            const auto found = std::ranges::find(choices, std::get<std::string>(cell),
                                                 [](const char* name) { return std::string(name); });
            member.in((kit.*list)[i]) = static_cast<Choice>(found - choices.begin());
        };
        return *this;
    }
    static std::ptrdiff_t at(std::size_t i) { return static_cast<std::ptrdiff_t>(i); }

    GearKind kind_;
};

FieldSpec column(const char* key, const char* label, Measure measure, text::NumberRule rule) {
    return {.key = key, .label = label, .hint = "", .measure = measure, .rule = rule};
}
FieldSpec optional_column(const char* key, const char* label, Measure measure, text::NumberRule rule) {
    auto made = column(key, label, measure, rule);
    made.optional = true;
    return made;
}
FieldSpec pixels_column(const char* key, const char* label) {
    return {.key = key,
            .label = label,
            .hint = "",
            .type = FieldType::whole_number,
            .measure = Measure::pixels,
            .rule = text::range::sensor_pixels};
}
FieldSpec text_column(const char* key, const char* label) {
    return {.key = key, .label = label, .hint = "", .type = FieldType::text};
}

double number(const Cell& cell) { return std::get<double>(cell); }
std::optional<double> number_if_any(const Cell& cell) {
    return std::holds_alternative<double>(cell) ? std::optional(number(cell)) : std::nullopt;
}
Cell cell_of(const std::optional<double>& value) { return to_cell(value); }

const std::vector<const char*> measured_kinds = {"magnification", "displayed-aperture", "sharp-distances"};

std::vector<FieldSpec> correction_columns() {
    return {column("stops", "Stops", Measure::stops, text::range::stops), text_column("time", "When")};
}
light::Correction read_correction(const std::vector<Cell>& row) {
    return {.stops = number(row[0]), .time = std::get<std::string>(row[1])};
}
std::vector<Cell> write_correction(const light::Correction& correction) { return {correction.stops, correction.time}; }

std::optional<GearProblem> check_camera(const Camera& camera);
std::optional<GearProblem> check_lens(const Lens& lens);
std::optional<GearProblem> check_bellows(const Bellows& bellows);
std::optional<GearProblem> check_stand(const Stand& stand);
std::optional<GearProblem> check_flash(const Flash& flash);
std::optional<GearProblem> check_lamp(const Lamp& lamp);

#define MEMBER(path) ([](auto& g) -> auto& { return g.path; })

GearKind cameras() {
    return Builder<Camera, &Kit::cameras>("cameras", "camera", "Cameras", false)
        .number("sensor_width_mm", "Sensor width", Measure::length, text::range::sensor,
                "The long side of the picture area", MEMBER(sensor.width))
        .number("sensor_height_mm", "Sensor height", Measure::length, text::range::sensor, "The short side",
                MEMBER(sensor.height))
        .whole("image_width_px", "Picture width", 1, "Pixels along the long side", MEMBER(sensor.width_px),
               Measure::pixels, text::range::sensor_pixels.greatest)
        .whole("image_height_px", "Picture height", 1, "Pixels along the short side", MEMBER(sensor.height_px),
               Measure::pixels, text::range::sensor_pixels.greatest)
        .number("flange_mm", "Flange distance", Measure::length, text::range::length,
                "From the lens mount's face to the sensor", MEMBER(flange))
        .number("sync_s", "Flash sync", Measure::shutter, text::range::shutter,
                "Fastest shutter time that a flash fills whole", MEMBER(sync))
        .choice("aperture_display", "Shows the stop as", {"marked", "working"},
                "Marked: goes on showing f/2.8 close up. Working: shows what is left of it.", MEMBER(aperture_display))
        .number("frame_mb", "Data of a frame", Measure::megabytes, text::range::megabytes,
                "Size of one file on the card", MEMBER(frame_mb))
        .whole("bracket.max_frames", "Focus bracket", 0, "Most frames that its own focus bracketing takes in one go",
               MEMBER(bracket.max_frames))
        .whole("bracket.composite_max_frames", "Own composite", 0,
               "Most frames that it combines itself; 0 where it combines none", MEMBER(bracket.composite_max_frames))
        .choice("bracket.start", "Bracket starts", {"nearest", "centre"}, "Where its focus bracketing begins",
                MEMBER(bracket.start))
        .choice("bracket.composite_start", "Composite starts", {"nearest", "centre"},
                "Where its own composite begins; about the focus is common", MEMBER(bracket.composite_start))
        .may_be_absent()
        .number("bracket.cadence_s", "Bracket pace", Measure::shutter, text::range::some_seconds,
                "Seconds from frame to frame of its bracket; empty: not known", MEMBER(bracket.cadence))
        .number("bracket.combine_s", "Combines for", Measure::shutter, text::range::seconds,
                "Seconds after a composite in which it takes nothing", MEMBER(bracket.combine))
        .may_be_absent()
        .whole("bracket.step_settings", "Step settings", 0,
               "How many widths of step its bracketing offers, narrow to wide; 0 where it names no numbers",
               MEMBER(bracket.step_settings))
        .may_be_absent()
        .part("bracket", MEMBER(bracket.unknown))
        .number("buffer_frames", "Buffer", Measure::count, text::range::some,
                "Frames it takes at full pace before it waits for the card; empty: never fills", MEMBER(buffer_frames))
        .number("write_mb_s", "Writes", Measure::plain, text::range::some,
                "Megabytes a second, of camera and card together; empty: not known", MEMBER(write_speed))
        .number("card_space_mb", "Card space", Measure::megabytes, text::range::some,
                "Free on the card; empty: not known", MEMBER(card_space))
        .number("frames_per_charge", "Frames a charge", Measure::count, text::range::some,
                "That its battery lasts; empty: not known", MEMBER(charge))
        .number("eye_ev", "Eye needs", Measure::plain, text::range::exposure_value,
                "EV at ISO 100 that you need to focus by eye with f/2.8; 3 by common practice", MEMBER(eye_ev))
        .may_be_absent()
        .number("autofocus_ev", "Autofocus needs", Measure::plain, text::range::exposure_value,
                "EV at ISO 100 down to which it focuses with f/2.8; -2 by common practice", MEMBER(autofocus_ev))
        .may_be_absent()
        .number("autofocus_f_number", "\u2026 up to", Measure::f_number, text::range::f_number,
                "Working f-number, wide open, up to which autofocus works; f/11 by common practice",
                MEMBER(autofocus_f_number))
        .may_be_absent()
        .number("iso_max", "ISO at most", Measure::plain, text::range::iso,
                "Whose noise you still bear, whatever the picture is for; empty: no ceiling of its own",
                MEMBER(iso_max))
        .number("weight_g", "Weighs", Measure::plain, text::range::size, "Grams, with its battery; empty: not known",
                MEMBER(weight))
        .table(
            "crop_modes", "Crop modes", "Parts of the sensor, or coarser pictures, that it can be set to",
            {text_column("name", "Name"), column("sensor_width_mm", "Width", Measure::length, text::range::sensor),
             column("sensor_height_mm", "Height", Measure::length, text::range::sensor),
             pixels_column("image_width_px", "Pixels across"), pixels_column("image_height_px", "Pixels down")},
            true, MEMBER(crop_modes),
            [](const std::vector<Cell>& row) {
                return CropMode{.name = std::get<std::string>(row[0]),
                                .sensor = {.width = number(row[1]),
                                           .height = number(row[2]),
                                           .width_px = static_cast<int>(number(row[3])),
                                           .height_px = static_cast<int>(number(row[4]))}};
            },
            [](const CropMode& mode) {
                return std::vector<Cell>{mode.name, mode.sensor.width, mode.sensor.height,
                                         static_cast<double>(mode.sensor.width_px),
                                         static_cast<double>(mode.sensor.height_px)};
            })
        .table(
            "step_readings", "Steps measured", "How far focus went in brackets of a photographed rule",
            {text_column("lens", "Lens"), column("setting", "Setting", Measure::plain, text::range::some_reading),
             column("f_number", "Stop", Measure::f_number, text::range::f_number),
             column("magnification", "Size", Measure::magnification, text::range::magnification_of_lens),
             column("frames", "Frames", Measure::count, {.least = 2, .greatest = text::range::most}),
             column("travel_mm", "Travel", Measure::length, text::range::size),
             column("ring_step", "Ring", Measure::plain, text::range::part), text_column("time", "When")},
            true, MEMBER(step_readings),
            [](const std::vector<Cell>& row) {
                return StepReading{.lens = std::get<std::string>(row[0]),
                                   .setting = number(row[1]),
                                   .f_number = number(row[2]),
                                   .magnification = number(row[3]),
                                   .frames = number(row[4]),
                                   .travel = number(row[5]),
                                   .ring_step = number(row[6]),
                                   .time = std::get<std::string>(row[7])};
            },
            [](const StepReading& r) {
                return std::vector<Cell>{r.lens,   r.setting, r.f_number,  r.magnification,
                                         r.frames, r.travel,  r.ring_step, r.time};
            })
        .table("metered_corrections", "Automatic", "Stops brighter than an averaging meter would make them",
               correction_columns(), true, MEMBER(metered_corrections), read_correction, write_correction)
        .check(check_camera);
}

GearKind lenses() {
    return Builder<Lens, &Kit::lenses>("lenses", "lens", "Lenses", false)
        .number("focal_length_mm", "Focal length", Measure::length, text::range::focal_length,
                "As engraved, focused at infinity", MEMBER(optics.focal_length))
        .number("max_aperture", "Widest stop", Measure::f_number, text::range::f_number,
                "Smallest f-number on the scale", MEMBER(optics.max_aperture))
        .number("min_aperture", "Smallest stop", Measure::f_number, text::range::f_number,
                "Largest f-number on the scale", MEMBER(optics.min_aperture))
        .number("closest_focus_mm", "Closest focus", Measure::length, text::range::size,
                "From the sensor mark on the body to the subject", MEMBER(optics.closest_focus))
        .number("max_magnification", "Magnification there", Measure::magnification, text::range::magnification_of_lens,
                "Of the bare lens at its closest focus", MEMBER(optics.max_magnification))
        .choice("focusing", "Focusing", {"unit", "internal"},
                "Unit: the whole lens moves out. Internal: the length stays, the focal length shrinks.",
                MEMBER(optics.focusing))
        .number("hiatus_mm", "Hiatus", Measure::length, text::range::offset,
                "Between the principal planes; internal focusing only, 0 if not known", MEMBER(optics.hiatus))
        .may_be_absent()
        .number("pupil_magnification", "Pupil magnification", Measure::plain, text::range::pupil_magnification,
                "Aperture as seen from behind over as seen from the front; below 1 for long lenses, above for wide",
                MEMBER(optics.pupil_magnification))
        .number("length_mm", "Length", Measure::length, text::range::length,
                "Mount face to front rim, focused at infinity", MEMBER(optics.length))
        .number("front_diameter_mm", "Front diameter", Measure::length, text::range::size,
                "Of the barrel or hood at the front", MEMBER(optics.front_diameter))
        .number("filter_thread_mm", "Filter thread", Measure::length, text::range::thread, "0 where there is none",
                MEMBER(filter_thread))
        .number("hood_length_mm", "Hood", Measure::length, text::range::length,
                "How far its hood stands before the front rim; empty: it has none", MEMBER(hood_length))
        .number("closest_working_f_number", "Shown at closest focus", Measure::f_number, text::range::f_number,
                "Working f-number of the widest stop at closest focus; empty if not known",
                MEMBER(optics.closest_working_f_number))
        .number("flange_mm", "Flange of its mount", Measure::length, text::range::length,
                "Only for a lens of another mount than the camera's; empty: the camera's", MEMBER(optics.flange))
        .flag("contacts", "Contacts", "Speaks to the camera", MEMBER(contacts))
        .may_be_absent()
        .flag("autofocus", "Autofocus", "Focuses by motor", MEMBER(autofocus))
        .may_be_absent()
        .flag("aperture_ring", "Aperture ring", "The stop can be set on the lens itself", MEMBER(aperture_ring))
        .may_be_absent()
        .number("focus_limiter_mm", "Focus limiter", Measure::length, text::range::size,
                "Subject to sensor where its switch parts near from far; empty: it has none", MEMBER(limiter))
        .number("weight_g", "Weighs", Measure::plain, text::range::size, "Grams; empty: not known", MEMBER(weight))
        .table(
            "zoom", "Zoom", "Its data at two or more focal lengths, by rising focal length; linear in between",
            {column("focal_length_mm", "Focal", Measure::length, text::range::focal_length),
             column("max_aperture", "Widest", Measure::f_number, text::range::f_number),
             column("closest_focus_mm", "Closest", Measure::length, text::range::size),
             column("max_magnification", "Largest", Measure::magnification, text::range::magnification_of_lens),
             column("length_mm", "Length", Measure::length, text::range::length)},
            true, MEMBER(zoom),
            [](const std::vector<Cell>& row) {
                return ZoomSetting{.focal_length = number(row[0]),
                                   .max_aperture = number(row[1]),
                                   .closest_focus = number(row[2]),
                                   .max_magnification = number(row[3]),
                                   .length = number(row[4])};
            },
            [](const ZoomSetting& z) {
                return std::vector<Cell>{z.focal_length, z.max_aperture, z.closest_focus, z.max_magnification,
                                         z.length};
            })
        .table(
            "calibrations", "Measured", "What was measured, and what the record said before",
            {{.key = "what", .label = "What", .hint = "", .type = FieldType::choice, .choices = measured_kinds},
             column("ring", "Ring", Measure::plain, text::range::part),
             column("value", "Value", Measure::plain, text::range::some_reading),
             column("uncertainty", "\u00b1", Measure::plain, text::range::count),
             optional_column("believed", "Before", Measure::plain, text::range::reading),
             optional_column("second_value", "Second", Measure::plain, text::range::reading),
             optional_column("second_believed", "Before", Measure::plain, text::range::reading),
             optional_column("focal_length_mm", "At", Measure::length, text::range::focal_length),
             text_column("time", "When")},
            true, MEMBER(calibrations),
            [](const std::vector<Cell>& row) {
                const auto kind = std::ranges::find(measured_kinds, std::get<std::string>(row[0]),
                                                    [](const char* name) { return std::string(name); });
                return Calibration{.what = static_cast<Measured>(kind - measured_kinds.begin()),
                                   .ring = number(row[1]),
                                   .value = number(row[2]),
                                   .uncertainty = number(row[3]),
                                   .believed = number_if_any(row[4]),
                                   .second_value = number_if_any(row[5]),
                                   .second_believed = number_if_any(row[6]),
                                   .focal_length = number_if_any(row[7]),
                                   .time = std::get<std::string>(row[8])};
            },
            [](const Calibration& c) {
                return std::vector<Cell>{std::string(measured_kinds[static_cast<std::size_t>(c.what)]),
                                         c.ring,
                                         c.value,
                                         c.uncertainty,
                                         cell_of(c.believed),
                                         cell_of(c.second_value),
                                         cell_of(c.second_believed),
                                         cell_of(c.focal_length),
                                         c.time};
            })
        .check(check_lens);
}

GearKind tubes() {
    return Builder<Tube, &Kit::tubes>("tubes", "tube", "Tubes", false)
        .number("length_mm", "Length", Measure::length, text::range::size, "Mount face to mount face", MEMBER(length))
        .flag("contacts", "Contacts", "Carries the signals of autofocus and aperture", MEMBER(contacts));
}

GearKind closeup_lenses() {
    return Builder<CloseupLens, &Kit::closeup_lenses>("closeup_lenses", "close-up lens", "Close-up lenses", false)
        .number("power_dpt", "Power", Measure::dioptres, text::range::dioptres,
                "Dioptres; +4 works at a quarter of a metre", MEMBER(power_dpt))
        .number("thread_mm", "Thread", Measure::length, text::range::thread, "What it screws into", MEMBER(thread))
        .flag("achromat", "Achromat", "Two elements or more: keeps the corners sharp", MEMBER(achromat))
        .may_be_absent();
}

GearKind teleconverters() {
    return Builder<Teleconverter, &Kit::teleconverters>("teleconverters", "converter", "Converters", false)
        .number("factor", "Factor", Measure::plain, text::range::factor, "Multiplies focal length and f-number",
                MEMBER(optics.factor))
        .number("length_mm", "Length", Measure::length, text::range::length, "What it adds between lens and camera",
                MEMBER(optics.length))
        .flag("contacts", "Contacts", "Carries the signals of autofocus and aperture", MEMBER(contacts))
        .may_be_absent();
}

GearKind bellows() {
    return Builder<Bellows, &Kit::bellows>("bellows", "bellows or helicoid", "Bellows, helicoids", true)
        .number("min_length_mm", "Racked in", Measure::length, text::range::length,
                "Shortest extension, mount to mount", MEMBER(least))
        .number("max_length_mm", "Racked out", Measure::length, text::range::size, "Longest extension",
                MEMBER(greatest))
        .flag("contacts", "Contacts", "Carries the signals of autofocus and aperture", MEMBER(contacts))
        .may_be_absent()
        .check(check_bellows);
}

GearKind reversing_rings() {
    return Builder<ReversingRing, &Kit::reversing_rings>("reversing_rings", "reversing ring", "Reversing rings", true)
        .number("length_mm", "Thickness", Measure::length, text::range::length, "What it adds between lens and camera",
                MEMBER(length))
        .number("thread_mm", "Thread", Measure::length, text::range::size, "Screws into the lens's filter thread",
                MEMBER(thread))
        .flag("contacts", "Contacts", "Leads the signals round to the lens's rear", MEMBER(contacts))
        .may_be_absent();
}

GearKind coupling_rings() {
    return Builder<CouplingRing, &Kit::coupling_rings>("coupling_rings", "coupling ring", "Coupling rings", true)
        .number("length_mm", "Thickness", Measure::length, text::range::length, "Between the two rims", MEMBER(length))
        .number("thread_mm", "Rear thread", Measure::length, text::range::size, "Into the lens on the camera",
                MEMBER(thread))
        .number("front_thread_mm", "Front thread", Measure::length, text::range::size, "Into the reversed lens",
                MEMBER(front_thread));
}

GearKind step_rings() {
    return Builder<StepRing, &Kit::step_rings>("step_rings", "step ring", "Step rings", true)
        .number("from_mm", "From", Measure::length, text::range::size, "Thread of what it is screwed into",
                MEMBER(from))
        .number("to_mm", "To", Measure::length, text::range::size, "Thread it offers in front", MEMBER(to));
}

GearKind rails() {
    return Builder<Rail, &Kit::rails>("rails", "rail", "Rails", true)
        .number("travel_mm", "Travel", Measure::length, text::range::size, "From end to end", MEMBER(travel))
        .number("step_mm", "Least step", Measure::length, text::range::size, "Smallest step that can be set",
                MEMBER(step))
        .number("pitch_mm", "Pitch", Measure::length, text::range::size,
                "What a turn of its screw moves; empty: not known", MEMBER(pitch))
        .number("steps_per_turn", "Steps a turn", Measure::count, text::range::some,
                "Of its motor, microsteps counted; empty: turned by hand", MEMBER(steps_per_turn))
        .number("backlash_mm", "Backlash", Measure::length, text::range::length, "What it loses when it turns round",
                MEMBER(backlash))
        .may_be_absent()
        .number("speed_mm_s", "Speed", Measure::plain, text::range::some_speed, "Millimetres a second", MEMBER(speed))
        .may_be_absent();
}

GearKind stands() {
    return Builder<Stand, &Kit::stands>("stands", "stand", "Stands", true)
        .number("least_height_mm", "Lowest", Measure::length, text::range::length,
                "Floor to the middle of the camera, legs spread and column down", MEMBER(least))
        .number("greatest_height_mm", "Highest", Measure::length, text::range::size,
                "Floor to the middle of the camera, as far up as it still stands firm", MEMBER(greatest))
        .number("arm_mm", "Arm", Measure::length, text::range::length,
                "How far it holds the camera out past its own middle; 0 of a plain tripod", MEMBER(arm))
        .may_be_absent()
        .number("feet_mm", "Feet", Measure::length, text::range::size, "From its middle to the feet, fully open",
                MEMBER(feet))
        .may_be_absent()
        .number("carries_kg", "Carries", Measure::plain, text::range::some,
                "Kilograms, as its maker states; empty: not known", MEMBER(carries))
        .check(check_stand);
}

GearKind flashes() {
    return Builder<Flash, &Kit::flashes>("flashes", "flash", "Flashes", false)
        .number("guide_number_m", "Guide number", Measure::plain, text::range::guide_number,
                "Metres at ISO 100, full power, bare", MEMBER(guide_number))
        .number("min_power", "Least power", Measure::power, text::range::part, "Fraction of full", MEMBER(scale.least))
        .number("power_step_stops", "Power steps", Measure::stops, text::range::stop_steps,
                "From one setting to the next", MEMBER(scale.step))
        .may_be_absent()
        .choice(
            "discharge", "Discharge", {"cut", "decay"},
            "Cut: shorter at less power (most on-camera units). Decay: a tube left to burn out (many studio heads).",
            MEMBER(discharge))
        .number("recycle_full_s", "Recycles in", Measure::shutter, text::range::seconds, "After full power",
                MEMBER(recycle_full))
        .number("burst_store", "Stores", Measure::plain, text::range::some,
                "Full-power flashes held when the ready light comes on: 1; in fast bursts about 0.5 (common practice)",
                MEMBER(burst_store))
        .may_be_absent()
        .number("front_thread_mm", "Hangs on thread", Measure::length, text::range::size,
                "Ring and twin lights only: the filter thread that carries them", MEMBER(front_thread))
        .table(
            "durations", "Flash durations", "t0.5 at some powers, from the maker's table or a measurement",
            {column("power", "Power", Measure::power, text::range::power),
             column("t05_s", "t0.5", Measure::shutter, text::range::flash_duration)},
            false, MEMBER(durations),
            [](const std::vector<Cell>& row) {
                return light::Duration{.power = number(row[0]), .t05 = number(row[1])};
            },
            [](const light::Duration& d) {
                return std::vector<Cell>{d.power, d.t05};
            })
        .choice("durations_mean", "\u2026 they are", {"t0.5", "t0.1", "unknown"},
                "What its table or display means. Unknown: both are shown and the longer one counts",
                MEMBER(durations_mean))
        .may_be_absent()
        .number("kelvin", "Colour", Measure::plain, text::range::kelvin, "Kelvin; 5600 by common practice",
                MEMBER(kelvin))
        .may_be_absent()
        .choice("heads", "Tubes", {"one", "twin", "ring"}, "Twin and ring lights stand on the lens's front",
                MEMBER(heads))
        .may_be_absent()
        .number("spread_mm", "Tubes apart", Measure::length, text::range::size,
                "Of a twin, middle to middle; of a ring, across its tube; empty: at the lens's rim", MEMBER(spread))
        .number("face_mm", "Bare face", Measure::length, text::range::size, "Diameter of a tube's window, bare",
                MEMBER(face))
        .may_be_absent()
        .number("energy_ws", "Energy", Measure::plain, text::range::light, "Watt-seconds at full power", MEMBER(energy))
        .choice("power_shown", "Power shown in", {"fraction", "stops", "watt-seconds"},
                "How the unit states its power: 1/8, three stops under full, 50 Ws", MEMBER(power_shown))
        .may_be_absent()
        .flag("high_speed_sync", "High-speed sync", "Lasts for shutter times faster than sync", MEMBER(high_speed_sync))
        .may_be_absent()
        .number("high_speed_loss_stops", "High speed costs", Measure::stops, text::range::lost_stops,
                "At the sync speed, against one flash at that power; 2 by common practice", MEMBER(high_speed_loss))
        .may_be_absent()
        .number("flashes_per_charge", "Flashes a charge", Measure::plain, text::range::some,
                "At full power, with fresh batteries; empty: fed from the mains", MEMBER(charge))
        .number("flashes_per_minute", "Flashes a minute", Measure::plain, text::range::some,
                "At full power, before it must cool; empty: not known", MEMBER(per_minute))
        .table("corrections", "Test frames", "Stops brighter than the guide number says, one a test frame",
               correction_columns(), true, MEMBER(corrections), read_correction, write_correction)
        .table("metered_corrections", "\u2026 automatic", "Stops brighter than an averaging meter would make them",
               correction_columns(), true, MEMBER(metered_corrections), read_correction, write_correction)
        .check(check_flash);
}

GearKind lamps() {
    return Builder<Lamp, &Kit::lamps>("lamps", "lamp", "Lamps", true)
        .number("lux", "Illuminance", Measure::plain, text::range::light,
                "Lux on its axis at full, bare; empty for a screen", MEMBER(lux))
        .number("lux_distance_mm", "\u2026 measured at", Measure::length, text::range::size, "From its face",
                MEMBER(lux_distance))
        .may_be_absent()
        .number("luminance_cd_m2", "Luminance", Measure::plain, text::range::light,
                "Of a screen, candela a square metre; empty for a lamp", MEMBER(luminance))
        .number("face_mm", "Face", Measure::length, text::range::size, "Diameter of what shines", MEMBER(face))
        .may_be_absent()
        .number("min_power", "Dims to", Measure::power, text::range::part,
                "Fraction of full; 1 where it cannot be dimmed", MEMBER(scale.least))
        .may_be_absent()
        .number("power_step_stops", "Steps", Measure::stops, text::range::stop_steps, "From one setting to the next",
                MEMBER(scale.step))
        .may_be_absent()
        .number("flicker_hz", "Flickers", Measure::plain, text::range::some_frequency,
                "Times a second, twice the mains frequency; empty: steady", MEMBER(flicker))
        .number("flicker_depth", "\u2026 by", Measure::plain, text::range::share, "Swing over the mean, 0 to 1",
                MEMBER(flicker_depth))
        .may_be_absent()
        .number("kelvin", "Colour", Measure::plain, text::range::kelvin,
                "Kelvin: 5600 as daylight, 3200 a halogen lamp (common practice)", MEMBER(kelvin))
        .may_be_absent()
        .flag("hot", "Hot", "Burns what touches it", MEMBER(hot))
        .may_be_absent()
        .flag("mains", "On the mains", "Fed from a socket", MEMBER(mains))
        .may_be_absent()
        .table("corrections", "Test frames", "Stops brighter than the record says, one a test frame",
               correction_columns(), true, MEMBER(corrections), read_correction, write_correction)
        .check(check_lamp);
}

GearKind modifiers() {
    return Builder<Modifier, &Kit::modifiers>("modifiers", "modifier", "Modifiers", false)
        .number("loss_stops", "Takes", Measure::stops, text::range::stops,
                "Light lost in it; negative where it gathers light", MEMBER(loss))
        .number("diameter_mm", "Face", Measure::length, text::range::length, "Diameter of the luminous face",
                MEMBER(diameter))
        .number("grid_deg", "Grid", Measure::plain, text::range::source_angle,
                "Degrees, the full angle where half of the light is left; empty: none", MEMBER(grid))
        .number("layer_loss_stops", "Second layer", Measure::stops, text::range::lost_stops,
                "What another layer of its diffuser takes; 1 by common practice", MEMBER(layer_loss))
        .may_be_absent()
        .table("corrections", "Test frames", "Stops brighter than the record says, one a test frame",
               correction_columns(), true, MEMBER(corrections), read_correction, write_correction);
}

GearKind filters() {
    return Builder<Filter, &Kit::filters>("filters", "filter", "Filters", true)
        .number("thread_mm", "Thread", Measure::length, text::range::size, "What it screws into", MEMBER(thread))
        .number("loss_stops", "Takes", Measure::stops, text::range::lost_stops,
                "Light that it takes; 3 a neutral density of 0.9, 1.5 a polariser (common practice)", MEMBER(loss))
        .flag("polariser", "Polariser", "Takes glare off lacquer, petals and water, not off bare metal",
              MEMBER(polariser))
        .may_be_absent();
}

GearKind cards() {
    return Builder<Card, &Kit::cards>("cards", "card or panel", "Cards, panels", true)
        .number("diameter_mm", "Wide", Measure::length, text::range::size, "Of what sends light on", MEMBER(diameter))
        .number("reflectance", "Sends back", Measure::plain, text::range::reflecting,
                "White card 0.9, silver foil 0.8, grey card 0.18 (common practice); empty: none", MEMBER(reflectance))
        .number("loss_stops", "Lets through", Measure::stops, text::range::lost_stops,
                "Stops that its cloth takes of light through it; 1 by common practice; empty: none gets through",
                MEMBER(loss));
}

GearKind holds() {
    return Builder<Hold, &Kit::holds>("holds", "way of holding", "Ways of holding", true)
        .number("shift_mm_s", "Shift", Measure::plain, text::range::speed,
                "Millimetres a second that it wanders across; 2 is usual (common practice)", MEMBER(shift))
        .number("turn_rad_s", "Turn", Measure::plain, text::range::turning,
                "Radians a second that it turns; 0.03 is usual (common practice)", MEMBER(turn))
        .number("along_mm", "To and fro", Measure::length, text::range::length,
                "How far it sways towards the subject: two frames of three lie within this", MEMBER(along))
        .number("frames", "Measured by", Measure::count, text::range::count, "Frames of a rule; 0: not measured",
                MEMBER(frames))
        .may_be_absent();
}

#undef MEMBER

GearProblem problem(const char* key, double got, const std::string& expected,
                    std::optional<std::size_t> row = std::nullopt) {
    return {.key = key, .row = row, .text = fmt::format("got {}, expected {}", got, expected)};
}

std::optional<GearProblem> check_camera(const Camera& camera) {
    for (std::size_t i = 0; i < camera.crop_modes.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (camera.crop_modes[i].name == camera.crop_modes[j].name)
                return GearProblem{"crop_modes", i,
                                   fmt::format("got \"{}\" twice, expected distinct names", camera.crop_modes[i].name)};
    return std::nullopt;
}

std::optional<GearProblem> check_zoom(const Lens& lens) {
    if (lens.zoom.size() == 1) return GearProblem{"zoom", 0, "got one focal length, expected two or more"};
    for (std::size_t i = 0; i < lens.zoom.size(); ++i) {
        const auto& z = lens.zoom[i];
        if (i > 0 && z.focal_length <= lens.zoom[i - 1].focal_length)
            return problem("zoom", z.focal_length,
                           fmt::format("above {}, the focal length before it", lens.zoom[i - 1].focal_length), i);
        if (lens.optics.min_aperture < z.max_aperture)
            return problem("zoom", z.max_aperture,
                           fmt::format("a widest stop of {} or less, min_aperture", lens.optics.min_aperture), i);
        if (lens.optics.focusing == optics::Focusing::internal && lens.optics.hiatus >= z.closest_focus)
            return problem("zoom", z.closest_focus,
                           fmt::format("a closest focus above hiatus_mm {}", lens.optics.hiatus), i);
    }
    if (lens.zoom.empty()) return std::nullopt;
    const double low = lens.zoom.front().focal_length, high = lens.zoom.back().focal_length;
    if (lens.optics.focal_length < low || lens.optics.focal_length > high)
        return problem("focal_length_mm", lens.optics.focal_length, fmt::format("{} to {}, as in zoom", low, high));
    return std::nullopt;
}

std::optional<GearProblem> check_lens(const Lens& lens) {
    const auto& optics = lens.optics;
    if (optics.min_aperture < optics.max_aperture)
        return problem("min_aperture", optics.min_aperture,
                       fmt::format("{} or more, the largest f-number after max_aperture", optics.max_aperture));
    if (optics.focusing == optics::Focusing::internal && optics.hiatus >= optics.closest_focus)
        return problem("hiatus_mm", optics.hiatus, "less than closest_focus_mm");
    for (std::size_t i = 0; i < lens.calibrations.size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const auto &a = lens.calibrations[i], &b = lens.calibrations[j];
            if (a.what == b.what && a.ring == b.ring && a.focal_length == b.focal_length)
                return problem("calibrations", a.ring, "every ring position once", i);
        }
    return check_zoom(lens);
}

std::optional<GearProblem> check_stand(const Stand& stand) {
    if (stand.greatest < stand.least)
        return problem("greatest_height_mm", stand.greatest, fmt::format("{} or more, least_height_mm", stand.least));
    return std::nullopt;
}

std::optional<GearProblem> check_bellows(const Bellows& bellows) {
    if (bellows.greatest < bellows.least)
        return problem("max_length_mm", bellows.greatest, fmt::format("{} or more, min_length_mm", bellows.least));
    return std::nullopt;
}

std::optional<GearProblem> check_flash(const Flash& flash) {
    for (std::size_t i = 0; i < flash.durations.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (flash.durations[i].power == flash.durations[j].power)
                return problem("durations", flash.durations[i].power, "every power once", i);
    if (flash.power_shown == PowerShown::watt_seconds && !flash.energy)
        return GearProblem{"power_shown", std::nullopt, "got \"watt-seconds\", expected energy_ws beside it"};
    return std::nullopt;
}

std::optional<GearProblem> check_lamp(const Lamp& lamp) {
    if (lamp.lux.has_value() != lamp.luminance.has_value()) return std::nullopt;
    return GearProblem{lamp.lux ? "luminance_cd_m2" : "lux", std::nullopt,
                       lamp.lux ? "got lux as well, expected one of the two"
                                : "got neither lux nor luminance_cd_m2, "
                                  "expected one of the two"};
}

}  // namespace

std::span<const GearKind> gear_kinds() {
    static const std::vector<GearKind> kinds = [] {
        std::vector<GearKind> made;
        for (auto* make : {cameras, lenses, tubes, closeup_lenses, teleconverters, bellows, reversing_rings,
                           coupling_rings, step_rings, rails, stands, flashes, lamps, modifiers, filters, cards, holds})
            made.push_back(make());
        return made;
    }();
    return kinds;
}

const GearKind& gear_kind(std::string_view list) {
    const auto kinds = gear_kinds();
    const auto found = std::ranges::find_if(kinds, [&](const GearKind& kind) { return kind.list == list; });
    assert(found != kinds.end());
    return *found;
}

std::optional<std::size_t> find_index(const GearKind& kind, const Kit& kit, const std::string& id) {
    for (std::size_t i = 0; i < kind.count(kit); ++i)
        if (kind.id(kit, i) == id) return i;
    return std::nullopt;
}

std::optional<std::string> mismatch(const FieldSpec& spec, const Cell& cell) {
    if (std::holds_alternative<std::monostate>(cell)) {
        if (spec.optional && std::holds_alternative<std::monostate>(spec.otherwise)) return std::nullopt;
        return "a value";
    }
    switch (spec.type) {
        case FieldType::number:
        case FieldType::whole_number: {
            const double* number = std::get_if<double>(&cell);
            if (!number) return "a number, " + spec.rule.words();
            if (!spec.rule.allows(*number)) return spec.rule.words();
            if (spec.type == FieldType::whole_number && *number != std::floor(*number)) return "a whole number";
            return std::nullopt;
        }
        case FieldType::flag:
            return std::holds_alternative<bool>(cell) ? std::nullopt : std::optional<std::string>("true or false");
        case FieldType::choice: {
            const auto* text = std::get_if<std::string>(&cell);
            if (text && std::ranges::any_of(spec.choices, [&](const char* choice) { return *text == choice; }))
                return std::nullopt;
            std::string expected;
            for (const char* choice : spec.choices)
                expected += fmt::format("{}\"{}\"", expected.empty() ? "" : " or ", choice);
            return expected;
        }
        case FieldType::text:
            return std::holds_alternative<std::string>(cell) ? std::nullopt : std::optional<std::string>("text");
    }
    return std::nullopt;
}

}  // namespace poquito::gear
