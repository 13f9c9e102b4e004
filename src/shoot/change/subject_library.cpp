#include "shoot/change/subject_library.hpp"

#include "shoot/change/edit.hpp"
#include "shoot/form/form.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace poquito::shoot {

void fill_from(Shot& shot, const gear::Kit& kit, const LibrarySubject& entry) {
    const auto& sensor = sensor_of(kit, shot.rig);
    // Sizes from a first guess to a fly's eye want their own magnification: the frame is filled to three fifths.
    constexpr double fill = 0.6;
    shot.subject = entry.subject;
    shot.capture.slice = entry.zone;
    shot.freeze = entry.freeze;
    if (entry.still || shot.tries) own_tries(shot).still = entry.still;
    shot.sharpness.focus_offset = 0;
    shot.rig.focus = {.by = FocusBy::magnification, .value = magnification_for_fill(sensor, shot.subject, fill)};
}

std::vector<std::string> assumed(const Shot& shot, const std::vector<LibrarySubject>& library) {
    std::vector<std::string> words;
    const Subject& is = shot.subject;
    if (!is.library) return words;
    const auto found = std::ranges::find(library, *is.library, &LibrarySubject::id);
    if (found == library.end()) return words;
    const Subject& was = found->subject;
    if (is.width == was.width && is.height == was.height && is.depth == was.depth)
        words.push_back(fmt::format("{} \u00d7 {} \u00d7 {}", text::number_text(is.width, 4),
                                    text::number_text(is.height, 4), text::length_text(is.depth)));
    if (is.reflectance == was.reflectance)
        words.push_back(fmt::format("{} % reflectance", text::number_text(is.reflectance * 100, 2)));
    if (is.speed == was.speed && is.speed > 0) words.push_back(fmt::format("moves {}/s", text::length_text(is.speed)));
    if (found->still && shot.tries && shot.tries->still == found->still)
        words.push_back(fmt::format("sits still {} % of the time", text::number_text(*found->still * 100, 2)));
    if (is.sway_amplitude == was.sway_amplitude && is.sway_amplitude > 0)
        words.push_back(fmt::format("sways {}", text::length_text(is.sway_amplitude)));
    if (is.nearest == was.nearest && is.nearest)
        words.push_back(fmt::format("lets you come within {}", text::length_text(*is.nearest)));
    if (shot.capture.slice && shot.capture.slice == found->zone)
        words.push_back(
            fmt::format("{} of it sharp", text::length_text(shot.capture.slice->to - shot.capture.slice->from)));
    return words;
}

void add_check(Shot& shot, const std::string& text) {
    if (text.empty() || std::ranges::count(shot.own_checks, text, &OwnCheck::text) > 0) return;
    std::size_t number = shot.own_checks.size() + 1;
    const auto id = [&] { return fmt::format("{}", number); };
    while (std::ranges::count(shot.own_checks, id(), &OwnCheck::id) > 0) ++number;
    shot.own_checks.push_back({.id = id(), .text = text, .unknown = {}});
}

void add_checks(Shot& shot, const std::vector<KindCheck>& checks, const std::string& kind) {
    for (const auto& check : checks)
        if (check.kind.empty() || check.kind == kind) add_check(shot, check.text);
}

}  // namespace poquito::shoot
