// Step sizes: known ones are found again from noisy rules, and what follows from them is never coarser than the plan.
#include "plan/stack/step_sizes.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;
using test::WithinRel;

namespace {

/// What a camera's motor is made to do, and nobody tells.
struct Secret {
    double scale, by_setting, by_stop;
    double ring_step(double setting, double stop) const {
        return scale * std::pow(setting, by_setting) * std::pow(stop, by_stop);
    }
};

std::vector<StepReading> read_rules(test::Random& random, const Secret& secret, double noise, int count) {
    std::mt19937 engine(static_cast<unsigned>(random.whole(0, 1 << 30)));
    std::normal_distribution<double> error(0, noise);
    std::vector<StepReading> readings;
    for (int i = 0; i < count; ++i) {
        const double setting = 1 + i % 10, stop = std::exp2(1 + (i * 7 % 5) / 2.0);
        readings.push_back({.lens = "macro",
                            .setting = setting,
                            .f_number = stop,
                            .ring_step = secret.ring_step(setting, stop) * std::exp(error(engine))});
    }
    return readings;
}

}  // namespace

TEST_CASE("known step sizes are found again under noise, with their spread", "[shoot][steps]") {
    int inside = 0, spread_right = 0;
    constexpr int cases = 200;
    for (unsigned seed = 0; seed < cases; ++seed) {
        test::Random random(seed);
        const Secret secret{.scale = random.log_between(1e-5, 1e-3),
                            .by_setting = random.between(0.8, 1.3),
                            .by_stop = random.between(0, 1.2)};
        constexpr double noise = 0.05;
        const auto fit = fit_steps(read_rules(random, secret, noise, 20), "macro").value();
        const double at = random.between(1, 10), stop = random.between(2, 8);
        const double off = std::log(fit.ring_step(at, stop) / secret.ring_step(at, stop));
        // Its own share of the uncertainty, without the noise of a bracket to come.
        const double own = std::sqrt(std::pow(fit.uncertainty(at, stop), 2) - fit.spread * fit.spread);
        inside += std::abs(off) < 2 * own;
        spread_right += fit.spread > 0.6 * noise && fit.spread < 1.5 * noise;
        CHECK(std::abs(fit.by_setting - secret.by_setting) < 0.15);
        CHECK(std::abs(fit.by_stop - secret.by_stop) < 0.25);
    }
    CHECK(inside > 0.88 * cases);
    CHECK(spread_right > 0.95 * cases);
}

TEST_CASE("few readings are taken for what they can tell", "[shoot][steps]") {
    const auto one = fit_steps({{.lens = "macro", .setting = 4, .f_number = 8, .ring_step = 0.004}}, "macro").value();
    CHECK_FALSE(one.setting_fitted);
    CHECK_FALSE(one.stop_fitted);
    CHECK_THAT(one.ring_step(2, 8), WithinRel(0.002, 1e-9));   // proportional to the setting
    CHECK_THAT(one.ring_step(4, 16), WithinRel(0.004, 1e-9));  // nothing known of the stop
    CHECK(one.spread == reading_spread);
    CHECK(one.uncertainty(4, 8) > reading_spread);
    CHECK_FALSE(fit_steps({{.lens = "macro", .ring_step = 0.004}}, "other"));
    CHECK_FALSE(fit_steps({}, "macro"));
    // Setting and stop always changed together: the fit is what was read there, and finite elsewhere.
    const auto tied = fit_steps({{.lens = "macro", .setting = 2, .f_number = 4, .ring_step = 0.002},
                                 {.lens = "macro", .setting = 4, .f_number = 8, .ring_step = 0.008}},
                                "macro")
                          .value();
    CHECK_THAT(tied.ring_step(2, 4), WithinRel(0.002, 1e-6));
    CHECK_THAT(tied.ring_step(4, 8), WithinRel(0.008, 1e-6));
    CHECK(std::isfinite(tied.uncertainty(9, 2.8)));
}

TEST_CASE("a photographed bracket becomes a share of the ring's travel", "[shoot][steps]") {
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        const auto shoot = test::plain_shoot();
        const auto train = train_of(shoot.kit, shoot.shots[0].rig);
        const double ring = random.between(0.3, 0.8), step = random.between(1e-4, 3e-3);
        const int frames = random.whole(2, 40);
        const double travel = *optics::focus_at_ring(train, ring - step * (frames - 1)).subject_to_sensor -
                              *optics::focus_at_ring(train, ring).subject_to_sensor;
        INFO("seed " << seed);
        CHECK_THAT(ring_step_of(train, ring, travel, frames).value(), WithinRel(step, 1e-6));
    }
    // The rate is the derivative: unit focusing, f = 100, M = 1: d(u + v)/dm = f (1 - 1/m^2), -300 mm at m = 0.5.
    const auto shoot = test::plain_shoot();
    CHECK_THAT(travel_per_ring(train_of(shoot.kit, shoot.shots[0].rig), 0.5), WithinRel(-300, 1e-6));
}

