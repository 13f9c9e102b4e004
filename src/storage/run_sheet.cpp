#include "storage/run_sheet.hpp"

#include "day/order.hpp"
#include "plan/lighting.hpp"
#include "search/reach_search.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

namespace poquito::storage {
namespace {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;
using namespace search;
using namespace advice;
using namespace day;

std::string page(const Shoot& shoot, const std::string& body, const SheetStyle& style);
std::string overview(const Shoot& shoot, const std::vector<Assessment>& assessments);
std::string shot_section(const Kit& kit, const Shot& shot, const Assessment& assessment, std::size_t number,
                         bool new_page);

std::string escaped(std::string_view text) {
    std::string out;
    for (const char c : text) {
        switch (c) {
            case '&':
                out += "&amp;";
                break;
            case '<':
                out += "&lt;";
                break;
            case '>':
                out += "&gt;";
                break;
            case '"':
                out += "&quot;";
                break;
            default:
                out += c;
        }
    }
    return out;
}

}  // namespace

std::string run_sheet_html(const Shoot& shoot, const std::vector<Assessment>& assessments, const SheetStyle& style) {
    std::string body = overview(shoot, assessments);
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        body += shot_section(shoot.kit, shoot.shots[i], assessments[i], i + 1, true);
    return page(shoot, body, style);
}

std::string shot_sheet_html(const Shoot& shoot, const std::vector<Assessment>& assessments, std::size_t only,
                            const SheetStyle& style) {
    return page(shoot, shot_section(shoot.kit, shoot.shots[only], assessments[only], only + 1, false), style);
}

namespace {

std::string page(const Shoot& shoot, const std::string& body, const SheetStyle& style) {
    const auto css = fmt::format(
        "body {{ font-family: 'Poquito Sans', Inter, sans-serif; font-size: {}; color: {}; }}\n"
        "h1 {{ font-size: 16pt; margin-top: 0; margin-bottom: 5px; }}\n"
        "h2 {{ font-size: {}; margin-top: 0; margin-bottom: 5px; }}\n"
        ".part {{ font-weight: bold; margin-top: 12px; margin-bottom: 3px; color: {}; }}\n"
        "p {{ margin-top: 2px; margin-bottom: 2px; }}\n"
        "td {{ text-align: left; vertical-align: top; }}\n"
        ".quiet {{ color: {}; }}\n.stop {{ color: {}; }}\n.caution {{ color: {}; }}\n",
        style.text_size, style.ink, style.title_size, style.part, style.quiet, style.stop, style.caution);
    return fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>Run sheet: {0}</title>\n"
        "<style>\n{1}</style>\n</head>\n<body>\n{2}</body>\n</html>\n",
        escaped(shoot.title), css, body);
}

std::string overview(const Shoot& shoot, const std::vector<Assessment>& assessments) {
    double frames = 0, seconds = 0, megabytes = 0;
    std::vector<const Report*> pointers;
    for (const auto& assessment : assessments) pointers.push_back(&assessment.report);
    const auto day = given_day(shoot, pointers);
    std::string rows;
    for (std::size_t i = 0; i < assessments.size(); ++i) {
        const auto& capture = assessments[i].report.capture;
        frames += capture.frames;
        seconds += capture.paced_duration;
        megabytes += capture.data_mb;
        const auto change =
            i > 0 ? "change " + change_text(change_between(shoot.shots[i - 1], shoot.shots[i])) : std::string();
        rows += fmt::format(
            "<tr><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td class=\"quiet\">{}</td></tr>\n",
            i + 1, day_time_text(day.start[i]), escaped(shoot.shots[i].name),
            magnification_text(assessments[i].report.optics.magnification),
            count_text(capture.frames, "frame", "frames"), time_text(capture.paced_duration), change);
    }
    return fmt::format(
        "<h1>{}</h1>\n<p class=\"quiet\">Run sheet: {}, {}, {} of frames, {}; changes {}, over at {}</p>\n"
        "<table cellspacing=\"0\" cellpadding=\"4\">\n{}</table>\n",
        escaped(shoot.title), count_text(static_cast<double>(shoot.shots.size()), "shot", "shots"),
        count_text(frames, "frame", "frames"), time_text(seconds), data_text(megabytes), time_text(day.work),
        day_time_text(day.finish), rows);
}

/// `width` of the first column in pixels: a rich-text printer lays columns out by it.
std::string row(std::string_view name, std::string_view value, int width = 130) {
    return fmt::format("<tr><td class=\"quiet\" width=\"{}\">{}</td><td>{}</td></tr>\n", width, name, escaped(value));
}

constexpr int number_column = 22;

std::string gear_rows(const Kit& kit, const Shot& shot) {
    std::string rows;
    int place = 0;
    for (const auto& name : mounting_order(kit, shot.rig)) rows += row(fmt::format("{}", ++place), name, number_column);
    return rows;
}

std::string settings_rows(const Kit& kit, const Shot& shot, const Report& report) {
    const auto& optics = report.optics;
    const bool working = camera_of(kit, shot).aperture_display == ApertureDisplay::working;
    std::string rows;
    rows += row("Display shows",
                fmt::format("{} ({} value)", f_number_text(optics.displayed_f_number), working ? "working" : "marked"));
    rows += row("Stop", fmt::format("marked {}, working {}, {} stops lost", f_number_text(shot.exposure.f_number),
                                    f_number_text(optics.working_f_number), number_text(optics.exposure_loss, 2)));
    rows += row("Shutter, ISO",
                fmt::format("{}, ISO {}", shutter_text(shot.exposure.shutter), number_text(shot.exposure.iso, 6)));
    rows += row("Focus", fmt::format("{}, ring at {} of its travel, {} of the subject filling",
                                     magnification_text(optics.magnification), number_text(optics.ring),
                                     optics.fill ? fmt::format("{:.0f} %", *optics.fill * 100) : std::string("none")));
    if (shot.ambient) rows += row("Ambient", fmt::format("EV {} at ISO 100", number_text(shot.ambient->ev100)));
    return rows;
}

std::string distance_rows(const Shot& shot, const Report& report) {
    const auto& optics = report.optics;
    const auto text = [](const std::optional<double>& mm) { return mm ? length_text(*mm) : std::string("infinity"); };
    std::string rows;
    rows += row("Front of the lens to subject", text(optics.working_distance));
    rows += row("Subject to sensor", text(optics.subject_to_sensor));
    if (optics.field_width)
        rows += row("Field", fmt::format("{} \u00d7 {} mm", number_text(*optics.field_width),
                                         number_text(*optics.field_height)));
    if (shot.background) rows += row("Background behind subject", length_text(shot.background->distance));
    return rows;
}

std::string light_rows(const Kit& kit, const Shot& shot, const Report& report) {
    std::string rows;
    for (std::size_t i = 0; i < shot.lights.size(); ++i) {
        const Light& light = shot.lights[i];
        const auto& source = report.light.sources[i];
        const plan::Source set = plan::source_of(kit, light);
        const std::string power = !source.suggested_power ? "stays dark"
                                  : light.power           ? setting_text(set, *light.power)
                                                : "automatic, about " + setting_text(set, *source.suggested_power);
        std::string where = fmt::format(
            "{} from the subject, {}\u00b0 to the {}, {}\u00b0 {}", length_text(light.position.distance),
            number_text(std::abs(light.position.azimuth)), light.position.azimuth < 0 ? "left" : "right",
            number_text(std::abs(light.position.elevation)), light.position.elevation < 0 ? "below" : "above");
        if (light.on_lens) where = "on the front of the lens";
        if (light.bounce) where = fmt::format("bounced off a card {}", where);
        if (light.aim != light::Aim{})
            where += fmt::format(", turned {}\u00b0 and tipped {}\u00b0", number_text(light.aim.turn, 3),
                                 number_text(light.aim.tip, 3));
        rows +=
            row(source.label,
                fmt::format("{}, {}: {}; {}", unit_name(set), set.modifier ? set.modifier->name : "bare", power, where),
                number_column);
    }
    return rows;
}

std::string frame_rows(const Shot& shot, const Report& report) {
    const auto& capture = report.capture;
    std::string rows;
    rows += row("Frames", number_text(capture.frames, 9));
    if (capture.frames > 1) {
        const auto& stack = *capture.stack;
        const auto place = [](double plane) {
            return fmt::format("{} {} the nearest point", length_text(std::abs(plane)),
                               plane < 0 ? "in front of" : "behind");
        };
        std::string step = length_text(*capture.step);
        if (stack.rail()) {
            step += " of rail";
            if (stack.rail()->motor)
                step += fmt::format(", {} motor steps", number_text(stack.rail()->units, 6));
            else if (stack.rail()->turns)
                step += fmt::format(", {} turns", number_text(*stack.rail()->turns, 3));
        }
        if (stack.ring())
            step += fmt::format(" at the subject, {:.3g} % of the ring's travel", stack.ring()->ring_step * 100);
        if (stack.bracket() && stack.bracket()->choice)
            step += fmt::format(", step setting {}", number_text(stack.bracket()->choice->setting));
        rows += row("Step", step);
        rows += row("Planes", fmt::format("first {}, last {}", place(stack.first), place(stack.last)));
        if (shot.capture.slice)
            rows +=
                row("Slice", fmt::format("from {} to {} behind the nearest point",
                                         length_text(shot.capture.slice->from), length_text(shot.capture.slice->to)));
        if (stack.hand() && std::isfinite(stack.hand()->bursts))
            rows += row("By hand", fmt::format("{} of {}", count_text(stack.hand()->bursts, "burst", "bursts"),
                                               count_text(stack.hand()->burst_frames, "frame", "frames")));
        if (stack.bracket() && stack.bracket()->passes.size() > 1)
            for (std::size_t i = 0; i < stack.bracket()->passes.size(); ++i)
                rows += row(
                    fmt::format("Pass {}", i + 1),
                    fmt::format("{}, focus {}",
                                count_text(static_cast<double>(stack.bracket()->passes[i].frames), "frame", "frames"),
                                place(stack.bracket()->passes[i].focus)));
        if (stack.rail() && stack.rail()->take_up > 0)
            rows += row("Backlash",
                        fmt::format("go back {} too far, then forwards only", length_text(stack.rail()->take_up)));
    }
    rows += row("Time, data", fmt::format("{}, {}", time_text(capture.paced_duration), data_text(capture.data_mb)));
    return rows;
}

std::string checklist_rows(const Shot& shot, const std::vector<ChecklistItem>& checklist) {
    std::string rows;
    for (const auto& item : checklist)
        rows += row(is_ticked(shot, item.id) ? "[x]" : "[&nbsp;&nbsp;]", item.text, number_column);
    return rows;
}

std::string caution_lines(const std::vector<Note>& notes) {
    std::string lines;
    for (const Note& note : notes) {
        if (note.level == Level::info) continue;
        const bool stop = note.level == Level::stop;
        lines += fmt::format("<p class=\"{}\"><b>{}:</b> {}</p>\n", stop ? "stop" : "caution",
                             note.concern == Concern::safety ? "Safety"
                             : stop                          ? "Stop"
                                                             : "Caution",
                             escaped(note.text));
    }
    return lines;
}

std::string block(std::string_view title, const std::string& rows) {
    if (rows.empty()) return {};
    if (rows.starts_with("<p")) return fmt::format("<p class=\"part\">{}</p>\n{}", title, rows);
    return fmt::format("<p class=\"part\">{}</p>\n<table cellspacing=\"0\" cellpadding=\"2\">\n{}</table>\n", title,
                       rows);
}

std::string shot_section(const Kit& kit, const Shot& shot, const Assessment& assessment, std::size_t number,
                         bool new_page) {
    const auto& [plan, report, advice] = assessment;
    return fmt::format("<h2{}>{}. {}</h2>\n", new_page ? " style=\"page-break-before: always\"" : "", number,
                       escaped(shot.name)) +
           block("Gear, from the camera forwards", gear_rows(kit, shot)) +
           block("Settings", settings_rows(kit, shot, report)) + block("Distances", distance_rows(shot, report)) +
           block("Lights", light_rows(kit, shot, report)) + block("Frames", frame_rows(shot, report)) +
           block("Checklist", checklist_rows(shot, advice.checklist)) + block("Cautions", caution_lines(advice.notes));
}

}  // namespace
}  // namespace poquito::storage
