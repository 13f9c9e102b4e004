#include "advice/worth/judgement.hpp"
#include "advice/worth/worth.hpp"

#include "advice/worth/ladder.hpp"
#include "optics/depth.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "plan/set/background_blur.hpp"
#include "shoot/change/edit.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "text/scales.hpp"

#include <algorithm>

using namespace poquito;
using namespace shoot;
using namespace plan;
using namespace advice;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

Shoot deep_shoot() {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 12;
    shot.lights = {test::plain_light()};
    shot.background = Background{.distance = 200};
    shoot.kit.cameras.front().bracket.composite_max_frames = 15;
    return shoot;
}

const Approach& find(const Judgement& judgement, const char* id) {
    const auto found = std::ranges::find(judgement.approaches, id, &Approach::id);
    REQUIRE(found != judgement.approaches.end());
    return *found;
}

std::string best_of(const Shoot& shoot) {
    const auto judgement = judge(plan::plan_of(shoot.kit, shoot.shots.front(), {})).value();
    return judgement.approaches[judgement.best].id;
}

}  // namespace

TEST_CASE("ladder values equal single reports", "[shoot][ladder]") {
    const auto shoot = deep_shoot();
    const auto& shot = shoot.shots.front();
    for (const auto& kind : ladder_kinds()) {
        const auto rungs = climb(plan::plan_of(shoot.kit, shot, {}), kind.of,
                                 ladder_values(plan::plan_of(shoot.kit, shot, {}), kind.of));
        INFO(kind.id);
        if (kind.of == LadderOf::lights) continue;  // with the powers that all of them find: a case of its own below
        REQUIRE(rungs.size() >= 4);
        CHECK(std::ranges::count(rungs, true, &Rung::is_own) == 1);
        for (const auto& rung : rungs) {
            const auto alone = assess(shoot.kit, at_rung(shot, kind.of, rung.value), {});
            CHECK(rung.report.sharpness.depth_of_field == alone.sharpness.depth_of_field);
            CHECK(rung.report.sharpness.background_disc_share == alone.sharpness.background_disc_share);
            CHECK(rung.report.capture.frames == alone.capture.frames);
            if (alone.optics.reached)
                CHECK_THAT(own_value(plan::plan_of(shoot.kit, rung.shot, {}), kind.of), WithinRel(rung.value, 1e-6));
            CHECK_THAT(*rung.ends_blur, same(std::hypot(*alone.sharpness.edge_blur, alone.sharpness.airy_diameter)));
            CHECK_FALSE(rung_text(shot, kind.of, rung.value).empty());
            // One measure: what a rung is worth is what its plan is worth, over stops and sizes with the light made up.
            if (kind.of != LadderOf::aperture && kind.of != LadderOf::magnification)
                CHECK_THAT(rung.worth, same(worth_of(plan::plan_of(shoot.kit, rung.shot, {}), alone).worth));
            if (rung.is_best)
                for (const auto& other : rungs) CHECK(rung.worth >= other.worth);
        }
    }
}

TEST_CASE("the ladder marks what is worth most, and nothing where what is set is as good", "[shoot][ladder]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    shot.capture.mode = CaptureMode::single;
    const auto best_at = [&](double f_number) {
        shot.exposure.f_number = f_number;
        const auto rungs = climb(plan::plan_of(shoot.kit, shot, {}), LadderOf::aperture,
                                 ladder_values(plan::plan_of(shoot.kit, shot, {}), LadderOf::aperture));
        const auto best = std::ranges::find(rungs, true, &Rung::is_best);
        return best == rungs.end() ? std::optional<double>() : std::optional(best->value);
    };
    const auto best = best_at(2.8);  // far too shallow for it
    REQUIRE(best);
    CHECK(*best > 5.6);
    CHECK_FALSE(best_at(*best));
}

