// Whole plans against the settings beside them, each assessed in full; what they promise against what is reported once
// they are taken; and what practice would choose.
#include "advice/proposals/proposals.hpp"

#include "light/power.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"
#include "text/scales.hpp"

#include <algorithm>
#include <cmath>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::Random;
using test::same;

namespace {

const Proposal* find(const std::vector<Proposal>& plans, School school) {
    const auto found = std::ranges::find(plans, school, &Proposal::school);
    return found == plans.end() ? nullptr : &*found;
}

Shoot field_shoot(Random& random) {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = random.between(2, 15);
    shot.subject.speed = random.between(0, 1) < 0.5 ? 0 : random.between(0.5, 8);
    shot.sharpness.rule = BlurRule::diagonal;
    shot.rig.focus = {.by = FocusBy::magnification, .value = random.between(0.2, 0.95)};
    shot.rig.support = random.between(0, 1) < 0.5 ? Support::hand : Support::sturdy_head;
    shot.ambient = Ambient{.ev100 = random.between(5, 14)};
    shot.lights = {test::plain_light()};
    shot.background = Background{.distance = random.between(100, 600), .reflectance = 0.25};
    if (random.between(0, 1) < 0.5) {
        const double from = random.between(0, shot.subject.depth / 2);
        shot.capture.slice = Slice{.from = from, .to = from + random.between(0.5, shot.subject.depth / 2)};
    }
    return shoot;
}

/// Worth of a shot as it would be taken; below 0 where it passes a limit that the plan keeps.
double worth_at(const gear::Kit& kit, const Shot& shot, const Limits& limits, const Proposal& of) {
    const auto plan = plan::plan_of(kit, shot, {limits});
    const auto report = plan::assess(plan);
    if (of.keeps_limits && excess_of(plan, report).any()) return -1;
    if (shot.capture.mode == CaptureMode::stack && report.capture.frames <= 1) return -1;
    return worth_of(plan, report, of.change).worth;
}

Limits stated_limits(Random& random) {
    Limits limits{.iso = 1600, .shutter_by_hand = 1.0 / 125, .f_number = 22, .frames = 200, .minutes = 30};
    if (random.coin()) limits.give_up = {Loss::depth, Loss::iso};
    if (random.coin()) limits.iso = random.log_between(200, 12800);
    return random.coin(0.3) ? Limits{} : limits;
}

}  // namespace

TEST_CASE("no setting beside that of a plan is worth more", "[advice][plans][generated]") {
    Random random(41);
    int compared = 0;
    for (int i = 0; i < static_cast<int>(test::generated(50)); ++i) {
        const auto shoot = field_shoot(random);
        const auto& shot = shoot.shots.front();
        const Limits limits = stated_limits(random);
        for (const auto& plan : proposals_for(shoot.kit, shot, {limits})) {
            const auto& now = plan.shot.exposure;
            const auto& lens = shoot.kit.lenses.front().optics;
            const bool flash = plan.lit == Lit::flash || plan.lit == Lit::fill;
            const auto power_times = [&](Shot& one, double factor) {
                for (auto& light : one.lights)
                    if (light.power && !light.off)
                        light.power = light::nearest_setting(shoot.kit.flashes.front().scale, *light.power * factor);
            };
            // Exposure stays: what one dial gives another takes; flashes take their share by power.
            const auto compare = [&](int stop, int time, int iso) {
                Shot one = plan.shot;
                auto& e = one.exposure;
                if (stop) e.f_number = text::step_f_number(e.f_number, stop);
                if (time) e.shutter = text::step_shutter(e.shutter, time);
                if (iso) e.iso = text::step_iso(e.iso, iso);
                if (e.f_number < lens.max_aperture * 0.999 || e.f_number > lens.min_aperture * 1.001) return;
                if (e.iso < 99 || e.iso > 102500 || e.shutter > 30.1 || e.shutter < 1.0 / 8100) return;
                if (flash && e.shutter < shoot.kit.cameras.front().sync * 0.999) return;
                if (flash) power_times(one, std::pow(e.f_number / now.f_number, 2) * now.iso / e.iso);
                const double there = worth_at(shoot.kit, one, limits, plan);
                const auto then = plan::assess(shoot.kit, one, {});
                const auto ratio = [](const std::optional<double>& stops) { return stops ? std::exp2(*stops) : 0; };
                // Across the line between flash and fill it is another way.
                if (flash && (ratio(then.light.continuous) > ratio(then.light.flash)) != (plan.lit == Lit::fill))
                    return;
                INFO(i << " " << plan_name(plan) << " " << stop << " " << time << " " << iso << " " << plan.worth.worth
                       << " " << there);
                CHECK(there <= plan.worth.worth + 0.005);
                ++compared;
            };
            for (const int n : {-1, 1}) {
                compare(n, n, 0);
                compare(n, 0, n);
                compare(0, n, -n);
                if (flash) compare(n, 0, 0), compare(0, 0, n);
            }
        }
    }
    CHECK(compared > static_cast<int>(test::generated(1000)));
}

