// Plans of stacks: no point of the span outside every frame's depth, whoever moves the focus; what it costs in time.
#include "plan/stack/stack_plan.hpp"
#include "advice/advice.hpp"
#include "optics/depth.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <deque>

using namespace poquito;
using namespace poquito::text;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::advice;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

/// A stack that can be anything a person would set, near enough to have a size.
Shot random_stack(test::Random& random, Shoot& shoot) {
    Shot shot = shoot.shots.front();
    auto& lens = shoot.kit.lenses.front().optics;
    if (random.coin()) {
        lens.focusing = optics::Focusing::internal;
        lens.hiatus = random.between(-5, 15);
    }
    lens.pupil_magnification = random.between(0.7, 1.5);
    if (random.coin(0.3)) shot.rig.tubes = {"t20"};
    if (random.coin(0.2)) shot.rig.closeup_lenses = {"c4"};
    shot.rig.focus = {.by = FocusBy::ring, .value = random.between(0.15, 0.9)};
    shot.subject.depth = random.log_between(0.2, 40);
    shot.exposure.f_number = random.log_between(2.8, 16);
    shot.sharpness.focus_offset = random.between(-0.3, 0.3) * shot.subject.depth;
    shot.capture = {.mode = CaptureMode::stack,
                    .depth_rule = static_cast<DepthRule>(random.whole(0, 2)),
                    .contrast_kept = random.between(0.5, 0.9),
                    .overlap = random.between(0, 0.6),
                    .lead = random.coin() ? random.between(0, 1) : 0,
                    .tail = random.coin() ? random.between(0, 1) : 0,
                    .mover = random.coin() ? Mover::ring : Mover::rail};
    if (random.coin(0.3)) {
        const double from = random.between(0, 0.5) * shot.subject.depth;
        shot.capture.slice = Slice{.from = from, .to = random.between(from, shot.subject.depth)};
    }
    if (random.coin(0.5)) {
        shot.rig.rail = "rail";
        shoot.kit.rails[0].step = random.log_between(1e-4, 3e-3);
        if (random.coin()) {
            shoot.kit.rails[0].pitch = random.between(0.5, 2);
            shoot.kit.rails[0].steps_per_turn = random.whole(200, 6400);
        }
    }
    return shot;
}

/// How far each frame is sharp in front of its plane and behind it, worked out from its own focus.
std::vector<std::pair<double, double>> sharp_ranges(const Plan& plan, const Report& report) {
    std::vector<std::pair<double, double>> ranges;
    for (const auto& frame : stack_frames(plan, report)) {
        const auto at = frame.ring ? optics::focus_at_ring(plan.train, *frame.ring) : plan.at;
        const auto reach = frame_reach(plan, at, plan.shot.exposure.f_number).value();
        ranges.emplace_back(frame.plane - reach.near, frame.plane + reach.far);
    }
    return ranges;
}

}  // namespace

TEST_CASE("a flash is whole for as many frames of a fast bracket as its store holds", "[plan][stack][light]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = CaptureMode::stack;
    shot.capture.mover = Mover::ring;
    shot.capture.overlap = 0.97;  // many frames
    shot.exposure.shutter = 1.0 / 200;
    shot.lights = {{.flash = "flash", .position = {.distance = 500}, .power = 1.0 / 16}};
    auto& flash = shoot.kit.flashes[0];
    flash.recycle_full = 2.5;
    const auto whole = [&] { return plan::assess(shoot.kit, shot, {}).light.sources[0].whole_frames; };
    REQUIRE(plan::assess(shoot.kit, shot, {}).capture.frames > 45);
    CHECK_FALSE(whole());  // as slow as brackets usually go it keeps up
    shot.capture.cadence = 0.1;
    CHECK(whole() == 42.0);  // MODEL 12, arithmetic
    flash.burst_store = 0.5;
    CHECK(whole() == 20.0);
    shot.lights[0].power = 0.6;
    CHECK(whole() == 0.0);
    // Fewer frames than that: all are whole.
    shot.lights[0].power = 1.0 / 16;
    shot.capture.overlap = 0.25;
    CHECK_FALSE(whole());
    // The interval that is set rules where the camera's own cadence is not known; by hand each burst begins afresh.
    shot.capture.overlap = 0.97;
    shot.capture.cadence.reset();
    shot.capture.interval = 0.1;
    CHECK(whole() == 20.0);
    shot.capture.mover = Mover::hand;
    shot.capture.hand = {.frames_per_second = 10, .burst = 1.5};
    CHECK_FALSE(whole());
    shot.capture.hand.burst = 4;
    CHECK(whole() == 20.0);
}

