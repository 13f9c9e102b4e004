// The one measure: its curve, its product, that it has no edges where practice has slopes, and what practice says of
// it.
#include "advice/worth/worth.hpp"

#include "advice/rules/rules.hpp"
#include "advice/worth/trouble.hpp"
#include "optics/chance.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::Random;
using test::same;
using test::WithinAbs;

namespace {

Worth worth(const gear::Kit& kit, const Shot& shot, const Limits& limits = {}) {
    const auto plan = plan::plan_of(kit, shot, {limits});
    return worth_of(plan, plan::assess(plan));
}

const Rule& row_for(const std::string& code) {
    for (const auto rules : all_rules())
        for (const Rule& rule : rules)
            if (rule.code == code) return rule;
    throw std::logic_error(code);
}

/// A still thing on a stand by a window, which one stop and one time serve.
Shoot still_life() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.lights.clear();
    shot.ambient = Ambient{.ev100 = 9};
    shot.rig.support = Support::sturdy_head;
    shot.rig.focus = {.by = FocusBy::magnification, .value = 0.2};
    shot.subject.depth = 4;
    shot.sharpness.rule = BlurRule::diagonal;
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 4, .iso = 100};
    return shoot;
}

}  // namespace

TEST_CASE("nine tenths are kept where a loss is felt, a tenth where it spoils the picture, half between them",
          "[advice][worth]") {
    for (const auto& row : quality_rows()) {
        if (!(row.felt > 0)) continue;
        INFO(row.id);
        CHECK(optics::kept_share(0, row.felt, row.spoilt) == 1);
        CHECK_THAT(optics::kept_share(row.felt, row.felt, row.spoilt), same(0.9));
        CHECK_THAT(optics::kept_share(row.spoilt, row.felt, row.spoilt), same(0.1));
        CHECK_THAT(optics::kept_share(std::sqrt(row.felt * row.spoilt), row.felt, row.spoilt), same(0.5));
        for (double x = 0.1 * row.felt; x < 3 * row.spoilt; x *= 1.1)
            CHECK(optics::kept_share(x * 1.1, row.felt, row.spoilt) < optics::kept_share(x, row.felt, row.spoilt));
    }
}

TEST_CASE("worth is the product of what is kept, and nothing beside it", "[advice][worth][generated]") {
    int possible = 0;
    for (unsigned number = 0; number < test::generated(700); ++number) {
        const auto shoot = test::random_shoot(number);
        Random random(number);
        for (const Shot& shot : shoot.shots) {
            INFO(number << " " << shot.id);
            const Limits limits =
                random.coin() ? Limits{.give_up = {Loss::depth, Loss::time, Loss::iso}} : usual_limits();
            const auto made = worth(shoot.kit, shot, limits);
            double product = 1;
            for (const auto& part : made.parts) {
                CHECK(part.kept >= 0);
                CHECK(part.kept <= 1);
                CHECK(part.measure >= 0);
                CHECK(std::isfinite(part.measure));
                product *= std::pow(part.kept, part.weight);
            }
            CHECK_THAT(made.worth, WithinAbs(product, 1e-12));
            possible += made.worth > 0;
        }
    }
    CHECK(possible > static_cast<int>(test::generated(175)));
}

TEST_CASE("a still thing by a window: each measure as its row has it", "[advice][worth]") {
    auto shoot = still_life();
    auto& shot = shoot.shots.front();
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    const auto made = worth_of(plan, report);
    const auto& sharp = report.sharpness;
    // Half of its depth, since nobody said what has to be sharp.
    const double airy = sharp.airy_diameter / sharp.blur_limit, off = shot.subject.depth / 4 / *sharp.near;
    CHECK_THAT(made.part(Quality::sharp).measure, same(std::log2(1 + airy * airy + off * off) / 2));
    CHECK_THAT(made.part(Quality::exposure).measure, same(std::abs(*report.light.front_total)));
    const double base = plan.sensor.width > 30 ? 100 : plan.sensor.width > 21 ? 50 : 25;
    CHECK_THAT(made.part(Quality::noise).measure,
               same(std::log2(100 / base) + std::max(0.0, -*report.light.front_total)));
    CHECK(made.kept(Quality::odds) > 0.999);
    CHECK(made.patience == 30);
    CHECK_THAT(made.part(Quality::time).measure, same((5 + 0.25) / 60 / 30));
    shot.rig.support = Support::hand;
    CHECK(worth(shoot.kit, shot).patience == 5);
    CHECK(worth(shoot.kit, shot, {.minutes = 12}).patience == 12);
    shot.subject.traits = {"living"};
    shot.tries = Tries{.stays = 90};
    CHECK(worth(shoot.kit, shot).patience == 1.5);
}

