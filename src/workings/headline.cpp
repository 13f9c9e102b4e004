#include "text/text.hpp"
#include "workings/figures.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

namespace poquito::workings {

using namespace text;

namespace {

std::string of_subject(const plan::Plan& plan, const plan::Report& report) {
    const auto& subject = plan.shot.subject;
    const auto size = fmt::format("{} \u00d7 {} \u00d7 {}", number_text(subject.width, 3),
                                  number_text(subject.height, 3), length_text(subject.depth));
    return report.optics.fill ? fmt::format("{}, fills {:.0f} %", size, *report.optics.fill * 100) : size;
}

std::string of_reach(const plan::Report& report) {
    const auto& optics = report.optics;
    const auto air = optics.working_distance ? length_text(*optics.working_distance) + " air" : "infinity";
    return fmt::format("{}, {}, {}", magnification_text(optics.magnification), air,
                       f_number_text(optics.working_f_number));
}

std::string of_depth(const plan::Plan& plan, const plan::Report& report) {
    const double wanted = plan::wanted_sharp(plan).length();
    const auto& held = report.sharpness.depth_of_field;
    if (!held) return "sharp without end";
    if (report.capture.frames > 1)
        return fmt::format("{} sharp, {} a frame", length_text(wanted),
                           length_text(report.capture.frame_depth.value_or(*held)));
    return *held >= wanted ? fmt::format("all of {} sharp", length_text(wanted))
                           : fmt::format("{} of {} sharp", length_text(*held), length_text(wanted));
}

std::string of_light(const plan::Report& report) {
    if (!report.light.front_total) return "no light yet";
    constexpr double right = 0.05;  // stops: shown as 0.0
    const double total = *report.light.front_total;
    const auto said = std::abs(total) < right ? std::string("exposure right") : "exposure " + stops_text(total);
    return report.light.background ? fmt::format("{}, behind {}", said, stops_text(*report.light.background)) : said;
}

std::string of_run(const advice::Assessment& assessment) {
    const auto& checklist = assessment.advice.checklist;
    const auto ticked = std::ranges::count_if(
        checklist, [&](const auto& item) { return advice::is_ticked(assessment.plan.shot, item.id); });
    return fmt::format("{}, {}; {}/{} ticked", count_text(assessment.report.capture.frames, "frame", "frames"),
                       time_text(assessment.report.capture.paced_duration), ticked, checklist.size());
}

std::string of_proof(const shoot::Shot& shot) {
    if (shot.proof.empty()) return "nothing looked at yet";
    const bool kept = shot.proof.back().verdict == shoot::Verdict::keep;
    return fmt::format("{}, {} looked at", kept ? "kept" : "to be redone",
                       count_text(static_cast<double>(shot.proof.size()), "set", "sets"));
}

}  // namespace

std::string headline(const advice::Assessment& assessment, advice::Station station) {
    switch (station) {
        case advice::Station::subject:
            return of_subject(assessment.plan, assessment.report);
        case advice::Station::reach:
            return of_reach(assessment.report);
        case advice::Station::depth:
            return of_depth(assessment.plan, assessment.report);
        case advice::Station::light:
            return of_light(assessment.report);
        case advice::Station::run:
            return of_run(assessment);
        case advice::Station::proof:
            break;
    }
    return of_proof(assessment.plan.shot);
}

}  // namespace poquito::workings