TEST_CASE("every point of the span lies within some frame's depth, by ring and by rail, by each rule",
          "[shoot][stack]") {
    int by_ring = 0, by_rail = 0, by_rule[3] = {};
    for (unsigned seed = 0; seed < 3000; ++seed) {
        test::Random random(seed);
        Shoot shoot = test::plain_shoot();
        const Shot shot = random_stack(random, shoot);
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto report = assess(shoot.kit, shot, {});
        const auto& capture = report.capture;
        if (!capture.step && capture.frames < 2 && !capture.stack) continue;
        if (!capture.stack || capture.frames > 3000) continue;
        if (shot.capture.mover == Mover::ring && !capture.stack->ring()) continue;                   // said in a note
        if (capture.stack->rail() && *capture.by_rule.step < capture.stack->rail()->unit) continue;  // said in a note
        (capture.stack->ring() ? by_ring : by_rail) += 1;
        ++by_rule[static_cast<int>(shot.capture.depth_rule)];
        INFO("seed " << seed << ", frames " << capture.frames);
        const auto ranges = sharp_ranges(plan, report);
        REQUIRE(ranges.size() == static_cast<std::size_t>(capture.frames));
        const auto& span = capture.stack->span;
        const double hair = 1e-6 * (1 + span.length());
        CHECK(ranges.front().first <= span.from + hair);
        CHECK(ranges.back().second >= span.to - hair);
        for (std::size_t i = 1; i < ranges.size(); ++i) {
            if (ranges[i].first > ranges[i - 1].second + hair) {
                CAPTURE(i, ranges[i].first - ranges[i - 1].second);
                FAIL("a gap between two frames");
            }
        }
        // Never coarser than the rule; by rail in whole steps.
        if (capture.stack->rail()) CHECK(*capture.step <= *capture.by_rule.step * (1 + 1e-9));
        if (capture.stack->rail() && capture.stack->rail()->unit > 0) {
            const double units = *capture.step / capture.stack->rail()->unit;
            CHECK_THAT(units, same(std::round(units)));
        }
    }
    CHECK(by_ring > 500);
    CHECK(by_rail > 1000);
    for (const int count : by_rule) CHECK(count > 300);
}

