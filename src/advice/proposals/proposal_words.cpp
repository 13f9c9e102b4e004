#include "proposal_words.hpp"

#include "plan/plan.hpp"
#include "shoot/names.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::advice {
namespace {

constexpr double unnoticed = 0.9;  // kept

std::string percent(double share) { return fmt::format("{:.0f} %", share * 100); }

/// What a quality gives up, as a thing one gives up: "clean shadows (ISO 3200)".
std::string loss_words(const Proposal& made, Quality quality) {
    const auto& report = made.report;
    const double x = made.worth.part(quality).measure;
    const auto stops = [&] { return text::number_text(x, 2); };
    switch (quality) {
        case Quality::sharp: {
            const auto& sharp = report.sharpness;
            const double airy = sharp.airy_diameter / sharp.blur_limit;
            const double wanted = sharp.zone.value_or(report.extent.depth / 2);
            const double held = report.capture.frames > 1 ? wanted : sharp.depth_of_field.value_or(wanted);
            if (held >= wanted || airy * held > wanted)
                return fmt::format("finest detail (diffraction {} times the blur limit)", text::number_text(airy, 2));
            return fmt::format("depth ({} of {} sharp)", text::length_text(held), text::length_text(wanted));
        }
        case Quality::noise:
            return fmt::format("clean shadows (ISO {})", text::number_text(made.shot.exposure.iso, 6));
        case Quality::odds:
            return fmt::format("certainty ({} to have one in {})", percent(x),
                               text::time_text(made.worth.patience * 60));
        case Quality::time:
            return fmt::format("time ({})", text::time_text(std::round(made.worth.minutes * 60)));
        case Quality::exposure:
            return fmt::format("light ({} stops from right)", stops());
        case Quality::highlights:
            return fmt::format("detail in what is brightest ({} stops clipped)", stops());
        case Quality::ghost:
            return "a single outline (what is there draws beside the flash)";
        case Quality::sync:
            return fmt::format("{} stops of flash to high-speed sync", stops());
        case Quality::softness:
            return fmt::format("softness behind ({} stops short)", stops());
        case Quality::ground:
            return shoot::tones_of(made.wishes.ground)
                       ? fmt::format("the {} ground ({} stops from it)", shoot::name_of(made.wishes.ground), stops())
                       : fmt::format("daylight behind ({} stops darker than day looks)", stops());
        case Quality::contrast:
            return fmt::format("open shadows ({} stops too hard)", stops());
        case Quality::bloom:
            return "clean edges (a stack so wide draws halos)";
        case Quality::colour:
            return fmt::format("one white (lights {} mired apart)", text::number_text(x, 2));
        case Quality::lit:
            return fmt::format("the light that is wished ({} is other light)", percent(x));
        case Quality::movement:
            return fmt::format("drawn movement ({} stops too short)", stops());
        case Quality::possible:
            break;
    }
    return "everything: it cannot be taken so";
}

/// Dearest first.
std::vector<const WorthPart*> lost_parts(const Worth& worth, double below) {
    std::vector<const WorthPart*> lost;
    for (const auto& part : worth.parts)
        if (part.kept < below) lost.push_back(&part);
    std::ranges::stable_sort(lost, {}, [](const WorthPart* part) { return part->factor(); });
    return lost;
}

constexpr std::pair<const char*, const char*> limit_words[] = {{"iso_max", "ISO"},
                                                               {"shutter_by_hand_max_s", "the time by hand"},
                                                               {"f_number_max", "the stop"},
                                                               {"frames_max", "frames"},
                                                               {"minutes_max", "time"}};

constexpr std::size_t most_told = 3;  // of what is lost, in one sentence

/// Where two plans differ most, seen from the first.
Quality widest_gap(const Worth& one, const Worth& other) {
    Quality widest = Quality::sharp;
    double most = -1;
    constexpr double nearly_none = 1e-6;
    for (std::size_t i = 0; i < one.parts.size(); ++i) {
        const double gap =
            std::log(std::max(one.parts[i].factor(), nearly_none) / std::max(other.parts[i].factor(), nearly_none));
        if (gap > most) most = gap, widest = one.parts[i].quality;
    }
    return widest;
}

}  // namespace

std::vector<GivenUp> given_up(const Proposal& made) {
    std::vector<GivenUp> list;
    for (const auto* part : lost_parts(made.worth, unnoticed))
        list.push_back({row_of(part->quality).id, part->measure, row_of(part->quality).unit});
    const auto pass = [&](const char* what, double by, const char* unit) {
        if (by > 0) list.push_back({what, by, unit});
    };
    pass("iso_max", made.excess.iso, "stops");
    pass("shutter_by_hand_max_s", made.excess.shutter_by_hand, "stops");
    pass("f_number_max", made.excess.f_number, "stops");
    pass("frames_max", made.excess.frames, "frames");
    pass("minutes_max", made.excess.minutes, "min");
    return list;
}

std::string sentence_of(const Proposal& made) {
    std::vector<std::string> words;
    for (const auto* part : lost_parts(made.worth, unnoticed))
        if (words.size() < most_told) words.push_back(loss_words(made, part->quality));
    std::string text = words.empty() ? "Gives up nothing." : fmt::format("Gives up {}.", fmt::join(words, ", "));
    std::vector<std::string> passed;
    for (const auto& entry : made.gives_up)
        for (const auto& [id, name] : limit_words)
            if (entry.what == id)
                passed.push_back(fmt::format("{} by {} {}", name, text::number_text(entry.by, 2), entry.unit));
    if (!passed.empty()) text += fmt::format(" Passes your limit of {}.", fmt::join(passed, ", of "));
    return text;
}

void say_why(std::vector<Proposal>& plans) {
    constexpr double seen = 0.02;  // of a quality: less is no reason (common practice)
    for (std::size_t i = 0; i < plans.size(); ++i) {
        auto& plan = plans[i];
        if (plans.size() == 1) {
            plan.why = "The only way that can be had here.";
        } else if (i == 0) {
            const auto& next = plans[1];
            if (plan.keeps_limits && !next.keeps_limits)
                plan.why = "The only one that keeps all your limits.";
            else if (!plan.stopped && next.stopped)
                plan.why = "The only one that nothing stands against.";
            else if (std::abs(plan.worth.worth - next.worth.worth) <= tie * plan.worth.worth)
                plan.why = plan.worth.minutes < next.worth.minutes ? "As good as the next in everything, and quicker."
                                                                   : "As good as the next in everything, and simpler.";
            else
                plan.why = fmt::format("\u201c{}\u201d gives up {}.", plan_name(next),
                                       loss_words(next, widest_gap(plan.worth, next.worth)));
        } else {
            const auto& best = plans.front();
            const auto gap = widest_gap(best.worth, plan.worth);
            auto lost = lost_parts(plan.worth, unnoticed);
            lost.resize(std::min(lost.size(), most_told));
            const bool told = std::ranges::count(lost, gap, &WorthPart::quality) > 0;
            const double first = best.worth.kept(gap), own = plan.worth.kept(gap);
            plan.why =
                !plan.keeps_limits && best.keeps_limits ? "It passes your limits."
                : plan.stopped && !best.stopped         ? "Something stands against it."
                : best.in_hand() && !plan.in_hand() && plan.worth.worth > best.worth.worth * (1 + tie)
                    ? "It gives more, once the camera stands."
                : first - own < seen ? "As good as the first, with more to set up."
                : told ? fmt::format("{}: {} kept, {} in the first.", row_of(gap).name, percent(own), percent(first))
                       : fmt::format("Against the first it gives up {}.", loss_words(plan, gap));
        }
    }
}

}  // namespace poquito::advice
