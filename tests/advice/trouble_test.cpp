// One voice: every remedy that is offered lowers the trouble, so that they cannot run in a circle.
#include "advice/worth/trouble.hpp"

#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::Random;

namespace {

Trouble trouble(const gear::Kit& kit, const Shot& shot, const Limits& limits) {
    const auto plan = plan::plan_of(kit, shot, {limits});
    return trouble_of(plan, plan::assess(plan));
}

Limits some_limits(Random& random) {
    Limits limits = usual_limits();
    if (random.coin()) limits.iso = random.log_between(200, 6400);
    if (random.coin()) limits.f_number = random.between(8, 22);
    if (random.coin()) limits.give_up = {Loss::depth, Loss::iso};
    if (random.coin()) limits.give_up = {Loss::motion, Loss::time, Loss::iso};
    return random.coin(0.2) ? Limits{} : limits;
}

}  // namespace

TEST_CASE("every remedy of generated shots lowers the trouble", "[advice][trouble][generated][long]") {
    int offered = 0;
    for (unsigned number = 0; number < test::generated(350); ++number) {
        Random random(number);
        const auto shoot = test::random_shoot(number);
        const auto limits = some_limits(random);
        for (const Shot& shot : shoot.shots) {
            INFO(number << " " << shot.id);
            const auto now = trouble(shoot.kit, shot, limits);
            for (const auto& note : assessment_of(shoot.kit, shot, {limits}).advice.notes) {
                if (!note.remedy) continue;
                ++offered;
                INFO(note.code << ": " << note.remedy->label);
                const auto& kit = note.remedy->kit ? *note.remedy->kit : shoot.kit;
                CHECK(is_less(trouble(kit, note.remedy->shot, limits), now));
            }
        }
    }
    CHECK(offered > static_cast<int>(test::generated(560)));
}

TEST_CASE("taking remedies in any order comes to an end, and nothing is left that one click could do",
          "[advice][trouble][generated]") {
    for (unsigned number = 0; number < test::generated(60); ++number) {
        Random random(number);
        const auto shoot = test::random_shoot(number);
        const auto limits = some_limits(random);
        for (Shot shot : shoot.shots) {
            INFO(number << " " << shot.id);
            const auto righted = put_right(shoot.kit, shot, {limits});
            CHECK(std::ranges::none_of(assessment_of(shoot.kit, righted, {limits}).advice.notes,
                                       [](const Note& note) { return note.remedy && !note.remedy->kit; }));
            int taken = 0;
            for (;; ++taken) {
                REQUIRE(taken < 200);
                const auto assessed = assessment_of(shoot.kit, shot, {limits});
                std::vector<Shot> ways;
                for (const auto& note : assessed.advice.notes)
                    if (note.remedy && !note.remedy->kit) ways.push_back(note.remedy->shot);
                if (ways.empty()) break;
                const auto one = static_cast<std::size_t>(random.whole(0, static_cast<int>(ways.size()) - 1));
                shot = Shot(ways[one]);
            }
        }
    }
}

TEST_CASE("wanted shallow focus is praised, and one time too long is one note", "[advice][trouble]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots.front();
    shot.subject.depth = 12;
    shot.sharpness.rule = BlurRule::diagonal;
    shot.capture.slice = Slice{.from = 0, .to = 0.5};
    const auto has = [&](const char* code) {
        return std::ranges::count(advise(shoot.kit, shot, {}).notes, code, &Note::code) > 0;
    };
    CHECK(has("shallow-as-wanted"));
    CHECK_FALSE(has("depth-less-than-subject"));
    CHECK_FALSE(has("zone-not-held"));
    shot.ambient = Ambient{.ev100 = 9};
    shot.rig.support = Support::hand;
    shot.subject.speed = 20;
    CHECK(has("motion-blur"));
    CHECK_FALSE(has("hand-shake"));
}