TEST_CASE("frames by hand calculation", "[shoot][stack]") {
    // m = 0.5, marked f/8, P = 1: N_w = 8 * 1.5 = 12. A quarter wave: 4 * 550e-6 * 144 / 0.25 = 1.2672 mm a frame.
    // Overlap 0.25: a step of 0.9504. Subject 8 mm, lead and tail 0.5: 9 mm. (9 - 1.2672)/0.9504 = 8.136: 10 frames.
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 8;
    shot.capture = {.mode = CaptureMode::stack,
                    .depth_rule = DepthRule::quarter_wave,
                    .overlap = 0.25,
                    .lead = 0.5,
                    .tail = 0.5,
                    .mover = Mover::rail};
    auto report = assess(shoot.kit, shot, {});
    CHECK_THAT(*report.capture.frame_depth, WithinRel(1.2672, 1e-9));
    CHECK_THAT(*report.capture.step, WithinRel(0.9504, 1e-9));
    CHECK(report.capture.frames == 10);
    // Covered: 9 * 0.9504 + 1.2672 = 9.8208, 0.4104 too much at either end; the first plane half a depth behind that.
    CHECK_THAT(report.capture.stack->first, WithinRel(-0.5 - 0.4104 + 0.6336, 1e-9));

    SECTION("a screw of 1 mm a turn and 200 steps: 190 of them, never 190.08") {
        shot.rig.rail = "rail";
        shoot.kit.rails[0] = {.id = "rail",
                              .name = "Rail",
                              .travel = 10.2,
                              .step = 0.005,
                              .pitch = 1,
                              .steps_per_turn = 200,
                              .backlash = 0.03,
                              .speed = 2};
        report = assess(shoot.kit, shot, {});
        const auto& rail = *report.capture.stack->rail();
        CHECK(rail.units == 190);
        CHECK_THAT(*report.capture.step, WithinRel(0.95, 1e-9));
        CHECK_THAT(*rail.turns, WithinRel(0.95, 1e-9));
        CHECK(rail.motor);
        CHECK(report.capture.frames == 10);
        CHECK_THAT(rail.travel, WithinRel(9 * 0.95 + 0.06, 1e-9));
        CHECK_THAT(rail.spare, WithinRel(10.2 - 8.61, 1e-9));
        // Working distance 2 * 100 + 100 - ... is the report's; the lens comes as near as the last plane is deep.
        CHECK_THAT(*rail.clearance, same(*report.optics.working_distance - report.capture.stack->last));
    }
    SECTION("only the slice from 2 to 5 mm, no lead nor tail: (3 - 1.2672)/0.9504 = 1.82, 3 frames") {
        shot.capture.slice = Slice{.from = 2, .to = 5};
        shot.capture.lead = shot.capture.tail = 0;
        report = assess(shoot.kit, shot, {});
        CHECK(report.capture.frames == 3);
        CHECK(report.capture.stack->span.from == 2);
        CHECK(report.capture.stack->span.to == 5);
        CHECK_THAT((report.capture.stack->first + report.capture.stack->last) / 2, WithinRel(3.5, 1e-9));
    }
    SECTION("a motor whose steps are finer than what can be set stops at whole motor steps") {
        CHECK_THAT(least_step({.step = 0.01, .pitch = 1, .steps_per_turn = 300}), WithinRel(3.0 / 300, 1e-12));
        CHECK_THAT(least_step({.step = 0.001, .pitch = 1, .steps_per_turn = 200}), WithinRel(0.005, 1e-12));
    }
}

TEST_CASE("what the rule alone gives stays what MODEL says, whatever the gear makes of it", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        Shoot shoot = test::plain_shoot();
        Shot shot = random_stack(random, shoot);
        shot.capture.slice.reset();
        const auto report = assess(shoot.kit, shot, {});
        const auto& capture = report.capture;
        if (!capture.by_rule.step) continue;
        INFO("seed " << seed);
        const double span = report.extent.depth + shot.capture.lead + shot.capture.tail;
        const double step = *capture.frame_depth * (1 - shot.capture.overlap);
        CHECK_THAT(*capture.by_rule.step, same(step));
        CHECK(capture.by_rule.frames == std::max(1.0, std::ceil((span - *capture.frame_depth) / step - 1e-9) + 1));
        CHECK_THAT(capture.by_rule.duration, same(capture.by_rule.frames * shot.exposure.shutter));
    }
}

TEST_CASE("by ring the planes lie where ray matrices put them", "[shoot][stack]") {
    // The plane of focus is where the matrix from there to the sensor has no b: MODEL 1's principle, traced anew.
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        Shoot shoot = test::plain_shoot();
        Shot shot = random_stack(random, shoot);
        shot.capture.mover = Mover::ring;
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto report = assess(shoot.kit, shot, {});
        if (!report.capture.stack || !report.capture.stack->ring() || report.capture.frames > 500) continue;
        INFO("seed " << seed);
        const double sensor = *report.optics.subject_to_sensor;
        // Focus lies in the middle of what has to be sharp.
        const double depth = plan.extent.depth;
        double planned = depth / 2 + shot.sharpness.focus_offset;
        if (const auto& slice = shot.capture.slice)
            planned += (std::min(slice->from, depth) + std::min(slice->to, depth) - depth) / 2;
        for (const auto& frame : stack_frames(plan, report)) {
            const auto at = optics::focus_at_ring(plan.train, *frame.ring);
            const double air = sensor + frame.plane - planned - at.front;
            // (a b; c d) times a gap of `air`: height at the sensor from the slope at the subject is a * air + b.
            CHECK(std::abs(at.whole.a * air + at.whole.b) < 1e-6 * air);
        }
    }
}

