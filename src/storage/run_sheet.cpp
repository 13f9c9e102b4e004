#include "storage/run_sheet.hpp"

#include "day/order.hpp"
#include "job/packing.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/lapse.hpp"
#include "search/reach_search.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <utility>

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
std::string packing_list(const Shoot& shoot, const std::vector<Assessment>& assessments);
std::string shot_section(const Shoot& shoot, const std::vector<Assessment>& assessments, std::size_t index,
                         const SheetDrawings& drawings);

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

std::string run_sheet_html(const Shoot& shoot, const std::vector<Assessment>& assessments, const SheetStyle& style,
                           const SheetDrawings& drawings) {
    std::string body = overview(shoot, assessments) + packing_list(shoot, assessments);
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) body += shot_section(shoot, assessments, i, drawings);
    return page(shoot, body, style);
}

std::string day_sheet_html(const Shoot& shoot, const std::vector<Assessment>& assessments, const SheetStyle& style) {
    return page(shoot, overview(shoot, assessments) + packing_list(shoot, assessments), style);
}

std::string shot_sheet_html(const Shoot& shoot, const std::vector<Assessment>& assessments, std::size_t only,
                            const SheetStyle& style, const SheetDrawings& drawings) {
    return page(shoot, shot_section(shoot, assessments, only, drawings), style);
}

namespace {

std::string page(const Shoot& shoot, const std::string& body, const SheetStyle& style) {
    auto css = fmt::format(
        "body {{ font-family: 'Poquito Sans', Inter, sans-serif; font-size: {}; color: {}; }}\n"
        "h1 {{ font-size: 16pt; margin-top: 0; margin-bottom: 5px; }}\n"
        "h2 {{ font-size: {}; margin-top: 0; margin-bottom: 3px; }}\n"
        ".set {{ font-size: {}; font-weight: bold; margin-top: 2px; margin-bottom: 2px; }}\n"
        ".part {{ font-weight: bold; margin-top: 9px; margin-bottom: 2px; color: {}; }}\n"
        "p {{ margin-top: 2px; margin-bottom: 2px; }}\n"
        "td {{ text-align: left; vertical-align: top; }}\n"
        ".quiet {{ color: {}; }}\n.stop {{ color: {}; }}\n.caution {{ color: {}; }}\n",
        style.text_size, style.ink, style.title_size, style.setting_size, style.part, style.quiet, style.stop,
        style.caution);
    if (style.narrow_screens)
        css +=
            "img { max-width: 100%; height: auto; }\nh2 { margin-top: 1.6em; }\n"
            "@media (max-width: 640px) { .half, .half > tbody, .half > tbody > tr, .half > tbody > tr > td "
            "{ display: block; width: 100%; } }\n"
            "@media print { h2 { page-break-before: always; } }\n";
    return fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
        "<meta name=\"viewport\" content=\"width=device-width\">\n<title>Run sheet: {0}</title>\n"
        "<style>\n{1}</style>\n</head>\n<body>\n{2}</body>\n</html>\n",
        escaped(shoot.title), css, body);
}

std::string columns(const std::vector<std::string>& cells) {
    std::string row;
    for (const auto& cell : cells) row += fmt::format("<td width=\"{}%\">{}</td>", 100 / cells.size(), cell);
    return fmt::format("<table class=\"half\" width=\"100%\"><tr>{}</tr></table>\n", row);
}

/// Case by case, what has none yet kind by kind; each with a box, ticked where it is in.
std::string packing_list(const Shoot& shoot, const std::vector<Assessment>& assessments) {
    job::AllAssessed all;
    for (const auto& assessment : assessments) all.push_back({&assessment.plan, &assessment.report});
    std::vector<std::pair<std::string, std::string>> parts;  // heading and rows
    for (const auto& line : job::packing_list(shoot, all)) {
        const std::string heading = line.container.empty() ? job::pack_kind_name(line.kind) : line.container;
        auto part = std::ranges::find(parts, heading, &std::pair<std::string, std::string>::first);
        if (part == parts.end()) part = parts.insert(parts.end(), {heading, {}});
        part->second +=
            fmt::format("<tr><td width=\"24\">[{}]</td><td>{}{}</td></tr>\n", line.going ? "x" : "&nbsp;&nbsp;",
                        line.count > 1 ? fmt::format("{} \u00d7 ", line.count) : std::string(), escaped(line.name));
    }
    // Columns of about as many lines.
    constexpr std::ptrdiff_t across = 3;
    const auto rows = [](const std::string& text) { return 2 + std::ranges::count(text, '\n'); };
    std::ptrdiff_t all_rows = 0, so_far = 0;
    for (const auto& part : parts) all_rows += rows(part.second);
    std::vector<std::string> thirds(across);
    for (const auto& [heading, lines] : parts) {
        thirds[static_cast<std::size_t>(
            std::min(across - 1, across * so_far / std::max<std::ptrdiff_t>(1, all_rows)))] +=
            fmt::format("<p class=\"part\">{}</p>\n<table cellspacing=\"0\" cellpadding=\"1\">\n{}</table>\n",
                        escaped(heading), lines);
        so_far += rows(lines);
    }
    return "<h2 style=\"margin-top: 14px\">To pack</h2>\n" + columns(thirds);
}