TEST_CASE("lights side by side give alone what they give together", "[shoot][ladder]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots[0];
    shot.ambient = Ambient{.ev100 = 4};
    shot.lights = {test::plain_light(), test::plain_light()};
    shot.lights[1].position.azimuth = 50;
    for (auto& light : shot.lights) light.power.reset();
    const auto rungs = climb(plan::plan_of(shoot.kit, shot, {}), LadderOf::lights,
                             ladder_values(plan::plan_of(shoot.kit, shot, {}), LadderOf::lights));
    const auto front = [&](double value) {
        const auto found = std::ranges::find(rungs, value, &Rung::value);
        REQUIRE(found != rungs.end());
        return std::exp2(*found->report.light.front_total);
    };
    CHECK_THAT(front(0), same(1));  // together they find a correct exposure
    const double ambient = front(all_flashes_off);
    CHECK_THAT(front(1) + front(2) - ambient, same(1));  // each alone has the light that is there beside it
    CHECK_THAT(front(muted(0)), same(front(2)));
    CHECK(rung_text(shot, LadderOf::lights, 2) == "B alone");
    // Taken, the others stand on the set and stay dark.
    const auto alone = at_rung(shot, LadderOf::lights, 2);
    CHECK((alone.lights[0].off && !alone.lights[1].off));
}

TEST_CASE("a ladder over the stop takes the lens's full stops, and says what light each needs", "[shoot][ladder]") {
    const auto shoot = deep_shoot();
    const auto& shot = shoot.shots.front();  // f/8 on an f/2.8 to f/32
    const auto values = ladder_values(plan::plan_of(shoot.kit, shot, {}), LadderOf::aperture);
    CHECK(values == std::vector<double>{2.8, 4, 5.6, 8, 11, 16, 22, 32});
    const auto rungs = climb(plan::plan_of(shoot.kit, shot, {}), LadderOf::aperture, values);
    for (const auto& rung : rungs) CHECK_THAT(rung.light_needed, WithinAbs(2 * std::log2(rung.value / 8), 1e-9));
    // The same magnification changes the light by its own loss: from 0.5 to 1 it is 2 log2(2 / 1.5).
    const auto closer = climb(plan::plan_of(shoot.kit, shot, {}), LadderOf::magnification, {0.5, 1});
    CHECK_THAT(closer[1].light_needed, WithinAbs(2 * std::log2(2 / 1.5), 1e-6));
    auto bare = shot;
    bare.background.reset();
    CHECK(ladder_values(plan::plan_of(shoot.kit, bare, {}), LadderOf::background).empty());
    bare.subject.depth = 0;
    CHECK(ladder_values(plan::plan_of(shoot.kit, bare, {}), LadderOf::focus).empty());
}

TEST_CASE("the judgement weighs the schools by the report's own numbers", "[shoot][judgement]") {
    const auto shoot = deep_shoot();
    const auto& shot = shoot.shots.front();
    const auto judgement = judge(plan::plan_of(shoot.kit, shot, {})).value();
    REQUIRE(judgement.approaches.size() == 5);
    for (const auto& one : judgement.approaches) {
        const auto alone = assess(shoot.kit, one.shot, {});
        INFO(one.id);
        CHECK(alone.capture.frames == one.report.capture.frames);
        CHECK(one.shot.capture.approach == one.id);
        CHECK_THAT(one.flash_energy, same(alone.capture.frames * alone.light.sources.front().power));
        CHECK(one.seconds == alone.capture.paced_duration);
        CHECK(one.background == alone.sharpness.background_disc_share);
        CHECK(one.middle_blur <= one.ends_blur + 1e-12);
    }
    auto off_middle = shot;
    off_middle.sharpness.focus_offset = 3;
    CHECK(find(judge(plan::plan_of(shoot.kit, off_middle, {})).value(), "single-best").shot.sharpness.focus_offset ==
          0);
    CHECK(find(judge(plan::plan_of(shoot.kit, off_middle, {})).value(), "single-own").shot.sharpness.focus_offset == 3);
    CHECK(find(judgement, "single-own").shot.exposure.f_number == 8);
    CHECK(find(judgement, "stack-halo-safe").shot.exposure.f_number == 8);
    // A stack's worst point lies half a step from a frame.
    const auto& stack = find(judgement, "stack-halo-safe");
    const Plan plan = plan_of(shoot.kit, stack.shot, {});
    const double between = optics::blur_disc(imaging_of(plan, 8), *stack.report.capture.step / 2).value();
    CHECK_THAT(stack.ends_blur, same(std::hypot(between, stack.report.sharpness.airy_diameter)));
    // Text: two sentences.
    CHECK(std::ranges::count(judgement.reason, '.') >= 2);
    CHECK(objection(judgement, judgement.best).empty());
    CHECK(objection(judgement, 1 - std::min<std::size_t>(judgement.best, 1)).find("Your choice") == 0);
}