TEST_CASE("a ring that ends before the stack says what is missing, and going back from closest focus mends it",
          "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    auto& lens = shoot.kit.lenses[0].optics;
    lens.max_magnification = 0.5;
    lens.closest_focus = 460;
    shot.subject.depth = 10;
    shot.rig.focus = {.by = FocusBy::ring, .value = 1};
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
    const auto report = assess(shoot.kit, shot, {});
    REQUIRE(report.capture.stack->out_of_reach());
    // The planned plane is 5 mm behind the nearest point and nothing nearer can be had.
    CHECK_THAT(report.capture.stack->out_of_reach()->in_front, WithinRel(5 - report.capture.stack->first, 1e-6));
    const auto notes = advise(shoot.kit, shot, {}).notes;
    const auto note = std::ranges::find(notes, "ring-cannot-step", &Note::code);
    REQUIRE(note != notes.end());
    REQUIRE(note->remedy);
    CHECK(note->remedy->label == "Start at closest focus and go back");
    const auto mended = assess(shoot.kit, note->remedy->shot, {});
    REQUIRE(mended.capture.stack->ring());
    CHECK(mended.capture.stack->ring()->first_ring <= 1);
    CHECK(mended.capture.stack->ring()->first_ring > 0.97);
    CHECK(mended.capture.stack->ring()->room_in_front >= 0);
}

TEST_CASE("brackets beyond the camera's limit are split with a frame of overlap", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 20;
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
    shoot.kit.cameras[0].bracket.max_frames = 8;
    const auto plan = plan_of(shoot.kit, shot, {});
    auto report = assess(shoot.kit, shot, {});
    REQUIRE(report.capture.frames > 20);
    const auto& nearest = *report.capture.stack->bracket();
    CHECK(nearest.before == 0);
    CHECK(nearest.behind == 7);
    std::size_t next = 0;
    const auto frames = stack_frames(plan, report);
    for (const auto& pass : nearest.passes) {
        CHECK(pass.first == (next == 0 ? 0 : next - 1));
        CHECK(pass.frames <= 8);
        CHECK_THAT(pass.focus, WithinRel(frames[pass.first].plane, 1e-6));
        next = pass.first + pass.frames;
    }
    CHECK(next == frames.size());

    shoot.kit.cameras[0].bracket.start = BracketStart::centre;
    report = assess(shoot.kit, shot, {});
    const auto& centre = *report.capture.stack->bracket();
    CHECK(centre.before == 3);  // of eight: three nearer, the one it starts at, four behind it
    CHECK(centre.behind == 4);
    CHECK_THAT(centre.passes[0].focus, WithinRel(frames[3].plane, 1e-6));
}

TEST_CASE("a plain bracket goes from its focus away, a composite lies about it: 7 + 1 + 7 and 1 + 1 + 1",
          "[shoot][stack]") {
    // Common practice of cameras that combine themselves.
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
    shoot.kit.cameras[0].bracket = {.max_frames = 200, .composite_max_frames = 15, .combine = 12};
    const auto of = [&](double frames) {
        // As deep as it takes for so many.
        for (shot.subject.depth = 0.2; assess(shoot.kit, shot, {}).capture.frames < frames;) shot.subject.depth += 0.02;
        const auto report = assess(shoot.kit, shot, {});
        REQUIRE(report.capture.frames == frames);
        return *report.capture.stack->bracket();
    };
    shot.capture.composite = true;
    CHECK(of(15).before == 7);
    CHECK(of(15).behind == 7);
    CHECK(of(3).before == 1);
    CHECK(of(3).behind == 1);
    const double seconds = assess(shoot.kit, shot, {}).capture.cost.seconds;
    shot.capture.composite = false;
    CHECK(of(15).before == 0);
    CHECK(of(15).behind == 14);
    CHECK_THAT(seconds, WithinRel(
                            [&] {
                                of(3);
                                return assess(shoot.kit, shot, {}).capture.cost.seconds + 12;
                            }(),
                            1e-9));  // it combines, and takes nothing meanwhile
}

