// What is wished is measured, planned for and told of where it is missing; what is meant is not warned of.
#include "advice/advice.hpp"
#include "advice/checklist.hpp"
#include "advice/proposals/proposals.hpp"
#include "advice/worth/worth.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::same;
using test::WithinAbs;

namespace {

struct Judged {
    plan::Report report;
    Worth worth;
    std::vector<std::string> codes;
    bool tells(const char* code) const { return std::ranges::count(codes, code) > 0; }
};

Judged judged(const Shoot& shoot) {
    const auto made = assessment_of(shoot.kit, shoot.shots[0], terms_of(shoot, shoot.shots[0]));
    Judged all{.report = made.report, .worth = worth_of(made.plan, made.report), .codes = {}};
    for (const auto& note : made.advice.notes) all.codes.push_back(note.code);
    return all;
}

Proposal best(const Shoot& shoot) {
    return proposals_for(shoot.kit, shoot.shots[0], terms_of(shoot, shoot.shots[0])).front();
}

/// A flower by day, by flash on a stand, a mid grey scene behind it.
Shoot flower() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.rig.support = Support::sturdy_head;
    shot.rig.focus = {.by = FocusBy::magnification, .value = 0.3};
    shot.sharpness.rule = BlurRule::diagonal;
    shot.subject.depth = 2;
    shot.ambient = Ambient{.ev100 = 9};
    shot.lights = {test::plain_light()};
    shot.lights[0].power.reset();
    shot.background = Background{.distance = 4000, .reflectance = 0.18, .kind = BackgroundKind::scene};
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 4, .iso = 100};
    return shoot;
}

}  // namespace

TEST_CASE("a wished ground is measured in stops from its tone, and told of where it is missed", "[advice][wishes]") {
    auto shoot = flower();
    auto& shot = shoot.shots[0];
    const auto unsaid = judged(shoot);
    const double tone = *unsaid.report.light.background - *unsaid.report.light.front_total;
    REQUIRE(tone > -4);
    shot.wishes.ground = WantedGround::black;
    const auto black = judged(shoot);
    CHECK_THAT(black.worth.part(Quality::ground).measure, same(tone - -5));
    CHECK(black.worth.worth < unsaid.worth.worth);
    CHECK(black.tells("ground-not-as-wished"));
    shot.wishes.ground = WantedGround::white;
    CHECK_THAT(judged(shoot).worth.part(Quality::ground).measure, same(2 - tone));
    shot.wishes.ground = WantedGround::as_it_is;
    const auto as_it_is = judged(shoot);
    CHECK(as_it_is.worth.part(Quality::ground).measure == 0);
    CHECK_FALSE(as_it_is.tells("ground-not-as-wished"));
    // Of the shoot as of the shot.
    shot.wishes = {};
    shoot.terms.wishes.ground = WantedGround::black;
    CHECK_THAT(judged(shoot).worth.worth, same(black.worth.worth));
}

TEST_CASE("plans go after the ground that is wished", "[advice][wishes]") {
    auto shoot = flower();
    const auto tone = [&](WantedGround ground) {
        shoot.shots[0].wishes.ground = ground;
        const auto plan = best(shoot);
        return *plan.report.light.background - *plan.report.light.front_total;
    };
    CHECK(tone(WantedGround::black) < tone(WantedGround::dark));
    CHECK(tone(WantedGround::dark) < tone(WantedGround::unsaid));
    CHECK(tone(WantedGround::black) < -4);
}

TEST_CASE("brighter on purpose is what is aimed at, by plans and by flashes that find their power",
          "[advice][wishes]") {
    auto shoot = flower();
    auto& shot = shoot.shots[0];
    shot.exposure.shutter = 1.0 / 200;
    for (const double stops : {-1.0, 0.7}) {
        INFO(stops);
        shot.wishes.brighter = stops;
        const auto found = judged(shoot);
        CHECK_THAT(*found.report.light.front_total, WithinAbs(stops, 0.01));
        CHECK_THAT(found.worth.part(Quality::exposure).measure, WithinAbs(0, 0.01));
        CHECK_FALSE(found.tells("exposure-off"));
        auto plain = shoot;
        plain.shots[0].lights.clear();
        const auto plan = best(plain);
        CHECK_THAT(*plan.report.light.front_total, WithinAbs(stops, 0.4));
    }
    shot.lights[0].power = 1.0 / 64;
    shot.wishes.brighter = 3;
    CHECK(judged(shoot).tells("exposure-off"));
}