TEST_CASE("still and deep: a stack - in the wind: one frame - thin: one frame - by hand: no long stack",
          "[shoot][judgement]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    CHECK(best_of(shoot).starts_with("stack"));
    shot.subject.sway_amplitude = 2;
    CHECK(best_of(shoot) == "single-best");
    const auto windy = judge(plan::plan_of(shoot.kit, shot, {})).value();
    CHECK_FALSE(find(windy, "stack-halo-safe").against.empty());
    CHECK(windy.reason.find("moves 4 mm") != std::string::npos);
    shot.subject.sway_amplitude = 0;
    shot.subject.depth = 0.2;
    CHECK(best_of(shoot) == "single-best");
    shot.subject.depth = 12;
    shot.rig.support = Support::hand;
    shoot.kit.cameras.front().bracket.composite_max_frames = 0;
    CHECK(best_of(shoot) == "single-best");
    CHECK(judge(plan::plan_of(shoot.kit, shot, {}))->approaches.size() == 4);
}

TEST_CASE("the camera's composite takes the widest stop whose frames it can, as the ring really takes them",
          "[shoot][judgement]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    // More than the rule's steps come to.
    shot.capture.mover = Mover::ring;
    shot.subject.depth = 60;
    shot.rig.focus.value = 0.25;
    for (int most = 8; most <= 40; ++most) {
        INFO(most);
        shoot.kit.cameras.front().bracket.composite_max_frames = most;
        const auto one = find(judge(plan::plan_of(shoot.kit, shot, {})).value(), "composite");
        const bool smallest = one.shot.exposure.f_number >= plan::plan_of(shoot.kit, shot, {}).lens.optics.min_aperture;
        if (!smallest) CHECK(one.report.capture.frames <= most);
        if (!smallest) CHECK(one.covered == 1);
        auto wider = one.shot;
        wider.exposure.f_number = text::step_f_number(wider.exposure.f_number, -1);
        CHECK(assess(shoot.kit, wider, {}).capture.frames > most);
    }
}

TEST_CASE("the camera's composite says how much of the depth its frames hold", "[shoot][judgement]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    shoot.kit.cameras.front().bracket.composite_max_frames = 400;
    const auto wide = find(judge(plan::plan_of(shoot.kit, shot, {})).value(), "composite");
    CHECK(wide.shot.exposure.f_number == 2.8);
    shoot.kit.cameras.front().bracket.composite_max_frames = 2;
    const auto little = find(judge(plan::plan_of(shoot.kit, shot, {})).value(), "composite");
    CHECK(little.covered < 1);
    const auto& capture = little.report.capture;
    CHECK_THAT(little.covered, same((*capture.step + *capture.frame_depth) / 12));
    CHECK(little.against.find("2 frames hold") == 0);
}

TEST_CASE("a plate in which nothing has to be sharp is taken at the stop that it has", "[shoot][judgement]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    for (const auto role : {PlateRole::clean, PlateRole::shadow}) {
        shot.plate = Plate{.picture = "one", .role = role};
        const auto judgement = judge(plan::plan_of(shoot.kit, shot, {})).value();
        CHECK(judgement.approaches[judgement.best].id == "single-own");
        CHECK(judgement.reason.find("Nothing in this plate") == 0);
        // As the whole plans have it: nothing of sharpness is lost.
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        CHECK(worth_of(plan, plan::assess(plan)).kept(Quality::sharp) == 1);
    }
    shot.plate = Plate{.picture = "one", .role = PlateRole::hero};
    CHECK(best_of(shoot).starts_with("stack"));
}