TEST_CASE("a bracket that is stopped by hand leaves what its frames reached", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 10;
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
    shoot.kit.cameras[0].bracket = {.max_frames = 200, .cadence = 0.3};
    const auto plan = plan_of(shoot.kit, shot, {});
    const auto report = assess(plan);
    CHECK(report.capture.cost.cadence.frame == 0.3);  // the camera's own, where the shot says none
    const auto& capture = report.capture;
    CHECK(held_after(plan, capture, 0) == 0);
    CHECK_THAT(held_after(plan, capture, capture.frames), WithinAbs(1, 0.02));
    const auto reach = frame_reach(plan, plan.at, shot.exposure.f_number);
    const auto frames = stack_frames(plan, report);
    double before = 0;
    for (double n = 1; n <= capture.frames; ++n) {
        const double held = held_after(plan, capture, n);
        CHECK(held >= before);
        // By the plane of its last frame, as the stack has it; the ring's steps are not quite even.
        CHECK_THAT(held,
                   WithinAbs(std::min(1.0, (frames[static_cast<std::size_t>(n) - 1].plane + reach->far) / 10), 0.02));
        before = held;
    }
    // Of a zone within the depth the share is the zone's.
    shot.capture.slice = Slice{.from = 4, .to = 8};
    const auto in_zone = plan_of(shoot.kit, shot, {});
    const auto of_zone = assess(in_zone);
    const auto zone_frames = stack_frames(in_zone, of_zone);
    for (double n = 1; n <= of_zone.capture.frames; ++n)
        CHECK_THAT(
            held_after(in_zone, of_zone.capture, n),
            WithinAbs(std::clamp((zone_frames[static_cast<std::size_t>(n) - 1].plane + reach->far - 4) / 4, 0.0, 1.0),
                      0.03));
}

TEST_CASE("the odds of a sway are those of a simulation", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 40; ++seed) {
        test::Random random(seed);
        const HandHeld sway{.frames_per_second = random.between(3, 20),
                            .burst = random.between(0.2, 3),
                            .speed = random.log_between(1, 20),
                            .range = random.log_between(1, 20)};
        const double depth = random.log_between(0.05, 2), offset = random.between(-0.45, 0.45) * sway.range;
        const auto odds = sway_odds(sway, depth, offset);
        const auto frames = static_cast<int>(std::floor(sway.frames_per_second * sway.burst + 1e-9));
        int hits = 0;
        constexpr int trials = 20000;
        for (int t = 0; t < trials; ++t) {
            // A camera that walks to and fro, begun anywhere on its way.
            double at = random.between(-sway.range / 2, sway.range / 2);
            double way = random.coin() ? 1 : -1;
            bool hit = false;
            for (int f = 0; f < std::max(frames, 1) && !hit; ++f) {
                hit = std::abs(at - offset) <= depth / 2;
                double left = sway.speed / sway.frames_per_second;
                while (left > 0) {
                    const double room = way > 0 ? sway.range / 2 - at : at + sway.range / 2;
                    const double go = std::min(left, room);
                    at += way * go;
                    left -= go;
                    if (left > 0) way = -way;
                }
            }
            hits += hit;
        }
        const double found = static_cast<double>(hits) / trials;
        INFO("seed " << seed << ", chance " << odds.chance << ", found " << found);
        CHECK(std::abs(found - odds.chance) < 4 * std::sqrt(0.25 / trials));
        if (odds.chance > 0 && odds.chance < 1) {
            CHECK(std::pow(1 - odds.chance, odds.bursts) <= 0.05 + 1e-9);
            CHECK((odds.bursts == 1 || std::pow(1 - odds.chance, odds.bursts - 1) > 0.05));
        }
    }
    // Frames closer together than the depth, a burst longer than a sway: it cannot miss.
    CHECK_THAT(sway_odds({.frames_per_second = 10, .burst = 3, .speed = 2, .range = 2}, 0.3).chance, same(1));
    CHECK(sway_odds({.range = 4}, 0.1, 3).chance == 0);
}

