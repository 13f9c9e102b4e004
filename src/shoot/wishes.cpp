#include "shoot/wishes.hpp"

#include "text/text.hpp"

#include <fmt/format.h>

#include <limits>

namespace poquito::shoot {

namespace {

template <typename Do>
void for_each_member(const Do& take) {
    take(&Wishes::ground);
    take(&Wishes::softness);
    take(&Wishes::lit_by);
    take(&Wishes::movement);
    take(&Wishes::contrast);
    take(&Wishes::brighter);
    take(&Wishes::coloured_light);
    take(&Wishes::passes_frame);
}

}  // namespace

Wishes overlaid(const Wishes& nearer, const Wishes& farther) {
    const Wishes unsaid;
    Wishes both = nearer;
    for_each_member([&](auto member) {
        if (both.*member == unsaid.*member) both.*member = farther.*member;
    });
    return both;
}

void grant(const Wishes& wanted, Wishes& own, Wishes& shoots) {
    const Wishes unsaid;
    for_each_member([&](auto member) {
        own.*member = wanted.*member == shoots.*member ? unsaid.*member : wanted.*member;
        if (wanted.*member == unsaid.*member) shoots.*member = unsaid.*member;
    });
}

std::vector<std::string> words_of(const Wishes& wishes) {
    constexpr const char* grounds[] = {
        "", "black ground", "dark ground", "the ground as it is", "light ground", "white ground"};
    constexpr const char* lights[] = {"", "flash alone", "the light that is there alone",
                                      "flash and the light that is there"};
    constexpr const char* movements[] = {"", "movement frozen", "movement drawn"};
    constexpr const char* contrasts[] = {"", "soft contrast", "hard contrast"};
    std::vector<std::string> words;
    const auto say = [&](const char* const* names, auto value) {
        if (const auto index = static_cast<std::size_t>(value)) words.emplace_back(names[index]);
    };
    say(grounds, wishes.ground);
    if (wishes.softness)
        words.push_back(fmt::format("soft behind by {} % of the frame", text::number_text(*wishes.softness * 100, 2)));
    say(lights, wishes.lit_by);
    say(movements, wishes.movement);
    say(contrasts, wishes.contrast);
    if (wishes.brighter) words.push_back(fmt::format("{} stops on purpose", text::stops_text(*wishes.brighter)));
    if (wishes.coloured_light) words.emplace_back("coloured light");
    if (wishes.passes_frame) words.emplace_back("past the frame's edges");
    return words;
}

std::optional<ToneRange> tones_of(WantedGround ground) {
    constexpr double ever = std::numeric_limits<double>::infinity();
    // Common practice. A file holds some six stops under mid grey, so five are as good as black; white paper stands two
    // and a third over it, and where it is a stop brighter than clean its light wraps about the edges.
    switch (ground) {
        case WantedGround::black:
            return ToneRange{-ever, -5};
        case WantedGround::dark:
            return ToneRange{-5, -2.5};
        case WantedGround::light:
            return ToneRange{0.5, 2};
        case WantedGround::white:
            return ToneRange{2, 3.5};
        case WantedGround::unsaid:
        case WantedGround::as_it_is:
            break;
    }
    return std::nullopt;
}

}  // namespace poquito::shoot