TEST_CASE("at infinity nothing is judged", "[shoot][judgement]") {
    auto shoot = deep_shoot();
    shoot.shots.front().rig.focus = {.by = FocusBy::magnification, .value = 0};
    CHECK_FALSE(judge(plan::plan_of(shoot.kit, shoot.shots.front(), {})).has_value());
}

TEST_CASE("judgements of generated shots are finite and pick one that can be done where there is one",
          "[shoot][judgement][generated]") {
    for (unsigned seed = 0; seed < test::generated(500); ++seed) {
        const auto shoot = test::random_shoot(seed);
        const auto judgement = judge(plan::plan_of(shoot.kit, shoot.shots.front(), {}));
        if (!judgement) continue;
        INFO("seed " << seed);
        CHECK_FALSE(judgement->reason.empty());
        for (const auto& one : judgement->approaches) {
            CHECK(std::isfinite(one.ends_blur));
            CHECK(one.tolerance > 0);
            CHECK(one.covered > 0);
        }
        CHECK(judgement->approaches[judgement->best].against.empty());
    }
}

TEST_CASE("the background melts from the stop that is said", "[shoot][behind]") {
    auto shoot = deep_shoot();
    auto& shot = shoot.shots.front();
    const double f_number = melting_f_number(plan::plan_of(shoot.kit, shot, {})).value();
    shot.exposure.f_number = f_number;
    const auto report = assess(shoot.kit, shot, {});
    CHECK_THAT(*report.sharpness.background_blur_over_detail, WithinRel(melts_from, 1e-9));
    CHECK_THAT(*melting_distance(plan::plan_of(shoot.kit, shot, {})), WithinRel(200.0, 1e-9));
    CHECK(recognition(2.99) == Recognition::soft_shape);
    CHECK(recognition(3) == Recognition::melted);
    CHECK(recognition(0.1) == Recognition::sharp);
    for (const double distance : {0.0, 5.0, 200.0, 5000.0}) {
        shot.background->distance = distance;
        CHECK_FALSE(background_sentence(plan::plan_of(shoot.kit, shot, {}), assess(shoot.kit, shot, {})).empty());
    }
    shot.background.reset();
    CHECK_FALSE(melting_f_number(plan::plan_of(shoot.kit, shot, {})).has_value());
}

TEST_CASE("a shot alone takes its gear along, and comes back to its own place", "[shoot][edit]") {
    auto shoot = test::random_shoot(3);
    const auto before = shoot;
    auto one = alone(shoot, 0);
    CHECK(one.kit.lenses.size() == 1);
    CHECK(one.kit.cameras.size() == 1);
    CHECK(one.shots.front() == shoot.shots.front());
    shoot.shots.front().exposure.f_number = 99;
    const auto back = adopt(shoot, one, 0);
    CHECK(back.replaced);
    CHECK(back.gear_added == 0);
    CHECK(shoot == before);
    // Into another kit: the gear comes along, under another id where that is taken by another piece.
    auto other = test::plain_shoot();
    other.kit.lenses.front().optics.focal_length = 50;
    one.shots.front().id = "newcomer";
    const auto came = adopt(other, one, 0);
    CHECK_FALSE(came.replaced);
    CHECK(came.index == 1);
    CHECK(came.gear_added > 0);
    const auto& shot = other.shots[1];
    CHECK(shot.rig.lens != other.shots[0].rig.lens);
    CHECK(lens_of(other.kit, shot).optics.focal_length == lens_of(one.kit, one.shots.front()).optics.focal_length);
    CHECK(lens_of(other.kit, other.shots[0]).optics.focal_length == 50);
    CHECK_THAT(assess(other.kit, shot, {}).optics.magnification,
               same(assess(one.kit, one.shots.front(), {}).optics.magnification));
}