TEST_CASE("what a plan promises is what is reported once it is taken", "[advice][plans][generated]") {
    Random random(42);
    for (int i = 0; i < static_cast<int>(test::generated(60)); ++i) {
        const auto shoot = field_shoot(random);
        const auto& shot = shoot.shots.front();
        const Limits limits = stated_limits(random);
        const auto plans = proposals_for(shoot.kit, shot, {limits});
        REQUIRE(plans.size() >= 2);
        bool good = true;
        for (const auto& made : plans) {
            INFO(i << " " << plan_name(made));
            const auto plan = plan::plan_of(shoot.kit, made.shot, {limits});
            const auto report = plan::assess(plan);
            CHECK(report.capture.frames == made.report.capture.frames);
            CHECK(report.light.front_total == made.report.light.front_total);
            CHECK_THAT(worth_of(plan, report, made.change).worth, same(made.worth.worth));
            CHECK(worth_of(plan, report).worth >= made.worth.worth);
            for (const auto& part : made.worth.parts)
                if (part.quality != Quality::time)
                    CHECK_THAT(worth_of(plan, report).part(part.quality).measure, same(part.measure));
            CHECK((good || !made.fits()));  // those that fit stand first
            good = good && made.fits();
            if (made.keeps_limits) {
                if (limits.iso) CHECK(made.shot.exposure.iso <= *limits.iso * 1.000001);
                if (limits.f_number) CHECK(made.shot.exposure.f_number <= *limits.f_number);
                if (limits.frames) CHECK(report.capture.cost.exposures <= *limits.frames);
            } else {
                CHECK(std::ranges::any_of(
                    made.gives_up, [](const GivenUp& given) { return given.what.find("_max") != std::string::npos; }));
            }
            for (std::size_t k = 0; k < made.shot.lights.size(); ++k)
                if (const auto& power = made.shot.lights[k].power;
                    power && plan::is_flash(made.shot.lights[k]) && !made.shot.lights[k].off)
                    CHECK(*power >= plan.sources[k].flash->scale.least * (1 - 1e-9));
            CHECK_FALSE(made.why.empty());
            CHECK_FALSE(made.sentence.empty());
        }
    }
}

TEST_CASE("what a plan's sentence has told is not told again as what it gives up against the first",
          "[advice][plans]") {
    Random random(43);
    int kept_more = 0, against = 0;
    for (int i = 0; i < 20; ++i) {
        const auto shoot = field_shoot(random);
        const auto plans = proposals_for(shoot.kit, shoot.shots.front(), {stated_limits(random)});
        for (const auto& plan : plans) {
            INFO(plan.sentence << " / " << plan.why);
            constexpr std::string_view gives_up = "Against the first it gives up ";
            kept_more += plan.why.find(" in the first.") != std::string::npos;
            // What is as good differs in nothing that one would see.
            if (plan.why.starts_with("As good as the first"))
                for (const auto& part : plan.worth.parts)
                    CHECK(plans.front().worth.kept(part.quality) - plan.worth.kept(part.quality) < 0.2);
            if (!plan.why.starts_with(gives_up)) continue;
            ++against;
            const auto what = plan.why.substr(gives_up.size(), plan.why.size() - gives_up.size() - 1);
            CHECK(plan.sentence.find(what) == std::string::npos);
        }
    }
    CHECK(kept_more > 0);
    CHECK(against > 0);
}

TEST_CASE("what is to be given up first is what goes", "[advice][plans]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 8;
    shot.subject.speed = 4;
    shot.sharpness.rule = BlurRule::diagonal;
    shot.rig.support = Support::hand;
    shot.ambient = Ambient{.ev100 = 11};
    shot.lights.clear();
    const auto single = [&](std::vector<Loss> order) {
        const Limits limits{.give_up = std::move(order)};
        return find(proposals_for(shoot.kit, shot, {limits}), School::single_ambient)->shot.exposure;
    };
    const auto noisy = single({Loss::iso, Loss::background, Loss::time, Loss::depth, Loss::motion}),
               thin = single({Loss::depth, Loss::background, Loss::time, Loss::motion, Loss::iso});
    CHECK(noisy.iso > thin.iso);
    CHECK(noisy.f_number > thin.f_number);
}

TEST_CASE("a live subject is not stacked, a still one is", "[advice][plans]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 7;
    shot.ambient = Ambient{.ev100 = 12};
    shot.lights.clear();
    CHECK(proposals_for(shoot.kit, shot, {usual_limits()}).front().shot.capture.mode == CaptureMode::stack);
    shot.subject.traits = {"living"};
    shot.subject.speed = 5;
    CHECK_FALSE(is_stack(proposals_for(shoot.kit, shot, {usual_limits()}).front().school));
}