TEST_CASE("the light that is wished lights it, and anything else is told of", "[advice][wishes]") {
    auto shoot = flower();
    auto& shot = shoot.shots[0];
    shot.wishes.lit_by = WantedLight::flash;
    const auto plan = best(shoot);
    CHECK(plan.lit == Lit::flash);
    CHECK(plan.worth.kept(Quality::lit) > 0.8);
    shot.wishes.lit_by = WantedLight::ambient;
    CHECK(best(shoot).lit == Lit::ambient);
    shot.exposure.shutter = 1.0 / 200;  // the flash makes the exposure
    const auto flashed = judged(shoot);
    CHECK(flashed.tells("lit-not-as-wished"));
    CHECK(flashed.worth.kept(Quality::lit) < 0.2);
    shot.wishes.lit_by = WantedLight::both;
    CHECK(judged(shoot).tells("lit-not-as-wished"));
    shot.wishes = {};
    CHECK(judged(shoot).worth.kept(Quality::lit) == 1);

    // What shines through a petal is light that is there as well.
    auto petal = flower();
    auto& glows = petal.shots[0];
    glows.lights.clear();
    glows.subject.transmittance = 0.4;
    glows.wishes.lit_by = WantedLight::ambient;
    CHECK(judged(petal).report.light.ambient_through);
    CHECK_THAT(judged(petal).worth.part(Quality::lit).measure, WithinAbs(0, 1e-9));
    CHECK_FALSE(judged(petal).tells("lit-not-as-wished"));
}

TEST_CASE("movement that is to be drawn is no fault, and too short a time is one", "[advice][wishes]") {
    auto shoot = flower();
    auto& shot = shoot.shots[0];
    shot.lights.clear();
    shot.subject.speed = 40;
    shot.exposure.shutter = 1;
    const auto frozen = judged(shoot);
    CHECK(frozen.worth.kept(Quality::odds) < 0.5);
    CHECK(frozen.tells("motion-blur"));
    shot.wishes.movement = WantedMovement::drawn;
    const auto drawn = judged(shoot);
    CHECK(drawn.worth.kept(Quality::odds) > 0.99);
    CHECK_FALSE(drawn.tells("motion-blur"));
    CHECK_FALSE(drawn.tells("movement-not-drawn"));
    // 40 mm/s at 0.3 in 1 s: 12 mm at the sensor, and a fiftieth of its width is enough.
    CHECK(drawn.worth.part(Quality::movement).measure == 0);
    shot.exposure.shutter = 1.0 / 1000;
    const auto brief = judged(shoot);
    CHECK(brief.tells("movement-not-drawn"));
    CHECK(brief.worth.kept(Quality::movement) < 0.2);
    shot.subject.speed = 0;
    CHECK(judged(shoot).tells("movement-not-drawn"));
}

TEST_CASE("softness, contrast, colour and a subject past the frame are judged as they are wished", "[advice][wishes]") {
    auto shoot = flower();
    auto& shot = shoot.shots[0];
    const double share = *judged(shoot).report.sharpness.background_disc_share;
    shot.wishes.softness = share * 4;
    CHECK_THAT(judged(shoot).worth.part(Quality::softness).measure, WithinAbs(2, 1e-6));
    CHECK(judged(shoot).tells("ground-not-soft"));
    shot.wishes.softness = share / 2;
    CHECK(judged(shoot).worth.part(Quality::softness).measure == 0);
    shot.wishes = {};

    shot.rig.focus.value = 1;
    shot.subject.width = 80;
    CHECK(judged(shoot).tells("subject-larger-than-frame"));
    shot.wishes.passes_frame = true;
    CHECK_FALSE(judged(shoot).tells("subject-larger-than-frame"));

    auto side = flower();
    auto& lit = side.shots[0];
    lit.exposure.shutter = 1.0 / 200;
    lit.lights[0].position = {.distance = 400, .azimuth = -80, .elevation = 10};
    const double usual = judged(side).worth.part(Quality::contrast).measure;
    lit.wishes.contrast = WantedContrast::soft;
    CHECK(judged(side).worth.part(Quality::contrast).measure > usual);
    lit.wishes.contrast = WantedContrast::hard;
    CHECK(judged(side).worth.part(Quality::contrast).measure <= 3);
}