std::string overview(const Shoot& shoot, const std::vector<Assessment>& assessments) {
    double frames = 0, seconds = 0, megabytes = 0;
    std::vector<const Report*> pointers;
    pointers.reserve(assessments.size());
    for (const auto& assessment : assessments) pointers.push_back(&assessment.report);
    const auto day = given_day(shoot, pointers);
    std::string rows;
    for (std::size_t i = 0; i < assessments.size(); ++i) {
        const auto& capture = assessments[i].report.capture;
        const auto yield = plan::yield_of(assessments[i].plan, assessments[i].report);
        frames += yield.frames;
        seconds += capture.paced_duration;
        megabytes += yield.data_mb;
        const auto change =
            i > 0 ? "change " + change_text(change_between(shoot.shots[i - 1], shoot.shots[i])) : std::string();
        rows += fmt::format(
            "<tr><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td class=\"quiet\">{}</td></tr>\n",
            i + 1, day_time_text(day.start[i]), escaped(shoot.shots[i].name),
            magnification_text(assessments[i].report.optics.magnification), count_text(yield.frames, "frame", "frames"),
            time_text(yield.runs_on > 0 ? yield.runs_on : capture.paced_duration), change);
    }
    return fmt::format(
        "<h1>{}</h1>\n<p class=\"quiet\">Run sheet: {}, {}, {} of frames, {}; changes {}, over at {}</p>\n"
        "<table cellspacing=\"0\" cellpadding=\"4\">\n{}</table>\n",
        escaped(shoot.title), count_text(static_cast<double>(shoot.shots.size()), "shot", "shots"),
        count_text(frames, "frame", "frames"), time_text(seconds), data_text(megabytes), time_text(day.work),
        day_time_text(day.finish), rows);
}

/// `width` of the first column in pixels: a rich-text printer lays columns out by it.
std::string row(std::string_view name, std::string_view value, int width = 100) {
    return fmt::format("<tr><td class=\"quiet\" width=\"{}\">{}</td><td>{}</td></tr>\n", width, name, escaped(value));
}

constexpr int number_column = 30;

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
    rows += row("Focus", fmt::format("{}, ring at {} of its travel{}", magnification_text(optics.magnification),
                                     number_text(optics.ring),
                                     optics.fill ? fmt::format("; the subject fills {:.0f} %", *optics.fill * 100)
                                                 : std::string()));
    if (const auto& other = shot.other_light)
        rows += row(shot.ambient && other->ev100 > shot.ambient->ev100 ? "In sun" : "In cloud",
                    fmt::format("EV {}: {}", number_text(other->ev100, 3),
                                exposure_text(other->exposure.f_number, other->exposure.shutter, other->exposure.iso)));
    rows += row("White", fmt::format("{} K", number_text(report.light.white, 3)));
    if (shot.ambient) rows += row("Ambient", fmt::format("EV {} at ISO 100", number_text(shot.ambient->ev100)));
    return rows;
}

std::string distance_rows(const Shot& shot, const Report& report) {
    const auto& optics = report.optics;
    const auto text = [](const std::optional<double>& mm) { return mm ? length_text(*mm) : std::string("infinity"); };
    std::string rows;
    rows += row("Lens front to subject", text(optics.working_distance));
    rows += row("Subject to sensor", text(optics.subject_to_sensor));
    if (optics.field_width)
        rows += row("Field", fmt::format("{} \u00d7 {} mm", number_text(*optics.field_width),
                                         number_text(*optics.field_height)));
    if (shot.background) rows += row("Card behind", length_text(shot.background->distance));
    return rows;
}

std::string light_rows(const Kit& kit, const Shot& shot, const Report& report) {
    std::string rows;
    for (std::size_t i = 0; i < shot.lights.size(); ++i) {
        const Light& light = shot.lights[i];
        const auto& source = report.light.sources[i];
        const plan::Source set = plan::source_of(kit, light);
        const std::string power = set.is_reflector()
                                      ? fmt::format("{} wide, sends back {} %", length_text(light.reflector->diameter),
                                                    number_text(light.reflector->reflectance * 100, 3))
                                  : source.aimless          ? "needs stops of its own"
                                  : !source.suggested_power ? "stays dark"
                                  : light.power             ? setting_text(set, *light.power)
                                                : "automatic, about " + setting_text(set, *source.suggested_power);
        std::string where = fmt::format(
            "{} from the subject, {}\u00b0 to the {}, {}\u00b0 {}", length_text(light.position.distance),
            number_text(std::abs(light.position.azimuth)), light.position.azimuth < 0 ? "left" : "right",
            number_text(std::abs(light.position.elevation)), light.position.elevation < 0 ? "below" : "above");
        if (light.on_lens) where = "on the front of the lens";
        if (light.bounce) where = fmt::format("bounced off a card {}", where);
        if (light.gel != 0) where += fmt::format(", gel of {} mired", number_text(light.gel, 4));
        if (light.aim != light::Aim{})
            where += fmt::format(", turned {}\u00b0 and tipped {}\u00b0", number_text(light.aim.turn, 3),
                                 number_text(light.aim.tip, 3));
        rows += row(source.label,
                    set.is_reflector() ? fmt::format("{}: {}; {}", unit_name(set), power, where)
                                       : fmt::format("{}, {}: {}; {}", unit_name(set),
                                                     set.modifier ? set.modifier->name : "bare", power, where),
                    number_column);
    }
    return rows;
}

