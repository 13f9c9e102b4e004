#include "proof/offers.hpp"

#include "imaging/inspect/median.hpp"
#include "plan/assess.hpp"
#include "plan/stack/step_sizes.hpp"
#include "shoot/form/form.hpp"
#include "shoot/shoot.hpp"
#include "text/text.hpp"
#include "whatif/grey_patch.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <utility>

namespace poquito::proof {
namespace {

bool any_finding(const Inspection& inspection, Code code) {
    return std::ranges::any_of(inspection.frames, [&](const FrameFacts& frame) {
        return std::ranges::find(frame.findings, code, &Finding::code) != frame.findings.end();
    });
}

/// When the last of them was taken; empty: they do not say.
std::string time_of(const Inspection& inspection) {
    std::string last;
    for (const auto& frame : inspection.frames) last = std::max(last, frame.exif.time);
    return last;
}

bool known_since(const std::string& taken, const auto& learned) {
    return !taken.empty() && std::ranges::any_of(learned, [&](const auto& one) { return one.time > taken; });
}

void of_light(const Inspection& inspection, const plan::Plan& plan, std::vector<Offer>& to) {
    const gear::Kit& kit = plan.kit;
    const shoot::Shot& shot = plan.shot;
    std::vector<double> over;
    for (const auto& frame : inspection.frames)
        if (frame.over_plan) over.push_back(*frame.over_plan);
    // With another dial or a flash that failed they say nothing of the unit.
    if (over.empty() || any_finding(inspection, Code::settings) || any_finding(inspection, Code::uneven)) return;
    const double stops = imaging::median(over);
    std::vector<double> off;
    off.reserve(over.size());
    for (const double one : over) off.push_back(std::abs(one - stops));
    constexpr double worth_it = 0.2, much = 3, apart = 0.15;  // stops
    if (std::abs(stops) < worth_it || std::abs(stops) > much || imaging::median(off) > apart) return;
    const auto planned = whatif::predicted_stops(plan);
    const auto report = plan::assess(plan);
    const auto& sources = report.light.sources;
    const auto main = std::ranges::max_element(sources, {}, [](const auto& one) { return one.share.value_or(0); });
    constexpr double mostly = 0.6;
    if (!planned || main == sources.end() || main->share.value_or(0) < mostly) return;
    Offer offer{.teaches = Teaches::light, .text = {}, .action = {}, .reading = {}};
    offer.light = static_cast<std::size_t>(main - sources.begin());
    offer.frame_stops = *planned + stops;
    const auto correction = whatif::learned(plan, {.light = offer.light, .frame_stops = offer.frame_stops, .time = {}});
    if (!correction || std::abs(*correction) > much) return;
    const auto& light = shot.lights[offer.light];
    const auto flash = std::ranges::find(kit.flashes, light.flash, &gear::Flash::id);
    const auto lamp = light.lamp ? std::ranges::find(kit.lamps, *light.lamp, &gear::Lamp::id) : kit.lamps.end();
    if (flash == kit.flashes.end() && lamp == kit.lamps.end()) return;
    const auto& corrections = flash != kit.flashes.end() ? flash->corrections : lamp->corrections;
    if (known_since(time_of(inspection), corrections)) return;
    const auto& name = flash != kit.flashes.end() ? flash->name : lamp->name;
    offer.text = fmt::format(
        "The subject came out {:.1f} stops {} than in the plan's picture, and {} gives {:.0f} % of the light. If it is "
        "as "
        "light as you entered it, the unit is {} stops off: remembered, the next plan counts with it. A grey card at "
        "Light is surer.",
        std::abs(stops), stops < 0 ? "darker" : "lighter", name, *main->share * 100, text::stops_text(*correction));
    offer.action = fmt::format("Remember it for {}", name);
    to.push_back(std::move(offer));
}

void of_steps(const Inspection& inspection, const plan::Plan& plan, std::vector<Offer>& to) {
    const shoot::Shot& shot = plan.shot;
    if (!inspection.stack || !inspection.stack->look.planes || inspection.planes.size() != inspection.frames.size())
        return;
    const auto& stack = *inspection.stack;
    constexpr std::size_t enough = 6;  // frames
    const double step = inspection.step();
    if (stack.frames.size() < enough || !(step > 0) || !stack.moved.empty()) return;
    const auto report = plan::assess(plan);
    const auto* scan = inspection.frames[stack.frames.front()].scan.get();
    // A disc of that many pixels is spread over so many steps: what a step is follows from the optics.
    const double pixel = plan.sensor.width / scan->width;
    const double working = report.optics.working_f_number, m = plan.at.magnification;
    const double cutoff = pixel / (shot.sharpness.wavelength * working);
    const double disc = imaging::disc_at_width(stack.look.planes->detail, cutoff) * pixel;
    const double seen = disc * working / (m * m * stack.look.planes->width);
    // Textures differ by half as much: less than this is not told by them.
    constexpr double told = 1.7, absurd = 8;
    const double ratio = seen / step;
    if (!report.capture.stack || report.capture.stack->hand()) return;
    if (std::max(ratio, 1 / ratio) < told || std::max(ratio, 1 / ratio) > absurd) return;
    Offer offer{.teaches = Teaches::steps, .text = {}, .action = {}, .reading = {}};
    const auto words = fmt::format("By how soon sharpness comes and goes, the steps were about {}; {} is planned",
                                   text::length_text(seen), text::length_text(step));
    const auto* bracket = report.capture.stack->bracket();
    if (!bracket) {
        offer.text = words + (ratio > 1 ? ": has the rail another pitch, or does it not stop where it should?"
                                        : ": does the rail slip or stick?");
        if (const auto depth = report.capture.frame_depth)
            offer.text += fmt::format(" If the rail is right, one frame is sharp over about {}, not {}.",
                                      text::length_text(*depth / ratio), text::length_text(*depth));
        offer.text += " A leaning rule, photographed (Run, Step sizes), tells.";
        to.push_back(std::move(offer));
        return;
    }
    const auto& readings = plan.camera.step_readings;
    const auto frames = static_cast<double>(stack.frames.size());
    const auto ring = plan::ring_step_of(plan.train, plan.at.ring, seen * (frames - 1), frames);
    if (known_since(time_of(inspection), readings)) return;
    offer.text = words + ". Detail tells it to a third only; a photographed rule (Run, Step sizes) is surer.";
    if (bracket->choice && ring && *ring > 0 && *ring < 1) {
        offer.reading = {.lens = shot.rig.lens,
                         .setting = bracket->choice->setting,
                         .f_number = shot.exposure.f_number,
                         .magnification = m,
                         .frames = frames,
                         .travel = seen * (frames - 1),
                         .ring_step = *ring,
                         .time = {}};
        offer.action = fmt::format("Remember it for setting {:g} of {}", bracket->choice->setting, plan.camera.name);
    }
    to.push_back(std::move(offer));
}

/// The subject's own depth that presents so many times the depth to the camera, as it leans.
double depth_presenting(const shoot::Subject& subject, double times) {
    const double wanted = shoot::presented_extent(subject).depth * times;
    auto trial = subject;
    double least = 0, most = subject.depth * std::max(2 * times, 4.0);
    for (int i = 0; i < 40; ++i) {
        trial.depth = (least + most) / 2;
        (shoot::presented_extent(trial).depth < wanted ? least : most) = trial.depth;
    }
    return trial.depth;
}

void of_depth(const Inspection& inspection, const plan::Plan& plan, std::vector<Offer>& to) {
    const shoot::Shot& shot = plan.shot;
    if (!inspection.stack || !inspection.stack->seen_depth || shot.capture.slice || !(shot.subject.depth > 0)) return;
    const auto& stack = *inspection.stack;
    // An end that is open says nothing of what lies beyond.
    if (stack.first_end_open || stack.last_end_open || !stack.gaps.empty() || !stack.moved.empty()) return;
    const double seen = *stack.seen_depth, planned = *stack.planned_depth, step = inspection.step();
    // Deeper than planned it would have left an end open; what seems so is ground that shows beside it.
    constexpr double worth_it = 0.8, absurd = 0.25, steps = 2;
    if (!(planned > 0) || !(step > 0)) return;
    const double times = seen / planned;
    if (times > worth_it || times < absurd || planned - seen < steps * step) return;
    // Written as it would be measured, with room for what the planes of small pictures are off by: short by as much,
    // the next stack would leave an end open.
    constexpr double to_spare = 1.1;
    Offer offer{.teaches = Teaches::depth, .text = {}, .action = {}, .reading = {}};
    const double depth = depth_presenting(shot.subject, times * to_spare);
    const double digit = depth < 10 ? 0.1 : 1;
    offer.depth = std::max(digit, std::round(depth / digit) * digit);
    auto other = shot;
    other.subject.depth = offer.depth;
    const auto frames = [&](const shoot::Shot& of) {
        return static_cast<long>(plan::assess(plan::plan_of(plan, of)).capture.frames);
    };
    const long before = frames(shot), after = frames(other);
    offer.text = fmt::format(
        "Its detail lies over {} of depth, where the plan has {}. With a tenth to spare it is {} deep, not {}{}.",
        text::length_text(seen), text::length_text(planned), text::length_text(offer.depth),
        text::length_text(shot.subject.depth),
        after < before ? fmt::format(": the next stack of it takes {} frames, not {}", after, before) : "");
    offer.action = fmt::format("Set its depth to {}", text::length_text(offer.depth));
    to.push_back(std::move(offer));
}

/// How much less fine than the sharpest of them the detail of a frame may be that is still within the blur limit, which
/// is so many pixels of the file: what a line of that length takes of the finest detail, and never less than good
/// frames of one thing differ by (both tried on rendered frames).
double fineness_to_spare(double limit) {
    constexpr double frequency = 0.12;  // of the finest detail that is looked at, cycles a pixel
    constexpr double alike = 0.08, most = 0.9;
    const double taken = std::pow(std::numbers::pi * frequency * limit, 2) / 4;
    return std::clamp(taken, alike, most);
}

bool is_sharp(const FrameFacts& frame, double best, double spare) {
    const bool stopped = std::ranges::any_of(frame.findings, [](const Finding& one) {
        return one.level == Level::stop || one.code == Code::blurred || one.code == Code::shaken;
    });
    return !stopped && frame.sharp_at_focus && *frame.sharp_at_focus >= best - spare;
}

/// Single frames of what is left to chance, those that no look has counted: sharp where they have to be, or not.
void of_odds(const Inspection& inspection, const plan::Plan& plan, std::vector<Offer>& to) {
    const shoot::Shot& shot = plan.shot;
    if (inspection.stack || shot.capture.mode != shoot::CaptureMode::single) return;
    if (!plan::assess(plan).chance) return;
    double best = -std::numeric_limits<double>::infinity(), limit = std::numeric_limits<double>::infinity();
    for (const auto& frame : inspection.frames) {
        if (frame.scan && frame.scan->width > 0)
            limit = std::min(limit, plan::blur_limit(plan) * frame.scan->width / plan.sensor.width);
        if (frame.sharp_at_focus) best = std::max(best, *frame.sharp_at_focus);
    }
    const auto& until = shoot::tries_of(shot).counted_until;
    Offer offer{.teaches = Teaches::odds, .text = {}, .action = {}, .reading = {}};
    for (const auto& frame : inspection.frames) {
        // One without a time could be counted twice.
        if (!frame.scan || frame.exif.time.empty() || frame.exif.time <= until) continue;
        ++offer.tried;
        offer.kept += is_sharp(frame, best, fineness_to_spare(limit));
        offer.until = std::max(offer.until, frame.exif.time);
    }
    constexpr double told = 0.9;  // pixels: of less the files show nothing
    constexpr int enough = 3;     // one alone is always the sharpest
    if (offer.tried == 0) return;
    if (limit < told) {
        offer.text = fmt::format(
            "{} too few pixels to show a blur of {}: look yourself, and count at Run with K (keep) and M (miss).",
            text::count_text(offer.tried, "new frame has", "new frames have"),
            text::length_text(plan::blur_limit(plan)));
        offer.tried = 0;
        return to.push_back(std::move(offer));
    }
    if (static_cast<int>(inspection.frames.size()) < enough) return;
    offer.text =
        fmt::format("{} of {} new frames {} as sharp as {} to be. Counted, they tell the chance of the tries to come.",
                    offer.kept, offer.tried, offer.kept == 1 ? "is" : "are", offer.kept == 1 ? "it has" : "they have");
    offer.action = fmt::format("Count {} kept of {}", offer.kept, offer.tried);
    to.push_back(std::move(offer));
}

}  // namespace

std::vector<Offer> offers_of(const Inspection& inspection, const plan::Plan& plan) {
    std::vector<Offer> offers;
    of_light(inspection, plan, offers);
    of_steps(inspection, plan, offers);
    // Where the steps are doubted, so is what is counted in them.
    if (std::ranges::find(offers, Teaches::steps, &Offer::teaches) == offers.end()) of_depth(inspection, plan, offers);
    of_odds(inspection, plan, offers);
    return offers;
}

void learn(shoot::Shoot& shoot, const std::string& id, const Offer& offer, const std::string& time) {
    const auto found = std::ranges::find(std::as_const(shoot.shots), id, &shoot::Shot::id);
    if (found == std::as_const(shoot.shots).end()) return;
    const auto& shot = *found;
    switch (offer.teaches) {
        case Teaches::light:
            shoot.kit = whatif::taught(plan::plan_of(shoot.kit, shot, shoot::terms_of(shoot, shot)),
                                       {.light = offer.light, .frame_stops = offer.frame_stops, .time = time});
            return;
        case Teaches::steps: {
            const auto camera = std::ranges::find(shoot.kit.cameras, shot.rig.camera, &gear::Camera::id);
            if (camera == shoot.kit.cameras.end() || !(offer.reading.ring_step > 0)) return;
            camera->step_readings.push_back(offer.reading);
            camera->step_readings.back().time = time;
            camera->bracket.step_settings = std::max(camera->bracket.step_settings, plan::usual_step_settings);
            return;
        }
        case Teaches::depth:
            shoot.shots[static_cast<std::size_t>(found - std::as_const(shoot.shots).begin())].subject.depth =
                offer.depth;
            return;
        case Teaches::odds: {
            if (offer.tried == 0) return;
            auto& changed = shoot.shots[static_cast<std::size_t>(found - std::as_const(shoot.shots).begin())];
            auto& tries = shoot::own_tries(changed);
            tries.kept += offer.kept;
            tries.tried += offer.tried;
            tries.counted_until = offer.until;
            return;
        }
    }
}

}  // namespace poquito::proof
