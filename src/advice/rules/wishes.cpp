#include "advice/rules/rules.hpp"
#include "advice/worth/worth.hpp"
#include "light/position.hpp"
#include "shoot/names.hpp"
#include "text/text.hpp"
#include "whatif/background_look.hpp"

#include <fmt/format.h>

#include <cmath>

/// What the picture is to look like, and does not yet.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;
using shoot::WantedGround;

std::optional<light::BackgroundLook> look_of(WantedGround ground) {
    switch (ground) {
        case WantedGround::black:
            return light::BackgroundLook::black;
        case WantedGround::dark:
            return light::BackgroundLook::dark;
        case WantedGround::white:
            return light::BackgroundLook::white;
        case WantedGround::unsaid:
        case WantedGround::as_it_is:
        case WantedGround::light:
            break;
    }
    return std::nullopt;
}

/// What changes the ground alone: all the way to the look, or some of it.
void bring_nearer(const plan::Plan& plan, WantedGround ground, bool brighter, Finding& finding) {
    const auto& behind = *plan.shot.background;
    // Nobody hangs a card behind what moves about.
    const bool card = behind.kind == shoot::BackgroundKind::card;
    const bool a_card_holds = card || plan.shot.subject.speed == 0;
    const auto add = [&](std::string label, shoot::Shot shot) {
        finding.ways.push_back({shoot::Loss::background, Remedy{.label = std::move(label), .shot = std::move(shot)}});
    };
    if (const auto look = look_of(ground))
        for (auto& way : whatif::ways_to(plan, *look))
            if (a_card_holds || way.shot.background->reflectance == behind.reflectance)
                add(std::move(way.label), std::move(way.shot));
    const auto with = [&](const std::string& label, const auto& change) {
        auto shot = plan.shot;
        change(*shot.background);
        add(label, std::move(shot));
    };
    constexpr double velvet = 0.01, white = 0.9;  // reflectance (common practice)
    if (card && !brighter && behind.reflectance > velvet)
        with("Velvet behind", [](shoot::Background& to) { to.reflectance = velvet; });
    if (card && brighter && behind.reflectance < white)
        with("White card behind", [](shoot::Background& to) { to.reflectance = white; });
    if (behind.own_ev100) return;
    for (const double times : {2.0, 4.0}) {
        const double distance = std::round(brighter ? behind.distance / times : behind.distance * times);
        if (distance >= plan.extent.depth / 2)
            with(fmt::format("Ground {} behind", text::length_text(distance)),
                 [=](shoot::Background& to) { to.distance = distance; });
    }
}

Found ground_otherwise(const plan::Plan& plan, const plan::Report& report) {
    const auto ground = plan.terms.wishes.ground;
    const auto wished = shoot::tones_of(ground);
    if (!wished) return {};
    if (!plan.shot.background)
        return Finding{
            fmt::format("A {} ground is wished and nothing is said to stand behind.", shoot::name_of(ground))};
    const double kept = worth_of(plan, report).kept(Quality::ground);
    if (kept >= missed) return {};
    const double tone = report.light.background.value_or(-20) - off_wanted(plan, report).value_or(0);
    const bool brighter = tone < wished->from;
    Finding finding{
        fmt::format("The ground comes out {} stops from mid grey, too {} for the {} one that is wished: {} "
                    "or {}.",
                    text::stops_text(tone), brighter ? "dark" : "bright", shoot::name_of(ground),
                    text::stops_text(brighter ? wished->from : wished->to), brighter ? "more" : "less")};
    if (!OnlyCounting::now()) bring_nearer(plan, ground, brighter, finding);
    return finding;
}