std::string frame_rows(const Plan& plan, const Report& report) {
    const Shot& shot = plan.shot;
    const auto& capture = report.capture;
    std::string rows;
    if (const auto& lapse = shot.lapse) {
        const auto yield = plan::yield_of(plan, report);
        rows += row("Again and again",
                    fmt::format("every {} for {}: {}, {}", time_text(lapse->interval), time_text(lapse->length),
                                count_text(yield.frames, "frame", "frames"), data_text(yield.data_mb)));
        if (lapse->follows && lapse->drift != 0)
            rows += row("Exposure follows",
                        fmt::format("{} stops each time", stops_text(-lapse->drift * lapse->interval / 3600)));
        rows += row("Lamps", lapse->lamps_rest ? "off between" : "left on");
    }
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

/// Of that station, or, where it is not stated, those about safety.
std::string caution_lines(const std::vector<Note>& notes, std::initializer_list<Station> stations,
                          bool safety = false) {
    std::string lines;
    for (const Note& note : notes) {
        if (note.level == Level::info || (note.concern == Concern::safety) != safety) continue;
        if (!safety && std::ranges::find(stations, note.station) == stations.end()) continue;
        const bool stop = note.level == Level::stop;
        lines += fmt::format("<p class=\"{}\"><b>{}:</b> {}</p>\n", stop ? "stop" : "caution",
                             safety ? "Safety"
                             : stop ? "Stop"
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

/// In three columns, each to be read down.
std::string checklist_block(const Shot& shot, const std::vector<ChecklistItem>& checklist) {
    constexpr std::size_t across = 3;
    const std::size_t each = (checklist.size() + across - 1) / across;
    std::vector<std::string> cells;
    for (std::size_t from = 0; from < checklist.size(); from += each) {
        const auto begin = checklist.begin() + static_cast<std::ptrdiff_t>(from);
        const auto end = checklist.begin() + static_cast<std::ptrdiff_t>(std::min(from + each, checklist.size()));
        cells.push_back(fmt::format("<table cellspacing=\"0\" cellpadding=\"1\">\n{}</table>",
                                    checklist_rows(shot, std::vector<ChecklistItem>(begin, end))));
    }
    return cells.empty() ? std::string() : "<p class=\"part\">Checklist</p>\n" + columns(cells);
}

std::string shot_section(const Shoot& shoot, const std::vector<Assessment>& assessments, std::size_t index,
                         const SheetDrawings& drawings) {
    const auto& [plan, report, advice] = assessments[index];
    const Shot& shot = shoot.shots[index];
    const Kit& kit = shoot.kit;
    std::vector<const Report*> reports;
    reports.reserve(assessments.size());
    for (const auto& assessment : assessments) reports.push_back(&assessment.report);
    const auto day = given_day(shoot, reports);
    std::string html =
        fmt::format("<h2>{} &nbsp; {}. {}</h2>\n", day_time_text(day.start[index]), index + 1, escaped(shot.name));
    const auto& exposure = shot.exposure;
    const auto& air = report.optics.working_distance;
    html += fmt::format("<p class=\"set\">{}</p>\n<p class=\"quiet\">{}; {}; {}; done about {}</p>\n",
                        exposure_text(report.optics.displayed_f_number, exposure.shutter, exposure.iso),
                        magnification_text(report.optics.magnification),
                        air ? length_text(*air) + " of air" : std::string("infinity"),
                        count_text(plan::yield_of(assessments[index].plan, report).frames, "frame", "frames"),
                        day_time_text(day.start[index] + report.capture.paced_duration));
    html += caution_lines(advice.notes, {}, true) + caution_lines(advice.notes, {Station::subject});
    const auto drawn = [&](const auto& draw) { return draw ? draw(index) : std::string(); };
    if (const auto bench = drawn(drawings.bench), frame = drawn(drawings.frame); !bench.empty() || !frame.empty())
        html +=
            fmt::format("<table class=\"half\" width=\"100%\"><tr><td width=\"66%\">{}</td><td>{}</td></tr></table>\n",
                        bench, frame);
    html += columns({block("Gear, from the camera forwards", gear_rows(kit, shot)) +
                         block("Settings", settings_rows(kit, shot, report)),
                     block("Distances", distance_rows(shot, report)) + caution_lines(advice.notes, {Station::reach}) +
                         block("Lights", light_rows(kit, shot, report)) + caution_lines(advice.notes, {Station::light}),
                     block("Frames", frame_rows(assessments[index].plan, report)) +
                         caution_lines(advice.notes, {Station::depth, Station::run, Station::proof})});
    return html + checklist_block(shot, advice.checklist);
}

}  // namespace
}  // namespace poquito::storage