TEST_CASE("as many bursts as are named for a whole stack leave a plane out in at most one of twenty",
          "[shoot][stack]") {
    test::Random random(3);
    const HandHeld sway{.frames_per_second = 10, .burst = 1, .speed = 7.3, .range = 6};
    const double depth = 0.4, step = 0.3;
    constexpr int planes = 6;
    const double bursts = bursts_for_all(sway_odds(sway, depth, (planes - 1) * step / 2), planes);
    REQUIRE(bursts > 2);
    int complete = 0;
    constexpr int trials = 4000;
    for (int t = 0; t < trials; ++t) {
        std::vector<bool> seen(planes);
        for (int b = 0; b < static_cast<int>(bursts); ++b) {
            double phase = random.between(0, 2 * sway.range);
            for (int f = 0; f < 10; ++f) {
                const double p = std::fmod(phase + f * sway.speed / sway.frames_per_second, 2 * sway.range);
                const double at = p < sway.range ? p - sway.range / 2 : 1.5 * sway.range - p;
                for (int k = 0; k < planes; ++k)
                    if (std::abs(at - (k - (planes - 1) / 2.0) * step) <= depth / 2)
                        seen[static_cast<std::size_t>(k)] = true;
            }
        }
        complete += std::ranges::count(seen, false) == 0;
    }
    CHECK(complete >= 0.95 * trials);
}

TEST_CASE("a stack by hand takes bursts, and says how large it may be", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 4;
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::hand};
    shot.capture.hand = {.frames_per_second = 12, .burst = 1, .speed = 6, .range = 6};
    const auto report = assess(shoot.kit, shot, {});
    const auto& hand = *report.capture.stack->hand();
    CHECK(hand.burst_frames == 12);
    CHECK(report.capture.cost.exposures == hand.bursts * 12);
    CHECK(report.capture.data_mb == report.capture.cost.exposures * 30);
    const auto bursts_for = [&](double planes) {
        return bursts_for_all(
            sway_odds(shot.capture.hand, *report.capture.frame_depth, (planes - 1) * *report.capture.step / 2), planes);
    };
    CHECK(bursts_for(hand.largest) <= most_bursts);
    CHECK(bursts_for(hand.largest + 1) > most_bursts);
    REQUIRE(hand.braced.size() == braces().size());
    for (std::size_t i = 1; i < hand.braced.size(); ++i) CHECK(hand.braced[i].chance >= hand.braced[i - 1].chance);
}

TEST_CASE("waits for a full buffer are those of a queue", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        const int frames = random.whole(1, 200);
        const double interval = random.between(0.05, 2), write = random.between(0.05, 2);
        const int room = random.whole(1, 40);
        // Event by event: a frame is exposed when the interval is over and the one `room` before it is written.
        std::deque<double> written;
        double time = 0, card = 0;
        for (int k = 0; k < frames; ++k) {
            if (k > 0) time += interval;
            if (static_cast<int>(written.size()) == room) {
                time = std::max(time, written.front());
                written.pop_front();
            }
            card = std::max(card, time) + write;
            written.push_back(card);
        }
        INFO("seed " << seed);
        // The closed form starts its intervals anew from the first frame: after a wait the camera may catch up.
        const double closed = last_exposure(frames, interval, write, room);
        CHECK(closed <= time + 1e-9);
        if (write > interval) CHECK_THAT(closed, WithinRel(time, 1e-9));
    }
}