TEST_CASE("with a tripod in the bag one frame on it stands among the ways, and what is in the hand stays there",
          "[advice][plans][practice]") {
    auto shoot = test::plain_shoot();
    shoot.kit.stands = {{.id = "legs", .name = "Tripod"}};
    auto& pie = shoot.shots.front();  // at a window
    pie.subject = {.width = 120, .height = 60, .depth = 80};
    pie.subject.traits = {"food"};
    pie.sharpness.rule = BlurRule::diagonal;
    pie.rig.focus.value = 0.12;
    pie.rig.support = Support::hand;
    pie.lights.clear();
    pie.ambient = Ambient{.ev100 = 7, .kind = AmbientKind::window};
    const auto plans = proposals_for(shoot.kit, pie, {});
    CHECK(plans.front().in_hand());
    CHECK(plans.front().school != School::stack_hand);
    const auto on_legs = std::ranges::find_if(
        plans, [](const Proposal& plan) { return plan.school == School::single_ambient && !plan.in_hand(); });
    REQUIRE(on_legs != plans.end());
    const auto* in_hand = find(plans, School::single_ambient);
    REQUIRE(in_hand);
    CHECK(in_hand->in_hand());
    CHECK(on_legs->shot.exposure.shutter > in_hand->shot.exposure.shutter);
    CHECK(on_legs->shot.rig.stand == "legs");
    // On the stand already it is taken there, and in no hand.
    pie.rig.support = Support::small_head;
    for (const auto& plan : proposals_for(shoot.kit, pie, {})) CHECK_FALSE(plan.in_hand());
}

TEST_CASE("what the gear does not have is no way to take it", "[advice][plans]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.ambient = Ambient{.ev100 = 11};
    shot.subject.depth = 8;
    const auto has = [&](School school) { return find(proposals_for(shoot.kit, shot, {}), school) != nullptr; };
    CHECK(has(School::stack_camera));
    shot.rig.tubes = {"plain"};  // no contacts: no bracket of the camera's own
    CHECK_FALSE(has(School::stack_camera));
    shot.rig.tubes.clear();
    shoot.kit.cameras.front().bracket.max_frames = 1;
    CHECK_FALSE(has(School::stack_camera));
    shoot.kit.rails.clear();
    CHECK_FALSE(has(School::stack_rail));
    shoot.kit.flashes.clear();
    CHECK_FALSE(has(School::single_flash));
    // A zoom's widest stop is the one it has there.
    shoot.kit.lenses.front().zoom = {{.focal_length = 60, .max_aperture = 2.8},
                                     {.focal_length = 100, .max_aperture = 5.6}};
    shot.rig.focal_length = 100;
    for (const auto& plan : proposals_for(shoot.kit, shot, {})) CHECK(plan.shot.exposure.f_number >= 5.5);
    // A lapse is one frame each time, the camera untouched.
    shot.lapse = Lapse{};
    for (const auto& plan : proposals_for(shoot.kit, shot, {})) CHECK_FALSE(is_stack(plan.school));
}

TEST_CASE("a fill that nobody would see is no plan", "[advice][plans]") {
    std::size_t fills = 0;
    for (const double ev100 : {9.0, 11.0, 13.0, 15.0}) {
        auto shoot = test::plain_shoot();
        shoot.shots.front().ambient = Ambient{.ev100 = ev100};
        for (const auto& plan : proposals_for(shoot.kit, shoot.shots.front(), {})) {
            if (plan.lit != Lit::fill) continue;
            ++fills;
            CHECK(*plan.report.light.continuous - *plan.report.light.flash < 3.01);
        }
    }
    CHECK(fills > 0);
}

TEST_CASE("what a shot keeps of another it keeps in every plan", "[advice][plans]") {
    auto shoot = test::plain_shoot();
    shoot.shots.push_back(shoot.shots.front());
    auto& shot = shoot.shots.back();
    shot.id = "two";
    shot.lights = {test::plain_light()};
    shot.lights[0].power = 0.25;
    shot.exposure = {.f_number = 11, .shutter = 1.0 / 125, .iso = 200};
    shot.follows = Follows{.shot = "one", .locks = {Lock::stop, Lock::light}, .unknown = {}};
    const auto plans = proposals_for(shoot.kit, shot, {});
    REQUIRE_FALSE(plans.empty());
    for (const auto& plan : plans) {
        CHECK(plan.shot.exposure.f_number == 11);
        CHECK(plan.shot.exposure.iso == 200);
        CHECK(plan.shot.lights == shot.lights);
    }
    // A flash that stands dark beside one that fires stays dark, locked or not.
    shot.lights.push_back(test::plain_light());
    shot.lights.back().off = true;
    for (const auto& plan : proposals_for(shoot.kit, shot, {})) CHECK(plan.shot.lights == shot.lights);
    shot.lights.pop_back();
    // Whoever corrects by the stop leaves the power where it is.
    shot.follows.reset();
    shot.exposure.lever = Lever::stop;
    const auto* lit = find(proposals_for(shoot.kit, shot, {}), School::single_flash);
    REQUIRE(lit);
    CHECK(lit->shot.lights[0].power == 0.25);
    CHECK(std::abs(*lit->report.light.front_total) < 0.5);
}