TEST_CASE("what goes first weighs least, and what nobody ordered weighs one", "[advice][worth]") {
    const Limits stated{.give_up = {Loss::background, Loss::time, Loss::iso, Loss::depth, Loss::motion}};
    CHECK(weight_of(row_of(Quality::ground), stated) == 0.6);
    CHECK(weight_of(row_of(Quality::time), stated) == 0.8);
    CHECK(weight_of(row_of(Quality::noise), stated) == 1);
    CHECK(weight_of(row_of(Quality::sharp), stated) == 1.2);
    CHECK(weight_of(row_of(Quality::odds), stated) == 1.5);
    for (const auto& row : quality_rows()) CHECK(weight_of(row, {}) == 1);
    CHECK(weight_of(row_of(Quality::odds), {.give_up = {Loss::iso}}) == 1);
}

TEST_CASE("a hundredth of a stop of anything changes worth by next to nothing", "[advice][worth][generated]") {
    constexpr double hundredth = 0.01;
    int tried = 0;
    for (unsigned number = 0; number < test::generated(700); ++number) {
        const auto shoot = test::random_shoot(number);
        for (const Shot& shot : shoot.shots) {
            const double now = worth(shoot.kit, shot).worth;
            if (!(now > 0)) continue;
            const double factor = std::exp2(hundredth);
            const auto moved = [&](const char* what, auto change) {
                Shot other = shot;
                change(other);
                const double then = worth(shoot.kit, other).worth;
                if (!(then > 0)) return;  // a real edge: sync, reach
                INFO(number << " " << shot.id << " " << what << " " << now << " " << then);
                CHECK(std::abs(then - now) < 0.02);
                ++tried;
            };
            moved("stop", [&](Shot& s) { s.exposure.f_number *= std::sqrt(factor); });
            moved("time", [&](Shot& s) { s.exposure.shutter *= factor; });
            moved("iso", [&](Shot& s) { s.exposure.iso *= factor; });
            moved("ambient", [&](Shot& s) {
                if (s.ambient) s.ambient->ev100 += hundredth;
            });
            moved("power", [&](Shot& s) {
                for (auto& light : s.lights)
                    if (light.power && *light.power < 0.9) *light.power *= factor;
            });
            moved("speed", [&](Shot& s) { s.subject.speed *= factor; });
            moved("sway", [&](Shot& s) { s.subject.sway_amplitude *= factor; });
        }
    }
    CHECK(tried > static_cast<int>(test::generated(1750)));
}

TEST_CASE("what cannot be taken has no worth", "[advice][worth]") {
    auto shoot = still_life();
    auto& shot = shoot.shots.front();
    CHECK(worth(shoot.kit, shot).worth > 0.5);
    auto dark = shot;
    dark.ambient.reset();
    CHECK(worth(shoot.kit, dark).worth > 0.5);  // nobody said yet what light there is
    dark.lights = {test::plain_light()};
    dark.lights[0].off = true;
    CHECK(worth(shoot.kit, dark).worth == 0);
    CHECK(worth(shoot.kit, dark).kept(Quality::possible) == 0);
    auto banded = shot;
    banded.lights = {test::plain_light()};
    banded.exposure.shutter = shoot.kit.cameras.front().sync / 2;
    CHECK(worth(shoot.kit, banded).worth == 0);
    banded.exposure.shutter = shoot.kit.cameras.front().sync;
    CHECK(worth(shoot.kit, banded).worth > 0);
    auto far = shot;
    far.rig.focus.value = 40;
    CHECK(worth(shoot.kit, far).worth == 0);
    auto combined = shot;
    combined.capture.mode = CaptureMode::stack;
    combined.capture.mover = Mover::ring;
    combined.capture.composite = true;
    combined.exposure.f_number = 2.8;
    combined.subject.depth = 40;
    shoot.kit.cameras.front().bracket.composite_max_frames = 3;
    CHECK(worth(shoot.kit, combined).worth == 0);
}