TEST_CASE("what a frame takes from one to the next", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 6;
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::rail, .settle = 1.5};
    shot.rig.rail = "rail";
    shoot.kit.rails[0].speed = 0.5;
    auto report = assess(shoot.kit, shot, {});
    const double n = report.capture.frames;
    REQUIRE(n > 3);
    const double frame = 0.125 + *report.capture.step / 0.5 + 1.5;
    CHECK_THAT(report.capture.cost.cadence.frame, same(frame));
    CHECK_THAT(report.capture.paced_duration, same((n - 1) * frame + 0.125));
    SECTION("a slow flash rules") {
        shot.lights = {test::plain_light()};
        shot.lights[0].power = 1;
        report = assess(shoot.kit, shot, {});
        CHECK_THAT(report.capture.cost.cadence.frame, same(0.125 + 4));
    }
    SECTION("a slow card, once its buffer is full") {
        auto& body = shoot.kit.cameras[0];
        body.write_speed = 5;  // 6 s a frame
        body.buffer_frames = 2;
        body.card_space = n * 60;
        body.charge = n * 4;
        report = assess(shoot.kit, shot, {});
        CHECK_THAT(report.capture.paced_duration, same((n - 1 - 2 + 1) * 6 + 0.125));
        CHECK_THAT(*report.capture.cost.card_share, same(0.5));
        CHECK_THAT(*report.capture.cost.charge_share, same(0.25));
        // The first that waits: (k - 1) * 6 > k * frame.
        const double first = std::floor(6 / (6 - frame)) + 1;
        CHECK(report.capture.cost.frames_to_stall == first);
    }
}

TEST_CASE("more frames stop helping where a twentieth is all that is left", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 200; ++seed) {
        test::Random random(seed);
        Shoot shoot = test::plain_shoot();
        Shot shot = random_stack(random, shoot);
        shot.capture.mover = Mover::rail;
        const auto report = assess(shoot.kit, shot, {});
        if (!report.capture.stack) continue;
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto& cost = report.capture.cost;
        const double span = report.capture.stack->span.length();
        INFO("seed " << seed);
        CHECK(blur_of_frames(plan, span, cost.enough_frames) <= 1.05 * cost.floor * (1 + 1e-9));
        if (cost.enough_frames > 1) CHECK(blur_of_frames(plan, span, cost.enough_frames - 1) > 1.05 * cost.floor);
        CHECK(cost.blur >= cost.floor);
    }
}

TEST_CASE("ring positions, rail positions and planes of a stack agree with its report", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 400; ++seed) {
        test::Random random(seed);
        Shoot shoot = test::plain_shoot();
        const Shot shot = random_stack(random, shoot);
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto report = assess(shoot.kit, shot, {});
        const auto& capture = report.capture;
        if (!capture.stack || capture.frames > 2000) continue;
        const auto frames = stack_frames(plan, report);
        INFO("seed " << seed);
        REQUIRE(frames.size() == static_cast<std::size_t>(capture.frames));
        const double hair = 1e-6 * (1 + std::abs(capture.stack->last));
        CHECK(std::abs(frames.front().plane - capture.stack->first) < hair);
        if (!capture.stack->bracket() || !capture.stack->bracket()->choice)
            CHECK(std::abs(frames.back().plane - capture.stack->last) < hair);
        for (std::size_t i = 1; i < frames.size(); ++i) {
            CHECK(frames[i].plane > frames[i - 1].plane);
            if (capture.stack->rail()) {
                CHECK_THAT(*frames[i].rail - *frames[i - 1].rail, WithinRel(*capture.step, 1e-6));
                CHECK_THAT(frames[i].plane - frames[i - 1].plane, WithinRel(*capture.step, 1e-6));
            }
            if (capture.stack->ring()) {
                CHECK_THAT(std::abs(*frames[i].ring - *frames[i - 1].ring),
                           WithinRel(capture.stack->ring()->ring_step, 1e-6));
                const double step = frames[i].plane - frames[i - 1].plane;
                CHECK(step > capture.stack->ring()->least_step * 0.9);
                CHECK(step < capture.stack->ring()->greatest_step * 1.1);
            }
        }
        if (capture.stack->ring()) {
            const auto& ring = *capture.stack->ring();
            // What room is left in front is there: the ring can put a plane where it ends, and none much nearer.
            const double first = *optics::focus_at_ring(plan.train, ring.first_ring).subject_to_sensor;
            CHECK(ring.room_in_front >= 0);
            const double least = first - ring.room_in_front;
            if (ring.room_in_front > 1e-6)
                CHECK(optics::ring_for_distance(plan.train, least + 1e-6 * least, ring.first_ring));
            double nearest = least;
            for (int k = 0; k <= 400; ++k)
                nearest =
                    std::min(nearest, optics::focus_at_ring(plan.train, k / 400.0).subject_to_sensor.value_or(nearest));
            CHECK(least - nearest < 0.01 * least);
            if (ring.room_behind) CHECK(*ring.room_behind >= 0);
        }
        if (capture.stack->rail() && capture.stack->rail()->clearance)
            CHECK_THAT(*capture.stack->rail()->clearance,
                       WithinRel(*report.optics.working_distance - frames.back().plane, 1e-6));
    }
}