Found ground_not_soft(const plan::Plan& plan, const plan::Report& report) {
    const auto& wished = plan.terms.wishes.softness;
    if (!wished || !plan.shot.background || worth_of(plan, report).kept(Quality::softness) >= missed) return {};
    const double share = report.sharpness.background_disc_share.value_or(0);
    if (share >= *wished) return {};
    Finding finding{
        fmt::format("Behind, a point becomes a disc of {} % of the frame's width; {} % is wished. A wider "
                    "stop, or the ground farther off.",
                    text::number_text(share * 100, 2), text::number_text(*wished * 100, 2))};
    for (const double times : {1.5, 2.0, 3.0, 5.0})
        finding.ways.push_back(
            {shoot::Loss::background,
             remedy(plan, fmt::format("Ground {} behind", text::length_text(plan.shot.background->distance * times)),
                    [&](shoot::Shot& shot) { shot.background->distance *= times; })});
    return finding;
}

Found lit_otherwise(const plan::Plan& plan, const plan::Report& report) {
    using shoot::WantedLight;
    const auto wished = plan.terms.wishes.lit_by;
    if (wished == WantedLight::unsaid || worth_of(plan, report).kept(Quality::lit) >= missed) return {};
    const double flash = report.light.flash ? ratio_of(report.light.flash) : 0,
                 all = ratio_of(report.light.front_total);
    const auto percent = [&] { return text::number_text(all > 0 ? 100 * flash / all : 0, 2); };
    switch (wished) {
        case WantedLight::flash:
            return Finding{fmt::format("Flash alone is wished; it makes {} % of the light.", percent())};
        case WantedLight::ambient:
            return Finding{fmt::format("The light that is there is wished; {} % comes from flash{}.", percent(),
                                       flash > 0 ? "" : ", the rest from lamps")};
        case WantedLight::both:
            return Finding{
                fmt::format("Flash and the light that is there are both wished; {} % is flash, a quarter of "
                            "each is the least that is seen.",
                            percent())};
        case WantedLight::unsaid:
            break;
    }
    return {};
}

Found movement_not_drawn(const plan::Plan& plan, const plan::Report& report) {
    if (plan.terms.wishes.movement != shoot::WantedMovement::drawn) return {};
    if (!moves(plan.shot.subject) && !plan.shot.freeze)
        return Finding{"Movement is to be drawn and nothing here moves: say how fast it goes or how far it sways."};
    const auto worth = worth_of(plan, report);
    if (worth.kept(Quality::movement) >= missed) return {};
    return Finding{
        fmt::format("Movement is to be drawn; it takes {} stops more of time before one sees that it is "
                    "meant.",
                    text::number_text(worth.part(Quality::movement).measure, 2))};
}

Found contrast_otherwise(const plan::Plan& plan, const plan::Report& report) {
    using shoot::WantedContrast;
    const auto wished = plan.terms.wishes.contrast;
    if (wished == WantedContrast::unsaid || !report.light.tones.lit) return {};
    const auto worth = worth_of(plan, report);
    if (worth.kept(Quality::contrast) >= missed) return {};
    const auto stops = text::number_text(worth.part(Quality::contrast).measure, 2);
    return Finding{
        wished == WantedContrast::soft
            ? fmt::format("Soft contrast is wished; from the lit side to the other it is {} stops too much. "
                          "A larger light, nearer, or a reflector on the dark side.",
                          stops)
            : fmt::format("Hard contrast is wished; {} stops are missing. A smaller light from the side, and "
                          "nothing bright on the other.",
                          stops)};
}

constexpr Rule wish_rows[] = {
    {"ground-not-as-wished", Station::light, Level::caution, Concern::plan, ground_otherwise, Quality::ground},
    {"ground-not-soft", Station::depth, Level::caution, Concern::plan, ground_not_soft, Quality::softness},
    {"lit-not-as-wished", Station::light, Level::caution, Concern::plan, lit_otherwise, Quality::lit},
    {"movement-not-drawn", Station::light, Level::caution, Concern::plan, movement_not_drawn, Quality::movement},
    {"contrast-not-as-wished", Station::light, Level::caution, Concern::plan, contrast_otherwise, Quality::contrast},
};

}  // namespace

std::span<const Rule> wish_rules() { return wish_rows; }

}  // namespace poquito::advice
