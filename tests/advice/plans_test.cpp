// Whole plans against a search written apart from them: every setting of the grid assessed in full, its losses read off
// the report.
#include "advice/plans.hpp"

#include "light/power.hpp"
#include "plan/assess.hpp"
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
using test::WithinAbs;

namespace {

constexpr double per_third = 0.2;  // stops a setting in thirds may be off

/// Losses and passed limits as a person would read them off a report; dearest first.
struct Read {
    std::vector<double> excess, losses;
    bool operator<(const Read& other) const {
        for (std::size_t i = 0; i < excess.size(); ++i)
            for (const auto& [mine, others] : {std::pair(excess[i], other.excess[i])})
                if (std::abs(mine - others) > 2e-6) return mine < others;
        for (std::size_t i = 0; i < losses.size(); ++i)
            if (std::abs(losses[i] - other.losses[i]) > 2e-6) return losses[i] < other.losses[i];
        return false;
    }
};

Read read_off(const gear::Kit& kit, const Shot& shot, const Limits& limits) {
    const auto report = plan::assess(kit, shot);
    const double depth = report.extent.depth, from = shot.capture.slice ? shot.capture.slice->from : 0,
                 to = shot.capture.slice ? shot.capture.slice->to : depth;
    double held = to - from;
    if (report.capture.frames <= 1) {
        const double offset = shot.sharpness.focus_offset, middle = (from + to) / 2 + offset;
        held = std::min(to, middle + report.sharpness.far.value_or(1e9)) -
               std::max(from, middle - report.sharpness.near.value_or(1e9));
        held = std::max(0.0, held);
    }
    const double pitch = kit.cameras.front().sensor.width / kit.cameras.front().sensor.width_px;
    double smear =
        std::max({report.motion.blur, report.motion.sway_blur, report.motion.hand_blur}) - report.sharpness.blur_limit;
    double motion = std::max(0.0, smear) / pitch;
    if (report.capture.frames > 1) {
        const double wanders = shot.subject.speed * report.capture.paced_duration;
        const double may = std::min(report.sharpness.blur_limit / report.optics.magnification,
                                    shot.capture.overlap * *report.capture.frame_depth);
        motion += std::max(0.0, wanders - may) * report.optics.magnification / pitch;
    }
    double background = 0;
    if (shot.background)
        background = std::max(0.0, *report.light.front_total -
                                       (*report.light.background - std::log2(shot.background->reflectance / 0.18)));
    background = std::max(0.0, background - 1);  // a stop is not missed, nor half a minute
    const double minutes = report.capture.paced_duration / 60;
    // Order: background, time, ISO, depth, movement; backwards.
    const auto past = [](double value, std::optional<double> limit) {
        return limit && value > *limit * 1.000001 ? std::log2(value / *limit) : 0;
    };
    double waiting = 0;
    if (limits.frames) waiting += std::max(0.0, report.capture.cost.exposures - *limits.frames);
    if (limits.minutes) waiting += std::max(0.0, minutes - *limits.minutes);
    const double by_hand = shot.rig.support == Support::hand ? past(shot.exposure.shutter, limits.shutter_by_hand) : 0;
    return {.excess = {by_hand, 0, past(shot.exposure.iso, limits.iso), waiting},
            .losses = {motion, to - from - held, std::max(0.0, std::log2(shot.exposure.iso / 100)),
                       std::max(0.0, minutes - 0.5), background}};
}

std::vector<double> f_numbers(const gear::Kit& kit, const Shot& shot, const Limits& limits, bool stack) {
    std::vector<double> all;
    const auto& lens = kit.lenses.front().optics;
    for (double f = lens.max_aperture; all.empty() || f > all.back(); f = text::step_f_number(f, 1)) {
        if (f > lens.min_aperture * 1.001 || (limits.f_number && f > *limits.f_number * 1.000001)) break;
        Shot one = shot;
        one.exposure.f_number = f;
        const auto sharp = plan::assess(kit, one).sharpness;
        if (!all.empty() && sharp.airy_diameter > sharp.blur_limit * (stack ? 1 : 2)) break;
        all.push_back(f);
    }
    return all;
}

/// The best of the grid, settings tried one by one. `flash`: the one light of the shot fires.
Read brute_force(const gear::Kit& kit, Shot shot, const Limits& limits, bool flash) {
    std::optional<Read> best;
    const auto stops = f_numbers(kit, shot, limits, shot.capture.mode == CaptureMode::stack);
    for (const double f : stops)
        for (double t = 30, last = 1e9; t < last && t >= 0.999 / 8000; last = t, t = text::step_shutter(t, -1)) {
            if (flash && t < kit.cameras.front().sync * (1 - 1e-9)) break;
            std::optional<std::pair<double, Read>> exposed;  // of one time the ISO that exposes best
            for (double iso = 100, before = 0; iso > before && iso <= 102400;
                 before = iso, iso = text::step_iso(iso, 1)) {
                Shot one = shot;
                one.exposure = {.f_number = f, .shutter = t, .iso = iso};
                if (flash) {
                    one.lights.front().power.reset();
                    const auto wants = plan::assess(kit, one);
                    const double power = wants.light.sources.front().power;
                    const auto& scale = kit.flashes.front().scale;
                    if (!wants.light.sources.front().fires || power > std::exp2(per_third) ||
                        power < scale.least * std::exp2(-per_third))
                        continue;
                    if (1 - std::exp2(wants.light.continuous.value_or(-99)) < 0.25) continue;
                    one.lights.front().power = light::nearest_setting(scale, power);
                }
                const double off = std::abs(plan::assess(kit, one).light.front_total.value_or(-99));
                if (off > per_third) continue;
                if (!flash && exposed && exposed->first <= off) continue;
                exposed = {off, read_off(kit, one, limits)};
                if (flash && (!best || exposed->second < *best)) best = exposed->second;
            }
            if (!flash && exposed && (!best || exposed->second < *best)) best = exposed->second;
        }
    REQUIRE(best);
    return *best;
}

const WholePlan* find(const std::vector<WholePlan>& plans, School school) {
    const auto found = std::ranges::find(plans, school, &WholePlan::school);
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

}  // namespace

TEST_CASE("no setting of the grid loses less than the plan of its school", "[advice][plans]") {
    Random random(41);
    for (int i = 0; i < 6; ++i) {
        const auto shoot = field_shoot(random);
        const auto& shot = shoot.shots.front();
        const Limits limits{.iso = 1600, .shutter_by_hand = 1.0 / 160, .f_number = 22, .frames = 200, .minutes = 30};
        const auto plans = whole_plans(shoot.kit, shot, limits);
        for (const auto school : {School::single_ambient, School::single_flash}) {
            const auto* made = find(plans, school);
            INFO(i << " " << school_id(school));
            REQUIRE(made);
            Shot begun = made->shot;
            const Read mine = read_off(shoot.kit, begun, limits);
            const Read best = brute_force(shoot.kit, begun, limits, school == School::single_flash);
            CHECK_FALSE(best < mine);
            CHECK_FALSE(mine < best);
        }
    }
}

TEST_CASE("what a plan says it loses is what its shot comes to, and it keeps what it says it keeps",
          "[advice][plans]") {
    Random random(42);
    for (int i = 0; i < 40; ++i) {
        const auto shoot = field_shoot(random);
        const auto& shot = shoot.shots.front();
        Limits limits{.iso = 800, .shutter_by_hand = 1.0 / 125, .f_number = 16, .frames = 60, .minutes = 10};
        const auto plans = whole_plans(shoot.kit, shot, limits);
        REQUIRE(plans.size() >= 2);
        bool good = true;
        for (const auto& plan : plans) {
            INFO(i << " " << school_id(plan.school));
            CHECK(std::abs(plan.report.light.front_total.value()) <= per_third + 1e-9);
            const bool fits = plan.keeps_limits && !plan.stopped;
            CHECK((good || !fits));  // best first
            good = good && fits;
            if (plan.keeps_limits) {
                CHECK(plan.shot.exposure.iso <= *limits.iso);
                CHECK(plan.shot.exposure.f_number <= *limits.f_number);
                CHECK(plan.report.capture.cost.exposures <= *limits.frames);
                if (plan.shot.rig.support == Support::hand)
                    CHECK(plan.shot.exposure.shutter <= *limits.shutter_by_hand);
            } else {
                CHECK(std::ranges::any_of(
                    plan.gives_up, [](const GivenUp& given) { return given.what.find("_max") != std::string::npos; }));
            }
            // Taken and asked again it stays as it is.
            const auto again = whole_plans(shoot.kit, plan.shot, limits);
            const auto* same = find(again, plan.school);
            REQUIRE(same);
            CHECK(same->shot.exposure == plan.shot.exposure);
        }
    }
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
        const Limits limits{.iso = 3200, .give_up = std::move(order)};
        return find(whole_plans(shoot.kit, shot, limits), School::single_ambient)->shot.exposure;
    };
    const auto noisy = single({Loss::iso, Loss::depth, Loss::motion}),
               thin = single({Loss::depth, Loss::iso, Loss::motion}),
               blurred = single({Loss::motion, Loss::iso, Loss::depth});
    CHECK(noisy.iso > thin.iso);
    CHECK(noisy.f_number > thin.f_number);
    CHECK(blurred.shutter > noisy.shutter);
    CHECK(blurred.f_number >= noisy.f_number);
}

TEST_CASE("a live subject is not stacked, a still one is", "[advice][plans]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 7;
    shot.ambient = Ambient{.ev100 = 12};
    shot.lights.clear();
    CHECK(whole_plans(shoot.kit, shot, usual_limits()).front().shot.capture.mode == CaptureMode::stack);
    shot.subject.traits = {"living"};
    const auto best = whole_plans(shoot.kit, shot, usual_limits()).front();
    CHECK((best.school == School::single_flash || best.school == School::single_ambient));
}