TEST_CASE("a unit-focusing lens moves by f times its change of magnification", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 15;
    shot.capture = {.mode = CaptureMode::stack, .mover = Mover::ring};
    const auto report = assess(shoot.kit, shot, {});
    const auto& ring = *report.capture.stack->ring();
    // m_s = ring * M with M = 1, v = f (1 + m_s): 100 mm a whole travel.
    CHECK_THAT(ring.image_travel, WithinRel(100 * std::abs(ring.last_ring - ring.first_ring), 1e-9));
    // To first order m^2 step/|1 - m^2| a step (MODEL 2): 0.25/0.75 of it at half life size.
    CHECK_THAT(ring.ring_step * 100, WithinRel(*report.capture.step * 0.25 / 0.75, 0.01));
}

TEST_CASE("a frame that holds everything is one frame, whoever moves", "[shoot][stack]") {
    for (const auto mover : {Mover::ring, Mover::rail, Mover::hand}) {
        Shoot shoot = test::plain_shoot();
        Shot& shot = shoot.shots[0];
        shot.subject.depth = 0.2;
        shot.capture = {.mode = CaptureMode::stack, .mover = mover};
        const auto report = assess(shoot.kit, shot, {});
        CHECK(report.capture.frames == 1);
        CHECK(report.capture.cost.exposures == 1);
        const auto plan = plan_of(shoot.kit, shot, {});
        const auto ranges = sharp_ranges(plan, report);
        REQUIRE(ranges.size() == 1);
        CHECK(ranges[0].first <= 1e-9);
        CHECK(ranges[0].second >= 0.2 - 1e-9);
        CHECK(report.capture.paced_duration == shot.exposure.shutter);
    }
}

TEST_CASE("a slice beyond the subject is taken as far as the subject goes", "[shoot][stack]") {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    shot.subject.depth = 4;
    shot.capture.mode = CaptureMode::stack;
    shot.capture.slice = Slice{.from = 1, .to = 90};
    CHECK(span_of(plan_of(shoot.kit, shot, {})).to == 4);
    shot.capture.slice = Slice{.from = 6, .to = 9};
    const auto span = span_of(plan_of(shoot.kit, shot, {}));
    CHECK(span.from == 4);
    CHECK(span.length() == 0);
    CHECK(assess(shoot.kit, shot, {}).capture.frames == 1);
}

TEST_CASE("absurd stacks are planned without an absurd answer", "[shoot][stack]") {
    for (unsigned seed = 0; seed < 300; ++seed) {
        const auto shoot = test::random_shoot(seed);
        for (Shot shot : shoot.shots) {
            shot.capture.mode = CaptureMode::stack;
            const auto report = assess(shoot.kit, shot, {});
            const auto& capture = report.capture;
            INFO("seed " << seed);
            CHECK(capture.frames >= 1);
            CHECK(capture.frames == std::floor(capture.frames));
            CHECK(std::isfinite(capture.paced_duration));
            CHECK(capture.paced_duration > 0);
            CHECK(capture.cost.exposures >= 1);
            if (capture.step) CHECK(*capture.step > 0);
            if (!capture.stack || capture.frames > 3000) continue;
            for (const auto& frame : stack_frames(plan_of(shoot.kit, shot, {}), report)) {
                CHECK_FALSE(std::isnan(frame.plane));
                if (frame.ring) CHECK((*frame.ring >= 0 && *frame.ring <= 1));
            }
        }
    }
}