TEST_CASE("what practice knows of animals, hands and light has its place in it", "[advice][worth][practice]") {
    // Common practice throughout: NEEDS.
    auto shoot = test::plain_shoot();
    auto& bee = shoot.shots.front();
    bee.subject.traits = {"living", "outdoors"};
    bee.subject.speed = 12;
    bee.subject.depth = 5;
    bee.sharpness.rule = BlurRule::diagonal;
    bee.lights.clear();
    bee.ambient = Ambient{.ev100 = 12};
    bee.rig.support = Support::hand;
    bee.rig.focus = {.by = FocusBy::magnification, .value = 0.5};
    bee.exposure = {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 1600};
    const auto chance = [&](const Shot& shot) { return plan::assess(shoot.kit, shot, {}).chance->chance; };
    // It pauses: of several frames some are sharp.
    CHECK(chance(bee) > 0.01);
    CHECK(chance(bee) < 0.7);
    // And slower animals pause more.
    auto slow = bee;
    slow.subject.speed = 3;
    CHECK(chance(slow) > chance(bee));
    // What nobody said moves by itself is not made to.
    auto stone = bee;
    stone.subject.traits = {};
    stone.subject.speed = 0;
    stone.exposure.shutter = 1.0 / 1000;
    CHECK(chance(stone) > 0.3);

    // No edge where what is there comes to four stops under the flash: the report's own exposure time has one.
    auto lit = bee;
    lit.lights = {test::plain_light()};
    lit.exposure = {.f_number = 16, .shutter = shoot.kit.cameras.front().sync, .iso = 200};
    double before = -1;
    for (double ev = 10; ev < 14.5; ev += 0.05) {
        lit.ambient->ev100 = ev;
        const double now = worth(shoot.kit, lit).worth;
        if (before >= 0) CHECK(std::abs(now - before) < 0.05);
        before = now;
    }

    // A live thing is bracketed by hand with some luck, not with a chance of nothing.
    auto ladybird = bee;
    ladybird.subject.speed = 0;
    ladybird.subject.depth = 2;
    ladybird.capture.mode = CaptureMode::stack;
    ladybird.capture.mover = Mover::ring;
    ladybird.capture.cadence = 0.1;
    ladybird.exposure = {.f_number = 8, .shutter = 1.0 / 400, .iso = 800};
    const auto stacked = plan::assess(shoot.kit, ladybird, {});
    REQUIRE(stacked.capture.frames > 1);
    CHECK(stacked.chance->chance > 1e-4);
    CHECK(stacked.chance->chance < 0.9);
}

TEST_CASE("a move that a note offers raises worth by what it says", "[advice][worth][trouble][generated]") {
    int offered = 0;
    for (unsigned number = 0; number < test::generated(200); ++number) {
        const auto shoot = test::random_shoot(number);
        for (const Shot& shot : shoot.shots) {
            const auto assessed = assessment_of(shoot.kit, shot, {usual_limits()});
            const auto now = worth_of(assessed.plan, assessed.report).worth;
            const auto trouble = trouble_of(assessed.plan, assessed.report);
            for (const auto& note : assessed.advice.notes) {
                if (!note.remedy) continue;
                INFO(number << " " << shot.id << " " << note.code << ": " << note.remedy->label);
                const auto plan = plan_with(assessed.plan, *note.remedy);
                const auto then = trouble_of(plan, plan::assess(plan));
                CHECK_THAT(then.worth - now, WithinAbs(note.remedy->gain, 1e-9));
                const bool edges = then.stops < trouble.stops || then.contradictions < trouble.contradictions;
                if (row_for(note.code).quality && !edges) CHECK(note.remedy->gain >= worth_offering);
                const auto& exposure = note.remedy->shot.exposure;
                CHECK(exposure.iso <= 102400 * 1.01);
                CHECK(exposure.shutter >= std::min(1.0 / 8000, shot.exposure.shutter) * 0.99);
                for (std::size_t i = 0; i < note.remedy->shot.lights.size(); ++i)
                    if (note.remedy->shot.lights[i].power != (i < shot.lights.size() ? shot.lights[i].power : 1.0) &&
                        note.remedy->shot.lights[i].power && plan.sources[i].is_flash())
                        CHECK(*note.remedy->shot.lights[i].power >= plan.sources[i].flash->scale.least * (1 - 1e-9));
                ++offered;
            }
        }
    }
    CHECK(offered > 100);
}