TEST_CASE("the setting that is named never steps wider than the plan", "[shoot][steps]") {
    int named = 0, finest = 0;
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        auto shoot = test::plain_shoot();
        auto& camera = shoot.kit.cameras[0];
        camera.bracket.step_settings = 10;
        camera.bracket.max_frames = 500;
        const Secret secret{
            .scale = random.log_between(3e-5, 1e-3), .by_setting = 1, .by_stop = random.coin() ? 1.0 : 0.0};
        camera.step_readings = read_rules(random, secret, 0.03, 12);
        Shot& shot = shoot.shots[0];
        shot.subject.depth = random.between(3, 30);
        shot.exposure.f_number = random.between(2.8, 11);
        shot.capture = {.mode = CaptureMode::stack, .overlap = random.between(0, 0.5), .mover = Mover::ring};
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto report = assess(shoot.kit, shot, {});
        REQUIRE(report.capture.stack->bracket());
        const auto& bracket = *report.capture.stack->bracket();
        CHECK_FALSE(bracket.unmeasured);
        INFO("seed " << seed);
        if (!bracket.choice) {
            CHECK(bracket.too_coarse);
            continue;
        }
        ++named;
        const auto& choice = *bracket.choice;
        finest += choice.setting == 1;
        CHECK(choice.greatest <= *report.capture.by_rule.step * 1.2);  // at the planned plane; the near end decides
        // Frames planned for the shortest likely step still reach the end of the span.
        const double reach = (report.capture.frames - 1) * choice.least_ring_step;
        CHECK(reach >= report.capture.stack->ring()->first_ring - report.capture.stack->ring()->last_ring - 1e-9);
        // The real steps, whatever the fit says, leave no gap anywhere.
        double before = -1e9;
        for (double i = 0; i < report.capture.frames; ++i) {
            const double ring =
                report.capture.stack->ring()->first_ring - i * secret.ring_step(choice.setting, shot.exposure.f_number);
            if (ring <= 0) break;
            const auto at = optics::focus_at_ring(plan.train, ring);
            const auto reach_of = frame_reach(plan, at, shot.exposure.f_number).value();
            const double plane = *at.subject_to_sensor - *plan.at.subject_to_sensor + plan.extent.depth / 2;
            if (i > 0) CHECK(plane - reach_of.near <= before * (1 + 1e-6) + 1e-6);
            before = plane + reach_of.far;
            if (before > plan.extent.depth) break;
        }
        CHECK(before >= plan.extent.depth - 1e-6);
    }
    CHECK(named > 150);
    CHECK(finest < named / 2);
}

TEST_CASE("the next wider setting would be too wide for the plan", "[shoot][steps]") {
    int compared = 0;
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        auto shoot = test::plain_shoot();
        auto& camera = shoot.kit.cameras[0];
        camera.bracket.step_settings = 10;
        const Secret secret{.scale = 2e-4, .by_setting = random.between(0.8, 1.2), .by_stop = random.between(0, 1)};
        camera.step_readings = read_rules(random, secret, 0.08, 9);
        const auto fit = fit_steps(camera.step_readings, "macro").value();
        const double stop = random.between(2.8, 11), wanted = random.log_between(1e-4, 5e-3);
        const auto plan = plan_of(shoot.kit, shoot.shots[0], {});
        const auto choice = choose_step(plan, stop, wanted);
        const auto widest = [&](double setting) {
            return fit.ring_step(setting, stop) * std::exp(2 * fit.uncertainty(setting, stop));
        };
        INFO("seed " << seed);
        if (!choice) {
            CHECK(widest(1) > wanted);
            continue;
        }
        CHECK(widest(choice->setting) <= wanted);
        if (choice->setting < 10) {
            CHECK(widest(choice->setting + 1) > wanted);
            ++compared;
        }
        // What is said of it at the subject is that share of the ring, at the rate it has there.
        const double rate = std::abs(travel_per_ring(plan.train, plan.at.ring));
        CHECK_THAT(choice->step, WithinRel(choice->ring_step * rate, 1e-9));
        CHECK_THAT(choice->greatest, WithinRel(widest(choice->setting) * rate, 1e-9));
        CHECK_THAT(choice->least * choice->greatest, WithinRel(choice->step * choice->step, 1e-9));
        CHECK_THAT(choice->least_ring_step * rate, WithinRel(choice->least, 1e-9));
    }
    CHECK(compared > 60);
}
